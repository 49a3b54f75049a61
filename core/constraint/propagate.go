package constraint

import (
	"math"
	"slices"

	"sturdyelbow/core/measure"
)

// propagate lets each waiting rule place what it can until none can any more.
func (w *work) propagate() {
	for again := true; again && w.clash == nil; {
		again = false
		var rest []*rule
		for i, r := range w.wait {
			switch done, moved := w.try(r); {
			case w.clash != nil:
				return
			case !done:
				rest = append(rest, w.wait[i])
			default:
				again = again || moved
			}
		}
		w.wait = append(rest, w.more...)
		w.more = nil
	}
}

// try places what a rule decides by itself. done says that it is used up.
func (w *work) try(r *rule) (done, moved bool) {
	switch r.kind {
	case sum:
		return w.trySum(r)
	case distance:
		return w.tryDistance(r)
	}
	return w.tryToward(r)
}

// groups gathers a sum by the roots of its coordinates.
func (w *work) groups(r *rule) (roots []Var, times []float64, rest float64) {
	rest = float64(r.by)
	for _, t := range r.terms {
		root, off := w.find(t.Of)
		rest -= t.Times * float64(off)
		if root == Zero {
			continue
		}
		if i := slices.Index(roots, root); i >= 0 {
			times[i] += t.Times
		} else {
			roots, times = append(roots, root), append(times, t.Times)
		}
	}
	for i := 0; i < len(roots); {
		if math.Abs(times[i]) < 1e-9 {
			roots, times = slices.Delete(roots, i, i+1), slices.Delete(times, i, i+1)
		} else {
			i++
		}
	}
	return roots, times, rest
}

// rootsOf gives the group that each coordinate of a sum is in.
func (w *work) rootsOf(r *rule) []Var {
	roots := make([]Var, len(r.terms))
	for i, t := range r.terms {
		roots[i], _ = w.find(t.Of)
	}
	return roots
}

// why gives the owners that tie the coordinates of a sum to each other, or to
// Zero, as they were when they were in the groups given, by what was joined
// before.
func (w *work) why(r *rule, roots []Var, before int) []int {
	var set []int
	if r.owner != Always {
		set = []int{r.owner}
	}
	first := map[Var]Var{}
	lone := map[Var]float64{}
	for i, t := range r.terms {
		lone[roots[i]] += t.Times
	}
	for i, t := range r.terms {
		root := roots[i]
		if root == Zero && math.Abs(lone[root]) > 1e-9 {
			set = union(set, w.explainBy(Zero, t.Of, before))
			continue
		}
		if f, ok := first[root]; ok {
			set = union(set, w.explainBy(f, t.Of, before))
		} else {
			first[root] = t.Of
		}
	}
	return set
}

func (w *work) trySum(r *rule) (done, moved bool) {
	roots, times, rest := w.groups(r)
	switch {
	case len(roots) == 0:
		w.check(r.owner, measure.Length(math.Round(rest)), func() []int { return w.why(r, w.rootsOf(r), w.joined) })
		return true, false
	case len(roots) == 1:
		v, off := w.named(r, roots[0])
		w.apart(Zero, v, measure.Length(math.Round(rest/times[0]))+off, Always, &decided{rule: r, roots: w.rootsOf(r)})
		return true, true
	case len(roots) == 2 && math.Abs(times[0]+times[1]) < 1e-9:
		v, off := w.named(r, roots[0])
		u, from := w.named(r, roots[1])
		w.apart(u, v, measure.Length(math.Round(rest/times[0]))+off-from, Always, &decided{rule: r, roots: w.rootsOf(r)})
		return true, true
	}
	return false, false
}

// named gives the coordinate of a group that a sum names, and how far it stands
// beyond the group's root. What the sum decides is tied to that one: a way to
// another one of the group goes on by what ties the two.
func (w *work) named(r *rule, root Var) (Var, measure.Length) {
	for _, t := range r.terms {
		if at, off := w.find(t.Of); at == root {
			return t.Of, off
		}
	}
	return root, 0
}

// across gives how far q is from p along each axis, where that is known, and
// the axes where it is not.
func (w *work) across(p, q Point) (d [3]measure.Length, unknown []int) {
	for a := range 3 {
		v, tied := w.between(p[a], q[a])
		if !tied {
			unknown = append(unknown, a)
		}
		d[a] = v
	}
	return d, unknown
}

// whyPoint gives the owners that tie two points along some axes, with the one
// who says how far apart they are.
func (w *work) whyPoint(owner int, p, q Point, axes []int, before int) []int {
	var set []int
	if owner != Always {
		set = []int{owner}
	}
	for _, a := range axes {
		set = union(set, w.explainBy(p[a], q[a], before))
	}
	return set
}

// known are the axes that are not among the unknown ones.
func known(unknown []int) (axes []int) {
	for a := range 3 {
		if !slices.Contains(unknown, a) {
			axes = append(axes, a)
		}
	}
	return axes
}

func (w *work) tryDistance(r *rule) (done, moved bool) {
	p, q := r.p[0], r.p[1]
	d, unknown := w.across(p, q)
	switch len(unknown) {
	case 0:
		off := r.by - measure.Point{}.Distance(measure.Point(d))
		w.check(r.owner, off, func() []int { return w.whyPoint(r.owner, p, q, known(unknown), w.joined) })
		return true, false
	case 1:
		a := unknown[0]
		var squared float64
		for b := range 3 {
			if b != a {
				squared += float64(d[b]) * float64(d[b])
			}
		}
		far := float64(r.by)
		if left := far*far - squared; left >= 0 {
			by := math.Sqrt(left)
			if w.guessed(q[a])-w.guessed(p[a]) < 0 {
				by = -by
			}
			w.apart(p[a], q[a], measure.Length(math.Round(by)), Always, &decided{rule: r, axes: known(unknown)})
			return true, true
		}
		w.clash, w.coarse = w.whyPoint(r.owner, p, q, known(unknown), w.joined), true
		w.clashOff = r.by - measure.Length(math.Sqrt(squared))
		return true, false
	}
	return false, false
}

// tryToward turns into sums once the way is known.
func (w *work) tryToward(r *rule) (done, moved bool) {
	p, q, m := r.p[0], r.p[1], r.p[2]
	d, unknown := w.across(p, q)
	if len(unknown) > 0 {
		return false, false
	}
	u := measure.Point{}.Toward(measure.Point(d))
	for a := range 3 {
		line := &rule{kind: sum, owner: r.owner, terms: []Term{{m[a], 1}, {p[a], -1}}}
		if math.Abs(u[a]) > 1e-12 {
			line.terms = append(line.terms, Term{r.a, -u[a]})
		}
		w.more = append(w.more, line)
	}
	return true, true
}
