package frame_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

func axisOf(ids ...string) frame.AxisStations {
	var a frame.AxisStations
	for i, id := range ids {
		st := frame.Station{ID: id}
		if i > 0 {
			st.At = &frame.Dimension{Value: 40 * measure.Inch, Meaning: frame.Centre, From: ids[i-1]}
		}
		a.Stations = append(a.Stations, st)
	}
	return a
}

// sections is n joined sections of two posts, which are uses of a group, and
// two rails.
func sections(n int) *frame.Document {
	post := frame.Definition{ID: "post", Axes: [3]frame.AxisStations{axisOf("x"), axisOf("y"), axisOf("low", "top")},
		Joints: []frame.Joint{{ID: "low", At: [3]string{"x", "y", "low"}}, {ID: "top", At: [3]string{"x", "y", "top"}}},
		Pipes:  []frame.Pipe{{ID: "up", From: "low", To: "top"}}}
	section := frame.Definition{ID: "section", Axes: [3]frame.AxisStations{axisOf("left", "right"), axisOf("y"), axisOf("ground")},
		Uses:  []frame.Use{{ID: "l", Of: "post", At: [3]string{"left", "y", "ground"}}, {ID: "r", Of: "post", At: [3]string{"right", "y", "ground"}}},
		Pipes: []frame.Pipe{{ID: "bottom", From: "l/low", To: "r/low"}, {ID: "rail", From: "l/top", To: "r/top"}}}
	root := frame.Definition{Axes: [3]frame.AxisStations{axisOf("x"), axisOf("y"), axisOf("ground")},
		Uses: []frame.Use{{ID: "s", Of: "section", At: [3]string{"x", "y", "ground"}, Array: &frame.Array{Count: n, Axis: measure.X, Joined: &[2]string{"left", "right"}}}}}
	return &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "1", Mode: frame.Cemented, Root: root, Groups: []frame.Definition{post, section}}
}

// Three sections alone have 3 × 2 posts and 3 × 4 joints; joined they share
// two of the posts: 4 posts and 6 rails, 8 joints, and three pipes meet at
// the shared ones.
func TestJoinedSectionsShareTheirUprights(t *testing.T) {
	g, err := frame.Expand(sections(3))
	require.NoError(t, err)
	assert.Len(t, g.Edges, 10)
	assert.Len(t, g.Nodes, 8)
	meet := map[int]int{}
	for _, n := range g.Nodes {
		meet[len(n.Pipes)]++
	}
	assert.Equal(t, map[int]int{2: 4, 3: 4}, meet)
	assert.GreaterOrEqual(t, g.Node("s#1/r/top"), 0, "the first copy's name stays")
	assert.Equal(t, -1, g.Node("s#2/l/top"))

	alone := sections(3)
	alone.Root.Uses[0].Array.Joined = nil
	alone.Root.Uses[0].Array.Pitch = &frame.Dimension{Value: 60 * measure.Inch, Meaning: frame.Centre}
	g, err = frame.Expand(alone)
	require.NoError(t, err)
	assert.Len(t, g.Edges, 12)
}

func TestNonsenseOfFormat2(t *testing.T) {
	walk := func(w frame.Walk) func(*frame.Document) {
		return func(d *frame.Document) {
			d.Root.Joints = append(d.Root.Joints, frame.Joint{ID: "w", Walk: &w})
		}
	}
	size := &frame.Dimension{Value: measure.Inch, Meaning: frame.Centre}
	up := &measure.Dir{0, 0, 1}
	for where, spoil := range map[string]func(*frame.Document){
		"/root/uses/0/array/joined/1": func(d *frame.Document) { d.Root.Uses[0].Array.Joined[1] = "attic" },
		"/root/uses/0/array/joined":   func(d *frame.Document) { d.Root.Uses[0].Turns = []frame.Turn{{About: measure.Z, By: 30}} },
		"/root/uses/0/array/pitch":    func(d *frame.Document) { d.Root.Uses[0].Array.Joined = nil },
		"/root/uses/0/turns/0/about":  func(d *frame.Document) { d.Root.Uses[0].Turns = []frame.Turn{{About: 7}} },
		"/stance/turns/0/by":          func(d *frame.Document) { d.Stance = &frame.Stance{Turns: []frame.Turn{{By: 1000}}} },
		"/root/joints/0/walk":         walk(frame.Walk{From: "s#1/l/low", Size: size}),
		"/root/joints/0/walk/dir":     walk(frame.Walk{From: "s#1/l/low", Dir: &measure.Dir{}, Size: size}),
		"/root/joints/0/walk/share":   walk(frame.Walk{From: "s#1/l/low", Dir: up, Share: 0.5}),
		"/root/joints/0/walk/from":    walk(frame.Walk{From: "attic", Dir: up, Size: size}),
		"/root/joints/0/walk/toward":  walk(frame.Walk{From: "s#1/l/low", Toward: "attic", Share: 0.5}),
		"/root/joints/0/walk/size/of": walk(frame.Walk{From: "s#1/l/low", Dir: up, Size: &frame.Dimension{Meaning: frame.Cut}}),
		"/root/joints/0/end": func(d *frame.Document) {
			d.Root.Joints = append(d.Root.Joints, frame.Joint{ID: "w", At: [3]string{"x", "y", "ground"}, End: "cork"})
		},
		"/drives/0": func(d *frame.Document) { d.Drives = []frame.Drive{{ID: "a", Size: *size}} },
		"/drives/0/size/meaning": func(d *frame.Document) {
			d.Drives = []frame.Drive{{ID: "a", Pipe: "p", Size: frame.Dimension{Meaning: frame.Slot}}}
		},
		"/drives/0/gives": func(d *frame.Document) {
			d.Drives = []frame.Drive{{ID: "a", Pipe: "p", Size: *size, Gives: "/root/axes/0/stations/9/at"}}
		},
		"/root/axes/0/stations/1/split": func(d *frame.Document) {
			d.Root.Axes[0].Stations = append(d.Root.Axes[0].Stations, frame.Station{ID: "s", Split: &frame.Split{From: "x", To: "attic", Share: 0.3}})
		},
	} {
		d := sections(2)
		spoil(d)
		_, err := frame.Expand(d)
		var ps frame.Problems
		if assert.ErrorAs(t, err, &ps, where) {
			assert.Equal(t, where, ps[0].Path, "%v", ps)
			assert.NotEmpty(t, ps[0].Hint)
		}
	}
}

// Joints that are walked to from each other stand nowhere.
func TestAWayThatLeadsBack(t *testing.T) {
	d := sections(1)
	for _, p := range [][2]string{{"a", "b"}, {"b", "c"}, {"c", "a"}} {
		d.Root.Joints = append(d.Root.Joints, frame.Joint{ID: p[0], Walk: &frame.Walk{From: p[1], Dir: &measure.Dir{1, 0, 0}, Size: &frame.Dimension{Meaning: frame.Centre}}})
	}
	_, err := frame.Expand(d)
	assert.ErrorContains(t, err, "leads back")
}

// What format 1 wrote is read and means the same.
func TestFormat1IsBroughtUpToDate(t *testing.T) {
	d := sections(2)
	d.Root.Uses[0].Turns = []frame.Turn{{About: measure.Z, By: 270}}
	d.Root.Uses[0].Array = &frame.Array{Count: 2, Axis: measure.Y, Pitch: &frame.Dimension{Value: 7_777_777_777, Meaning: frame.Clear}}
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
	assert.Equal(t, *d, read)

	assert.Error(t, json.Unmarshal([]byte(`{"format":1,"root":7}`), &read))
	require.NoError(t, json.Unmarshal([]byte(`{"format":9}`), &read))
	_, err = frame.Expand(&read)
	assert.ErrorContains(t, err, "version 9")
}

func TestPointersOfWalks(t *testing.T) {
	d := sections(1)
	d.Groups[0].Joints = append(d.Groups[0].Joints, frame.Joint{ID: "arm", Walk: &frame.Walk{From: "top", Dir: &measure.Dir{1, 0, 0}, Size: &frame.Dimension{Value: 5, Meaning: frame.Centre}}})
	require.NotNil(t, d.Dimension("/groups/0/joints/2/walk/size"))
	assert.Equal(t, measure.Length(5), d.Dimension("/groups/0/joints/2/walk/size").Value)
	assert.Nil(t, d.Dimension("/groups/0/joints/1/walk/size"))
	assert.Nil(t, d.Dimension("/groups/0/joints/9/walk/size"))
}
