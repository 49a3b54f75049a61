package layout_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

func settled(t require.TestingT, d *frametest.Document) (*frame.Graph, *layout.Solution, *fitting.Result) {
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	var f *fitting.Result
	s := solve(g, nil, nil)
	for range 8 {
		f = fitting.Resolve(g, catalog.Typical(), s.Tangents)
		s = solve(g, f, s)
	}
	return g, s, f
}

// walks is a frame with one joint "o" on stations and others walked to, each
// with a pipe of its own id to the joint it is walked from.
func walks(ways map[string]frametest.Walk, order ...string) *frametest.Document {
	d := &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	for a := range 3 {
		d.Root.Axes[a].Stations = []frametest.Station{{ID: "s"}}
	}
	d.Root.Joints = []frametest.Joint{{ID: "o", At: [3]string{"s", "s", "s"}}}
	for _, id := range order {
		w := ways[id]
		d.Root.Joints = append(d.Root.Joints, frametest.Joint{ID: id, Walk: &w})
		d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: id, From: w.From, To: id})
	}
	return d
}

func by(m frame.Meaning, x float64, of string) *frametest.Dimension {
	return &frametest.Dimension{Value: in(x), Meaning: m, Of: of}
}

// A 12 in cut at 45 degrees from a 45 to a 45, cemented: centre distance
// 12 + 2 × 0.3125 = 12.625; with the pieces on both sides.
func TestAWalkAt45ByItsCutLength(t *testing.T) {
	up, slope := &measure.Dir{0, 0, 1}, &measure.Dir{1, 0, 1}
	d := walks(map[string]frametest.Walk{
		"a": {From: "o", Dir: up, Size: by(frame.Centre, 20, "")},
		"b": {From: "a", Dir: slope, Size: by(frame.Cut, 12, "b")},
		"c": {From: "b", Dir: &measure.Dir{1, 0, 0}, Size: by(frame.Visible, 6, "c")},
	}, "a", "b", "c")
	g, s, f := settled(t, d)
	assert.Equal(t, catalog.Elbow45, f.Joints[g.Node("a")].Kind)
	assert.InDelta(t, 12.625, s.Lengths[g.Edge("b")].Inches(), 1e-6)
	p := s.Points[g.Node("b")]
	assert.InDelta(t, 12.625/math.Sqrt2, p[0].Inches(), 1e-6)
	assert.InDelta(t, 20+12.625/math.Sqrt2, p[2].Inches(), 1e-6)
	// visible 6 from the 45's face (0.3125 + 0.719) to the bare end
	assert.InDelta(t, 6+0.3125+0.719, s.Lengths[g.Edge("c")].Inches(), 1e-6)
	assert.Empty(t, s.Findings)

	var sloped layout.Size
	for _, z := range s.Sizes {
		if z.To == "b" {
			sloped = z
		}
	}
	assert.Equal(t, layout.Sloped, sloped.Axis)
	require.Len(t, sloped.Ends, 2)
	assert.InDelta(t, 12, sloped.Ends[0].Distance(sloped.Ends[1]).Inches(), 1e-6, "the ends of what it measures")
	assert.Equal(t, sloped.Sum.Total(), sloped.Centre)
}

// A brace goes on until it meets a level, wherever that is.
func TestAWalkUntilAStation(t *testing.T) {
	d := walks(
		map[string]frametest.Walk{"a": {From: "o", Dir: &measure.Dir{1, 0, 1}, Until: &frametest.Until{Axis: measure.Z, Station: "top"}}},
		"a",
	)
	d.Root.Axes[2].Stations = append(
		d.Root.Axes[2].Stations,
		frametest.Station{ID: "top", At: &frametest.Dimension{Value: in(17), Meaning: frame.Centre, From: "s"}},
	)
	g, s, _ := settled(t, d)
	p := s.Points[g.Node("a")]
	assert.InDelta(t, 17, p[0].Inches(), 1e-6)
	assert.InDelta(t, 17, p[2].Inches(), 1e-6)
	d.Root.Joints[1].Walk.Dir = &measure.Dir{1, 0, -1}
	_, s, _ = settled(t, d)
	assert.Equal(t, "turned-round", s.Findings[0].Code, "it would have to run the other way")
}

// A joint a third of the way to another stays on the line.
func TestAShareOfTheWay(t *testing.T) {
	d := walks(map[string]frametest.Walk{
		"a": {From: "o", Dir: &measure.Dir{3, 0, 4}, Size: by(frame.Centre, 30, "")},
		"m": {From: "o", Toward: "a", Share: 1.0 / 3},
		"n": {From: "o", Toward: "a", Size: by(frame.Centre, 25, "")},
	}, "a")
	w, v := frametest.Walk{From: "o", Toward: "a", Share: 1.0 / 3}, frametest.Walk{From: "o", Toward: "a", Size: by(frame.Centre, 25, "")}
	d.Root.Joints = append(d.Root.Joints, frametest.Joint{ID: "m", Walk: &w}, frametest.Joint{ID: "n", Walk: &v})
	g, s, _ := settled(t, d)
	assert.InDelta(t, 6, s.Points[g.Node("m")][0].Inches(), 1e-6)
	assert.InDelta(t, 8, s.Points[g.Node("m")][2].Inches(), 1e-6)
	assert.InDelta(t, 15, s.Points[g.Node("n")][0].Inches(), 1e-6)
}

// octagon is a ring walked round: eight sides of one cut length, the last one
// closing on the first joint.
func octagon(cut float64) *frametest.Document {
	ways := map[string]frametest.Walk{}
	var order []string
	from := "o"
	for k := range 7 {
		id := string(rune('a' + k))
		angle := float64(k) * math.Pi / 4
		ways[id] = frametest.Walk{From: from, Dir: &measure.Dir{math.Cos(angle), math.Sin(angle), 0}, Size: by(frame.Cut, cut, id)}
		order, from = append(order, id), id
	}
	d := walks(ways, order...)
	d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "close", From: "g", To: "o"})
	return d
}

// Whatever the cut, eight equal sides close: the last pipe is as long as the rest.
func TestAnOctagonWalkedRoundCloses(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cut := rapid.Float64Range(2, 80).Draw(t, "cut")
		g, s, f := settled(t, octagon(cut))
		for i := range f.Joints {
			require.Equal(t, catalog.Elbow45, f.Joints[i].Kind)
		}
		require.InDelta(t, cut+2*0.3125, s.Lengths[g.Edge("close")].Inches(), 1e-5)
	})
}

// A use turned by 30 degrees about z and a frame that stands tilted keep every
// length; the stance only turns, and the floor is found anew.
func TestAStanceTurnsTheWholeFrame(t *testing.T) {
	build := func(tilt float64) *frametest.Document {
		d := octagon(12)
		d.Root.Axes[2].Stations = append(
			d.Root.Axes[2].Stations,
			frametest.Station{ID: "top", At: &frametest.Dimension{Value: in(30), Meaning: frame.TopOfPipe, From: frametest.Floor}},
		)
		d.Root.Joints = append(d.Root.Joints, frametest.Joint{ID: "t", At: [3]string{"s", "s", "top"}})
		d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "post", From: "o", To: "t"})
		if tilt != 0 {
			d.Stance = &frame.Stance{Turns: []frame.Turn{{About: measure.X, By: tilt}}}
		}
		return d
	}
	_, flat, _ := settled(t, build(0))
	for _, tilt := range []float64{12.5, 90, -35} {
		_, leant, _ := settled(t, build(tilt))
		for i := range flat.Lengths {
			assert.InDelta(t, flat.Lengths[i].Inches(), leant.Lengths[i].Inches(), 1e-6, "tilt %g, pipe %d", tilt, i)
		}
		assert.InDelta(t, flat.Base.Inches(), leant.Base.Inches(), 1e-6)
		if tilt == 12.5 {
			c := math.Cos(12.5 * math.Pi / 180)
			assert.InDelta(
				t,
				flat.Points[1][1].Inches()*c-flat.Points[1][2].Inches()*math.Sin(12.5*math.Pi/180),
				leant.Points[1][1].Inches(),
				1e-5,
			)
		}
		if tilt < 0 {
			assert.Less(t, leant.Floor, flat.Floor, "its far side leans below where it stood")
		}
	}
}

// braced is a right triangle: a post of the height, a base of the width, and
// a sloped pipe from the base's end to the post's top.
func braced(width, height float64, drives ...frametest.Drive) *frametest.Document {
	d := &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented, Drives: drives}
	d.Root.Axes = [3]frametest.AxisStations{
		{
			Stations: []frametest.Station{
				{ID: "l"},
				{ID: "r", At: &frametest.Dimension{Value: in(width), Meaning: frame.Centre, From: "l", Label: "Width"}},
			},
		},
		{Stations: []frametest.Station{{ID: "y"}}},
		{
			Stations: []frametest.Station{
				{ID: "b"},
				{ID: "t", At: &frametest.Dimension{Value: in(height), Meaning: frame.Centre, From: "b", Label: "Height"}},
			},
		},
	}
	d.Root.Joints = []frametest.Joint{
		{ID: "o", At: [3]string{"l", "y", "b"}},
		{ID: "r", At: [3]string{"r", "y", "b"}},
		{ID: "t", At: [3]string{"l", "y", "t"}},
	}
	d.Root.Pipes = []frametest.Pipe{{ID: "base", From: "o", To: "r"}, {ID: "post", From: "o", To: "t"}, {ID: "brace", From: "r", To: "t"}}
	return d
}

const height, width = "/root/axes/2/stations/1/at", "/root/axes/0/stations/1/at"

func drive(id, pipe string, m frame.Meaning, x float64, gives string) frametest.Drive {
	return frametest.Drive{ID: id, Pipe: pipe, Size: frametest.Dimension{Value: in(x), Meaning: m}, Gives: gives}
}

// A base of 24 and a sloped pipe of 40 centre to centre: the height gives way
// to √(40² − 24²) = 32.
func TestASlopedPipeDrivesTheHeight(t *testing.T) {
	g, s, _ := settled(t, braced(24, 10, drive("d", "brace", frame.Centre, 40, height)))
	assert.InDelta(t, 32, s.Points[g.Node("t")][2].Inches(), 1e-6)
	for _, z := range s.Sizes {
		if z.Label == "Height" {
			assert.Contains(t, z.Gave, "40")
			assert.InDelta(t, 32, z.Out.Inches(), 1e-6, "the size that gave way says what it became")
			assert.Equal(t, in(10), z.Value, "and what it was")
		}
	}
	assert.Empty(t, codes(s.Findings, "sizes-contradict"))
}

// Two sizes of pipes move two others at once, whatever they are, and the
// result answers to both.
func TestSizesAreSolvedTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		slope := rapid.Float64Range(20, 90).Draw(t, "slope")
		post := rapid.Float64Range(8, 18).Draw(t, "post")
		g, s, f := settled(t, braced(30, 12, drive("d", "brace", frame.Centre, slope, width), drive("e", "post", frame.Cut, post, height)))
		require.InDelta(t, slope, s.Lengths[g.Edge("brace")].Inches(), 1e-4)
		e := g.Edge("post")
		cut := s.Lengths[e] - f.TakeOff(frame.PipeEnd{Pipe: e}) - f.TakeOff(frame.PipeEnd{Pipe: e, End: 1})
		require.InDelta(t, post, cut.Inches(), 1e-4)
		require.Empty(t, codes(s.Findings, "sizes-contradict"))
	})
}

// 24 and 32 make 40: asking for 41 contradicts just those two, and not a size
// that has no part in it. Letting any of them give way ends it.
func TestAContradictionNamesASmallestSet(t *testing.T) {
	d := braced(24, 32, drive("d", "brace", frame.Centre, 41, ""))
	d.Root.Axes[1].Stations = append(
		d.Root.Axes[1].Stations,
		frametest.Station{ID: "far", At: &frametest.Dimension{Value: in(9), Meaning: frame.Centre, From: "y"}},
	)
	_, s, _ := settled(t, d)
	require.Len(t, codes(s.Findings, "sizes-contradict"), 1)
	require.Len(t, s.Clashes, 1)
	require.Len(t, s.Clashes[0].Words, 3)
	for i, part := range []string{"Width", "Height", "41"} {
		assert.Contains(t, s.Clashes[0].Words[i], part)
	}
	for _, path := range []string{width, height} {
		d.Drives[0].Gives = path
		_, s, _ := settled(t, d)
		assert.Empty(t, codes(s.Findings, "sizes-contradict"), path)
	}
	d.Drives[0].Gives = "/root/axes/1/stations/1/at"
	_, s, _ = settled(t, d)
	assert.NotEmpty(t, codes(s.Findings, "sizes-contradict"), "what has no part in it cannot give way to it")

	_, s, _ = settled(t, braced(24, 32, drive("d", "brace", frame.Centre, 40, "")))
	assert.Empty(t, codes(s.Findings, "sizes-contradict"), "a size that agrees is no finding")
	_, s, _ = settled(t, braced(24, 32, drive("d", "brace", frame.Centre, 10, height)))
	assert.NotEmpty(t, codes(s.Findings, "sizes-contradict"), "no height makes the slope shorter than the base")
}

// An outside size between two joints.
func TestASizeBetweenJoints(t *testing.T) {
	d := braced(24, 32)
	d.Drives = []frametest.Drive{
		{ID: "o", Ends: [2]string{"o", "r"}, Size: frametest.Dimension{Value: in(30), Meaning: frame.Outside}, Gives: width},
	}
	g, s, f := settled(t, d)
	r := f.Reach(g.Node("o"), measure.Dir{-1, 0, 0}) + f.Reach(g.Node("r"), measure.Dir{1, 0, 0})
	assert.InDelta(t, 30, (s.Points[g.Node("r")][0] + r).Inches(), 1e-4)
}

func codes(fs []finding.Finding, code string) (some []finding.Finding) {
	for _, f := range fs {
		if f.Code == code {
			some = append(some, f)
		}
	}
	return some
}
