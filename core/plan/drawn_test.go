package plan_test

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// hand draws a frame line by line, as a builder types it. A line begins at the
// joint it names, else where the last one ended.
type hand struct {
	t    require.TestingT
	doc  *frame.Document
	unit measure.Unit // of bare numbers; the document's own where it is missing
	last edit.Done
	gave []edit.GivenUp
}

func draws(t require.TestingT, size catalog.Size, lines ...string) *hand {
	h := &hand{t: t, doc: &frame.Document{Format: frame.Format, Units: measure.Inches, Size: size, Mode: frame.Cemented}}
	h.lines(lines...)
	return h
}

func (h *hand) lines(lines ...string) {
	for _, l := range lines {
		require.NoError(h.t, h.line(l), l)
	}
}

// line makes one line; what is asked is not answered but given back.
func (h *hand) line(text string) error {
	words := strings.Fields(text)
	switch {
	case words[0] == "join":
		return h.do(&edit.Join{From: words[1], To: words[2]})
	case words[0] == "split":
		w := &edit.Split{Pipe: words[1]}
		if len(words) > 3 { // split p1 at 10
			w.Length = strings.Join(words[3:], " ")
		}
		return h.do(w)
	}
	w := &edit.Walk{From: h.last.Joint, Line: text}
	if from, course, named := strings.Cut(text, ": "); named {
		w.From, w.Line = from, course
	}
	if rest, size, sized := strings.Cut(w.Line, " of "); sized {
		w.Line, w.Size = rest, catalog.Size(size)
	}
	return h.do(w)
}

func (h *hand) do(g edit.Gesture, answers ...string) error {
	doc, done, err := plan.Edit(context.Background(), h.doc, edit.Edit{Gesture: g, Unit: h.unit, Answers: answers}, nil)
	if err != nil {
		return err
	}
	h.doc, h.last, h.gave = doc, done, append(h.gave, done.GivenUp...)
	return nil
}

// cuts gives the cut of each pipe, by its id.
func (h *hand) cuts() map[string]string {
	all := map[string]string{}
	for _, p := range h.plan().Frames[0].Pipes {
		all[p.Pipe] = strings.Trim(p.Cut.Format(measure.InInches, 0), `"`)
	}
	return all
}

func (h *hand) plan() *plan.Plan {
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *h.doc, Copies: 1}}, Tool: "shear"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(h.t, err)
	return p
}

// sound wants no finding about sizes or about the document's own rules.
func (h *hand) sound(t *testing.T) {
	for _, f := range h.plan().Findings {
		assert.NotContains(
			t,
			[]string{
				"sizes-contradict",
				"size-off-its-pipe",
				"size-without-pipe",
				"sizes-disagree",
				"size-too-small",
				"turned-round",
				"zero-length",
				"too-short",
				"closes-nearly",
				"loop-residual",
				"no-fitting",
			},
			f.Code,
			f.Text,
		)
	}
}

func asked(t *testing.T, err error) *edit.Question {
	var q *edit.Question
	require.True(t, errors.As(err, &q), "%v", err)
	return q
}

// The wrong twin: two joints stand at one place along an axis, and a size went
// by the other one.
func TestASizeIsTheSizeOfItsOwnPipe(t *testing.T) {
	h := draws(t, "3/4", "right 20", "away 10", "left 20", "near 10")
	require.Len(t, h.doc.Root.Pipes, 4, "the last line meets the first joint")
	h.lines("split p1", "split p3")
	far := h.last.Joint
	h.lines(far+": down 15 cut", "left 12 cut capped")
	h.sound(t)
	cuts := h.cuts()
	assert.Contains(t, cuts, "p7")
	assert.Equal(t, "15", cuts["p7"])
	assert.Equal(t, "12", cuts["p8"])

	h = draws(
		t,
		"3/4",
		"right 24 cut",
		"j1: away 24 cut",
		"right 4 cut",
		"j2: away 24 cut",
		"left 4 cut",
		"join j4 j6",
		"j4: up 10 cut",
		"away 10 cut",
	)
	h.sound(t)
	cuts = h.cuts()
	assert.Equal(t, "10", cuts["p7"])
	assert.Equal(t, "10", cuts["p8"])
	for id, want := range map[string]string{"p1": "24", "p2": "24", "p3": "4", "p4": "24", "p5": "4"} {
		assert.Equal(t, want, cuts[id], id)
	}
}

// A typed cut was lost in silence.
func TestATypedCutIsNeverLost(t *testing.T) {
	h := draws(t, "3/4", "right 24 cut", "j1: away 24 cut", "j2: away 24 cut", "away 10 cut")
	h.sound(t)
	assert.Equal(t, map[string]string{"p1": "24", "p2": "24", "p3": "24", "p4": "10"}, h.cuts())
	h = draws(t, "3/4", "away 7 cut", "j1: down 6 cut", "j1: up 12 cut", "j2: up 12 cut", "j4: up 18 cut")
	h.sound(t)
	assert.Equal(t, map[string]string{"p1": "7", "p2": "6", "p3": "12", "p4": "12", "p5": "18"}, h.cuts())

	// "Make it 7 cut" on one post turned another's 4 into 2 5/8
	h = draws(t, "3/4", "right 20 cut", "j1: up 4 cut", "j2: up 4 cut")
	require.NoError(t, h.do(&edit.Size{Pipe: "p2", Length: "7 cut"}))
	assert.Equal(t, map[string]string{"p1": "20", "p2": "7", "p3": "4"}, h.cuts())
}

// A loop that missed: the last line made a second level half an inch lower.
func TestALoopOfTypedCutsMeets(t *testing.T) {
	h := draws(t, "3/4", "up 36 cut", "up 20 cut", "right 48 cut", "down 20 cut", "left 48 cut")
	assert.Contains(t, h.last.Also, "meets ⟨j2⟩")
	h.sound(t)
	assert.Equal(t, map[string]string{"p1": "36", "p2": "20", "p3": "48", "p4": "20", "p5": "48"}, h.cuts())
	p := h.plan()
	require.Len(t, p.Frames[0].Loops, 1)
	assert.Equal(t, measure.Length(0), p.Frames[0].Loops[0].Off)
}

// Deleting two joints at once loses no more than deleting one after the other.
func TestDeletingASetIsDeletingOneByOne(t *testing.T) {
	draw := func() *hand { return draws(t, "3/4", "right 10", "right 10", "right 10", "up 12") }
	once := draw()
	require.NoError(t, once.do(&edit.Delete{Joints: []string{"j2", "j3"}}))
	for _, order := range [][]string{{"j2", "j3"}, {"j3", "j2"}} {
		h := draw()
		for _, j := range order {
			require.NoError(t, h.do(&edit.Delete{Joints: []string{j}}))
		}
		assert.Equal(t, slices.Sorted(values(once.cuts())), slices.Sorted(values(h.cuts())), order)
	}
	assert.Len(t, once.doc.Root.Pipes, 2)
}

func values(m map[string]string) func(yield func(string) bool) {
	return func(yield func(string) bool) {
		for _, v := range m {
			if !yield(v) {
				return
			}
		}
	}
}

// With lengths shown in millimetres a bare number is one of millimetres, and
// stays one whatever they are shown in later.
func TestABareNumberKeepsItsUnit(t *testing.T) {
	d := &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	d, _, err := plan.Edit(context.Background(), d, edit.Edit{Gesture: &edit.Walk{Line: "right 700"}, Unit: measure.Millimetres}, nil)
	require.NoError(t, err)
	s := d.Root.Sizes[0]
	assert.Equal(t, 700*measure.Millimetre, s.Value)
	assert.Equal(t, "700", s.Text)
	assert.Equal(t, measure.Millimetres, s.Unit)
}

// What is typed in millimetres is asked about and answered in them.
func TestMillimetresAreAnsweredInMillimetres(t *testing.T) {
	h := draws(t, "3/4")
	h.unit = measure.Millimetres
	h.lines("right 1200 cut", "j1: up 600 cut", "right 1200 cut")
	post := &edit.Walk{From: "j2", Line: "up 590 cut"}
	q := asked(t, h.do(post, "meet j4"))
	assert.Contains(t, q.What, "600 mm cut of ⟨p2⟩")
	assert.Contains(t, q.What, "(10 mm)")
	assert.Contains(t, q.Options[1].Label, "590 mm cut of the new pipe gives way: it becomes 600 mm cut length")
	require.NoError(t, h.do(post, "meet j4", "size s2"))
	assert.Equal(
		t,
		edit.GivenUp{Size: "s2", Was: "600 mm cut of ⟨p2⟩", Now: "590 mm cut length", Words: "gave way to 590 mm cut of ⟨p4⟩"},
		h.gave[0],
	)
	assert.Equal(t, "600 mm cut length of B (left) is 590 mm: it gave way to 590 mm cut of B (right)", h.finding("gave-way").Text)
}

// Two posts of unlike cuts and a bar between their tops: what gives way is
// asked, with both values, and what was chosen is kept and shown.
func TestWhatCannotHoldTogetherIsAsked(t *testing.T) {
	draw := func() *hand { return draws(t, "3/4", "right 48 cut", "j1: up 24 cut", "right 48 cut") }
	post := &edit.Walk{From: "j2", Line: "up 23 1/2 cut"}
	h := draw()
	q := asked(t, h.do(post))
	assert.Contains(t, q.What, "close to ⟨j4⟩")
	require.NoError(t, draw().do(post, "apart"))
	q = asked(t, h.do(post, "meet j4"))
	assert.Contains(t, q.What, "24 cut of ⟨p2⟩")
	assert.Contains(t, q.What, "23 1/2 cut of the new pipe")
	assert.Contains(t, q.What, "(1/2\")")
	labels := map[string]string{}
	for _, o := range q.Options {
		labels[o.ID] = o.Label
	}
	assert.Equal(t, `23 1/2 cut of the new pipe gives way: it becomes 24" cut length`, labels["size s4"])
	assert.Equal(t, `24 cut of ⟨p2⟩ gives way: it becomes 23 1/2" cut length`, labels["size s2"])
	assert.Equal(t, "⟨p3⟩ slopes", labels["pipe p3"])

	require.NoError(t, h.do(post, "meet j4", "size s2"))
	assert.Equal(t, map[string]string{"p1": "48", "p2": "23 1/2", "p3": "48", "p4": "23 1/2"}, h.cuts())
	require.Len(t, h.gave, 1)
	assert.Equal(
		t,
		edit.GivenUp{Size: "s2", Was: "24 cut of ⟨p2⟩", Now: `23 1/2" cut length`, Words: "gave way to 23 1/2 cut of ⟨p4⟩"},
		h.gave[0],
	)
	p := h.plan()
	i := slices.IndexFunc(p.Frames[0].Sizes, func(z layout.Size) bool { return z.ID == "s2" })
	assert.Equal(t, "23 1/2 cut of ⟨p4⟩", p.Frames[0].Sizes[i].Gave)
	assert.Equal(t, "24", p.Frames[0].Sizes[i].Text)
	h.sound(t)

	h = draw()
	require.NoError(t, h.do(post, "meet j4", "pipe p3"))
	cuts := h.cuts()
	assert.Equal(t, [3]string{"48", "24", "23 1/2"}, [3]string{cuts["p1"], cuts["p2"], cuts["p4"]})
}

// What gave way is told; when what it gave way to goes it is offered back, and
// holds again only when its builder says so.
func TestWhatGaveWayIsOfferedBack(t *testing.T) {
	h := draws(t, "3/4", "right 48 cut", "j1: up 24 cut", "right 48 cut")
	require.NoError(t, h.do(&edit.Walk{From: "j2", Line: "up 23 1/2 cut"}, "meet j4", "size s2"))
	told := h.finding("gave-way")
	assert.Equal(t, `24 cut length of B (left) is 23 1/2": it gave way to 23 1/2 cut of B (right)`, told.Text)
	assert.Equal(t, "p2", told.Subject())
	require.NoError(t, h.do(&edit.Delete{Pipes: []string{"p4"}}))
	require.Len(t, h.last.Offers, 1)
	assert.Equal(t, "24 cut length of ⟨p2⟩ holds again", h.last.Offers[0].Label)
	assert.Equal(t, "23 1/2", h.cuts()["p2"], "not by itself")
	f := h.finding("may-hold-again")
	require.Len(t, f.Fixes, 2)
	var back edit.Edit
	require.NoError(t, json.Unmarshal(f.Fixes[0].Edits[0].Value, &back))
	require.NoError(t, h.do(back.Gesture))
	assert.Equal(t, "24", h.cuts()["p2"])
	h.sound(t)
}

func (h *hand) finding(code string) finding.Finding {
	all := h.plan().Findings
	i := slices.IndexFunc(all, func(f finding.Finding) bool { return f.Code == code })
	require.GreaterOrEqual(h.t, i, 0, code)
	return all[i]
}

// A rack's first leg makes its side longer than the other one, and something
// gives way; once the leg on the other side stands both are even, and what gave
// way holds again as it was typed, with a word.
func TestWhatGaveWayHoldsAgainWhenBothSidesAreEven(t *testing.T) {
	for _, way := range []string{"pipe p8", "size s3", "size s6"} {
		h := draws(
			t,
			"3/4",
			"away 4 cut",
			"away 16 cut",
			"away 4 cut",
			"j1: right 16 cut",
			"away 4 cut",
			"away 16 cut",
			"away 4 cut",
			"left 16 cut",
		)
		want := h.cuts()
		require.NoError(t, h.do(&edit.Walk{From: "j2", Line: "down 7 cut capped"}, way))
		h.finding("gave-way")
		h.lines("j6: down 7 cut capped")
		require.Len(t, h.last.Also, 1, "%v", h.last.Also)
		assert.Contains(t, h.last.Also[0], "holds again")
		for p, cut := range want {
			assert.Equal(t, cut, h.cuts()[p], "%s after %s", p, way)
		}
		h.sound(t)
		assert.False(t, slices.ContainsFunc(h.plan().Findings, func(f finding.Finding) bool { return f.Code == "gave-way" }), way)
	}
}

// Where there is no gesture that could ask, as when a fitting was measured in
// the shop, the one said first holds and the finding gives the choices.
func TestAContradictionWithoutAGestureGivesItsChoices(t *testing.T) {
	h := draws(t, "3/4", "right 48 cut", "j1: up 24 cut", "j2: up 24 cut", "join j3 j4")
	h.doc.Root.Pipes[3].Dir = &measure.Dir{1, 0, 0}
	h.doc.Root.Sizes[2].Value -= measure.Inch
	h.doc.Root.Sizes[2].Text = "23"
	assert.Equal(t, "24", h.cuts()["p2"], "said first")
	assert.Equal(t, "23", h.cuts()["p3"], "the bar was said last: it slopes")
	f := h.finding("sizes-contradict")
	assert.Equal(
		t,
		`A (top) straight across cannot hold with A (bottom) straight across, 24 cut of B (left), 23 cut of C (right) (1"): the last said gives way`,
		f.Text,
	)
	require.NotEmpty(t, f.Fixes)
	for _, fix := range f.Fixes {
		var way edit.Edit
		require.NoError(t, json.Unmarshal(fix.Edits[0].Value, &way))
		one := *h
		require.NoError(t, one.do(way.Gesture), fix.Label)
		one.sound(t)
		if fix.Label == "24 cut of p2 gives way" {
			assert.Equal(t, "23", one.cuts()["p2"])
			assert.Equal(t, "23", one.cuts()["p3"])
		}
	}
}

// A height is bound to the body that it was typed from, an outside size to
// those that were outermost: another one that passes them is told, and taken in
// only when its builder says so.
func TestABodyThatPassesASizeIsTold(t *testing.T) {
	h := draws(t, "3/4", "right 20 cut", "j1: up 10 cut", "right 20 cut")
	require.NoError(t, h.do(&edit.Bay{Axis: measure.Z, Plane: "j3", Length: "30", Meaning: frame.TopOfPipe}, "size s2"))
	before := h.plan().Frames[0]
	top := func() measure.Length { return h.plan().Frames[0].Overall[2].Size }
	whole := top()
	h.lines("j2: down 6 cut capped")
	require.Len(t, h.last.Offers, 1, "%v", h.last.Also)
	f := h.finding("size-passed")
	assert.Contains(t, f.Text, "j5 (lower right corner) stands lower")
	require.Len(t, f.Fixes, 1)
	assert.Equal(t, before.Sizes[1].Out, h.plan().Frames[0].Sizes[1].Out, "it holds as typed")
	require.NoError(t, h.do(h.last.Offers[0].Edit.Gesture))
	h.sound(t)
	assert.Equal(t, whole, top(), "from the floor as it is now")

	h = draws(t, "3/4", "right 10 cut", "right 10 cut", "j1: up 10 cut", "j3: up 10 cut")
	require.NoError(t, h.do(&edit.Size{Ends: [2]string{"j1", "j3"}, Length: "24 outside"}, "size s2"))
	wide := func() measure.Length { return h.plan().Frames[0].Overall[0].Size }
	assert.Equal(t, 24*measure.Inch, wide())
	h.lines("j5: right 6 cut capped")
	require.Len(t, h.last.Offers, 1, "%v", h.last.Also)
	assert.Greater(t, wide(), 30*measure.Inch)
	require.NoError(t, h.do(h.last.Offers[0].Edit.Gesture))
	h.sound(t)
	assert.Equal(t, 24*measure.Inch, wide().Round(measure.SixtyFourth))
	assert.Equal(t, "6", h.cuts()["p5"])
}

// A pipe between two joints is of the size of the pipes that it joins.
func TestAPipeBetweenJointsIsOfTheirSize(t *testing.T) {
	h := draws(t, "3/4", "right 20 cut of 1-1/2", "j1: up 10 cut of 1-1/2", "j2: up 10 cut of 1-1/2", "join j3 j4")
	for _, p := range h.plan().Frames[0].Pipes {
		assert.Equal(t, catalog.Size("1-1/2"), p.Size, p.Pipe)
	}
	h = draws(t, "3/4", "right 20 cut", "j1: up 10 cut of 1-1/2", "j2: up 10 cut of 1/2", "join j3 j4")
	assert.Equal(t, catalog.Size("3/4"), h.plan().Frames[0].Pipes[3].Size, "they differ: the frame's own")
}

// A height is measured from what stands on the floor once its line is drawn:
// the elbow that the line makes hangs lower than the pipe that lay there.
func TestAHeightIsFromTheFloorThatItsLineMakes(t *testing.T) {
	tall := func(h *hand) measure.Length { return h.plan().Frames[0].Overall[2].Size }
	for _, lines := range [][]string{
		{"right 10 cut", "up 30 top"},
		{"right 10 cut", "right 10 cut", "j2: up 30 top"},
		{"right 10 cut", "up 30 top", "j2: right 10 cut"},
	} {
		h := draws(t, "3/4", lines...)
		assert.Equal(t, 30*measure.Inch, tall(h), "%v", lines)
		h.sound(t)
	}
	// typed anew it is from the floor as it is now
	h := draws(t, "3/4", "right 10 cut", "up 30 top", "j2: down 6 cut")
	assert.Greater(t, tall(h), 35*measure.Inch)
	require.NoError(t, h.do(&edit.Size{ID: "s2", Length: "36"}))
	assert.Equal(t, 36*measure.Inch, tall(h))
	assert.Equal(t, "6", h.cuts()["p3"])
}

// A typed cut is what is cut: the list prints it to the tape's step and shows
// what was typed beside it where they differ; a joint that is not cemented any
// more moves the outside, not the cut.
func TestTheListShowsATypedCutBesideItsStep(t *testing.T) {
	h := draws(t, "3/4", "right 24.03 cut", "up 10 cut", "j1: up 300 mm cut")
	notes := map[string]string{}
	p := h.plan()
	for _, g := range p.Cuts {
		notes[g.Letter] = g.Cut.Round(measure.SixtyFourth).Format(measure.InInches, 0) + "|" + g.Note()
	}
	assert.Equal(t, map[string]string{"A": `24"|typed 24.03 in`, "B": `11 13/16"|typed 300 mm`, "C": `10"|`}, notes)
	assert.Equal(t, measure.Length(24.03*float64(measure.Inch)), p.Frames[0].Pipes[0].Typed)
	wide := p.Frames[0].Overall[0].Size
	h.doc.Mode = frame.Slip
	assert.Equal(t, p.Frames[0].Pipes[0].Cut, h.plan().Frames[0].Pipes[0].Cut)
	assert.Greater(t, h.plan().Frames[0].Overall[0].Size, wide, "dry joints stand further out")
}

// "to j7" always meets, or is level with, what it names; what it cannot come to
// is refused with the way to say it.
func TestALineRunsToWhatItNames(t *testing.T) {
	draw := func() *hand { return draws(t, "3/4", "right 20", "away 10", "j1: up 12") }
	h := draw()
	require.NoError(t, h.line("j4: right to j3"))
	assert.Equal(t, []string{"level with ⟨j3⟩"}, h.last.Also)
	require.NoError(t, h.line("j5: down to j2"))
	assert.Equal(t, "j2", h.last.Joint)
	for line, hint := range map[string]string{
		"j4: right to":         "right to j7",
		"j4: right to z9":      "no joint, place or pipe",
		"j4: near to j2":       "not that way",
		"j4: right 5 to j3":    "right 5, or right to j3",
		"j4: right to =attic":  "no joint, place or pipe",
		"j4: right token":      "token",
		"j4: right 5 cut to 9": "leave one of them out",
	} {
		err := draw().line(line)
		require.Error(t, err, line)
		assert.Contains(t, err.Error(), hint, line)
	}
}
