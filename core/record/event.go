package record

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
)

// Kind is what happened.
type Kind string

// What can happen. Its comment says which members of the event it needs.
const (
	Begun     Kind = "begun"      // work began by some figures of the shop, or takes newer ones: Figures
	Lettered  Kind = "lettered"   // letters were printed or written on pipe: Letters
	Bought    Kind = "bought"     // Ware, Count; pipe by the stick
	Had       Kind = "had"        // it was at home before, and is not paid for: Ware, Count; pipe by the stick
	Parted    Kind = "parted"     // what is left of a stick is in parts, or is as long as it really is: Stick, Lengths; Fee where the shop cut it
	Cut       Kind = "cut"        // a piece was cut: Piece, Stick, Length
	BothCut   Kind = "both-cut"   // a piece that seemed to be said twice was cut besides the other: Item
	Deburred  Kind = "deburred"   // the ends of a piece were cleaned: Item
	Marked    Kind = "marked"     // how deep it goes was marked at the ends of a piece: Item
	Elsewhere Kind = "elsewhere"  // a piece of another project was cut from a stick of this one: Stick, Length, and its event as Item
	Spoilt    Kind = "spoilt"     // a piece is of no use any more: Item; or a length of a stick: Stick, Length
	Fitted    Kind = "dry-fitted" // Piece, in the fitting at Joint
	Driven    Kind = "driven"     // Piece, Joint
	Cemented  Kind = "cemented"   // Piece, Joint
	Measured  Kind = "measured"   // Piece, Length: how long it really is
	Racked    Kind = "racked"     // what is left of a stick, or a piece, went to the rack: Item
	Unmatched Kind = "unmatched"  // something of an older record that nothing of the plan answers to: Text
	TakenBack Kind = "not-done"   // another event did not happen after all: Event; or not so many were bought: Count, or Item of a stick
)

// Kinds lists what can happen.
func Kinds() []Kind {
	return []Kind{
		Begun,
		Lettered,
		Bought,
		Had,
		Parted,
		Cut,
		BothCut,
		Deburred,
		Marked,
		Elsewhere,
		Spoilt,
		Fitted,
		Driven,
		Cemented,
		Measured,
		Racked,
		Unmatched,
		TakenBack,
	}
}

// Piece is a piece of pipe of a frame, for good: whatever becomes of the plan, it is the
// piece of that pipe in that copy.
type Piece struct {
	Pipe string `json:"pipe"`
	Copy int    `json:"copy"` // counted from 1
}

// Source is the stick, offcut or piece that something is cut from, as it was. Its id is
// made on the device when it is first cut from or bought.
type Source struct {
	ID     string         `json:"id"`
	Size   catalog.Size   `json:"size"`
	Length measure.Length `json:"length"`         // as it is named
	True   measure.Length `json:"true,omitempty"` // as it measures, where that is known to be otherwise
	Origin Origin         `json:"origin"`
}

// Holds is the longest piece that can be cut from it.
func (s *Source) Holds() measure.Length { return max(s.Length, s.True) }

// Origin is where a stick comes from.
type Origin string

// A stick comes from a shop, was at home before, comes from the rack, is what an earlier cut left of one, is a
// piece that was cut for something else, or is a part of a stick that was cut in the shop or around a flaw.
const (
	FromShop   Origin = "shop"
	FromHome   Origin = "home"
	FromRack   Origin = "rack"
	FromOffcut Origin = "offcut"
	FromPiece  Origin = "piece"
	FromPart   Origin = "part"
)

// Letter is a letter and the pieces it stands for: it is theirs for good, and never
// another's.
type Letter struct {
	Letter string         `json:"letter"`
	Size   catalog.Size   `json:"size"`
	Cut    measure.Length `json:"cut"`
	Class  frame.Class    `json:"class,omitempty"`
	Path   frame.Path     `json:"path,omitempty"`
	Waits  bool           `json:"waits,omitempty"`
}

// Event is one thing that happened. The members that it needs depend on its kind.
type Event struct {
	Seq    int64  `json:"seq,omitempty"`    // the order in which the server took it; 0 before
	ID     string `json:"id"`               // made on the device: what is sent twice counts once
	Device string `json:"device,omitempty"` // what the device calls itself
	At     int64  `json:"at,omitempty"`     // when the server took it, in milliseconds since 1970
	Kind   Kind   `json:"kind"`

	// Frame says of a piece of several projects that are cut together which of them it is of. It is in
	// no project's record.
	Frame  int            `json:"frame,omitempty"`
	Piece  *Piece         `json:"piece,omitempty"`
	Joint  string         `json:"joint,omitempty"`
	Stick  *Source        `json:"stick,omitempty"`
	Part   int            `json:"part,omitempty"` // of a stick that is in parts: which, counted from 1
	Item   string         `json:"item,omitempty"` // the id of a piece (its cut's event), a stick, or what is left of one
	Length measure.Length `json:"length,omitempty"`
	Kerf   measure.Length `json:"kerf,omitempty"` // lost to the saw by this cut
	// Lengths are the parts that a stick is in, from one end; Fee is what the shop asks for its cuts.
	Lengths []measure.Length `json:"lengths,omitempty"`
	Fee     *Fee             `json:"fee,omitempty"`
	Letter  string           `json:"letter,omitempty"` // that is written on the piece
	Number  int              `json:"number,omitempty"` // that is written on the stick; its own for good, from the first that says so

	Ware  *material.Spec `json:"ware,omitempty"`
	Count int            `json:"count,omitempty"`
	Each  measure.Money  `json:"each,omitempty"` // paid for each

	// Shared says of what was bought for several projects at once, of which Count is this one's, how much
	// all of it was; and of what takes some of it back, how much of all of it that is.
	Shared *Shared `json:"shared,omitempty"`

	Letters []Letter      `json:"letters,omitempty"`
	Figures *shop.Figures `json:"figures,omitempty"`
	Event   string        `json:"event,omitempty"` // the id of another
	Text    string        `json:"text,omitempty"`

	without []string // sticks of a purchase that were not bought after all

	// Basis is the plan by which it was done: what a size's pipe was to be cut from then.
	// Where the plan is still the same, it goes on as it was.
	Basis string `json:"basis,omitempty"`
}

// Shared is the whole of a purchase that was divided among several projects.
type Shared struct {
	Of    string `json:"of,omitempty"` // the event as it was sent, before it was divided
	Count int    `json:"count"`        // of all of them
	Jobs  int    `json:"jobs,omitempty"`
}

// The most that an event may hold, and a record: what no builder meets.
const (
	maxID    = 80
	maxText  = 1000
	maxParts = 40 // of one stick
	// MostAtOnce is how many small parts one event may be of, and MostSticksAtOnce how many sticks of pipe.
	MostAtOnce       = 10_000
	MostSticksAtOnce = 500
	// OverLong is how much longer a stick may be than it is named.
	OverLong = 2 * measure.Inch
	// MostSticks is how many sticks of pipe a record may come to.
	MostSticks = 5000
)

// TooMuch is what is wrong with adding an event to a record that has as much as any builder needs;
// nil where nothing is. What takes something back is never too much.
func (w *Work) TooMuch(e *Event) *shop.Problem {
	if e.counted() && e.Ware != nil && e.Ware.Ware == material.Pipe && len(w.Sticks)+e.Count > MostSticks {
		return &shop.Problem{
			Path: "/count", What: fmt.Sprintf("%d sticks, where the project has %d already", e.Count, len(w.Sticks)),
			Hint: fmt.Sprintf("a project holds up to %d: take back what was not bought", MostSticks),
		}
	}
	return nil
}

// Problem is what is wrong with an event, by the member at fault; nil where nothing is.
func (e *Event) Problem() *shop.Problem {
	no := func(member, what, hint string) *shop.Problem {
		return &shop.Problem{Path: "/" + member, What: what, Hint: hint}
	}
	needs := func(member string) *shop.Problem { return no(member, "missing", fmt.Sprintf("%q needs it", e.Kind)) }
	switch {
	case e.ID == "" || len(e.ID) > maxID:
		return no("id", "no id", fmt.Sprintf("give it one of up to %d bytes", maxID))
	case len(e.Device) > maxID || len(e.Joint) > maxText || len(e.Text) > maxText || len(e.Basis) > maxID || len(e.Item) > maxID || len(e.Letter) > maxID:
		return no("text", "a text that is too long", fmt.Sprintf("use up to %d bytes", maxText))
	case e.Length < 0 || e.Length > shop.StockLimit:
		return no("length", "no length of pipe", "give one in nanometres")
	case e.Part < 0 || e.Part > maxParts:
		return no("part", "no part of a stick", "count them from 1")
	case e.Number < 0 || e.Number > 9*MostSticks:
		return no("number", "no number of a stick", "count them from 1")
	case e.Kerf < 0 || e.Kerf > measure.Inch:
		return no("kerf", "a kerf below zero or above 1 in", "give what the saw takes")
	case e.Piece != nil && (e.Piece.Pipe == "" || len(e.Piece.Pipe) > maxText || e.Piece.Copy < 1):
		return no("piece", "no piece", "give its pipe and which copy, counted from 1")
	case e.Stick != nil && (e.Stick.ID == "" || len(e.Stick.ID) > maxID || !e.Stick.Size.Known() || e.Stick.Length <= 0 || e.Stick.Holds() > shop.StockLimit || e.Stick.True < 0):
		return no("stick", "no stick", "give its id, its size and its length")
	case e.Each < 0:
		return no("each", "a price below zero", "give what was paid")
	case e.Kind != Bought && e.Kind != Had && e.Kind != TakenBack && e.Count != 0 || e.Count < 0:
		return no("count", "a count of what has none", "send one for each")
	}
	switch e.Kind {
	case Begun:
		if e.Figures == nil {
			return needs("figures")
		}
		s := shop.Shop{}
		e.Figures.Put(&s)
		for _, p := range s.Problems() {
			return &p
		}
	case Lettered:
		if len(e.Letters) == 0 {
			return needs("letters")
		}
		for _, l := range e.Letters {
			if l.Letter == "" || len(l.Letter) > 8 || !l.Size.Known() {
				return no("letters", "no letter of a size of pipe", "give letter, size and cut")
			}
		}
	case Bought, Had:
		if e.Ware == nil {
			return needs("ware")
		}
		most, of := MostAtOnce, "a thing"
		if e.Ware.Ware == material.Pipe {
			most, of = MostSticksAtOnce, "a stick"
		}
		if e.Count < 1 && e.Shared == nil || e.Count > most {
			return no("count", fmt.Sprintf("%d of %s", e.Count, of), fmt.Sprintf("say 1 to %d", most))
		}
	case Cut:
		switch {
		case e.Piece == nil:
			return needs("piece")
		case e.Stick == nil:
			return needs("stick")
		case e.Length == 0:
			return needs("length")
		case e.Length > e.Stick.Holds():
			return no("length", "a piece longer than what it is cut from", "see what it was cut from")
		}
	case Parted:
		switch {
		case e.Stick == nil:
			return needs("stick")
		case len(e.Lengths) == 0 || len(e.Lengths) > maxParts:
			return no("lengths", fmt.Sprintf("%d parts", len(e.Lengths)), fmt.Sprintf("give the length of each, of up to %d", maxParts))
		case e.Fee != nil && (e.Fee.Each < 0 || e.Fee.Free < 0):
			return no("fee", "a fee below zero", "give what each cut costs")
		}
		sum := measure.Length(0)
		for i, l := range e.Lengths {
			if l <= 0 || l > shop.StockLimit {
				return no(fmt.Sprintf("lengths/%d", i), "no length of pipe", "give how long the part is")
			}
			sum += l
		}
		if most := e.Stick.Holds(); sum > most+OverLong {
			return no("lengths", fmt.Sprintf("parts that come to %v, of a stick of %v", sum, most), "measure them once more")
		}
	case Spoilt:
		if e.Item == "" && (e.Stick == nil || e.Length == 0) {
			return needs("item")
		}
	case Fitted, Driven, Cemented:
		if e.Piece == nil {
			return needs("piece")
		}
		if e.Joint == "" {
			return needs("joint")
		}
	case Measured:
		if e.Piece == nil {
			return needs("piece")
		}
		if e.Length == 0 {
			return needs("length")
		}
	case Elsewhere:
		if e.Stick == nil || e.Length == 0 || e.Item == "" {
			return needs("stick")
		}
	case Racked, Deburred, Marked, BothCut:
		if e.Item == "" {
			return needs("item")
		}
	case Unmatched:
		if e.Text == "" {
			return needs("text")
		}
	case TakenBack:
		if e.Event == "" {
			return needs("event")
		}
	default:
		return no("kind", fmt.Sprintf("there is no event %q", e.Kind), "see the list of events")
	}
	return nil
}
