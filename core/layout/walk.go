package layout

import (
	"fmt"
	"math"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// pointOf is where a joint stands in the world.
func (s *solver) pointOf(joint int) measure.Point {
	if s.point[joint] == nil {
		p := s.seenAt(joint, &s.g.Nodes[joint].Places[0])
		s.point[joint] = &p
	}
	return *s.point[joint]
}

// seenAt is where one of a joint's places is.
func (s *solver) seenAt(joint int, seen *frame.Seen) measure.Point {
	w := seen.Way
	if w == nil {
		return s.world(seen.Scope, seen.At)
	}
	from, dir := s.pointOf(w.From), w.Dir
	if w.Toward >= 0 {
		to := s.pointOf(w.Toward)
		if w.Share != 0 {
			var p measure.Point
			for a := range p {
				p[a] = from[a] + (to[a] - from[a]).Scale(w.Share)
			}
			return p
		}
		dir = from.Toward(to)
	}
	switch {
	case w.Until != nil:
		return from.Along(dir, s.until(joint, seen, from))
	case w.Size != nil:
		return from.Along(dir, s.walked(joint, seen, dir))
	}
	return from
}

// until is how far a way goes until it reaches a station.
func (s *solver) until(joint int, seen *frame.Seen, from measure.Point) measure.Length {
	w, scope := seen.Way, &s.g.Scopes[seen.Scope]
	along := scope.Orient.Dir(w.Until.Axis.Dir())
	far := s.find(seen.Scope, w.Until.Axis, w.Until.Station) - dot(from.Sub(s.originOf(seen.Scope)), along)
	c := w.Dir.Dot(along)
	if math.Abs(c) < 1e-6 || far.Scale(1/c) < 0 {
		s.note(finding.Finding{Code: "walk-misses", Severity: finding.Stop, Subject: []string{s.g.Nodes[joint].ID},
			Text: fmt.Sprintf("the way to joint %s never reaches %s", s.g.Nodes[joint].ID, w.Until.Station), Hint: "change the direction, or say how long the pipe is"})
		return 0
	}
	return far.Scale(1 / c)
}

// walked is how far a way goes by its size, which it records.
func (s *solver) walked(joint int, seen *frame.Seen, dir measure.Dir) measure.Length {
	w, scope := seen.Way, &s.g.Scopes[seen.Scope]
	d := w.Size
	lo, hi := s.g.Nodes[w.From].ID, s.g.Nodes[joint].ID
	size := Size{Label: d.Label, Prompt: d.Prompt, From: lo, To: hi, Text: d.Text, Is: d.Meaning, Scope: scope.Path, Path: w.Pointer, Value: d.Value + s.adjust[w.Pointer], scope: seen.Scope, way: w, to: joint}
	size.Sum = why.Sum{}.Plus("stated, "+words[d.Meaning], size.Value)
	of := joinPath(scope.Path, d.Of)
	l, v1 := s.end(w.From, joint, dir, d.Meaning, of)
	_, v2 := s.end(joint, w.From, dir.Neg(), d.Meaning, of)
	s.total(&size, l, lo, hi, v1, v2, hi)
	for _, m := range []frame.Meaning{frame.Centre, frame.Outside, frame.Clear} {
		if m != d.Meaning {
			_, o1 := s.end(w.From, joint, dir, m, "")
			_, o2 := s.end(joint, w.From, dir.Neg(), m, "")
			size.Also = append(size.Also, Derived{m, size.Centre - o1 - o2})
		}
	}
	size.Span = [2]measure.Length{v1, size.Centre - v2}
	s.out.Sizes = append(s.out.Sizes, size)
	return size.Centre
}

// end is what one of two joints adds to a size between them to reach its
// centre; inward points from it to the other.
func (s *solver) end(joint, other int, inward measure.Dir, m frame.Meaning, pipe string) (label string, v measure.Length) {
	switch m {
	case frame.Outside:
		return "what stands out beyond the centre", -s.bodies.Reach(joint, inward.Neg())
	case frame.Slot:
		return "half the body", s.bodies.Reach(joint, inward)
	case frame.Clear:
		var r measure.Length
		for _, pe := range s.g.Nodes[joint].Pipes {
			if s.g.Edges[pe.Pipe].Ends[1-pe.End] != other {
				r = max(r, s.bodies.Radius(pe.Pipe))
			}
		}
		if r == 0 {
			r = s.bodies.Reach(joint, inward)
		}
		return "half the pipe", r
	case frame.Visible, frame.Cut:
		e := s.g.Edge(pipe)
		for k := range 2 {
			if e < 0 || s.g.Edges[e].Ends[k] != joint {
				continue
			}
			if m == frame.Visible {
				return "centre to face", s.bodies.Face(frame.PipeEnd{Pipe: e, End: k})
			}
			return "centre to the pipe's end", s.bodies.TakeOff(frame.PipeEnd{Pipe: e, End: k})
		}
		s.note(finding.Finding{Code: "size-off-its-pipe", Severity: finding.Stop, Subject: []string{s.g.Nodes[joint].ID},
			Text: fmt.Sprintf("the pipe %q does not run between the two joints it is to measure", pipe), Hint: "name the pipe between them"})
	}
	return "", 0
}

// turnWalk puts a walk's size where it is drawn.
func (s *solver) turnWalk(z *Size) {
	from, to := s.out.Points[z.way.From], s.out.Points[z.to]
	d := from.Toward(to)
	if axis, ok := worldAxis(d); ok {
		z.Axis = axis
		for k := range z.Span {
			z.Span[k] = from[axis] + z.Span[k].Scale(d[axis])
		}
		return
	}
	z.Axis = Sloped
	z.Ends = []measure.Point{from.Along(d, z.Span[0]), from.Along(d, z.Span[1])}
	z.Span = [2]measure.Length{}
}
