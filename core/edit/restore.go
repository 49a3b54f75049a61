package edit

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// asSaid is how far something may be off that is as it was said.
const asSaid = measure.Length(1000) // a micrometre

// gaveWay is something of a document that gave way: its party, the field that
// says so, and its words.
type gaveWay struct {
	layout.Party
	gave  **frame.GaveWay
	words string
}

// gaveWays lists what gave way in a document.
func gaveWays(d *frame.Document) (all []gaveWay) {
	add := func(kind, id, group string, gave **frame.GaveWay, words string) {
		if *gave != nil {
			all = append(all, gaveWay{layout.Party{Kind: kind, ID: id, Group: group}, gave, words})
		}
	}
	for _, def := range d.Definitions() {
		for i := range def.Sizes {
			s := &def.Sizes[i]
			add("size", s.ID, def.ID, &s.Gave, s.Says())
		}
		for i := range def.Pipes {
			p := &def.Pipes[i]
			add("pipe", p.ID, def.ID, &p.Gave, p.ID+" straight")
		}
		for i := range def.Reasons {
			r := &def.Reasons[i]
			add("reason", r.ID, def.ID, &r.Gave, r.Said())
		}
	}
	return all
}

// restoreWhatHolds lets what gave way before this gesture hold again where it has
// come to be just as it was said: the leg on one side of a rack made that side
// longer, and the leg on the other side makes both even. Nothing moves by it.
// It costs a solution for each that may.
func (e *editor) restoreWhatHolds() error {
	for _, g := range gaveWays(e.doc) {
		if !slices.ContainsFunc(e.yielded, func(p layout.Party) bool { return p == g.Party }) {
			continue // it gave way just now
		}
		words := g.words
		if g.Kind == "size" {
			z := e.stated(g.ID)
			if z == nil || (z.Out-z.Value).Abs() > asSaid {
				continue
			}
			words = layout.Said(z)
		}
		was, before := *g.gave, e.view
		*g.gave = nil
		if err := e.resolve(); err != nil {
			return err
		}
		if e.changedBeyond(before) {
			*g.gave = was
			if err := e.resolve(); err != nil {
				return err
			}
			continue
		}
		e.note("%s holds again", words)
	}
	return nil
}

// changedBeyond says whether something moved, or contradicts something, that did not
// before.
func (e *editor) changedBeyond(before *View) bool {
	return len(e.view.Clashes) > len(before.Clashes) || len(e.view.Near) > len(before.Near) ||
		!slices.EqualFunc(e.view.Points, before.Points, func(p, q measure.Point) bool { return p.Distance(q) <= asSaid })
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
