package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/server"
)

// What is done to projects together is in each one's record, once, also when it is sent twice; and each
// project's own page has it.
func TestWhatIsDoneTogetherIsInEachRecord(t *testing.T) {
	c, _ := serve(t)
	var ids []string
	for _, width := range []string{"4 ft", "3 ft"} {
		var line server.ProjectLine
		c.get("POST", "/api/projects", jump(width), &line)
		ids = append(ids, line.ID)
	}
	var got server.Together
	c.get("POST", "/api/together", map[string]any{"projects": ids}, &got)
	s := got.Plan.Pipe[0].Sticks[0]
	frames := map[int]bool{}
	from := &record.Source{ID: "stick1", Size: got.Plan.Pipe[0].Size, Length: s.Length, Origin: record.FromShop}
	var events []record.Event
	for i, x := range s.Pieces {
		frames[x.Frame] = true
		events = append(events, record.Event{
			ID: string(rune('a' + i)), Kind: record.Cut, Frame: x.Frame, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Stick: from,
			Length: x.Length, Kerf: x.Kerf, Letter: x.Name, Basis: got.Plan.Pipe[0].Basis,
		})
	}
	// before the first is cut: what becomes of it when it comes out short, by all that is cut together
	short := events[0]
	short.Length /= 2
	var bad plan.BadCut
	c.get("POST", "/api/together/badcut", map[string]any{"projects": ids, "event": short}, &bad)
	assert.Equal(t, short.Length, bad.Is)
	assert.Equal(t, short.Letter, bad.Letter)
	assert.Empty(t, bad.Same, "another size is for the project itself")
	assert.NotEqual(t, "keep", bad.Fate)
	var mistakes []procure.Mistakes
	c.get("POST", "/api/together/mistakes", map[string]any{"projects": ids}, &mistakes)
	require.NotEmpty(t, mistakes)
	assert.NotEmpty(t, mistakes[0].Stand)
	status, _, _ := c.do("POST", "/api/together/badcut", map[string]any{"projects": ids, "event": record.Event{ID: "n", Kind: record.Cut}})
	assert.Equal(t, 422, status)

	spec := got.Plan.Bill.Lines[len(got.Plan.Bill.Lines)-1].Spec
	events = append(events, record.Event{ID: "buy", Kind: record.Bought, Ware: &spec, Count: 1})
	var said, again server.EventsAnswer
	c.get("POST", "/api/together/events", map[string]any{"projects": ids, "device": "x", "events": events}, &said)
	c.get("POST", "/api/together/events", map[string]any{"projects": ids, "device": "x", "events": events}, &again)
	assert.Equal(t, said.Last, again.Last, "what is sent twice counts once")
	c.get("POST", "/api/together", map[string]any{"projects": ids}, &got)
	assert.Equal(t, said.Last, got.Events)
	done := 0
	for _, g := range got.Plan.Cuts {
		done += g.Done
	}
	assert.Equal(t, len(s.Pieces), done)
	lent := 0
	for i, id := range ids {
		var one server.EventsAnswer
		c.get("GET", "/api/projects/"+id+"/events", nil, &one)
		for _, e := range one.Events {
			if e.Kind == record.Elsewhere {
				lent++
			}
			if e.Kind == record.Cut {
				assert.True(t, frames[i])
				assert.NotContains(t, "0123456789", e.Letter[:1], "its own letter")
			}
		}
	}
	if len(frames) > 1 {
		assert.Positive(t, lent)
	}
	status, _, _ = c.do(
		"POST",
		"/api/together/events",
		map[string]any{"projects": ids, "device": "x", "events": []record.Event{{ID: "n", Kind: record.Racked, Item: "nothing"}}},
	)
	assert.Equal(t, 422, status)
	_, _, file := c.do("POST", "/api/together/cuts.csv", map[string]any{"projects": ids})
	assert.Contains(t, file, "1A")
	require.Contains(t, file, "2A")
}
