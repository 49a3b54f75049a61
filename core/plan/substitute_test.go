package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/plan"
)

// A table's corners of three are not to be had: elbows and tees that touch keep its outside, move its
// legs by the least centre distance, and what is told comes true when it is pressed.
func TestACornerThatIsNotToBeHad(t *testing.T) {
	job := build(t, "table", nil)
	shop := plan.ExampleShop()
	before, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	var kind catalog.Kind
	var size string
	for _, f := range before.Fittings {
		if f.Kind == catalog.SideOutletElbow || f.Kind == catalog.SideOutletTee {
			kind, size = f.Kind, f.Size
		}
	}
	require.NotEmpty(t, kind, "%v", before.Fittings)
	all, err := plan.FindSubstitutes(context.Background(), job, shop, plan.Work{}, kind, size)
	require.NoError(t, err)
	require.NotEmpty(t, all)
	apart, sure := 0, 0
	for _, s := range all {
		if s.Asks != "" {
			continue
		}
		sure++
		pressed, _ := press(t, job, shop, s.Fix)
		after, err := plan.Draft(context.Background(), pressed, shop, plan.Work{})
		require.NoError(t, err)
		assert.Equal(t, s.Cost, after.Bill.Total-before.Bill.Total, s.Words)
		for a := range 3 {
			assert.Equal(t, s.Grows[a], after.Frames[0].Overall[a].Size-before.Frames[0].Overall[a].Size, s.Words)
		}
		for _, f := range after.Fittings {
			assert.False(t, f.Kind == kind && f.Size == size, "%s: none of it is left", s.Words)
		}
		if s.Moves > 0 {
			apart++
			assert.Positive(t, s.Nipple)
		}
	}
	assert.Positive(t, sure)
	assert.Positive(t, apart)
	none, err := plan.FindSubstitutes(context.Background(), job, shop, plan.Work{}, catalog.Cross, "4")
	require.NoError(t, err)
	assert.Empty(t, none)
}

// Of several frames each is asked for itself, and what is told of one comes true of the whole purchase.
func TestACornerOfSeveralFramesIsNotToBeHad(t *testing.T) {
	job := build(t, "table", nil)
	other := build(t, "jump", nil).Frames[0]
	job.Frames = append([]plan.FrameUse{other}, job.Frames[0], job.Frames[0])
	job.Own = true
	shop := plan.ExampleShop()
	before, err := plan.Draft(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	all, err := plan.FindSubstitutes(context.Background(), job, shop, plan.Work{}, catalog.SideOutletElbow, "3/4")
	require.NoError(t, err)
	frames := map[int]int{}
	for _, s := range all {
		if frames[s.Frame]++; s.Asks != "" {
			continue
		}
		pressed, _ := pressIn(t, job, shop, s.Frame, s.Fix)
		after, err := plan.Draft(context.Background(), pressed, shop, plan.Work{})
		require.NoError(t, err)
		assert.Equal(t, s.Cost, after.Bill.Total-before.Bill.Total, s.Words)
		assert.Equal(t, before.Frames[0].Overall, after.Frames[0].Overall)
		for _, j := range after.Frames[s.Frame].Joints {
			assert.NotEqual(t, catalog.SideOutletElbow, j.Kind, s.Words)
		}
	}
	assert.Zero(t, frames[0])
	assert.Positive(t, frames[1])
	assert.Equal(t, frames[1], frames[2])
}
