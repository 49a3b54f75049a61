package packing

import (
	"cmp"
	"math"
	"slices"
)

// knapsack finds the fill of most value of a room, with at most count[i] of each item. When
// its steps run out, best is an upper bound, and shares the best fill found.
func (s *search) knapsack(room int64, value []float64, count []int, steps int64) (best float64, shares []Share) {
	best, shares, exact := s.branch(room, value, count, branchSteps)
	if exact {
		return best, shares
	}
	if rows := s.bundles(room, value, count); int64(len(rows))*room <= steps {
		t := s.tabled(room, value, rows)
		return t.worth[room], t.fill(s, room)
	}
	best, shares, _ = s.branch(room, value, count, steps)
	return best, shares
}

// branchSteps is what branch and bound may spend before a table is made instead.
const branchSteps = 4000

type offer struct {
	item  int
	count int64
	size  int64
	value float64
	ratio float64
}

// offers lists what a room can hold of what has a value, the most value for its size first.
func (s *search) offers(room int64, value []float64, count []int) []offer {
	all := make([]offer, 0, len(s.items))
	for i := range s.items {
		if size := s.items[i].Size; value[i] > 0 && count[i] > 0 && size <= room {
			all = append(all, offer{i, min(int64(count[i]), room/size), size, value[i], value[i] / float64(size)})
		}
	}
	slices.SortStableFunc(all, func(a, b offer) int { return cmp.Compare(b.ratio, a.ratio) })
	return all
}

// branch is branch and bound over the items in the order of their value for their size.
func (s *search) branch(room int64, value []float64, count []int, steps int64) (best float64, shares []Share, exact bool) {
	return s.branchHeld(nil, room, value, count, steps)
}

// branchHeld is the same for a kind of bin that is divided: only fills that it holds count. nil
// holds all that fit the room.
func (s *search) branchHeld(k *Kind, room int64, value []float64, count []int, steps int64) (best float64, shares []Share, exact bool) {
	all := s.offers(room, value, count)
	if len(all) == 0 {
		return 0, nil, true
	}
	n := len(all)
	cur, take := make([]int64, n), make([]int64, n)
	// the smallest size from here on: where it does not fit, nothing follows
	least := make([]int64, n+1)
	least[n] = math.MaxInt64
	for i := n - 1; i >= 0; i-- {
		least[i] = min(least[i+1], all[i].size)
	}
	left := steps
	exact = true
	var sizes []int64
	held := func() bool { // what is taken so far goes into the bin
		sizes = sizes[:0]
		for i, c := range cur {
			for range c {
				sizes = append(sizes, all[i].size)
			}
		}
		slices.SortFunc(sizes, func(a, b int64) int { return cmp.Compare(b, a) })
		left -= int64(10 * len(sizes))
		held, sure := k.judge(sizes, judgeSteps)
		if !sure {
			left -= judgeSteps
		}
		exact = exact && sure
		return held
	}
	var try func(i int, room int64, v float64)
	try = func(i int, room int64, v float64) {
		if v > best {
			if k != nil && !held() {
				return // nor does it with more
			}
			best = v
			copy(take, cur)
			clear(take[i:])
		}
		for ; i < n && room >= least[i]; i++ {
			if left--; left < 0 {
				exact = false
				return
			}
			o := &all[i]
			if v+float64(room)*o.ratio <= best*(1+1e-12) {
				return // nor does the rest of the room, at this item's value for its size
			}
			most := min(o.count, room/o.size)
			if most == 0 {
				continue
			}
			for k := most; k > 0; k-- {
				cur[i] = k
				try(i+1, room-k*o.size, v+float64(k)*o.value)
				if left < 0 {
					return
				}
			}
			cur[i] = 0
		}
	}
	try(0, room, 0)
	s.spend(steps - left)
	for i, c := range take {
		if c > 0 {
			shares = append(shares, Share{all[i].item, int(c)})
		}
	}
	if !exact {
		best = max(best, all[0].ratio*float64(room))
	}
	return best, shares, exact
}

// row is so many of an item, taken or left together.
type row struct {
	item  int
	count int64
}

// bundles lists what a room can hold of each item in bundles of 1, 2, 4 … of it, of which
// every number up to its count can be made.
func (s *search) bundles(room int64, value []float64, count []int) (rows []row) {
	for _, o := range s.offers(room, value, count) {
		for n, left := int64(1), o.count; left > 0; n *= 2 {
			n = min(n, left)
			rows = append(rows, row{o.item, n})
			left -= n
		}
	}
	return rows
}

// table says for every room up to some size what the most is that it can hold.
type table struct {
	rows  []row
	worth []float64
	taken []uint64 // for each row, a bit for each room: the row is taken there
	words int
}

// tabled is dynamic programming over the whole numbers up to a room.
func (s *search) tabled(room int64, value []float64, rows []row) *table {
	width := int(room) + 1
	t := &table{rows: rows, worth: make([]float64, width), words: (width + 63) / 64}
	t.taken = make([]uint64, t.words*len(rows))
	reach := 0 // what all rows before come to: beyond it, nothing is different
	for r, b := range rows {
		size, v := int(s.items[b.item].Size*b.count), value[b.item]*float64(b.count)
		bit := t.taken[r*t.words : (r+1)*t.words]
		before := reach
		reach = min(reach+size, width-1)
		for c := before + 1; c <= reach; c++ {
			t.worth[c] = t.worth[before]
		}
		worth, from := t.worth[size:max(size, reach+1)], t.worth
		for c := len(worth) - 1; c >= 0; c-- {
			if w := from[c] + v; w > worth[c] {
				worth[c] = w
				bit[(c+size)>>6] |= 1 << ((c + size) & 63)
			}
		}
	}
	for c := reach + 1; c < width; c++ {
		t.worth[c] = t.worth[reach]
	}
	s.spend(int64(len(rows)) * room)
	return t
}

// fill is what a room holds that holds the most.
func (t *table) fill(s *search, room int64) (shares []Share) {
	// a row is told only up to what it and those before come to
	reach := make([]int, len(t.rows))
	sum := 0
	for r, b := range t.rows {
		sum = min(sum+int(s.items[b.item].Size*b.count), len(t.worth)-1)
		reach[r] = sum
	}
	c := int(room)
	take := map[int]int{}
	for r := len(t.rows) - 1; r >= 0; r-- {
		c = min(c, reach[r])
		if t.taken[r*t.words+c>>6]&(1<<(c&63)) != 0 {
			take[t.rows[r].item] += int(t.rows[r].count)
			c -= int(s.items[t.rows[r].item].Size * t.rows[r].count)
		}
	}
	for i, n := range take {
		shares = append(shares, Share{i, n})
	}
	slices.SortFunc(shares, func(a, b Share) int { return cmp.Compare(a.Item, b.Item) })
	return shares
}

// fullest finds what fills a room most of what is left, the largest item that goes in among
// it: that one must go somewhere.
func (s *search) fullest(k *Kind, left []int, steps int64) (shares []Share) {
	for i := range s.items {
		if left[i] == 0 || !k.holds([]int64{s.items[i].Size}) {
			continue
		}
		value := make([]float64, len(s.items))
		for j := range value {
			value[j] = float64(s.items[j].Size)
		}
		left[i]--
		_, rest := s.knapsack(k.Room-s.items[i].Size, value, left, steps)
		left[i]++
		return s.divisible(k, s.add(rest, i, 1))
	}
	return nil
}

// add puts more of an item to shares, which stay in the order of the items.
func (s *search) add(shares []Share, item, n int) []Share {
	all := slices.Clone(shares)
	slices.SortFunc(all, func(a, b Share) int { return cmp.Compare(a.Item, b.Item) })
	at, found := slices.BinarySearchFunc(all, item, func(h Share, i int) int { return cmp.Compare(h.Item, i) })
	if !found {
		all = slices.Insert(all, at, Share{Item: item})
	}
	if all[at].Count += n; all[at].Count == 0 {
		all = slices.Delete(all, at, at+1)
	}
	return all
}

// divisible drops the smallest pieces until what is left can be divided as a kind asks.
func (s *search) divisible(k *Kind, shares []Share) []Share {
	for len(shares) > 0 && !k.holds(s.sizes(shares)) {
		shares = s.add(shares, shares[len(shares)-1].Item, -1)
	}
	return shares
}
