package plan

import (
	"fmt"
	"slices"

	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// CutListCheck is the frame put together from a list of cuts instead of the plan's.
type CutListCheck struct {
	cutlist.Report
	Seated  []Seated `json:"seated"`  // the outside size in each state
	Unknown []string `json:"unknown"` // pipes of the list that the frame does not have
}

// tolerate gives each pipe its class and what it takes of a stick. What was
// measured on the frame is how long the piece is from then on.
func (f *planned) tolerate(d *frame.Document) {
	for i := range f.Pipes {
		p := &f.Pipes[i]
		t := d.Tolerance(p.Pipe)
		p.Class, p.Ordered = t.Class, p.Cut
		switch {
		case t.Measured > 0:
			p.Ordered, p.Measured = t.Measured, true
		case t.Class == frame.OnFrame:
			p.Ordered, p.Waits = p.Cut+t.Reserve(), true
		default:
			p.Ordered += t.Reserve()
		}
	}
}

// checkCutList puts the frame together from given cuts and measured ones.
func (f *planned) checkCutList(given map[string]measure.Length, step measure.Length, seats func(cuts []measure.Length) []Seated, index int) {
	cuts := make([]measure.Length, len(f.Pipes))
	asked, known := false, map[string]bool{}
	for i := range f.Pipes {
		p := &f.Pipes[i]
		known[p.Pipe] = true
		cuts[i] = p.Cut
		if p.Measured {
			cuts[i], asked = p.Ordered, true
		}
		if v, ok := given[p.Pipe]; ok {
			cuts[i], asked = v, true
		}
	}
	c := &CutListCheck{Unknown: []string{}}
	for id := range given {
		if !known[id] {
			c.Unknown = append(c.Unknown, id)
		}
	}
	slices.Sort(c.Unknown)
	if !asked && len(c.Unknown) == 0 {
		return
	}
	c.Report = *cutlist.CheckCuts(f.graph, f.solved, f.fits, f.list, cuts, step)
	c.Seated = seats(cuts)
	f.Check = c
	f.findings = append(f.findings, c.findings(index)...)
}

func (c *CutListCheck) findings(index int) (fs []finding.Finding) {
	if len(c.Loops) > 0 {
		l := c.Loops[0]
		f := finding.Finding{Code: "list-open", Severity: finding.Stop, Subject: l.Pipes,
			Text: fmt.Sprintf("cut to the list, the loop of %d pipes through %s misses by %s %s", len(l.Pipes), l.Joints[0], l.Off.Round(measure.SixtyFourth), wayWords(l.Residual)),
			Hint: "change the pieces that are offered, fewest first"}
		if len(c.Loops) > 1 {
			f.Text += fmt.Sprintf(", and %d more do not close", len(c.Loops)-1)
		}
		for _, m := range c.Mends {
			label := ""
			fix := finding.Fix{}
			for k, ch := range m.Changes {
				if k > 0 {
					label += ", "
				}
				label += fmt.Sprintf("%s to %s", ch.Pipe, ch.To.Format(measure.InInches, measure.SixtyFourth))
				fix.Edits = append(fix.Edits, setText(fmt.Sprintf("/frames/%d/given/%s", index, ch.Pipe), ch.To.Format(measure.InInches, 0)))
			}
			fix.Label = "Cut " + label
			f.Fixes = append(f.Fixes, fix)
		}
		if c.Stuck {
			f.Hint = "no four pieces or fewer close it: compare the list with the plan, piece by piece"
		} else if len(c.Mends[0].Changes) > 1 {
			f.Hint = fmt.Sprintf("no single piece closes it: %d have to change", len(c.Mends[0].Changes))
		}
		fs = append(fs, f)
	}
	if len(c.Levels) > 0 {
		v := c.Levels[0]
		fs = append(fs, finding.Finding{Code: "list-level", Severity: finding.Warn, Subject: []string{v.Low, v.High},
			Text: fmt.Sprintf("cut to the list, %s and %s end %s apart where the plan has them level", v.Low, v.High, v.Spread.Round(measure.SixtyFourth)), Hint: "what stands across them will tilt"})
	}
	var short, faces []string
	for _, p := range c.Pieces {
		if p.TooShort {
			short = append(short, p.Pipe)
		} else if p.FaceToFace {
			faces = append(faces, p.Pipe)
		}
	}
	if len(short) > 0 {
		fs = append(fs, finding.Finding{Code: "list-too-short", Severity: finding.Stop, Subject: short,
			Text: fmt.Sprintf("%s less than half a socket on each side and will not hold", count(len(short), "piece fills", "pieces fill")), Hint: "cut it anew; as short as two whole sockets is best"})
	}
	if len(faces) > 0 {
		fs = append(fs, finding.Finding{Code: "face-to-face", Severity: finding.Note, Subject: faces,
			Text: fmt.Sprintf("%s shorter than the two sockets: the fittings meet face to face", count(len(faces), "piece is", "pieces are")), Hint: "it goes together with less pipe in each socket"})
	}
	return fs
}

// wayWords names the direction of a misfit: the axis that most of it is along.
func wayWords(v measure.Point) string {
	best := 0
	for a := range v {
		if v[a].Abs() > v[best].Abs() {
			best = a
		}
	}
	return [...]string{"across", "in depth", "in height"}[best]
}

// seatedFrom works out the outside size of cut pieces in each state of the
// joints.
func (f *planned) seatedFrom(cuts []measure.Length, states []state) (all []Seated) {
	for _, st := range states {
		fits := f.fits.Reseat(st.seat)
		a := cutlist.Assemble(f.graph, fits, cutlist.Effective(f.graph, fits, cuts), f.solved)
		lo, hi := f.around(fits.Overall(a.Points))
		all = append(all, Seated{State: st.name, Text: st.text, Size: hi.Sub(lo), Gap: a.Gap})
	}
	return all
}

// state is how deep the pipes sit in one state of the work.
type state struct {
	name, text string
	seat       func(p *fitting.Port) float64
}
