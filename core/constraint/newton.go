package constraint

import (
	"maps"
	"math"
	"slices"

	"sturdyelbow/core/linear"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/together"
)

const (
	newtonRounds = 60
	// close is how near the rules come that are found together, in nanometres.
	closeBy = 200.0
)

// newton places the groups that no rule places by itself: those that several
// decide together. Steps are the smallest that do, so that what nothing decides
// stays where it stood.
func (w *work) newton() {
	var roots []Var
	at := map[Var]int{}
	use := func(v Var) {
		root, _ := w.find(v)
		if _, known := at[root]; root != Zero && !known {
			at[root] = len(roots)
			roots = append(roots, root)
		}
	}
	rows := 0
	for _, r := range w.wait {
		r.each(use)
	}
	// what can be held comes last: the last columns are those found free
	helps := w.helpers()
	slices.SortStableFunc(roots, func(a, b Var) int {
		switch {
		case helps[a] == helps[b]:
			return 0
		case helps[a]:
			return -1
		}
		return 1
	})
	for i, root := range roots {
		at[root] = i
	}
	x := make([]float64, len(roots))
	for i, root := range roots {
		at, ok := w.guess(root)
		x[i] = float64(at)
		if !ok { // apart from the others, so that no distance begins at nothing
			x[i] = float64(i%7+1) * float64(1+i/7) * 0.37 * float64(measure.Inch)
		}
	}
	value := func(x []float64, v Var) float64 {
		root, off := w.find(v)
		if root == Zero {
			return float64(off)
		}
		return x[at[root]] + float64(off)
	}
	into := make([][]int, len(roots)) // the rules that each unknown is in
	first := make([]int, 0, len(w.wait))
	rows = 0
	for i, r := range w.wait {
		first = append(first, rows)
		rows += r.rows()
		r.each(func(v Var) {
			if root, _ := w.find(v); root != Zero {
				if l := into[at[root]]; len(l) == 0 || l[len(l)-1] != i {
					into[at[root]] = append(l, i)
				}
			}
		})
	}
	off := func(x []float64, i int) []float64 {
		return w.wait[i].off(func(v Var) float64 { return value(x, v) })
	}
	residual := func(x []float64) []float64 {
		f := make([]float64, 0, rows)
		for i := range w.wait {
			f = append(f, off(x, i)...)
		}
		return f
	}
	// slopes says how each row changes with each unknown that it has in it
	slopes := func(x, f []float64) [][]float64 {
		slope := make([][]float64, len(f))
		for r := range slope {
			slope[r] = make([]float64, len(x))
		}
		for c := range x {
			was := x[c]
			x[c] += probe
			for _, i := range into[c] {
				for k, v := range off(x, i) {
					slope[first[i]+k][c] = (v - f[first[i]+k]) / probe
				}
			}
			x[c] = was
		}
		return slope
	}
	equations := linear.Newton{Rounds: newtonRounds, Off: residual, Slopes: slopes,
		Step:   func(slope [][]float64, f []float64) ([]float64, bool) { return smallestStep(slope, f), true },
		Near:   func(f []float64) bool { return largest(f) <= closeBy/10 },
		Better: func(was, now []float64, _ float64) bool { return squares(now) < squares(was) },
		Afford: func() bool { return w.s.afford(rows, len(roots)) },
	}
	x, f, slope, how := equations.Solve(x)
	if w.unfinished = how == linear.Stopped; w.unfinished {
		for i, root := range roots {
			w.found[root] = measure.Length(math.Round(x[i]))
		}
		return
	}
	if how == linear.Near {
		slope = slopes(x, f)
	}
	w.judge(f, slope)
	for i, root := range roots {
		w.found[root] = measure.Length(math.Round(x[i]))
	}
	for c, moves := range looseColumns(slope, len(roots)) {
		w.free[roots[c]] = true
		for i, by := range moves {
			if i != c && math.Abs(by) > leastMove && !helps[roots[i]] {
				w.moves[roots[c]] = append(w.moves[roots[c]], roots[i])
			}
		}
	}
}

// MaxWork bounds what one system may cost to solve, in multiplications of Newton's
// method, over all rounds and all sets that are tried: about two seconds. A frame
// of 300 pipes that all slope takes a fifth of it.
const MaxWork = 4_000_000_000

// afford counts a round for so many rules and unknowns against [MaxWork]. It says
// whether there is enough left.
func (s *System) afford(rows, unknowns int) bool {
	less, more := min(rows, unknowns), max(rows, unknowns)
	cost := less * less * (less/3 + more)
	if less > 1_000_000 || s.work+cost > MaxWork {
		return false
	}
	s.work += cost
	return true
}

// rows is how many equations a rule is.
func (r *rule) rows() int {
	if r.kind == toward {
		return 3
	}
	return 1
}

// each shows every coordinate of a rule.
func (r *rule) each(show func(Var)) {
	for _, t := range r.terms {
		show(t.Of)
	}
	n := 0
	switch r.kind {
	case distance:
		n = 2
	case toward:
		n = 3
		show(r.a)
	}
	for _, p := range r.p[:n] {
		for _, v := range p {
			show(v)
		}
	}
}

// leastMove is how far a coordinate moves with one that is free by 1 for it to
// be said to move with it.
const leastMove = 1e-4

// judge says what of the waiting rules is off. Steps share a miss out among all
// rules that take part in it; as one rule would have it alone, the others
// holding, it is the sum of the squares over the largest share, which is what a
// tape would find there. Rules that share no unknown are judged apart.
func (w *work) judge(f []float64, slope [][]float64) {
	type miss struct {
		squares, most float64
		owner         int
	}
	found := map[int]*miss{} // by a row of the rules that hang together
	part := rowsTogether(slope, len(f))
	for k, i := 0, 0; i < len(w.wait); i++ {
		r := w.wait[i]
		n := r.rows()
		by := math.Sqrt(squares(f[k : k+n])) // of a direction: how far beside it, whichever way
		if by > closeBy {
			m := found[part[k]]
			if m == nil {
				m = &miss{owner: Always}
				found[part[k]] = m
			}
			m.squares, m.most, m.owner = m.squares+by*by, max(m.most, by), max(m.owner, r.owner)
		}
		k += n
	}
	for _, k := range slices.Sorted(maps.Keys(found)) {
		m := found[k]
		by := measure.Length(m.squares / m.most)
		if all := hypot(w.missing(m.owner), by); m.owner != Always && all <= w.slack(m.owner) {
			w.miss(m.owner, by)
		} else if w.clash == nil || all > w.clashOff {
			w.clash, w.clashOff, w.coarse = w.everyone(), all, true
		}
	}
}

// rowsTogether numbers rows so that those that share an unknown, by way of
// others too, have the same number.
func rowsTogether(slope [][]float64, n int) []int {
	sets := together.New(n)
	first := map[int]int{} // of each unknown: a row that it is in
	for r := range slope {
		for c, v := range slope[r] {
			if math.Abs(v) < 1e-9 {
				continue
			}
			if o, seen := first[c]; seen {
				sets.Join(r, o, 0)
			} else {
				first[c] = r
			}
		}
	}
	part := make([]int, n)
	for i := range part {
		part[i] = sets.Root(i)
	}
	return part
}

// off is how far the rules of an owner are off where things stand.
func (s *System) off(owner int, at []measure.Length) (off measure.Length) {
	for i := range s.rules {
		r := &s.rules[i]
		switch {
		case r.owner != owner:
		case r.kind == apart:
			off = max(off, (at[r.b] - at[r.a] - r.by).Abs())
		default:
			f := r.off(func(v Var) float64 { return float64(at[v]) })
			off = max(off, measure.Length(math.Sqrt(squares(f))))
		}
	}
	return off
}

// helpers tells the roots of groups of which every coordinate is a helper.
func (w *work) helpers() map[Var]bool {
	all := map[Var]bool{}
	for v := range w.s.vars {
		root, _ := w.find(Var(v))
		helps, seen := all[root]
		all[root] = w.s.helper[Var(v)] && (!seen || helps)
	}
	return all
}

// everyone lists the owners that count.
func (w *work) everyone() (set []int) {
	seen := map[int]bool{}
	for i := range w.s.rules {
		if o := w.s.rules[i].owner; o != Always && w.in(o) && !seen[o] &&
			!slices.ContainsFunc(w.aside, func(c Conflict) bool { return c.Loser == o }) {
			seen[o] = true
			set = append(set, o)
		}
	}
	slices.Sort(set)
	return set
}

// off is by how much a rule is off, with coordinates as at gives them.
func (r *rule) off(at func(Var) float64) []float64 {
	point := func(p Point) [3]float64 { return [3]float64{at(p[0]), at(p[1]), at(p[2])} }
	switch r.kind {
	case sum:
		v := -float64(r.by)
		for _, t := range r.terms {
			v += t.Times * at(t.Of)
		}
		return []float64{v}
	case distance:
		return []float64{apartOf(point(r.p[0]), point(r.p[1])) - float64(r.by)}
	case toward:
		p, q, m := point(r.p[0]), point(r.p[1]), point(r.p[2])
		long := max(1, apartOf(p, q))
		var f []float64
		for a := range 3 {
			f = append(f, m[a]-p[a]-(q[a]-p[a])/long*at(r.a))
		}
		return f
	}
	return nil
}

func apartOf(p, q [3]float64) float64 {
	return math.Sqrt((p[0]-q[0])*(p[0]-q[0]) + (p[1]-q[1])*(p[1]-q[1]) + (p[2]-q[2])*(p[2]-q[2]))
}

// probe is how far a coordinate is moved to see what that does, in nanometres.
const probe = 1000.0

// smallestStep gives the smallest change that undoes f as far as can be.
func smallestStep(slope [][]float64, f []float64) []float64 {
	n := 0
	if len(slope) > 0 {
		n = len(slope[0])
	}
	if len(f) <= n { // slopeᵀ (slope slopeᵀ)⁻¹ f
		m := make([][]float64, len(f))
		for i := range m {
			m[i] = make([]float64, len(f))
			for j := range m[i] {
				m[i][j] = dot(slope[i], slope[j])
			}
			m[i][i] += 1e-9
		}
		y, ok := linear.Solve(m, f, 1e-14)
		step := make([]float64, n)
		if !ok {
			return step
		}
		for c := range step {
			for r := range y {
				step[c] += slope[r][c] * y[r]
			}
		}
		return step
	}
	m, b := make([][]float64, n), make([]float64, n)
	for i := range m {
		m[i] = make([]float64, n)
		for r := range slope {
			b[i] += slope[r][i] * f[r]
			for j := range m[i] {
				m[i][j] += slope[r][i] * slope[r][j]
			}
		}
		m[i][i] += 1e-9
	}
	step, ok := linear.Solve(m, b, 1e-14)
	if !ok {
		return make([]float64, n)
	}
	return step
}

// looseColumns gives the unknowns that the rules leave free, each with how far
// every unknown moves when it moves by 1 and the other free ones stay, by
// elimination.
func looseColumns(slope [][]float64, n int) map[int][]float64 {
	m := make([][]float64, len(slope))
	for i := range m {
		m[i] = slices.Clone(slope[i])
	}
	loose, pivot := map[int][]float64{}, []int{} // the column of each row
	for c := range n {
		row := len(pivot)
		p := -1
		for r := row; r < len(m); r++ {
			if math.Abs(m[r][c]) > 1e-6 && (p < 0 || math.Abs(m[r][c]) > math.Abs(m[p][c])) {
				p = r
			}
		}
		if p < 0 {
			loose[c] = make([]float64, n)
			continue
		}
		m[row], m[p] = m[p], m[row]
		for r := row + 1; r < len(m); r++ {
			k := m[r][c] / m[row][c]
			for j := c; j < n; j++ {
				m[r][j] -= k * m[row][j]
			}
		}
		pivot = append(pivot, c)
	}
	for c, moves := range loose {
		moves[c] = 1
		for row := len(pivot) - 1; row >= 0; row-- {
			sum := 0.0
			for j := pivot[row] + 1; j < n; j++ {
				sum += m[row][j] * moves[j]
			}
			moves[pivot[row]] = -sum / m[row][pivot[row]]
		}
	}
	return loose
}

func dot(a, b []float64) (v float64) {
	for i := range a {
		v += a[i] * b[i]
	}
	return v
}

func largest(f []float64) (v float64) {
	for _, x := range f {
		v = max(v, math.Abs(x))
	}
	return v
}

func squares(f []float64) float64 { return dot(f, f) }
