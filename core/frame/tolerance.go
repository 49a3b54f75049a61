package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
)

// Class is how exactly a piece must be cut.
type Class string

// The classes. Exact is the default.
const (
	Exact   Class = ""
	Matched Class = "matched"  // a set of equal pieces, cut in one setting of the stop
	Trim    Class = "trim"     // cut long, trimmed to fit
	Rough   Class = "rough"    // a little more or less does not matter
	OnFrame Class = "on-frame" // measured on the frame when the rest stands
)

// Classes lists the classes.
func Classes() []Class { return []Class{Exact, Matched, Trim, Rough, OnFrame} }

// Tolerance is the class of a pipe, by its path.
type Tolerance struct {
	Pipe  string `json:"pipe"               ref:"pipe"` // the pipe, by its path in the expanded frame
	Class Class  `json:"class"`
	// Extra is what a piece to be trimmed is cut long by, what is held in
	// reserve for one that is measured on the frame, and what a rough one may be
	// shorter by; the class's usual where it is zero.
	Extra    measure.Length `json:"extra,omitempty"`
	Measured measure.Length `json:"measured,omitempty"` // on the frame, once it is
}

// Reserve is what a piece of the class takes of a stick beyond its cut.
func (t Tolerance) Reserve() measure.Length {
	switch {
	case t.Class != Trim && t.Class != OnFrame, t.Measured > 0:
		return 0
	case t.Extra > 0:
		return t.Extra
	case t.Class == Trim:
		return measure.Inch / 4
	}
	return measure.Inch
}

// Short is what a piece may be shorter by, where that buys a stick less.
func (t Tolerance) Short() measure.Length {
	switch {
	case t.Class != Rough:
		return 0
	case t.Extra > 0:
		return t.Extra
	}
	return measure.Inch / 4
}

// Tolerance gives the class of a pipe; the last that names it wins.
func (d *Document) Tolerance(pipe string) Tolerance {
	for i := len(d.Tolerances) - 1; i >= 0; i-- {
		if d.Tolerances[i].Pipe == pipe {
			return d.Tolerances[i]
		}
	}
	return Tolerance{Pipe: pipe}
}

func (d *Document) checkTolerances(ps *Problems) {
	for i, t := range d.Tolerances {
		path := fmt.Sprintf("/tolerances/%d", i)
		switch {
		case t.Pipe == "":
			ps.add(path+"/pipe", "a tolerance of no pipe", "name the pipe")
		case !slices.Contains(Classes(), t.Class):
			ps.add(
				path+"/class",
				fmt.Sprintf("unknown class %q", t.Class),
				"use matched, trim, rough or on-frame, or leave it out for exact",
			)
		case t.Extra < 0 || t.Extra > 10*measure.Foot:
			ps.add(
				path+"/extra",
				"less than nothing in reserve, or more than 10 ft",
				"1/4 is usual for a piece to be trimmed, 1 in for one measured on the frame",
			)
		case t.Measured < 0 || t.Measured > measure.FrameLimit:
			ps.add(path+"/measured", "a measured length below zero or over 1,000 ft", "type the length that was measured")
		case t.Measured > 0 && t.Class != OnFrame:
			ps.add(path+"/measured", "a measured length of a piece that is cut as planned", "set its class to on-frame")
		}
	}
}
