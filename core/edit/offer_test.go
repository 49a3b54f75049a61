package edit_test

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// ladder draws two posts with rungs of 36 in between them, from the bottom up.
func ladder(t require.TestingT, rungs int) *hand {
	h := nothing(t)
	at := h.begin()
	for range rungs - 1 {
		at = h.walk(at, "up 12 cut")
	}
	for i := range rungs {
		h.walk(fmt.Sprintf("j%d", i+1), "right 36 cut")
	}
	for i := range rungs - 1 {
		h.walk(fmt.Sprintf("j%d", rungs+i+1), fmt.Sprintf("up to j%d", rungs+i+2))
	}
	return h
}

// A rung that is typed otherwise goes against every other one: they give way together, by one answer, which comes
// before the one that takes back what was typed, and each option was carried out.
func TestWhatSaysTheSameGivesWayTogether(t *testing.T) {
	h := ladder(t, 9)
	e := edit.Edit{Gesture: &edit.Size{Pipe: "p10", Length: "24 cut"}, Step: measure.Inch / 16}
	q := h.asks(e.Gesture)
	asOffered(t, h.doc, e, q)
	require.GreaterOrEqual(t, len(q.Options), 2)
	assert.Equal(t, `36 cut of ⟨p9⟩ and 7 more that say the same give way: they become 24" cut length`, q.Options[0].Label)
	assert.Len(t, q.Options[0].More, 7)
	assert.Equal(t, `24 cut of ⟨p10⟩ gives way: it becomes 36" cut length`, q.Options[1].Label)
	e.Answers = q.Options[0].Answers()
	h.do(e)
	assert.Len(t, h.done.GivenUp, 9, "eight gave way, and one was typed instead")
	for _, p := range h.plan().Frames[0].Pipes {
		if h.doc.Root.Pipe(p.Pipe).Dir[0] == 1 {
			assert.Equal(t, in(24), p.Cut, p.Pipe)
		}
	}
}

// What gives way is told in the step of the tape, and what would be shorter than its sockets take is not offered.
func TestWhatCannotBeBuiltIsNotOffered(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 24")
	h.walk("j1", "up 20")
	h.walk("j3", "right 14")
	h.walk("j4", "right 10")
	h.walk("j2", "up to j5")
	// with 12 below, the 14 above would leave less than nothing for the 10; the 10 would leave 2 for the 14, less than its sockets take
	whole := edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "12", Meaning: frame.Centre}, Step: measure.Inch / 16}
	q := h.asks(whole.Gesture)
	asOffered(t, h.doc, whole, q)
	for _, o := range q.Options {
		assert.NotContains(t, o.Label, "14 centre to centre of ⟨p3⟩")
		assert.NotContains(t, o.Label, "10 centre to centre of ⟨p4⟩")
	}
	uneven := edit.Edit{Gesture: &edit.Size{Pipe: "p1", Length: "26 5/64", Meaning: frame.Centre}, Step: measure.Inch / 16}
	_, _, err := plan.Edit(context.Background(), h.doc, uneven, nil)
	require.ErrorAs(t, err, &q)
	for _, o := range q.Options {
		_, stands, _ := strings.Cut(o.Label, "becomes ")
		assert.NotContains(t, stands, "64")
	}
}

// Where two sizes along one axis say the same of one pipe, each option still has a name of its own.
func TestNoTwoOptionsHaveOneName(t *testing.T) {
	h := ladder(t, 3)
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "side", Joints: []string{"j1", "j2", "j3", "j4", "j5", "j6"}}})
	e := edit.Edit{Gesture: &edit.Size{Pipe: "side 1/p3", Length: "30 cut"}}
	asOffered(t, h.doc, e, h.asks(e.Gesture))
	assert.Equal(t, frame.Cut, h.doc.Groups[0].Sizes[0].Meaning)
}

// A bay of a starter's frame that is made another size: no answer that is offered folds the frame over itself, or leaves a joint
// without a fitting, but where it says so.
func TestNoAnswerFoldsTheFrame(t *testing.T) {
	t.Parallel()
	asked := 0
	for _, s := range starter.All() {
		doc := begunWith(t, s)[0]
		was := located(t, doc)
		for a := range measure.Axis(3) {
			for _, plane := range was.Places[0].Planes[a] {
				for _, long := range []string{"12", "30"} {
					e := edit.Edit{Gesture: &edit.Bay{Axis: a, Plane: plane.Ref, Length: long, Meaning: frame.Cut}}
					_, _, err := plan.Edit(context.Background(), doc, e, nil)
					var q *edit.Question
					if !errors.As(err, &q) {
						continue
					}
					asked++
					for _, o := range q.Options {
						next := e
						next.Answers = o.Answers()
						made, _, err := plan.Edit(context.Background(), doc, next, nil)
						if err != nil {
							require.Contains(t, o.Label, "asks what else", "%s: %v", s.ID, err)
							continue
						}
						now := located(t, made)
						if !strings.Contains(o.Label, ";") {
							assert.Equal(t, stopped(was), stopped(now), "%s, %s to %s cut: %s", s.ID, plane.Ref, long, o.Label)
						}
					}
				}
			}
		}
	}
	assert.Greater(t, asked, 20)
}

// stopped counts the joints without a fitting, and the pipes that turned round.
func stopped(l *model.Located) (n int) {
	for _, f := range slices.Concat(l.Findings, l.Fits.Findings) {
		if f.Severity == finding.Stop {
			n++
		}
	}
	return n
}

// A question on a ladder of 20 rungs, 58 pipes, of which 19 give way together, and on a fence of about 150 pipes: the
// worst there is, since every rung asks anew.
func BenchmarkQuestion(b *testing.B) {
	rungs := ladder(b, 20)
	for name, on := range map[string]struct {
		d *frame.Document
		g edit.Gesture
	}{
		"ladder": {rungs.doc, &edit.Size{Pipe: "p21", Length: "24 cut"}},
		"fence":  {fence(b), &edit.Size{Pipe: "top left-post 1", Length: "24 cut"}},
	} {
		b.Run(name, func(b *testing.B) {
			for range b.N {
				_, _, err := plan.Edit(context.Background(), on.d, edit.Edit{Gesture: on.g}, nil)
				var q *edit.Question
				require.ErrorAs(b, err, &q)
			}
		})
	}
}
