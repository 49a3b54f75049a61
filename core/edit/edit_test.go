package edit_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/plan"
)

// shop is the example's, read once: the properties plan many thousand frames.
var shop = sync.OnceValue(plan.ExampleShop)

// hand is a builder's: it makes gestures on a frame, one after the other.
type hand struct {
	t    require.TestingT
	doc  *frame.Document
	done edit.Done
	n    int
	err  error // of the gesture tried last
}

func nothing(t require.TestingT) *hand {
	return &hand{t: t, doc: &frame.Document{Format: frame.Format, Name: "Frame", Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}}
}

func (h *hand) do(e edit.Edit) edit.Done {
	before, err := json.Marshal(h.doc)
	require.NoError(h.t, err)
	doc, done, err := plan.Edit(context.Background(), h.doc, e, nil)
	require.NoError(h.t, err)
	after, err := json.Marshal(h.doc)
	require.NoError(h.t, err)
	require.Equal(h.t, string(before), string(after), "the document given is not touched")
	h.doc, h.done = doc, done
	h.n++
	return done
}

// begun makes sure of a first joint.
func (h *hand) begun() {
	if len(h.doc.Root.Joints) == 0 {
		h.begin()
	}
}

func (h *hand) begin() string { return h.do(edit.Edit{Gesture: &edit.Begin{}}).Joint }

func (h *hand) walk(from, course string) string {
	return h.do(edit.Edit{Gesture: &edit.Walk{From: from, Line: course}}).Joint
}

// refused makes a gesture that cannot be made.
func (h *hand) refused(e edit.Edit) *edit.Refusal {
	_, _, err := plan.Edit(context.Background(), h.doc, e, nil)
	var r *edit.Refusal
	require.ErrorAs(h.t, err, &r)
	require.NotEmpty(h.t, r.Hint)
	return r
}

func (h *hand) plan() *plan.Plan {
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *h.doc, Copies: 1}}, Tool: "saw"},
		shop(),
		plan.Work{},
	)
	require.NoError(h.t, err)
	return p
}

func (h *hand) kinds() map[catalog.Kind]int {
	all := map[catalog.Kind]int{}
	for _, j := range h.plan().Frames[0].Joints {
		if j.Kind != "" && len(j.Ports) > 0 {
			all[j.Kind]++
		}
	}
	return all
}

func (h *hand) pipe(id string) plan.Pipe {
	for _, p := range h.plan().Frames[0].Pipes {
		if p.Pipe == id {
			return p
		}
	}
	require.Fail(h.t, "no pipe "+id)
	return plan.Pipe{}
}

// plane names the k-th place along an axis of a part; one that is not there
// gets a name that nothing has.
func (h *hand) plane(part string, a measure.Axis, k int) frame.Ref {
	for _, p := range h.plan().Frames[0].Places {
		if p.Path != part {
			continue
		}
		n, last := -1, measure.Length(0)
		for _, l := range p.Planes[a] {
			if n < 0 || l.At-last > in(0.002) {
				n, last = n+1, l.At
			}
			if n == k {
				return l.Ref
			}
		}
	}
	return "attic"
}

func (h *hand) codes() (all []string) {
	for _, f := range h.plan().Findings {
		if f.Severity != "note" {
			all = append(all, f.Code)
		}
	}
	return all
}

func in(x float64) measure.Length { return measure.FromInches(x) }

func Example() {
	doc := &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	from := ""
	for _, course := range []string{"right 46 clear x2", "up 30 cut"} {
		next, done, err := plan.Edit(context.Background(), doc, edit.Edit{Gesture: &edit.Walk{From: from, Line: course}}, nil)
		if err != nil {
			fmt.Println(err)
			return
		}
		doc, from = next, done.Joint
		fmt.Println(done.Label)
	}
	// Output:
	// 2 pipes right 46 clear
	// Pipe up 30 cut
}

// A rectangle walked round: the last pipe ends on the first joint, the corners
// are elbows, and the cut asked for is the cut that comes out.
func TestAWalkRoundCloses(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 40 cut")
	c := h.walk(b, "up 30 clear")
	d := h.walk(c, "left 40 cut")
	assert.Equal(t, a, h.walk(d, "down 30 clear"), "it meets the first joint")
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4}, h.kinds())
	assert.Equal(t, 40*measure.Inch, h.pipe("p1").Cut)
	assert.Equal(t, h.pipe("p1").Cut, h.pipe("p3").Cut)
	assert.Len(t, h.plan().Frames[0].Places[0].Planes[0], 2, "the way back is level with the way there")
	assert.Empty(t, h.codes())
}

// A pipe that ends on another's middle makes a tee there; one that runs
// through joints becomes a pipe for each bay.
func TestAWalkMeetsWhatIsThere(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 40")
	h.walk(a, "up 30")
	top := h.walk(b, "up 30")
	mid := h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}}).Joint
	h.walk(mid, "up 30") // a post in the middle, with a free end
	done := h.do(edit.Edit{Gesture: &edit.Walk{From: top, Line: "left 40"}})
	assert.Contains(t, done.Also, "goes through "+mention.Of(h.doc.Root.Joints[len(h.doc.Root.Joints)-1].ID))
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 4, catalog.Tee: 2}, h.kinds())
	assert.Len(t, h.doc.Root.Pipes, 7)
}

// What stands on a station follows it; a bay keeps the meaning it was given
// while the pipe under it becomes larger.
func TestABayIsSizedAndPulled(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	c := h.walk(a, "right 24 clear x2")
	h.walk(a, "up 20")
	h.walk(c, "up 20")
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 1), Length: "46 clear"}})
	// half a post at its ends, and half the pipe that goes on in the middle
	stations := h.plan().Frames[0].Places[0].Planes[0]
	assert.Equal(t, in(46+2*0.525), stations[1].At-stations[0].At)
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 1), Pull: in(-3)}})
	stations = h.plan().Frames[0].Places[0].Planes[0]
	assert.Equal(t, in(43+2*0.525), stations[1].At-stations[0].At)
	assert.Equal(t, in(24+2*0.525), stations[2].At-stations[1].At, "the next bay keeps its size")
	h.doc.Size = "1"
	stations = h.plan().Frames[0].Places[0].Planes[0]
	assert.Equal(t, in(43+2*0.6575), stations[1].At-stations[0].At)

	h.do(edit.Edit{Gesture: &edit.Even{Axis: measure.X, From: h.plane("", measure.X, 0), To: h.plane("", measure.X, 2)}})
	stations = h.plan().Frames[0].Places[0].Planes[0]
	assert.InDelta(t, (stations[2].At - stations[1].At).Inches(), (stations[1].At - stations[0].At).Inches(), 1e-6)
	// the first station pulled left makes the first bay larger: here the last
	// size, on which the even bays hang
	h.refused(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 0), Length: "4"}})
	h.refused(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 8), Length: "4"}})
	h.refused(edit.Edit{Gesture: &edit.Bay{Axis: 5, Plane: "j1", Length: "4"}})
	r := h.refused(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 1), Length: "46 clearly"}})
	assert.Contains(t, r.Error(), "clearly")
}

// A pull of the first station makes its bay as much larger.
func TestTheFirstStationIsPulled(t *testing.T) {
	h := nothing(t)
	h.walk(h.begin(), "right 24")
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 0), Pull: in(-2)}})
	assert.Equal(t, in(26), h.pipe("p1").Centre)
}

// Splitting and taking the joint away again gives the pipe that was there.
func TestSplitAndHeal(t *testing.T) {
	h := nothing(t)
	h.walk(h.begin(), "right 40 cut")
	before := h.pipe("p1")
	j := h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1", Length: "12"}}).Joint
	assert.Equal(t, map[catalog.Kind]int{catalog.Coupling: 1}, h.kinds())
	assert.Equal(t, in(12), h.pipe("p1").Centre, "the first part keeps the id")
	h.walk(j, "up 9")
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1}, h.kinds())
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{h.done.Pipe}}})
	require.Len(t, h.done.Offers, 1, "a coupling that may go")
	h.do(h.done.Offers[0].Edit)
	assert.Contains(t, h.done.Also, "⟨p1⟩ and ⟨p2⟩ are one pipe")
	assert.Equal(t, before.Centre, h.pipe("p1").Centre)
	assert.Len(t, h.doc.Root.Pipes, 1)
	assert.Len(t, h.doc.Root.Joints, 2)
	h.refused(edit.Edit{Gesture: &edit.Split{Pipe: "p1", Length: "99"}})
	h.refused(edit.Edit{Gesture: &edit.Split{Pipe: "p9"}})
	h.refused(edit.Edit{Gesture: &edit.Delete{}})
}

// A slope is split on its line, wherever its ends go.
func TestASlopeIsSplitOnItsLine(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "up right 20 cut")
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1", Length: "8"}})
	assert.Equal(t, in(8), h.pipe("p1").Centre)
	assert.Equal(t, map[catalog.Kind]int{catalog.Coupling: 1}, h.kinds())
}

func TestSizesAndRuns(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "right 20 x3")
	h.do(edit.Edit{Gesture: &edit.Resize{Pipe: "p1", Size: "1"}})
	assert.Equal(t, catalog.Size("1"), h.pipe("p1").Size)
	assert.Equal(t, catalog.Size("3/4"), h.pipe("p2").Size)
	h.do(edit.Edit{Gesture: &edit.Resize{Pipe: "p2", Run: true, Size: "1-1/4"}})
	for _, id := range []string{"p1", "p2", "p3"} {
		assert.Equal(t, catalog.Size("1-1/4"), h.pipe(id).Size)
	}
	h.do(edit.Edit{Gesture: &edit.Resize{Pipe: "p2"}})
	assert.Equal(t, catalog.Size("3/4"), h.pipe("p2").Size)
	h.refused(edit.Edit{Gesture: &edit.Resize{Pipe: "p2", Size: "7"}})
}

func TestFittingsAndEnds(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "up 20")
	h.do(edit.Edit{Gesture: &edit.EndOf{Joint: b, End: frame.CappedEnd}})
	h.do(edit.Edit{Gesture: &edit.Fit{Joint: a, Kind: catalog.Tee, Spare: []measure.Dir{{1, 0, 0}, {-1, 0, 0}}, Plugged: true}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1, catalog.Cap: 1}, h.kinds())
	h.do(edit.Edit{Gesture: &edit.Fit{Joint: a}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Cap: 1}, h.kinds())
	c := h.walk(b, "right 10")
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 1}, h.kinds(), "a capped end that goes on is no end")
	h.do(edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}})
	assert.Equal(t, 2, h.kinds()[catalog.Cap])
	h.refused(edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}})
	h.refused(edit.Edit{Gesture: &edit.EndOf{Joint: b, End: frame.CappedEnd}})
	h.refused(edit.Edit{Gesture: &edit.EndOf{Joint: c, End: "cork"}})
	h.refused(edit.Edit{Gesture: &edit.Fit{Joint: c, Kind: "knot"}})
	h.refused(edit.Edit{Gesture: &edit.Fit{Joint: c, Kind: catalog.Tee, Spare: []measure.Dir{{}}}})
}

// asks makes a gesture that cannot be made without a choice.
func (h *hand) asks(g edit.Gesture) *edit.Question {
	_, _, err := plan.Edit(context.Background(), h.doc, edit.Edit{Gesture: g}, nil)
	var q *edit.Question
	require.ErrorAs(h.t, err, &q)
	return q
}

// The cut of a pipe that was typed before comes in its place; of a slope,
// something gives way, and what is asked.
func TestACutDrivesTheSize(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 24")
	c := h.walk(a, "up 20")
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "30"}})
	assert.Len(t, h.doc.Root.Sizes, 2)
	require.Len(t, h.done.GivenUp, 1)
	assert.Equal(t, [2]string{"24 centre to centre", "30 cut"}, [2]string{h.done.GivenUp[0].Was, h.done.GivenUp[0].Now})
	assert.Equal(t, 30*measure.Inch, h.pipe("p1").Cut)

	h.do(edit.Edit{Gesture: &edit.Join{From: b, To: c}})
	brace := h.done.Pipe
	q := h.asks(&edit.Size{Pipe: brace, Length: "40"})
	var options []string
	for _, o := range q.Options {
		options = append(options, o.ID)
	}
	assert.Equal(t, []string{"size s2", "size s1", "size s3"}, options[:3], "what was said just now is kept before the others: %v", q)
	assert.Contains(t, q.What, "40 cut of ⟨p3⟩")
	assert.Contains(t, q.Options[0].Label, "20 centre to centre of ⟨p2⟩ gives way: it becomes 2", "and what becomes of it")
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: brace, Length: "40"}, Answers: []string{"size s2"}})
	assert.Equal(t, 40*measure.Inch, h.pipe(brace).Cut)
	assert.Equal(t, 30*measure.Inch, h.pipe("p1").Cut, "what was said before stays")
	require.Len(t, h.done.GivenUp, 1)
	assert.Equal(t, "20 centre to centre of ⟨p2⟩", h.done.GivenUp[0].Was)
	assert.Contains(t, h.done.GivenUp[0].Words, "gave way to")

	// levels come and go: it is still that one that gave way
	h.walk(h.walk(a, "near 10"), "up 5")
	h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.X, After: frame.Ref(a), Split: true}})
	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{"j7"}}})
	assert.Equal(t, 40*measure.Inch, h.pipe(brace).Cut)
	require.NotNil(t, h.doc.SizeOf("s2").Gave)

	// the winner gone, the loser is offered back, and never springs back
	h.do(edit.Edit{Gesture: &edit.Size{ID: "s3"}})
	assert.Equal(t, 40*measure.Inch, h.pipe(brace).Cut, "it keeps the length that it has")
	h.do(edit.Edit{Gesture: &edit.Restore{Kind: "size", ID: "s2"}})
	assert.Equal(t, in(20), h.pipe("p2").Centre)
	h.refused(edit.Edit{Gesture: &edit.Size{Pipe: "p77", Length: "40"}})
	h.refused(edit.Edit{Gesture: &edit.Size{Ends: [2]string{a, "nowhere"}, Length: "40 outside"}})
	h.refused(edit.Edit{Gesture: &edit.Restore{Kind: "size", ID: "s1"}})
	h.refused(edit.Edit{Gesture: &edit.GiveWay{Kind: "size", ID: "s1"}})
}

// A closing line that is typed after a question was answered, which made that pipe, does nothing and says so: by its
// length, to its joint, or joined. Another one of that way is refused as ever.
func TestALineThatIsThereAlreadyDoesNothing(t *testing.T) {
	h := nothing(t)
	first := h.begin()
	last := h.walk(h.walk(h.walk(first, "right 20 cut"), "up 10 cut"), "left 20 cut")
	down := edit.Edit{Gesture: &edit.Walk{From: last, Line: "down 9 1/2 cut"}, Answers: []string{"meet " + first}}
	for {
		_, _, err := plan.Edit(context.Background(), h.doc, down, nil)
		var q *edit.Question
		if !errors.As(err, &q) {
			break
		}
		down.Answers = append(down.Answers, q.Options[0].ID)
	}
	h.do(down)
	was, err := json.Marshal(h.doc)
	require.NoError(t, err)
	for _, g := range []edit.Gesture{
		&edit.Walk{From: last, Line: "down to " + first}, &edit.Walk{From: last, Line: "down 9 1/2 cut"}, &edit.Join{From: last, To: first},
		&edit.Walk{From: last, Line: "toward " + first},
	} {
		done := h.do(edit.Edit{Gesture: g})
		assert.Contains(t, done.Also, "nothing is done: ⟨p4⟩ runs there already")
		assert.Equal(t, first, done.Joint)
		now, err := json.Marshal(h.doc)
		require.NoError(t, err)
		assert.Equal(t, string(was), string(now))
	}
	h.refused(edit.Edit{Gesture: &edit.Walk{From: last, Line: "down 4 cut"}})
}

// An answer that says what a line meets is refused where it does not, and is not passed over.
func TestAnAnswerThatCannotBeIsRefused(t *testing.T) {
	h := nothing(t)
	first := h.begin()
	far := h.walk(first, "right 20 cut")
	for answer, what := range map[string]string{"meet " + first: "does not end near", "meet j9": "no joint or pipe"} {
		r := h.refused(edit.Edit{Gesture: &edit.Walk{From: far, Line: "up 10 cut"}, Answers: []string{answer}})
		assert.Contains(t, r.What, what)
	}
	top := h.walk(h.walk(far, "up 10 cut"), "left 20 cut")
	done := h.do(edit.Edit{Gesture: &edit.Walk{From: top, Line: "down 10 cut"}, Answers: []string{"meet " + first}})
	assert.Equal(t, first, done.Joint, "it is met without the answer, too")
}

func TestGesturesThatCannotBeMade(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 24")
	walk := func(w edit.Walk) edit.Edit { return edit.Edit{Gesture: &w} }
	for what, e := range map[string]edit.Edit{
		"no gesture":              {},
		"begun already":           {Gesture: &edit.Begin{}},
		"no direction":            walk(edit.Walk{From: a, Line: "46 clear"}),
		"no length":               walk(edit.Walk{From: a, Line: "up"}),
		"one line":                walk(edit.Walk{From: a, Line: "up down 4"}),
		"3 directions":            walk(edit.Walk{From: a, Line: "up left near 4"}),
		"not an angle":            walk(edit.Walk{From: a, Line: "right up@95 4"}),
		"that way already":        walk(edit.Walk{From: a, Line: "right 4"}),
		"not a unit":              walk(edit.Walk{From: a, Line: "up 4 furlongs"}),
		"of no length":            walk(edit.Walk{From: a, Line: "up 0"}),
		"no joint":                walk(edit.Walk{From: "attic", Line: "up 4"}),
		"no part":                 walk(edit.Walk{From: a, In: "attic", Line: "up 4"}),
		"no pipe size":            walk(edit.Walk{From: a, Line: "up 4", Size: "7"}),
		"no such end":             walk(edit.Walk{From: a, Line: "up 4", End: "cork"}),
		"no joint, place or pipe": walk(edit.Walk{From: a, Line: "up", Until: "attic"}),
		"51 times":                walk(edit.Walk{From: a, Line: "up 4 x51"}),
		"no such meaning":         walk(edit.Walk{From: a, Line: "up 4", Meaning: "wide"}),
		"straight up":             walk(edit.Walk{From: a, Line: "left 4 top"}),
		"joint \"" + b:            walk(edit.Walk{From: a, Line: "up 4", Name: b}),
		"from a joint to":         {Gesture: &edit.Join{From: a, To: a}},
		"nothing to group":        {Gesture: &edit.MakeGroup{Name: "foot"}},
		"without a name":          {Gesture: &edit.MakeGroup{Joints: []string{a}}},
		"cannot be a name":        {Gesture: &edit.MakeGroup{Name: "a/b", Joints: []string{a}}},
		"no group":                {Gesture: &edit.Place{Group: "foot", On: a}},
		"2 sides":                 {Gesture: &edit.Ring{Sides: 2, Side: "4"}},
		"a size across":           {Gesture: &edit.Ring{Sides: 8}},
		"spokes":                  {Gesture: &edit.Ring{Sides: 6, Side: "4", Spokes: true}},
		"across its flats":        {Gesture: &edit.Ring{Sides: 8, Across: "30 cut"}},
		"there is no pla":         {Gesture: &edit.Insert{Axis: measure.X, After: h.plane("", measure.X, 0), Like: h.plane("", measure.X, 6)}},
		"nothing stands betw":     {Gesture: &edit.Even{Axis: measure.X, From: h.plane("", measure.X, 0), To: h.plane("", measure.X, 1)}},
		"only plane":              {Gesture: &edit.Remove{Axis: measure.Y, Plane: h.plane("", measure.Y, 0)}},
	} {
		assert.Contains(t, h.refused(e).Error(), what[:min(len(what), 14)], "%v", what)
	}
}

// What is refused names the field at fault, by its place in the gesture; nothing where it is none of them.
func TestARefusalNamesItsField(t *testing.T) {
	h := nothing(t)
	end := h.walk(h.walk(h.begin(), "right 24 centre"), "up 10")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "post", Joints: []string{end}}})
	door := func(name, say string) *edit.ClearanceCheck {
		return &edit.ClearanceCheck{Kind: frame.Doorway, Name: name, Say: say}
	}
	wye := func(name string, ports ...string) *edit.Custom {
		return &edit.Custom{Name: name, Size: "3/4", Ports: ports}
	}
	for _, c := range []struct {
		field string
		of    edit.Gesture
	}{
		{"/link/on/0", &edit.Link{Kind: frame.Clip, On: []string{"p9 at 3"}}},
		{"/link/on/1", &edit.Link{Kind: frame.Tie, On: []string{"p1", "p1 at 300"}}},
		{"/link/hub", &edit.Link{Kind: frame.Axle, On: []string{"p1", "p1"}, Hub: "wide"}},
		{"", &edit.Link{Kind: "glue", On: []string{"p1"}}},
		{"/check/name", door(" ", "32")},
		{"/check/say", door("the hall", "")},
		{"/check/say", door("the hall", "32 x high")},
		{"/custom/name", wye("tee", "left 1", "up 1")},
		{"/custom/name", wye("", "left 1", "up 1")},
		{"/custom/ports", wye("wye", "left 1")},
		{"/custom/ports", wye("wye", "left 1", "sideways 1")},
		{"/custom/ports", wye("wye", "left 1", "up far")},
		{"/custom/ports", wye("wye", "left 1", "left 2")},
		{"/repeat/count", &edit.Repeat{Part: "post 1", Count: 501, Pitch: "24"}},
		{"/repeat/pitch", &edit.Repeat{Part: "post 1", Count: 3, Pitch: "far"}},
		{"/repeat/pitch", &edit.Repeat{Part: "post 1", Count: 3, Pitch: "24 cut"}},
		{"/repeat/joined", &edit.Repeat{Part: "post 1", Count: 3, Joined: true}},
		{"", &edit.Repeat{Part: "post 9", Count: 3, Pitch: "24"}},
	} {
		r := h.refused(edit.Edit{Gesture: c.of})
		assert.Equal(t, c.field, r.Field, "%s: %+v", r.What, c.of)
	}
}

// Nothing is held at a pipe's open end, and nobody is told that it is; with a cap, or in a fitting, it is.
func TestNothingIsHeldAtAnOpenEnd(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 20 cut")
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Hold{Joints: []string{"j2"}, Mode: frame.Slip}}).What, "open end")
	assert.Contains(t, h.refused(edit.Edit{Gesture: &edit.Hold{Pipes: []string{"p1"}, Mode: frame.Slip}}).What, "both its ends are open")
	h.walk("j2", "up 10 cut capped")
	h.do(edit.Edit{Gesture: &edit.Hold{Joints: []string{"j2", "j3"}, Mode: frame.Slip}})
	h.do(edit.Edit{Gesture: &edit.Hold{Pipes: []string{"p1"}, Mode: frame.Eased}})
	assert.Len(t, h.doc.ModeRules, 3, "of the pipe only the end that goes into something")
}

// What something gave way to is told as it is now: typed anew, it says so; and once that gave way itself it is no reason, so
// that what gave way may hold again.
func TestAReasonToGiveWayIsNotStale(t *testing.T) {
	h := nothing(t)
	first := h.begin()
	top := h.walk(h.walk(h.walk(first, "right 20 cut"), "up 10 cut"), "left 20 cut")
	h.walk(top, "down to "+first)
	long := edit.Edit{Gesture: &edit.Size{Pipe: "p4", Length: "12 cut"}}
	q := h.asks(long.Gesture)
	long.Answers = q.Options[0].Answers()
	h.do(long)
	gave := func() (gave string, freed bool) {
		for _, z := range h.plan().Frames[0].Sizes {
			if z.Pipe == "p2" {
				return z.Gave, z.Freed
			}
		}
		return "", false
	}
	words, freed := gave()
	assert.Equal(t, "12 cut of ⟨p4⟩", words)
	assert.False(t, freed)
	h.do(edit.Edit{Gesture: &edit.Size{Pipe: "p4", Length: "14 cut"}})
	words, _ = gave()
	assert.Equal(t, "14 cut of ⟨p4⟩", words)
	var own string
	for _, z := range h.doc.Root.Sizes {
		if z.Pipe == "p4" {
			own = z.ID
		}
	}
	h.do(edit.Edit{Gesture: &edit.Size{ID: own}})
	_, freed = gave()
	assert.True(t, freed, "nothing is in its way any more")
}
