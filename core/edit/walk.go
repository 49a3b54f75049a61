package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Walk runs a pipe from a joint, or the same from each of several. The far end is a new joint
// with the fitting that follows, or the joint, or the middle of the pipe, that is there already.
type Walk struct {
	From    string        `json:"from"`              // a joint; "" begins a frame that has none
	More    []string      `json:"more,omitempty"`    // joints from which the same is run besides
	In      string        `json:"in,omitempty"`      // the part that gets the pipe: "" is the frame, a use's path its group
	Line    string        `json:"line,omitempty"`    // as typed, as [ParseLine] reads it; or hoop and bend with theirs
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
	e.runs = true
	if len(w.More) == 0 {
		done, err := w.one(e)
		if err == nil {
			err = e.metAsAnswered()
		}
		return done, err
	}
	if w.Name != "" {
		return Done{}, in("/name", refuse("leave the name out, or run it from one joint", "one name for several joints"))
	}
	done := Done{}
	for _, from := range slices.Compact(append([]string{w.From}, w.More...)) {
		each := *w
		each.From, each.More = from, nil
		step, err := each.one(e)
		if err != nil {
			return Done{}, err
		}
		step.Also = append(done.Also, step.Also...)
		step.Ends = append(done.Ends, step.Joint)
		done = step
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
	}
	done.Label += fmt.Sprintf(", from %d joints", len(done.Ends))
	return done, e.metAsAnswered()
}

// one runs from one joint.
func (w *Walk) one(e *editor) (Done, error) {
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
	done.Label = strings.TrimSpace(fmt.Sprintf("Pipe %s %s", line.Words, line.says()))
	if line.Times > 1 {
		done.Label = fmt.Sprintf("%d pipes %s %s", line.Times, line.Words, line.says())
	}
	return done, nil
}

// parse reads the line, with what the other fields say instead of it.
func (w *Walk) parse(e *editor) (Line, error) {
	if w.Along != "" {
		l := Line{Along: w.Along, Words: "along " + mention.Of(w.Along), Length: w.Length, Times: 1}
		if w.Until != "" {
			l.Goal, l.Mark = To, w.Until
		}
		return l, w.along(e, &l)
	}
	l, err := ParseLine(w.Line)
	if err != nil {
		return l, err
	}
	if w.Until != "" && l.Goal == NoGoal && l.Length == "" {
		l.Goal, l.Mark = To, w.Until
	}
	switch {
	case l.Along != "":
		if i := e.view.Graph.Edge(l.Along); i >= 0 {
			l.Words = "along " + mention.Of(l.Along)
		}
		return l, w.along(e, &l)
	case l.Toward != "":
		return l, w.toward(e, &l)
	}
	return l, nil
}

// along takes the direction of a pipe: on beyond the joint when it ends there, else the way
// it was drawn.
func (w *Walk) along(e *editor, l *Line) error {
	i, err := e.edge(l.Along)
	if err != nil {
		return err
	}
	n, err := e.node(w.From)
	if err != nil {
		return err
	}
	scope, err := e.scope(w.In)
	if err != nil {
		return err
	}
	end := 0
	if e.view.Graph.Edges[i].Ends[0] == n {
		end = 1
	}
	d := e.leaves(frame.PipeEnd{Pipe: i, End: end})
	l.Dir = exactly(e.place(scope).Turned(d))
	return nil
}

// toward takes the direction to a joint, or square to a pipe the shortest way. With no length
// that is what the line runs to.
func (w *Walk) toward(e *editor, l *Line) error {
	scope, n, _, err := w.start(e, w.From)
	if err != nil {
		return err
	}
	at := e.view.Points[n]
	var far measure.Point
	if m := e.called(l.Toward); m >= 0 {
		far = e.view.Points[m]
	} else if i := e.view.Graph.Edge(l.Toward); i >= 0 {
		ends := e.view.Graph.Edges[i].Ends
		far = nearestOn(at, e.view.Points[ends[0]], e.view.Points[ends[1]])
		l.Words = "toward " + mention.Of(l.Toward)
	} else {
		return &Refusal{
			What: fmt.Sprintf("there is no joint or pipe %q", l.Toward), Hint: "name one that is there, as in toward C", At: l.at.mark,
		}
	}
	if at.Distance(far) <= near {
		return &Refusal{What: l.Toward + " is where the line begins", Hint: "name another one", At: l.at.mark}
	}
	l.Dir = exactly(e.place(scope).Turned(at.Toward(far)))
	if l.Goal == NoGoal && l.Length == "" {
		l.Goal, l.Mark = To, l.Toward
	}
	return nil
}

// nearestOn is the point of a line between two points that is nearest to another one.
func nearestOn(p, u, v measure.Point) measure.Point {
	line, far := u.Toward(v), measure.Length(0)
	for a := range p {
		far += (p[a] - u[a]).Scale(line[a])
	}
	return u.Along(line, min(max(0, far), u.Distance(v)))
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
	if taken(e.def(scope), w.Name) {
		return 0, 0, "", refuse("give it another name", "there is a joint %q already", w.Name)
	}
	return scope, n, ref, nil
}

// step runs one pipe.
func (w *Walk) step(e *editor, from string, c Line, last bool) (Done, error) {
	scope, n, ref, err := w.start(e, from)
	if err != nil {
		return Done{}, err
	}
	world := e.view.Graph.Scopes[scope].Orient.Dir(c.Dir.Unit())
	for _, pe := range e.view.Graph.Nodes[n].Pipes {
		if e.leaves(pe).AngleTo(world) < 1 {
			if e.says(w, c, scope, pe) {
				return e.thereAlready(pe), nil
			}
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
		j.Name, j.End = w.Name, c.End
		if w.End != frame.OpenEnd {
			j.End = w.End
		}
	}
	of := cmp.Or(c.Size, w.Size)
	dir := c.Dir.Unit()
	if c.Goal != NoGoal {
		e.clearEnd(from)
		return e.until(leg{scope: scope, n: n, ref: ref, dir: dir, joint: j, size: of, straightTo: c.Toward != "" && c.Mark == c.Toward}, c)
	}
	size, err := e.size(c.Length, w.Meaning)
	if err != nil {
		return Done{}, shifted(err, c.at.length)
	}
	e.clearEnd(from) // a capped end that goes on is no end any more
	foot, err := e.height(&size, scope, dir)
	if err != nil {
		return Done{}, err
	}
	rank := e.doc.NextRank()
	id := e.doc.AddJoint(def, j)
	pipe := e.doc.AddPipe(def, frame.Pipe{From: ref, To: id, Dir: &dir, Size: of, Rank: rank})
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

// says whether a line would run a pipe that is there already: to the same joint, or of the length that was typed for it.
func (e *editor) says(w *Walk, c Line, scope int, pe frame.PipeEnd) bool {
	pipe := &e.view.Graph.Edges[pe.Pipe]
	if c.Goal == To {
		return e.called(c.Mark) == pipe.Ends[1-pe.End]
	}
	local, within := e.ref(scope, pipe.ID)
	size, err := e.size(c.Length, w.Meaning)
	return c.Goal == NoGoal && within && err == nil && slices.ContainsFunc(e.def(scope).Sizes, func(s frame.Size) bool {
		return s.Pipe == local && s.Gave == nil && s.Value == size.Value && s.Meaning == size.Meaning
	})
}

// thereAlready is what a line does that would run a pipe which is there: nothing, and it says so. The next one goes on from
// the pipe's far end.
func (e *editor) thereAlready(pe frame.PipeEnd) Done {
	pipe := &e.view.Graph.Edges[pe.Pipe]
	e.met = append(e.met, e.view.Graph.Nodes[pipe.Ends[1-pe.End]].ID)
	return Done{
		Joint: e.view.Graph.Nodes[pipe.Ends[1-pe.End]].ID,
		Pipe:  pipe.ID,
		Also:  []string{"nothing is done: " + mention.Of(pipe.ID) + " runs there already"},
	}
}

// shifted moves the place of a refusal by where the text that it is about begins.
func shifted(err error, by int) error {
	if r, ok := err.(*Refusal); ok { //nolint:errorlint // it is not wrapped
		moved := *r
		moved.At += by
		return &moved
	}
	return err
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

// usual is the size of a scope's pipes that say none.
func (e *editor) usual(scope int) catalog.Size { return cmp.Or(e.def(scope).Size, e.doc.Size) }
