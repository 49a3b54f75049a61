package suppliers

import (
	"context"
	"fmt"
	"sync"
	"time"

	"sturdyelbow/core/supply"
)

// Source says what one shop sells. An answer may take a while, and may be an error.
type Source interface {
	ID() string
	Name() string
	Ask(ctx context.Context) (supply.Supplier, error)
}

// Answer is what a source said, or why it did not.
type Answer struct {
	ID, Name string
	supply.Supplier
	Err error
}

// AskAll asks all sources at once and waits for none longer than it may take. The answers are in the
// order of the sources.
func AskAll(ctx context.Context, all []Source, each time.Duration) []Answer {
	answers := make([]Answer, len(all))
	var wait sync.WaitGroup
	for i, s := range all {
		wait.Go(func() {
			answers[i] = ask(ctx, s, each)
		})
	}
	wait.Wait()
	return answers
}

func ask(ctx context.Context, s Source, each time.Duration) (a Answer) {
	ctx, cancel := context.WithTimeout(ctx, each)
	defer cancel()
	a.ID, a.Name = s.ID(), s.Name()
	a.Supplier, a.Err = s.Ask(ctx)
	if ctx.Err() != nil {
		a.Err = fmt.Errorf("it did not answer within %s", each)
	}
	return a
}

// List is a price list of the builder's own.
type List struct{ Of supply.Supplier }

// ID names it.
func (l List) ID() string { return l.Of.ID }

// Name is the shop's.
func (l List) Name() string { return l.Of.Name }

// Ask gives the list.
func (l List) Ask(context.Context) (supply.Supplier, error) { return l.Of, nil }
