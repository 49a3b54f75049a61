package procure_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
)

// variants buys squares of 40 in by several heights, two copies of each.
func variants(t *testing.T, s *shop.Shop, names []string, heights ...measure.Length) *procure.Purchase {
	var lots []procure.Lot
	for i, high := range heights {
		b := modeltest.Built(t, modeltest.Square, func(d *frame.Document) {
			d.EachSize(func(_ *frame.Definition, z *frame.Size) {
				if z.Axis != "x" {
					z.Value = high * measure.Inch
				}
			})
		})
		bolts := material.Line{
			Spec:     material.Spec{Ware: material.Hardware, Kind: "bolt", Length: 2 * measure.Inch},
			Quantity: i + 1,
			Unit:     "each",
		}
		lots = append(lots, procure.Lot{Built: b, Copies: 2, Variant: names[i], Needs: []material.Line{bolts}})
	}
	p, err := procure.Procure(context.Background(), lots, procure.Order{Shop: s, Work: &record.Work{}, Tool: s.Tools[5]})
	require.NoError(t, err)
	return p
}

// A high and a low variant of one frame share their rails and their elbows: of the uprights
// each has its own. Bolts are as many as the one takes that takes more.
func TestVariantsShareTheirParts(t *testing.T) {
	s := shop.Example()
	p := variants(t, &s, []string{"high", "low"}, 30, 24)
	counts := map[string]int{}
	for _, c := range p.Cuts {
		counts[c.Cut.Format(measure.InInches, 0)] = c.Count
	}
	assert.Equal(t, map[string]int{`38 7/8"`: 4, `28 7/8"`: 4, `22 7/8"`: 4}, counts)
	assert.Equal(t, 4, p.Cuts[0].Shared)
	assert.Equal(t, 12, p.Totals.Pieces)
	assert.Equal(t, 8, p.Totals.Fittings)
	assert.Equal(t, 4, line(p, "bolt", 2*measure.Inch))
	cut := 0
	for _, st := range p.Pipe[0].Sticks {
		cut += len(st.Pieces)
	}
	assert.Equal(t, 12, cut)
	apart := variants(t, &s, []string{"", ""}, 30, 24)
	assert.Equal(t, 16, apart.Totals.Pieces)
	assert.Equal(t, 16, apart.Totals.Fittings)
	assert.Equal(t, 6, line(apart, "bolt", 2*measure.Inch))
	assert.Greater(t, apart.Totals.Net, p.Totals.Net)
	// a third that has parts of its own is bought besides
	more := variants(t, &s, []string{"high", "low", ""}, 30, 24, 30)
	assert.Equal(t, 20, more.Totals.Pieces)
	assert.Equal(t, 16, more.Totals.Fittings)
}
