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

// Begin puts the first joint into a frame that has none.
type Begin struct {
	Name string `json:"name,omitempty"` // of the joint
}

var _ = register[Begin]("begin")

func (w *Begin) on(e *editor) (Done, error) {
	if len(e.view.Graph.Nodes) > 0 {
		return Done{}, refuse("pick a joint and go on from it", "the frame has begun already")
	}
	return Done{Label: "A first joint", Joint: e.doc.AddJoint(&e.doc.Root, frame.Joint{ID: w.Name})}, nil
}

// Walk runs a pipe from a joint. The far end is a new joint with the fitting
// that follows, or the joint, or the middle of the pipe, that is there already.
type Walk struct {
	From    string        `json:"from"`              // a joint; "" begins a frame that has none
	In      string        `json:"in,omitempty"`      // the part that gets the pipe: "" is the frame, a use's path its group
	Line    string        `json:"line,omitempty"`    // as typed: right 46 clear; right to j7; up to =shelf
	Along   string        `json:"along,omitempty"`   // instead of a direction in Line: the direction of this pipe
	Length  string        `json:"length,omitempty"`  // with Along
	Meaning frame.Meaning `json:"meaning,omitempty"` // of a length without a word for it
	Until   string        `json:"until,omitempty"`   // instead of a length: the joint or named plane to reach
	Size    catalog.Size  `json:"size,omitempty"`
	Name    string        `json:"name,omitempty"` // of the new joint
	End     frame.End     `json:"end,omitempty"`  // what is at the far end if nothing else follows
}

var _ = register[Walk]("walk")

func (w *Walk) on(e *editor) (Done, error) {
	if w.Size != "" && !w.Size.Known() {
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	if !slices.Contains(frame.Ends(), w.End) {
		return Done{}, refuse("use cap, free or stake", "no such end %q", w.End)
	}
	if n := e.called(w.From); n >= 0 && e.view.Graph.Nodes[n].ID != w.From { // its short name was typed
		named := *w
		named.From, w = e.view.Graph.Nodes[n].ID, &named
	}
	if w.From == "" && len(e.view.Graph.Nodes) == 0 {
		started := *w
		started.From, w = e.doc.AddJoint(&e.doc.Root, frame.Joint{}), &started
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
	}
	switch word, rest, _ := strings.Cut(strings.TrimSpace(w.Line), " "); strings.ToLower(word) {
	case "hoop":
		return w.hoop(e, rest)
	case "bend":
		return w.bend(e, rest)
	}
	line, err := w.parse(e)
	if err != nil {
		return Done{}, err
	}
	done := Done{Joint: w.From}
	for k := range line.Times {
		e.goesOnYet = k < line.Times-1
		step, err := w.step(e, done.Joint, line, !e.goesOnYet)
		if err != nil {
			return Done{}, err
		}
		step.Also = append(done.Also, step.Also...)
		done = step
	}
	far := line.Rest
	if w.Until != "" {
		far = "to " + w.Until
	}
	done.Label = strings.TrimSpace(fmt.Sprintf("Pipe %s %s", line.Words, far))
	if line.Times > 1 {
		done.Label = fmt.Sprintf("%d pipes %s %s", line.Times, line.Words, far)
	}
	return done, nil
}

func (w *Walk) parse(e *editor) (ParsedLine, error) {
	if w.Along == "" {
		return ParseLine(w.Line)
	}
	i, err := e.edge(w.Along)
	if err != nil {
		return ParsedLine{}, err
	}
	n, err := e.node(w.From)
	if err != nil {
		return ParsedLine{}, err
	}
	scope, err := e.scope(w.In)
	if err != nil {
		return ParsedLine{}, err
	}
	// on beyond the joint when the pipe ends there, else the way it was drawn
	end := 0
	if e.view.Graph.Edges[i].Ends[0] == n {
		end = 1
	}
	d := e.leaves(frame.PipeEnd{Pipe: i, End: end})
	return ParsedLine{Dir: exactly(e.place(scope).Turned(d)), Words: "along " + w.Along, Rest: w.Length, Times: 1}, nil
}

// exactly takes what turning left of a direction along an axis off it.
func exactly(d measure.Dir) measure.Dir {
	if a, sign, ok := axisAlong(d); ok {
		d = measure.Dir{}
		d[a] = sign
	}
	return d
}

// start finds the part and the joint that a walk begins at.
func (w *Walk) start(e *editor, from string) (scope, n int, ref string, err error) {
	if scope, err = e.scope(w.In); err != nil {
		return 0, 0, "", err
	}
	if n, err = e.node(from); err != nil {
		return 0, 0, "", err
	}
	ref, ok := e.ref(scope, from)
	if !ok {
		return 0, 0, "", refuse("pick a joint inside it, or work on the whole frame", "the joint %s is not in %q", mention.Of(from), w.In)
	}
	if w.Name != "" && (e.def(scope).Joint(w.Name) != nil || e.def(scope).Use(w.Name) != nil) {
		return 0, 0, "", refuse("give it another name", "there is a joint %q already", w.Name)
	}
	return scope, n, ref, nil
}

// step runs one pipe.
func (w *Walk) step(e *editor, from string, c ParsedLine, last bool) (Done, error) {
	scope, n, ref, err := w.start(e, from)
	if err != nil {
		return Done{}, err
	}
	world := e.view.Graph.Scopes[scope].Orient.Dir(c.Dir.Unit())
	for _, pe := range e.view.Graph.Nodes[n].Pipes {
		if e.leaves(pe).AngleTo(world) < 1 {
			return Done{}, refuse(
				"split that pipe, or make it longer",
				"the pipe %s leaves %s that way already",
				mention.Of(e.view.Graph.Edges[pe.Pipe].ID),
				mention.Of(from),
			)
		}
	}
	def := e.def(scope)
	j := frame.Joint{}
	if last {
		j.ID, j.End = w.Name, c.End
		if w.End != frame.OpenEnd {
			j.End = w.End
		}
	}
	until := w.Until
	if rest := strings.TrimSpace(c.Rest) + " "; len(rest) >= 3 && strings.EqualFold(rest[:3], "to ") && until == "" {
		if until = strings.TrimSpace(rest[3:]); until == "" {
			return Done{}, refuse("name a joint or a plane, as in right to j7", "run to what?")
		}
	} else if size, to, ok := strings.Cut(rest, " to "); ok && until == "" && !strings.Contains(to, "top") {
		return Done{}, refuse(
			"leave one of them out: right "+size+", or right to "+strings.TrimSpace(to),
			"a length, and what it is to end at, at once",
		)
	}
	e.clearEnd(from) // a capped end that goes on is no end any more
	dir := c.Dir.Unit()
	if until != "" {
		return w.until(e, scope, n, ref, dir, strings.TrimSpace(until), j)
	}
	size, err := e.size(c.Rest, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	foot, err := e.height(&size, scope, dir)
	if err != nil {
		return Done{}, err
	}
	rank := e.doc.NextRank()
	id := e.doc.AddJoint(def, j)
	pipe := e.doc.AddPipe(def, frame.Pipe{From: ref, To: id, Dir: &dir, Size: w.Size, Rank: rank})
	size.Rank = rank
	if foot != "" {
		size.Axis, size.From, size.To, size.Foot = "z", frame.Floor, frame.Ref(id), foot
	} else {
		size.Pipe = pipe
	}
	sizeID := e.doc.AddSize(def, size)
	if foot != "" {
		e.heights = append(e.heights, sizeID)
	}
	path := e.path(scope)
	done := Done{Joint: join(path, id), Pipe: join(path, pipe), Also: e.everywhere(scope)}
	return e.meet(done, scope, id, pipe)
}

// height says whether a size is a height from the floor, and then the joint
// whose body stands lowest now.
func (e *editor) height(s *frame.Size, scope int, dir measure.Dir) (foot string, err error) {
	if s.Meaning != frame.TopOfPipe && s.Meaning != frame.TopOfCap {
		return "", nil
	}
	if a, sign, ok := axisAlong(dir); !ok || a != measure.Z || sign < 0 {
		return "", refuse("walk up for it", "a height is measured straight up")
	}
	if e.view.Lowest >= 0 {
		if ref, ok := e.ref(scope, e.view.Graph.Nodes[e.view.Lowest].ID); ok {
			return ref, nil
		}
	}
	return "", refuse("say centre, outside, clear or cut", "this part does not stand on the floor itself")
}

// until runs a pipe as far as a joint or a named plane.
func (w *Walk) until(e *editor, scope, n int, ref string, dir measure.Dir, to string, j frame.Joint) (Done, error) {
	def, path := e.def(scope), e.path(scope)
	m := e.view.Graph.Node(join(path, to))
	if k := e.called(to); m < 0 && k >= 0 {
		if local, within := e.ref(scope, e.view.Graph.Nodes[k].ID); within {
			m, to = k, local
		}
	}
	if m >= 0 {
		return w.toJoint(e, scope, n, m, ref, to, dir)
	}
	place := e.place(scope)
	name := strings.TrimPrefix(to, "=")
	for a := range measure.Axis(3) {
		i := slices.IndexFunc(place.Planes[a], func(p layout.Plane) bool { return p.Ref == frame.OnPlane(name) })
		if i < 0 || dir[a] == 0 {
			continue
		}
		here := place.Local(e.view.Points[n])[a]
		if far := place.Planes[a][i].At - here; far == 0 || (far > 0) != (dir[a] > 0) {
			return Done{}, refuse("name one that lies that way", "%s is not that way", to)
		}
		j.On[a] = name
		id := e.doc.AddJoint(def, j)
		pipe := e.doc.AddPipe(def, frame.Pipe{From: ref, To: id, Dir: &dir, Size: w.Size})
		done := Done{Joint: join(path, id), Pipe: join(path, pipe), Also: e.everywhere(scope)}
		return e.meet(done, scope, id, pipe)
	}
	return Done{}, refuse("name a joint, or a named plane that lies that way", "no joint or plane %q that way", to)
}

// toJoint runs a pipe in a direction until it is level with a joint, or to the
// joint itself where it lies that way.
func (w *Walk) toJoint(e *editor, scope, n, m int, ref, to string, dir measure.Dir) (Done, error) {
	def, path := e.def(scope), e.path(scope)
	if n == m || e.joined(n, m) {
		return Done{}, refuse("they are one pipe apart", "a pipe joins them already")
	}
	world := e.view.Graph.Scopes[scope].Orient.Dir(dir)
	line := e.view.Points[m].Sub(e.view.Points[n])
	var far measure.Length
	for a := range 3 {
		far += line[a].Scale(world[a])
	}
	if far <= 0 {
		return Done{}, refuse("name one that lies that way", "%s is not that way", to)
	}
	rank := e.doc.NextRank()
	if e.view.Points[n].Along(world, far).Distance(e.view.Points[m]) <= socketOf(w.sizeOf(e, scope)) {
		pipe := e.doc.AddPipe(def, frame.Pipe{From: ref, To: to, Dir: &dir, Size: w.Size, Rank: rank})
		e.clearEnd(join(path, to))
		done := Done{Joint: join(path, to), Pipe: join(path, pipe), Also: append(e.everywhere(scope), "meets "+to)}
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
		return e.through(done, scope, pipe)
	}
	a, _, square := axisAlong(dir)
	if !square {
		return Done{}, refuse("say how long it is", "%s is not in that line", to)
	}
	id := e.doc.AddJoint(def, frame.Joint{ID: w.Name, End: w.End})
	pipe := e.doc.AddPipe(def, frame.Pipe{From: ref, To: id, Dir: &dir, Size: w.Size, Rank: rank})
	e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(id), To: frame.Ref(to), Rank: rank})
	done := Done{Joint: join(path, id), Pipe: join(path, pipe), Also: append(e.everywhere(scope), "level with "+to)}
	return e.meet(done, scope, id, pipe)
}

func (w *Walk) sizeOf(e *editor, scope int) catalog.Size {
	return cmp.Or(w.Size, e.usual(scope))
}

// usual is the size of a scope's pipes that say none.
func (e *editor) usual(scope int) catalog.Size { return cmp.Or(e.def(scope).Size, e.doc.Size) }

// Join runs a pipe between two joints. Where they lie along an axis it keeps
// them in line from then on.
type Join struct {
	From string       `json:"from"`
	To   string       `json:"to"`
	In   string       `json:"in,omitempty"`
	Size catalog.Size `json:"size,omitempty"`
}

var _ = register[Join]("join")

func (w *Join) on(e *editor) (Done, error) {
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	var refs [2]string
	var nodes [2]int
	for k, id := range []string{w.From, w.To} {
		if nodes[k], err = e.node(id); err != nil {
			return Done{}, err
		}
		var ok bool
		if refs[k], ok = e.ref(scope, id); !ok {
			return Done{}, refuse("work on the whole frame to reach it", "the joint %s is not in %q", mention.Of(id), w.In)
		}
	}
	switch {
	case nodes[0] == nodes[1]:
		return Done{}, refuse("pick another joint", "a pipe from a joint to itself")
	case e.joined(nodes[0], nodes[1]):
		return Done{}, refuse("they are one pipe apart", "a pipe joins %s and %s already", mention.Of(w.From), mention.Of(w.To))
	case w.Size != "" && !w.Size.Known():
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	p := frame.Pipe{From: refs[0], To: refs[1], Size: w.Size}
	if at := e.sizeAt(nodes[:]...); w.Size == "" && at != e.usual(scope) {
		p.Size = at // as the pipes that it joins
	}
	local := e.place(scope).Local(e.view.Points[nodes[1]]).Sub(e.place(scope).Local(e.view.Points[nodes[0]]))
	p.Dir = straight(local)
	id := e.doc.AddPipe(e.def(scope), p)
	e.clearEnd(w.From)
	e.clearEnd(w.To)
	done := Done{
		Label: fmt.Sprintf("Pipe from %s to %s", mention.Of(w.From), mention.Of(w.To)),
		Joint: w.To,
		Pipe:  join(e.path(scope), id),
		Also:  e.everywhere(scope),
	}
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	return e.through(done, scope, id)
}

// sizeAt is the size of all pipes at some joints, where they are of one size.
func (e *editor) sizeAt(nodes ...int) (size catalog.Size) {
	for _, n := range nodes {
		for _, pe := range e.view.Graph.Nodes[n].Pipes {
			switch s := e.view.Graph.Edges[pe.Pipe].Size; {
			case size == "":
				size = s
			case size != s:
				return ""
			}
		}
	}
	return size
}

// straight is the direction of a way that runs along an axis but for what no
// tape shows; nil of any other.
func straight(v measure.Point) *measure.Dir {
	for a := range v {
		b, c := (a+1)%3, (a+2)%3
		if v[b].Abs() <= layout.TapeStep && v[c].Abs() <= layout.TapeStep && v[a].Abs() > 2*layout.TapeStep {
			var d measure.Dir
			if d[a] = 1; v[a] < 0 {
				d[a] = -1
			}
			return &d
		}
	}
	return nil
}
