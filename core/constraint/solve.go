package constraint

import (
	"math"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/together"
)

// exact is the distance within which a rule counts as satisfied: one micrometre, the
// rounding error that whole nanometres leave after several steps.
const exact = measure.Micrometre

// Solve computes all coordinates. without names owners whose rules are not applied,
// because they gave way before. Where rules contradict each other, the last owner
// of a smallest contradictory set is left out and the set is reported; this is
// repeated until the rest can be satisfied.
func (s *System) Solve(without []int) *Result {
	out := map[int]bool{}
	for _, o := range without {
		out[o] = true
	}
	var conflicts []Conflict
	found := map[int]bool{} // losers of sets that several rules decide together
	for {
		w := s.run(func(o int) bool { return o == Always || !out[o] })
		conflicts = append(conflicts, w.aside...)
		for _, c := range w.aside {
			out[c.Loser] = true
		}
		if w.clash == nil {
			r := w.result()
			for i := range conflicts {
				if found[conflicts[i].Loser] { // with all that gave way out, it is off by
					conflicts[i].Off = s.off(conflicts[i].Loser, r.At)
				}
			}
			slices.SortStableFunc(conflicts, func(a, b Conflict) int { return a.Loser - b.Loser })
			r.Conflicts = conflicts
			return r
		}
		set := w.clash
		if w.coarse {
			set = s.smallest(set)
		}
		c := Conflict{Owners: set, Off: w.clashOff}
		if len(set) == 0 { // only what cannot give way: nothing to choose
			c.Loser = Always
			r := w.result()
			r.Conflicts = append(conflicts, c)
			return r
		}
		c.Loser = set[len(set)-1]
		out[c.Loser], found[c.Loser] = true, true
		conflicts = append(conflicts, c)
	}
}

// smallest reduces a contradictory set of owners to one from which none can be left
// out. It costs a run for each owner that is tried, and stops at [MaxWork].
func (s *System) smallest(set []int) []int {
	fails := func(set []int) bool {
		in := map[int]bool{}
		for _, o := range set {
			in[o] = true
		}
		w := s.run(func(o int) bool { return o == Always || in[o] })
		return w.clash != nil || len(w.aside) > 0
	}
	set = slices.Clone(set)
	for size := max(1, len(set)/4); size > 0; size /= 2 {
		for i := 0; i < len(set) && s.work < MaxWork; {
			rest := slices.Concat(set[:i], set[min(len(set), i+size):])
			if fails(rest) {
				set = rest
			} else {
				i += size
			}
		}
	}
	return set
}

// work is one run over the rules.
type work struct {
	s      *System
	sets   *together.Sets // coordinates whose differences are known
	edges  []edge
	ends   [][2]int32 // of each coordinate: its first edge and its last, counted from 1; 0: none
	joined int        // how many edges there are
	missed []Residual
	aside  []Conflict // owners that gave way before any of their rules counted
	wait   []*rule
	more   []*rule                // that others turned into
	free   map[Var]bool           // roots that Newton's method left free
	moves  map[Var][]Var          // the roots that move with each of them
	found  map[Var]measure.Length // roots it placed, from Zero
	in     func(owner int) bool

	clash    []int // owners that cannot hold together
	clashOff measure.Length
	coarse   bool // clash may hold more than the smallest set

	unfinished bool // finding the rest would cost more than [MaxWork]
}

// edge joins two coordinates of one group, with those who say so: the owner of
// a difference, or the rule that decided it from others.
type edge struct {
	to      Var
	owner   int
	decided *decided
	no      int   // in the order in which they were joined
	next    int32 // the next edge of the same coordinate, counted from 1
}

// decided is a difference that a rule among more coordinates decided, when so
// much was known. Who says so is worked out when somebody asks, and once.
type decided struct {
	rule   *rule
	roots  []Var // of a sum: the group that each of its terms was in then
	axes   []int // of a distance: those along which it was known
	owners []int
	asked  bool
}

func (s *System) run(in func(owner int) bool) *work {
	w := &work{s: s, in: in, found: map[Var]measure.Length{}, free: map[Var]bool{}, moves: map[Var][]Var{}}
	w.sets, w.ends = together.New(s.vars), make([][2]int32, s.vars)
	w.edges = make([]edge, 0, 2*len(s.rules))
	order := make([]int, len(s.rules))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return s.rules[a].owner - s.rules[b].owner })
	for i := 0; i < len(order); {
		k := i
		for k < len(order) && s.rules[order[k]].owner == s.rules[order[i]].owner {
			k++
		}
		if in(s.rules[order[i]].owner) {
			w.owner(order[i:k])
		}
		i = k
	}
	w.propagate()
	if w.clash == nil && len(w.wait) > 0 {
		w.newton()
	}
	return w
}

// owner adds all rules of one owner, or none of them where one contradicts rules of
// owners before it, or several do together.
func (w *work) owner(rules []int) {
	var all measure.Length
	var set []int
	for _, i := range rules {
		r := &w.s.rules[i]
		if r.kind != apart {
			continue
		}
		d, tied := w.between(r.a, r.b)
		off := r.by - d
		if !tied || off.Abs() <= exact {
			continue
		}
		why := w.explain(r.a, r.b)
		if off.Abs() <= w.slack(r.owner) {
			all, set = hypot(all, off), union(set, why)
			off, why = all, set
		}
		if off.Abs() > w.slack(r.owner) {
			if r.owner != Always {
				why = with(why, r.owner)
			}
			w.aside = append(w.aside, Conflict{Loser: r.owner, Owners: why, Off: off})
			return
		}
	}
	for _, i := range rules {
		r := &w.s.rules[i]
		if r.kind != apart {
			w.wait = append(w.wait, r)
			continue
		}
		w.apart(r.a, r.b, r.by, r.owner, nil)
	}
}

// check says what it means that a rule is off where everything that it names stands: nothing, little enough to be told, or a
// contradiction, with the owners that why gives. What the rules of one owner miss, they miss together.
func (w *work) check(owner int, off measure.Length, why func() []int) {
	all := hypot(w.missing(owner), off)
	switch {
	case off.Abs() <= exact:
	case all.Abs() <= w.slack(owner):
		w.miss(owner, off)
	default:
		w.clashOff, w.coarse = all, true
		if w.clash = why(); all != off { // what its other rules miss has reasons of its own
			w.clash = w.everyone()
		}
	}
}

// miss takes down that an owner's rules are off by so much more.
func (w *work) miss(owner int, off measure.Length) {
	if i := slices.IndexFunc(w.missed, func(m Residual) bool { return m.Owner == owner }); i >= 0 {
		w.missed[i].By = hypot(w.missed[i].By, off)
		return
	}
	w.missed = append(w.missed, Residual{owner, off})
}

// missing is how far an owner's rules are off so far.
func (w *work) missing(owner int) measure.Length {
	for _, m := range w.missed {
		if m.Owner == owner {
			return m.By
		}
	}
	return 0
}

// hypot is how far off is what is off by so much one way and by so much across it, as a direction is on both sides. One alone
// keeps its sign.
func hypot(a, b measure.Length) measure.Length {
	if a == 0 || b == 0 {
		return a + b
	}
	return measure.Length(math.Round(math.Hypot(float64(a), float64(b))))
}

func (w *work) slack(owner int) measure.Length {
	if owner == Always {
		return exact
	}
	return max(exact, w.s.Slack)
}

// find gives the root of a coordinate's group and how far beyond it it stands.
func (w *work) find(v Var) (Var, measure.Length) {
	root, off := w.sets.Find(int(v))
	return Var(root), off
}

// between gives how far b stands beyond a, where they move together.
func (w *work) between(a, b Var) (measure.Length, bool) {
	return w.sets.Between(int(a), int(b))
}

// apart records the difference of two coordinates, which an owner stated or a rule
// decided. One that is known already is recorded too: it may be a shorter
// explanation of a contradiction.
func (w *work) apart(a, b Var, by measure.Length, owner int, d *decided) {
	known, tied := w.between(a, b)
	if tied {
		if d0 := by - known; d0.Abs() <= exact {
			w.join(a, b, owner, d)
		} else if owner != Always {
			w.miss(owner, d0)
		}
		return
	}
	w.join(a, b, owner, d)
	w.sets.Join(int(a), int(b), by)
}

func (w *work) join(a, b Var, owner int, d *decided) {
	for _, way := range [][2]Var{{a, b}, {b, a}} {
		w.edges = append(w.edges, edge{way[1], owner, d, w.joined, 0})
		ends, at := &w.ends[way[0]], int32(len(w.edges))
		if ends[0] == 0 {
			ends[0] = at
		} else {
			w.edges[ends[1]-1].next = at
		}
		ends[1] = at
	}
	w.joined++
}

// explain gives the owners along the shortest way between two coordinates that
// move together.
func (w *work) explain(a, b Var) []int { return w.explainBy(a, b, w.joined) }

// explainBy is the same by what was joined before.
func (w *work) explainBy(a, b Var, before int) []int {
	type step struct {
		from Var
		e    *edge
	}
	reachedBy := make([]step, len(w.ends)) // without an edge where it has not been
	queue := []Var{a}
	for i := 0; i < len(queue) && reachedBy[b].e == nil && a != b; i++ {
		v := queue[i]
		for k := w.ends[v][0]; k > 0; k = w.edges[k-1].next {
			if e := &w.edges[k-1]; e.no < before && e.to != a && reachedBy[e.to].e == nil {
				reachedBy[e.to] = step{v, e}
				queue = append(queue, e.to)
			}
		}
	}
	var set []int
	for v := b; v != a && reachedBy[v].e != nil; v = reachedBy[v].from {
		e := reachedBy[v].e
		if e.owner != Always {
			set = append(set, e.owner)
		}
		if e.decided != nil {
			set = append(set, w.whoDecided(e.decided, e.no)...)
		}
	}
	slices.Sort(set)
	return slices.Compact(set)
}

// whoDecided gives the owners by whom a rule decided a difference, by what was
// joined before that.
func (w *work) whoDecided(d *decided, before int) []int {
	if !d.asked {
		d.asked = true
		if d.rule.kind == distance {
			d.owners = w.whyPoint(d.rule.owner, d.rule.p[0], d.rule.p[1], d.axes, before)
		} else {
			d.owners = w.why(d.rule, d.roots, before)
		}
	}
	return d.owners
}

// with adds an owner to a sorted set.
func with(set []int, owner int) []int {
	i, there := slices.BinarySearch(set, owner)
	if there {
		return set
	}
	return slices.Insert(slices.Clone(set), i, owner)
}

func union(a, b []int) []int {
	for _, o := range b {
		a = with(a, o)
	}
	return a
}

// guessed is where a coordinate is taken to stand before it is known.
func (w *work) guessed(v Var) measure.Length {
	at, _ := w.guess(v)
	return at
}

// guess is the same, and whether anything was guessed of it or known.
func (w *work) guess(v Var) (measure.Length, bool) {
	if g, ok := w.s.guesses()[v]; ok {
		return g, true
	}
	root, off := w.find(v)
	if root == Zero {
		return off, true
	}
	for u := range w.s.vars {
		if g, ok := w.s.guesses()[Var(u)]; ok {
			if r, o := w.find(Var(u)); r == root {
				return g - o + off, true
			}
		}
	}
	return off, false
}

func (w *work) result() *Result {
	n := w.s.vars
	r := &Result{At: make([]measure.Length, n), Off: w.missed, Together: make([]int, n), Unfinished: w.unfinished, Work: w.s.work}
	groups := map[Var][]Var{}
	all := map[Var][]Var{} // the coordinates of every root
	var roots []Var
	for v := range Var(n) {
		root, off := w.find(v)
		r.Together[v] = int(root)
		all[root] = append(all[root], v)
		switch f, placed := w.found[root]; {
		case root == Zero:
			r.At[v] = off
		case placed:
			r.At[v] = f + off
		default:
			r.At[v] = w.rootGuess(root) + off
		}
		if root != Zero && (!hasKey(w.found, root) || w.free[root]) {
			if groups[root] == nil {
				roots = append(roots, root)
			}
			groups[root] = append(groups[root], v)
		}
	}
	for _, root := range roots {
		group := groups[root]
		for _, o := range w.moves[root] {
			group = append(group, all[o]...)
		}
		r.Free = append(r.Free, group)
	}
	return r
}

func (w *work) rootGuess(root Var) measure.Length {
	if at, ok := w.found[root]; ok {
		return at
	}
	at := w.guessed(root)
	w.found[root], w.free[root] = at, true
	return at
}

func hasKey[K comparable, V any](m map[K]V, k K) bool {
	_, ok := m[k]
	return ok
}

// SolveLinear finds where everything stands by the rules between coordinates
// alone, without distances: a first guess.
func (s *System) SolveLinear() *Result {
	plain := *s
	plain.rules = slices.DeleteFunc(slices.Clone(s.rules), func(r rule) bool { return r.kind == distance || r.kind == toward })
	return plain.Solve(nil)
}
