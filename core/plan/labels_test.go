package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

// Every piece of every copy has one label, with the marks for its sockets; what is cut is said.
func TestEveryPieceHasItsLabel(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "48", "30"), Copies: 2}}, Tool: "saw"}
	shop := tenFeet(500)
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	labels := p.Labels()
	require.Len(t, labels, p.Totals.Pieces)
	seen := map[procure.PieceRef]bool{}
	for i, l := range labels {
		require.False(t, seen[l.PieceRef], "one for each")
		seen[l.PieceRef] = true
		require.Len(t, l.Ends, 2)
		for _, e := range l.Ends {
			assert.NotEmpty(t, e.Joint)
			assert.NotEmpty(t, e.Port)
			assert.Equal(t, e.Depth+measure.Inch, e.Beyond)
		}
		if i > 0 {
			assert.LessOrEqual(t, labels[i-1].Stick, l.Stick, "as they are cut")
		}
	}
	x := p.Pipe[0].Sticks[0].Pieces[0]
	work := record.Add([]record.Event{{
		ID: "e", Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Length: x.Length, Basis: p.Pipe[0].Basis,
		Stick: &record.Source{ID: "s", Size: "3/4", Length: 120 * measure.Inch, Origin: record.FromShop},
	}})
	p, err = plan.Make(context.Background(), job, shop, work)
	require.NoError(t, err)
	cut := 0
	for _, l := range p.Labels() {
		if l.Cut {
			cut++
			assert.Equal(t, x.PieceRef, l.PieceRef)
		}
	}
	assert.Equal(t, 1, cut)
}

// A piece that came out too short, or is gone, is cut anew: its label names the stick that it comes from then, by the number that is
// written on that.
func TestALabelNamesItsOwnStick(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "48", "30"), Copies: 2}}, Tool: "saw"}
	shop := tenFeet(500)
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	x := p.Pipe[0].Sticks[0].Pieces[0]
	short := record.Event{
		ID: "e", Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Length: x.Length - measure.Inch, Kerf: x.Kerf, Basis: p.Pipe[0].Basis,
		Stick: &record.Source{ID: "s", Size: "3/4", Length: 120 * measure.Inch, Origin: record.FromShop}, Number: 7,
	}
	whole := short
	whole.Length = x.Length
	for name, events := range map[string][]record.Event{
		"short": {short}, "gone": {whole, {ID: "g", Kind: record.Spoilt, Item: "e"}},
	} {
		p, err := plan.Make(context.Background(), job, shop, record.Add(events))
		require.NoError(t, err)
		number := 0
		for _, s := range p.Pipe[0].Sticks {
			for _, y := range s.Pieces {
				if y.PieceRef == x.PieceRef && y.Cut == "" {
					number = s.Number
				}
			}
			if s.ID == "s" {
				assert.Equal(t, 7, s.Number, "what is written on it")
			}
		}
		require.NotZero(t, number, name)
		for _, l := range p.Labels() {
			if l.PieceRef == x.PieceRef {
				assert.False(t, l.Cut, name)
				assert.Equal(t, number, l.Stick, name)
			}
		}
	}
}
