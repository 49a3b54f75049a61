package procure_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// Four squares of 40 by 30 for a car that takes 5 ft: every stick of 10 ft is cut in the shop, two
// cuts for nothing, and the others are on the bill.
func TestCutsInTheShopAreOnTheBill(t *testing.T) {
	b := workshop(t)
	b.shop.Haul = &stock.Haul{Limit: 5 * measure.Foot, Error: measure.Inch / 8, Free: 2, Price: 25}
	p := b.plan()
	m := &p.Pipe[0].Stock
	cuts := 0
	for _, s := range p.Pipe[0].Sticks {
		cuts += len(s.Marks)
		for _, part := range s.Parts {
			assert.LessOrEqual(t, part.Length, 5*measure.Foot)
		}
		if s.Length > 5*measure.Foot {
			assert.NotEmpty(t, s.Parts)
		}
	}
	assert.Equal(t, m.ShopCuts, cuts)
	assert.Greater(t, cuts, 2, "or the test shows nothing")
	paid := measure.Money(0)
	for _, l := range p.Bill.Lines {
		if l.Kind == "cut in the shop" {
			assert.Equal(t, cuts-2, l.Count)
			paid = l.Amount
		}
	}
	assert.Equal(t, measure.Money(25*(cuts-2)), paid)
	assert.Equal(t, paid, m.CutCost)
	assert.Equal(t, m.Cost, p.Bill.Pipe)
}
