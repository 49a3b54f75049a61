package bows

import (
	"slices"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// The strains up to which a sprung pipe keeps well, and at all. Source: the
// handbook of the trade.
const (
	GoodStrain = 0.008
	MostStrain = 0.011
)

// bowed is the sprung pipes of one degree of bending.
type bowed struct {
	pipes []string
	peak  float64
	easy  measure.Length // the radius that would be easy on the one bent hardest
}

// Judge says how hard sprung pipes are bent, and what bending by heat asks for.
func Judge(b *model.Built) (fs []finding.Finding) {
	var good, hard, broken bowed
	var hot []string
	for i := range b.Graph.Edges {
		e, c := &b.Graph.Edges[i], b.Curves[i]
		switch {
		case c == nil:
		case e.Path == frame.Bent:
			hot = append(hot, e.ID)
		default:
			od := 2 * b.Fits.Radius(i)
			v, w := curve.Strain(od, c.Tightest), &good
			if v > MostStrain {
				w = &broken
			} else if v > GoodStrain {
				w = &hard
			}
			w.pipes = append(w.pipes, e.ID)
			if v > w.peak {
				w.peak, w.easy = v, od.Scale(0.5/GoodStrain)
			}
		}
	}
	tell := func(w bowed, code string, severity finding.Severity) {
		if len(w.pipes) > 0 {
			fs = append(fs, finding.New(code, severity, finding.All(finding.Pipe, w.pipes...)...).
				With("strain", w.peak).With("radius", w.easy).With("good", GoodStrain).With("most", MostStrain))
		}
	}
	tell(broken, "bent-too-far", finding.Stop)
	tell(hard, "bent-hard", finding.Warn)
	if all := slices.Concat(good.pipes, hard.pipes, broken.pipes); len(all) > 0 {
		fs = append(fs, finding.New("sprung-in-the-sun", finding.Note, finding.All(finding.Pipe, all...)...))
	}
	if len(hot) > 0 {
		fs = append(fs, finding.New("bent-by-heat", finding.Note, finding.All(finding.Pipe, hot...)...))
	}
	return fs
}
