package server

import (
	"context"
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
		job, err := (&project.Project{Units: measure.Inches, Tool: "saw", Starter: &project.Begun{ID: s.ID}}).Job()
		if err != nil {
			return nil, err
		}
		p, err := plan.Make(job, plan.ExampleShop(), plan.Work{})
		if err != nil {
			return nil, err
		}
		all = append(all, DrawnStarter{s, drawing.Frame(&p.Frames[0], drawing.Options{Plain: true})})
	}
	return all, nil
})

func (a *api) starters(context.Context, *struct{}) (*body[[]DrawnStarter], error) {
	all, err := drawnStarters()
	return answer(all), err
}

func (a *api) pictures(context.Context, *struct{}) (*body[map[catalog.Kind]string], error) {
	return answer(drawing.Pictures()), nil
}
