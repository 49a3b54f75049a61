package procure

import (
	"cmp"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// Fate is what becomes of a piece that is there.
type Fate string

// A piece is kept where it is as long as the plan has it; it is trimmed where it is longer
// and what comes off is of no other use; it is too short, so that its place is cut anew;
// or nothing of the plan asks for it. What is not kept or trimmed is there to cut others
// from.
const (
	Keep    Fate = "keep"
	Trim    Fate = "trim"
	Recut   Fate = "recut"
	Surplus Fate = "surplus"
)

// Existing is a piece that is there, against what is planned.
type Existing struct {
	record.Made
	Fate     Fate           `json:"fate"`
	Serves   *PieceRef      `json:"serves,omitempty"`   // the planned piece that it is, or becomes, as the frame calls it
	Place    string         `json:"place,omitempty"`    // its own pipe, as the frame calls it; "" where that is gone
	Wanted   measure.Length `json:"wanted,omitempty"`   // how long its own place has it now
	Cemented bool           `json:"cemented,omitempty"` // it stays as it is and where it is
	Used     bool           `json:"used,omitempty"`     // others are to be cut from it
	// Twice is the id of another that may be the same cut. Nothing is planned from it, and nothing is bought because of it.
	Twice string `json:"twice,omitempty"`

	serves *want
}

// PieceRef names a planned piece.
type PieceRef struct {
	Frame int    `json:"frame"`
	Pipe  string `json:"pipe"`
	Copy  int    `json:"copy"` // counted from 1
}

// want is a planned piece, as the record calls it.
type want struct {
	PieceRef
	pipe   string // as the frame calls it now
	cut    int    // index of its line of the cut list
	length measure.Length
	least  measure.Length // how short it may be; 0: no shorter
}

// is says whether a piece of a length is the planned one.
func (w *want) is(length measure.Length) bool {
	return record.AlikeOnTape(length, w.length) || w.least > 0 && w.least <= length && length < w.length
}

// have is what is there of one size of pipe, set against what is wanted of it.
type have struct {
	keep, trim map[int]int // the wanted piece, by its index: the index of what is there for it
	pieces     []record.Made
	loose      []int  // of pieces: neither kept nor trimmed
	cemented   []bool // of pieces: it stays as it is and where it is
	todo       []int  // of wants: still to be cut
	offers     []stock.Offer
	ids        [][]string // of the offers at hand: each stick's
}

// match sets what is there of a size against what is wanted: first what is cemented, which stays
// where it is whatever its length; then each piece at its own place, then any that is as long,
// then those that are only to be trimmed.
func match(wants []want, size catalog.Size, w *record.Work) have {
	h := have{keep: map[int]int{}, trim: map[int]int{}}
	own := map[PieceRef][]int{}
	for _, m := range w.Pieces {
		if m.Size == size {
			ref := PieceRef{m.Frame, m.Pipe, m.Copy}
			own[ref] = append(own[ref], len(h.pieces))
			h.pieces = append(h.pieces, m)
		}
	}
	if len(h.pieces) == 0 {
		for i := range wants {
			h.todo = append(h.todo, i)
		}
		return h
	}
	taken := make([]bool, len(h.pieces))
	take := func(of map[int]int, wanted, piece int) { of[wanted], taken[piece] = piece, true }
	h.cemented = make([]bool, len(h.pieces))
	for k := range h.pieces {
		h.cemented[k] = w.Cemented(&h.pieces[k])
	}
	for i := range wants {
		for _, k := range own[wants[i].PieceRef] {
			if !taken[k] && h.cemented[k] {
				take(h.keep, i, k)
				break
			}
		}
	}
	for k := range h.pieces {
		taken[k] = taken[k] || h.cemented[k] // where nothing asks for it, it serves for nothing else
	}
	for i := range wants {
		if _, kept := h.keep[i]; kept {
			continue
		}
		for _, k := range own[wants[i].PieceRef] {
			if !taken[k] && wants[i].is(h.pieces[k].Length) {
				take(h.keep, i, k)
				break
			}
		}
	}
	byLength := map[measure.Length][]int{}
	for k := range h.pieces {
		if !taken[k] {
			byLength[h.pieces[k].Length] = append(byLength[h.pieces[k].Length], k)
		}
	}
	for i := range wants {
		if _, kept := h.keep[i]; kept {
			continue
		}
		if at := byLength[wants[i].length]; len(at) > 0 {
			byLength[wants[i].length] = at[1:]
			take(h.keep, i, at[0])
		}
	}
	least := measure.Length(0) // the shortest piece that is still wanted: what comes off must not hold one
	for i := range wants {
		if _, kept := h.keep[i]; !kept && (least == 0 || wants[i].length < least) {
			least = wants[i].length
		}
	}
	for i := range wants {
		if _, kept := h.keep[i]; kept {
			continue
		}
		for _, k := range own[wants[i].PieceRef] {
			if over := h.pieces[k].Length - wants[i].length; !taken[k] && over > 0 && over < least {
				take(h.trim, i, k)
				break
			}
		}
	}
	for k := range h.pieces {
		if !taken[k] {
			h.loose = append(h.loose, k)
		}
	}
	for i := range wants {
		if !h.served(i) {
			h.todo = append(h.todo, i)
		}
	}
	return h
}

func (h *have) served(i int) bool {
	_, keep := h.keep[i]
	_, trim := h.trim[i]
	return keep || trim
}

// atHand offers what is there of a size: sticks that were bought, what is left of others,
// pieces that nothing keeps, and the rack. Equal ones are one offer.
func (h *have) atHand(size catalog.Size, w *record.Work, rack []shop.Offcut, from *shop.Shop) {
	type sort struct {
		origin stock.Origin
		length measure.Length // to be used
		sold   measure.Length
		worth  measure.Money
	}
	var order []sort
	ids := map[sort][]string{}
	add := func(k sort, id string) {
		if ids[k] == nil {
			order = append(order, k)
		}
		ids[k] = append(ids[k], id)
	}
	for i := range w.Sticks {
		s := &w.Sticks[i]
		left := s.Left + trueOver(from, s)
		untouched := len(s.Cuts) == 0 && s.Lost == 0
		switch {
		case s.Size != size || s.Racked || s.Left <= 0:
		case untouched && s.Origin == record.FromShop:
			add(sort{stock.Bought, left, s.Length, 0}, s.ID)
		case untouched && s.Origin == record.FromPart:
			add(sort{stock.Parted, left, left, 0}, s.ID)
		case untouched && s.Origin == record.FromHome:
			add(sort{stock.Home, left, s.Length, 0}, s.ID)
		default:
			add(sort{stock.Offcut, left, left, 0}, s.ID)
		}
	}
	for _, k := range h.loose {
		add(sort{stock.Cut, h.pieces[k].Length, h.pieces[k].Length, 0}, h.pieces[k].ID)
	}
	for _, o := range rack {
		if o.Size != size {
			continue
		}
		if o.ID != "" {
			add(sort{stock.Rack, o.Length, o.Length, o.Worth}, o.ID)
			continue
		}
		for range o.Count {
			add(sort{stock.Rack, o.Length, o.Length, o.Worth}, "")
		}
	}
	slices.SortStableFunc(order, func(a, b sort) int { return cmp.Or(cmp.Compare(a.origin, b.origin), -cmp.Compare(a.length, b.length)) })
	for _, k := range order {
		h.offers = append(h.offers, stock.Offer{
			Material: string(
				size,
			), Length: k.length, Sold: k.sold, Price: k.worth, Priced: k.worth > 0, Count: len(ids[k]), Origin: k.origin,
		})
		h.ids = append(h.ids, ids[k])
	}
}

// trueOver is how much longer a stick of the shop measures than it is named, where nobody measured that very stick.
func trueOver(from *shop.Shop, s *record.Stick) measure.Length {
	if s.Origin != record.FromShop || s.True > 0 {
		return 0
	}
	i := slices.IndexFunc(from.Stock, func(l shop.StockLength) bool { return (l.Size == "" || l.Size == s.Size) && l.Length == s.Length })
	if i < 0 {
		return 0
	}
	return from.Stock[i].Usable() - s.Length
}

// fates says what becomes of each piece that is there. used tells of those that others
// are cut from.
func (h *have) fates(wants []want, used map[string]bool) (all []Existing) {
	serves := make([]int, len(h.pieces))
	fate := make([]Fate, len(h.pieces))
	for k := range serves {
		serves[k] = -1
	}
	for i, k := range h.keep {
		serves[k], fate[k] = i, Keep
	}
	for i, k := range h.trim {
		serves[k], fate[k] = i, Trim
	}
	own := map[PieceRef]int{}
	for i := range wants {
		own[wants[i].PieceRef] = i
	}
	for k, m := range h.pieces {
		e := Existing{Made: m, Fate: fate[k], Used: used[m.ID], Cemented: len(h.cemented) > 0 && h.cemented[k]}
		i, planned := own[PieceRef{m.Frame, m.Pipe, m.Copy}]
		if planned {
			e.Wanted, e.Place = wants[i].length, wants[i].pipe
		}
		switch {
		case serves[k] >= 0:
			w := &wants[serves[k]]
			e.Serves, e.serves = &PieceRef{w.Frame, w.pipe, w.Copy}, w
		case planned && !h.served(i) && m.Length < wants[i].length:
			e.Fate = Recut
		default:
			e.Fate = Surplus
		}
		all = append(all, e)
	}
	return all
}

// letterOf gives the letter that is written on a piece.
func (h *have) letterOf(id string) string {
	for i := range h.pieces {
		if h.pieces[i].ID == id {
			return h.pieces[i].Letter
		}
	}
	return ""
}
