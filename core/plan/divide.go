package plan

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
)

// Sharing is what something that was done goes into: the record of one project, or of several that are
// bought and cut together.
type Sharing struct {
	Plan  *Plan         // of all of them; nil where it cannot be made, or nothing was bought
	Works []record.Work // what was done of each, in their order
	Names []string      // of the projects, for what is said of pieces that are lent
	// Kin are the records of further projects that have a part in what is taken back: see [Kin].
	Kin []record.Work
}

// Misfit is an event that no record can take.
type Misfit struct {
	Event int    // its place among those that were to be divided
	Path  string // of the member at fault
	What  string
}

// lentEnd is what an event of one project has at the end of its id in the record of another, whose stick it is about.
const lentEnd = "-lent"

// LentID is what an event of one project is called in the record of another, whose stick it is about.
func LentID(event string) string { return event + lentEnd }

// shareID is what the share of a purchase is called that has a number, counted from 1.
func shareID(event string, number int) string { return fmt.Sprintf("%s-%d", event, number) }

// Kin gives the ids whose bearers, and the bearers of ids that go on with a hyphen, have a part in an event
// that takes another back: shares of one purchase, a cut and the stick that was lent for it.
func Kin(e record.Event) []string {
	if e.Kind != record.TakenBack || e.Event == "" {
		return nil
	}
	ids := []string{e.Event}
	if of, is := strings.CutSuffix(e.Event, lentEnd); is {
		ids = append(ids, of)
	}
	if i := strings.LastIndexByte(e.Event, '-'); i > 0 {
		var n int
		if _, err := fmt.Sscanf(e.Event[i+1:], "%d", &n); err == nil && shareID(e.Event[:i], n) == e.Event {
			ids = append(ids, e.Event[:i])
		}
	}
	return ids
}

// Divide says what of things that were done goes into each record, those of kin after the others. Of several
// projects, what is bought goes to those that need it, and each that does knows how much all of it was; a stick is
// of the project that it was bought for, and a piece of another that is cut from it is lent to that. What is taken
// back is taken back in every record that has a part in it. An event that fits nowhere is given back with what is
// wrong, and goes into none.
func Divide(s Sharing, events []record.Event) (all [][]record.Event, wrong []Misfit) {
	d := &dividing{
		Sharing: s,
		alone:   len(s.Works) == 1,
		records: slices.Concat(s.Works, s.Kin),
		owners:  map[string]int{},
		got:     map[material.Spec][]int{},
		parts:   map[string]*parts{},
	}
	d.all, d.sticks = make([][]record.Event, len(d.records)), make([]int, len(d.records))
	for i := range events {
		d.misfit = nil
		had := make([]int, len(d.all))
		for k := range d.all {
			had[k] = len(d.all[k])
		}
		if why := d.event(events[i]); why != "" && d.misfit == nil {
			d.misfit = &Misfit{What: why}
		}
		if d.misfit == nil {
			continue
		}
		for k := range d.all {
			d.all[k] = d.all[k][:had[k]]
		}
		d.misfit.Event = i
		wrong = append(wrong, *d.misfit)
	}
	return d.all, wrong
}

type dividing struct {
	Sharing
	alone   bool
	records []record.Work // those of kin with them
	all     [][]record.Event
	owners  map[string]int // of sticks that these events name first
	got     map[material.Spec][]int
	sticks  []int             // bought by these events, by record
	parts   map[string]*parts // of purchases, by the event that was divided
	misfit  *Misfit
}

// to puts an event into a record, unless it is more than a record takes.
func (d *dividing) to(i int, e record.Event) {
	w := &d.records[i]
	if (e.Kind == record.Bought || e.Kind == record.Had) && e.Ware != nil && e.Ware.Ware == material.Pipe && !w.Has(e.ID) {
		more := e
		more.Count += d.sticks[i]
		if p := w.TooMuch(&more); p != nil {
			d.misfit = &Misfit{Path: p.Path, What: p.What + "; " + p.Hint}
			return
		}
		d.sticks[i] += e.Count
	}
	d.all[i] = append(d.all[i], e)
}

// event divides one; it says what is wrong with one that is of no project.
func (d *dividing) event(e record.Event) string {
	frame := e.Frame
	e.Frame = 0
	switch {
	case e.Kind == record.TakenBack:
		return d.back(e)
	case d.alone:
		d.to(0, e)
		return ""
	case frame < 0 || frame >= len(d.Works):
		return fmt.Sprintf("there is no project number %d", frame+1)
	}
	switch e.Kind {
	case record.Begun:
		for i := range d.Works {
			if d.Works[i].Figures == nil {
				d.to(i, e)
			}
		}
	case record.Lettered:
		d.letters(e)
	case record.Bought, record.Had:
		d.bought(e)
	case record.Cut:
		d.cut(frame, e)
	case record.Parted:
		d.parted(frame, e)
	case record.Spoilt:
		switch i := d.holder(e.Item); {
		case e.Item == "" && e.Stick != nil:
			d.to(d.owner(e.Stick.ID, frame), e)
		case i >= 0:
			d.to(i, e)
		default:
			return "a piece that none of the projects has"
		}
	case record.Racked, record.Deburred, record.Marked, record.BothCut:
		i := d.holder(e.Item)
		if i < 0 {
			return "a piece that none of the projects has"
		}
		d.to(i, e)
	default:
		d.to(frame, e)
	}
	return ""
}

// letters gives each project its own, without its number.
func (d *dividing) letters(e record.Event) {
	of := make([][]record.Letter, len(d.Works))
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
// is more than all need goes to the first that needs any. Each that it is for has its share with how much all
// of it was, be it none.
func (d *dividing) bought(e record.Event) {
	need, isFor := d.needs(*e.Ware)
	got := d.already(*e.Ware)
	var of []int // the projects that it is for
	for i, is := range isFor {
		if is {
			of = append(of, i)
		}
	}
	if len(of) < 2 {
		i := 0
		if len(of) == 1 {
			i = of[0]
		}
		got[i] += e.Count
		d.to(i, e)
		return
	}
	left, shares := e.Count, make([]int, len(d.Works))
	for _, i := range of {
		shares[i] = min(left, max(0, need[i]-got[i]))
		left -= shares[i]
	}
	shares[of[0]] += left
	p := &parts{count: e.Count}
	for n, i := range of {
		got[i] += shares[i]
		one := e
		one.ID, one.Count = shareID(e.ID, n+1), shares[i] // what each bought has ids of its own
		one.Shared = &record.Shared{Of: e.ID, Count: e.Count, Jobs: len(of)}
		p.all = append(p.all, part{record: i, id: one.ID, own: shares[i]})
		d.to(i, one)
	}
	d.parts[e.ID] = p
}

// parted puts the parts of a stick where the stick is: of one that these events bought, with the share that it is in.
func (d *dividing) parted(frame int, e record.Event) {
	for of, p := range d.parts {
		if p == nil || !strings.HasPrefix(e.Stick.ID, of+".") {
			continue
		}
		n := 0
		if _, err := fmt.Sscanf(e.Stick.ID[len(of):], ".%d", &n); err != nil || record.ItemID(of, n-1) != e.Stick.ID {
			continue
		}
		for _, x := range p.all {
			if n--; n < x.own {
				stick := *e.Stick
				stick.ID = record.ItemID(x.id, n)
				e.Stick = &stick
				d.to(x.record, e)
				return
			}
			n -= x.own - 1
		}
	}
	d.to(d.owner(e.Stick.ID, frame), e)
}

// already is how many of a thing each project has: of sticks those that these events bought, of other things all.
func (d *dividing) already(s material.Spec) []int {
	if d.got[s] == nil {
		d.got[s] = make([]int, len(d.Works))
		for i := range d.Works {
			for _, g := range d.Works[i].Goods {
				if g.Spec == s {
					d.got[s][i] += g.Count
				}
			}
		}
	}
	return d.got[s]
}

// needs is how many of a thing each project takes, of sticks how many more, and which of them it is for: a stick is of the
// project of its first piece and for all that have one of it, a can is everybody's and in the first one's record.
func (d *dividing) needs(s material.Spec) (need []int, isFor []bool) {
	need, isFor = make([]int, len(d.Works)), make([]bool, len(d.Works))
	if d.Plan == nil {
		return need, isFor
	}
	takes := func(frame, n int) {
		if frame < len(need) {
			need[frame], isFor[frame] = need[frame]+n, true
		}
	}
	if s.Ware != material.Pipe {
		for i := range d.Plan.Materials {
			l := &d.Plan.Materials[i]
			if l.Spec != s {
				continue
			}
			for _, at := range l.Where {
				takes(at.Frame, d.Plan.Frames[at.Frame].Copies)
			}
			if len(l.Where) == 0 {
				for k := range need {
					takes(k, 0)
				}
				takes(0, l.Quantity)
			}
		}
		return need, isFor
	}
	for i := range d.Plan.Pipe {
		t := &d.Plan.Pipe[i]
		if t.Size != catalog.Size(s.Size) {
			continue
		}
		for n := range t.Sticks {
			k := &t.Sticks[n]
			if k.Length != s.Length || len(k.Pieces) == 0 ||
				!slices.Contains([]stock.Origin{stock.Shop, stock.Bought, stock.Home}, k.Origin) {
				continue
			}
			if k.ID == "" {
				takes(k.Pieces[0].Frame, 1)
			}
			for _, x := range k.Pieces {
				takes(x.Frame, 0)
			}
		}
	}
	return need, isFor
}

// owner is the project whose record has a stick, or which it becomes.
func (d *dividing) owner(stick string, or int) int {
	if i, known := d.owners[stick]; known {
		return i
	}
	best := -1
	for i := range d.Works {
		s := d.Works[i].Stick(stick)
		if s != nil && (best < 0 || s.Length > d.Works[best].Stick(stick).Length) { // of a piece that was lent it has but that
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
		ID: LentID(e.ID), Kind: record.Elsewhere, Item: e.ID, Text: d.Names[frame],
		Stick: e.Stick, Length: e.Length, Kerf: e.Kerf, Basis: e.Basis, Number: e.Number, Part: e.Part,
	}
	// what is left of the stick is its owner's: here it is as long as the piece
	part := *e.Stick
	if e.Part > 0 {
		part.ID = record.PartNo(part.ID, e.Part-1)
	}
	part.ID, e.Part = record.PartID(part.ID, e.ID), 0
	part.Length, part.True, part.Origin = e.Length+e.Kerf, 0, record.FromOffcut
	e.Stick = &part
	d.to(frame, e)
	d.to(owner, lent)
}

// holder is the project that has a piece or a stick; -1 for none.
func (d *dividing) holder(item string) int {
	for i := range d.Works {
		if slices.ContainsFunc(d.Works[i].Pieces, func(m record.Made) bool { return m.ID == item }) {
			return i
		}
	}
	best := -1
	for i := range d.Works {
		if s := d.Works[i].Stick(item); s != nil && (best < 0 || s.Length > d.Works[best].Stick(item).Length) {
			best = i
		}
	}
	return best
}
