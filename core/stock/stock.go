package stock

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// Demand asks for pieces of a material that are equally long.
type Demand struct {
	Material string         `json:"material"`
	Length   measure.Length `json:"length"`
	// Least is how short a piece may be that need not be exact; 0: no shorter than Length. It is
	// cut as long as its stick allows, up to Length.
	Least measure.Length `json:"least,omitempty"`
	Count int            `json:"count"`
	Name  string         `json:"name,omitempty"`
}

// least is the shortest that a piece may be.
func (d *Demand) least() measure.Length {
	if d.Least > 0 && d.Least < d.Length {
		return d.Least
	}
	return d.Length
}

// Origin says where a stick comes from.
type Origin string

// A stick is bought in a shop, lies on the rack, was bought before, is what is left of one,
// or is a piece that was cut for something else.
const (
	Shop   Origin = "shop"
	Rack   Origin = "rack"
	Bought Origin = "bought"
	Parted Origin = "part" // of a stick that is there: it was cut in the shop, or around a flaw
	Home   Origin = "home"
	Offcut Origin = "offcut"
	Cut    Origin = "piece"
)

// Offer is a length of a material that can be had.
type Offer struct {
	Material string         `json:"material"`
	Length   measure.Length `json:"length"`         // true length, without a belled end
	Sold     measure.Length `json:"sold,omitempty"` // the length that it is named by; 0: Length
	Price    measure.Money  `json:"price"`          // of one; of what is there already, what using it up is held to cost
	Priced   bool           `json:"priced"`
	Count    int            `json:"count,omitempty"` // how many there are; 0: as many as wanted
	Origin   Origin         `json:"origin"`
	Name     string         `json:"name,omitempty"`
	// Spare says that these are bought besides, whether a piece is cut from them or not: so many
	// of Count.
	Spare bool `json:"spare,omitempty"`
}

// named is the length that an offer is named by.
func (o *Offer) named() measure.Length {
	if o.Sold > 0 {
		return o.Sold
	}
	return o.Length
}

func (o *Offer) fromShop() bool { return o.Origin == Shop || o.Origin == "" }

// Saw is what a cut takes, and how far off cuts may be.
type Saw struct {
	Kerf measure.Length `json:"kerf"`
	// n cuts of one stick may be off by Root × √n + Each × n together: their errors partly
	// cancel, and the setting of a stop is off the same way each time.
	Root measure.Length `json:"root,omitempty"`
	Each measure.Length `json:"each,omitempty"`
}

// Allowance is what so many cuts of one stick may be off by together.
func (s Saw) Allowance(cuts int) measure.Length {
	if cuts <= 0 {
		return 0
	}
	return measure.Length(math.Ceil(float64(s.Root)*math.Sqrt(float64(cuts)))) + s.Each*measure.Length(cuts)
}

// Edge is the slack that a stick with so many cuts must have to be on no knife edge: more
// than real cuts may take together, and a cut's width.
func (s Saw) Edge(cuts int) measure.Length {
	if cuts <= 0 {
		return 0
	}
	a := s.Allowance(cuts)
	if a > 0 {
		a++ // more than the allowance
	}
	return max(a, s.Kerf)
}

// Haul is what a vehicle takes, and how the shop cuts what is longer.
type Haul struct {
	Limit measure.Length `json:"limit"`           // nothing that is carried is longer
	Error measure.Length `json:"error,omitempty"` // how far off a cut of the shop may be
	Free  int            `json:"free,omitempty"`  // cuts that cost nothing
	Price measure.Money  `json:"price,omitempty"` // of each cut beyond
}

// After is what there still is for nothing after so many cuts.
func (h *Haul) After(cuts int) *Haul {
	left := *h
	left.Free = max(0, h.Free-cuts)
	return &left
}

// Problem is what to cut from what.
type Problem struct {
	Demands []Demand       `json:"demands"`
	Offers  []Offer        `json:"offers"`
	Saw     Saw            `json:"saw"`
	EndTrim measure.Length `json:"endTrim,omitempty"`
	Haul    *Haul          `json:"haul,omitempty"`
	Steps   int64          `json:"steps,omitempty"` // the search may spend; 0: [packing.DefaultSteps]
	Keep    []Kept         `json:"keep,omitempty"`  // how sticks were to be cut before: the plan keeps to it where that costs nothing
	Tidy    bool           `json:"tidy,omitempty"`  // also spread the slack, and look for the longest single leftover
}

// Check says what of a problem makes no sense: lengths and prices below nought, or no length.
func (p *Problem) Check() error {
	for i, d := range p.Demands {
		if d.Length <= 0 || d.Count < 0 || d.Least < 0 {
			return fmt.Errorf("piece %d: %d of %v", i+1, d.Count, d.Length)
		}
	}
	for i, o := range p.Offers {
		if o.Length <= 0 || o.Price < 0 || o.Count < 0 {
			return fmt.Errorf("stick %d: %d of %v at %v", i+1, o.Count, o.Length, o.Price)
		}
	}
	if p.Saw.Kerf < 0 || p.Saw.Root < 0 || p.Saw.Each < 0 || p.EndTrim < 0 {
		return fmt.Errorf("a cut that takes less than nothing")
	}
	if h := p.Haul; h != nil && (h.Limit <= 0 || h.Error < 0 || h.Free < 0 || h.Price < 0) {
		return fmt.Errorf(
			"a vehicle that takes %v, with cuts that are off by %v, %d of them free and then at %v",
			h.Limit,
			h.Error,
			h.Free,
			h.Price,
		)
	}
	return nil
}

// Solve plans each material by itself, in the order in which they appear. The error is
// [Problem.Check]'s, or the context's when it ends before the answer is there.
func Solve(ctx context.Context, p Problem) ([]Material, error) {
	if err := p.Check(); err != nil {
		return nil, err
	}
	var keys []string
	for _, d := range p.Demands {
		if d.Count > 0 && !slices.Contains(keys, d.Material) {
			keys = append(keys, d.Material)
		}
	}
	out := make([]Material, len(keys))
	for i, k := range keys {
		m, err := solve(ctx, &p, k)
		if err != nil {
			return nil, err
		}
		if out[i] = m; p.Haul != nil { // what is cut for nothing is so for all materials together
			p.Haul = p.Haul.After(m.ShopCuts)
		}
	}
	return out, nil
}

// solve plans a material with its pieces as long as they are wanted, and, where some may be
// shorter and that buys less or takes a stick off a knife edge, with these at their least.
func solve(ctx context.Context, p *Problem, key string) (Material, error) {
	rough := slices.ContainsFunc(p.Demands, func(d Demand) bool { return d.Material == key && d.least() < d.Length })
	if !rough {
		return solveAs(ctx, p, key)
	}
	exact := *p
	exact.Demands = slices.Clone(p.Demands)
	for i := range exact.Demands {
		exact.Demands[i].Least = 0
	}
	m, err := solveAs(ctx, &exact, key)
	if err != nil {
		return m, err
	}
	short, err := solveAs(ctx, p, key)
	if err != nil || short.compare(&m) >= 0 {
		return m, err
	}
	return short, nil
}

// compare orders plans of one material: more pieces, then less money or length, then fewer
// sticks, then fewer on a knife edge.
func (m *Material) compare(o *Material) int {
	lacking := func(m *Material) (n int) {
		for _, l := range m.Lacking {
			n += l.Count
		}
		return n
	}
	least := cmp.Compare(m.Bought, o.Bought)
	if m.Priced && o.Priced {
		least = cmp.Compare(m.Cost, o.Cost)
	}
	return cmp.Or(cmp.Compare(lacking(m), lacking(o)), least, cmp.Compare(m.Count, o.Count), cmp.Compare(m.Edges, o.Edges))
}

func solveAs(ctx context.Context, p *Problem, key string) (m Material, err error) {
	b := pose(p, key)
	if err := b.spareWhatDoesNotFit(ctx); err != nil {
		return m, err
	}
	a, err := packing.Solve(ctx, b.Problem)
	if err != nil {
		return m, err
	}
	b.withSpare()
	kept := false
	if len(p.Keep) > 0 {
		if a, kept, err = b.asBefore(ctx, a); err != nil {
			return m, err
		}
	}
	if p.Tidy && !kept {
		if a, err = b.tidy(ctx, a); err != nil {
			return m, err
		}
	}
	return b.material(a), nil
}
