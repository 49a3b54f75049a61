package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// A line that runs pipe, as it is typed, and as it is written.
func TestParseLine(t *testing.T) {
	for text, want := range map[string]edit.Line{
		"right 46 clear":           {Dir: measure.Dir{1, 0, 0}, Length: "46 clear"},
		"up 20 x3":                 {Dir: measure.Dir{0, 0, 1}, Length: "20", Times: 3},
		"up 20 times 3":            {Dir: measure.Dir{0, 0, 1}, Length: "20", Times: 3},
		"near 12 capped":           {Dir: measure.Dir{0, -1, 0}, Length: "12", End: frame.CappedEnd},
		"up right 12 cut":          {Dir: measure.Dir{1, 0, 1}, Length: "12 cut"},
		"left to j4":               {Dir: measure.Dir{-1, 0, 0}, Goal: edit.To, Mark: "j4"},
		"up to x3":                 {Dir: measure.Dir{0, 0, 1}, Goal: edit.To, Mark: "x3"},
		"up level with j9":         {Dir: measure.Dir{0, 0, 1}, Goal: edit.LevelWith, Mark: "j9"},
		"right touching":           {Dir: measure.Dir{1, 0, 0}, Length: "0 visible"},
		"up 1 size 2 staked":       {Dir: measure.Dir{0, 0, 1}, Length: "1", Size: "2", End: frame.StakedEnd},
		"toward foot 1/j3":         {Toward: "foot 1/j3"},
		`along "side rail 1/p2" 9`: {Along: "side rail 1/p2", Length: "9"},
		"up 30 cap":                {Dir: measure.Dir{0, 0, 1}, Length: "30 cap"},
		"up 4 ft 3 1/2 in outside": {Dir: measure.Dir{0, 0, 1}, Length: "4 ft 3 1/2 in outside"},
	} {
		got, err := edit.ParseLine(text)
		require.NoError(t, err, text)
		want.Times = max(1, want.Times)
		assert.Equal(t, []any{want.Dir, want.Length, want.Goal, want.Mark, want.Times, want.End, want.Size, want.Along, want.Toward},
			[]any{got.Dir, got.Length, got.Goal, got.Mark, got.Times, got.End, got.Size, got.Along, got.Toward}, text)
		again, err := edit.ParseLine(got.Text())
		require.NoError(t, err, got.Text())
		assert.Equal(t, got.Text(), again.Text(), text)
	}
	up, err := edit.ParseLine("right@20 4 cut")
	require.NoError(t, err)
	assert.InDelta(t, 20, up.Dir.AngleTo(measure.Dir{1, 0, 0}), 1e-9)
	assert.Positive(t, up.Dir[2])
	for text, at := range map[string]int{"right 5 to j3": 6, "right right": 0, "up to": 3, "up 4 size 9": 10, "up@30 4": 0, "right up@95 4": 6} {
		_, err := edit.ParseLine(text)
		var r *edit.Refusal
		require.ErrorAs(t, err, &r, text)
		assert.Equal(t, at, r.At, "%s: %v", text, r)
	}
}

// What a line runs to: pipes, places, and what lies askew.
func TestLinesRunToThings(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 24 cut")
	h.walk("j2", "away 20 cut")
	h.walk("j1", "away 10 cut")
	assert.Equal(t, "j5", h.walk("j4", "right to p2"), "in a tee of its own")
	assert.Len(t, h.plan().Frames[0].Pipes, 5)
	assert.Equal(t, map[string]int{"tee": 1}, map[string]int{"tee": h.kinds()["tee"]})
	h.walk("j4", "up 12 cut")
	top := h.walk("j3", "up to z1")
	assert.Equal(t, h.pipe("p6").Centre, h.pipe("p7").Centre, "as high as the other: %s", top)
	h.walk("j6", "toward "+top)
	assert.Len(t, h.plan().Frames[0].Pipes, 8)
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Walk{From: "j1", Line: "left to p2"}}).What, "not that way")
	// the two at the ends of a row touch
	h = nothing(t)
	h.walk("", "right touching times 3")
	for _, j := range []string{"j1", "j2", "j3", "j4"} {
		h.walk(j, "up 9 cut capped")
	}
	for _, p := range []string{"p1", "p2", "p3"} {
		assert.InDelta(t, 0, float64(h.pipe(p).Visible), 10, "no pipe is seen between two that touch")
	}
	// a part by itself
	h.do(edit.Edit{Gesture: &edit.Begin{From: "j4", Say: "10 right, 4 up"}})
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Begin{From: "j4", Say: "10"}}).Hint, "10 right")
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Begin{From: "j4", Say: "10 right, 4 up"}}).What, "stands there already")
}
