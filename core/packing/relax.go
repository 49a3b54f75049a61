package packing

import (
	"cmp"
	"fmt"
	"math"
	"math/big"
	"slices"
)

const (
	// relaxMost is how many rows the relaxation is worked out for: beyond that its table
	// alone would fill the machine, and the bound is by volume.
	relaxMost = 1500
	// pricingSteps bounds the search for one pattern.
	pricingSteps = 2_000_000
	// shades is in how many whole numbers the price of the dearest item is told.
	shades = 1e8
)

// costs are what the relaxation takes a bin of each kind to cost: shares of the dearest,
// and a trifle for each bin and cut, so that of equal ones the better is favoured.
func (s *search) costs() []float64 {
	top := int64(0)
	for _, k := range s.kinds {
		top = max(top, k.Cost)
	}
	c := make([]float64, len(s.kinds))
	for i, k := range s.kinds {
		if top > 0 {
			c[i] = float64(k.Cost) / float64(top)
		}
		c[i] += 1e-5*float64(k.Bins) + 1e-7*float64(k.Cuts)
	}
	return c
}

// program makes the linear program ready, with the patterns of some answers.
func (s *search) program(answers ...[]Bin) {
	if s.lp != nil || len(s.items)+len(s.kinds) > relaxMost {
		return
	}
	penalty := make([]float64, len(s.items))
	for i := range penalty {
		penalty[i] = 1000
	}
	s.lp = newMaster(len(s.items), len(s.kinds), penalty)
	cost := s.costs()
	for _, bins := range answers {
		for _, b := range bins {
			s.lp.add(pattern{kind: b.Kind, shares: b.Shares, cost: cost[b.Kind]})
		}
	}
}

// relax solves the relaxation for what is left and the bins that there are, in so many rounds
// of pricing at the most.
func (s *search) relax(left, avail []int, rounds int) {
	l := s.lp
	cost := s.costs()
	before := l.steps
	l.ask(left, avail)
	l.dual()
	for range rounds {
		l.primal()
		more := s.spend(l.steps - before)
		before = l.steps
		if !more || s.price(left, avail, cost) == 0 {
			return
		}
	}
}

// atOnce is how many patterns are sought for one kind at once, where that is cheap: each
// without the items of those before it, so that they can be part of one answer.
const atOnce = 6

// price adds patterns that lower the cost, and gives their number.
func (s *search) price(left, avail []int, cost []float64) (added int) {
	l := s.lp
	value := l.y[:l.items]
	count := make([]int, len(left))
	var all *table // for all kinds, where no quicker way finds one
	for k := range s.kinds {
		if avail[k] == 0 {
			continue
		}
		copy(count, left)
		if s.kinds[k].Ways != nil {
			_, shares := s.heldFill(k, value, count)
			added += s.bring(pattern{kind: k, shares: shares, cost: cost[k]})
			continue
		}
		for n := range atOnce {
			_, shares, exact := s.branch(s.kinds[k].Room, value, count, branchSteps)
			found := s.bring(pattern{kind: k, shares: shares, cost: cost[k]})
			if found == 0 && !exact && n == 0 { // there may be one, after a longer search
				if all == nil {
					all = s.tableOfAll(value, left)
				}
				if all != nil {
					added += s.bringMany(all, k, value, left, cost[k])
					break
				}
				_, shares, _ = s.branch(s.kinds[k].Room, value, count, pricingSteps)
				found = s.bring(pattern{kind: k, shares: shares, cost: cost[k]})
			}
			if found == 0 {
				break
			}
			added++
			take(count, shares, 1)
		}
	}
	return added
}

// fromTable is how many patterns are taken from one table, which costs much to make.
const fromTable = 8

// bringMany adds the best patterns that a table has for a kind: of each item, the best that
// holds it.
func (s *search) bringMany(t *table, k int, value []float64, left []int, cost float64) (added int) {
	room := s.kinds[k].Room
	worth := func(i int) float64 {
		if left[i] == 0 || s.items[i].Size > room {
			return 0
		}
		return value[i] + t.worth[room-s.items[i].Size]
	}
	items := make([]int, len(s.items))
	for i := range items {
		items[i] = i
	}
	slices.SortStableFunc(items, func(a, b int) int { return cmp.Compare(worth(b), worth(a)) })
	seen := map[string]bool{}
	for _, i := range items {
		if added == fromTable || cost-s.lp.y[s.lp.items+k]-worth(i) > -reopens {
			break
		}
		shares := s.add(t.fill(s, room-s.items[i].Size), i, 1)
		at := slices.IndexFunc(shares, func(h Share) bool { return h.Item == i })
		if key := fmt.Sprint(shares); shares[at].Count <= left[i] && !seen[key] {
			seen[key] = true
			added += s.bring(pattern{kind: k, shares: shares, cost: cost})
		}
	}
	return added
}

// bring adds a pattern if it lowers the cost, and gives how many were added.
func (s *search) bring(p pattern) int {
	if len(p.shares) == 0 || s.lp.reduced(&p) > -reopens {
		return 0
	}
	s.lp.add(p)
	return 1
}

// heldSteps bounds the search for the best fill of a bin that is divided.
const heldSteps = 60_000

// heldFill is a good fill of a bin that is divided, and a value that none goes beyond: the best
// fill of all, where it is found; else the best of the whole room, as far as it can be divided,
// or part by part.
func (s *search) heldFill(k int, value []float64, count []int) (most float64, shares []Share) {
	kd := &s.kinds[k]
	best, held, exact := s.branchHeld(kd, kd.Room, value, count, heldSteps)
	if exact {
		return best, held
	}
	worth := func(shares []Share) (sum float64) {
		for _, h := range shares {
			sum += value[h.Item] * float64(h.Count)
		}
		return sum
	}
	most, whole := s.knapsack(kd.Room, value, count, pricingSteps)
	inParts, parts := s.inParts(k, value, count)
	most = min(most, inParts)
	for _, fill := range [][]Share{s.divisible(kd, s.add(whole, 0, 0)), parts} {
		if worth(fill) > worth(held) {
			held = fill
		}
	}
	return most, held
}

// inParts fills a bin that is divided, part by part, each with the most of what the parts
// before leave; and gives a value that no fill of it goes beyond: that of parts that take
// nothing from each other.
func (s *search) inParts(k int, value []float64, count []int) (most float64, best []Share) {
	kd := &s.kinds[k]
	alone := map[int64]float64{} // the most that a part of some room holds
	top := -1.0
	for _, w := range kd.Ways {
		bound, worth := 0.0, 0.0
		left := slices.Clone(count)
		var shares []Share
		for _, room := range w.Parts {
			if _, known := alone[room]; !known {
				alone[room], _ = s.knapsack(room, value, count, pricingSteps)
			}
			bound += alone[room]
			_, part := s.knapsack(room, value, left, pricingSteps)
			take(left, part, 1)
			shares = s.together(shares, part)
		}
		shares = s.divisible(kd, shares)
		for _, h := range shares {
			worth += value[h.Item] * float64(h.Count)
		}
		if most = max(most, bound); worth > top {
			top, best = worth, shares
		}
	}
	return most, best
}

// tableOfAll makes the table that serves every kind; nil where it would be too large.
func (s *search) tableOfAll(value []float64, left []int) *table {
	most := int64(0)
	for k := range s.kinds {
		most = max(most, s.kinds[k].Room)
	}
	rows := s.bundles(most, value, left)
	if int64(len(rows))*most > pricingSteps {
		return nil
	}
	return s.tabled(most, value, rows)
}

// safe turns the prices of the moment into whole numbers. With the most that any bin can
// hold at these known exactly, they tell which sets of bins hold too little, however the
// prices were come by.
func (s *search) safe() prices {
	l := s.lp
	top := 0.0
	for i := range s.items {
		top = max(top, l.y[i])
	}
	v := prices{worth: make([]int64, len(s.items)), most: make([]int64, len(s.kinds))}
	if top <= 0 {
		return s.byVolume()
	}
	value := make([]float64, len(s.items))
	for i := range s.items {
		v.worth[i] = int64(math.Floor(max(0, l.y[i]) / top * shades))
		value[i] = float64(v.worth[i])
	}
	left := s.counts()
	for k := range s.kinds {
		var best float64
		if s.kinds[k].Ways != nil {
			best, _ = s.heldFill(k, value, left)
		} else {
			best, _ = s.knapsack(s.kinds[k].Room, value, left, 20*pricingSteps)
		}
		v.most[k] = int64(math.Ceil(best - 1e-3)) // whole numbers below 2^53: exact, unless the search gave up, then above
	}
	return v
}

// bound is the least cost of a set of bins that holds everything, as far as prices tell.
func (s *search) bound(v *prices) int64 {
	total := new(big.Rat)
	for i, it := range s.items {
		total.Add(total, new(big.Rat).SetInt64(v.worth[i]*int64(it.Count)))
	}
	scale := new(big.Rat) // worth for a unit of cost, of the kinds of which there is no end
	for k := range s.charged {
		if kd := &s.kinds[k]; kd.Limit == Endless && kd.Cost > 0 {
			if q := big.NewRat(v.most[k], kd.Cost); q.Cmp(scale) > 0 {
				scale = q
			}
		} else if kd.Limit == Endless {
			return 0
		}
	}
	for k := range s.kinds {
		kd := &s.kinds[k]
		if kd.Limit == Endless {
			continue
		}
		// beyond what its cost is worth, a bin of which there are so many gives this much
		over := new(big.Rat).Mul(scale, new(big.Rat).SetInt64(kd.Cost))
		over.Sub(new(big.Rat).SetInt64(v.most[k]), over)
		if over.Sign() > 0 {
			total.Sub(total, over.Mul(over, new(big.Rat).SetInt64(int64(kd.Limit))))
		}
	}
	if scale.Sign() <= 0 || total.Sign() <= 0 {
		return 0
	}
	q := total.Quo(total, scale)
	b := new(big.Int).Quo(q.Num(), q.Denom())
	if !q.IsInt() {
		b.Add(b, big.NewInt(1))
	}
	return b.Int64()
}
