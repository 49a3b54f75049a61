package server

import (
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/supply"
	"sturdyelbow/internal/suppliers"
)

func registerCompare(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(
			http.MethodPost,
			"/suppliers",
			"compareSuppliers",
			"What a project comes to at each supplier, and split among them; nothing is stored",
		),
		a.compareSuppliers,
	)
}

// askFor is how long a supplier may take to answer.
const askFor = 3 * time.Second

// SuppliersRequest is a project, and by when it is needed.
type SuppliersRequest struct {
	PlanRequest
	Days *int     `json:"days,omitempty" minimum:"0" maximum:"365"` // until it is needed; left out: whenever
	But  []string `json:"but,omitempty"`                            // suppliers that are not asked, by id
}

// SupplierAnswer is what a project comes to at one supplier.
type SupplierAnswer struct {
	supply.Supplier
	Why string       `json:"why,omitempty"` // why it said nothing
	At  *plan.AtShop `json:"at,omitempty"`  // none where it said nothing
}

// Suppliers is what a project comes to at each supplier, and split among them.
type Suppliers struct {
	All   []SupplierAnswer `json:"all"`
	Split plan.AtShop      `json:"split"`
}

func (a *api) compareSuppliers(ctx context.Context, in *body[SuppliersRequest]) (*body[Suppliers], error) {
	job, shop, work, err := a.asked(ctx, &in.Body.PlanRequest)
	if err != nil {
		return nil, err
	}
	but := map[string]bool{}
	for _, id := range in.Body.But {
		but[id] = true
	}
	var sources []suppliers.Source
	for _, s := range shop.Suppliers {
		if !but[s.ID] {
			sources = append(sources, suppliers.List{Of: s})
		}
	}
	for _, s := range a.suppliers {
		if !but[s.ID()] {
			sources = append(sources, s)
		}
	}
	days := -1
	if in.Body.Days != nil {
		days = *in.Body.Days
	}
	out := Suppliers{All: []SupplierAnswer{}}
	var said []supply.Supplier
	for _, s := range suppliers.AskAll(ctx, sources, askFor) {
		one := SupplierAnswer{Supplier: s.Supplier}
		one.ID, one.Name = s.ID, s.Name
		if s.Err != nil {
			one.Why = s.Err.Error()
		} else {
			said = append(said, s.Supplier)
		}
		out.All = append(out.All, one)
	}
	c, err := plan.CompareShops(ctx, job, *shop, work, said, days)
	if err != nil {
		return nil, problem(err)
	}
	next := 0
	for i := range out.All {
		if out.All[i].Why == "" {
			out.All[i].At = &c.One[next]
			next++
		}
	}
	// the one to go to is on top: what lacks least, then costs least; who did not answer comes last
	slices.SortStableFunc(out.All, func(x, y SupplierAnswer) int {
		switch {
		case x.At == nil && y.At == nil:
			return 0
		case x.At == nil:
			return 1
		case y.At == nil:
			return -1
		default:
			return x.At.Order.Compare(&y.At.Order)
		}
	})
	out.Split = c.Split
	return answer(out), nil
}
