package supply

import (
	"cmp"
	"slices"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Supplier is a shop and what it says of its wares.
type Supplier struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	About    string        `json:"about,omitempty"`
	Example  bool          `json:"example,omitempty"`  // made up, to show how comparing works
	Days     int           `json:"days,omitempty"`     // until it is in the builder's hands; 0: the same day
	Shipping measure.Money `json:"shipping,omitempty"` // for all of an order
	FreeFrom measure.Money `json:"freeFrom,omitempty"` // an order of so much is sent for nothing; 0: none is
	Date     string        `json:"date,omitempty"`     // of its prices: 2026-11-29
	Offers   []Offer       `json:"offers"`
}

// Offer is one ware of a supplier: a thing may be offered singly and in packs.
type Offer struct {
	material.Spec
	cost.Asked
	Stock int `json:"stock,omitempty"` // how many packs there are; 0: as many as wanted
}

// Need is a thing that is wanted, and how many of it.
type Need struct {
	material.Spec
	Label string `json:"label"`
	Count int    `json:"count"`
}

// Taken is how a thing is bought from one supplier.
type Taken struct {
	material.Spec
	Supplier string        `json:"supplier"` // its id
	Label    string        `json:"label"`
	Count    int           `json:"count"` // of the thing, those left over of packs among them
	Amount   measure.Money `json:"amount"`
}

// Order is a list as it is bought from some suppliers.
type Order struct {
	From     []string      `json:"from"` // the suppliers that something is bought from, by id
	Taken    []Taken       `json:"taken"`
	Missing  []Need        `json:"missing"` // what none of them has, or too little of
	Wares    measure.Money `json:"wares"`
	Shipping measure.Money `json:"shipping"`
	Tax      measure.Money `json:"tax"`
	Total    measure.Money `json:"total"`
	Days     int           `json:"days"` // until the last of it is there
}

// lacks counts the things that an order is short of.
func (o *Order) lacks() (n int) {
	for _, m := range o.Missing {
		n += m.Count
	}
	return n
}

// Compare orders orders, the better first: what lacks least, then costs least, then comes soonest, and
// then is from the fewest.
func (o *Order) Compare(p *Order) int {
	return cmp.Or(
		cmp.Compare(o.lacks(), p.lacks()),
		cmp.Compare(o.Total, p.Total),
		cmp.Compare(o.Days, p.Days),
		cmp.Compare(len(o.From), len(p.From)),
	)
}

// mostSuppliers bounds the subsets that are tried: each of 2 to the power of so many.
const mostSuppliers = 8

// Split buys a list for the least money from the suppliers that are there by a day, the cost of sending
// counted; days below 0 is any day. rate is the tax on wares. Every subset of the suppliers is tried,
// and of a thing that is sold by several each piece is bought where it is cheapest, so that nothing
// costs less. Of more than eight suppliers the first eight are asked.
func Split(needs []Need, all []Supplier, days int, rate float64) Order {
	var some []Supplier
	for _, s := range all {
		if days < 0 || s.Days <= days {
			some = append(some, s)
		}
	}
	some = some[:min(len(some), mostSuppliers)]
	var best Order
	for set := range 1 << len(some) {
		var chosen []*Supplier
		for i := range some {
			if set&(1<<i) != 0 {
				chosen = append(chosen, &some[i])
			}
		}
		o := buy(needs, chosen, rate)
		if set == 0 || o.Compare(&best) < 0 {
			best = o
		}
	}
	return best
}

// From buys a list from one supplier.
func From(needs []Need, s *Supplier, rate float64) Order { return buy(needs, []*Supplier{s}, rate) }

// buy buys a list from all of some suppliers, each thing where it costs least.
func buy(needs []Need, from []*Supplier, rate float64) Order {
	o := Order{From: []string{}, Taken: []Taken{}, Missing: []Need{}}
	spent := map[*Supplier]measure.Money{}
	for _, n := range needs {
		got := cheapest(n, from)
		have := 0
		for _, s := range from {
			t, ok := got[s]
			if !ok {
				continue
			}
			have += t.Count
			spent[s] += t.Amount
			o.Taken = append(o.Taken, t)
		}
		if have < n.Count {
			n.Count -= have
			o.Missing = append(o.Missing, n)
		}
	}
	for _, s := range from {
		paid, used := spent[s]
		if !used {
			continue
		}
		o.From, o.Wares, o.Days = append(o.From, s.ID), o.Wares+paid, max(o.Days, s.Days)
		if s.FreeFrom == 0 || paid < s.FreeFrom {
			o.Shipping += s.Shipping
		}
	}
	o.Tax = o.Wares.Share(rate)
	o.Total = o.Wares + o.Shipping + o.Tax
	return o
}

// cheapest says how many of a thing are bought where. It fills up to the count wanted, or as far as there
// are any: way[i] is the cheapest way to at least i, over packs of all suppliers, each as often as it is
// there. It takes steps for the count and for each pack that there is of it.
func cheapest(n Need, from []*Supplier) map[*Supplier]Taken {
	type pack struct {
		of    *Supplier
		offer *Offer
		size  int
		most  int
	}
	var packs []pack
	for _, s := range from {
		for i := range s.Offers {
			if f := &s.Offers[i]; f.Spec == n.Spec {
				size := max(1, f.Pack)
				most := (n.Count + size - 1) / size
				if f.Stock > 0 {
					most = min(most, f.Stock)
				}
				packs = append(packs, pack{s, f, size, most})
			}
		}
	}
	type way struct {
		known  bool
		amount measure.Money
		count  int
		here   int // of the pack that was looked at last
		before int // where the way stood before that
	}
	// ways[k][i] is of at least i things, in the first k packs; the last is of all that is wanted
	ways := make([][]way, len(packs)+1)
	ways[0] = make([]way, n.Count+1)
	ways[0][0].known = true
	for k, p := range packs {
		next := make([]way, n.Count+1)
		for i := range ways[k] {
			w := ways[k][i]
			if !w.known {
				continue
			}
			for c := 0; c <= p.most; c++ {
				at := min(n.Count, i+c*p.size)
				amount, count := w.amount+p.offer.Amount.Times(c), w.count+c*p.size
				if o := &next[at]; !o.known || cmp.Or(cmp.Compare(amount, o.amount), cmp.Compare(count, o.count)) < 0 {
					*o = way{true, amount, count, c, i}
				}
				if at == n.Count && c > 0 {
					break
				}
			}
		}
		ways[k+1] = next
	}
	at := n.Count
	for !ways[len(packs)][at].known {
		at--
	}
	got := map[*Supplier]Taken{}
	for k := len(packs) - 1; k >= 0; k-- {
		w := ways[k+1][at]
		at = w.before
		if w.here == 0 {
			continue
		}
		t := got[packs[k].of]
		t.Spec, t.Supplier, t.Label = n.Spec, packs[k].of.ID, n.Label
		t.Count, t.Amount = t.Count+w.here*packs[k].size, t.Amount+packs[k].offer.Amount.Times(w.here)
		got[packs[k].of] = t
	}
	return got
}

// Sticks are the stick lengths of a size that a supplier sells, the longest first.
func (s *Supplier) Sticks(size string) (all []measure.Length) {
	for i := range s.Offers {
		if f := &s.Offers[i]; f.Ware == material.Pipe && f.Size == size && !slices.Contains(all, f.Length) {
			all = append(all, f.Length)
		}
	}
	slices.SortFunc(all, func(a, b measure.Length) int { return cmp.Compare(b, a) })
	return all
}

// Prices are a supplier's offers as prices of a book.
func (s *Supplier) Prices() (all []cost.Price) {
	for i := range s.Offers {
		f := &s.Offers[i]
		all = append(all, cost.Price{Spec: f.Spec, Asked: f.Asked, Date: s.Date, Source: s.Name, Example: s.Example})
	}
	return all
}
