package frame

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Limits keep nonsense from filling the machine.
const (
	MaxJoints = 5000
	maxCopies = 500
	maxDepth  = 8
)

// Expand checks the document and flattens it. The error is a [Problems].
func Expand(d *Document) (*Graph, error) {
	var ps Problems
	d.check(&ps)
	if len(ps) > 0 {
		return nil, ps
	}
	e := &expander{g: &Graph{Doc: d}, at: map[string]int{}, pipes: map[string]bool{}, shared: map[int]bool{}, into: map[int]int{}}
	e.define(&d.Root, Scope{Parent: -1, Orient: d.stands()}, "/root", d.Size, modeScope{cmp.Or(d.Root.Mode, d.Mode), "frame"}, 0)
	if len(e.problems) == 0 {
		e.finish()
		e.g.Hold(nil)
	}
	if len(e.problems) > 0 {
		return nil, e.problems
	}
	return e.g, nil
}

type expander struct {
	g        *Graph
	at       map[string]int // joint path → node
	pipes    map[string]bool
	walks    []walked
	shared   map[int]bool // nodes that two joined copies have in common
	into     map[int]int  // merged-away node → the one it went into
	problems Problems
}

func join(path, id string) string {
	if path == "" {
		return id
	}
	return path + "/" + id
}

func (e *expander) define(def *Definition, s Scope, where string, size catalog.Size, mode modeScope, depth int) {
	if depth > maxDepth {
		e.problems.add(where, "groups inside groups too deep", "a group may not contain itself")
		return
	}
	if len(e.g.Nodes) > MaxJoints {
		return
	}
	if def.Size != "" && s.Parent < 0 {
		size = def.Size
	}
	scope := len(e.g.Scopes)
	for a := range s.Axes {
		if st := def.Axes[a].Stations; s.Anchor[a] == "" && len(st) > 0 {
			s.Anchor[a] = st[0].ID
		}
		s.Axes[a] = AxisStations{def.Axes[a].Origin, slices.Clone(def.Axes[a].Stations)}
		s.Pointers[a] = nil
		for i := range def.Axes[a].Stations {
			s.Pointers[a] = append(s.Pointers[a], fmt.Sprintf("%s/axes/%d/stations/%d/at", where, a, i))
		}
	}
	e.g.Scopes = append(e.g.Scopes, s)
	for i, j := range def.Joints {
		id := join(s.Path, j.ID)
		if _, taken := e.at[id]; taken {
			e.problems.add(fmt.Sprintf("%s/joints/%d", where, i), fmt.Sprintf("the joint %q exists twice", id), "give it another id")
			continue
		}
		e.at[id] = len(e.g.Nodes)
		seen := Seen{Scope: scope, At: j.At}
		if j.Walk != nil {
			seen.Way = e.walk(&j, s, fmt.Sprintf("%s/joints/%d/walk", where, i))
		}
		e.g.Nodes = append(e.g.Nodes, Node{
			ID: id, Places: []Seen{seen}, End: j.End, Fitting: turned(j.Fitting, s.Orient),
			mode: j.Mode, reason: j.Reason, scope: mode,
		})
	}
	if len(e.g.Nodes) > MaxJoints {
		e.problems.add(where, fmt.Sprintf("more than %d joints", MaxJoints), "plan it in parts")
		return
	}
	for i := range def.Uses {
		e.use(def, &def.Uses[i], scope, fmt.Sprintf("%s/uses/%d", where, i), size, mode, depth)
	}
	for i, p := range def.Pipes {
		e.pipe(p, scope, fmt.Sprintf("%s/pipes/%d", where, i), size)
	}
	for i, l := range def.Links {
		e.bond(l, scope, fmt.Sprintf("%s/links/%d", where, i))
	}
	for i, m := range def.Merges {
		e.merge(m, scope, fmt.Sprintf("%s/merges/%d", where, i))
	}
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

// use expands a use; the copies of an array stand on stations of their own,
// so that a pitch keeps its meaning like any other dimension.
func (e *expander) use(in *Definition, u *Use, scope int, where string, size catalog.Size, mode modeScope, depth int) {
	def := e.g.Doc.Group(u.Of)
	o := e.g.Scopes[scope].Orient.times(u.orient())
	size = cmp.Or(u.Size, def.Size, size)
	if m := cmp.Or(u.Mode, def.Mode); m != "" {
		mode = modeScope{m, "group " + def.ID}
	}
	base := e.g.Scopes[scope].Path
	before, first := "", len(e.g.Scopes)
	count, at := 1, u.At
	if u.Array != nil {
		count = u.Array.Count
	}
	for k := range count {
		id := u.ID
		if u.Array != nil {
			id = fmt.Sprintf("%s#%d", u.ID, k+1)
			if k > 0 {
				e.step(u, scope, first, k, id, &at, where)
			}
		}
		path := join(base, id)
		e.define(def, Scope{Path: path, Of: u.Of, Parent: scope, At: at, Anchor: u.Anchor, Orient: o}, e.g.Doc.where(u.Of), size, mode, depth+1)
		if k > 0 && u.Array.Joined != nil && len(e.problems) == 0 {
			along, _ := u.along(u.Array.Axis)
			e.share(def, before, path, along, *u.Array.Joined)
		}
		before = path
	}
}

// step makes the station that a further copy of an array stands on.
func (e *expander) step(u *Use, scope, first, k int, id string, at *[3]string, where string) {
	a, sc := u.Array.Axis, &e.g.Scopes[scope]
	st := Station{ID: id}
	if u.Array.Joined != nil {
		if sc.Steps[a] == nil {
			sc.Steps[a] = map[string]Step{}
		}
		along, _ := u.along(a)
		sc.Steps[a][id] = Step{Before: at[a], Scope: first, Axis: along, Joined: *u.Array.Joined}
	} else {
		pitch := *u.Array.Pitch
		pitch.From = at[a]
		if k > 1 {
			pitch.Label = "" // one dimension, shown once
		}
		st.At = &pitch
	}
	at[a] = id
	sc.Axes[a].Stations = append(sc.Axes[a].Stations, st)
	sc.Pointers[a] = append(sc.Pointers[a], where+"/array/pitch")
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
	if e.pipes[id] {
		e.problems.add(where, fmt.Sprintf("the pipe %q exists twice", id), "give it another id")
		return
	}
	e.pipes[id] = true
	ed := Edge{ID: id, Size: cmp.Or(p.Size, size), Scope: scope, Path: p.Path, Radius: p.Radius, Bow: p.Spring.bow(e.g.Scopes[scope].Orient, where)}
	for k, ref := range []string{p.From, p.To} {
		n, ok := e.at[join(path, ref)]
		if !ok {
			e.problems.add(fmt.Sprintf("%s/%s", where, [2]string{"from", "to"}[k]), fmt.Sprintf("pipe %q: there is no joint %q", id, ref), "name a joint of this group or of a group used in it")
			return
		}
		ed.Ends[k] = n
	}
	for k, ref := range p.Via {
		n, ok := e.at[join(path, ref)]
		if !ok {
			e.problems.add(fmt.Sprintf("%s/via/%d", where, k), fmt.Sprintf("pipe %q: there is no joint %q to bend round", id, ref), "name a joint of this group or of a group used in it")
			return
		}
		ed.Via = append(ed.Via, n)
	}
	if p.AtEnd != nil {
		for k, ins := range p.AtEnd {
			ed.drawn[k] = Held{Mode: ins.Mode, Reason: ins.Reason}
		}
	}
	e.g.Edges = append(e.g.Edges, ed)
}
