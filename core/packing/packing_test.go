package packing_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/packing"
	"sturdyelbow/core/packing/families"
)

func Example() {
	p := packing.Problem{
		Items: []packing.Item{{Size: 6, Count: 2}, {Size: 4, Count: 3}, {Size: 3, Count: 1}},
		Kinds: []packing.Kind{{Room: 10, Cost: 5, Bins: 1, Limit: packing.Endless}, {Room: 7, Cost: 3, Bins: 1, Limit: packing.Endless}},
	}
	a, err := packing.Solve(context.Background(), p)
	fmt.Println(a.Total.Cost, a.Total.Bins, a.Proven, err)
	// Output: 13 3 true <nil>
}

// hand is the best packing by trying every way to put one piece after the other; ok is false
// when there is none.
func hand(p *packing.Problem) (best packing.Total, ok bool) {
	var pieces []int
	for i, it := range p.Items {
		for range it.Count {
			pieces = append(pieces, i)
		}
	}
	used := make([]int, len(p.Kinds))
	var bins []packing.Bin
	holds := func(b packing.Bin) bool {
		one := packing.Problem{Items: make([]packing.Item, len(p.Items)), Kinds: p.Kinds}
		for i := range p.Items {
			one.Items[i].Size = p.Items[i].Size
		}
		for _, s := range b.Shares {
			one.Items[s.Item].Count += s.Count
		}
		k := p.Kinds[b.Kind]
		k.Limit = packing.Endless
		one.Kinds = append([]packing.Kind{}, p.Kinds...)
		one.Kinds[b.Kind] = k
		return one.Verify([]packing.Bin{b}) == nil
	}
	var place func(n int)
	place = func(n int) {
		if ok && p.Totalled(bins).Compare(best) >= 0 {
			return
		}
		if n == len(pieces) {
			best, ok = p.Totalled(bins), true
			return
		}
		share := packing.Share{Item: pieces[n], Count: 1}
		for b := range bins {
			was := bins[b].Shares
			bins[b].Shares = append(was[:len(was):len(was)], share)
			if holds(bins[b]) {
				place(n + 1)
			}
			bins[b].Shares = was
		}
		for k := range p.Kinds {
			b := packing.Bin{Kind: k, Shares: []packing.Share{share}}
			if used[k] != p.Kinds[k].Limit && holds(b) {
				used[k]++
				bins = append(bins, b)
				place(n + 1)
				bins = bins[:len(bins)-1]
				used[k]--
			}
		}
	}
	place(0)
	return best, ok
}

// small draws a problem that can be solved by hand.
func small(t *rapid.T) packing.Problem {
	var p packing.Problem
	seen := map[int64]bool{}
	for left := rapid.IntRange(1, 7).Draw(t, "pieces"); left > 0; {
		it := packing.Item{Size: rapid.Int64Range(3, 40).Draw(t, "size"), Count: rapid.IntRange(1, left).Draw(t, "count")}
		if !seen[it.Size] {
			p.Items = append(p.Items, it)
			left -= it.Count
		}
		seen[it.Size] = true
	}
	for range rapid.IntRange(1, 4).Draw(t, "kinds") {
		k := packing.Kind{
			Room:  rapid.Int64Range(20, 60).Draw(t, "room"),
			Cost:  rapid.Int64Range(0, 9).Draw(t, "cost"),
			Bins:  rapid.IntRange(0, 1).Draw(t, "bins"),
			Limit: rapid.SampledFrom([]int{packing.Endless, packing.Endless, 1, 2, 3}).Draw(t, "limit"),
		}
		if k.Cost == 0 && k.Bins == 0 && k.Limit == packing.Endless {
			k.Limit = 2
		}
		for parts := rapid.IntRange(0, 3).Draw(t, "parts"); parts > 1; parts-- {
			w := packing.Way{Room: k.Room - int64(parts), Parts: make([]int64, parts)}
			for i := range w.Parts {
				w.Parts[i] = rapid.Int64Range(10, 40).Draw(t, "part")
			}
			k.Ways = append(k.Ways, w)
			k.Cuts = parts - 1
		}
		p.Kinds = append(p.Kinds, k)
	}
	if rapid.Bool().Draw(t, "fee") {
		p.Fee = packing.Fee{Free: rapid.IntRange(0, 3).Draw(t, "free"), Price: rapid.Int64Range(0, 4).Draw(t, "fee price")}
	}
	return p
}

func TestTheBestOfAllWays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := small(t)
		best, ok := hand(&p)
		a, err := packing.Solve(context.Background(), p)
		if !ok {
			require.ErrorIs(t, err, packing.ErrNoRoom)
			return
		}
		require.NoError(t, err)
		require.NoError(t, p.Verify(a.Bins))
		require.Equal(t, p.Totalled(a.Bins), a.Total)
		require.Equal(t, best, a.Total)
		require.True(t, a.Proven)
		require.Equal(t, best, a.Bound)
	})
}

// byHand is first fit or best fit of the largest pieces first, into bins of one kind.
func byHand(p *packing.Problem, kind int, best bool) int {
	var left []int64
	for _, it := range p.Items {
		for range it.Count {
			at := -1
			for b := range left {
				if left[b] >= it.Size && (at < 0 || best && left[b] < left[at]) {
					at = b
				}
			}
			if at < 0 {
				at = len(left)
				left = append(left, p.Kinds[kind].Room)
			}
			left[at] -= it.Size
		}
	}
	return len(left)
}

func TestNeverWorseThanByHandAndNeverBelowTheBound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(5, 60).Draw(t, "pieces")
		seed := rapid.Uint64().Draw(t, "seed")
		p := rapid.SampledFrom([]func() packing.Problem{
			func() packing.Problem { return families.ShopList(n, n/3+1, seed) },
			func() packing.Problem { return families.Uniform(n, seed) },
			func() packing.Problem { return families.Triplets(n-n%3, seed) },
		}).Draw(t, "family")()
		p.Steps = rapid.SampledFrom([]int64{1, 100_000, 20_000_000}).Draw(t, "steps")
		a, err := packing.Solve(context.Background(), p)
		require.NoError(t, err)
		require.NoError(t, p.Verify(a.Bins))
		require.Equal(t, p.Totalled(a.Bins), a.Total)
		require.LessOrEqual(t, a.Bound.Compare(a.Total), 0)
		require.Equal(t, a.Proven, a.Bound == a.Total)
		for k := range p.Kinds {
			if p.Kinds[k].Room < p.Items[0].Size {
				continue
			}
			for _, best := range []bool{false, true} {
				require.LessOrEqual(t, a.Total.Cost, p.Kinds[k].Cost*int64(byHand(&p, k, best)))
			}
		}
		b, err := packing.Solve(context.Background(), p)
		require.NoError(t, err)
		require.Equal(t, a, b, "the same problem gives the same answer")
	})
}

// The hard families are made so that the answer is known, or is a bound by volume.
func TestHardFamiliesAreProven(t *testing.T) {
	for seed := range uint64(6) {
		p := families.Triplets(120, 100+seed)
		a, err := packing.Solve(context.Background(), p)
		require.NoError(t, err)
		assert.True(t, a.Proven)
		assert.EqualValues(t, 40, a.Total.Cost, "made of 40 full bins")
		p = families.Uniform(120, 100+seed)
		a, err = packing.Solve(context.Background(), p)
		require.NoError(t, err)
		assert.True(t, a.Proven)
	}
}

func TestNonsenseIsSaid(t *testing.T) {
	one := []packing.Kind{{Room: 10, Cost: 1, Limit: packing.Endless}}
	for name, p := range map[string]packing.Problem{
		"item 0: 1 of size 0":              {Items: []packing.Item{{Size: 0, Count: 1}}, Kinds: one},
		"item 1: size 4 is there twice":    {Items: []packing.Item{{Size: 4, Count: 1}, {Size: 4, Count: 2}}, Kinds: one},
		"kind 0: a figure is below nought": {Kinds: []packing.Kind{{Room: 10, Cost: -1}}},
		"a fee below nought":               {Fee: packing.Fee{Price: -1}},
	} {
		_, err := packing.Solve(context.Background(), p)
		assert.EqualError(t, err, name)
	}
	_, err := packing.Solve(context.Background(), packing.Problem{Items: []packing.Item{{Size: 11, Count: 1}}, Kinds: one})
	require.ErrorIs(t, err, packing.ErrNoRoom)
	none, err := packing.Solve(context.Background(), packing.Problem{Kinds: one})
	require.NoError(t, err)
	assert.True(t, none.Proven)
}

func TestAStoppedSearchEnds(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err := packing.Solve(ctx, families.Triplets(249, 3))
	require.ErrorIs(t, err, context.Canceled)
}

func BenchmarkSolve(b *testing.B) {
	for _, f := range families.All() {
		b.Run(f.Name, func(b *testing.B) {
			var ps []packing.Problem
			for seed := range uint64(20) {
				ps = append(ps, f.Make(seed))
			}
			for n := 0; b.Loop(); n++ {
				if a, err := packing.Solve(context.Background(), ps[n%20]); err != nil || !a.Proven {
					b.Fatal(a.Total, a.Bound, err)
				}
			}
		})
	}
}
