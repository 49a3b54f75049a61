package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// What is set for a pipe follows it into a group, and goes with it.
func TestAClassFollowsItsPipe(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 20")
	h.walk(b, "up 20")
	h.do(edit.Edit{Gesture: &edit.Tolerance{Pipes: []string{"p1", "p2"}, Class: frame.Matched}})
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "arm", Joints: []string{a, b}}})
	assert.Equal(t, frame.Matched, h.doc.Tolerance("arm 1/p1").Class)
	assert.Equal(t, frame.Matched, h.doc.Tolerance("p2").Class)
	assert.Len(t, h.doc.Tolerances, 2)
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p2"}}})
	assert.Len(t, h.doc.Tolerances, 1)
	h.do(edit.Edit{Gesture: &edit.Tolerance{Pipes: []string{"arm 1/p1"}, Class: frame.OnFrame, Extra: "3"}})
	h.do(edit.Edit{Gesture: &edit.Tolerance{Pipes: []string{"arm 1/p1"}, Class: frame.OnFrame, Measured: "19 1/4"}})
	assert.Equal(
		t,
		frame.Tolerance{Pipe: "arm 1/p1", Class: frame.OnFrame, Extra: in(3), Measured: in(19.25)},
		h.doc.Tolerances[0],
		"its reserve is remembered",
	)
	assert.Contains(t, h.done.Label, "measured 19 1/4")
}

// A slide's line: how far it shows, then what more, in any order.
func TestASlidesLine(t *testing.T) {
	for say, want := range map[string][4]measure.Length{
		"10":                                   {in(10), in(4 * 1.66), 0, 0},
		"10 inside 8":                          {in(10), in(8), 0, 0},
		"10 pitch 2 pin 1/4":                   {in(10), in(4 * 1.66), in(2), in(0.25)},
		"6 in PIN 3/8 inside 1 ft pitch 1 1/2": {in(6), in(12), in(1.5), in(0.375)},
	} {
		h := nothing(t)
		h.doc.Size = "1-1/4"
		foot := h.walk(h.begin(), "down 24")
		h.do(edit.Edit{Gesture: &edit.Slide{Joint: foot, Say: say}})
		var shows, inside measure.Length
		for _, s := range h.doc.Root.Sizes {
			switch s.Label {
			case "Shows":
				shows = s.Value
			case "Inside":
				inside = s.Value
			}
		}
		l := h.doc.Root.Links[0]
		assert.Equal(t, want, [4]measure.Length{shows, inside, l.Pitch, l.Rod}, say)
		assert.Equal(t, frame.FreeEnd, h.doc.Root.Joints[1].End, "the outer end is open on purpose")
	}
	h := nothing(t)
	foot := h.walk(h.begin(), "down 24")
	h.doc.Size = "1/2"
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Slide{Joint: foot, Say: "10"}}).What, "nothing slides")
	h.doc.Size = "2-1/2"
	for _, bad := range []string{"", "long", "10 pitch wide", "10 inside"} {
		h.refused(edit.Edit{Gesture: &edit.Slide{Joint: foot, Say: bad}})
	}
}

// The image of a part that folds folds the other way, so that both come to the
// same size.
func TestAMirroredPartFoldsTheOtherWay(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	top := h.walk(a, "up 40")
	b := h.walk(a, "away 1.05")
	far := h.walk(b, "up 20")
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p2"}}})
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Pivot, On: []string{"p1 at 10", "p3 at 10"}, Fold: 70}})
	h.walk("j1", "right 60") // something to mirror about
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "arm", Joints: []string{a, top, b, far}}})
	h.do(edit.Edit{Gesture: &edit.Mirror{Part: "arm 1", Axis: measure.X, About: h.plane("", measure.X, 1)}})
	all := h.plan().Frames[0].Links
	require.Len(t, all, 2)
	// the rail's elbow and bare end differ by a hair; the wrong way round would be inches
	assert.InDelta(t, all[0].States[1].Size[0].Inches(), all[1].States[1].Size[0].Inches(), 0.2)
	assert.Equal(t, -all[0].States[1].Angle, all[1].States[1].Angle)
}

// A hoop drawn in a part comes with every copy, and is split in all of them.
func TestAHoopInAGroupIsOneHoop(t *testing.T) {
	h := nothing(t)
	h.doc.Size = "1/2"
	h.walk("", "hoop right 120 rise 20 staked")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "hoop", Joints: []string{"j1", "j2"}}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "hoop 1", Count: 3, Axis: measure.Y, Pitch: "30"}})
	require.Len(t, h.plan().Frames[0].Pipes, 3)
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "hoop 1#2/p1"}})
	assert.Len(t, h.plan().Frames[0].Pipes, 6)
	assert.Contains(t, h.done.Also, "in every one of the 3 hoop")
	for _, p := range h.plan().Frames[0].Pipes {
		assert.Equal(t, frame.Sprung, p.Path)
	}
	h.do(edit.Edit{Gesture: &edit.Bay{In: "hoop 1#1", Axis: measure.Z, Plane: h.plane("hoop 1#1", measure.Z, 1), Length: "24"}})
	assert.Empty(t, h.codes())
	assert.InDelta(t, 24.4, h.plan().Frames[0].Overall[2].Size.Inches(), 0.6, "the crown's height is a station: the halves follow")
}
