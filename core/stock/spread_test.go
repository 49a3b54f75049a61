package stock_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// By hand n cuts may take 1/32 × √n; with a stop, 1/64 × √n and 1/64 for each.
func TestWhatRealCutsTake(t *testing.T) {
	hand := stock.Saw{Kerf: measure.Inch / 32, Root: measure.Inch / 32}
	assert.Zero(t, hand.Allowance(0), "an uncut stick is as long as it is")
	assert.Equal(t, measure.Inch/32, hand.Allowance(1))
	assert.Equal(t, measure.Inch/16, hand.Allowance(4))
	assert.Equal(t, measure.Inch*3/32, hand.Allowance(9))
	stop := stock.Saw{Kerf: measure.Inch / 8, Root: measure.Inch / 64, Each: measure.Inch / 64}
	assert.Equal(t, measure.Inch*3/32, stop.Allowance(4), "1/32 and 4/64")
	assert.Equal(t, measure.Inch/8, stop.Edge(4), "a kerf is more")
	assert.Equal(t, measure.Inch*12/64+1, stop.Edge(9), "3/64 and 9/64 are more than a kerf")
}

// edges counts the sticks on a knife edge by the words of the rule.
func edges(p *stock.Problem, m stock.Material) (n int) {
	for _, s := range m.Sticks {
		sum, k := measure.Length(0), len(s.Pieces)
		for _, pc := range s.Pieces {
			sum += pc.Length
		}
		if onEdge(p, s.Length-p.EndTrim-sum-p.Saw.Kerf*measure.Length(k-1), k) {
			n++
		}
	}
	return n
}

func onEdge(p *stock.Problem, slack measure.Length, pieces int) bool {
	cuts := pieces - 1
	if slack > 0 {
		cuts++
	}
	if p.EndTrim > 0 {
		cuts++
	}
	allowance := p.Saw.Allowance(cuts)
	return cuts > 0 && (slack < p.Saw.Kerf || slack <= allowance && allowance > 0)
}

// sparable says whether some plan of a cost and number of sticks keeps every stick off the
// edge, by trying every way.
func sparable(p *stock.Problem, cost measure.Length, sticks int) bool {
	var pieces []measure.Length
	for _, d := range p.Demands {
		for range d.Count {
			pieces = append(pieces, d.Length)
		}
	}
	type open struct {
		length, sum measure.Length
		n           int
	}
	var bins []open
	var place func(i int, cost measure.Length) bool
	place = func(i int, cost measure.Length) bool {
		if i == len(pieces) {
			if cost < 0 || len(bins) > sticks {
				return false
			}
			for _, b := range bins {
				if onEdge(p, b.length-p.EndTrim-b.sum-p.Saw.Kerf*measure.Length(b.n-1), b.n) {
					return false
				}
			}
			return true
		}
		for b := range bins {
			if was := bins[b]; was.sum+pieces[i]+p.Saw.Kerf*measure.Length(was.n) <= was.length-p.EndTrim {
				bins[b].sum, bins[b].n = was.sum+pieces[i], was.n+1
				if place(i+1, cost) {
					return true
				}
				bins[b] = was
			}
		}
		if len(bins) == sticks {
			return false
		}
		for _, o := range p.Offers {
			if o.Length <= cost && pieces[i] <= o.Length-p.EndTrim {
				bins = append(bins, open{o.Length, pieces[i], 1})
				if place(i+1, cost-o.Length) {
					return true
				}
				bins = bins[:len(bins)-1]
			}
		}
		return false
	}
	return place(0, cost)
}

func TestSlackIsSpreadWhereItCostsNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Problem{EndTrim: measure.Length(rapid.IntRange(0, 1).Draw(t, "trim")) * measure.Inch / 8}
		p.Saw.Kerf = measure.Length(rapid.SampledFrom([]int{0, 1, 4}).Draw(t, "kerf")) * measure.Inch / 32
		if rapid.Bool().Draw(t, "stop") {
			p.Saw.Root, p.Saw.Each = measure.Inch/64, measure.Inch/64
		} else {
			p.Saw.Root = measure.Inch / 32
		}
		for _, l := range []float64{60, 40}[:rapid.IntRange(1, 2).Draw(t, "lengths")] {
			p.Offers = append(p.Offers, shop(l)...)
		}
		// pieces of half inches: many fill a stick to the last bit
		for left := rapid.IntRange(2, 7).Draw(t, "pieces"); left > 0; {
			n := rapid.IntRange(1, min(2, left)).Draw(t, "count")
			l := in(float64(rapid.IntRange(12, 78).Draw(t, "half inches")) / 2)
			p.Demands = append(p.Demands, stock.Demand{Material: "pipe", Length: l, Count: n})
			left -= n
		}
		plain := solve(p)[0]
		p.Tidy = true
		m := solve(p)[0]
		verify(t, p, m)
		require.Equal(t, plain.Bought, m.Bought)
		require.Equal(t, plain.Count, m.Count)
		require.Equal(t, edges(&p, m), m.Edges)
		require.LessOrEqual(t, m.Edges, plain.Edges)
		if m.Edges > 0 {
			require.False(t, sparable(&p, m.Bought, m.Count), "a plan without a knife edge is there")
		}
	})
}

// A piece that may be shorter is cut as long as its stick allows, with what real cuts take
// kept free.
func TestRoughPiecesGiveWay(t *testing.T) {
	p := stock.Problem{
		Demands: []stock.Demand{
			{Material: "pipe", Length: in(40), Count: 2},
			{Material: "pipe", Length: in(41), Least: in(39), Count: 1, Name: "stake"},
		},
		Offers: shop(120), Saw: stock.Saw{Kerf: in(0.125), Root: measure.Inch / 32}, Tidy: true,
	}
	m := solve(p)[0]
	require.Equal(t, 1, m.Count, "121 and two kerfs do not go into 120, 119 do")
	require.Zero(t, m.Edges)
	last := m.Sticks[0].Pieces[2]
	assert.Equal(t, "stake", last.Name)
	assert.Equal(t, in(120-80-0.25-0.125), last.Length, "39 5/8: one kerf is kept free, which is more than 1/32 × √3")
	p.Demands[1].Count, p.Demands[0].Count = 1, 0
	m = solve(p)[0]
	assert.Equal(t, in(41), m.Sticks[0].Pieces[0].Length, "as it is wanted, where there is room")
}

// An offcut that is held to be worth something is used where that is cheapest.
func TestOffcutsMayHaveAPrice(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{50: 1}),
		Offers: []stock.Offer{
			{Material: "pipe", Length: in(120), Price: 500, Priced: true, Origin: stock.Shop},
			{Material: "pipe", Length: in(60), Price: 300, Priced: true, Origin: stock.Shop},
			{Material: "pipe", Length: in(70), Price: 200, Priced: true, Count: 1, Origin: stock.Rack},
		},
	}
	m := solve(p)[0]
	assert.Equal(t, measure.Money(200), m.Cost)
	assert.Zero(t, m.Count, "no stick is bought")
	p.Offers[2].Price = 350
	m = solve(p)[0]
	assert.Equal(t, measure.Money(300), m.Cost)
	p.Offers[2].Price, p.Offers[2].Priced = 0, false
	m = solve(p)[0]
	assert.Zero(t, m.Cost, "what lies there costs nothing")
}

// A shop that has only so many sticks of a length: the rest is of another, or lacking.
func TestAShopMayRunOut(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{50: 5}),
		Offers: []stock.Offer{
			{Material: "pipe", Length: in(120), Price: 500, Priced: true, Count: 2, Origin: stock.Shop},
			{Material: "pipe", Length: in(60), Price: 300, Priced: true, Origin: stock.Shop},
		},
	}
	m := solve(p)[0]
	verify(t, p, m)
	assert.Equal(t, measure.Money(1300), m.Cost)
	assert.Equal(t, 3, m.Count)
	p.Offers[1].Count = 0
	p.Offers = p.Offers[:1]
	m = solve(p)[0]
	verify(t, p, m)
	assert.Equal(t, []stock.Lack{{Demand: 0, Count: 1}}, m.Lacking, "four of five")
	assert.Equal(t, measure.Money(1000), m.Cost)
}

// A stick is as long as it measures: five 24s and four kerfs go into 120 1/4 that is nearly
// that long, and not into its name.
func TestTrueLengths(t *testing.T) {
	p := stock.Problem{Demands: demands(map[float64]int{24: 5}), Offers: shop(120), Saw: stock.Saw{Kerf: measure.Inch / 32}}
	assert.Equal(t, 2, solve(p)[0].Count)
	p.Offers = shop(120.25)
	assert.Equal(t, 1, solve(p)[0].Count)
}

func TestNonsenseIsRefused(t *testing.T) {
	for name, p := range map[string]stock.Problem{
		"no length":      {Demands: []stock.Demand{{Length: 0, Count: 1}}},
		"negative price": {Offers: []stock.Offer{{Length: in(10), Price: -1}}},
		"kerf":           {Saw: stock.Saw{Kerf: -1}},
		"no haul":        {Haul: &stock.Haul{}},
	} {
		require.Error(t, p.Check(), name)
	}
}
