package stock

import (
	"encoding/binary"
	"slices"
)

// decision asks whether everything fits into a given set of sticks.
type decision struct {
	in     *instance
	r      *relaxed
	left   []int
	avail  []int
	bins   []bin
	failed map[string]struct{}
	budget int
	sure   bool // every branch was looked at
}

// decide fits all items into so many sticks of each endless kind and whatever
// is at hand. nil bins with sure=true mean that it cannot be done; with
// sure=false, that the nodes ran out.
func (in *instance) decide(r *relaxed, endless []int, budget int) (bins []bin, sure bool) {
	d := &decision{in: in, r: r, left: in.counts(), failed: map[string]struct{}{}, budget: budget, sure: true}
	d.avail = append(d.avail, endless...)
	allowed := int64(0)
	for k := range in.kinds {
		if k >= in.endless {
			d.avail = append(d.avail, in.kinds[k].count)
		}
		allowed += in.kinds[k].room * int64(d.avail[k])
	}
	for _, it := range in.items {
		allowed -= it.size * int64(it.count)
	}
	if allowed < 0 {
		return nil, true
	}
	if d.fits(0, allowed) {
		return d.bins, true
	}
	return nil, d.sure
}

type choice struct {
	pattern
	kind int
}

// fits places the longest item that is left: it must go somewhere, and of the
// ways to fill its stick only those matter to which nothing can be added.
func (d *decision) fits(must int, allowed int64) bool {
	for must < len(d.left) && d.left[must] == 0 {
		must++
	}
	if must == len(d.left) {
		return true
	}
	need, have := int64(0), int64(0)
	for i, n := range d.left {
		need += d.r.worth[i] * int64(n)
	}
	for k, n := range d.avail {
		have += d.r.most[k] * int64(n)
	}
	if have < need {
		return false
	}
	key := d.key()
	if _, known := d.failed[key]; known {
		return false
	}
	var choices []choice
	cost := 1
	for k, n := range d.avail {
		if n == 0 || d.in.kinds[k].room < d.in.items[must].size {
			continue
		}
		ps, whole, steps := d.in.patterns(d.in.kinds[k].room, must, d.left, allowed)
		d.sure = d.sure && whole
		cost += steps / stepsPerNode
		for _, p := range ps {
			choices = append(choices, choice{p, k})
		}
	}
	if n := len(d.left); n > manyItems {
		cost = cost * n / manyItems // each pattern is that much longer to write
	}
	d.budget -= cost
	d.in.spent += cost
	if d.in.stopped() {
		d.budget = -1
	}
	slices.SortStableFunc(choices, func(a, b choice) int {
		switch {
		case a.waste != b.waste:
			return int(min(max(a.waste-b.waste, -1), 1))
		case a.kind != b.kind:
			return b.kind - a.kind // what is at hand first
		}
		return -slices.Compare(a.take, b.take) // long pieces first
	})
	for _, c := range choices {
		if d.budget < 0 {
			d.sure = false
			return false
		}
		d.apply(c, 1)
		d.bins = append(d.bins, bin{c.kind, c.take})
		if d.fits(must, allowed-c.waste) {
			return true
		}
		d.bins = d.bins[:len(d.bins)-1]
		d.apply(c, -1)
	}
	if d.budget >= 0 {
		d.failed[key] = struct{}{}
	}
	return false
}

func (d *decision) apply(c choice, sign int) {
	d.avail[c.kind] -= sign
	for i, n := range c.take {
		d.left[i] -= sign * n
	}
}

func (d *decision) key() string {
	b := make([]byte, 0, 2*(len(d.left)+len(d.avail)))
	for _, n := range d.left {
		b = binary.AppendUvarint(b, uint64(n))
	}
	for _, n := range d.avail {
		b = binary.AppendUvarint(b, uint64(n))
	}
	return string(b)
}

// manyItems is how many different lengths a node may be about to count as one.
const manyItems = 200

// stepsPerNode is how many steps of listing patterns weigh as much as a node.
const stepsPerNode = 32

// tidying is worth little work: the purchase is settled.
const (
	tidyRounds = 6
	tidyNodes  = 80
)

// tidy looks, among purchases as good, for one in which no stick is used to the
// last bit, and for a longer single leftover: it narrows one stick as far as
// everything still fits.
func (in *instance) tidy(best solution, margin int64) solution {
	if len(in.items) == 0 || best.sticks == 0 {
		return best
	}
	count := make([]int, in.endless)
	for _, b := range best.bins {
		if b.kind < in.endless {
			count[b.kind]++
		}
	}
	spent, kinds := in.spent, in.kinds
	in.ways = tidyWays
	if margin > 0 {
		in.kinds = slices.Clone(kinds)
		for k := range in.kinds {
			in.kinds[k].room -= margin
		}
		if bins := in.asGood(best, count, 4*tidyNodes); bins != nil {
			best.bins = bins
		} else {
			in.kinds = kinds
		}
	}
	full, left := in.neatness(best.bins)
	for k := in.endless - 1; k >= 0; k-- {
		if count[k] == 0 {
			continue
		}
		if bins := in.narrow(best, k, count); bins != nil {
			if f, l := in.neatness(bins); f > full || f == full && l > left {
				best.bins, full, left = bins, f, l
			}
		}
	}
	in.spent, in.kinds = spent, kinds
	return in.withPrefixes(best)
}

// asGood fits everything into a set of sticks; nil unless that is as good as
// the answer known.
func (in *instance) asGood(best solution, count []int, nodes int) []bin {
	bins, _ := in.decide(&in.relaxed, count, nodes)
	if w, n := in.weigh(bins); bins == nil || w != best.weight || n != best.sticks {
		return nil
	}
	return bins
}

// narrow makes one stick of a kind as short as it can be by bisection, which
// leaves the rest of it as one leftover.
func (in *instance) narrow(best solution, k int, count []int) (found []bin) {
	n := len(in.kinds)
	in.kinds = append(in.kinds, in.kinds[k])
	in.kinds[n].count = 1
	in.relaxed.most = append(in.relaxed.most, in.relaxed.most[k])
	count[k]--
	low, high := int64(0), in.kinds[k].room // high fits
	for range tidyRounds {
		in.kinds[n].room = (low + high) / 2
		bins, _ := in.decide(&in.relaxed, count, tidyNodes)
		for i := range bins {
			if bins[i].kind == n {
				bins[i].kind = k
			}
		}
		if w, s := in.weigh(bins); bins == nil || w != best.weight || s != best.sticks {
			low = in.kinds[n].room
			continue
		}
		high, found = in.kinds[n].room, bins
	}
	count[k]++
	in.kinds, in.relaxed.most = in.kinds[:n], in.relaxed.most[:n]
	return found
}

// neatness counts the sticks used to the very end, each of which saves a cut,
// and gives the longest leftover.
func (in *instance) neatness(bins []bin) (full int, longest int64) {
	for _, b := range bins {
		rest := in.kinds[b.kind].room
		for j, n := range b.take {
			rest -= int64(n) * in.items[j].size
		}
		if rest == 0 {
			full++
		}
		longest = max(longest, rest)
	}
	return full, longest
}
