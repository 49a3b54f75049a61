package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

// registerTogetherAsked registers what is asked at the saw of projects that are cut together.
func registerTogetherAsked(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(
			http.MethodPost,
			"/together/badcut",
			"badCutTogether",
			"What becomes of a cut of several projects that went wrong; nothing is recorded",
		),
		a.badCutTogether,
	)
	huma.Register(
		h,
		op(http.MethodPost, "/together/mistakes", "mistakesTogether", "What each cut of several projects would cost if it were spoilt"),
		a.mistakesTogether,
	)
}

// TogetherBadCut is several projects, and the event that says how one of their cuts went wrong.
type TogetherBadCut struct {
	TogetherRequest
	Event record.Event `json:"event"`
}

// badCutTogether answers for all that is cut together. No frame is offered another size here: that is
// for the project that it belongs to.
func (a *api) badCutTogether(ctx context.Context, in *body[TogetherBadCut]) (*body[plan.BadCut], error) {
	if p := in.Body.Event.Problem(); p != nil {
		return nil, problem(plan.ValidationError{{Path: "/event" + p.Path, What: p.What, Hint: p.Hint}})
	}
	s, job, work, err := a.joint(ctx, &in.Body.TogetherRequest)
	if err != nil {
		return nil, err
	}
	b, err := plan.FindBadCut(ctx, job, *s.shop, work, in.Body.Event)
	if err != nil {
		return nil, problem(err)
	}
	b.Same = []plan.Same{}
	return answer(*b), nil
}

func (a *api) mistakesTogether(ctx context.Context, in *body[TogetherRequest]) (*body[[]procure.Mistakes], error) {
	s, job, work, err := a.joint(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	made, err := plan.Make(ctx, job, *s.shop, work)
	if err != nil {
		return nil, problem(err)
	}
	all, err := mistakesOf(ctx, made)
	if err != nil {
		return nil, err
	}
	return answer(all), nil
}

// joint is all the projects that are asked for, as one job with the record of each.
func (a *api) joint(ctx context.Context, r *TogetherRequest) (s several, job plan.Job, work record.Work, err error) {
	if s, err = a.several(ctx, r); err == nil {
		job, work, err = s.job(r, 0, len(s.all))
	}
	return s, job, work, err
}
