package plan

import (
	"context"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/model"
)

// Edit makes a builder's gesture on a copy of a document, with the fittings and
// seats as the shop measured them; nil stands for typical ones. The error is an [*edit.Refusal], a [ValidationError], or a
// [frame.Problems], or the context's when it ends first.
func Edit(ctx context.Context, d *frame.Document, e edit.Edit, shop *Shop) (*frame.Document, edit.Done, error) {
	c, err := shop.Catalog()
	if err != nil {
		return nil, edit.Done{}, err
	}
	return edit.Apply(d, e, func(d *frame.Document) (*model.Located, error) {
		return model.Locate(ctx, shop.Seated(d), c)
	})
}

// Choices lists the fittings that could stand at a joint of a document.
func Choices(ctx context.Context, d *frame.Document, joint string, shop *Shop) ([]fitting.Choice, error) {
	c, err := shop.Catalog()
	if err != nil {
		return nil, err
	}
	l, err := model.Locate(ctx, shop.Seated(d), c)
	if err != nil {
		return nil, err
	}
	n := l.Graph.Node(joint)
	if n < 0 {
		return []fitting.Choice{}, nil
	}
	return l.Fits.Choices(n, l.Catalog), nil
}
