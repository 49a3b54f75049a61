package frame_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/measure"
)

func stations(ids ...string) frametest.AxisStations {
	var s frametest.AxisStations
	for i, id := range ids {
		st := frametest.Station{ID: id}
		if i > 0 {
			st.At = &frametest.Dimension{Value: 20 * measure.Inch, Meaning: frame.Centre, From: ids[i-1]}
		}
		s.Stations = append(s.Stations, st)
	}
	return s
}

// post is a group: a capped post on a foot, with a rail joint.
func post() frametest.Definition {
	return frametest.Definition{ID: "post", Axes: [3]frametest.AxisStations{stations("x"), stations("y"), stations("low", "high")},
		Joints: []frametest.Joint{
			{ID: "foot", At: [3]string{"x", "y", "low"}, End: frame.CappedEnd},
			{ID: "head", At: [3]string{"x", "y", "high"}},
		},
		Pipes: []frametest.Pipe{{ID: "leg", From: "foot", To: "head"}}}
}

func fence(count int) *frametest.Document {
	pitch := frametest.Dimension{Value: 46 * measure.Inch, Meaning: frame.Clear, Label: "bay"}
	d := &frametest.Document{
		Format: frame.Format,
		Units:  measure.Inches,
		Size:   "3/4",
		Mode:   frame.Cemented,
		Groups: []frametest.Definition{post()},
		Root: frametest.Definition{Axes: [3]frametest.AxisStations{stations("x0"), stations("y0"), stations("z0")},
			Uses: []frametest.Use{
				{
					ID:    "posts",
					Of:    "post",
					At:    [3]string{"x0", "y0", "z0"},
					Array: &frametest.Array{Count: count, Axis: measure.X, Pitch: &pitch},
				},
			}},
	}
	for k := 2; k <= count; k++ {
		d.Root.Pipes = append(
			d.Root.Pipes,
			frametest.Pipe{ID: fmt.Sprintf("rail %d", k-1), From: fmt.Sprintf("posts#%d/head", k-1), To: fmt.Sprintf("posts#%d/head", k)},
		)
	}
	return d
}

func Example() {
	g, err := frame.Expand(fence(3).Now())
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, e := range g.Edges {
		fmt.Println(e.ID, "from", g.Nodes[e.Ends[0]].ID, "to", g.Nodes[e.Ends[1]].ID)
	}
	// Output:
	// posts#1/leg from posts#1/foot to posts#1/head
	// posts#2/leg from posts#2/foot to posts#2/head
	// posts#3/leg from posts#3/foot to posts#3/head
	// rail 1 from posts#1/head to posts#2/head
	// rail 2 from posts#2/head to posts#3/head
}

// An array grows at its end: what was there keeps its id.
func TestIdsAreNeverRenumbered(t *testing.T) {
	small, err := frame.Expand(fence(2).Now())
	require.NoError(t, err)
	large, err := frame.Expand(fence(5).Now())
	require.NoError(t, err)
	for _, n := range small.Nodes {
		assert.GreaterOrEqual(t, large.Node(n.ID), 0, n.ID)
	}
	for _, e := range small.Edges {
		assert.GreaterOrEqual(t, large.Edge(e.ID), 0, e.ID)
	}
	assert.Equal(t, -1, small.Node("posts#5/head"))
	assert.Equal(t, -1, small.Edge("nothing"))
}

func TestModesComeFromTheNearestSetting(t *testing.T) {
	d := fence(2)
	d.Groups[0].Mode = frame.Slip
	d.Groups[0].Joints[1].Mode, d.Groups[0].Joints[1].Reason = frame.Pinned, "comes apart for the car"
	d.Root.Pipes[0].AtEnd = &[2]frame.Insertion{{Mode: frame.Eased, Reason: "lifts off"}, {}}
	d.Seats = map[frame.Mode]float64{frame.Pinned: 0.9}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	leg, rail := g.Edges[g.Edge("posts#1/leg")], g.Edges[g.Edge("rail 1")]
	assert.Equal(t, frame.EndMode{Mode: frame.Slip, Reason: "default of the group post", Seat: 0.85}, leg.Held[0])
	assert.Equal(t, frame.EndMode{Mode: frame.Pinned, Reason: "comes apart for the car", Seat: 0.9}, leg.Held[1])
	assert.Equal(t, frame.EndMode{Mode: frame.Eased, Reason: "lifts off", Seat: 1}, rail.Held[0])
	assert.Equal(t, frame.Pinned, rail.Held[1].Mode)
}

func TestSizeOfAUseOverridesItsGroup(t *testing.T) {
	d := fence(2)
	d.Groups[0].Size = "1"
	d.Root.Uses[0].Size = "1-1/2"
	d.Groups[0].Pipes[0].Size = ""
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	assert.Equal(t, catalog.Size("1-1/2"), g.Edges[0].Size)
	assert.Equal(t, catalog.Size("3/4"), g.Edges[g.Edge("rail 1")].Size)
}

func TestTurnAndMirror(t *testing.T) {
	d := fence(1)
	d.Root.Uses[0].Array = nil
	d.Root.Uses[0].Turns, d.Root.Uses[0].Mirror = []frame.Turn{{About: measure.Z, By: 90}}, "x"
	d.Groups[0].Joints[1].Fitting = &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{{1, 0, 0}}}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	o := g.Scopes[1].Orient
	assert.Equal(
		t,
		measure.Point{-2, -1, 3},
		o.Point(measure.Point{1, -2, 3}).Add(measure.Point{-4, 0, 0}),
		"x mirrored to -x, then turned to -y; y turned to -x",
	)
	assert.Equal(t, measure.Dir{0, -1, 0}, g.Nodes[g.Node("posts/head")].Fitting.Spare[0], "a spare port turns with its group")
}

func TestMergedJointsAreOne(t *testing.T) {
	d := fence(2)
	d.Root.Pipes = nil
	d.Root.Merges = []frame.Merge{{Keep: "posts#1/foot", Drop: "posts#2/foot"}}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	assert.Len(t, g.Nodes, 3)
	n := g.Nodes[g.Node("posts#1/foot")]
	assert.Len(t, n.Pipes, 2)
	assert.Equal(t, frame.OpenEnd, n.End, "the cap gives way")
}

func TestProblemsSayWhere(t *testing.T) {
	size := func(d *frame.Document) *frame.Size { return &d.Groups[0].Sizes[0] }
	reason := func(r frame.Reason) func(d *frame.Document) {
		return func(d *frame.Document) {
			if r.ID == "" {
				r.ID = "r1"
			}
			d.Groups[0].Reasons = []frame.Reason{r}
		}
	}
	for path, spoil := range map[string]func(d *frame.Document){
		"/format":                        func(d *frame.Document) { d.Format = 9 },
		"/units":                         func(d *frame.Document) { d.Units = "cubits" },
		"/size":                          func(d *frame.Document) { d.Size = "5/8" },
		"/mode":                          func(d *frame.Document) { d.Mode = "taped" },
		"/seats/slip":                    func(d *frame.Document) { d.Seats = map[frame.Mode]float64{frame.Slip: 1.5} },
		"/groups/0/id":                   func(d *frame.Document) { d.Groups[0].ID = "" },
		"/groups/0/joints/0/on/0":        func(d *frame.Document) { d.Groups[0].Joints[0].On[0] = "nowhere" },
		"/groups/0/joints/0/fitting":     func(d *frame.Document) { d.Groups[0].Joints[0].Fitting = &frame.Forced{Kind: "wye"} },
		"/groups/0/joints/0/end":         func(d *frame.Document) { d.Groups[0].Joints[0].Fitting = &frame.Forced{Kind: catalog.Tee} },
		"/groups/0/pipes/0/path":         func(d *frame.Document) { d.Groups[0].Pipes[0].Path = "wavy" },
		"/groups/0/pipes/0/size":         func(d *frame.Document) { d.Groups[0].Pipes[0].Size = "7" },
		"/groups/0/pipes/0/dir":          func(d *frame.Document) { d.Groups[0].Pipes[0].Dir = &measure.Dir{} },
		"/groups/0/pipes/0/to":           func(d *frame.Document) { d.Groups[0].Pipes[0].To = "nowhere" },
		"/groups/0/planes/2/1/id":        func(d *frame.Document) { d.Groups[0].Planes[2][1].ID = "low" },
		"/groups/0/sizes/0/id":           func(d *frame.Document) { size(d).ID = "" },
		"/groups/0/sizes/0/axis":         func(d *frame.Document) { size(d).Axis = "w" },
		"/groups/0/sizes/0/to":           func(d *frame.Document) { size(d).To = "=attic" },
		"/groups/0/sizes/0/from":         func(d *frame.Document) { size(d).Meaning = frame.TopOfPipe },
		"/groups/0/sizes/0/pipe":         func(d *frame.Document) { size(d).Meaning = frame.Cut },
		"/groups/0/sizes/0/meaning":      func(d *frame.Document) { size(d).From, size(d).Meaning = frame.Floor, frame.Clear },
		"/groups/0/sizes/0/value":        func(d *frame.Document) { size(d).Value = 2 * measure.FrameLimit },
		"/groups/0/sizes/0/unit":         func(d *frame.Document) { size(d).Unit = "cubits" },
		"/groups/0/sizes/0/foot":         func(d *frame.Document) { size(d).Foot = "attic" },
		"/groups/0/reasons/0/kind":       reason(frame.Reason{Kind: "because", Of: "foot"}),
		"/groups/0/reasons/0:":           reason(frame.Reason{Kind: frame.Level, Axis: "z", Of: "foot"}),
		"/groups/0/reasons/0/axis":       reason(frame.Reason{Kind: frame.Level, Of: "foot", To: "head"}),
		"/groups/0/reasons/0/of":         reason(frame.Reason{Kind: frame.Level, Axis: "z", Of: "attic", To: "head"}),
		"/groups/0/reasons/0/share":      reason(frame.Reason{Kind: frame.Share, Axis: "z", Of: "head", From: "foot", To: "=high", Share: 1e9}),
		"/groups/0/reasons/0/part":       reason(frame.Reason{Kind: frame.Share, Axis: "z", Of: "head", From: "foot", To: "=high", Parts: 2}),
		"/groups/0/reasons/0/dir":        reason(frame.Reason{Kind: frame.Line, Of: "head", From: "foot"}),
		"/groups/0/reasons/0/likeAxis":   reason(frame.Reason{Kind: frame.EqualTo, Axis: "z", Of: "head", From: "foot", EqualFrom: "foot", EqualTo: "head"}),
		"/root/uses/0/of":                func(d *frame.Document) { d.Root.Uses[0].Of = "castle" },
		"/root/uses/0/mirror":            func(d *frame.Document) { d.Root.Uses[0].Mirror = "w" },
		"/root/uses/0/at/0":              func(d *frame.Document) { d.Root.Uses[0].At[0] = "=nowhere" },
		"/root/uses/0/anchor/0":          func(d *frame.Document) { d.Root.Uses[0].Anchor[0] = "nowhere" },
		"/root/uses/0/turns/0/about":     func(d *frame.Document) { d.Root.Uses[0].Turns = []frame.Turn{{About: 7}} },
		"/root/uses/0/array/count":       func(d *frame.Document) { d.Root.Uses[0].Array.Count = 0 },
		"/root/uses/0/array/axis":        func(d *frame.Document) { d.Root.Uses[0].Array.Axis = 7 },
		"/root/uses/0/array/pitch":       func(d *frame.Document) { d.Root.Uses[0].Array.Pitch = nil },
		"/root/uses/0/array/pitch/value": func(d *frame.Document) { d.Root.Uses[0].Array.Pitch.Value = -1 },
		"/root/uses/0/array/joined/0":    func(d *frame.Document) { d.Root.Uses[0].Array.Joined = [][2]string{{"foot", "attic"}} },
		"/root/merges/0":                 func(d *frame.Document) { d.Root.Merges = []frame.Merge{{Keep: "a", Drop: "b"}} },
		"/stance/turns/0/by":             func(d *frame.Document) { d.Stance = &frame.Stance{Turns: []frame.Turn{{By: 1000}}} },
	} {
		d := fence(2).Now()
		spoil(d)
		_, err := frame.Expand(d)
		var ps frame.Problems
		if assert.ErrorAs(t, err, &ps, path) {
			assert.Contains(t, err.Error(), path)
			for _, p := range ps {
				assert.NotEmpty(t, p.Hint)
			}
		}
	}
}

func TestAGroupMayNotContainItself(t *testing.T) {
	d := fence(1)
	d.Groups[0].Uses = []frametest.Use{{ID: "again", Of: "post", At: [3]string{"x", "y", "low"}}}
	_, err := frame.Expand(d.Now())
	assert.ErrorContains(t, err, "contains itself")
}

func TestNonsensePipes(t *testing.T) {
	d := fence(3)
	d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "twin", From: "posts#1/head", To: "posts#2/head"})
	_, err := frame.Expand(d.Now())
	assert.ErrorContains(t, err, "join the same two joints")
	d = fence(2)
	d.Root.Pipes[0].To = d.Root.Pipes[0].From
	_, err = frame.Expand(d.Now())
	assert.ErrorContains(t, err, "begins and ends")
	d = fence(2)
	d.Root.Pipes[0].From = "posts#1/foot"
	_, err = frame.Expand(d.Now())
	assert.ErrorContains(t, err, "a cap")
	d = fence(2)
	d.Root.Pipes = append(d.Root.Pipes, d.Root.Pipes[0])
	_, err = frame.Expand(d.Now())
	assert.ErrorContains(t, err, "exists twice")
}
