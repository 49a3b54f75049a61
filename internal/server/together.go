package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

func registerTogether(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(http.MethodGet, "/purchases/{of}", "getPurchase", "How several projects are bought and cut together"),
		a.getPurchase,
	)
	save := op(http.MethodPut, "/purchases/{of}", "savePurchase", "Save how several projects are bought; a stale save is refused with 409")
	save.Errors = []int{http.StatusConflict}
	huma.Register(h, save, a.savePurchase)
	huma.Register(
		h,
		op(http.MethodPost, "/together/events", "addTogether", "Say what was done to several projects; each has its share in its record"),
		a.addTogether,
	)
}

// BoughtOne is a project of several that are bought together, as it is bought by itself.
type BoughtOne struct {
	ID     string        `json:"id"`
	Name   string        `json:"name"`
	Copies int           `json:"copies"`
	Cost   measure.Money `json:"cost"`
	Sticks int           `json:"sticks"`
	// What is on sale for it alone, which does not count where several are bought together.
	OwnPrices int  `json:"ownPrices,omitempty"` // how many things have a price of its own
	OwnSticks bool `json:"ownSticks,omitempty"` // it has stick lengths of its own
}

// mostBought is how many purchases of several projects are kept: they are large.
const mostBought = 8

// several are stored projects with their records.
type several struct {
	all   []*project.Project
	works []record.Work
	names []string
}

// several reads the projects that one stands for.
func (a *api) several(ctx context.Context, p *project.Project) (s several, err error) {
	for _, id := range p.Together.Of {
		q, work, err := a.load(ctx, id)
		if err != nil {
			return s, err
		}
		s.all, s.works, s.names = append(s.all, q), append(s.works, work), append(s.names, q.Name)
	}
	return s, nil
}

// job is some of the projects as one job.
func (s *several) job(p *project.Project, shop *plan.Shop, from, to int) (plan.Job, record.Work, error) {
	job, work, err := p.Together.Job(p, s.all[from:to], s.works[from:to])
	if err != nil {
		return job, work, huma.Error422UnprocessableEntity(
			"Not every project can be planned",
			&Fault{Message: err.Error(), Pointer: "/project/together/of"},
		)
	}
	said := p.Sale != nil && p.Sale.Haul != nil
	if own, all := job.Haul, shop.Haul; !said && own != nil && all != nil && all.Limit < own.Limit && to-from > 1 {
		job.Haul = nil // the car that all of it goes in takes less
	}
	return withTool(job), work, nil
}

// joint is all that a project stands for, as one job with the record of each.
func (a *api) joint(ctx context.Context, p *project.Project, shop *plan.Shop) (job plan.Job, work record.Work, err error) {
	s, err := a.several(ctx, p)
	if err != nil {
		return job, work, err
	}
	return s.job(p, shop, 0, len(s.all))
}

// planTogether plans several projects as one, and says what each comes to by itself. It is kept until
// one of them, or the shop, is another.
func (a *api) planTogether(ctx context.Context, r *PlanRequest) (*PlanAnswer, error) {
	how, err := json.Marshal(r)
	if err != nil {
		return nil, err
	}
	key, news := string(how), ""
	for _, id := range r.Project.Together.Of {
		now, err := a.nowOf(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		if now.Gone {
			return nil, missing(store.ErrNotFound)
		}
		news += fmt.Sprintf("|%+v", now)
	}
	out, err := a.bought.find(key, news, func() (PlanAnswer, error) { return a.buyTogether(ctx, r) })
	return &out, err
}

func (a *api) buyTogether(ctx context.Context, r *PlanRequest) (out PlanAnswer, err error) {
	shop, err := a.shopOf(ctx, r)
	if err != nil {
		return out, err
	}
	s, err := a.several(ctx, &r.Project)
	if err != nil {
		return out, err
	}
	job, work, err := s.job(&r.Project, shop, 0, len(s.all))
	if err != nil {
		return out, err
	}
	p, err := plan.Make(ctx, job, *shop, work)
	if err != nil {
		return out, problem(err)
	}
	out.Plan, out.Events = *p, work.Last
	alone := r.Project
	alone.Tool, alone.Spare, alone.Searched, alone.Terms = job.Tool, nil, nil, nil
	for i, q := range s.all {
		job, work, err := s.job(&alone, shop, i, i+1)
		if err != nil {
			return out, err
		}
		one, err := plan.Make(ctx, job, *shop, work)
		if err != nil {
			return out, problem(err)
		}
		b := BoughtOne{ID: alone.Together.Of[i], Name: q.Name, Copies: max(1, q.Copies), Cost: one.Bill.Total, Sticks: one.Totals.Sticks}
		if q.Sale != nil {
			things := map[material.Spec]bool{}
			for _, price := range q.Sale.Prices {
				things[price.Spec] = true
			}
			b.OwnPrices, b.OwnSticks = len(things), len(q.Sale.Stock) > 0
		}
		out.Alone = append(out.Alone, b)
	}
	return out, nil
}

// TogetherEvents is what was done to several projects at once.
type TogetherEvents struct {
	Project project.Project `json:"project"` // that stands for them
	EventsRequest
}

// addTogether takes in what was done to several projects. One of them that cannot be planned for now, as a size
// in it is half typed, keeps nothing from being recorded: what was bought goes to the first of them then, and each
// knows of it with the next that is bought.
func (a *api) addTogether(ctx context.Context, in *body[TogetherEvents]) (*body[EventsAnswer], error) {
	p := &in.Body.Project
	if p.Together == nil {
		return nil, huma.Error422UnprocessableEntity(
			"No projects are named",
			&Fault{Pointer: "/project/together", Message: "it says which projects are bought together"},
		)
	}
	out, err := a.say(ctx, p.Together.Of, in.Body.EventsRequest, func() (*plan.Plan, error) {
		shop, _, err := a.loadShop(ctx)
		if err != nil {
			return nil, err
		}
		s, err := a.several(ctx, p)
		if err != nil {
			return nil, err
		}
		job, work, err := s.job(p, shop, 0, len(s.all))
		if err != nil {
			return nil, nil
		}
		made, err := plan.Draft(ctx, job, *shop, work)
		if err != nil && ctx.Err() != nil {
			return nil, err
		}
		return made, nil
	})
	if err != nil {
		return nil, err
	}
	out.Events = []record.Event{}
	return answer(out), nil
}
