package procure_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

func had(id string, w material.Spec, n int) record.Event {
	return record.Event{ID: id, Kind: record.Had, Ware: &w, Count: n}
}

func lineOf(p *procure.Purchase, spec material.Spec) *cost.Line {
	for i := range p.Bill.Lines {
		if p.Bill.Lines[i].Spec == spec {
			return &p.Bill.Lines[i]
		}
	}
	return nil
}

// Four squares take sixteen elbows; of these four are at home, and are not paid for. Five more bought
// than wanted are too many; those at home never are.
func TestWhatIsAtHomeCountsFirst(t *testing.T) {
	b := workshop(t)
	elbow := material.Spec{Ware: material.Fitting, Kind: "elbow-90", Size: "3/4"}
	before := b.plan()
	full := lineOf(before, elbow)
	require.Equal(t, 16, full.Count)
	b.events = append(b.events, had("e1", elbow, 4))
	p := b.plan()
	l := lineOf(p, elbow)
	assert.Equal(t, 16, l.Count)
	assert.Equal(t, 4, l.Home)
	assert.Equal(t, 4, l.Got)
	assert.Equal(t, full.Amount-full.Each.Times(4), l.Amount)
	assert.Equal(t, []material.Lot{{Event: "e1", Count: 4, Home: true}}, l.Lots)
	assert.Empty(t, p.Extra)

	b.events = append(b.events, record.Event{ID: "e2", Kind: record.Bought, Ware: &elbow, Count: 17})
	p = b.plan()
	assert.Equal(t, 16, lineOf(p, elbow).Got)
	require.Len(t, p.Extra, 1)
	assert.Equal(t, 5, p.Extra[0].Count)
	assert.Equal(t, []record.Event{{Kind: record.TakenBack, Event: "e2", Count: 5}}, p.Extra[0].Back)

	b.events = append(b.events, record.Event{ID: "e3", Kind: record.TakenBack, Event: "e1", Count: 3})
	p = b.plan()
	assert.Equal(t, 1, lineOf(p, elbow).Home, "three of the four were not there after all")

	b.events = []record.Event{had("e1", elbow, 40)}
	p = b.plan()
	assert.Zero(t, lineOf(p, elbow).Amount)
	assert.Empty(t, p.Extra, "what is at home stays at home")
}

// Sticks at home are cut first, and fewer are bought, whatever the shop asks for them.
func TestSticksAtHomeAreCutFirst(t *testing.T) {
	b := workshop(t)
	before := b.plan()
	stick := material.Spec{Ware: material.Pipe, Size: "3/4", Length: 10 * measure.Foot}
	b.events = append(b.events, had("e1", stick, 2))
	p := b.plan()
	require.Len(t, p.Pipe, 1)
	home := 0
	for _, s := range p.Pipe[0].Sticks {
		if s.Origin == stock.Home {
			home++
			assert.Contains(t, []string{"e1.1", "e1.2"}, s.ID)
		}
	}
	assert.Equal(t, 2, home)
	assert.Less(t, p.Bill.Pipe, before.Bill.Pipe)
	l := lineOf(p, stick)
	require.NotNil(t, l)
	assert.Equal(t, 2, l.Home)
	assert.Equal(t, 2, l.Got)
	require.Len(t, l.Lots, 1)
	assert.Equal(t, []string{"e1.1", "e1.2"}, l.Lots[0].Items)
	assert.Contains(t, l.For, "× A")
	assert.Empty(t, p.Extra)

	odd := material.Spec{Ware: material.Pipe, Size: "3/4", Length: 87 * measure.Inch}
	b.events = append(b.events, had("e2", odd, 1))
	p = b.plan()
	assert.NotNil(t, lineOf(p, odd), "of any length, and cut too")
	assert.Zero(t, lineOf(p, odd).Amount)
}

// Every stick's line says which pieces it gives, and together they give them all.
func TestALineOfSticksSaysWhatItIsFor(t *testing.T) {
	p := buy(t, 1, "saw", nil)
	for _, l := range p.Bill.Lines {
		switch {
		case l.Ware == material.Pipe && l.Length == 10*measure.Foot:
			assert.Equal(t, "2 × A", l.For)
		case l.Ware == material.Pipe:
			assert.Equal(t, "2 × B", l.For)
		}
	}
}

func TestSparesAndSchools(t *testing.T) {
	built := modeltest.Built(t, modeltest.Square, func(d *frame.Document) { d.Mode = frame.Cemented })
	s := shop.Example()
	saw, _ := s.Tool("saw")
	joints := joinery.Report{Cemented: 8, Cement: joinery.Cans{Ounces: 2, Cans: []joinery.Can{{Ounces: 4, Count: 1}}},
		Primer: joinery.Cans{Ounces: 1, Cans: []joinery.Can{{Ounces: 4, Count: 1}}}}
	buy := func(every int, school joinery.School) *procure.Purchase {
		p, err := procure.Procure(context.Background(), []procure.Lot{{Built: built, Copies: 3}},
			procure.Order{Shop: &s, Work: &record.Work{}, Tool: saw, Joinery: joints, SpareEvery: every, School: school})
		require.NoError(t, err)
		return p
	}
	elbow := material.Spec{Ware: material.Fitting, Kind: "elbow-90", Size: "3/4"}
	assert.Equal(t, 12, lineOf(buy(0, ""), elbow).Count)
	assert.Equal(t, 14, lineOf(buy(10, ""), elbow).Count, "one for ten, and one for the two that are begun")
	assert.Equal(t, 2, lineOf(buy(10, ""), elbow).Spare)
	assert.Equal(t, 13, lineOf(buy(10_000, ""), elbow).Count)

	primer := material.Spec{Ware: material.Primer, Ounces: 4}
	assert.NotNil(t, lineOf(buy(0, ""), primer))
	one := buy(0, joinery.OneStep)
	assert.Nil(t, lineOf(one, primer))
	can := lineOf(one, material.Spec{Ware: material.Cement, Kind: "one-step", Ounces: 4})
	require.NotNil(t, can)
	assert.True(t, can.Priced)
	assert.Equal(t, "one-step cement, 4 fl oz can", can.Label)
	assert.Equal(t, "8 sockets, about 2.0 fl oz", can.For)
}
