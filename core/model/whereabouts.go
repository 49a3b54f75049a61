package model

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// sides are the words for the two ends of each axis, in the order in which they are
// said.
var sides = []struct {
	axis      measure.Axis
	low, high string
}{{measure.Z, "lower", "upper"}, {measure.X, "left", "right"}, {measure.Y, "front", "back"}}

const (
	// flat is how thin a frame is along an axis for its sides there to need no words.
	flat = measure.Inch / 2
	// edge is the share of a frame at each side that counts as that side.
	edge = 1.0 / 6
)

// Whereabouts says in plain words where things stand in a frame: "upper left corner".
type Whereabouts struct {
	b        *Built
	from, to measure.Point // round the joints' centres
}

// Whereabouts looks where the joints stand.
func (b *Built) Whereabouts() *Whereabouts {
	w := &Whereabouts{b: b}
	first := true
	for i, p := range b.Points {
		if len(b.Graph.Nodes[i].Pipes) == 0 {
			continue
		}
		if first {
			w.from, w.to, first = p, p, false
		}
		for a := range p {
			w.from[a], w.to[a] = min(w.from[a], p[a]), max(w.to[a], p[a])
		}
	}
	return w
}

// Joint says where a joint is, by its index; "" where the frame has but one place.
func (w *Whereabouts) Joint(i int) string {
	words, axes := w.words(w.b.Points[i], func(measure.Axis) bool { return true })
	if axes == 0 {
		return ""
	}
	if len(words) == axes && axes > 1 {
		return strings.Join(words, " ") + " corner"
	}
	return said(words)
}

// Pipe says where a pipe is, by its index: by its middle, along the axes that it does
// not run.
func (w *Whereabouts) Pipe(i int) string {
	ends := w.b.Graph.Edges[i].Ends
	p, q := w.b.Points[ends[0]], w.b.Points[ends[1]]
	long := p.Distance(q)
	words, axes := w.words(w.middle(i), func(a measure.Axis) bool { return (p[a] - q[a]).Abs() < long.Half() })
	if axes == 0 {
		return ""
	}
	return said(words)
}

// Pipes says where every pipe is. Those that would be told alike are counted from one
// side, and where that does not tell them apart, from the next: "bottom, 2nd from the left". No two are told alike.
func (w *Whereabouts) Pipes() []string {
	all := make([]string, len(w.b.Graph.Edges))
	alike := map[string][]int{}
	for i := range all {
		all[i] = w.Pipe(i)
		alike[all[i]] = append(alike[all[i]], i)
	}
	for _, pipes := range alike {
		w.count(all, pipes, []measure.Axis{measure.X, measure.Y, measure.Z})
	}
	return all
}

// count tells pipes that are told alike apart, along one of some axes after the other: the one along which they lie
// farthest apart is first.
func (w *Whereabouts) count(all []string, pipes []int, axes []measure.Axis) {
	if len(pipes) < 2 {
		return
	}
	add := func(i int, words string) { all[i] = strings.TrimPrefix(all[i]+", "+words, ", ") }
	axis, far := w.spread(pipes, axes)
	if far <= flat { // they cross, or lie against each other
		for k, i := range pipes {
			add(i, fmt.Sprintf("%s of %d there", Ordinal(k+1), len(pipes)))
		}
		return
	}
	slices.SortStableFunc(pipes, func(a, b int) int { return cmp.Compare(w.middle(a)[axis], w.middle(b)[axis]) })
	rest := slices.DeleteFunc(slices.Clone(axes), func(a measure.Axis) bool { return a == axis })
	n, first := 0, 0
	for k, i := range pipes {
		if k > 0 && w.middle(i)[axis]-w.middle(pipes[k-1])[axis] > flat {
			w.count(all, pipes[first:k], rest)
			n, first = n+1, k
		}
		add(i, Ordinal(n+1)+" from "+from[axis])
	}
	w.count(all, pipes[first:], rest)
}

// from are the sides that things are counted from.
var from = [3]string{"the left", "the front", "below"}

// spread is the one of some axes along which the middles of some pipes lie farthest apart, and by how much.
func (w *Whereabouts) spread(pipes []int, axes []measure.Axis) (axis measure.Axis, far measure.Length) {
	far = -1
	for _, s := range sides {
		lo, hi := w.middle(pipes[0])[s.axis], w.middle(pipes[0])[s.axis]
		for _, i := range pipes {
			lo, hi = min(lo, w.middle(i)[s.axis]), max(hi, w.middle(i)[s.axis])
		}
		if slices.Contains(axes, s.axis) && hi-lo > far {
			far, axis = hi-lo, s.axis
		}
	}
	return axis, far
}

// middle is half-way between the ends of a pipe.
func (w *Whereabouts) middle(i int) (m measure.Point) {
	ends := w.b.Graph.Edges[i].Ends
	p, q := w.b.Points[ends[0]], w.b.Points[ends[1]]
	for a := range p {
		m[a] = p[a] + (q[a] - p[a]).Half()
	}
	return m
}

// Ordinal is a number in a row: 2nd.
func Ordinal(n int) string {
	switch {
	case n%10 == 1 && n%100 != 11:
		return fmt.Sprintf("%dst", n)
	case n%10 == 2 && n%100 != 12:
		return fmt.Sprintf("%dnd", n)
	case n%10 == 3 && n%100 != 13:
		return fmt.Sprintf("%drd", n)
	}
	return fmt.Sprintf("%dth", n)
}

// words gives the side that a point is on, for each axis that counts and along which
// the frame is not flat, where it is on one; and how many such axes there are.
func (w *Whereabouts) words(p measure.Point, counts func(measure.Axis) bool) (words []string, axes int) {
	for _, s := range sides {
		size := w.to[s.axis] - w.from[s.axis]
		if size < flat || !counts(s.axis) {
			continue
		}
		axes++
		switch share := float64(p[s.axis]-w.from[s.axis]) / float64(size); {
		case share < edge:
			words = append(words, s.low)
		case share > 1-edge:
			words = append(words, s.high)
		}
	}
	return words, axes
}

// said joins the words; one alone is said as a place.
func said(words []string) string {
	switch {
	case len(words) == 0:
		return "in the middle"
	case len(words) > 1:
		return strings.Join(words, " ")
	}
	switch words[0] {
	case "lower":
		return "bottom"
	case "upper":
		return "top"
	}
	return words[0]
}
