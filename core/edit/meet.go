package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
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
	for _, a := range m.tees {
		e.await(a)
	}
	if len(m.tees) > 0 {
		done.Also = append(done.Also, awaitedWords(m.tees))
	}
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

// trial is a copy of the editor, with a document of its own, to try a change on.
func (e *editor) trial() *editor {
	return &editor{
		doc: e.doc.Clone(), unit: e.unit, step: e.step, solve: e.solve, view: e.view, was: e.was, clashed: e.clashed, alias: e.alias,
	}
}

// newClashes are the contradictions of a tried change that the editor before it did not have.
func (e *editor) newClashes(before *editor) (all []*layout.Clash) {
	was := map[string]bool{}
	for i := range before.view.Clashes {
		was[before.view.Clashes[i].Key()] = true
	}
	for i := range e.view.Clashes {
		if c := &e.view.Clashes[i]; !was[c.Key()] && !e.clashed[c.Key()] {
			all = append(all, c)
		}
	}
	return all
}

// residual compares a tried change with the editor before it: off is by how much the
// worst new contradiction is off, and fits says that there is no new one.
func (e *editor) residual(before *editor) (off measure.Length, fits bool) {
	for _, c := range e.newClashes(before) {
		off = max(off, c.Off.Abs())
	}
	for _, f := range e.view.Findings {
		if f.Code == "turned-round" || f.Code == "zero-length" {
			if !told(before.view.Findings, &f) {
				return measure.FrameLimit, false
			}
		}
	}
	return off, off == 0
}

// told says whether a finding is among others: of its code, about the same.
func told(all []finding.Finding, f *finding.Finding) bool {
	return slices.ContainsFunc(all, func(g finding.Finding) bool { return g.Code == f.Code && g.Subject() == f.Subject() })
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
