package frame

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
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
	e := &expander{g: &Graph{Doc: d}, at: map[string]int{}, pipes: map[string]bool{}}
	e.define(&d.Root, Scope{Parent: -1, Orient: upright}, "/root", d.Size, modeScope{cmp.Or(d.Root.Mode, d.Mode), "frame"}, 0)
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
		e.g.Nodes = append(e.g.Nodes, Node{
			ID: id, Places: []Seen{{scope, j.At}}, End: j.End, Fitting: turned(j.Fitting, s.Orient),
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
	count, at := 1, u.At
	if u.Array != nil {
		count = u.Array.Count
	}
	for k := range count {
		id := u.ID
		if u.Array != nil {
			id = fmt.Sprintf("%s#%d", u.ID, k+1)
			if k > 0 {
				a := u.Array.Axis
				pitch := u.Array.Pitch
				pitch.From = at[a]
				if k > 1 {
					pitch.Label = "" // one dimension, shown once
				}
				at[a] = id
				st := &e.g.Scopes[scope].Axes[a].Stations
				*st = append(*st, Station{ID: id, At: &pitch})
				ptr := &e.g.Scopes[scope].Pointers[a]
				*ptr = append(*ptr, where+"/array/pitch")
			}
		}
		e.define(def, Scope{Path: join(base, id), Of: u.Of, Parent: scope, At: at, Anchor: u.Anchor, Orient: o}, e.g.Doc.where(u.Of), size, mode, depth+1)
	}
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
	quarter := Orient{{0, -1, 0}, {1, 0, 0}, {0, 0, 1}}
	for range ((u.Turn % 4) + 4) % 4 {
		o = quarter.times(o)
	}
	return o
}

func (e *expander) pipe(p Pipe, scope int, where string, size catalog.Size) {
	path := e.g.Scopes[scope].Path
	id := join(path, p.ID)
	if e.pipes[id] {
		e.problems.add(where, fmt.Sprintf("the pipe %q exists twice", id), "give it another id")
		return
	}
	e.pipes[id] = true
	ed := Edge{ID: id, Size: cmp.Or(p.Size, size), Scope: scope}
	for k, ref := range []string{p.From, p.To} {
		n, ok := e.at[join(path, ref)]
		if !ok {
			e.problems.add(fmt.Sprintf("%s/%s", where, [2]string{"from", "to"}[k]), fmt.Sprintf("pipe %q: there is no joint %q", id, ref), "name a joint of this group or of a group used in it")
			return
		}
		ed.Ends[k] = n
	}
	if p.AtEnd != nil {
		for k, ins := range p.AtEnd {
			ed.drawn[k] = Held{Mode: ins.Mode, Reason: ins.Reason}
		}
	}
	e.g.Edges = append(e.g.Edges, ed)
}

// merge redirects the dropped joint's name and pipes to the kept one.
func (e *expander) merge(m Merge, scope int, where string) {
	path := e.g.Scopes[scope].Path
	keep, ok1 := e.at[join(path, m.Keep)]
	drop, ok2 := e.at[join(path, m.Drop)]
	switch {
	case !ok1 || !ok2:
		e.problems.add(where, fmt.Sprintf("there is no joint %q or no joint %q to merge", m.Keep, m.Drop), "name two joints of this group")
		return
	case keep == drop:
		return
	}
	k, d := &e.g.Nodes[keep], &e.g.Nodes[drop]
	k.Places = append(k.Places, d.Places...)
	if k.Fitting == nil {
		k.Fitting = d.Fitting
	}
	k.mode, k.End = cmp.Or(k.mode, d.mode), cmp.Or(k.End, d.End)
	d.Places = nil
	for id, n := range e.at {
		if n == drop {
			e.at[id] = keep
		}
	}
	for i := range e.g.Edges {
		for s, n := range e.g.Edges[i].Ends {
			if n == drop {
				e.g.Edges[i].Ends[s] = keep
			}
		}
	}
}

// finish drops merged-away joints, ties pipes to joints and settles how each
// end is held: the pipe's own setting, else the joint's, the group's, the
// frame's.
func (e *expander) finish() {
	g := e.g
	at := make([]int, len(g.Nodes))
	kept := g.Nodes[:0]
	for i, n := range g.Nodes {
		if at[i] = len(kept); len(n.Places) > 0 {
			kept = append(kept, n)
		}
	}
	g.Nodes = kept
	seen := map[[2]int]string{}
	for i := range g.Edges {
		ed := &g.Edges[i]
		for s := range ed.Ends {
			ed.Ends[s] = at[ed.Ends[s]]
			n := &g.Nodes[ed.Ends[s]]
			n.Pipes = append(n.Pipes, PipeEnd{i, s})
			h := &ed.drawn[s]
			switch {
			case h.Mode != "":
				h.Reason = cmp.Or(h.Reason, "set here")
			case n.mode != "":
				h.Mode, h.Reason = n.mode, cmp.Or(n.reason, "set at the joint")
			default:
				h.Mode, h.Reason = n.scope.mode, "default of the "+n.scope.from
			}
			h.Seat = g.Doc.Seat(h.Mode)
		}
		a, b := min(ed.Ends[0], ed.Ends[1]), max(ed.Ends[0], ed.Ends[1])
		switch other, dup := seen[[2]int{a, b}]; {
		case a == b:
			e.problems.add("/root", fmt.Sprintf("pipe %q begins and ends at the joint %q", ed.ID, g.Nodes[a].ID), "give it two joints")
		case dup:
			e.problems.add("/root", fmt.Sprintf("the pipes %q and %q join the same two joints", other, ed.ID), "remove one")
		default:
			seen[[2]int{a, b}] = ed.ID
		}
	}
	for i := range g.Nodes {
		n := &g.Nodes[i]
		if n.End == CappedEnd && len(n.Pipes) > 1 {
			if len(n.Places) > 1 { // a cap gives way when its joint was merged with another
				n.End = OpenEnd
				continue
			}
			e.problems.add("/root", fmt.Sprintf("the joint %q has %d pipes and a cap", n.ID, len(n.Pipes)), "a cap closes the end of one pipe; remove it")
		}
	}
}
