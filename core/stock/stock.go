package stock

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
)

// Demand asks for equal pieces of a material.
type Demand struct {
	Material string         `json:"material"`
	Length   measure.Length `json:"length"`
	Count    int            `json:"count"`
	Name     string         `json:"name,omitempty"`
}

// Origin says where a stick comes from.
type Origin string

// A stick is bought in a shop, lies on the rack, was bought before, is what is left of one,
// or is a piece that was cut for something else.
const (
	Shop   Origin = "shop"
	Rack   Origin = "rack"
	Bought Origin = "bought"
	Offcut Origin = "offcut"
	Cut    Origin = "piece"
)

// Offer is a length of a material that can be had.
type Offer struct {
	Material string         `json:"material"`
	Length   measure.Length `json:"length"` // true length
	Price    measure.Money  `json:"price"`
	Priced   bool           `json:"priced"`
	Count    int            `json:"count,omitempty"` // how many there are; 0: as many as wanted
	Origin   Origin         `json:"origin"`
	Name     string         `json:"name,omitempty"`
}

// Problem is what to cut from what. Nodes bounds the search; zero means a
// sensible default.
type Problem struct {
	Demands []Demand
	Offers  []Offer
	Kerf    measure.Length
	EndTrim measure.Length
	Nodes   int
	Tidy    bool           // also look for the longest single leftover
	Margin  measure.Length // slack that a tidy plan leaves on every stick where that costs nothing
}

// Piece is one piece cut from a stick.
type Piece struct {
	Demand int            `json:"demand"` // index into the problem's demands
	Length measure.Length `json:"length"`
	Name   string         `json:"name,omitempty"`
}

// Stick is one stick and the pieces cut from it, longest first.
type Stick struct {
	Offer  int            `json:"offer"`
	Length measure.Length `json:"length"`
	Origin Origin         `json:"origin"`
	Pieces []Piece        `json:"pieces"`
	Kerf   measure.Length `json:"kerf"`  // lost between pieces and before the leftover
	Left   measure.Length `json:"left"`  // what stays, after kerf and end trim
	Slack  measure.Length `json:"slack"` // how much longer the pieces could be together
	Cuts   int            `json:"cuts"`
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

// Name gives every stick of a material its key, once its pieces are in their order.
func (m *Material) Name() {
	for i := range m.Sticks {
		m.Sticks[i].Key = m.Sticks[i].key(m.Key)
	}
}

// Purchase is how many sticks of one offer to buy.
type Purchase struct {
	Offer  int            `json:"offer"`
	Length measure.Length `json:"length"`
	Count  int            `json:"count"`
	Cost   measure.Money  `json:"cost"`
	Priced bool           `json:"priced"`
}

// Material is the answer for one material.
type Material struct {
	Key     string         `json:"key"`
	Sticks  []Stick        `json:"sticks"`
	Buy     []Purchase     `json:"buy"`
	Cost    measure.Money  `json:"cost"`
	Priced  bool           `json:"priced"`
	Bought  measure.Length `json:"bought"`
	Count   int            `json:"count"` // sticks bought
	Net     measure.Length `json:"net"`
	Kerf    measure.Length `json:"kerf"`
	Left    measure.Length `json:"left"`
	Cuts    int            `json:"cuts"`
	Slack   measure.Length `json:"slack"`             // of the tightest stick
	TooLong []int          `json:"tooLong,omitempty"` // demands longer than all stock

	// The bound: nothing costs less (cents when Priced) or, without prices,
	// buys less length. BoundSticks: no purchase of that cost or length has
	// fewer sticks.
	BoundCost   measure.Money  `json:"boundCost"`
	BoundLength measure.Length `json:"boundLength"`
	BoundSticks int            `json:"boundSticks"`
	Proven      bool           `json:"proven"`
	Nodes       int            `json:"nodes"`
}

// DefaultNodes bounds a search when the problem does not.
const DefaultNodes = 150_000

// Solve plans each material by itself, in the order in which they appear. The
// error is the context's, when it ends before the answer is there.
func Solve(ctx context.Context, p Problem) ([]Material, error) {
	if p.Nodes == 0 {
		p.Nodes = DefaultNodes
	}
	var keys []string
	for _, d := range p.Demands {
		if d.Count > 0 && !slices.Contains(keys, d.Material) {
			keys = append(keys, d.Material)
		}
	}
	out := make([]Material, len(keys))
	for i, k := range keys {
		out[i] = solveMaterial(ctx, &p, k)
		if err := ctx.Err(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func solveMaterial(ctx context.Context, p *Problem, key string) Material {
	m := Material{Key: key}
	in := newInstance(p, key, &m)
	in.done = ctx.Done()
	sol := in.solve()
	m.Nodes, m.Proven = in.spent, sol.proven
	if p.Tidy {
		sol = in.tidy(sol, int64(p.Margin))
	}
	m.fill(p, in, sol)
	return m
}

// fill writes the answer out in sticks and pieces.
func (m *Material) fill(p *Problem, in *instance, sol solution) {
	next := make([]int, len(in.items)) // which demand of an item serves next
	used := make([]int, len(in.items))
	bought := map[int]int{}
	first := true
	for _, b := range sol.bins {
		k := in.kinds[b.kind]
		o := p.Offers[k.offer]
		s := Stick{Offer: k.offer, Length: o.Length, Origin: o.Origin}
		take := func(item int) {
			it := &in.items[item]
			for used[item] == p.Demands[it.demands[next[item]]].Count {
				next[item], used[item] = next[item]+1, 0
			}
			d := it.demands[next[item]]
			used[item]++
			s.Pieces = append(s.Pieces, Piece{Demand: d, Length: p.Demands[d].Length, Name: p.Demands[d].Name})
		}
		for _, d := range k.prefix {
			s.Pieces = append(s.Pieces, Piece{Demand: d, Length: p.Demands[d].Length, Name: p.Demands[d].Name})
		}
		for item, n := range b.take {
			for range n {
				take(item)
			}
		}
		if len(s.Pieces) == 0 {
			continue
		}
		slices.SortStableFunc(s.Pieces, func(a, b Piece) int { return cmp.Compare(b.Length, a.Length) })
		s.settle(p)
		m.Sticks = append(m.Sticks, s)
		for _, pc := range s.Pieces {
			m.Net += pc.Length
		}
		m.Kerf, m.Left, m.Cuts = m.Kerf+s.Kerf, m.Left+s.Left, m.Cuts+s.Cuts
		if first || s.Slack < m.Slack {
			m.Slack = s.Slack
		}
		first = false
		if o.Origin == Shop || o.Origin == "" {
			bought[k.offer]++
		}
	}
	for offer := range p.Offers {
		n := bought[offer]
		if n == 0 {
			continue
		}
		o := p.Offers[offer]
		m.Buy = append(m.Buy, Purchase{Offer: offer, Length: o.Length, Count: n, Cost: o.Price.Times(n), Priced: o.Priced})
		m.Count, m.Bought, m.Cost = m.Count+n, m.Bought+o.Length*measure.Length(n), m.Cost+o.Price.Times(n)
	}
	slices.SortStableFunc(m.Buy, func(a, b Purchase) int { return cmp.Compare(b.Length, a.Length) })
	m.Priced = in.priced
	m.BoundSticks = sol.boundSticks
	if in.priced {
		m.BoundCost = measure.Money(sol.bound * in.unit)
	} else {
		m.BoundLength = measure.Length(sol.bound * in.unit)
	}
	slices.SortStableFunc(m.Sticks, compareSticks)
}

// settle works out what a stick loses and leaves.
func (s *Stick) settle(p *Problem) {
	sum, k := measure.Length(0), len(s.Pieces)
	for _, pc := range s.Pieces {
		sum += pc.Length
	}
	s.Kerf = p.Kerf * measure.Length(k-1)
	s.Slack = s.Length - p.EndTrim - sum - s.Kerf
	s.Cuts = k - 1
	s.Left = s.Slack
	if s.Slack > 0 { // one more cut parts the last piece from the leftover
		s.Cuts++
		lost := min(p.Kerf, s.Slack)
		s.Kerf, s.Left = s.Kerf+lost, s.Left-lost
	}
	if p.EndTrim > 0 {
		s.Cuts++
	}
}

// compareSticks orders sticks for the saw: like with like, the long pieces
// first, the stick with the longest leftover last.
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
