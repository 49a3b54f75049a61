package stock

import (
	"context"
	"errors"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// Kept is a stick as an earlier plan cut it, which a plan is asked to keep where that costs
// nothing.
type Kept struct {
	Material string           `json:"material"`
	Length   measure.Length   `json:"length"` // that it is named by
	Origin   Origin           `json:"origin"`
	Pieces   []measure.Length `json:"pieces"`
}

// AsCut lists the sticks of a plan, to be kept by a later one.
func AsCut(p *Problem, ms []Material) (all []Kept) {
	for _, m := range ms {
		for _, s := range m.Sticks {
			k := Kept{Material: m.Key, Length: p.Offers[s.Offer].named(), Origin: s.Origin}
			for _, pc := range s.Pieces {
				k.Pieces = append(k.Pieces, p.Demands[pc.Demand].Length)
			}
			all = append(all, k)
		}
	}
	return all
}

// keepSteps bounds the search for the rest of a plan beside what is kept.
const keepSteps = 2_000_000

// asBefore packs anew so that as many sticks as can be are cut as before, if the purchase is as
// good as the best. Sticks are given up one by one, those with the most left first: they are
// the likeliest to be in the way.
func (b *bench) asBefore(ctx context.Context, a packing.Answer) (packing.Answer, bool, error) {
	stay := b.before()
	left := func(bin packing.Bin) int64 {
		room := b.Kinds[bin.Kind].Room
		for _, h := range bin.Shares {
			room -= int64(h.Count) * b.Items[h.Item].Size
		}
		return room
	}
	slices.SortStableFunc(stay, func(x, y packing.Bin) int { return int(min(max(left(x)-left(y), -1), 1)) })
	for ; len(stay) > 0; stay = stay[:len(stay)-1] {
		bins, err := b.asGood(ctx, b.Problem, stay, a.Total, keepSteps)
		if err != nil && !errors.Is(err, packing.ErrNoRoom) {
			return a, false, err
		}
		if bins != nil {
			a.Bins = bins
			return a, true, nil
		}
	}
	return a, false, nil
}

// before finds the bins that are the sticks of an earlier plan, as far as there still are such
// sticks and their pieces are still asked for.
func (b *bench) before() (stay []packing.Bin) {
	left := make([]int, len(b.Items))
	for i, it := range b.Items {
		left[i] = it.Count
	}
	used := make([]int, len(b.Kinds))
	for _, k := range b.of.Keep {
		if k.Material != b.key {
			continue
		}
		shares := map[int]int{}
		whole := true
		for _, l := range k.Pieces {
			item := slices.IndexFunc(b.demands, func(of []int) bool {
				return slices.ContainsFunc(of, func(d int) bool { return b.of.Demands[d].Length == l })
			})
			if item < 0 || shares[item] == left[item] {
				whole = false
				break
			}
			shares[item]++
		}
		if !whole || len(shares) == 0 {
			continue
		}
		bin := packing.Bin{}
		for item := range b.Items {
			if shares[item] > 0 {
				bin.Shares = append(bin.Shares, packing.Share{Item: item, Count: shares[item]})
			}
		}
		for kind := range b.Kinds {
			o := &b.of.Offers[b.offers[kind]]
			bin.Kind = kind
			one := packing.Problem{Items: slices.Clone(b.Items), Kinds: b.Kinds}
			for i := range one.Items {
				one.Items[i].Count = shares[i]
			}
			if o.named() == k.Length && sameOrigin(o.Origin, k.Origin) && used[kind] != b.Kinds[kind].Limit &&
				one.Verify([]packing.Bin{bin}) == nil {
				used[kind]++
				for item, n := range shares {
					left[item] -= n
				}
				stay = append(stay, bin)
				break
			}
		}
	}
	return stay
}

// sameOrigin takes a stick that was bought since for one from the shop.
func sameOrigin(a, b Origin) bool {
	shop := func(o Origin) bool { return o == Shop || o == "" || o == Bought }
	return a == b || shop(a) && shop(b)
}
