package server_test

import (
	"encoding/json"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The page of a project brings it along, with its plan and its drawing, and nothing in it
// can end the element that it stands in; any other page is the plain one.
func TestThePageOfAProject(t *testing.T) {
	c, _ := serve(t)
	p := jump("4 ft")
	p["name"] = `</script><script>alert("no")</script>`
	status, _, data := c.do(http.MethodPost, "/api/projects", p)
	require.Equal(t, http.StatusCreated, status, data)
	var stored struct{ ID string }
	require.NoError(t, json.Unmarshal([]byte(data), &stored))

	status, header, page := c.do(http.MethodGet, "/p/"+stored.ID+"/cut", nil)
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, header.Get("Content-Type"), "text/html")
	assert.Equal(t, "no-cache", header.Get("Cache-Control"))
	assert.Contains(t, page, `<svg`)
	assert.Contains(t, page, `<span class="tape-label">sticks</span>`)
	assert.NotContains(t, page, `<script>alert`)
	_, rest, found := strings.Cut(page, `<script id="first" type="application/json">`)
	require.True(t, found)
	text, _, _ := strings.Cut(rest, "</script>")
	var first struct {
		ID       string
		Revision int
		Project  struct{ Name string }
		Answer   struct {
			Plan     struct{ Frames []struct{ Pipes []any } }
			Drawings []string
		}
	}
	require.NoError(t, json.Unmarshal([]byte(text), &first))
	assert.Equal(t, stored.ID, first.ID)
	assert.Equal(t, 1, first.Revision)
	assert.Equal(t, p["name"], first.Project.Name)
	assert.NotEmpty(t, first.Answer.Plan.Frames[0].Pipes)
	assert.Len(t, first.Answer.Drawings, 1)

	// what cannot be planned comes without a plan, what is not there as the plain page
	p = jump("4 ft 30 cm")
	_, _, data = c.do(http.MethodPost, "/api/projects", p)
	require.NoError(t, json.Unmarshal([]byte(data), &stored))
	_, _, page = c.do(http.MethodGet, "/p/"+stored.ID, nil)
	assert.Contains(t, page, `id="first"`)
	assert.NotContains(t, page, `"answer"`)
	for _, path := range []string{"/p/nothing", "/p/" + stored.ID + "/sheet", "/new", "/"} {
		_, _, page = c.do(http.MethodGet, path, nil)
		assert.NotContains(t, page, `id="first"`, path)
	}
}

// The plan that a project's page brings along is the one that the page gets when it asks.
func TestThePagesPlanIsThePlan(t *testing.T) {
	c, _ := serve(t)
	texts := map[string]string{"posts": "near 8 cut capped\nj1: away 8 cut capped\nj1: up 30 cut\n" +
		"group post j1 j2 j3 j4\nrepeat post times 3 at 40\n"}
	for _, build := range []string{"02-ramp-stalls", "09-mist-line", "14-jump-cart", "18-low-trestle"} {
		data, err := os.ReadFile("../../testdata/builds/" + build + ".txt")
		require.NoError(t, err)
		texts[build] = string(data)
	}
	for name, text := range texts {
		var stored struct {
			ID      string
			Project json.RawMessage
		}
		c.get("POST", "/api/open", map[string]any{"name": name + ".txt", "text": text}, &stored)
		var asked struct{ Plan json.RawMessage }
		c.get("GET", "/api/projects/"+stored.ID, nil, &stored)
		c.get("POST", "/api/plan", map[string]any{"project": stored.Project, "of": stored.ID, "draft": true}, &asked)
		_, _, page := c.do(http.MethodGet, "/p/"+stored.ID, nil)
		_, rest, found := strings.Cut(page, `<script id="first" type="application/json">`)
		require.True(t, found)
		data, _, _ := strings.Cut(rest, "</script>")
		var first struct {
			Answer *struct{ Plan json.RawMessage }
		}
		require.NoError(t, json.Unmarshal([]byte(data), &first))
		if first.Answer == nil && name != "posts" {
			continue // it takes longer than a page waits
		}
		require.NotNil(t, first.Answer, name)
		assert.JSONEq(t, string(asked.Plan), string(first.Answer.Plan), name)
	}
}
