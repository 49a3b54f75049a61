package layout

import (
	"cmp"
	"math"
	"slices"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// equations are the rules between coordinates that a frame states, in a
// [constraint.System]. Scopes that are turned against each other by quarter turns
// share one set of axes; a scope turned by another angle has a set of its own.
type equations struct {
	g       *frame.Graph
	sys     *constraint.System
	bases   []frame.Orient // of each set of axes, to the world's
	axesOf  []int          // scope → its set of axes
	turn    []frame.Orient // scope → from its own axes to those
	nodes   map[[2]int]constraint.Point
	planes  map[planeKey]constraint.Var
	slopes  map[int]constraint.Var // pipe, or reason from the end of the list: how long it is
	owners  []Party
	number  map[string]int // of an owner
	without []int
	level   []constraint.Var // union-find of what is level for a reason
	on      map[constraint.Var][]int
	found   *constraint.Result
	lines   map[[2]int]lineOf // the way between two joints that a reason gives
}

type planeKey struct {
	scope int
	axis  int
	id    string
}

type lineOf struct {
	long constraint.Var
	sign float64
	axis int // of its set of axes that it runs along; -1: a slope
	axes int // the set, which may be another one than that of a size's own scope
}

// Party is something that can give way to others: a size, the direction of a pipe, a
// reason, or the place of an instance of a group.
type Party struct {
	Kind  string `json:"kind"`  // size, pipe, reason or use
	ID    string `json:"id"`    // in its definition
	Group string `json:"group"` // "" for the frame itself
	rank  int
	gave  bool
	key   string
}

func (q *equations) begin() {
	q.sys = constraint.New()
	q.sys.Slack = TapeStep
	q.nodes, q.planes, q.slopes = map[[2]int]constraint.Point{}, map[planeKey]constraint.Var{}, map[int]constraint.Var{}
	q.number, q.lines = map[string]int{}, map[[2]int]lineOf{}
	for _, sc := range q.g.Scopes {
		at := -1
		for i, b := range q.bases {
			if square(b.Back().Times(sc.Orient)) {
				at = i
				break
			}
		}
		if at < 0 {
			at = len(q.bases)
			q.bases = append(q.bases, sc.Orient)
		}
		q.axesOf = append(q.axesOf, at)
		q.turn = append(q.turn, q.bases[at].Back().Times(sc.Orient))
	}
	q.listParties()
}

// square says whether a rotation consists of quarter turns.
func square(o frame.Orient) bool {
	for i := range o {
		for _, v := range o[i] {
			if math.Abs(v) > 1e-9 && math.Abs(v) < 1-1e-9 {
				return false
			}
		}
	}
	return true
}

// listParties lists everything that can give way in the order of precedence: by rank,
// then instances, reasons, pipes, sizes.
func (q *equations) listParties() {
	order := map[string]int{"use": 0, "reason": 1, "pipe": 2, "size": 3}
	add := func(kind, group, id string, rank int, gave bool) {
		p := Party{Kind: kind, ID: id, Group: group, rank: rank, gave: gave}
		p.key = kind + " " + group + " " + id
		if kind == "size" {
			p.key = "size " + id
		}
		if _, twice := q.number[p.key]; !twice {
			q.number[p.key] = len(q.owners)
			q.owners = append(q.owners, p)
		}
	}
	for _, h := range q.g.Holds {
		add("use", h.Of, h.Use, h.Rank, false)
	}
	for _, t := range q.g.Reasons {
		add("reason", q.g.Scopes[t.Scope].Of, t.ID, t.Rank, false)
	}
	for i := range q.g.Edges {
		e := &q.g.Edges[i]
		if e.Dir != nil {
			add("pipe", q.g.Scopes[e.Scope].Of, e.Drawn.ID, e.Drawn.Rank, false)
		}
	}
	for _, z := range q.g.Sizes {
		add("size", q.g.Scopes[z.Scope].Of, z.ID, z.Rank, z.Gave != nil)
	}
	slices.SortStableFunc(q.owners, func(a, b Party) int {
		return cmp.Or(cmp.Compare(a.rank, b.rank), cmp.Compare(order[a.Kind], order[b.Kind]))
	})
	for i, p := range q.owners {
		q.number[p.key] = i
		if p.gave {
			q.without = append(q.without, i)
		}
	}
}

func (q *equations) owner(kind, group, id string) int {
	if kind == "size" {
		return q.number["size "+id]
	}
	return q.number[kind+" "+group+" "+id]
}

// node gives a joint's coordinates in a set of axes.
func (q *equations) node(n, axes int) constraint.Point {
	if p, ok := q.nodes[[2]int{n, axes}]; ok {
		return p
	}
	p := q.sys.Point()
	q.nodes[[2]int{n, axes}] = p
	home := q.axesOf[q.g.Nodes[n].Scope]
	if home != axes {
		q.same(q.node(n, home), home, p, axes, constraint.Always)
	}
	return p
}

// same adds the rules that two points, each in a set of axes, are the same point.
func (q *equations) same(p constraint.Point, pa int, r constraint.Point, ra int, owner int) {
	for _, way := range []struct {
		from, to constraint.Point
		m        frame.Orient
	}{{p, r, q.bases[ra].Back().Times(q.bases[pa])}, {r, p, q.bases[pa].Back().Times(q.bases[ra])}} {
		for k := range 3 {
			terms := []constraint.Term{{Of: way.to[k], Times: 1}}
			for j := range 3 {
				if v := way.m[k][j]; math.Abs(v) > 1e-12 {
					terms = append(terms, constraint.Term{Of: way.from[j], Times: -v})
				}
			}
			q.sys.Sum(owner, 0, terms...)
		}
	}
}

// along gives the axis, and its sign, of a scope's set of axes that an axis of
// the scope runs along.
func (q *equations) along(scope int, a measure.Axis) (k int, sign measure.Length) {
	for k := range 3 {
		if v := q.turn[scope][k][a]; v > 0.5 {
			return k, 1
		} else if v < -0.5 {
			return k, -1
		}
	}
	return int(a), 1
}

// coordinate gives the coordinate of a joint or named plane along an axis of a scope.
func (q *equations) coordinate(w frame.ResolvedRef, scope int, a measure.Axis) (constraint.Var, bool) {
	k, _ := q.along(scope, a)
	if w.Node >= 0 {
		return q.node(w.Node, q.axesOf[scope])[k], true
	}
	if w.Plane == "" || q.axesOf[w.Scope] != q.axesOf[scope] {
		return 0, false
	}
	for b := range 3 { // the plane's own axis that runs this way
		if o, _ := q.along(w.Scope, measure.Axis(b)); o == k {
			return q.plane(w.Scope, b, w.Plane), true
		}
	}
	return 0, false
}

func (q *equations) plane(scope, axis int, id string) constraint.Var {
	key := planeKey{scope, axis, id}
	v, ok := q.planes[key]
	if !ok {
		v = q.sys.Auxiliary()
		q.planes[key] = v
	}
	return v
}

// equal adds the rule that two coordinates are equal, and records that they are
// level.
func (q *equations) equal(owner int, a, b constraint.Var) {
	if a == b {
		return
	}
	q.sys.Difference(owner, a, b, 0)
	ra, rb := q.levelOf(a), q.levelOf(b)
	if ra < rb {
		ra, rb = rb, ra
	}
	q.level[ra] = rb
}

// levelOf finds the representative of all coordinates that are level with one, by
// union-find.
func (q *equations) levelOf(v constraint.Var) constraint.Var {
	for int(v) >= len(q.level) {
		q.level = append(q.level, constraint.Var(len(q.level)))
	}
	for q.level[v] != v {
		q.level[v] = q.level[q.level[v]]
		v = q.level[v]
	}
	return v
}

// reasons adds all rules but those of the sizes.
func (q *equations) reasons() {
	q.begin()
	for n := range q.g.Nodes {
		p := q.node(n, q.axesOf[q.g.Nodes[n].Scope])
		if n == 0 {
			q.origin(p)
		}
	}
	for sc := range q.g.Scopes { // every named plane, in their order
		for a := range 3 {
			for _, p := range q.g.Scopes[sc].Planes[a] {
				q.plane(sc, a, p.ID)
			}
		}
	}
	for n := range q.g.Nodes {
		for _, on := range q.g.Nodes[n].On {
			k, _ := q.along(on.Scope, on.Axis)
			q.equal(constraint.Always, q.plane(on.Scope, int(on.Axis), on.Plane), q.node(n, q.axesOf[on.Scope])[k])
		}
	}
	for i := range q.g.Holds {
		q.anchor(i)
	}
	for i := range q.g.Edges {
		if e := &q.g.Edges[i]; e.Dir != nil {
			q.line(q.owner("pipe", q.g.Scopes[e.Scope].Of, e.Drawn.ID), e.Scope, e.Ends[0], e.Ends[1], *e.Dir)
		}
	}
	for i := range q.g.Reasons {
		q.reason(&q.g.Reasons[i])
	}
}

// again prepares the equations for solving the same frame once more with other
// bodies: the rules of sizes depend on the bodies and are removed, all others stay.
func (q *equations) again() {
	q.sys.Forget(func(owner int) bool { return owner >= 0 && q.owners[owner].Kind == "size" })
	q.found = nil
}

// origin stands the frame's first plane of each axis, or its first joint, where
// the document says.
func (q *equations) origin(first constraint.Point) {
	for a := range 3 {
		v := first[a]
		if ps := q.g.Scopes[0].Planes[a]; len(ps) > 0 {
			v = q.plane(0, a, ps[0].ID)
		} else if q.axesOf[q.g.Nodes[0].Scope] != 0 {
			v = q.node(0, 0)[a]
		}
		q.sys.Difference(constraint.Always, constraint.Zero, v, q.g.Doc.Origin[a])
	}
}

// anchor adds the rule that places the anchor of an instance.
func (q *equations) anchor(i int) {
	h := &q.g.Holds[i]
	owner := q.owner("use", h.Of, h.Use)
	if q.axesOf[h.Child] == q.axesOf[h.Scope] || h.Anchor.Node >= 0 {
		at, ok1 := q.coordinate(h.At, h.Scope, h.Axis)
		anchor, ok2 := q.coordinate(h.Anchor, h.Scope, h.Axis)
		if ok1 && ok2 {
			q.equal(owner, at, anchor)
		}
		return
	}
	// a use that leans is held at a point: where its three planes cross
	if i+2 >= len(q.g.Holds) || h.Axis != 0 || q.g.Holds[i+2].Child != h.Child {
		return
	}
	var at, anchor constraint.Point
	for a := range 3 {
		o := &q.g.Holds[i+a]
		v, ok1 := q.coordinate(o.At, h.Scope, measure.Axis(a))
		k, _ := q.along(h.Scope, measure.Axis(a))
		own, ok2 := q.coordinate(o.Anchor, h.Child, measure.Axis(a))
		c, _ := q.along(h.Child, measure.Axis(a))
		if !ok1 || !ok2 {
			return
		}
		at[k], anchor[c] = v, own
	}
	q.same(at, q.axesOf[h.Scope], anchor, q.axesOf[h.Child], owner)
}

// line adds the rules that one joint lies from another in a given direction of a
// scope.
func (q *equations) line(owner, scope, from, to int, dir measure.Dir) {
	d := q.turn[scope].Dir(dir.Unit())
	axes := q.axesOf[scope]
	p, r := q.node(from, axes), q.node(to, axes)
	var runs []int
	for k := range 3 {
		if math.Abs(d[k]) < 1e-9 {
			q.equal(owner, p[k], r[k])
		} else {
			runs = append(runs, k)
		}
	}
	if len(runs) == 1 {
		sign := 1.0
		if d[runs[0]] < 0 {
			sign = -1
		}
		q.lines[[2]int{from, to}] = lineOf{sign: sign, axis: runs[0], axes: axes}
		q.lines[[2]int{to, from}] = lineOf{sign: -sign, axis: runs[0], axes: axes}
		return
	}
	long := q.sys.Auxiliary()
	for _, k := range runs {
		q.sys.Sum(
			owner,
			0,
			constraint.Term{Of: r[k], Times: 1},
			constraint.Term{Of: p[k], Times: -1},
			constraint.Term{Of: long, Times: -d[k]},
		)
	}
	q.lines[[2]int{from, to}] = lineOf{long: long, sign: 1, axis: -1}
	q.lines[[2]int{to, from}] = lineOf{long: long, sign: 1, axis: -1}
}
