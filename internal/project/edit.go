package project

import (
	"context"
	"errors"
	"maps"
	"slices"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// Edit makes a builder's gesture on the project's frame and gives the project
// that follows. A frame that a starter made is an ordinary one from then on:
// its answers are the sizes it has.
func (p *Project) Edit(ctx context.Context, e edit.Edit, shop *plan.Shop) (*Project, edit.Done, error) {
	doc, err := p.Document()
	if err != nil {
		return nil, edit.Done{}, err
	}
	if e.Unit == "" {
		e.Unit = p.Units
	}
	cut := slices.Sorted(maps.Keys(p.Given))
	doc.Followed = slices.Clone(cut)
	doc, done, err := plan.Edit(ctx, doc, e, shop)
	if err != nil {
		return nil, edit.Done{}, err
	}
	next := *p
	if len(cut) > 0 { // what pieces were cut to goes by the pipes' names of now
		next.Given = map[string]starter.Answer{}
		for i, id := range doc.Followed {
			if id != "" {
				next.Given[id] = p.Given[cut[i]]
			} else {
				done.Also = append(done.Also, "what "+cut[i]+" was cut to goes with it")
			}
		}
	}
	doc.Followed = nil
	next.Starter, next.Sizes = nil, nil
	next.Holds, doc.Holds = doc.Holds, nil
	next.Frame = doc
	return &next, done, nil
}

// Document gives the frame as it is to be planned; an empty one where the
// project has none yet.
func (p *Project) Document() (*frame.Document, error) {
	job, err := p.Job()
	switch {
	case errors.Is(err, ErrEmpty):
		return Blank(p.Name, p.Units), nil
	case err != nil:
		return nil, err
	}
	return &job.Frames[0].Document, nil
}

// Blank is a frame with nothing in it.
func Blank(name string, units measure.Unit) *frame.Document {
	if units == "" {
		units = measure.Inches
	}
	return &frame.Document{Format: frame.Format, Name: name, Units: units, Size: "3/4", Mode: frame.Cemented}
}
