package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
)

// Pages plan, list and compare two projects, by themselves and together, while both are ticked: what is kept between
// requests is only read. The race detector watches it.
func TestReadersLeaveWhatIsKeptAlone(t *testing.T) {
	c, _ := serve(t)
	var ids []string
	for _, width := range []string{"4 ft", "3 ft"} {
		var line server.ProjectLine
		c.get("POST", "/api/projects", jump(width), &line)
		ids = append(ids, line.ID)
	}
	got := c.planned(ids[0])
	for _, s := range got.Plan.Pipe[0].Sticks {
		c.did(ids[0], "saw", cutOf(&got.Plan, 0, &s, "first")...)
		break
	}
	var all sync.WaitGroup
	for n, do := range []func(n int){
		func(int) { c.planned(ids[0]) },
		func(int) { c.planned(ids[1]) },
		func(int) { c.together(ids, nil) },
		func(int) { c.do("GET", "/api/projects/"+ids[0]+"/card", nil) },
		func(int) { c.do("POST", "/api/export/cuts.csv", map[string]any{"project": jump("4 ft"), "of": ids[0]}) },
		func(int) { c.do("GET", "/api/projects/"+ids[0]+"/events", nil) },
		func(n int) {
			e := record.Event{
				ID: fmt.Sprint("tick", n), Kind: record.Cut, Piece: &record.Piece{Pipe: "p1", Copy: n + 9}, Length: measure.Foot,
				Stick: &record.Source{ID: fmt.Sprint("s", n/5), Size: "3/4", Length: 10 * measure.Foot, Origin: record.FromShop},
			}
			c.did(ids[n%2], "phone", e)
			if n%4 == 3 {
				c.did(ids[n%2], "phone", record.Event{ID: e.ID + "-not", Kind: record.TakenBack, Event: e.ID})
			}
		},
	} {
		all.Go(func() {
			for i := range 12 {
				do(100*n + i)
			}
		})
	}
	all.Wait()
	assert.NotEmpty(t, c.planned(ids[0]).Plan.Pipe)
}

// A tick onto a record of ten thousand events, with all that the server does for it.
func BenchmarkTick(b *testing.B) {
	st, err := store.Open(b.Context(), b.TempDir())
	require.NoError(b, err)
	h := server.New(server.Config{Store: st, Web: fstest.MapFS{"index.html": {}}})
	do := func(method, path string, body any) []byte {
		data, err := json.Marshal(body)
		require.NoError(b, err)
		r := httptest.NewRequest(method, "http://127.0.0.1"+path, bytes.NewReader(data))
		r.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		require.Less(b, w.Code, 300, w.Body.String())
		return w.Body.Bytes()
	}
	var line server.ProjectLine
	require.NoError(b, json.Unmarshal(do("POST", "/api/projects", jump("4 ft")), &line))
	tick := func(n int) record.Event {
		return record.Event{
			ID: fmt.Sprint("tick", n), Kind: record.Cut, Piece: &record.Piece{Pipe: "p1", Copy: n + 1}, Length: measure.Foot,
			Stick: &record.Source{ID: fmt.Sprint("s", n/9), Size: "3/4", Length: 10 * measure.Foot, Origin: record.FromShop}, Basis: "x",
		}
	}
	for n := 0; n < 10_000; n += 1000 {
		var all []record.Event
		for i := range 1000 {
			all = append(all, tick(n+i))
		}
		do("POST", "/api/projects/"+line.ID+"/events", server.EventsRequest{Device: "saw", Events: all})
	}
	b.ResetTimer()
	for n := range b.N {
		do("POST", "/api/projects/"+line.ID+"/events", server.EventsRequest{Device: "saw", Events: []record.Event{tick(10_000 + n)}})
	}
}
