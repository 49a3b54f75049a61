package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/internal/server"
)

// A list with a bad line is cut but for that line; pieces have letters, sticks the shop's prices.
func TestAListIsCutWithoutItsBadLine(t *testing.T) {
	c, _ := serve(t)
	ask := func(text string, more map[string]any) (a server.CutAnswer) {
		r := map[string]any{"text": text, "units": "in", "tool": "saw"}
		for k, v := range more {
			r[k] = v
		}
		c.get("POST", "/api/cut", r, &a)
		return a
	}
	a := ask("4 @ 23 5/8 3/4 pipe\nthree of them\nX: 2 pcs 30 in 3/4 pipe\n3/4, 23 5/8, legs, 2", nil)
	require.Len(t, a.Rows, 4)
	assert.NotNil(t, a.Rows[1].Fault)
	require.Len(t, a.Lines, 2)
	assert.Equal(t, "X", a.Lines[0].Letter, "its own, as it is the only one")
	assert.Equal(t, "A", a.Lines[1].Letter)
	require.Len(t, a.Materials, 1)
	assert.True(t, a.Priced)
	assert.True(t, a.Example)
	assert.Positive(t, a.Cost)
	assert.Equal(t, "X", a.Materials[0].Sticks[0].Pieces[0].Name)
	assert.Equal(t, 30*measure.Inch, a.Materials[0].Sticks[0].Pieces[0].At)

	a = ask("24, 2", map[string]any{"stock": []string{"10 ft @ 4.98", "5 ft @ 3 for 6"}})
	assert.True(t, a.Priced)
	assert.False(t, a.Example)
	assert.Equal(t, measure.Money(200), a.Cost, "one of 5 ft, as a third of three")
	a = ask("24, 2", nil)
	assert.False(t, a.Priced, "nobody knows the price of pipe without a size")
	a = ask("24, 2", map[string]any{"size": "3/4"})
	assert.True(t, a.Priced)
	a = ask("# nothing yet", nil)
	assert.Empty(t, a.Rows)
	assert.Empty(t, a.Materials)

	for _, bad := range []string{"long", "10 ft @ dear"} {
		status, _, data := c.do(
			"POST",
			"/api/cut",
			map[string]any{"text": "24, 2", "units": "in", "stock": []string{"5 ft", bad}, "tool": "saw"},
		)
		assert.Equal(t, 422, status)
		assert.Contains(t, data, "/stock/1")
	}
	_, _, file := c.do(
		"POST",
		"/api/cut.csv",
		map[string]any{"text": "A: 2 @ 24\nB: 1 @ 30", "units": "in", "tool": "saw", "stock": []string{"10 ft"}},
	)
	assert.Contains(t, file, "pipe,\"30\"\"\",1,B,")
	assert.Contains(t, file, "B 30\"\"; A 24\"\"; A 24\"\"")
	assert.Contains(t, file, "30\"\"; 54 1/8\"\"; 78 1/4\"\"")
}
