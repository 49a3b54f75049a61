package project_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/project"
)

// pages draws lines on a project as the page sends them.
type pages struct {
	t *testing.T
	p *project.Project
}

func blankPages(t *testing.T) *pages {
	return &pages{t, &project.Project{Name: "Frame", Units: measure.Inches, Style: measure.InInches, Copies: 1, Tool: "saw"}}
}

func (x *pages) lines() (all []lines.Line) {
	if x.p.Page == nil {
		return nil
	}
	return slices.Clone(x.p.Page.Lines)
}

func (x *pages) draw(all []lines.Line) {
	next, _, err := x.p.Draw(context.Background(), all, project.Workshop{})
	require.NoError(x.t, err)
	x.p = next
}

func (x *pages) paste(text string) {
	more, err := lines.Parse(text)
	require.NoError(x.t, err)
	x.draw(append(x.lines(), more...))
}

func (x *pages) gesture(g edit.Gesture) {
	next, _, err := x.p.Edit(context.Background(), edit.Edit{Gesture: g}, project.Workshop{})
	require.NoError(x.t, err)
	x.p = next
}

func (x *pages) texts() (all []string) {
	for _, l := range x.lines() {
		all = append(all, l.Text)
	}
	return all
}

func (x *pages) joints() (all []string) {
	for _, j := range x.p.Frame.Root.Joints {
		all = append(all, j.ID)
	}
	slices.Sort(all)
	return all
}

// What is done by hand appears on the page as its line; when a line before it changes or goes, what
// it made is called what it was; a name whose line is gone is an error where it is used, and the
// lines after it wait, with their names.
func TestNamesBelongToTheirLines(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 cut\nup 10 cut capped # a post\nj1: up 12 cut capped")
	x.gesture(&edit.Walk{From: "j2", Line: "right 8 cut"})
	x.gesture(&edit.Walk{From: "j5", Line: "up 4 cut", End: frame.CappedEnd})
	assert.Equal(t, []string{
		"right 24 cut", "up 10 cut capped # a post", "j1: up 12 cut capped", "j2: right 8 cut", "up 4 cut capped",
	}, x.texts())
	assert.Equal(t, []string{"j1", "j2", "j3", "j4", "j5", "j6"}, x.joints())

	x.draw(slices.Delete(x.lines(), 1, 2)) // the post goes
	assert.Nil(t, x.p.Page.Wrong)
	assert.Equal(t, []string{"j1", "j2", "j4", "j5", "j6"}, x.joints())
	x.draw(slices.Insert(x.lines(), 1, lines.Line{Text: "up 5 cut capped"}))
	assert.Equal(t, []string{"j1", "j2", "j4", "j5", "j6", "j7"}, x.joints(), "what is new gets a number that nothing had")

	all := x.lines()
	all[3].Text = "j2: right 8 cats"
	x.draw(all)
	require.NotNil(t, x.p.Page.Wrong)
	assert.Equal(t, 3, x.p.Page.Wrong.Line)
	assert.Equal(t, 3, x.p.Page.Drawn)
	assert.Len(t, x.p.Page.Lines, 5, "what waits is kept")
	assert.Equal(t, []string{"j1", "j2", "j4", "j7"}, x.joints())
	x.gesture(&edit.Walk{From: "j7", Line: "right 3 cut"}) // work goes on before what waits
	assert.Equal(t, 4, x.p.Page.Wrong.Line)

	all = x.lines()
	all[4].Text = "j2: right 8 cut"
	x.draw(all)
	assert.Nil(t, x.p.Page.Wrong)
	assert.Equal(t, []string{"j1", "j2", "j4", "j5", "j6", "j7", "j8"}, x.joints())

	gone := slices.Delete(x.lines(), 4, 5) // j5 goes, and what is drawn from it by name
	gone[4].Text = "j5: up 4 cut capped"
	x.draw(gone)
	require.NotNil(t, x.p.Page.Wrong)
	assert.Contains(t, x.p.Page.Wrong.What, "j5")
	assert.Contains(t, x.p.Page.Wrong.Hint, "gone")
}

// Sizes that are typed over, joints that are set dry and the frame's usual size are on the page, too.
func TestAllThatIsTypedIsOnThePage(t *testing.T) {
	x := blankPages(t)
	x.paste("size 1\nright 24 cut\nup 10 cut\ndry j2")
	require.Equal(t, []frame.ModeRule{{Joint: "j2", Mode: frame.Slip}}, x.p.ModeRules)
	x.p.Sizes = map[string]starter.Answer{x.p.Frame.Root.Sizes[0].ID: {Text: "30", Meaning: frame.Cut, Unit: measure.Inches}}
	x.p.ModeRules = append(x.p.ModeRules, frame.ModeRule{Joint: "j1", Mode: frame.Eased})
	x.gesture(&edit.Walk{From: "j3", Line: "left to j1"})
	ofAnOpenEnd := `do {"hold":{"rules":[{"joint":"j1","mode":"eased"}]}}`
	assert.Equal(t, []string{"size 1", "right 24 cut", "up 10 cut", "dry j2", "retype s1 30 cut", ofAnOpenEnd, "left to j1"}, x.texts())
	wide := planned(t, x.p).Frames[0].Overall[0].Size

	again := blankPages(t)
	again.paste(lines.Text(x.p.Page.Lines))
	assert.Equal(t, x.p.Frame, again.p.Frame)
	assert.Equal(t, wide, planned(t, again.p).Frames[0].Overall[0].Size)

	x.draw(slices.Delete(x.lines(), 3, 4))
	assert.Equal(
		t,
		[]frame.ModeRule{{Joint: "j1", Mode: frame.Eased}},
		x.p.ModeRules,
		"what the line set goes with it; what was set elsewhere stays",
	)
}

// A line goes on from what is picked, and from each of what is marked; a question waits on the page
// with its answers.
func TestALineIsSaidWhereOneIs(t *testing.T) {
	x := blankPages(t)
	x.paste("right 10 cut times 3\nj1: up 9 cut")
	say := func(s project.Saying) error {
		next, _, err := x.p.Say(context.Background(), s, edit.Edit{}, project.Workshop{})
		if err == nil {
			x.p = next
		}
		return err
	}
	require.NoError(t, say(project.Saying{Line: "near 4 cut capped", From: "j2", Marked: []string{"j3", "j4"}}))
	require.NoError(t, say(project.Saying{Line: "size 2"}))
	require.NoError(t, say(project.Saying{Line: "up 5 cut", From: "j2"}))
	assert.Equal(t, []string{
		"right 10 cut times 3", "j1: up 9 cut", "j3 j4: near 4 cut capped", "size 2", "j2: up 5 cut",
	}, x.texts())
	assert.Len(t, x.p.Frame.Root.Pipes, 7)

	err := say(project.Saying{Line: "split Z at 4"})
	var r *edit.Refusal
	require.ErrorAs(t, err, &r)
	assert.Equal(t, 6, r.At, "where the word is")

	x.paste("j5: right 10 1/4") // close to what stands on j2
	if w := x.p.Page.Wrong; w != nil {
		require.NotEmpty(t, w.Answers)
		all := x.lines()
		all[w.Line].Text += " (" + w.Answers[0].ID + ")"
		x.draw(all)
	}
	assert.Nil(t, x.p.Page.Wrong)
}

// A frame that follows from a starter tells its lines; they are added to and not drawn anew.
func TestLinesOnAStarter(t *testing.T) {
	x := blankPages(t)
	x.p.Starter = &starter.Begun{ID: "jump", Answers: map[string]starter.Answer{"width": {Text: "4 ft"}}}
	x.gesture(&edit.Walk{From: "left/hub", Line: "left 6 cut"})
	assert.Equal(t, []string{"left/hub: left 6 cut"}, x.texts())
	x.paste("up 4 cut capped")
	require.Nil(t, x.p.Page.Wrong)
	require.NotNil(t, x.p.Starter)
	_, _, err := x.p.Draw(context.Background(), nil, project.Workshop{})
	var r *edit.Refusal
	require.ErrorAs(t, err, &r)
	assert.Contains(t, strings.ToLower(r.Hint), "answers")
}

// What is typed over a size, or set of a joint, beside the lines is said as the line that the next
// one has before it, and where nothing was, nothing is.
func TestWhatIsTypedBesideTheLinesIsSaid(t *testing.T) {
	x := blankPages(t)
	assert.Empty(t, x.p.Beside())
	x.paste("right 24 cut\nup 10 cut")
	assert.Empty(t, x.p.Beside())
	x.p.Sizes = map[string]starter.Answer{"s1": {Text: "30", Meaning: frame.Cut}}
	x.p.ModeRules = []frame.ModeRule{{Joint: "j2", Mode: frame.Slip}}
	beside := x.p.Beside()
	require.Len(t, beside, 2)
	x.gesture(&edit.Walk{From: "j3", Line: "right 8 cut"})
	assert.Equal(t, append([]string{"right 24 cut", "up 10 cut"}, append(beside, "right 8 cut")...), x.texts())
	assert.Empty(t, x.p.Beside(), "they are lines now")
}

// A letter in a line is the one that the builder sees: with how joints are held, and as it is
// written on what was cut.
func TestALetterIsTheOneThatIsSeen(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 centre\nj1: up 24 centre\nj2: up 20 centre")
	shop := plan.ExampleShop()
	seen := func(events []record.Event) map[string]string {
		of := map[string]string{}
		for _, l := range plan.Lettered(worked(t, x.p, events)) {
			of[l.Letter] = l.Pipe
		}
		require.Len(t, of, 3, "each has its own letter")
		return of
	}
	split := func(events []record.Event) {
		t.Helper()
		for letter, pipe := range seen(events) {
			next, _, err := x.p.Say(context.Background(), project.Saying{Line: "split " + letter}, edit.Edit{},
				project.Workshop{Shop: &shop, Work: record.Add(events)})
			require.NoError(t, err)
			all := next.Page.Lines
			assert.Equal(t, "split "+pipe, all[len(all)-1].Text, letter)
		}
	}
	x.p.ModeRules = []frame.ModeRule{{Joint: "j2", Mode: frame.Eased}} // else p1 and p2 are of one length
	split(nil)
	written := record.Event{ID: "e", Kind: record.Lettered} // on the pieces
	for _, c := range worked(t, x.p, nil).Cuts {
		written.Letters = append(written.Letters, record.Letter{Letter: c.Letter, Size: c.Size, Cut: c.Cut, Class: c.Class, Path: c.Path})
	}
	events := []record.Event{written}
	x.p.Sizes = map[string]starter.Answer{"s3": {Text: "30"}} // the shortest is the longest now
	require.NotEqual(t, seen(nil), seen(events), "what is written on pipe stays")
	split(events)

	// a line that is changed among others has the letters that are seen, too
	all := x.lines()
	var of string
	for letter, pipe := range seen(events) {
		if pipe == "p3" {
			of = letter
		}
	}
	all[2].Text = "split " + of
	next, _, err := x.p.Draw(context.Background(), all, project.Workshop{Shop: &shop, Work: record.Add(events)})
	require.NoError(t, err)
	require.NotNil(t, next.Page.Wrong, "p3 is not there before the line that made it")
	for letter, pipe := range seen(events) {
		if pipe == "p1" {
			all[2].Text = "split " + letter
		}
	}
	next, _, err = x.p.Draw(context.Background(), all, project.Workshop{Shop: &shop, Work: record.Add(events)})
	require.NoError(t, err)
	assert.Equal(t, "split p1", next.Page.Lines[2].Text)
}

// Joints that a line marks are marked for the lines after it, however these come onto the page: a line
// without a start runs from each of them, and is drawn again as it was.
func TestLinesMarkJoints(t *testing.T) {
	const gate, marked = "right 24 cut\nj1: up 10 cut\nj2: up 10 cut", "mark j3 j4\nnear 6 cut\nmark j5 j6\ncap marked\nmark none\nj3: up 5 cut"
	x := blankPages(t)
	x.paste(gate)
	x.paste(marked)
	require.Nil(t, x.p.Page.Wrong)
	assert.Equal(t, 7, len(x.p.Frame.Root.Joints))
	x.paste("mark j3 j4")
	x.gesture(&edit.Walk{From: x.p.Page.Pen.At, Line: "up 4 cut"})
	assert.Equal(t, "j7: up 4 cut", x.texts()[len(x.texts())-1], "it ran from one joint, whatever is marked")
	joints := x.joints()
	all := x.lines()
	all[0].Text = "right 30 cut"
	x.draw(all)
	require.Nil(t, x.p.Page.Wrong)
	assert.Equal(t, joints, x.joints())

	page, doc, _ := (&lines.Page{Lines: parsed(t, gate+"\n"+marked)}).Draw(project.Blank("", measure.Inches), lines.Tools{
		Edit: func(d *frame.Document, e edit.Edit) (*frame.Document, edit.Done, error) {
			return plan.Edit(context.Background(), d, e, nil)
		},
	})
	require.Nil(t, page.Wrong)
	assert.Len(t, doc.Root.Joints, 7)
}

func parsed(t *testing.T, text string) []lines.Line {
	all, err := lines.Parse(text)
	require.NoError(t, err)
	return all
}

// What is picked beside the line counts where the line says nothing of it, before its comment.
func TestWhatIsPickedBesideTheLineCounts(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 cut")
	for line, want := range map[string]string{
		"up 5 cut # a post":     "up 5 cut size 1 capped # a post",
		"up 5 cut size 3/4":     "up 5 cut size 3/4 capped",
		"up 5 cut open":         "up 5 cut size 1 open",
		"split p1":              "split p1",
		"hoop right 96 rise 24": "hoop right 96 rise 24 size 1",
	} {
		next, _, err := x.p.Say(context.Background(),
			project.Saying{Line: line, From: "j2", Size: "1", End: frame.CappedEnd}, edit.Edit{}, project.Workshop{})
		require.NoError(t, err, line)
		assert.Equal(t, want, next.Page.Lines[len(next.Page.Lines)-1].Text)
	}
}

// A text that was written of a page is pasted with the names that its lines had.
func TestAPastedTextKeepsItsNumbers(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 cut\nj1: up 10 cut\nj2: up 12 cut\nj4: near 5 cut")
	x.draw(slices.Delete(x.lines(), 1, 2))
	text, err := x.p.LinesText()
	require.NoError(t, err)
	require.Contains(t, text, "#: j4")
	y := blankPages(t)
	var raw []lines.Line // as a field of the page has it
	for l := range strings.Lines(text) {
		raw = append(raw, lines.Line{Text: strings.TrimSpace(l)})
	}
	y.draw(raw)
	require.Nil(t, y.p.Page.Wrong)
	assert.Equal(t, x.p.Frame.Root.Joints, y.p.Frame.Root.Joints)
	assert.Equal(t, x.texts(), y.texts())
}

// How many are made goes with a text of lines, and comes back with it; it is no line of the page.
func TestATextOfLinesSaysHowMany(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 cut\nup 20 cut")
	x.p.Copies = 4
	text, err := x.p.LinesText()
	require.NoError(t, err)
	y := blankPages(t)
	y.paste(text)
	assert.Equal(t, 4, y.p.Copies)
	assert.Equal(t, x.texts(), y.texts())
	many := []lines.Line{{Text: "copies 90000"}, {Text: "right 24"}}
	_, _, err = y.p.Draw(context.Background(), many, project.Workshop{})
	require.ErrorContains(t, err, "build 1 to")
	_, _, err = y.p.Say(context.Background(), project.Saying{Line: "copies 2", From: "j1"}, edit.Edit{}, project.Workshop{})
	require.ErrorContains(t, err, "How many")
}

// A frame of which lines wait is planned as far as it is drawn, and the plan says so before all else; empty lines and notes wait for
// nothing.
func TestWhatWaitsIsSaidInThePlan(t *testing.T) {
	x := blankPages(t)
	x.paste("right 24 cut\nup 20 cut\nleft 24 foo\n\n# the rest\ndown 20 cut")
	p := planned(t, x.p)
	assert.Equal(
		t,
		&plan.Waiting{
			Lines: 2,
			Words: "2 lines wait",
			Line:  3,
			Text:  "left 24 foo",
			What:  `"foo" is not a unit`,
			Hint:  "use in, ft, mm, cm or m",
		},
		p.Frames[0].Waiting,
	)
	assert.Equal(t, "unfinished", p.Findings[0].Code)
	assert.Equal(t, `unfinished: 2 lines wait. Line 3, “left 24 foo”: "foo" is not a unit`, p.Findings[0].Text)

	all := x.lines()
	all[2].Text = "left 24 cut"
	x.draw(all)
	p = planned(t, x.p)
	assert.Nil(t, p.Frames[0].Waiting)
	for _, f := range p.Findings {
		assert.NotEqual(t, "unfinished", f.Code)
	}
}

// A size that gave way and is typed anew in its field is the last that was said: it is planned so, and what it contradicts is told.
func TestWhatGaveWayIsTypedAnew(t *testing.T) {
	x := blankPages(t)
	x.paste("right 48 cut\nj1: up 24 cut\nright 48 cut\nj2: up 23 1/2 cut (meet j4)")
	require.NotNil(t, x.p.Page.Wrong, "it asks what gives way")
	require.Greater(t, len(x.p.Page.Wrong.Answers), 1)
	var way string
	for _, a := range x.p.Page.Wrong.Answers {
		if strings.HasPrefix(a.Label, "24 cut") {
			way = a.ID
		}
	}
	require.NotEmpty(t, way, "%+v", x.p.Page.Wrong.Answers)
	all := x.lines()
	all[3].Text += " (" + way + ")"
	x.draw(all)
	require.Nil(t, x.p.Page.Wrong)
	var id string
	for _, z := range planned(t, x.p).Frames[0].Sizes {
		if z.Gave != "" {
			id = z.ID
			assert.False(t, z.Holds)
			assert.Equal(t, 23*measure.Inch+measure.Inch/2, z.Out)
		}
	}
	require.NotEmpty(t, id)
	x.p.Sizes = map[string]starter.Answer{id: {Text: "23 1/2", Meaning: frame.Cut}}
	for _, z := range planned(t, x.p).Frames[0].Sizes {
		assert.True(t, z.Holds, "%s holds: all agree now", z.ID)
	}
	x.p.Sizes = map[string]starter.Answer{id: {Text: "25", Meaning: frame.Cut}}
	assert.Equal(t, "sizes-contradict", planned(t, x.p).Findings[0].Code)
}
