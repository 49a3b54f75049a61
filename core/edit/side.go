package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// A hoop with a fitting at its crown has two sides, a span and a rise, of which two are said and
// one follows. Its sides are half hoops; the length of one is a size like any other, and the span or
// the rise is then sought so that it holds.

// isSide says whether a pipe is a side of a hoop: half of one, whose ends say how it runs.
func isSide(def *frame.Definition, p *frame.Pipe) bool {
	return p.Path == frame.Sprung &&
		!slices.ContainsFunc(def.Sizes, func(s frame.Size) bool { return s.Pipe == p.ID && !s.Half })
}

// side sizes a side of a hoop, and asks what follows from it.
func (w *Size) side(e *editor, def *frame.Definition, p *frame.Pipe, scope int, s frame.Size) (Done, error) {
	if s.Meaning != frame.Cut {
		return Done{}, refuse(
			"say cut, as in 120 cut; its rise and its span have fields of their own",
			"a side of a hoop has no %s",
			label(s.Meaning),
		)
	}
	id := p.ID
	others := around(def, p)
	s.Pipe, s.Half = id, true
	done := Done{Label: strings.TrimSpace(fmt.Sprintf("%s %s", mention.Of(w.Pipe), w.Length)), Pipe: w.Pipe, Also: e.everywhere(scope)}
	old := e.sizeOf(def, id, scope)
	if old == nil { // of the other side, which is as long
		i := slices.IndexFunc(def.Sizes, func(z frame.Size) bool { return z.Half && twin(def, p, z.Pipe) })
		if i >= 0 {
			old = &def.Sizes[i]
			s.Pipe = old.Pipe
		}
	}
	target := ""
	if old != nil && old.Half {
		e.replaceSize(old, s)
		target = old.ID
	} else {
		target = e.doc.AddSize(def, s)
	}
	if slices.ContainsFunc(def.Sizes, func(z frame.Size) bool { return z.Solves == target }) {
		return done, e.reaches(target)
	}
	return done, e.follows(target, others)
}

func label(m frame.Meaning) string { return frame.Label(frame.MeaningWords(), m) }

// twin says whether another pipe is the other side of the same hoop.
func twin(def *frame.Definition, p *frame.Pipe, other string) bool {
	o := def.Pipe(other)
	return o != nil && o.ID != p.ID && o.Path == frame.Sprung && o.To == p.To
}

// around lists the sizes that say how a side stands: the rise from its foot to the crown, and the
// span from its foot to that of the other side.
func around(def *frame.Definition, p *frame.Pipe) (ids []string) {
	at := []frame.Ref{frame.Ref(p.From), frame.Ref(p.To)}
	for i := range def.Pipes {
		if o := &def.Pipes[i]; twin(def, p, o.ID) {
			at = append(at, frame.Ref(o.From))
		}
	}
	for i := range def.Sizes {
		s := &def.Sizes[i]
		if s.Gave == nil && s.Pipe == "" && slices.Contains(at, s.From) && slices.Contains(at, s.To) {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

// follows lets one of some sizes follow from the length of a side: the one that was chosen, or the
// only one; else it asks.
func (e *editor) follows(target string, of []string) error {
	side := e.doc.SizeOf(target)
	if len(of) == 0 {
		return refuse("size its rise and its span first", "nothing says how %s stands", mention.Of(side.Pipe))
	}
	chosen := ""
	for _, id := range of {
		if e.answered("follows "+id) || e.doc.SizeOf(id).Inferred && chosen == "" {
			chosen = id
		}
	}
	if len(of) == 1 {
		chosen = of[0]
	}
	if chosen == "" {
		q := &Question{
			Title: "What follows?",
			What:  fmt.Sprintf("A hoop's side, rise and span are not all free: with %s, which of them follows?", side.Says()),
		}
		for _, id := range of {
			s := e.doc.SizeOf(id)
			q.Options = append(
				q.Options,
				Option{ID: "follows " + id, Label: fmt.Sprintf("%s follows, %s until now", strings.ToLower(spanOr(s)), s.Says())},
			)
		}
		return q
	}
	s := e.doc.SizeOf(chosen)
	was := s.Says()
	typed := !s.Inferred
	s.Meaning, s.Text, s.Inferred, s.Solves = frame.Centre, "", true, target
	if err := e.reaches(target); err != nil {
		return err
	}
	if s = e.doc.SizeOf(chosen); typed && s != nil {
		e.gave = append(
			e.gave,
			GivenUp{Size: chosen, Was: was, Now: s.Value.Tape(e.unit) + " centre to centre", Words: "follows from " + side.Says()},
		)
	}
	return nil
}

// spanOr is what a size of a hoop is called.
func spanOr(s *frame.Size) string {
	if s.Label != "" {
		return "The " + strings.ToLower(s.Label)
	}
	if s.Axis == "z" {
		return "The rise"
	}
	return "The span"
}

// reaches refuses the length of a side that no rise or span gives, and keeps what was found.
func (e *editor) reaches(target string) error {
	if err := e.resolve(); err != nil {
		return err
	}
	e.keepSought()
	for i := range e.view.Sizes {
		z := &e.view.Sizes[i]
		if z.ID == target && (z.Out-z.Value).Abs() > measure.Micrometre {
			return refuse(
				fmt.Sprintf("write more than about %s", z.Out.Tape(e.unit)),
				"a side of %s does not reach", z.Value.Tape(e.unit),
			)
		}
	}
	return nil
}

// keepSought writes down what was found of the sizes that are sought.
func (e *editor) keepSought() {
	for i := range e.view.Graph.Sizes {
		z := &e.view.Graph.Sizes[i]
		if z.Solves == "" {
			continue
		}
		if s := e.doc.SizeOf(z.ID); s != nil {
			s.Value = z.Value
		}
	}
}

// sides makes sure, after a gesture, that the lengths of hoops' sides hold: where what followed
// from one is typed now, something else follows, or the side gives way.
func (e *editor) sides() error {
	for range 8 {
		open := ""
		for _, def := range e.doc.Definitions() {
			for _, s := range openSides(def) {
				open = s.ID
			}
		}
		if open == "" {
			e.keepSought()
			return nil
		}
		if err := e.sideOpen(open); err != nil {
			return err
		}
	}
	return nil
}

// sideOpen decides about a side from which nothing follows any more.
func (e *editor) sideOpen(id string) error {
	def := e.definitionOf(id)
	side := def.SizeCalled(id)
	p := def.Pipe(side.Pipe)
	of := around(def, p)
	says, pipe := side.Says(), e.ofDefinition(def, side.Pipe)
	if e.answered("size "+id) || len(of) == 0 {
		e.gave = append(e.gave, GivenUp{Size: id, Was: says + " of " + pipe, Words: "follows from the rise and the span"})
		e.doc.DropSize(id)
		return e.resolve()
	}
	for _, o := range of {
		if e.answered("follows " + o) {
			return e.follows(id, []string{o})
		}
	}
	q := &Question{
		Title: "What follows?",
		What:  fmt.Sprintf("%s of %s, the rise and the span cannot all be said: which of them follows?", says, pipe),
	}
	q.Options = append(q.Options, Option{ID: "size " + id, Label: fmt.Sprintf("The side follows, %s until now", says)})
	for _, o := range of {
		s := e.doc.SizeOf(o)
		q.Options = append(q.Options, Option{ID: "follows " + o, Label: fmt.Sprintf("%s follows, %s until now", spanOr(s), s.Says())})
	}
	return q
}

// definitionOf is the definition that a size is in.
func (e *editor) definitionOf(size string) *frame.Definition {
	for _, def := range e.doc.Definitions() {
		if def.SizeCalled(size) != nil {
			return def
		}
	}
	return &e.doc.Root
}

// Follow lets a size of a hoop follow from the length of its side.
type Follow struct {
	Side string `json:"side"` // the id of the side's length
	Size string `json:"size"` // the id of the rise or the span that follows from it
}

var _ = register[Follow]("follow")

func (w *Follow) on(e *editor) (Done, error) {
	side, s := e.doc.SizeOf(w.Side), e.doc.SizeOf(w.Size)
	if side == nil || !side.Half || s == nil {
		return Done{}, refuse("pick them again", "there is no side of a hoop %q, or no size %q", w.Side, w.Size)
	}
	def := e.definitionOf(w.Side)
	if !slices.Contains(around(def, def.Pipe(side.Pipe)), w.Size) {
		return Done{}, refuse("pick its rise or its span", "%s says nothing of that hoop", s.Says())
	}
	for i := range def.Sizes {
		if o := &def.Sizes[i]; o.Solves == w.Side {
			o.Solves = ""
		}
	}
	return Done{Label: spanOr(s) + " follows from " + side.Says()}, e.follows(w.Side, []string{w.Size})
}

// Sides lists, for the lengths of hoops' sides from which nothing follows, the sizes that could.
func Sides(d *frame.Document) map[string][]string {
	all := map[string][]string{}
	for _, def := range d.Definitions() {
		for _, s := range openSides(def) {
			all[s.ID] = around(def, def.Pipe(s.Pipe))
		}
	}
	return all
}

// openSides lists the lengths of a definition's hoops' sides from which nothing follows.
func openSides(def *frame.Definition) (all []*frame.Size) {
	for i := range def.Sizes {
		s := &def.Sizes[i]
		if s.Half && s.Gave == nil &&
			!slices.ContainsFunc(def.Sizes, func(z frame.Size) bool { return z.Solves == s.ID && z.Gave == nil }) {
			all = append(all, s)
		}
	}
	return all
}
