package cutlist

import (
	"fmt"
	"slices"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// Extent is the frame's outside size along one axis, with its working.
type Extent struct {
	Axis  measure.Axis   `json:"axis"`
	Size  measure.Length `json:"size"`
	From  measure.Length `json:"from"`  // where it begins on the axis
	Joint [2]string      `json:"joint"` // the joints at its two ends
	Sum   why.Sum        `json:"sum"`   // body, pipe, fitting, pipe, …, body
	Bare  measure.Length `json:"bare"`  // what the pipes alone add up to along the chain
}

// Overall gives the outside size along each axis and, term by term, how pipes
// and fittings make it up along the shortest chain between the outermost
// joints.
func Overall(g *frame.Graph, f *fitting.Result, s *layout.Solution, l *List) [3]Extent {
	points := s.Points
	lo, hi := f.Overall(points)
	var out [3]Extent
	for a := range out {
		axis := measure.Axis(a)
		d := axis.Dir()
		x := Extent{Axis: axis, Size: hi[a] - lo[a], From: lo[a]}
		first, last := -1, -1
		for j := range points {
			if len(g.Nodes[j].Pipes) == 0 {
				continue
			}
			if first < 0 && points[j][a]-f.Extent(j, d.Neg()) == lo[a] {
				first = j
			}
			if last < 0 && points[j][a]+f.Extent(j, d) == hi[a] {
				last = j
			}
		}
		if first >= 0 && last >= 0 {
			x.Joint = [2]string{g.Nodes[first].ID, g.Nodes[last].ID}
			x.chain(g, f, points, l, first, last)
		}
		x.bows(g, f, s.Curves, lo[a], hi[a])
		out[a] = x
	}
	return out
}

// bows adds what bowed and bent pipes stand out beyond the joints.
func (x *Extent) bows(g *frame.Graph, f *fitting.Result, curves []*curve.Curve, lo, hi measure.Length) {
	low, high, names := lo, hi, [2]string{}
	for i, c := range curves {
		if c == nil {
			continue
		}
		if v := -c.Reach(x.Axis.Dir().Neg(), f.Radius(i)); v < low {
			low, names[0] = v, g.Edges[i].ID
		}
		if v := c.Reach(x.Axis.Dir(), f.Radius(i)); v > high {
			high, names[1] = v, g.Edges[i].ID
		}
	}
	for k, out := range []measure.Length{lo - low, high - hi} {
		if out > 0 {
			x.Sum = x.Sum.Plus("how far pipe "+names[k]+" stands out beyond", out)
		}
	}
	x.From, x.Size = low, high-low
}

func (x *Extent) chain(g *frame.Graph, f *fitting.Result, points []measure.Point, l *List, first, last int) {
	a := x.Axis
	x.Sum = x.Sum.Plus("body beyond the centre at "+g.Nodes[first].ID, f.Extent(first, a.Dir().Neg()))
	steps := newPaths(g).find(first, last, -1)
	if steps == nil && first != last { // two parts that do not touch
		x.Sum = x.Sum.Plus(fmt.Sprintf("%s to %s", g.Nodes[first].ID, g.Nodes[last].ID), points[last][a]-points[first][a])
	}
	for _, w := range steps {
		e := &g.Edges[w.pipe]
		move := points[e.Ends[1]][a] - points[e.Ends[0]][a]
		if !w.forward {
			move = -move
		}
		p := &l.Pieces[w.pipe]
		if move == 0 || p.Centre == 0 {
			continue
		}
		along := p.Cut.Scale(float64(move) / float64(p.Centre))
		x.Bare += along
		x.Sum = x.Sum.Plus("pipe "+p.Pipe, along).Plus("what the fittings at its ends add", move-along)
	}
	x.Sum = x.Sum.Plus("body beyond the centre at "+g.Nodes[last].ID, f.Extent(last, a.Dir()))
}

// paths finds ways through a graph one after the other, and keeps the room it
// needs between them.
type paths struct {
	g         *frame.Graph
	reachedBy []walkStep // the step that led to each joint
	back      []int      // the joint before it
	round     []int      // of the search that reached it last
	search    int
	queue     []int
}

func newPaths(g *frame.Graph) *paths {
	n := len(g.Nodes)
	return &paths{g: g, reachedBy: make([]walkStep, n), back: make([]int, n), round: make([]int, n), queue: make([]int, 0, n)}
}

// find gives the way with the fewest pipes between two joints that does not use
// one of them; nil when there is none. A negative without leaves none out.
func (p *paths) find(from, to, without int) []walkStep {
	p.search++
	p.round[from] = p.search
	p.queue = append(p.queue[:0], from)
	for i := 0; i < len(p.queue) && p.round[to] != p.search; i++ {
		n := p.queue[i]
		for _, pe := range p.g.Nodes[n].Pipes {
			if w, m := leave(p.g, pe); pe.Pipe != without && p.round[m] != p.search {
				p.round[m], p.back[m], p.reachedBy[m] = p.search, n, w
				p.queue = append(p.queue, m)
			}
		}
	}
	if p.round[to] != p.search || from == to {
		return nil
	}
	var steps []walkStep
	for n := to; n != from; n = p.back[n] {
		steps = append(steps, p.reachedBy[n])
	}
	slices.Reverse(steps)
	return steps
}
