package edit

import (
	"cmp"
	"fmt"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
)

// Bring takes a group from another frame, with the groups inside it, and puts
// it on a joint.
type Bring struct {
	From  frame.Document `json:"from"`  // the other frame
	Group string         `json:"group"` // its group; "" for the whole frame
	On    string         `json:"on"`
}

var _ = register[Bring]("bring")

func (w *Bring) on(e *editor) (Done, error) {
	if _, err := frame.Expand(&w.From); err != nil {
		return Done{}, refuse("mend it there first", "that frame cannot be built as it stands")
	}
	main := w.From.Root
	main.ID, main.Name = "frame", w.From.Name
	if w.Group != "" {
		g := w.From.Group(w.Group)
		if g == nil {
			return Done{}, refuse("pick one of its groups", "that frame has no group %q", w.Group)
		}
		main = *g
	}
	there, err := e.solve(&w.From)
	if err != nil {
		return Done{}, refuse("mend it there first", "that frame cannot be built as it stands")
	}
	name := cmp.Or(main.Name, main.ID)
	id, groups := e.doc.Import(&w.From, main)
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	place := &Place{Group: id, On: w.On, placed: func(path string) {
		for _, check := range e.doc.ImportSaid(&w.From, heldByKind(there.Graph), w.part(there.Graph), path, groups) {
			e.note("the check %s comes with it", check)
		}
	}}
	if w.Group != "" { // it is held as it was held there
		anchor := anchorOf(&w.From, w.Group)
		place.anchor = &anchor
	}
	for _, m := range frame.Modes() {
		if w.From.Seat(m) != e.doc.Seat(m) {
			e.note("its joints seat as those of this frame do")
			break
		}
	}
	done, err := place.on(e)
	done.Label = fmt.Sprintf("%s brought to %s", name, mention.Of(w.On))
	return done, err
}

// part is the path that the group has in the other frame: of its first use.
func (w *Bring) part(g *frame.Graph) string {
	for _, s := range g.Scopes {
		if w.Group != "" && s.Of == w.Group {
			return s.Path
		}
	}
	return ""
}

// heldByKind gives a frame's holds with those that count for every fitting of a
// kind said of the very pipe ends that they hold: in another frame they would
// count for more.
func heldByKind(g *frame.Graph) (all []frame.ModeRule) {
	for _, h := range g.Doc.ModeRules {
		if h.Kind == "" {
			all = append(all, h)
			continue
		}
		for i := range g.Edges {
			e := &g.Edges[i]
			for end, held := range e.Held {
				if held.Mode == h.Mode && held.Reason == h.Why() {
					all = append(all, frame.ModeRule{Joint: g.Nodes[e.Ends[end]].ID, Pipe: e.ID, Mode: h.Mode, Reason: h.Reason})
				}
			}
		}
	}
	return all
}
