package plan

import (
	"encoding/json"
	"fmt"
	"math"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Gesture is the path of a fix that is a gesture on the frame, an [edit.Edit],
// rather than an edit of what was stated.
const Gesture = "/gesture"

func gestureFix(label string, e edit.Edit) finding.Fix {
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
				gestureFix("Cap every open end", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}}),
				gestureFix("They are open on purpose", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.FreeEnd}}),
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
// above.
func footing(rests []fitting.Contact) measure.Length {
	wide := func(dx, dy float64) float64 {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, c := range rests {
			v := float64(c.At[0])*dx + float64(c.At[1])*dy
			lo, hi = min(lo, v), max(hi, v)
		}
		return hi - lo
	}
	least := math.Inf(1)
	// the least width is square to a line through two of the points
	for i := range rests {
		for k := range i {
			dx, dy := float64(rests[i].At[0]-rests[k].At[0]), float64(rests[i].At[1]-rests[k].At[1])
			if n := math.Hypot(dx, dy); n > 0 {
				least = min(least, wide(-dy/n, dx/n))
			}
		}
	}
	if math.IsInf(least, 1) {
		return 0
	}
	return measure.Length(least)
}
