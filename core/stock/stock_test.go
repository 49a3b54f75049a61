package stock_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

func in(x float64) measure.Length { return measure.FromInches(x) }

func demands(lengths map[float64]int) (ds []stock.Demand) {
	for l := 1000.0; l > 0; l -= 0.125 {
		if n := lengths[l]; n > 0 {
			ds = append(ds, stock.Demand{Material: "pipe", Length: in(l), Count: n})
		}
	}
	return ds
}

func shop(lengths ...float64) (os []stock.Offer) {
	for _, l := range lengths {
		os = append(os, stock.Offer{Material: "pipe", Length: in(l), Origin: stock.Shop})
	}
	return os
}

// solve is a plan that nobody stops.
func solve(p stock.Problem) []stock.Material {
	ms, err := stock.Solve(context.Background(), p)
	if err != nil {
		panic(err)
	}
	return ms
}

// A plan that nobody waits for any more ends without an answer.
func TestAStoppedPlanEnds(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	ms, err := stock.Solve(ctx, stock.Problem{Demands: demands(map[float64]int{24: 200, 18: 100}), Offers: shop(60)})
	require.ErrorIs(t, err, context.Canceled)
	assert.Nil(t, ms)
}

// First-fit-decreasing, what people do by hand, takes four sticks here.
func Example() {
	ms := solve(stock.Problem{
		Demands: demands(map[float64]int{24: 2, 18: 1, 15: 2, 12: 4, 7: 4, 2: 2}),
		Offers:  shop(60), Saw: stock.Saw{Kerf: measure.Inch / 8},
	})
	fmt.Println(ms[0].Count, "sticks, bound", ms[0].BoundSticks, "proven", ms[0].Proven)
	// Output: 3 sticks, bound 3 proven true
}

// verify checks a plan against its problem without trusting any total in it.
func verify(t require.TestingT, p stock.Problem, m stock.Material) {
	cut := map[int]int{}
	used := map[int]int{}
	for _, s := range m.Sticks {
		sum := measure.Length(0)
		for _, pc := range s.Pieces {
			require.Equal(t, p.Demands[pc.Demand].Length, pc.Length)
			cut[pc.Demand]++
			sum += pc.Length
		}
		room := p.Offers[s.Offer].Length - p.EndTrim - sum - p.Saw.Kerf*measure.Length(len(s.Pieces)-1)
		require.GreaterOrEqual(t, room, measure.Length(0), "a stick holds its pieces and the kerfs between them")
		if s.Parts == nil {
			require.Equal(t, room, s.Slack)
		}
		require.Equal(t, p.Offers[s.Offer].Length-p.EndTrim, sum+s.Kerf+s.Left, "nothing of a stick is lost sight of")
		used[s.Offer]++
	}
	for i, d := range p.Demands {
		lacking := 0
		for _, l := range m.Lacking {
			if l.Demand == i {
				lacking = l.Count
			}
		}
		if d.Material == m.Key {
			require.Equal(t, d.Count, cut[i]+lacking, "demand %d", i)
		}
	}
	for i, o := range p.Offers {
		if o.Count > 0 {
			require.LessOrEqual(t, used[i], o.Count)
		}
	}
}

// brute finds the least (cost, sticks) by trying every way to put the pieces
// into sticks, one after the other.
func brute(p stock.Problem) (cost int64, sticks int) {
	var pieces []measure.Length
	for _, d := range p.Demands {
		for range d.Count {
			pieces = append(pieces, d.Length)
		}
	}
	type open struct{ left, offer int64 }
	cost, sticks = 1<<62, 1<<30
	var place func(i int, bins []open, c int64)
	place = func(i int, bins []open, c int64) {
		if c > cost || c == cost && len(bins) >= sticks {
			return
		}
		if i == len(pieces) {
			cost, sticks = c, len(bins)
			return
		}
		need := int64(pieces[i])
		for b := range bins {
			if bins[b].left >= need+int64(p.Saw.Kerf) {
				bins[b].left -= need + int64(p.Saw.Kerf)
				place(i+1, bins, c)
				bins[b].left += need + int64(p.Saw.Kerf)
			}
		}
		for _, o := range p.Offers {
			w := int64(o.Length)
			if o.Priced {
				w = int64(o.Price)
			}
			if room := int64(o.Length - p.EndTrim); room >= need {
				place(i+1, append(bins[:len(bins):len(bins)], open{room - need, 0}), c+w)
			}
		}
	}
	place(0, nil, 0)
	return cost, sticks
}

func TestLeastCostThenFewestSticksAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Problem{Saw: stock.Saw{Kerf: measure.Length(rapid.SampledFrom([]int{0, 1, 2}).Draw(t, "kerf")) * measure.Inch / 16},
			EndTrim: measure.Length(rapid.IntRange(0, 1).Draw(t, "trim")) * measure.Inch}
		priced := rapid.Bool().Draw(t, "priced")
		for _, l := range []float64{60, 24, 40}[:rapid.IntRange(1, 3).Draw(t, "lengths")] {
			o := shop(l)[0]
			if o.Priced = priced; priced {
				o.Price = measure.Money(rapid.IntRange(int(l*3), int(l*5)).Draw(t, "price"))
			}
			p.Offers = append(p.Offers, o)
		}
		pieces := 0
		for range rapid.IntRange(1, 5).Draw(t, "classes") {
			n := rapid.IntRange(1, 3).Draw(t, "count")
			if pieces += n; pieces > 8 {
				break
			}
			p.Demands = append(
				p.Demands,
				stock.Demand{Material: "pipe", Length: in(float64(rapid.IntRange(16, 59*8).Draw(t, "eighths")) / 8), Count: n},
			)
		}
		m := solve(p)[0]
		verify(t, p, m)
		cost, sticks := brute(p)
		got := int64(m.Bought)
		if priced {
			got = int64(m.Cost)
		}
		require.True(t, m.Proven)
		require.Equal(t, cost, got, "cost or length")
		require.Equal(t, sticks, m.Count, "sticks")
		require.Equal(t, sticks, m.BoundSticks)
		if priced {
			require.Equal(t, m.Cost, m.BoundCost)
		} else {
			require.Equal(t, m.Bought, m.BoundLength)
		}
	})
}

func TestKerfDecides(t *testing.T) {
	// five 24s from a 120: exactly, with a shear; not with any saw
	p := stock.Problem{Demands: demands(map[float64]int{24: 5}), Offers: shop(120)}
	m := solve(p)[0]
	assert.Equal(t, 1, m.Count)
	assert.Zero(t, m.Sticks[m.Tightest].Slack)
	assert.Equal(t, 4, m.Cuts, "used to the end: the last cut is saved")
	p.Saw.Kerf = measure.Inch / 32
	assert.Equal(t, 2, solve(p)[0].Count)
}

func TestRackGoesFirstAndCostsNothing(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{50: 2, 30: 1, 130: 1}),
		Offers: append(shop(120),
			stock.Offer{Material: "pipe", Length: in(55), Count: 1, Origin: stock.Rack},
			stock.Offer{Material: "pipe", Length: in(170), Count: 1, Origin: stock.Rack}),
		Saw: stock.Saw{Kerf: measure.Inch / 8},
	}
	m := solve(p)[0]
	verify(t, p, m)
	assert.Empty(t, m.Lacking, "130 fits the long offcut")
	assert.Equal(t, 1, m.Count, "55 takes one 50, the rest of the 170 the 30, one stick the other 50")
	assert.Equal(t, in(120), m.Bought)
}

func TestTooLongIsSaid(t *testing.T) {
	p := stock.Problem{Demands: demands(map[float64]int{130: 2, 20: 1}), Offers: shop(120, 60)}
	m := solve(p)[0]
	assert.Equal(t, []stock.Lack{{Demand: 0, Count: 2}}, m.Lacking)
	assert.Equal(t, 1, m.Count)
	assert.Equal(t, in(60), m.Bought, "the rest is still planned, at the least length")
	none := solve(stock.Problem{Demands: demands(map[float64]int{20: 1})})
	assert.Equal(t, []stock.Lack{{Demand: 0, Count: 1}}, none[0].Lacking)
}

func TestUnpricedOfferIsPassedOverWhenOthersHavePrices(t *testing.T) {
	os := shop(120, 60)
	os[0].Priced, os[0].Price = true, 500
	m := solve(stock.Problem{Demands: demands(map[float64]int{20: 1}), Offers: os})[0]
	assert.Equal(t, measure.Money(500), m.Cost)
	assert.True(t, m.Priced)
}

func TestTidyKeepsThePurchaseAndLengthensTheLeftover(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{35: 4, 22: 3, 11: 6, 9: 2}),
		Offers:  shop(120),
		Saw:     stock.Saw{Kerf: measure.Inch / 8},
	}
	plain := solve(p)[0]
	p.Tidy = true
	tidy := solve(p)[0]
	verify(t, p, tidy)
	assert.Equal(t, plain.Count, tidy.Count)
	assert.LessOrEqual(t, tidy.Cuts, plain.Cuts)
	longest := func(m stock.Material) (l measure.Length) {
		for _, s := range m.Sticks {
			l = max(l, s.Left)
		}
		return l
	}
	assert.GreaterOrEqual(t, longest(tidy), longest(plain))
}

// Two sticks of 60 hold 40+20 and 30+29 (to the last bit) or 40+... with room
// to spare: a tidy plan leaves the margin where it costs nothing.
func TestTidyLeavesAMarginWhereItIsFree(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{40: 1, 30: 1, 20: 1, 18: 1}),
		Offers:  shop(60),
		Tidy:    true,
		Saw:     stock.Saw{Root: measure.Inch / 2},
	}
	m := solve(p)[0]
	verify(t, p, m)
	assert.Equal(t, 2, m.Count)
	assert.Zero(t, m.Edges, "40+18 and 30+20, not 40+20")
	assert.GreaterOrEqual(t, m.Sticks[m.Tightest].Slack, measure.Inch)
	p.Demands = demands(map[float64]int{40: 1, 20: 1})
	m = solve(p)[0]
	assert.Equal(t, 1, m.Count, "never at the cost of a stick")
	assert.Zero(t, m.Sticks[0].Slack)
	assert.Equal(t, 1, m.Edges)
}

func TestMaterialsStayApartAndOrderIsStable(t *testing.T) {
	p := stock.Problem{
		Demands: []stock.Demand{
			{Material: "rope", Length: in(30), Count: 3},
			{Material: "pipe", Length: in(50), Count: 3},
			{Material: "rope", Length: in(9), Count: 2},
		},
		Offers: append(shop(120), stock.Offer{Material: "rope", Length: in(100), Origin: stock.Shop}),
	}
	a, b := solve(p), solve(p)
	require.Len(t, a, 2)
	assert.Equal(t, "rope", a[0].Key)
	assert.Equal(t, a, b, "the same problem gives the same plan")
	for _, m := range a {
		verify(t, p, m)
	}
}

func TestLargeJobsEndWithinTheirNodes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Problem{Offers: shop(120, 60), Saw: stock.Saw{Kerf: measure.Inch / 8}, Steps: 500_000}
		for range rapid.IntRange(10, 40).Draw(t, "classes") {
			p.Demands = append(
				p.Demands,
				stock.Demand{
					Material: "pipe",
					Length:   in(float64(rapid.IntRange(3*16, 70*16).Draw(t, "l")) / 16),
					Count:    rapid.IntRange(1, 12).Draw(t, "n"),
				},
			)
		}
		m := solve(p)[0]
		verify(t, p, m)
		require.LessOrEqual(t, m.BoundLength, m.Bought)
		require.Less(t, m.Steps, int64(20_000_000))
	})
}

func BenchmarkSolve(b *testing.B) {
	p := stock.Problem{
		Demands: demands(map[float64]int{24: 2, 18: 1, 15: 2, 12: 4, 7: 4, 2: 2}),
		Offers:  shop(60),
		Saw:     stock.Saw{Kerf: measure.Inch / 8},
	}
	for b.Loop() {
		solve(p)
	}
}

// Each mark is where the piece before it, its kerf and the piece are added up, and the last one, its
// kerf and what is left make the stick.
func TestMarksAddUp(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		p := stock.Problem{Saw: stock.Saw{Kerf: measure.Length(rapid.IntRange(0, 4).Draw(r, "kerf")) * measure.Inch / 32}}
		p.EndTrim = measure.Length(rapid.IntRange(0, 2).Draw(r, "trim")) * measure.Inch / 8
		p.Offers = []stock.Offer{{Length: 120 * measure.Inch}}
		for range rapid.IntRange(1, 4).Draw(r, "lengths") {
			p.Demands = append(p.Demands, stock.Demand{
				Length: measure.Length(
					rapid.IntRange(80, 900).Draw(r, "length"),
				) * measure.Inch / 16, Count: rapid.IntRange(1, 5).Draw(r, "count"),
			})
		}
		if rapid.Bool().Draw(r, "car") {
			p.Haul = &stock.Haul{Limit: 60 * measure.Inch, Error: measure.Inch / 8}
		}
		all, err := stock.Solve(context.Background(), p)
		require.NoError(r, err)
		for _, m := range all {
			for _, s := range m.Sticks {
				part, lengths := 0, []measure.Length{s.Length}
				if s.Parts != nil {
					lengths = nil
					for _, x := range s.Parts {
						lengths = append(lengths, x.Length)
					}
				}
				s.EachPart(func(pieces []stock.Piece) {
					at := measure.Length(0)
					if part == 0 {
						at = p.EndTrim
					}
					for i, x := range pieces {
						if i > 0 {
							at += p.Saw.Kerf
						}
						at += x.Length
						require.Equal(r, at, x.At)
					}
					require.LessOrEqual(r, at, lengths[part])
					part++
				})
			}
		}
	})
}
