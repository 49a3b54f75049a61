package record

import (
	"reflect"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
)

// Together is the work of several projects whose frames are one job, in that order. They
// have no letters in common: each has its own A. Figures stay where all that have some
// have the same. A stick of one from which pieces of others were cut is one stick.
func Together(works ...Work) Work {
	all := Add(nil)
	all.events, all.parts = nil, works
	newest := map[catalog.Size]int64{}
	for _, w := range works {
		for size, basis := range w.basis { // what was done last goes on
			if basis != "" && w.Last >= newest[size] {
				all.basis[size], newest[size] = basis, w.Last
			}
		}
	}
	same := true
	for frame, w := range works {
		for _, m := range w.Pieces {
			m.Frame = frame
			all.Pieces = append(all.Pieces, m)
		}
		for _, s := range w.Sticks {
			all.addStick(s, frame)
		}
		all.LettersOf = append(all.LettersOf, w.Letters)
		for _, j := range w.Joints {
			j.Frame = frame
			all.Joints = append(all.Joints, j)
		}
		for _, q := range w.Shared {
			i := slices.IndexFunc(all.Shared, func(o Purchase) bool { return o.Event == q.Event && o.Spec == q.Spec })
			if i < 0 {
				all.Shared = append(all.Shared, q)
				continue
			}
			all.Shared[i].Own += q.Own
		}
		all.ShopCuts.Done += w.ShopCuts.Done
		if w.ShopCuts.Each > 0 {
			all.ShopCuts.Fee = w.ShopCuts.Fee
		}
		all.Put = append(all.Put, w.Put...)
		all.Notes = append(all.Notes, w.Notes...)
		all.Last = max(all.Last, w.Last)
		for _, g := range w.Goods {
			i := slices.IndexFunc(all.Goods, func(h Goods) bool { return h.Spec == g.Spec })
			if i < 0 {
				all.Goods = append(all.Goods, g)
				continue
			}
			h := &all.Goods[i]
			h.Count, h.Home, h.Paid, h.Lots = h.Count+g.Count, h.Home+g.Home, h.Paid+g.Paid, slices.Concat(h.Lots, g.Lots)
		}
		switch {
		case w.Figures == nil:
		case all.Figures == nil && same:
			all.Figures = w.Figures
		case !reflect.DeepEqual(all.Figures, w.Figures):
			all.Figures, same = nil, false
		}
	}
	// what all who share it are here for is no more shared than what one of them buys
	all.Shared = slices.DeleteFunc(all.Shared, func(q Purchase) bool { return q.Own >= q.Count })
	for i := range all.Sticks {
		s := &all.Sticks[i]
		s.Shared = s.Shared && all.IsShared(material.Spec{Ware: material.Pipe, Size: string(s.Size), Length: s.Length})
	}
	return all
}

// PartID names what a project has of a stick of another one: as much as the piece that a cut made.
func PartID(stick, cut string) string { return stick + "~" + cut }

// wholeID is the stick that a part is of.
func wholeID(id string) string {
	whole, _, _ := strings.Cut(id, "~")
	return whole
}

// addStick takes a stick of a project in. Where it is there already, from another one, the two are one:
// what the one lent is what the other cut.
func (w *Work) addStick(s Stick, frame int) {
	s.Cuts, s.Lent = slices.Clone(s.Cuts), slices.Clone(s.Lent)
	for i := range s.Cuts {
		s.Cuts[i].Frame = frame
	}
	i := slices.IndexFunc(w.Sticks, func(o Stick) bool { return wholeID(o.ID) == wholeID(s.ID) })
	if i < 0 {
		w.Sticks = append(w.Sticks, s)
		return
	}
	owner, other := &w.Sticks[i], &s
	if owner.Length < other.Length { // the one that has all of it
		owner, other = other, owner
	}
	cuts := slices.Concat(owner.Cuts, other.Cuts)
	owner.ID = wholeID(owner.ID)
	lent := owner.Lent
	owner.Lent = nil
	for _, l := range lent {
		if slices.ContainsFunc(other.Cuts, func(c Taken) bool { return c.Event == l.Event }) {
			owner.Lost -= l.Takes
		} else {
			owner.Lent = append(owner.Lent, l)
		}
	}
	owner.Cuts = cuts
	w.Sticks[i] = *owner
}
