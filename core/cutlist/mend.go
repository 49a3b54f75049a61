package cutlist

import (
	"cmp"
	"math"
	"slices"

	"sturdyelbow/core/linear"
	"sturdyelbow/core/measure"
)

const (
	mostChanges = 4      // pieces that a mend may change
	mendNodes   = 20_000 // bounds the search, counted in sets of pieces looked at
	mostMends   = 3      // that are offered
)

// mend looks for the fewest pieces that, cut anew, close every loop, and among
// those for the least change. It tries one piece, then two, and so on; each
// further piece comes from the loop that is then farthest open.
func (c *checker) mend(open []measure.Dir) []Mend {
	in := make([][]part, len(c.g.Edges)) // of each piece: the loops it is in
	for i := range c.loops {
		for _, w := range c.loops[i].steps {
			in[w.pipe] = append(in[w.pipe], part{i, c.way(w)})
		}
	}
	for k := 1; k <= mostChanges; k++ {
		m := &mender{c: c, in: in, most: k}
		m.look(nil, open)
		if len(m.found) > 0 {
			return m.best()
		}
		if c.nodes > mendNodes {
			break
		}
	}
	return []Mend{}
}

type part struct {
	loop int
	way  measure.Dir
}

type mender struct {
	c     *checker
	in    [][]part
	most  int
	found []Mend
}

// look goes on from a set of pieces whose changes leave the loops so far open.
func (m *mender) look(set []int, open []measure.Dir) {
	worst := m.worst(open)
	if worst < 0 || len(set) == m.most || m.c.nodes > mendNodes {
		return
	}
	for _, w := range m.c.loops[worst].steps {
		if slices.Contains(set, w.pipe) || math.Abs(m.c.way(w).Dot(open[worst])) < m.c.tolerance()/2 {
			continue
		}
		m.c.nodes++
		next := append(slices.Clone(set), w.pipe)
		// as planned, where that is a change, is the first thing to try; what it
		// leaves open may be the next piece's fault alone
		if by, ok := m.planned(next); ok {
			left := m.after(next, by)
			if m.worst(left) < 0 {
				m.keep(next, by)
				continue
			}
			m.look(next, left)
		}
		by, ok := m.solve(next)
		if !ok {
			continue
		}
		left := m.after(next, by)
		if m.worst(left) < 0 {
			m.keep(next, by)
			continue
		}
		m.look(next, left)
	}
}

func (m *mender) worst(open []measure.Dir) int {
	worst, off := -1, m.c.tolerance()
	for i := range open {
		if v := m.c.size(open[i]); v > off {
			worst, off = i, v
		}
	}
	return worst
}

// after is what is left open when pieces are changed.
func (m *mender) after(set []int, by []measure.Length) []measure.Dir {
	long := slices.Clone(m.c.long)
	for i, p := range set {
		long[p] += by[i]
	}
	return m.c.residuals(long)
}

// solve finds the changes of some pieces that leave the least open, by least
// squares over all loops, on the tape.
func (m *mender) solve(set []int) ([]measure.Length, bool) {
	n := len(set)
	open := m.c.residuals(m.c.long)
	a, right := make([][]float64, n), make([]float64, n)
	for i, p := range set {
		a[i] = make([]float64, n)
		for k, q := range set {
			for _, x := range m.in[p] {
				for _, y := range m.in[q] {
					if x.loop == y.loop {
						a[i][k] += x.way.Dot(y.way)
					}
				}
			}
		}
		for _, x := range m.in[p] {
			right[i] -= x.way.Dot(open[x.loop])
		}
	}
	change, ok := linear.Solve(a, right, 1e-9)
	if !ok {
		return nil, false
	}
	cuts := make([]measure.Length, n)
	for i, p := range set {
		cuts[i] = (m.c.cuts[p] + measure.Length(math.Round(change[i])) + hair).Round(m.c.step)
	}
	return m.by(set, cuts)
}

// planned cuts every piece of a set as planned.
func (m *mender) planned(set []int) ([]measure.Length, bool) {
	cuts := make([]measure.Length, len(set))
	for i, p := range set {
		cuts[i] = m.c.l.Pieces[p].Cut
	}
	return m.by(set, cuts)
}

// by is how much farther apart new cuts put the ends of some pieces; ok is
// false where one of them cannot be cut so, or changes nothing.
func (m *mender) by(set []int, cuts []measure.Length) (by []measure.Length, ok bool) {
	by = make([]measure.Length, len(set))
	for i, p := range set {
		if _, depth, both := m.c.ends(p); cuts[i] <= 0 || both && cuts[i] < depth.Half() {
			return nil, false
		}
		was := m.c.piece(p).Spacing
		old := m.c.cuts[p]
		m.c.cuts[p] = cuts[i]
		by[i] = m.c.piece(p).Spacing - was
		m.c.cuts[p] = old
		if by[i] == 0 {
			return nil, false
		}
	}
	return by, true
}

func (m *mender) keep(set []int, by []measure.Length) {
	var one Mend
	for i, p := range set {
		takeOff, _, _ := m.c.ends(p)
		to := m.c.s.Lengths[p] + m.c.long[p] + by[i] - takeOff
		one.Changes = append(one.Changes, Change{m.c.g.Edges[p].ID, m.c.cuts[p], to.Round(m.c.step)})
		one.By += (to - m.c.cuts[p]).Abs()
	}
	slices.SortFunc(one.Changes, func(x, y Change) int { return cmp.Compare(x.Pipe, y.Pipe) })
	if !slices.ContainsFunc(m.found, func(o Mend) bool { return slices.Equal(o.Changes, one.Changes) }) {
		m.found = append(m.found, one)
	}
}

// best orders the mends: the least change, then the nearest to what was
// planned, then a piece made shorter before one that must be cut anew.
func (m *mender) best() []Mend {
	planned := map[string]measure.Length{}
	for i := range m.c.l.Pieces {
		planned[m.c.l.Pieces[i].Pipe] = m.c.l.Pieces[i].Cut
	}
	off := func(o Mend) (sum measure.Length) {
		for _, ch := range o.Changes {
			sum += (ch.To - planned[ch.Pipe]).Abs()
		}
		return sum
	}
	longer := func(o Mend) (n int) {
		for _, ch := range o.Changes {
			if ch.To > ch.From {
				n++
			}
		}
		return n
	}
	slices.SortStableFunc(m.found, func(x, y Mend) int {
		if d := (x.By - y.By).Abs(); d > m.c.step/2 {
			return cmp.Compare(x.By, y.By)
		}
		return cmp.Or(cmp.Compare(off(x), off(y)), cmp.Compare(longer(x), longer(y)))
	})
	return m.found[:min(mostMends, len(m.found))]
}
