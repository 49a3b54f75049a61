package edit_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/plan"
)

// settled makes a gesture and answers what it asks by chance.
func settled(t *rapid.T, d *frame.Document, g edit.Gesture) (*frame.Document, edit.Done, error) {
	e := edit.Edit{Gesture: g}
	for range 12 {
		doc, done, err := plan.Edit(context.Background(), d, e, nil)
		var q *edit.Question
		if !errors.As(err, &q) {
			return doc, done, err
		}
		asOffered(t, d, e, q)
		e.Answers = append(e.Answers, q.Options[rapid.IntRange(0, len(q.Options)-1).Draw(t, "answer")].Answers()...)
	}
	return nil, edit.Done{}, &edit.Refusal{What: "asked too often", Hint: "another time"}
}

// asOffered carries out every option of a question and wants what it said: it is made, or asks further where it says
// so; each size that gives way is told with what it is then, and is more than nothing; no two lead to one frame.
func asOffered(t require.TestingT, d *frame.Document, e edit.Edit, q *edit.Question) {
	require.NotEmpty(t, q.Options, q.What)
	require.LessOrEqual(t, len(q.Options), 12)
	had := gaveWay(d)
	labels, frames := map[string]bool{}, map[string]string{}
	for _, o := range q.Options {
		require.False(t, labels[o.Label], "two options are %q", o.Label)
		labels[o.Label] = true
		next := e
		next.Answers = slices.Concat(e.Answers, o.Answers())
		further := strings.HasSuffix(o.Label, "and it asks what else does")
		doc, err := edit.Attempt(d, next, func(d *frame.Document) (*model.Located, error) {
			return model.Locate(context.Background(), d, typical)
		})
		if further {
			var more *edit.Question
			require.True(t, err == nil || errors.As(err, &more), "%s: %v", o.Label, err)
			continue
		}
		require.NoError(t, err, o.Label)
		l, err := model.Locate(context.Background(), doc, typical)
		require.NoError(t, err)
		for _, z := range l.Sizes {
			if z.Gave == "" || slices.Contains(had, z.ID) {
				continue
			}
			stands := strings.TrimSpace(z.Out.Tape(z.Unit) + " " + layout.Words(z.Is))
			require.Contains(t, o.Label, stands, "%s gave way", z.ID)
			if !strings.Contains(o.Label, "nothing is left of") {
				require.Positive(t, z.Out, o.Label)
			}
		}
		as := fmt.Sprint(l.Lengths, l.Points, len(gaveWay(doc)))
		require.Empty(t, frames[as], "%q leads to the same frame", o.Label)
		frames[as] = o.Label
	}
}

// typical are the figures that gestures are made with where no shop measured any.
var typical = catalog.Typical()

// gaveWay are the ids of a document's sizes that gave way.
func gaveWay(d *frame.Document) (ids []string) {
	d.EachSize(func(_ *frame.Definition, s *frame.Size) {
		if s.Gave != nil {
			ids = append(ids, s.ID)
		}
	})
	return ids
}

// sizeSaid is a size as it was said.
type sizeSaid struct {
	value   measure.Length
	meaning frame.Meaning
}

func said(d *frame.Document) map[string]sizeSaid {
	all := map[string]sizeSaid{}
	d.EachSize(func(_ *frame.Definition, s *frame.Size) {
		if !s.Inferred && s.Gave == nil {
			all[s.ID] = sizeSaid{s.Value, s.Meaning}
		}
	})
	return all
}

// holds wants that every size that was typed and did not give way is what it
// was typed to be, that nothing contradicts, and that what was said before is
// still said, or named in the answer.
func holds(t require.TestingT, before *frame.Document, h *hand, done edit.Done) {
	p := h.plan()
	for _, f := range p.Findings {
		require.NotContains(
			t,
			[]string{"sizes-contradict", "turned-round", "zero-length", "height-on-a-slope", "size-too-small", "no-curve", "nothing-holds"},
			f.Code,
			f.Text,
		)
	}
	cut := map[string]measure.Length{}
	for _, x := range p.Frames[0].Pipes {
		cut[x.Pipe] = x.Cut
	}
	off := measure.Length(1000) // a micrometre
	if slices.ContainsFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "closes-nearly" }) {
		off += layout.TapeStep // a loop closes within a step of the tape, and that is a note
	}
	for _, z := range p.Frames[0].Sizes {
		if z.Gave != "" {
			continue
		}
		require.LessOrEqual(t, int64((z.Out - z.Value).Abs()), int64(off), "%s: %s %s of %s is %s", z.ID, z.Text, z.Is, z.Pipe, z.Out)
		if z.Is == frame.Cut && z.Pipe != "" {
			require.Equal(t, z.Value, cut[z.Pipe], "%s: %s is what is cut of %s", z.ID, z.Text, z.Pipe)
		}
	}
	for _, part := range p.Frames[0].Instances { // in every copy of a group
		for _, s := range h.doc.Group(part.Group).Sizes {
			if got, there := cut[part.Path+"/"+s.Pipe]; there && s.Pipe != "" && s.Meaning == frame.Cut && s.Gave == nil &&
				h.doc.Group(part.Group).Pipe(s.Pipe).Path != frame.Bent {
				require.LessOrEqual(t, (got - s.Value).Abs(), off, "%s: %s is what is cut of %s/%s", s.ID, s.Text, part.Path, s.Pipe)
			}
		}
	}
	told := map[string]bool{}
	for _, g := range done.GivenUp {
		told[g.Size] = true
	}
	now := said(h.doc)
	for id, was := range said(before) {
		if s, still := now[id]; still && s == was || told[id] {
			continue
		}
		gone := h.doc.SizeOf(id) == nil && slices.ContainsFunc(done.Also, func(a string) bool { return len(a) > 5 })
		require.True(t, gone, "%s, %v, was given up in silence: %v", id, was, done)
	}
}

// anySize is the id of one of a document's sizes, or of none.
func anySize(t *rapid.T, d *frame.Document) string {
	ids := []string{"none"}
	d.EachSize(func(_ *frame.Definition, s *frame.Size) { ids = append(ids, s.ID) })
	return rapid.SampledFrom(ids).Draw(t, "size id")
}

// anyGesture is some gesture on a frame, with whatever in it; a careful one
// names only what is there, where there is any.
func anyGesture(t *rapid.T, h *hand, careful bool) edit.Gesture {
	may := func(all []string, not string) []string {
		if careful && len(all) > 0 {
			return all
		}
		return append(all, not)
	}
	longs := []int{0, 1, 3, 10, 10, 20}
	if careful {
		longs = []int{3, 10, 10, 20}
	}
	p := h.plan().Frames[0]
	var joints, pipes, parts []string
	for _, j := range p.Joints {
		joints = append(joints, j.ID)
	}
	for _, e := range p.Pipes {
		pipes = append(pipes, e.Pipe)
	}
	for _, part := range p.Instances {
		parts = append(parts, part.Path)
	}
	joint := func() string { return rapid.SampledFrom(may(joints, "nowhere")).Draw(t, "joint") }
	pipe := func() string { return rapid.SampledFrom(may(pipes, "none")).Draw(t, "pipe") }
	part := func() string { return rapid.SampledFrom(may(parts, "")).Draw(t, "part") }
	along := func() string {
		if len(p.Pipes) == 0 {
			return "none at 3"
		}
		e := p.Pipes[rapid.IntRange(0, len(p.Pipes)-1).Draw(t, "pipe")]
		from := rapid.SampledFrom([]string{e.From, e.To}).Draw(t, "from")
		return fmt.Sprintf("%s at %d from %s", e.Pipe, rapid.IntRange(1, 12).Draw(t, "along"), from)
	}
	place := p.Places[rapid.IntRange(0, len(p.Places)-1).Draw(t, "place")]
	axis := measure.Axis(rapid.IntRange(0, 2).Draw(t, "axis"))
	plane := func() frame.Ref {
		var ids []string
		for _, s := range place.Planes[axis] {
			ids = append(ids, string(s.Ref))
		}
		return frame.Ref(rapid.SampledFrom(may(ids, "attic")).Draw(t, "plane"))
	}
	length := func() string {
		return fmt.Sprintf(
			"%d%s",
			rapid.SampledFrom(longs).Draw(t, "length"),
			rapid.SampledFrom([]string{"", "", " cut", " clear", " outside", " visible", " slot", " top"}).Draw(t, "meaning"),
		)
	}
	var e edit.Gesture
	switch rapid.IntRange(0, 34).Draw(t, "gesture") {
	case 0, 1, 2, 3, 4:
		way := rapid.SampledFrom([]string{"right", "left", "up", "down", "near", "away", "up right", "left down", "right up@30"}).
			Draw(t, "way")
		e = &edit.Walk{From: joint(), In: rapid.SampledFrom([]string{"", "", place.Path}).Draw(t, "in"), Line: way + " " + length()}
	case 5:
		e = &edit.Join{From: joint(), To: joint()}
	case 6:
		e = &edit.Split{Pipe: pipe(), Length: rapid.SampledFrom([]string{"", "4"}).Draw(t, "at")}
	case 7:
		e = &edit.Delete{Pipes: []string{pipe()}}
	case 8:
		e = &edit.Delete{Joints: []string{joint()}}
	case 9:
		e = &edit.Bay{In: place.Path, Axis: axis, Plane: plane(), Length: length()}
	case 10:
		e = &edit.Bay{In: place.Path, Axis: axis, Plane: plane(), Pull: in(float64(rapid.IntRange(-12, 12).Draw(t, "pull")))}
	case 11:
		e = &edit.Insert{
			In:    place.Path,
			Axis:  axis,
			After: plane(),
			Like:  rapid.SampledFrom([]frame.Ref{"", plane()}).Draw(t, "like"),
			Split: true,
		}
	case 12:
		e = &edit.Remove{In: place.Path, Axis: axis, Plane: plane()}
	case 13:
		e = &edit.MakeGroup{In: place.Path, Name: "g", Joints: []string{joint(), joint()}}
	case 14:
		e = &edit.Repeat{
			Part:   part(),
			Count:  rapid.IntRange(1, 3).Draw(t, "count"),
			Axis:   axis,
			Joined: rapid.Bool().Draw(t, "joined"),
			Pitch:  length(),
		}
	case 15:
		e = &edit.Mirror{Part: part(), Axis: axis, About: plane()}
	case 16:
		e = &edit.Even{In: place.Path, Axis: axis, From: plane(), To: plane()}
	case 17:
		e = &edit.Size{Pipe: pipe(), Length: length()}
	case 18:
		e = &edit.Walk{
			From: joint(),
			In:   rapid.SampledFrom([]string{"", place.Path}).Draw(t, "in"),
			Line: rapid.SampledFrom([]string{"hoop right 60 rise 12", "hoop away 40 of 4 ft staked", "hoop left 30 rise 20 upright", "bend up 20, right 24, radius 6", "bend near 9, up 9, left 9, radius 3"}).
				Draw(t, "course"),
		}
	case 19:
		e = &edit.Bow{
			Pipe:  pipe(),
			Say:   rapid.SampledFrom([]string{"", "rise 4", "of 24", "rise 6 over"}).Draw(t, "say"),
			Leave: [2]string{rapid.SampledFrom([]string{"", "up", "right"}).Draw(t, "leave"), ""},
		}
	case 20:
		e = &edit.Link{
			Kind: rapid.SampledFrom(frame.LinkKinds()).Draw(t, "kind"),
			On: rapid.SampledFrom([][]string{{pipe()}, {pipe(), pipe()}, {joint(), joint()}, {pipe() + " at 3", joint()}, {along(), along()}, {along()}}).
				Draw(t, "on"),
			Rod:  "1/4",
			Fold: 40,
			Size: "1",
		}
	case 21:
		e = &edit.Slide{Joint: joint(), Say: length(), Size: "1/2"}
	case 22:
		e = &edit.Tolerance{Pipes: []string{pipe()}, Class: rapid.SampledFrom(frame.Classes()).Draw(t, "class")}
	case 23:
		e = &edit.Bring{From: *h.doc, On: joint()}
	case 24:
		e = &edit.Ungroup{Part: part()}
	case 25:
		e = &edit.Flip{Part: part(), Axis: axis}
	case 26:
		e = &edit.Level{In: place.Path, Axis: axis, Of: plane(), To: plane()}
	case 27:
		e = &edit.Name{In: place.Path, Axis: axis, Plane: plane(), Name: rapid.SampledFrom([]string{"shelf", "top"}).Draw(t, "name")}
	case 28:
		e = &edit.Unique{Part: part()}
	case 29:
		e = &edit.Turn{Part: part(), About: axis, By: float64(rapid.SampledFrom([]int{90, 180, 30}).Draw(t, "by"))}
	case 30:
		e = &edit.Restore{Kind: rapid.SampledFrom([]string{"size", "pipe", "reason", "hat"}).Draw(t, "kind"), ID: anySize(t, h.doc)}
	case 31:
		e = &edit.Reach{
			ID:   anySize(t, h.doc),
			Foot: rapid.SampledFrom([]string{"", joint()}).Draw(t, "foot"),
			To:   rapid.SampledFrom([]string{"", joint()}).Draw(t, "to"),
		}
	case 32:
		e = &edit.Size{ID: anySize(t, h.doc), Length: rapid.SampledFrom([]string{"", "8", "12 cut", "nonsense"}).Draw(t, "size")}
	case 34:
		e = &edit.Apart{Joint: joint(), Along: axis, Move: measure.Axis(rapid.IntRange(0, 2).Draw(t, "moved"))}
	case 33:
		e = &edit.Size{Ends: [2]string{joint(), joint()}, Length: length()}
	}
	return e
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
			e := anyGesture(t, h, false)
			before := h.doc
			doc, done, err := settled(t, before, e)
			var r *edit.Refusal
			var nonsense frame.Problems
			switch {
			case err == nil:
				h.doc = doc
				made++
				holds(t, before, h, done)
				nothingLost(t, before, h.doc, e, done)
				placesKept(t, before, h.doc, e, done)
			case errors.As(err, &nonsense):
				data, _ := json.Marshal(before)
				text, _ := json.Marshal(edit.Edit{Gesture: e})
				require.Fail(t, "a gesture made nonsense", "%v\n%s\n%s", nonsense, text, data)
			default:
				require.ErrorAs(t, err, &r)
			}
		}
	})
}

// As many gestures as make a frame of some size, most of them possible: what
// was typed holds through all of them, or is named.
func TestLongWorkKeepsWhatWasTyped(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, _ := some(t, 10)
		h.begun()
		for range rapid.IntRange(4, 16).Draw(t, "gestures") {
			e := anyGesture(t, h, true)
			before := h.doc
			doc, done, err := settled(t, before, e)
			if err != nil {
				continue
			}
			h.doc = doc
			if len(h.plan().Frames[0].Pipes) > 80 {
				return // more of the same
			}
			holds(t, before, h, done)
			nothingLost(t, before, h.doc, e, done)
			placesKept(t, before, h.doc, e, done)
		}
	})
}
