package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
)

// Work that was begun keeps its figures, and says of each that the shop has another of
// what both are, and only what differs.
func TestWorkKeepsTheFiguresItWasBegunWith(t *testing.T) {
	job, then := build(t, "jump", nil), plan.ExampleShop()
	work := record.Add([]record.Event{{ID: "a", Kind: record.Begun, Figures: then.Figures()}})
	was, err := plan.Make(context.Background(), job, then, work)
	require.NoError(t, err)
	assert.Empty(t, was.Newer)
	assert.True(t, was.Begun)
	now := plan.ExampleShop()
	now.Stock = []plan.StockLength{{Length: 10 * measure.Foot}, {Length: 20 * measure.Foot}}
	now.Measurements = []catalog.Override{{Size: "3/4", Kind: catalog.Elbow90, Field: catalog.Stop90, Value: measure.FromInches(0.59)}}
	now.Seats = map[frame.Mode]float64{frame.Slip: 0.9}
	now.Tools = append([]plan.Tool{}, now.Tools...)
	now.Tools[5].Kerf = measure.Inch / 16
	is, err := plan.Make(context.Background(), job, now, work)
	require.NoError(t, err)
	assert.Equal(t, was.Cuts, is.Cuts)
	assert.Equal(t, was.Totals, is.Totals)
	assert.Equal(t, []plan.Newer{
		{What: "sticks on sale", Kept: "5'", Now: "20'"},
		{What: "fittings as measured", Kept: "none", Now: `3/4 elbow-90 stop 90 0.59 in`},
		{What: "how far pipe goes in, as measured", Kept: "none", Now: "dry, driven 90 %"},
		{What: "what tools take", Kept: `Mitre saw 1/8"`, Now: `Mitre saw 1/16"`},
	}, is.Newer)
}
