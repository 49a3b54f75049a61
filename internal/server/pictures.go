package server

import (
	"context"
	"slices"
	"sync"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/drawing"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// DrawnStarter is a starter with a picture of what it makes unless told
// otherwise.
type DrawnStarter struct {
	starter.Starter
	Drawing string `json:"drawing"` // SVG
}

// drawnStarters never change while a program runs.
var drawnStarters = sync.OnceValues(func() ([]DrawnStarter, error) {
	var all []DrawnStarter
	for _, s := range starter.All() {
		job, err := (&project.Project{Units: measure.Inches, Tool: "saw", Starter: &starter.Begun{ID: s.ID}}).Job()
		if err != nil {
			return nil, err
		}
		p, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
		if err != nil {
			return nil, err
		}
		all = append(all, DrawnStarter{s, drawing.Frame(&p.Frames[0], drawing.Options{Plain: true})})
	}
	return all, nil
})

// ownStarter begins the id of a starter that a builder saved; the project's
// follows.
const ownStarter = "own:"

func (a *api) starters(ctx context.Context, _ *struct{}) (*body[[]DrawnStarter], error) {
	shipped, err := drawnStarters()
	if err != nil {
		return nil, err
	}
	all := slices.Clone(shipped)
	saved, err := a.store.Templates(ctx)
	if err != nil {
		return nil, missing(err)
	}
	for _, line := range saved {
		own, err := a.own(ctx, line)
		if err != nil {
			return nil, err
		}
		all = append(all, own)
	}
	return answer(all), nil
}

// own gives a project as a starter, drawn once for each revision.
func (a *api) own(ctx context.Context, line store.Line) (DrawnStarter, error) {
	return a.owned.find(line.ID, line.Revision, func() (DrawnStarter, error) {
		s := DrawnStarter{Starter: starter.Starter{ID: ownStarter + line.ID, Name: line.Name, Prompts: []starter.Prompt{}}}
		p, _, err := a.stored(ctx, line.ID)
		if err != nil {
			return s, err
		}
		if p.Asks != nil {
			s.About = p.Asks.About
		}
		if job, err := p.Job(); err == nil { // a starter with a size that cannot be read has no picture
			if plan, err := plan.Make(ctx, withTool(job), plan.ExampleShop(), plan.Work{}); err == nil {
				s.Drawing = drawing.Frame(&plan.Frames[0], drawing.Options{Plain: true})
			}
		}
		return s, problem(ctx.Err())
	})
}

func (a *api) pictures(context.Context, *struct{}) (*body[map[catalog.Kind]string], error) {
	return answer(drawing.Pictures()), nil
}
