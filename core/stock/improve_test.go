package stock_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing/families"
	"sturdyelbow/core/stock"
)

// triplets is a list that fills a third as many sticks to the last bit.
func triplets(pieces int, seed uint64) stock.Problem {
	p := stock.Problem{Offers: []stock.Offer{{Material: "pipe", Length: 1000, Origin: stock.Shop}}}
	for _, it := range families.Triplets(pieces, seed).Items {
		p.Demands = append(p.Demands, stock.Demand{Material: "pipe", Length: measure.Length(it.Size), Count: it.Count})
	}
	return p
}

// A search that may spend little does not prove its answer; going on does, and never tells
// anything worse than before.
func TestImproveGoesOnUntilItIsProven(t *testing.T) {
	p := triplets(120, 7)
	p.Steps = 200_000
	first := solve(p)[0]
	require.False(t, first.Proven, "or the test shows nothing")
	var told []stock.Material
	best, err := stock.Improve(context.Background(), p, func(ms []stock.Material) { told = append(told, ms[0]) })
	require.NoError(t, err)
	assert.True(t, best[0].Proven)
	assert.Equal(t, 40, best[0].Count)
	require.Greater(t, len(told), 1)
	assert.Equal(t, first.Count, told[0].Count)
	for i := 1; i < len(told); i++ {
		assert.LessOrEqual(t, told[i].Bought, told[i-1].Bought)
		assert.GreaterOrEqual(t, told[i].BoundLength, told[i-1].BoundLength)
		assert.LessOrEqual(t, told[i].BoundLength, told[i].Bought)
	}
}

func TestImproveGivesWhatItHasWhenItIsStopped(t *testing.T) {
	p := triplets(249, 3)
	p.Steps = 100_000
	ctx, stop := context.WithCancel(context.Background())
	best, err := stock.Improve(ctx, p, func([]stock.Material) { stop() })
	require.NoError(t, err)
	require.Len(t, best, 1)
	verify(t, p, best[0])
}
