package record

import (
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
)

// Add gives what events add up to. They are in the server's order; those that make no
// sense together, such as a second end of one piece, are taken as they come and never
// lost. It costs a step for each event.
func Add(events []Event) Work {
	var t Tally
	t.Add(events...)
	return t.Work()
}

// Tally is the sum of a record while it grows. One more event costs as much as it changes;
// one that takes another back costs a step for each event. It is used by one at a time; the
// [Work] that it gives is nobody's to change, and stays as it is.
type Tally struct {
	events []Event // the first of each id
	seen   map[string]bool
	last   int64
	sum    *summing // nil: of nothing yet
}

// Last is the sequence number of the last event.
func (t *Tally) Last() int64 { return t.last }

// Add adds events to the sum. Those that it has count once.
func (t *Tally) Add(events ...Event) {
	if t.seen == nil {
		t.seen = map[string]bool{}
	}
	fresh := len(t.events)
	again := t.sum == nil
	for i := range events {
		e := &events[i]
		t.last = max(t.last, e.Seq)
		if t.seen[e.ID] {
			continue
		}
		t.seen[e.ID] = true
		t.events = append(t.events, *e)
		again = again || e.Kind == TakenBack
	}
	if again {
		t.sum = newSum(t.events)
		eachValid(t.events, t.sum.event)
		return
	}
	for i := fresh; i < len(t.events); i++ {
		t.sum.source(&t.events[i])
		t.sum.event(&t.events[i])
	}
}

// Work is what there is now.
func (t *Tally) Work() Work {
	if t.sum == nil {
		t.sum = newSum(nil)
	}
	w := t.sum.Work
	w.Last, w.events = t.last, slices.Clip(t.events)
	w.Pieces = make([]Made, 0, len(t.sum.at))
	for i := range t.sum.Pieces {
		if !t.sum.gone[i] {
			w.Pieces = append(w.Pieces, t.sum.Pieces[i])
		}
	}
	w.Sticks = slices.Clone(w.Sticks)
	for i := range w.Sticks {
		w.Sticks[i].settle(t.sum.kerfs[w.Sticks[i].ID])
	}
	w.Goods, w.Letters, w.Joints = slices.Clone(w.Goods), slices.Clone(w.Letters), slices.Clone(w.Joints)
	w.Put, w.Notes, w.Shared = slices.Clone(w.Put), slices.Clone(w.Notes), slices.Clone(w.Shared)
	w.basis = make(map[catalog.Size]string, len(t.sum.basis))
	for size, basis := range t.sum.basis {
		w.basis[size] = basis
	}
	return w
}

// summing is the work while events are added to it. Its pieces are never taken out of their
// list: gone says which of them are not there any more. What is handed out shares the lists
// within sticks and goods, which are therefore only ever appended to, or replaced.
type summing struct {
	Work
	at     map[string]int // of pieces, by id
	gone   []bool
	sticks map[string]int // by id
	joints map[joint]int
	goods  map[material.Spec]int
	parts  map[string]int  // of sticks: how many they are in
	paid   map[string]bool // of sticks: the shop cut it
	// numbers are those that are written on sticks, each with the stick's id, which of a part is the whole's.
	numbers map[numbered]string
	kerfs   map[string]measure.Length
	from    map[string]Source // what each stick was before anything was cut from it, by its id
}

// numbered is a number among the sticks of a size.
type numbered struct {
	size   catalog.Size
	number int
}

type joint struct {
	Piece
	at string
}

func newSum(events []Event) *summing {
	cuts := 0
	for i := range events {
		if events[i].Kind == Cut {
			cuts++
		}
	}
	a := &summing{
		Work: Work{
			Pieces: make([]Made, 0, cuts), Sticks: []Stick{}, Goods: []Goods{}, Letters: []Letter{},
			Joints: []Joined{}, Put: []shop.Offcut{}, Notes: []string{}, basis: map[catalog.Size]string{},
		},
		at: make(map[string]int, cuts), gone: make([]bool, 0, cuts),
		sticks: map[string]int{}, joints: map[joint]int{}, goods: map[material.Spec]int{}, parts: map[string]int{}, paid: map[string]bool{},
		numbers: map[numbered]string{}, kerfs: map[string]measure.Length{}, from: map[string]Source{},
	}
	for i := range events {
		a.source(&events[i])
	}
	return a
}

// source notes what a stick was when it was first named. A later cut from it names what
// was left of it then; that its first cut was taken back makes it no other stick.
func (a *summing) source(e *Event) {
	if e.Stick == nil {
		return
	}
	if _, known := a.from[e.Stick.ID]; !known {
		a.from[e.Stick.ID] = *e.Stick
	}
}

func (a *summing) event(e *Event) {
	switch e.Kind {
	case Begun:
		a.Figures = e.Figures
	case Lettered:
		for _, l := range e.Letters {
			a.letter(l)
		}
	case Bought, Had:
		a.bought(e)
	case Parted:
		a.parted(e)
	case Cut:
		a.cut(e)
	case Spoilt:
		if e.Item != "" {
			a.takePiece(e.Item)
			return
		}
		s := a.stick(a.cutFrom(e), "")
		s.Lost += e.Length + e.Kerf
	case Elsewhere:
		s := a.stick(a.cutFrom(e), "")
		s.Lost += e.Length + e.Kerf
		a.number(s, e.Number)
		s.Lent = append(s.Lent, Lent{e.Item, e.Text, e.Length + e.Kerf})
	case Fitted, Driven, Cemented:
		key := joint{*e.Piece, e.Joint}
		i, known := a.joints[key]
		if !known {
			i = len(a.Joints)
			a.joints[key] = i
			a.Joints = append(a.Joints, Joined{})
		}
		a.Joints[i] = Joined{Piece: *e.Piece, Joint: e.Joint, State: e.Kind, Event: e.ID}
	case Measured:
		for i := range a.Pieces {
			if a.Pieces[i].Piece == *e.Piece && !a.gone[i] {
				a.Pieces[i].Measured = e.Length
			}
		}
	case BothCut:
		if i := a.piece(e.Item); i >= 0 {
			a.Pieces[i].Both = true
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
func (a *summing) letter(l Letter) {
	taken := slices.ContainsFunc(a.Letters, func(m Letter) bool {
		same := m
		same.Letter = l.Letter
		return m.Letter == l.Letter || same == l
	})
	if !taken {
		a.Letters = append(a.Letters, l)
	}
}

func (a *summing) bought(e *Event) {
	if e.Shared != nil {
		a.Shared = append(a.Shared, Purchase{*e.Ware, e.Shared.Of, e.ID, e.Shared.Count, e.Count - len(e.without), e.Shared.Jobs})
	}
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
			s.Bought, s.Shared = e.ID, e.Shared != nil
		}
		return
	}
	if e.Count == 0 {
		return // all of it is in the records of others
	}
	i, known := a.goods[*e.Ware]
	if !known {
		i = len(a.Goods)
		a.goods[*e.Ware] = i
		a.Goods = append(a.Goods, Goods{Spec: *e.Ware})
	}
	g := &a.Goods[i]
	home := e.Kind == Had
	if home {
		g.Home += e.Count
	}
	g.Count, g.Paid = g.Count+e.Count, g.Paid+e.Each.Times(e.Count)
	g.Lots = append(g.Lots, material.Lot{Event: e.ID, Count: e.Count, Home: home})
}

// ItemID names the n-th of the things that one event bought, counted from 0.
func ItemID(event string, n int) string { return fmt.Sprintf("%s.%d", event, n+1) }

func (a *summing) cut(e *Event) {
	from := a.cutFrom(e)
	if i := a.piece(from.ID); i >= 0 { // what is cut from a piece is cut from that one, as it is
		from = Source{from.ID, a.Pieces[i].Size, a.Pieces[i].Length, 0, FromPiece}
		a.takePiece(from.ID)
	}
	s := a.stick(from, "")
	a.basis[s.Size] = e.Basis
	if first := a.from[e.Stick.ID]; s.True == 0 && first.Length == s.Length {
		s.True = first.True // it is told with the first cut of a stick that was bought
	}
	a.number(s, e.Number)
	s.Racked = false // what is cut from it came off the rack
	s.Cuts = append(s.Cuts, Taken{Piece: *e.Piece, Event: e.ID, Length: e.Length, Letter: e.Letter, Basis: e.Basis})
	a.kerfs[from.ID] += e.Kerf
	a.at[e.ID] = len(a.Pieces)
	a.gone = append(a.gone, false)
	a.Pieces = append(a.Pieces, Made{
		Piece: *e.Piece, ID: e.ID, Size: s.Size, Length: e.Length, Letter: e.Letter, Stick: s.ID, Device: e.Device, At: e.At, Basis: e.Basis,
	})
}

// number fixes what is written on a stick, unless something is, or another of its size has that: its parts have the same.
func (a *summing) number(s *Stick, n int) {
	if n == 0 || s.Number > 0 {
		return
	}
	whole := s.ID
	if s.Of != "" {
		whole = s.Of
	}
	key := numbered{s.Size, n}
	if of, taken := a.numbers[key]; taken && of != whole {
		return
	}
	a.numbers[key], s.Number = whole, n
}

// piece finds a piece that is there; -1 for none.
func (a *summing) piece(id string) int {
	if i, known := a.at[id]; known {
		return i
	}
	return -1
}

// takePiece takes a piece from those that are there: it is spoilt, on the rack, or cut
// into others.
func (a *summing) takePiece(id string) {
	i := a.piece(id)
	if i < 0 {
		return
	}
	s := &a.Sticks[a.sticks[a.Pieces[i].Stick]]
	s.Cuts = slices.Clone(s.Cuts)
	for k := range s.Cuts {
		if s.Cuts[k].Event == id {
			s.Cuts[k].Gone = true
		}
	}
	delete(a.at, id)
	a.gone[i] = true
}

// stick finds a stick by its id, or takes it in as it is described.
func (a *summing) stick(s Source, basis string) *Stick {
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
	s.Left = s.True - s.Lost - kerf
	if s.True == 0 {
		s.Left += s.Length
	}
	if s.Parted {
		s.Left = 0
	}
	for _, c := range s.Cuts {
		s.Left -= c.Length
	}
	s.Left = max(0, s.Left)
}
