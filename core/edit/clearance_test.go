package edit_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/envelope"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

func (h *hand) envelope(name string) envelope.CheckedClearance {
	for _, e := range h.plan().Frames[0].ClearanceChecks {
		if e.ID == name {
			return e
		}
	}
	require.Fail(h.t, "no check "+name)
	return envelope.CheckedClearance{}
}

// A goal 60 wide, 30 deep at its feet and 40 high, outside.
func TestEnvelopesByName(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 60 outside")
	h.walk(a, "up 40 outside")
	top := h.done.Joint
	h.walk(b, "up 40 outside")
	h.do(edit.Edit{Gesture: &edit.Join{From: top, To: h.done.Joint}})
	for _, j := range []string{a, b} {
		h.walk(j, "near 30")
	}
	all := h.plan().Frames[0].Overall
	check := func(name string, kind frame.ClearanceKind, say, joint string) envelope.CheckedClearance {
		h.do(edit.Edit{Gesture: &edit.ClearanceCheck{Name: name, Kind: kind, Say: say, Joint: joint}})
		return h.envelope(name)
	}
	// through the door with its depth, the smallest side, across the opening
	e := check("hall door", frame.Doorway, "32", "")
	assert.True(t, e.Fits)
	assert.Equal(t, 32*measure.Inch-all[1].Size, e.Slack[0])
	assert.Equal(t, 80*measure.Inch-all[2].Size, e.Slack[1], "upright, as high as it is")
	e = check("hall door", frame.Doorway, "28", "")
	assert.False(t, e.Fits)
	assert.Contains(t, h.codes(), "envelope")
	assert.Len(t, h.doc.ClearanceChecks, 1, "the same name is the same check")
	e = check("car", frame.Inside, "36 x 70 x 50", "")
	assert.True(t, e.Fits, "its sides in whatever order they go")
	assert.Equal(t, 36*measure.Inch-all[1].Size, e.Slack[0])
	assert.Equal(t, 70*measure.Inch-all[0].Size, e.Slack[1])
	e = check("box", frame.Over, "48 x 20 x 30", "")
	require.True(t, e.Fits, e.Words)
	posts := all[0].Size - 2*measure.FromInches(1.32)
	assert.InDelta(t, (posts - 48*measure.Inch).Inches(), e.Slack[0].Inches(), 0.3, "between the posts' feet")
	assert.False(t, check("box", frame.Over, "59 x 20 x 30", "").Fits)
	assert.True(t, check("keeper", frame.Reach, "84", "").Fits)
	assert.False(t, check("child", frame.Reach, "38", top).Fits)
	h.do(edit.Edit{Gesture: &edit.ClearanceCheck{Name: "child", Drop: true}})
	for _, bad := range []edit.ClearanceCheck{{}, {Name: "x", Kind: "hat", Say: "3"}, {Name: "x", Kind: frame.Inside, Say: "3 x 4"}, {Name: "x", Kind: frame.Reach, Say: "3", Joint: "j99"}, {Name: "x", Kind: frame.Doorway, Say: "wide"}, {Name: "gone", Drop: true}} {
		h.refused(edit.Edit{Gesture: &bad})
	}
}

// A 22-1/2 elbow is in no catalog; made once, it stands where pipes meet so.
func TestAPartOfOnesOwn(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "right 20")
	h.walk(h.done.Joint, "right up@22.5 20")
	assert.Contains(t, h.codes(), "no-fitting")
	h.do(edit.Edit{Gesture: &edit.Custom{Name: "elbow 22-1/2", Source: "bought", Ports: []string{"left 0.4", "right up@22.5 0.4"}}})
	assert.NotContains(t, h.codes(), "no-fitting")
	assert.Equal(t, map[catalog.Kind]int{"elbow 22-1/2": 1}, h.kinds())
	p := h.pipe("p1")
	assert.Equal(t, in(20-0.4), p.Exact, "its own stop is taken off")
	h.refused(edit.Edit{Gesture: &edit.Custom{Name: "tee", Ports: []string{"left 1", "right 1"}}})
	h.refused(edit.Edit{Gesture: &edit.Custom{Name: "hub", Ports: []string{"left 1", "left up@5 1"}}})
	h.refused(edit.Edit{Gesture: &edit.Custom{Name: "hub", Ports: []string{"left"}}})
	h.do(
		edit.Edit{
			Gesture: &edit.Custom{Name: "hub", Source: "printed", Ports: []string{"left 1", "right 1", "up right 1", "up left 1", "up 1"}},
		},
	)
	choices, err := plan.Choices(context.Background(), h.doc, []string{h.plan().Frames[0].Pipes[0].To}, nil)
	require.NoError(t, err)
	found := false
	for _, c := range choices {
		found = found || c.Kind == "elbow 22-1/2"
	}
	assert.True(t, found)
	h.do(edit.Edit{Gesture: &edit.Custom{Name: "elbow 22-1/2", Drop: true}})
	assert.Contains(t, h.codes(), "no-fitting")
}
