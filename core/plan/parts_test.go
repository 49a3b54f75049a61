package plan_test

import (
	"context"
	"errors"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// sorted gives the cuts of all pipes, the shortest text first.
func (h *hand) sorted() []string { return slices.Sorted(values(h.cuts())) }

// Grouping inside a part that is walked from, linked and checked from outside
// moves no pipe and loses no joint, link, check or typed cut: it did.
func TestGroupingInsideAPartLosesNothing(t *testing.T) {
	h := draws(t, "3/4", "right 24 cut", "j2: up 18 cut", "j3: up 18 cut", "j4: right 6 cut capped")
	require.NoError(t, h.do(&edit.MakeGroup{Name: "post", Joints: []string{"j2", "j3", "j4"}}))
	h.lines("post 1/j3: away 10 cut capped") // walked from outside
	require.NoError(t, h.do(&edit.Link{Kind: frame.Tie, On: []string{"p1", "post 1/p3 at 9"}}))
	require.NoError(t, h.do(&edit.ClearanceCheck{Name: "my hand", Kind: frame.Reach, Say: "60", Joint: "post 1/j4"}))
	require.NoError(t, h.do(&edit.Tolerance{Pipes: []string{"post 1/p3"}, Class: frame.Trim}))
	h.doc.Followed = []string{"post 1/p3"}
	h.doc.ModeRules = []frame.ModeRule{{Joint: "post 1/j4", Mode: frame.Slip}}
	pipes, kinds, before := h.sorted(), h.kinds(), h.plan()
	assert.Equal(t, []string{"10", "18", "18", "24", "6"}, pipes)
	require.NoError(t, h.do(&edit.MakeGroup{In: "post 1", Name: "head", Joints: []string{"post 1/j3", "post 1/j4"}}))
	assert.Empty(t, h.last.Also)
	h.sound(t)
	after := h.plan()
	assert.Equal(t, pipes, h.sorted())
	assert.Equal(t, kinds, h.kinds())
	require.Len(t, after.Frames[0].Links, 1)
	assert.Equal(t, before.Frames[0].Links[0].Kind, after.Frames[0].Links[0].Kind)
	require.Len(t, after.Frames[0].ClearanceChecks, 1)
	assert.Equal(t, before.Frames[0].ClearanceChecks[0].Slack, after.Frames[0].ClearanceChecks[0].Slack)
	assert.Equal(t, []string{"post 1/head 1/p3"}, h.doc.Followed, "what it was cut to is still its own")
	assert.Equal(t, []frame.ModeRule{{Joint: "post 1/head 1/j4", Mode: frame.Slip}}, h.doc.ModeRules)
	i := slices.IndexFunc(after.Frames[0].Pipes, func(p plan.Pipe) bool { return p.Pipe == "post 1/head 1/p3" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, frame.Trim, after.Frames[0].Pipes[i].Class)
}

// Grouping and mirroring a sound frame leave it sound.
func TestAPartOfASoundFrameIsSound(t *testing.T) {
	h := draws(t, "3/4", "right 24 cut", "j1: up 30 cut", "right 12 cut capped", "j1: near 8 cut capped")
	want := h.sorted()
	require.NoError(t, h.do(&edit.MakeGroup{Name: "end", Joints: []string{"j1", "j3", "j4", "j5"}}))
	h.sound(t)
	assert.Equal(t, want, h.sorted())
	require.NoError(t, h.do(&edit.Mirror{Part: "end 1", Axis: measure.Y, About: "end 1/j1"}))
	h.sound(t)
	// post and arm lie in the mirror's plane and are there once
	assert.Equal(t, []string{"12", "24", "30", "8", "8"}, h.sorted())
}

// A copy joins what it comes to lie on as a line would: at a joint, on a pipe
// and with the ends of slopes, which were there twice.
func TestCopiesMeetWhatTheyComeToLieOn(t *testing.T) {
	// a leg that slopes from the middle of a rail, mirrored at the rail's middle
	h := draws(t, "3/4", "right 40", "split p1", "j3: down right 14 cut capped")
	leg := h.last.Joint
	require.NoError(t, h.do(&edit.Mirror{Joints: []string{"j3", leg}, Name: "leg", Axis: measure.X, About: "j3"}))
	p := h.plan().Frames[0]
	assert.Len(t, p.Pipes, 4, "two halves of the rail, two legs")
	assert.Equal(t, 5, len(p.Points()), "the legs share the joint on the rail")
	assert.Equal(t, 2, count(h.sorted(), "14"))

	// half a table, mirrored at the ends of its rails: the far ends meet
	h = draws(t, "3/4", "right 20", "away 16", "left 20", "j2: down 12 cut capped", "j3: down 12 cut capped")
	require.NoError(t, h.do(&edit.MakeGroup{Name: "half", Joints: []string{"j1", "j2", "j3", "j4", "j5", "j6"}}))
	require.NoError(t, h.do(&edit.Mirror{Part: "half 1", Axis: measure.X, About: "half 1/j1"}))
	h.sound(t)
	p = h.plan().Frames[0]
	assert.Len(t, p.Pipes, 10)
	assert.Len(t, p.Points(), 10, "two of twelve are met")
	assert.Equal(t, 4, count(h.sorted(), "12"))

	// a brace on slopes, repeated joined: each foot is the next one's
	h = draws(t, "3/4", "up right 10 cut", "down right 10 cut")
	require.NoError(t, h.do(&edit.MakeGroup{Name: "tooth", Joints: []string{"j1", "j2", "j3"}}))
	require.NoError(t, h.do(&edit.Repeat{Part: "tooth 1", Count: 3, Axis: measure.X, Joined: true}))
	p = h.plan().Frames[0]
	assert.Len(t, p.Pipes, 6)
	assert.Len(t, p.Points(), 7, "four feet and three tips")
	assert.Equal(t, 6, count(h.sorted(), "10"))

	// copies at a pitch whose bars come to stand end to end
	h = draws(t, "3/4", "right 20", "j1: up 10 cut capped")
	require.NoError(t, h.do(&edit.MakeGroup{Name: "bay", Joints: []string{"j1", "j2", "j3"}}))
	require.NoError(t, h.do(&edit.Repeat{Part: "bay 1", Count: 3, Axis: measure.X, Pitch: "20"}))
	h.sound(t)
	p = h.plan().Frames[0]
	assert.Len(t, p.Pipes, 6)
	assert.Len(t, p.Points(), 7, "each bar ends where the next begins")
}

func count(all []string, want string) (n int) {
	for _, s := range all {
		if s == want {
			n++
		}
	}
	return n
}

// Both uses of a group keep their own size where the frame goes on from one of
// them: positions are not shared between copies.
func TestASizeOfAGroupHoldsInEveryUse(t *testing.T) {
	h := draws(t, "3/4", "right 30", "j1: near 12 cut")
	end := h.last.Joint
	require.NoError(t, h.do(&edit.MakeGroup{Name: "arm", Joints: []string{"j1", end}}))
	require.NoError(t, h.do(&edit.Place{Group: "arm", On: "j2"}))
	h.lines("arm 1/" + end + ": up 10")
	h.sound(t)
	assert.Equal(t, 2, count(h.sorted(), "12"), "%v", h.cuts())
}

// A copy that comes within a socket's depth of something is asked about, as a
// line is.
func TestACopyThatComesCloseIsAskedAbout(t *testing.T) {
	draw := func() *hand {
		h := draws(t, "3/4", "right 20", "j1: up 10 cut", "right 9 3/4 capped")
		require.NoError(t, h.do(&edit.MakeGroup{Name: "arm", Joints: []string{"j1", "j3", "j4"}}))
		return h
	}
	turn := &edit.Mirror{Part: "arm 1", Axis: measure.X, About: "arm 1/j4"}
	h := draw()
	q := asked(t, h.do(turn))
	assert.Contains(t, q.What, "⟨arm 2/j1⟩ comes close to ⟨j2⟩")
	for _, o := range q.Options {
		assert.NotContains(
			t,
			o.Label,
			"apart",
			"a pipe would be shorter than its sockets: it is done where a line says so, and not offered",
		)
	}
	require.NoError(t, h.do(turn, "apart arm 2/j1 j2", "apart arm 2/j4 arm 1/j4"))
	assert.Len(t, h.plan().Frames[0].Points(), 7, "apart")
	h = draw()
	err := h.do(turn, q.Options[0].ID)
	q = asked(t, err)
	assert.Contains(t, q.What, "cannot hold together")
	for _, o := range q.Options {
		h, answers := draw(), []string{"meet arm 2/j1 j2", o.ID}
		err := h.do(turn, answers...)
		for range 5 {
			var more *edit.Question
			if !errors.As(err, &more) {
				break
			}
			answers = append(answers, more.Options[0].ID)
			err = h.do(turn, answers...)
		}
		require.NoError(t, err, o.Label)
		assert.LessOrEqual(t, len(h.plan().Frames[0].Points()), 6, o.Label)
		for _, f := range h.plan().Findings {
			assert.NotEqual(t, "sizes-contradict", f.Code, "%s: %s", o.Label, f.Text)
		}
	}
}

// What else is cut is bought by the lengths on sale, for every copy; nonsense is refused at its place.
func TestWhatElseIsCut(t *testing.T) {
	job := build(t, "jump", nil)
	job.Frames[0].Copies = 3
	job.Frames[0].Also = []plan.Also{{Kind: material.Rope, Length: 100 * measure.Inch, Count: 2, For: "the net"}}
	p, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	require.Len(t, p.Bars, 1)
	assert.Len(t, p.Bars[0].Stock.Sticks[0].Pieces, 6)
	found := false
	for _, l := range p.Bill.Lines {
		found = found || l.Kind == material.Rope && l.Length == 50*measure.Foot && l.Count == 1
	}
	assert.True(t, found, "600 in are 50 ft to the last inch")

	for path, a := range map[string]plan.Also{
		"/kind":   {Kind: "smoke", Length: measure.Inch, Count: 1},
		"/length": {Kind: material.Rope, Count: 1},
		"/count":  {Kind: material.Rope, Length: measure.Inch, Count: 5000},
	} {
		job.Frames[0].Also = []plan.Also{a}
		_, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
		var no plan.ValidationError
		require.ErrorAs(t, err, &no)
		assert.Equal(t, "/job/frames/0/also/0"+path, no[0].Path)
	}
}
