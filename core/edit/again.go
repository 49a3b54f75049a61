package edit

import (
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// asSaid is how far something may be off that is as it was said.
const asSaid = measure.Length(1000) // a micrometre

// yielded lists what gave way in a document, by its option's id.
func yielded(d *frame.Document) map[string]bool {
	all := map[string]bool{}
	for _, def := range d.Definitions() {
		for i := range def.Sizes {
			if def.Sizes[i].Gave != nil {
				all[optionID(layout.Party{Kind: "size", ID: def.Sizes[i].ID, Group: def.ID})] = true
			}
		}
		for i := range def.Pipes {
			if def.Pipes[i].Gave != nil {
				all[optionID(layout.Party{Kind: "pipe", ID: def.Pipes[i].ID, Group: def.ID})] = true
			}
		}
	}
	return all
}

// holdsAgain lets what gave way before this gesture hold again where it has
// come to be just as it was said: the leg on one side of a rack made that side
// longer, and the leg on the other side makes both even. Nothing moves by it.
func (e *editor) holdsAgain() error {
	for _, def := range e.doc.Definitions() {
		for i := range def.Sizes {
			s := &def.Sizes[i]
			if s.Gave == nil || !e.yielded[optionID(layout.Party{Kind: "size", ID: s.ID, Group: def.ID})] {
				continue
			}
			z := e.stated(s.ID)
			if z == nil || (z.Out-z.Value).Abs() > asSaid {
				continue
			}
			if err := e.again(&s.Gave, layout.Said(z)); err != nil {
				return err
			}
		}
		for i := range def.Pipes {
			p := &def.Pipes[i]
			if p.Gave == nil || !e.yielded[optionID(layout.Party{Kind: "pipe", ID: p.ID, Group: def.ID})] || !e.runsAsSaid(def, p) {
				continue
			}
			if err := e.again(&p.Gave, p.ID+" straight"); err != nil {
				return err
			}
		}
	}
	return nil
}

// again takes back that something gave way, unless it contradicts something.
func (e *editor) again(gave **frame.Gave, words string) error {
	was, clashes, near := *gave, len(e.view.Clashes), len(e.view.Near)
	*gave = nil
	if err := e.look(); err != nil {
		return err
	}
	if len(e.view.Clashes) > clashes || len(e.view.Near) > near {
		*gave = was
		return e.look()
	}
	e.tell("%s holds again", words)
	return nil
}

// stated gives a size as it came out; nil where the frame has none of that id.
func (e *editor) stated(id string) *layout.Size {
	for i := range e.view.Sizes {
		if e.view.Sizes[i].ID == id {
			return &e.view.Sizes[i]
		}
	}
	return nil
}

// runsAsSaid says whether a pipe runs the way it was drawn, in every copy of
// its definition.
func (e *editor) runsAsSaid(def *frame.Definition, p *frame.Pipe) bool {
	if p.Dir == nil {
		return false
	}
	g, any := e.view.Graph, false
	for i := range g.Edges {
		x := &g.Edges[i]
		if x.Drawn.ID != p.ID || g.Scopes[x.Scope].Of != def.ID {
			continue
		}
		any = true
		place := e.place(x.Scope)
		from, to := place.Local(e.view.Points[x.Ends[0]]), place.Local(e.view.Points[x.Ends[1]])
		way, long := p.Dir.Unit(), from.Distance(to)
		if from.Along(way, long).Distance(to) > asSaid {
			return false
		}
	}
	return any
}
