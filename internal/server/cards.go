package server

import (
	"context"
	"errors"
	"slices"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/drawing"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// State says in a word where a project stands.
type State string

// What a card can say. A project waits when it cannot be planned as it is: a
// size that cannot be read, or no frame yet.
const (
	Ready   State = "ready"
	Look    State = "look"    // something to mind or to answer
	Partly  State = "partly"  // lines of it wait: what it comes to is of a part
	Stopped State = "stopped" // cannot be built so
	Waits   State = "waits"
)

// Card is a project on the shelf: what it looks like and what it comes to.
type Card struct {
	State    State             `json:"state"`
	Words    string            `json:"words"` // the first thing to see to; "" when there is none
	Style    measure.Style     `json:"style"`
	Copies   int               `json:"copies"`
	Size     [3]measure.Length `json:"size"`
	Cost     measure.Money     `json:"cost"`
	Example  bool              `json:"example"`
	Unpriced int               `json:"unpriced"` // lines that are not in the cost
	Sticks   int               `json:"sticks"`
	Bought   int               `json:"bought"` // of the sticks
	Pieces   int               `json:"pieces"`
	Cut      int               `json:"cut"`               // of the pieces
	Drawing  string            `json:"drawing"`           // SVG
	Starter  bool              `json:"starter,omitempty"` // others are begun from it
}

// newness is what a card depends on: revisions, and the last event.
type newness struct{ project, shop, events int64 }

func (a *api) card(ctx context.Context, in *ProjectPath) (*body[Card], error) {
	now, err := a.nowOf(ctx, in.ID)
	if err != nil {
		return nil, missing(err)
	}
	if now.Gone {
		return nil, missing(store.ErrNotFound)
	}
	c, err := a.cards.find(in.ID, newness{now.Revision, now.Shop, now.Events}, func() (Card, error) {
		p, work, err := a.load(ctx, in.ID)
		if err != nil {
			return Card{}, err
		}
		shop, _, err := a.loadShop(ctx)
		if err != nil {
			return Card{}, err
		}
		return cardOf(ctx, p, shop, work)
	})
	if err != nil {
		return nil, err
	}
	return answer(c), nil
}

// cardOf sums a project up. The error is the context's, when it ends first: what
// cannot be planned has a card that says so.
func cardOf(ctx context.Context, p *project.Project, shop *plan.Shop, work plan.Work) (Card, error) {
	c := Card{State: Waits, Style: p.Style, Copies: max(1, p.Copies), Starter: p.Template}
	job, err := p.Job()
	if err != nil {
		c.Words = "a size cannot be read"
		if errors.Is(err, project.ErrEmpty) {
			c.Words = "no frame yet"
		}
		return c, nil
	}
	made, err := plan.Make(ctx, withTool(job), *shop, work)
	if err != nil {
		c.Words = "it cannot be planned as it stands"
		return c, ctx.Err()
	}
	c.State = Ready
	for _, f := range made.Findings {
		switch f.Severity {
		case finding.Stop:
			c.State = Stopped
		case finding.Warn, finding.Question:
			if c.State == Ready {
				c.State = Look
			}
		default:
			continue
		}
		if c.Words == "" {
			c.Words = f.Text
		}
	}
	if c.State == Ready && slices.ContainsFunc(made.Bill.Lines, func(l cost.Line) bool {
		return l.Ware == material.Pipe && !l.Priced && l.Count > l.Home
	}) {
		c.State, c.Words = Look, "no price for its sticks"
	}
	f := &made.Frames[0]
	if f.Waiting != nil {
		c.State, c.Words = Partly, f.Waiting.Words
	}
	for i, e := range f.Overall {
		c.Size[i] = e.Size
	}
	c.Cost, c.Example, c.Unpriced, c.Sticks = made.Bill.Total, made.Bill.Example, len(made.Bill.Unpriced), made.Totals.Sticks
	c.Bought, c.Pieces, c.Cut = made.Totals.Bought, made.Totals.Pieces, made.Totals.Cut
	c.Drawing = drawing.Frame(f, drawing.Options{Plain: true})
	return c, nil
}
