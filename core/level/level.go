package level

import (
	"cmp"
	"slices"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/together"
)

// run is a straight pipe that runs square to an axis, or nearly so: where its ends stand along that axis.
type run struct {
	pipe   int
	lo, hi measure.Length
}

// Judge says, for each axis of the frame, which pipes run out of level by less than half a fitting, and which levels are
// so near each other. A distance that somebody typed is meant so, and so is a direction. Half a step of the tape is no
// difference: nobody cuts it. Its cost is near linear in the pipes.
func Judge(b *model.Built) (fs []finding.Finding) {
	if len(b.Places) == 0 {
		return nil
	}
	parts := together.New(len(b.Graph.Nodes))
	for i := range b.Graph.Edges {
		parts.Join(b.Graph.Edges[i].Ends[0], b.Graph.Edges[i].Ends[1], 0)
	}
	for a := range measure.Axis(3) {
		var was *run
		runs := runsAlong(b, a)
		for i := range runs {
			r := &runs[i]
			if r.hi-r.lo > layout.OneMark {
				if r.hi-r.lo > b.Step.Half() {
					fs = append(fs, slopes(b, a, r))
				}
				continue
			}
			if was != nil {
				apart := r.lo - was.lo
				p, q := b.Graph.Edges[was.pipe].Ends[0], b.Graph.Edges[r.pipe].Ends[0]
				if apart > b.Step.Half() && apart < max(half(b, was.pipe), half(b, r.pipe)) && parts.Root(p) == parts.Root(q) &&
					!typed(b, a, apart) {
					fs = append(fs, near(b, a, p, q, apart))
				}
			}
			was = r
		}
	}
	return fs
}

// runsAlong lists the pipes that run square to an axis of the frame's own, from below.
func runsAlong(b *model.Built, a measure.Axis) (runs []run) {
	for i := range b.Graph.Edges {
		e := &b.Graph.Edges[i]
		if e.Path != frame.Straight {
			continue
		}
		u, v := b.Places[0].Local(b.Points[e.Ends[0]]), b.Places[0].Local(b.Points[e.Ends[1]])
		r := run{i, min(u[a], v[a]), max(u[a], v[a])}
		off := r.hi - r.lo
		meant := e.Dir != nil || e.Drawn.Gave != nil // to run so
		if off <= layout.OneMark || !meant && off < half(b, i) && 4*off < u.Distance(v) {
			runs = append(runs, r)
		}
	}
	slices.SortStableFunc(runs, func(x, y run) int { return cmp.Compare(x.lo, y.lo) })
	return runs
}

// half is half of the thicker fitting at a pipe's ends.
func half(b *model.Built, pipe int) measure.Length {
	e := &b.Graph.Edges[pipe]
	return max(b.Fits.Joints[e.Ends[0]].Body, b.Fits.Joints[e.Ends[1]].Body).Half()
}

// typed says whether somebody typed a size along an axis that is a distance of centres.
func typed(b *model.Built, a measure.Axis, apart measure.Length) bool {
	return slices.ContainsFunc(b.Sizes, func(z layout.Size) bool {
		return !z.Inferred && (z.Axis == a || z.Axis == layout.Sloped) && (z.Centre-apart).Abs() <= layout.OneMark
	})
}

// slopes is the finding of a pipe whose ends are nearly level.
func slopes(b *model.Built, a measure.Axis, r *run) finding.Finding {
	e := &b.Graph.Edges[r.pipe]
	return finding.New("nearly-level", finding.Warn, finding.All(finding.Pipe, e.ID)...).
		With("off", r.hi-r.lo).With("way", ways[a]).
		Fixed(keep(b, a, e.Ends[0], e.Ends[1]))
}

// near is the finding of two levels that are nearly one.
func near(b *model.Built, a measure.Axis, p, q int, apart measure.Length) finding.Finding {
	return finding.New("levels-apart", finding.Warn, finding.All(finding.Joint, b.Graph.Nodes[p].ID, b.Graph.Nodes[q].ID)...).
		With("off", apart).With("way", ways[a]).With("other", finding.All(finding.Joint, b.Graph.Nodes[q].ID)).
		Fixed(keep(b, a, p, q))
}

// ways says how far apart two places are along each axis.
var ways = [3]string{"to the side", "in depth", "in height"}

// keep is the fix that makes two places one from now on; what cannot hold with it is asked about.
func keep(b *model.Built, a measure.Axis, p, q int) finding.Fix {
	of, to := b.Graph.Nodes[p].ID, b.Graph.Nodes[q].ID
	return edit.Fix("Make them one", edit.Edit{Gesture: &edit.Level{Axis: a, Of: frame.Ref(of), To: frame.Ref(to)}})
}
