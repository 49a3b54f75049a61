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
)

// Begin puts the first joint into a frame that has none.
type Begin struct {
	Name string `json:"name,omitempty"` // of the joint
}

func (w *Begin) on(b *bench) (Done, error) {
	def := &b.doc.Root
	if len(def.Joints)+len(def.Uses) > 0 {
		return Done{}, refuse("pick a joint and go on from it", "the frame has begun already")
	}
	j := frame.Joint{ID: w.Name}
	if j.ID == "" {
		j.ID = newJoint(def)
	}
	for a := range 3 {
		if len(def.Axes[a].Stations) == 0 {
			def.Axes[a].Stations = []frame.Station{{ID: measure.Axis(a).String() + "1"}}
		}
		j.At[a] = def.Axes[a].Stations[0].ID
	}
	def.Joints = append(def.Joints, j)
	return Done{Label: "A first joint", Joint: j.ID}, nil
}

// Walk runs a pipe from a joint. The far end is a new joint with the fitting
// that follows, or the joint, or the middle of the pipe, that is there already.
type Walk struct {
	From    string        `json:"from"`              // a joint; "" begins a frame that has none
	In      string        `json:"in,omitempty"`      // the part that gets the pipe: "" is the frame, a use's path its group
	Course  string        `json:"course,omitempty"`  // as typed: right 46 clear
	Along   string        `json:"along,omitempty"`   // instead of a direction in Course: the line of this pipe
	Length  string        `json:"length,omitempty"`  // with Along
	Meaning frame.Meaning `json:"meaning,omitempty"` // of a length without a word for it
	Until   string        `json:"until,omitempty"`   // instead of a length: the station to reach
	Size    catalog.Size  `json:"size,omitempty"`
	Name    string        `json:"name,omitempty"` // of the new joint
	End     frame.End     `json:"end,omitempty"`  // what is at the far end if nothing else follows
}

func (w *Walk) on(b *bench) (Done, error) {
	if w.Size != "" && !w.Size.Known() {
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	if !slices.Contains(frame.Ends(), w.End) {
		return Done{}, refuse("use cap, free or stake", "no such end %q", w.End)
	}
	if w.From == "" && len(b.view.Graph.Nodes) == 0 {
		first, err := (&Begin{}).on(b)
		if err != nil {
			return Done{}, err
		}
		started := *w
		started.From, w = first.Joint, &started
		if err := b.look(); err != nil {
			return Done{}, err
		}
	}
	switch word, rest, _ := strings.Cut(strings.TrimSpace(w.Course), " "); strings.ToLower(word) {
	case "hoop":
		return w.hoop(b, rest)
	case "bend":
		return w.bend(b, rest)
	}
	course, err := w.course(b)
	if err != nil {
		return Done{}, err
	}
	done := Done{Joint: w.From}
	for k := range course.Times {
		step, err := w.step(b, done.Joint, course, k == course.Times-1)
		if err != nil {
			return Done{}, err
		}
		step.Also = append(done.Also, step.Also...)
		done = step
		if k < course.Times-1 {
			if err := b.look(); err != nil {
				return Done{}, err
			}
		}
	}
	far := course.Rest
	if w.Until != "" {
		far = "to " + w.Until
	}
	done.Label = fmt.Sprintf("Pipe %s %s", course.Words, far)
	if course.Times > 1 {
		done.Label = fmt.Sprintf("%d pipes %s %s", course.Times, course.Words, far)
	}
	return done, nil
}

func (w *Walk) course(b *bench) (Course, error) {
	if w.Along == "" {
		return ParseCourse(w.Course)
	}
	e, err := b.edge(w.Along)
	if err != nil {
		return Course{}, err
	}
	n, err := b.node(w.From)
	if err != nil {
		return Course{}, err
	}
	scope, err := b.scope(w.In)
	if err != nil {
		return Course{}, err
	}
	// on beyond the joint when the pipe ends there, else the way it was drawn
	end := 0
	if b.view.Graph.Edges[e].Ends[0] == n {
		end = 1
	}
	d := b.leaves(frame.PipeEnd{Pipe: e, End: end})
	return Course{Dir: b.view.Places[scope].Turned(d), Words: "along " + w.Along, Rest: w.Length, Times: 1}, nil
}

// step runs one pipe.
func (w *Walk) step(b *bench, from string, c Course, last bool) (Done, error) {
	scope, err := b.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	n, err := b.node(from)
	if err != nil {
		return Done{}, err
	}
	ref, ok := b.ref(scope, from)
	if !ok {
		return Done{}, refuse("pick a joint inside it, or work on the whole frame", "the joint %q is not in %q", from, w.In)
	}
	place := &b.view.Places[scope]
	world := b.view.Graph.Scopes[scope].Orient.Dir(c.Dir.Unit())
	for _, pe := range b.view.Graph.Nodes[n].Pipes {
		if b.leaves(pe).AngleTo(world) < 1 {
			return Done{}, refuse("split that pipe, or make it longer", "the pipe %s leaves %s that way already", b.view.Graph.Edges[pe.Pipe].ID, from)
		}
	}
	def := b.def(scope)
	pipe := frame.Pipe{ID: newPipe(def), From: ref, Size: w.Size}
	j := frame.Joint{ID: newJoint(def)}
	if w.Name != "" && last {
		j.ID = w.Name
		if b.has(def, j.ID) {
			return Done{}, refuse("give it another name", "there is a joint %q already", j.ID)
		}
	}
	if last {
		j.End = cmp.Or(w.End, c.End)
	}
	pipe.To = j.ID
	d, err := w.far(b, scope, n, ref, c, &j, pipe.ID)
	if err != nil {
		return Done{}, err
	}
	def.Joints = append(def.Joints, j)
	def.Pipes = append(def.Pipes, pipe)
	was := b.view.Graph.Nodes[n].End
	if was != frame.OpenEnd {
		b.opened(from) // a capped end that goes on is no end any more
	}
	done := Done{Joint: join(place.Path, j.ID), Pipe: join(place.Path, pipe.ID), Also: b.everywhere(scope)}
	return b.meet(done, scope, j.ID, pipe.ID, world, d)
}

// far places the far joint: on stations where the walk runs along an axis from
// a place on stations, else by the walk itself.
func (w *Walk) far(b *bench, scope, from int, ref string, c Course, j *frame.Joint, pipe string) (*frame.Dimension, error) {
	def := b.def(scope)
	at, stood := b.stationsOf(scope, b.view.Points[from])
	a, sign, square := along(c.Dir)
	if w.Until != "" {
		return nil, w.until(b, scope, at, stood && square, a, ref, c, j)
	}
	d, err := b.size(c.Rest, w.Meaning)
	if err != nil {
		return nil, err
	}
	if d.Meaning == frame.Visible || d.Meaning == frame.Cut {
		d.Of = pipe
	}
	if !stood || !square {
		if d.Meaning == frame.TopOfPipe || d.Meaning == frame.TopOfCap {
			return nil, refuse("say centre, outside, clear or cut", "a height is measured straight up")
		}
		dir := c.Dir
		j.Walk = &frame.Walk{From: ref, Dir: &dir, Size: &d}
		return &d, nil
	}
	d.From, d.Back = at[a], sign < 0
	if d.Meaning == frame.TopOfPipe || d.Meaning == frame.TopOfCap {
		if a != measure.Z || sign < 0 {
			return nil, refuse("walk up for it", "a height is measured straight up")
		}
		d.From, d.Back = frame.Floor, false
	}
	st := frame.Station{ID: newStation(def, a), At: &d}
	def.Axes[a].Stations = append(def.Axes[a].Stations, st)
	j.At = at
	j.At[a] = st.ID
	return &d, nil
}

func (w *Walk) until(b *bench, scope int, at [3]string, square bool, a measure.Axis, ref string, c Course, j *frame.Joint) error {
	place := &b.view.Places[scope]
	for k := range 3 {
		if c.Dir[k] == 0 || square && measure.Axis(k) != a {
			continue
		}
		i := slices.IndexFunc(place.Stations[k], func(s layout.Stood) bool { return s.ID == w.Until })
		if i < 0 {
			continue
		}
		if square {
			j.At = at
			j.At[a] = w.Until
			return nil
		}
		dir := c.Dir
		j.Walk = &frame.Walk{From: ref, Dir: &dir, Until: &frame.Until{Axis: measure.Axis(k), Station: w.Until}}
		return nil
	}
	return refuse("name a station that lies that way", "no station %q that way", w.Until)
}

// Join runs a pipe between two joints.
type Join struct {
	From string       `json:"from"`
	To   string       `json:"to"`
	In   string       `json:"in,omitempty"`
	Size catalog.Size `json:"size,omitempty"`
}

func (w *Join) on(b *bench) (Done, error) {
	scope, err := b.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	var refs [2]string
	var nodes [2]int
	for k, id := range []string{w.From, w.To} {
		if nodes[k], err = b.node(id); err != nil {
			return Done{}, err
		}
		var ok bool
		if refs[k], ok = b.ref(scope, id); !ok {
			return Done{}, refuse("work on the whole frame to reach it", "the joint %q is not in %q", id, w.In)
		}
	}
	switch {
	case nodes[0] == nodes[1]:
		return Done{}, refuse("pick another joint", "a pipe from a joint to itself")
	case b.joined(nodes[0], nodes[1]):
		return Done{}, refuse("they are one pipe apart", "a pipe joins %q and %q already", w.From, w.To)
	case w.Size != "" && !w.Size.Known():
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	def := b.def(scope)
	p := frame.Pipe{ID: newPipe(def), From: refs[0], To: refs[1], Size: w.Size}
	def.Pipes = append(def.Pipes, p)
	b.opened(w.From)
	b.opened(w.To)
	done := Done{Label: fmt.Sprintf("Pipe from %s to %s", w.From, w.To), Joint: w.To, Pipe: join(b.view.Places[scope].Path, p.ID), Also: b.everywhere(scope)}
	if err := b.look(); err != nil {
		return Done{}, err
	}
	return b.through(done, scope, p.ID)
}
