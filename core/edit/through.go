package edit

import (
	"cmp"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// splitAt splits a pipe of a definition in two at a joint. The distance between its
// old ends stays: a size that was typed for the pipe becomes a size between them.
func (e *editor) splitAt(scope int, pipe, joint string) {
	e.keepDistance(scope, pipe)
	e.split(scope, pipe, joint)
}

// keepDistance turns the sizes that were typed for a pipe, which is about to be split,
// into centre distances between its two ends.
func (e *editor) keepDistance(scope int, pipe string) {
	def, path := e.def(scope), e.path(scope)
	i := e.view.Graph.Edge(join(path, pipe))
	if i < 0 {
		return
	}
	ends := e.view.Graph.Edges[i].Ends
	long := e.view.Points[ends[0]].Distance(e.view.Points[ends[1]])
	p := def.Pipe(pipe)
	for k := range def.Sizes {
		s := &def.Sizes[k]
		if s.Pipe != pipe || s.Gave != nil || s.Axis != "" {
			continue
		}
		was := s.Says()
		c := e.centre(long)
		s.Value, s.Text, s.Unit, s.Meaning, s.Pipe = c.Value, c.Text, c.Unit, c.Meaning, ""
		s.From, s.To = frame.Ref(p.From), frame.Ref(p.To)
		if p.Dir != nil && p.Gave == nil {
			if a, sign, square := axisAlong(*p.Dir); square {
				if s.Axis = a.String(); sign < 0 {
					s.From, s.To = s.To, s.From
				}
			} else {
				dir := *p.Dir
				e.doc.AddReason(def, frame.Reason{Kind: frame.Line, Of: frame.Ref(p.To), From: frame.Ref(p.From), Dir: &dir, Rank: p.Rank})
				s = &def.Sizes[k]
			}
		}
		e.gave = append(
			e.gave,
			GivenUp{
				Size:  s.ID,
				Was:   was + " of " + e.ofDefinition(def, pipe),
				Now:   e.tape(c.Value, c.Unit) + " centre to centre, " + e.ofDefinition(def, p.From) + " to " + e.ofDefinition(def, p.To),
				Words: "is split",
			},
		)
	}
	for k := range def.Sizes { // along an axis it measures to the pipe's ends: to their centres from now on
		s := &def.Sizes[k]
		if s.Pipe != pipe || s.Axis == "" {
			continue
		}
		was := s.Says()
		c := e.centre(long)
		s.Value, s.Text, s.Unit, s.Meaning, s.Pipe = c.Value, c.Text, c.Unit, c.Meaning, ""
		e.gave = append(
			e.gave,
			GivenUp{
				Size:  s.ID,
				Was:   was + " of " + e.ofDefinition(def, pipe),
				Now:   e.tape(c.Value, c.Unit) + " centre to centre",
				Words: "is split",
			},
		)
	}
}

// crossing is the point at which a line meets another between two points.
func crossing(from measure.Point, line measure.Dir, u, v measure.Point) (measure.Point, bool) {
	other := u.Toward(v)
	n := line.Cross(other)
	if n.Dot(n) < 1e-9 {
		return from, false
	}
	r := measure.Dir{}
	w := u.Sub(from)
	for a := range r {
		r[a] = float64(w[a])
	}
	t := r.Cross(other).Dot(n) / n.Dot(n)
	if t <= 0 {
		return from, false
	}
	return from.Along(line, measure.Length(t)), true
}

// runsThrough says whether a pipe's line goes through a point between its ends,
// as near as given.
func (e *editor) runsThrough(i int, p measure.Point, as measure.Length) bool {
	ends := e.view.Graph.Edges[i].Ends
	if e.view.Graph.Edges[i].Path != frame.Straight {
		return false
	}
	u, v := e.view.Points[ends[0]], e.view.Points[ends[1]]
	a := measure.Length(0)
	d := u.Toward(v)
	for k := range p {
		a += (p[k] - u[k]).Scale(d[k])
	}
	return a > near && a < u.Distance(v)-near && u.Along(d, a).Distance(p) <= as
}

// onLine lists the joints on the line of a new pipe, from its start on. A joint counts as it would
// stand with the pipe in its fitting: where a tee comes in the place of a coupling, its neighbours
// move by the difference of the two.
func (e *editor) onLine(scope, i int, pipe string) (on []int) {
	g := e.view.Graph
	start := e.view.Points[g.Edges[i].Ends[0]]
	var maybe []int
	// a pipe that only runs between its joints would bend to anything that is near
	directed := g.Edges[i].Drawn.Dir != nil && g.Edges[i].Drawn.Gave == nil
	for n := range g.Nodes {
		_, inside := e.ref(scope, g.Nodes[n].ID)
		switch {
		case !inside || len(g.Nodes[n].Pipes) == 0:
		case e.runsThrough(i, e.view.Points[n], layout.TapeStep):
			on = append(on, n)
		case directed && g.Nodes[n].Scope == scope && e.runsThrough(i, e.view.Points[n], reachOf(biggest(e, n))/2):
			maybe = append(maybe, n)
		}
	}
	nearer := func(a, b int) int {
		return cmp.Compare(start.Distance(e.view.Points[a]), start.Distance(e.view.Points[b]))
	}
	fits := func(some []int) bool {
		trial, rest := e.trial(), pipe
		trial.keepDistance(scope, rest)
		for _, n := range some {
			ref, _ := trial.ref(scope, g.Nodes[n].ID)
			rest = trial.split(scope, rest, ref)
		}
		if trial.resolve() != nil {
			return false
		}
		_, ok := trial.residual(e)
		return ok
	}
	slices.SortFunc(on, nearer)
	slices.SortFunc(maybe, nearer)
	for _, n := range maybe[:min(len(maybe), 8)] {
		with := append(slices.Clone(on), n)
		slices.SortFunc(with, nearer)
		if fits(with) {
			on = with
		}
	}
	return on
}

// through splits a new pipe at every joint that lies on its line. A size that was
// typed for it becomes the distance between its two ends.
func (e *editor) through(done Done, scope int, pipe string) (Done, error) {
	g, path := e.view.Graph, e.path(scope)
	i := g.Edge(join(path, pipe))
	if i < 0 {
		return done, nil
	}
	on := e.onLine(scope, i, pipe)
	if len(on) == 0 {
		return done, nil
	}
	before := g.Edges[i].Ends[0]
	for _, n := range append(slices.Clone(on), g.Edges[i].Ends[1]) {
		if e.joined(before, n) && before != n && !(before == g.Edges[i].Ends[0] && n == g.Edges[i].Ends[1]) {
			return Done{}, refuse(
				"go on from the far end of that one",
				"a pipe runs from %s to %s already",
				mention.Of(g.Nodes[before].ID),
				mention.Of(g.Nodes[n].ID),
			)
		}
		before = n
	}
	e.keepDistance(scope, pipe)
	for _, n := range on {
		ref, _ := e.ref(scope, g.Nodes[n].ID)
		pipe = e.split(scope, pipe, ref)
		e.clearEnd(g.Nodes[n].ID)
		done.Also = append(done.Also, "goes through "+mention.Of(g.Nodes[n].ID))
		done.Pipe = join(path, pipe)
	}
	return done, e.resolve()
}
