package server

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

func registerEffect(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(
		h,
		op(http.MethodPost, "/shop/effect", "shopEffect", "What a change of the shop would change in stored projects; nothing is stored"),
		a.effect,
	)
}

// EffectRequest is a shop as it would be, and the project that asks, which is left out, or several with
// commas between.
type EffectRequest struct {
	Shop plan.Shop  `json:"shop"`
	Was  *plan.Shop `json:"was,omitempty"` // as whoever asks has it, which may not be saved yet; the saved one where it is left out
	Of   string     `json:"of,omitempty"`
}

// Effect is what a change of the shop would change.
type Effect struct {
	Changed []Changed `json:"changed"` // projects whose purchase would be another
	Kept    int       `json:"kept"`    // projects in work that keep the figures they were begun with
	Looked  int       `json:"looked"`  // projects that were looked at
	More    int       `json:"more"`    // projects that were not, as there are so many
}

// Changed is a project whose purchase would be another.
type Changed struct {
	ID         string        `json:"id"`
	Name       string        `json:"name"`
	Sticks     int           `json:"sticks"`     // of now
	SticksThen int           `json:"sticksThen"` // with the change
	Cost       measure.Money `json:"cost"`
	CostThen   measure.Money `json:"costThen"`
	Lacking    int           `json:"lacking,omitempty"` // pieces that no stick holds then, more than now
}

// mostLooked is how many projects are planned to see what a change does: those changed
// last.
const mostLooked = 60

func (a *api) effect(ctx context.Context, in *body[EffectRequest]) (*body[Effect], error) {
	if err := in.Body.Shop.Validate(); err != nil {
		return nil, problem(err)
	}
	now := in.Body.Was
	if now == nil {
		var err error
		if now, _, err = a.loadShop(ctx); err != nil {
			return nil, err
		}
	}
	lines, err := a.store.Projects(ctx)
	if err != nil {
		return nil, missing(err)
	}
	var out Effect
	asks := strings.Split(in.Body.Of, ",")
	for _, l := range lines {
		if slices.Contains(asks, l.ID) {
			continue
		}
		if out.Looked == mostLooked {
			out.More++
			continue
		}
		out.Looked++
		p, work, err := a.load(ctx, l.ID)
		if err != nil {
			continue // deleted meanwhile, or not to be read: there is nothing to change
		}
		if work.Figures != nil {
			out.Kept++
		}
		job, err := p.Job()
		if err != nil {
			continue // it has no plan to change
		}
		was, err := plan.Draft(ctx, withTool(job), *now, work)
		if err != nil {
			continue
		}
		then, err := plan.Draft(ctx, withTool(job), in.Body.Shop, work)
		if err != nil {
			continue
		}
		if ctx.Err() != nil {
			return nil, problem(context.Canceled)
		}
		lost := lacking(then) - lacking(was)
		if was.Totals.Sticks != then.Totals.Sticks || was.Bill.Total != then.Bill.Total || lost != 0 {
			out.Changed = append(out.Changed, Changed{
				l.ID, l.Name, was.Totals.Sticks, then.Totals.Sticks, was.Bill.Total, then.Bill.Total, max(0, lost),
			})
		}
	}
	return answer(out), nil
}

// lacking counts the pieces of a plan that no stick holds.
func lacking(p *plan.Plan) (n int) {
	for i := range p.Pipe {
		for _, l := range p.Pipe[i].Stock.Lacking {
			n += l.Count
		}
	}
	return n
}

// load reads a stored project with what was done to it.
func (a *api) load(ctx context.Context, id string) (*project.Project, plan.Work, error) {
	p, _, err := a.stored(ctx, id)
	if err != nil {
		return nil, plan.Work{}, err
	}
	work, err := a.work(ctx, id)
	return p, work, err
}
