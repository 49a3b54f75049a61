package procure

import (
	"cmp"
	"context"
	"fmt"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// BarTotal is something besides pipe that is sold by the length and cut to pieces: rod, rope,
// webbing, sleeve; or pieces of pipe that are hardware, such as spacers.
type BarTotal struct {
	material.Spec                // without a length
	Label         string         `json:"label"`
	Stock         stock.Material `json:"stock"`
}

// bars plans what of the hardware is cut from something that is sold by the length, and gives
// the lines for it in the place of those of its pieces. What no length on sale holds, or of
// which none is on sale, stays as it is.
func (p *Purchase) bars(ctx context.Context, hardware []material.Line, o *Order) ([]material.Line, error) {
	p.Bars = []BarTotal{}
	var rest []material.Line
	of := map[material.Spec][]material.Line{}
	var order []material.Spec
	for _, l := range hardware {
		bar, cut := material.CutFrom(l.Spec)
		if !cut || !p.sold(bar, o.Shop) {
			rest = append(rest, l)
			continue
		}
		if of[bar] == nil {
			order = append(order, bar)
		}
		of[bar] = append(of[bar], l)
	}
	for _, bar := range order {
		prob := stock.Problem{Saw: barSaw(bar, o.Tool), Tidy: true, Steps: cmp.Or(o.Steps, usualSteps)}
		for _, l := range of[bar] {
			name := cmp.Or(l.For, l.Kind)
			if bar.Ware == material.Pipe {
				name = l.Words()
			}
			prob.Demands = append(prob.Demands, stock.Demand{Material: "bar", Length: l.Length, Count: l.Quantity, Name: name})
		}
		prob.Offers = p.barOffers(bar, o.Shop)
		all, err := stock.Solve(ctx, prob)
		if err != nil {
			return nil, err
		}
		m := all[0]
		for _, lack := range m.Lacking {
			l := of[bar][lack.Demand]
			l.Quantity = lack.Count
			if bar.Ware != material.Pipe {
				l.Rule += "; longer than what is sold"
			}
			rest = append(rest, l)
		}
		for _, b := range m.Buy {
			spec := bar
			spec.Length = b.Length
			line := material.Line{Spec: spec, Quantity: b.Count, Unit: "each", Rule: "cut to " + pieces(of[bar])}
			for _, l := range of[bar] {
				line.Where = append(line.Where, l.Where...)
			}
			rest = append(rest, line)
		}
		p.Bars = append(p.Bars, BarTotal{Spec: bar, Label: bar.Words(), Stock: m})
	}
	return rest, nil
}

// pieces says what is cut: 2 × 24 1/2", 4 × 1".
func pieces(lines []material.Line) (words string) {
	for i, l := range lines {
		if i > 0 {
			words += ", "
		}
		words += fmt.Sprintf("%d × %s", l.Quantity, l.Length.Format(measure.InInches, 0))
	}
	return words
}

// sold says whether something is sold by the length here: pipe always is.
func (p *Purchase) sold(bar material.Spec, s *shop.Shop) bool {
	return bar.Ware == material.Pipe || len(s.BarsFor(bar)) > 0
}

// barOffers are the lengths on sale; of pipe, what the plan leaves of its sticks: what does not
// go in there is bought as it was.
func (p *Purchase) barOffers(bar material.Spec, s *shop.Shop) (all []stock.Offer) {
	offer := func(l, sold measure.Length, count int) {
		spec := bar
		spec.Length = sold
		price, ok := s.Prices.Find(spec)
		all = append(all, stock.Offer{
			Material: "bar", Length: l, Sold: sold, Price: price.Each(), Priced: ok, Count: count, Origin: stock.Shop,
		})
	}
	if bar.Ware != material.Pipe {
		for _, b := range s.BarsFor(bar) {
			offer(b.Length, b.Length, b.Count)
		}
		return all
	}
	for i := range p.Pipe {
		if t := &p.Pipe[i]; string(t.Size) == bar.Size {
			for n := range t.Sticks {
				if k := &t.Sticks[n]; k.Left > 0 && !k.Racked && k.Parts == nil {
					all = append(all, stock.Offer{Material: "bar", Length: k.Left, Count: 1, Origin: stock.Offcut})
				}
			}
		}
	}
	return all
}

// barSaw is what a cut takes: of pipe, as of all pipe; of rod, a hacksaw's; what is cut with
// scissors or a knife takes nothing.
func barSaw(bar material.Spec, tool shop.Tool) stock.Saw {
	switch {
	case bar.Ware == material.Pipe:
		return tool.Saw()
	case bar.Diameter > 0:
		return stock.Saw{Kerf: measure.Inch / 32, Root: measure.Inch / 32}
	}
	return stock.Saw{}
}
