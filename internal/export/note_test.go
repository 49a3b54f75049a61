package export_test

import (
	"bytes"
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/export"
)

// The cut list says what is special about a piece, and is read back by its
// first columns all the same.
func TestTheCutListSaysWhatIsSpecial(t *testing.T) {
	d := &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Slip}
	for _, e := range []edit.Edit{
		{Gesture: &edit.Walk{Line: "right 30"}}, {Gesture: &edit.Walk{From: "j2", Line: "up 20"}},
		{Gesture: &edit.Walk{From: "j1", Line: "bend near 20, up 20, radius 5"}}, {Gesture: &edit.Walk{From: "j3", Line: "hoop left 96 rise 8"}},
		{Gesture: &edit.Tolerance{Pipes: []string{"p1"}, Class: frame.Trim}}, {Gesture: &edit.Tolerance{Pipes: []string{"p2"}, Class: frame.OnFrame}},
	} {
		var err error
		d, _, err = plan.Edit(context.Background(), d, e, nil)
		require.NoError(t, err)
	}
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, export.CutList(&b, p, measure.InInches))
	for _, note := range []string{"cut long, trim to fit", "at most; measured on the frame", "bent by heat after cutting", "sprung"} {
		assert.Contains(t, b.String(), note)
	}
	back, err := export.ReadCutList(b.String(), measure.Inches)
	require.NoError(t, err)
	require.Len(t, back, len(p.Cuts))
	for i := range back {
		assert.Equal(t, p.Cuts[i].Cut, back[i].Length)
	}
}
