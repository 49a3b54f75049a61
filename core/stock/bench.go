package stock

import (
	"cmp"
	"context"
	"errors"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// bench is one material's part of a problem, as it is packed: a piece is an item, its kerf
// counted with it, and a stick a bin, which is that much longer.
type bench struct {
	packing.Problem
	of      *Problem
	key     string
	priced  bool
	demands [][]int     // of each item, those it stands for
	offers  []int       // of each kind, the offer it stands for
	parts   []int       // of each kind, how many parts it is cut into in the shop, or asMayBe
	lacking map[int]int // of a demand, how many pieces no stick holds
}

func pose(p *Problem, key string) *bench {
	b := &bench{of: p, key: key, priced: p.pricesServe(key), lacking: map[int]int{}}
	b.Steps = p.Steps
	for i, o := range p.Offers {
		if o.Spare || o.Material != key || o.Length <= p.EndTrim || b.priced && !o.Priced && o.fromShop() {
			continue
		}
		k := packing.Kind{Room: int64(o.Length - p.EndTrim + p.Saw.Kerf), Limit: packing.Endless}
		if o.Count > 0 {
			k.Limit = o.Count
		}
		switch {
		case b.priced && o.Priced:
			k.Cost = int64(o.Price)
		case !b.priced && o.fromShop():
			k.Cost = int64(o.named())
		}
		if o.fromShop() {
			k.Bins = 1
		}
		b.stick(i, k)
	}
	if h := p.Haul; h != nil && b.priced {
		b.Fee = packing.Fee{Free: h.Free, Price: int64(h.Price)}
	}
	for i, d := range p.Demands {
		if d.Material == key && d.Count > 0 {
			b.demand(i, int64(d.least()+p.Saw.Kerf), d.Count)
		}
	}
	return b
}

// withSpare offers the sticks that are bought besides, once it is known what is needed without
// them: they cost nothing more, and are there to spread the slack.
func (b *bench) withSpare() {
	p := b.of
	for i, o := range p.Offers {
		if !o.Spare || o.Material != b.key || o.Length <= p.EndTrim {
			continue
		}
		b.stick(i, packing.Kind{Room: int64(o.Length - p.EndTrim + p.Saw.Kerf), Limit: max(1, o.Count)})
	}
}

// stick offers a kind of stick: one from a shop that is too long to carry in as many kinds as it
// can be cut into; where there are only so many, in one, in whatever number of parts.
func (b *bench) stick(i int, k packing.Kind) {
	o, p := &b.of.Offers[i], b.of
	if p.Haul == nil || o.Length <= p.Haul.Limit || !o.fromShop() { // what is at home is carried no more
		b.offer(i, k, 1)
		return
	}
	kinds := p.hauled(o.Length, k)
	if k.Limit == packing.Endless {
		for _, hauled := range kinds {
			b.offer(i, hauled, hauled.Cuts+1)
		}
		return
	}
	k = together(kinds)
	if o.Origin == Bought || o.Spare {
		k.Cuts = 0 // the shop has cut it, or it costs nothing more
	}
	b.offer(i, k, asMayBe)
}

func (b *bench) offer(i int, k packing.Kind, parts int) {
	b.Kinds, b.offers, b.parts = append(b.Kinds, k), append(b.offers, i), append(b.parts, parts)
}

func (b *bench) demand(i int, size int64, count int) {
	at, found := slices.BinarySearchFunc(b.Items, size, func(it packing.Item, s int64) int { return cmp.Compare(s, it.Size) })
	if !found {
		b.Items = slices.Insert(b.Items, at, packing.Item{Size: size})
		b.demands = slices.Insert(b.demands, at, nil)
	}
	b.Items[at].Count += count
	b.demands[at] = append(b.demands[at], i)
}

// pricesServe says whether the cost can be the measure for a material: there are prices, and
// no piece needs a length on sale that has none.
func (p *Problem) pricesServe(key string) bool {
	var priced, sold, asked measure.Length
	some := false
	for _, o := range p.Offers {
		if o.Material == key && o.fromShop() {
			if sold = max(sold, o.Length); o.Priced {
				priced, some = max(priced, o.Length), true
			}
		}
	}
	for _, d := range p.Demands {
		if d.Material == key && d.Count > 0 {
			asked = max(asked, d.least()+p.EndTrim)
		}
	}
	return some && (asked <= priced || asked > sold)
}

// spareWhatDoesNotFit sets aside the pieces that no stick holds: those that are longer than
// any, and those for which there are too few. The longest are given up first.
func (b *bench) spareWhatDoesNotFit(ctx context.Context) error {
	scarce := packing.Problem{Steps: b.Steps} // what does not go into sticks of which there is no end
	var at []int
	for i := range b.Items {
		endless, some := false, false
		for k := range b.Kinds {
			if b.Kinds[k].Holds(b.Items[i].Size) {
				some = true
				endless = endless || b.Kinds[k].Limit == packing.Endless
			}
		}
		switch {
		case !some:
			b.lack(i, b.Items[i].Count)
		case !endless:
			scarce.Items, at = append(scarce.Items, b.Items[i]), append(at, i)
		}
	}
	if len(at) > 0 {
		for _, k := range b.Kinds {
			if k.Limit != packing.Endless {
				scarce.Kinds = append(scarce.Kinds, k)
			}
		}
		room, size := int64(0), int64(0)
		for _, k := range scarce.Kinds {
			room += k.Room * int64(k.Limit)
		}
		for _, it := range scarce.Items {
			size += it.Size * int64(it.Count)
		}
		for n := range scarce.Items { // far too many are seen without a search
			it := &scarce.Items[n]
			for ; it.Count > 0 && size > room; it.Count-- {
				size -= it.Size
				b.lack(at[n], 1)
			}
		}
		for n := 0; n < len(at); {
			_, err := packing.Solve(ctx, scarce)
			if err == nil {
				break
			}
			if !errors.Is(err, packing.ErrNoRoom) {
				return err
			}
			for n < len(at) && scarce.Items[n].Count == 0 {
				n++
			}
			if n < len(at) {
				scarce.Items[n].Count--
				b.lack(at[n], 1)
			}
		}
	}
	for i := len(b.Items) - 1; i >= 0; i-- {
		if b.Items[i].Count == 0 {
			b.Items, b.demands = slices.Delete(b.Items, i, i+1), slices.Delete(b.demands, i, i+1)
		}
	}
	return nil
}

// lack sets so many pieces of an item aside, those of the last demands first.
func (b *bench) lack(item, count int) {
	b.Items[item].Count -= count
	for n := len(b.demands[item]) - 1; n >= 0 && count > 0; n-- {
		d := b.demands[item][n]
		some := min(count, b.of.Demands[d].Count-b.lacking[d])
		b.lacking[d] += some
		count -= some
	}
}
