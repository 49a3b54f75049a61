package edit_test

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/plan"
)

// A foot is drawn once: half of it in front of the post, mirrored to the back.
// Making the half longer makes the other longer.
func TestAFootIsMirrored(t *testing.T) {
	h := nothing(t)
	hub := h.begin()
	h.walk(hub, "up 30")
	toe := h.do(edit.Edit{Gesture: &edit.Walk{From: hub, Line: "near 12", End: frame.CappedEnd, Name: "toe"}}).Joint
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 1, catalog.Cap: 1}, h.kinds())
	h.do(edit.Edit{Gesture: &edit.Mirror{Joints: []string{hub, toe}, Name: "foot", Axis: measure.Y, About: frame.Ref(hub)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1, catalog.Cap: 2}, h.kinds(), "a tee where the halves meet")
	assert.Equal(t, in(24), h.plan().Frames[0].Overall[1].Size-2*in(0.20), "12 each way, and two caps")
	h.do(edit.Edit{Gesture: &edit.Bay{In: "foot 1", Axis: measure.Y, Plane: h.plane("foot 1", measure.Y, 1), Length: "15"}})
	assert.Equal(t, in(30), h.plan().Frames[0].Overall[1].Size-2*in(0.20), "both follow")
	assert.Contains(t, h.done.Also, "in every one of the 2 foot")
	assert.Empty(t, h.codes())

	// by itself it may become different
	h.do(edit.Edit{Gesture: &edit.Unique{Part: "foot 2", Name: "long foot"}})
	h.do(edit.Edit{Gesture: &edit.Bay{In: "foot 2", Axis: measure.Y, Plane: h.plane("foot 2", measure.Y, 1), Length: "20"}})
	assert.Equal(t, in(35), h.plan().Frames[0].Overall[1].Size-2*in(0.20))
}

// A bay that is repeated joined comes to stand against a post that was there: the last copy meets it.
func TestJoinedCopiesMeetWhatIsThere(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	top := h.walk(a, "up 20 cut")
	right := h.walk(a, "right 12 cut")
	topRight := h.walk(top, "right 12 cut")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "bay", Joints: []string{a, top, right, topRight}}})
	stop := typical.Figure("", "3/4", catalog.Stop90).Value
	foot := h.do(edit.Edit{Gesture: &edit.Begin{From: "bay 1/" + a, Say: inches(3*(in(12)+2*stop)) + " right"}}).Joint
	h.walk(foot, "up 20 cut")
	joints := len(located(t, h.doc).Graph.Nodes)
	done := h.do(edit.Edit{Gesture: &edit.Repeat{Part: "bay 1", Count: 3, Axis: measure.X, Joined: true}})
	t.Log(done.Also)
	assert.Equal(t, joints+4-2, len(h.plan().Frames[0].Joints))
	assert.NotContains(t, h.codes(), "loose-parts")
	assert.NotContains(t, h.codes(), "no-room")
}

// A foot hangs by a pipe from a joint of the rail that is not mirrored with it: its twin is joined to what stands at the image
// of that joint, be it a joint or the bare rail, and stays there; where nothing stands there it is told.
func TestBothTwinsAreJoined(t *testing.T) {
	for _, far := range []string{"right 20 cut", "right 14 cut", ""} {
		h := nothing(t)
		left := h.begin()
		h.walk(left, "up 30 cut")
		mid := h.walk(left, "right 20 cut")
		h.walk(mid, "up 30 cut")
		if far != "" {
			h.walk(h.walk(mid, far), "right 12 cut")
		}
		foot := h.walk(left, "away 8 cut")
		toe := h.walk(foot, "down 4 cut")
		was := len(h.doc.Root.Pipes)
		done := h.do(edit.Edit{
			Gesture: &edit.Mirror{Joints: []string{foot, toe}, Name: "foot", Axis: measure.X, About: frame.Ref(mid)},
		})
		if far == "" {
			assert.Contains(t, fmt.Sprint(done.Also), "nothing stands at the image")
			continue
		}
		require.Greater(t, len(h.doc.Root.Pipes), was-1, "%s: %v", far, done.Also)
		p := h.plan()
		assert.Len(t, p.Frames[0].Pipes, map[string]int{"right 20 cut": 9, "right 14 cut": 10}[far])
		assert.NotContains(t, h.codes(), "loose-parts")
		var cuts []measure.Length
		for _, x := range p.Frames[0].Pipes {
			if strings.HasPrefix(x.From, "foot") != strings.HasPrefix(x.To, "foot") {
				cuts = append(cuts, x.Cut)
			}
		}
		assert.Equal(t, []measure.Length{in(8), in(8)}, cuts, far)
	}
}

// A part off the mirror's plane has its image as far on the other side, and
// stays so when it moves.
func TestAPartIsMirroredAcrossAStation(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	mid := h.walk(a, "right 20")
	top := h.walk(a, "up 12")
	h.do(edit.Edit{Gesture: &edit.Mirror{Joints: []string{a, top}, Name: "post", Axis: measure.X, About: h.plane("", measure.X, 1)}})
	apart := func() measure.Length { return h.pipe("post 2/p2").Bare[0][0] - h.pipe("post 1/p2").Bare[0][0] }
	assert.Equal(t, in(40), apart(), "the image is as far beyond")
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 1), Length: "25"}})
	assert.Equal(t, in(50), apart())
	n := len(h.doc.Root.Pipes)
	again := h.do(edit.Edit{Gesture: &edit.Join{From: mid, To: "post 2/" + a}})
	assert.Contains(t, again.Also[0], "already", "the pipe to the mirror is mirrored, too")
	assert.Len(t, h.doc.Root.Pipes, n)
	assert.Empty(t, h.codes())
	h.refused(edit.Edit{Gesture: &edit.Mirror{Part: "post 1", Axis: measure.X, About: h.plane("", measure.X, 8)}})
	h.refused(edit.Edit{Gesture: &edit.Mirror{Part: "post 9", Axis: measure.X, About: h.plane("", measure.X, 1)}})
}

// gate is a rectangle with a rail in the middle, as a group.
func gate(t require.TestingT) *hand {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 36")
	c := h.walk(b, "up 15")
	d := h.walk(c, "up 15")
	e := h.walk(d, "left 36")
	f := h.walk(e, "down 15")
	h.walk(f, "down 15")
	h.do(edit.Edit{Gesture: &edit.Join{From: f, To: c}})
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "section", Joints: []string{a, b, c, d, e, f}}})
	return h
}

// One section has four elbows and two tees. Three joined ones share two
// uprights: 4 elbows at the outer corners, 2 tees at the outer uprights, 4
// tees where the shared uprights meet bottom and top, and 2 crosses between.
// At a pitch the sections stand apart, each with fittings of its own.
func TestASectionThreeTimesMakesCrosses(t *testing.T) {
	h := gate(t)
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	one := h.plan()
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.X, Joined: true}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 6, catalog.Cross: 2}, h.kinds())
	p := h.plan()
	assert.Equal(t, 7*3-2*2, p.Totals.Pieces, "two pieces a shared upright are there once")
	assert.Equal(t, in(3*36)+one.Frames[0].Overall[0].Size-in(36), p.Frames[0].Overall[0].Size)
	assert.Empty(t, h.codes())

	h.do(edit.Edit{Gesture: &edit.Bay{In: "section 1#1", Axis: measure.X, Plane: h.plane("section 1#1", measure.X, 1), Length: "30"}})
	assert.Equal(t, in(3*30)+one.Frames[0].Overall[0].Size-in(36), h.plan().Frames[0].Overall[0].Size)

	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "section 1#1", Count: 2, Axis: measure.Y, Pitch: "24 clear"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 8, catalog.Tee: 4}, h.kinds())
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "section 1#1", Count: 1}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	h.refused(edit.Edit{Gesture: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.Y, Joined: true}})
	h.refused(edit.Edit{Gesture: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.X}})
	h.refused(edit.Edit{Gesture: &edit.Repeat{Part: "section 1", Count: 501, Axis: measure.X, Joined: true}})
}

// A pipe drawn to a part's joint, a joint set dry and a driven size keep their
// place when the part becomes an array.
func TestNamesFollowIntoGroupsAndArrays(t *testing.T) {
	h := gate(t)
	h.doc.ModeRules = []frame.ModeRule{{Joint: "section 1/j1", Mode: frame.Slip}}
	h.walk("section 1/j1", "near 10")
	h.doc.Tolerances = []frame.Tolerance{{Pipe: "section 1/p1", Class: frame.Trim}}
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "section 1", Count: 2, Axis: measure.X, Joined: true}})
	assert.Equal(t, "section 1#1/j1", h.doc.ModeRules[0].Joint)
	assert.Equal(t, "section 1#1/p1", h.doc.Tolerances[0].Pipe)
	assert.Equal(t, "section 1#1/j1", h.doc.Root.Pipes[0].From)
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "section 1#1", Count: 1}})
	assert.Equal(t, "section 1/j1", h.doc.ModeRules[0].Joint)
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "all", Joints: []string{"section 1/j1", h.doc.Root.Joints[0].ID}}})
	assert.Equal(t, "all 1/section 1/j1", h.doc.ModeRules[0].Joint)
	assert.Equal(t, map[catalog.Kind]int{catalog.SideOutletElbow: 1, catalog.Elbow90: 3, catalog.Tee: 2}, h.kinds())
}

// A group turned a quarter, and one turned by 30 degrees.
func TestAPartIsTurned(t *testing.T) {
	h := gate(t)
	over := h.plan().Frames[0].Overall
	h.do(edit.Edit{Gesture: &edit.Turn{Part: "section 1", About: measure.Z, By: 90}})
	now := h.plan().Frames[0].Overall
	assert.Equal(t, over[0].Size, now[1].Size)
	assert.Equal(t, over[1].Size, now[0].Size)
	h.do(edit.Edit{Gesture: &edit.Turn{Part: "section 1", About: measure.Z, By: -90}})
	assert.Empty(t, h.doc.Root.Uses[0].Turns, "back again")
	h.do(edit.Edit{Gesture: &edit.Turn{Part: "section 1", About: measure.Y, By: 30}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	assert.Empty(t, h.codes())
	h.refused(edit.Edit{Gesture: &edit.Turn{Part: "section 1", About: measure.Y}})
}

// Another post like the last, another rail like the first, one between, and
// one away again.
func TestColumnsAndLevelsAreCopied(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 40")
	c := h.walk(b, "up 30")
	d := h.walk(c, "left 40")
	h.walk(d, "down 30")
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 1), Like: h.plane("", measure.X, 1)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds(), "a second bay")
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.Z, After: h.plane("", measure.Z, 0), Like: h.plane("", measure.Z, 0)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 4, catalog.Cross: 1}, h.kinds(), "a rail in the middle")
	assert.Equal(t, in(80), h.plan().Frames[0].Overall[0].Size-in(1.32))
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 0), Length: "10", Like: h.plane("", measure.X, 1)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 6, catalog.Cross: 2}, h.kinds(), "a post ten from the first")
	h.do(edit.Edit{Gesture: &edit.Remove{Axis: measure.X, Plane: h.plane("", measure.X, 2)}})
	assert.Equal(
		t,
		map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 4, catalog.Cross: 1},
		h.kinds(),
		"the rails run on where it stood",
	)
	over := h.plan().Frames[0].Overall[0]
	assert.InDelta(t, 80, (over.Size - in(1.32)).Inches(), 1e-6, "what stood beyond it stays")
	h.do(edit.Edit{Gesture: &edit.Remove{Axis: measure.X, Plane: h.plane("", measure.X, 0)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds(), "the first goes too, and another is the origin")
	assert.InDelta(t, 70, (h.plan().Frames[0].Overall[0].Size - in(1.32)).Inches(), 1e-6)
	assert.Empty(t, h.codes())
}

// A post copied with rails from some of its joints, and again like the last bay.
func TestAWallFromOnePost(t *testing.T) {
	h := nothing(t)
	low := h.do(edit.Edit{Gesture: &edit.Walk{Line: "up 6"}}).Joint
	top := h.walk(low, "up 21 x2")
	hub, mid := h.doc.Root.Joints[0].ID, h.doc.Root.Joints[2].ID
	h.walk(hub, "near 12 capped")
	h.walk(hub, "away 12 capped")
	h.do(
		edit.Edit{
			Gesture: &edit.Insert{
				Axis:   measure.X,
				After:  h.plane("", measure.X, 0),
				Like:   h.plane("", measure.X, 0),
				Length: "46 clear",
				Rails:  []string{low, mid, top},
			},
		},
	)
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 1), Like: h.plane("", measure.X, 1)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 3 + 4 + 1, catalog.Cross: 2, catalog.Elbow90: 2, catalog.Cap: 6}, h.kinds())
	assert.Equal(t, 6, h.n, "gestures")
	stations := h.plan().Frames[0].Places[0].Planes[0]
	assert.Equal(t, in(46+1.05), stations[1].At-stations[0].At)
	assert.Equal(t, in(46+1.05), stations[2].At-stations[1].At)
	assert.Empty(t, h.codes())
	h.refused(
		edit.Edit{
			Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 2), Like: h.plane("", measure.X, 2), Rails: []string{low}},
		},
	)
}

// The same with posts that are uses of a group.
func TestAColumnOfAGroupIsCopied(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	top := h.walk(a, "up 30")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "post", Joints: []string{a, top}}})
	free := h.walk("post 1/"+top, "right 40")
	h.walk("post 1/"+a, "right 40")
	h.do(edit.Edit{Gesture: &edit.Place{Group: "post", On: h.done.Joint}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4}, h.kinds(), "it takes the place of the two free ends, "+free)
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 1), Like: h.plane("", measure.X, 1)}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	h.do(edit.Edit{Gesture: &edit.Bay{In: "post 1", Axis: measure.Z, Plane: h.plane("post 1", measure.Z, 1), Length: "20"}})
	assert.InDelta(t, 20, (h.plan().Frames[0].Overall[2].Size - in(1.32)).Inches(), 1e-6, "all three follow")
}

// An octagon with spokes: 8 45s, 4 tees for the spokes and a cross between
// them; its flats are as far apart as was said, both ways, in any meaning.
func TestAnOctagonWithSpokes(t *testing.T) {
	h := nothing(t)
	h.do(edit.Edit{Gesture: &edit.Ring{Sides: 8, Across: "36 outside", Square: measure.Y, Spokes: true}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow45: 8, catalog.Tee: 4, catalog.Cross: 1}, h.kinds())
	p := h.plan()
	assert.Equal(t, in(36), p.Frames[0].Overall[0].Size)
	assert.Equal(t, in(36), p.Frames[0].Overall[2].Size)
	cuts := map[measure.Length]int{}
	for _, c := range p.Cuts {
		cuts[c.Cut] += c.Count
	}
	assert.Len(t, cuts, 3, "four whole sides, eight halves and four spokes: %v", cuts)
	assert.Empty(t, h.codes())
	// 36 less half a body at each side: 34.68 across; a side is that times
	// tan 22.5° = 14.365; less two stops of a 45
	assert.Equal(t, 4, cuts[in(14.365-2*0.3125).Round(measure.Inch/16)])
	var across string
	for _, z := range h.doc.Root.Sizes {
		if z.Label == "Across" {
			across = z.ID
		}
	}
	h.do(edit.Edit{Gesture: &edit.Size{ID: across, Length: "30 outside"}})
	assert.Equal(t, in(30), h.plan().Frames[0].Overall[2].Size, "both ways")
	h.asks(&edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 4), Length: "8"})
}

func TestRings(t *testing.T) {
	for sides, want := range map[int]map[catalog.Kind]int{4: {catalog.Elbow90: 4}, 8: {catalog.Elbow45: 8}} {
		h := nothing(t)
		h.do(edit.Edit{Gesture: &edit.Ring{Sides: sides, Side: "12 cut", Square: measure.Z}})
		assert.Equal(t, want, h.kinds())
		assert.Empty(t, h.codes())
		for _, p := range h.plan().Frames[0].Pipes {
			assert.Equal(t, in(12), p.Cut)
		}
	}
	h := nothing(t)
	h.do(edit.Edit{Gesture: &edit.Ring{Sides: 6, Side: "12 cut", Square: measure.Z}})
	assert.Contains(t, h.codes(), "no-fitting", "60 degrees have none")
}

// A frame that is square in itself stands tilted, and up again.
func TestAFrameStandsTilted(t *testing.T) {
	h := gate(t)
	over := h.plan().Frames[0].Overall
	h.do(edit.Edit{Gesture: &edit.Stand{Turns: []frame.Turn{{About: measure.X, By: 90}}}})
	assert.Equal(t, over[2].Size, h.plan().Frames[0].Overall[1].Size, "laid on its back")
	h.do(edit.Edit{Gesture: &edit.Stand{}})
	assert.Equal(t, over, h.plan().Frames[0].Overall)
}

// A height belongs to the stance that it was typed in: turning the part moves
// no cut.
func TestATurnedPartKeepsItsHeight(t *testing.T) {
	other := nothing(t)
	other.walk("", "right 10 cut")
	other.walk("j2", "up 30 top")
	cut := other.pipe("p2").Cut
	h := nothing(t)
	far := h.walk("", "near 40 cut")
	part := h.do(edit.Edit{Gesture: &edit.Bring{From: *other.doc, On: far}}).Part
	for _, turn := range []edit.Turn{{Part: part, About: measure.Y, By: 30}, {Part: part, About: measure.Y, By: 60}, {Part: part, About: measure.X, By: -45}} {
		h.do(edit.Edit{Gesture: &turn})
		assert.NotContains(t, h.codes(), "height-on-a-slope")
		assert.Equal(t, cut, h.pipe(part+"/p2").Cut, "turned about %s by %g", turn.About, turn.By)
	}
}

// A pitch is typed like any other size: what becomes of it is told.
func TestAPitchThatGoesIsTold(t *testing.T) {
	h := nothing(t)
	h.walk("", "up 10 cut")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "post", Joints: []string{"j1", "j2"}}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1", Count: 3, Pitch: "20"}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1#1", Count: 3, Pitch: "24 clear"}})
	require.Len(t, h.done.GivenUp, 1)
	assert.Equal(
		t,
		edit.GivenUp{Size: "s2", Was: "20 centre to centre from copy to copy", Now: "24 clear", Words: "typed instead"},
		h.done.GivenUp[0],
	)
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1#1", Count: 5}})
	assert.Empty(t, h.done.GivenUp, "the pitch stays")
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "post 1#1", Count: 1}})
	require.Len(t, h.done.GivenUp, 1)
	assert.Equal(t, "24 clear from copy to copy", h.done.GivenUp[0].Was)
}

// A hoop is refused what it cannot do, whichever size says so.
func TestAHoopKeepsAWay(t *testing.T) {
	h := nothing(t)
	h.walk("", "hoop right 40 of 5 ft")
	span := h.doc.Root.Sizes[1].ID
	r := h.refused(edit.Edit{Gesture: &edit.Size{ID: span, Length: "70"}})
	assert.Contains(t, r.Hint, "longer first")
	h.do(edit.Edit{Gesture: &edit.Size{ID: span, Length: "50"}})
	h = nothing(t)
	h.walk("", "bend up 20, right 24, radius 6")
	r = h.refused(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "40"}})
	assert.Contains(t, r.What, "its cut follows from its legs")
}

// Whatever is deleted along a slope, what is left stands where it stood: both
// coordinates of a slope without a size are free together.
func TestWhatIsLeftOfASlopeStaysWhereItStood(t *testing.T) {
	h := nothing(t)
	h.walk("", "right away 10 cut")
	far := h.walk("j2", "right away 10 cut")
	h.walk("j1", "right 10 cut")
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}})
	at := func() measure.Point {
		for _, j := range h.plan().Frames[0].Joints {
			if j.ID == far {
				return j.At
			}
		}
		return measure.Point{}
	}
	before := at()
	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{"j2"}}})
	assert.Less(t, before.Distance(at()), measure.Inch/100)
	assert.NotContains(t, h.codes(), "nothing-holds")
	assert.NotContains(t, h.codes(), "not-settled")
	// a leg that slides keeps with the pipe that it slides in
	h = nothing(t)
	h.walk("", "right 10 cut")
	far = h.walk("j2", "near 12 clear")
	h.do(edit.Edit{Gesture: &edit.Slide{Joint: far, Say: "20", Size: "1/2"}})
	before = at()
	h.do(edit.Edit{Gesture: &edit.Size{ID: h.doc.Root.Sizes[1].ID, Length: ""}})
	assert.Less(t, before.Distance(at()), measure.Inch/100)
	assert.NotContains(t, h.codes(), "nothing-holds")
}

// A cut is that of the piece, whichever way it runs: an inner pipe that happened
// to lie along an axis slopes once its place there has gone.
func TestACutGoesThePipesOwnWay(t *testing.T) {
	h := nothing(t)
	h.walk("", "left 1")
	h.walk("j2", "left 1")
	h.do(edit.Edit{Gesture: &edit.Slide{Joint: "j1", Say: "10 visible", Size: "1/2"}})
	h.walk("j1", "away 1")
	h.walk("j5", "up right 1 clear")
	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{"j2"}}})
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p3", Length: "10"}})
	assert.Equal(t, 10*measure.Inch, h.pipe("p3").Cut)
}

// What stands only as something outside a part says is held within the part when it is
// repeated, so that the copies are like it, joined or not.
func TestCopiesAreLikeThePart(t *testing.T) {
	for _, g := range []*edit.Repeat{
		{Part: "tips 1", Count: 3, Axis: measure.Y, Pitch: "30"},
		{Part: "tips 1", Count: 3, Axis: measure.X, Pitch: "40"},
		{Part: "tips 1", Count: 3, Axis: measure.X, Joined: true},
	} {
		h := nothing(t)
		h.walk(h.walk(h.begin(), "right 20 centre"), "up 10 centre")
		h.walk("j1", "up 10 centre")
		h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "tips", Joints: []string{"j3", "j4"}}})
		h.do(edit.Edit{Gesture: g})
		assert.NotContains(t, h.codes(), "sizes-contradict")
		l, err := model.Locate(context.Background(), h.doc, catalog.Typical())
		require.NoError(t, err)
		for k := 1; k <= 3; k++ {
			at := func(j string) measure.Point { return l.Points[l.Graph.Node(fmt.Sprintf("tips 1#%d/%s", k, j))] }
			assert.Equal(t, measure.Point{20 * measure.Inch}, at("j3").Sub(at("j4")), "copy %d of %+v", k, *g)
		}
	}
}

// A part that is flipped pulls against what stands between its joints: what gives way is asked before anything meets, and
// two joints of the part never become one.
func TestAPartIsFlippedAgainstWhatStandsBetween(t *testing.T) {
	h := nothing(t)
	from := h.begin()
	to := h.walk(from, "right away 10 cut")
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: h.doc.Root.Pipes[0].ID}})
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "ends", Joints: []string{from, to}}})
	flip := &edit.Flip{Part: "ends 1", Axis: measure.X}
	tried := 0
	for _, o := range h.asks(flip).Options {
		doc, done, err := plan.Edit(context.Background(), h.doc, edit.Edit{Gesture: flip, Answers: []string{o.ID}}, nil)
		var more *edit.Question
		var none *edit.Refusal
		if errors.As(err, &more) || errors.As(err, &none) {
			continue
		}
		require.NoError(t, err, o.Label)
		tried++
		holds(t, h.doc, &hand{t: t, doc: doc}, done)
		g := frameOf(t, doc)
		assert.NotEqual(t, g.Node("ends 1/"+from), g.Node("ends 1/"+to), o.Label)
	}
	assert.Positive(t, tried)
}
