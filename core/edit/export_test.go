package edit

import "sturdyelbow/core/frame"

// Attempt makes a gesture with its answers and gives what it asks besides as it is, without carrying its options out: what a
// test needs to try one option costs no more than the gesture.
func Attempt(d *frame.Document, ed Edit, solve Solver) (*frame.Document, error) {
	e, _, err := attempt(d, ed, solve)
	if err != nil {
		return nil, err
	}
	return e.doc, nil
}
