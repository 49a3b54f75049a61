package server

import (
	"context"
	"sync"

	"sturdyelbow/core/record"
	"sturdyelbow/internal/store"
)

// tallies keeps the sum of each record beside it, and advances it as the record grows: a tick then costs what it
// changes, however long the record is.
type tallies struct {
	mu  sync.Mutex
	all map[string]*tally
}

// tally is the sum of one record. Whoever reads it waits while it grows.
type tally struct {
	mu   sync.Mutex
	of   int // which database it is of, of those that were opened one after the other
	sum  *record.Tally
	work record.Work // what it comes to
}

// of gives the tally of a project's record, locked.
func (t *tallies) of(id string) *tally {
	t.mu.Lock()
	if t.all == nil || len(t.all) >= mostKept {
		t.all = map[string]*tally{}
	}
	one := t.all[id]
	if one == nil {
		one = &tally{}
		t.all[id] = one
	}
	t.mu.Unlock()
	one.mu.Lock()
	return one
}

// upTo brings a tally to an event of its record, if it is not there yet or further. after gives what came after the one
// that it has. One of another database is made anew.
func (t *tally) upTo(opened int, last int64, after func(int64) ([]store.Event, error)) error {
	if t.sum == nil || t.of != opened {
		t.sum, t.of = &record.Tally{}, opened
	} else if t.sum.Last() >= last {
		return nil
	}
	stored, err := after(t.sum.Last())
	if err == nil {
		err = t.add(stored)
	}
	if err != nil {
		t.sum = nil
	}
	return err
}

func (t *tally) add(stored []store.Event) error {
	events, err := decoded(stored)
	if err != nil {
		return err
	}
	t.sum.Add(events...)
	t.work = t.sum.Work()
	return nil
}

// growing is a set of tallies while what they are of is stored: they are locked, and when that comes to nothing
// they are forgotten.
type growing struct {
	tallies *tallies
	opened  int
	held    []*tally
}

func (t *tallies) grow(opened int) *growing { return &growing{tallies: t, opened: opened} }

// add advances the tally of a record that grows.
func (g *growing) add(r store.Grown) (before, after record.Work, err error) {
	t := g.tallies.of(r.Project)
	g.held = append(g.held, t)
	err = t.upTo(g.opened, r.Last, func(have int64) ([]store.Event, error) {
		all, err := r.All()
		for i := range all {
			if all[i].Seq > have {
				return all[i:], err
			}
		}
		return nil, err
	})
	if err != nil {
		return before, after, err
	}
	before = t.work
	err = t.add(r.Fresh)
	return before, t.work, err
}

// done says whether all was stored.
func (g *growing) done(stored bool) {
	for _, t := range g.held {
		if !stored {
			t.sum = nil
		}
		t.mu.Unlock()
	}
}

// work gives what was done to a project; nothing for "".
func (a *api) work(ctx context.Context, id string) (record.Work, error) {
	if id == "" {
		return record.Work{}, nil
	}
	opened := a.store.Opened()
	last, err := a.store.LastEvent(ctx, id)
	if err != nil || last == 0 {
		return record.Work{}, missing(err)
	}
	t := a.records.of(id)
	defer t.mu.Unlock()
	err = t.upTo(opened, last, func(have int64) ([]store.Event, error) { return a.store.Events(ctx, id, have) })
	return t.work, missing(err)
}
