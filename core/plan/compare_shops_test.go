package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/supply"
)

// One shop sells sticks of 10 ft, the other of 20 ft and the fittings: each is planned for what it sells,
// and the split is no dearer than either.
func TestShopsAreComparedForWhatTheySell(t *testing.T) {
	job := build(t, "table", nil)
	shop := plan.ExampleShop()
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	price := func(s material.Spec, cents measure.Money) supply.Offer {
		return supply.Offer{Spec: s, Asked: cost.Asked{Amount: cents}}
	}
	stick := func(feet measure.Length) material.Spec {
		return material.Spec{Ware: material.Pipe, Size: string(p.Pipe[0].Size), Length: feet * measure.Foot}
	}
	near := supply.Supplier{ID: "near", Offers: []supply.Offer{price(stick(10), 500)}}
	far := supply.Supplier{ID: "far", Days: 3, Offers: []supply.Offer{price(stick(20), 800)}}
	for _, l := range p.Bill.Lines {
		if l.Ware != material.Pipe {
			far.Offers = append(far.Offers, price(l.Spec, 100))
		}
	}
	c, err := plan.CompareShops(context.Background(), job, shop, plan.Work{}, []supply.Supplier{near, far}, -1)
	require.NoError(t, err)
	require.Len(t, c.One, 2)
	assert.NotEmpty(t, c.One[0].Missing, "it has no fittings")
	assert.Empty(t, c.One[1].Missing)
	assert.Less(t, c.One[1].Sticks, c.One[0].Sticks, "longer ones")
	assert.Empty(t, c.Split.Missing)
	assert.LessOrEqual(t, c.Split.Total, c.One[1].Total)
	today, err := plan.CompareShops(context.Background(), job, shop, plan.Work{}, []supply.Supplier{near, far}, 0)
	require.NoError(t, err)
	assert.Equal(t, []string{"near"}, today.Split.From)
	assert.NotEmpty(t, today.Split.Missing)
	none, err := plan.CompareShops(context.Background(), job, shop, plan.Work{}, nil, -1)
	require.NoError(t, err)
	assert.Empty(t, none.One)
	assert.NotEmpty(t, none.Split.Missing)
}
