package frame

import (
	"cmp"
	"fmt"
	"slices"
)

// mergedInto is the node that a node was merged into, itself if it was not.
func (e *expander) mergedInto(node int) int {
	to, merged := e.into[node]
	if !merged {
		return node
	}
	to = e.mergedInto(to)
	e.into[node] = to
	return to
}

// mergeCopies makes the second joint of each pair in one copy the first of it in the
// next.
func (e *expander) mergeCopies(before, after string, pairs [][2]string) {
	for _, p := range pairs {
		k, ok1 := e.joint(join(before, p[1]))
		d, ok2 := e.joint(join(after, p[0]))
		if ok1 && ok2 && k != d {
			e.mergeNodes(k, d)
			e.shared[k] = true
		}
	}
}

// dropDuplicates drops the second of two pipes between joints that joined copies share.
func (e *expander) dropDuplicates() {
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
	keep, ok1 := e.joint(join(path, m.Keep))
	drop, ok2 := e.joint(join(path, m.Drop))
	switch {
	case !ok1 || !ok2:
		e.problems.add(where, fmt.Sprintf("there is no joint %q or no joint %q to merge", m.Keep, m.Drop), "name two joints of this group")
		return
	case keep == drop:
		return
	}
	e.mergeNodes(keep, drop)
	e.shared[keep] = true
}

// mergeNodes makes two nodes one.
func (e *expander) mergeNodes(keep, drop int) {
	k, d := &e.g.Nodes[keep], &e.g.Nodes[drop]
	k.On = append(k.On, d.On...)
	k.Names = append(append(k.Names, d.ID), d.Names...)
	if k.Fitting == nil {
		k.Fitting = d.Fitting
	}
	k.mode, k.End = cmp.Or(k.mode, d.mode), cmp.Or(k.End, d.End)
	d.On, d.gone, k.merged = nil, true, true
	e.into[drop] = keep
}

// finish drops merged-away joints, ties pipes to joints and settles how each
// end is held: the pipe's own setting, else the joint's, the group's, the
// frame's.
func (e *expander) finish() {
	g := e.g
	at := make([]int, len(g.Nodes))
	kept := g.Nodes[:0]
	for i, n := range g.Nodes {
		if at[i] = len(kept); !n.gone {
			kept = append(kept, n)
		}
	}
	g.Nodes = kept
	for i := range g.Edges {
		for s := range g.Edges[i].Ends {
			g.Edges[i].Ends[s] = e.mergedInto(g.Edges[i].Ends[s])
		}
	}
	was := slices.Clone(g.Edges)
	e.dropDuplicates()
	clear(e.pipes)
	for i := range g.Edges {
		e.pipes[g.Edges[i].ID] = i
	}
	for id, n := range e.at {
		e.at[id] = at[e.mergedInto(n)]
	}
	for i := 0; i < len(e.later); i++ { // one may leave another for later still
		e.later[i]()
	}
	g.Links = slices.DeleteFunc(g.Links, func(b ResolvedLink) bool {
		for k := range b.On {
			s := &b.On[k]
			if s.Node >= 0 {
				s.Node = at[e.mergedInto(s.Node)]
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
			ed.Via[k] = at[e.mergedInto(ed.Via[k])]
		}
		a, b := min(ed.Ends[0], ed.Ends[1]), max(ed.Ends[0], ed.Ends[1])
		switch other, dup := seen[[2]int{a, b}]; {
		case a == b:
			e.problems.add(
				e.drawnAt(ed),
				fmt.Sprintf("pipe %q begins and ends at the joint %q", ed.ID, g.Nodes[a].ID),
				"give it two joints",
			)
		case dup && ed.Path == g.Edges[other].Path && ed.Path == Straight:
			e.problems.add(
				e.drawnAt(ed),
				fmt.Sprintf("the pipes %q and %q join the same two joints", g.Edges[other].ID, ed.ID),
				"remove one",
			)
		default:
			if ed.Path == Straight || !dup {
				seen[[2]int{a, b}] = i
			}
		}
	}
	for i := range g.Nodes {
		n := &g.Nodes[i]
		if n.End == CappedEnd && len(n.Pipes) > 1 {
			if n.merged { // a cap gives way when its joint was merged with another
				n.End = OpenEnd
				continue
			}
			e.problems.add(
				e.standsAt(n),
				fmt.Sprintf("the joint %q has %d pipes and a cap", n.ID, len(n.Pipes)),
				"a cap closes the end of one pipe; remove it",
			)
		}
	}
}

// drawnAt is the JSON pointer of the pipe that an edge shows.
func (e *expander) drawnAt(ed *Edge) string {
	def, where := e.definitionOf(ed.Scope)
	return fmt.Sprintf("%s/pipes/%d", where, slices.IndexFunc(def.Pipes, func(p Pipe) bool { return p.ID == ed.Drawn.ID }))
}

// standsAt is the JSON pointer of the joint that a node shows.
func (e *expander) standsAt(n *Node) string {
	def, where := e.definitionOf(n.Scope)
	return fmt.Sprintf(
		"%s/joints/%d",
		where,
		slices.IndexFunc(def.Joints, func(j Joint) bool { return join(e.g.Scopes[n.Scope].Path, j.ID) == n.ID }),
	)
}

// definitionOf is the definition that a scope shows, with its JSON pointer.
func (e *expander) definitionOf(scope int) (*Definition, string) {
	if of := e.g.Scopes[scope].Of; of != "" {
		return e.g.Doc.Group(of), e.g.Doc.where(of)
	}
	return &e.g.Doc.Root, "/root"
}
