package plan

import (
	"fmt"

	"sturdyelbow/core/finding"
)

// Waiting are the lines of a frame that are not in it, because the first of them could not be drawn: the frame is not
// finished, and what is summed up of it is of a part.
type Waiting struct {
	Lines int    `json:"lines"` // how many of them say something
	Words string `json:"words"` // the same in words: 2 lines wait
	Line  int    `json:"line"`  // the first, by its place on the page, from 1
	Text  string `json:"text"`  // of the first
	What  string `json:"what"`  // why it could not be drawn; mentions pipes and joints
	Hint  string `json:"hint"`
}

// wait puts into words how many wait.
func (w *Waiting) wait() string {
	if w.Lines == 1 {
		return "1 line waits"
	}
	return fmt.Sprintf("%d lines wait", w.Lines)
}

// finding tells it: whatever else is found is found in a part of the frame.
func (w *Waiting) finding() finding.Finding {
	return finding.New("unfinished", finding.Stop).
		With("words", w.Words).With("line", w.Line).With("text", w.Text).With("what", w.What).With("mend", w.Hint)
}
