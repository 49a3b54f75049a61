package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/pricelist"
	"sturdyelbow/core/procure"
	"sturdyelbow/internal/export"
	"sturdyelbow/internal/store"
)

func registerPrices(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(h, op(http.MethodPost, "/prices/read", "readPrices", "Read prices as people write them"), a.readPrices)
	huma.Register(
		h,
		op(http.MethodPost, "/prices/list", "readPriceList", "Read a pasted or opened list of prices, line by line; nothing is stored"),
		a.readPriceList,
	)
	huma.Register(h, op(http.MethodGet, "/prices", "priceBook", "Every thing that a project buys or the book has a price of"), a.priceBook)
	huma.Register(h, op(http.MethodGet, "/prices.csv", "priceBookFile", "The price book as CSV"), a.priceBookFile)
}

// PricesRequest is prices as written.
type PricesRequest struct {
	Texts []string `json:"texts" maxItems:"500"`
}

func (a *api) readPrices(_ context.Context, in *body[PricesRequest]) (*body[[]cost.Asked], error) {
	var all []cost.Asked
	var wrong []error
	for i, t := range in.Body.Texts {
		asked, err := cost.Read(t)
		if p, ok := err.(*measure.ParseError); ok {
			wrong = append(wrong, &Fault{Pointer: fmt.Sprintf("/texts/%d", i), Message: p.What + "; " + p.Hint, Value: t})
		}
		all = append(all, asked)
	}
	if len(wrong) > 0 {
		return nil, huma.Error422UnprocessableEntity("A price cannot be read", wrong...)
	}
	return answer(all), nil
}

// PriceListRequest is a list of prices as it was pasted or opened.
type PriceListRequest struct {
	Text   string `json:"text"`
	Source string `json:"source,omitempty" maxLength:"200"` // said of prices that say none themselves
	Date   string `json:"date,omitempty"`                   // likewise; today where it is left out
}

func (a *api) readPriceList(ctx context.Context, in *body[PriceListRequest]) (*body[[]pricelist.Row], error) {
	parts, err := a.parts(ctx)
	if err != nil {
		return nil, err
	}
	var known []material.Spec
	for _, p := range parts {
		known = append(known, p.Spec)
	}
	date := in.Body.Date
	if date == "" {
		date = time.Now().Format(time.DateOnly)
	}
	return answer(pricelist.Read(in.Body.Text, known, in.Body.Source, date)), nil
}

// PricePart is a thing that a project buys, or that the book has a price of.
type PricePart struct {
	material.Spec
	Label  string       `json:"label"`
	Prices []cost.Price `json:"prices"`         // for one and for packs
	Days   *int         `json:"days,omitempty"` // how long ago the newest of them was asked; none where it says no date
	Uses   []PriceUse   `json:"uses"`
}

// PriceUse is a project that buys a thing.
type PriceUse struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Count int    `json:"count"`
}

// PriceBook is every thing with its prices.
type PriceBook struct {
	Parts []PricePart `json:"parts"`
	Stale int         `json:"stale"` // days after which a price is marked as old
	More  int         `json:"more"`  // projects that were not looked at, as there are so many
}

// staleDays is the age at which a price is marked: prices change with the season.
const staleDays = 180

func (a *api) priceBook(ctx context.Context, _ *struct{}) (*body[PriceBook], error) {
	parts, err := a.parts(ctx)
	if err != nil {
		return nil, err
	}
	return answer(PriceBook{Parts: parts, Stale: staleDays}), nil
}

// needs is what a project buys and cuts.
type needs struct {
	bought []need
	toCut  []procure.CutLine // of which some are still to be cut
}

// need is a thing that a project buys, and how many of it.
type need struct {
	spec  material.Spec
	count int
}

// parts lists what all projects buy, in the order of a walk through a shop, and then what else the
// book has a price of. Projects that cannot be planned buy nothing.
func (a *api) parts(ctx context.Context) ([]PricePart, error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	all, at := []PricePart{}, map[material.Spec]int{}
	part := func(s material.Spec) *PricePart {
		i, known := at[s]
		if !known {
			i, at[s] = len(all), len(all)
			all = append(all, PricePart{Spec: s, Label: s.Words(), Prices: []cost.Price{}, Uses: []PriceUse{}})
		}
		return &all[i]
	}
	err = a.eachNeeds(ctx, shop, func(l store.Line, its needs) {
		for _, n := range its.bought {
			p := part(n.spec)
			p.Uses = append(p.Uses, PriceUse{l.ID, l.Name, n.count})
		}
	})
	if err != nil {
		return nil, err
	}
	for _, price := range shop.Prices.Prices {
		p := part(price.Spec)
		p.Prices = append(p.Prices, price)
	}
	for i := range all {
		all[i].Days = age(all[i].Prices, time.Now())
	}
	slices.SortStableFunc(all, func(x, y PricePart) int { return walk(x.Spec, y.Spec) })
	return all, nil
}

// walk orders things as one comes by them in a shop: pipe by size and length, fittings by kind and
// size, cans by what is in them.
func walk(x, y material.Spec) int {
	rank := func(s material.Spec) int {
		first, _, _ := strings.Cut(s.Size, "x")
		return catalog.Size(first).Rank()
	}
	wares := material.Wares()
	return cmp.Or(
		cmp.Compare(slices.Index(wares, x.Ware), slices.Index(wares, y.Ware)), cmp.Compare(x.Kind, y.Kind),
		cmp.Compare(rank(x), rank(y)), cmp.Compare(x.Size, y.Size), cmp.Compare(y.Length, x.Length), cmp.Compare(x.Ounces, y.Ounces),
	)
}

// age says how many days ago the newest of some prices was asked; nil where none says.
func age(prices []cost.Price, now time.Time) *int {
	newest := ""
	for _, p := range prices {
		newest = max(newest, p.Date)
	}
	day, err := time.Parse(time.DateOnly, newest)
	if err != nil {
		return nil
	}
	days := max(0, int(now.Sub(day).Hours()/24))
	return &days
}

// eachNeeds shows what every stored project buys and cuts. Projects that cannot be planned are left out.
func (a *api) eachNeeds(ctx context.Context, shop *plan.Shop, visit func(store.Line, needs)) error {
	lines, err := a.store.Projects(ctx)
	if err != nil {
		return missing(err)
	}
	for _, l := range lines {
		n, err := a.needsOf(ctx, l.ID, shop)
		if ctx.Err() != nil {
			return problem(context.Canceled)
		}
		if err == nil {
			visit(l, n)
		}
	}
	return nil
}

// needsOf says what a stored project buys; it is kept as long as nothing of it changes.
func (a *api) needsOf(ctx context.Context, id string, shop *plan.Shop) (needs, error) {
	now, err := a.nowOf(ctx, id)
	if err != nil || now.Gone {
		return needs{}, cmp.Or(err, store.ErrNotFound)
	}
	return a.needed.find(id, newness{now.Revision, now.Shop, now.Events}, func() (needs, error) {
		p, work, err := a.load(ctx, id)
		if err != nil {
			return needs{}, err
		}
		job, err := p.Job()
		if err != nil {
			return needs{}, err
		}
		made, err := plan.Draft(ctx, withTool(job), *shop, work)
		if err != nil {
			return needs{}, err
		}
		var out needs
		for i := range made.Cuts {
			if g := &made.Cuts[i]; g.Done+g.Trims < g.Count && g.Cut > 0 {
				out.toCut = append(out.toCut, *g)
			}
		}
		for _, l := range made.Bill.Lines {
			if l.Unit != material.Piece {
				out.bought = append(out.bought, need{l.Spec, l.Count})
			}
		}
		return out, nil
	})
}

func (a *api) priceBookFile(ctx context.Context, _ *struct{}) (*fileOutput, error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	var b strings.Builder
	if err := export.Prices(&b, &shop.Prices); err != nil {
		return nil, err
	}
	return &fileOutput{Type: "text/csv; charset=utf-8", Name: `attachment; filename="prices.csv"`, Body: []byte(b.String())}, nil
}
