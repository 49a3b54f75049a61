package cost_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Four copies for 40 with 10 % tax are 11 each; tools for 12 pay at two copies against 18 bought.
func TestABillAgainstItsTerms(t *testing.T) {
	b := cost.Book{TaxRate: 0.1}
	b.Set(cost.Price{Spec: tee(1).Spec, Asked: cost.Asked{Amount: 1_00}})
	cap := material.Spec{Ware: material.Fitting, Kind: "cap", Size: "3/4"}
	b.Set(cost.Price{Spec: cap, Asked: cost.Asked{Amount: 50}})
	bill := b.Add([]material.Line{tee(30), {Spec: cap, Quantity: 20}})
	w := bill.Hold(cost.Terms{Budget: 50_00, Bought: 18_00, Uses: 10, Optional: []material.Spec{cap}, Tools: 12_00}, 4, 0.1)
	assert.Equal(t, cost.Worth{
		Copies: 4, Each: 11_00, Optional: 11_00, Base: 33_00, Tools: 12_00, All: 56_00, PerUse: 1_10, Over: 6_00, Budgeted: true,
		Saves: 16_00, Against: true, PaysAt: 2, Largest: "3/4 in tee", Share: 0.75,
	}, w)
	w = bill.Hold(cost.Terms{Bought: 5_00}, 4, 0.1)
	assert.Equal(t, measure.Money(-24_00), w.Saves, "they cost more to make")
	assert.Zero(t, w.PaysAt)
	assert.NotEmpty(t, (&cost.Terms{Budget: -1, Uses: -2}).Validate())
}

func TestBaseAndOptionalAreTheWhole(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		b := cost.Book{TaxRate: float64(rapid.IntRange(0, 2000).Draw(r, "tax")) / 10000}
		b.Set(cost.Price{Spec: tee(1).Spec, Asked: cost.Asked{Amount: measure.Money(rapid.IntRange(0, 999).Draw(r, "tee"))}})
		bill := b.Add([]material.Line{tee(rapid.IntRange(0, 40).Draw(r, "tees"))})
		terms := cost.Terms{}
		if rapid.Bool().Draw(r, "optional") {
			terms.Optional = []material.Spec{tee(1).Spec}
		}
		copies := rapid.IntRange(1, 9).Draw(r, "copies")
		w := bill.Hold(terms, copies, b.TaxRate)
		assert.Equal(r, bill.Total, w.Base+w.Optional)
		assert.GreaterOrEqual(r, w.Each.Times(copies), bill.Total)
		assert.Less(r, (w.Each - 1).Times(copies), max(1, bill.Total))
	})
}
