package linear

import "slices"

// Newton is a set of equations that are to be zero at once, and how they are solved:
// by steps along their slopes, halved where a whole one leads away.
type Newton struct {
	Rounds int
	Off    func(x []float64) []float64                                       // how far each equation is off
	Slopes func(x, off []float64) [][]float64                                // how each changes with each unknown
	Step   func(slopes [][]float64, off []float64) (step []float64, ok bool) // what is to be taken from x; not ok where there is none
	Near   func(off []float64) bool                                          // near enough to stop
	Better func(was, now []float64, share float64) bool                      // after a step of so much of a whole one
	Within func(x []float64) bool                                            // where to look; nil for everywhere
	Afford func() bool                                                       // whether to go on with another round; nil for always
}

// Outcome is how the search ended.
type Outcome int

// Near is an answer; Stuck is the best that could be had; Spent went through all rounds;
// Stopped could not be afforded; Singular has no step to take.
const (
	Near Outcome = iota
	Stuck
	Spent
	Stopped
	Singular
)

// Solve begins at x, which it leaves as it is, and gives where it came to, how far the
// equations are off there, and the slopes that were looked at last; nil where none were.
// Its cost is at most Rounds times that of Slopes and ten times that of Off.
func (n *Newton) Solve(x []float64) (at, off []float64, slopes [][]float64, how Outcome) {
	x = slices.Clone(x)
	off = n.Off(x)
	for range n.Rounds {
		if n.Afford != nil && !n.Afford() {
			return x, off, slopes, Stopped
		}
		if n.Near(off) {
			return x, off, slopes, Near
		}
		slopes = n.Slopes(x, off)
		step, ok := n.Step(slopes, off)
		if !ok {
			return x, off, slopes, Singular
		}
		better := false
		for share := 1.0; share > 1e-3 && !better; share /= 2 {
			next := slices.Clone(x)
			for i := range next {
				next[i] -= share * step[i]
			}
			if n.Within != nil && !n.Within(next) {
				continue
			}
			if o := n.Off(next); n.Better(off, o, share) {
				x, off, better = next, o, true
			}
		}
		if !better {
			return x, off, slopes, Stuck
		}
	}
	return x, off, slopes, Spent
}
