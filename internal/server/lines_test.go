package server_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/server"
)

func nothing() map[string]any {
	return map[string]any{"name": "Gate", "units": "in", "style": "inches", "copies": 1, "tool": "saw"}
}

// A line is said, refused with its place, and asked about; a page is drawn, and what fails waits.
func TestLinesOverTheAPI(t *testing.T) {
	c, _ := serve(t)
	var a server.EditAnswer
	draw := func(p any, texts ...string) {
		var all []map[string]any
		for _, l := range texts {
			all = append(all, map[string]any{"text": l})
		}
		a = server.EditAnswer{}
		c.get("POST", "/api/edit", map[string]any{"project": p, "edit": map[string]any{"draw": map[string]any{"lines": all}}}, &a)
	}
	draw(nothing(), "right 24 cut", "up 30 cut", "left to j9", "down to j1")
	require.NotNil(t, a.Project.Page)
	assert.Equal(t, 2, a.Project.Page.Drawn)
	require.NotNil(t, a.Project.Page.Wrong)
	assert.Equal(t, 2, a.Project.Page.Wrong.Line)
	assert.Len(t, a.Project.Page.Lines, 4)
	assert.Equal(t, "2 lines drawn", a.Done.Label)

	draw(nothing(), "right 24 cut", "up 30 cut", "left to j1", "down to j1")
	require.Nil(t, a.Project.Page.Wrong)
	gate := a.Project

	say := func(line string, more map[string]any) (int, string) {
		s := map[string]any{"line": line}
		for k, v := range more {
			s[k] = v
		}
		status, _, data := c.do("POST", "/api/edit", map[string]any{"project": gate, "edit": map[string]any{"say": s, "unit": "in"}})
		return status, data
	}
	status, data := say("tee at j2 spaer up", nil)
	assert.Equal(t, 422, status)
	var p server.Problem
	require.NoError(t, json.Unmarshal([]byte(data), &p))
	require.Len(t, p.Errors, 1)
	assert.InDelta(t, 10, p.Errors[0].Value, 0, "the place in the line: %s", data)
	assert.Contains(t, p.Errors[0].Message, "[spare DIRECTIONS]")

	status, data = say("split A at 10 cut", nil)
	assert.Equal(t, 422, status, data)
	assert.Contains(t, data, "say which", "two pieces have the letter")
	status, data = say("near 6 cut capped", map[string]any{"from": "j1", "marked": []string{"j1", "j2"}})
	require.Equal(t, 200, status, data)
	require.NoError(t, json.Unmarshal([]byte(data), &a))
	assert.Len(t, a.Project.Frame.Root.Pipes, 6)
	assert.Len(t, a.Done.Ends, 2)

	// written as lines, it opens as the same frame
	_, _, text := c.do("POST", "/api/export/lines.txt", map[string]any{"project": a.Project})
	assert.Contains(t, text, "j1 j2: near 6 cut capped\n")
	var line server.ProjectLine
	c.get("POST", "/api/open", map[string]any{"name": "gate.txt", "text": text}, &line)
	assert.Equal(t, "gate", line.Name)
	var stored server.StoredProject
	c.get("GET", "/api/projects/"+line.ID, nil, &stored)
	assert.Equal(t, a.Project.Frame.Root, stored.Project.Frame.Root)

	// and so does a frame that follows from a starter: as it is
	_, _, text = c.do("POST", "/api/export/lines.txt", map[string]any{"project": jump("4 ft")})
	c.get("POST", "/api/open", map[string]any{"name": "jump.txt", "text": text}, &line)
	var was, is server.PlanAnswer
	stored = server.StoredProject{}
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft")}, &was)
	c.get("GET", "/api/projects/"+line.ID, nil, &stored)
	c.get("POST", "/api/plan", map[string]any{"project": stored.Project}, &is)
	assert.Equal(t, was.Plan.Cuts, is.Plan.Cuts)

	status, _, data = c.do("POST", "/api/open", map[string]any{"name": "poem.txt", "text": "Shall I compare thee\nto a summer's day?"})
	assert.Equal(t, 422, status, data)
	assert.Contains(t, data, "text of lines")
}

// What a joint may become one day is told with what changes then.
func TestWhatChangesLater(t *testing.T) {
	c, _ := serve(t)
	var a server.EditAnswer
	c.get("POST", "/api/edit", map[string]any{"project": nothing(), "edit": map[string]any{"draw": map[string]any{"lines": []map[string]any{
		{"text": "up 48 cut"}, {"text": "up 30"}, {"text": "j3: right 10 cut capped"}, {"text": "tee at j2 spare right later"},
	}}}}, &a)
	require.Nil(t, a.Project.Page.Wrong)
	var l server.LaterAnswer
	c.get("POST", "/api/later", map[string]any{"project": a.Project, "joint": "j2"}, &l)
	require.NotNil(t, l.Later)
	require.NotEmpty(t, l.Later.Cuts, "the piece above it is shorter, its distance was said")
	assert.Less(t, l.Later.Cuts[0].Now, l.Later.Cuts[0].Was)
	assert.Positive(t, l.Later.Grows[2], "48 cut stays 48: the tee is longer than the coupling")
	c.get("POST", "/api/later", map[string]any{"project": a.Project, "joint": "j1"}, &l)
}
