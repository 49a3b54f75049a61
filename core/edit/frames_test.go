package edit_test

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
)

// A row of four V-slots from nothing, in at most 35 actions.
func vslots(t require.TestingT) *hand {
	h := nothing(t)
	h.walk("", "away 10 x2")              // one side's crossbar: j1, j2, j3
	h.walk("j2", "up left@8 14 capped")   // its post leans out
	side := h.walk("j1", "right 4 clear") // the other side
	mid := h.walk(side, "away 10")        //
	corner := h.walk(mid, "away 10")
	h.walk("j3", "right 4 clear")       // meets it
	h.walk(mid, "up right@8 14 capped") // leans the other way
	all := []string{}
	for _, j := range h.plan().Frames[0].Joints {
		all = append(all, j.ID)
	}
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "slot", Joints: all}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "slot 1", Count: 4, Axis: measure.X, Pitch: "13"}})
	for _, from := range []string{"slot 1#1/", "slot 1#2/", "slot 1#3/"} {
		h.walk(from+side, "right 7.95")
		h.walk(from+corner, "right 7.95")
	}
	return h
}

// A cradle that stands tilted by 15 degrees: its front legs are longer by
// 16 × tan 15° = 4.287.
func tilted(t require.TestingT) *hand {
	h := nothing(t)
	h.walk("", "right 20")
	h.walk("j2", "away 16")
	h.walk("j3", "left 20")
	h.do(edit.Edit{Gesture: &edit.Join{From: "j4", To: "j1"}})
	h.walk("j3", "up 10")
	h.walk("j4", "up 10")
	h.do(edit.Edit{Gesture: &edit.Join{From: "j5", To: "j6"}})
	h.walk("j1", "down 8.287 capped")
	h.walk("j2", "down 8.287 capped")
	h.walk("j3", "down 4 capped")
	h.walk("j4", "down 4 capped")
	h.do(edit.Edit{Gesture: &edit.Stand{Turns: []frame.Turn{{About: measure.X, By: -15}}}})
	return h
}

func spoked(t require.TestingT) *hand {
	h := nothing(t)
	h.do(edit.Edit{Gesture: &edit.Ring{Sides: 8, Across: "4 ft outside", Square: measure.Z, Spokes: true}})
	return h
}

// Frames drawn from nothing, within the actions that each may take, and sound.
// The two-bay three-level wall is drawn by keyboard in the browser.
func TestFramesFromNothing(t *testing.T) {
	for name, f := range map[string]struct {
		make func(require.TestingT) *hand
		most int
		want map[catalog.Kind]int
	}{
		"V-slot row of four":  {vslots, 35, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 20, catalog.Cap: 8}},
		"octagon with spokes": {spoked, 30, map[catalog.Kind]int{catalog.Elbow45: 8, catalog.Tee: 4, catalog.Cross: 1}},
		"hoop tunnel of five": {tunnel, 25, map[catalog.Kind]int{catalog.Tee: 2, catalog.Cross: 3}},
		"tilted cradle":       {tilted, 30, map[catalog.Kind]int{catalog.Elbow90: 2, catalog.SideOutletElbow: 2, catalog.SideOutletTee: 2, catalog.Cap: 4}},
	} {
		h := f.make(t)
		t.Logf("%s: %d actions", name, h.n)
		assert.LessOrEqual(t, h.n, f.most, name)
		assert.Equal(t, f.want, h.kinds(), name)
		assert.Empty(t, h.codes(), name)
	}
	h := tilted(t)
	for _, c := range h.plan().Frames[0].Contacts {
		assert.LessOrEqual(t, c.Gap, measure.Inch/32, "all four legs reach the floor")
	}
}

// The product's own document carries all of it, there and back.
func TestTheDocumentCarriesEverything(t *testing.T) {
	for _, make := range []func(require.TestingT) *hand{vslots, spoked, tunnel, tilted} {
		h := make(t)
		h.do(edit.Edit{Gesture: &edit.ClearanceCheck{Name: "door", Kind: frame.Doorway, Say: "32"}})
		h.do(edit.Edit{Gesture: &edit.Tolerance{Pipes: []string{h.plan().Frames[0].Pipes[0].Pipe}, Class: frame.Trim}})
		h.do(edit.Edit{Gesture: &edit.Custom{Name: "hub", Ports: []string{"left 1", "right 1"}}})
		data, err := json.Marshal(h.doc)
		require.NoError(t, err)
		var again frame.Document
		require.NoError(t, json.Unmarshal(data, &again))
		assert.Equal(t, *h.doc.Clone(), again)
	}
}

// Square and sloped frames go out as a wireframe and come back with the same
// cuts, fittings and sizes; what the form cannot carry is named.
func TestAWireframeBringsTheSameFrameBack(t *testing.T) {
	for name, make := range map[string]func(require.TestingT) *hand{"slots": vslots, "spokes": spoked, "wall": func(t require.TestingT) *hand {
		h := nothing(t)
		h.walk("", "right 46 clear x2")
		for _, j := range []string{"j1", "j2", "j3"} {
			h.walk(j, "up 20 x2")
		}
		h.walk("j4", "right 46 clear x2")
		return h
	}} {
		h := make(t)
		before := h.plan()
		data, lost, err := wireframe.Write(before.Frames[0].Graph(), before.Frames[0].Points())
		require.NoError(t, err)
		assert.Empty(t, lost, name)
		back, err := wireframe.Read(data)
		require.NoError(t, err)
		after, err := plan.Make(
			context.Background(),
			plan.Job{Frames: []plan.FrameUse{{Document: *back, Copies: 1}}, Tool: "saw"},
			shop(),
			plan.Work{},
		)
		require.NoError(t, err)
		assert.Equal(t, before.Fittings, after.Fittings, name)
		require.Len(t, after.Cuts, len(before.Cuts), name)
		for i := range before.Cuts {
			assert.Equal(t, [2]any{before.Cuts[i].Cut, before.Cuts[i].Count}, [2]any{after.Cuts[i].Cut, after.Cuts[i].Count}, name)
		}
		assert.InDelta(t, before.Frames[0].Overall[0].Size.Inches(), after.Frames[0].Overall[0].Size.Inches(), 1e-6)
	}
	h := tunnel(t)
	p := h.plan()
	_, lost, err := wireframe.Write(p.Frames[0].Graph(), p.Frames[0].Points())
	require.NoError(t, err)
	assert.Len(t, lost, 10, "that ten pipes are sprung")
}

func starterOf(t require.TestingT, id string) *frame.Document {
	s, ok := starter.Find(id)
	require.True(t, ok)
	d, err := s.Build(measure.Inches, nil)
	require.NoError(t, err)
	return &d
}

// A foot drawn in one project serves in another, with its own size.
func TestAGroupIsBroughtFromAnotherProject(t *testing.T) {
	other := nothing(t)
	other.doc.Size = "1"
	hub := other.begin()
	a := other.do(edit.Edit{Gesture: &edit.Walk{From: hub, Line: "near 12 capped"}}).Joint
	b := other.do(edit.Edit{Gesture: &edit.Walk{From: hub, Line: "away 12 capped"}}).Joint
	other.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "foot", Joints: []string{hub, a, b}}})

	use := other.plan().Frames[0].Instances[0].Path
	other.do(edit.Edit{Gesture: &edit.Tolerance{Pipes: []string{use + "/p1"}, Class: frame.Trim}})
	other.do(edit.Edit{Gesture: &edit.ClearanceCheck{Name: "arm", Kind: frame.Reach, Joint: use + "/" + a, Say: "40"}})
	other.do(edit.Edit{Gesture: &edit.ClearanceCheck{Name: "hall door", Kind: frame.Doorway, Say: "36"}})
	other.doc.ModeRules = []frame.ModeRule{
		{Kind: catalog.Cap, Mode: frame.Slip, Reason: "come off to drain"},
		{Joint: use + "/" + hub, Mode: frame.Pinned},
	}

	h := nothing(t)
	j := h.begin()
	top := h.walk(j, "up 30 capped")
	h.do(edit.Edit{Gesture: &edit.Bring{From: *other.doc, Group: "foot", On: j}})
	assert.Equal(t, 1, h.kinds()[catalog.Tee], "its hub is the post's: %v", h.kinds())
	assert.Equal(t, catalog.Size("1"), h.pipe("foot 1/p1").Size)
	assert.Equal(t, frame.Trim, h.pipe("foot 1/p1").Class)
	held := map[frame.Mode]int{}
	for _, i := range h.plan().Frames[0].Insertions {
		held[i.Mode]++
	}
	assert.Equal(
		t,
		map[frame.Mode]int{frame.Cemented: 1, frame.Slip: 3, frame.Pinned: 3},
		held,
		"its two caps slip and a bushing under the pin, not the post's cap; its hub is the post's now",
	)
	require.Len(t, h.doc.ClearanceChecks, 1, "a check of the whole of that frame is none of the foot's")
	assert.Equal(t, "foot 1/"+a, h.doc.ClearanceChecks[0].Joint)
	h.do(edit.Edit{Gesture: &edit.Bring{From: *other.doc, Group: "foot", On: top}})
	assert.Len(t, h.doc.Groups, 2, "a second one gets a name of its own")
	// held at its hub there, though its stations begin at its front: so it is here
	jump := nothing(t)
	jump.doc = starterOf(t, "jump")
	at := nothing(t)
	at.walk("", "up 30")
	at.do(edit.Edit{Gesture: &edit.Bring{From: *jump.doc, Group: "foot", On: "j1"}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1, catalog.Cap: 2}, at.kinds())

	far := h.walk("foot 1/"+hub, "right 40")
	h.do(edit.Edit{Gesture: &edit.Bring{From: *other.doc, On: far}})
	assert.Equal(t, 6, h.plan().Frames[0].Ports.Capped, "three feet; the third came with the whole of the other frame")
	h.refused(edit.Edit{Gesture: &edit.Bring{From: *other.doc, Group: "arm", On: far}})
	h.refused(edit.Edit{Gesture: &edit.Bring{From: frame.Document{}, On: far}})
}
