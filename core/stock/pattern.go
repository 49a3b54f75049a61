package stock

import (
	"cmp"
	"slices"
)

// knapsack finds the pattern of most value that fits a room, at most count[i]
// of each item, by branch and bound over items in order of value for size.
// When the nodes run out, best is an upper bound instead.
func (in *instance) knapsack(room int64, value []float64, count []int, nodes int) (best float64, take []int) {
	type choice struct {
		item, count  int
		size         int64
		value, ratio float64
	}
	order := make([]choice, 0, len(in.items))
	for i := range in.items {
		if value[i] > 0 && count[i] > 0 && in.items[i].size <= room {
			order = append(order, choice{i, count[i], in.items[i].size, value[i], value[i] / float64(in.items[i].size)})
		}
	}
	slices.SortStableFunc(order, func(a, b choice) int { return cmp.Compare(b.ratio, a.ratio) })
	take = make([]int, len(in.items))
	if len(order) == 0 {
		return 0, take
	}
	cur := make([]int, len(in.items))
	exact := true // every branch was looked at
	top := order[0].ratio * float64(room)
	var try func(n int, room int64, v float64)
	try = func(n int, room int64, v float64) {
		if v > best {
			best = v
			copy(take, cur)
		}
		if n == len(order) || !exact {
			return
		}
		in.looked++
		if nodes--; nodes < 0 {
			exact = false
			return
		}
		c := &order[n]
		// the bound of what follows: the rest of the room at this item's ratio
		if v+float64(room)*c.ratio <= best*(1+1e-12) {
			return
		}
		most := min(int64(c.count), room/c.size)
		least := int64(0)
		if n == len(order)-1 {
			least = most // nothing follows: as many as fit
		}
		for k := most; k >= least; k-- {
			cur[c.item] = int(k)
			try(n+1, room-k*c.size, v+float64(k)*c.value)
		}
		cur[c.item] = 0
	}
	try(0, room, 0)
	if !exact {
		return max(best, top), take
	}
	return best, take
}

// fullest finds the pattern that fills a room most, with the longest item left.
func (in *instance) fullest(room int64, count []int, nodes int) []int {
	value := make([]float64, len(in.items))
	for i := range value {
		value[i] = float64(in.items[i].size)
	}
	take := make([]int, len(in.items))
	for i := range in.items {
		if count[i] > 0 && in.items[i].size <= room {
			take[i] = 1
			count[i]--
			_, rest := in.knapsack(room-in.items[i].size, value, count, nodes)
			count[i]++
			for j := range rest {
				take[j] += rest[j]
			}
			break
		}
	}
	return take
}

// How many ways to fill one stick are looked at: for the proof, and for
// tidying, where the first good one will do.
const (
	proofWays = 2500
	tidyWays  = 30
)

type pattern struct {
	take  []int
	waste int64
}

// patterns lists the ways to fill a room that hold the given item, to which
// nothing can be added, and that waste no more than allowed; the least waste
// first. whole is false when there were too many; steps is the work it took.
func (in *instance) patterns(room int64, must int, left []int, allowed int64) (all []pattern, whole bool, steps int) {
	whole = true
	cur := make([]int, len(in.items))
	cur[must] = 1
	room -= in.items[must].size
	most := 40 * in.ways
	// what items from i on could fill at most, for cutting off hopeless branches
	tail := make([]int64, len(in.items)+1)
	for i := len(in.items) - 1; i >= must; i-- {
		tail[i] = tail[i+1] + in.items[i].size*int64(left[i])
	}
	var fill func(i int, room int64, smallest int64)
	fill = func(i int, room, skipped int64) {
		if len(all) >= in.ways || steps > most {
			whole = false
			return
		}
		steps++
		if room-tail[i] > allowed {
			return
		}
		if i == len(in.items) {
			if skipped <= room { // something left out would still fit
				return
			}
			all = append(all, pattern{append([]int(nil), cur...), room})
			return
		}
		have := left[i]
		if i == must {
			have--
		}
		for k := min(int64(have), room/in.items[i].size); k >= 0; k-- {
			cur[i] += int(k)
			s := skipped
			if k < int64(have) {
				s = min(s, in.items[i].size)
			}
			fill(i+1, room-k*in.items[i].size, s)
			cur[i] -= int(k)
		}
	}
	const none = int64(1) << 62
	fill(must, room, none)
	return all, whole, steps
}
