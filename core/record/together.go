package record

import (
	"reflect"
	"slices"
)

// Together is the work of several projects whose frames are one job, in that order. They
// have no letters in common: each has its own A. Figures stay where all that have some
// have the same.
func Together(works ...Work) Work {
	all := Add(nil)
	all.events, all.basis = nil, nil
	same := true
	for frame, w := range works {
		for _, m := range w.Pieces {
			m.Frame = frame
			all.Pieces = append(all.Pieces, m)
		}
		all.Sticks = append(all.Sticks, w.Sticks...)
		for _, j := range w.Joints {
			j.Frame = frame
			all.Joints = append(all.Joints, j)
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
	return all
}
