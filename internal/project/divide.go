package project

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
)

// LentID is what an event of one project is called in the record of another, whose stick it is about.
func LentID(event string) string { return event + "-lent" }

// Divide says what of several projects that are bought and cut together goes into the record of each, in
// their order. What is bought goes to those that need it; a stick is of the project that it was bought
// for, and a piece of another that is cut from it is lent to that. names are the projects' names, for
// what is said of lent pieces. Events that are of no project are given back with what is wrong.
func Divide(p *plan.Plan, works []record.Work, names []string, events []record.Event) (all [][]record.Event, wrong []string) {
	d := &dividing{
		plan:   p,
		works:  works,
		names:  names,
		all:    make([][]record.Event, len(works)),
		owners: map[string]int{},
		got:    map[material.Spec][]int{},
	}
	for i := range events {
		if why := d.event(events[i]); why != "" {
			wrong = append(wrong, why)
		}
	}
	return d.all, wrong
}

type dividing struct {
	plan   *plan.Plan
	works  []record.Work
	names  []string
	all    [][]record.Event
	owners map[string]int // of sticks that these events name first
	got    map[material.Spec][]int
}

func (d *dividing) to(i int, e record.Event) { d.all[i] = append(d.all[i], e) }

// event divides one; it says what is wrong with one that is of no project.
func (d *dividing) event(e record.Event) string {
	frame := e.Frame
	e.Frame = 0
	if frame < 0 || frame >= len(d.works) {
		return fmt.Sprintf("there is no project number %d", frame+1)
	}
	switch e.Kind {
	case record.Begun:
		for i := range d.works {
			if d.works[i].Figures == nil {
				d.to(i, e)
			}
		}
	case record.Lettered:
		d.letters(e)
	case record.Bought, record.Had:
		d.bought(e)
	case record.Cut:
		d.cut(frame, e)
	case record.Spoilt:
		switch i := d.holder(e.Item); {
		case e.Item == "" && e.Stick != nil:
			d.to(d.owner(e.Stick.ID, frame), e)
		case i >= 0:
			d.to(i, e)
		default:
			return "a piece that none of the projects has"
		}
	case record.Racked, record.Deburred, record.Marked:
		i := d.holder(e.Item)
		if i < 0 {
			return "a piece that none of the projects has"
		}
		d.to(i, e)
	case record.TakenBack:
		return d.back(e)
	default:
		d.to(frame, e)
	}
	return ""
}

// letters gives each project its own, without its number.
func (d *dividing) letters(e record.Event) {
	of := make([][]record.Letter, len(d.works))
	for _, l := range e.Letters {
		n := 0
		rest := strings.TrimLeft(l.Letter, "0123456789")
		if _, err := fmt.Sscan(strings.TrimSuffix(l.Letter, rest), &n); err == nil && n >= 1 && n <= len(of) {
			l.Letter = rest
			of[n-1] = append(of[n-1], l)
		}
	}
	for i, letters := range of {
		if len(letters) > 0 {
			one := e
			one.Letters = letters
			d.to(i, one)
		}
	}
}

// bought gives of what was bought, or was at home, to each project what it still needs, in their order; what
// is more than all need goes to the first that needs any.
func (d *dividing) bought(e record.Event) {
	need := d.needs(*e.Ware)
	left, shares := e.Count, make([]int, len(d.works))
	first := slices.IndexFunc(need, func(n int) bool { return n > 0 })
	for i := range shares {
		shares[i] = min(left, max(0, need[i]-d.already(*e.Ware)[i]))
		left -= shares[i]
	}
	shares[max(0, first)] += left
	sent := 0
	for i, n := range shares {
		if n == 0 {
			continue
		}
		d.already(*e.Ware)[i] += n
		one := e
		if one.Count = n; sent > 0 {
			one.ID = fmt.Sprintf("%s-%d", e.ID, sent) // what it bought has ids of its own
		}
		sent++
		d.to(i, one)
	}
}

// already is how many of a thing each project has, those of these events with it.
func (d *dividing) already(s material.Spec) []int {
	if d.got[s] == nil {
		d.got[s] = make([]int, len(d.works))
		for i := range d.works {
			for _, g := range d.works[i].Goods {
				if g.Spec == s {
					d.got[s][i] += g.Count
				}
			}
			for _, k := range d.works[i].Sticks {
				if s.Ware == material.Pipe && k.Bought != "" && string(k.Size) == s.Size && k.Length == s.Length {
					d.got[s][i]++
				}
			}
		}
	}
	return d.got[s]
}

// needs is how many of a thing each project takes: a stick is of the project of its first piece.
func (d *dividing) needs(s material.Spec) []int {
	need := make([]int, len(d.works))
	if s.Ware == material.Pipe {
		for i := range d.plan.Pipe {
			if t := &d.plan.Pipe[i]; t.Size == catalog.Size(s.Size) {
				for n := range t.Sticks {
					k := &t.Sticks[n]
					if k.Length != s.Length || len(k.Pieces) == 0 ||
						k.Origin != stock.Shop && k.Origin != stock.Bought && k.Origin != stock.Home {
						continue
					}
					if f := k.Pieces[0].Frame; f < len(need) {
						need[f]++
					}
				}
			}
		}
		return need
	}
	for i := range d.plan.Materials {
		if l := &d.plan.Materials[i]; l.Spec == s {
			for _, at := range l.Where {
				if at.Frame < len(need) {
					need[at.Frame] += d.plan.Frames[at.Frame].Copies
				}
			}
			if len(l.Where) == 0 { // a can is everybody's: it is in the first one's record
				need[0] += l.Quantity
			}
		}
	}
	return need
}

// owner is the project whose record has a stick, or which it becomes.
func (d *dividing) owner(stick string, or int) int {
	if i, known := d.owners[stick]; known {
		return i
	}
	best := -1
	for i := range d.works {
		s := d.works[i].Stick(stick)
		if s != nil && (best < 0 || s.Length > d.works[best].Stick(stick).Length) { // of a piece that was lent it has but that
			best = i
		}
	}
	if best < 0 {
		best = or
	}
	d.owners[stick] = best
	return best
}

func (d *dividing) cut(frame int, e record.Event) {
	e.Letter = strings.TrimLeft(e.Letter, "0123456789")
	owner := d.owner(e.Stick.ID, frame)
	if owner == frame {
		d.to(frame, e)
		return
	}
	lent := record.Event{
		ID: LentID(e.ID), Kind: record.Elsewhere, Stick: e.Stick, Length: e.Length, Kerf: e.Kerf, Item: e.ID, Basis: e.Basis,
		Text: d.names[frame],
	}
	// what is left of the stick is its owner's: here it is as long as the piece
	part := *e.Stick
	part.ID = record.PartID(part.ID, e.ID)
	part.Length, part.True, part.Origin = e.Length+e.Kerf, 0, record.FromOffcut
	e.Stick = &part
	d.to(frame, e)
	d.to(owner, lent)
}

// holder is the project that has a piece or a stick; -1 for none.
func (d *dividing) holder(item string) int {
	for i := range d.works {
		if slices.ContainsFunc(d.works[i].Pieces, func(m record.Made) bool { return m.ID == item }) {
			return i
		}
	}
	best := -1
	for i := range d.works {
		if s := d.works[i].Stick(item); s != nil && (best < 0 || s.Length > d.works[best].Stick(item).Length) {
			best = i
		}
	}
	return best
}

// back takes something back where it is, and what was lent for it.
func (d *dividing) back(e record.Event) string {
	found := false
	for i := range d.works {
		w := &d.works[i]
		sent := func(id string) bool {
			return w.Has(id) || slices.ContainsFunc(d.all[i], func(o record.Event) bool { return o.ID == id })
		}
		if sent(e.Event) {
			d.to(i, e)
			found = true
		}
		for _, id := range w.ElsewhereOf(e.Event) {
			d.to(i, record.Event{ID: LentID(e.ID), Kind: record.TakenBack, Event: id})
		}
	}
	if !found {
		return "what none of the projects has on record"
	}
	return ""
}
