package plan

import (
	"context"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/model"
)

// LineTools are what a page of lines is drawn with: gestures and places as the shop measured its
// fittings, and letters as a job like the one given would have them, whose frame does not matter.
// shop is nil for typical figures and no letters.
func LineTools(ctx context.Context, job Job, shop *Shop) (lines.Tools, error) {
	c, err := shop.Catalog()
	if err != nil {
		return lines.Tools{}, err
	}
	t := lines.Tools{
		Edit: func(d *frame.Document, e edit.Edit) (*frame.Document, edit.Done, error) {
			e.Step = TapeStep(job.Step, d.Units)
			return Edit(ctx, d, e, shop)
		},
		Locate: func(d *frame.Document) (*model.Located, error) {
			return model.Locate(ctx, shop.Seated(d), c)
		},
	}
	if shop != nil {
		t.Letters = func(d *frame.Document) []lines.Lettered {
			j := job
			j.Frames = []FrameUse{{Document: *d, Copies: 1}}
			p, err := Draft(ctx, j, *shop, Work{}) // a better purchase has no other letters
			if err != nil {
				return nil
			}
			return Lettered(p)
		}
	}
	return t, nil
}

// Lettered are the pipes of a plan's first frame as they are called.
func Lettered(p *Plan) (all []lines.Lettered) {
	for i := range p.Frames[0].Pipes {
		x := &p.Frames[0].Pipes[i]
		all = append(all, lines.Lettered{Pipe: x.Pipe, Letter: x.Letter, Where: x.Where})
	}
	return all
}
