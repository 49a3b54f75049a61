package edit

import (
	"cmp"
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

// Retype gives a size another value, as it was typed over in its field: what it contradicts then is
// shown, and not asked about.
type Retype struct {
	ID      string        `json:"id"`
	Length  string        `json:"length"`
	Meaning frame.Meaning `json:"meaning,omitempty"` // what it measures from now on; as before where it is left out
}

var _ = register[Retype]("retype")

func (w *Retype) on(e *editor) (Done, error) {
	s := e.doc.SizeOf(w.ID)
	if s == nil {
		return Done{}, in("/id", refuse("pick it again", "there is no size %q", w.ID))
	}
	if w.Meaning != "" && !slices.Contains(frame.Meanings(), w.Meaning) {
		return Done{}, in("/meaning", refuse("use one of the meanings of a size", "no such meaning %q", w.Meaning))
	}
	n, err := ParseSize(w.Length, e.unit, cmp.Or(w.Meaning, s.Meaning))
	if err != nil {
		return Done{}, in("/length", err)
	}
	s.Value, s.Text, s.Unit, s.Meaning, s.Inferred, s.Solves = n.Value, n.Text, n.Unit, n.Meaning, false, ""
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	for i := range e.view.Clashes {
		e.clashed[e.view.Clashes[i].Key()] = true
	}
	return Done{Label: "Size " + s.Says()}, nil
}

// Hold says how the sockets at joints, or at both ends of pipes, are held; with neither, those of
// which nothing else is said.
type Hold struct {
	Joints []string   `json:"joints,omitempty"`
	Pipes  []string   `json:"pipes,omitempty"`
	Mode   frame.Mode `json:"mode,omitempty"`
	Reason string     `json:"reason,omitempty"`

	Rules []frame.ModeRule `json:"rules,omitempty"` // or rules of any scope, as they are
}

var _ = register[Hold]("hold")

func (w *Hold) on(e *editor) (Done, error) {
	if len(w.Rules) > 0 {
		for _, r := range w.Rules {
			e.doc.SetMode(r)
		}
		return Done{Label: "How joints are held"}, e.validate()
	}
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
		if !e.holds(n) {
			return Done{}, in(
				"/joints",
				refuse(
					"cap it first, or name a joint with a fitting",
					"nothing is held at %s: it is the open end of a pipe",
					mention.Of(id),
				),
			)
		}
		rule(frame.ModeRule{Joint: e.view.Graph.Nodes[n].ID})
		what = append(what, mention.Of(e.view.Graph.Nodes[n].ID))
	}
	for _, id := range w.Pipes {
		i, err := e.edge(id)
		if err != nil {
			return Done{}, in("/pipes", err)
		}
		ends := e.view.Graph.Edges[i].Ends
		if !e.holds(ends[0]) && !e.holds(ends[1]) {
			return Done{}, in(
				"/pipes",
				refuse("cap it first, or name one that goes into a fitting", "nothing holds %s: both its ends are open", mention.Of(id)),
			)
		}
		for _, n := range ends {
			if e.holds(n) {
				rule(frame.ModeRule{Joint: e.view.Graph.Nodes[n].ID, Pipe: id})
			}
		}
		what = append(what, mention.Of(id))
	}
	if len(what) == 0 {
		e.doc.Mode = w.Mode
		what = append(what, "Joints")
	}
	return Done{Label: strings.Join(what, ", ") + ": " + frame.Label(frame.ModeWords(), w.Mode)}, nil
}

// holds says whether a fitting stands at a joint, or a cap: what a pipe goes into.
func (e *editor) holds(node int) bool { return e.view.Fits.Joints[node].Kind != "" }

// Label says what a size is called.
type Label struct {
	ID   string `json:"id"`
	Name string `json:"name"` // empty takes the name away
}

var _ = register[Label]("label")

func (w *Label) on(e *editor) (Done, error) {
	s := e.doc.SizeOf(w.ID)
	if s == nil {
		return Done{}, in("/id", refuse("pick it again", "there is no size %q", w.ID))
	}
	s.Label = strings.TrimSpace(w.Name)
	return Done{Label: fmt.Sprintf("%s is called %s", s.Says(), s.Label)}, nil
}
