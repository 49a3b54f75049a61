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
// that follows. Answers of a starter go on driving the frame, and what the
// gesture did lies over it. The error may be an [*edit.Question].
func (p *Project) Edit(ctx context.Context, e edit.Edit, shop *plan.Shop) (*Project, edit.Done, error) {
	made, err := p.made()
	switch {
	case errors.Is(err, ErrEmpty):
		made.Document = Blank(p.Name, p.Units)
	case err != nil:
		return nil, edit.Done{}, err
	}
	if e.Unit == "" {
		e.Unit = p.Units
	}
	doc := *made.Document
	doc.ModeRules = slices.Concat(doc.ModeRules, p.ModeRules)
	cut := slices.Sorted(maps.Keys(p.Given))
	doc.Followed = slices.Clone(cut)
	after, done, err := plan.Edit(ctx, &doc, e, shop)
	if err != nil {
		return nil, edit.Done{}, err
	}
	given, holds := p.Given, after.ModeRules
	if len(cut) > 0 { // what pieces were cut to goes by the pipes' names of now
		given = map[string]starter.Answer{}
		for i, id := range after.Followed {
			if id != "" {
				given[id] = p.Given[cut[i]]
			} else {
				done.Also = append(done.Also, "what "+cut[i]+" was cut to goes with it")
			}
		}
	}
	after.Followed, after.ModeRules = nil, nil
	next, err := p.follow(e, made, after, &done)
	if err != nil {
		return nil, edit.Done{}, err
	}
	next.Given, next.ModeRules = given, holds
	return next, done, nil
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
