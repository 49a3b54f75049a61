package edit

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// asSaid is how far the measured value of a size may be from its stated value for
// the two to count as equal.
const asSaid = measure.Micrometre

// gaveWay is a size, a pipe's direction or a reason of a document that gave way to
// others: which one it is, the field of the document that records it, and what it
// says in a builder's words.
type gaveWay struct {
	layout.Party
	gave  **frame.GaveWay
	words string
}

// gaveWays lists what gave way in the document.
func (e *editor) gaveWays() (all []gaveWay) {
	add := func(kind, id, group string, gave **frame.GaveWay, words string) {
		if *gave != nil {
			all = append(all, gaveWay{layout.Party{Kind: kind, ID: id, Group: group}, gave, words})
		}
	}
	for _, def := range e.doc.Definitions() {
		for i := range def.Sizes {
			s := &def.Sizes[i]
			add("size", s.ID, def.ID, &s.Gave, s.Says())
		}
		for i := range def.Pipes {
			p := &def.Pipes[i]
			add("pipe", p.ID, def.ID, &p.Gave, e.ofDefinition(def, p.ID)+" straight")
		}
		for i := range def.Reasons {
			r := &def.Reasons[i]
			add("reason", r.ID, def.ID, &r.Gave, e.reason(def, r))
		}
	}
	return all
}

// restoreWhatHolds restores what gave way before this gesture, where the frame has
// come to agree with it again. Example: a leg on one side of a rack made that side
// longer than stated; a leg on the other side makes both equal, so the stated size
// is true again. Restoring it moves nothing. The cost is one solution of the
// frame for each candidate.
func (e *editor) restoreWhatHolds() error {
	for _, g := range e.gaveWays() {
		if !slices.ContainsFunc(e.yielded, func(p layout.Party) bool { return p == g.Party }) {
			continue // it gave way just now
		}
		words := g.words
		if g.Kind == "size" {
			z := e.solvedSize(g.ID)
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

// changedBeyond says whether, compared with an earlier view, a joint moved or a
// contradiction was added.
func (e *editor) changedBeyond(before *model.Located) bool {
	return len(e.view.Clashes) > len(before.Clashes) || len(e.view.Near) > len(before.Near) ||
		!slices.EqualFunc(e.view.Points, before.Points, func(p, q measure.Point) bool { return p.Distance(q) <= asSaid })
}

// solvedSize finds a size of the solved frame by its id; nil where there is none.
func (e *editor) solvedSize(id string) *layout.Size {
	for i := range e.view.Sizes {
		if e.view.Sizes[i].ID == id {
			return &e.view.Sizes[i]
		}
	}
	return nil
}
