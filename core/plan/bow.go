package plan

import (
	"fmt"
	"slices"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// wayPoints is how many points a curve is drawn by.
const wayPoints = 33

// wayOf gives a curve's points from rim to rim.
func wayOf(c *curve.Curve, shown [2]measure.Point) []measure.Point {
	ps := slices.Clone(c.Points)
	if len(ps) > 2*wayPoints-2 {
		ps = c.Sample(wayPoints)
	}
	ps[0], ps[len(ps)-1] = shown[0], shown[1]
	return slices.Compact(ps)
}

// strain is the stretch of the outer fibre of a pipe bent to a radius of its
// middle line: OD/(2R).
func strain(od, radius measure.Length) float64 {
	if radius <= 0 {
		return 0
	}
	return float64(od) / 2 / float64(radius)
}

// The strains up to which a sprung pipe keeps well, and at all. Source: the
// handbook of the trade.
const (
	goodStrain = 0.008
	mostStrain = 0.011
)

// bowed is the sprung pipes of one degree of bending.
type bowed struct {
	pipes []string
	peak  float64
	easy  measure.Length // the radius that would be easy on the one bent hardest
}

// bent says how hard sprung pipes are bent, and what bending by heat asks for.
func bent(g *frame.Graph, s *layout.Solution, fits *fitting.Result) (fs []finding.Finding) {
	var good, hard, broken bowed
	var hot []string
	for i := range g.Edges {
		e, c := &g.Edges[i], s.Curves[i]
		switch {
		case c == nil:
		case e.Path == frame.Bent:
			hot = append(hot, e.ID)
		default:
			od := 2 * fits.Radius(i)
			v, w := strain(od, c.Tightest), &good
			if v > mostStrain {
				w = &broken
			} else if v > goodStrain {
				w = &hard
			}
			w.pipes = append(w.pipes, e.ID)
			if v > w.peak {
				w.peak, w.easy = v, od.Scale(0.5/goodStrain)
			}
		}
	}
	add := func(w bowed, code string, sev finding.Severity, text, hint string) {
		if len(w.pipes) > 0 {
			fs = append(fs, finding.Finding{Code: code, Severity: sev, Subject: w.pipes, Text: text, Hint: hint,
				Figures: []finding.Figure{{Label: "peak strain", Text: percent(w.peak)}}})
		}
	}
	add(broken, "bent-too-far", finding.Stop, fmt.Sprintf("a sprung pipe is stretched %s where it is bent the most, and over %s it kinks or cracks", percent(broken.peak), percent(mostStrain)),
		fmt.Sprintf("bend it no tighter than a radius of %s: a flatter bow, a wider span or thinner pipe", broken.easy.Round(measure.Inch/4)))
	add(hard, "bent-hard", finding.Warn, fmt.Sprintf("a sprung pipe is stretched %s where it is bent the most; up to %s keeps well", percent(hard.peak), percent(goodStrain)),
		fmt.Sprintf("a radius of %s or more is easy on it: a flatter bow, a wider span or thinner pipe", hard.easy.Round(measure.Inch/4)))
	if all := slices.Concat(good.pipes, hard.pipes, broken.pipes); len(all) > 0 {
		fs = append(fs, finding.Finding{Code: "sprung-in-the-sun", Severity: finding.Note, Subject: all,
			Text: "a sprung pipe takes a set: on warm days it goes limp, and it keeps part of its bow when it is let go",
			Hint: "bend and straighten it above 40 °F only; its push falls to about a third in months, so in the sun it wants a spine or a tie"})
	}
	if len(hot) > 0 {
		fs = append(fs, finding.Finding{Code: "bent-by-heat", Severity: finding.Note, Subject: hot,
			Text: fmt.Sprintf("%s bent by heat: lengths are those of the middle line before bending", count(len(hot), "pipe is", "pipes are")),
			Hint: "heating PVC gives off harmful fumes: gentle heat, outdoors, never a flame; bend one, measure it, then cut the rest"})
	}
	return fs
}

func percent(share float64) string { return fmt.Sprintf("%.2f %%", 100*share) }

// around widens the box round the joints by what pipes bow out beyond it.
func (f *planned) around(lo, hi measure.Point) (measure.Point, measure.Point) {
	for i, c := range f.solved.Curves {
		if c == nil {
			continue
		}
		for a := range lo {
			d := measure.Axis(a).Dir()
			lo[a], hi[a] = min(lo[a], -c.Reach(d.Neg(), f.fits.Radius(i))), max(hi[a], c.Reach(d, f.fits.Radius(i)))
		}
	}
	return lo, hi
}
