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
)

// A pipe that goes in by 0.9 of its socket instead of the typical 0.85 makes
// every cut longer by 2 × 0.05 × 0.719; a stop of 0.6 instead of 0.5625
// shorter by 2 × 0.0375.
func TestThePlanFollowsWhatWasMeasured(t *testing.T) {
	d := rack(t)
	make := func(s plan.Shop) *plan.Plan {
		p, err := plan.Make(context.Background(), plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "saw"}, s, plan.Work{})
		require.NoError(t, err)
		return p
	}
	shop := plan.ExampleShop()
	typical := make(shop).Frames[0].Pipes[0].Exact
	seat, err := shop.Calibrate(plan.Measured{Seat: frame.Slip, Trial: &catalog.Trial{Size: "3/4", Gap: measure.FromInches(0.0719)}})
	require.NoError(t, err)
	p := make(seat)
	assert.InDelta(t, 0.0719, (p.Frames[0].Pipes[0].Exact - typical).Inches(), 0.001)
	assert.Empty(t, shop.Seats, "the shop that was given is not touched")
	for _, s := range p.Seats {
		assert.Equal(t, s.Mode == frame.Slip, s.Measured)
		if s.Measured {
			assert.InDelta(t, 0.9, s.Mine, 0.001)
			assert.InDelta(t, 0.85, s.Typical, 0.001)
		}
	}
	stop, err := shop.Calibrate(
		plan.Measured{
			Trial: &catalog.Trial{
				Size:    "3/4",
				Kind:    catalog.Elbow90,
				Cut:     10 * measure.Inch,
				Outside: measure.FromInches(10 + 1.2 + 1.32),
				Ends:    2,
			},
		},
	)
	require.NoError(t, err)
	p = make(stop)
	assert.InDelta(t, -0.075, (p.Frames[0].Pipes[0].Exact - typical).Inches(), 0.0001)
	n := 0
	for _, f := range p.Figures {
		if f.Measured {
			n++
			assert.Equal(t, catalog.Elbow90, f.Kind)
			assert.Equal(t, measure.FromInches(0.6), f.Mine)
			assert.Equal(t, measure.FromInches(0.5625), f.Typical)
		}
	}
	assert.Equal(t, 1, n)
	back, err := stop.Calibrate(plan.Measured{Figure: &catalog.Override{Size: "3/4", Kind: catalog.Elbow90, Field: catalog.Stop90}})
	require.NoError(t, err)
	assert.Equal(t, typical, make(back).Frames[0].Pipes[0].Exact)
	back, err = seat.Calibrate(plan.Measured{Forget: frame.Slip})
	require.NoError(t, err)
	assert.Equal(t, typical, make(back).Frames[0].Pipes[0].Exact)
	_, err = shop.Calibrate(plan.Measured{Figure: &catalog.Override{Size: "3/4", Field: catalog.Stop90, Value: measure.Inch / 4}})
	assert.Error(t, err)
	_, err = shop.Calibrate(plan.Measured{Seat: "glued", Trial: &catalog.Trial{Size: "3/4"}})
	assert.Error(t, err)
}
