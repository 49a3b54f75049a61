package plan

import (
	"context"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
)

// Progress is how far the search for the best purchase has come.
type Progress struct {
	Sizes  []SizeProgress `json:"sizes"`
	Proven bool           `json:"proven"` // nothing cheaper exists
}

// SizeProgress is the same for one size of pipe: what the best plan takes, and what none can
// go below.
type SizeProgress struct {
	Size   catalog.Size     `json:"size"`
	Search procure.Searched `json:"search"` // put to the job's, so that the next plan finds as much
	Sticks int              `json:"sticks"`
	Least  int              `json:"least"` // sticks, of what costs least
	Cost   measure.Money    `json:"cost"`
	Bound  measure.Money    `json:"bound"`
	Bought measure.Length   `json:"bought"`
	Bottom measure.Length   `json:"bottom"` // the bound, where there are no prices
	Priced bool             `json:"priced"`
	Proven bool             `json:"proven"`
}

// firstSteps is what a search spends that goes on from a plan: several times what a plan does.
const firstSteps = 800_000_000

// Improve goes on with the search for the best purchase of a job where [Make] stops: it spends
// twice as much each time, tells what it has by then, and ends when all is proven or the
// context ends, which is no error. The searches of what it told last, in [Job.Searched], make
// [Make] find the same.
func Improve(ctx context.Context, job Job, shop Shop, work Work, tell func(Progress)) error {
	for steps := int64(firstSteps); steps <= mostSteps; steps *= 2 {
		p, err := plans(ctx, job, shop, work, false, steps)
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		now := Progress{Sizes: []SizeProgress{}, Proven: p.Totals.Proven}
		for i := range p.Pipe {
			t := &p.Pipe[i]
			m := &t.Stock
			now.Sizes = append(now.Sizes, SizeProgress{
				Size: t.Size, Search: procure.Searched{Basis: t.Basis, Steps: steps}, Sticks: m.Count, Least: m.BoundSticks,
				Cost: m.Cost, Bound: m.BoundCost, Bought: m.Bought, Bottom: m.BoundLength, Priced: m.Priced, Proven: m.Proven,
			})
		}
		if tell(now); now.Proven {
			return nil
		}
	}
	return nil
}
