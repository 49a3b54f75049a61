package record

import (
	"slices"

	"sturdyelbow/core/shop"
)

// onRack is what a record put on the rack, and what it cut from there, by id.
func (w *Work) onRack() (put, taken map[string]shop.Offcut) {
	put, taken = map[string]shop.Offcut{}, map[string]shop.Offcut{}
	for i := range w.Sticks {
		s := &w.Sticks[i]
		if s.Racked && s.Left > 0 {
			put[s.ID] = shop.Offcut{ID: s.ID, Size: s.Size, Length: s.Left, Count: 1}
		}
		if s.Origin == FromRack {
			taken[s.ID] = shop.Offcut{ID: s.ID, Size: s.Size, Length: s.Length, Count: 1}
		}
	}
	for _, p := range w.Put {
		put[p.ID] = p
	}
	return put, taken
}

// Rack gives what lies on the rack after a record has grown: what it put there came, what
// it cut from there went; what is taken back goes the other way. Of what is left of a stick
// that is longer or shorter now, the new length lies there.
func Rack(before, after *Work, rack []shop.Offcut) []shop.Offcut {
	putBefore, tookBefore := before.onRack()
	putAfter, tookAfter := after.onRack()
	rack = slices.Clone(rack)
	for _, d := range []struct {
		now, was map[string]shop.Offcut
		more     bool
	}{{putAfter, putBefore, true}, {putBefore, putAfter, false}, {tookAfter, tookBefore, false}, {tookBefore, tookAfter, true}} {
		for _, id := range sorted(d.now) {
			if was, had := d.was[id]; had && was == d.now[id] {
				continue
			}
			if d.more {
				rack = append(rack, d.now[id])
			} else {
				rack = less(rack, d.now[id])
			}
		}
	}
	return rack
}

func sorted(m map[string]shop.Offcut) []string {
	ids := make([]string, 0, len(m))
	for id := range m {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	return ids
}

// less takes one off the rack: the one of that id, else one that is as long.
func less(rack []shop.Offcut, o shop.Offcut) []shop.Offcut {
	i := slices.IndexFunc(rack, func(r shop.Offcut) bool { return r.ID == o.ID })
	if i < 0 {
		i = slices.IndexFunc(rack, func(r shop.Offcut) bool { return r.ID == "" && r.Size == o.Size && r.Length == o.Length })
	}
	if i < 0 {
		return rack
	}
	if rack[i].Count > 1 {
		rack[i].Count--
		return rack
	}
	return slices.Delete(rack, i, i+1)
}
