package layout

import (
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// report lists every size with the value that it has in the solved frame.
func (s *solver) report() {
	lost := map[int]bool{}
	for _, c := range s.found.Conflicts {
		lost[c.Loser] = true
	}
	bows := s.out.Sizes // of the curves, found already
	s.out.Sizes = nil
	for i := range s.g.Sizes {
		z := &s.g.Sizes[i]
		if z.Pipe >= 0 && s.g.Edges[z.Pipe].Path == frame.Sprung {
			continue
		}
		out, ok := s.describe(z)
		if !ok {
			continue
		}
		clashes := lost[s.owner("size", "", z.ID)]
		out.Holds = z.Gave == nil && !clashes && (out.Out-out.Value).Abs() <= TapeStep
		if z.Pipe >= 0 && z.Meaning == frame.Cut && s.g.Edges[z.Pipe].Path == frame.Straight && s.runsAlong(z) {
			if was, twice := s.out.Typed[z.Pipe]; !twice || !was.Holds {
				s.out.Typed[z.Pipe] = Typed{z.ID, z.Value, out.Holds}
			}
		}
		if z.Gave != nil {
			out.Gave, out.Freed = GaveTo(s.g, z.Gave)
		} else {
			s.tooSmall(&out)
		}
		if !z.Again {
			s.out.Sizes = append(s.out.Sizes, out)
		}
	}
	for i := range bows {
		bows[i].Holds = (bows[i].Out - bows[i].Value).Abs() <= TapeStep
	}
	s.out.Sizes = append(s.out.Sizes, bows...)
}

// runsAlong says whether the pipe of a size along an axis runs along it.
func (s *solver) runsAlong(z *frame.ResolvedSize) bool {
	if z.Axis == "" {
		return z.From.Node < 0 || z.From.Node == s.g.Edges[z.Pipe].Ends[0] || z.From.Node == s.g.Edges[z.Pipe].Ends[1]
	}
	d := s.g.Scopes[z.Scope].Orient.Dir(measure.Axis(frame.AxisOf(z.Axis)).Dir())
	c := d.Dot(s.out.Tangents[z.Pipe][0])
	return c > 1-1e-9 || c < -1+1e-9
}

// describe gives a size with the value that it has in the solved frame; ok is false
// where one of its ends is missing.
func (s *solver) describe(z *frame.ResolvedSize) (out Size, ok bool) {
	scope := &s.g.Scopes[z.Scope]
	out = Size{
		ID:       z.ID,
		Label:    z.Label,
		Prompt:   z.Prompt,
		Value:    z.Value,
		Text:     z.Text,
		Unit:     z.Unit,
		Is:       z.Meaning,
		Scope:    scope.Path,
		Inferred: z.Inferred,
		Starters: z.Rank < 0,
		Also:     []Derived{},
	}
	if z.Pipe >= 0 {
		out.Pipe = s.g.Edges[z.Pipe].ID
	}
	if z.Axis != "" {
		return s.sizedAlong(z, out)
	}
	p, q := s.sizeEnds(z)
	if p < 0 || q < 0 {
		return out, false
	}
	out.From, out.To = s.g.Nodes[p].ID, s.g.Nodes[q].ID
	out.Sum = s.between(z, p, q)
	out.Centre = out.Sum.Total()
	from, to := s.out.Points[p], s.out.Points[q]
	far := from.Distance(to)
	_, v1, v2 := s.betweenEnds(z, p, q, z.Meaning)
	out.Out = far - v1 - v2
	for _, m := range []frame.Meaning{frame.Centre, frame.Outside, frame.Clear} {
		if m != z.Meaning {
			_, o1, o2 := s.betweenEnds(z, p, q, m)
			out.Also = append(out.Also, Derived{m, far - o1 - o2})
		}
	}
	d := from.Toward(to)
	a, b := from.Along(d, v1), to.Along(d, -v2)
	if axis, along := worldAxis(d); along {
		out.Axis, out.Span = axis, [2]measure.Length{a[axis], b[axis]}
	} else {
		out.Axis, out.Ends = Sloped, []measure.Point{a, b}
	}
	return out, true
}

// tooSmall tells of a size that leaves less than nothing between the centres. A height is none.
func (s *solver) tooSmall(z *Size) {
	if z.Centre >= 0 || z.From == string(frame.Floor) {
		return
	}
	subject := finding.Subject{Kind: finding.Pipe, ID: z.Pipe}
	if z.Pipe == "" {
		subject = finding.Subject{Kind: finding.Joint, ID: z.To}
	}
	s.addFinding(
		finding.New("size-too-small", finding.Stop, subject).
			With("meaning", words[z.Is]).
			With("value", z.Value).
			With("bodies", z.Value-z.Centre),
	)
}

func (s *solver) sizedAlong(z *frame.ResolvedSize, out Size) (Size, bool) {
	a := measure.Axis(frame.AxisOf(z.Axis))
	scope := &s.g.Scopes[z.Scope]
	d := scope.Orient.Dir(a.Dir())
	_, sign := s.along(z.Scope, a)
	to, ok := s.coordinate(z.To, z.Scope, a)
	if !ok {
		return out, false
	}
	hi := sign * s.found.At[to]
	out.From, out.To = s.name(z.From, z.Size.From), s.name(z.To, z.Size.To)
	out.Sum = s.axisSum(z)
	out.Centre = out.Sum.Total()
	var span [2]measure.Length // along the scope's axis
	if z.Size.From == frame.Floor {
		low := sign * s.base
		if z.Foot >= 0 {
			out.Foot = s.g.Nodes[z.Foot].ID
			k, _ := s.along(z.Scope, a)
			low = sign*s.found.At[s.node(z.Foot, s.axesOf[z.Scope])[k]] - s.bodies.Extent(z.Foot, d.Neg())
		}
		up := out.Value - out.Centre
		out.Out = hi - low + up
		span = [2]measure.Length{low, hi + up}
	} else {
		from, ok := s.coordinate(z.From, z.Scope, a)
		if !ok {
			return out, false
		}
		lo := sign * s.found.At[from]
		_, v1, v2 := s.axisEnds(z, d, z.Meaning)
		out.Out = hi - lo - v1 - v2
		for _, m := range []frame.Meaning{frame.Centre, frame.Outside, frame.Clear} {
			if m != z.Meaning {
				_, o1, o2 := s.axisEnds(z, d, m)
				out.Also = append(out.Also, Derived{m, hi - lo - o1 - o2})
			}
		}
		span = [2]measure.Length{lo + v1, hi - v2}
	}
	if axis, along := worldAxis(d); along {
		out.Axis = axis
		for k := range span {
			out.Span[k] = span[k].Scale(d[axis])
		}
		return out, true
	}
	on := measure.Point{} // the line goes through a joint that stands at the size's end
	if joints := s.joints(to); z.To.Node >= 0 {
		on = s.out.Points[z.To.Node]
	} else if len(joints) > 0 {
		on = s.out.Points[joints[0]]
	}
	here := dot(on, d)
	for _, v := range span {
		out.Ends = append(out.Ends, on.Along(d, v-here))
	}
	out.Axis = Sloped
	return out, true
}
