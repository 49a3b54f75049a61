package plan

import (
	"context"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
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

// Choices lists the fittings that could stand at joints of a document, the same at each of them.
func Choices(ctx context.Context, d *frame.Document, joints []string, shop *Shop) ([]fitting.Choice, error) {
	c, err := shop.Catalog()
	if err != nil {
		return nil, err
	}
	l, err := model.Locate(ctx, shop.Seated(d), c)
	if err != nil {
		return nil, err
	}
	var of [][]fitting.Choice
	for _, joint := range joints {
		n := l.Graph.Node(joint)
		if n < 0 {
			return []fitting.Choice{}, nil
		}
		of = append(of, l.Fits.Choices(n, l.Catalog))
	}
	return fitting.Common(of...), nil
}

// Later is what changes when a joint becomes what it may become one day.
type Later struct {
	Cuts   []CutChange       `json:"cuts"`
	Grows  [3]measure.Length `json:"grows"`  // the outside size, along each axis
	Sticks int               `json:"sticks"` // that are bought more
	Cost   measure.Money     `json:"cost"`   // that is paid more, where there are prices
}

// CutChange is a piece that is cut otherwise.
type CutChange struct {
	Pipe string         `json:"pipe"`
	Was  measure.Length `json:"was"`
	Now  measure.Length `json:"now"`
}

// Becomes works out what changes when a joint of a job's first frame becomes the fitting that may
// stand there one day. ok is false where none was kept in mind for it. It costs two plans.
func Becomes(ctx context.Context, job Job, shop Shop, joint string) (l Later, ok bool, err error) {
	doc := job.Frames[0].Document.Clone()
	g, err := frame.Expand(doc)
	if err != nil {
		return l, false, err
	}
	n := g.Node(joint)
	if n < 0 {
		return l, false, nil
	}
	def := &doc.Root
	if of := g.Scopes[g.Nodes[n].Scope].Of; of != "" {
		def = doc.Group(of)
	}
	_, name, _ := frame.Ref(joint).Parts()
	j := def.Joint(name)
	if j == nil || j.Later == nil {
		return l, false, nil
	}
	before, err := Make(ctx, job, shop, Work{})
	if err != nil {
		return l, false, err
	}
	f := *j.Later
	j.Fitting, j.Later, j.End = &f, nil, frame.OpenEnd
	other := job
	other.Frames = append([]FrameUse{}, job.Frames...)
	other.Frames[0].Document = *doc
	after, err := Make(ctx, other, shop, Work{})
	if err != nil {
		return l, false, err
	}
	l.Cuts = []CutChange{}
	a, b := &before.Frames[0], &after.Frames[0]
	for i := range a.Pipes {
		if i < len(b.Pipes) && a.Pipes[i].Cut != b.Pipes[i].Cut {
			l.Cuts = append(l.Cuts, CutChange{a.Pipes[i].Pipe, a.Pipes[i].Cut, b.Pipes[i].Cut})
		}
	}
	for k := range l.Grows {
		l.Grows[k] = b.Overall[k].Size - a.Overall[k].Size
	}
	for _, p := range after.Pipe {
		l.Sticks += len(p.Stock.Sticks)
	}
	for _, p := range before.Pipe {
		l.Sticks -= len(p.Stock.Sticks)
	}
	l.Cost = after.Bill.Total - before.Bill.Total
	return l, true, nil
}
