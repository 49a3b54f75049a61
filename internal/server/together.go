package server

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/export"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// TogetherRequest names the projects that are bought in one go, and how they are bought.
type TogetherRequest struct {
	Projects   []string       `json:"projects"             minItems:"1" maxItems:"50"`
	Tool       string         `json:"tool,omitempty"`       // by default the first project's
	Variants   bool           `json:"variants,omitempty"`   // they are put together from the same parts, one at a time
	School     joinery.School `json:"school,omitempty"`     // the way in which joints are cemented
	SpareEvery int            `json:"spareEvery,omitempty"` // a spare for each so many of a kind that are begun
	Terms      *cost.Terms    `json:"terms,omitempty"`      // what the bill is held against
	Shop       *plan.Shop     `json:"shop,omitempty"`       // the saved one where it is left out
}

// Together is one plan for several projects, beside what each would cost by
// itself, cut with the same tool.
type Together struct {
	Plan   plan.Plan   `json:"plan"`
	Tool   string      `json:"tool"`
	Alone  []BoughtOne `json:"alone"`
	Events int64       `json:"events"` // how many there are in all of their records together
}

// BoughtOne is a project bought by itself.
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

func (a *api) together(ctx context.Context, in *body[TogetherRequest]) (*body[Together], error) {
	r := in.Body
	how, err := json.Marshal(r)
	if err != nil {
		return nil, err
	}
	key, news := string(how), ""
	for _, id := range r.Projects {
		now, err := a.nowOf(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		if now.Gone {
			return nil, missing(store.ErrNotFound)
		}
		news += fmt.Sprintf("|%+v", now)
	}
	out, err := a.bought.find(key, news, func() (Together, error) { return a.buyTogether(ctx, r) })
	if err != nil {
		return nil, err
	}
	return answer(out), nil
}

// several are projects with their records, as one job.
type several struct {
	all   []*project.Project
	works []record.Work
	names []string
	shop  *plan.Shop
}

func (a *api) several(ctx context.Context, r *TogetherRequest) (s several, err error) {
	if s.shop = r.Shop; s.shop == nil {
		if s.shop, _, err = a.loadShop(ctx); err != nil {
			return s, err
		}
	}
	for _, id := range r.Projects {
		p, work, err := a.load(ctx, id)
		if err != nil {
			return s, err
		}
		s.all, s.works, s.names = append(s.all, p), append(s.works, work), append(s.names, p.Name)
	}
	return s, nil
}

// job is some of the projects as one job.
func (s *several) job(r *TogetherRequest, from, to int) (plan.Job, record.Work, error) {
	job, work, err := project.Together(s.all[from:to], s.works[from:to], r.Tool, r.Variants)
	if err != nil {
		return job, work, huma.Error422UnprocessableEntity(
			"Not every project can be planned",
			&Fault{Message: err.Error(), Pointer: "/projects"},
		)
	}
	if own, all := job.Haul, s.shop.Haul; own != nil && all != nil && all.Limit < own.Limit && to-from > 1 {
		job.Haul = nil // the car that all of it goes in takes less
	}
	job = withTool(job)
	if job.School, job.SpareEvery = r.School, r.SpareEvery; r.Terms != nil {
		job.Terms = *r.Terms
	}
	return job, work, nil
}

func (a *api) buyTogether(ctx context.Context, r TogetherRequest) (out Together, err error) {
	s, err := a.several(ctx, &r)
	if err != nil {
		return out, err
	}
	plans := func(from, to int) (*plan.Plan, error) {
		job, work, err := s.job(&r, from, to)
		if err != nil {
			return nil, err
		}
		out.Tool = job.Tool
		made, err := plan.Make(ctx, job, *s.shop, work)
		if err != nil {
			return nil, problem(err)
		}
		return made, nil
	}
	made, err := plans(0, len(s.all))
	if err != nil {
		return out, err
	}
	r.Tool = out.Tool
	for i, p := range s.all {
		one, err := plans(i, i+1)
		if err != nil {
			return out, err
		}
		b := BoughtOne{ID: r.Projects[i], Name: p.Name, Copies: max(1, p.Copies), Cost: one.Bill.Total, Sticks: one.Totals.Sticks}
		if p.Sale != nil {
			things := map[material.Spec]bool{}
			for _, price := range p.Sale.Prices {
				things[price.Spec] = true
			}
			b.OwnPrices, b.OwnSticks = len(things), len(p.Sale.Stock) > 0
		}
		out.Alone = append(out.Alone, b)
		out.Events += s.works[i].Last
	}
	out.Plan = *made
	return out, nil
}

// TogetherEvents is what was done to several projects at once.
type TogetherEvents struct {
	TogetherRequest
	EventsRequest
}

// addTogether shares out what was done among the records of several projects. What one of them has is not
// taken again. What is lent to another is written first: what is sent again after a failure is then
// written whole.
func (a *api) addTogether(ctx context.Context, in *body[TogetherEvents]) (*body[EventsAnswer], error) {
	r := &in.Body.TogetherRequest
	s, job, work, err := a.joint(ctx, r)
	if err != nil {
		return nil, err
	}
	made, err := plan.Draft(ctx, job, *s.shop, work)
	if err != nil {
		return nil, problem(err)
	}
	var fresh []record.Event
	var wrong []error
	for i, e := range in.Body.Events {
		if p := e.Problem(); p != nil {
			wrong = append(wrong, &Fault{Pointer: fmt.Sprintf("/events/%d%s", i, p.Path), Message: p.What + "; " + p.Hint})
		}
		if !slices.ContainsFunc(s.works, func(w record.Work) bool { return w.Has(e.ID) }) {
			fresh = append(fresh, e)
		}
	}
	shares, of := project.Divide(made, s.works, s.names, fresh)
	for _, why := range of {
		wrong = append(wrong, &Fault{Pointer: "/events", Message: why})
	}
	if len(wrong) > 0 {
		return nil, huma.Error422UnprocessableEntity("This cannot have happened so", wrong...)
	}
	out := EventsAnswer{Events: []record.Event{}}
	for _, lent := range []bool{true, false} {
		for i, share := range shares {
			var sent []store.Event
			for _, e := range share {
				if (e.Kind == record.Elsewhere) != lent {
					continue
				}
				one, err := encoded(e, in.Body.Device)
				if err != nil {
					return nil, err
				}
				sent = append(sent, one)
			}
			if len(sent) == 0 {
				continue
			}
			if _, _, err := a.put(ctx, r.Projects[i], sent); err != nil {
				return nil, err
			}
		}
	}
	for _, id := range r.Projects {
		last, err := a.store.LastEvent(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		out.Last += last
	}
	return answer(out), nil
}

type togetherExport struct {
	Kind string `path:"kind" enum:"cuts.csv,shopping.csv"`
	Body TogetherRequest
}

// exportTogether writes the list for the shop or for the saw of several projects.
func (a *api) exportTogether(ctx context.Context, in *togetherExport) (*fileOutput, error) {
	made, err := a.buyTogether(ctx, in.Body)
	if err != nil {
		return nil, err
	}
	var b strings.Builder
	if in.Kind == "cuts.csv" {
		err = export.CutList(&b, &made.Plan, measure.InInches)
	} else {
		err = export.Shopping(&b, &made.Plan)
	}
	return &fileOutput{
		Type: "text/csv; charset=utf-8",
		Name: fmt.Sprintf("attachment; filename=%q", in.Kind),
		Body: []byte(b.String()),
	}, err
}
