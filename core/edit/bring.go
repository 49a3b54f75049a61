package edit

import (
	"cmp"
	"fmt"

	"sturdyelbow/core/frame"
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
	name := cmp.Or(main.Name, main.ID)
	id := e.doc.Import(&w.From, main)
	if err := e.look(); err != nil {
		return Done{}, err
	}
	place := &Place{Group: id, On: w.On}
	if w.Group != "" { // it is held as it was held there
		anchor := anchorOf(&w.From, w.Group)
		place.anchor = &anchor
	}
	done, err := place.on(e)
	done.Label = fmt.Sprintf("%s brought to %s", name, w.On)
	return done, err
}
