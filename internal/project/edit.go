package project

import (
	"cmp"
	"context"
	"errors"
	"maps"
	"slices"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// Workshop is where a frame is worked on.
type Workshop struct {
	Shop *plan.Shop // nil for typical figures, and pieces without letters
	Work plan.Work  // what was done
}

// Edit makes a builder's gesture on the project's frame and gives the project
// that follows. Answers of a starter go on driving the frame, and what the
// gesture did lies over it. Pipes that pieces are cut of are followed to their new names.
// The error may be an [*edit.Question].
func (p *Project) Edit(ctx context.Context, e edit.Edit, in Workshop) (*Project, edit.Done, error) {
	return p.edit(ctx, e, in, lines.Line{}, "")
}

// edit makes a gesture as the page's next line: with the numbers of the line, where it has them, and
// its comment.
func (p *Project) edit(
	ctx context.Context, e edit.Edit, in Workshop, as lines.Line, comment string,
) (*Project, edit.Done, error) {
	begun, err := p.begun()
	if err != nil {
		return nil, edit.Done{}, err
	}
	if e.Unit == "" {
		e.Unit = p.Units
	}
	e.Step = plan.TapeStep(p.Step, begun.Document.Units)
	page := p.page(begun.Document)
	p.typed(page, begun.Document)
	doc := *page.Ready(begun.Document, as)
	doc.ModeRules = slices.Concat(doc.ModeRules, p.ModeRules)
	cut := slices.Sorted(maps.Keys(p.Given))
	named := p.named(&doc, in.Work.Pipes())
	doc.Followed = slices.Concat(cut, slices.Sorted(maps.Keys(named)))
	followed := slices.Clone(doc.Followed)
	after, done, err := plan.Edit(ctx, &doc, e, in.Shop)
	if err != nil {
		return nil, edit.Done{}, err
	}
	given, holds := p.Given, after.ModeRules
	if len(cut) > 0 { // what pieces were cut to goes by the pipes' names of now
		given = map[string]starter.Answer{}
		for i, id := range after.Followed[:len(cut)] {
			if id != "" {
				given[id] = p.Given[cut[i]]
			} else {
				done.Also = append(done.Also, "what "+cut[i]+" was cut to goes with it")
			}
		}
	}
	was := map[string]string{}
	for i, id := range after.Followed[len(cut):] {
		if name := named[followed[len(cut)+i]]; id != "" && id != name {
			was[id] = name
		}
	}
	page.Add(e, done, begun.Document, after, comment)
	if page.Held = holds; len(holds) == 0 {
		page.Held = nil
	}
	after.Followed, after.ModeRules = nil, nil
	next, err := p.follow(e, begun, after, &done)
	if err != nil {
		return nil, edit.Done{}, err
	}
	next.Given, next.ModeRules, next.Was = given, holds, nil
	if len(was) > 0 {
		next.Was = was
	}
	next.Page = page
	next.unit(begun.Document, after)
	return next, done, nil
}

// named gives, by the path of now, the pipes that the record speaks of and that are there.
func (p *Project) named(doc *frame.Document, made []string) map[string]string {
	named := map[string]string{}
	if len(made) == 0 {
		return named
	}
	g, err := frame.Expand(doc)
	if err != nil {
		return named // the gesture says what is wrong with it
	}
	for i := range g.Edges {
		id := g.Edges[i].ID
		if name := cmp.Or(p.Was[id], id); slices.Contains(made, name) {
			named[id] = name
		}
	}
	return named
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
