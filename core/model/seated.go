package model

import (
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Seated is the outside size of the cut frame in one state of its joints.
type Seated struct {
	State string            `json:"state"` // hand-tight, driven or finished
	Text  string            `json:"text"`
	Size  [3]measure.Length `json:"size"`
	Gap   measure.Length    `json:"gap"`   // what does not meet in this state, shared out
	Meets bool              `json:"meets"` // the joints take the gap up
}

// taken is the gap that joints take up without a word: a step of the tape.
const taken = measure.Inch / 16

// drivenSeat is how deep a mallet drives a dry pipe, typically.
const drivenSeat = 0.85

// state is how deep the pipes sit in one state of the work.
type state struct {
	name, text string
	seat       func(p *fitting.Port) float64
}

// states are the states of the joints in which a cut frame has a size of its own.
func (b *Built) states() []state {
	dry := func(depth func(p *fitting.Port) float64) func(p *fitting.Port) float64 {
		return func(p *fitting.Port) float64 {
			if p.Mode == frame.Eased || p.Mode == "" {
				return p.Seat
			}
			return depth(p)
		}
	}
	return []state{
		{"hand-tight", "dry-fitted by hand", dry(func(p *fitting.Port) float64 { return b.Catalog.HandTight(p.PipeSize) })},
		{"driven", "dry-fitted, driven with a mallet", dry(func(*fitting.Port) float64 { return drivenSeat })},
		{"finished", "finished as planned", func(p *fitting.Port) float64 { return p.Seat }},
	}
}

// Seated gives the outside size of pieces that are cut so, one cut for each pipe in
// order, in each state of the joints: put together by hand, driven, and finished as
// planned. nil stands for the cuts of the plan.
func (b *Built) Seated(cuts []measure.Length) (all []Seated) {
	if cuts == nil {
		cuts = make([]measure.Length, len(b.List.Pieces))
		for i := range cuts {
			cuts[i] = b.List.Pieces[i].Cut
		}
	}
	for _, st := range b.states() {
		fits := b.Fits.Reseat(st.seat)
		a := cutlist.Assemble(b.Graph, fits, cutlist.Effective(b.Graph, fits, cuts), b.Solution)
		lo, hi := b.Around(fits.Overall(a.Points))
		all = append(all, Seated{State: st.name, Text: st.text, Size: hi.Sub(lo), Gap: a.Gap, Meets: a.Gap <= taken})
	}
	return all
}
