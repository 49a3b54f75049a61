package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/supply"
	"sturdyelbow/internal/server"
)

// Three simulated shops and a list of the builder's own are set side by side.
func TestSuppliersAreCompared(t *testing.T) {
	c, _ := serve(t)
	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	shop.Shop.Suppliers = append(shop.Shop.Suppliers, supply.Supplier{ID: "own", Name: "Corner shop", Offers: []supply.Offer{
		{Spec: material.Spec{Ware: material.Fitting, Kind: "tee", Size: "3/4"}, Asked: cost.Asked{Amount: 1}},
	}})
	c.get("PUT", "/api/shop", map[string]any{"revision": shop.Revision, "shop": shop.Shop}, nil)
	var a server.Suppliers
	c.get("POST", "/api/suppliers", map[string]any{"project": jump("4 ft")}, &a)
	require.Len(t, a.All, 4)
	last := a.All[3]
	assert.Equal(t, "Corner shop", last.Name, "what lacks most is not on top")
	assert.False(t, last.Example)
	assert.NotEmpty(t, last.At.Missing)
	for i, s := range a.All[:3] {
		if i > 0 {
			assert.LessOrEqual(t, len(a.All[i-1].At.Missing), len(s.At.Missing))
		}
		assert.True(t, s.Example)
		require.NotNil(t, s.At, s.Name)
		if len(s.At.Missing) == 0 {
			assert.LessOrEqual(t, a.Split.Total, s.At.Total)
		}
	}
	assert.Contains(t, a.Split.From, "own", "a tee for a cent")
	c.get("POST", "/api/suppliers", map[string]any{"project": jump("4 ft"), "days": 0, "but": []string{"own"}}, &a)
	assert.Equal(t, []string{"example-barn"}, a.Split.From)
}
