package server

import (
	_ "embed"
	"encoding/json"
	"path"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// fieldsJSON is what each field of the Go types says of itself, by package, type and JSON
// name; make types writes it from their comments.
//
//go:embed fields.json
var fieldsJSON []byte

// describeFields gives every property its field's comment.
func describeFields(r huma.Registry) {
	var said map[string]string
	if err := json.Unmarshal(fieldsJSON, &said); err != nil {
		panic(err) // it is written by make types
	}
	of := map[string]string{} // by schema and property
	for field, text := range said {
		p := strings.SplitN(field, ".", 3)
		pkg := strings.ToUpper(p[0][:1]) + p[0][1:]
		name := p[1]
		if pkg != "Server" && !strings.HasPrefix(name, pkg) {
			name = pkg + name
		}
		of[name+"."+p[2]] = text
	}
	for name, s := range r.Map() {
		if s.Description == "" {
			s.Description = of[name+"."]
		}
		for key, p := range s.Properties {
			if text := of[name+"."+key]; text != "" && p.Description == "" && p.Ref == "" {
				p.Description = text
			}
		}
	}
}

// schemaName tells types of one name in different packages apart: a piece of
// the cut list from a piece of a stick.
func schemaName(t reflect.Type, hint string) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	name := huma.DefaultSchemaNamer(t, hint)
	if t.Name() == "" || t.PkgPath() == "" || !strings.HasPrefix(t.PkgPath(), "sturdyelbow") {
		return name
	}
	pkg := path.Base(t.PkgPath())
	pkg = strings.ToUpper(pkg[:1]) + pkg[1:]
	if pkg == "Server" || strings.HasPrefix(name, pkg) {
		return name
	}
	return pkg + name
}

// filled puts an empty list in place of every nil one that is written, so that a reader of the JSON
// never meets null where a list belongs. A list that is left out where it is empty stays as it is.
func filled[T any](v *T) *T {
	fill(reflect.ValueOf(v).Elem())
	return v
}

func fill(v reflect.Value) {
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if left := f.Type.Kind() == reflect.Slice && v.Field(i).IsNil() && strings.Contains(f.Tag.Get("json"), ",omitempty"); f.IsExported() &&
				!left {
				fill(v.Field(i))
			}
		}
	case reflect.Slice:
		if v.IsNil() && v.CanSet() && v.Type().Elem().Kind() != reflect.Uint8 {
			v.Set(reflect.MakeSlice(v.Type(), 0, 0))
		}
		if k := v.Type().Elem().Kind(); k == reflect.Struct || k == reflect.Slice {
			for i := range v.Len() {
				fill(v.Index(i))
			}
		}
	case reflect.Array:
		if v.Type().Elem().Kind() == reflect.Struct {
			for i := range v.Len() {
				fill(v.Index(i))
			}
		}
	case reflect.Pointer:
		if !v.IsNil() {
			fill(v.Elem())
		}
	}
}
