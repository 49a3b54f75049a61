package drawing_test

import (
	"encoding/json"
	"reflect"
	"testing"

	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/drawing"
)

// fill writes a text into every text of a value, whatever it is a text of.
func fill(v reflect.Value, text string) {
	switch v.Kind() {
	case reflect.String:
		if v.CanSet() {
			v.SetString(text)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			fill(v.Field(i), text)
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			fill(v.Index(i), text)
		}
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			fill(v.Elem(), text)
		}
	default:
	}
}

// No text of a plan, whatever field it is in, opens a tag or ends an attribute: the drawing has the elements that it
// has with a harmless one.
func FuzzTextsAreEscaped(f *testing.F) {
	for _, text := range []string{`<b>A</b>`, `"><img src=x onerror=alert(1)>`, `'/><script>alert(1)</script>`, "&amp;<", "]]>", "A\x00\xff<", "</svg>"} {
		f.Add(text)
	}
	drawn := func(t *testing.T, text string) map[string]int {
		data, err := json.Marshal(planned(t, "jump", "x").Frames[0])
		require.NoError(t, err)
		var frame plan.Frame
		require.NoError(t, json.Unmarshal(data, &frame))
		fill(reflect.ValueOf(&frame).Elem(), "x"+text) // so that it is no word that means something
		all := map[string]int{}
		for _, o := range []drawing.Options{{Style: measure.InInches}, {Plain: true}, {Paper: true}} {
			for class, n := range elements(t, drawing.Frame(&frame, o)) {
				all[class] += n
			}
		}
		return all
	}
	f.Fuzz(func(t *testing.T, text string) {
		require.Equal(t, drawn(t, "x"), drawn(t, text))
	})
}
