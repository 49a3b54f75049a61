package server_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/server"
)

func TestACardSaysWhereAProjectStands(t *testing.T) {
	c, _ := serve(t)
	for _, tc := range []struct {
		what  string
		body  map[string]any
		state server.State
		words string
	}{
		{"a jump", jump("4 ft"), server.Ready, ""},
		{"too narrow", jump("1"), server.Stopped, ""},
		{"unreadable", jump("4 fot"), server.Waits, "a size cannot be read"},
		{"empty", map[string]any{"name": "x", "units": "in", "style": "inches", "copies": 1, "tool": "saw"}, server.Waits, "no frame yet"},
	} {
		var line server.ProjectLine
		c.get("POST", "/api/projects", tc.body, &line)
		var card server.Card
		c.get("GET", "/api/projects/"+line.ID+"/card", nil, &card)
		assert.Equal(t, tc.state, card.State, tc.what)
		if tc.words != "" {
			assert.Equal(t, tc.words, card.Words)
		}
		assert.Equal(t, tc.state != server.Waits, strings.HasPrefix(card.Drawing, "<svg"), tc.what)
	}
	status, _, _ := c.do("GET", "/api/projects/none/card", nil)
	assert.Equal(t, 404, status)
}

// A card is kept until the project or the shop is saved again.
func TestACardFollowsTheShop(t *testing.T) {
	c, _ := serve(t)
	var line server.ProjectLine
	c.get("POST", "/api/projects", jump("4 ft"), &line)
	path := "/api/projects/" + line.ID + "/card"
	var first, again, dearer, wider server.Card
	c.get("GET", path, nil, &first)
	c.get("GET", path, nil, &again)
	assert.Equal(t, first, again)
	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	shop.Shop.Prices.TaxRate = 0.1
	c.get("PUT", "/api/shop", shop, nil)
	c.get("GET", path, nil, &dearer)
	assert.Greater(t, dearer.Cost, first.Cost)
	c.get("PUT", "/api/projects/"+line.ID, map[string]any{"revision": 1, "project": jump("6 ft")}, nil)
	c.get("GET", path, nil, &wider)
	assert.Greater(t, wider.Size[0], first.Size[0])
}

func TestADeletedProjectCanBePutBack(t *testing.T) {
	c, _ := serve(t)
	var line server.ProjectLine
	c.get("POST", "/api/projects", jump("4 ft"), &line)
	c.get("DELETE", "/api/projects/"+line.ID, nil, nil)
	status, _, _ := c.do("GET", "/api/projects/"+line.ID, nil)
	assert.Equal(t, 404, status)
	status, _, _ = c.do("PUT", "/api/projects/"+line.ID, map[string]any{"revision": 1, "project": jump("6 ft")})
	assert.Equal(t, 404, status, "a window that still shows it cannot save it")
	c.get("POST", "/api/projects/"+line.ID+"/restore", nil, nil)
	var back server.StoredProject
	c.get("GET", "/api/projects/"+line.ID, nil, &back)
	assert.Equal(t, line.ID, back.ID)
	assert.Equal(t, "4 ft", back.Project.Starter.Answers["width"].Text)
	status, _, _ = c.do("POST", "/api/projects/"+line.ID+"/restore", nil)
	assert.Equal(t, 404, status, "what is there cannot be put back")
}

func TestStartersAndPicturesAreDrawn(t *testing.T) {
	c, _ := serve(t)
	var all []server.DrawnStarter
	c.get("GET", "/api/starters", nil, &all)
	assert.NotEmpty(t, all)
	for _, s := range all {
		assert.True(t, strings.HasPrefix(s.Drawing, "<svg"), s.ID)
		assert.NotEmpty(t, s.Prompts)
	}
	var pictures map[string]string
	c.get("GET", "/api/pictures", nil, &pictures)
	assert.Contains(t, pictures["side-outlet-tee"], "<svg")
}

// Nothing is drawn for a page that turns the frame itself.
func TestADrawingIsMadeOnlyWhenAskedFor(t *testing.T) {
	c, _ := serve(t)
	var a server.PlanAnswer
	c.get("POST", "/api/plan", map[string]any{"project": jump("4 ft"), "shop": plan.ExampleShop()}, &a)
	assert.Empty(t, a.Drawings)
}

// Two projects of one size of pipe share sticks and cans: bought together
// they never cost more than apart.
func TestBoughtTogether(t *testing.T) {
	c, _ := serve(t)
	var ids []string
	for _, width := range []string{"4 ft", "3 ft", "7 ft"} {
		var line server.ProjectLine
		c.get("POST", "/api/projects", jump(width), &line)
		ids = append(ids, line.ID)
	}
	got := c.together(ids, nil)
	assert.Len(t, got.Plan.Frames, 3)
	assert.Equal(t, 36, got.Plan.Totals.Pieces)
	cost, sticks := measure.Money(0), 0
	for i, one := range got.Alone {
		assert.Equal(t, ids[i], one.ID)
		cost, sticks = cost+one.Cost, sticks+one.Sticks
	}
	assert.Less(t, got.Plan.Bill.Total, cost)
	assert.LessOrEqual(t, got.Plan.Totals.Sticks, sticks)

	saw, shear := c.together(ids[:1], nil), c.together(ids[:1], map[string]any{"tool": "shear"})
	assert.Less(t, shear.Plan.Pipe[0].Stock.Kerf, saw.Plan.Pipe[0].Stock.Kerf)
	assert.Equal(t, shear.Plan.Bill.Total, shear.Alone[0].Cost)

	var bad server.ProjectLine
	c.get("POST", "/api/projects", jump("4 fot"), &bad)
	status, _, data := c.do("POST", "/api/plan", several([]string{ids[0], bad.ID}, nil))
	assert.Equal(t, 422, status)
	assert.Contains(t, data, "Jump: width")
	status, _, _ = c.do("POST", "/api/plan", several([]string{"none"}, nil))
	assert.Equal(t, 404, status)
	status, _, _ = c.do("POST", "/api/plan", several([]string{}, nil))
	assert.Equal(t, 422, status)
}
