package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/record"
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
	out, err := a.say(ctx, []string{in.ID}, in.Body, nil)
	if err != nil {
		return nil, err
	}
	return answer(out), nil
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

// timeOf is a time as events have it; none is none.
func timeOf(ms int64) time.Time {
	if ms == 0 {
		return time.Time{}
	}
	return time.UnixMilli(ms).UTC()
}
