package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// meeting is a joint, or a point of a pipe, that the end of a new pipe may be meant
// to reach.
type meeting struct {
	joint int // -1: a pipe
	pipe  int
	name  string
	off   measure.Length // from where the end is now
	tees  []awaited      // with which everything holds
}

// meet checks what the far end of a new pipe came close to. A joint or pipe within
// a step of the tape, reckoned with the fitting that would stand there, is joined;
// nearer than a socket's depth, it asks whether they meet. Joints that lie on the
// new pipe's line become joints of it.
func (e *editor) meet(done Done, scope int, joint, pipe string) (Done, error) {
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	path := e.path(scope)
	if err := e.refuseNoLength(join(path, pipe)); err != nil {
		return Done{}, err
	}
	i := e.view.Graph.Edge(join(path, pipe))
	way := e.view.Tangents[i][0]
	var ask []meeting
	var along *meeting // a pipe that it meets where it is
	all := e.candidates(scope, join(path, joint), join(path, pipe))
	slices.SortStableFunc(all, func(x, y meeting) int { return order(!e.isToMeet(x.name), !e.isToMeet(y.name)) })
	for _, m := range all {
		trial := e.trial()
		if !trial.leadTo(scope, joint, m) || trial.resolve() != nil {
			continue
		}
		off, fits := trial.residual(e)
		if !fits && m.joint >= 0 {
			m.tees = e.tees(trial, way)
		}
		switch {
		case fits && m.joint < 0:
			if along == nil {
				along = &m
			}
		case fits, len(m.tees) > 0 && sure(m.tees):
			return e.applyMeeting(done, scope, joint, pipe, m)
		case off <= socketOf(e.view.Graph.Edges[i].Size), len(m.tees) > 0:
			m.off = off // by how much what was typed does not reach it
			ask = append(ask, m)
		}
	}
	if k := slices.IndexFunc(ask, func(m meeting) bool { return e.answered("meet " + m.name) }); k >= 0 {
		return e.applyMeeting(done, scope, joint, pipe, ask[k])
	}
	if along != nil && (len(ask) == 0 || e.answered("meet "+along.name)) {
		return e.applyMeeting(done, scope, joint, pipe, *along)
	}
	if len(ask) > 0 && !e.answered("apart") {
		q := &Question{
			Title: "Does it meet?",
			What:  fmt.Sprintf("It ends close to %s (%s): is it to meet it?", mention.Of(ask[0].name), e.off(ask[0].off)),
		}
		for _, m := range ask {
			label := "Meet " + mention.Of(m.name)
			if len(m.tees) > 0 {
				label += ", with " + teesAt(m.tees)
			}
			q.Options = append(q.Options, Option{ID: "meet " + m.name, Label: label})
		}
		if along != nil {
			q.Options = append(
				q.Options,
				Option{ID: "meet " + along.name, Label: "Meet the pipe " + mention.Of(along.name) + " in a tee, as typed"},
			)
		}
		q.Options = append(q.Options, Option{ID: "apart", Label: "Stay apart, as typed"})
		return Done{}, q
	}
	return e.through(done, scope, pipe)
}

// isToMeet says whether it was answered that something is to be met.
func (e *editor) isToMeet(name string) bool {
	return slices.ContainsFunc(e.toMeet(), func(answer string) bool { return e.thingCalled(answer) == name })
}

// toMeet are the names of what is to be met, as they were answered.
func (e *editor) toMeet() (all []string) {
	for _, a := range e.answers {
		if name, is := strings.CutPrefix(a, "meet "); is {
			all = append(all, name)
		}
	}
	return all
}

// thingCalled is the path of a joint or a pipe, by it or by a joint's short name; "" where there is none.
func (e *editor) thingCalled(name string) string {
	if n := e.called(name); n >= 0 {
		return e.view.Graph.Nodes[n].ID
	}
	if e.view.Graph.Edge(name) >= 0 {
		return name
	}
	return ""
}

// metAsAnswered refuses a line whose answer says that it meets something that it does not.
func (e *editor) metAsAnswered() error {
	for _, name := range e.toMeet() {
		at := e.thingCalled(name)
		was := at
		if n := slices.Index(layout.ShortNames(e.was.Graph), name); at == "" && n >= 0 { // it was met, and goes by another name now
			was = e.was.Graph.Nodes[n].ID
		}
		if was == "" {
			return refuse("take (meet "+name+") off, or name one that is there", "there is no joint or pipe %q to meet", name)
		}
		if !slices.Contains(e.met, was) {
			return refuse("take (meet "+name+") off, or change its length", "it does not end near %s", mention.Of(was))
		}
	}
	return nil
}

// applyMeeting ends a new pipe at what it meets, with the tees that this takes.
func (e *editor) applyMeeting(done Done, scope int, joint, pipe string, m meeting) (Done, error) {
	e.met = append(e.met, m.name)
	e.leadTo(scope, joint, m)
	e.awaitAll(m.tees, &done)
	if m.joint >= 0 {
		done.Joint = m.name
		done.Also = append(done.Also, "meets "+mention.Of(m.name))
	} else {
		done.Also = append(done.Also, "meets the pipe "+mention.Of(m.name)+" in a tee")
	}
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	return e.through(done, scope, pipe)
}

// refuseNoLength refuses a pipe whose centre distance is below zero.
func (e *editor) refuseNoLength(pipe string) error {
	if e.goesOnYet {
		return nil // the fitting that comes next gives it its length
	}
	for _, f := range e.view.Findings {
		if (f.Code == "turned-round" || f.Code == "zero-length") && f.Subject() == pipe {
			return refuse("write a larger size: the bodies at both ends take that much", "the pipe has no length")
		}
	}
	return nil
}

// candidates lists the joints and pipes that the end of a new pipe may be meant to
// reach, the nearest first.
func (e *editor) candidates(scope int, joint, pipe string) (all []meeting) {
	g, points := e.view.Graph, e.view.Points
	n, i := g.Node(joint), g.Edge(pipe)
	if n < 0 || i < 0 {
		return nil
	}
	from := g.Edges[i].Ends[0]
	if from == n {
		from = g.Edges[i].Ends[1]
	}
	line, long := points[from].Toward(points[n]), points[from].Distance(points[n])
	free := reachOf(g.Edges[i].Size)
	for k := range points {
		if k == n || k == from || len(g.Nodes[k].Pipes) == 0 || e.joined(from, k) {
			continue
		}
		if _, inside := e.ref(scope, g.Nodes[k].ID); !inside {
			continue
		}
		if off := points[n].Distance(points[k]); off <= free+reachOf(biggest(e, k)) && points[from].Toward(points[k]).Dot(line) > 0 {
			all = append(all, meeting{joint: k, pipe: -1, name: g.Nodes[k].ID, off: off})
		}
	}
	for k := range g.Edges {
		if k == i || g.Edges[k].Scope != scope || g.Edges[k].Path != frame.Straight {
			continue
		}
		p, ok := crossing(points[from], line, points[g.Edges[k].Ends[0]], points[g.Edges[k].Ends[1]])
		if !ok || !e.runsThrough(k, p, layout.TapeStep) {
			continue
		}
		if off := (points[from].Distance(p) - long).Abs(); off <= free {
			all = append(all, meeting{joint: -1, pipe: k, name: g.Edges[k].ID, off: off})
		}
	}
	// joints before pipes: a pipe is met wherever the line crosses it
	slices.SortStableFunc(all, func(x, y meeting) int {
		return cmp.Or(cmp.Compare(min(0, x.pipe)+1, min(0, y.pipe)+1), cmp.Compare(x.off, y.off))
	})
	return all[:min(len(all), 8)]
}

// biggest is the largest size of the pipes at a joint.
func biggest(e *editor, n int) (size catalog.Size) {
	for _, pe := range e.view.Graph.Nodes[n].Pipes {
		if s := e.view.Graph.Edges[pe.Pipe].Size; size == "" || catalog.Compare(s, size) > 0 {
			size = s
		}
	}
	return size
}

// leadTo ends a new pipe at the joint, or in a new joint on the pipe, that it meets.
// It reports whether that is possible.
func (e *editor) leadTo(scope int, joint string, m meeting) bool {
	def := e.def(scope)
	if m.joint >= 0 {
		ref, ok := e.ref(scope, m.name)
		if !ok {
			return false
		}
		own := def.Joint(joint)
		own.End = frame.OpenEnd
		e.doc.MergeJoints(def, ref, joint)
		e.clearEnd(m.name)
		return true
	}
	local, ok := e.ref(scope, m.name)
	if !ok || def.Pipe(local) == nil {
		return false
	}
	def.Joint(joint).End = frame.OpenEnd
	e.splitAt(scope, local, joint)
	return true
}
