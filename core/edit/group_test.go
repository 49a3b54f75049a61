package edit_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// A foot is drawn once: half of it in front of the post, mirrored to the back.
// Making the half longer makes the other longer.
func TestAFootIsMirrored(t *testing.T) {
	h := nothing(t)
	hub := h.begin()
	h.walk(hub, "up 30")
	toe := h.do(edit.Edit{Walk: &edit.Walk{From: hub, Course: "near 12", End: frame.CappedEnd, Name: "toe"}}).Joint
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 1, catalog.Cap: 1}, h.kinds())
	h.do(edit.Edit{Mirror: &edit.Mirror{Joints: []string{hub, toe}, Name: "foot", Axis: measure.Y, About: "y1"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1, catalog.Cap: 2}, h.kinds(), "a tee where the halves meet")
	assert.Equal(t, in(24), h.plan().Frames[0].Overall[1].Size-2*in(0.20), "12 each way, and two caps")
	h.do(edit.Edit{Bay: &edit.Bay{In: "foot 1", Axis: measure.Y, Station: "y1", Length: "15"}})
	assert.Equal(t, in(30), h.plan().Frames[0].Overall[1].Size-2*in(0.20), "both follow")
	assert.Contains(t, h.done.Also, "in every one of the 2 foot")
	assert.Empty(t, h.codes())

	// by itself it may become different
	h.do(edit.Edit{Unique: &edit.Unique{Part: "foot 2", Name: "long foot"}})
	h.do(edit.Edit{Bay: &edit.Bay{In: "foot 2", Axis: measure.Y, Station: "y1", Length: "20"}})
	assert.Equal(t, in(35), h.plan().Frames[0].Overall[1].Size-2*in(0.20))
}

// A part off the mirror's plane has its image as far on the other side, and
// stays so when it moves.
func TestAPartIsMirroredAcrossAStation(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	mid := h.walk(a, "right 20")
	top := h.walk(a, "up 12")
	h.do(edit.Edit{Mirror: &edit.Mirror{Joints: []string{a, top}, Name: "post", Axis: measure.X, About: "x2"}})
	assert.Equal(t, in(40), h.pipe("post 2/p2").Bare[0][0], "the image is as far beyond")
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x2", Length: "25"}})
	assert.Equal(t, in(50), h.pipe("post 2/p2").Bare[0][0])
	h.do(edit.Edit{Join: &edit.Join{From: mid, To: "post 2/" + a}})
	assert.Empty(t, h.codes())
	h.refused(edit.Edit{Mirror: &edit.Mirror{Part: "post 1", Axis: measure.X, About: "x9"}})
	h.refused(edit.Edit{Mirror: &edit.Mirror{Part: "post 9", Axis: measure.X, About: "x2"}})
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
	h.do(edit.Edit{Join: &edit.Join{From: f, To: c}})
	h.do(edit.Edit{Group: &edit.Group{Name: "section", Joints: []string{a, b, c, d, e, f}}})
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
	h.do(edit.Edit{Repeat: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.X, Joined: true}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 6, catalog.Cross: 2}, h.kinds())
	p := h.plan()
	assert.Equal(t, 7*3-2*2, p.Totals.Pieces, "two pieces a shared upright are there once")
	assert.Equal(t, in(3*36)+one.Frames[0].Overall[0].Size-in(36), p.Frames[0].Overall[0].Size)
	assert.Empty(t, h.codes())

	h.do(edit.Edit{Bay: &edit.Bay{In: "section 1#1", Axis: measure.X, Station: "x2", Length: "30"}})
	assert.Equal(t, in(3*30)+one.Frames[0].Overall[0].Size-in(36), h.plan().Frames[0].Overall[0].Size)

	h.do(edit.Edit{Repeat: &edit.Repeat{Part: "section 1#1", Count: 2, Axis: measure.Y, Pitch: "24 clear"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 8, catalog.Tee: 4}, h.kinds())
	h.do(edit.Edit{Repeat: &edit.Repeat{Part: "section 1#1", Count: 1}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	h.refused(edit.Edit{Repeat: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.Y, Joined: true}})
	h.refused(edit.Edit{Repeat: &edit.Repeat{Part: "section 1", Count: 3, Axis: measure.X}})
	h.refused(edit.Edit{Repeat: &edit.Repeat{Part: "section 1", Count: 501, Axis: measure.X, Joined: true}})
}

// A pipe drawn to a part's joint, a joint set dry and a driven size keep their
// place when the part becomes an array.
func TestNamesFollowIntoGroupsAndArrays(t *testing.T) {
	h := gate(t)
	h.doc.Holds = []frame.Hold{{Joint: "section 1/j1", Mode: frame.Slip}}
	h.walk("section 1/j1", "near 10")
	h.doc.Drives = []frame.Drive{{ID: "d", Pipe: "section 1/p1", Size: frame.Dimension{Value: in(36), Meaning: frame.Centre}}}
	h.do(edit.Edit{Repeat: &edit.Repeat{Part: "section 1", Count: 2, Axis: measure.X, Joined: true}})
	assert.Equal(t, "section 1#1/j1", h.doc.Holds[0].Joint)
	assert.Equal(t, "section 1#1/p1", h.doc.Drives[0].Pipe)
	assert.Equal(t, "section 1#1/j1", h.doc.Root.Pipes[0].From)
	h.do(edit.Edit{Repeat: &edit.Repeat{Part: "section 1#1", Count: 1}})
	assert.Equal(t, "section 1/j1", h.doc.Holds[0].Joint)
	h.do(edit.Edit{Group: &edit.Group{Name: "all", Joints: []string{"section 1/j1", h.doc.Root.Joints[0].ID}}})
	assert.Equal(t, "all 1/section 1/j1", h.doc.Holds[0].Joint)
	assert.Equal(t, map[catalog.Kind]int{catalog.SideOutletElbow: 1, catalog.Elbow90: 3, catalog.Tee: 2}, h.kinds())
}

// A group turned a quarter, and one turned by 30 degrees.
func TestAPartIsTurned(t *testing.T) {
	h := gate(t)
	over := h.plan().Frames[0].Overall
	h.do(edit.Edit{Turn: &edit.Turn{Part: "section 1", About: measure.Z, By: 90}})
	now := h.plan().Frames[0].Overall
	assert.Equal(t, over[0].Size, now[1].Size)
	assert.Equal(t, over[1].Size, now[0].Size)
	h.do(edit.Edit{Turn: &edit.Turn{Part: "section 1", About: measure.Z, By: -90}})
	assert.Empty(t, h.doc.Root.Uses[0].Turns, "back again")
	h.do(edit.Edit{Turn: &edit.Turn{Part: "section 1", About: measure.Y, By: 30}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	assert.Empty(t, h.codes())
	h.refused(edit.Edit{Turn: &edit.Turn{Part: "section 1", About: measure.Y}})
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
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x2", Like: "x2"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds(), "a second bay")
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.Z, After: "z1", Like: "z1"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 4, catalog.Cross: 1}, h.kinds(), "a rail in the middle")
	assert.Equal(t, in(80), h.plan().Frames[0].Overall[0].Size-in(1.32))
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x1", Length: "10", Like: "x2"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 6, catalog.Cross: 2}, h.kinds(), "a post ten from the first")
	h.do(edit.Edit{Remove: &edit.Remove{Axis: measure.X, Station: "x2"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 4, catalog.Cross: 1}, h.kinds(), "the rails run on where it stood")
	over := h.plan().Frames[0].Overall[0]
	assert.InDelta(t, 80, (over.Size - in(1.32)).Inches(), 1e-6, "what stood beyond it stays")
	h.do(edit.Edit{Remove: &edit.Remove{Axis: measure.X, Station: "x1"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds(), "the first goes too, and another is the origin")
	assert.InDelta(t, 70, (h.plan().Frames[0].Overall[0].Size - in(1.32)).Inches(), 1e-6)
	assert.Empty(t, h.codes())
}

// A post copied with rails from some of its joints, and again like the last bay.
func TestAWallFromOnePost(t *testing.T) {
	h := nothing(t)
	low := h.do(edit.Edit{Walk: &edit.Walk{Course: "up 6"}}).Joint
	top := h.walk(low, "up 21 x2")
	hub, mid := h.doc.Root.Joints[0].ID, h.doc.Root.Joints[2].ID
	h.walk(hub, "near 12 capped")
	h.walk(hub, "away 12 capped")
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x1", Like: "x1", Length: "46 clear", Rails: []string{low, mid, top}}})
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x2", Like: "x2"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 3 + 4 + 1, catalog.Cross: 2, catalog.Elbow90: 2, catalog.Cap: 6}, h.kinds())
	assert.Equal(t, 6, h.n, "gestures")
	stations := h.plan().Frames[0].Places[0].Stations[0]
	assert.Equal(t, in(46+1.05), stations[1].At-stations[0].At)
	assert.Equal(t, in(46+1.05), stations[2].At-stations[1].At)
	assert.Empty(t, h.codes())
	h.refused(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x3", Like: "x3", Rails: []string{low}}})
}

// The same with posts that are uses of a group.
func TestAColumnOfAGroupIsCopied(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	top := h.walk(a, "up 30")
	h.do(edit.Edit{Group: &edit.Group{Name: "post", Joints: []string{a, top}}})
	free := h.walk("post 1/"+top, "right 40")
	h.walk("post 1/"+a, "right 40")
	h.do(edit.Edit{Place: &edit.PlaceUse{Group: "post", On: h.done.Joint}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4}, h.kinds(), "it takes the place of the two free ends, "+free)
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x2", Like: "x2"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	h.do(edit.Edit{Bay: &edit.Bay{In: "post 1", Axis: measure.Z, Station: "z2", Length: "20"}})
	assert.InDelta(t, 20, (h.plan().Frames[0].Overall[2].Size - in(1.32)).Inches(), 1e-6, "all three follow")
}

// An octagon with spokes: 8 45s, 4 tees for the spokes and a cross between
// them; its flats are as far apart as was said, both ways, in any meaning.
func TestAnOctagonWithSpokes(t *testing.T) {
	h := nothing(t)
	h.do(edit.Edit{Ring: &edit.Ring{Sides: 8, Across: "36 outside", Square: measure.Y, Spokes: true}})
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
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x2", Length: "30 outside"}})
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: h.doc.Root.Axes[0].Stations[1].ID, Length: "30 outside"}})
}

func TestRings(t *testing.T) {
	for sides, want := range map[int]map[catalog.Kind]int{4: {catalog.Elbow90: 4}, 8: {catalog.Elbow45: 8}} {
		h := nothing(t)
		h.do(edit.Edit{Ring: &edit.Ring{Sides: sides, Side: "12 cut", Square: measure.Z}})
		assert.Equal(t, want, h.kinds())
		assert.Empty(t, h.codes())
		for _, p := range h.plan().Frames[0].Pipes {
			assert.Equal(t, in(12), p.Cut)
		}
	}
	h := nothing(t)
	h.do(edit.Edit{Ring: &edit.Ring{Sides: 6, Side: "12 cut", Square: measure.Z}})
	assert.Contains(t, h.codes(), "no-fitting", "60 degrees have none")
}

// A frame that is square in itself stands tilted, and up again.
func TestAFrameStandsTilted(t *testing.T) {
	h := gate(t)
	over := h.plan().Frames[0].Overall
	h.do(edit.Edit{Stand: &edit.Stand{Turns: []frame.Turn{{About: measure.X, By: 90}}}})
	assert.Equal(t, over[2].Size, h.plan().Frames[0].Overall[1].Size, "laid on its back")
	h.do(edit.Edit{Stand: &edit.Stand{}})
	assert.Equal(t, over, h.plan().Frames[0].Overall)
}

// Whatever gestures are made, in whatever order, with whatever in them: each
// is refused with a reason or gives a document that can be planned, every id
// once, and the one before is as it was.
func TestAnyGesturesLeaveAFrameThatCanBePlanned(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := nothing(t)
		h.begin()
		made := 0
		for range rapid.IntRange(1, 14).Draw(t, "gestures") {
			p := h.plan().Frames[0]
			var joints, pipes, parts []string
			for _, j := range p.Joints {
				joints = append(joints, j.ID)
			}
			for _, e := range p.Pipes {
				pipes = append(pipes, e.Pipe)
			}
			for _, part := range p.Parts {
				parts = append(parts, part.Path)
			}
			joint := func() string { return rapid.SampledFrom(append(joints, "nowhere")).Draw(t, "joint") }
			pipe := func() string { return rapid.SampledFrom(append(pipes, "none")).Draw(t, "pipe") }
			part := func() string { return rapid.SampledFrom(append(parts, "")).Draw(t, "part") }
			place := p.Places[rapid.IntRange(0, len(p.Places)-1).Draw(t, "place")]
			axis := measure.Axis(rapid.IntRange(0, 2).Draw(t, "axis"))
			station := func() string {
				ids := []string{"attic"}
				for _, s := range place.Stations[axis] {
					ids = append(ids, s.ID)
				}
				return rapid.SampledFrom(ids).Draw(t, "station")
			}
			length := func() string {
				return fmt.Sprintf("%d%s", rapid.SampledFrom([]int{0, 1, 3, 10, 10, 20}).Draw(t, "length"), rapid.SampledFrom([]string{"", "", " cut", " clear", " outside", " visible", " slot", " top"}).Draw(t, "meaning"))
			}
			var e edit.Edit
			switch rapid.IntRange(0, 23).Draw(t, "gesture") {
			case 0, 1, 2, 3, 4:
				way := rapid.SampledFrom([]string{"right", "left", "up", "down", "near", "away", "up right", "left down", "right up@30"}).Draw(t, "way")
				e.Walk = &edit.Walk{From: joint(), In: rapid.SampledFrom([]string{"", "", place.Path}).Draw(t, "in"), Course: way + " " + length()}
			case 5:
				e.Join = &edit.Join{From: joint(), To: joint()}
			case 6:
				e.Split = &edit.Split{Pipe: pipe(), Length: rapid.SampledFrom([]string{"", "4"}).Draw(t, "at")}
			case 7:
				e.Delete = &edit.Delete{Pipes: []string{pipe()}}
			case 8:
				e.Delete = &edit.Delete{Joints: []string{joint()}}
			case 9:
				e.Bay = &edit.Bay{In: place.Path, Axis: axis, Station: station(), Length: length()}
			case 10:
				e.Bay = &edit.Bay{In: place.Path, Axis: axis, Station: station(), Pull: in(float64(rapid.IntRange(-12, 12).Draw(t, "pull")))}
			case 11:
				e.Insert = &edit.Insert{In: place.Path, Axis: axis, After: station(), Like: rapid.SampledFrom([]string{"", station()}).Draw(t, "like"), Split: true}
			case 12:
				e.Remove = &edit.Remove{In: place.Path, Axis: axis, Station: station()}
			case 13:
				e.Group = &edit.Group{In: place.Path, Name: "g", Joints: []string{joint(), joint()}}
			case 14:
				e.Repeat = &edit.Repeat{Part: part(), Count: rapid.IntRange(1, 3).Draw(t, "count"), Axis: axis, Joined: rapid.Bool().Draw(t, "joined"), Pitch: length()}
			case 15:
				e.Mirror = &edit.Mirror{Part: part(), Axis: axis, About: station()}
			case 16:
				e.Even = &edit.Even{In: place.Path, Axis: axis, From: station(), To: station()}
			case 17:
				e.Drive = &edit.Drive{Pipe: pipe(), Length: length()}
			case 18:
				e.Walk = &edit.Walk{From: joint(), In: rapid.SampledFrom([]string{"", place.Path}).Draw(t, "in"), Course: rapid.SampledFrom([]string{"hoop right 60 rise 12", "hoop away 40 of 4 ft staked", "hoop left 30 rise 20 upright", "bend up 20, right 24, radius 6", "bend near 9, up 9, left 9, radius 3"}).Draw(t, "course")}
			case 19:
				e.Bow = &edit.Bow{Pipe: pipe(), Say: rapid.SampledFrom([]string{"", "rise 4", "of 24", "rise 6 over"}).Draw(t, "say"), Leave: [2]string{rapid.SampledFrom([]string{"", "up", "right"}).Draw(t, "leave"), ""}}
			case 20:
				e.Link = &edit.Link{Kind: rapid.SampledFrom(frame.LinkKinds()).Draw(t, "kind"), On: rapid.SampledFrom([][]string{{pipe()}, {pipe(), pipe()}, {joint(), joint()}, {pipe() + " at 3", joint()}}).Draw(t, "on"), Rod: "1/4", Fold: 40, Size: "1"}
			case 21:
				e.Slide = &edit.Slide{Joint: joint(), Say: length(), Size: "1/2"}
			case 22:
				e.Class = &edit.Tolerance{Pipes: []string{pipe()}, Class: rapid.SampledFrom(frame.Classes()).Draw(t, "class")}
			case 23:
				e.Bring = &edit.Bring{From: *h.doc, On: joint()}
			}
			doc, _, err := plan.Edit(h.doc, e, nil)
			var r *edit.Refusal
			var nonsense frame.Problems
			switch {
			case err == nil:
				h.doc = doc
				made++
				h.plan()
			case errors.As(err, &nonsense):
				data, _ := json.Marshal(h.doc)
				text, _ := json.Marshal(e)
				require.Fail(t, "a gesture made nonsense", "%v\n%s\n%s", nonsense, text, data)
			default:
				require.ErrorAs(t, err, &r)
			}
		}
	})
}
