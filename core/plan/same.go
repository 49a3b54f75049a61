package plan

import (
	"cmp"
	"context"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

// findSame looks for sizes of a wrong piece's frame with another value of which every piece of a wrong one's letter
// is as long as it came out. Each is planned anew, with what is cut: it takes as long as a plan for each.
func findSame(ctx context.Context, job Job, shop Shop, work Work, before *Plan, bad record.Event) ([]Same, error) {
	all := []Same{}
	f := bad.Frame
	if f >= len(before.Frames) {
		return all, nil
	}
	line := lineOf(before, f, bad.Piece.Pipe)
	if line == nil || bad.Length <= 0 || bad.Length == line.Cut {
		return all, nil
	}
	raw := shop
	c, err := job.ready(&shop, &work)
	if err != nil {
		return nil, err
	}
	t := &thrift{ctx: ctx, job: job, shop: shop, work: work, cat: c, step: job.tape()}
	now, err := t.build(f, &job.Frames[f].Document)
	if err != nil {
		return nil, err
	}
	for _, z := range t.targets(f, true) {
		then := z.Value + bad.Length - line.Cut
		d := job.Frames[f].Document.Clone()
		s := d.SizeOf(z.ID)
		if s == nil || then <= 0 {
			continue
		}
		s.Value = then
		built, err := t.build(f, d)
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil || len(built.Clashes) > len(now.Clashes) || tooShort(built) > tooShort(now) || !asLong(built, line, f, bad.Length):
			continue // it cannot be built so, or it is another size that holds them
		}
		with := job
		with.Frames = slices.Clone(job.Frames)
		with.Frames[f].Document = *d
		after, err := Make(ctx, with, raw, work.With(bad))
		if err != nil {
			if ctx.Err() != nil {
				return nil, err
			}
			continue
		}
		one := Same{
			Frame: f, ID: z.ID, Says: z.Says(), Label: z.Label, Axis: z.Axis, Now: z.Value, Then: then, Need: moreSticks(after, before),
			Cost: after.Bill.Total - before.Bill.Total, Others: othersThat(before.Cuts, built, line.Letter, f), Fix: *sizeFix(now, z, then),
		}
		for i := range after.Existing {
			switch after.Existing[i].Fate {
			case procure.Trim:
				one.Trims++
			case procure.Recut:
				one.Recut++
			}
		}
		all = append(all, one)
	}
	slices.SortStableFunc(all, func(a, b Same) int {
		return cmp.Or(cmp.Compare(a.Cost, b.Cost), cmp.Compare(a.Recut, b.Recut), cmp.Compare(len(a.Others), len(b.Others)))
	})
	return all, nil
}

// asLong says whether all pieces of a letter are of a length in a frame as it would be.
func asLong(built *model.Built, line *procure.CutLine, f int, length measure.Length) bool {
	for i := range built.Pipes {
		p := &built.Pipes[i]
		if slices.Contains(line.Pipes, procure.PipeRef{Frame: f, Pipe: p.Pipe}) && p.Ordered != length {
			return false
		}
	}
	return true
}

// othersThat lists the letters, but for one, of pieces that have another length in a frame as it would be.
func othersThat(was []procure.CutLine, built *model.Built, but string, f int) []string {
	cuts := map[string]measure.Length{}
	for i := range built.Pipes {
		cuts[built.Pipes[i].Pipe] = built.Pipes[i].Ordered
	}
	letters := []string{}
	for i := range was {
		g := &was[i]
		changes := func(r procure.PipeRef) bool { return r.Frame == f && cuts[r.Pipe] != g.Cut }
		if g.Letter != but && slices.ContainsFunc(g.Pipes, changes) {
			letters = append(letters, g.Letter)
		}
	}
	return letters
}

// lineOf finds the line of the cut list that a frame's pipe, as the record calls it, is in.
func lineOf(p *Plan, f int, pipe string) *procure.CutLine {
	for i := range p.Frames[f].Pipes {
		x := &p.Frames[f].Pipes[i]
		if cmp.Or(x.Was, x.Pipe) != pipe {
			continue
		}
		for g := range p.Cuts {
			if slices.Contains(p.Cuts[g].Pipes, procure.PipeRef{Frame: f, Pipe: x.Pipe}) {
				return &p.Cuts[g]
			}
		}
	}
	return nil
}
