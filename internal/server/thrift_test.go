package server_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/server"
)

// What small changes save, and what spoilt cuts cost, is asked of a project as it is typed.
func TestSavingsAndMistakes(t *testing.T) {
	c, _ := serve(t)
	var s plan.Savings
	c.get("POST", "/api/savings", map[string]any{"project": jump("4 ft")}, &s)
	assert.NotEmpty(t, s.Sizes)
	assert.NotNil(t, s.Repairs)
	var m []procure.Mistakes
	c.get("POST", "/api/mistakes", map[string]any{"project": jump("4 ft")}, &m)
	require.Len(t, m, 1)
	assert.NotEmpty(t, m[0].Safest)
	pieces := 0
	for _, x := range m[0].Stand {
		pieces += x.Count
	}
	assert.Equal(t, m[0].Cuts, pieces)
	assert.Positive(t, pieces)
	for _, path := range []string{"/api/savings", "/api/mistakes", "/api/improve", "/api/badcut"} {
		body := map[string]any{"project": jump("4 bananas")}
		if path == "/api/badcut" {
			body["event"] = record.Event{
				ID: "e", Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: 1}, Length: measure.Inch,
				Stick: &record.Source{ID: "s", Size: "3/4", Length: 120 * measure.Inch, Origin: record.FromShop},
			}
		}
		status, _, data := c.do("POST", path, body)
		assert.Equal(t, 422, status, "%s: %s", path, data)
		assert.Equal(t, []string{"/project/starter/answers/width"}, places(t, data), path)
	}
}

// The search is told line by line, and ends when all is proven.
func TestTheSearchTellsHowFarItHasCome(t *testing.T) {
	c, _ := serve(t)
	status, header, data := c.do("POST", "/api/improve", map[string]any{"project": jump("4 ft")})
	require.Equal(t, 200, status)
	assert.Contains(t, header.Get("Content-Type"), "application/x-ndjson")
	lines := strings.Split(strings.TrimSpace(data), "\n")
	var last plan.Progress
	require.NoError(t, json.Unmarshal([]byte(lines[len(lines)-1]), &last))
	require.True(t, last.Proven)
	// what was searched goes with the project, and changes nothing of a plan that is proven
	var before, after server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, &before)
	p := jump("4 ft")
	p["searched"] = []procure.Searched{last.Sizes[0].Search}
	c.get("POST", "/api/plan", map[string]any{"project": p}, &after)
	assert.Equal(t, before.Plan.Pipe, after.Plan.Pipe)
	p["searched"] = []procure.Searched{{Basis: "x", Steps: -1}}
	status, _, data = c.do("POST", "/api/plan", map[string]any{"project": p})
	assert.Equal(t, 422, status, data)
}

// A piece that came out an inch short: what becomes of it is told, and nothing is recorded.
func TestABadCutIsReckonedBeforeItIsTold(t *testing.T) {
	c, _ := serve(t)
	var answer server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, &answer)
	stick := answer.Plan.Pipe[0].Sticks[0]
	x := stick.Pieces[0]
	bad := record.Event{
		ID: "bad", Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy},
		Stick:  &record.Source{ID: "s1", Size: answer.Plan.Pipe[0].Size, Length: stick.Length, Origin: record.FromShop},
		Length: x.Length - measure.Inch, Letter: x.Name, Basis: answer.Plan.Pipe[0].Basis,
	}
	var b plan.BadCut
	c.get("POST", "/api/badcut", map[string]any{"project": jump("4 ft"), "event": bad}, &b)
	assert.Equal(t, x.Length, b.Wanted)
	assert.Equal(t, procure.Recut, b.Fate)
	bad.Stick = nil
	status, _, data := c.do("POST", "/api/badcut", map[string]any{"project": jump("4 ft"), "event": bad})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"/event/stick"}, places(t, data))
}
