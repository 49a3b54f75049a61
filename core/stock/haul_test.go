package stock_test

import (
	"cmp"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// verifyHaul checks what is carried by the words of the rule, without trusting a total.
func verifyHaul(t require.TestingT, p stock.Problem, m stock.Material) {
	h := p.Haul
	cuts := 0
	for i := range m.Sticks {
		s := &m.Sticks[i]
		if s.Origin != stock.Shop {
			require.Empty(t, s.Parts)
			continue
		}
		if s.Length <= h.Limit {
			require.Empty(t, s.Parts, "it can be carried as it is")
			continue
		}
		sum, from := measure.Length(0), 0
		marks := s.Marks(p.Saw.Kerf)
		require.Len(t, marks, len(s.Parts)-1)
		for j, part := range s.Parts {
			require.LessOrEqual(t, part.Length, h.Limit)
			require.GreaterOrEqual(t, part.Length, measure.Length(0))
			if j > 0 {
				require.Equal(t, sum+p.Saw.Kerf*measure.Length(j-1), marks[j-1])
			}
			sum += part.Length
			need := p.Saw.Kerf * measure.Length(part.Pieces-1)
			for _, pc := range s.Pieces[from : from+part.Pieces] {
				need += pc.Length
			}
			from += part.Pieces
			ends := 2
			if j == 0 || j == len(s.Parts)-1 {
				ends = 1
			}
			if j == 0 {
				need += p.EndTrim
			}
			if part.Pieces > 0 {
				require.LessOrEqual(
					t,
					need+h.Error*measure.Length(ends),
					part.Length,
					"it holds its pieces, whatever the shop's cuts are off by",
				)
			}
		}
		require.Equal(t, len(s.Pieces), from)
		require.Equal(t, s.Length, sum+p.Saw.Kerf*measure.Length(len(s.Parts)-1))
		cuts += len(s.Parts) - 1
	}
	require.Equal(t, cuts, m.ShopCuts)
}

// A builder's ramp stalls: everything is halved at the counter, for a car that takes 5 ft.
func TestSticksAreHalvedAtTheCounter(t *testing.T) {
	p := stock.Problem{
		Demands: demands(map[float64]int{14: 12, 10: 4, 2: 16, 20.25: 1}),
		Offers:  shop(120), Haul: &stock.Haul{Limit: in(60), Error: in(0.125)}, Saw: stock.Saw{Kerf: in(0.125)}, Tidy: true,
	}
	m := solve(p)[0]
	verify(t, p, m)
	verifyHaul(t, p, m)
	assert.Equal(t, 3, m.Count, "260 1/4 in of pieces")
	assert.Equal(t, 3, m.ShopCuts)
	assert.True(t, m.Proven)
}

// Three of 38 fill a stick of 120, but no two go into 60: it is cut twice.
func TestMorePartsWherePiecesAskForThem(t *testing.T) {
	p := stock.Problem{Demands: demands(map[float64]int{38: 3}), Offers: shop(120), Haul: &stock.Haul{Limit: in(60)}}
	m := solve(p)[0]
	verifyHaul(t, p, m)
	assert.Equal(t, 1, m.Count)
	assert.Equal(t, 2, m.ShopCuts)
	p.Haul.Limit = in(77)
	m = solve(p)[0]
	verifyHaul(t, p, m)
	assert.Equal(t, 1, m.ShopCuts, "38 and 76")
	p.Demands = append(p.Demands, stock.Demand{Material: "pipe", Length: in(78), Count: 2})
	assert.Equal(t, []stock.Lack{{Demand: 1, Count: 2}}, solve(p)[0].Lacking, "longer than what is carried")
}

// With a price for each cut beyond the second, sticks of 5 ft are dearer than cutting, or not.
func TestCutsAreFreeUpToANumber(t *testing.T) {
	offers := []stock.Offer{
		{Material: "pipe", Length: in(120), Price: 500, Priced: true, Origin: stock.Shop},
		{Material: "pipe", Length: in(60), Price: 280, Priced: true, Origin: stock.Shop},
	}
	p := stock.Problem{
		Demands: demands(map[float64]int{55: 8}), Offers: offers,
		Haul: &stock.Haul{Limit: in(60), Error: in(0.125), Free: 2, Price: 50}, Saw: stock.Saw{Kerf: in(0.125)},
	}
	m := solve(p)[0]
	verifyHaul(t, p, m)
	assert.Equal(t, measure.Money(2100), m.Cost, "four of 500, two cuts at 50")
	assert.Equal(t, measure.Money(100), m.CutCost)
	p.Haul.Price = 100
	m = solve(p)[0]
	verifyHaul(t, p, m)
	assert.Equal(t, measure.Money(2120), m.Cost, "two of 500 cut for nothing, four of 280")
	assert.Equal(t, 2, m.ShopCuts)
	assert.True(t, m.Proven)
}

// byHandHauled is the best purchase by trying every way: pieces into parts, parts into sticks,
// and the parts in every order, some of them empty.
func byHandHauled(p stock.Problem) (cost int64, sticks, cuts int, ok bool) {
	var pieces []measure.Length
	for _, d := range p.Demands {
		for range d.Count {
			pieces = append(pieces, d.Length)
		}
	}
	kerf, h := p.Saw.Kerf, p.Haul
	// fewest parts of a stick that carry the groups; 0: none
	parts := func(length measure.Length, groups []measure.Length) int {
		if length <= h.Limit {
			if len(groups) == 1 && groups[0]+p.EndTrim <= length {
				return 1
			}
			return 0
		}
		for n := max(2, len(groups)); n <= len(groups)+int(length/h.Limit)+1; n++ {
			if h.Limit*measure.Length(n)+kerf*measure.Length(n-1) < length {
				continue
			}
			used := make([]bool, n)
			var put func(g int, sum measure.Length) bool
			put = func(g int, sum measure.Length) bool {
				if g == len(groups) {
					return sum+p.EndTrim+kerf*measure.Length(n-1) <= length
				}
				for j := range n {
					need := groups[g] + 2*h.Error
					if j == 0 || j == n-1 {
						need = groups[g] + h.Error
					}
					carried := need
					if j == 0 {
						carried += p.EndTrim
					}
					if !used[j] && carried <= h.Limit {
						used[j] = true
						if put(g+1, sum+need) {
							return true
						}
						used[j] = false
					}
				}
				return false
			}
			if put(0, 0) {
				return n
			}
		}
		return 0
	}
	type stick struct{ groups []measure.Length }
	var open []stick
	var place func(i int)
	finish := func() {
		var kinds func(s int, c int64, n int)
		kinds = func(s int, c int64, n int) {
			if s == len(open) {
				if !ok || cmp.Or(cmp.Compare(c, cost), cmp.Compare(len(open), sticks), cmp.Compare(n, cuts)) < 0 {
					cost, sticks, cuts, ok = c, len(open), n, true
				}
				return
			}
			for _, o := range p.Offers {
				if k := parts(o.Length, open[s].groups); k > 0 {
					kinds(s+1, c+int64(o.Length), n+k-1)
				}
			}
		}
		kinds(0, 0, 0)
	}
	place = func(i int) {
		if i == len(pieces) {
			finish()
			return
		}
		for s := range open {
			for g := range open[s].groups {
				open[s].groups[g] += pieces[i] + kerf
				place(i + 1)
				open[s].groups[g] -= pieces[i] + kerf
			}
			open[s].groups = append(open[s].groups, pieces[i])
			place(i + 1)
			open[s].groups = open[s].groups[:len(open[s].groups)-1]
		}
		open = append(open, stick{[]measure.Length{pieces[i]}})
		place(i + 1)
		open = open[:len(open)-1]
	}
	place(0)
	return cost, sticks, cuts, ok
}

func TestHaulAgainstEveryWay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		eighths := func(name string, lo, hi int) measure.Length {
			return measure.Length(rapid.IntRange(lo, hi).Draw(t, name)) * measure.Inch / 8
		}
		p := stock.Problem{
			Saw:  stock.Saw{Kerf: eighths("kerf", 0, 2)},
			Haul: &stock.Haul{Limit: eighths("limit", 200, 600), Error: eighths("error", 0, 3)},
			Tidy: rapid.Bool().Draw(t, "tidy"), EndTrim: eighths("trim", 0, 2),
		}
		for _, l := range []float64{120, 60, 90}[:rapid.IntRange(1, 3).Draw(t, "lengths")] {
			p.Offers = append(p.Offers, shop(l)...)
		}
		for range rapid.IntRange(1, 5).Draw(t, "pieces") {
			p.Demands = append(p.Demands, stock.Demand{Material: "pipe", Length: eighths("length", 40, 590), Count: 1})
		}
		m := solve(p)[0]
		verify(t, p, m)
		verifyHaul(t, p, m)
		lacking := map[int]bool{}
		for _, l := range m.Lacking {
			lacking[l.Demand] = true
		}
		q := p
		q.Demands = nil
		for i, d := range p.Demands {
			if !lacking[i] {
				q.Demands = append(q.Demands, d)
				continue
			}
			alone := p
			alone.Demands = []stock.Demand{d}
			_, _, _, ok := byHandHauled(alone)
			require.False(t, ok, "%v can be carried", d.Length)
		}
		if len(q.Demands) == 0 {
			return
		}
		cost, sticks, cuts, ok := byHandHauled(q)
		require.True(t, ok)
		require.True(t, m.Proven)
		require.Equal(t, cost, int64(m.Bought))
		require.Equal(t, sticks, m.Count)
		require.Equal(t, cuts, m.ShopCuts)
	})
}

// Whole lists for a car are proven within the steps of a plan: sticks of 10 and 5 ft, cuts in
// the shop free up to three and then priced.
func TestListsForACarAreProven(t *testing.T) {
	for seed := range uint64(4) {
		for _, limit := range []float64{60, 45, 77} {
			r := rand.New(rand.NewPCG(seed, 5))
			p := stock.Problem{
				Saw: stock.Saw{Kerf: measure.Inch / 8, Root: measure.Inch / 32}, Tidy: true, Steps: 100_000_000,
				Haul: &stock.Haul{Limit: in(limit), Error: measure.Inch / 8, Free: 3, Price: 25},
				Offers: []stock.Offer{
					{Material: "pipe", Length: in(120), Price: 500, Priced: true, Origin: stock.Shop},
					{Material: "pipe", Length: in(60), Price: 290, Priced: true, Origin: stock.Shop},
				},
			}
			for range 8 {
				length := measure.Length(3*16+r.IntN(41*16)) * measure.Inch / 16
				p.Demands = append(p.Demands, stock.Demand{Material: "pipe", Length: length, Count: 1})
			}
			for range 32 {
				p.Demands[r.IntN(8)].Count++
			}
			m := solve(p)[0]
			verify(t, p, m)
			verifyHaul(t, p, m)
			assert.True(t, m.Proven, "seed %d, %v in", seed, limit)
		}
	}
}
