package stock

import (
	"cmp"
	"math"
	"slices"
)

// solve finds the purchase of least weight, then fewest sticks. It takes the
// bound from the relaxation and an answer from simple ways of filling sticks,
// and then goes through every set of sticks that would be better, from the
// bound up: the first into which everything fits is the answer.
func (in *instance) solve() solution {
	if len(in.items) == 0 {
		return in.withPrefixes(solution{proven: true})
	}
	in.relaxed = in.relax()
	r := &in.relaxed
	best := in.heuristic(r)
	best.bound, best.boundSticks, best.proven = best.weight, best.sticks, true
	sets, complete := in.sets(r, best.weight, best.sticks)
	doubt := func(weight int64, sticks int) {
		if best.proven {
			best.proven, best.bound, best.boundSticks = false, weight, sticks
		}
	}
	for _, s := range sets {
		bins, sure := in.decide(r, s.count, max(2000, (in.nodes-in.spent)/2))
		if bins != nil {
			best.bins, best.weight, best.sticks = bins, s.weight, s.sticks
			if best.proven {
				best.bound, best.boundSticks = s.weight, s.sticks
			}
			break
		}
		if !sure {
			doubt(s.weight, s.sticks)
		}
		if in.spent >= in.nodes {
			doubt(s.weight, s.sticks)
			break
		}
	}
	if !complete {
		doubt(r.bound, 0)
	}
	return in.withPrefixes(best)
}

// withPrefixes makes sure that sticks with reserved pieces are in the answer.
func (in *instance) withPrefixes(s solution) solution {
	for k := range in.kinds {
		if in.kinds[k].prefix == nil {
			continue
		}
		have := 0
		for _, b := range s.bins {
			if b.kind == k {
				have++
			}
		}
		for ; have < in.kinds[k].count; have++ {
			s.bins = append(s.bins, bin{kind: k, take: make([]int, len(in.items))})
		}
	}
	return s
}

// set is how many sticks of each endless kind are bought.
type set struct {
	count  []int
	weight int64
	sticks int
}

const (
	maxSets     = 4000
	maxSetSteps = 1_000_000
)

// sets lists the sets of sticks that weigh at least the bound and are better
// than the best known, in the order in which they are preferred. Sets that the
// relaxation's prices rule out are left out.
func (in *instance) sets(r *relaxed, weight int64, sticks int) (all []set, complete bool) {
	total, scale := 0.0, 0.0
	for i, it := range in.items {
		total += float64(r.worth[i]) * float64(it.count)
	}
	room := int64(0)
	for _, it := range in.items {
		room += it.size * int64(it.count)
	}
	for k := in.endless; k < len(in.kinds); k++ {
		total -= float64(r.most[k]) * float64(in.kinds[k].count)
		room -= in.kinds[k].room * int64(in.kinds[k].count)
	}
	for k := range in.endless {
		scale = max(scale, float64(r.most[k])/float64(in.kinds[k].weight))
	}
	cur := make([]int, in.endless)
	steps := maxSetSteps
	complete = true
	var add func(k int, w int64, n int, worth float64, have int64)
	add = func(k int, w int64, n int, worth float64, have int64) {
		if steps--; steps < 0 {
			complete = false
			return
		}
		if !better(w, n, weight, sticks) || total-worth > float64(weight-w)*scale*(1+1e-12) {
			return
		}
		if k == in.endless {
			if w >= r.bound && have >= room && worth >= total {
				all = append(all, set{slices.Clone(cur), w, n})
			}
			return
		}
		kd := in.kinds[k]
		for c := 0; better(w+int64(c)*kd.weight, n+c, weight, sticks); c++ {
			cur[k] = c
			add(k+1, w+int64(c)*kd.weight, n+c, worth+float64(c)*float64(r.most[k]), have+int64(c)*kd.room)
			if steps < 0 {
				break
			}
		}
		cur[k] = 0
	}
	add(0, 0, 0, 0, 0)
	slices.SortStableFunc(all, func(a, b set) int {
		return cmp.Or(cmp.Compare(a.weight, b.weight), cmp.Compare(a.sticks, b.sticks), -slices.Compare(a.count, b.count))
	})
	if len(all) > maxSets {
		all, complete = all[:maxSets], false
	}
	return all, complete
}

// heuristic fills sticks in a few simple ways and keeps the best.
func (in *instance) heuristic(r *relaxed) solution {
	var best solution
	try := func(bins []bin) {
		bins = in.shrink(bins)
		if w, n := in.weigh(bins); best.bins == nil || better(w, n, best.weight, best.sticks) {
			best.bins, best.weight, best.sticks = bins, w, n
		}
	}
	for k := range in.endless {
		if in.kinds[k].room < in.items[0].size {
			continue
		}
		try(in.greedy(k, in.counts(), nil))
		// the whole part of the relaxation, and the rest filled greedily
		left := in.counts()
		var bins []bin
		spare := map[int]int{}
		for i, c := range r.columns {
			for n := int(math.Floor(r.x[i] + 1e-6)); c.kind >= 0 && n > 0; n-- {
				if kd := in.kinds[c.kind]; kd.count >= 0 && spare[c.kind] >= kd.count {
					break
				}
				take := make([]int, len(left))
				some := false
				for j := range take {
					take[j] = min(c.take[j], left[j])
					left[j] -= take[j]
					some = some || take[j] > 0
				}
				if !some {
					break
				}
				spare[c.kind]++
				bins = append(bins, bin{c.kind, take})
			}
		}
		try(in.greedy(k, left, bins))
	}
	return best
}

// greedy fills what is at hand first and then sticks of one kind, each as full
// as it gets.
func (in *instance) greedy(main int, left []int, bins []bin) []bin {
	spare := map[int]int{}
	for _, b := range bins {
		spare[b.kind]++
	}
	place := func(k int) bool {
		take := in.fullest(in.kinds[k].room, left, 4000)
		some := false
		for j, n := range take {
			left[j] -= n
			some = some || n > 0
		}
		if some {
			bins = append(bins, bin{k, take})
		}
		return some
	}
	for k := in.endless; k < len(in.kinds); k++ {
		for spare[k] < in.kinds[k].count && place(k) {
			spare[k]++
		}
	}
	for place(main) {
	}
	return bins
}

// shrink gives every bought stick the lightest kind that holds its pieces.
func (in *instance) shrink(bins []bin) []bin {
	for i, b := range bins {
		if in.kinds[b.kind].count >= 0 {
			continue
		}
		used := int64(0)
		for j, n := range b.take {
			used += int64(n) * in.items[j].size
		}
		for k := range in.endless {
			if in.kinds[k].room >= used && in.kinds[k].weight < in.kinds[bins[i].kind].weight {
				bins[i].kind = k
			}
		}
	}
	return bins
}
