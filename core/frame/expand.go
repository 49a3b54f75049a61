package frame

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Expand checks the document and flattens it. The error is a [Problems].
func Expand(d *Document) (*Graph, error) {
	var ps Problems
	n := d.checkExcess(&ps)
	if len(ps) == 0 {
		d.validate(&ps)
	}
	if len(ps) > 0 {
		return nil, ps
	}
	g := &Graph{Doc: d, Nodes: make([]Node, 0, n.joints), Edges: make([]Edge, 0, n.pipes), Scopes: make([]Scope, 0, n.scopes)}
	e := &expander{
		g:      g,
		at:     make(map[string]int, n.joints),
		pipes:  make(map[string]int, n.pipes),
		scopes: make(map[string]int, n.scopes),
		shared: map[int]bool{},
		into:   map[int]int{},
		seen:   map[string]bool{},
		held:   map[*Definition][3]Ref{},
	}
	e.define(&d.Root, Scope{Parent: -1, Orient: d.stands()}, "/root", d.Size, modeScope{cmp.Or(d.Root.Mode, d.Mode), "frame"})
	if len(e.problems) == 0 {
		e.finish()
		e.g.ApplyModeRules(nil)
	}
	if len(e.problems) > 0 {
		return nil, e.problems
	}
	return e.g, nil
}

type expander struct {
	g        *Graph
	at       map[string]int         // joint path → node
	pipes    map[string]int         // pipe path → edge
	scopes   map[string]int         // use path → scope
	later    []func()               // what is looked up once every joint is known
	shared   map[int]bool           // nodes that two copies or parts have in common
	into     map[int]int            // merged-away node → the one it went into
	seen     map[string]bool        // sizes that were stated once
	held     map[*Definition][3]Ref // where each group is held by itself
	problems Problems
}

func join(path, id string) string {
	if path == "" {
		return id
	}
	return path + "/" + id
}

func (e *expander) define(def *Definition, s Scope, where string, size catalog.Size, mode modeScope) {
	if def.Size != "" && s.Parent < 0 {
		size = def.Size
	}
	scope := len(e.g.Scopes)
	s.Planes, s.held = def.Planes, e.defaultAnchorOf(def)
	e.g.Scopes = append(e.g.Scopes, s)
	e.scopes[s.Path] = scope
	for i, j := range def.Joints {
		id := join(s.Path, j.ID)
		if _, taken := e.at[id]; taken {
			e.problems.add(fmt.Sprintf("%s/joints/%d", where, i), fmt.Sprintf("the joint %q exists twice", id), "give it another id")
			continue
		}
		e.at[id] = len(e.g.Nodes)
		n := Node{
			ID:      id,
			Name:    j.Name,
			Scope:   scope,
			End:     j.End,
			Fitting: turned(j.Fitting, s.Orient),
			Later:   j.Later,
			mode:    j.Mode,
			reason:  j.Reason,
			scope:   mode,
		}
		for a, on := range j.On {
			if on != "" {
				n.On = append(n.On, OnNamedPlane{scope, measure.Axis(a), on})
			}
		}
		e.g.Nodes = append(e.g.Nodes, n)
	}
	for i := range def.Sizes {
		e.size(&def.Sizes[i], scope)
	}
	for i := range def.Reasons {
		e.resolveReason(&def.Reasons[i], scope)
	}
	for i := range def.Uses {
		e.use(def, &def.Uses[i], scope, size, mode)
	}
	for i, p := range def.Pipes {
		e.pipe(p, scope, fmt.Sprintf("%s/pipes/%d", where, i), size)
	}
	for i, l := range def.Links {
		e.resolveLink(l, scope, fmt.Sprintf("%s/links/%d", where, i))
	}
	for i, m := range def.Merges {
		e.merge(m, scope, fmt.Sprintf("%s/merges/%d", where, i))
	}
}

// defaultAnchorOf is [Document.EndMode], found once for each definition.
func (e *expander) defaultAnchorOf(def *Definition) [3]Ref {
	at, known := e.held[def]
	if !known {
		at = e.g.Doc.DefaultAnchor(def)
		e.held[def] = at
	}
	return at
}

// joint finds a joint by its path, or the one that it was merged into, while the
// frame is put together.
func (e *expander) joint(path string) (node int, ok bool) {
	n, ok := e.at[path]
	return e.mergedInto(n), ok
}

func turned(f *Forced, o Orient) *Forced {
	if f == nil {
		return nil
	}
	t := *f
	t.Spare = slices.Clone(f.Spare)
	for i := range t.Spare {
		t.Spare[i] = o.Dir(t.Spare[i].Unit())
	}
	return &t
}

// DefaultAnchor is where a use of a definition is held when nothing else is said: at its
// first plane of each axis, else at its first joint, else at that of a use in it.
func (d *Document) DefaultAnchor(def *Definition) (at [3]Ref) {
	first := d.firstJoint(def, map[string]bool{})
	for a := range at {
		at[a] = Ref(first)
		if len(def.Planes[a]) > 0 {
			at[a] = OnPlane(def.Planes[a][0].ID)
		}
	}
	return at
}

// firstJoint names a definition's first joint, of its uses where it has none of
// its own; "" where there is none. Groups that were looked through in vain are
// not looked through again.
func (d *Document) firstJoint(def *Definition, vain map[string]bool) string {
	if len(def.Joints) > 0 {
		return def.Joints[0].ID
	}
	for i := range def.Uses {
		u := &def.Uses[i]
		g := d.Group(u.Of)
		if g == nil || vain[u.Of] {
			continue
		}
		vain[u.Of] = true
		if j := d.firstJoint(g, vain); j != "" {
			if u.Array != nil {
				return u.ID + "#1/" + j
			}
			return u.ID + "/" + j
		}
	}
	return ""
}

// use expands a use and the copies of an array.
func (e *expander) use(in *Definition, u *Use, scope int, size catalog.Size, mode modeScope) {
	def := e.g.Doc.Group(u.Of)
	o := e.g.Scopes[scope].Orient.Times(u.orient())
	size = cmp.Or(u.Size, def.Size, size)
	if m := cmp.Or(u.Mode, def.Mode); m != "" {
		mode = modeScope{m, "group " + def.ID}
	}
	base := e.g.Scopes[scope].Path
	count := 1
	if u.Array != nil {
		count = u.Array.Count
	}
	before := ""
	for k := range count {
		id := u.ID
		if u.Array != nil {
			id = fmt.Sprintf("%s#%d", u.ID, k+1)
		}
		path := join(base, id)
		e.define(def, Scope{Path: path, Of: u.Of, Use: u.ID, Parent: scope, Orient: o}, e.g.Doc.where(u.Of), size, mode)
		if len(e.problems) > 0 {
			return
		}
		if k == 0 {
			e.later = append(e.later, func() { e.anchor(u, in.ID, scope, path) })
		} else if u.Array.Joins() {
			e.mergeCopies(before, path, u.Array.Joined)
		} else {
			from := before
			e.later = append(e.later, func() { e.pitch(u, in.ID, scope, from, path, k) })
		}
		before = path
	}
}

// anchorOf gives what a use is held at, along an axis of the scope around it;
// of a use that leans, along its own axis of that name.
func (e *expander) anchorOf(u *Use, path string, a measure.Axis) (ResolvedRef, bool) {
	own, square := u.along(a)
	if !square {
		own = a
	}
	child := e.scopes[path]
	r := cmp.Or(u.Anchor[own], e.g.Scopes[child].held[own])
	if r == "" {
		return ResolvedRef{Node: -1}, false
	}
	return e.resolveRef(child, r), true
}

// anchor stands a use's anchor where it is said to stand.
func (e *expander) anchor(u *Use, of string, scope int, path string) {
	for a := range 3 {
		if u.At[a] == "" {
			continue
		}
		if anchor, ok := e.anchorOf(u, path, measure.Axis(a)); ok {
			e.g.Holds = append(
				e.g.Holds,
				ResolvedHold{scope, e.scopes[path], measure.Axis(a), e.resolveRef(scope, u.At[a]), anchor, u.ID, of, u.Rank},
			)
		}
	}
}

// resolveRef finds what a reference names in a scope.
func (e *expander) resolveRef(scope int, r Ref) ResolvedRef {
	if r == Floor {
		return ResolvedRef{Node: -1, Scope: scope}
	}
	path, name, plane := r.Parts()
	full := join(e.g.Scopes[scope].Path, path)
	if path == "" {
		full = e.g.Scopes[scope].Path
	}
	if plane {
		return ResolvedRef{Node: -1, Scope: e.scopes[full], Plane: name}
	}
	n, ok := e.at[join(full, name)]
	if !ok {
		return ResolvedRef{Node: -1, Scope: scope}
	}
	return ResolvedRef{Node: n, Scope: scope}
}

func (e *expander) size(s *Size, scope int) {
	e.later = append(e.later, func() {
		path := e.g.Scopes[scope].Path
		st := ResolvedSize{
			Size:  s,
			Key:   s.ID,
			Scope: scope,
			Pipe:  -1,
			From:  e.resolveRef(scope, s.From),
			To:    e.resolveRef(scope, s.To),
			Foot:  -1,
			Again: e.seen[s.ID],
		}
		if st.Again {
			st.Key += "@" + path
		}
		e.seen[s.ID] = true
		if s.Pipe != "" {
			i, ok := e.pipes[join(path, s.Pipe)]
			if !ok {
				return // of a pipe that joined copies share: it is stated with the other
			}
			st.Pipe = i
		}
		if s.Foot != "" {
			if n, ok := e.at[join(path, s.Foot)]; ok {
				st.Foot = n
			}
		}
		e.g.Sizes = append(e.g.Sizes, st)
	})
}

func (e *expander) resolveReason(t *Reason, scope int) {
	if t.Gave != nil {
		return
	}
	e.later = append(e.later, func() {
		e.g.Reasons = append(
			e.g.Reasons,
			ResolvedReason{
				Reason:    t,
				Scope:     scope,
				Of:        e.resolveRef(scope, t.Of),
				From:      e.resolveRef(scope, t.From),
				To:        e.resolveRef(scope, t.To),
				EqualFrom: e.resolveRef(scope, t.EqualFrom),
				EqualTo:   e.resolveRef(scope, t.EqualTo),
			},
		)
	})
}

// along is the group's axis that runs along an axis of the definition a use
// stands in.
func (u *Use) along(a measure.Axis) (measure.Axis, bool) {
	o := u.orient()
	for k := range o[a] {
		if math.Abs(o[a][k]) > 1-1e-9 {
			return measure.Axis(k), true
		}
	}
	return 0, false
}

func (u *Use) orient() Orient {
	o := upright
	switch u.Mirror {
	case "x":
		o[0][0] = -1
	case "y":
		o[1][1] = -1
	case "z":
		o[2][2] = -1
	}
	return turnedBy(o, u.Turns)
}

// stands is the frame's stance as a turn.
func (d *Document) stands() Orient {
	if d.Stance == nil {
		return upright
	}
	return turnedBy(upright, d.Stance.Turns)
}

func (e *expander) pipe(p Pipe, scope int, where string, size catalog.Size) {
	path := e.g.Scopes[scope].Path
	id := join(path, p.ID)
	if _, twice := e.pipes[id]; twice {
		e.problems.add(where, fmt.Sprintf("the pipe %q exists twice", id), "give it another id")
		return
	}
	e.pipes[id] = len(e.g.Edges)
	ed := Edge{
		ID:     id,
		Size:   cmp.Or(p.Size, size),
		Scope:  scope,
		Path:   p.Path,
		Radius: p.Radius,
		Bow:    p.Spring.bow(e.g.Scopes[scope].Orient),
		Drawn:  &p,
	}
	if p.Dir != nil && p.Gave == nil && p.Path == Straight {
		dir := p.Dir.Unit()
		ed.Dir = &dir
	}
	for k, ref := range []string{p.From, p.To} {
		n, ok := e.joint(join(path, ref))
		if !ok {
			e.problems.add(
				fmt.Sprintf("%s/%s", where, [2]string{"from", "to"}[k]),
				fmt.Sprintf("pipe %q: there is no joint %q", id, ref),
				"name a joint of this group or of a group used in it",
			)
			return
		}
		ed.Ends[k] = n
	}
	for k, ref := range p.Via {
		n, ok := e.joint(join(path, ref))
		if !ok {
			e.problems.add(
				fmt.Sprintf("%s/via/%d", where, k),
				fmt.Sprintf("pipe %q: there is no joint %q to bend round", id, ref),
				"name a joint of this group or of a group used in it",
			)
			return
		}
		ed.Via = append(ed.Via, n)
	}
	if p.AtEnd != nil {
		for k, ins := range p.AtEnd {
			ed.drawn[k] = EndMode{Mode: ins.Mode, Reason: ins.Reason}
		}
	}
	e.g.Edges = append(e.g.Edges, ed)
}
