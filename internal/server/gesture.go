package server

import (
	"maps"
	"reflect"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/edit"
	"sturdyelbow/internal/project"
)

// gestureForm describes a gesture to readers of the API: an object with one
// member, named for the gesture.
type gestureForm struct{}

// Schema lists the gestures that the core has registered.
func (gestureForm) Schema(r huma.Registry) *huma.Schema {
	ref := &huma.Schema{Ref: "#/components/schemas/Edit"}
	if _, done := r.Map()["Edit"]; done {
		return ref
	}
	s := &huma.Schema{
		Type:                 huma.TypeObject,
		Description:          "One gesture, as the member of its name; or say, a line that is typed, or draw, all lines that the frame is drawn from.",
		Properties:           map[string]*huma.Schema{},
		AdditionalProperties: false,
	}
	r.Map()["Edit"] = s // before its members, of which some hold gestures
	all := edit.Names()
	for _, name := range slices.Sorted(maps.Keys(all)) {
		t := reflect.TypeOf(all[name]).Elem()
		s.Properties[name] = r.Schema(t, true, t.Name())
	}
	s.Properties["say"] = r.Schema(reflect.TypeFor[project.Saying](), true, "Saying")
	s.Properties["draw"] = r.Schema(reflect.TypeFor[Page](), true, "Lines")
	s.Properties["unit"] = &huma.Schema{Type: huma.TypeString, Description: "Of bare numbers."}
	s.Properties["answers"] = &huma.Schema{
		Type:        huma.TypeArray,
		Items:       &huma.Schema{Type: huma.TypeString},
		Description: "The options chosen, by their ids.",
	}
	s.PrecomputeMessages()
	return ref
}

// describeGestures lets the API describe what the core reads and writes itself.
func describeGestures(r huma.Registry) {
	r.RegisterTypeAlias(reflect.TypeFor[edit.Edit](), reflect.TypeFor[gestureForm]())
	r.RegisterTypeAlias(reflect.TypeFor[Asked](), reflect.TypeFor[gestureForm]())
}
