package plan

import (
	"cmp"
	"encoding/json"
	"fmt"
	"iter"
	"math"
	"slices"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Gesture is the path of a fix that is a gesture on the frame, an [edit.Edit],
// rather than an edit of what was stated.
const Gesture = "/gesture"

// GestureFix is a fix that is a gesture.
func GestureFix(label string, e edit.Edit) finding.Fix {
	data, err := json.Marshal(e)
	if err != nil {
		panic(err) // plain values
	}
	return finding.Fix{Label: label, Edits: []finding.Edit{{Path: Gesture, Value: data}}}
}

// unsaid notes ports and ends that are neither filled nor said to be open.
func unsaid(a *fitting.Audit) (fs []finding.Finding) {
	if n := len(a.Bare); n > 0 {
		fs = append(fs, finding.Finding{Code: "ends-unsaid", Severity: finding.Note, Subject: a.Bare,
			Text: fmt.Sprintf("%s open, and nobody said that it is on purpose", count(n, "pipe end is", "pipe ends are")),
			Hint: "cap them, or say that they are free or over stakes: an open riser fills with rain",
			Fixes: []finding.Fix{
				GestureFix("Cap every open end", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}}),
				GestureFix("They are open on purpose", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.FreeEnd}}),
			}})
	}
	if n := len(a.Open); n > 0 {
		var joints []string
		for _, p := range a.Open {
			if len(joints) == 0 || joints[len(joints)-1] != p.Joint {
				joints = append(joints, p.Joint)
			}
		}
		fs = append(fs, finding.Finding{Code: "ports-open", Severity: finding.Note, Subject: joints,
			Text: fmt.Sprintf("%s empty, and nobody said that it is on purpose", count(n, "socket is", "sockets are")),
			Hint: "run a pipe from them, plug them, or declare them open"})
	}
	return fs
}

func count(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

const (
	// hoversFrom is the gap from which a contact that does not reach the floor
	// is worth a warning: more than the floor itself is out.
	hoversFrom = measure.Inch / 16
	// rocksFrom is the gap from which a frame is felt to rock.
	rocksFrom = measure.Inch / 128
	// narrow is the width of its footing below which a frame stands on a line.
	narrow = measure.Inch / 2
)

// standing says where a frame hovers above its floor, and whether it stands on
// a line. A bare pipe's end always floats: what is round the other end is
// thicker.
func standing(contacts []fitting.Contact, bare map[string]bool) (fs []finding.Finding) {
	var rests []fitting.Contact
	var worst, tips *fitting.Contact
	var hover, rock []string
	for i := range contacts {
		c := &contacts[i]
		switch {
		case c.Gap == 0:
			rests = append(rests, *c)
		case c.Gap >= hoversFrom && !bare[c.Joint]:
			hover = append(hover, c.Joint)
			if worst == nil || c.Gap > worst.Gap {
				worst = c
			}
		case c.Gap >= rocksFrom && !bare[c.Joint]:
			rock = append(rock, c.Joint)
			if tips == nil || c.Gap > tips.Gap {
				tips = c
			}
		}
	}
	if tips != nil {
		fs = append(fs, finding.Finding{Code: "rocks", Severity: finding.Note, Subject: rock,
			Text:    fmt.Sprintf("it rocks: %s is %s above the floor that the rest stands on", tips.Joint, tips.Gap.Round(measure.SixtyFourth)),
			Hint:    "less than a floor is out by; a shim or a set of equal fittings takes it away",
			Figures: []finding.Figure{{Label: "gap", Text: tips.Gap.Round(measure.SixtyFourth).Format(measure.InInches, 0)}}})
	}
	if worst != nil {
		fs = append(fs, finding.Finding{Code: "hovers", Severity: finding.Warn, Subject: hover,
			Text:    fmt.Sprintf("%s hangs %s above the floor", worst.Joint, worst.Gap.Round(measure.SixtyFourth)),
			Hint:    "a frame stands on its lowest rims: lower this one, or take one size for all that stands on the floor",
			Figures: []finding.Figure{{Label: "gap", Text: worst.Gap.Round(measure.SixtyFourth).Format(measure.InInches, 0)}}})
	}
	if len(rests) > 0 && footing(rests) < narrow {
		fs = append(fs, finding.Finding{Code: "stands-on-a-line", Severity: finding.Note, Subject: []string{rests[0].Joint},
			Text: "it stands on a line and rocks or falls", Hint: "give it feet across, stakes, or something to lean on"})
	}
	return fs
}

// footing is the least width of the points on which a frame rests, seen from
// above: the least, over the edges of their convex hull, of how far the hull
// reaches from the edge. Its cost is n log n in the points and the square of the
// hull's corners, of which even a ring of feet has few.
func footing(rests []fitting.Contact) measure.Length {
	hull := hullOf(rests)
	least := math.Inf(1)
	for i := range hull {
		a, b := hull[i], hull[(i+1)%len(hull)]
		long := math.Hypot(b[0]-a[0], b[1]-a[1])
		if long == 0 {
			continue
		}
		reach := 0.0
		for _, c := range hull {
			reach = max(reach, crossProduct(a, b, c)/long)
		}
		least = min(least, reach)
	}
	if math.IsInf(least, 1) {
		return 0
	}
	return measure.Length(least)
}

// spot is a point of the floor, seen from above, in nanometres.
type spot [2]float64

// crossProduct is twice the area of a triangle, above zero where c lies left of the
// way from a to b.
func crossProduct(a, b, c spot) float64 {
	return (b[0]-a[0])*(c[1]-a[1]) - (b[1]-a[1])*(c[0]-a[0])
}

// hullOf gives the corners of the convex hull of points on the floor,
// counter-clockwise, by the monotone chain of A. M. Andrew (1979). Points in one
// line give its two ends.
func hullOf(rests []fitting.Contact) []spot {
	all := make([]spot, len(rests))
	for i, c := range rests {
		all[i] = spot{float64(c.At[0]), float64(c.At[1])}
	}
	slices.SortFunc(all, func(a, b spot) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	all = slices.Compact(all)
	if len(all) < 3 {
		return all
	}
	chain := func(points iter.Seq2[int, spot]) (half []spot) {
		for _, p := range points {
			for len(half) > 1 && crossProduct(half[len(half)-2], half[len(half)-1], p) <= 0 {
				half = half[:len(half)-1]
			}
			half = append(half, p)
		}
		return half[:len(half)-1] // the last begins the other half
	}
	return append(chain(slices.All(all)), chain(slices.Backward(all))...)
}
