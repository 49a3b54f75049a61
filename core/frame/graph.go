package frame

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Orient is a turn by quarter turns with or without a mirror: row i gives
// where the i-th world coordinate comes from.
type Orient [3][3]int8

var upright = Orient{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}

// Point turns a local point into world axes.
func (o Orient) Point(p measure.Point) measure.Point {
	var q measure.Point
	for i := range o {
		for j := range o[i] {
			q[i] += measure.Length(o[i][j]) * p[j]
		}
	}
	return q
}

// Dir turns a local direction into world axes.
func (o Orient) Dir(d measure.Dir) measure.Dir {
	var q measure.Dir
	for i := range o {
		for j := range o[i] {
			q[i] += float64(o[i][j]) * d[j]
		}
	}
	return q
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
}

// Seen is a place where a joint stands in a scope's own stations.
type Seen struct {
	Scope int
	At    [3]string
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
	drawn [2]Held // as the definitions say, before any [Hold]
}

// Graph is a frame with every use expanded.
type Graph struct {
	Doc    *Document
	Scopes []Scope
	Nodes  []Node
	Edges  []Edge
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
