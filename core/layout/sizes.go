package layout

import (
	"math"
	"slices"
	"strings"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/why"
)

// words are the labels of the meanings, as they are chosen.
var words = func() map[frame.Meaning]string {
	all := map[frame.Meaning]string{}
	for _, w := range frame.MeaningWords() {
		all[frame.Meaning(w.Value)] = w.Words
	}
	return all
}()

// Words gives the meaning in the builder's words.
func Words(m frame.Meaning) string { return words[m] }

// Said describes a size in words as it was stated, with what it is of: 24 cut length
// of ⟨p2⟩.
func Said(z *Size) string {
	said := strings.TrimSpace(z.Label + " " + z.Value.Typed(z.Text, z.Unit) + " " + words[z.Is])
	switch {
	case z.Pipe != "":
		return said + " of " + mention.Of(z.Pipe)
	case z.Label == "" && z.From != "" && z.To != "":
		return said + " from " + mention.Of(z.From) + " to " + mention.Of(z.To)
	}
	return said
}

// sizes turns every size into a rule: its value, with what the bodies at both
// ends add or take for its meaning, is a distance of centres.
func (s *solver) sizes() {
	for i := range s.g.Sizes {
		z := &s.g.Sizes[i]
		if z.Pipe >= 0 && s.g.Edges[z.Pipe].Path == frame.Sprung {
			continue // it says how far the pipe bows, not where it ends
		}
		owner := s.owner("size", "", z.ID)
		switch {
		case z.Axis != "":
			s.alongAxis(owner, z)
		default:
			p, q := s.sizeEnds(z)
			if p < 0 || q < 0 || p == q {
				continue
			}
			c := s.between(z, p, q).Total()
			switch l, straight := s.lines[[2]int{p, q}]; {
			case straight && l.axis >= 0:
				s.sys.Difference(owner, s.node(p, l.axes)[l.axis], s.node(q, l.axes)[l.axis], c.Scale(l.sign))
			case straight:
				s.sys.Difference(owner, constraint.Zero, l.long, c)
			default:
				axes := s.axesOf[z.Scope]
				s.sys.Distance(owner, s.node(p, axes), s.node(q, axes), c)
			}
		}
	}
}

// sizeEnds gives the two joints that a size without an axis lies between.
func (s *solver) sizeEnds(z *frame.ResolvedSize) (p, q int) {
	if z.Pipe >= 0 && z.From.Node < 0 {
		e := &s.g.Edges[z.Pipe]
		return e.Ends[0], e.Ends[1]
	}
	return z.From.Node, z.To.Node
}

// alongAxis is the rule of a size between two planes of an axis.
func (s *solver) alongAxis(owner int, z *frame.ResolvedSize) {
	a := measure.Axis(frame.AxisOf(z.Axis))
	to, ok := s.coordinate(z.To, z.Scope, a)
	if !ok {
		return
	}
	_, sign := s.along(z.Scope, a)
	c := s.axisSum(z).Total()
	if z.Size.From != frame.Floor {
		if from, ok := s.coordinate(z.From, z.Scope, a); ok {
			s.sys.Difference(owner, from, to, sign*c)
		}
		return
	}
	d := s.g.Scopes[z.Scope].Orient.Dir(a.Dir())
	if z.Foot >= 0 { // in the stance that it was typed in, however its part is turned since
		foot := s.node(z.Foot, s.axesOf[z.Scope])
		k, _ := s.along(z.Scope, a)
		s.sys.Difference(owner, foot[k], to, sign*(c-s.bodies.Extent(z.Foot, d.Neg())))
		return
	}
	if d.Dot(s.up) < 1-1e-9 {
		s.addFinding(finding.New("height-on-a-slope", finding.Stop, finding.All(finding.Size, z.ID)...))
		return
	}
	s.sys.Difference(owner, constraint.Zero, to, sign*(s.base+c))
}

// axisSum is a size along an axis, from its value to the distance of centres;
// of a height to what stands above the floor.
func (s *solver) axisSum(z *frame.ResolvedSize) why.Sum {
	a := measure.Axis(frame.AxisOf(z.Axis))
	d := s.g.Scopes[z.Scope].Orient.Dir(a.Dir())
	sum := why.Sum{}.Plus("stated, "+words[z.Meaning], z.Value)
	if z.Size.From == frame.Floor {
		return sum.Plus("top of what stands there, above its centre", -s.topOf(z, d))
	}
	l, v1, v2 := s.axisEnds(z, d, z.Meaning)
	return ends(sum, l, s.name(z.From, z.Size.From), s.name(z.To, z.Size.To), v1, v2)
}

// axisEnds is what the two ends of a size along an axis add to reach the
// centres.
func (s *solver) axisEnds(z *frame.ResolvedSize, d measure.Dir, m frame.Meaning) (label string, v1, v2 measure.Length) {
	if m == frame.Visible || m == frame.Cut {
		from, to := 0, 1
		if z.Pipe < 0 {
			return "", 0, 0
		}
		if s.standsOn(z, z.From, s.g.Edges[z.Pipe].Ends[1]) || s.standsOn(z, z.To, s.g.Edges[z.Pipe].Ends[0]) {
			from, to = 1, 0
		}
		l, v1 := s.pipeEnd(z.Pipe, from, m)
		_, v2 := s.pipeEnd(z.Pipe, to, m)
		return l, v1, v2
	}
	label, v1 = s.end(z, z.From, d, m)
	_, v2 = s.end(z, z.To, d.Neg(), m)
	return label, v1, v2
}

// standsOn says whether a joint is on the plane that a size ends at.
func (s *solver) standsOn(z *frame.ResolvedSize, w frame.ResolvedRef, joint int) bool {
	return w.Node == joint || slices.Contains(s.level(z, w), joint)
}

func (s *solver) pipeEnd(pipe, end int, m frame.Meaning) (string, measure.Length) {
	if m == frame.Visible {
		return "centre to face", s.bodies.Face(frame.PipeEnd{Pipe: pipe, End: end})
	}
	return "centre to the pipe's end", s.bodies.TakeOff(frame.PipeEnd{Pipe: pipe, End: end})
}

// end is what one end of a size along an axis adds. A level decides as a whole: what all the joints on it have there,
// whether it goes by a name or by one of them. inward points to the other end.
func (s *solver) end(z *frame.ResolvedSize, w frame.ResolvedRef, inward measure.Dir, m frame.Meaning) (string, measure.Length) {
	joints := s.level(z, w)
	switch m {
	case frame.Outside:
		return "what stands out beyond the centre", -s.farthest(joints, inward.Neg())
	case frame.Clear:
		return "half the pipe", s.halfPipe(joints, -1, inward)
	case frame.Slot:
		return "half the body", s.farthest(joints, inward)
	}
	return "", 0
}

// level gives the joints that are level with the one, or stand on the plane, that a size along an axis ends at.
func (s *solver) level(z *frame.ResolvedSize, w frame.ResolvedRef) []int {
	if v, ok := s.coordinate(w, z.Scope, measure.Axis(frame.AxisOf(z.Axis))); ok {
		return s.joints(v)
	}
	return nil
}

// farthest is how far the bodies at some joints reach beyond their points in a direction.
func (s *solver) farthest(joints []int, d measure.Dir) (far measure.Length) {
	for i, j := range joints {
		if r := s.bodies.Reach(j, d); i == 0 || r > far {
			far = r
		}
	}
	return far
}

// endAt is what one of two joints adds to a size between them.
func (s *solver) endAt(joint, other int, inward measure.Dir, m frame.Meaning) (string, measure.Length) {
	switch m {
	case frame.Outside:
		return "what stands out beyond the centre", -s.bodies.Reach(joint, inward.Neg())
	case frame.Slot:
		return "half the body", s.bodies.Reach(joint, inward)
	case frame.Clear:
		return "half the pipe", s.halfPipe([]int{joint}, other, inward)
	}
	return "", 0
}

// drawn is the direction in which a pipe leaves a joint, as far as is known.
func (s *solver) drawn(pe frame.PipeEnd) measure.Dir {
	e := &s.g.Edges[pe.Pipe]
	var d measure.Dir
	switch {
	case s.was != nil && pe.Pipe < len(s.was.Tangents):
		return s.was.Tangents[pe.Pipe][pe.End]
	case e.Dir != nil:
		d = s.g.Scopes[e.Scope].Orient.Dir(*e.Dir)
	}
	if pe.End == 1 {
		d = d.Neg()
	}
	return d
}

// halfPipe is half of the thickest pipe that lies across a direction at some joints that are level: the pipe that a clear
// size ends at, and whose top a height is measured to. It is the only place that says so, so that one size means the same
// at a joint, at a named level and in a part, and whatever is split or joined on beside it. A pipe that runs to another
// joint, -1 for none, is the one that is measured, and does not count. Where no pipe lies across, it is half the thickest
// that goes through a fitting, and nothing at a pipe's free end: that is where the pipe stops.
func (s *solver) halfPipe(joints []int, other int, d measure.Dir) measure.Length {
	var across, through measure.Length
	for _, j := range joints {
		n := &s.g.Nodes[j]
		for _, pe := range n.Pipes {
			r := s.bodies.Radius(pe.Pipe)
			if c := s.drawn(pe).Dot(d); s.g.Edges[pe.Pipe].Ends[1-pe.End] != other && math.Abs(c) < 0.9 {
				across = max(across, r)
			} else if len(n.Pipes) > 1 || n.Fitting != nil {
				through = max(through, r)
			}
		}
	}
	if across > 0 {
		return across
	}
	return through
}

// topOf is the distance from the centre to the top of what a height is measured to:
// the pipe, the cap or the fittings' bodies, by the size's meaning.
func (s *solver) topOf(z *frame.ResolvedSize, upward measure.Dir) measure.Length {
	switch z.Meaning {
	case frame.Centre:
		return 0
	case frame.TopOfPipe:
		return s.halfPipe(s.level(z, z.To), -1, upward)
	}
	return s.farthest(s.level(z, z.To), upward)
}

// between sums up a size straight between two joints.
func (s *solver) between(z *frame.ResolvedSize, p, q int) why.Sum {
	sum := why.Sum{}.Plus("stated, "+words[z.Meaning], z.Value)
	l, v1, v2 := s.betweenEnds(z, p, q, z.Meaning)
	return ends(sum, l, s.g.Nodes[p].ID, s.g.Nodes[q].ID, v1, v2)
}

func (s *solver) betweenEnds(z *frame.ResolvedSize, p, q int, m frame.Meaning) (label string, v1, v2 measure.Length) {
	if m == frame.Visible || m == frame.Cut {
		if z.Pipe < 0 {
			return "", 0, 0
		}
		e := &s.g.Edges[z.Pipe]
		for k := range 2 {
			switch e.Ends[k] {
			case p:
				label, v1 = s.pipeEnd(z.Pipe, k, m)
			case q:
				_, v2 = s.pipeEnd(z.Pipe, k, m)
			}
		}
		return label, v1, v2
	}
	d := s.heading(p, q)
	label, v1 = s.endAt(p, q, d, m)
	_, v2 = s.endAt(q, p, d.Neg(), m)
	return label, v1, v2
}

// heading is the direction from one joint to another, as far as is known.
func (s *solver) heading(p, q int) measure.Dir {
	for _, pe := range s.g.Nodes[p].Pipes {
		if e := &s.g.Edges[pe.Pipe]; e.Ends[1-pe.End] == q && e.Dir != nil {
			d := s.g.Scopes[e.Scope].Orient.Dir(*e.Dir)
			if pe.End == 1 {
				d = d.Neg()
			}
			return d
		}
	}
	if s.was != nil && p < len(s.was.Points) && q < len(s.was.Points) {
		return s.was.Points[p].Toward(s.was.Points[q])
	}
	return measure.Dir{}
}

func ends(sum why.Sum, label, from, to string, v1, v2 measure.Length) why.Sum {
	if v1 == v2 && v1 != 0 { // two equal ends read better as one line
		return sum.Plus(label+", twice", 2*v1)
	}
	return sum.Plus(label+" at "+from, v1).Plus(label+" at "+to, v2)
}

// name is what one end of a size is called: a joint's path, a plane's name, or floor.
func (s *solver) name(w frame.ResolvedRef, r frame.Ref) string {
	switch {
	case w.Node >= 0:
		return s.g.Nodes[w.Node].ID
	case r == frame.Floor:
		return string(frame.Floor)
	}
	return w.Plane
}
