package server

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

func registerThrift(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(http.MethodPost, "/savings", "savings", "What small changes of a project save, and what takes a stick off a knife edge"),
		a.savings,
	)
	huma.Register(
		h,
		op(http.MethodPost, "/mistakes", "mistakes", "What each cut that is still to be made would cost if it were spoilt"),
		a.mistakes,
	)
	huma.Register(
		h,
		op(http.MethodPost, "/badcut", "badCut", "What becomes of a cut that went wrong, and what it costs; nothing is recorded"),
		a.badCut,
	)
	huma.Register(
		h,
		op(
			http.MethodPost,
			"/substitutes",
			"substitutes",
			"What may stand at every joint of a kind that is not to be had, and what it does",
		),
		a.substitutes,
	)
	huma.Register(
		h,
		op(http.MethodPost, "/cheaper", "cheaper", "What costs less: other sticks, tools, cement and sizes of pipe"),
		a.cheaper,
	)
	huma.Register(h, op(http.MethodPost, "/labels", "labels", "What is written on every piece, in the order of the cuts"), a.labels)
	improve := op(
		http.MethodPost,
		"/improve",
		"improve",
		"Go on with the search for the best purchase; a line of JSON each time it has come further",
	)
	line := h.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[plan.Progress](), true, "")
	improve.Responses = map[string]*huma.Response{
		"200": {Description: "OK", Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: line}}},
	}
	huma.Register(h, improve, a.improve)
}

// SavingsRequest asks for what small changes of a project save.
type SavingsRequest struct {
	PlanRequest
	Typed bool `json:"typed,omitempty"` // cuts that their builder typed may change, too
}

func (a *api) savings(ctx context.Context, in *body[SavingsRequest]) (*body[plan.Savings], error) {
	job, shop, work, err := a.asked(ctx, &in.Body.PlanRequest)
	if err != nil {
		return nil, err
	}
	s, err := plan.FindSavings(ctx, job, *shop, work, in.Body.Typed)
	if err != nil {
		return nil, problem(err)
	}
	return answer(*s), nil
}

// SubstitutesRequest is a project, and the fitting that is not to be had.
type SubstitutesRequest struct {
	PlanRequest
	Kind catalog.Kind `json:"kind"`
	Size string       `json:"size"`
}

func (a *api) substitutes(ctx context.Context, in *body[SubstitutesRequest]) (*body[[]plan.Substitute], error) {
	job, shop, work, err := a.asked(ctx, &in.Body.PlanRequest)
	if err != nil {
		return nil, err
	}
	all, err := plan.FindSubstitutes(ctx, job, *shop, work, in.Body.Kind, in.Body.Size)
	if err != nil {
		return nil, problem(err)
	}
	return answer(all), nil
}

// CheaperRequest is a project, and the size of pipe whose sticks may be others.
type CheaperRequest struct {
	PlanRequest
	Size catalog.Size `json:"size"`
}

// cheaper tries other sizes of pipe only where the frame is its builder's own: a starter asks for its size.
func (a *api) cheaper(ctx context.Context, in *body[CheaperRequest]) (*body[[]plan.Cheaper], error) {
	job, shop, work, err := a.asked(ctx, &in.Body.PlanRequest)
	if err != nil {
		return nil, err
	}
	p := &in.Body.Project
	all, err := plan.FindCheaper(ctx, job, *shop, work, in.Body.Size, p.Starter == nil && p.Together == nil)
	if err != nil {
		return nil, problem(err)
	}
	return answer(all), nil
}

func (a *api) labels(ctx context.Context, in *body[PlanRequest]) (*body[[]plan.Label], error) {
	_, p, _, err := a.make(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	return answer(p.Labels()), nil
}

func (a *api) mistakes(ctx context.Context, in *body[PlanRequest]) (*body[[]procure.Mistakes], error) {
	_, p, _, err := a.make(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	all := []procure.Mistakes{}
	for i := range p.Pipe {
		m, err := p.Pipe[i].Mistakes(ctx)
		if err != nil {
			return nil, problem(err)
		}
		all = append(all, m)
	}
	return answer(all), nil
}

// BadCutRequest is a project, and the event that says how a cut went wrong: a cut with the
// length that its piece came out at, or what was spoilt.
type BadCutRequest struct {
	PlanRequest
	Before []record.Event `json:"before,omitempty" maxItems:"10"` // what goes before it: a stick is in parts
	Event  record.Event   `json:"event"`
}

func (a *api) badCut(ctx context.Context, in *body[BadCutRequest]) (*body[plan.BadCut], error) {
	if p := in.Body.Event.Problem(); p != nil {
		return nil, problem(plan.ValidationError{{Path: "/event" + p.Path, What: p.What, Hint: p.Hint}})
	}
	job, shop, work, err := a.asked(ctx, &in.Body.PlanRequest)
	if err != nil {
		return nil, err
	}
	for i, e := range in.Body.Before {
		if p := e.Problem(); p != nil {
			return nil, problem(plan.ValidationError{{Path: fmt.Sprintf("/before/%d%s", i, p.Path), What: p.What, Hint: p.Hint}})
		}
		work = work.With(e)
	}
	b, err := plan.FindBadCut(ctx, job, *shop, work, in.Body.Event)
	if err != nil {
		return nil, problem(err)
	}
	return answer(*b), nil
}

// improve tells how far the search has come, one [plan.Progress] a line, until all is proven
// or nobody waits any more.
func (a *api) improve(ctx context.Context, in *body[PlanRequest]) (*huma.StreamResponse, error) {
	job, shop, work, err := a.asked(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	return &huma.StreamResponse{Body: func(c huma.Context) {
		c.SetHeader("Content-Type", "application/x-ndjson")
		c.SetHeader("Cache-Control", "no-store")
		w := c.BodyWriter()
		line := json.NewEncoder(w)
		ctx, stop := context.WithCancel(c.Context())
		defer stop()
		go func() { // nor does a server wait for it that is about to stop
			select {
			case <-a.closing:
				stop()
			case <-ctx.Done():
			}
		}()
		err := plan.Improve(ctx, job, *shop, work, func(p plan.Progress) {
			if line.Encode(p) == nil {
				if f, ok := w.(http.Flusher); ok {
					f.Flush()
				}
			}
		})
		if err != nil {
			slog.Error("a search ended", "error", err)
		}
	}}, nil
}
