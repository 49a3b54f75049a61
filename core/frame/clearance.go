package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
)

// ClearanceKind is what a size that is not the frame's own asks of it.
type ClearanceKind string

// The kinds of clearance checks.
const (
	Doorway ClearanceKind = "doorway" // it passes an opening, turned as it may be
	Inside  ClearanceKind = "inside"  // it fits into something, turned as it may be
	Over    ClearanceKind = "over"    // something fits under it, standing on the floor
	Reach   ClearanceKind = "reach"   // someone reaches its top, or one of its joints
)

// ClearanceKinds lists the kinds of clearance checks.
func ClearanceKinds() []ClearanceKind { return []ClearanceKind{Doorway, Inside, Over, Reach} }

// ClearanceCheck is a check against a size that is not the frame's own.
type ClearanceCheck struct {
	ID    string            `json:"id"` // its name, as the builder says it: the hall door
	Kind  ClearanceKind     `json:"kind"`
	Size  [3]measure.Length `json:"size"`                        // wide and high of a doorway, where high may be 0; wide, deep, high; of a reach, the first
	Joint string            `json:"joint,omitempty" ref:"joint"` // of a reach; the top of the frame where it is left out
}

// doorHigh is how high a doorway is taken to be where nobody said.
const doorHigh = 80 * measure.Inch

// High is a doorway's height.
func (e *ClearanceCheck) High() measure.Length {
	if e.Size[1] == 0 {
		return doorHigh
	}
	return e.Size[1]
}

func (d *Document) validateClearanceChecks(ps *Problems) {
	seen := map[string]bool{}
	for i, e := range d.ClearanceChecks {
		path := fmt.Sprintf("/clearanceChecks/%d", i)
		need := map[ClearanceKind]int{Doorway: 1, Inside: 3, Over: 3, Reach: 1}[e.Kind]
		switch {
		case e.ID == "" || seen[e.ID]:
			ps.add(path+"/id", fmt.Sprintf("the name %q is empty or taken", e.ID), "give each check its own name")
		case !slices.Contains(ClearanceKinds(), e.Kind):
			ps.add(path+"/kind", fmt.Sprintf("unknown check %q", e.Kind), "use doorway, inside, over or reach")
		}
		seen[e.ID] = true
		for k, v := range e.Size {
			if v < 0 || v > measure.FrameLimit || k < need && v == 0 {
				ps.add(
					fmt.Sprintf("%s/size/%d", path, k),
					fmt.Sprintf("%q has no such size", e.ID),
					"write how wide, how deep and how high",
				)
			}
		}
	}
}
