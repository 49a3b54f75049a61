package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

func registerRecord(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	huma.Register(h, op(http.MethodGet, "/projects/{id}/events", "projectEvents", "What was done to a project, in its order"), a.events)
	add := op(http.MethodPost, "/projects/{id}/events", "addEvents", "Say what was done; what is sent twice counts once")
	add.Errors = []int{http.StatusNotFound, http.StatusUnprocessableEntity}
	huma.Register(h, add, a.addEvents)
}

// EventsRequest is what was done on a device, in the order in which it was done there.
type EventsRequest struct {
	Device string         `json:"device" maxLength:"80"` // what the device calls itself
	Events []record.Event `json:"events"                minItems:"1" maxItems:"2000"`
}

// EventsAnswer is the events as they are stored, and the last of the record.
type EventsAnswer struct {
	Events []record.Event `json:"events"`
	Last   int64          `json:"last"`
}

func (a *api) events(ctx context.Context, in *struct {
	ProjectPath
	After int64 `query:"after"`
}) (*body[EventsAnswer], error) {
	all, err := a.store.Events(ctx, in.ID, in.After)
	if err != nil {
		return nil, missing(err)
	}
	out := EventsAnswer{Last: in.After}
	if out.Events, err = decoded(all); err != nil {
		return nil, err
	}
	if n := len(all); n > 0 {
		out.Last = all[n-1].Seq
	}
	return answer(out), nil
}

func (a *api) addEvents(ctx context.Context, in *struct {
	ProjectPath
	Body EventsRequest
}) (*body[EventsAnswer], error) {
	var wrong []error
	var sent []store.Event
	for i := range in.Body.Events {
		e := in.Body.Events[i]
		if p := e.Problem(); p != nil {
			wrong = append(wrong, &Fault{Pointer: fmt.Sprintf("/events/%d%s", i, p.Path), Message: p.What + "; " + p.Hint})
			continue
		}
		s, err := encoded(e, in.Body.Device)
		if err != nil {
			return nil, err
		}
		sent = append(sent, s)
	}
	if len(wrong) > 0 {
		return nil, huma.Error422UnprocessableEntity("This cannot have happened so", wrong...)
	}
	for i := range in.Body.Events {
		if err := a.backFromLoan(ctx, in.ID, &in.Body.Events[i], in.Body.Device); err != nil {
			return nil, err
		}
	}
	stored, last, err := a.put(ctx, in.ID, sent)
	if err != nil {
		return nil, err
	}
	out := EventsAnswer{Last: last}
	if out.Events, err = decoded(stored); err != nil {
		return nil, err
	}
	return answer(out), nil
}

// backFromLoan takes back, in the record of the project whose stick it was, what was lent for a cut that was
// not made after all. It goes before the cut itself: what is sent again after a failure is then whole.
func (a *api) backFromLoan(ctx context.Context, id string, e *record.Event, device string) error {
	if e.Kind != record.TakenBack || e.Event == "" {
		return nil
	}
	lent := project.LentID(e.Event)
	owners, err := a.store.ProjectsWith(ctx, lent)
	if err != nil {
		return missing(err)
	}
	for _, owner := range owners {
		if owner == id {
			continue
		}
		back, err := encoded(record.Event{ID: project.LentID(e.ID), Kind: record.TakenBack, Event: lent}, device)
		if err != nil {
			return err
		}
		if _, _, err := a.put(ctx, owner, []store.Event{back}); err != nil {
			return err
		}
	}
	return nil
}

// put adds events to a project's record, with what they change on the rack, and tells who follows it.
func (a *api) put(ctx context.Context, id string, sent []store.Event) (stored []store.Event, last int64, err error) {
	shopped := false
	stored, err = a.store.Add(ctx, id, sent, func(before, after []store.Event, shop []byte) ([]byte, error) {
		next, err := onRack(before, after, shop)
		shopped = next != nil
		return next, err
	})
	if err != nil {
		return nil, 0, missing(err)
	}
	if last, err = a.store.LastEvent(ctx, id); err != nil {
		return nil, 0, missing(err)
	}
	a.followers.tell(id)
	if shopped {
		a.followers.tell("")
	}
	return stored, last, nil
}

// encoded is an event as it is stored: what the store keeps beside it is not in its body.
func encoded(e record.Event, device string) (store.Event, error) {
	s := store.Event{ID: e.ID, Device: device}
	e.ID, e.Device, e.Seq, e.At = "", "", 0, 0
	data, err := json.Marshal(e)
	s.Body = data
	return s, err
}

func decoded(stored []store.Event) ([]record.Event, error) {
	all := make([]record.Event, len(stored))
	for i, s := range stored {
		if err := json.Unmarshal(s.Body, &all[i]); err != nil {
			return nil, fmt.Errorf("the event %s cannot be read: %w", s.ID, err)
		}
		all[i].Seq, all[i].ID, all[i].Device, all[i].At = s.Seq, s.ID, s.Device, s.At.UnixMilli()
	}
	return all, nil
}

// onRack gives the shop after a record has grown, where that changes what lies on the
// rack; nil where it does not.
func onRack(before, after []store.Event, data []byte) ([]byte, error) {
	was, err := decoded(before)
	if err != nil {
		return nil, err
	}
	is, err := decoded(after)
	if err != nil {
		return nil, err
	}
	w, n := record.Add(was), record.Add(is)
	shop, err := readShop(data)
	if err != nil {
		return nil, err
	}
	rack := record.Rack(&w, &n, shop.Rack)
	if len(rack) == len(shop.Rack) && fmt.Sprint(rack) == fmt.Sprint(shop.Rack) {
		return nil, nil
	}
	shop.Rack = rack
	shop.MarkRack()
	return json.Marshal(shop)
}

// work gives what was done to a project; nothing for "".
func (a *api) work(ctx context.Context, id string) (record.Work, error) {
	if id == "" {
		return record.Work{}, nil
	}
	last, err := a.store.LastEvent(ctx, id)
	if err != nil || last == 0 {
		return record.Work{}, missing(err)
	}
	return a.records.find(id, last, func() (record.Work, error) {
		stored, err := a.store.Events(ctx, id, 0)
		if err != nil {
			return record.Work{}, missing(err)
		}
		events, err := decoded(stored)
		return record.Add(events), err
	})
}

// timeOf is a time as events have it; none is none.
func timeOf(ms int64) time.Time {
	if ms == 0 {
		return time.Time{}
	}
	return time.UnixMilli(ms).UTC()
}
