package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/measure"
)

// The span of a size is what the tape is laid along: it is as long as the
// stated value, whatever the meaning.
func TestASpanIsAsLongAsTheStatedSize(t *testing.T) {
	for _, m := range []frame.Meaning{frame.Centre, frame.Outside, frame.Clear, frame.Slot} {
		for _, back := range []bool{false, true} {
			_, s, _ := settle(t, goal("1", frame.Cemented, frametest.Dimension{Value: 48 * measure.Inch, Meaning: m, Back: back}))
			for _, z := range s.Sizes {
				assert.Equal(t, z.Value, (z.Span[1] - z.Span[0]).Abs(), "%s %s", z.Is, z.To)
			}
		}
	}
	_, s, _ := settle(t, goal("3/4", frame.Cemented, frametest.Dimension{Value: 48 * measure.Inch, Meaning: frame.Outside}))
	require.Len(t, s.Sizes, 2)
	assert.Equal(t, s.Floor, s.Sizes[1].Span[0], "a height begins at the floor")
}

// A group turned by a quarter measures along another axis of the world.
func TestSizesOfATurnedGroupLieOnTheWorldsAxes(t *testing.T) {
	bar := frametest.Definition{ID: "bar",
		Axes: [3]frametest.AxisStations{
			{
				Stations: []frametest.Station{
					{ID: "a"},
					{ID: "b", At: &frametest.Dimension{Value: 20 * measure.Inch, Meaning: frame.Centre, From: "a"}},
				},
			},
			{Stations: []frametest.Station{{ID: "y"}}}, {Stations: []frametest.Station{{ID: "z"}}}},
		Joints: []frametest.Joint{{ID: "a", At: [3]string{"a", "y", "z"}}, {ID: "b", At: [3]string{"b", "y", "z"}}},
		Pipes:  []frametest.Pipe{{ID: "p", From: "a", To: "b"}}}
	for turn, want := range []struct {
		axis measure.Axis
		span [2]float64
	}{{measure.X, [2]float64{10, 30}}, {measure.Y, [2]float64{5, 25}}, {measure.X, [2]float64{10, -10}}, {measure.Y, [2]float64{5, -15}}} {
		at := func(id string, by float64) frametest.AxisStations {
			return frametest.AxisStations{
				Stations: []frametest.Station{
					{ID: "o"},
					{ID: id, At: &frametest.Dimension{Value: in(by), Meaning: frame.Centre, From: "o"}},
				},
			}
		}
		d := &frametest.Document{
			Format: frame.Format,
			Units:  measure.Inches,
			Size:   "3/4",
			Mode:   frame.Cemented,
			Groups: []frametest.Definition{bar},
			Root: frametest.Definition{Axes: [3]frametest.AxisStations{at("x", 10), at("y", 5), {Stations: []frametest.Station{{ID: "z"}}}},
				Uses: []frametest.Use{
					{ID: "u", Of: "bar", At: [3]string{"x", "y", "z"}, Turns: []frame.Turn{{About: measure.Z, By: 90 * float64(turn)}}},
				}},
		}
		_, s, _ := settle(t, d)
		size := s.Sizes[len(s.Sizes)-1]
		assert.Equal(t, want.axis, size.Axis, "turned %d times", turn)
		assert.Equal(t, [2]measure.Length{in(want.span[0]), in(want.span[1])}, size.Span, "turned %d times", turn)
	}
}
