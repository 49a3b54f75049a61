package stock

import (
	"cmp"
	"slices"

	"sturdyelbow/core/measure"
)

// item is one length that is asked for. size counts the kerf that follows it,
// so that pieces fit a stick when their sizes sum to no more than its room.
type item struct {
	size    int64
	count   int
	demands []int
}

// kind is one sort of stick.
type kind struct {
	offer  int
	room   int64
	weight int64 // cents or length, in the instance's unit; 0 for what is there already
	count  int   // -1: as many as wanted
	prefix []int // demands cut from it beforehand
}

// bin is one stick with how many of each item it yields.
type bin struct {
	kind int
	take []int
}

type solution struct {
	bins        []bin
	weight      int64 // of what is bought
	sticks      int   // bought
	bound       int64
	boundSticks int
	proven      bool
}

type instance struct {
	items   []item // longest first
	kinds   []kind // those to be had without end first, longest first; then the finite ones
	endless int
	priced  bool
	unit    int64
	nodes   int // budget
	spent   int
	relaxed relaxed
	ways    int // to fill one stick, looked at
	looked  int // at partly filled sticks, by [instance.knapsack]
	done    <-chan struct{}
}

// stopped says that nobody waits for the answer any more.
func (in *instance) stopped() bool {
	select {
	case <-in.done:
		return true
	default:
		return false
	}
}

func newInstance(p *Problem, key string, m *Material) *instance {
	in := &instance{nodes: p.Nodes, unit: 1, ways: proofWays, priced: p.pricesServe(key)}
	var finite []kind
	longest := measure.Length(0)
	for i, o := range p.Offers {
		room := int64(o.Length - p.EndTrim + p.Kerf)
		switch {
		case o.Material != key || o.Length <= p.EndTrim:
		case o.Count > 0:
			finite = append(finite, kind{offer: i, room: room, count: o.Count})
		case !in.priced:
			in.kinds = append(in.kinds, kind{offer: i, room: room, weight: int64(o.Length), count: -1})
			longest = max(longest, o.Length-p.EndTrim)
		case o.Priced:
			in.kinds = append(in.kinds, kind{offer: i, room: room, weight: max(1, int64(o.Price)), count: -1})
			longest = max(longest, o.Length-p.EndTrim)
		}
	}
	slices.SortStableFunc(in.kinds, func(a, b kind) int { return cmp.Compare(b.room, a.room) })
	slices.SortStableFunc(finite, func(a, b kind) int { return cmp.Compare(a.room, b.room) })
	in.endless = len(in.kinds)
	in.scale()
	for i, d := range p.Demands {
		if d.Material != key || d.Count <= 0 {
			continue
		}
		if d.Length > longest {
			if finite = in.reserve(finite, i, d, int64(p.Kerf)); finite == nil || finite[len(finite)-1].count < 0 {
				m.TooLong = append(m.TooLong, i)
				finite = slices.DeleteFunc(finite, func(k kind) bool { return k.count < 0 })
			}
			continue
		}
		size := int64(d.Length + p.Kerf)
		at, found := slices.BinarySearchFunc(in.items, size, func(it item, s int64) int { return cmp.Compare(s, it.size) })
		if !found {
			in.items = slices.Insert(in.items, at, item{size: size})
		}
		in.items[at].count += d.Count
		in.items[at].demands = append(in.items[at].demands, i)
	}
	in.kinds = append(in.kinds, finite...)
	return in
}

// pricesServe says whether the cost can be the measure for a material: there
// are prices, and no piece needs a length on sale that has none.
func (p *Problem) pricesServe(key string) bool {
	var priced, sold, asked measure.Length
	for _, o := range p.Offers {
		if o.Material == key && o.Count == 0 {
			if sold = max(sold, o.Length); o.Priced {
				priced = max(priced, o.Length)
			}
		}
	}
	for _, d := range p.Demands {
		if d.Material == key && d.Count > 0 {
			asked = max(asked, d.Length+p.EndTrim)
		}
	}
	return priced > 0 && (asked <= priced || asked > sold)
}

// reserve puts pieces longer than any stick on sale onto sticks at hand, the
// shortest that holds one first. A last kind with a negative count says that
// it could not place them all.
func (in *instance) reserve(finite []kind, demand int, d Demand, kerf int64) []kind {
	size := int64(d.Length) + kerf
	for range d.Count {
		at := slices.IndexFunc(finite, func(k kind) bool { return k.room >= size && k.count > 0 })
		if at < 0 {
			return append(finite, kind{count: -1})
		}
		cut := finite[at]
		cut.room, cut.count = cut.room-size, 1
		cut.prefix = append(slices.Clone(cut.prefix), demand)
		if finite[at].count--; finite[at].count == 0 {
			finite = slices.Delete(finite, at, at+1)
		}
		finite = append(finite, cut)
		slices.SortStableFunc(finite, func(a, b kind) int { return cmp.Compare(a.room, b.room) })
	}
	return finite
}

// scale divides the weights by their common divisor, which keeps the numbers
// of unpriced jobs small.
func (in *instance) scale() {
	g := int64(0)
	for _, k := range in.kinds {
		for a, b := g, k.weight; ; a, b = b, a%b {
			if b == 0 {
				g = a
				break
			}
		}
	}
	if g > 1 {
		in.unit = g
		for i := range in.kinds {
			in.kinds[i].weight /= g
		}
	}
}

func (in *instance) counts() []int {
	c := make([]int, len(in.items))
	for i, it := range in.items {
		c[i] = it.count
	}
	return c
}

// weigh sums up what a set of sticks costs and how many are bought.
func (in *instance) weigh(bins []bin) (weight int64, sticks int) {
	for _, b := range bins {
		if k := in.kinds[b.kind]; k.count < 0 {
			weight += k.weight
			sticks++
		}
	}
	return weight, sticks
}

func better(w1 int64, n1 int, w2 int64, n2 int) bool { return w1 < w2 || w1 == w2 && n1 < n2 }
