package procure_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
)

func axle(length measure.Length, n int) material.Line {
	return material.Line{
		Spec:     material.Spec{Ware: material.Hardware, Kind: "axle", Diameter: measure.Inch / 2, Length: length},
		Quantity: n, Unit: "each", Rule: "across the frame",
	}
}

func withNeeds(t *testing.T, s *shop.Shop, copies int, needs ...material.Line) *procure.Purchase {
	b := modeltest.Built(t, modeltest.Square, nil)
	p, err := procure.Procure(context.Background(), []procure.Lot{{Built: b, Copies: copies, Needs: needs}},
		procure.Order{Shop: s, Work: &record.Work{}, Tool: s.Tools[5]})
	require.NoError(t, err)
	return p
}

func line(p *procure.Purchase, kind string, length measure.Length) int {
	for _, l := range p.Materials {
		if l.Kind == kind && l.Length == length {
			return l.Quantity
		}
	}
	return 0
}

// Three axles of 11 in and a hacksaw's kerfs are 33 1/16: one rod of 36, and not three of 12.
func TestAxlesAreCutFromRod(t *testing.T) {
	s := shop.Example()
	p := withNeeds(t, &s, 3, axle(11*measure.Inch, 1))
	assert.Equal(t, 1, line(p, material.Rod, 36*measure.Inch))
	assert.Zero(t, line(p, "axle", 11*measure.Inch))
	require.Len(t, p.Bars, 1)
	assert.Equal(t, "1/2\" threaded rod", p.Bars[0].Label)
	assert.Len(t, p.Bars[0].Stock.Sticks[0].Pieces, 3)
	// longer than any rod on sale: it is still on the list
	p = withNeeds(t, &s, 1, axle(80*measure.Inch, 2))
	assert.Equal(t, 2, line(p, "axle", 80*measure.Inch))
	// a shop that sells no rod sells axles
	s.Bars = nil
	p = withNeeds(t, &s, 3, axle(11*measure.Inch, 1))
	assert.Equal(t, 3, line(p, "axle", 11*measure.Inch))
	assert.Empty(t, p.Bars)
}

// A spacer of pipe is cut from what the frame's sticks leave; where they leave too little, it is
// bought.
func TestSpacersAreCutFromWhatIsLeft(t *testing.T) {
	s := shop.Example()
	spacer := material.Line{
		Spec: material.Spec{Ware: material.Hardware, Kind: "spacer", Size: "3/4", Length: 2 * measure.Inch}, Quantity: 4, Unit: "each",
	}
	p := withNeeds(t, &s, 1, spacer)
	require.Len(t, p.Bars, 1)
	assert.Zero(t, line(p, "spacer", 2*measure.Inch))
	spacer.Size = "2"
	p = withNeeds(t, &s, 1, spacer)
	assert.Equal(t, 4, line(p, "spacer", 2*measure.Inch), "no pipe of that size is cut here")
}

// Rope of three pieces of 8 ft 4 in takes 25 ft and nothing is lost: it is cut with a knife. A sleeve of foam
// comes in 3 and 6 ft, and what nobody sells by the length stays as it is.
func TestRopeIsCutFromItsLengths(t *testing.T) {
	s := shop.Example()
	piece := func(kind string, length measure.Length, n int) material.Line {
		return material.Line{
			Spec:     material.Spec{Ware: material.Hardware, Kind: kind, Length: length},
			Quantity: n, Unit: "each", For: "the net", Rule: "as its builder says",
		}
	}
	p := withNeeds(t, &s, 1,
		piece(material.Rope, 100*measure.Inch, 3), piece(material.Foam, 30*measure.Inch, 3), piece(material.Rebar, 24*measure.Inch, 4))
	assert.Equal(t, 1, line(p, material.Rope, 25*measure.Foot))
	assert.Equal(t, 1, line(p, material.Foam, 3*measure.Foot))
	assert.Equal(t, 1, line(p, material.Foam, 6*measure.Foot), "60 of 72 in")
	assert.Equal(t, 4, line(p, material.Rebar, 24*measure.Inch))
	require.Len(t, p.Bars, 2)
	assert.Zero(t, p.Bars[0].Stock.Kerf)
	assert.Equal(t, "the net", p.Bars[0].Stock.Sticks[0].Pieces[0].Name)
	for _, l := range p.Bill.Lines {
		if l.Kind == material.Rope {
			assert.Equal(t, "rope, 25' long", l.Label)
		}
	}
	// of one thickness a shop sells other lengths: those are for it alone
	s.Bars = append(s.Bars, shop.Bar{Kind: material.Rope, Diameter: measure.Inch / 4, Length: 40 * measure.Foot})
	thick := piece(material.Rope, 100*measure.Inch, 3)
	thick.Diameter = measure.Inch / 4
	p = withNeeds(t, &s, 1, thick, piece(material.Rope, 100*measure.Inch, 3))
	assert.Equal(t, 1, line(p, material.Rope, 40*measure.Foot))
	assert.Equal(t, 1, line(p, material.Rope, 25*measure.Foot))
}
