package plan

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/procure"
)

// Plan is everything that follows from a job: its frames as they are built, what is
// bought for them and how it is cut, and what its analyses say.
type Plan struct {
	Frames []Frame `json:"frames"`
	procure.Purchase
	JobFigures
	Findings []finding.Finding `json:"findings"`
	Cautions []string          `json:"cautions"`
	Step     measure.Length    `json:"step"`
	// Newer says which of the figures that the work was begun with are others in the shop
	// by now; the plan keeps the first until newer ones are taken.
	Newer []Newer `json:"newer"`
	Begun bool    `json:"begun,omitempty"` // the work keeps the figures that it was begun with
}

// Frame is one frame, planned.
type Frame struct {
	Name       string              `json:"name"`
	Units      measure.Unit        `json:"units"`
	Copies     int                 `json:"copies"`
	Waiting    *Waiting            `json:"waiting,omitempty"` // it is but a part of what was drawn
	Joints     []Joint             `json:"joints"`
	Pipes      []Pipe              `json:"pipes"`
	Overall    [3]cutlist.Extent   `json:"overall"`
	Floor      measure.Length      `json:"floor"`
	Contacts   []fitting.Contact   `json:"contacts"` // where it stands
	Ports      fitting.Audit       `json:"ports"`    // what is in every port and at every pipe's end
	Sizes      []layout.Size       `json:"sizes"`
	Places     []layout.Place      `json:"places"` // the axes it is built on, with their planes: its own first, then each use's
	Loops      []cutlist.Loop      `json:"loops"`
	Insertions []fitting.Insertion `json:"insertions"`
	Instances  []Instance          `json:"instances"` // the uses of groups in it, each before those inside it
	FrameFigures

	built *model.Built
}

// Joint is what stands at a joint, and what a builder calls it.
type Joint struct {
	fitting.Joint
	Name  string       `json:"name"`            // in short: j4
	Where string       `json:"where"`           // in plain words: upper left corner; "" where the frame has but one place
	Later catalog.Kind `json:"later,omitempty"` // the fitting that may stand there one day
}

// Pipe is a pipe of the frame where it stands, and what it is cut from.
type Pipe struct {
	model.Placed
	Letter string `json:"letter"`
	Where  string `json:"where"`         // in plain words: upper left
	Was    string `json:"was,omitempty"` // what the record calls it, where that is another path
	Stick  int    `json:"stick"`         // of its size, counted from 1: where the first copy's piece is cut from; 0: from none
}

// Instance is one use of a group in a frame. Its joints' ids begin with its path.
type Instance struct {
	Path  string `json:"path"`
	Group string `json:"group"`
	Name  string `json:"name"` // of the group
}

// The types of what a plan says, by the names under which its users know them.
type (
	CutLine      = procure.CutLine
	FittingCount = procure.FittingCount
	Seated       = model.Seated
)

// Points gives the joints' positions of a frame, for export.
func (f *Frame) Points() []measure.Point { return f.built.Points }

// Graph gives the expanded frame.
func (f *Frame) Graph() *frame.Graph { return f.built.Graph }
