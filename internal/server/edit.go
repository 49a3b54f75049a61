package server

import (
	"context"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

// EditRequest is a project and a gesture on its frame.
type EditRequest struct {
	Project project.Project `json:"project"`
	Shop    *plan.Shop      `json:"shop,omitempty"` // the saved one when left out
	Edit    edit.Edit       `json:"edit"`
}

// EditAnswer is the project that follows, and what was done.
type EditAnswer struct {
	Project project.Project `json:"project"`
	Done    edit.Done       `json:"done"`
}

func (a *api) edit(ctx context.Context, in *body[EditRequest]) (*body[EditAnswer], error) {
	shop := in.Body.Shop
	if shop == nil {
		saved, _, err := a.loadShop(ctx)
		if err != nil {
			return nil, err
		}
		shop = saved
	}
	next, done, err := in.Body.Project.Edit(in.Body.Edit, shop.Measurements)
	if err != nil {
		return nil, problem(err)
	}
	return answer(EditAnswer{*next, done}), nil
}

// ChoicesRequest asks which fittings could stand at a joint.
type ChoicesRequest struct {
	Project project.Project `json:"project"`
	Joint   string          `json:"joint"`
}

func (a *api) choices(ctx context.Context, in *body[ChoicesRequest]) (*body[[]fitting.Choice], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	doc, err := in.Body.Project.Document()
	if err != nil {
		return nil, problem(err)
	}
	all, err := plan.Choices(doc, in.Body.Joint, shop.Measurements)
	if err != nil {
		return nil, problem(err)
	}
	return answer(all), nil
}
