package project_test

import (
	"context"
	"errors"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/project"
)

// anyGesture is something that a builder may do to a frame as it is planned.
func anyGesture(t *rapid.T, p *plan.Plan) edit.Gesture {
	f := &p.Frames[0]
	joint := func() string { return f.Joints[rapid.IntRange(0, len(f.Joints)-1).Draw(t, "joint")].ID }
	pipe := func() string { return f.Pipes[rapid.IntRange(0, len(f.Pipes)-1).Draw(t, "pipe")].Pipe }
	long := rapid.SampledFrom([]string{"7", "12 cut", "3 ft", "500mm", "20 clear"}).Draw(t, "length")
	switch rapid.IntRange(0, 11).Draw(t, "gesture") {
	case 0, 1:
		way := rapid.SampledFrom([]string{"up", "down", "left", "right", "away", "toward"}).Draw(t, "way")
		return &edit.Walk{From: joint(), Line: way + " " + long}
	case 2:
		return &edit.Split{Pipe: pipe()}
	case 3:
		return &edit.EndOf{Joint: joint(), End: rapid.SampledFrom(frame.Ends()).Draw(t, "end")}
	case 4:
		return &edit.Size{Pipe: pipe(), Length: long}
	case 5:
		return &edit.Delete{Pipes: []string{pipe()}}
	case 6:
		return &edit.Delete{Joints: []string{joint()}}
	case 7:
		return &edit.ClearanceCheck{Name: "door " + long, Kind: frame.Doorway, Say: "32"}
	case 8:
		return &edit.Tolerance{Pipes: []string{pipe()}, Class: frame.Trim}
	case 9:
		place := &f.Places[rapid.IntRange(0, len(f.Places)-1).Draw(t, "place")]
		a := measure.Axis(rapid.IntRange(0, 2).Draw(t, "axis"))
		if len(place.Planes[a]) > 0 {
			l := place.Planes[a][rapid.IntRange(0, len(place.Planes[a])-1).Draw(t, "plane")]
			return &edit.Remove{In: place.Path, Axis: a, Plane: l.Ref}
		}
	case 10:
		if len(f.Sizes) > 0 {
			z := &f.Sizes[rapid.IntRange(0, len(f.Sizes)-1).Draw(t, "size")]
			return &edit.Size{ID: z.ID, Length: rapid.SampledFrom([]string{"", "30", "2 ft", "41 3/8", "813mm"}).Draw(t, "new")}
		}
	}
	return &edit.Join{From: joint(), To: joint()}
}

func plannedBy(t *rapid.T, p *project.Project) *plan.Plan {
	job, err := p.Job()
	require.NoError(t, err)
	made, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	return made
}

// fieldsAreTrue checks that every field of a driven frame shows what the frame
// has: the length that was answered, in the words in which it was, and that the
// size is so long.
func fieldsAreTrue(t *rapid.T, p *project.Project, made *plan.Plan) {
	if p.Starter == nil || p.Starter.Own {
		return
	}
	s, _ := starter.Find(p.Starter.ID)
	for _, prompt := range s.Prompts {
		a := p.Starter.Answers[prompt.Key]
		for i := range made.Frames[0].Sizes {
			z := &made.Frames[0].Sizes[i]
			if z.Prompt != prompt.Key {
				continue
			}
			require.Equal(t, a.Text, z.Text, "%s: the field says what was typed", prompt.Key)
			require.Empty(t, z.Gave, "%s gave way, and the field says nothing of it", prompt.Key)
			if found(made, "sizes-contradict") == "" {
				require.LessOrEqual(t, (z.Out - z.Value).Abs(), measure.Inch/16, "%s is what its field says", prompt.Key)
			}
		}
	}
}

// Any gestures and any answers, one after the other, on any starter: it can be
// planned each time; the fields are true for as long as the starter drives the
// frame, and nothing makes it the builder's own but a gesture that asked; and
// with the answers as they were the frame is as it was.
func TestAnyWorkOnAStarter(t *testing.T) {
	drove, own, moved := 0, 0, 0
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(starter.All()).Draw(t, "starter")
		p := begun(s.ID)
		for range rapid.IntRange(1, 10).Draw(t, "steps") {
			made := plannedBy(t, p)
			fieldsAreTrue(t, p, made)
			if len(made.Frames[0].Pipes) == 0 {
				return
			}
			if p.Starter != nil && rapid.IntRange(0, 3).Draw(t, "what") == 0 {
				prompt := rapid.SampledFrom(s.Prompts).Draw(t, "prompt")
				if p.Starter.Own && prompt.Input != starter.Count {
					continue
				}
				was := p.Starter.Answers[prompt.Key]
				next := answer(p, prompt.Key, anyAnswer(t, &prompt))
				if _, err := next.Job(); err != nil { // a cut that was typed for a pipe which goes
					require.ErrorAs(t, err, &starter.Problems{})
					continue
				}
				plannedBy(t, next)
				back := answer(next, prompt.Key, was)
				require.Equal(t, cuts(made), cuts(plannedBy(t, back)), "%s and back", prompt.Key)
				p = next
				moved++
				continue
			}
			e := edit.Edit{Gesture: anyGesture(t, made)}
			var next *project.Project
			asked := false
			for range 6 {
				n, _, err := p.Edit(context.Background(), e, project.Workshop{})
				var q *edit.Question
				if errors.As(err, &q) {
					o := rapid.SampledFrom(q.Options).Draw(t, "option")
					asked = asked || o.ID == "own-frame"
					e.Answers = append(e.Answers, o.ID)
					continue
				}
				if err == nil {
					next = n
				}
				break
			}
			if next == nil {
				continue
			}
			if !driven(p) || driven(next) {
				require.False(t, asked && driven(next), "it asked, and goes on as before")
			} else {
				require.True(t, asked, "the starter lets go, and nobody was asked")
				own++
			}
			if driven(next) {
				drove++
			}
			p = next
		}
		fieldsAreTrue(t, p, plannedBy(t, p))
	})
	t.Logf("%d gestures beside the answers, %d that let go of them, %d answers changed", drove, own, moved)
}

func anyAnswer(t *rapid.T, p *starter.Prompt) starter.Answer {
	switch p.Input {
	case starter.Count:
		return starter.Answer{Text: strconv.Itoa(rapid.IntRange(p.Least, min(p.Most, p.Least+6)).Draw(t, "count"))}
	case starter.Choice:
		return starter.Answer{Text: rapid.SampledFrom(p.Options).Draw(t, "choice").Value}
	case starter.Pipe:
		return starter.Answer{Text: rapid.SampledFrom([]string{"1/2", "3/4", "1"}).Draw(t, "size")}
	}
	l, _ := measure.Parse(p.Default, measure.Reading{Unit: measure.Inches})
	return starter.Answer{
		Text:    (l + measure.Length(rapid.IntRange(-4, 40).Draw(t, "more"))*measure.Inch/4).Tape(measure.Inches),
		Meaning: rapid.SampledFrom(p.Meanings).Draw(t, "meaning"),
		Unit:    measure.Inches,
	}
}

func driven(p *project.Project) bool { return p.Starter != nil && !p.Starter.Own }
