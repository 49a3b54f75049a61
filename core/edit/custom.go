package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
)

// Custom makes a part of the document's own, changes one, or takes one away.
type Custom struct {
	Name   string       `json:"name"`
	Source string       `json:"source,omitempty"` // bought, printed, home-made
	Size   catalog.Size `json:"size,omitempty"`
	Ports  []string     `json:"ports,omitempty"` // each a direction and its stop, as typed: right 5/8; right up@22.5 1/2
	Drop   bool         `json:"drop,omitempty"`
}

var _ = register[Custom]("custom")

func (w *Custom) on(e *editor) (Done, error) {
	id := catalog.Kind(strings.TrimSpace(w.Name))
	if w.Drop {
		if !slices.ContainsFunc(e.doc.CustomFittings, func(c catalog.Custom) bool { return c.ID == id }) {
			return Done{}, refuse("pick it in the list", "there is no part %q", id)
		}
		for _, def := range e.doc.Definitions() {
			for k := range def.Joints {
				if f := def.Joints[k].Fitting; f != nil && f.Kind == id {
					return Done{}, refuse("give that joint another fitting first", "%s stands at %s", id, def.Joints[k].ID)
				}
			}
		}
		e.doc.DropCustomFitting(id)
		return Done{Label: fmt.Sprintf("%s taken away", id)}, nil
	}
	c := catalog.Custom{ID: id, Source: strings.TrimSpace(w.Source), Size: w.Size}
	if c.Size == "" {
		c.Size = e.doc.Size
	}
	for _, text := range w.Ports {
		if strings.TrimSpace(text) == "" {
			continue
		}
		line, err := plainLine(text)
		if err != nil {
			return Done{}, in("/ports", err)
		}
		d, err := ParseSize(line.Length, e.unit, frame.Centre)
		if err != nil {
			return Done{}, in("/ports", refuse(
				"write a direction and the stop, as in right 5/8",
				"how far is the stop of %q from the centre?",
				strings.TrimSpace(text),
			))
		}
		c.Ports = append(c.Ports, catalog.CustomPort{Dir: line.Dir.Unit(), Stop: d.Value})
	}
	if field, what, hint := c.Problem(); what != "" {
		switch { // the gesture has a name for its id, and a line for each port
		case field == "/id":
			field = "/name"
		case strings.HasPrefix(field, "/ports"):
			field = "/ports"
		}
		return Done{}, in(field, &Refusal{What: what, Hint: hint})
	}
	e.doc.SetCustomFitting(c)
	return Done{Label: fmt.Sprintf("Part %s", id)}, nil
}
