package plan

import (
	"context"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
)

// Edit makes a builder's gesture on a copy of a document, with the fittings and
// seats as the shop measured them; nil stands for typical ones. The error is an [*edit.Refusal], a [ValidationError], or a
// [frame.Problems], or the context's when it ends first.
func Edit(ctx context.Context, d *frame.Document, e edit.Edit, shop *Shop) (*frame.Document, edit.Done, error) {
	c, err := shop.catalog()
	if err != nil {
		return nil, edit.Done{}, err
	}
	return edit.Apply(d, e, func(d *frame.Document) (*edit.View, error) {
		g, s, _, _, err := settle(ctx, shop.seated(d), c)
		if err != nil {
			return nil, err
		}
		return &edit.View{Graph: g, Solution: s}, nil
	})
}

// Choices lists the fittings that could stand at a joint of a document.
func Choices(ctx context.Context, d *frame.Document, joint string, shop *Shop) ([]fitting.Choice, error) {
	c, err := shop.catalog()
	if err != nil {
		return nil, err
	}
	g, _, fits, _, err := settle(ctx, shop.seated(d), c)
	if err != nil {
		return nil, err
	}
	n := g.Node(joint)
	if n < 0 {
		return []fitting.Choice{}, nil
	}
	return fits.Choices(n, c.WithParts(d.CustomFittings)), nil
}

// settleRounds bounds how often positions and fittings are found from each
// other; square frames settle at the second look.
const settleRounds = 12

// settle puts a document's parts in their places: positions ask how far
// bodies reach, and fittings which way the pipes run.
func settle(ctx context.Context, d *frame.Document, c *catalog.Catalog) (g *frame.Graph, s *layout.Solution, fits *fitting.Result, settled bool, err error) {
	c = c.WithParts(d.CustomFittings)
	if g, err = frame.Expand(d); err != nil {
		return nil, nil, nil, false, err
	}
	s = layout.Locate(g, nil, nil)
	for range settleRounds {
		if err = ctx.Err(); err != nil {
			return nil, nil, nil, false, err
		}
		fits = fitting.Resolve(g, c, s.Tangents)
		if g.ApplyModeRules(func(joint int) catalog.Kind { return fits.Joints[joint].Kind }) {
			fits = fitting.Resolve(g, c, s.Tangents) // what is set for a kind of fitting
		}
		next := layout.Locate(g, fits, s)
		next.Work += s.Work
		settled = next.Base == s.Base && next.At(s) && !next.Unfinished
		s = next
		if settled || s.Unfinished {
			break
		}
	}
	s.Account()
	for j := range fits.Joints {
		fits.Joints[j].At = s.Points[j]
	}
	return g, s, fits, settled, nil
}
