package project_test

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/project"
)

func begun(id string) *project.Project {
	s, _ := starter.Find(id)
	answers := map[string]starter.Answer{}
	for _, p := range s.Prompts {
		answers[p.Key] = starter.Answer{Text: p.Default}
	}
	return &project.Project{Name: "Club", Units: measure.Inches, Tool: "saw", Copies: 1, Starter: &starter.Begun{ID: id, Answers: answers}}
}

func do(t *testing.T, p *project.Project, g edit.Gesture, answers ...string) *project.Project {
	t.Helper()
	next, _, err := p.Edit(context.Background(), edit.Edit{Gesture: g, Answers: answers}, project.Workshop{})
	require.NoError(t, err)
	return next
}

// asked is a gesture that goes against an answer: it asks first.
func asked(t *testing.T, p *project.Project, g edit.Gesture) *edit.Question {
	t.Helper()
	_, _, err := p.Edit(context.Background(), edit.Edit{Gesture: g}, project.Workshop{})
	var q *edit.Question
	require.ErrorAs(t, err, &q)
	return q
}

func answer(p *project.Project, key string, a starter.Answer) *project.Project {
	next, b := *p, *p.Starter
	b.Answers = map[string]starter.Answer{}
	for k, v := range p.Starter.Answers {
		b.Answers[k] = v
	}
	b.Answers[key] = a
	next.Starter = &b
	return &next
}

func has(p *plan.Plan, pipe string) bool {
	return slices.ContainsFunc(p.Frames[0].Pipes, func(o plan.Pipe) bool { return o.Pipe == pipe })
}

func found(p *plan.Plan, code string) string {
	for _, f := range p.Findings {
		if f.Code == code {
			return f.Text
		}
	}
	return ""
}

// cuts are the lengths of the cut list and how many there are of each.
func cuts(p *plan.Plan) (all []string) {
	for _, c := range p.Cuts {
		all = append(all, fmt.Sprintf("%d of %s %s", c.Count, c.Size, c.Cut))
	}
	return all
}

// ends are the joints where one pipe ends, on which another can be drawn.
func ends(p *plan.Plan) (all []string) {
	for i := range p.Frames[0].Joints {
		if j := &p.Frames[0].Joints[i]; j.Free() {
			all = append(all, j.ID)
		}
	}
	return all
}

// worn is a project with a pipe drawn on its frame, a check, a class and a
// joint held otherwise.
func worn(t *testing.T, p *project.Project) (*project.Project, string) {
	t.Helper()
	before := planned(t, p)
	from := before.Frames[0].Joints[len(before.Frames[0].Joints)-1].ID
	pipe := ""
	var next *project.Project
	for _, way := range []string{"up 7 capped", "down 7 capped", "right 7 capped", "left 7 capped", "away 7 capped", "toward 7 capped"} {
		for _, at := range append(ends(before), from) {
			n, done, err := p.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: at, Line: way}}, project.Workshop{})
			if err != nil || n.Starter == nil || n.Starter.Own {
				continue
			}
			after := planned(t, n)
			if len(after.Frames[0].Pipes) != len(before.Frames[0].Pipes)+1 {
				continue
			}
			next, pipe = n, done.Pipe
			break
		}
		if next != nil {
			break
		}
	}
	require.NotNil(t, next, "no pipe can be drawn on it")
	next = do(t, next, &edit.ClearanceCheck{Name: "hall door", Kind: frame.Doorway, Say: "32"})
	return do(t, next, &edit.Tolerance{Pipes: []string{pipe}, Class: frame.Trim}), pipe
}

// Every starter, with a pipe drawn on it, a check and a class: its answers go
// on driving it, every one of them, and what was done stays.
func TestWhatIsDoneByHandLiesBesideTheAnswers(t *testing.T) {
	for _, s := range starter.All() {
		t.Run(s.ID, func(t *testing.T) {
			p := begun(s.ID)
			next, pipe := worn(t, p)
			require.NotNil(t, next.Starter)
			require.False(t, next.Starter.Own, "it is the starter's still")
			for _, prompt := range s.Prompts {
				if prompt.Input != starter.Length || prompt.Thing {
					continue
				}
				l, err := measure.Parse(prompt.Default, measure.Reading{Unit: measure.Inches})
				require.NoError(t, err)
				a := starter.Answer{Text: (l + measure.Inch/2).Tape(measure.Inches), Unit: measure.Inches}
				plain, with := planned(t, answer(p, prompt.Key, a)), planned(t, answer(next, prompt.Key, a))
				require.True(t, has(with, pipe), "%s changed: %s is there", prompt.Key, pipe)
				require.Empty(t, found(with, "set-aside"))
				assert.Len(t, with.Frames[0].ClearanceChecks, 1)
				for _, z := range plain.Frames[0].Sizes {
					i := slices.IndexFunc(with.Frames[0].Sizes, func(q layout.Size) bool { return q.ID == z.ID })
					require.GreaterOrEqual(t, i, 0, "%s changed: %s is a size still", prompt.Key, z.ID)
					assert.Equal(t, z.Value, with.Frames[0].Sizes[i].Value, "%s changed: %s is as without what was drawn", prompt.Key, z.ID)
					assert.Equal(
						t,
						with.Frames[0].Sizes[i].Value,
						with.Frames[0].Sizes[i].Out,
						"%s changed: %s is what it says",
						prompt.Key,
						z.ID,
					)
				}
				for _, o := range plain.Frames[0].Pipes {
					assert.True(t, has(with, o.Pipe), "%s changed: pipe %s", prompt.Key, o.Pipe)
				}
			}
		})
	}
}

// Every count of every starter goes down to its least and up again with what
// was done by hand over it: whatever has no place is set aside with a finding,
// and at the count that it was done at everything is as it was.
func TestWhatIsSetAsideComesBack(t *testing.T) {
	for _, s := range starter.All() {
		for _, prompt := range s.Prompts {
			if prompt.Input != starter.Count {
				continue
			}
			t.Run(s.ID+" "+prompt.Key, func(t *testing.T) {
				next, pipe := worn(t, begun(s.ID))
				was := planned(t, next)
				for _, n := range []int{prompt.Least, prompt.Least + 1, min(prompt.Most, prompt.Least+7)} {
					fewer := answer(next, prompt.Key, starter.Answer{Text: strconv.Itoa(n)})
					p := planned(t, fewer)
					assert.NotEqual(t, has(p, pipe), found(p, "set-aside") != "", "%d: it is there, or set aside with a word", n)
					assert.Empty(t, found(p, "starter-lost"))
					// a gesture made meanwhile keeps what is set aside
					kept := do(t, fewer, &edit.ClearanceCheck{Name: "gate", Kind: frame.Doorway, Say: "30"})
					back := answer(kept, prompt.Key, next.Starter.Answers[prompt.Key])
					again := planned(t, back)
					assert.Empty(t, found(again, "set-aside"), "%d", n)
					assert.True(t, has(again, pipe))
					assert.Equal(t, was.Cuts, again.Cuts)
					assert.Equal(t, was.Fittings, again.Fittings)
					assert.Len(t, again.Frames[0].ClearanceChecks, 2)
				}
			})
		}
	}
}

// A tee in a rail, a riser on it, and the bays changed: what stands between
// posts that are no neighbours now waits for them.
func TestATeeInARailWaitsForItsBay(t *testing.T) {
	p := answer(begun("screen"), "bays", starter.Answer{Text: "3"})
	p = do(t, p, &edit.Split{Pipe: "top post 1-post 2", Length: "12"})
	job, err := p.Job()
	require.NoError(t, err)
	mid := job.Frames[0].Document.Root.Joints[0].ID
	p = do(t, p, &edit.Walk{From: mid, Line: "up 9 capped"})
	require.False(t, p.Starter.Own)
	assert.Empty(t, found(planned(t, p), "set-aside"))
	four := planned(t, answer(p, "bays", starter.Answer{Text: "4"}))
	assert.Empty(t, found(four, "set-aside"), "posts 1 and 2 are neighbours still")
	two := planned(t, answer(p, "bays", starter.Answer{Text: "2"}))
	assert.Contains(t, found(two, "set-aside"), "2 joints drawn by hand")
	assert.False(t, slices.ContainsFunc(two.Frames[0].Joints, func(j plan.Joint) bool { return j.ID == mid }))
	plain := planned(t, answer(begun("screen"), "bays", starter.Answer{Text: "2"}))
	assert.Equal(t, plain.Cuts, two.Cuts)
	let := do(t, answer(p, "bays", starter.Answer{Text: "2"}), &edit.LetGo{})
	assert.Nil(t, let.Frame, "nothing is left that was done by hand")
	assert.Empty(t, found(planned(t, answer(let, "bays", starter.Answer{Text: "3"})), "set-aside"))
}

// A size of a starter that is typed over as a cut is the answer from then on, in
// the words and the unit that it was typed in.
func TestATypedCutIsAnAnswer(t *testing.T) {
	for text, want := range map[string]starter.Answer{
		"72 cut":     {Text: "72", Meaning: frame.Cut, Of: "tie", Unit: measure.Inches},
		"1900mm cut": {Text: "1900mm", Meaning: frame.Cut, Of: "tie", Unit: measure.Inches},
		"5 ft clear": {Text: "5 ft", Meaning: frame.Clear, Unit: measure.Inches},
	} {
		p := do(t, begun("jump"), &edit.Size{Pipe: "tie", Length: text})
		require.NotNil(t, p.Starter)
		assert.Equal(t, want, p.Starter.Answers["width"], text)
		assert.Nil(t, p.Frame, "nothing was done beside the answers")
		i := slices.IndexFunc(planned(t, p).Frames[0].Sizes, func(z layout.Size) bool { return z.Prompt == "width" })
		z := planned(t, p).Frames[0].Sizes[i]
		assert.Equal(t, z.Value, z.Out)
		// another answer beside it leaves it as it is
		wider := planned(t, answer(p, "foot", starter.Answer{Text: "30"}))
		assert.Equal(t, z.Value, wider.Frames[0].Sizes[i].Out)
	}
}

// What contradicts an answer says so beforehand, and makes the frame the
// builder's own: for every length that a starter asks for, that the gesture
// takes away; and what it was is what it stays.
func TestWhatContradictsAnAnswerAsks(t *testing.T) {
	for _, s := range starter.All() {
		for _, prompt := range s.Prompts {
			p := begun(s.ID)
			job, err := p.Job()
			require.NoError(t, err)
			if job.Frames[0].Document.SizeOf(prompt.Key) == nil {
				continue
			}
			if s.ID == "tunnel" && prompt.Key == "apart" {
				continue // copies always stand so far apart: it cannot be taken away
			}
			g := &edit.Size{ID: prompt.Key}
			q := asked(t, p, g)
			assert.Contains(t, q.What, prompt.Label, s.ID)
			before := planned(t, p)
			own := do(t, p, g, q.Options[0].ID)
			require.NotNil(t, own.Frame)
			assert.True(t, own.Starter == nil || own.Starter.Own)
			after := planned(t, own)
			assert.Equal(t, cuts(before), cuts(after), "%s %s", s.ID, prompt.Key)
			assert.Empty(t, found(after, "set-aside"))
		}
	}
}

// A frame that is the builder's own keeps its counts: they can be changed, each
// shows how many there are, and what was done to the frame stays.
func TestCountsStayOfAFrameOfOnesOwn(t *testing.T) {
	for id, c := range map[string]struct {
		key  string
		gone edit.Gesture // takes one of them away
		each int          // pipes that one more brings at least
	}{
		"screen":   {"bays", &edit.Remove{Axis: measure.X, Plane: "=post 1"}, 4},
		"panel":    {"rails", &edit.Remove{Axis: measure.Z, Plane: "=rail 1"}, 2},
		"tunnel":   {"hoops", nil, 3},
		"weave":    {"poles", nil, 2},
		"dividers": {"lanes", nil, 2},
		"manifold": {"risers", nil, 2},
	} {
		p := begun(id)
		n, err := strconv.Atoi(p.Starter.Answers[c.key].Text)
		require.NoError(t, err)
		var own *project.Project
		if c.gone == nil {
			own = do(t, p, &edit.Keep{})
		} else {
			own = do(t, p, c.gone, asked(t, p, c.gone).Options[0].ID)
			n--
		}
		require.NotNil(t, own.Starter, id)
		repeat := func(p *project.Project) starter.Repeat {
			all := p.Repeats()
			i := slices.IndexFunc(all, func(r starter.Repeat) bool { return r.Key == c.key })
			require.GreaterOrEqual(t, i, 0, "%s: %v", id, all)
			return all[i]
		}
		was := repeat(own)
		assert.Equal(t, n, was.Count, "%s: so many there are", id)
		own = do(t, own, &edit.ClearanceCheck{Name: "hall door", Kind: frame.Doorway, Say: "32"})
		before := planned(t, own)
		more := answer(own, c.key, starter.Answer{Text: strconv.Itoa(was.Count + was.Gone + 1)})
		assert.Equal(t, n+1, repeat(more).Count, id)
		after := planned(t, more)
		assert.GreaterOrEqual(t, len(after.Frames[0].Pipes), len(before.Frames[0].Pipes)+c.each, id)
		assert.Len(t, after.Frames[0].ClearanceChecks, 1)
		back := answer(
			do(t, more, &edit.ClearanceCheck{Name: "gate", Kind: frame.Doorway, Say: "30"}),
			c.key,
			starter.Answer{Text: strconv.Itoa(was.Count + was.Gone)},
		)
		assert.Equal(t, before.Cuts, planned(t, back).Cuts, id)
	}
}

// The gestures that are made on a repeated part change the answer that counts
// it, with all that hangs on its copies.
func TestARepeatChangesTheCount(t *testing.T) {
	p := begun("tunnel")
	six := planned(t, answer(p, "hoops", starter.Answer{Text: "6"}))
	next := do(t, p, &edit.Repeat{Part: "hoop#1", Count: 6, Axis: measure.Y})
	assert.Equal(t, "6", next.Starter.Answers["hoops"].Text)
	assert.Nil(t, next.Frame)
	assert.Equal(t, six.Cuts, planned(t, next).Cuts, "its spine with it")
}

// What cannot be read in an answer holds nothing up but itself, and nonsense of
// a project's own is refused.
func TestNonsenseAnswersAreRefused(t *testing.T) {
	next, _ := worn(t, begun("screen"))
	for _, text := range []string{"", "lots", "-3", "1e9", "25"} {
		_, err := answer(next, "bays", starter.Answer{Text: text}).Job()
		require.ErrorAs(t, err, &starter.Problems{}, "%q", text)
	}
	gone := answer(next, "width", starter.Answer{Text: "40", Meaning: frame.Cut, Of: "no such pipe"})
	_, err := gone.Job()
	var ps starter.Problems
	require.ErrorAs(t, err, &ps)
	assert.Contains(t, ps.Error(), "no such pipe")
	_, _, err = gone.Edit(context.Background(), edit.Edit{Gesture: &edit.Keep{}}, project.Workshop{})
	assert.True(t, errors.As(err, &ps), fmt.Sprint(err))
}

// The name and the unit of a frame are the project's, also when they are changed
// after a gesture.
func TestNameAndUnitAreTheProjects(t *testing.T) {
	p, _ := worn(t, begun("screen"))
	p.Name, p.Units = "Gate", measure.Millimetres
	d, err := p.Document()
	require.NoError(t, err)
	assert.Equal(t, "Gate", d.Name)
	assert.Equal(t, measure.Millimetres, d.Units)
	assert.Equal(t, 96*measure.Inch, d.SizeOf("width").Value, "what was typed keeps the unit it was typed in")
}

// An answer changed beside what was done by hand, on a frame of about 150 pipes:
// everything before the plan.
func BenchmarkAnswerBesideHandwork(b *testing.B) {
	p := begun("screen")
	for k, text := range map[string]string{"bays": "13", "rails": "5", "width": "40 ft"} {
		p = answer(p, k, starter.Answer{Text: text})
	}
	p, _, err := p.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: "post 6/top", Line: "up 9 capped"}}, project.Workshop{})
	if err != nil {
		b.Fatal(err)
	}
	p = answer(p, "width", starter.Answer{Text: "41 ft"})
	for range b.N {
		if _, err := p.Job(); err != nil {
			b.Fatal(err)
		}
	}
}

// A size typed over one that was drawn is kept while what it is of is set aside,
// through a gesture made meanwhile.
func TestATypedSizeIsKeptWhileItIsSetAside(t *testing.T) {
	p := answer(begun("screen"), "bays", starter.Answer{Text: "3"})
	p = do(t, p, &edit.Walk{From: "post 2/top", Line: "up 9 capped"})
	made := planned(t, p)
	i := slices.IndexFunc(made.Frames[0].Sizes, func(z layout.Size) bool { return !z.Starters && z.Prompt == "" })
	require.GreaterOrEqual(t, i, 0)
	id := made.Frames[0].Sizes[i].ID
	p.Sizes = map[string]starter.Answer{id: {Text: "12", Unit: measure.Inches}}
	two := answer(p, "bays", starter.Answer{Text: "2"})
	require.NotEmpty(t, found(planned(t, two), "set-aside"))
	kept := do(t, two, &edit.ClearanceCheck{Name: "gate", Kind: frame.Doorway, Say: "30"})
	back := planned(t, answer(kept, "bays", starter.Answer{Text: "3"}))
	i = slices.IndexFunc(back.Frames[0].Sizes, func(z layout.Size) bool { return z.ID == id })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, 12*measure.Inch, back.Frames[0].Sizes[i].Value)
	assert.Equal(t, "12", back.Frames[0].Sizes[i].Text)
}
