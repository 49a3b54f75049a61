package server

import (
	"context"
	"errors"
	"fmt"

	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// Upgrade brings stored projects of an older format up to date: their ticks become events
// of their records. One that cannot be read is left as it is, and named in the error; the
// others are done.
func Upgrade(ctx context.Context, st *store.Store) error {
	old, err := st.Outdated(ctx, project.Format)
	if err != nil || len(old) == 0 {
		return err
	}
	data, _, err := st.Shop(ctx)
	if err != nil {
		return err
	}
	shop, err := readShop(data)
	if err != nil {
		return err
	}
	var failed error
	for i := range old {
		o := &old[i]
		if err := upgrade(ctx, st, o, project.Ticked(ctx, o.Body, *shop)); err != nil {
			failed = errors.Join(failed, fmt.Errorf("%s (%s): %w", o.Name, o.ID, err))
		}
	}
	return failed
}

func upgrade(ctx context.Context, st *store.Store, o *store.Project, ticked []record.Event) error {
	p, err := project.Decode(o.Body)
	if err != nil {
		return err
	}
	state, err := stateOf(p)
	if err != nil {
		return err
	}
	var events []store.Event
	for _, e := range ticked {
		s, err := encoded(e, e.Device)
		if err != nil {
			return err
		}
		s.At = o.Updated
		events = append(events, s)
	}
	return st.Upgrade(ctx, o.ID, o.Revision, state, events)
}
