package procure

import (
	"slices"

	"sturdyelbow/core/material"
)

// Variants of one thing are frames that are put together from the same parts, one at a time: of
// every piece, fitting and bolt there are as many as the variant takes that takes most of it.
// A lot without a variant has parts of its own.

// share leaves the pieces that another variant lends out of what is wanted, and takes them off
// the cut list.
func (p *Purchase) share(wants []want, lots []Lot) []want {
	var order []string
	for i := range lots {
		if v := lots[i].Variant; v != "" && !slices.Contains(order, v) {
			order = append(order, v)
		}
	}
	if len(order) < 2 {
		return wants
	}
	there := map[int]int{} // of each line, how many the variants before have
	lent := map[int]bool{} // of wants
	for _, v := range order {
		used := map[int]int{}
		for i := range wants {
			w := &wants[i]
			if lots[w.Frame].Variant != v {
				continue
			}
			if used[w.cut]++; used[w.cut] <= there[w.cut] {
				lent[i] = true
				line := &p.Cuts[w.cut]
				line.Count--
				line.Shared++
				p.Totals.Pieces--
				p.Totals.Net -= max(0, line.Cut)
			}
		}
		for cut, n := range used {
			there[cut] = max(there[cut], n)
		}
	}
	kept := make([]want, 0, len(wants)-len(lent))
	for i := range wants {
		if !lent[i] {
			kept = append(kept, wants[i])
		}
	}
	return kept
}

// tally counts things by lot: those of no variant add up, and of the variants the one that
// takes most counts.
type tally map[string]int

func (t tally) add(variant string, n int) { t[variant] += n }

func (t tally) sum() int {
	most := 0
	for v, n := range t {
		if v != "" {
			most = max(most, n)
		}
	}
	return t[""] + most
}

// hardware adds up what the lots need besides pipe and fittings.
func hardware(lots []Lot) (all []material.Line) {
	counts := map[material.Spec]tally{}
	for fi := range lots {
		for _, l := range lots[fi].Needs {
			l.Quantity *= lots[fi].Copies
			l.Where = slices.Clone(l.Where)
			for i := range l.Where {
				l.Where[i].Frame = fi
			}
			if counts[l.Spec] == nil {
				counts[l.Spec] = tally{}
			}
			counts[l.Spec].add(lots[fi].Variant, l.Quantity)
			all = append(all, l)
		}
	}
	all = material.Together(all)
	for i := range all {
		all[i].Quantity = counts[all[i].Spec].sum()
	}
	return all
}
