package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/measure"
)

// A row of posts by a foot: copies that stand by themselves are told at once, with the rails that
// would join them; the rails follow the count, up and down.
func TestRailsFollowTheirPosts(t *testing.T) {
	h := nothing(t)
	h.walk("", "near 8 cut capped")
	h.walk("j1", "away 8 cut capped")
	h.walk("j1", "up 30 cut")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "post", Joints: []string{"j1", "j2", "j3", "j4"}}})
	done := h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1", Count: 3, Axis: measure.X, Pitch: "40"}})
	assert.Contains(t, done.Also, "the copies stand by themselves: nothing joins them yet")
	require.NotEmpty(t, done.Offers)
	assert.Equal(t, "Join them at the top: 2 pipes", done.Offers[0].Label)
	h.do(done.Offers[0].Edit)
	assert.Len(t, h.plan().Frames[0].Pipes, 3*3+2)
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 2, catalog.Tee: 4, catalog.Cap: 6}, h.kinds())

	done = h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1#1", Count: 5, Axis: measure.X}})
	assert.Contains(t, done.Also, "2 more pipes join the copies")
	assert.Empty(t, done.Offers, "all hangs together")
	assert.Len(t, h.plan().Frames[0].Pipes, 5*3+4)
	assert.Empty(t, h.codes())
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1#1", Count: 2, Axis: measure.X}})
	assert.Len(t, h.plan().Frames[0].Pipes, 2*3+1)
}

// A spine follows its hoops: from the crown of each to the next, however many there are.
func TestASpineFollowsItsHoops(t *testing.T) {
	h := nothing(t)
	h.walk("", "hoop right 96 rise 40 staked")
	crown := h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}}).Joint
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "70 cut"}, Answers: []string{"follows s1"}})
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "hoop", Joints: []string{"j1", "j2", crown}}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "hoop 1", Count: 3, Axis: measure.Y, Pitch: "36", Rails: []string{"hoop 1/" + crown}}})
	assert.Len(t, h.plan().Frames[0].Pipes, 3*2+2)
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "hoop 1#1", Count: 6, Axis: measure.Y}})
	p := h.plan()
	assert.Len(t, p.Frames[0].Pipes, 6*2+5)
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 2, catalog.Cross: 4}, h.kinds())
	for _, x := range p.Frames[0].Pipes {
		if x.Path == "sprung" {
			assert.Equal(t, in(70), x.Cut, "each side is as long as was said: %s", x.Pipe)
		}
	}
}

// Of a hoop's side, rise and span two are said and the third follows, whichever way round.
func TestAHoopFromWhatIsKnown(t *testing.T) {
	hoop := func() *hand {
		h := nothing(t)
		h.walk("", "hoop right 132 rise 60 staked")
		h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}})
		return h
	}
	// the rise from side and span
	h := hoop()
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "10 ft cut"}, Answers: []string{"follows s1"}})
	assert.Equal(t, in(120), h.pipe("p1").Cut)
	assert.Equal(t, in(120), h.pipe("p2").Cut)
	high := h.plan().Frames[0].Overall[2].Size
	assert.InDelta(t, 87.3, high.Inches(), 0.1)
	// a longer side stands higher, at the same span
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p2", Length: "130 cut"}})
	assert.Equal(t, in(130), h.pipe("p1").Cut)
	assert.Greater(t, h.plan().Frames[0].Overall[2].Size, high)
	// typing the rise asks which of the three follows now
	require.False(t, h.try(&edit.Size{ID: "s1", Length: "70"}))
	var q *edit.Question
	require.ErrorAs(t, h.err, &q)
	require.Len(t, q.Options, 3)
	h.do(edit.Edit{Gesture: &edit.Size{ID: "s1", Length: "70"}, Answers: []string{"follows s3"}})
	assert.Equal(t, in(130), h.pipe("p1").Cut, "the span follows")
	// the span from side and rise
	h = hoop()
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "10 ft cut"}, Answers: []string{"follows s3"}})
	assert.Equal(t, in(120), h.pipe("p1").Cut)
	assert.InDelta(t, 198, h.plan().Frames[0].Overall[0].Size.Inches(), 2)
	assert.Contains(
		t,
		hoop().refused(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "60 cut"}, Answers: []string{"follows s1"}}).What,
		"does not reach",
	)
	assert.Contains(t, hoop().refused(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "60 clear"}}).Hint, "say cut")
}

// The whole over several bays is a size like any other: what it contradicts is asked about, and
// bays that are even go with it.
func TestTheWholeIsASize(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 40 x2")
	for _, j := range []string{"j1", "j2", "j3"} {
		h.walk(j, "up 30")
	}
	require.False(t, h.try(&edit.Overall{Axis: measure.X, Length: "90"}))
	var q *edit.Question
	require.ErrorAs(t, h.err, &q)
	h.do(edit.Edit{Gesture: &edit.Overall{Axis: measure.X, Length: "90"}, Answers: []string{"size s2"}})
	assert.Equal(t, in(90), h.plan().Frames[0].Overall[0].Size)
	h.do(edit.Edit{Gesture: &edit.Even{Axis: measure.X, From: "j1", To: "j3"}})
	h.do(edit.Edit{Gesture: &edit.Overall{Axis: measure.X, Length: "7 ft outside"}})
	p := h.plan()
	assert.Equal(t, in(84), p.Frames[0].Overall[0].Size)
	assert.Equal(t, h.pipe("p1").Cut, h.pipe("p2").Cut, "the bays are even still")
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Overall{Axis: measure.X, Length: "7 ft cut"}}).Hint, "outside")
	assert.Contains(t, nothing(t).refused(edit.Edit{Gesture: &edit.Overall{Axis: measure.X, Length: "7 ft"}}).Hint, "draw it first")
	// 0 centre is a size
	h = nothing(t)
	h.walk("", "right 40")
	h.walk("j2", "up 10")
	h.walk("j1", "up 12")
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.Z, Plane: "j4", Length: "0 centre"}, Answers: []string{"size s3"}})
	assert.Equal(t, in(10), h.pipe("p3").Centre, "level with the other")
}
