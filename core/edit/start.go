package edit

import (
	"cmp"

	"sturdyelbow/core/frame"
)

// Start begins with a frame that is there already, as one that was opened from a file. It is the
// first line of the page of such a frame.
type Start struct {
	From frame.Document `json:"from"`
}

var _ = register[Start]("start")

func (w *Start) on(e *editor) (Done, error) {
	if len(e.view.Graph.Nodes) > 0 {
		return Done{}, refuse("bring it in as a part", "the frame has begun already")
	}
	if _, err := frame.Expand(&w.From); err != nil {
		return Done{}, refuse("mend it there first", "that frame cannot be built as it stands")
	}
	e.doc.Become(&w.From)
	return Done{Label: "Begun with " + cmp.Or(w.From.Name, "a frame")}, e.renamedOnly()
}
