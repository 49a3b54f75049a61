package server

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/store"
)

// say takes in what was done to one project, or to several that are bought and cut together: [plan.Divide] says
// what goes into which record, and one transaction stores it, with what it changes on the rack. together gives the
// plan of several, by which what is bought is divided; nil where that cannot be planned.
//
// Records grow one after the other, so that what is divided by a record is stored after that record.
func (a *api) say(
	ctx context.Context, projects []string, in EventsRequest, together func() (*plan.Plan, error),
) (out EventsAnswer, err error) {
	var wrong []error
	var sound []int // of the events: which may go into a record
	for i := range in.Events {
		e := &in.Events[i]
		if p := e.Problem(); p != nil {
			wrong = append(wrong, &Fault{Pointer: fmt.Sprintf("/events/%d%s", i, p.Path), Message: p.What + "; " + p.Hint})
			continue
		}
		sound = append(sound, i)
	}
	a.saying.Lock()
	defer a.saying.Unlock()
	s := plan.Sharing{}
	for _, id := range projects {
		w, err := a.work(ctx, id)
		if err != nil {
			return out, err
		}
		line, err := a.store.Line(ctx, id)
		if err != nil {
			return out, missing(err)
		}
		s.Works, s.Names = append(s.Works, w), append(s.Names, line.Name)
	}
	var fresh []record.Event
	var at []int // of these: their places in what was sent
	bought := false
	for _, i := range sound {
		e := in.Events[i]
		if len(projects) > 1 && slices.ContainsFunc(s.Works, func(w record.Work) bool { return w.Knows(e.ID) }) {
			continue // it was divided and stored, all of it
		}
		fresh, at = append(fresh, e), append(at, i)
		bought = bought || e.Kind == record.Bought || e.Kind == record.Had
	}
	if bought && together != nil {
		if s.Plan, err = together(); err != nil {
			return out, err
		}
	}
	kin, err := a.kin(ctx, projects, fresh)
	if err != nil {
		return out, err
	}
	for _, id := range kin {
		w, err := a.work(ctx, id)
		if err != nil {
			return out, err
		}
		s.Kin = append(s.Kin, w)
	}
	shares, misfits := plan.Divide(s, fresh)
	for _, m := range misfits {
		wrong = append(wrong, &Fault{Pointer: fmt.Sprintf("/events/%d%s", at[m.Event], m.Path), Message: m.What})
	}
	if len(wrong) > 0 {
		return out, huma.Error422UnprocessableEntity("This cannot have happened so", wrong...)
	}
	if out, err = a.put(ctx, slices.Concat(projects, kin), shares, in.Device); err != nil {
		return out, err
	}
	for _, id := range projects { // what of kin is newer is in no plan of these
		last, err := a.store.LastEvent(ctx, id)
		if err != nil {
			return out, missing(err)
		}
		out.Last = max(out.Last, last)
	}
	return out, nil
}

// kin lists further projects whose records have a part in what events take back.
func (a *api) kin(ctx context.Context, projects []string, events []record.Event) (kin []string, err error) {
	var ids []string
	for i := range events {
		ids = append(ids, plan.Kin(events[i])...)
	}
	if len(ids) == 0 {
		return nil, nil
	}
	kin, err = a.store.Bearers(ctx, ids)
	return slices.DeleteFunc(kin, func(id string) bool { return slices.Contains(projects, id) }), missing(err)
}

// put stores what goes into the records of projects, share by share, with what it changes on the rack, and tells
// who follows them. The sums of the records are advanced, and not made anew.
func (a *api) put(ctx context.Context, projects []string, shares [][]record.Event, device string) (out EventsAnswer, err error) {
	out.Events = []record.Event{}
	var all []store.Share
	for i, share := range shares {
		if len(share) == 0 {
			continue
		}
		s := store.Share{Project: projects[i]}
		for _, e := range share {
			one, err := encoded(e, device)
			if err != nil {
				return out, err
			}
			s.Events = append(s.Events, one)
		}
		all = append(all, s)
	}
	shopped := false
	growing := a.records.grow(a.store.Opened())
	stored, err := a.store.Add(ctx, all, func(grown []store.Grown, shop []byte) ([]byte, error) {
		rack := racking{}
		for _, g := range grown {
			before, after, err := growing.add(g)
			if err != nil {
				return nil, err
			}
			rack.grew(before, after)
		}
		next, err := rack.shop(shop)
		shopped = next != nil
		return next, err
	})
	growing.done(err == nil)
	if err != nil {
		return out, missing(err)
	}
	for i, s := range all {
		a.followers.tell(s.Project)
		if s.Project != projects[0] {
			continue
		}
		if out.Events, err = decoded(stored[i]); err != nil {
			return out, err
		}
	}
	if shopped {
		a.followers.tell("")
	}
	return out, nil
}

// racking is what records that grow change on the rack.
type racking struct {
	changes []struct{ before, after record.Work }
}

func (r *racking) grew(before, after record.Work) {
	r.changes = append(r.changes, struct{ before, after record.Work }{before, after})
}

// shop gives the shop with what lies on the rack then; nil where that is as it was.
func (r *racking) shop(data []byte) ([]byte, error) {
	shop, err := readShop(data)
	if err != nil {
		return nil, err
	}
	was := fmt.Sprint(shop.Rack)
	for i := range r.changes {
		shop.Rack = record.Rack(&r.changes[i].before, &r.changes[i].after, shop.Rack)
	}
	if fmt.Sprint(shop.Rack) == was {
		return nil, nil
	}
	shop.MarkRack()
	return json.Marshal(shop)
}
