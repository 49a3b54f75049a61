package cutlist

import (
	"cmp"
	"math"
	"slices"

	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Report is what comes of a frame when its pieces are cut to a list instead of
// as planned.
type Report struct {
	Pieces []Given        `json:"pieces"` // whose cut differs from the plan, or that go together in another way
	Loops  []Loop         `json:"loops"`  // that do not close, the worst first
	Levels []Level        `json:"levels"` // planes that are not one any more
	Mends  []Mend         `json:"mends"`  // ways to close every loop with the fewest pieces, the least change first
	Closed bool           `json:"closed"`
	Stuck  bool           `json:"stuck"` // no few pieces close it
	Gap    measure.Length `json:"gap"`
}

// Given is a piece of the list.
type Given struct {
	Pipe    string         `json:"pipe"`
	Planned measure.Length `json:"planned"`
	Cut     measure.Length `json:"cut"`
	Spacing measure.Length `json:"spacing"` // the centre distance that comes of it
	// FaceToFace says that the piece is shorter than its two sockets: they go
	// together until their faces touch, each with less pipe in it.
	FaceToFace bool `json:"faceToFace,omitempty"`
	TooShort   bool `json:"tooShort,omitempty"` // less than half a socket on each side: it will not hold
}

// Level is a plane of the plan whose joints end at different places along its
// axis.
type Level struct {
	Axis   measure.Axis   `json:"axis"`
	At     measure.Length `json:"at"` // as planned
	Spread measure.Length `json:"spread"`
	Low    string         `json:"low"` // a joint at each extreme
	High   string         `json:"high"`
}

// Mend is a change of a few pieces after which every loop closes.
type Mend struct {
	Changes []Change       `json:"changes"`
	By      measure.Length `json:"by"` // all changes added up
}

// Change is a new cut for a piece.
type Change struct {
	Pipe string         `json:"pipe"`
	From measure.Length `json:"from"`
	To   measure.Length `json:"to"`
}

// CheckCuts puts a frame together from the cuts of a list: cuts holds one for each
// pipe, the planned one where the list says nothing. step is the tape's.
func CheckCuts(g *frame.Graph, s *layout.Solution, f *fitting.Result, l *List, cuts []measure.Length, step measure.Length) *Report {
	c := &checker{g: g, s: s, f: f, l: l, step: max(step, measure.Inch/64), cuts: slices.Clone(cuts)}
	c.loops = findLoops(g.Rigid())
	r := &Report{Pieces: []Given{}, Loops: []Loop{}, Levels: []Level{}, Mends: []Mend{}}
	c.long = make([]measure.Length, len(cuts))
	for i := range cuts {
		p := c.piece(i)
		c.long[i] = p.Spacing - s.Lengths[i]
		if (p.Cut-p.Planned).Abs() > hair || p.FaceToFace {
			r.Pieces = append(r.Pieces, p)
		}
	}
	open := c.residuals(c.long)
	for i := range c.loops {
		if l := c.loops[i]; c.size(open[i]) > c.tolerance() {
			l.Off = measure.Length(math.Round(c.size(open[i])))
			for a := range 3 {
				l.Residual[a] = measure.Length(math.Round(open[i][a]))
			}
			r.Loops = append(r.Loops, l)
		}
	}
	slices.SortStableFunc(
		r.Loops,
		func(x, y Loop) int { return cmp.Or(cmp.Compare(y.Off, x.Off), cmp.Compare(len(x.Pipes), len(y.Pipes))) },
	)
	r.Closed = len(r.Loops) == 0
	a := Assemble(g, f, Effective(g, f, cuts), s)
	r.Gap = a.Gap
	if r.Closed { // else what is shared out says nothing of the levels
		r.Levels = c.levels(a.Points)
	}
	if !r.Closed {
		r.Mends = c.mend(open)
		r.Stuck = len(r.Mends) == 0
	}
	return r
}

type checker struct {
	g     *frame.Graph
	s     *layout.Solution
	f     *fitting.Result
	l     *List
	step  measure.Length
	cuts  []measure.Length
	long  []measure.Length // by how much each pipe's centre distance differs from the plan
	loops []Loop
	nodes int
}

// ends is what a pipe's two ends give up, how deep its sockets are in all, and
// whether both are sockets.
func (c *checker) ends(pipe int) (takeOff, depth measure.Length, both bool) {
	both = true
	for k := range 2 {
		end := frame.PipeEnd{Pipe: pipe, End: k}
		takeOff += c.f.TakeOff(end)
		depth += c.f.Port(end).Depth
		both = both && !c.f.Joints[c.g.Edges[pipe].Ends[k]].Free()
	}
	return takeOff, depth, both
}

func (c *checker) piece(i int) Given {
	p := &c.l.Pieces[i]
	takeOff, depth, both := c.ends(i)
	out := Given{Pipe: p.Pipe, Planned: p.Cut, Cut: c.cuts[i], Spacing: c.cuts[i] + takeOff}
	if both && out.Spacing < p.Least-fitting.ShortBy {
		out.FaceToFace, out.Spacing = true, p.Least
		out.TooShort = out.Cut < depth.Half()
	}
	return out
}

// Effective gives the cuts that count at the seats in f: where a piece is
// shorter than its two sockets take, their faces touch and keep them apart.
func Effective(g *frame.Graph, f *fitting.Result, cuts []measure.Length) []measure.Length {
	out := slices.Clone(cuts)
	for i, e := range g.Edges {
		if f.Joints[e.Ends[0]].Free() || f.Joints[e.Ends[1]].Free() {
			continue
		}
		takeOff := f.TakeOff(frame.PipeEnd{Pipe: i, End: 0}) + f.TakeOff(frame.PipeEnd{Pipe: i, End: 1})
		if least := f.Least(i); cuts[i]+takeOff < least-fitting.ShortBy {
			out[i] = least - takeOff
		}
	}
	return out
}

// tolerance is how far a loop may be off: what rounding to the tape leaves.
func (c *checker) tolerance() float64 { return float64(c.step) + 10 }

func (c *checker) size(v measure.Dir) float64 { return math.Sqrt(v.Dot(v)) }

// way is the direction in which a pipe's extra length moves a loop.
func (c *checker) way(w walkStep) measure.Dir {
	r := rounding{g: c.g, s: c.s}
	return r.dir(w)
}

func (c *checker) residuals(long []measure.Length) []measure.Dir {
	out := make([]measure.Dir, len(c.loops))
	for i := range c.loops {
		for _, w := range c.loops[i].steps {
			d, e := c.way(w), float64(long[w.pipe])
			for a := range 3 {
				out[i][a] += d[a] * e
			}
		}
	}
	return out
}

// levels finds planes of the plan whose joints ended apart.
func (c *checker) levels(points []measure.Point) []Level {
	all := []Level{}
	for a := range 3 {
		order := make([]int, 0, len(points))
		for j := range points {
			if len(c.g.Nodes[j].Pipes) > 0 {
				order = append(order, j)
			}
		}
		slices.SortStableFunc(order, func(x, y int) int { return cmp.Compare(c.s.Points[x][a], c.s.Points[y][a]) })
		for from := 0; from < len(order); {
			to := from + 1
			for to < len(order) && c.s.Points[order[to]][a]-c.s.Points[order[from]][a] <= sameLength {
				to++
			}
			low, high := order[from], order[from]
			shift := func(j int) measure.Length { return points[j][a] - c.s.Points[j][a] }
			for _, j := range order[from:to] {
				if shift(j) < shift(low) {
					low = j
				}
				if shift(j) > shift(high) {
					high = j
				}
			}
			if spread := shift(high) - shift(low); float64(spread) > c.tolerance() {
				all = append(all, Level{measure.Axis(a), c.s.Points[order[from]][a], spread, c.g.Nodes[low].ID, c.g.Nodes[high].ID})
			}
			from = to
		}
	}
	slices.SortStableFunc(all, func(x, y Level) int { return cmp.Compare(y.Spread, x.Spread) })
	return all
}
