package stock

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// Tidying is worth little work: the purchase is settled.
const (
	spreadSteps  = 3_000_000
	narrowSteps  = 400_000
	narrowRounds = 6
)

// neatness tells plans of one purchase apart: fewer sticks on a knife edge, then fewer cuts,
// then a longer single leftover.
type neatness struct {
	edges, cuts int
	longest     measure.Length
}

func (a neatness) compare(b neatness) int {
	return cmp.Or(cmp.Compare(a.edges, b.edges), cmp.Compare(a.cuts, b.cuts), cmp.Compare(b.longest, a.longest))
}

func (b *bench) neatness(bins []packing.Bin) (n neatness) {
	for _, s := range b.sticks(bins) {
		n.cuts += s.Cuts
		if s.Edge {
			n.edges++
		}
		if s.Parts == nil {
			n.longest = max(n.longest, s.Left)
		}
		for _, p := range s.Parts {
			n.longest = max(n.longest, p.Left)
		}
	}
	return n
}

// tidy looks, among plans of the same purchase, for one in which every stick keeps more than
// real cuts may take, and then for the longest single leftover.
func (b *bench) tidy(ctx context.Context, a packing.Answer) (packing.Answer, error) {
	best := b.neatness(a.Bins)
	better := func(bins []packing.Bin) bool {
		n := b.neatness(bins)
		if n.compare(best) >= 0 {
			return false
		}
		a.Bins, best = bins, n
		return true
	}
	loose := b.Problem // what a tidier plan is sought of
	uncut := b.uncut(a.Bins)
	if best.edges > 0 {
		for _, q := range b.reserved(a.Bins) {
			bins, err := b.asGood(ctx, q, uncut, a.Total, spreadSteps)
			if err != nil {
				return a, err
			}
			if bins != nil && better(bins) && best.edges == 0 {
				loose = q
				break
			}
		}
		if best.edges > 0 {
			bins, err := b.fewestEdges(ctx, a)
			if err != nil {
				return a, err
			}
			if bins != nil {
				better(bins)
			}
		}
	}
	tried := map[int]bool{}
	for _, bin := range slices.Clone(a.Bins) {
		k := bin.Kind
		if tried[k] || b.Kinds[k].Bins == 0 || b.parts[k] > 1 {
			continue
		}
		tried[k] = true
		for _, bins := range b.narrowed(ctx, loose, uncut, a, k) {
			better(bins)
		}
		if ctx.Err() != nil {
			return a, ctx.Err()
		}
	}
	return a, nil
}

// uncut are the sticks that are one piece: they are cut nowhere, and need no reserve.
func (b *bench) uncut(bins []packing.Bin) (all []packing.Bin) {
	for _, bin := range bins {
		if len(bin.Shares) == 1 && bin.Shares[0].Count == 1 && b.Items[bin.Shares[0].Item].Size == b.Kinds[bin.Kind].Room &&
			b.of.EndTrim == 0 {
			all = append(all, bin)
		}
	}
	return all
}

// reserved makes problems in which every stick, or part of one, keeps what real cuts may
// take. In the first ones the square root of [Saw.Edge] is replaced by tangents, which lie
// above it, so that what is kept is so much for a stick and so much for each piece: that packs
// as fast as without. The last says exactly what is kept.
func (b *bench) reserved(bins []packing.Bin) (all []packing.Problem) {
	saw, trim := b.of.Saw, b.trims()
	if most := b.mostPieces(); saw.Edge(most+trim) <= saw.Kerf {
		return []packing.Problem{b.keep(int64(saw.Kerf), 0)}
	}
	pieces := 0
	for _, bin := range bins {
		for _, h := range bin.Shares {
			pieces += h.Count
		}
	}
	mean := max(1, float64(pieces)/float64(len(bins)))
	for _, n := range []float64{mean, 1, mean * 2} {
		root := float64(saw.Root) / (2 * math.Sqrt(n))
		piece := int64(math.Ceil(root)) + int64(saw.Each)
		stick := int64(math.Ceil(root*(n+float64(trim)))) + int64(saw.Each)*int64(trim) + 2
		all = append(all, b.keep(max(stick, int64(saw.Kerf)-piece), piece))
	}
	exact := b.Problem
	exact.Kinds = slices.Clone(b.Kinds)
	for k := range exact.Kinds {
		exact.Kinds[k].Reserve = b.edges()
	}
	return append(all, exact)
}

// mostPieces is how many pieces a stick holds at the most.
func (b *bench) mostPieces() int {
	most := 1
	for _, k := range b.Kinds {
		most = max(most, int(k.Room/b.Items[len(b.Items)-1].Size))
	}
	return most
}

// trims is how many cuts square the end of a stick.
func (b *bench) trims() int {
	if b.of.EndTrim > 0 {
		return 1
	}
	return 0
}

// edges is [Saw.Edge] of a stick with so many pieces.
func (b *bench) edges() []int64 {
	kept := make([]int64, b.mostPieces()+1)
	for n := range kept {
		kept[n] = int64(b.of.Saw.Edge(n + b.trims()))
	}
	return kept
}

// keep makes a problem in which so much is kept free of every stick, or part of one, and so
// much more for each piece.
func (b *bench) keep(stick, piece int64) packing.Problem {
	q := b.Problem
	q.Items, q.Kinds = slices.Clone(b.Items), slices.Clone(b.Kinds)
	for i := range q.Items {
		q.Items[i].Size += piece
	}
	for k := range q.Kinds {
		q.Kinds[k].Room -= stick
		ways := slices.Clone(q.Kinds[k].Ways)
		for w := range ways {
			ways[w].Room -= stick * int64(len(ways[w].Parts))
			ways[w].Parts = slices.Clone(ways[w].Parts)
			for j := range ways[w].Parts {
				ways[w].Parts[j] -= stick
			}
		}
		q.Kinds[k].Ways = ways
	}
	return q
}

// asGood packs a problem that asks more of each stick, if that can be done for the same
// purchase; some sticks stay as they are. nil where it cannot, or was not found.
func (b *bench) asGood(
	ctx context.Context,
	q packing.Problem,
	stay []packing.Bin,
	total packing.Total,
	steps int64,
) ([]packing.Bin, error) {
	q.Items, q.Kinds = slices.Clone(q.Items), slices.Clone(q.Kinds)
	rest := total
	for _, bin := range stay {
		for _, h := range bin.Shares {
			q.Items[h.Item].Count -= h.Count
		}
		k := &q.Kinds[bin.Kind]
		if k.Limit != packing.Endless {
			k.Limit--
		}
		rest.Cost, rest.Bins, rest.Cuts = rest.Cost-k.Cost, rest.Bins-k.Bins, rest.Cuts-k.Cuts
	}
	q.Steps, q.AtMost = steps, &rest
	a, err := packing.Solve(ctx, q)
	if errors.Is(err, packing.ErrNoRoom) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	all := append(a.Bins, stay...)
	if q.Totalled(all).Compare(total) > 0 { // together they pay for cuts that each has for nothing
		return nil, nil
	}
	return all, nil
}

// fewestEdges packs anew with two sorts of each stick: one that keeps a reserve, and one that
// does not and counts.
func (b *bench) fewestEdges(ctx context.Context, a packing.Answer) ([]packing.Bin, error) {
	if b.Fee.Price > 0 || len(a.Bins) < 2 {
		return nil, nil
	}
	kept := b.edges()
	q := b.Problem
	q.Kinds = nil
	var of []int
	weight := len(a.Bins) + 1
	for i, k := range b.Kinds {
		k.Cuts *= weight
		safe := k
		safe.Reserve = kept
		q.Kinds, of = append(q.Kinds, safe), append(of, i)
		k.Cuts++
		q.Kinds, of = append(q.Kinds, k), append(of, i)
	}
	total := a.Total
	total.Cuts = (total.Cuts + 1) * weight
	bins, err := b.asGood(ctx, q, nil, total, spreadSteps)
	used := make([]int, len(b.Kinds))
	for n := range bins {
		bins[n].Kind = of[bins[n].Kind]
		used[bins[n].Kind]++
	}
	for k, kd := range b.Kinds { // of both sorts together there are no more than there are
		if kd.Limit != packing.Endless && used[k] > kd.Limit {
			return nil, err
		}
	}
	return bins, err
}

// narrowed makes one stick of a kind as short as it can be by bisection, which leaves the
// rest of it as one leftover.
func (b *bench) narrowed(ctx context.Context, q packing.Problem, uncut []packing.Bin, a packing.Answer, kind int) (all [][]packing.Bin) {
	used := make([]int, len(q.Kinds))
	for _, bin := range a.Bins {
		used[bin.Kind]++
	}
	q.Kinds = slices.Clone(q.Kinds)
	for k := range q.Kinds {
		if q.Kinds[k].Bins > 0 || q.Kinds[k].Cost > 0 {
			q.Kinds[k].Limit = used[k]
		}
	}
	n := len(q.Kinds)
	q.Kinds = append(q.Kinds, q.Kinds[kind])
	q.Kinds[n].Limit = 1
	q.Kinds[kind].Limit--
	low, high := int64(0), q.Kinds[n].Room // everything fits with the latter
	for range narrowRounds {
		q.Kinds[n].Room = (low + high) / 2
		bins, err := b.asGood(ctx, q, uncut, a.Total, narrowSteps)
		if err != nil || bins == nil {
			low = q.Kinds[n].Room
			continue
		}
		for i := range bins {
			if bins[i].Kind == n {
				bins[i].Kind = kind
			}
		}
		high = q.Kinds[n].Room
		all = append(all, bins)
	}
	return all
}
