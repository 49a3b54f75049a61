package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
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

// What is on sale for one project alone counts when it is bought alone, and is openly given up when it is
// bought with others; what one car takes counts for all.
func TestWhatIsOneProjectsOwnIsToldTogether(t *testing.T) {
	c, _ := serve(t)
	tee := material.Spec{Ware: material.Fitting, Kind: "tee", Size: "3/4"}
	own := map[string]any{"sale": map[string]any{
		"prices": []cost.Price{{Spec: tee, Asked: cost.Asked{Amount: 50_00}}},
		"haul":   stock.Haul{Limit: 5 * measure.Foot},
	}}
	var plain, dear server.ProjectLine
	c.get("POST", "/api/projects", project("Plain", nil), &plain)
	c.get("POST", "/api/projects", project("Dear", own), &dear)
	var got server.Together
	c.get("POST", "/api/together", map[string]any{"projects": []string{plain.ID, dear.ID}}, &got)
	require.Len(t, got.Alone, 2)
	assert.Zero(t, got.Alone[0].OwnPrices)
	assert.Equal(t, 1, got.Alone[1].OwnPrices)
	assert.False(t, got.Alone[1].OwnSticks)
	assert.Greater(t, got.Alone[1].Cost, got.Alone[0].Cost+50_00, "alone it costs what it says")
	require.NotNil(t, got.Plan.Haul)
	assert.Equal(t, 5*measure.Foot, got.Plan.Haul.Limit)

	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	shop.Shop.Haul = &stock.Haul{Limit: 4 * measure.Foot}
	c.get("POST", "/api/together", map[string]any{"projects": []string{plain.ID, dear.ID}, "shop": shop.Shop}, &got)
	assert.Equal(t, 4*measure.Foot, got.Plan.Haul.Limit, "the car that all of it goes in takes less")
}
