package budget_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/budget"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/reading"
	"sturdyelbow/core/shop"
)

const inch = measure.Inch

func TestNothingDescribedNoBudget(t *testing.T) {
	b, found := budget.Compare(nil, &procure.Purchase{}, catalog.Typical(), inch/16)
	assert.Nil(t, b)
	assert.Empty(t, found)
}

// Four elbows have eight sockets and three pieces six ends; three of 20 in with a kerf
// of 1/8 each do not come out of a stick of 60; the frame takes six elbows.
func TestADescribedBuildThatDoesNotGoTogether(t *testing.T) {
	items := []reading.Item{
		{What: reading.Fitting, Kind: catalog.Elbow90, Size: "3/4", Count: 4},
		{What: reading.Piece, Size: "3/4", Length: 20 * inch, Count: 3},
		{What: reading.Stick, Size: "3/4", Length: 60 * inch, Count: 1},
		{Ask: "which tee?"},
	}
	p := &procure.Purchase{
		Tool:     shop.Tool{Kerf: inch / 8},
		Fittings: []procure.FittingCount{{Kind: catalog.Elbow90, Size: "3/4", Count: 6}},
		Cuts:     []procure.CutLine{{Size: "3/4", Cut: 20 * inch, Count: 3}},
	}
	b, found := budget.Compare(items, p, catalog.Typical(), inch/16)
	require.NotNil(t, b)
	assert.Equal(t, []budget.Balance{{Size: "3/4", Sockets: 8, Ends: 6, Net: 60*inch + inch*3/8, Bought: 60 * inch}}, b.Balance)
	left := map[reading.What]int{}
	for _, l := range b.Lines {
		left[l.What] = l.Left()
	}
	assert.Equal(t, map[reading.What]int{reading.Fitting: -2, reading.Piece: 0}, left)
	var codes []string
	for _, f := range found {
		codes = append(codes, f.Code)
	}
	assert.Equal(t, []string{"list-asks", "sockets-left", "footage-short", "over-budget"}, codes)
}

// A bushing fills a socket of the larger size and offers one of the smaller.
func TestABushingStandsBetweenTwoSizes(t *testing.T) {
	b, _ := budget.Compare([]reading.Item{{What: reading.Fitting, Kind: catalog.Bushing, Size: "1", To: "3/4", Count: 2}},
		&procure.Purchase{}, catalog.Typical(), inch/16)
	by := map[catalog.Size]budget.Balance{}
	for _, s := range b.Balance {
		by[s.Size] = s
	}
	assert.Equal(t, 2, by["1"].Ends)
	assert.Equal(t, 2, by["3/4"].Sockets)
}
