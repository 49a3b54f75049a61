package plan_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
)

// A bar of 150 outside needs 147 9/16 in one piece. It is in the footage and on the list; one
// press makes two of it that a coupling joins, at the same outside size.
func TestAPieceLongerThanAnyStickIsJoined(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "150", "30"), Copies: 1}}, Tool: "saw"}
	shop := plan.ExampleShop()
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	i := slices.IndexFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "no-stock" })
	require.GreaterOrEqual(t, i, 0)
	require.Len(t, p.Findings[i].Fixes, 2, "a longer stick, or a coupling")
	assert.Equal(t, "Buy 20' sticks", p.Findings[i].Fixes[0].Label)
	wide, feet := p.Frames[0].Overall[0].Size, p.Totals.Net
	joined, _ := press(t, job, shop, p.Findings[i].Fixes[1])
	p, err = plan.Make(context.Background(), joined, shop, plan.Work{})
	require.NoError(t, err)
	assert.NotContains(t, codes(p), "no-stock")
	assert.Equal(t, wide, p.Frames[0].Overall[0].Size)
	couplings := 0
	for _, f := range p.Fittings {
		if f.Kind == catalog.Coupling {
			couplings += f.Count
		}
	}
	assert.Equal(t, 2, couplings)
	assert.InDelta(t, feet.Inches(), p.Totals.Net.Inches(), 0.5, "but for what stands between the pipes in a coupling")
}

// The same where the car takes no more than 5 ft: until nothing is too long to carry.
func TestAPieceLongerThanTheCarTakesIsJoined(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "110", "30"), Copies: 1}}, Tool: "saw"}
	shop := plan.ExampleShop()
	shop.Haul = &stock.Haul{Limit: 5 * measure.Foot, Error: measure.Inch / 8}
	for range 2 {
		p, err := plan.Make(context.Background(), job, shop, plan.Work{})
		require.NoError(t, err)
		i := slices.IndexFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "too-long-to-carry" })
		if i < 0 {
			assert.Positive(t, p.Pipe[0].Stock.ShopCuts+p.Pipe[0].Stock.Count)
			return
		}
		job, _ = press(t, job, shop, p.Findings[i].Fixes[0])
	}
	t.Fatal("it is still too long")
}
