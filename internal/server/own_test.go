package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/server"
)

// project is a jump with a name and some members more.
func project(name string, more map[string]any) map[string]any {
	p := jump("4 ft")
	p["name"] = name
	for k, v := range more {
		p[k] = v
	}
	return p
}

// A frame saved as a starter is among the starters, with its picture.
func TestAStarterOfOnesOwn(t *testing.T) {
	c, _ := serve(t)
	var before, after []server.DrawnStarter
	c.get("GET", "/api/starters", nil, &before)
	var kept server.EditAnswer
	c.get("POST", "/api/edit", map[string]any{"project": jump("5 ft"), "edit": map[string]any{"keep": map[string]any{}}}, &kept)
	require.Nil(t, kept.Project.Starter, "an ordinary frame")
	require.NotNil(t, kept.Project.Frame)
	kept.Project.Template = true
	kept.Project.Name = "Wide jump"
	c.get("POST", "/api/projects", kept.Project, nil)
	c.get("POST", "/api/projects", jump("4 ft"), nil)
	c.get("GET", "/api/starters", nil, &after)
	require.Len(t, after, len(before)+1)
	own := after[len(after)-1]
	assert.Equal(t, "Wide jump", own.Name)
	assert.Contains(t, own.ID, "own:")
	assert.Contains(t, own.Drawing, "<svg")
}

// The product's own document goes out and comes in whole; one that makes no
// sense is refused with its place.
func TestTheDocumentGoesOutAndComesIn(t *testing.T) {
	c, _ := serve(t)
	_, _, data := c.do("POST", "/api/export/frame.json", map[string]any{"project": jump("4 ft")})
	var line server.ProjectLine
	c.get("POST", "/api/open", map[string]any{"name": "frame.json", "text": data}, &line)
	var opened server.StoredProject
	c.get("GET", "/api/projects/"+line.ID, nil, &opened)
	assert.Equal(t, frame.Format, opened.Project.Frame.Format)
	assert.NotEmpty(t, opened.Project.Frame.Groups)
	for text, want := range map[string]string{
		`{"format":9,"root":{"axes":[{"stations":[]},{"stations":[]},{"stations":[]}]},"name":"x","units":"in","size":"3/4","mode":"slip"}`: "form version 9",
		`{"format":2,"root":{"axes":7}}`: "cannot be read",
	} {
		status, _, answer := c.do("POST", "/api/open", map[string]any{"name": "x", "text": text})
		assert.Equal(t, 422, status)
		assert.Contains(t, answer, want)
	}
}

// What was measured comes back as a shop; nonsense names its field.
func TestMeasurementsAreTaken(t *testing.T) {
	c, _ := serve(t)
	shop := plan.ExampleShop()
	var next plan.Shop
	c.get(
		"POST",
		"/api/measure",
		map[string]any{"shop": shop, "size": "3/4", "kind": "tee", "cut": "10", "outside": "12 1/2", "ends": 2},
		&next,
	)
	assert.Len(t, next.Measurements, 1)
	c.get("POST", "/api/measure", map[string]any{"shop": next, "size": "3/4", "seat": "slip", "gap": "1/16"}, &next)
	assert.Len(t, next.Seats, 1)
	var again plan.Shop
	c.get("POST", "/api/measure", map[string]any{"shop": next, "seat": "slip"}, &again)
	assert.Empty(t, again.Seats)
	for field, body := range map[string]map[string]any{
		"/cut": {"size": "3/4", "kind": "tee", "cut": "ten", "outside": "12"}, "/gap": {"size": "3/4", "seat": "slip", "gap": "9"},
		"/shop/measurements/1": {"size": "3/4", "field": "stop_90", "value": "1/8"},
	} {
		body["shop"] = next
		status, _, answer := c.do("POST", "/api/measure", body)
		assert.Equal(t, 422, status)
		assert.Contains(t, answer, `"pointer":"`+field+`"`)
	}
}

// A list's cut that cannot be read is answered in its field; one that can is
// checked, and its fixes are edits of the project.
func TestAListIsCheckedOverTheAPI(t *testing.T) {
	c, _ := serve(t)
	status, _, answer := c.do(
		"POST",
		"/api/plan",
		map[string]any{"project": project("Jump", map[string]any{"given": map[string]any{"tie": map[string]any{"text": "long"}}})},
	)
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, `"pointer":"/project/given/tie"`)
	var a server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"draft": true, "project": project("Jump", map[string]any{
		"given": map[string]any{"tie": map[string]any{"text": "40"}},
		"described": map[string]any{
			"text":   "2 three-ways\n1 1/2 tee",
			"kinds":  map[string]string{"2 three-ways": "tee"},
			"others": map[string]int{"1 1/2 tee": 1},
		},
	})}, &a)
	require.NotNil(t, a.Plan.Frames[0].Check)
	require.NotNil(t, a.Plan.Budget)
	assert.Zero(t, a.Plan.Budget.Asks, "both were answered")
	assert.Equal(t, "1-1/2", string(a.Plan.Budget.Items[1].Size))
}
