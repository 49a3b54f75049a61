package cost_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

func tee(n int) material.Line {
	return material.Line{Spec: material.Spec{Ware: material.Fitting, Kind: "tee", Size: "3/4"}, Quantity: n}
}

func Example() {
	b := cost.Example()
	bill := b.Add([]material.Line{tee(3), {Spec: material.Spec{Ware: material.Fitting, Kind: "wye", Size: "3/4"}, Quantity: 2}})
	fmt.Println(bill.Total, "example:", bill.Example, "without a price:", bill.Unpriced)
	// Output: $2.37 example: true without a price: [2 × 3/4 in wye]
}

func TestOwnPricesTakeTheMarkAway(t *testing.T) {
	b := cost.Example()
	b.TaxRate = 0.0825
	require.True(t, b.Add([]material.Line{tee(3)}).Example)
	b.Set(cost.Price{Spec: tee(1).Spec, Asked: cost.Asked{Amount: 99}, Source: "receipt"})
	bill := b.Add([]material.Line{tee(3), tee(0)})
	assert.False(t, bill.Example)
	assert.Len(t, bill.Lines, 1, "none wanted is no line")
	assert.Equal(t, measure.Money(297), bill.Subtotal)
	assert.Equal(t, measure.Money(25), bill.Tax, "24.5 cents, the half goes up")
	assert.Equal(t, measure.Money(322), bill.Total)
	assert.Equal(t, measure.Money(297), bill.Fittings)
}

func TestExampleBookCoversTheShelf(t *testing.T) {
	b := cost.Example()
	assert.Empty(t, b.Validate())
	for _, s := range []catalog.Size{"1/2", "3/4", "1", "1-1/4", "1-1/2", "2"} {
		for _, k := range append(catalog.JointKinds(), catalog.Cap, catalog.Plug) {
			_, ok := b.Find(material.Spec{Ware: material.Fitting, Kind: string(k), Size: string(s)})
			assert.True(t, ok, "%s %s", s, k)
		}
		for _, l := range []measure.Length{5 * measure.Foot, 10 * measure.Foot} {
			p, ok := b.Find(material.Spec{Ware: material.Pipe, Size: string(s), Length: l})
			assert.True(t, ok)
			assert.True(t, p.Example)
		}
	}
}

func TestCheckNamesTheLine(t *testing.T) {
	b := cost.Book{
		TaxRate: 8.25,
		Prices:  []cost.Price{{Spec: material.Spec{Ware: "hats"}}, {Spec: tee(1).Spec, Asked: cost.Asked{Amount: -1}}},
	}
	b.Currency = "dollars"
	bad := b.Validate()
	assert.Contains(t, bad, "/currency")
	assert.Contains(t, bad, "/taxRate")
	assert.Contains(t, bad, "/prices/0/ware")
	assert.Contains(t, bad, "/prices/1/amount")
}
