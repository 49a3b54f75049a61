package record

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// Fee is what the shop asks for cuts.
type Fee struct {
	Each measure.Money `json:"each"`           // of each cut beyond
	Free int           `json:"free,omitempty"` // so many that cost nothing
}

// PartNo names the n-th part of a stick, counted from 0.
func PartNo(stick string, n int) string { return fmt.Sprintf("%s/%d", stick, n+1) }

// partOf is the stick that a part is of; "" for what is none.
func partOf(id string) string {
	if i := strings.LastIndexByte(id, '/'); i >= 0 {
		return id[:i]
	}
	return ""
}

// parted says that what was left of a stick is in parts: it was cut in the shop, has a flaw, or came home so. Told
// again, it is as it was told last; a part that others were cut from stays.
func (a *summing) parted(e *Event) {
	s := a.stick(a.from[e.Stick.ID], "")
	if e.Fee != nil && !a.paid[s.ID] { // a stick is cut in the shop once
		a.paid[s.ID] = true
		a.ShopCuts.Fee = *e.Fee
		a.ShopCuts.Done += max(0, len(e.Lengths)-1)
	}
	if len(e.Lengths) == 1 && s.whole() && a.partsWhole(s.ID) { // it is one, as long as that
		s.Parted, s.True = false, e.Lengths[0]
		s.Measured = true
	} else {
		s.Parted = true
	}
	lengths := e.Lengths
	if !s.Parted {
		lengths = nil
	}
	id, size := s.ID, s.Size
	for n := range max(len(lengths), a.parts[id]) {
		part := PartNo(id, n)
		if n >= len(lengths) {
			if i, known := a.sticks[part]; known && a.Sticks[i].whole() {
				a.Sticks[i].Length, a.Sticks[i].Racked = 0, false
			}
			continue
		}
		p := a.stick(Source{part, size, lengths[n], 0, FromPart}, "")
		p.Of = id
		p.Length = lengths[n]
	}
	a.parts[id] = max(len(lengths), a.parts[id])
}

// cutFrom is what an event says something was cut from: the stick, or a part of it. A part of a stick that is in none
// after all is the stick.
func (a *summing) cutFrom(e *Event) Source {
	from := a.from[e.Stick.ID]
	if e.Part > 0 {
		if i, is := a.sticks[PartNo(from.ID, e.Part-1)]; is {
			return a.Sticks[i].Source
		}
	}
	if _, known := a.sticks[from.ID]; !known {
		if i, is := a.sticks[partOf(from.ID)]; is {
			return a.Sticks[i].Source
		}
	}
	return from
}

// partsWhole says whether nothing was cut from any part of a stick.
func (a *summing) partsWhole(id string) bool {
	for n := range a.parts[id] {
		if i, known := a.sticks[PartNo(id, n)]; known && (!a.Sticks[i].whole() || !a.partsWhole(a.Sticks[i].ID)) {
			return false
		}
	}
	return true
}

// whole says whether nothing was cut from a stick, and nothing of it is lost.
func (s *Stick) whole() bool { return len(s.Cuts) == 0 && s.Lost == 0 }

// PartsOf lists the parts that a stick is in, in their order; none of one that is whole.
func (w *Work) PartsOf(stick string) (all []*Stick) {
	for i := range w.Sticks {
		if p := &w.Sticks[i]; p.Of == stick && stick != "" && p.Length > 0 {
			all = append(all, p)
		}
	}
	return all
}

// Idle says whether nothing was cut from a stick, or from a part of it, and nothing of it is lost.
func (w *Work) Idle(s *Stick) bool {
	if !s.whole() {
		return false
	}
	return !s.Parted || !slices.ContainsFunc(w.Sticks, func(p Stick) bool { return p.Of == s.ID && !w.Idle(&p) })
}

// IsPartOf says whether one is a part of a stick, or a part of a part of it.
func IsPartOf(id, stick string) bool { return strings.HasPrefix(id, stick+"/") }

// ShopCuts are the cuts that the shop made of what was bought.
type ShopCuts struct {
	Done int `json:"done"`
	Fee
}
