package envelope

import (
	"fmt"
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// CheckedClearance is a check against a size that is not the frame's own.
type CheckedClearance struct {
	frame.ClearanceCheck
	Fits  bool             `json:"fits"`
	Slack []measure.Length `json:"slack"` // what is to spare in each of its sizes; below zero, missing
	Words string           `json:"words"`
}

// Folded is the outside size of the frame with a part of it folded about a link.
type Folded struct {
	Link string
	Size [3]measure.Length
}

// Judge judges every check, as the frame stands and as it is folded.
func Judge(b *model.Built, folded []Folded) (all []CheckedClearance, fs []finding.Finding) {
	all = []CheckedClearance{}
	sizes := []named{{"", [3]measure.Length{b.Overall[0].Size, b.Overall[1].Size, b.Overall[2].Size}}}
	for _, f := range folded {
		sizes = append(sizes, named{" folded at " + f.Link, f.Size})
	}
	for _, e := range b.Doc.ClearanceChecks {
		out := CheckedClearance{ClearanceCheck: e}
		switch e.Kind {
		case frame.Doorway:
			out.best(sizes, []measure.Length{e.Size[0], e.High()})
		case frame.Inside:
			out.best(sizes, e.Size[:])
		case frame.Over:
			out.over(b)
		case frame.Reach:
			out.reach(b)
		}
		all = append(all, out)
		if !out.Fits {
			f := finding.New("envelope", finding.Warn).
				With("check", finding.Subject{Kind: finding.Check, ID: e.ID}).
				With("words", out.Words)
			if e.Joint != "" {
				f.Subjects = finding.All(finding.Joint, e.Joint)
			}
			fs = append(fs, f)
		}
	}
	return all, fs
}

type named struct {
	name string
	size [3]measure.Length
}

// best compares the outside sizes of a frame, unfolded and folded, with an opening
// or a space, and keeps the state that leaves the most room. The frame may be turned
// by quarter turns: its smallest side goes to the opening's smallest. Through an
// opening its longest side is the direction of travel.
func (e *CheckedClearance) best(states []named, opening []measure.Length) {
	want := slices.Clone(opening)
	order := make([]int, len(want)) // the sides of the opening, smallest first
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return int(want[a]/measure.Nanometre - want[b]/measure.Nanometre) })
	first := true
	var least measure.Length
	for _, s := range states {
		have := slices.Clone(s.size[:])
		slices.Sort(have)
		slack := make([]measure.Length, len(want))
		worst := measure.Length(0)
		for k, side := range order {
			slack[side] = want[side] - have[k]
			if k == 0 || slack[side] < worst {
				worst = slack[side]
			}
		}
		if first || worst > least {
			first, least = false, worst
			e.Slack, e.Fits = slack, worst >= 0
			e.Words = "passes" + s.name
			if e.Kind == frame.Inside {
				e.Words = "goes in" + s.name
			}
			if !e.Fits {
				e.Words = fmt.Sprintf("too large by %s%s", (-worst).Round(measure.Inch/16), s.name)
			} else {
				e.Words += fmt.Sprintf(", %s to spare", worst.Round(measure.Inch/16))
			}
		}
	}
}

// over checks the room for a box that stands on the floor in the middle under the
// frame: the distance to the nearest bodies along each axis, less the box.
func (e *CheckedClearance) over(f *model.Built) {
	type span struct{ lo, hi [3]measure.Length }
	var bodies []span
	add := func(p, q measure.Point, r measure.Length) {
		var s span
		for a := range p {
			s.lo[a], s.hi[a] = min(p[a], q[a])-r, max(p[a], q[a])+r
		}
		bodies = append(bodies, s)
	}
	for i := range f.Pipes {
		p := &f.Pipes[i]
		way := p.Way
		if way == nil {
			way = p.Bare[:]
		}
		for k := 1; k < len(way); k++ {
			add(way[k-1], way[k], p.OD.Half())
		}
	}
	for i := range f.Fits.Joints {
		if j := &f.Fits.Joints[i]; j.Kind != "" {
			add(j.At, j.At, j.Body.Half())
		}
	}
	var box span
	for a := range 2 {
		middle := f.Overall[a].From + f.Overall[a].Size.Half()
		box.lo[a], box.hi[a] = middle-e.Size[a].Half(), middle+e.Size[a].Half()
	}
	box.lo[2], box.hi[2] = f.Floor, f.Floor+e.Size[2]
	e.Slack = make([]measure.Length, 3)
	e.Fits = true
	for a := range 3 {
		lo, hi := -measure.FrameLimit, measure.FrameLimit
		middle := (box.lo[a] + box.hi[a]).Half()
		if a == 2 {
			lo, middle = f.Floor, f.Floor
		}
		for _, b := range bodies {
			beside := true
			for o := range 3 {
				// what reaches into it from the side counts along the axis it is nearest on
				if o != a && (b.hi[o] <= box.lo[o]+measure.Inch/64 || b.lo[o] >= box.hi[o]-measure.Inch/64) {
					beside = false
				}
			}
			if !beside {
				continue
			}
			if b.lo[a] >= middle || a == 2 {
				hi = min(hi, b.lo[a])
			} else if b.hi[a] <= middle {
				lo = max(lo, b.hi[a])
			} else {
				lo, hi = middle, middle
			}
		}
		e.Slack[a] = hi - lo - e.Size[a]
		if e.Slack[a] < 0 {
			e.Fits = false
		}
	}
	worst := min(e.Slack[0], e.Slack[1], e.Slack[2])
	if e.Fits {
		e.Words = "stands under it"
		if worst < measure.FrameLimit/4 {
			e.Words += fmt.Sprintf(", %s to spare", worst.Round(measure.Inch/16))
		}
		return
	}
	for a, name := range [...]string{"across", "in depth", "in height"} {
		if e.Slack[a] == worst {
			e.Words = fmt.Sprintf("does not stand under it: %s missing %s", (-worst).Round(measure.Inch/16), name)
		}
	}
}

// reach says whether somebody reaches the top, or a joint.
func (e *CheckedClearance) reach(f *model.Built) {
	high := f.Overall[2].From + f.Overall[2].Size - f.Floor
	what := "its top"
	if n := f.Graph.Node(e.Joint); e.Joint != "" && n >= 0 {
		high, what = f.Points[n][2]-f.Floor, e.Joint
	}
	slack := e.Size[0] - high
	e.Slack, e.Fits = []measure.Length{slack}, slack >= 0
	e.Words = fmt.Sprintf("%s is %s high, %s within reach", what, high.Round(measure.Inch/16), slack.Round(measure.Inch/16))
	if !e.Fits {
		e.Words = fmt.Sprintf("%s is %s high, %s out of reach", what, high.Round(measure.Inch/16), (-slack).Round(measure.Inch/16))
	}
}
