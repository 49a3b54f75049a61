package record

import (
	"fmt"
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

// ElsewhereOf gives the events that say of another project's cut that it was made from a stick of this one.
func (w *Work) ElsewhereOf(cut string) (all []string) {
	for _, e := range w.events {
		if e.Kind == Elsewhere && e.Item == cut {
			all = append(all, e.ID)
		}
	}
	return all
}

// With is the work with one more event, as if it were told last.
func (w *Work) With(e Event) Work { return Add(append(slices.Clone(w.events), e)) }

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
	Marked   bool           `json:"marked,omitempty"` // how deep it goes is marked at its ends
	Device   string         `json:"device,omitempty"`
	At       int64          `json:"at,omitempty"`
	Basis    string         `json:"basis,omitempty"`
}

// Stick is a stick, or a piece that others are cut from.
type Stick struct {
	Source
	Bought string         `json:"bought,omitempty"` // the event that says that it was bought, or at home; "": it is known by what was cut from it
	Lent   []Lent         `json:"lent,omitempty"`   // pieces of other projects that were cut from it; they are among what is lost
	Basis  string         `json:"basis,omitempty"`  // of when it was bought
	Cuts   []Taken        `json:"cuts"`             // in their order
	Lost   measure.Length `json:"lost,omitempty"`   // spoilt
	Left   measure.Length `json:"left"`             // not below zero
	Racked bool           `json:"racked,omitempty"` // what is left is on the rack
}

// Lent is a piece of another project that was cut from a stick of this one.
type Lent struct {
	Event string         `json:"event"` // of the other's record, that says that it was cut
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

// Joined is what became of a piece's end in a fitting.
type Joined struct {
	Piece
	Frame int    `json:"frame,omitempty"` // of the job; 0 in a project's own record
	Joint string `json:"joint"`
	State Kind   `json:"state"` // [Fitted], [Driven] or [Cemented], whichever came last
	Event string `json:"event"`
}

// Begun says whether anything was bought, cut, marked or joined.
func (w *Work) Begun() bool {
	return len(w.Pieces)+len(w.Sticks)+len(w.Goods)+len(w.Letters)+len(w.Joints) > 0 || w.Figures != nil
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

// Valid gives the events that count, in their order: of those of one id the first, and
// none that was taken back, unless that was taken back itself. Of a purchase that was
// taken back in part, the rest counts.
func Valid(events []Event) []Event {
	first := once(events)
	at := map[string]int{}
	for i, e := range first {
		at[e.ID] = i
	}
	// only what is later takes back: from the end, every event is decided before those it
	// is about
	off, less := make([]bool, len(first)), make([]int, len(first))
	for i := len(first) - 1; i >= 0; i-- {
		if e := &first[i]; e.Kind == TakenBack && !off[i] {
			of, known := at[e.Event]
			switch {
			case !known || of >= i:
			case first[of].counted() && e.Item != "":
				first[of].without = append(first[of].without, e.Item)
			case e.Count == 0:
				off[of] = true
			case first[of].counted():
				less[of] += e.Count
				off[of] = off[of] || less[of] >= first[of].Count
			}
		}
	}
	n := 0
	for i, e := range first {
		if !off[i] {
			if first[n] = e; e.counted() {
				first[n].Count -= less[i]
			}
			n++
		}
	}
	return first[:n]
}

// counted says whether an event is about so many of a thing.
func (e *Event) counted() bool { return e.Kind == Bought || e.Kind == Had }

// once gives the first event of each id.
func once(events []Event) []Event {
	seen, first := map[string]bool{}, make([]Event, 0, len(events))
	for _, e := range events {
		if !seen[e.ID] {
			seen[e.ID] = true
			first = append(first, e)
		}
	}
	return first
}

// Add gives what events add up to. They are in the server's order; those that make no
// sense together, such as a second end of one piece, are taken as they come and never
// lost. It costs a step for each event and each piece
// that is there then.
func Add(events []Event) Work {
	w := Work{
		Pieces:  []Made{},
		Sticks:  []Stick{},
		Goods:   []Goods{},
		Letters: []Letter{},
		Joints:  []Joined{},
		Put:     []shop.Offcut{},
		Notes:   []string{},
	}
	for i := range events {
		w.Last = max(w.Last, events[i].Seq)
	}
	w.basis = map[catalog.Size]string{}
	w.events = once(events)
	a := adding{Work: &w, sticks: map[string]int{}, kerfs: map[string]measure.Length{}, from: sources(w.events)}
	valid := Valid(w.events)
	for i := range valid {
		a.event(&valid[i])
	}
	for i := range w.Sticks {
		w.Sticks[i].settle(a.kerfs[w.Sticks[i].ID])
	}
	return w
}

type adding struct {
	*Work
	sticks map[string]int // by id
	kerfs  map[string]measure.Length
	from   map[string]Source // what each stick was before anything was cut from it, by its id
}

// sources gives what each stick was when it was first named. A later cut from it names what
// was left of it then; that its first cut was taken back makes it no other stick.
func sources(events []Event) map[string]Source {
	from := map[string]Source{}
	for i := range events {
		if s := events[i].Stick; s != nil {
			if _, known := from[s.ID]; !known {
				from[s.ID] = *s
			}
		}
	}
	return from
}

func (a *adding) event(e *Event) {
	switch e.Kind {
	case Begun:
		a.Figures = e.Figures
	case Lettered:
		for _, l := range e.Letters {
			a.letter(l)
		}
	case Bought, Had:
		a.bought(e)
	case Cut:
		a.cut(e)
	case Spoilt:
		if e.Item != "" {
			a.takePiece(e.Item)
			return
		}
		s := a.stick(a.from[e.Stick.ID], "")
		s.Lost += e.Length + e.Kerf
	case Elsewhere:
		s := a.stick(a.from[e.Stick.ID], "")
		s.Lost += e.Length + e.Kerf
		s.Lent = append(s.Lent, Lent{e.Item, e.Length + e.Kerf})
	case Fitted, Driven, Cemented:
		i := slices.IndexFunc(a.Joints, func(j Joined) bool { return j.Piece == *e.Piece && j.Joint == e.Joint })
		if i < 0 {
			i = len(a.Joints)
			a.Joints = append(a.Joints, Joined{})
		}
		a.Joints[i] = Joined{Piece: *e.Piece, Joint: e.Joint, State: e.Kind, Event: e.ID}
	case Measured:
		for i := range a.Pieces {
			if a.Pieces[i].Piece == *e.Piece {
				a.Pieces[i].Measured = e.Length
			}
		}
	case Deburred, Marked:
		if i := a.piece(e.Item); i >= 0 {
			m := &a.Pieces[i]
			m.Deburred, m.Marked = m.Deburred || e.Kind == Deburred, m.Marked || e.Kind == Marked
		}
	case Racked:
		if i, known := a.sticks[e.Item]; known {
			a.Sticks[i].Racked = true
		}
		if i := a.piece(e.Item); i >= 0 {
			m := &a.Pieces[i]
			a.Put = append(a.Put, shop.Offcut{ID: m.ID, Size: m.Size, Length: m.Length, Count: 1})
		}
		a.takePiece(e.Item)
	case Unmatched:
		a.Notes = append(a.Notes, e.Text)
	}
}

// letter fixes a letter, unless it or the pieces it is for have one: what was written
// first stands.
func (a *adding) letter(l Letter) {
	taken := slices.ContainsFunc(a.Letters, func(m Letter) bool {
		same := m
		same.Letter = l.Letter
		return m.Letter == l.Letter || same == l
	})
	if !taken {
		a.Letters = append(a.Letters, l)
	}
}

func (a *adding) bought(e *Event) {
	if e.Ware.Ware == material.Pipe {
		origin := FromShop
		if e.Kind == Had {
			origin = FromHome
		} else {
			a.basis[catalog.Size(e.Ware.Size)] = e.Basis
		}
		for n := range e.Count {
			if slices.Contains(e.without, ItemID(e.ID, n)) {
				continue
			}
			s := a.stick(Source{ItemID(e.ID, n), catalog.Size(e.Ware.Size), e.Ware.Length, 0, origin}, e.Basis)
			s.Bought = e.ID
		}
		return
	}
	i := slices.IndexFunc(a.Goods, func(g Goods) bool { return g.Spec == *e.Ware })
	if i < 0 {
		i = len(a.Goods)
		a.Goods = append(a.Goods, Goods{Spec: *e.Ware})
	}
	g := &a.Goods[i]
	home := e.Kind == Had
	if home {
		g.Home += e.Count
	}
	g.Count, g.Paid, g.Lots = g.Count+e.Count, g.Paid+e.Each.Times(
		e.Count,
	), append(
		g.Lots,
		material.Lot{Event: e.ID, Count: e.Count, Home: home},
	)
}

// ItemID names the n-th of the things that one event bought, counted from 0.
func ItemID(event string, n int) string { return fmt.Sprintf("%s.%d", event, n+1) }

func (a *adding) cut(e *Event) {
	from := a.from[e.Stick.ID]
	if i := a.piece(from.ID); i >= 0 { // what is cut from a piece is cut from that one, as it is
		from = Source{from.ID, a.Pieces[i].Size, a.Pieces[i].Length, 0, FromPiece}
		a.takePiece(from.ID)
	}
	s := a.stick(from, "")
	a.basis[s.Size] = e.Basis
	s.Racked = false // what is cut from it came off the rack
	s.Cuts = append(s.Cuts, Taken{Piece: *e.Piece, Event: e.ID, Length: e.Length, Letter: e.Letter, Basis: e.Basis})
	a.kerfs[from.ID] += e.Kerf
	a.Pieces = append(a.Pieces, Made{
		Piece: *e.Piece, ID: e.ID, Size: s.Size, Length: e.Length, Letter: e.Letter, Stick: s.ID, Device: e.Device, At: e.At, Basis: e.Basis,
	})
}

func (a *adding) piece(id string) int {
	return slices.IndexFunc(a.Pieces, func(m Made) bool { return m.ID == id })
}

// takePiece takes a piece from those that are there: it is spoilt, on the rack, or cut
// into others.
func (a *adding) takePiece(id string) {
	i := a.piece(id)
	if i < 0 {
		return
	}
	of := a.sticks[a.Pieces[i].Stick]
	for k := range a.Sticks[of].Cuts {
		if a.Sticks[of].Cuts[k].Event == id {
			a.Sticks[of].Cuts[k].Gone = true
		}
	}
	a.Pieces = slices.Delete(a.Pieces, i, i+1)
}

// stick finds a stick by its id, or takes it in as it is described.
func (a *adding) stick(s Source, basis string) *Stick {
	i, known := a.sticks[s.ID]
	if !known {
		i = len(a.Sticks)
		a.sticks[s.ID] = i
		a.Sticks = append(a.Sticks, Stick{Source: s, Basis: basis, Cuts: []Taken{}})
	}
	return &a.Sticks[i]
}

// settle works out what is left of a stick.
func (s *Stick) settle(kerf measure.Length) {
	s.Left = s.Length - s.Lost - kerf
	for _, c := range s.Cuts {
		s.Left -= c.Length
	}
	s.Left = max(0, s.Left)
}
