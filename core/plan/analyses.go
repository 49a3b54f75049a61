package plan

import (
	"context"
	"slices"

	"sturdyelbow/core/bows"
	"sturdyelbow/core/budget"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/ends"
	"sturdyelbow/core/envelope"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/floor"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/kept"
	"sturdyelbow/core/level"
	"sturdyelbow/core/link"
	"sturdyelbow/core/model"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/sound"
	"sturdyelbow/core/tolerance"
	"sturdyelbow/core/weight"
)

// This file is the registry: each analysis is one line here and a package of its own.
// An analysis is a function of what was built, and of the figures of others where its
// arguments say so; it gives figures, findings or both. Figures have a member in
// [FrameFigures] or [JobFigures].

// FrameFigures are what the analyses of a frame say, each in its own member.
type FrameFigures struct {
	Seated          []model.Seated              `json:"seated"`          // the outside size in each state
	Links           []link.Report               `json:"links"`           // what holds together without a socket
	ClearanceChecks []envelope.CheckedClearance `json:"clearanceChecks"` // checks against sizes that are not its own
	Weight          weight.Weight               `json:"weight"`
	Check           *tolerance.CutListCheck     `json:"check,omitempty"` // of the cuts that were made
}

// JobFigures are what the analyses of a whole job say.
type JobFigures struct {
	Joinery joinery.Report `json:"joinery"`
	Budget  *budget.Budget `json:"budget,omitempty"` // of a described build
	Figures []shop.Figured `json:"figures"`          // what the plan of its sizes rests on, typical and measured
	Seats   []shop.Seating `json:"seats"`
	Worth   cost.Worth     `json:"worth"` // the bill against the builder's terms
}

// analyse runs the analyses of one frame and gives what they found, after what was
// noticed while it was built.
func (f *Frame) analyse(ctx context.Context, use *FrameUse) []finding.Finding {
	b := f.built
	n := notes{list: b.Findings()}
	f.Seated = b.Seated(nil)
	into(&n, &f.Links)(link.Judge(b))
	into(&n, &f.Weight)(weight.Judge(b))
	into(&n, &f.ClearanceChecks)(envelope.Judge(b, f.folded()))
	into(&n, &f.Check)(tolerance.Check(b, use.Given))
	n.add(kept.Judge(b, n.list))
	n.add(bows.Judge(b))
	n.add(ends.Judge(b))
	n.add(floor.Judge(b, f.wheels()))
	n.add(level.Judge(b))
	n.add(sound.Judge(b, f.linked))
	sound.OfferRoom(ctx, b, n.list)
	return n.list
}

// analyse runs the analyses that look at the whole job, once it is bought.
func (p *Plan) analyse(job *Job, s *Shop, c *catalog.Catalog) {
	n := notes{list: p.Purchase.Findings}
	into(&n, &p.Budget)(budget.Compare(job.Have, &p.Purchase, c, p.Step))
	copies := 0
	for i := range p.Frames {
		copies += p.Frames[i].Copies
	}
	p.Worth = p.Bill.Hold(job.Terms, copies, s.Prices.TaxRate)
	p.Figures, p.Seats = s.Rests(c, p.Sizes())
	p.Findings = append(p.Findings, n.list...)
}

// notes are findings as they come.
type notes struct{ list []finding.Finding }

func (n *notes) add(more []finding.Finding) { n.list = append(n.list, more...) }

// into puts the figures of an analysis in their place, and its findings to the others.
func into[T any](n *notes, at *T) func(figures T, found []finding.Finding) {
	return func(figures T, found []finding.Finding) {
		*at = figures
		n.add(found)
	}
}

// linked says whether a link holds two pipes at or in each other.
func (f *Frame) linked(a, b string) bool {
	return slices.ContainsFunc(f.Links, func(l link.Report) bool {
		return l.Joined == [2]string{a, b} || l.Joined == [2]string{b, a}
	})
}

// wheels are the places where the wheels of axles touch the floor.
func (f *Frame) wheels() (all []fitting.Contact) {
	for _, l := range f.Links {
		for _, p := range l.Wheels {
			all = append(all, fitting.Contact{Joint: l.ID, At: p})
		}
	}
	return all
}

// folded are the outside sizes of the frame with a part of it folded.
func (f *Frame) folded() (all []envelope.Folded) {
	for _, l := range f.Links {
		for _, s := range l.States {
			if s.Name == "folded" {
				all = append(all, envelope.Folded{Link: l.ID, Size: s.Size})
			}
		}
	}
	return all
}

// insertions are those of every frame, with how many of it are built.
func (p *Plan) insertions() (all []joinery.Copies) {
	for i := range p.Frames {
		all = append(all, joinery.Copies{Insertions: p.Frames[i].Insertions, Copies: p.Frames[i].Copies})
	}
	return all
}
