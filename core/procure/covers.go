package procure

import (
	"cmp"
	"maps"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
)

// assign finds for each chosen stick the one that is there for it: its id and the pieces
// that are cut from it. It fails where something was done that the plan does not have:
// sticks were bought besides, or cut in another way.
func (c *cutting) assign(w *record.Work, basis string) (at []there, ok bool) {
	at = make([]there, len(c.stock.Sticks))
	was := map[string]*record.Stick{}
	for i := range c.base.Sticks {
		was[c.base.Sticks[i].ID] = &c.base.Sticks[i]
	}
	wanted := map[PieceRef]*want{}
	for _, i := range c.have.todo {
		wanted[c.wants[i].PieceRef] = &c.wants[i]
	}
	trims := map[string]want{}
	for i, k := range c.have.trim {
		trims[c.have.pieces[k].ID] = c.wants[i]
	}
	free := make([][]string, len(c.prob.Offers)) // ids at hand that no stick has yet
	for i := range free {
		free[i] = slices.Clone(c.have.ids[i])
	}
	begun := slices.Clone(w.Sticks)
	// those of which most is cut choose first
	cutFrom := map[string]int{}
	for i := range begun {
		cutFrom[begun[i].ID] += len(begun[i].Cuts)
		cutFrom[begun[i].Of] += len(begun[i].Cuts)
	}
	slices.SortStableFunc(begun, func(a, b record.Stick) int { return cmp.Compare(cutFrom[b.ID], cutFrom[a.ID]) })
	for i := range begun {
		s := &begun[i]
		if s.Size != c.size {
			continue
		}
		before := was[s.ID]
		if whole := was[s.Of]; s.Of != "" && before == nil && (whole == nil || !whole.Parted) {
			continue // with the stick that it is a part of
		}
		if s.Parted && (before == nil || !before.Parted) {
			if before != nil || !c.asParts(w, s, basis, wanted, at) {
				return nil, false // it came home in other parts than the plan has, or is cut otherwise
			}
			continue
		}
		var cuts []record.Taken
		for _, t := range s.Cuts {
			if t.Basis == basis {
				cuts = append(cuts, t)
			}
			if t.Gone && (t.Basis == basis || before != nil && !goneIn(before, t.Event)) && w.Stick(t.Event) == nil {
				return nil, false
			}
		}
		if before != nil && before.Lost != s.Lost || before == nil && s.Lost > 0 {
			return nil, false
		}
		if before != nil && len(cuts) == 0 {
			if before.Racked != s.Racked {
				return nil, false
			}
			continue // as it was
		}
		if want, trim := trims[s.ID]; trim {
			if len(cuts) != 1 || cuts[0].Length != want.length ||
				(PieceRef{Pipe: cuts[0].Pipe, Copy: cuts[0].Copy, Frame: cuts[0].Frame}) != want.PieceRef {
				return nil, false
			}
			continue
		}
		for _, t := range cuts {
			ref := PieceRef{Frame: t.Frame, Pipe: t.Pipe, Copy: t.Copy}
			if w := wanted[ref]; w == nil || !w.is(t.Length) {
				return nil, false
			}
			delete(wanted, ref)
		}
		n := c.find(s, before == nil, cuts, at, free)
		if n < 0 {
			return nil, false
		}
		at[n] = there{s.ID, cuts, false}
	}
	return at, true
}

// asParts finds the chosen stick that the shop cut as the plan has it, each part with the pieces that were cut from it.
func (c *cutting) asParts(w *record.Work, s *record.Stick, basis string, wanted map[PieceRef]*want, at []there) bool {
	parts := w.PartsOf(s.ID)
	if len(s.Cuts) > 0 || s.Lost > 0 || s.Origin != record.FromShop {
		return false
	}
	var all []record.Taken
	best, extra := -1, 0
seek:
	for n := range c.stock.Sticks {
		k := &c.stock.Sticks[n]
		o := &c.prob.Offers[k.Offer]
		if at[n].id != "" || o.Origin != stock.Shop || o.Sold != s.Length || len(k.Parts) != len(parts) {
			continue
		}
		from, more := 0, 0
		var cuts []record.Taken
		for i := range parts {
			pieces := k.Pieces[from : from+k.Parts[i].Pieces]
			from += k.Parts[i].Pieces
			m, of := without(pieces, parts[i].Cuts)
			if !of || parts[i].Length != k.Parts[i].Length || parts[i].Lost > 0 || parts[i].Parted {
				continue seek
			}
			more += m
			cuts = append(cuts, parts[i].Cuts...)
		}
		if best < 0 || more < extra {
			best, extra, all = n, more, cuts
		}
	}
	if best < 0 {
		return false
	}
	for _, t := range all {
		ref := PieceRef{Frame: t.Frame, Pipe: t.Pipe, Copy: t.Copy}
		if x := wanted[ref]; t.Basis != basis || t.Gone || x == nil || !x.is(t.Length) {
			return false
		}
		delete(wanted, ref)
	}
	at[best] = there{s.ID, all, true}
	return true
}

// there is a stick that is there: its id, and what the plan cut from it.
type there struct {
	id     string
	cuts   []record.Taken
	parted bool // it came home in the parts that the plan has
}

func goneIn(s *record.Stick, event string) bool {
	return slices.ContainsFunc(s.Cuts, func(t record.Taken) bool { return t.Event == event && t.Gone })
}

// find gives the chosen stick that a stick is: one from the same offer with the pieces
// that were cut from it, and the fewest others; -1 for none. One that the plan did not
// have is one of those that it buys.
func (c *cutting) find(s *record.Stick, fresh bool, cuts []record.Taken, at []there, free [][]string) int {
	best, extra, offer := -1, 0, -1
	for n := range c.stock.Sticks {
		k := &c.stock.Sticks[n]
		if at[n].id != "" {
			continue
		}
		o := &c.prob.Offers[k.Offer]
		ofShop := fresh && o.Origin == stock.Shop && s.Origin == record.FromShop && o.Sold == s.Length
		if !ofShop && !slices.Contains(free[k.Offer], s.ID) {
			continue
		}
		more, all := without(k.Pieces, cuts)
		if all && (best < 0 || more < extra) {
			best, extra, offer = n, more, k.Offer
		}
	}
	if best >= 0 {
		free[offer] = slices.DeleteFunc(free[offer], func(id string) bool { return id == s.ID })
	}
	return best
}

// without counts the pieces of a stick besides those that were cut, and says whether all
// of these are among them.
func without(pieces []stock.Piece, cuts []record.Taken) (more int, all bool) {
	left := map[measure.Length]int{}
	for _, p := range pieces {
		left[p.Length]++
	}
	for _, t := range cuts {
		if left[t.Length]--; left[t.Length] < 0 {
			return 0, false
		}
	}
	for n := range maps.Values(left) {
		more += n
	}
	return more, true
}
