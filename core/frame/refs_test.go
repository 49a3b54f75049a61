package frame_test

import (
	"fmt"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
)

// plain are the fields of text that name nothing.
var plain = map[string]bool{
	"Document.Name": true, "Document.Units": true, "Document.Size": true, "Document.Mode": true,
	"Definition.ID": true, "Definition.Name": true, "Definition.Size": true, "Definition.Mode": true,
	"Plane.ID": true, "Joint.ID": true, "Joint.End": true, "Joint.Mode": true, "Joint.Reason": true, "Forced.Kind": true,
	"Pipe.ID": true, "Pipe.Size": true, "Pipe.Path": true, "Insertion.Mode": true, "Insertion.Reason": true,
	"Anchor.Text": true, "Anchor.Unit": true, "Anchor.Datum": true, "Anchor.Side": true,
	"Size.ID": true, "Size.Text": true, "Size.Unit": true, "Size.Meaning": true, "Size.Axis": true, "Size.Label": true, "Size.Prompt": true,
	"GaveWay.Words": true, "Reason.ID": true, "Reason.Kind": true, "Reason.Axis": true, "Reason.EqualAxis": true,
	"Use.ID": true, "Use.Mirror": true, "Use.Size": true, "Use.Mode": true,
	"Joint.Name": true, "Link.ID": true, "Link.Kind": true, "Link.Size": true, "ModeRule.Kind": true, "ModeRule.Mode": true, "ModeRule.Reason": true,
	"Tolerance.Class": true, "ClearanceCheck.ID": true, "ClearanceCheck.Kind": true,
	"Custom.ID": true, "Custom.Source": true, "Custom.Size": true, "Custom.Note": true,
}

// fill gives every field of text that bears a reference a name of its own, and
// says which they are; what is neither a reference nor known to be plain is a
// failure.
func fill(t *testing.T, v reflect.Value, where, tag string, into map[string]string) {
	switch v.Kind() {
	case reflect.String:
		switch {
		case tag != "":
			name := fmt.Sprintf("ref%d", len(into))
			into[name] = where
			v.SetString(name)
		case !plain[where]:
			assert.Fail(t, "a field of text that is neither a reference nor known to be plain", where)
		}
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(t, v.Elem(), where, tag, into)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 1, 1))
		fill(t, v.Index(0), where, tag, into)
	case reflect.Array:
		for i := range v.Len() {
			fill(t, v.Index(i), where, tag, into)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if f.IsExported() {
				fill(t, v.Field(i), v.Type().Name()+"."+f.Name, f.Tag.Get("ref"), into)
			}
		}
	}
}

// Every field that bears a reference is visited by the one walker that knows
// them.
func TestEveryReferenceIsVisited(t *testing.T) {
	want := map[string]string{}
	d := &frame.Document{}
	fill(t, reflect.ValueOf(d).Elem(), "", "", want)
	require.Greater(t, len(want), 40)
	// a use's anchor and the joints that copies share are in the names of its
	// group: it has to be found
	d.Groups[0].ID = d.Root.Uses[0].Of
	d.Groups[0].Uses[0].Of = d.Groups[0].ID
	delete(want, "")
	seen := map[string]bool{}
	d.EachRef(func(in *frame.Definition, kind frame.RefKind, ref *string) {
		assert.NotNil(t, in)
		seen[*ref] = true
	})
	for name, where := range want {
		if where == "Use.Of" && !seen[name] && strings.HasPrefix(d.Groups[0].Uses[0].Of, "ref") {
			continue // the group inside the group was given its own name
		}
		assert.True(t, seen[name], "%s is never visited", where)
	}
}
