package edit

import (
	"cmp"
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// leg is a pipe that is about to be run until something.
type leg struct {
	scope int
	n     int    // the joint that it begins at
	ref   string // its name in the definition
	dir   measure.Dir
	joint frame.Joint // at its far end, where that is a new one
	size  catalog.Size

	straightTo bool // its direction is only that of the joint that it runs to
}

// until runs a pipe as far as a line's goal: a joint, a place of the rulers, or a pipe.
func (e *editor) until(l leg, c Line) (Done, error) {
	at := func(err error) error { return shifted(err, c.at.mark) }
	path := e.path(l.scope)
	m := e.view.Graph.Node(join(path, c.Mark))
	if m < 0 {
		m = e.called(c.Mark)
	}
	if m >= 0 {
		if to, within := e.ref(l.scope, e.view.Graph.Nodes[m].ID); within {
			done, err := e.toJoint(l, c.Goal, m, to)
			return done, at(err)
		}
	}
	if a, plane, ok := e.planeCalled(l.scope, c.Mark); ok {
		done, err := e.toPlane(l, a, plane)
		return done, at(err)
	}
	if i := e.view.Graph.Edge(c.Mark); i >= 0 && c.Goal == To {
		done, err := e.toPipe(l, i)
		return done, at(err)
	}
	return Done{}, at(refuse("name a joint such as j7, a place such as x2, or a pipe", "there is no joint, place or pipe %q", c.Mark))
}

// planeCalled finds a plane of a scope as [layout.Place.Called] does.
func (e *editor) planeCalled(scope int, name string) (measure.Axis, *layout.Plane, bool) {
	place := e.place(scope)
	a, ref, ok := place.Called(name, func(joint string) (string, bool) {
		n := e.called(joint)
		if n < 0 {
			return "", false
		}
		return e.ref(scope, e.view.Graph.Nodes[n].ID)
	})
	if !ok {
		return 0, nil, false
	}
	return a, &place.Planes[a][place.Find(a, ref)], true
}

// toPlane runs a pipe as far as a plane.
func (e *editor) toPlane(l leg, a measure.Axis, plane *layout.Plane) (Done, error) {
	def, path := e.def(l.scope), e.path(l.scope)
	here := e.place(l.scope).Local(e.view.Points[l.n])[a]
	if far := plane.At - here; far.Abs() <= near || l.dir[a] == 0 || (far > 0) != (l.dir[a] > 0) {
		return Done{}, refuse("name one that lies that way", "%s is not that way", plane.Name)
	}
	rank := e.doc.NextRank()
	if isNamed(plane) {
		l.joint.On[a] = plane.Ref.Bare()
	}
	id := e.doc.AddJoint(def, l.joint)
	dir := l.dir
	pipe := e.doc.AddPipe(def, frame.Pipe{From: l.ref, To: id, Dir: &dir, Size: l.size, Rank: rank})
	if !isNamed(plane) {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(id), To: plane.Ref, Rank: rank})
	}
	done := Done{Joint: join(path, id), Pipe: join(path, pipe), Also: e.everywhere(l.scope)}
	return e.meet(done, l.scope, id, pipe)
}

// toPipe runs a pipe until it meets another one, in a tee.
func (e *editor) toPipe(l leg, i int) (Done, error) {
	def, path := e.def(l.scope), e.path(l.scope)
	other := &e.view.Graph.Edges[i]
	name := mention.Of(other.ID)
	local, within := e.ref(l.scope, other.ID)
	switch {
	case !within || other.Scope != l.scope:
		return Done{}, refuse("work inside that part", "the pipe %s is of another part", name)
	case other.Path != frame.Straight:
		return Done{}, refuse("split it first, and run to the joint", "%s is not straight", name)
	}
	world := e.view.Graph.Scopes[l.scope].Orient.Dir(l.dir)
	p, ok := crossing(e.view.Points[l.n], world, e.view.Points[other.Ends[0]], e.view.Points[other.Ends[1]])
	if !ok || !e.runsThrough(i, p, layout.TapeStep) {
		return Done{}, refuse("name one that lies that way", "%s is not that way", name)
	}
	rank := e.doc.NextRank()
	l.joint.End = frame.OpenEnd
	id := e.doc.AddJoint(def, l.joint)
	dir := l.dir
	pipe := e.doc.AddPipe(def, frame.Pipe{From: l.ref, To: id, Dir: &dir, Size: l.size, Rank: rank})
	e.splitAt(l.scope, local, id)
	e.met = append(e.met, other.ID)
	done := Done{
		Joint: join(path, id),
		Pipe:  join(path, pipe),
		Also:  append(e.everywhere(l.scope), "meets the pipe "+name+" in a tee"),
	}
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	return e.through(done, l.scope, pipe)
}

// toJoint runs a pipe in a direction until it is level with a joint, or to the joint itself
// where it lies that way and is not only to be level with it.
func (e *editor) toJoint(l leg, goal Goal, m int, to string) (Done, error) {
	def, path := e.def(l.scope), e.path(l.scope)
	name := mention.Of(e.view.Graph.Nodes[m].ID)
	if pe, there := e.pipeTo(l.n, m); there && goal == To {
		return e.thereAlready(pe), nil
	}
	if l.n == m {
		return Done{}, refuse("name another joint", "that is where the line begins")
	}
	world := e.view.Graph.Scopes[l.scope].Orient.Dir(l.dir)
	line := e.view.Points[m].Sub(e.view.Points[l.n])
	var far measure.Length
	for a := range 3 {
		far += line[a].Scale(world[a])
	}
	if far <= 0 {
		return Done{}, refuse("name one that lies that way", "%s is not that way", name)
	}
	off := e.view.Points[l.n].Along(world, far).Distance(e.view.Points[m])
	of := cmp.Or(l.size, e.usual(l.scope))
	near := goal == To && off <= reachOf(of)+reachOf(biggest(e, m)) // nearer than two bodies can stand
	var tees []awaited
	if near && off > socketOf(of) {
		tees, near = e.holdsTo(l, m, to, world)
	}
	if near {
		pipe := e.runTo(l, m, to)
		e.met = append(e.met, join(path, to))
		done := Done{Joint: join(path, to), Pipe: join(path, pipe), Also: append(e.everywhere(l.scope), "meets "+name)}
		e.awaitAll(tees, &done)
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
		return e.through(done, l.scope, pipe)
	}
	rank := e.doc.NextRank()
	dir := l.dir
	a, _, square := axisAlong(dir)
	if !square {
		return Done{}, refuse(
			fmt.Sprintf("say how long it is, or write toward %s to run straight to it", to), "%s is not in that line", name,
		)
	}
	id := e.doc.AddJoint(def, l.joint)
	pipe := e.doc.AddPipe(def, frame.Pipe{From: l.ref, To: id, Dir: &dir, Size: l.size, Rank: rank})
	e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(id), To: frame.Ref(to), Rank: rank})
	done := Done{Joint: join(path, id), Pipe: join(path, pipe), Also: append(e.everywhere(l.scope), "level with "+name)}
	return e.meet(done, l.scope, id, pipe)
}

// runTo draws a pipe to a joint.
func (e *editor) runTo(l leg, m int, to string) (pipe string) {
	dir := l.dir
	way := &dir
	if l.straightTo { // it runs wherever its two joints are
		way = straight(e.place(l.scope).Local(e.view.Points[m]).Sub(e.place(l.scope).Local(e.view.Points[l.n])))
	}
	pipe = e.doc.AddPipe(e.def(l.scope), frame.Pipe{From: l.ref, To: to, Dir: way, Size: l.size, Rank: e.doc.NextRank()})
	e.clearEnd(join(e.path(l.scope), to))
	return pipe
}

// holdsTo says whether everything that was typed holds when a pipe is drawn to a joint, with the tees that this takes.
func (e *editor) holdsTo(l leg, m int, to string, world measure.Dir) ([]awaited, bool) {
	trial := e.trial()
	trial.runTo(l, m, to)
	if trial.resolve() != nil {
		return nil, false
	}
	if _, fits := trial.residual(e); fits {
		return nil, true
	}
	tees := e.tees(trial, world)
	return tees, len(tees) > 0 // the joint was named: nobody has to be asked
}
