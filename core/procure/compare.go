package procure

import (
	"context"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// compare counts the sticks for every tool; tools with one kerf buy alike.
func (p *Purchase) compare(
	ctx context.Context,
	prob stock.Problem,
	s *shop.Shop,
	solved map[measure.Length][]stock.Material,
	draft bool,
) error {
	prob.Tidy, prob.Steps = false, compareSteps
	for _, t := range s.Tools {
		ms, ok := solved[t.Kerf]
		if !ok && draft {
			continue // counted with the whole plan
		}
		if !ok {
			prob.Saw = t.Saw()
			var err error
			if ms, err = stock.Solve(ctx, prob); err != nil {
				return err
			}
			solved[t.Kerf] = ms
		}
		c := ToolCount{ID: t.ID, Name: t.Name, Kerf: t.Kerf, Chosen: t.ID == p.Tool.ID, Priced: true, Proven: true}
		for _, m := range ms {
			c.Sticks, c.Cost = c.Sticks+m.Count, c.Cost+m.Cost
			c.Priced, c.Proven = c.Priced && m.Priced, c.Proven && m.Proven
		}
		p.Tools = append(p.Tools, c)
	}
	return nil
}

// wholeBills makes of what is still to be bought with each tool the whole bill with it: the chosen one's, and what the
// sticks and the cuts in the shop come to more or less, with its tax.
func (p *Purchase) wholeBills(tax float64) {
	chosen := measure.Money(0)
	for i := range p.Tools {
		if p.Tools[i].Chosen {
			chosen = p.Tools[i].Cost
		}
	}
	for i := range p.Tools {
		more := p.Tools[i].Cost - chosen
		p.Tools[i].Cost = p.Bill.Total + more + more.Share(tax)
	}
}
