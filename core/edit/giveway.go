package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model"
)

// settle goes through the new contradictions: what the builder chose gives way,
// and where nothing was chosen yet it asks, by an error that is a [*Question]. It
// reports whether anything gave way.
func (e *editor) settle() (any bool, err error) {
	for range 40 {
		i := slices.IndexFunc(e.view.Clashes, func(c layout.Clash) bool { return !e.clashed[c.Key()] })
		if i < 0 {
			return any, nil
		}
		c := e.view.Clashes[i]
		if e.dropInferred(&c) {
			any = true
			if err := e.resolve(); err != nil {
				return any, err
			}
			continue
		}
		chosen := -1
		for k, p := range c.Parties {
			if e.answered(optionID(p)) {
				chosen = k
			}
		}
		if chosen < 0 && e.awaitTees() {
			if err := e.resolve(); err != nil {
				return any, err
			}
			continue
		}
		if chosen < 0 && e.dropTees(func(without *editor) bool { return without.offBy(c.Key()) < c.Off.Abs() }) {
			continue
		}
		if chosen < 0 {
			return any, e.question(&c)
		}
		if err := e.letGiveWay(&c, chosen); err != nil {
			return any, err
		}
		any = true
	}
	return any, nil
}

// dropInferred removes inferred sizes, which nobody typed, from a contradiction with
// typed ones. It reports whether it removed any.
func (e *editor) dropInferred(c *layout.Clash) bool {
	for k := len(c.Parties) - 1; k >= 0; k-- {
		p := c.Parties[k]
		switch p.Kind {
		case "size":
			if s := e.doc.SizeOf(p.ID); s != nil && s.Inferred {
				e.doc.DropSize(p.ID)
				return true
			}
		case "reason":
			if r := e.definition(p.Group).Reason(p.ID); r != nil && r.Kind == frame.Placed {
				e.doc.DropReason(p.ID)
				return true
			}
		}
	}
	return false
}

func optionID(p layout.Party) string { return strings.TrimSpace(p.Kind + " " + p.ID + " " + p.Group) }

// question asks what gives way, with what becomes of each.
func (e *editor) question(c *layout.Clash) error {
	words := e.describeParties(c)
	q := &Question{Title: "What gives way?", What: fmt.Sprintf("%s cannot hold together (%s)", listed(words), e.off(c.Off))}
	order := make([]int, len(c.Parties))
	for i := range order {
		order[i] = i
	}
	// sizes first, the last said before the others
	slices.SortStableFunc(order, func(i, k int) int {
		si, sk := c.Parties[i].Kind == "size", c.Parties[k].Kind == "size"
		switch {
		case si && !sk:
			return -1
		case sk && !si:
			return 1
		}
		return k - i
	})
	for _, i := range order {
		p := c.Parties[i]
		if p.Kind == "use" {
			continue
		}
		label := words[i] + " gives way"
		if p.Kind == "pipe" {
			label = e.knownWords(c.Pipes[i]) + " slopes"
		}
		q.Options = append(q.Options, Option{
			ID: optionID(p), Label: label, Pipe: e.knownPipe(c.Pipes[i]), gives: &giving{p, words[i]},
		})
	}
	return q
}

// knownPipe gives the id of a pipe back if the frame had it before the gesture, and ""
// for a pipe that the gesture draws.
func (e *editor) knownPipe(pipe string) string {
	if pipe != "" && e.was.Graph.Edge(pipe) >= 0 {
		return pipe
	}
	return ""
}

// describeParties describes the members of a contradiction. A pipe that the gesture draws
// has no name that its builder has seen yet, and is called the new pipe.
func (e *editor) describeParties(c *layout.Clash) []string {
	words := slices.Clone(c.Words)
	for i, pipe := range c.Pipes {
		if pipe != "" {
			words[i] = strings.ReplaceAll(words[i], mention.Of(pipe), e.knownWords(pipe))
		}
	}
	return words
}

// knownWords mentions a pipe that the frame had before the gesture. Several that it draws are told apart by the order
// in which it draws them.
func (e *editor) knownWords(pipe string) string {
	if e.knownPipe(pipe) != "" {
		return mention.Of(pipe)
	}
	n, of := 0, 0
	for i := range e.view.Graph.Edges {
		if id := e.view.Graph.Edges[i].ID; e.knownPipe(id) == "" {
			if of++; id == pipe {
				n = of
			}
		}
	}
	if of < 2 || n == 0 {
		return "the new pipe"
	}
	return "the " + model.Ordinal(n) + " new pipe"
}

func listed(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " and " + words[n-1]
	}
	return strings.Join(words, "")
}

// letGiveWay records that one member of a contradiction gives way to the others.
func (e *editor) letGiveWay(c *layout.Clash, which int) error {
	p := c.Parties[which]
	g := &frame.GaveWay{}
	var to []string
	for k, o := range c.Parties {
		if k == which {
			continue
		}
		if o.Kind == "size" || len(c.Parties) < 3 {
			to = append(to, c.Words[k])
		}
		if o.Group == p.Group || o.Kind != "pipe" { // a pipe's id is its definition's own
			g.Note(o.Kind, o.ID)
		}
	}
	if len(to) == 0 {
		to = c.Words[:min(2, len(c.Words))]
	}
	g.Words = listed(to)
	return e.giveWay(p, c.Words[which], g)
}

func (e *editor) definition(group string) *frame.Definition {
	if group == "" {
		return &e.doc.Root
	}
	return e.doc.Group(group)
}

func (e *editor) giveWay(p layout.Party, words string, g *frame.GaveWay) error {
	def := e.definition(p.Group)
	switch p.Kind {
	case "size":
		s := e.doc.SizeOf(p.ID)
		s.Gave = g
		if err := e.resolve(); err != nil {
			return err
		}
		e.gave = append(e.gave, GivenUp{Size: p.ID, Was: words, Now: e.valueNow(p.ID), Words: "gave way to " + g.Words})
		return nil
	case "reason":
		def.Reason(p.ID).Gave = g
	case "pipe":
		pipe := def.Pipe(p.ID)
		pipe.Gave = g
		e.note("%s slopes", e.ofDefinition(def, p.ID))
		if err := e.resolve(); err != nil {
			return err
		}
		return e.stillLevel(def, pipe)
	}
	return e.resolve()
}

// valueNow is the value of a size in the solved frame, in the size's own meaning and
// unit.
func (e *editor) valueNow(id string) string {
	if z := e.solvedSize(id); z != nil {
		return strings.TrimSpace(e.tape(z.Out, z.Unit) + " " + layout.Words(z.Is))
	}
	return ""
}

// stillLevel is for a pipe whose direction gave way: it keeps its two ends level
// along the axes that the contradiction was not about.
func (e *editor) stillLevel(def *frame.Definition, p *frame.Pipe) error {
	if p.Dir == nil {
		return nil
	}
	from, to, rank := p.From, p.To, p.Rank
	run, _, square := axisAlong(*p.Dir)
	for a := range measure.Axis(3) {
		if !square || a == run {
			continue
		}
		n := len(e.view.Clashes)
		id := e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(to), To: frame.Ref(from), Rank: rank})
		if err := e.resolve(); err != nil {
			return err
		}
		if len(e.view.Clashes) > n {
			e.doc.DropReason(id)
			if err := e.resolve(); err != nil {
				return err
			}
		}
	}
	return nil
}
