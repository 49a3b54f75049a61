package edit

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// positionBefore is where a joint stood before the gesture.
func (e *editor) positionBefore(n int) (measure.Point, bool) {
	id := e.view.Graph.Nodes[n].ID
	if old, ok := e.alias[id]; ok {
		id = old
	}
	k := e.was.Graph.Node(id)
	if k < 0 {
		return e.view.Points[n], false
	}
	return e.was.Points[k], true
}

// distanceBefore is the vector between two joints before the gesture, along a
// scope's own axes. A joint of a copy that is new has the vector of the same joints
// in the copies that were there.
func (e *editor) distanceBefore(scope, n, m int) measure.Point {
	if e.asNow {
		place := e.place(scope)
		return place.Local(e.view.Points[m]).Sub(place.Local(e.view.Points[n]))
	}
	p, ok1 := e.positionBefore(n)
	q, ok2 := e.positionBefore(m)
	place := e.place(scope)
	if ok1 && ok2 {
		return place.Local(q).Sub(place.Local(p))
	}
	a, in1 := e.ref(scope, e.view.Graph.Nodes[n].ID)
	b, in2 := e.ref(scope, e.view.Graph.Nodes[m].ID)
	of := e.view.Graph.Scopes[scope].Of
	for sc := range e.was.Graph.Scopes {
		s := &e.was.Graph.Scopes[sc]
		if s.Of != of || of == "" || !in1 || !in2 {
			continue
		}
		i, k := e.was.Graph.Node(join(s.Path, a)), e.was.Graph.Node(join(s.Path, b))
		if i >= 0 && k >= 0 {
			was := &e.was.Places[sc]
			return was.Local(e.was.Points[k]).Sub(was.Local(e.was.Points[i]))
		}
	}
	if i, k, ok := e.renamedPair(scope, a, b); ok { // a group that was made of them just now
		at := e.was.Places[0]
		return at.Local(e.was.Points[k]).Sub(at.Local(e.was.Points[i]))
	}
	return place.Local(q).Sub(place.Local(p))
}

// renamedPair finds two joints of a definition, which the gesture renamed, in the
// frame as it was before.
func (e *editor) renamedPair(scope int, a, b string) (i, k int, ok bool) {
	of := e.view.Graph.Scopes[scope].Of
	for sc := range e.view.Graph.Scopes {
		if e.view.Graph.Scopes[sc].Of != of {
			continue
		}
		x, y := e.alias[join(e.path(sc), a)], e.alias[join(e.path(sc), b)]
		if x == "" || y == "" {
			continue
		}
		if i, k = e.was.Graph.Node(x), e.was.Graph.Node(y); i >= 0 && k >= 0 {
			return i, k, true
		}
	}
	return 0, 0, false
}

// common is the deepest scope that two joints are both in.
func (e *editor) common(n, m int) int {
	up := func(sc int) (all []int) {
		for ; sc >= 0; sc = e.view.Graph.Scopes[sc].Parent {
			all = append(all, sc)
		}
		return all
	}
	mine := up(e.view.Graph.Nodes[n].Scope)
	for _, sc := range up(e.view.Graph.Nodes[m].Scope) {
		if slices.Contains(mine, sc) {
			return sc
		}
	}
	return 0
}

// holdLoose gives every joint that lost its position a size, or a placement, that
// keeps it where it stood before the gesture. It reports whether there was any.
func (e *editor) holdLoose() (any bool, err error) {
	defer func() { e.asNow = false }()
	for i := 0; i < 3*len(e.view.Free); {
		n, before, told := len(e.view.Free), e.doc.Clone(), len(e.also)
		// where it stood contradicts what has moved since: where it is, then
		e.asNow = i >= n
		switch f := &e.view.Free[i%n]; {
		case i >= 2*n: // one axis alone does not hold it: all of them do
			e.placeFrom(f)
		case i > 0 || !e.placeParts():
			e.keepSize(f)
		}
		if err := e.resolve(); err != nil {
			return any, err
		}
		if len(e.view.Free) < n {
			any, i, e.asNow = true, 0, false
			continue
		}
		// it held nothing: another one may
		e.doc, e.also = before, e.also[:told]
		if err := e.resolve(); err != nil {
			return any, err
		}
		i++
	}
	return any, nil
}

// placeParts adds one placement, instead of three sizes, for a part that moves
// freely along all three axes. It reports whether it added one.
func (e *editor) placeParts() bool {
	f := e.view.Free
	if len(f) < 3 || !slices.Equal(f[0].Nodes, f[1].Nodes) || !slices.Equal(f[1].Nodes, f[2].Nodes) || f[0].Scope != f[1].Scope ||
		f[1].Scope != f[2].Scope {
		return false
	}
	return e.placeFrom(&f[0])
}

// placeFrom adds a placement for joints that move freely, and reports whether there
// was a fixed joint to place them from.
func (e *editor) placeFrom(f *layout.Free) bool {
	from, to := e.bestHolder(f)
	if from < 0 {
		return false
	}
	scope := e.common(from, to)
	a, ok1 := e.ref(scope, e.view.Graph.Nodes[from].ID)
	b, ok2 := e.ref(scope, e.view.Graph.Nodes[to].ID)
	if !ok1 || !ok2 {
		return false
	}
	e.doc.AddReason(
		e.def(scope),
		frame.Reason{Kind: frame.Placed, Of: frame.Ref(b), From: frame.Ref(a), By: e.distanceBefore(scope, from, to)},
	)
	if e.joined(from, to) {
		e.note("%s keeps its place from %s", e.thing(scope, b), e.thing(scope, a))
	} else {
		e.note("the part at %s is by itself: it keeps its place from %s", e.thing(scope, b), e.thing(scope, a))
	}
	return true
}

// bestHolder chooses the fixed joint, and the loose one, between which a size that
// holds loose joints is best placed: the two ends of a pipe where one joins them,
// so that the pipe keeps its length. from is -1 where there is no fixed joint.
func (e *editor) bestHolder(f *layout.Free) (from, to int) {
	from, to = e.fixedNode(f.Nodes), f.Nodes[0]
	loose := e.loose()
	held := false // the other end is
	for _, n := range f.Nodes {
		for _, pe := range e.view.Graph.Nodes[n].Pipes {
			o := e.view.Graph.Edges[pe.Pipe].Ends[1-pe.End]
			if slices.Contains(f.Nodes, o) || e.view.Graph.Nodes[o].Scope != f.Scope || e.view.Graph.Nodes[n].Scope != f.Scope ||
				held && loose[o] {
				continue
			}
			from, to, held = o, n, !loose[o]
		}
	}
	return from, to
}

// fixedNode finds a joint with a fixed position from which loose ones can be held:
// one in the same copy of a part before one outside it. -1 where there is none.
func (e *editor) fixedNode(free []int) int {
	loose := e.loose()
	best, depth := -1, -1
	for n := range e.view.Graph.Nodes {
		if slices.Contains(free, n) || loose[n] {
			continue
		}
		if d := e.depth(e.common(n, free[0])); d > depth {
			best, depth = n, d
		}
	}
	if best >= 0 {
		return best
	}
	for n := range e.view.Graph.Nodes {
		if !slices.Contains(free, n) {
			return n
		}
	}
	return -1
}

// loose gives the joints that move freely along some axis.
func (e *editor) loose() map[int]bool {
	all := map[int]bool{}
	for i := range e.view.Free {
		for _, n := range e.view.Free[i].Nodes {
			all[n] = true
		}
	}
	return all
}

// depth is how many parts a scope is inside of.
func (e *editor) depth(scope int) (d int) {
	for ; scope > 0; scope = e.view.Graph.Scopes[scope].Parent {
		d++
	}
	return d
}

// keepSize adds an inferred size that holds joints which move freely along one
// axis, at the distance that they had before the gesture.
func (e *editor) keepSize(f *layout.Free) {
	from, to := e.bestHolder(f)
	if from < 0 {
		e.keepFromPlane(f)
		return
	}
	scope := e.common(from, to)
	// the axis in that scope's own axes
	dir := e.view.Graph.Scopes[e.view.Graph.Nodes[to].Scope].Orient.Dir(f.Way(to).Dir())
	a, _, square := axisAlong(e.place(scope).Turned(dir))
	u, ok1 := e.ref(scope, e.view.Graph.Nodes[from].ID)
	v, ok2 := e.ref(scope, e.view.Graph.Nodes[to].ID)
	if !ok1 || !ok2 {
		return
	}
	def := e.def(scope)
	by := e.distanceBefore(scope, from, to)
	if !square {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Placed, Of: frame.Ref(v), From: frame.Ref(u), By: by})
		e.note("%s keeps its place from %s", e.thing(scope, v), e.thing(scope, u))
		return
	}
	e.keepAlong(def, a, u, v, by[a])
}

// keepFromPlane holds joints along an axis by their distance from a named plane on
// which no joint stands any more, where there is nothing else to hold them from.
func (e *editor) keepFromPlane(f *layout.Free) {
	def, a := e.def(f.Scope), f.Axis
	to, ok := e.ref(f.Scope, e.view.Graph.Nodes[f.Nodes[0]].ID)
	if !ok || len(def.Planes[a]) == 0 {
		return
	}
	plane := frame.OnPlane(def.Planes[a][0].ID)
	place := e.place(f.Scope)
	for i := range e.was.Places {
		if e.was.Places[i].Path == place.Path {
			place = &e.was.Places[i]
		}
	}
	k := place.Find(a, plane)
	if k < 0 {
		return
	}
	at, _ := e.positionBefore(f.Nodes[0])
	e.keepAlong(def, a, string(plane), to, place.Local(at)[a]-place.Planes[a][k].At)
}

// keepAlong holds one joint or plane at the distance from another, along an axis,
// that it had: by a reason that they are level where that is zero, else by a size.
func (e *editor) keepAlong(def *frame.Definition, a measure.Axis, u, v string, d measure.Length) {
	lo, hi := u, v
	if d < 0 {
		lo, hi, d = v, u, -d
	}
	if d <= measure.Micrometre {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: frame.AxisName(int(a)), Of: frame.Ref(hi), To: frame.Ref(lo)})
		e.note("%s stays level with %s", e.refOf(def, frame.Ref(hi)), e.refOf(def, frame.Ref(lo)))
		return
	}
	s := e.centre(d)
	s.Axis, s.From, s.To, s.Inferred = frame.AxisName(int(a)), frame.Ref(lo), frame.Ref(hi), true
	e.doc.AddSize(def, s)
	e.note("%s to %s stays as it stood: %s", e.refOf(def, frame.Ref(lo)), e.refOf(def, frame.Ref(hi)), s.Value.Tape(s.Unit))
}
