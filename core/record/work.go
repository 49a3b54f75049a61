package record

import (
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
)

// Work is what events add up to. Lists are in the order in which things came to be.
type Work struct {
	Pieces  []Made   `json:"pieces"`  // that are there
	Sticks  []Stick  `json:"sticks"`  // that were bought or cut from, whatever is left of them
	Goods   []Goods  `json:"goods"`   // bought besides pipe
	Letters []Letter `json:"letters"` // that are taken
	// LettersOf are those of each of several projects that are one job.
	LettersOf [][]Letter    `json:"-"`
	Joints    []Joined      `json:"joints"`
	Figures   *shop.Figures `json:"figures,omitempty"` // that the work was begun with, or took since
	Put       []shop.Offcut `json:"put"`               // pieces that went to the rack
	Notes     []string      `json:"notes"`             // of an older record, what nothing answers to
	Shared    []Purchase    `json:"shared,omitempty"`  // what was bought for other projects, too
	ShopCuts  ShopCuts      `json:"shopCuts"`          // of what was bought
	Last      int64         `json:"last"`              // the sequence number of the last event

	parts  []Work  // of several projects that are one job
	events []Event // that it is the sum of, those taken back and those that take back among them
	basis  map[catalog.Size]string
}

// Basis gives the plan by which something was bought or cut last of a size of pipe; ""
// where that is not known.
func (w *Work) Basis(size catalog.Size) string { return w.basis[size] }

// HasBought says whether sticks of a size were bought.
func (w *Work) HasBought(size catalog.Size) bool {
	return slices.ContainsFunc(w.Sticks, func(s Stick) bool { return s.Size == size && s.Origin == FromShop })
}

// Stick finds a stick, or a piece that others were cut from, by its id; nil for none.
func (w *Work) Stick(id string) *Stick {
	i := slices.IndexFunc(w.Sticks, func(s Stick) bool { return s.ID == id })
	if i < 0 {
		return nil
	}
	return &w.Sticks[i]
}

// Cemented says whether a piece is cemented at one end or both: it stays as it is and where it
// is, whatever becomes of the plan.
func (w *Work) Cemented(m *Made) bool {
	return slices.ContainsFunc(w.Joints, func(j Joined) bool { return j.State == Cemented && j.Piece == m.Piece && j.Frame == m.Frame })
}

// Has says whether a record has an event, taken back or not.
func (w *Work) Has(event string) bool {
	return slices.ContainsFunc(w.events, func(e Event) bool { return e.ID == event })
}

// Knows says whether a record has what an event says: the event, or a share of it.
func (w *Work) Knows(event string) bool {
	return w.Has(event) || slices.ContainsFunc(w.events, func(e Event) bool { return e.Shared != nil && e.Shared.Of == event })
}

// With is the work with one more event, as if it were told last. Of several projects it is of the
// one that its frame says.
func (w *Work) With(e Event) Work {
	if w.parts == nil {
		return Add(append(slices.Clip(w.events), e))
	}
	parts := slices.Clone(w.parts)
	if at := e.Frame; at < len(parts) {
		e.Frame = 0
		parts[at] = parts[at].With(e)
	}
	return Together(parts...)
}

// Before gives what there was before anything was done by a plan, and whether that can be
// said.
func (w *Work) Before(basis string) (Work, bool) {
	if basis == "" || w.events == nil && w.parts == nil {
		return Work{}, false
	}
	if w.parts != nil {
		var before []Work
		for i := range w.parts {
			b, ok := w.parts[i].Before(basis)
			if !ok {
				return Work{}, false
			}
			before = append(before, b)
		}
		return Together(before...), true
	}
	return Add(slices.DeleteFunc(slices.Clone(w.events), func(e Event) bool { return e.Basis == basis })), true
}

// Made is a piece of pipe that is there.
type Made struct {
	Piece
	Frame    int            `json:"frame,omitempty"` // of the job; 0 in a project's own record
	ID       string         `json:"id"`              // of the event that made it
	Size     catalog.Size   `json:"size"`
	Length   measure.Length `json:"length"` // as it was cut
	Measured measure.Length `json:"measured,omitempty"`
	Letter   string         `json:"letter,omitempty"`
	Stick    string         `json:"stick"`
	Deburred bool           `json:"deburred,omitempty"`
	Both     bool           `json:"both,omitempty"`   // it is there besides another of its place
	Marked   bool           `json:"marked,omitempty"` // how deep it goes is marked at its ends
	Device   string         `json:"device,omitempty"`
	At       int64          `json:"at,omitempty"`
	Basis    string         `json:"basis,omitempty"`
}

// Stick is a stick, or a piece that others are cut from.
type Stick struct {
	Source
	Bought string         `json:"bought,omitempty"` // the event that says that it was bought, or at home; "": it is known by what was cut from it
	Shared bool           `json:"shared,omitempty"` // it was bought with others for several projects
	Lent   []Lent         `json:"lent,omitempty"`   // pieces of other projects that were cut from it; they are among what is lost
	Basis  string         `json:"basis,omitempty"`  // of when it was bought
	Cuts   []Taken        `json:"cuts"`             // in their order
	Lost   measure.Length `json:"lost,omitempty"`   // spoilt
	Left   measure.Length `json:"left"`             // not below zero
	Number int            `json:"number,omitempty"` // written on it, among those of its size
	Parted bool           `json:"parted,omitempty"` // what was left of it is in parts, which are sticks of their own
	Of     string         `json:"of,omitempty"`     // the stick that it is a part of
	// Measured says that True is what somebody measured on this very stick.
	Measured bool `json:"measured,omitempty"`
	Racked   bool `json:"racked,omitempty"` // what is left is on the rack
}

// Lent is a piece of another project that was cut from a stick of this one.
type Lent struct {
	Event string         `json:"event"` // of the other's record, that says that it was cut
	For   string         `json:"for"`   // what the other was called then
	Takes measure.Length `json:"takes"` // of the stick, with its kerf
}

// Taken is a piece that was cut from a stick, whatever became of it.
type Taken struct {
	Piece
	Frame  int            `json:"frame,omitempty"` // of the job; 0 in a project's own record
	Event  string         `json:"event"`
	Length measure.Length `json:"length"`
	Letter string         `json:"letter,omitempty"`
	Basis  string         `json:"basis,omitempty"`
	Gone   bool           `json:"gone,omitempty"` // spoilt, cut into others, or on the rack
}

// Goods are things besides pipe that were bought, or were at home before.
type Goods struct {
	material.Spec
	Count int            `json:"count"`
	Home  int            `json:"home,omitempty"` // of them, at home before
	Paid  measure.Money  `json:"paid,omitempty"`
	Lots  []material.Lot `json:"lots"` // that make it up
}

// Back gives what takes so many back to the shop, the last that were bought first. The
// events still need ids.
func (g *Goods) Back(count int) (all []Event) {
	for i := len(g.Lots) - 1; i >= 0 && count > 0; i-- {
		if g.Lots[i].Home {
			continue
		}
		n := min(count, g.Lots[i].Count)
		all = append(all, Event{Kind: TakenBack, Event: g.Lots[i].Event, Count: n})
		count -= n
	}
	return all
}

// Purchase is what was bought at once for several projects, as one of them knows it.
type Purchase struct {
	material.Spec
	Event string `json:"event"` // of the purchase, before it was divided
	Share string `json:"share"` // the event of this one's share of it
	Count int    `json:"count"` // bought for all of them
	Own   int    `json:"own"`   // of it, for those that this is the work of
	Jobs  int    `json:"jobs"`  // so many projects
}

// Everybodys counts what was bought of a thing for several projects and lies in the record of another.
func (w *Work) Everybodys(s material.Spec) (n int) {
	for _, p := range w.Shared {
		if p.Spec == s {
			n += p.Count - p.Own
		}
	}
	return n
}

// IsShared says whether a thing was bought for other projects, too.
func (w *Work) IsShared(s material.Spec) bool {
	return slices.ContainsFunc(w.Shared, func(p Purchase) bool { return p.Spec == s })
}

// Joined is what became of a piece's end in a fitting.
type Joined struct {
	Piece
	Frame int    `json:"frame,omitempty"` // of the job; 0 in a project's own record
	Joint string `json:"joint"`
	State Kind   `json:"state"` // [Fitted], [Driven] or [Cemented], whichever came last
	Event string `json:"event"`
}

// Pipes lists the pipes that pieces are, or were, cut of.
func (w *Work) Pipes() (all []string) {
	seen := map[string]bool{}
	add := func(pipe string) {
		if !seen[pipe] {
			seen[pipe] = true
			all = append(all, pipe)
		}
	}
	for i := range w.Sticks {
		for _, c := range w.Sticks[i].Cuts {
			add(c.Pipe)
		}
	}
	for _, j := range w.Joints {
		add(j.Pipe)
	}
	return all
}
