package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

// TogetherRequest names the projects that are bought in one go.
type TogetherRequest struct {
	Projects []string `json:"projects"       minItems:"1" maxItems:"50"`
	Tool     string   `json:"tool,omitempty"` // by default the first project's
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

func (a *api) together(ctx context.Context, in *body[TogetherRequest]) (*body[Together], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	var all []*project.Project
	for _, id := range in.Body.Projects {
		stored, err := a.store.Project(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		p, err := project.Decode(stored.Body)
		if err != nil {
			return nil, err
		}
		all = append(all, p)
	}
	out := Together{}
	plans := func(some []*project.Project) (*plan.Plan, error) {
		job, work, err := project.Together(some, in.Body.Tool)
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
	made, err := plans(all)
	if err != nil {
		return nil, err
	}
	in.Body.Tool = out.Tool
	for i, p := range all {
		one, err := plans([]*project.Project{p})
		if err != nil {
			return nil, err
		}
		out.Alone = append(out.Alone, BoughtOne{in.Body.Projects[i], p.Name, max(1, p.Copies), one.Bill.Total, one.Totals.Sticks})
	}
	out.Plan = *made
	return answer(out), nil
}
