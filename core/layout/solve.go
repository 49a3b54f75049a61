package layout

import (
	"cmp"
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

// Size is a stated size with the value that it has in the solved frame.
type Size struct {
	ID     string            `json:"id"`
	Label  string            `json:"label"`
	Prompt string            `json:"prompt,omitempty"` // the starter's prompt that asked for it
	Pipe   string            `json:"pipe,omitempty"`   // that it was typed for
	Axis   measure.Axis      `json:"axis"`             // of the world
	From   string            `json:"from"`
	To     string            `json:"to"`
	Value  measure.Length    `json:"value"`
	Text   string            `json:"text"`
	Unit   measure.Unit      `json:"unit,omitempty"` // that a bare number in the text was in
	Is     frame.Meaning     `json:"meaning"`
	Centre measure.Length    `json:"centre"` // the centre distance that it asks for
	Sum    why.Sum           `json:"sum"`    // from the value to the centre distance
	Also   []Derived         `json:"also"`   // the same distance, in the other meanings
	Span   [2]measure.Length `json:"span"`   // where what it measures begins and ends, along the world's axis
	Scope  string            `json:"scope"`
	// Ends is where what it measures begins and ends, of a size that runs along
	// no axis of the world; its Axis is then [Sloped].
	Ends     []measure.Point `json:"ends,omitempty"`
	Inferred bool            `json:"inferred,omitempty"` // nobody typed it
	Foot     string          `json:"foot,omitempty"`     // of a height: the joint whose body it is measured from
	Out      measure.Length  `json:"out"`                // what it is, which differs where it gave way
	Holds    bool            `json:"holds"`              // it is what was typed, to a step of the tape
	Gave     string          `json:"gave,omitempty"`     // what it gave way to, in words
	Freed    bool            `json:"freed,omitempty"`    // some of that has gone: it may hold again
	// Can is the meanings that it can have, and Between the pipe that runs between the two places
	// that it is a size of, by its name in the definition: its cut is one of them.
	Can     []frame.Meaning `json:"can"`
	Between string          `json:"between,omitempty"`
	// Starters says that a starter said it, and nobody typed it since.
	Starters bool `json:"starters,omitempty"`
}

// Sloped is the Axis of a size that runs along none of the world's axes.
const Sloped measure.Axis = -1

// Derived is a size that follows from a stated one.
type Derived struct {
	Is    frame.Meaning  `json:"meaning"`
	Value measure.Length `json:"value"`
}

// Solution holds the positions of a solved frame and, once [Solution.Account] was
// called, the account of its sizes.
type Solution struct {
	Points   []measure.Point      // of each joint
	Lengths  []measure.Length     // of each pipe, centre to centre (to the drawn point at a free end)
	Tangents [][2]measure.Dir     // of each pipe, leaving its two joints
	Curves   []*curve.Curve       // of each pipe that is not straight
	Floor    measure.Length       // height of the plane the lowest bodies rest on
	Base     measure.Length       // the same in the frame's own axes, before it is stood on its stance
	Whole    [3][2]measure.Length // where the outermost bodies end, along the world's axes; zeros in an empty frame
	Outmost  [3][2]int            // the joints that these stand at; -1 in an empty frame
	Lowest   int                  // the joint whose body is lowest in the frame's own axes; -1 in an empty frame
	Sizes    []Size
	Typed    map[int]Typed // pipes that a cut length was typed for
	Clashes  []Clash
	Near     []NearMiss
	Free     []Free
	Places   []Place // of each scope of the graph
	Findings []finding.Finding
	// Unfinished says that so many slopes decide each other that finding where
	// they run was given up: see [constraint.MaxWork].
	Unfinished bool
	Work       int // that finding it cost, as [constraint.Result] counts it

	solver *solver // until the account was given
}

// Typed is a cut length as it was typed for a pipe.
type Typed struct {
	Size  string // its id
	Value measure.Length
	Holds bool
}

// NearMiss is a size or reason that is off by less than a step of the tape.
type NearMiss struct {
	Party
	Off measure.Length
}

// Free is a group of joints whose position nothing decides. They move together: the
// first along Axis of its scope, each other one along the axis of its own scope that
// Ways gives.
type Free struct {
	Scope int
	Axis  measure.Axis // of that scope
	Nodes []int
	Ways  []measure.Axis
}

// Way is the axis, of its own scope, along which one of the joints moves.
func (f *Free) Way(node int) measure.Axis {
	if i := slices.Index(f.Nodes, node); i >= 0 {
		return f.Ways[i]
	}
	return f.Axis
}

// placeholderBodies is used before the fittings are known. An inch at each pipe's end
// keeps joints that touch from falling onto one point.
type placeholderBodies struct{}

func (placeholderBodies) Reach(int, measure.Dir) measure.Length  { return 0 }
func (placeholderBodies) Extent(int, measure.Dir) measure.Length { return 0 }
func (placeholderBodies) Radius(int) measure.Length              { return 0 }
func (placeholderBodies) TakeOff(frame.PipeEnd) measure.Length   { return measure.Inch }
func (placeholderBodies) Face(frame.PipeEnd) measure.Length      { return measure.Inch }

// still is the distance within which a point counts as unmoved: the rounding error
// of turning directions into whole nanometres.
const still = 100 * measure.Nanometre

// At says whether all joints have the same positions as in another solution.
func (s *Solution) At(o *Solution) bool {
	return slices.EqualFunc(s.Points, o.Points, func(p, q measure.Point) bool {
		return (p[0]-q[0]).Abs() <= still && (p[1]-q[1]).Abs() <= still && (p[2]-q[2]).Abs() <= still
	})
}

// TapeStep is the smallest difference that a tape shows. Sizes that contradict each
// other by no more than that are all kept.
const TapeStep = measure.Inch / 16

type solver struct {
	short []string // the joints' short names, once somebody asks
	equations
	bodies Bodies
	was    *Solution // as it was found last; nil at first
	base   measure.Length
	up     measure.Dir // the frame's own
	out    *Solution
	in     []inScope       // of each scope: what belongs to it
	worded map[string]said // of what can give way, by its key
}

// Locate computes the positions of all joints, and with them the pipes' lengths,
// tangents and curves, the floor and the outermost bodies. Positions depend on the
// fittings and the fittings on the pipes' directions, so it is called in turn with
// finding the fittings: first with nil bodies and nil was, then with the fittings
// and the previous solution, until no joint moves. Then call [Solution.Account].
// The cost is near linear in the frame, except for slopes that decide each other.
func Locate(g *frame.Graph, bodies Bodies, was *Solution) *Solution {
	if bodies == nil {
		bodies = placeholderBodies{}
	}
	s := &solver{bodies: bodies, was: was, up: g.Scopes[0].Orient.Dir(measure.Z.Dir())}
	if was != nil {
		s.base = was.Base
	}
	s.out = &Solution{Floor: s.base, Base: s.base, Lowest: -1, Typed: map[int]Typed{}}
	if was != nil && was.solver != nil && was.solver.g == g { // only what sizes come to is another
		s.equations = was.solver.equations
		s.again()
	} else {
		s.equations.g = g
		s.reasons()
	}
	s.sizes()
	s.solve()
	s.place()
	s.out.solver = s
	return s.out
}

// Account fills in the value and the sum of each size, the clashes, the free joints,
// the planes of each scope, and the findings. It is called once, on the last
// solution, because describing contradictions costs more than solving does.
func (o *Solution) Account() {
	if s := o.solver; s != nil {
		o.solver = nil
		s.report()
		s.clashes()
		s.places()
		s.meanings()
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

func (s *solver) addFinding(f finding.Finding) { s.out.Findings = append(s.out.Findings, f) }

// place turns what was found into points of the world, finds the curves and
// the floor.
func (s *solver) place() {
	o, stands := s.out, false
	down := s.up.Neg()
	o.Outmost = [3][2]int{{-1, -1}, {-1, -1}, {-1, -1}}
	n := len(s.g.Edges)
	o.Points, o.Lengths = make([]measure.Point, 0, len(s.g.Nodes)), make([]measure.Length, 0, n)
	o.Tangents, o.Curves = make([][2]measure.Dir, 0, n), make([]*curve.Curve, 0, n)
	for j := range s.g.Nodes {
		p := s.point(j)
		o.Points = append(o.Points, p)
		if len(s.g.Nodes[j].Pipes) == 0 {
			continue
		}
		low, base := p[2]-s.bodies.Extent(j, measure.Dir{0, 0, -1}), dot(p, s.up)-s.bodies.Extent(j, down)
		if !stands || low < o.Floor {
			o.Floor = low
		}
		if !stands || base < o.Base {
			o.Base, o.Lowest = base, j
		}
		stands = true
		s.widen(j, p)
	}
	for i, e := range s.g.Edges {
		a, b := o.Points[e.Ends[0]], o.Points[e.Ends[1]]
		long, leave, way := a.Distance(b), [2]measure.Dir{a.Toward(b), b.Toward(a)}, (*curve.Curve)(nil)
		if e.Path != frame.Straight {
			if way = s.bow(i); way != nil {
				long, leave = way.Length, way.Tangents
			}
		} else if e.Dir != nil { // a slope's direction is not what rounding left of it
			d := s.g.Scopes[e.Scope].Orient.Dir(*e.Dir)
			if c := d.Dot(leave[0]); a == b || c > 1-1e-12 {
				leave = [2]measure.Dir{d, d.Neg()}
			}
		}
		o.Lengths, o.Tangents, o.Curves = append(o.Lengths, long), append(o.Tangents, leave), append(o.Curves, way)
		if a == b {
			s.addFinding(finding.New("zero-length", finding.Stop, finding.All(finding.Pipe, e.ID)...))
		} else if e.Dir != nil && s.g.Scopes[e.Scope].Orient.Dir(*e.Dir).Dot(a.Toward(b)) < 0 {
			s.addFinding(finding.New("turned-round", finding.Stop, finding.All(finding.Pipe, e.ID)...))
		}
	}
}

// widen extends the outside size by the bodies at a joint.
func (s *solver) widen(j int, p measure.Point) {
	o := s.out
	for a := range measure.Axis(3) {
		if lo := p[a] - s.bodies.Extent(j, a.Dir().Neg()); o.Outmost[a][0] < 0 || lo < o.Whole[a][0] {
			o.Whole[a][0], o.Outmost[a][0] = lo, j
		}
		if hi := p[a] + s.bodies.Extent(j, a.Dir()); o.Outmost[a][1] < 0 || hi > o.Whole[a][1] {
			o.Whole[a][1], o.Outmost[a][1] = hi, j
		}
	}
}

// Place is one set of axes, the frame's own or a use's, with the planes on
// which its joints stand.
type Place struct {
	Path   string         `json:"path"`  // of the use; "" for the frame itself
	Group  string         `json:"group"` // its definition; "" for the frame itself
	Axes   [3]measure.Dir `json:"axes"`  // in the world
	Planes [3][]Plane     `json:"planes"`
}

// Plane is joints that are level for a reason. Planes are in the order of the
// axis; several may stand at one place.
type Plane struct {
	Ref       frame.Ref      `json:"ref"`  // its name, or its first joint
	Name      string         `json:"name"` // as it is called
	At        measure.Length `json:"at"`   // along its own axis
	Joints    []string       `json:"joints"`
	Size      string         `json:"size,omitempty"`      // the id of a size that ends here
	From      frame.Ref      `json:"from,omitempty"`      // where that size begins, on a plane before this one
	Even      []frame.Ref    `json:"even,omitempty"`      // it is spread between these two
	EqualAxis string         `json:"equalAxis,omitempty"` // the axis that it takes its size from
	Copied    bool           `json:"copied,omitempty"`
	Mark      int            `json:"mark"` // planes at one place are one mark of the ruler, counted along it
}

// Local gives a point of the world in a place's own axes.
func (p *Place) Local(q measure.Point) (l measure.Point) {
	for a := range 3 {
		l[a] = dot(q, p.Axes[a])
	}
	return l
}

// Turned gives a direction of the world in a place's own axes.
func (p *Place) Turned(d measure.Dir) (l measure.Dir) {
	for a := range 3 {
		l[a] = d.Dot(p.Axes[a])
	}
	return l
}

// Definition of a place in a document.
func (p *Place) Definition(d *frame.Document) *frame.Definition {
	if p.Group == "" {
		return &d.Root
	}
	return d.Group(p.Group)
}

// Find gives the plane of an axis that a reference is on; -1 when it is on none.
func (p *Place) Find(a measure.Axis, r frame.Ref) int {
	_, name, plane := r.Parts()
	return slices.IndexFunc(p.Planes[a], func(l Plane) bool {
		return l.Ref == r || !plane && slices.Contains(l.Joints, string(r)) ||
			plane && string(r) == "="+name && l.Name == name && l.Ref == r
	})
}

func sortPlanes(all []Plane) {
	slices.SortStableFunc(all, func(x, y Plane) int { return cmp.Compare(x.At, y.At) })
}
