package server

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// TogetherRequest names the projects that are bought in one go.
type TogetherRequest struct {
	Projects []string `json:"projects"           minItems:"1" maxItems:"50"`
	Tool     string   `json:"tool,omitempty"`     // by default the first project's
	Variants bool     `json:"variants,omitempty"` // they are put together from the same parts, one at a time
}

// Together is one plan for several projects, beside what each would cost by
// itself, cut with the same tool.
type Together struct {
	Plan  plan.Plan   `json:"plan"`
	Tool  string      `json:"tool"`
	Alone []BoughtOne `json:"alone"`
}

// BoughtOne is a project bought by itself.
type BoughtOne struct {
	ID     string        `json:"id"`
	Name   string        `json:"name"`
	Copies int           `json:"copies"`
	Cost   measure.Money `json:"cost"`
	Sticks int           `json:"sticks"`
}

// mostBought is how many purchases of several projects are kept: they are large.
const mostBought = 8

func (a *api) together(ctx context.Context, in *body[TogetherRequest]) (*body[Together], error) {
	key := fmt.Sprint(in.Body.Tool, in.Body.Variants)
	var news string
	for _, id := range in.Body.Projects {
		now, err := a.nowOf(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		if now.Gone {
			return nil, missing(store.ErrNotFound)
		}
		key, news = key+"|"+id, news+fmt.Sprintf("|%+v", now)
	}
	out, err := a.bought.find(key, news, func() (Together, error) { return a.buyTogether(ctx, in.Body) })
	if err != nil {
		return nil, err
	}
	return answer(out), nil
}

func (a *api) buyTogether(ctx context.Context, r TogetherRequest) (out Together, err error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return out, err
	}
	var all []*project.Project
	var works []record.Work
	for _, id := range r.Projects {
		p, work, err := a.load(ctx, id)
		if err != nil {
			return out, err
		}
		all, works = append(all, p), append(works, work)
	}
	plans := func(some []*project.Project, done []record.Work) (*plan.Plan, error) {
		job, work, err := project.Together(some, done, r.Tool, r.Variants)
		if err != nil {
			return nil, huma.Error422UnprocessableEntity(
				"Not every project can be planned",
				&Fault{Message: err.Error(), Pointer: "/projects"},
			)
		}
		job = withTool(job)
		out.Tool = job.Tool
		made, err := plan.Make(ctx, job, *shop, work)
		if err != nil {
			return nil, problem(err)
		}
		return made, nil
	}
	made, err := plans(all, works)
	if err != nil {
		return out, err
	}
	r.Tool = out.Tool
	for i, p := range all {
		one, err := plans([]*project.Project{p}, works[i:i+1])
		if err != nil {
			return out, err
		}
		out.Alone = append(out.Alone, BoughtOne{r.Projects[i], p.Name, max(1, p.Copies), one.Bill.Total, one.Totals.Sticks})
	}
	out.Plan = *made
	return out, nil
}
