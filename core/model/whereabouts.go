package model

import (
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
	var middle measure.Point
	long := p.Distance(q)
	for a := range p {
		middle[a] = p[a] + (q[a] - p[a]).Half()
	}
	words, axes := w.words(middle, func(a measure.Axis) bool { return (p[a] - q[a]).Abs() < long.Half() })
	if axes == 0 {
		return ""
	}
	return said(words)
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
