package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

// Two of 45 9/16 and two of 27 9/16 from two sticks of 10 ft with a saw. The first long one comes
// out at 44: its stick still gives a long one and nothing else, what was cut is a short one once
// it is trimmed, and the other stick gives the rest.
func TestAPieceThatCameOutShort(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "48", "30"), Copies: 1}}, Tool: "saw"}
	shop := tenFeet(500)
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	require.Equal(t, 2, p.Pipe[0].Stock.Count)
	first := p.Pipe[0].Sticks[0]
	x := first.Pieces[0]
	source := &record.Source{ID: "s1", Size: "3/4", Length: first.Length, Origin: record.FromShop}
	bad := record.Event{
		ID: "e1", Seq: 1, Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: 1}, Stick: source,
		Length: 44 * measure.Inch, Kerf: measure.Inch / 8, Letter: x.Name, Basis: p.Pipe[0].Basis,
	}
	require.Nil(t, bad.Problem())
	b, err := plan.FindBadCut(context.Background(), job, shop, plan.Work{}, bad)
	require.NoError(t, err)
	assert.Equal(t, x.Name, b.Letter)
	assert.Equal(t, x.Length, b.Wanted)
	assert.Equal(t, procure.Recut, b.Fate, "it is too short for its place")
	assert.True(t, b.Used, "and others are cut from it")
	assert.Len(t, b.CanBe, 2, "either short one")
	assert.Empty(t, b.Need, "nothing more is bought")
	assert.Zero(t, b.Cost)

	// or the stand is narrower by as much, and its twin as long
	require.Len(t, b.Same, 1)
	same := b.Same[0]
	assert.Equal(t, 48*measure.Inch-(x.Length-44*measure.Inch), same.Then)
	assert.Empty(t, same.Others)
	assert.Zero(t, same.Cost)
	pressed, _ := press(t, job, shop, same.Fix)
	after, err := plan.Make(context.Background(), pressed, shop, record.Add([]record.Event{bad}))
	require.NoError(t, err)
	assert.Equal(t, 44*measure.Inch, after.Cuts[0].Cut)
	assert.Equal(t, procure.Keep, after.Existing[0].Fate)

	// the same piece of no use at all, from a list that has nothing to spare
	job = plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "31 1/4", "31 1/4"), Copies: 1}}, Tool: "shear"}
	p, err = plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	require.Equal(t, 1, p.Pipe[0].Stock.Count)
	spoilt := record.Event{ID: "e1", Seq: 1, Kind: record.Spoilt, Stick: source, Length: p.Cuts[0].Cut, Basis: p.Pipe[0].Basis}
	require.Nil(t, spoilt.Problem())
	b, err = plan.FindBadCut(context.Background(), job, shop, plan.Work{}, spoilt)
	require.NoError(t, err)
	assert.Equal(t, map[catalog.Size]int{"3/4": 1}, b.Need)
	assert.Equal(t, measure.Money(500), b.Cost)
	assert.Empty(t, b.Fate)
}

// Of two frames whose pipes are called alike, the one that a wrong piece is of counts.
func TestAWrongPieceIsOfItsOwnFrame(t *testing.T) {
	job := plan.Job{
		Frames: []plan.FrameUse{{Document: stand(t, "48", "30"), Copies: 1}, {Document: stand(t, "40", "26"), Copies: 1}},
		Tool:   "saw", Own: true,
	}
	shop := tenFeet(500)
	none := record.Together(record.Add(nil), record.Add(nil))
	p, err := plan.Make(context.Background(), job, shop, none)
	require.NoError(t, err)
	for _, s := range p.Pipe[0].Sticks {
		for _, x := range s.Pieces {
			bad := record.Event{
				ID: "e1", Seq: 1, Kind: record.Cut, Frame: x.Frame, Piece: &record.Piece{Pipe: x.Pipe, Copy: 1}, Length: x.Length - measure.Inch/2,
				Stick: &record.Source{ID: "s1", Size: "3/4", Length: s.Length, Origin: record.FromShop},
				Kerf:  measure.Inch / 8, Letter: x.Name, Basis: p.Pipe[0].Basis,
			}
			b, err := plan.FindBadCut(context.Background(), job, shop, none, bad)
			require.NoError(t, err)
			assert.Equal(t, x.Length, b.Wanted, x.Name)
			assert.NotContains(t, b.CanBe, x.PieceRef)
			require.NotEmpty(t, b.Same, x.Name)
			for _, same := range b.Same {
				assert.Equal(t, x.Frame, same.Frame)
				pressed, _ := pressIn(t, job, shop, same.Frame, same.Fix)
				after, err := plan.Make(context.Background(), pressed, shop, none.With(bad))
				require.NoError(t, err)
				assert.Equal(t, procure.Keep, after.Existing[0].Fate, x.Name)
			}
		}
	}
}
