package layout

import (
	"errors"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// bow finds the way of a pipe that is not straight; nil where there is none.
// It lowers the floor to what of it hangs below its ends.
func (s *solver) bow(pipe int) *curve.Curve {
	e := &s.g.Edges[pipe]
	a, b := s.out.Points[e.Ends[0]], s.out.Points[e.Ends[1]]
	var c curve.Curve
	var err error
	if e.Path == frame.Bent {
		bend := curve.Bend{Corners: []measure.Point{a}, Radius: e.Radius}
		for _, n := range e.Via {
			bend.Corners = append(bend.Corners, s.out.Points[n])
		}
		bend.Corners = append(bend.Corners, b)
		c, err = bend.Solve()
	} else {
		c, err = s.sprung(pipe, a, b)
	}
	var no *curve.Impossible
	if errors.As(err, &no) {
		s.addFinding(finding.New("no-curve", finding.Stop, finding.All(finding.Pipe, e.ID)...).With("why", no.What).With("mend", no.Hint))
		return nil
	}
	r := s.bodies.Radius(pipe)
	s.out.Floor = min(s.out.Floor, -c.Reach(measure.Dir{0, 0, -1}, r))
	s.out.Base = min(s.out.Base, -c.Reach(s.up.Neg(), r))
	return &c
}

func (s *solver) sprung(pipe int, a, b measure.Point) (curve.Curve, error) {
	e := &s.g.Edges[pipe]
	spring := curve.Spring{Ends: [2]measure.Point{a, b}, Leave: e.Bow.Leave, Bow: e.Bow.Toward}
	inside := measure.Length(0) // what its ends give up
	for k := range e.Ends {
		end := frame.PipeEnd{Pipe: pipe, End: k}
		spring.Stub[k] = s.bodies.Face(end)
		inside += s.bodies.TakeOff(end)
	}
	var d *frame.ResolvedSize
	for i := range s.g.Sizes {
		if s.g.Sizes[i].Pipe == pipe {
			d = &s.g.Sizes[i]
		}
	}
	if d == nil {
		spring.Half = true
		return spring.Solve()
	}
	half := d.Half
	size := Size{
		ID:     d.ID,
		Label:  d.Label,
		Prompt: d.Prompt,
		Pipe:   e.ID,
		Axis:   Sloped,
		From:   s.g.Nodes[e.Ends[0]].ID,
		To:     s.g.Nodes[e.Ends[1]].ID,
		Text:   d.Text,
		Unit:   d.Unit,
		Is:     d.Meaning,
		Scope:  s.g.Scopes[e.Scope].Path,
		Value:  d.Value,
		Out:    d.Value,
		Also:   []Derived{},
	}
	size.Sum = why.Sum{}.Plus("stated, "+springWords[d.Meaning], size.Value)
	switch d.Meaning {
	case frame.Cut:
		size.Sum = size.Sum.Plus("from the pipe's ends to the centres", inside)
		spring.Length = size.Sum.Total()
	case frame.Outside:
		size.Sum = size.Sum.Plus("half the pipe", -s.bodies.Radius(pipe))
	case frame.Clear:
		size.Sum = size.Sum.Plus("half the pipe", s.bodies.Radius(pipe))
	}
	size.Centre = size.Sum.Total()
	if half { // its length follows from where its ends are, and they from it
		spring.Length, spring.Half = 0, true
		c, err := spring.Solve()
		if err == nil {
			size.Out = c.Length - inside
		}
		size.Ends = []measure.Point{a, b}
		if !d.Again {
			s.out.Sizes = append(s.out.Sizes, size)
		}
		return c, err
	}
	if d.Meaning != frame.Cut {
		spring.Rise = max(measure.Inch/16, size.Centre)
	}
	c, err := spring.Solve()
	size.Ends = []measure.Point{a, b}
	if err == nil && d.Meaning != frame.Cut {
		u := a.Toward(b)
		size.Ends = []measure.Point{a.Along(u, dot(c.Apex.Sub(a), u)), c.Apex}
	}
	if !d.Again {
		s.out.Sizes = append(s.out.Sizes, size)
	}
	return c, err
}

var springWords = map[frame.Meaning]string{
	frame.Cut:     "cut length",
	frame.Centre:  "rise of the middle line",
	frame.Outside: "rise to its outer side",
	frame.Clear:   "clear under it",
}
