package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/plan"
)

// What is said to cost less costs so much less when it is pressed, the cheapest first, and nothing that lacks
// a price or a stick is among it.
func TestWhatCostsLess(t *testing.T) {
	kinds := map[string]bool{}
	for _, id := range []string{"jump", "table", "screen"} {
		job := build(t, id, nil)
		job.Tool = "saw"
		shop := plan.ExampleShop()
		before, err := plan.Make(context.Background(), job, shop, plan.Work{})
		require.NoError(t, err)
		all, err := plan.FindCheaper(context.Background(), job, shop, plan.Work{}, before.Pipe[0].Size, true)
		require.NoError(t, err)
		for i, c := range all {
			kinds[c.Fix.Edits[0].Path] = true
			pressed, s := press(t, job, shop, c.Fix)
			after, err := plan.Make(context.Background(), pressed, s, plan.Work{})
			require.NoError(t, err)
			assert.Equal(t, c.Saves, before.Bill.Total-after.Bill.Total, c.Words)
			assert.Equal(t, c.Sticks, after.Totals.Sticks-before.Totals.Sticks, c.Words)
			assert.LessOrEqual(t, len(after.Bill.Unpriced), len(before.Bill.Unpriced), c.Words)
			for _, f := range after.Findings {
				assert.NotEqual(t, finding.Stop, f.Severity, c.Words)
			}
			if i > 0 {
				assert.LessOrEqual(t, c.Saves, all[i-1].Saves)
			}
		}
		none, err := plan.FindCheaper(context.Background(), job, shop, plan.Work{}, before.Pipe[0].Size, false)
		require.NoError(t, err)
		for _, c := range none {
			assert.Empty(t, c.Size, "sizes were not asked for")
		}
	}
	assert.True(t, kinds["/gesture"])
	assert.Greater(t, len(kinds), 1, "%v", kinds)
}
