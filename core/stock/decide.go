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
	for k, n := range d.avail {
		if n == 0 || d.in.kinds[k].room < d.in.items[must].size {
			continue
		}
		ps, whole := d.in.patterns(d.in.kinds[k].room, must, d.left, allowed)
		d.sure = d.sure && whole
		for _, p := range ps {
			choices = append(choices, choice{p, k})
		}
	}
	cost := 1 + len(choices)/16
	d.budget -= cost
	d.in.spent += cost
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

const (
	tidyRounds = 12
	tidyNodes  = 1200
)

// tidy looks, among purchases as good, for fewer cuts and a longer single
// leftover: it narrows one stick as far as everything still fits.
func (in *instance) tidy(best solution) solution {
	if len(in.items) == 0 || best.sticks == 0 {
		return best
	}
	r := &in.relaxed
	count := make([]int, in.endless)
	for _, b := range best.bins {
		if b.kind < in.endless {
			count[b.kind]++
		}
	}
	spent := in.spent
	full, left := in.neatness(best.bins)
	for k := in.endless - 1; k >= 0; k-- {
		if count[k] == 0 {
			continue
		}
		narrow := len(in.kinds)
		in.kinds = append(in.kinds, in.kinds[k])
		in.kinds[narrow].count = 1
		r.most = append(r.most, r.most[k])
		count[k]--
		low, high := int64(0), in.kinds[k].room // high fits
		for range tidyRounds {
			mid := (low + high) / 2
			in.kinds[narrow].room = mid
			bins, _ := in.decide(r, count, tidyNodes)
			if bins == nil {
				low = mid
				continue
			}
			high = mid
			for i := range bins {
				if bins[i].kind == narrow {
					bins[i].kind = k
				}
			}
			if w, n := in.weigh(bins); w != best.weight || n != best.sticks {
				continue // fewer sticks than proven cannot be; more than found is no gain
			}
			if f, l := in.neatness(bins); f > full || f == full && l > left {
				best.bins, full, left = bins, f, l
			}
		}
		count[k]++
		in.kinds, r.most = in.kinds[:narrow], r.most[:narrow]
	}
	in.spent = spent
	best = in.withPrefixes(best)
	return best
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
