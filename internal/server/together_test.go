package server_test

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	planned "sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
	"sturdyelbow/internal/server"
)

// several is a request about projects that are bought together, with what else is said of buying them.
func several(ids []string, more map[string]any) map[string]any {
	p := map[string]any{
		"name": "", "units": "in", "style": "inches", "copies": 1, "tool": "", "together": map[string]any{"of": ids},
	}
	maps.Copy(p, more)
	return map[string]any{"project": p}
}

// with is a request with another member.
func with(request map[string]any, name string, value any) map[string]any {
	next := maps.Clone(request)
	next[name] = value
	return next
}

// together plans projects as one purchase.
func (c *client) together(ids []string, more map[string]any) (a server.PlanAnswer) {
	c.get("POST", "/api/plan", several(ids, more), &a)
	return a
}

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
	got, all := c.together(ids, nil), several(ids, nil)
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
	var bad planned.BadCut
	c.get("POST", "/api/badcut", with(all, "event", short), &bad)
	assert.Equal(t, short.Length, bad.Is)
	assert.Equal(t, short.Letter, bad.Letter)
	for _, s := range bad.Same {
		assert.Equal(t, events[0].Frame, s.Frame, "a size of the project that the piece is of")
	}
	assert.NotEqual(t, "keep", bad.Fate)
	var mistakes []procure.Mistakes
	c.get("POST", "/api/mistakes", all, &mistakes)
	require.NotEmpty(t, mistakes)
	assert.NotEmpty(t, mistakes[0].Stand)
	status, _, _ := c.do("POST", "/api/badcut", with(all, "event", record.Event{ID: "n", Kind: record.Cut}))
	assert.Equal(t, 422, status)

	spec := got.Plan.Bill.Lines[len(got.Plan.Bill.Lines)-1].Spec
	events = append(events, record.Event{ID: "buy", Kind: record.Bought, Ware: &spec, Count: 1})
	var said, again server.EventsAnswer
	doing := with(with(all, "device", "x"), "events", events)
	c.get("POST", "/api/together/events", doing, &said)
	c.get("POST", "/api/together/events", doing, &again)
	assert.Equal(t, said.Last, again.Last, "what is sent twice counts once")
	got = c.together(ids, nil)
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
		with(doing, "events", []record.Event{{ID: "n", Kind: record.Racked, Item: "nothing"}}),
	)
	assert.Equal(t, 422, status)
	_, _, file := c.do("POST", "/api/export/cuts.csv", all)
	assert.Contains(t, file, "1A")
	require.Contains(t, file, "2A")

	// a cut that was lent is not made after all, by what its own project says: the stick's owner has it back
	for i, id := range ids {
		var one, owner server.EventsAnswer
		c.get("GET", "/api/projects/"+id+"/events", nil, &one)
		c.get("GET", "/api/projects/"+ids[1-i]+"/events", nil, &owner)
		have := len(owner.Events)
		for _, e := range one.Events {
			of := slices.IndexFunc(owner.Events, func(o record.Event) bool { return o.Kind == record.Elsewhere && o.Item == e.ID })
			if e.Kind != record.Cut || of < 0 {
				continue
			}
			c.did(id, "x", record.Event{ID: e.ID + "-not", Kind: record.TakenBack, Event: e.ID})
			c.did(id, "x", record.Event{ID: e.ID + "-not", Kind: record.TakenBack, Event: e.ID})
			var after server.EventsAnswer
			c.get("GET", "/api/projects/"+ids[1-i]+"/events", nil, &after)
			require.Len(t, after.Events, have+1, "once")
			back := after.Events[have]
			have++
			assert.Equal(t, record.TakenBack, back.Kind)
			assert.Equal(t, owner.Events[of].ID, back.Event)
		}
	}
	status, _, _ = c.do("POST", "/api/export/frame.json", all)
	assert.Equal(t, 404, status, "a frame is its project's")
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
	ids := []string{plain.ID, dear.ID}
	got := c.together(ids, nil)
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
	c.get("POST", "/api/plan", with(several(ids, nil), "shop", shop.Shop), &got)
	assert.Equal(t, 4*measure.Foot, got.Plan.Haul.Limit, "the car that all of it goes in takes less")
	longer := map[string]any{"sale": map[string]any{"haul": stock.Haul{Limit: 6 * measure.Foot}}}
	c.get("POST", "/api/plan", with(several(ids, longer), "shop", shop.Shop), &got)
	assert.Equal(t, 6*measure.Foot, got.Plan.Haul.Limit, "it was said of all of them")
}

// What is chosen for a purchase is kept where every device finds it, whatever the order in which its
// projects are named; it is begun as the oldest of them.
func TestAPurchaseIsKept(t *testing.T) {
	c, _ := serve(t)
	var first, second server.ProjectLine
	c.get("POST", "/api/projects", project("First", map[string]any{"tool": "shear"}), &first)
	c.get("POST", "/api/projects", project("Second", nil), &second)
	at := func(of ...string) string { return "/api/purchases/" + strings.Join(of, ",") }
	var got server.StoredPurchase
	c.get("GET", at(second.ID, first.ID), nil, &got)
	assert.Zero(t, got.Revision)
	assert.Equal(t, "shear", got.Project.Tool)
	assert.Equal(t, []string{first.ID, second.ID}, got.Project.Together.Of)

	got.Project.Tool, got.Project.Together.Variants = "saw", true
	var saved server.Saved
	c.get("PUT", at(first.ID, second.ID), got, &saved)
	assert.Equal(t, int64(1), saved.Revision)
	var again server.StoredPurchase
	c.get("GET", at(first.ID, second.ID), nil, &again)
	assert.Equal(t, int64(1), again.Revision)
	assert.Equal(t, "saw", again.Project.Tool)
	assert.True(t, again.Project.Together.Variants)

	got.Project.Tool = "miter"
	status, _, data := c.do("PUT", at(second.ID, first.ID), got)
	assert.Equal(t, 409, status, data)
	got.Project.Together.Of = []string{first.ID}
	status, _, _ = c.do("PUT", at(second.ID, first.ID), got)
	assert.Equal(t, 422, status)
	status, _, _ = c.do("GET", at(first.ID, "none"), nil)
	assert.Equal(t, 404, status)
}

// All that is asked of one project can be asked of several that are bought together.
func TestWhatIsAskedOfOneIsAskedOfSeveral(t *testing.T) {
	c, _ := serve(t)
	var ids []string
	for _, id := range []string{"table", "jump"} {
		var line server.ProjectLine
		c.get("POST", "/api/projects", project(id, map[string]any{"starter": map[string]any{"id": id, "answers": map[string]any{}}}), &line)
		ids = append(ids, line.ID)
	}
	all, plan := several(ids, nil), c.together(ids, nil).Plan
	var savings planned.Savings
	c.get("POST", "/api/savings", all, &savings)
	frames := map[int]bool{}
	for _, s := range savings.Sizes {
		frames[s.Frame] = true
	}
	assert.Len(t, frames, 2)
	var others []planned.Substitute
	c.get("POST", "/api/substitutes", with(with(all, "kind", "side-outlet-elbow"), "size", "3/4"), &others)
	require.NotEmpty(t, others)
	var shops server.Suppliers
	c.get("POST", "/api/suppliers", all, &shops)
	require.NotEmpty(t, shops.All)
	need := 0
	for _, l := range plan.Bill.Lines {
		if l.Ware == material.Fitting {
			need += l.Count
		}
	}
	taken := 0
	for _, x := range shops.Split.Taken {
		if x.Ware == material.Fitting {
			taken += x.Count
		}
	}
	assert.GreaterOrEqual(t, taken, need)
	var cheaper []planned.Cheaper
	c.get("POST", "/api/cheaper", with(all, "size", "3/4"), &cheaper)
	for _, x := range cheaper {
		require.Empty(t, x.Size, "a frame's size is its project's")
	}
	var labels []planned.Label
	c.get("POST", "/api/labels", all, &labels)
	assert.Len(t, labels, plan.Totals.Pieces)
	status, _, data := c.do("POST", "/api/improve", all)
	assert.Equal(t, 200, status)
	assert.Contains(t, data, `"proven"`)
}
