package stock

import (
	"math"
	"math/big"
)

// relaxed is the linear relaxation over all cutting patterns.
type relaxed struct {
	columns []column
	x       []float64 // of the columns
	price   []float64 // dual price of each item, not negative
	bound   int64     // nothing weighs less: safe, in whole numbers
	worth   []int64   // whole-number prices, and for each kind the most that
	most    []int64   // one stick can hold of them: a cheap test of any set of sticks
}

type column struct {
	kind int // -1 for a surplus or a slack
	take []int
	row  int
}

const (
	pricingNodes = 40_000
	// relaxMost is how many different lengths the relaxation is worked out for:
	// beyond that its table alone would fill the machine, and the bound is by
	// length.
	relaxMost = 1500
	// relaxWork bounds the steps of the relaxation, in multiplications: about a
	// second. An early end leaves a weaker bound, still a safe one.
	relaxWork = 1_500_000_000
	epsilon   = 1e-9
)

// relax solves min Σ weight × x over patterns with Σ take × x ≥ count, and at
// most as many of a finite kind as there are, by revised simplex with column
// generation.
func (in *instance) relax() relaxed {
	if len(in.items)+len(in.kinds)-in.endless > relaxMost {
		return in.byLength()
	}
	m, kinds := len(in.items), len(in.kinds)
	rows := m + kinds - in.endless
	count := in.counts()
	basis := make([]column, rows)
	inv := make([][]float64, rows)
	x := make([]float64, rows)
	cost := make([]float64, rows)
	for i := range rows {
		inv[i] = make([]float64, rows)
		if i >= m {
			inv[i][i], x[i] = 1, float64(in.kinds[in.endless+i-m].count)
			basis[i] = column{kind: -1, row: i}
			continue
		}
		best, fit := 0, 0.0
		for k := range in.endless { // the kind that gives this item cheapest
			q := float64(min(int64(count[i]), in.kinds[k].room/in.items[i].size))
			if q > 0 && (fit == 0 || float64(in.kinds[k].weight)/q < float64(in.kinds[best].weight)/fit) {
				best, fit = k, q
			}
		}
		take := make([]int, m)
		take[i] = int(fit)
		basis[i] = column{kind: best, take: take}
		inv[i][i], x[i], cost[i] = 1/fit, float64(count[i])/fit, float64(in.kinds[best].weight)
	}
	y := make([]float64, rows)
	u := make([]float64, rows)
	looked := in.looked
	for round := range 60 + 12*rows {
		if 4*rows*rows*round+8*(in.looked-looked) > relaxWork || in.stopped() {
			break
		}
		for j := range rows {
			y[j] = 0
			for i := range rows {
				y[j] += cost[i] * inv[i][j]
			}
		}
		enter, reduced, weight := in.price(y, count)
		if reduced > -1e-7 {
			break
		}
		for i := range rows {
			u[i] = 0
			for j := range rows {
				u[i] += inv[i][j] * enter.at(j, m, in.endless)
			}
		}
		out := -1
		for i := range rows {
			if u[i] > epsilon && (out < 0 || x[i]/u[i] < x[out]/u[out]-1e-12) {
				out = i
			}
		}
		if out < 0 {
			break
		}
		step := x[out] / u[out]
		for i := range rows {
			if i == out {
				continue
			}
			x[i] = max(0, x[i]-step*u[i])
			if f := u[i] / u[out]; f != 0 {
				for j := range rows {
					inv[i][j] -= f * inv[out][j]
				}
			}
		}
		for j := range rows {
			inv[out][j] /= u[out]
		}
		x[out], cost[out], basis[out] = step, weight, enter
	}
	r := relaxed{columns: basis, x: x, price: y[:m]}
	for i := range r.price {
		r.price[i] = max(0, r.price[i])
	}
	in.safeBound(&r, count)
	return r
}

// byLength is what stands for the relaxation where it would be too large: each
// length is worth itself, and a stick all that it holds.
func (in *instance) byLength() relaxed {
	r := relaxed{price: make([]float64, len(in.items))}
	for i := range r.price {
		r.price[i] = float64(in.items[i].size)
	}
	in.safeBound(&r, in.counts())
	return r
}

// at is a column's entry in a row.
func (c *column) at(row, items, endless int) float64 {
	switch {
	case c.kind < 0 && c.row == row && row < items:
		return -1 // surplus
	case c.kind < 0 && c.row == row:
		return 1 // slack
	case c.kind < 0:
		return 0
	case row < items:
		return float64(c.take[row])
	case row-items == c.kind-endless:
		return 1
	}
	return 0
}

// price finds the column with the least reduced cost.
func (in *instance) price(y []float64, count []int) (enter column, reduced, weight float64) {
	m := len(in.items)
	for i := range y {
		r := y[i] // a surplus
		if i >= m {
			r = -y[i] // a slack
		}
		if r < reduced {
			enter, reduced, weight = column{kind: -1, row: i}, r, 0
		}
	}
	for k := range in.kinds {
		z, take := in.knapsack(in.kinds[k].room, y[:m], count, pricingNodes)
		r := float64(in.kinds[k].weight) - z
		if k >= in.endless {
			r -= y[m+k-in.endless]
		}
		if r < reduced-epsilon {
			enter, reduced, weight = column{kind: k, take: take}, r, float64(in.kinds[k].weight)
		}
	}
	return enter, reduced, weight
}

// safeBound turns the prices into whole numbers and derives a bound that no
// rounding of the simplex can spoil (Farley, 1990): with the most any stick
// can hold at these prices known exactly, scaled prices are feasible in the
// dual, and so what they give all demand together is a lower bound.
func (in *instance) safeBound(r *relaxed, count []int) {
	top := 0.0
	for _, p := range r.price {
		top = max(top, p)
	}
	r.worth, r.most = make([]int64, len(r.price)), make([]int64, len(in.kinds))
	if top == 0 {
		return
	}
	value := make([]float64, len(r.price))
	for i, p := range r.price {
		r.worth[i] = int64(math.Floor(p / top * 1e6))
		value[i] = float64(r.worth[i])
	}
	for k := range in.kinds {
		z, _ := in.knapsack(in.kinds[k].room, value, count, 50*pricingNodes)
		r.most[k] = int64(math.Ceil(z - 1e-6)) // whole numbers below 2^53: exact unless the search gave up, then above
	}
	total := new(big.Rat)
	for i, n := range count {
		total.Add(total, new(big.Rat).SetInt64(r.worth[i]*int64(n)))
	}
	scale := new(big.Rat)
	for k := range in.endless {
		if q := big.NewRat(r.most[k], in.kinds[k].weight); q.Cmp(scale) > 0 {
			scale = q
		}
	}
	for k := in.endless; k < len(in.kinds); k++ {
		total.Sub(total, new(big.Rat).SetInt64(r.most[k]*int64(in.kinds[k].count)))
	}
	if scale.Sign() <= 0 || total.Sign() <= 0 {
		return
	}
	q := total.Quo(total, scale)
	b := new(big.Int).Quo(q.Num(), q.Denom())
	r.bound = b.Int64()
	if !q.IsInt() {
		r.bound++
	}
}
