package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
)

// Tolerance says how exactly some pipes must be cut, or how long one was
// measured on the frame.
type Tolerance struct {
	Pipes    []string    `json:"pipes"`
	Class    frame.Class `json:"class"`
	Extra    string      `json:"extra,omitempty"`    // as typed: what it is cut long by, or held in reserve
	Measured string      `json:"measured,omitempty"` // as typed: the length of one that is measured on the frame
}

var _ = register[Tolerance]("class")

func (w *Tolerance) on(e *editor) (Done, error) {
	if len(w.Pipes) == 0 {
		return Done{}, refuse("pick a pipe", "no pipe to set")
	}
	if !slices.Contains(frame.Classes(), w.Class) {
		return Done{}, refuse("use matched, trim, rough or on-frame", "no such class %q", w.Class)
	}
	t := frame.Tolerance{Class: w.Class}
	if strings.TrimSpace(w.Extra) != "" {
		d, err := e.size(w.Extra, frame.Cut)
		if err != nil {
			return Done{}, err
		}
		t.Extra = d.Value
	}
	if strings.TrimSpace(w.Measured) != "" {
		d, err := e.size(w.Measured, frame.Cut)
		if err != nil {
			return Done{}, err
		}
		if len(w.Pipes) > 1 || w.Class != frame.OnFrame {
			return Done{}, refuse("measure one piece at a time", "a measured length is of one piece that waits for it")
		}
		t.Measured = d.Value
	}
	for _, id := range w.Pipes {
		if _, err := e.edge(id); err != nil {
			return Done{}, err
		}
		was := e.doc.Tolerance(id)
		t.Pipe = id
		if t.Measured > 0 && t.Extra == 0 && was.Class == w.Class {
			t.Extra = was.Extra
		}
		e.doc.SetTolerance(t)
	}
	label := frame.Label(frame.ClassWords(), w.Class)
	if t.Measured > 0 {
		label = "measured " + strings.TrimSpace(w.Measured)
	}
	what := mention.Of(w.Pipes[0])
	if len(w.Pipes) > 1 {
		what = fmt.Sprintf("%d pipes", len(w.Pipes))
	}
	return Done{Label: what + ": " + label, Pipe: w.Pipes[0]}, nil
}
