package packing

import (
	"cmp"
	"slices"
)

// fillSteps bounds the search for the fullest fill of one bin.
const fillSteps = 60_000

// greedy fills what is there anyway and then bins of one kind that costs something, each as
// full as it gets. What does not go in is left.
func (s *search) greedy(main int, left []int) (bins []Bin) {
	for k := s.charged; k < len(s.kinds); k++ {
		s.fillAll(k, s.kinds[k].Limit, left, &bins)
	}
	if main < s.charged {
		s.fillAll(main, s.kinds[main].Limit, left, &bins)
	}
	return bins
}

// place fills a bin of a kind, and as many more in the same way as there are pieces for, and
// gives their number. There may be so many of them; [Endless] for any number.
func (s *search) place(k, most int, left []int, bins *[]Bin) (placed int) {
	shares := s.fullest(&s.kinds[k], left, fillSteps)
	if len(shares) == 0 || most == 0 {
		return 0
	}
	times := most
	for _, h := range shares {
		if n := left[h.Item] / h.Count; times == Endless || n < times {
			times = n
		}
	}
	take(left, shares, times)
	for range times {
		*bins = append(*bins, Bin{k, shares})
	}
	return times
}

// fillAll fills up to so many bins of a kind, each as full as it gets.
func (s *search) fillAll(k, most int, left []int, bins *[]Bin) {
	for most != 0 {
		n := s.place(k, most, left, bins)
		if n == 0 {
			return
		}
		if most != Endless {
			most -= n
		}
	}
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
		s.fillAll(k, avail[k], left, &bins)
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
// by hand, and no answer is worse. Pieces of one size go into one bin after the other, so they
// are put as many as it holds at once.
func (s *search) fit(main int, best bool) []Bin {
	var bins []Bin
	var room []int64
	used := 0
	for k := s.charged; k < len(s.kinds); k++ {
		for n := s.most(k); n > 0; n-- {
			bins, room = append(bins, Bin{Kind: k}), append(room, s.kinds[k].Room)
		}
	}
	put := func(b, item, count int) int {
		n := min(count, int(room[b]/s.items[item].Size))
		if k := &s.kinds[bins[b].Kind]; !k.plain() {
			for ; n > 0 && !k.holds(s.sizes(s.add(bins[b].Shares, item, n))); n-- {
			}
		}
		if n > 0 {
			room[b] -= int64(n) * s.items[item].Size
			bins[b].Shares = append(bins[b].Shares, Share{item, n})
		}
		return n
	}
	// bins in the order in which they are tried: as they stand, or the fullest first
	order := make([]int, len(bins))
	for b := range order {
		order[b] = b
	}
	sorted := func(b int) (int, bool) {
		return slices.BinarySearchFunc(order, b, func(o, b int) int { return cmp.Or(cmp.Compare(room[o], room[b]), cmp.Compare(o, b)) })
	}
	if best {
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(room[a], room[b]) })
	}
	for i, it := range s.items {
		left := it.Count
		from := 0
		if best {
			from, _ = slices.BinarySearchFunc(order, it.Size, func(o int, size int64) int { return cmp.Compare(room[o], size) })
		}
		for ; from < len(order) && left > 0; from++ {
			b := order[from]
			if room[b] < it.Size {
				continue
			}
			n := put(b, i, left)
			if left -= n; best && n > 0 { // it is fuller now
				order = slices.Delete(order, from, from+1)
				to, _ := sorted(b)
				order = slices.Insert(order, to, b)
				if to > from {
					from--
				}
			}
		}
		for left > 0 {
			if main >= s.charged || used == s.kinds[main].Limit {
				return nil
			}
			used++
			bins, room = append(bins, Bin{Kind: main}), append(room, s.kinds[main].Room)
			b := len(bins) - 1
			n := put(b, i, left)
			if n == 0 {
				return nil
			}
			left -= n
			at := b
			if best {
				at, _ = sorted(b)
			}
			order = slices.Insert(order, at, b)
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
