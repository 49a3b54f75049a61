package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Usual sets what counts where nothing else is said: the size of pipe, the unit of bare numbers,
// and how sockets are held.
type Usual struct {
	Size  catalog.Size `json:"size,omitempty"`
	Units measure.Unit `json:"units,omitempty"`
	Mode  frame.Mode   `json:"mode,omitempty"`
}

var _ = register[Usual]("usual")

func (w *Usual) on(e *editor) (Done, error) {
	var said []string
	if w.Size != "" {
		if !w.Size.Known() {
			return Done{}, in("/size", refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size))
		}
		e.doc.Size = w.Size
		said = append(said, fmt.Sprintf("pipe of %s", w.Size))
	}
	if w.Units != "" {
		if w.Units != measure.Inches && w.Units != measure.Millimetres {
			return Done{}, in("/units", refuse("use in or mm", "no unit %q", w.Units))
		}
		e.doc.Units = w.Units
		said = append(said, fmt.Sprintf("lengths in %s", w.Units))
	}
	if w.Mode != "" {
		if !slices.Contains(frame.Modes(), w.Mode) {
			return Done{}, in("/mode", refuse("use cemented, slip, eased or pinned", "no such mode %q", w.Mode))
		}
		e.doc.Mode = w.Mode
		said = append(said, "joints "+frame.Label(frame.ModeWords(), w.Mode))
	}
	if len(said) == 0 {
		return Done{}, refuse("say a size, a unit or how joints are held", "nothing to set")
	}
	return Done{Label: "Usual: " + strings.Join(said, ", ")}, nil
}

// Hold says how the sockets at joints, or at both ends of pipes, are held; with neither, those of
// which nothing else is said.
type Hold struct {
	Joints []string   `json:"joints,omitempty"`
	Pipes  []string   `json:"pipes,omitempty"`
	Mode   frame.Mode `json:"mode"`
	Reason string     `json:"reason,omitempty"`
}

var _ = register[Hold]("hold")

func (w *Hold) on(e *editor) (Done, error) {
	if !slices.Contains(frame.Modes(), w.Mode) {
		return Done{}, in("/mode", refuse("use cemented, slip, eased or pinned", "no such mode %q", w.Mode))
	}
	var what []string
	rule := func(r frame.ModeRule) {
		r.Mode, r.Reason = w.Mode, w.Reason
		e.doc.SetMode(r)
	}
	for _, id := range w.Joints {
		n, err := e.node(id)
		if err != nil {
			return Done{}, in("/joints", err)
		}
		rule(frame.ModeRule{Joint: e.view.Graph.Nodes[n].ID})
		what = append(what, mention.Of(e.view.Graph.Nodes[n].ID))
	}
	for _, id := range w.Pipes {
		i, err := e.edge(id)
		if err != nil {
			return Done{}, in("/pipes", err)
		}
		for _, n := range e.view.Graph.Edges[i].Ends {
			rule(frame.ModeRule{Joint: e.view.Graph.Nodes[n].ID, Pipe: id})
		}
		what = append(what, mention.Of(id))
	}
	if len(what) == 0 {
		e.doc.Mode = w.Mode
		what = append(what, "Joints")
	}
	return Done{Label: strings.Join(what, ", ") + ": " + frame.Label(frame.ModeWords(), w.Mode)}, nil
}
