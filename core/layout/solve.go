package layout

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// Bodies says what stands at the joints; the fitting room knows. Joints and
// pipes are indices into the graph; directions are in world axes.
type Bodies interface {
	// Reach is how far the bodies at a joint extend beyond its point in a
	// direction, ports that a pipe leaves by in that direction left out.
	Reach(joint int, toward measure.Dir) measure.Length
	// Extent is the same with every port counted.
	Extent(joint int, toward measure.Dir) measure.Length
	// Radius is half the outside diameter of a pipe.
	Radius(pipe int) measure.Length
	// TakeOff is what a pipe's end gives up from the centre distance.
	TakeOff(end frame.PipeEnd) measure.Length
	// Face is the distance from the joint's point to the rim the pipe enters.
	Face(end frame.PipeEnd) measure.Length
}

// Size is a stated dimension, resolved.
type Size struct {
	Path   string            `json:"path"` // JSON pointer of the dimension in the document
	Label  string            `json:"label"`
	Prompt string            `json:"prompt,omitempty"` // the starter's prompt that asked for it
	Axis   measure.Axis      `json:"axis"`             // of the world
	From   string            `json:"from"`
	To     string            `json:"to"`
	Value  measure.Length    `json:"value"`
	Text   string            `json:"text"`
	Is     frame.Meaning     `json:"meaning"`
	Centre measure.Length    `json:"centre"` // the centre distance that follows, in the axis' direction
	Sum    why.Sum           `json:"sum"`    // from the value to the centre distance
	Also   []Derived         `json:"also"`   // the same pair of stations, in the other meanings
	Span   [2]measure.Length `json:"span"`   // where what it measures begins and ends, along the world's axis
	Scope  string            `json:"scope"`
	// Ends is where what it measures begins and ends, of a size that runs along
	// no axis of the world; its Axis is then [Sloped].
	Ends  []measure.Point `json:"ends,omitempty"`
	Gives string          `json:"gives,omitempty"` // the drive that it gives way to
	scope int
	way   *frame.Way // of a size that places a joint by a walk
	to    int        // that joint
}

// Sloped stands for the axis of a size that runs along none of the world's.
const Sloped measure.Axis = -1

// Derived is a size that follows from a stated one.
type Derived struct {
	Is    frame.Meaning  `json:"meaning"`
	Value measure.Length `json:"value"`
}

// Solution is where everything stands.
type Solution struct {
	Points   []measure.Point  // of each joint
	Lengths  []measure.Length // of each pipe, centre to centre (to the drawn point at a free end)
	Tangents [][2]measure.Dir // of each pipe, leaving its two joints
	Curves   []*curve.Curve   // of each pipe that is not straight
	Floor    measure.Length   // height of the plane the lowest bodies rest on
	Base     measure.Length   // the same in the frame's own axes, before it is stood on its stance
	Sizes    []Size
	Drives   []Driven
	Places   []Place // of each scope of the graph
	Findings []finding.Finding
}

// rough stands in for the bodies before the first look at them, so that
// touching parts do not fall onto one point.
type rough struct{}

func (rough) Reach(int, measure.Dir) measure.Length  { return 0 }
func (rough) Extent(int, measure.Dir) measure.Length { return 0 }
func (rough) Radius(int) measure.Length              { return 0 }
func (rough) TakeOff(frame.PipeEnd) measure.Length   { return measure.Inch }
func (rough) Face(frame.PipeEnd) measure.Length      { return measure.Inch }

// still is how little a point may move when it has come to rest: what turning
// directions into whole nanometres leaves.
const still = 100 * measure.Nanometre

// At says whether everything stands where it stood in another solution.
func (s *Solution) At(o *Solution) bool {
	return slices.EqualFunc(s.Points, o.Points, func(p, q measure.Point) bool {
		return (p[0]-q[0]).Abs() <= still && (p[1]-q[1]).Abs() <= still && (p[2]-q[2]).Abs() <= still
	})
}

type solver struct {
	g      *frame.Graph
	bodies Bodies
	on     []map[string][]int // scope*3+axis → station → joints standing there
	byID   []map[string]int   // scope*3+axis → station → its place in the list
	at     []map[string]measure.Length
	point  []*measure.Point // of each joint, once found
	base   measure.Length
	up     measure.Dir               // the frame's own
	adjust map[string]measure.Length // added to a dimension's value, by its pointer
	out    *Solution
}

// Solve resolves every dimension to positions. With nil bodies the offsets are
// rough; call again with the bodies found from the tangents until nothing
// moves. base is the floor's height in the frame's own axes, found so far.
func Solve(g *frame.Graph, bodies Bodies, base measure.Length) *Solution {
	if bodies == nil {
		bodies = rough{}
	}
	s := &solver{g: g, bodies: bodies, base: base, up: g.Scopes[0].Orient.Dir(measure.Z.Dir())}
	s.index()
	s.run(nil)
	if len(g.Doc.Drives) > 0 {
		s.drive()
	}
	return s.out
}

// run places everything, with some dimensions adjusted.
func (s *solver) run(adjust map[string]measure.Length) {
	s.adjust = adjust
	s.out = &Solution{Floor: s.base, Base: s.base}
	for i := range s.at {
		clear(s.at[i])
	}
	clear(s.point)
	for sc := range s.g.Scopes {
		for a := range 3 {
			for _, st := range s.g.Scopes[sc].Axes[a].Stations {
				s.find(sc, measure.Axis(a), st.ID)
			}
		}
	}
	s.place()
	s.turnSizes()
	s.places()
}

// turnSizes puts the sizes, found along the axes of their own scopes, on the
// axes of the world.
func (s *solver) turnSizes() {
	for i := range s.out.Sizes {
		z := &s.out.Sizes[i]
		if z.Ends != nil {
			continue // of a bow
		}
		if z.way != nil {
			s.turnWalk(z)
			continue
		}
		d := s.g.Scopes[z.scope].Orient.Dir(z.Axis.Dir())
		origin := s.originOf(z.scope)
		if axis, ok := worldAxis(d); ok {
			z.Axis = axis
			for k := range z.Span {
				z.Span[k] = origin[axis] + z.Span[k].Scale(d[axis])
			}
			continue
		}
		on := origin // the line goes through a joint that stands at the size's end
		if joints := s.on[3*z.scope+int(z.Axis)][z.To]; len(joints) > 0 {
			on = s.out.Points[joints[0]]
		}
		here := dot(on.Sub(origin), d)
		for _, v := range z.Span {
			z.Ends = append(z.Ends, on.Along(d, v-here))
		}
		z.Axis, z.Span = Sloped, [2]measure.Length{}
	}
}

// worldAxis is the axis of the world that a direction runs along.
func worldAxis(d measure.Dir) (measure.Axis, bool) {
	for a := range d {
		if math.Abs(d[a]) > 1-1e-12 {
			return measure.Axis(a), true
		}
	}
	return Sloped, false
}

func dot(p measure.Point, d measure.Dir) (sum measure.Length) {
	for a := range p {
		sum += p[a].Scale(d[a])
	}
	return sum
}

func (s *solver) index() {
	s.on = make([]map[string][]int, 3*len(s.g.Scopes))
	s.at = make([]map[string]measure.Length, 3*len(s.g.Scopes))
	s.byID = make([]map[string]int, 3*len(s.g.Scopes))
	s.point = make([]*measure.Point, len(s.g.Nodes))
	for i := range s.on {
		s.on[i], s.at[i], s.byID[i] = map[string][]int{}, map[string]measure.Length{}, map[string]int{}
		for k, st := range s.g.Scopes[i/3].Axes[i%3].Stations {
			s.byID[i][st.ID] = k
		}
	}
	put := func(scope int, at [3]string, joint int) {
		for a, st := range at {
			s.on[3*scope+a][st] = append(s.on[3*scope+a][st], joint)
		}
	}
	for j, n := range s.g.Nodes {
		for _, p := range n.Places {
			if p.Way != nil {
				continue
			}
			put(p.Scope, p.At, j)
			// a use's joints on its anchor stand on the parent's station too
			for sc, at := p.Scope, p.At; s.g.Scopes[sc].Parent >= 0; sc = s.g.Scopes[sc].Parent {
				up, ok := s.onAnchor(sc, at)
				if !ok {
					break
				}
				for a, st := range up {
					if st != "" {
						s.on[3*s.g.Scopes[sc].Parent+a][st] = append(s.on[3*s.g.Scopes[sc].Parent+a][st], j)
					}
				}
				at = up
			}
		}
	}
}

// onAnchor gives the parent's stations of a joint that stands on its use's
// anchor along an axis; "" along the axes where it does not.
func (s *solver) onAnchor(scope int, at [3]string) (up [3]string, any bool) {
	sc := &s.g.Scopes[scope]
	parent := s.g.Scopes[sc.Parent].Orient
	for a := range 3 {
		if at[a] == "" || at[a] != sc.Anchor[a] {
			continue
		}
		d := sc.Orient.Dir(measure.Axis(a).Dir())
		for b := range 3 {
			if c := parent.Dir(measure.Axis(b).Dir()).Dot(d); math.Abs(c) > 1-1e-9 {
				up[b], any = sc.At[b], true
			}
		}
	}
	return up, any
}

// find gives a station's coordinate in its scope.
func (s *solver) find(sc int, a measure.Axis, id string) measure.Length {
	on := 3*sc + int(a)
	if v, done := s.at[on][id]; done {
		return v
	}
	scope := &s.g.Scopes[sc]
	i, known := s.byID[on][id]
	if !known {
		return 0
	}
	st := &scope.Axes[a].Stations[i]
	v := scope.Axes[a].Origin
	switch {
	case st.Split != nil:
		from, to := s.find(sc, a, st.Split.From), s.find(sc, a, st.Split.To)
		v = from + (to - from).Scale(st.Split.Of())
	case st.Like != nil:
		l := st.Like
		v = s.find(sc, a, l.From) + s.find(sc, l.Axis, l.To) - s.find(sc, l.Axis, l.Of)
	case st.At != nil:
		base := measure.Length(0)
		if st.At.From != frame.Floor {
			base = s.find(sc, a, st.At.From)
		}
		v = s.station(sc, a, i, base)
	default:
		step, joined := scope.Steps[a][id]
		if !joined {
			break
		}
		pitch := s.find(step.Scope, step.Axis, step.Joined[1]) - s.find(step.Scope, step.Axis, step.Joined[0])
		if s.g.Scopes[step.Scope].Orient.Dir(step.Axis.Dir()).Dot(scope.Orient.Dir(a.Dir())) < 0 {
			pitch = -pitch
		}
		v = s.find(sc, a, step.Before) + pitch
	}
	s.at[on][id] = v
	return v
}

// station places one station and records the size it was stated with.
func (s *solver) station(sc int, a measure.Axis, i int, base measure.Length) measure.Length {
	scope := &s.g.Scopes[sc]
	st := scope.Axes[a].Stations[i]
	d := st.At
	dir := scope.Orient.Dir(a.Dir())
	size := Size{Label: d.Label, Prompt: d.Prompt, Axis: a, scope: sc, From: d.From, To: st.ID, Text: d.Text, Is: d.Meaning, Scope: scope.Path, Path: scope.Pointers[a][i]}
	size.Value = d.Value + s.adjust[size.Path]
	if d.From == frame.Floor {
		if dir.Dot(s.up) < 1-1e-9 {
			s.note(finding.Finding{Code: "height-on-a-slope", Severity: finding.Stop, Subject: []string{st.ID},
				Text: fmt.Sprintf("%s is a height from the floor, and its group leans", cmp.Or(d.Label, st.ID)), Hint: "measure it from a station of the group"})
		}
		up := s.topOf(3*sc+int(a), st.ID, d.Meaning, dir)
		origin := dot(s.originOf(sc), s.up)
		size.Sum = why.Sum{}.Plus("stated, "+words[d.Meaning], size.Value).Plus("top of what stands there, above its centre", -up)
		size.Centre = size.Value - up
		at := s.base - origin + size.Centre
		size.Span = [2]measure.Length{s.base - origin, at + up}
		s.out.Sizes = append(s.out.Sizes, size)
		return at
	}
	if d.Back {
		dir = dir.Neg()
	}
	lo, hi := d.From, st.ID
	size.Sum = why.Sum{}.Plus("stated, "+words[d.Meaning], size.Value)
	l1, v1 := s.offset(sc, a, lo, dir, d)
	_, v2 := s.offset(sc, a, hi, dir.Neg(), d)
	s.total(&size, l1, lo, hi, v1, v2, st.ID)
	for _, m := range []frame.Meaning{frame.Centre, frame.Outside, frame.Clear} {
		if m == d.Meaning {
			continue
		}
		other := frame.Dimension{Meaning: m}
		_, o1 := s.offset(sc, a, lo, dir, &other)
		_, o2 := s.offset(sc, a, hi, dir.Neg(), &other)
		size.Also = append(size.Also, Derived{m, size.Centre - o1 - o2})
	}
	at := base + size.Centre
	if d.Back {
		at = base - size.Centre
	}
	size.Span = [2]measure.Length{base + v1, at - v2}
	if d.Back {
		size.Span = [2]measure.Length{base - v1, at + v2}
	}
	s.out.Sizes = append(s.out.Sizes, size)
	return at
}

// total sums a size up from its two ends.
func (s *solver) total(size *Size, label, lo, hi string, v1, v2 measure.Length, subject string) {
	size.Sum = size.Sum.Plus(label+" at "+lo, v1).Plus(label+" at "+hi, v2)
	if v1 == v2 && v1 != 0 { // two equal ends read better as one line
		size.Sum = size.Sum[:len(size.Sum)-2].Plus(label+", twice", 2*v1)
	}
	size.Centre = size.Sum.Total()
	if size.Centre < 0 {
		s.note(finding.Finding{Code: "size-too-small", Severity: finding.Stop, Subject: []string{subject},
			Text: fmt.Sprintf("%s %s leaves less than nothing between the centres", words[size.Is], size.Value),
			Hint: fmt.Sprintf("the bodies alone take %s", size.Value-size.Centre)})
	}
}

func (s *solver) note(f finding.Finding) { s.out.Findings = append(s.out.Findings, f) }

// originOf is where a scope's local origin stands in the world.
func (s *solver) originOf(sc int) measure.Point {
	scope := &s.g.Scopes[sc]
	if scope.Parent < 0 {
		return measure.Point{}
	}
	var anchor measure.Point
	for a, st := range scope.Anchor {
		anchor[a] = s.find(sc, measure.Axis(a), st)
	}
	return s.world(scope.Parent, scope.At).Sub(scope.Orient.Point(anchor))
}

// world is where a scope's stations cross.
func (s *solver) world(sc int, at [3]string) measure.Point {
	var p measure.Point
	for a, st := range at {
		p[a] = s.find(sc, measure.Axis(a), st)
	}
	return s.originOf(sc).Add(s.g.Scopes[sc].Orient.Point(p))
}

// mergeSlack is how far two merged joints may miss each other.
const mergeSlack = measure.Inch / 1000

func (s *solver) place() {
	o, stands := s.out, false
	down := s.up.Neg()
	for j, n := range s.g.Nodes {
		p := s.pointOf(j)
		o.Points = append(o.Points, p)
		for k := range n.Places[1:] {
			if gap := p.Distance(s.seenAt(j, &n.Places[1+k])); gap > mergeSlack {
				s.note(finding.Finding{Code: "sizes-disagree", Severity: finding.Stop, Subject: []string{n.ID},
					Text: fmt.Sprintf("the groups that share joint %s put it in two places, %s apart", n.ID, gap), Hint: "change one of the sizes that lead to it"})
			}
		}
		if len(n.Pipes) == 0 {
			continue
		}
		low, base := p[2]-s.bodies.Extent(j, measure.Dir{0, 0, -1}), dot(p, s.up)-s.bodies.Extent(j, down)
		if !stands || low < o.Floor {
			o.Floor = low
		}
		if !stands || base < o.Base {
			o.Base = base
		}
		stands = true
	}
	for i, e := range s.g.Edges {
		a, b := o.Points[e.Ends[0]], o.Points[e.Ends[1]]
		long, leave, way := a.Distance(b), [2]measure.Dir{a.Toward(b), b.Toward(a)}, (*curve.Curve)(nil)
		if e.Path != frame.Straight {
			if way = s.bow(i); way != nil {
				long, leave = way.Length, way.Tangents
			}
		}
		o.Lengths, o.Tangents, o.Curves = append(o.Lengths, long), append(o.Tangents, leave), append(o.Curves, way)
		if a == b {
			s.note(finding.Finding{Code: "zero-length", Severity: finding.Stop, Subject: []string{e.ID},
				Text: fmt.Sprintf("the pipe %s has no length", e.ID), Hint: "move one of its ends"})
		}
	}
}
