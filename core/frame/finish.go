package frame

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// walked is a way whose joints are still names.
type walked struct {
	way   *Way
	path  string // of the definition's use
	walk  *Walk
	where string
	node  int
}

// walk begins a way; where it comes from is looked up once every joint is known.
func (e *expander) walk(j *Joint, s Scope, where string) *Way {
	w := &Way{Toward: -1, Size: j.Walk.Size, Share: j.Walk.Share, Until: j.Walk.Until, Pointer: where + "/size"}
	if j.Walk.Dir != nil {
		w.Dir = s.Orient.Dir(j.Walk.Dir.Unit())
	}
	e.walks = append(e.walks, walked{w, s.Path, j.Walk, where, len(e.g.Nodes)})
	return w
}

// follow finds the joints that ways lead from and toward; at gives each
// node's number among those kept.
func (e *expander) follow(at []int) {
	after := map[int][]int{}
	for _, w := range e.walks {
		find := func(ref, field string) int {
			n, ok := e.at[join(w.path, ref)]
			if !ok {
				e.problems.add(w.where+"/"+field, fmt.Sprintf("there is no joint %q to walk from", ref), "name a joint of this group or of a group used in it")
				return 0
			}
			return at[n]
		}
		w.way.From = find(w.walk.From, "from")
		to := at[e.kept(w.node)]
		after[to] = append(after[to], w.way.From)
		if w.walk.Toward != "" {
			w.way.Toward = find(w.walk.Toward, "toward")
			after[to] = append(after[to], w.way.Toward)
		}
	}
	state := map[int]int{}
	var ends func(n int) bool
	ends = func(n int) bool {
		if state[n] == 1 {
			return false
		}
		ok := true
		if state[n] == 0 {
			state[n] = 1
			if e.g.Nodes[n].Places[0].Way != nil {
				for _, m := range after[n] {
					ok = ok && ends(m)
				}
			}
			state[n] = 2
		}
		return ok
	}
	for _, w := range e.walks {
		if !ends(at[e.kept(w.node)]) {
			e.problems.add(w.where+"/from", fmt.Sprintf("the way to joint %q leads back to it", e.g.Nodes[at[e.kept(w.node)]].ID), "place one of these joints on stations, or walk to it from elsewhere")
			return
		}
	}
}

// kept is the node that a node was merged into, itself if it was not.
func (e *expander) kept(node int) int {
	for {
		to, merged := e.into[node]
		if !merged {
			return node
		}
		node = to
	}
}

// share makes what stands on the second of two stations of one copy the same
// as what stands on the first of them in the next copy.
func (e *expander) share(def *Definition, before, after string, axis measure.Axis, joined [2]string) {
	// twin says whether two places are the same but for the joined stations
	twin := func(a, b [3]string) bool {
		if a[axis] != joined[0] || b[axis] != joined[1] {
			return false
		}
		a[axis], b[axis] = "", ""
		return a == b
	}
	unite := func(keep, drop string) {
		k, ok1 := e.at[keep]
		d, ok2 := e.at[drop]
		if ok1 && ok2 && k != d {
			e.unite(k, d)
			e.shared[k] = true
		}
	}
	for _, j := range def.Joints {
		for _, i := range def.Joints {
			if j.Walk == nil && i.Walk == nil && twin(j.At, i.At) {
				unite(join(before, i.ID), join(after, j.ID))
			}
		}
	}
	for _, u := range def.Uses {
		for _, v := range def.Uses {
			if !twin(u.At, v.At) || u.Of != v.Of || u.Mirror != v.Mirror || !slices.Equal(u.Turns, v.Turns) || u.Anchor != v.Anchor || u.Array != nil || v.Array != nil {
				continue
			}
			from, to := join(after, u.ID)+"/", join(before, v.ID)+"/"
			for _, n := range e.g.Nodes { // in order, so that the same plan comes out each time
				if rest, ok := strings.CutPrefix(n.ID, from); ok {
					unite(to+rest, n.ID)
				}
			}
		}
	}
}

// once drops the second of two pipes between joints that joined copies share.
func (e *expander) once() {
	seen := map[[2]int]bool{}
	g := e.g
	g.Edges = slices.DeleteFunc(g.Edges, func(ed Edge) bool {
		a, b := min(ed.Ends[0], ed.Ends[1]), max(ed.Ends[0], ed.Ends[1])
		again := ed.Path == Straight && seen[[2]int{a, b}] && e.shared[a] && e.shared[b]
		seen[[2]int{a, b}] = true
		return again
	})
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
	e.unite(keep, drop)
	e.shared[keep] = true
}

// unite makes two nodes one.
func (e *expander) unite(keep, drop int) {
	k, d := &e.g.Nodes[keep], &e.g.Nodes[drop]
	k.Places = append(k.Places, d.Places...)
	if k.Fitting == nil {
		k.Fitting = d.Fitting
	}
	k.mode, k.End = cmp.Or(k.mode, d.mode), cmp.Or(k.End, d.End)
	d.Places = nil
	e.into[drop] = keep
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
	e.follow(at)
	was := slices.Clone(g.Edges)
	e.once()
	g.Bonds = slices.DeleteFunc(g.Bonds, func(b Bond) bool {
		for k := range b.On {
			s := &b.On[k]
			if s.Node >= 0 {
				s.Node = at[e.kept(s.Node)]
				continue
			}
			id := was[s.Pipe].ID
			if s.Pipe = slices.IndexFunc(g.Edges, func(ed Edge) bool { return ed.ID == id }); s.Pipe < 0 {
				return true // of a copy that shares the pipe: the shared one is linked already
			}
		}
		return false
	})
	seen := map[[2]int]int{}
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
		for k := range ed.Via {
			ed.Via[k] = at[e.kept(ed.Via[k])]
		}
		a, b := min(ed.Ends[0], ed.Ends[1]), max(ed.Ends[0], ed.Ends[1])
		switch other, dup := seen[[2]int{a, b}]; {
		case a == b:
			e.problems.add("/root", fmt.Sprintf("pipe %q begins and ends at the joint %q", ed.ID, g.Nodes[a].ID), "give it two joints")
		case dup && ed.Path == g.Edges[other].Path && ed.Path == Straight:
			e.problems.add("/root", fmt.Sprintf("the pipes %q and %q join the same two joints", g.Edges[other].ID, ed.ID), "remove one")
		default:
			if ed.Path == Straight || !dup {
				seen[[2]int{a, b}] = i
			}
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
