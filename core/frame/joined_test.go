package frame_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/measure"
)

func axisOf(ids ...string) frametest.AxisStations {
	var a frametest.AxisStations
	for i, id := range ids {
		st := frametest.Station{ID: id}
		if i > 0 {
			st.At = &frametest.Dimension{Value: 40 * measure.Inch, Meaning: frame.Centre, From: ids[i-1]}
		}
		a.Stations = append(a.Stations, st)
	}
	return a
}

// sections is n joined sections of two posts, which are uses of a group, and
// two rails.
func sections(n int) *frametest.Document {
	post := frametest.Definition{ID: "post", Axes: [3]frametest.AxisStations{axisOf("x"), axisOf("y"), axisOf("low", "top")},
		Joints: []frametest.Joint{{ID: "low", At: [3]string{"x", "y", "low"}}, {ID: "top", At: [3]string{"x", "y", "top"}}},
		Pipes:  []frametest.Pipe{{ID: "up", From: "low", To: "top"}}}
	section := frametest.Definition{ID: "section", Axes: [3]frametest.AxisStations{axisOf("left", "right"), axisOf("y"), axisOf("ground")},
		Uses: []frametest.Use{
			{ID: "l", Of: "post", At: [3]string{"left", "y", "ground"}},
			{ID: "r", Of: "post", At: [3]string{"right", "y", "ground"}},
		},
		Pipes: []frametest.Pipe{{ID: "bottom", From: "l/low", To: "r/low"}, {ID: "rail", From: "l/top", To: "r/top"}}}
	root := frametest.Definition{Axes: [3]frametest.AxisStations{axisOf("x"), axisOf("y"), axisOf("ground")},
		Uses: []frametest.Use{
			{
				ID:    "s",
				Of:    "section",
				At:    [3]string{"x", "y", "ground"},
				Array: &frametest.Array{Count: n, Axis: measure.X, Joined: &[2]string{"left", "right"}},
			},
		}}
	return &frametest.Document{
		Format: frame.Format,
		Units:  measure.Inches,
		Size:   "1",
		Mode:   frame.Cemented,
		Root:   root,
		Groups: []frametest.Definition{post, section},
	}
}

// Three sections alone have 3 × 2 posts and 3 × 4 joints; joined they share
// two of the posts: 4 posts and 6 rails, 8 joints, and three pipes meet at
// the shared ones.
func TestJoinedSectionsShareTheirUprights(t *testing.T) {
	g, err := frame.Expand(sections(3).Now())
	require.NoError(t, err)
	assert.Len(t, g.Edges, 10)
	assert.Len(t, g.Nodes, 8)
	meet := map[int]int{}
	for _, n := range g.Nodes {
		meet[len(n.Pipes)]++
	}
	assert.Equal(t, map[int]int{2: 4, 3: 4}, meet)
	assert.GreaterOrEqual(t, g.Node("s#1/r/top"), 0, "the first copy's name stays")
	assert.Equal(t, g.Node("s#1/r/top"), g.Node("s#2/l/top"), "and the second is another name of it")

	alone := sections(3)
	alone.Root.Uses[0].Array.Joined = nil
	alone.Root.Uses[0].Array.Pitch = &frametest.Dimension{Value: 60 * measure.Inch, Meaning: frame.Centre}
	g, err = frame.Expand(alone.Now())
	require.NoError(t, err)
	assert.Len(t, g.Edges, 12)
}

// What format 1 wrote is read and means the same.
func TestFormat1IsBroughtUpToDate(t *testing.T) {
	d := sections(2)
	d.Root.Uses[0].Turns = []frame.Turn{{About: measure.Z, By: 270}}
	d.Root.Uses[0].Array = &frametest.Array{
		Count: 2,
		Axis:  measure.Y,
		Pitch: &frametest.Dimension{Value: 7_777_777_777, Meaning: frame.Clear},
	}
	data, err := json.Marshal(d)
	require.NoError(t, err)
	var old map[string]any
	require.NoError(t, json.Unmarshal(data, &old))
	old["format"] = 1
	use := old["root"].(map[string]any)["uses"].([]any)[0].(map[string]any)
	delete(use, "turns")
	use["turn"] = 3
	data, err = json.Marshal(old)
	require.NoError(t, err)
	var read frame.Document
	require.NoError(t, json.Unmarshal(data, &read))
	assert.Equal(t, *d.Now(), read)

	assert.Error(t, json.Unmarshal([]byte(`{"format":1,"root":7}`), &read))
	require.NoError(t, json.Unmarshal([]byte(`{"format":9}`), &read))
	_, err = frame.Expand(&read)
	assert.ErrorContains(t, err, "version 9")
}

// What format 2 said in stations is said in planes, sizes and reasons, and what
// named a size by its place finds it by its id.
func TestFormat2IsBroughtUpToDate(t *testing.T) {
	d := sections(2)
	d.Groups[0].Joints = append(
		d.Groups[0].Joints,
		frametest.Joint{
			ID: "arm",
			Walk: &frametest.Walk{
				From: "top",
				Dir:  &measure.Dir{1, 0, 0},
				Size: &frametest.Dimension{Value: 5 * measure.Inch, Meaning: frame.Cut, Of: "out", Text: "5"},
			},
		},
	)
	d.Groups[0].Pipes = append(d.Groups[0].Pipes, frametest.Pipe{ID: "out", From: "top", To: "arm"})
	d.Root.Axes[0].Stations = append(
		d.Root.Axes[0].Stations,
		frametest.Station{
			ID: "far",
			At: &frametest.Dimension{Value: 700 * measure.Millimetre, Text: "700", Meaning: frame.Centre, From: "x", Back: true},
		},
	)
	d.Drives = []frametest.Drive{
		{
			ID:    "round",
			Pipe:  "s#1/bottom",
			Size:  frametest.Dimension{Value: 36 * measure.Inch, Meaning: frame.Cut, Text: "36"},
			Gives: "/groups/1/axes/0/stations/1/at",
		},
	}
	d.Format = 2
	data, err := json.Marshal(d)
	require.NoError(t, err)
	now, ids, err := frame.FromFormat2(data)
	require.NoError(t, err)
	assert.Equal(t, frame.Format, now.Format)
	assert.Equal(t, [][2]string{{"l/low", "r/low"}, {"l/top", "r/top"}, {"l/arm", "r/arm"}}, now.Root.Uses[0].Array.Joined)
	arm := now.SizeOf(ids["/groups/0/joints/2/walk/size"])
	require.NotNil(t, arm)
	assert.Equal(t, "out", arm.Pipe)
	assert.Equal(t, measure.Inches, arm.Unit, "a text carried no unit: it is in the one that gives its value")
	assert.Equal(t, &measure.Dir{1, 0, 0}, now.Groups[0].Pipe("out").Dir)
	far := now.SizeOf(ids["/root/axes/0/stations/1/at"])
	assert.Equal(t, [2]frame.Ref{"=far", "=x"}, [2]frame.Ref{far.From, far.To}, "measured back: it begins at the lower one")
	assert.Equal(t, measure.Millimetres, far.Unit)
	gave := now.SizeOf(ids["/groups/1/axes/0/stations/1/at"])
	require.NotNil(t, gave.Gave)
	assert.Contains(t, gave.Gave.Words, "36 cut")
	_, err = frame.Expand(now)
	require.NoError(t, err)
}
