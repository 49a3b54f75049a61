package server_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
)

// planned plans a stored project with its record.
func (c *client) planned(id string) *server.PlanAnswer {
	var p server.StoredProject
	c.get("GET", "/api/projects/"+id, nil, &p)
	var a server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": p.Project, "of": id}, &a)
	return &a
}

// cutOf are the events that say that a stick of a plan is cut, as a page sends them.
func cutOf(p *plan.Plan, size int, s *procure.Stick, name string) (all []record.Event) {
	t := &p.Pipe[size]
	from := record.Source{ID: s.ID, Size: t.Size, Length: s.Length, Origin: record.FromShop}
	if from.ID == "" {
		from.ID = name + "-stick"
	}
	if s.Origin == stock.Cut {
		from.Origin = record.FromPiece
	}
	for i, x := range s.Pieces {
		if x.Cut == "" {
			all = append(
				all,
				record.Event{
					ID:     fmt.Sprint(name, "-", i),
					Kind:   record.Cut,
					Piece:  &record.Piece{Pipe: x.Pipe, Copy: x.Copy},
					Stick:  &from,
					Length: x.Length,
					Kerf:   x.Kerf,
					Letter: x.Name,
					Basis:  t.Basis,
				},
			)
		}
	}
	return all
}

func (c *client) did(id, device string, events ...record.Event) server.EventsAnswer {
	var a server.EventsAnswer
	c.get("POST", "/api/projects/"+id+"/events", server.EventsRequest{Device: device, Events: events}, &a)
	return a
}

func (c *client) create(body map[string]any) string {
	var line server.ProjectLine
	c.get("POST", "/api/projects", body, &line)
	return line.ID
}

// What is cut stays cut: after a change of the plan, of prices, of the name, as the server
// starts anew, and after the project was deleted and put back. A copy starts without it.
func TestWhatIsCutStaysCut(t *testing.T) {
	c, st := serve(t)
	id := c.create(jump("4 ft"))
	a := c.planned(id)
	events := append(
		[]record.Event{{ID: "begun", Kind: record.Begun, Figures: new(plan.ExampleShop()).Figures()}},
		cutOf(&a.Plan, 0, &a.Plan.Pipe[0].Sticks[0], "one")...)
	sent := c.did(id, "phone", events...)
	assert.Len(t, sent.Events, len(events))
	again := c.did(id, "phone", events...)
	assert.Equal(t, sent, again, "a repeated send counts once")
	n := len(a.Plan.Pipe[0].Sticks[0].Pieces)
	kept := func(what string) {
		t.Helper()
		b := c.planned(id)
		done := 0
		for _, e := range b.Plan.Existing {
			if e.Fate == procure.Keep {
				done++
			}
		}
		assert.Equal(t, n, done, what)
		assert.Equal(t, sent.Last, b.Events)
	}
	kept("ticked")
	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	shop.Shop.Prices.Prices[0].Amount++
	shop.Shop.Stock = []plan.StockLength{{Length: 8 * measure.Foot}}
	c.get("PUT", "/api/shop", shop, nil)
	kept("prices and sticks on sale")
	assert.Equal(t, []plan.Newer{{What: "sticks on sale", Kept: "10', 5'", Now: "8'"}}, c.planned(id).Plan.Newer)
	c.get("PUT", "/api/projects/"+id, map[string]any{"revision": 1, "project": project("Renamed", nil)}, nil)
	c.get("PUT", "/api/projects/"+id, map[string]any{"revision": 2, "project": jump("4 ft")}, nil)
	kept("another width, and back")
	c.get("DELETE", "/api/projects/"+id, nil, nil)
	status, _, _ := c.do("POST", "/api/projects/"+id+"/events", server.EventsRequest{Device: "x", Events: events[:1]})
	assert.Equal(t, 404, status)
	c.get("POST", "/api/projects/"+id+"/restore", nil, nil)
	kept("deleted and put back")
	assert.Empty(t, c.planned(c.create(jump("4 ft"))).Plan.Existing)
	all, err := st.Events(t.Context(), id, 0)
	require.NoError(t, err)
	assert.Len(t, all, len(events))
}

// Two windows and a phone tick at once: everything arrives once, in one order that all of
// them see.
func TestManyDevicesTickAtOnce(t *testing.T) {
	c, _ := serve(t)
	id := c.create(jump("4 ft"))
	var wait sync.WaitGroup
	const each = 25
	for _, device := range []string{"window 1", "window 2", "phone"} {
		wait.Go(func() {
			for i := range each {
				e := record.Event{ID: fmt.Sprintf("%s %d", device, i), Kind: record.Unmatched, Text: "ticked"}
				data, err := json.Marshal(server.EventsRequest{Device: device, Events: []record.Event{e}})
				if !assert.NoError(t, err) {
					return
				}
				for range 2 { // sent twice, as when an answer is lost
					r, err := http.Post(c.url+"/api/projects/"+id+"/events", "application/json", strings.NewReader(string(data)))
					if !assert.NoError(t, err) {
						return
					}
					assert.Equal(t, 200, r.StatusCode)
					assert.NoError(t, r.Body.Close())
				}
			}
		})
	}
	wait.Wait()
	var a server.EventsAnswer
	c.get("GET", "/api/projects/"+id+"/events", nil, &a)
	require.Len(t, a.Events, 3*each)
	seen := map[string]bool{}
	for i, e := range a.Events {
		assert.False(t, seen[e.ID])
		seen[e.ID] = true
		assert.True(t, i == 0 || e.Seq > a.Events[i-1].Seq)
		assert.Equal(
			t,
			e.Device,
			strings.TrimRight(e.ID, " 0123456789")+map[bool]string{true: e.Device[len(e.Device)-2:]}[strings.HasPrefix(e.Device, "window")],
		)
	}
	findings := c.planned(id).Plan.Findings
	assert.Len(t, findings, len(c.planned(c.create(jump("4 ft"))).Plan.Findings)+1, "told as one")
}

func TestAnEventThatCannotBeIsPointedAt(t *testing.T) {
	c, _ := serve(t)
	id := c.create(jump("4 ft"))
	status, _, answer := c.do("POST", "/api/projects/"+id+"/events", server.EventsRequest{Device: "x", Events: []record.Event{
		{ID: "a", Kind: record.Unmatched, Text: "fine"}, {ID: "b", Kind: record.Cut},
	}})
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, `"pointer":"/events/1/piece"`)
	var a server.EventsAnswer
	c.get("GET", "/api/projects/"+id+"/events", nil, &a)
	assert.Empty(t, a.Events, "all or none")
}

// A page that follows a project hears of everything that others change, and of nothing
// else.
func TestAPageFollows(t *testing.T) {
	c, _ := serve(t)
	id, other := c.create(jump("4 ft")), c.create(jump("5 ft"))
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	conn, _, err := websocket.Dial(ctx, strings.Replace(c.url, "http", "ws", 1)+"/api/follow?project="+id, nil)
	require.NoError(t, err)
	defer func() { _ = conn.CloseNow() }()
	next := func() (n server.Now) {
		t.Helper()
		require.NoError(t, wsjson.Read(ctx, conn, &n))
		assert.NotEmpty(t, n.Run)
		assert.True(t, strings.HasPrefix(n.Version, "test-"), "the program's version, and which pages it serves")
		n.Run, n.Version = "", ""
		return n
	}
	assert.Equal(t, server.Now{Project: id, Revision: 1}, next())
	for r := range 40 { // however many others are saved, none of them is told
		c.get("PUT", "/api/projects/"+other, map[string]any{"revision": r + 1, "project": jump(fmt.Sprint(40+r, " in"))}, nil)
	}
	c.get("PUT", "/api/projects/"+id, map[string]any{"revision": 1, "project": jump("6 ft")}, nil)
	assert.Equal(t, server.Now{Project: id, Revision: 2}, next())
	last := c.did(id, "phone", record.Event{ID: "a", Kind: record.Unmatched, Text: "x"}).Last
	assert.Equal(t, server.Now{Project: id, Revision: 2, Events: last}, next())
	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	shop.Shop.Prices.TaxRate = 0.1
	c.get("PUT", "/api/shop", shop, nil)
	assert.Equal(t, server.Now{Project: id, Revision: 2, Events: last, Shop: 1}, next())
	c.get("DELETE", "/api/projects/"+id, nil, nil)
	assert.Equal(t, server.Now{Project: id, Shop: 1, Gone: true}, next())

	_, r, err := websocket.Dial(
		ctx,
		strings.Replace(c.url, "http", "ws", 1)+"/api/follow",
		&websocket.DialOptions{HTTPHeader: http.Header{"Origin": {"https://elsewhere.example"}}},
	)
	require.Error(t, err)
	assert.Equal(t, 403, r.StatusCode, "a page of another site hears nothing")
}

// A project that is written to a file comes back whole: how many, what is asked for, what
// lies over its starter, and all that was done.
func TestAProjectGoesThroughAFile(t *testing.T) {
	c, _ := serve(t)
	body := project("Jump", map[string]any{
		"copies": 3,
		"given":  map[string]any{"tie": map[string]any{"text": "40"}},
		"asks":   map[string]any{"about": "mine", "prompts": []any{map[string]any{"size": "x", "label": "Width"}}},
	})
	id := c.create(body)
	a := c.planned(id)
	c.did(id, "phone", cutOf(&a.Plan, 0, &a.Plan.Pipe[0].Sticks[0], "one")...)
	var was server.StoredProject
	c.get("GET", "/api/projects/"+id, nil, &was)
	_, header, file := c.do("POST", "/api/export/project.json", map[string]any{"project": was.Project, "of": id})
	assert.Contains(t, header.Get("Content-Type"), "json")
	var line server.ProjectLine
	c.get("POST", "/api/open", map[string]any{"name": "Jump project.json", "text": file}, &line)
	var is server.StoredProject
	c.get("GET", "/api/projects/"+line.ID, nil, &is)
	assert.Equal(t, was.Project, is.Project)
	var before, after server.EventsAnswer
	c.get("GET", "/api/projects/"+id+"/events", nil, &before)
	c.get("GET", "/api/projects/"+line.ID+"/events", nil, &after)
	require.Len(t, after.Events, len(before.Events))
	for i := range before.Events {
		before.Events[i].Seq, after.Events[i].Seq = 0, 0
	}
	assert.Equal(t, before.Events, after.Events, "with device and time")
	assert.Equal(t, c.planned(id).Plan.Existing[0].Fate, c.planned(line.ID).Plan.Existing[0].Fate)
}

// A file that holds no project is said to be what it is.
func TestAFileThatIsNoProject(t *testing.T) {
	c, _ := serve(t)
	for text, says := range map[string]string{
		"size,length,count\n3/4,23 5/8,4\n":     "a cut list: open it under Cut a list",
		"3/4, 23 5/8, 4\n1, 5'7, 2":             "a cut list",
		"":                                      "an empty file",
		"%PDF-1.7 ...":                          "a PDF",
		"\ufffdPNG\r\n\x1a":                     "a picture",
		"<svg xmlns='x'></svg>":                 "a drawing",
		"<!doctype html><html>":                 "a web page",
		"Dear club, the jumps are ready":        "a text without a frame",
		`{"name":"package","version":"1"}`:      "a JSON file of another kind",
		`[1,2]`:                                 "a text without a frame",
		`{"wireframe":1,"joints":{"a":[0,0,0]`:  "not whole JSON",
		`{"sturdyElbow":"project","project":3}`: "a project that cannot be read",
		`{"sturdyElbow":"project","project":{"format":99}}`:                          "a newer version",
		`{"sturdyElbow":"project","project":{},"record":[{"id":"a","kind":"hope"}]}`: "makes no sense at its event 1",
	} {
		status, _, answer := c.do("POST", "/api/open", map[string]any{"name": "x\r\ny", "text": text})
		assert.Equal(t, 422, status, text)
		assert.Contains(t, answer, says, text)
	}
	var lines []server.ProjectLine
	c.get("GET", "/api/projects", nil, &lines)
	assert.Empty(t, lines)
}

// Yesterday's state is listed, and is read as it was.
func TestAProjectKeepsItsPast(t *testing.T) {
	c, _ := serve(t)
	id := c.create(jump("4 ft"))
	c.get("PUT", "/api/projects/"+id, map[string]any{"revision": 1, "project": jump("5 ft")}, nil)
	c.get("PUT", "/api/projects/"+id, map[string]any{"revision": 2, "project": jump("6 ft")}, nil)
	var past []server.PastState
	c.get("GET", "/api/projects/"+id+"/revisions", nil, &past)
	require.Len(t, past, 2)
	assert.EqualValues(t, 2, past[0].Revision)
	assert.WithinDuration(t, time.Now(), past[1].At, time.Minute)
	var was map[string]any
	c.get("GET", fmt.Sprintf("/api/projects/%s/revisions/%d", id, past[1].Revision), nil, &was)
	data, err := json.Marshal(was)
	require.NoError(t, err)
	assert.Contains(t, string(data), "4 ft")
	status, _, _ := c.do("GET", "/api/projects/"+id+"/revisions/9", nil)
	assert.Equal(t, 404, status)
}

// A change of the shop says first what it would change, and leaves projects in work be.
func TestAChangeOfTheShopSaysWhatItChanges(t *testing.T) {
	c, _ := serve(t)
	one, two, work := c.create(jump("4 ft")), c.create(jump("6 ft")), c.create(jump("5 ft"))
	shop := plan.ExampleShop()
	c.did(work, "phone", record.Event{ID: "a", Kind: record.Begun, Figures: shop.Figures()})
	var e server.Effect
	c.get("POST", "/api/shop/effect", map[string]any{"shop": shop}, &e)
	assert.Empty(t, e.Changed)
	shop.Stock = []plan.StockLength{{Length: 20 * measure.Foot}}
	c.get("POST", "/api/shop/effect", map[string]any{"shop": shop, "of": one}, &e)
	require.Len(t, e.Changed, 1)
	assert.Equal(t, two, e.Changed[0].ID)
	assert.Less(t, e.Changed[0].SticksThen, e.Changed[0].Sticks)
	assert.Equal(t, []int{1, 2, 0}, []int{e.Kept, e.Looked, e.More})
}

// A project of format 1 has its ticks as events after the upgrade, and goes on by the
// plan that they were made by; what nothing answers to is listed.
func TestTicksOfFormat1BecomeEvents(t *testing.T) {
	c, st := serve(t)
	p := c.planned(c.create(jump("4 ft")))
	sticks := p.Plan.Pipe[0].Sticks
	old := jump("4 ft")
	old["work"] = map[string]any{"bought": []any{}}
	pipe := p.Plan.Bill.Lines[0]
	old["marks"] = map[string]any{
		"sawn": map[string]int{sticks[0].Key: 1, "3/4|shop|3048000000|254000000": 2},
		"cart": map[string]int{fmt.Sprintf("pipe||%s|%d|0", pipe.Size, pipe.Length): pipe.Count, "hope": 1, "fitting|cap|3/4|0|0": 40},
	}
	data, err := json.Marshal(old)
	require.NoError(t, err)
	stored, err := st.Create(t.Context(), store.State{Name: "Jump", Body: data})
	require.NoError(t, err)
	require.NoError(t, server.Upgrade(t.Context(), st))
	require.NoError(t, server.Upgrade(t.Context(), st), "once")
	a := c.planned(stored.ID)
	assert.Equal(t, p.Plan.Pipe[0].Basis, a.Plan.Pipe[0].Basis, "the plan goes on")
	assert.Len(t, a.Plan.Existing, len(sticks[0].Pieces))
	for i, x := range a.Plan.Pipe[0].Sticks[0].Pieces {
		assert.NotEmpty(t, x.Cut)
		assert.Equal(t, sticks[0].Pieces[i].Name, x.Name)
	}
	assert.Equal(t, pipe.Count, a.Plan.Bill.Lines[0].Got)
	notes := map[string]int{}
	for _, f := range a.Plan.Findings {
		if f.Code == "unmatched" || f.Code == "too-many" {
			notes[f.Code] += max(1, len(f.Cases))
		}
	}
	assert.Equal(t, map[string]int{"unmatched": 3, "too-many": 1}, notes)
	assert.True(t, a.Plan.Marked)
	now, err := st.Project(t.Context(), stored.ID)
	require.NoError(t, err)
	assert.Equal(t, stored.Updated, now.Updated)
	assert.NotContains(t, string(now.Body), "marks")
}
