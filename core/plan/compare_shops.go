package plan

import (
	"context"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/supply"
)

// AtShop is a job as it is bought from one supplier, or from several.
type AtShop struct {
	supply.Order
	Sticks int           `json:"sticks"` // that are bought, as they are sold there
	Cuts   measure.Money `json:"cuts"`   // for cuts in the shop, by the fee that the builder has said; in the total
}

// ShopComparison is what a job comes to at several suppliers.
type ShopComparison struct {
	One   []AtShop `json:"one"`   // all from one, in the order of the suppliers
	Split AtShop   `json:"split"` // the least that it costs, from as many as it takes
}

// CompareShops buys a job from each supplier and split among all that are there within some days; days
// below 0 is any day. Sticks are planned for the lengths that are sold there at the prices asked there;
// for a size of which none is sold, as before, and then they are missing. What is there already is not
// bought again. It takes a plan for each supplier, and one more. The split is the cheapest for the
// sticks that are cheapest without the cost of sending them.
func CompareShops(ctx context.Context, job Job, shop Shop, work Work, all []supply.Supplier, days int) (*ShopComparison, error) {
	out := &ShopComparison{One: []AtShop{}}
	for i := range all {
		needs, sticks, cuts, err := needsAt(ctx, job, shop, work, all[i:i+1])
		if err != nil {
			return nil, err
		}
		at := AtShop{Order: supply.From(needs, &all[i], shop.Prices.TaxRate), Sticks: sticks}
		out.One = append(out.One, at.with(cuts, shop.Prices.TaxRate))
	}
	var some []supply.Supplier
	for _, s := range all {
		if days < 0 || s.Days <= days {
			some = append(some, s)
		}
	}
	needs, sticks, cuts, err := needsAt(ctx, job, shop, work, some)
	if err != nil {
		return nil, err
	}
	at := AtShop{Order: supply.Split(needs, some, days, shop.Prices.TaxRate), Sticks: sticks}
	out.Split = at.with(cuts, shop.Prices.TaxRate)
	return out, nil
}

// with adds what the cuts in the shop cost, with their tax.
func (a AtShop) with(cuts measure.Money, tax float64) AtShop {
	a.Cuts = cuts
	a.Tax += cuts.Share(tax)
	a.Total += cuts + cuts.Share(tax)
	return a
}

// needsAt is what has still to be bought for a job, with the sticks that some suppliers sell.
func needsAt(
	ctx context.Context, job Job, shop Shop, work Work, from []supply.Supplier,
) (needs []supply.Need, sticks int, cuts measure.Money, err error) {
	shop.Stock, shop.Prices.Prices = stockOf(shop.Stock, from), pricesOf(from)
	job.Stock, job.Prices = nil, nil
	work.Figures = nil
	p, err := Draft(ctx, job, shop, work)
	if err != nil {
		return nil, 0, 0, err
	}
	for i := range p.Pipe {
		cuts += p.Pipe[i].Stock.CutCost
	}
	for i := range p.Bill.Lines {
		l := &p.Bill.Lines[i]
		if n := l.Count - l.Got; n > 0 && l.Unit != material.Piece && l.Ware != material.Service {
			needs = append(needs, supply.Need{Spec: l.Spec, Label: l.Label, Count: n})
		}
	}
	return needs, p.Totals.Sticks, cuts, nil
}

// stockOf is the stick lengths that suppliers sell, of each size; of a size that none of them sells, those
// of before.
func stockOf(before []StockLength, from []supply.Supplier) (all []StockLength) {
	for _, size := range catalog.Sizes() {
		some := false
		for i := range from {
			for _, l := range from[i].Sticks(string(size)) {
				some = true
				if !slices.ContainsFunc(all, func(s StockLength) bool { return s.Size == size && s.Length == l }) {
					all = append(all, StockLength{Size: size, Length: l})
				}
			}
		}
		for _, s := range before {
			if !some && (s.Size == "" || s.Size == size) {
				s.Size = size
				all = append(all, s)
			}
		}
	}
	return all
}

func pricesOf(from []supply.Supplier) (all []cost.Price) {
	for i := range from {
		all = append(all, from[i].Prices()...)
	}
	return all
}
