package model_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/wireframe"
)

// bent is a rail along x with an elbow and a leg down at its far end.
const bent = `{"wireframe":1,"joints":{"a":[0,0,30],"b":[40,0,30],"c":[40,0,0]},"pipes":[["a","b"],["b","c"]]}`

func spots(t *testing.T, all ...frame.Anchor) (out []model.Spot) {
	b := modeltest.Built(t, bent, func(d *frame.Document) {
		for i := range all {
			if all[i].Pipe != "" {
				all[i].Pipe = d.Root.Pipes[0].ID
			}
			if all[i].From == "leg" {
				all[i].Pipe, all[i].From = d.Root.Pipes[1].ID, "c"
			}
		}
		for i, a := range all {
			d.Root.Links = append(d.Root.Links, frame.Link{ID: string(rune('a' + i)), Kind: frame.Clip, On: []frame.Anchor{a}})
		}
	})
	for i := range b.Graph.Links {
		out = append(out, b.Spot(b.Graph.Links[i].On[0]))
	}
	return out
}

// 10 in from the elbow's centre, from its rim (9/16 and 23/32 further in along the rail:
// stop and socket of a typical 3/4 elbow), and from the pipe's own end 9/16 in.
func TestASpotIsMeasuredFromItsDatum(t *testing.T) {
	at := func(d frame.Datum) frame.Anchor {
		return frame.Anchor{Pipe: "rail", From: "b", At: 10 * measure.Inch, Datum: d}
	}
	s := spots(
		t,
		at(frame.FromCentre),
		at(frame.FromFace),
		at(frame.FromEnd),
		frame.Anchor{Joint: "b", Side: frame.Left},
		frame.Anchor{Pipe: "rail", At: 41 * measure.Inch},
	)
	x := func(i int) float64 { return s[i].At[0].Inches() }
	assert.InDelta(t, 30, x(0), 1e-6)
	assert.InDelta(t, 40-10-0.5625-0.719, x(1), 0.01)
	assert.InDelta(t, 40-10-0.5625, x(2), 0.02)
	assert.Equal(t, measure.Dir{-1, 0, 0}, s[0].Along, "away from where it is measured")
	assert.Equal(t, measure.Dir{-1, 0, 0}, s[3].Out)
	assert.InDelta(t, 40, x(3), 1e-6)
	assert.True(t, s[0].On)
	assert.False(t, s[4].On, "the rail is 40 long")
}

// Round a level pipe the angle begins at its upper side, round one that stands at its
// front; counter-clockwise as seen from where it is measured. A side says it in words.
func TestWhereRoundAPipe(t *testing.T) {
	rail := frame.Anchor{Pipe: "rail", At: 5 * measure.Inch}
	turned, sided := rail, rail
	turned.Angle, sided.Side = 90, frame.Back
	leg := frame.Anchor{From: "leg", At: 5 * measure.Inch, Angle: 90}
	along := frame.Anchor{From: "leg", At: 5 * measure.Inch, Side: frame.Top}
	s := spots(t, rail, turned, sided, leg, along)
	near := func(want measure.Dir, i int) {
		for a := range want {
			assert.InDelta(t, want[a], s[i].Out[a], 1e-9, "%d", i)
		}
	}
	near(measure.Dir{0, 0, 1}, 0)
	near(measure.Dir{0, 1, 0}, 1) // looking along +x, the top turns to the left, which is +y
	near(measure.Dir{0, 1, 0}, 2)
	near(measure.Dir{-1, 0, 0}, 3) // looking up from below, the front turns to the left
	near(measure.Dir{}, 4)         // the side that it runs to is none round it
}

// A group that is turned or mirrored takes the places of what is on it along.
func TestASideTurnsWithItsPart(t *testing.T) {
	for by, want := range map[float64]measure.Dir{0: {0, 1, 0}, 90: {-1, 0, 0}} {
		d, err := wireframe.Read([]byte(bent))
		require.NoError(t, err)
		def := d.Root
		def.ID = "g"
		def.Links = []frame.Link{{ID: "l", Kind: frame.Clip, On: []frame.Anchor{{Joint: "a", Side: frame.Back}}}}
		d.Groups = []frame.Definition{def}
		d.Root = frame.Definition{Uses: []frame.Use{{ID: "u", Of: "g", Turns: []frame.Turn{{About: measure.Z, By: by}}}}}
		l, err := model.Locate(context.Background(), d, catalog.Typical())
		require.NoError(t, err)
		out := l.Spot(l.Graph.Links[0].On[0]).Out
		for a := range want {
			assert.InDelta(t, want[a], out[a], 1e-9, "%g", by)
		}
	}
}
