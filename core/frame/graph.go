package frame

import (
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Orient is a rotation, with or without a reflection, as a 3 × 3 matrix: row i holds
// the factors of the i-th world coordinate. For quarter turns all factors are whole
// numbers, so that points are turned without rounding.
type Orient [3][3]float64

var upright = Orient{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}

// orient is the turn as a matrix.
func (t Turn) orient() Orient {
	c, s := math.Cos(t.By*math.Pi/180), math.Sin(t.By*math.Pi/180)
	if whole(t.By / 90) { // quarter turns stay whole
		c, s = math.Round(c), math.Round(s)
	}
	o := upright
	a, b := (t.About+1)%3, (t.About+2)%3
	o[a][a], o[a][b], o[b][a], o[b][b] = c, -s, s, c
	return o
}

func turnedBy(o Orient, turns []Turn) Orient {
	for _, t := range turns {
		o = t.orient().Times(o)
	}
	return o
}

// Point turns a local point into world axes.
func (o Orient) Point(p measure.Point) measure.Point {
	var q measure.Point
	for i := range o {
		for j := range o[i] {
			if o[i][j] != 0 {
				q[i] += p[j].Scale(o[i][j])
			}
		}
	}
	return q
}

// Dir turns a local direction into world axes.
func (o Orient) Dir(d measure.Dir) measure.Dir {
	var q measure.Dir
	for i := range o {
		for j := range o[i] {
			q[i] += o[i][j] * d[j]
		}
	}
	return q
}

// mirrors says whether there is a reflection in it: the determinant is negative.
func (o Orient) mirrors() bool {
	return measure.Dir(o[0]).Dot(measure.Dir(o[1]).Cross(measure.Dir(o[2]))) < 0
}

// Times is the product of two: p is applied first.
func (o Orient) Times(p Orient) Orient {
	var q Orient
	for i := range o {
		for j := range p[0] {
			for k := range p {
				q[i][j] += o[i][k] * p[k][j]
			}
		}
	}
	return q
}

// Scope is one instance of a definition in the expanded frame, with axes of its own:
// the frame itself, or a use of a group.
type Scope struct {
	Path   string // "" for the root
	Of     string // the group's id; "" for the root
	Parent int    // -1 for the root
	Use    string // the use's id in its definition
	Orient Orient // from this scope's axes to the world's
	Planes [3][]Plane
	held   [3]Ref // the group's own: where it is held
}

// ResolvedRef is what a [Ref] names in the expanded frame: a node, a named plane of a
// scope, or the floor.
type ResolvedRef struct {
	Node  int    // -1: a plane, or the floor
	Scope int    // of the plane
	Plane string // "" for the floor
}

// ResolvedSize is a [Size] in one instance of its definition.
type ResolvedSize struct {
	*Size
	Key      string // its id; of a further use or copy with where it stands
	Scope    int
	Pipe     int // -1: of none
	From, To ResolvedRef
	Foot     int  // node; -1: none
	Again    bool // of a copy, whose first copy has stated it
}

// ResolvedReason is a [Reason] in one instance of its definition.
type ResolvedReason struct {
	*Reason
	Scope              int
	Of, From, To       ResolvedRef
	EqualFrom, EqualTo ResolvedRef
}

// ResolvedHold says where the anchor of an instance stands, along one axis of the
// scope around it.
type ResolvedHold struct {
	Scope  int // around it
	Child  int // its own
	Axis   measure.Axis
	At     ResolvedRef // in the scope around it, or in the copy before
	Anchor ResolvedRef // in its own
	Use    string      // its id
	Of     string      // the group around it
	Rank   int
}

// PipeEnd names an end of a pipe: 0 at From, 1 at To.
type PipeEnd struct{ Pipe, End int }

// Node is a joint of the expanded frame.
type Node struct {
	ID      string
	Name    string         // that the builder gave it
	Names   []string       // of joints that were merged into it
	Scope   int            // that it is drawn in
	On      []OnNamedPlane // named planes that it stands on
	End     End
	Fitting *Forced
	Later   *Forced // that may stand there one day
	Pipes   []PipeEnd
	mode    Mode
	reason  string
	scope   modeScope
	merged  bool // with another joint
	gone    bool // into another node
}

// OnNamedPlane names a plane of a scope on which a joint stands.
type OnNamedPlane struct {
	Scope int
	Axis  measure.Axis
	Plane string
}

type modeScope struct {
	mode Mode
	from string
}

// EndMode says how one end of a pipe is held, how deep it sits, and which setting
// decided it.
type EndMode struct {
	Mode   Mode
	Reason string
	Seat   float64 // share of socket depth
}

// Edge is a pipe of the expanded frame.
type Edge struct {
	ID    string
	Ends  [2]int // nodes
	Size  catalog.Size
	Held  [2]EndMode
	Scope int
	Path  Path

	Dir   *measure.Dir // in its scope's axes, where it has one that did not give way
	Drawn *Pipe        // as the definition has it

	Bow    *Bow           // of a sprung pipe
	Via    []int          // of a bent pipe: nodes
	Radius measure.Length // of a bent pipe
	drawn  [2]EndMode     // as the definitions say, before any [ModeRule]
}

// Bow is a [Spring] in world axes.
type Bow struct {
	Toward measure.Dir
	Leave  [2]*measure.Dir
}

// Graph is the expanded frame: every instance of every group with joints, pipes,
// sizes and reasons of its own. It is what all other rooms read.
type Graph struct {
	Doc     *Document
	Scopes  []Scope
	Nodes   []Node
	Edges   []Edge
	Links   []ResolvedLink
	Sizes   []ResolvedSize
	Reasons []ResolvedReason
	Holds   []ResolvedHold
}

// Rigid gives the same graph without sprung pipes at its joints: a sprung pipe adapts
// to where its ends are and fixes nothing. Pipes keep their indices.
func (g *Graph) Rigid() *Graph {
	r := *g
	r.Nodes = slices.Clone(g.Nodes)
	for i := range r.Nodes {
		r.Nodes[i].Pipes = slices.DeleteFunc(
			slices.Clone(r.Nodes[i].Pipes),
			func(pe PipeEnd) bool { return g.Edges[pe.Pipe].Path == Sprung },
		)
	}
	return &r
}

// Node finds a joint by its path, or by one that was merged into it; -1 when
// there is none.
func (g *Graph) Node(id string) int {
	for i := range g.Nodes {
		if g.Nodes[i].ID == id {
			return i
		}
	}
	return slices.IndexFunc(g.Nodes, func(n Node) bool { return slices.Contains(n.Names, id) })
}

// Edge finds a pipe by its path; -1 when there is none.
func (g *Graph) Edge(id string) int {
	for i := range g.Edges {
		if g.Edges[i].ID == id {
			return i
		}
	}
	return -1
}

// Back is the inverse.
func (o Orient) Back() Orient {
	var b Orient
	for i := range o {
		for j := range o[i] {
			b[j][i] = o[i][j]
		}
	}
	return b
}
