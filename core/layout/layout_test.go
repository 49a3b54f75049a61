package layout_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
)

// solve is a placement with its account.
func solve(g *frame.Graph, bodies layout.Bodies, was *layout.Solution) *layout.Solution {
	s := layout.Locate(g, bodies, was)
	s.Account()
	return s
}

func in(x float64) measure.Length { return measure.FromInches(x) }

// goal is two posts with a top rail and a low rail; the rail's length is said
// by dim, from the left post.
func goal(size catalog.Size, mode frame.Mode, dim frametest.Dimension) *frametest.Document {
	at := func(x, z string) [3]string { return [3]string{x, "y", z} }
	dim.From = "left"
	height := &frametest.Dimension{Value: 40 * measure.Inch, Meaning: frame.TopOfPipe, From: frametest.Floor}
	return &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: size, Mode: mode, Root: frametest.Definition{
		Axes: [3]frametest.AxisStations{
			{
				Stations: []frametest.Station{
					{ID: "left"},
					{ID: "right", At: &dim},
					{ID: "half", Split: &frametest.Split{From: "left", To: "right", Part: 1, Parts: 2}},
				},
			},
			{Stations: []frametest.Station{{ID: "y"}}},
			{Stations: []frametest.Station{{ID: "low"}, {ID: "top", At: height}}}},
		Joints: []frametest.Joint{
			{ID: "ll", At: at("left", "low")},
			{ID: "lr", At: at("right", "low")},
			{ID: "tl", At: at("left", "top")},
			{ID: "tr", At: at("right", "top")},
		},
		Pipes: []frametest.Pipe{
			{ID: "rail", From: "tl", To: "tr"},
			{ID: "sill", From: "ll", To: "lr"},
			{ID: "l", From: "ll", To: "tl"},
			{ID: "r", From: "lr", To: "tr"},
		},
	}}
}

// settle solves until positions and fittings agree, as the plan does.
func settle(t require.TestingT, d *frametest.Document) (*frame.Graph, *layout.Solution, *fitting.Result) {
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	s := solve(g, nil, nil)
	var f *fitting.Result
	for range 4 {
		f = fitting.Resolve(g, catalog.Typical(), s.Tangents)
		s = solve(g, f, s)
	}
	return g, s, f
}

func Example() {
	d := goal("3/4", frame.Cemented, frametest.Dimension{Value: 48 * measure.Inch, Meaning: frame.Outside})
	g, _ := frame.Expand(d.Now())
	f := fitting.Resolve(g, catalog.Typical(), solve(g, nil, nil).Tangents)
	s := solve(g, f, nil)
	fmt.Println(s.Sizes[0].Centre.Format(measure.Decimal, 0), "between centres")
	for _, t := range s.Sizes[0].Sum {
		fmt.Println(t.Label, t.Value.Format(measure.Decimal, 0))
	}
	// Output:
	// 46.68 in between centres
	// stated, outside 48 in
	// what stands out beyond the centre, twice -1.32 in
}

// The centre distance for each meaning of 48, size 1, worked by hand:
// body 1.62, OD 1.315, stop 0.6875, socket 0.875.
func TestMeanings(t *testing.T) {
	for _, c := range []struct {
		is   frame.Meaning
		mode frame.Mode
		want float64
	}{
		{frame.Centre, frame.Cemented, 48},
		{frame.Outside, frame.Cemented, 48 - 1.62},
		{frame.Clear, frame.Cemented, 48 + 1.315},
		{frame.Slot, frame.Cemented, 48 + 1.62},
		{frame.Visible, frame.Cemented, 48 + 2*(0.6875+0.875)},
		{frame.Cut, frame.Cemented, 48 + 2*0.6875},
		{frame.Cut, frame.Slip, 48 + 2*(0.6875+0.15*0.875)},
	} {
		_, s, _ := settle(t, goal("1", c.mode, frametest.Dimension{Value: 48 * measure.Inch, Meaning: c.is, Of: "rail"}))
		assert.InDelta(t, c.want, s.Sizes[0].Centre.Inches(), 1e-6, c.is)
		assert.Equal(t, s.Sizes[0].Centre, s.Sizes[0].Sum.Total(), c.is)
		assert.Equal(t, s.Lengths[0], s.Sizes[0].Centre)
		assert.Empty(t, s.Findings)
		for _, a := range s.Sizes[0].Also {
			assert.NotEqual(t, c.is, a.Is)
		}
	}
}

func TestHeightsAreFromTheLowestBody(t *testing.T) {
	_, s, f := settle(t, goal("1", frame.Cemented, frametest.Dimension{Value: 48 * measure.Inch, Meaning: frame.Centre}))
	assert.Equal(t, in(-0.81), s.Floor, "half a 1 in body below the low rail")
	assert.Equal(t, 40*measure.Inch, s.Points[2][2]+f.Radius(0)-s.Floor, "floor to the top of the rail")
}

func TestSizesThatCannotBe(t *testing.T) {
	codes := func(d *frametest.Document) (cs []string) {
		_, s, _ := settle(t, d)
		for _, f := range s.Findings {
			cs = append(cs, f.Code)
		}
		return cs
	}
	assert.Contains(t, codes(goal("1", frame.Cemented, frametest.Dimension{Value: in(1), Meaning: frame.Outside})), "size-too-small")
	assert.Contains(t, codes(goal("1", frame.Cemented, frametest.Dimension{Value: 0, Meaning: frame.Centre})), "zero-length")
}

// Two groups that are to share a joint but stand in two places.
func TestGroupsThatDisagree(t *testing.T) {
	bar := frametest.Definition{
		ID:     "bar",
		Joints: []frametest.Joint{{ID: "a", At: [3]string{"0", "0", "0"}}, {ID: "b", At: [3]string{"1", "0", "0"}}},
		Pipes:  []frametest.Pipe{{ID: "p", From: "a", To: "b"}},
		Axes: [3]frametest.AxisStations{
			{
				Stations: []frametest.Station{
					{ID: "0"},
					{ID: "1", At: &frametest.Dimension{Value: in(20), Meaning: frame.Centre, From: "0"}},
				},
			},
			{Stations: []frametest.Station{{ID: "0"}}},
			{Stations: []frametest.Station{{ID: "0"}}},
		},
	}
	d := &frametest.Document{
		Format: frame.Format,
		Units:  measure.Inches,
		Size:   "1",
		Mode:   frame.Cemented,
		Groups: []frametest.Definition{bar},
	}
	d.Root.Axes = [3]frametest.AxisStations{
		{Stations: []frametest.Station{{ID: "x"}, {ID: "far", At: &frametest.Dimension{Value: in(20), Meaning: frame.Centre, From: "x"}}}},
		{Stations: []frametest.Station{{ID: "y"}}},
		{Stations: []frametest.Station{{ID: "z"}}},
	}
	d.Root.Uses = []frametest.Use{
		{ID: "one", Of: "bar", At: [3]string{"x", "y", "z"}},
		{ID: "two", Of: "bar", At: [3]string{"far", "y", "z"}},
	}
	d.Root.Merges = []frame.Merge{{Keep: "one/b", Drop: "two/a"}}
	_, s, f := settle(t, d)
	assert.Empty(t, s.Findings, "they meet")
	assert.Equal(t, catalog.Coupling, f.Joints[1].Kind)
	d.Root.Axes[0].Stations[1].At.Value = in(21)
	_, s, _ = settle(t, d)
	require.Len(t, s.Findings, 1)
	assert.Equal(t, "sizes-contradict", s.Findings[0].Code)
	assert.Contains(t, message.Said(s.Findings[0]).Text, "(1\")")
	require.Len(t, s.Clashes, 1)
}

func TestTurnedGroupsStandWhereTheyShould(t *testing.T) {
	d := goal("1", frame.Cemented, frametest.Dimension{Value: in(48), Meaning: frame.Centre})
	group := d.Root
	group.ID = "goal"
	d.Groups = []frametest.Definition{group}
	d.Root = frametest.Definition{
		Axes: [3]frametest.AxisStations{
			{Stations: []frametest.Station{{ID: "x"}}},
			{Stations: []frametest.Station{{ID: "y"}}},
			{Stations: []frametest.Station{{ID: "z"}}},
		},
		Uses: []frametest.Use{
			{
				ID:     "g",
				Of:     "goal",
				At:     [3]string{"x", "y", "z"},
				Anchor: [3]string{"right", "y", "low"},
				Turns:  []frame.Turn{{About: measure.Z, By: 90}},
			},
		},
	}
	_, s, _ := settle(t, d)
	assert.Equal(t, measure.Point{0, -48 * measure.Inch, 0}, s.Points[0], "the left foot: 48 before the anchored right one, turned to −y")
	assert.Equal(t, 40*measure.Inch, s.Points[2][2]+in(1.315/2)-s.Floor)
}
