package edit_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// hand is a builder's: it makes gestures on a frame, one after the other.
type hand struct {
	t    require.TestingT
	doc  *frame.Document
	done edit.Done
	n    int
}

func nothing(t require.TestingT) *hand {
	return &hand{t: t, doc: &frame.Document{Format: frame.Format, Name: "Frame", Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}}
}

func (h *hand) do(e edit.Edit) edit.Done {
	before, err := json.Marshal(h.doc)
	require.NoError(h.t, err)
	doc, done, err := plan.Edit(h.doc, e, nil)
	require.NoError(h.t, err)
	after, err := json.Marshal(h.doc)
	require.NoError(h.t, err)
	require.Equal(h.t, string(before), string(after), "the document given is not touched")
	h.doc, h.done = doc, done
	h.n++
	return done
}

func (h *hand) begin() string { return h.do(edit.Edit{Begin: &edit.Begin{}}).Joint }

func (h *hand) walk(from, course string) string {
	return h.do(edit.Edit{Walk: &edit.Walk{From: from, Course: course}}).Joint
}

// refused makes a gesture that cannot be made.
func (h *hand) refused(e edit.Edit) *edit.Refusal {
	_, _, err := plan.Edit(h.doc, e, nil)
	var r *edit.Refusal
	require.ErrorAs(h.t, err, &r)
	require.NotEmpty(h.t, r.Hint)
	return r
}

func (h *hand) plan() *plan.Plan {
	p, err := plan.Make(plan.Job{Frames: []plan.FrameUse{{Document: *h.doc, Copies: 1}}, Tool: "saw"}, plan.ExampleShop(), plan.Work{})
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
	for _, e := range []edit.Edit{
		{Begin: &edit.Begin{}},
		{Walk: &edit.Walk{Course: "right 46 clear x2"}},
		{Walk: &edit.Walk{Course: "up 30 cut"}},
	} {
		if e.Walk != nil {
			e.Walk.From = from
		}
		next, done, err := plan.Edit(doc, e, nil)
		if err != nil {
			fmt.Println(err)
			return
		}
		doc, from = next, done.Joint
		fmt.Println(done.Label)
	}
	// Output:
	// A first joint
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
	assert.Len(t, h.doc.Root.Axes[0].Stations, 2, "the way back found the stations of the way there")
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
	mid := h.do(edit.Edit{Split: &edit.Split{Pipe: "p1"}}).Joint
	h.walk(mid, "up 30") // a post in the middle, with a free end
	done := h.do(edit.Edit{Walk: &edit.Walk{From: top, Course: "left 40"}})
	assert.Contains(t, done.Also, "goes through "+h.doc.Root.Joints[len(h.doc.Root.Joints)-1].ID)
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
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x2", Length: "46 clear"}})
	// half a post at its ends, half a coupling in the middle
	stations := h.plan().Frames[0].Places[0].Stations[0]
	assert.Equal(t, in(46+0.525+0.66), stations[1].At-stations[0].At)
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x2", Pull: in(-3)}})
	stations = h.plan().Frames[0].Places[0].Stations[0]
	assert.Equal(t, in(43+0.525+0.66), stations[1].At-stations[0].At)
	assert.Equal(t, in(24+0.525+0.66), stations[2].At-stations[1].At, "the next bay keeps its size")
	h.doc.Size = "1"
	stations = h.plan().Frames[0].Places[0].Stations[0]
	assert.Equal(t, in(43+0.6575+0.81), stations[1].At-stations[0].At)

	h.do(edit.Edit{Even: &edit.Even{Axis: measure.X, From: "x1", To: "x3"}})
	stations = h.plan().Frames[0].Places[0].Stations[0]
	assert.InDelta(t, (stations[2].At - stations[1].At).Inches(), (stations[1].At - stations[0].At).Inches(), 1e-6)
	// the first station pulled left makes the first bay larger: here the last
	// size, on which the even bays hang
	h.refused(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x1", Length: "4"}})
	h.refused(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x9", Length: "4"}})
	h.refused(edit.Edit{Bay: &edit.Bay{Axis: 5, Station: "x2", Length: "4"}})
	r := h.refused(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x2", Length: "46 clearly"}})
	assert.Contains(t, r.Error(), "clearly")
}

// A pull of the first station makes its bay as much larger.
func TestTheFirstStationIsPulled(t *testing.T) {
	h := nothing(t)
	h.walk(h.begin(), "right 24")
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.X, Station: "x1", Pull: in(-2)}})
	assert.Equal(t, in(26), h.pipe("p1").Centre)
}

// Splitting and taking the joint away again gives the pipe that was there.
func TestSplitAndHeal(t *testing.T) {
	h := nothing(t)
	h.walk(h.begin(), "right 40 cut")
	before := h.pipe("p1")
	j := h.do(edit.Edit{Split: &edit.Split{Pipe: "p1", Length: "12"}}).Joint
	assert.Equal(t, map[catalog.Kind]int{catalog.Coupling: 1}, h.kinds())
	assert.Equal(t, in(12), h.pipe("p1").Centre, "the first part keeps the id")
	h.walk(j, "up 9")
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1}, h.kinds())
	h.do(edit.Edit{Delete: &edit.Delete{Pipes: []string{h.done.Pipe}}})
	assert.Contains(t, h.done.Also, "heals at "+j)
	assert.Equal(t, before.Centre, h.pipe("p1").Centre)
	assert.Len(t, h.doc.Root.Pipes, 1)
	assert.Len(t, h.doc.Root.Joints, 2)
	assert.Len(t, h.doc.Root.Axes[0].Stations, 2, "the level that only it stood on is gone")
	h.refused(edit.Edit{Split: &edit.Split{Pipe: "p1", Length: "99"}})
	h.refused(edit.Edit{Split: &edit.Split{Pipe: "p9"}})
	h.refused(edit.Edit{Delete: &edit.Delete{}})
}

// A slope is split on its line, wherever its ends go.
func TestASlopeIsSplitOnItsLine(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "up right 20 cut")
	h.do(edit.Edit{Split: &edit.Split{Pipe: "p1", Length: "8"}})
	assert.Equal(t, in(8), h.pipe("p1").Centre)
	assert.Equal(t, map[catalog.Kind]int{catalog.Coupling: 1}, h.kinds())
}

func TestSizesAndRuns(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	h.walk(a, "right 20 x3")
	h.do(edit.Edit{Resize: &edit.Resize{Pipe: "p1", Size: "1"}})
	assert.Equal(t, catalog.Size("1"), h.pipe("p1").Size)
	assert.Equal(t, catalog.Size("3/4"), h.pipe("p2").Size)
	h.do(edit.Edit{Resize: &edit.Resize{Pipe: "p2", Run: true, Size: "1-1/4"}})
	for _, id := range []string{"p1", "p2", "p3"} {
		assert.Equal(t, catalog.Size("1-1/4"), h.pipe(id).Size)
	}
	h.do(edit.Edit{Resize: &edit.Resize{Pipe: "p2"}})
	assert.Equal(t, catalog.Size("3/4"), h.pipe("p2").Size)
	h.refused(edit.Edit{Resize: &edit.Resize{Pipe: "p2", Size: "7"}})
}

func TestFittingsAndEnds(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "up 20")
	h.do(edit.Edit{End: &edit.EndOf{Joint: b, End: frame.CappedEnd}})
	h.do(edit.Edit{Fit: &edit.Fit{Joint: a, Kind: catalog.Tee, Spare: []measure.Dir{{1, 0, 0}, {-1, 0, 0}}, Plugged: true}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 1, catalog.Cap: 1}, h.kinds())
	h.do(edit.Edit{Fit: &edit.Fit{Joint: a}})
	assert.Equal(t, map[catalog.Kind]int{catalog.Cap: 1}, h.kinds())
	c := h.walk(b, "right 10")
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 1}, h.kinds(), "a capped end that goes on is no end")
	h.do(edit.Edit{End: &edit.EndOf{All: true, End: frame.CappedEnd}})
	assert.Equal(t, 2, h.kinds()[catalog.Cap])
	h.refused(edit.Edit{End: &edit.EndOf{All: true, End: frame.CappedEnd}})
	h.refused(edit.Edit{End: &edit.EndOf{Joint: b, End: frame.CappedEnd}})
	h.refused(edit.Edit{End: &edit.EndOf{Joint: c, End: "cork"}})
	h.refused(edit.Edit{Fit: &edit.Fit{Joint: c, Kind: "knot"}})
	h.refused(edit.Edit{Fit: &edit.Fit{Joint: c, Kind: catalog.Tee, Spare: []measure.Dir{{}}}})
}

// The cut of a pipe that alone spans a bay becomes the bay's size; of a slope,
// another size gives way, and the plan cuts what was asked for.
func TestACutDrivesTheSize(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 24")
	c := h.walk(a, "up 20")
	h.do(edit.Edit{Drive: &edit.Drive{Pipe: "p1", Length: "30"}})
	assert.Empty(t, h.doc.Drives)
	assert.Equal(t, 30*measure.Inch, h.pipe("p1").Cut)

	h.do(edit.Edit{Join: &edit.Join{From: b, To: c}})
	brace := h.done.Pipe
	h.do(edit.Edit{Drive: &edit.Drive{Pipe: brace, Length: "40"}})
	require.Len(t, h.doc.Drives, 1)
	assert.Equal(t, 40*measure.Inch, h.pipe(brace).Cut)
	assert.Equal(t, 30*measure.Inch, h.pipe("p1").Cut, "what was stated before stays")

	// stations before the one that gives way come and go: it is still that one
	h.walk(h.walk(a, "near 10"), "up 5")
	h.do(edit.Edit{Insert: &edit.Insert{Axis: measure.X, After: "x1"}})
	h.do(edit.Edit{Remove: &edit.Remove{Axis: measure.X, Station: h.doc.Root.Axes[0].Stations[2].ID}})
	assert.Equal(t, 40*measure.Inch, h.pipe(brace).Cut)

	h.do(edit.Edit{Drive: &edit.Drive{ID: "size 1", Gives: edit.Check}})
	h.do(edit.Edit{Drive: &edit.Drive{ID: "size 1", Length: "50 cut"}})
	assert.Contains(t, h.codes(), "sizes-contradict")
	h.do(edit.Edit{Drive: &edit.Drive{ID: "size 1"}})
	assert.Empty(t, h.doc.Drives)
	h.refused(edit.Edit{Drive: &edit.Drive{Pipe: "p77", Length: "40"}})
	h.refused(edit.Edit{Drive: &edit.Drive{Ends: [2]string{a, "nowhere"}, Length: "40 outside"}})
}

// A size stated anew where another had to give way ends the giving.
func TestAStatedSizeEndsADrive(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 24")
	c := h.walk(a, "up 20")
	h.do(edit.Edit{Join: &edit.Join{From: b, To: c}})
	h.do(edit.Edit{Drive: &edit.Drive{Pipe: h.done.Pipe, Length: "40", Gives: "/root/axes/2/stations/1/at"}})
	h.do(edit.Edit{Bay: &edit.Bay{Axis: measure.Z, Station: "z2", Length: "22"}})
	assert.Empty(t, h.doc.Drives)
	assert.Contains(t, h.done.Also, "size 1 no longer holds")
}

func TestGesturesThatCannotBeMade(t *testing.T) {
	h := nothing(t)
	a := h.begin()
	b := h.walk(a, "right 24")
	walk := func(w edit.Walk) edit.Edit { return edit.Edit{Walk: &w} }
	for what, e := range map[string]edit.Edit{
		"0 gestures":          {},
		"2 gestures":          {Begin: &edit.Begin{}, Walk: &edit.Walk{}},
		"begun already":       {Begin: &edit.Begin{}},
		"no direction":        walk(edit.Walk{From: a, Course: "46 clear"}),
		"no length":           walk(edit.Walk{From: a, Course: "up"}),
		"one line":            walk(edit.Walk{From: a, Course: "up down 4"}),
		"3 directions":        walk(edit.Walk{From: a, Course: "up left near 4"}),
		"not an angle":        walk(edit.Walk{From: a, Course: "right up@95 4"}),
		"that way already":    walk(edit.Walk{From: a, Course: "right 4"}),
		"not a unit":          walk(edit.Walk{From: a, Course: "up 4 furlongs"}),
		"of no length":        walk(edit.Walk{From: a, Course: "up 0"}),
		"no joint":            walk(edit.Walk{From: "attic", Course: "up 4"}),
		"no part":             walk(edit.Walk{From: a, In: "attic", Course: "up 4"}),
		"no pipe size":        walk(edit.Walk{From: a, Course: "up 4", Size: "7"}),
		"no such end":         walk(edit.Walk{From: a, Course: "up 4", End: "cork"}),
		"no station":          walk(edit.Walk{From: a, Course: "up", Until: "attic"}),
		"51 times":            walk(edit.Walk{From: a, Course: "up 4 x51"}),
		"no such meaning":     walk(edit.Walk{From: a, Course: "up 4", Meaning: "wide"}),
		"straight up":         walk(edit.Walk{From: a, Course: "left 4 top"}),
		"joint \"" + b:        walk(edit.Walk{From: a, Course: "up 4", Name: b}),
		"from a joint to":     {Join: &edit.Join{From: a, To: a}},
		"joins":               {Join: &edit.Join{From: a, To: b}},
		"nothing to group":    {Group: &edit.Group{Name: "foot"}},
		"without a name":      {Group: &edit.Group{Joints: []string{a}}},
		"cannot be a name":    {Group: &edit.Group{Name: "a/b", Joints: []string{a}}},
		"no group":            {Place: &edit.PlaceUse{Group: "foot", On: a}},
		"2 sides":             {Ring: &edit.Ring{Sides: 2, Side: "4"}},
		"a size across":       {Ring: &edit.Ring{Sides: 8}},
		"spokes":              {Ring: &edit.Ring{Sides: 6, Side: "4", Spokes: true}},
		"across its flats":    {Ring: &edit.Ring{Sides: 8, Across: "30 cut"}},
		"nothing stands":      {Insert: &edit.Insert{Axis: measure.X, After: "x1", Like: "x7"}},
		"nothing stands betw": {Even: &edit.Even{Axis: measure.X, From: "x1", To: "x2"}},
		"only station":        {Remove: &edit.Remove{Axis: measure.Y, Station: "y1"}},
	} {
		assert.Contains(t, h.refused(e).Error(), what[:min(len(what), 14)], "%v", what)
	}
}
