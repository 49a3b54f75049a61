package stock

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// Piece is one piece cut from a stick.
type Piece struct {
	Demand int            `json:"demand"` // index into the problem's demands
	Length measure.Length `json:"length"`
	Name   string         `json:"name,omitempty"`
	// At is where the saw cuts its far end: from the end of the stick, or of the part that the shop
	// cut of it, at which cutting begins.
	At measure.Length `json:"at"`
}

// Stick is one stick and the pieces cut from it, longest first; part by part where the shop
// cuts it.
type Stick struct {
	Offer  int            `json:"offer"`
	Length measure.Length `json:"length"`
	Sold   measure.Length `json:"sold,omitempty"` // that it is named by, where that is not its length
	Origin Origin         `json:"origin"`
	Pieces []Piece        `json:"pieces"`
	Parts  []Part         `json:"parts,omitempty"` // what it is carried as, where the shop cuts it
	Kerf   measure.Length `json:"kerf"`            // lost to all cuts
	Left   measure.Length `json:"left"`            // what stays of it, after kerfs and end trim
	Cuts   int            `json:"cuts"`            // at home
	// Allowance is what real cuts may take together beyond their kerfs, on the stick or the part
	// of it that has least to spare.
	Allowance measure.Length `json:"allowance,omitempty"`
	Edge      bool           `json:"edge,omitempty"` // it is on a knife edge: real cuts may take more than it has to spare
	// Slack is how much longer its pieces could be together; of parts, of the one with least to
	// spare, less what the shop's cuts may be off by.
	Slack measure.Length `json:"-"`
	// Key is what is cut from what: sticks of one key are cut alike, in whatever plan.
	Key string `json:"key"`
}

// key names a stick by its material, where it is from, its length and its pieces.
func (s *Stick) key(material string) string {
	key := fmt.Sprintf("%s|%s|%d", material, s.Origin, s.Length)
	for _, p := range s.Pieces {
		key += fmt.Sprintf("|%d", p.Length)
	}
	return key
}

// Purchase is how many sticks of one offer to buy.
type Purchase struct {
	Offer  int            `json:"offer"`
	Length measure.Length `json:"length"` // that they are named by
	Count  int            `json:"count"`
	Cost   measure.Money  `json:"cost"`
	Priced bool           `json:"priced"`
}

// Lack is pieces of a demand that no stick holds: they are longer than any, or there are not
// enough sticks.
type Lack struct {
	Demand int `json:"demand"`
	Count  int `json:"count"`
}

// Material is the answer for one material.
type Material struct {
	Key      string         `json:"key"`
	Sticks   []Stick        `json:"sticks"`
	Buy      []Purchase     `json:"buy"`
	Cost     measure.Money  `json:"cost"` // of what is bought, cuts in the shop included
	Priced   bool           `json:"priced"`
	Bought   measure.Length `json:"bought"`
	Count    int            `json:"count"` // sticks bought
	Net      measure.Length `json:"net"`   // of the pieces, without kerfs
	Kerf     measure.Length `json:"kerf"`
	Left     measure.Length `json:"left"`
	Cuts     int            `json:"cuts"`               // at home
	ShopCuts int            `json:"shopCuts,omitempty"` // in the shop
	CutCost  measure.Money  `json:"cutCost,omitempty"`  // of these
	Tightest int            `json:"tightest"`           // index of the stick with the least to spare
	Closest  measure.Length `json:"closest"`            // what is left of it
	Edges    int            `json:"edges,omitempty"`    // sticks on a knife edge
	Lacking  []Lack         `json:"lacking,omitempty"`

	// The bound: nothing costs less (cents when Priced) or, without prices, buys less length.
	// BoundSticks: no purchase of that cost or length has fewer sticks.
	BoundCost   measure.Money  `json:"boundCost"`
	BoundLength measure.Length `json:"boundLength"`
	BoundSticks int            `json:"boundSticks"`
	Proven      bool           `json:"proven"`
	Steps       int64          `json:"steps"`
}

// material writes an answer out in sticks and pieces.
func (b *bench) material(a packing.Answer) Material {
	m := Material{Key: b.key, Priced: b.priced, Proven: a.Proven, Steps: a.Steps, BoundSticks: a.Bound.Bins}
	if b.priced {
		m.BoundCost = measure.Money(a.Bound.Cost)
	} else {
		m.BoundLength = measure.Length(a.Bound.Cost)
	}
	m.Sticks = b.sticks(a.Bins)
	bought := map[int]int{}
	for n := range m.Sticks {
		s := &m.Sticks[n]
		m.add(s)
		if o := &b.of.Offers[s.Offer]; !o.Spare && (o.fromShop() || o.Priced && b.priced) {
			bought[s.Offer]++
		}
		if t := &m.Sticks[m.Tightest]; s.Slack-s.Allowance < t.Slack-t.Allowance {
			m.Tightest = n
		}
	}
	if len(m.Sticks) > 0 {
		m.Closest = m.Sticks[m.Tightest].Left
	}
	for i, o := range b.of.Offers {
		if o.Spare && o.Material == b.key {
			bought[i] = o.Count
		}
		n := bought[i]
		if n == 0 {
			continue
		}
		m.Buy = append(m.Buy, Purchase{Offer: i, Length: o.named(), Count: n, Cost: o.Price.Times(n), Priced: o.Priced})
		if m.Cost += o.Price.Times(n); o.fromShop() {
			m.Count, m.Bought = m.Count+n, m.Bought+o.named()*measure.Length(n)
		}
	}
	slices.SortStableFunc(m.Buy, func(a, b Purchase) int { return cmp.Compare(b.Length, a.Length) })
	if h := b.of.Haul; h != nil && b.priced {
		m.CutCost = h.Price.Times(max(0, m.ShopCuts-h.Free))
		m.Cost += m.CutCost
		m.Proven = m.Proven && (m.CutCost == 0 || int64(m.Cost) == a.Total.Cost)
	}
	for d := range b.of.Demands {
		if n := b.lacking[d]; n > 0 {
			m.Lacking = append(m.Lacking, Lack{d, n})
		}
	}
	return m
}

func (m *Material) add(s *Stick) {
	for _, p := range s.Pieces {
		m.Net += p.Length
	}
	m.Kerf, m.Left, m.Cuts = m.Kerf+s.Kerf, m.Left+s.Left, m.Cuts+s.Cuts
	m.ShopCuts += max(0, len(s.Parts)-1)
	if s.Edge {
		m.Edges++
	}
}

// sticks says which demand each piece of a packing is for, in the order of the saw.
func (b *bench) sticks(bins []packing.Bin) []Stick {
	p := b.of
	next, used := make([]int, len(b.Items)), make([]int, len(b.Items))
	all := make([]Stick, 0, len(bins))
	for _, bin := range bins {
		o := &p.Offers[b.offers[bin.Kind]]
		s := Stick{Offer: b.offers[bin.Kind], Length: o.Length, Origin: o.Origin}
		if o.named() != o.Length {
			s.Sold = o.Sold
		}
		for _, h := range bin.Shares {
			of := b.demands[h.Item]
			for range h.Count {
				for d := of[next[h.Item]]; used[h.Item] == p.Demands[d].Count-b.lacking[d]; d = of[next[h.Item]] {
					next[h.Item], used[h.Item] = next[h.Item]+1, 0
				}
				d := of[next[h.Item]]
				used[h.Item]++
				s.Pieces = append(s.Pieces, Piece{Demand: d, Length: p.Demands[d].least(), Name: p.Demands[d].Name})
			}
		}
		p.settle(&s, b.parts[bin.Kind])
		s.Mark(p.Saw.Kerf, p.EndTrim)
		s.Key = s.key(b.key)
		all = append(all, s)
	}
	slices.SortStableFunc(all, compareSticks)
	return all
}

// settle works out how a stick is cut, and what it loses and leaves.
func (p *Problem) settle(s *Stick, parts int) {
	slices.SortStableFunc(s.Pieces, func(a, b Piece) int { return cmp.Compare(b.Length, a.Length) })
	if parts == 1 {
		c := p.cut(s.Pieces, s.Length, p.EndTrim, 0)
		s.Kerf, s.Left, s.Cuts, s.Slack, s.Allowance, s.Edge = c.kerf, c.left, c.cuts, c.slack, c.allowance, c.edge
		return
	}
	p.carry(s, parts)
	parts = len(s.Parts)
	from := 0
	s.Kerf = p.Saw.Kerf * measure.Length(parts-1)
	first := true
	for j := range s.Parts {
		t := &s.Parts[j]
		trim := measure.Length(0)
		if j == 0 {
			trim = p.EndTrim
		}
		ends := 2
		if j == 0 || j == parts-1 {
			ends = 1
		}
		c := p.cut(s.Pieces[from:from+t.Pieces], t.Length, trim, p.Haul.Error*measure.Length(ends))
		from += t.Pieces
		t.Left = c.left
		s.Kerf, s.Left, s.Cuts = s.Kerf+c.kerf, s.Left+c.left, s.Cuts+c.cuts
		s.Edge = s.Edge || c.edge
		if t.Pieces > 0 && (first || c.slack-c.allowance < s.Slack-s.Allowance) {
			s.Slack, s.Allowance, first = c.slack, c.allowance, false
		}
	}
}

// EachPart gives the pieces of a stick part by part, all of them where the shop does not cut it.
func (s *Stick) EachPart(visit func(pieces []Piece)) {
	if s.Parts == nil {
		visit(s.Pieces)
		return
	}
	from := 0
	for _, t := range s.Parts {
		visit(s.Pieces[from : from+t.Pieces])
		from += t.Pieces
	}
}

// Mark says of each piece where its far end is cut. A saw takes its kerf beyond the mark, from the
// next piece's side; the first part begins behind what is trimmed off the stick.
func (s *Stick) Mark(kerf, trim measure.Length) {
	at := trim
	s.EachPart(func(pieces []Piece) {
		for i := range pieces {
			at += pieces[i].Length
			pieces[i].At = at
			at += kerf
		}
		at = 0
	})
}

// cuts is what cutting one length takes and leaves.
type cuts struct {
	kerf, left, slack, allowance measure.Length
	cuts                         int
	edge                         bool
}

// cut works out what a length yields that may be short by an error. Pieces that need not be
// exact grow into what is to spare.
func (p *Problem) cut(pieces []Piece, length, trim, short measure.Length) (c cuts) {
	sum, k := measure.Length(0), len(pieces)
	for _, pc := range pieces {
		sum += pc.Length
	}
	if k == 0 {
		return cuts{left: length - trim}
	}
	c.kerf = p.Saw.Kerf * measure.Length(k-1)
	rest := length - trim - sum - c.kerf
	c.cuts = k - 1
	if rest > 0 {
		c.cuts++ // one more parts the last piece from what is left
	}
	if trim > 0 {
		c.cuts++
	}
	c.allowance = p.Saw.Allowance(c.cuts)
	for i := range pieces {
		if d := &p.Demands[pieces[i].Demand]; pieces[i].Length < d.Length {
			more := max(0, min(d.Length-pieces[i].Length, rest-short-p.Saw.Edge(c.cuts)))
			pieces[i].Length += more
			rest -= more
		}
	}
	c.slack = rest - short
	c.edge = c.cuts > 0 && c.slack < p.Saw.Edge(c.cuts)
	lost := min(p.Saw.Kerf, rest)
	c.kerf, c.left = c.kerf+lost, rest-lost
	return c
}

// compareSticks orders sticks for the saw: like with like, the long pieces first, the stick
// with the longest leftover last.
func compareSticks(a, b Stick) int {
	if c := cmp.Compare(b.Length, a.Length); c != 0 {
		return c
	}
	for i := range min(len(a.Pieces), len(b.Pieces)) {
		if c := cmp.Compare(b.Pieces[i].Length, a.Pieces[i].Length); c != 0 {
			return c
		}
	}
	return cmp.Or(cmp.Compare(len(b.Pieces), len(a.Pieces)), cmp.Compare(a.Origin, b.Origin))
}
