package server

import (
	"bytes"
	"context"
	"slices"
	"sync"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/drawing"
	"sturdyelbow/internal/project"
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
	saved, err := a.store.Projects(ctx)
	if err != nil {
		return nil, err
	}
	for _, line := range saved {
		own, ok, err := a.own(ctx, line.ID)
		if err != nil {
			return nil, err
		}
		if ok {
			all = append(all, own)
		}
	}
	return answer(all), nil
}

// own gives a project as a starter, if it is one.
func (a *api) own(ctx context.Context, id string) (DrawnStarter, bool, error) {
	stored, err := a.store.Project(ctx, id)
	if err != nil || !bytes.Contains(stored.Body, []byte(`"template":true`)) {
		return DrawnStarter{}, false, err
	}
	p, err := project.Decode(stored.Body)
	if err != nil || !p.Template {
		return DrawnStarter{}, false, err
	}
	s := DrawnStarter{Starter: starter.Starter{ID: ownStarter + id, Name: p.Name, Prompts: []starter.Prompt{}}}
	if p.Asks != nil {
		s.About = p.Asks.About
	}
	job, err := p.Job()
	if err != nil {
		return s, true, nil //nolint:nilerr // a starter with a size that cannot be read has no picture
	}
	if plan, err := plan.Make(ctx, job, plan.ExampleShop(), plan.Work{}); err == nil {
		s.Drawing = drawing.Frame(&plan.Frames[0], drawing.Options{Plain: true})
	}
	return s, true, nil
}

func (a *api) pictures(context.Context, *struct{}) (*body[map[catalog.Kind]string], error) {
	return answer(drawing.Pictures()), nil
}
