package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
)

func (h *hand) link(n int) link.Report {
	all := h.plan().Frames[0].Links
	require.Greater(h.t, len(all), n)
	return all[n]
}

func TestAPivotFolds(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "up 40")
	// a second leg a pipe's thickness away, from a joint of its own
	b := h.walk(a, "away 1.05")
	h.walk(b, "up 40")
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p2"}}})
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Pivot, On: []string{"p1 at 20", "p3 at 20"}, Rod: "1/4", Fold: 60}})
	r := h.link(0)
	assert.InDelta(t, 0, r.Gap.Inches(), 0.001, "1.05 apart: they touch")
	// 2 × 1.05, two washers of 1/16, a nut of 7/32 and two threads of 1/8
	assert.InDelta(t, 2.1+0.125+0.21875+0.125, r.Length.Inches(), 0.001)
	assert.Equal(t, r.Length, r.Sum.Total())
	require.Len(t, r.States, 2)
	assert.InDelta(t, 40, r.States[0].Size[2].Inches(), 0.01)
	// as it lies best: both legs 30° off the level, 40 × cos 30° and 40 × sin 30°, and a pipe's thickness
	assert.InDelta(t, 40*0.866+1.05*0.5, r.States[1].Size[0].Inches(), 0.03)
	assert.InDelta(t, 40*0.5+1.05*0.866, r.States[1].Size[2].Inches(), 0.03)
	assert.Empty(t, r.Hits)
	assert.Equal(t, []string{"p3"}, r.Moves)
	assert.NotContains(t, h.codes(), "no-room")
	assert.NotContains(t, h.codes(), "loose-parts")
	// in one plane they would lie in each other
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.Y, Plane: h.plane("", measure.Y, 1), Length: "1/2"}})
	assert.Contains(t, h.codes(), "pivot-in-plane")
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.Y, Plane: h.plane("", measure.Y, 1), Length: "1.05"}})
	// a post in the way of the turning leg's foot
	h.walk("j1", "left 12")
	h.walk(h.done.Joint, "away 1.05")
	h.walk(h.done.Joint, "up 6")
	r = h.link(0)
	require.NotEmpty(t, r.Hits)
	assert.Contains(t, h.codes(), "fold-hits")
	id := r.ID
	h.do(edit.Edit{Gesture: &edit.Link{ID: id, Fold: 5}})
	assert.Empty(t, h.link(0).Hits)
	h.do(edit.Edit{Gesture: &edit.Link{ID: id, Drop: true}})
	assert.Empty(t, h.plan().Frames[0].Links)
}

func TestALegThatTelescopes(t *testing.T) {
	h := nothing(t)
	h.doc.Size = "1-1/4"
	a := h.begin()
	foot := h.walk(a, "down 24")
	h.walk(a, "right 30")
	h.do(edit.Edit{Gesture: &edit.Slide{Joint: foot, Say: "10 pitch 2 pin 1/4"}})
	r := h.link(0)
	assert.Equal(t, frame.Telescope, r.Kind)
	require.NotNil(t, r.Fit)
	assert.Contains(t, []fit.Verdict{fit.Tight, fit.Slides}, r.Fit.Verdict)
	// 4 × 1.660 = 6.64 inside, 10 shows: the piece is 16.64. At least 2 × 1.660
	// stay inside, so at most 13.32 show; all of it goes into 24 less the elbow.
	assert.InDelta(t, 10, r.Length.Inches(), 0.001)
	assert.InDelta(t, 13.32, r.Range[1].Inches(), 0.001)
	assert.InDelta(t, 0, r.Range[0].Inches(), 0.001)
	assert.Equal(t, 7, r.Holes, "0 to 13.32 in steps of 2")
	assert.Empty(t, h.codes(), "what is in each other is meant to be")
	assert.InDelta(t, 24+10+0.25, h.plan().Frames[0].Overall[2].Size.Inches()-0.83, 0.3)
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "leg", Joints: []string{a, foot, h.done.Joint, "j4"}}})
	assert.Len(t, h.doc.Groups[0].Links, 1, "the link goes with what it links")
	assert.Equal(t, "leg 1/telescope 1", h.link(0).ID)
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Slide{Joint: "leg 1/" + a, Say: "10"}}).What, "no free end")
	h.do(edit.Edit{Gesture: &edit.Resize{Pipe: "leg 1/p1", Size: "1"}})
	assert.Contains(t, h.codes(), "does-not-go-in")
}

func TestAnAxleIsAsLongAsWhatIsOnIt(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 20")
	for _, j := range []string{a, b} {
		h.walk(j, "up 12")
		h.walk(j, "away 30")
	}
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Axle, On: []string{a, b}, Rod: "1/2", Wheel: "8", Hub: "1 1/2"}})
	r := h.link(0)
	// over the bodies 20 + 2 × 0.66, four washers 1/4, two hubs 3, two nuts of
	// 7/16, two threads at each end 1/4
	assert.InDelta(t, 20+1.32+0.25+3+0.875+0.25, r.Length.Inches(), 0.01)
	assert.NotNil(t, r.Fit)
	all := []string{}
	for _, f := range h.plan().Findings {
		all = append(all, f.Code)
	}
	assert.Contains(t, all, "wheels-lift", "8 in wheels on an axle 0.66 above the floor")
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Axle, On: []string{a, b}, Rod: "1", Wheel: "8"}})
	assert.Contains(t, h.codes(), "rod-too-thick")
	assert.Contains(t, h.codes(), "no-hub")
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Tie, On: []string{"p1 at 3", "p1 at 5"}, Count: 4}})
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{"p1"}, Count: 3}})
	assert.Contains(t, h.link(3).Words, "3 clips")
	assert.Equal(t, "1", h.link(3).Needs[0].Size, "what grips 3/4 pipe is cut from 1 in pipe")
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Sleeve, On: []string{"p1"}, Size: "1"}})
	assert.Contains(t, h.codes(), "does-not-go-in", "3/4 pipe does not go into 1 in pipe")
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Rod, On: []string{"j3"}, Rod: "3/4"}})
	assert.Equal(t, fit.Slides, h.link(5).Fit.Verdict)
	n := len(h.plan().Frames[0].Links)
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p1"}}})
	assert.Less(t, len(h.plan().Frames[0].Links), n, "links go with their pipes")
	for _, bad := range []edit.Link{{Kind: "glue"}, {Kind: frame.Pivot, On: []string{a}}, {Kind: frame.Tie, On: []string{"p9", "p2"}}, {Kind: frame.Rod, On: []string{"p2 at 400"}}, {Kind: frame.Rod, On: []string{"p2 at 4 from j99"}}, {ID: "none"}, {Kind: frame.Rod, On: []string{"p2"}, Rod: "x"}} {
		h.refused(edit.Edit{Gesture: &bad})
	}
}
