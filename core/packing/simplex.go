package packing

import (
	"math"
)

// pattern is one way to fill a bin of a kind.
type pattern struct {
	kind   int
	shares []Share
	cost   float64
	off    float64 // by how much it is cheaper for the moment
	banned bool
}

// master is the linear program that chooses patterns: the least cost so that every item is
// placed as often as it is asked for, from no more bins of each kind than there are. It is
// solved by the revised simplex method with an explicit inverse of the basis; rows are the
// items and then the kinds. An item that no pattern places yet is placed by an artificial
// column of a high cost.
type master struct {
	items, rows int
	want        []float64 // how often each item, and how many of each kind
	patterns    []pattern
	basis       []int // what is in each row: a pattern, or ^row for a slack, or ^(rows+item) for an artificial
	at          []int // of each pattern: its row in the basis, or -1
	inv         []float64
	x           []float64 // of the basis
	y           []float64 // the price of each row
	u           []float64
	penalty     []float64 // of each item's artificial
	inside      []bool    // of each slack, and then of each artificial: it is in the basis
	pivots      int
	steps       int64
}

const (
	epsilon  = 1e-9
	reopens  = 1e-7 // what a reduced cost must be below nought by
	refresh  = 200  // pivots, after which the inverse is worked out anew
	stalling = 40   // pivots without progress, after which Bland's rule is used
)

func newMaster(items, kinds int, penalty []float64) *master {
	n := items + kinds
	l := &master{items: items, rows: n, want: make([]float64, n), basis: make([]int, n), inv: make([]float64, n*n),
		x: make([]float64, n), y: make([]float64, n), u: make([]float64, n), penalty: penalty, inside: make([]bool, n+items)}
	for r := range n {
		l.inv[r*n+r] = 1
		if l.basis[r] = ^r; r < items {
			l.basis[r] = ^(n + r)
			l.y[r] = penalty[r]
		}
		l.mark(l.basis[r], r)
	}
	return l
}

func (l *master) add(p pattern) {
	l.patterns = append(l.patterns, p)
	l.at = append(l.at, -1)
}

func (l *master) cost(b int) float64 {
	switch {
	case b >= 0:
		return l.patterns[b].cost
	case ^b >= l.rows:
		return l.penalty[^b-l.rows]
	}
	return 0
}

// reduced is what a pattern would save, at the prices of the moment, if it is below nought.
func (l *master) reduced(p *pattern) float64 {
	r := p.cost - l.y[l.items+p.kind]
	for _, h := range p.shares {
		r -= l.y[h.Item] * float64(h.Count)
	}
	return r
}

// slackReduced is the same for the slack of a row.
func (l *master) slackReduced(row int) float64 {
	if row < l.items {
		return l.y[row] // more of an item than is asked for
	}
	return -l.y[row]
}

// column works out what a column is in terms of the basis.
func (l *master) column(b int) {
	n := l.rows
	clear(l.u)
	entry := func(row int, v float64) {
		for i := range n {
			l.u[i] += l.inv[i*n+row] * v
		}
	}
	switch {
	case b >= 0:
		p := &l.patterns[b]
		for _, h := range p.shares {
			entry(h.Item, float64(h.Count))
		}
		entry(l.items+p.kind, 1)
		l.steps += int64(n * (len(p.shares) + 1))
	case ^b >= n:
		entry(^b-n, 1)
	case ^b < l.items:
		entry(^b, -1)
	default:
		entry(^b, 1)
	}
}

// pivot brings a column, which [master.column] has worked out, into a row of the basis.
func (l *master) pivot(row, enter int, reduced float64) {
	n := l.rows
	l.mark(l.basis[row], -1)
	l.mark(enter, row)
	l.basis[row] = enter
	r := l.inv[row*n : (row+1)*n]
	f := 1 / l.u[row]
	for j := range r {
		r[j] *= f
	}
	x := l.x[row] * f
	for i := range n {
		v := l.u[i]
		if i == row || math.Abs(v) < 1e-12 {
			continue
		}
		to := l.inv[i*n : (i+1)*n]
		for j, w := range r {
			to[j] -= v * w
		}
		l.x[i] -= v * x
		l.steps += int64(n)
	}
	l.x[row] = x
	for j, w := range r {
		l.y[j] += reduced * w
	}
	if l.pivots++; l.pivots%refresh == 0 {
		l.renew()
	}
}

// renew works the inverse of the basis out anew, which ends the sum of many roundings.
func (l *master) renew() {
	n := l.rows
	a := make([]float64, n*n) // the basis, which is turned into the identity
	for c, b := range l.basis {
		switch {
		case b >= 0:
			for _, h := range l.patterns[b].shares {
				a[h.Item*n+c] = float64(h.Count)
			}
			a[(l.items+l.patterns[b].kind)*n+c] = 1
		case ^b >= n:
			a[(^b-n)*n+c] = 1
		case ^b < l.items:
			a[^b*n+c] = -1
		default:
			a[^b*n+c] = 1
		}
	}
	inv := make([]float64, n*n)
	for r := range n {
		inv[r*n+r] = 1
	}
	for c := range n {
		best := c
		for r := c; r < n; r++ {
			if math.Abs(a[r*n+c]) > math.Abs(a[best*n+c]) {
				best = r
			}
		}
		if math.Abs(a[best*n+c]) < 1e-11 {
			return // the old one is all there is
		}
		if best != c {
			swap(a, n, best, c)
			swap(inv, n, best, c)
		}
		f := 1 / a[c*n+c]
		ra, ri := a[c*n:(c+1)*n], inv[c*n:(c+1)*n]
		for j := range n {
			ra[j] *= f
			ri[j] *= f
		}
		for r := range n {
			if v := a[r*n+c]; r != c && v != 0 {
				ta, ti := a[r*n:(r+1)*n], inv[r*n:(r+1)*n]
				for j := c; j < n; j++ {
					ta[j] -= v * ra[j]
				}
				for j := range n {
					ti[j] -= v * ri[j]
				}
				l.steps += int64(n)
			}
		}
	}
	l.inv = inv
	l.settle()
}

func swap(a []float64, n, r, s int) {
	for j := range n {
		a[r*n+j], a[s*n+j] = a[s*n+j], a[r*n+j]
	}
}

// settle works out what the basis holds and what the rows cost.
func (l *master) settle() {
	n := l.rows
	clear(l.y)
	for i := range n {
		row := l.inv[i*n : (i+1)*n]
		sum := 0.0
		for j, w := range row {
			sum += w * l.want[j]
		}
		l.x[i] = sum
		if c := l.cost(l.basis[i]); c != 0 {
			for j, w := range row {
				l.y[j] += c * w
			}
		}
	}
	l.steps += int64(2 * n * n)
}

// ask sets what is wanted, without a step of the method: prices stay as they are.
func (l *master) ask(left, avail []int) {
	for i, n := range left {
		l.want[i] = float64(n)
	}
	for k, n := range avail {
		l.want[l.items+k] = float64(n)
	}
	n := l.rows
	for i := range n {
		sum := 0.0
		for j, w := range l.inv[i*n : (i+1)*n] {
			sum += w * l.want[j]
		}
		l.x[i] = sum
	}
	l.steps += int64(n * n)
}

// primal brings columns into the basis as long as one of those that are there lowers the
// cost. What the basis holds must not be negative.
func (l *master) primal() {
	stalled := 0
	for range 60 + 40*l.rows {
		enter, least := 0, -reopens
		found := false
		bland := stalled > stalling
		for p := range l.patterns {
			if l.at[p] >= 0 || l.patterns[p].banned || bland && found {
				continue
			}
			if r := l.reduced(&l.patterns[p]); r < least {
				enter, least, found = p, r, true
			}
		}
		l.steps += int64(4 * len(l.patterns))
		if !bland || !found {
			for row := range l.rows {
				if r := l.slackReduced(row); r < least && !l.inside[row] {
					enter, least, found = ^row, r, true
				}
			}
		}
		if !found {
			return
		}
		l.column(enter)
		row, most := -1, math.Inf(1)
		for i, v := range l.u {
			if v > epsilon {
				q := max(0, l.x[i]) / v
				if q < most-1e-12 || q < most+1e-12 && row >= 0 && v > l.u[row] {
					row, most = i, min(q, most)
				}
			}
		}
		if row < 0 {
			return // without end: the prices are wrong; a later renewal mends them
		}
		if most*-least < 1e-10 {
			stalled++
		} else {
			stalled = 0
		}
		l.pivot(row, enter, least)
	}
}

// mark notes in which row of the basis a column is, -1 for none.
func (l *master) mark(b, row int) {
	if b >= 0 {
		l.at[b] = row
	} else {
		l.inside[^b] = row >= 0
	}
}

// dual mends a basis that holds less than nothing of something, while no column lowers the
// cost.
func (l *master) dual() {
	n := l.rows
	for range 60 + 20*n {
		row, least := -1, -1e-7
		for i, v := range l.x {
			if v < least {
				row, least = i, v
			}
		}
		if row < 0 {
			return
		}
		r := l.inv[row*n : (row+1)*n]
		enter, best, reduced := 0, math.Inf(1), 0.0
		found, strongest := false, 0.0
		try := func(b int, alpha, cost float64) {
			if alpha > -1e-8 {
				return
			}
			cost = max(0, cost)
			if q := cost / -alpha; q < best-1e-10 || q < best+1e-10 && -alpha > strongest {
				enter, best, reduced, found, strongest = b, min(best, q), cost, true, -alpha
			}
		}
		for p := range l.patterns {
			if l.at[p] >= 0 || l.patterns[p].banned {
				continue
			}
			alpha := r[l.items+l.patterns[p].kind]
			for _, h := range l.patterns[p].shares {
				alpha += r[h.Item] * float64(h.Count)
			}
			if alpha < -1e-8 {
				try(p, alpha, l.reduced(&l.patterns[p]))
			}
		}
		l.steps += int64(6 * len(l.patterns))
		for i := range n {
			sign := 1.0
			if i < l.items {
				sign = -1
				if !l.inside[n+i] {
					try(^(n + i), r[i], l.penalty[i]-l.y[i])
				}
			}
			if !l.inside[i] {
				try(^i, sign*r[i], l.slackReduced(i))
			}
		}
		if !found {
			return
		}
		l.column(enter)
		if math.Abs(l.u[row]) < 1e-9 {
			return
		}
		l.pivot(row, enter, reduced)
	}
}

// missing is how much of the items is placed by artificial columns only.
func (l *master) missing() (sum float64) {
	for i, b := range l.basis {
		if b < 0 && ^b >= l.rows || b >= 0 && l.patterns[b].banned {
			sum += max(0, l.x[i])
		}
	}
	return sum
}
