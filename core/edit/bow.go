package edit

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/message"
)

// Bow makes a pipe sprung, or straight again.
type Bow struct {
	Pipe   string    `json:"pipe"`
	Say    string    `json:"say,omitempty"`    // "rise 24", "rise 24 under", "of 10 ft"; "" for straight
	Toward string    `json:"toward,omitempty"` // the side it bows to, in words; up by default
	Leave  [2]string `json:"leave,omitempty"`  // how each end is held: a direction in words, "" for one that turns freely
}

var _ = register[Bow]("bow")

func (w *Bow) on(e *editor) (Done, error) {
	def, p, scope, err := e.pipe(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	id := p.ID
	straightened := strings.TrimSpace(w.Say) == ""
	var size frame.Size
	s := &frame.Spring{}
	if !straightened {
		if size, err = e.springSize(w.Say); err != nil {
			return Done{}, err
		}
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
	}
	bowed := p.Path == frame.Sprung
	for _, z := range slices.Clone(def.Sizes) { // what was typed for it is a distance of its ends, or its old bow
		if z.Pipe != id {
			continue
		}
		if bowed {
			e.gave = append(e.gave, GivenUp{Size: z.ID, Was: z.Says() + " of " + mention.Of(w.Pipe), Now: w.Say, Words: "typed instead"})
			e.doc.DropSize(z.ID)
		}
	}
	if !bowed {
		e.keepDistance(scope, id)
	}
	e.dropVia(def, id)
	p = def.Pipe(id)
	done := Done{Label: mention.Of(w.Pipe) + " straight", Pipe: w.Pipe, Also: e.everywhere(scope)}
	if straightened {
		p.Path, p.Spring, p.Via, p.Radius = frame.Straight, nil, nil, 0
		return done, nil
	}
	p.Path, p.Spring, p.Via, p.Radius = frame.Sprung, s, nil, 0
	if p.Dir != nil { // its ends stay in line, as they were
		dir := *p.Dir
		e.doc.AddReason(def, frame.Reason{Kind: frame.Line, Of: frame.Ref(p.To), From: frame.Ref(p.From), Dir: &dir, Rank: p.Rank})
		p.Dir = nil
	}
	size.Pipe = id
	e.doc.AddSize(def, size)
	done.Label = fmt.Sprintf("%s sprung, %s", mention.Of(w.Pipe), strings.TrimSpace(w.Say))
	return done, e.bows(w.Pipe)
}

// bows refuses a bow that the pipe cannot take.
func (e *editor) bows(pipe string) error {
	if err := e.resolve(); err != nil {
		return err
	}
	if i := e.view.Graph.Edge(pipe); i >= 0 && e.view.Curves[i] == nil {
		for _, f := range e.view.Findings {
			if f.Code == "no-curve" && f.Subject() == pipe {
				message.Say(&f, nil, e.unit)
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
	c, err := plainLine(words + " 1")
	if err != nil {
		return nil, err
	}
	return &c.Dir, nil
}

// springSize reads how far a pipe bows.
func (e *editor) springSize(text string) (frame.Size, error) {
	text = strings.TrimSpace(text)
	word, rest, _ := strings.Cut(text, " ")
	switch strings.ToLower(word) {
	case "of":
		d, err := e.size(rest, frame.Cut)
		if err == nil && d.Meaning != frame.Cut {
			return d, refuse("write of 10 ft for its length, or rise 24", "%q is no length of a pipe", text)
		}
		return d, err
	case "rise":
		if inner, under := strings.CutSuffix(strings.TrimSpace(rest), "under"); under {
			rest = inner + "clear"
		}
		d, err := e.size(rest, frame.Centre)
		if err == nil && d.Meaning != frame.Centre && d.Meaning != frame.Outside && d.Meaning != frame.Clear {
			return d, refuse("say under, over, or nothing for its middle line", "a rise has no %q", d.Meaning)
		}
		return d, err
	}
	return frame.Size{}, refuse("write rise 24 for how high it stands, or of 10 ft for how long it is", "how far does it bow?")
}

var springWords = regexp.MustCompile(`(?i)\b(of|rise)\b`)

// hoop runs a sprung pipe: "hoop right 96 rise 24", "hoop away 8 ft of 10 ft
// staked", "hoop right 60 rise 30 upright".
func (w *Walk) hoop(e *editor, text string) (Done, error) {
	held := false
	if t, ok := cutWord(text, "upright"); ok {
		text, held = t, true
	}
	text, of, err := w.sized(text)
	if err != nil {
		return Done{}, err
	}
	text, ends := ended(text)
	at := springWords.FindStringIndex(text)
	if at == nil {
		return Done{}, refuse("write hoop right 96 rise 24, or hoop right 96 of 10 ft", "how far does the hoop bow?")
	}
	say := text[at[0]:]
	size, err := e.springSize(say)
	if err != nil {
		return Done{}, err
	}
	c, err := plainLine(text[:at[0]])
	if err != nil {
		return Done{}, err
	}
	scope, n, ref, err := w.start(e, w.From)
	if err != nil {
		return Done{}, err
	}
	span, err := e.size(c.Length, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if !slices.Contains([]frame.Meaning{frame.Centre, frame.Outside, frame.Clear}, span.Meaning) {
		return Done{}, refuse("say how far apart its feet are: centre, outside or clear", "a hoop's span is no length of a pipe")
	}
	def, rank := e.def(scope), e.doc.NextRank()
	j := e.doc.AddJoint(def, frame.Joint{Name: w.Name, End: ends})
	spring := &frame.Spring{}
	if held {
		up := measure.Z.Dir()
		spring.Leave = [2]measure.Dir{up, up}
	}
	p := e.doc.AddPipe(def, frame.Pipe{From: ref, To: j, Size: of, Path: frame.Sprung, Spring: spring, Rank: rank})
	size.Pipe, size.Rank = p, rank
	e.doc.AddSize(def, size)
	dir := c.Dir.Unit()
	e.doc.AddReason(def, frame.Reason{Kind: frame.Line, Of: frame.Ref(j), From: frame.Ref(ref), Dir: &dir, Rank: rank})
	span.From, span.To, span.Rank = frame.Ref(ref), frame.Ref(j), rank
	e.doc.AddSize(def, span)
	if len(e.view.Graph.Nodes[n].Pipes) > 0 {
		e.clearEnd(w.From) // what was an end goes on
	} else if _, own, _, err := e.joint(w.From); err == nil && ends != frame.OpenEnd {
		own.End = ends
	}
	done := Done{
		Label: fmt.Sprintf("Hoop %s, %s", c.Words, say),
		Joint: join(e.path(scope), j),
		Pipe:  join(e.path(scope), p),
		Also:  e.everywhere(scope),
	}
	return e.arrive(done, scope, j)
}

// arrive leads a curved pipe to the joint that is at its far end already.
func (e *editor) arrive(done Done, scope int, joint string) (Done, error) {
	if err := e.bows(done.Pipe); err != nil {
		return Done{}, err
	}
	g := e.view.Graph
	n := g.Node(join(e.path(scope), joint))
	for i := range g.Nodes {
		ref, ok := e.ref(scope, g.Nodes[i].ID)
		if i == n || !ok || len(g.Nodes[i].Pipes) == 0 || e.view.Points[i].Distance(e.view.Points[n]) > layout.TapeStep {
			continue
		}
		e.def(scope).Joint(joint).End = frame.OpenEnd
		e.doc.MergeJoints(e.def(scope), ref, joint)
		e.clearEnd(g.Nodes[i].ID)
		done.Joint, done.Also = g.Nodes[i].ID, append(done.Also, "meets "+g.Nodes[i].ID)
		break
	}
	return done, nil
}

func cutWord(text, word string) (string, bool) {
	fields := strings.Fields(text)
	i := slices.IndexFunc(fields, func(f string) bool { return strings.EqualFold(f, word) })
	if i < 0 {
		return text, false
	}
	return strings.Join(slices.Delete(fields, i, i+1), " "), true
}

// ended takes the word for the end of a pipe out of a text: capped, staked or open.
func ended(text string) (rest string, end frame.End) {
	for word, e := range endNames {
		if t, ok := cutWord(text, word); ok {
			text, end = t, e
		}
	}
	return text, end
}

var sizeSaid = regexp.MustCompile(`(?i)\bsize\s+([^\s,]+)`)

// sized takes the size of the pipe out of a line of a curved one; it is the walk's where the line says none.
func (w *Walk) sized(text string) (rest string, of catalog.Size, err error) {
	m := sizeSaid.FindStringSubmatchIndex(text)
	if m == nil {
		return text, w.Size, nil
	}
	if of = catalog.Size(strings.TrimSuffix(text[m[2]:m[3]], `"`)); !of.Known() {
		return "", "", refuse("use a nominal size such as 3/4", "no pipe size %q", text[m[2]:m[3]])
	}
	return strings.TrimRight(text[:m[0]]+text[m[1]:], " ,"), of, nil
}

// bend runs a pipe bent by heat from leg to leg: "bend up 20, right 24, down
// 20, radius 6". Legs are measured to where they would cross.
func (w *Walk) bend(e *editor, text string) (Done, error) {
	text, of, err := w.sized(text)
	if err != nil {
		return Done{}, err
	}
	legs := strings.Split(text, ",")
	last := strings.Fields(legs[len(legs)-1])
	at := slices.IndexFunc(last, func(f string) bool { return strings.EqualFold(f, "radius") })
	if at < 0 {
		return Done{}, refuse("end with the radius of its middle line, as in: bend up 20, right 24, radius 6", "a bend of no radius")
	}
	r, err := e.size(strings.Join(last[at+1:], " "), frame.Centre)
	if err != nil {
		return Done{}, err
	}
	if legs[len(legs)-1] = strings.Join(last[:at], " "); legs[len(legs)-1] == "" {
		legs = legs[:len(legs)-1]
	}
	if len(legs) < 2 {
		return Done{}, refuse("write at least two legs, as in: bend up 20, right 24, radius 6", "one leg has no bend")
	}
	scope, _, ref, err := w.start(e, w.From)
	if err != nil {
		return Done{}, err
	}
	def, rank := e.def(scope), e.doc.NextRank()
	e.clearEnd(w.From)
	p := frame.Pipe{From: ref, Size: of, Path: frame.Bent, Radius: r.Value, Rank: rank}
	label := "A pipe bent once"
	if n := len(legs) - 1; n > 1 {
		label = fmt.Sprintf("A pipe bent %d times", n)
	}
	from := ref
	var ends frame.End
	legs[len(legs)-1], ends = ended(legs[len(legs)-1])
	for k, leg := range legs {
		c, err := plainLine(leg)
		if err != nil {
			return Done{}, err
		}
		size, err := e.size(c.Length, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		if size.Meaning != frame.Centre {
			return Done{}, refuse(
				"write its length alone, as in: bend up 20, right 24, radius 6",
				"a leg is measured to where the legs would cross",
			)
		}
		j := frame.Joint{}
		if k == len(legs)-1 {
			j.Name, j.End = w.Name, ends
		}
		to := e.doc.AddJoint(def, j)
		dir := c.Dir.Unit()
		e.doc.AddReason(def, frame.Reason{Kind: frame.Line, Of: frame.Ref(to), From: frame.Ref(from), Dir: &dir, Rank: rank})
		size.From, size.To, size.Rank = frame.Ref(from), frame.Ref(to), rank
		e.doc.AddSize(def, size)
		if p.To = to; k < len(legs)-1 {
			p.Via = append(p.Via, to)
		}
		from = to
	}
	id := e.doc.AddPipe(def, p)
	path := e.path(scope)
	done := Done{Label: label, Pipe: join(path, id), Joint: join(path, p.To), Also: e.everywhere(scope)}
	return e.arrive(done, scope, p.To)
}

// dropVia takes away the corners that only one bent pipe goes round.
func (e *editor) dropVia(def *frame.Definition, pipe string) {
	via := slices.Clone(def.Pipe(pipe).Via)
	def.Pipe(pipe).Via = nil
	for _, id := range via {
		used := slices.ContainsFunc(def.Pipes, func(o frame.Pipe) bool { return o.From == id || o.To == id || slices.Contains(o.Via, id) })
		if def.Joint(id) != nil && !used {
			e.noteRemoved(e.doc.DropJoint(def, id))
		}
	}
}

// crown splits a hoop at its highest point, where a tee or a cross is to
// stand: each half is then the mirror image of the other.
func (w *Split) crown(e *editor, def *frame.Definition, pipe *frame.Pipe, scope int) (Done, error) {
	i := e.view.Graph.Edge(w.Pipe)
	c := e.view.Curves[i]
	place, ends := e.place(scope), e.view.Graph.Edges[i].Ends
	from, to := e.view.Points[ends[0]], e.view.Points[ends[1]]
	if w.Length != "" || c == nil {
		return Done{}, refuse("leave the length out: a hoop is split at its crown", "a hoop is not split at a distance")
	}
	line := place.Turned(from.Toward(to))
	a, _, square := axisAlong(line)
	up, _, upright := axisAlong(place.Turned(e.view.Graph.Edges[i].Bow.Toward))
	if !square || !upright || up == a {
		return Done{}, refuse("stand its feet level, along an axis", "the crown of %s has no place of its own", mention.Of(w.Pipe))
	}
	s := pipe.Spring
	if (s.Leave[0] == measure.Dir{}) != (s.Leave[1] == measure.Dir{}) {
		return Done{}, refuse("hold both ends alike, or none", "the two halves of %s differ", mention.Of(w.Pipe))
	}
	if taken(def, w.Name) {
		return Done{}, refuse("give it another name", "there is a joint %q already", w.Name)
	}
	rise := place.Local(c.Apex)[up] - place.Local(from)[up]
	size := e.centre(rise.Abs())
	size.Label = "Rise"
	id, rank := pipe.ID, e.doc.NextRank()
	var bow, leave = s.Bow, s.Leave
	for _, z := range slices.Clone(def.Sizes) {
		if z.Pipe != id {
			continue
		}
		if z.Meaning == frame.Centre {
			size.ID, size.Value, size.Text, size.Unit = z.ID, z.Value, z.Text, z.Unit
		} else {
			was := z.Says() + " of " + mention.Of(w.Pipe)
			e.gave = append(e.gave, GivenUp{Size: z.ID, Was: was, Now: "a rise of " + size.Value.Typed(size.Text, size.Unit), Words: "is split at its crown"})
		}
		e.doc.DropSize(z.ID)
	}
	feet := [2]string{pipe.From, pipe.To}
	j := e.doc.AddJoint(def, frame.Joint{Name: w.Name})
	across := 3 - a - up
	e.doc.AddReason(def, halfway(a.String(), frame.Ref(j), frame.Ref(feet[0]), frame.Ref(feet[1]), rank))
	e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: across.String(), Of: frame.Ref(j), To: frame.Ref(feet[0]), Rank: rank})
	size.Axis, size.From, size.To, size.Rank = up.String(), frame.Ref(feet[0]), frame.Ref(j), rank
	if rise < 0 {
		size.From, size.To = size.To, size.From
	}
	e.doc.AddSize(def, size)
	there := line.Unit()
	second := e.split(scope, id, j)
	// both halves run from their foot to the crown, where they are level
	e.doc.TurnPipe(def, second)
	def.Pipe(id).Spring = &frame.Spring{Bow: bow, Leave: [2]measure.Dir{leave[0], there.Neg()}}
	def.Pipe(second).Spring = &frame.Spring{Bow: bow, Leave: [2]measure.Dir{leave[1], there}}
	done := Done{
		Label: fmt.Sprintf("Hoop %s split at its crown", mention.Of(w.Pipe)),
		Joint: join(place.Path, j),
		Pipe:  w.Pipe,
		Also:  e.everywhere(scope),
	}
	return done, e.bows(w.Pipe)
}
