package tolerance

import (
	"fmt"
	"slices"

	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// CutListCheck is the frame put together from a list of cuts instead of the plan's.
type CutListCheck struct {
	cutlist.Report
	Seated  []model.Seated `json:"seated"`  // the outside size in each state
	Unknown []string       `json:"unknown"` // pipes of the list that the frame does not have
}

// Check puts the frame together from given cuts, by the pipe's path, and from what was
// measured on it; nil where there is neither.
func Check(f *model.Built, given map[string]measure.Length) (*CutListCheck, []finding.Finding) {
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
		return nil, nil
	}
	c.Report = *cutlist.CheckCuts(f.Graph, f.Solution, f.Fits, f.List, cuts, f.Step)
	c.Seated = f.Seated(cuts)
	return c, c.findings(f.Index)
}

func (c *CutListCheck) findings(index int) (fs []finding.Finding) {
	if len(c.Loops) > 0 {
		l := c.Loops[0]
		f := finding.New("list-open", finding.Stop, finding.All(finding.Pipe, l.Pipes...)...).With("pipes", len(l.Pipes)).
			With("joint", finding.All(finding.Joint, l.Joints[0])).
			With("off", l.Off).With("way", wayWords(l.Residual)).With("more", len(c.Loops)-1)
		for _, m := range c.Mends {
			label := ""
			fix := finding.Fix{}
			for k, ch := range m.Changes {
				if k > 0 {
					label += ", "
				}
				label += fmt.Sprintf("%s to %s", ch.Pipe, ch.To.Format(measure.InInches, measure.SixtyFourth))
				fix.Edits = append(
					fix.Edits,
					finding.Set(fmt.Sprintf("/frames/%d/given/%s", index, ch.Pipe), ch.To.Format(measure.InInches, 0)),
				)
			}
			fix.Label = "Cut " + label
			f.Fixes = append(f.Fixes, fix)
		}
		if c.Stuck {
			f = f.With("stuck", "stuck").With("changes", 0)
		} else {
			f = f.With("changes", len(c.Mends[0].Changes))
		}
		fs = append(fs, f)
	}
	if len(c.Levels) > 0 {
		v := c.Levels[0]
		fs = append(fs, finding.New("list-level", finding.Warn, finding.All(finding.Joint, v.Low, v.High)...).With("off", v.Spread))
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
		fs = append(fs, finding.New("list-too-short", finding.Stop, finding.All(finding.Pipe, short...)...))
	}
	if len(faces) > 0 {
		fs = append(fs, finding.New("face-to-face", finding.Note, finding.All(finding.Pipe, faces...)...))
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
