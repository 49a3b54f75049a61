package edit

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// splitPipe is a pipe that the gesture split, by its definition's names: from its first
// end to the joint at, and on as the second to the other end.
type splitPipe struct{ group, first, second, from, at, to string }

// split lets a pipe of a definition end at a joint and gives the second pipe that goes on
// from there. Places on it stay where they are: what lies beyond the joint is moved to the
// second when the gesture is finished, and it is known where the joint stands.
func (e *editor) split(scope int, pipe, joint string) (second string) {
	def := e.def(scope)
	s := splitPipe{group: def.ID, first: pipe, from: def.Pipe(pipe).From, at: joint, to: def.Pipe(pipe).To}
	s.second = e.doc.Split(def, pipe, joint)
	e.splits = append(e.splits, s)
	return s.second
}

// movePlaces moves places along pipes that the gesture split to the part that they are on
// now. One that was measured over the new joint is measured from that, and this is told.
func (e *editor) movePlaces() error {
	moved := false
	for _, s := range e.splits {
		scope := e.scopeOf(s.group)
		if scope < 0 || e.def(scope).Pipe(s.first) == nil || e.def(scope).Pipe(s.second) == nil {
			continue
		}
		move := func(pipe, other, from string) {
			long, known := e.longWay(scope, pipe, from, s.at)
			if !known {
				return
			}
			def := e.def(scope)
			e.doc.EachAnchorOn(def, pipe, func(owner *frame.Definition, path string, l *frame.Link, a *frame.Anchor) {
				if a.From != join(path, from) {
					return
				}
				if at, on := e.alongPipe(scope, pipe, *a, from); on && at > long {
					e.measureAnew(owner, l, a, join(path, other), join(path, s.at), at-long, "the pipe was split")
					moved = true
				}
			})
		}
		move(s.first, s.second, s.from)
		move(s.second, s.first, s.to)
	}
	if e.splits = nil; moved {
		return e.resolve()
	}
	return nil
}

// makeOne makes one pipe of two that meet at a joint, and tells what goes with the joint:
// what was typed for either is part of the one, and is given up. Places on them stay where they are: one that was measured from that joint is measured
// from its pipe's other end, and this is told.
func (e *editor) makeOne(scope int, older, younger, at string) {
	def := e.def(scope)
	for _, pipe := range []string{older, younger} {
		p := def.Pipe(pipe)
		far := p.From
		if far == at {
			far = p.To
		}
		long, known := e.longWay(scope, pipe, at, far)
		if !known {
			continue
		}
		e.doc.NameDatums(def, pipe)
		e.doc.EachAnchorOn(def, pipe, func(owner *frame.Definition, path string, l *frame.Link, a *frame.Anchor) {
			if a.From != join(path, at) {
				return
			}
			if d, on := e.alongPipe(scope, pipe, *a, at); on && d <= long {
				e.measureAnew(owner, l, a, a.Pipe, join(path, far), long-d, "became one pipe")
			}
		})
	}
	for _, s := range slices.Clone(def.Sizes) {
		if s.Pipe == older || s.Pipe == younger {
			was, now := s.Says()+" of "+e.ofDefinition(def, s.Pipe), "part of "+e.ofDefinition(def, older)
			e.gave = append(e.gave, GivenUp{Size: s.ID, Was: was, Now: now, Words: "became one pipe"})
			e.doc.DropSize(s.ID)
		}
	}
	gone := e.doc.Heal(def, older, younger, at)
	e.noteRemoved(slices.DeleteFunc(gone, func(r frame.Removed) bool { return r.Kind == "pipe" }))
}

// measureAnew measures a place along a pipe from another joint, and tells that.
func (e *editor) measureAnew(owner *frame.Definition, l *frame.Link, a *frame.Anchor, pipe, from string, at measure.Length, why string) {
	was := l.ID + " at " + a.Says(e.ofDefinition(owner, a.From))
	to := e.centre(at)
	a.Pipe, a.From, a.Datum = pipe, from, frame.FromCentre
	a.At, a.Text, a.Unit = to.Value, to.Text, to.Unit
	g := GivenUp{Was: was, Now: a.Says(e.ofDefinition(owner, from)), Words: why}
	if !slices.Contains(e.gave, g) { // both pipes of a bolt may be at the same place
		e.gave = append(e.gave, g)
	}
}

// alongPipe is how far a place on a pipe of a scope is from the centre of one of its ends,
// along the pipe; ok is false where the pipe does not end there.
func (e *editor) alongPipe(scope int, pipe string, a frame.Anchor, from string) (at measure.Length, ok bool) {
	i, end := e.endAt(scope, pipe, from)
	if end < 0 {
		return 0, false
	}
	return e.view.Spot(frame.ResolvedAnchor{Node: -1, Pipe: i, End: end, At: a.At, Datum: a.Datum}).From, true
}

// longWay is how far it is from one end of a pipe to a joint on it: to its other end along
// the pipe, or along its straight line to one that once was its end.
func (e *editor) longWay(scope int, pipe, from, to string) (measure.Length, bool) {
	i, end := e.endAt(scope, pipe, from)
	n := e.view.Graph.Node(join(e.path(scope), to))
	switch {
	case end < 0 || n < 0:
		return 0, false
	case e.view.Graph.Edges[i].Ends[1-end] == n:
		return e.view.Lengths[i], true
	case e.view.Curves[i] != nil:
		return 0, false
	}
	return e.view.Points[e.view.Graph.Edges[i].Ends[end]].Distance(e.view.Points[n]), true
}

// endAt is a pipe of a scope in the graph and which of its ends is at a joint; -1 for none.
func (e *editor) endAt(scope int, pipe, joint string) (edge, end int) {
	i, n := e.view.Graph.Edge(join(e.path(scope), pipe)), e.view.Graph.Node(join(e.path(scope), joint))
	for k := range 2 {
		if i >= 0 && n >= 0 && e.view.Graph.Edges[i].Ends[k] == n {
			return i, k
		}
	}
	return i, -1
}
