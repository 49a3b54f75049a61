package edit

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Bow makes a pipe sprung, or straight again.
type Bow struct {
	Pipe   string    `json:"pipe"`
	Say    string    `json:"say,omitempty"`    // "rise 24", "rise 24 under", "of 10 ft"; "" for straight
	Toward string    `json:"toward,omitempty"` // the side it bows to, in words; up by default
	Leave  [2]string `json:"leave,omitempty"`  // how each end is held: a direction in words, "" for one that turns freely
}

func (w *Bow) on(b *bench) (Done, error) {
	def, i, scope, err := b.pipe(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	p := &def.Pipes[i]
	b.freeze(def, p.ID)
	if strings.TrimSpace(w.Say) == "" {
		b.dropVia(def, p)
		p.Path, p.Spring, p.Via, p.Radius = frame.Straight, nil, nil, 0
		return Done{Label: w.Pipe + " straight", Pipe: w.Pipe, Also: b.everywhere(scope)}, nil
	}
	size, err := b.springSize(w.Say)
	if err != nil {
		return Done{}, err
	}
	s := &frame.Spring{Size: &size}
	if s.Bow, err = wayOf(w.Toward); err != nil {
		return Done{}, err
	}
	for k := range w.Leave {
		d, err := wayOf(w.Leave[k])
		if err != nil {
			return Done{}, err
		}
		if d != nil {
			s.Leave[k] = *d
		}
	}
	b.dropVia(def, p)
	p.Path, p.Spring, p.Via, p.Radius = frame.Sprung, s, nil, 0
	return Done{Label: fmt.Sprintf("%s sprung, %s", w.Pipe, strings.TrimSpace(w.Say)), Pipe: w.Pipe, Also: b.everywhere(scope)}, b.bows(w.Pipe)
}

// bows refuses a bow that the pipe cannot take.
func (b *bench) bows(pipe string) error {
	if err := b.look(); err != nil {
		return err
	}
	if e := b.view.Graph.Edge(pipe); e >= 0 && b.view.Curves[e] == nil {
		for _, f := range b.view.Findings {
			if f.Code == "no-curve" && slices.Contains(f.Subject, pipe) {
				return &Refusal{What: f.Text, Hint: f.Hint}
			}
		}
	}
	return nil
}

// wayOf reads a direction in one or two words; nil for none.
func wayOf(words string) (*measure.Dir, error) {
	if words = strings.TrimSpace(words); words == "" || words == "freely" {
		return nil, nil
	}
	c, err := ParseCourse(words + " 1")
	if err != nil {
		return nil, err
	}
	return &c.Dir, nil
}

// springSize reads how far a pipe bows.
func (b *bench) springSize(text string) (frame.Dimension, error) {
	text = strings.TrimSpace(text)
	word, rest, _ := strings.Cut(text, " ")
	switch strings.ToLower(word) {
	case "of":
		d, err := b.size(rest, frame.Cut)
		if err == nil && d.Meaning != frame.Cut {
			return d, refuse("write of 10 ft for its length, or rise 24", "%q is no length of a pipe", text)
		}
		return d, err
	case "rise":
		if inner, under := strings.CutSuffix(strings.TrimSpace(rest), "under"); under {
			rest = inner + "clear"
		}
		d, err := b.size(rest, frame.Centre)
		if err == nil && d.Meaning != frame.Centre && d.Meaning != frame.Outside && d.Meaning != frame.Clear {
			return d, refuse("say under, over, or nothing for its middle line", "a rise has no %q", d.Meaning)
		}
		return d, err
	}
	return frame.Dimension{}, refuse("write rise 24 for how high it stands, or of 10 ft for how long it is", "how far does it bow?")
}

var springWords = regexp.MustCompile(`(?i)\b(of|rise)\b`)

// hoop runs a sprung pipe: "hoop right 96 rise 24", "hoop away 8 ft of 10 ft
// staked", "hoop right 60 rise 30 upright".
func (w *Walk) hoop(b *bench, text string) (Done, error) {
	held := false
	if t, ok := cutWord(text, "upright"); ok {
		text, held = t, true
	}
	at := springWords.FindStringIndex(text)
	if at == nil {
		return Done{}, refuse("write hoop right 96 rise 24, or hoop right 96 of 10 ft", "how far does the hoop bow?")
	}
	say, ends := text[at[0]:], frame.OpenEnd
	for word, e := range endNames {
		if t, ok := cutWord(say, word); ok {
			say, ends = t, e
		}
	}
	size, err := b.springSize(say)
	if err != nil {
		return Done{}, err
	}
	c, err := ParseCourse(text[:at[0]])
	if err != nil {
		return Done{}, err
	}
	scope, n, ref, err := w.start(b)
	if err != nil {
		return Done{}, err
	}
	def, place := b.def(scope), &b.view.Places[scope]
	j := frame.Joint{ID: w.Name, End: ends}
	if j.ID == "" {
		j.ID = newJoint(def)
	}
	p := frame.Pipe{ID: newPipe(def), From: ref, To: j.ID, Size: w.Size, Path: frame.Sprung, Spring: &frame.Spring{Size: &size}}
	if held {
		up := measure.Z.Dir()
		p.Spring.Leave = [2]measure.Dir{up, up}
	}
	if d, err := w.far(b, scope, n, ref, c, &j, p.ID); err != nil {
		return Done{}, err
	} else if d != nil && d.Of != "" {
		return Done{}, refuse("say how far apart its feet are: centre, outside or clear", "a hoop's span is no length of a pipe")
	}
	def.Joints, def.Pipes = append(def.Joints, j), append(def.Pipes, p)
	if len(b.view.Graph.Nodes[n].Pipes) > 0 {
		b.opened(w.From) // what was an end goes on
	} else if def, i, _, err := b.joint(w.From); err == nil && ends != frame.OpenEnd {
		def.Joints[i].End = ends
	}
	done := Done{Label: fmt.Sprintf("Hoop %s, %s", c.Words, say), Joint: join(place.Path, j.ID), Pipe: join(place.Path, p.ID), Also: b.everywhere(scope)}
	return b.arrive(done, scope, j.ID)
}

// start finds the part and the joint that a walk begins at.
func (w *Walk) start(b *bench) (scope, n int, ref string, err error) {
	if scope, err = b.scope(w.In); err != nil {
		return 0, 0, "", err
	}
	if n, err = b.node(w.From); err != nil {
		return 0, 0, "", err
	}
	ref, ok := b.ref(scope, w.From)
	if !ok {
		return 0, 0, "", refuse("pick a joint inside it, or work on the whole frame", "the joint %q is not in %q", w.From, w.In)
	}
	if w.Name != "" && b.has(b.def(scope), w.Name) {
		return 0, 0, "", refuse("give it another name", "there is a joint %q already", w.Name)
	}
	return scope, n, ref, nil
}

// arrive leads a curved pipe to the joint that is at its far end already.
func (b *bench) arrive(done Done, scope int, joint string) (Done, error) {
	if err := b.bows(done.Pipe); err != nil {
		return Done{}, err
	}
	def, g, path := b.def(scope), b.view.Graph, b.view.Places[scope].Path
	n := g.Node(join(path, joint))
	for i := range g.Nodes {
		ref, ok := b.ref(scope, g.Nodes[i].ID)
		if i == n || !ok || len(g.Nodes[i].Pipes) == 0 || b.view.Points[i].Distance(b.view.Points[n]) > near {
			continue
		}
		b.rejoin(def, joint, ref)
		b.opened(g.Nodes[i].ID)
		done.Joint, done.Also = g.Nodes[i].ID, append(done.Also, "meets "+g.Nodes[i].ID)
		return done, b.look()
	}
	b.level(def, scope, joint, n)
	return done, b.look()
}

func cutWord(text, word string) (string, bool) {
	fields := strings.Fields(text)
	i := slices.IndexFunc(fields, func(f string) bool { return strings.EqualFold(f, word) })
	if i < 0 {
		return text, false
	}
	return strings.Join(slices.Delete(fields, i, i+1), " "), true
}

// bend runs a pipe bent by heat from leg to leg: "bend up 20, right 24, down
// 20, radius 6". Legs are measured to where they would cross.
func (w *Walk) bend(b *bench, text string) (Done, error) {
	legs := strings.Split(text, ",")
	last := strings.Fields(legs[len(legs)-1])
	at := slices.IndexFunc(last, func(f string) bool { return strings.EqualFold(f, "radius") })
	if at < 0 {
		return Done{}, refuse("end with the radius of its middle line, as in: bend up 20, right 24, radius 6", "a bend of no radius")
	}
	r, err := b.size(strings.Join(last[at+1:], " "), frame.Centre)
	if err != nil {
		return Done{}, err
	}
	if legs[len(legs)-1] = strings.Join(last[:at], " "); legs[len(legs)-1] == "" {
		legs = legs[:len(legs)-1]
	}
	if len(legs) < 2 {
		return Done{}, refuse("write at least two legs, as in: bend up 20, right 24, radius 6", "one leg has no bend")
	}
	scope, _, ref, err := w.start(b)
	if err != nil {
		return Done{}, err
	}
	def, place := b.def(scope), &b.view.Places[scope]
	b.opened(w.From)
	p := frame.Pipe{ID: newPipe(def), From: ref, Size: w.Size, Path: frame.Bent, Radius: r.Value}
	label := "A pipe bent once"
	if n := len(legs) - 1; n > 1 {
		label = fmt.Sprintf("A pipe bent %d times", n)
	}
	done := Done{Label: label, Pipe: join(place.Path, p.ID), Also: b.everywhere(scope)}
	from := w.From
	for k, leg := range legs {
		c, err := ParseCourse(leg)
		if err != nil {
			return Done{}, err
		}
		n, err := b.node(from)
		if err != nil {
			return Done{}, err
		}
		ref, _ := b.ref(scope, from)
		j := frame.Joint{ID: newJoint(def)}
		if k == len(legs)-1 {
			j.End = c.End
			if w.Name != "" {
				j.ID = w.Name
			}
		}
		if d, err := w.far(b, scope, n, ref, c, &j, p.ID); err != nil {
			return Done{}, err
		} else if d != nil && d.Meaning != frame.Centre {
			return Done{}, refuse("write its length alone, as in: bend up 20, right 24, radius 6", "a leg is measured to where the legs would cross")
		}
		def.Joints = append(def.Joints, j)
		if p.To = j.ID; k < len(legs)-1 {
			p.Via = append(p.Via, j.ID)
		}
		from = join(place.Path, j.ID)
		if err := b.look(); err != nil {
			return Done{}, err
		}
		b.level(def, scope, j.ID, b.view.Graph.Node(from))
	}
	def.Pipes = append(def.Pipes, p)
	done.Joint = from
	return b.arrive(done, scope, p.To)
}

// dropVia takes away the corners that only one bent pipe goes round.
func (b *bench) dropVia(def *frame.Definition, p *frame.Pipe) {
	via := p.Via
	p.Via = nil
	for _, id := range via {
		used := slices.ContainsFunc(def.Pipes, func(o frame.Pipe) bool { return o.From == id || o.To == id || slices.Contains(o.Via, id) })
		if i := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == id }); i >= 0 && !used && !b.walkedFrom(def, id) {
			b.dropJoint(def, i)
		}
	}
}

// crown splits a hoop at its highest point, where a tee or a cross is to
// stand: each half is then the mirror image of the other.
func (w *Split) crown(b *bench, def *frame.Definition, i, scope int) (Done, error) {
	e := b.view.Graph.Edge(w.Pipe)
	pipe, c := def.Pipes[i], b.view.Curves[e]
	place, ends := &b.view.Places[scope], b.view.Graph.Edges[e].Ends
	from, to := b.view.Points[ends[0]], b.view.Points[ends[1]]
	if w.Length != "" || c == nil {
		return Done{}, refuse("leave the length out: a hoop is split at its crown", "a hoop is not split at a distance")
	}
	p, ok1 := b.stationsOf(scope, from)
	q, ok2 := b.stationsOf(scope, to)
	line := place.Turned(from.Toward(to))
	a, _, square := along(line)
	up, _, upright := along(place.Turned(measure.Dir(b.view.Graph.Edges[e].Bow.Toward)))
	if !ok1 || !ok2 || !square || !upright || up == a {
		return Done{}, refuse("stand its feet on stations, along an axis", "the crown of %s has no place of its own", w.Pipe)
	}
	s := pipe.Spring
	if (s.Leave[0] == measure.Dir{}) != (s.Leave[1] == measure.Dir{}) {
		return Done{}, refuse("hold both ends alike, or none", "the two halves of %s differ", w.Pipe)
	}
	rise := place.Local(c.Apex)[up] - place.Local(from)[up]
	j := frame.Joint{ID: w.Name, At: p}
	if j.ID == "" {
		j.ID = newJoint(def)
	}
	b.freeze(def, pipe.ID)
	st := frame.Station{ID: newStation(def, a), Split: &frame.Split{From: p[a], To: q[a], Part: 1, Parts: 2}}
	def.Axes[a].Stations = append(def.Axes[a].Stations, st)
	d := frame.Dimension{Value: rise.Abs(), Meaning: frame.Centre, From: p[up], Back: rise < 0, Label: "Rise", Text: rise.Abs().Format(measure.InInches, 0)}
	if s.Size != nil && s.Size.Meaning == frame.Centre {
		d.Value, d.Text, d.Label = s.Size.Value, s.Size.Text, s.Size.Label
	}
	high := frame.Station{ID: newStation(def, up), At: &d}
	def.Axes[up].Stations = append(def.Axes[up].Stations, high)
	j.At[a], j.At[up] = st.ID, high.ID
	def.Joints = append(def.Joints, j)
	local := line.Unit()
	back := local.Neg()
	second := pipe
	second.ID, second.From, second.To = newPipe(def), pipe.To, j.ID
	second.Spring = &frame.Spring{Bow: s.Bow, Leave: [2]measure.Dir{s.Leave[1], local}}
	def.Pipes[i].To = j.ID
	def.Pipes[i].Spring = &frame.Spring{Bow: s.Bow, Leave: [2]measure.Dir{s.Leave[0], back}}
	def.Pipes = slices.Insert(def.Pipes, i+1, second)
	done := Done{Label: fmt.Sprintf("Hoop %s split at its crown", w.Pipe), Joint: join(place.Path, j.ID), Pipe: w.Pipe, Also: b.everywhere(scope)}
	return done, b.bows(w.Pipe)
}
