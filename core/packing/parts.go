package packing

import (
	"cmp"
	"fmt"
	"slices"
)

// A set of bins that are divided is decided by its parts first: what does not go into all the
// parts, each by itself, does not go into the bins; and what does mostly goes into them when the
// fullest part is put beside the emptiest. Parts are bins without parts of their own, for which
// every way of this package serves.

// divided says whether some kind of bin is divided.
func (s *search) divided() bool {
	return slices.ContainsFunc(s.kinds, func(k Kind) bool { return k.Ways != nil })
}

// slots are the rooms of a kind's parts, the largest first: of several ways to divide it, the
// largest that each part can be.
func (k *Kind) slots() (rooms []int64) {
	if k.Ways == nil {
		return []int64{k.Room}
	}
	for _, w := range k.Ways {
		parts := slices.Clone(w.Parts)
		slices.SortFunc(parts, func(a, b int64) int { return cmp.Compare(b, a) })
		for j, r := range parts {
			if j == len(rooms) {
				rooms = append(rooms, 0)
			}
			rooms[j] = max(rooms[j], min(r, k.Room))
		}
	}
	return rooms
}

// byParts decides a set of bins by its parts. No bins and sure mean that it cannot hold
// everything; no bins and not sure, that nothing is known.
func (s *search) byParts(avail []int, steps int64) (bins []Bin, sure bool) {
	sub := &search{items: s.items, item: s.item, done: s.done, budget: min(s.budget-s.spent, steps)}
	type slot struct {
		room    int64
		reserve string
	}
	at := map[slot]int{}
	for k, n := range avail {
		kd := &s.kinds[k]
		for _, room := range kd.slots() {
			z := slot{room, fmt.Sprint(kd.Reserve)}
			i, known := at[z]
			if !known {
				i = len(sub.kinds)
				at[z] = i
				sub.kinds = append(sub.kinds, Kind{Room: room, Reserve: kd.Reserve})
				sub.kind = append(sub.kind, i)
			}
			sub.kinds[i].Limit += n
		}
	}
	order(sub.kinds, sub.kind, func(a, b Kind) int { return cmp.Compare(a.Room, b.Room) })
	sub.tests = []prices{sub.byVolume()}
	sub.program()
	parts, sure := sub.decide(nil)
	s.spend(sub.spent)
	if parts == nil {
		return nil, sure
	}
	return s.assemble(parts, avail), false
}

// assemble puts parts that are filled into bins: beside the fullest that is left, the emptiest.
// nil where that does not work out.
func (s *search) assemble(parts []Bin, avail []int) (bins []Bin) {
	slices.SortStableFunc(parts, func(a, b Bin) int { return cmp.Compare(s.fill(b.Shares), s.fill(a.Shares)) })
	var kinds []int // the bins there are, those of most parts last
	for k, n := range avail {
		for range n {
			kinds = append(kinds, k)
		}
	}
	slices.SortStableFunc(kinds, func(a, b int) int {
		return cmp.Or(cmp.Compare(len(s.kinds[a].slots()), len(s.kinds[b].slots())), cmp.Compare(s.kinds[b].Room, s.kinds[a].Room))
	})
	for _, k := range kinds {
		kd := &s.kinds[k]
		var shares []Share
		for n := range len(kd.slots()) {
			// the fullest that goes in by itself, and then the emptiest
			i := slices.IndexFunc(parts, func(b Bin) bool { return kd.holds(s.sizes(s.together(shares, b.Shares))) })
			if n > 0 {
				i = -1
				for j := len(parts) - 1; j >= 0 && i < 0; j-- {
					if kd.holds(s.sizes(s.together(shares, parts[j].Shares))) {
						i = j
					}
				}
			}
			if i < 0 {
				break
			}
			shares = s.together(shares, parts[i].Shares)
			parts = slices.Delete(slices.Clone(parts), i, i+1)
		}
		if len(shares) > 0 {
			bins = append(bins, Bin{k, shares})
		}
	}
	if len(parts) > 0 {
		return nil
	}
	return bins
}

// fill is what pieces come to.
func (s *search) fill(shares []Share) (sum int64) {
	for _, h := range shares {
		sum += s.items[h.Item].Size * int64(h.Count)
	}
	return sum
}

// together adds up shares.
func (s *search) together(a, b []Share) []Share {
	for _, h := range b {
		a = s.add(a, h.Item, h.Count)
	}
	return a
}
