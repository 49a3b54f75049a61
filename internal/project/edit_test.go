package project_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/project"
)

// A project made from a starter is drawn on: what it was stays, sizes and
// joints with it, and its answers go on driving it.
func TestAStarterIsDrawnOn(t *testing.T) {
	p := project.Project{
		Name:      "Gate",
		Units:     measure.Inches,
		Tool:      "saw",
		Starter:   &starter.Begun{ID: "jump", Answers: map[string]starter.Answer{"width": {Text: "4 ft"}}},
		ModeRules: []frame.ModeRule{{Joint: "left/hub", Mode: frame.Slip}},
	}
	before := planned(t, &p)
	next, done, err := p.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: "left/hub", Line: "left 6"}}, project.Workshop{})
	require.NoError(t, err)
	require.NotNil(t, next.Starter)
	assert.False(t, next.Starter.Own)
	assert.Nil(t, p.Frame, "the project given is not touched")
	assert.Equal(t, p.ModeRules, next.ModeRules)
	after := planned(t, next)
	assert.Len(t, after.Frames[0].Pipes, len(before.Frames[0].Pipes)+1)
	assert.Equal(t, done.Pipe, after.Frames[0].Pipes[len(after.Frames[0].Pipes)-1].Pipe)
	var width bool
	for _, s := range after.Frames[0].Sizes {
		width = width || s.Label == "Width" && s.Value == 48*measure.Inch
	}
	assert.True(t, width)
}

// Sizes that were typed over are the frame's own from then on, and one that
// cannot be read holds the gesture up.
func TestAGestureTakesTypedSizesIn(t *testing.T) {
	p := project.Project{Units: measure.Millimetres, Tool: "saw"}
	var err error
	next := &p
	for _, e := range []edit.Edit{{Gesture: &edit.Begin{}}, {Gesture: &edit.Walk{From: "j1", Line: "right 500"}}} {
		next, _, err = next.Edit(context.Background(), e, project.Workshop{})
		require.NoError(t, err)
	}
	assert.Equal(t, 500*measure.Millimetre, planned(t, next).Frames[0].Pipes[0].Centre, "a bare number is what it is in the project")
	path := next.Frame.Root.Sizes[0].ID
	next.Sizes = map[string]starter.Answer{path: {Text: "700"}}
	last, _, err := next.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: "j1", Line: "up 300"}}, project.Workshop{})
	require.NoError(t, err)
	assert.Empty(t, last.Sizes)
	assert.Equal(t, 700*measure.Millimetre, planned(t, last).Frames[0].Pipes[0].Centre)
	next.Sizes[path] = starter.Answer{Text: "seven"}
	_, _, err = next.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: "j1", Line: "up 300"}}, project.Workshop{})
	assert.ErrorAs(t, err, &project.SizeProblems{})
}

func planned(t *testing.T, p *project.Project) *plan.Plan {
	job, err := p.Job()
	require.NoError(t, err)
	got, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	return got
}
