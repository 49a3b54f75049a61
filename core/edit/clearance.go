package edit

import (
	"slices"
	"strings"

	"sturdyelbow/core/frame"
)

// ClearanceCheck checks the frame against a size that is not its own.
type ClearanceCheck struct {
	Name  string              `json:"name"`
	Kind  frame.ClearanceKind `json:"kind,omitempty"`
	Say   string              `json:"say,omitempty"` // 32, 32 x 80, 40 x 30 x 20
	Joint string              `json:"joint,omitempty"`
	Drop  bool                `json:"drop,omitempty"`
}

var _ = register[ClearanceCheck]("check")

func (w *ClearanceCheck) on(e *editor) (Done, error) {
	name := strings.TrimSpace(w.Name)
	if w.Drop {
		if !slices.ContainsFunc(e.doc.ClearanceChecks, func(v frame.ClearanceCheck) bool { return v.ID == name }) {
			return Done{}, refuse("pick it in the list", "there is no check %q", name)
		}
		e.doc.DropClearanceCheck(name)
		return Done{Label: name + ": no longer checked"}, nil
	}
	if name == "" {
		return Done{}, in("/name", refuse("call it by what it is: the hall door", "a check without a name"))
	}
	v := frame.ClearanceCheck{ID: name, Kind: w.Kind, Joint: w.Joint}
	if w.Joint != "" {
		if _, err := e.node(w.Joint); err != nil {
			return Done{}, in("/joint", err)
		}
	}
	parts := strings.FieldsFunc(strings.ToLower(w.Say), func(c rune) bool { return c == 'x' || c == '×' || c == ',' })
	if len(parts) == 0 || len(parts) > 3 {
		return Done{}, in("/say", refuse("write 32, 32 x 80, or 40 x 30 x 20", "how large is %s?", name))
	}
	for k, p := range parts {
		d, err := ParseSize(p, e.unit, frame.Centre)
		if err != nil {
			return Done{}, in("/say", err)
		}
		v.Size[k] = d.Value
	}
	e.doc.SetClearanceCheck(v)
	return Done{Label: name + " checked"}, e.validate()
}
