package server_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/pricelist"
	"sturdyelbow/internal/server"
)

func TestPricesAreReadByTheServer(t *testing.T) {
	c, _ := serve(t)
	var read []cost.Asked
	c.get("POST", "/api/prices/read", map[string]any{"texts": []string{".88", "3 for 20", "7.98-8.49"}}, &read)
	require.Len(t, read, 3)
	assert.Equal(t, cost.Asked{Amount: 20_00, Pack: 3}, read[1])
	status, _, data := c.do("POST", "/api/prices/read", map[string]any{"texts": []string{".88", "cheap"}})
	assert.Equal(t, 422, status)
	assert.Contains(t, data, "/texts/1")
	assert.Contains(t, data, "write it like")
}

// One page has every part of every project, each with who buys it and its prices.
func TestThePriceBookHasEveryPart(t *testing.T) {
	c, _ := serve(t)
	var one, two server.ProjectLine
	c.get("POST", "/api/projects", project("Jump", nil), &one)
	c.get("POST", "/api/projects", project("Wide jump", map[string]any{"copies": 3}), &two)
	var book server.PriceBook
	c.get("GET", "/api/prices", nil, &book)
	find := func(s material.Spec) *server.PricePart {
		for i := range book.Parts {
			if book.Parts[i].Spec == s {
				return &book.Parts[i]
			}
		}
		return nil
	}
	var tee *server.PricePart
	for i := range book.Parts {
		if p := &book.Parts[i]; p.Ware == material.Fitting && len(p.Uses) == 2 && tee == nil {
			tee = p
		}
	}
	require.NotNil(t, tee)
	assert.Equal(t, []string{"Wide jump", "Jump"}, []string{tee.Uses[0].Name, tee.Uses[1].Name})
	assert.Equal(t, 3*tee.Uses[1].Count, tee.Uses[0].Count)
	assert.Nil(t, tee.Days, "an example has no date")

	var shop server.StoredShop
	c.get("GET", "/api/shop", nil, &shop)
	old := time.Now().AddDate(0, 0, -200).Format(time.DateOnly)
	pack := material.Spec{Ware: material.Fitting, Kind: "tee", Size: "3/4"}
	shop.Shop.Prices.Replace(cost.Price{Spec: pack, Asked: cost.Asked{Amount: 698, Pack: 10}, Date: old, Source: "Corner shop"})
	c.get("PUT", "/api/shop", map[string]any{"revision": shop.Revision, "shop": shop.Shop}, nil)
	c.get("GET", "/api/prices", nil, &book)
	part := find(pack)
	require.NotNil(t, part)
	assert.Equal(t, cost.Asked{Amount: 698, Pack: 10}, part.Prices[0].Asked)
	require.NotNil(t, part.Days)
	assert.InDelta(t, 200, *part.Days, 1)
	assert.Less(t, book.Stale, *part.Days)

	// out as a file and in again, with a row that cannot be read
	_, _, file := c.do("GET", "/api/prices.csv", nil)
	assert.Contains(t, file, "10 for 6.98")
	var rows []pricelist.Row
	c.get("POST", "/api/prices/list", map[string]any{"text": file + "3/4 tee,fitting,tee,3/4,,,,dear,,,\n", "source": "a file"}, &rows)
	require.Len(t, rows, strings.Count(file, "\n"))
	for _, r := range rows[:len(rows)-1] {
		require.Nil(t, r.Fault, "%+v", r)
	}
	assert.Equal(t, "price", rows[len(rows)-1].Fault.Column)
	c.get("POST", "/api/prices/list", map[string]any{"text": "3/4 tee .88", "source": "a list"}, &rows)
	assert.Equal(t, time.Now().Format(time.DateOnly), rows[0].Price.Date)
	assert.Equal(t, "a list", rows[0].Price.Source)
}

// What a change of the shop changes is said against the shop as the page has it: what it changed
// before may not be saved yet.
func TestAnEffectIsSaidAgainstThePagesShop(t *testing.T) {
	c, _ := serve(t)
	c.get("POST", "/api/projects", project("Jump", nil), nil)
	was, now := plan.ExampleShop(), plan.ExampleShop()
	for i := range was.Prices.Prices {
		was.Prices.Prices[i].Amount *= 2
	}
	var e server.Effect
	c.get("POST", "/api/shop/effect", map[string]any{"shop": now}, &e)
	assert.Empty(t, e.Changed, "it is as it is saved")
	c.get("POST", "/api/shop/effect", map[string]any{"was": was, "shop": now}, &e)
	require.Len(t, e.Changed, 1)
	assert.Greater(t, e.Changed[0].Cost, e.Changed[0].CostThen)
}
