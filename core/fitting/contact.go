package fitting

import (
	"cmp"
	"slices"

	"sturdyelbow/core/measure"
)

// Contact is a place where a joint's body rests on the floor, or nearly does.
type Contact struct {
	Joint string         `json:"joint"`
	At    measure.Point  `json:"at"`  // the lowest point of a rim, or of the body between them
	Gap   measure.Length `json:"gap"` // above the floor; 0: it rests
}

const (
	// resting is how near counts as on the floor: less than a sheet of paper.
	resting = measure.Inch / 500
	// hovering is how far above the floor a body still looks as if it stood.
	hovering = measure.Inch
)

// Contacts lists where the bodies meet the floor: every rim that rests on it,
// and the lowest point of each joint that hovers less than an inch above it,
// floor first.
func (r *Result) Contacts(points []measure.Point, floor measure.Length) []Contact {
	all := []Contact{}
	for i := range r.Joints {
		j := &r.Joints[i]
		var lowest *Contact
		own := len(all) // where this joint's contacts begin
		for _, p := range j.lowPoints(points[i]) {
			c := Contact{j.ID, p, max(0, p[2]-floor)}
			if c.Gap <= resting {
				c.Gap = 0
				if !slices.Contains(all[own:], c) {
					all = append(all, c)
				}
			}
			if lowest == nil || c.Gap < lowest.Gap {
				lowest = &c
			}
		}
		if lowest != nil && lowest.Gap > 0 && lowest.Gap < hovering {
			all = append(all, *lowest)
		}
	}
	slices.SortStableFunc(all, func(a, b Contact) int { return cmp.Compare(a.Gap, b.Gap) })
	return all
}

// lowPoints gives the lowest point of every rim of a joint and of the sphere
// at its centre.
func (j *Joint) lowPoints(at measure.Point) (ps []measure.Point) {
	if len(j.Ports) == 0 {
		return nil
	}
	rim := func(d measure.Dir, along, diameter measure.Length) {
		ps = append(ps, lowOnRim(at.Along(d, along), d, diameter))
	}
	if j.Free() {
		d := j.Ports[0].Dir
		rim(d, -j.Beyond(), j.Body)
		if j.Beyond() > 0 {
			rim(d, j.Ports[0].Takes(), j.Body)
		}
		return ps
	}
	ps = append(ps, at.Along(measure.Dir{0, 0, -1}, j.Body.Half()))
	for k := range j.Ports {
		if p := &j.Ports[k]; p.Known {
			rim(p.Dir, p.Face, p.Body)
		}
	}
	return ps
}

// lowOnRim is the lowest point of a disc square to n; its centre when the disc
// lies flat.
func lowOnRim(centre measure.Point, n measure.Dir, diameter measure.Length) measure.Point {
	down := measure.Dir{n[2] * n[0], n[2] * n[1], n[2]*n[2] - 1}.Unit() // straight down, less its part along n
	return centre.Along(down, diameter.Half())
}
