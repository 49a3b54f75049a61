package plan_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/supply"
)

// One bill stands wherever ways to buy are compared: what a tool is said to come to is the bill with that tool, cuts in
// the shop and tax with it; so is what a shop that sells as the builder's own does.
func TestOneBillStandsEverywhere(t *testing.T) {
	shop := tenFeet(498)
	shop.Prices.TaxRate = 0.0825
	shop.Haul = &stock.Haul{Limit: 5 * measure.Foot, Error: measure.Inch / 8, Free: 2, Price: 75}
	hauled := sameBill(t, plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "31", "29"), Copies: 3}}, Tool: "saw"}, shop)
	require.Positive(t, hauled.Pipe[0].Stock.CutCost, "or the test shows nothing")
	shop.Haul = nil
	costs := map[measure.Money]bool{}
	for eighths := 20 * 8; eighths < 42*8; eighths += 3 {
		wide := fmt.Sprintf("%d %d/8", eighths/8, eighths%8)
		job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, wide, wide), Copies: 3}}, Tool: "saw"}
		made := sameBill(t, job, shop)
		for _, c := range made.Tools {
			costs[c.Cost-made.Bill.Total] = true
		}
	}
	assert.Greater(t, len(costs), 1, "tools differ, or the test shows nothing")
}

func sameBill(t *testing.T, job plan.Job, shop plan.Shop) *plan.Plan {
	made, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	for _, c := range made.Tools {
		with := job
		with.Tool = c.ID
		p, err := plan.Make(context.Background(), with, shop, plan.Work{})
		require.NoError(t, err)
		assert.InDelta(t, float64(p.Bill.Total), float64(c.Cost), 1, "%s, to the cent that tax is rounded to", c.Name)
	}
	own := supply.Supplier{ID: "own", Name: "Own"}
	for _, p := range shop.Prices.Prices {
		if p.Ware == material.Pipe && p.Length != 10*measure.Foot {
			continue // it sells what the builder's shop does
		}
		own.Offers = append(own.Offers, supply.Offer{Spec: p.Spec, Asked: p.Asked})
	}
	c, err := plan.CompareShops(context.Background(), job, shop, plan.Work{}, []supply.Supplier{own}, -1)
	require.NoError(t, err)
	require.Empty(t, c.One[0].Missing)
	assert.Equal(t, made.Pipe[0].Stock.CutCost, c.One[0].Cuts)
	assert.InDelta(t, float64(made.Bill.Total), float64(c.One[0].Total), 1)
	return made
}
