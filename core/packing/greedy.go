package packing

import "slices"

// fillSteps bounds the search for the fullest fill of one bin.
const fillSteps = 60_000

// greedy fills what is there anyway and then bins of one kind that costs something, each as
// full as it gets. What does not go in is left.
func (s *search) greedy(main int, left []int) (bins []Bin) {
	for k := s.charged; k < len(s.kinds); k++ {
		for n := 0; n != s.kinds[k].Limit && s.place(k, left, &bins); n++ {
		}
	}
	for n := 0; main < s.charged && n != s.kinds[main].Limit && s.place(main, left, &bins); n++ {
	}
	return bins
}

// place fills one bin of a kind, and says whether anything went into it.
func (s *search) place(k int, left []int, bins *[]Bin) bool {
	shares := s.fullest(&s.kinds[k], left, fillSteps)
	if len(shares) == 0 {
		return false
	}
	take(left, shares, 1)
	*bins = append(*bins, Bin{k, shares})
	return true
}

func take(left []int, shares []Share, times int) {
	for _, h := range shares {
		left[h.Item] -= times * h.Count
	}
}

// into fills a set of bins, in the order given, each as full as it gets.
func (s *search) into(avail, order []int) []Bin {
	left := s.counts()
	var bins []Bin
	for _, k := range order {
		for n := avail[k]; n > 0 && s.place(k, left, &bins); n-- {
		}
	}
	if s.any(left) {
		return nil
	}
	return bins
}

func (s *search) any(left []int) bool {
	return slices.ContainsFunc(left, func(n int) bool { return n > 0 })
}

// fit puts the pieces, largest first, each into the first bin that has room for it, or where
// best is asked for the fullest of these; a new bin is of the main kind. It is what people do
// by hand, and no answer is worse.
func (s *search) fit(main int, best bool) []Bin {
	var bins []Bin
	var room []int64
	used := make([]int, len(s.kinds))
	for k := s.charged; k < len(s.kinds); k++ {
		for n := s.kinds[k].Limit; n > 0; n-- {
			bins, room = append(bins, Bin{Kind: k}), append(room, s.kinds[k].Room)
		}
	}
	for i, it := range s.items {
		for range it.Count {
			at := -1
			for b := range bins {
				if room[b] < it.Size || at >= 0 && (!best || room[b] >= room[at]) {
					continue
				}
				if k := &s.kinds[bins[b].Kind]; k.plain() || k.holds(s.sizes(s.add(bins[b].Shares, i, 1))) {
					at = b
				}
			}
			if at < 0 {
				if main >= s.charged || used[main] == s.kinds[main].Limit || !s.kinds[main].holds([]int64{it.Size}) {
					return nil
				}
				used[main]++
				at = len(bins)
				bins, room = append(bins, Bin{Kind: main}), append(room, s.kinds[main].Room)
			}
			room[at] -= it.Size
			if h := bins[at].Shares; len(h) > 0 && h[len(h)-1].Item == i {
				h[len(h)-1].Count++
			} else {
				bins[at].Shares = append(h, Share{i, 1})
			}
		}
	}
	return slices.DeleteFunc(bins, func(b Bin) bool { return len(b.Shares) == 0 })
}

// shrink gives every bin that costs something the best kind that holds its pieces.
func (s *search) shrink(bins []Bin) []Bin {
	used := make([]int, len(s.kinds))
	for _, b := range bins {
		used[b.Kind]++
	}
	for n := range bins {
		b := &bins[n]
		if b.Kind >= s.charged {
			continue
		}
		sizes := s.sizes(b.Shares)
		for k := range s.charged {
			kd, was := &s.kinds[k], &s.kinds[b.Kind]
			one := func(k *Kind) Total { return Total{k.Cost, k.Bins, k.Cuts} }
			if used[k] != kd.Limit && one(kd).Compare(one(was)) < 0 && kd.holds(sizes) {
				used[b.Kind]--
				used[k]++
				b.Kind = k
			}
		}
	}
	return bins
}
