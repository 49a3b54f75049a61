package model

import (
	"context"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
)

// Located is a document with everything in its place, before anything is cut: the
// expanded frame, where its joints stand and which way its pipes run, and the
// fittings that follow.
type Located struct {
	Doc     *frame.Document
	Catalog *catalog.Catalog // with the document's own parts
	Graph   *frame.Graph
	*layout.Solution
	Fits    *fitting.Result
	Settled bool // positions and fittings agree
}

// settleRounds bounds how often positions and fittings are found from each
// other; square frames settle at the second look.
const settleRounds = 12

// Locate puts a document's parts in their places: positions ask how far bodies
// reach, and fittings which way the pipes run. The error is a [frame.Problems], or
// the context's when it ends first.
func Locate(ctx context.Context, d *frame.Document, c *catalog.Catalog) (*Located, error) {
	g, err := frame.Expand(d)
	if err != nil {
		return nil, err
	}
	l := &Located{Doc: d, Catalog: c.WithParts(d.CustomFittings), Graph: g, Solution: layout.Locate(g, nil, nil)}
	sought := chases(g)
	for round := range settleRounds + chaseRounds*min(1, len(sought)) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		l.Fits = fitting.Resolve(g, l.Catalog, l.Tangents)
		if g.ApplyModeRules(func(joint int) catalog.Kind { return l.Fits.Joints[joint].Kind }) {
			l.Fits = fitting.Resolve(g, l.Catalog, l.Tangents) // what is set for a kind of fitting
		}
		next := layout.Locate(g, l.Fits, l.Solution)
		next.Work += l.Work
		l.Settled = next.Base == l.Base && next.At(l.Solution) && !next.Unfinished
		l.Solution = next
		if round > 0 { // the bodies are known by then
			for _, c := range sought {
				l.Settled = c.step(g, next) && l.Settled
			}
		} else if len(sought) > 0 {
			l.Settled = false
		}
		if l.Settled || l.Unfinished {
			break
		}
	}
	l.Account()
	for j := range l.Fits.Joints {
		l.Fits.Joints[j].At = l.Points[j]
	}
	return l, nil
}
