package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// A place is kept as it was typed: its length and unit, what it is measured from, and
// where round the pipe it is. What cannot be one says so and leaves no link behind.
func TestPlacesAsTheyAreTyped(t *testing.T) {
	for text, want := range map[string]frame.Anchor{
		"j2":                            {Joint: "j2"},
		"p1":                            {Pipe: "p1", At: 12 * measure.Inch},
		"p1 at 10":                      {Pipe: "p1", At: 10 * measure.Inch, Text: "10", Unit: measure.Inches},
		"p1 at 100mm from j2":           {Pipe: "p1", From: "j2", At: 100 * measure.Millimetre, Text: "100mm", Unit: measure.Inches},
		"p1 at 6 from the face of j2":   {Pipe: "p1", From: "j2", At: 6 * measure.Inch, Text: "6", Unit: measure.Inches, Datum: frame.FromFace},
		"p1 at 6 from j2 end":           {Pipe: "p1", From: "j2", At: 6 * measure.Inch, Text: "6", Unit: measure.Inches, Datum: frame.FromEnd},
		"p1 at 6 from the face":         {Pipe: "p1", At: 6 * measure.Inch, Text: "6", Unit: measure.Inches, Datum: frame.FromFace},
		"p1 at 6 from the centre of j1": {Pipe: "p1", From: "j1", At: 6 * measure.Inch, Text: "6", Unit: measure.Inches},
		"p1 at 6 from j1 on the Left":   {Pipe: "p1", From: "j1", At: 6 * measure.Inch, Text: "6", Unit: measure.Inches, Side: frame.Left},
		"  p1   at 6 1/2 turned -45":    {Pipe: "p1", At: 13 * measure.Inch / 2, Text: "6 1/2", Unit: measure.Inches, Angle: -45},
		"j2 on the top":                 {Joint: "j2", Side: frame.Top},
		"p1 turned 90°":                 {Pipe: "p1", At: 12 * measure.Inch, Angle: 90},
		"p1 at 23 from j1":              {Pipe: "p1", From: "j1", At: 23 * measure.Inch, Text: "23", Unit: measure.Inches},
		"p1 at 24":                      {Pipe: "p1", At: 24 * measure.Inch, Text: "24", Unit: measure.Inches},
	} {
		h := nothing(t)
		h.walk(h.walk(h.begin(), "right 24 centre"), "up 10")
		h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{text}}})
		require.Len(t, h.doc.Root.Links, 1, text)
		assert.Equal(t, want, h.doc.Root.Links[0].On[0], text)
		assert.NotContains(t, h.codes(), "off-the-pipe", text)

		// what it is said to be can be typed again
		said := mention.ByID(h.link(0).On[0])
		h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{said}}})
		again := h.doc.Root.Links[1].On[0]
		g := frameOf(t, h.doc)
		assert.Equal(t, g.Links[0].On[0], g.Links[1].On[0], "%s, said as %s, is %+v", text, said, again)
	}
	for text, what := range map[string]string{
		"":                                 "there is no joint or pipe",
		"p9 at 3":                          "there is no joint or pipe",
		"p1 at 25":                         "25 is not on the pipe ⟨p1⟩",
		"p1 at 23 1/2 from the face of j2": "23 1/2 is not on the pipe ⟨p1⟩",
		"p1 at":                            "there is no joint or pipe",
		"p1 at long":                       "",
		"p1 at 3 from j9":                  `⟨p1⟩ does not end at "j9"`,
		"p1 at 3 from the end of j1 face":  "it is measured from two things",
		"p1 at 3 turned 400":               "is no angle",
		"p1 at 3 on the moon":              "",
	} {
		h := nothing(t)
		h.walk(h.walk(h.begin(), "right 24 centre"), "up 10")
		require.False(t, h.try(&edit.Link{Kind: frame.Clip, On: []string{text}}), text)
		assert.ErrorContains(t, h.err, what, text)
		assert.Empty(t, h.doc.Root.Links)
	}
}

// A joint goes by its short name too, which in a part is not its id: as where a walk
// begins, how far it goes, and what a place is measured from.
func TestJointsGoByTheirShortNames(t *testing.T) {
	h := nothing(t)
	foot := h.walk(h.begin(), "right 12 centre")
	h.walk("j1", "up 10 centre")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "foot", Joints: []string{"j1", foot}}})
	f := &h.plan().Frames[0]
	short := map[string]string{}
	for _, j := range f.Joints {
		short[j.ID] = j.Name
	}
	require.NotEqual(t, "foot 1/j1", short["foot 1/j1"])
	require.Regexp(t, `^j\d+$`, short["foot 1/j1"])
	top := h.walk(short["foot 1/j2"], "up 8 centre")
	assert.Equal(t, "foot 1/j2", h.doc.Root.Pipes[len(h.doc.Root.Pipes)-1].From)
	h.walk(top, "left to j3")
	h.do(
		edit.Edit{
			Gesture: &edit.Link{
				Kind: frame.Clip,
				On:   []string{"foot 1/p1 at 3 from " + layout.ShortNames(frameOf(t, h.doc))[frameOf(t, h.doc).Node("foot 1/j2")]},
			},
		},
	)
	on := h.doc.Groups[0].Links[0].On[0]
	assert.Equal(t, frame.Anchor{Pipe: "p1", From: "j2", At: 3 * measure.Inch, Text: "3", Unit: measure.Inches}, on)
}
