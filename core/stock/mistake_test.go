package stock_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// Two sticks of 60: 40 and 18, and 30. While the second is whole, a spoilt 40 takes it, and
// another has to be bought for the 30; once all is cut but the 18, that costs nothing more.
func TestWhatASpoiltCutCosts(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{40: 1, 30: 1, 18: 1}),
		Offers:  []stock.Offer{{Material: "pipe", Length: in(60), Price: 300, Priced: true, Origin: stock.Shop}},
	}
	m := solve(p)[0]
	require.Len(t, m.Sticks, 2)
	all, err := stock.Mistakes(context.Background(), p, m, nil)
	require.NoError(t, err)
	cost := map[measure.Length]stock.Mistake{}
	for _, x := range all {
		cost[m.Sticks[x.Stick].Pieces[x.Piece].Length] = x
	}
	assert.Equal(t, measure.Money(300), cost[in(40)].Cost, "its 20 left holds the 18; the 40 takes the other stick, the 30 a new one")
	assert.True(t, cost[in(40)].Fatal)
	assert.Zero(t, cost[in(18)].Cost, "30 and 18 go into the other stick")
	assert.Zero(t, cost[in(30)].Cost, "the other 30 of its stick")
}

// handCost is what is bought for pieces beside lengths that are there, by trying every way.
func handCost(pieces, rods []measure.Length, stick, kerf measure.Length) int {
	best := 1 << 30
	left := append([]measure.Length{}, rods...)
	var place func(i, bought int)
	place = func(i, bought int) {
		if bought >= best {
			return
		}
		if i == len(pieces) {
			best = bought
			return
		}
		for r := range left {
			if left[r] >= pieces[i] {
				was := left[r]
				left[r] -= pieces[i] + kerf
				place(i+1, bought)
				left[r] = was
			}
		}
		left = append(left, stick-pieces[i]-kerf)
		place(i+1, bought+1)
		left = left[:len(left)-1]
	}
	place(0, 0)
	return best
}

// Of all orders of up to seven cuts none is safer than the one that is given, by mistakes that
// are reckoned by hand.
func TestTheSafestOrderAgainstEveryOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Problem{Offers: shop(60), Saw: stock.Saw{Kerf: measure.Inch / 8}}
		n := rapid.IntRange(2, 5).Draw(t, "pieces")
		if rapid.IntRange(0, 9).Draw(t, "many") == 0 {
			n = rapid.IntRange(6, 7).Draw(t, "more pieces")
		}
		for range n {
			p.Demands = append(
				p.Demands,
				stock.Demand{Material: "pipe", Length: in(float64(rapid.IntRange(8, 59).Draw(t, "inches"))), Count: 1},
			)
		}
		m := solve(p)[0]
		order, exact, err := stock.SafestOrder(context.Background(), p, m, nil)
		require.NoError(t, err)
		require.True(t, exact)
		require.Len(t, order, n)
		type cut struct{ stick, piece int }
		var all []cut
		for s := range m.Sticks {
			for i := range m.Sticks[s].Pieces {
				all = append(all, cut{s, i})
			}
		}
		costs := func(done map[cut]bool, now cut) int {
			var rods, pieces []measure.Length
			for s := range m.Sticks {
				rest := m.Sticks[s].Length
				for i, pc := range m.Sticks[s].Pieces {
					if done[cut{s, i}] || now == (cut{s, i}) {
						rest -= pc.Length + p.Saw.Kerf
					}
					if !done[cut{s, i}] {
						pieces = append(pieces, pc.Length)
					}
				}
				rods = append(rods, rest)
			}
			return handCost(pieces, rods, in(60), p.Saw.Kerf)
		}
		// the order as given, reckoned by hand
		sum, done := 0, map[cut]bool{}
		for _, x := range order {
			at := cut{x.Stick, x.Piece}
			require.False(t, done[at])
			c := costs(done, at)
			require.Equal(t, c, x.Sticks)
			sum += c
			done[at] = true
		}
		best, known := 1<<30, map[int]int{}
		var try func(set, sum int)
		try = func(set, sum int) {
			if was, seen := known[set]; seen && was <= sum {
				return
			}
			known[set] = sum
			if set == 1<<n-1 {
				best = min(best, sum)
				return
			}
			done := map[cut]bool{}
			for i := range all {
				done[all[i]] = set&(1<<i) != 0
			}
			for i := range all {
				if set&(1<<i) == 0 {
					try(set|1<<i, sum+costs(done, all[i]))
				}
			}
		}
		try(0, 0)
		require.Equal(t, best, sum)
	})
}

func TestALargePlanHasAGoodOrder(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{24: 9, 18: 7, 15: 6, 12: 8, 7: 4}),
		Offers:  shop(120),
		Saw:     stock.Saw{Kerf: measure.Inch / 8},
	}
	m := solve(p)[0]
	order, exact, err := stock.SafestOrder(context.Background(), p, m, nil)
	require.NoError(t, err)
	assert.False(t, exact)
	require.Len(t, order, 34)
	stand, err := stock.Mistakes(context.Background(), p, m, nil)
	require.NoError(t, err)
	sum := func(all []stock.Mistake) (n int) {
		for _, x := range all {
			n += x.Sticks
		}
		return n
	}
	assert.LessOrEqual(t, sum(order), sum(stand))
}

// Yesterday's cutting is kept where that costs nothing, and given up where it does.
func TestYesterdaysCuttingIsKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Problem{Offers: shop(120, 60), Saw: stock.Saw{Kerf: measure.Inch / 8, Root: measure.Inch / 32}, Tidy: true}
		if rapid.Bool().Draw(t, "a car") { // with cuts that are free up to a number
			p.Haul = &stock.Haul{
				Limit: in(float64(rapid.IntRange(60, 100).Draw(t, "limit"))), Error: measure.Inch / 8,
				Free: rapid.IntRange(0, 3).Draw(t, "free"), Price: 30,
			}
			for i := range p.Offers {
				p.Offers[i].Priced, p.Offers[i].Price = true, measure.Money(250+200*(1-i)+rapid.IntRange(0, 60).Draw(t, "price"))
			}
		}
		for range rapid.IntRange(2, 6).Draw(t, "classes") {
			p.Demands = append(p.Demands, stock.Demand{
				Material: "pipe", Length: in(float64(rapid.IntRange(6, 118).Draw(t, "inches")) / 2), Count: rapid.IntRange(1, 6).Draw(t, "count"),
			})
		}
		before := solve(p)
		p.Keep = stock.AsCut(&p, before)
		again := solve(p)
		require.ElementsMatch(t, keys(before), keys(again), "nothing has changed")
		// one class is wanted once more
		p.Demands[0].Count++
		plain := p
		plain.Keep = nil
		free, kept := solve(plain)[0], solve(p)[0]
		verify(t, p, kept)
		require.Equal(t, free.Bought, kept.Bought)
		require.Equal(t, free.Count, kept.Count)
		require.Equal(t, free.Cost, kept.Cost)
		require.Equal(t, free.ShopCuts, kept.ShopCuts)
		require.True(t, kept.Proven)
	})
}

func keys(ms []stock.Material) (all []string) {
	for _, m := range ms {
		for _, s := range m.Sticks {
			all = append(all, s.Key)
		}
	}
	return all
}
