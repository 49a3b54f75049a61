package frame

import (
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Orient is a turn with or without a mirror: row i gives what the i-th world
// coordinate is made of. By quarter turns it is made of whole numbers, and
// points turn without loss.
type Orient [3][3]float64

var upright = Orient{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}

// turned is the turn about an axis by degrees.
func (t Turn) orient() Orient {
	c, s := math.Cos(t.By*math.Pi/180), math.Sin(t.By*math.Pi/180)
	if q := t.By / 90; q == math.Trunc(q) { // quarter turns stay whole
		c, s = math.Round(c), math.Round(s)
	}
	o := upright
	a, b := (t.About+1)%3, (t.About+2)%3
	o[a][a], o[a][b], o[b][a], o[b][b] = c, -s, s, c
	return o
}

func turnedBy(o Orient, turns []Turn) Orient {
	for _, t := range turns {
		o = t.orient().times(o)
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

// mirrors says whether a turn has a mirror in it: its determinant is below zero.
func (o Orient) mirrors() bool {
	return measure.Dir(o[0]).Dot(measure.Dir(o[1]).Cross(measure.Dir(o[2]))) < 0
}

func (o Orient) times(p Orient) Orient {
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

// Scope is one set of axes in the expanded frame: the root's, or a use's.
type Scope struct {
	Path   string    // "" for the root
	Of     string    // the group's id; "" for the root
	Parent int       // -1 for the root
	At     [3]string // the parent's stations that the anchor stands on
	Anchor [3]string // this scope's own stations
	Orient Orient    // from this scope's axes to the world's
	Axes   [3]AxisStations
	// Pointers holds, for each station, where its dimension stands in the
	// document, as a JSON pointer.
	Pointers [3][]string
	// Steps holds the stations that joined copies of a use stand on.
	Steps [3]map[string]Step
}

// Step places a copy of a joined array: as far beyond the copy before as two
// stations of the group are apart.
type Step struct {
	Before string       // the parent's station of the copy before
	Scope  int          // of the first copy
	Axis   measure.Axis // of the group
	Joined [2]string    // stations of the group
}

// Seen is a place where a joint stands in a scope's own stations, or the way
// that leads to it.
type Seen struct {
	Scope int
	At    [3]string
	Way   *Way
}

// Way is a walk to a joint, with joints as nodes of the graph and the
// direction in world axes.
type Way struct {
	From    int
	Toward  int // -1: by Dir
	Dir     measure.Dir
	Size    *Dimension
	Share   float64
	Until   *Until
	Pointer string // JSON pointer of Size
}

// PipeEnd names an end of a pipe: 0 at From, 1 at To.
type PipeEnd struct{ Pipe, End int }

// Node is a joint of the flat graph.
type Node struct {
	ID      string
	Places  []Seen // the first decides the position; more when joints were merged
	End     End
	Fitting *Forced
	Pipes   []PipeEnd
	mode    Mode
	reason  string
	scope   modeScope
}

type modeScope struct {
	mode Mode
	from string
}

// Held is how one end of a pipe is held and which setting says so.
type Held struct {
	Mode   Mode
	Reason string
	Seat   float64 // share of socket depth
}

// Edge is a pipe of the flat graph.
type Edge struct {
	ID    string
	Ends  [2]int // nodes
	Size  catalog.Size
	Held  [2]Held
	Scope int
	Path  Path

	Bow    *Bow           // of a sprung pipe
	Via    []int          // of a bent pipe: nodes
	Radius measure.Length // of a bent pipe
	drawn  [2]Held        // as the definitions say, before any [Hold]
}

// Bow is a [Spring] in world axes.
type Bow struct {
	Size    *Dimension
	Toward  measure.Dir
	Leave   [2]*measure.Dir
	Pointer string // JSON pointer of Size
}

// Graph is a frame with every use expanded.
type Graph struct {
	Doc    *Document
	Scopes []Scope
	Nodes  []Node
	Edges  []Edge
	Bonds  []Bond
}

// Rigid gives the same graph whose joints know only the pipes that keep their
// ends where they are: a sprung pipe gives way. The pipes keep their numbers.
func (g *Graph) Rigid() *Graph {
	r := *g
	r.Nodes = slices.Clone(g.Nodes)
	for i := range r.Nodes {
		r.Nodes[i].Pipes = slices.DeleteFunc(slices.Clone(r.Nodes[i].Pipes), func(pe PipeEnd) bool { return g.Edges[pe.Pipe].Path == Sprung })
	}
	return &r
}

// Node finds a joint by its path; -1 when there is none.
func (g *Graph) Node(id string) int {
	for i := range g.Nodes {
		if g.Nodes[i].ID == id {
			return i
		}
	}
	return -1
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
