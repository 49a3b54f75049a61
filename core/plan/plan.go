package plan

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/why"
)

// Plan is everything that follows from a job.
type Plan struct {
	Frames   []Frame           `json:"frames"`
	Cuts     []CutLine         `json:"cuts"`     // the cut list, by letter
	Fittings []FittingCount    `json:"fittings"` // of all frames and copies
	Pipe     []PipeTotal       `json:"pipe"`     // by size
	Tools    []ToolCount       `json:"tools"`    // sticks to buy by tool
	Tool     Tool              `json:"tool"`
	Joinery  joinery.Report    `json:"joinery"`
	Bill     cost.Bill         `json:"bill"`
	Totals   Totals            `json:"totals"`
	Findings []finding.Finding `json:"findings"`
	Cautions []string          `json:"cautions"`
	Step     measure.Length    `json:"step"`

	Improving bool      `json:"improving,omitempty"` // the purchase is a first one: a better one is looked for
	Figures   []Figured `json:"figures"`             // what the plan of its sizes rests on, typical and measured
	Seats     []Seating `json:"seats"`
	Budget    *Budget   `json:"budget,omitempty"` // of a described build
}

// Totals is the job in one line.
type Totals struct {
	Pieces   int            `json:"pieces"`
	Net      measure.Length `json:"net"`
	Sticks   int            `json:"sticks"`
	Fittings int            `json:"fittings"`
	Cemented int            `json:"cemented"`
	Dry      int            `json:"dry"`
	Proven   bool           `json:"proven"`
}

// Frame is one frame, planned.
type Frame struct {
	Name            string              `json:"name"`
	Units           measure.Unit        `json:"units"`
	Copies          int                 `json:"copies"`
	Joints          []fitting.Joint     `json:"joints"`
	Pipes           []Pipe              `json:"pipes"`
	Overall         [3]cutlist.Extent   `json:"overall"`
	Seated          []Seated            `json:"seated"` // the outside size in each state
	Floor           measure.Length      `json:"floor"`
	Contacts        []fitting.Contact   `json:"contacts"` // where it stands
	Ports           fitting.Audit       `json:"ports"`    // what is in every port and at every pipe's end
	Sizes           []layout.Size       `json:"sizes"`
	Places          []layout.Place      `json:"places"` // the axes it is built on, with their planes: its own first, then each use's
	Loops           []cutlist.Loop      `json:"loops"`
	Insertions      []fitting.Insertion `json:"insertions"`
	Instances       []Instance          `json:"instances"` // the uses of groups in it, each before those inside it
	Check           *CutListCheck       `json:"check,omitempty"`
	Links           []link.Report       `json:"links"`           // what holds together without a socket
	ClearanceChecks []CheckedClearance  `json:"clearanceChecks"` // checks against sizes that are not its own
	graph           *frame.Graph
	points          []measure.Point
	list            *cutlist.List
	fits            *fitting.Result
	solved          *layout.Solution
}

// Instance is one use of a group in a frame. Its joints' ids begin with its path.
type Instance struct {
	Path  string `json:"path"`
	Group string `json:"group"`
	Name  string `json:"name"` // of the group
}

// Pipe is a pipe of the frame where it stands.
type Pipe struct {
	cutlist.Piece
	From   string           `json:"from"`
	To     string           `json:"to"`
	Letter string           `json:"letter"`
	Stick  int              `json:"stick"` // of its size, counted from 1: where the first copy's piece is cut from; 0: from none
	Bare   [2]measure.Point `json:"bare"`  // the ends of the pipe itself
	Shown  [2]measure.Point `json:"shown"` // the part between the two rims
	OD     measure.Length   `json:"od"`

	Path   frame.Path      `json:"path,omitempty"`
	Way    []measure.Point `json:"way,omitempty"`    // of a pipe that is not straight: along its middle line from rim to rim
	Radius measure.Length  `json:"radius,omitempty"` // where it is bent the most
	Strain float64         `json:"strain,omitempty"` // in its outer fibre there, as a share of its length

	Class    frame.Class    `json:"class,omitempty"`
	Ordered  measure.Length `json:"ordered"`            // what is cut: its cut, longer where it is trimmed to fit or still to be measured
	Waits    bool           `json:"waits,omitempty"`    // not cut before it is measured on the frame
	Measured bool           `json:"measured,omitempty"` // it was: Ordered is what was measured
}

// Spot is a place on the visible part of a pipe, at a share of the way along it.
func (p *Pipe) Spot(share float64) measure.Point {
	if n := len(p.Way); n > 1 {
		at := share * float64(n-1)
		i := min(int(at), n-2)
		return p.Way[i].Along(p.Way[i].Toward(p.Way[i+1]), p.Way[i].Distance(p.Way[i+1]).Scale(at-float64(i)))
	}
	return p.Shown[0].Along(p.Shown[0].Toward(p.Shown[1]), p.Shown[0].Distance(p.Shown[1]).Scale(share))
}

// Seated is the outside size of the cut frame in one state of its joints.
type Seated struct {
	State string            `json:"state"` // hand-tight, driven or finished
	Text  string            `json:"text"`
	Size  [3]measure.Length `json:"size"`
	Gap   measure.Length    `json:"gap"` // what does not meet in this state, shared out
}

// CutLine is the pieces of one size and length.
type CutLine struct {
	Letter   string         `json:"letter"`
	Size     catalog.Size   `json:"size"`
	Cut      measure.Length `json:"cut"`
	Count    int            `json:"count"` // copies included
	Pipes    []PipeRef      `json:"pipes"`
	Hidden   bool           `json:"hidden"` // a hidden nipple among them
	TooShort bool           `json:"tooShort"`
	Sum      why.Sum        `json:"sum"`            // of the first
	Path     frame.Path     `json:"path,omitempty"` // of the first: it is sprung, or bent after cutting
	Class    frame.Class    `json:"class,omitempty"`
	Waits    bool           `json:"waits,omitempty"` // until it is measured on the frame; Cut is the most it may be
	Typed    string         `json:"typed,omitempty"` // as typed for one of them, where the tape shows something else
}

// Note says what is special about the pieces, in a word or two; "" for
// ordinary ones.
func (g *CutLine) Note() string {
	switch {
	case g.TooShort:
		return "too short"
	case g.Hidden:
		return "hidden nipple"
	case g.Waits:
		return "at most; measured on the frame"
	}
	switch {
	case g.Class != frame.Exact:
		return classWords[g.Class]
	case g.Path == frame.Bent:
		return "bent by heat after cutting"
	case g.Path == frame.Sprung:
		return "sprung"
	case g.Typed != "":
		return "typed " + g.Typed
	}
	return ""
}

var classWords = map[frame.Class]string{frame.Matched: "matched set", frame.Trim: "cut long, trim to fit", frame.Rough: "rough", frame.OnFrame: "as measured"}

// PipeRef names a pipe of a frame.
type PipeRef struct {
	Frame int    `json:"frame"`
	Pipe  string `json:"pipe"`
}

// FittingCount is how many of one fitting.
type FittingCount struct {
	Kind  catalog.Kind `json:"kind"`
	Size  string       `json:"size"`
	Count int          `json:"count"`
}

// PipeTotal is one size of pipe: what is cut, lost, left and bought.
type PipeTotal struct {
	Size   catalog.Size   `json:"size"`
	Pieces int            `json:"pieces"`
	Yield  float64        `json:"yield"` // net as a share of what is bought or used
	Stock  stock.Material `json:"stock"`
}

// ToolCount is the purchase with one kerf.
type ToolCount struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Kerf   measure.Length `json:"kerf"`
	Sticks int            `json:"sticks"`
	Cost   measure.Money  `json:"cost"`
	Priced bool           `json:"priced"`
	Proven bool           `json:"proven"`
	Chosen bool           `json:"chosen"`
}

// Points gives the joints' positions of a frame, for export.
func (f *Frame) Points() []measure.Point { return f.points }

// Graph gives the expanded frame.
func (f *Frame) Graph() *frame.Graph { return f.graph }
