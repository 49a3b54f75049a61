package stock_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// Lists whose sums are worked by hand, from sticks at those lengths, least length and then
// fewest sticks.
func TestListsWorkedByHand(t *testing.T) {
	for _, tc := range []struct {
		name   string
		pieces map[float64]int
		sticks []float64
		kerf   measure.Length
		count  int
		bought float64
		why    string
	}{
		{"treat tower", map[float64]int{48: 4, 12: 14}, []float64{120}, 0, 3, 360, "2 × (48 + 48 + 12 + 12) and 10 × 12 are 120 each"},
		{"treat tower", map[float64]int{48: 4, 12: 14}, []float64{120}, measure.Inch / 32, 4, 480, "360 of pieces leave nothing for a kerf"},
		{"ring banner", map[float64]int{34: 4, 40: 2}, []float64{120}, measure.Inch / 8, 2, 240, "34 + 34 + 40 and two kerfs are 108 1/4"},
		{"six of 40", map[float64]int{40: 6}, []float64{120}, 0, 2, 240, "three are 120"},
		{"six of 40", map[float64]int{40: 6}, []float64{120}, measure.Inch / 8, 3, 360, "three and two kerfs are 120 1/4"},
		{"mascot", map[float64]int{18: 3, 14: 2, 8: 1, 5: 4, 3: 2, 4: 8, 7: 4}, []float64{120, 60}, measure.Inch / 8, 2, 180,
			"176 and 22 kerfs are 178 3/4"},
		{"net wings", map[float64]int{36: 5, 24.375: 4, 14: 2}, []float64{120}, measure.Inch / 8, 3, 360,
			"305 1/2 do not go into 240"},
		{"hoop sides", map[float64]int{120: 2}, []float64{120}, measure.Inch / 8, 2, 240, "an uncut stick has no kerf"},
	} {
		m := solve(stock.Problem{Demands: demands(tc.pieces), Offers: shop(tc.sticks...), Saw: stock.Saw{Kerf: tc.kerf}, Tidy: true})[0]
		assert.Equal(t, tc.count, m.Count, "%s: %s", tc.name, tc.why)
		assert.Equal(t, in(tc.bought), m.Bought, "%s: %s", tc.name, tc.why)
		assert.True(t, m.Proven, tc.name)
	}
	whole := solve(stock.Problem{Demands: demands(map[float64]int{120: 1}), Offers: shop(120), Saw: stock.Saw{Kerf: measure.Inch / 8, Root: measure.Inch / 32}})[0]
	assert.Zero(t, whole.Edges, "a stick that is not cut is on no edge")
	assert.Zero(t, whole.Cuts)
}
