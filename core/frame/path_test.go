package frame_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/measure"
)

// bowed is a group with a hoop over a rail and a bent handle, used as it is,
// and mirrored across and turned a quarter about the upright.
func bowed() *frametest.Document {
	g := frametest.Definition{ID: "arch", Axes: [3]frametest.AxisStations{stations("l", "r"), stations("y"), stations("low", "high")},
		Joints: []frametest.Joint{
			{ID: "a", At: [3]string{"l", "y", "low"}},
			{ID: "b", At: [3]string{"r", "y", "low"}},
			{ID: "corner", At: [3]string{"l", "y", "high"}},
			{ID: "c", At: [3]string{"r", "y", "high"}},
		},
		Pipes: []frametest.Pipe{
			{ID: "rail", From: "a", To: "b"},
			{
				ID:   "hoop",
				From: "a",
				To:   "b",
				Path: frame.Sprung,
				Spring: &frametest.Spring{
					Size:  &frametest.Dimension{Value: 8 * measure.Inch, Meaning: frame.Centre, Label: "Rise"},
					Leave: [2]measure.Dir{{1, 0, 1}, {}},
				},
			},
			{ID: "handle", From: "a", To: "c", Path: frame.Bent, Via: []string{"corner"}, Radius: 3 * measure.Inch},
		},
		Links: []frame.Link{
			{
				ID:   "tie",
				Kind: frame.Tie,
				On:   []frame.Anchor{{Pipe: "rail", At: measure.Inch}, {Pipe: "hoop", From: "b", At: 2 * measure.Inch}},
			},
		},
	}
	return &frametest.Document{
		Format: frame.Format,
		Units:  measure.Inches,
		Size:   "3/4",
		Mode:   frame.Slip,
		Groups: []frametest.Definition{g},
		Root: frametest.Definition{Axes: [3]frametest.AxisStations{stations("x"), stations("y"), stations("z")}, Uses: []frametest.Use{
			{ID: "plain", Of: "arch", At: [3]string{"x", "y", "z"}},
			{ID: "other", Of: "arch", At: [3]string{"x", "y", "z"}, Mirror: "x", Turns: []frame.Turn{{About: measure.Z, By: 90}}},
		}},
	}
}

func TestBowsTurnWithTheirPart(t *testing.T) {
	g, err := frame.Expand(bowed().Now())
	require.NoError(t, err)
	plain, other := &g.Edges[g.Edge("plain/hoop")], &g.Edges[g.Edge("other/hoop")]
	leave := measure.Dir{1, 0, 1}.Unit()
	assert.InDeltaSlice(t, leave[:], plain.Bow.Leave[0][:], 1e-12)
	assert.Nil(t, plain.Bow.Leave[1], "the other end turns freely")
	assert.Equal(t, measure.Z.Dir(), plain.Bow.Toward, "up where nothing is said")
	// x becomes −x in the mirror, and −x becomes −y by a quarter turn
	turned := measure.Dir{0, -1, 1}.Unit()
	assert.InDeltaSlice(t, turned[:], other.Bow.Leave[0][:], 1e-12)
	handle := &g.Edges[g.Edge("other/handle")]
	require.Len(t, handle.Via, 1)
	assert.Equal(t, "other/corner", g.Nodes[handle.Via[0]].ID)
	assert.Equal(t, 3*measure.Inch, handle.Radius)
}

func TestLinksComeWithEveryUse(t *testing.T) {
	g, err := frame.Expand(bowed().Now())
	require.NoError(t, err)
	require.Len(t, g.Links, 2)
	for i, id := range []string{"plain/tie", "other/tie"} {
		b := &g.Links[i]
		assert.Equal(t, id, b.ID)
		assert.Equal(t, i == 1, b.Mirrored)
		assert.Equal(t, 0, b.On[0].End)
		assert.Equal(t, 1, b.On[1].End, "measured from its second joint")
		assert.Equal(t, strings.Split(id, "/")[0]+"/hoop", g.Edges[b.On[1].Pipe].ID)
	}
}

// What a sprung pipe joins may move apart; a bent one keeps its ends.
func TestRigidLeavesSprungPipesOut(t *testing.T) {
	g, err := frame.Expand(bowed().Now())
	require.NoError(t, err)
	n := g.Node("plain/a")
	assert.Len(t, g.Nodes[n].Pipes, 3)
	r := g.Rigid()
	assert.Len(t, r.Nodes[n].Pipes, 2)
	for _, pe := range r.Nodes[n].Pipes {
		assert.NotEqual(t, frame.Sprung, g.Edges[pe.Pipe].Path)
	}
	assert.Len(t, g.Nodes[n].Pipes, 3, "the graph itself is not touched")
	assert.Len(t, r.Edges, len(g.Edges))
}

func TestADocumentWithBowsAndLinksComesBack(t *testing.T) {
	d := bowed().Now()
	d.Tolerances = []frame.Tolerance{{Pipe: "plain/rail", Class: frame.OnFrame, Measured: measure.Foot}}
	d.ClearanceChecks = []frame.ClearanceCheck{{ID: "door", Kind: frame.Doorway, Size: [3]measure.Length{32 * measure.Inch}}}
	d.CustomFittings = []catalog.Custom{
		{ID: "hub", Size: "3/4", Ports: []catalog.CustomPort{{Dir: measure.Dir{1, 0, 0}}, {Dir: measure.Dir{-1, 0, 0}}}},
	}
	data, err := json.Marshal(d)
	require.NoError(t, err)
	var again frame.Document
	require.NoError(t, json.Unmarshal(data, &again))
	assert.Equal(t, *d, again)
	assert.NotContains(t, string(data), `"leave":[[1,0,1],null]`)
}

// Each change makes the document nonsense in one place, and that is said.
func TestNonsenseOfBowsAndLinksIsRefusedInItsPlace(t *testing.T) {
	spring := func(d *frame.Document) *frame.Pipe { return &d.Groups[0].Pipes[1] }
	bow := func(d *frame.Document) *frame.Size { return &d.Groups[0].Sizes[len(d.Groups[0].Sizes)-1] }
	tie := func(d *frame.Document) *frame.Link { return &d.Groups[0].Links[0] }
	for name, c := range map[string]struct {
		change func(d *frame.Document)
		path   string
	}{
		"unknown path":        {func(d *frame.Document) { spring(d).Path = "wavy" }, "/groups/0/pipes/1/path"},
		"sprung without":      {func(d *frame.Document) { spring(d).Spring = nil }, "/groups/0/pipes/1/spring"},
		"straight with":       {func(d *frame.Document) { spring(d).Path = frame.Straight }, "/groups/0/pipes/1/spring"},
		"no size":             {func(d *frame.Document) { d.DropSize(d.Groups[0].Sizes[len(d.Groups[0].Sizes)-1].ID) }, "/groups/0/pipes/1/spring"},
		"size of nothing":     {func(d *frame.Document) { bow(d).Value = 0 }, "/groups/0/pipes/1/spring"},
		"slot of a bow":       {func(d *frame.Document) { bow(d).Meaning = frame.Slot }, "/groups/0/pipes/1/spring"},
		"bow nowhere":         {func(d *frame.Document) { spring(d).Spring.Bow = &measure.Dir{} }, "/groups/0/pipes/1/spring/bow"},
		"bent without corner": {func(d *frame.Document) { d.Groups[0].Pipes[2].Via = nil }, "/groups/0/pipes/2/via"},
		"bent to no radius":   {func(d *frame.Document) { d.Groups[0].Pipes[2].Radius = 0 }, "/groups/0/pipes/2/radius"},
		"corner nowhere":      {func(d *frame.Document) { d.Groups[0].Pipes[2].Via = []string{"attic"} }, "/groups/0/pipes/2/via/0"},
		"straight with bend":  {func(d *frame.Document) { d.Groups[0].Pipes[0].Radius = measure.Inch }, "/groups/0/pipes/0/via"},
		"unknown link":        {func(d *frame.Document) { tie(d).Kind = "glue" }, "/groups/0/links/0/kind"},
		"a tie on one":        {func(d *frame.Document) { tie(d).On = tie(d).On[:1] }, "/groups/0/links/0/on"},
		"a link nameless":     {func(d *frame.Document) { tie(d).ID = "" }, "/groups/0/links/0/id"},
		"a link on nothing":   {func(d *frame.Document) { tie(d).On[0] = frame.Anchor{} }, "/groups/0/links/0/on/0"},
		"a link on both":      {func(d *frame.Document) { tie(d).On[0].Joint = "a" }, "/groups/0/links/0/on/0"},
		"a link on no pipe":   {func(d *frame.Document) { tie(d).On[0].Pipe = "none" }, "/groups/0/links/0/on/0/pipe"},
		"a link off its end":  {func(d *frame.Document) { tie(d).On[1].From = "c" }, "/groups/0/links/0/on/1/from"},
		"too many turns":      {func(d *frame.Document) { tie(d).Fold = 400 }, "/groups/0/links/0/fold"},
		"below zero":          {func(d *frame.Document) { tie(d).Rod = -1 }, "/groups/0/links/0"},
		"too many":            {func(d *frame.Document) { tie(d).Count = -3 }, "/groups/0/links/0/count"},
		"a class of no pipe":  {func(d *frame.Document) { d.Tolerances = []frame.Tolerance{{Class: frame.Trim}} }, "/tolerances/0/pipe"},
		"a class unknown":     {func(d *frame.Document) { d.Tolerances = []frame.Tolerance{{Pipe: "p", Class: "fine"}} }, "/tolerances/0/class"},
		"measured, not so": {func(d *frame.Document) {
			d.Tolerances = []frame.Tolerance{{Pipe: "p", Class: frame.Trim, Measured: 1}}
		}, "/tolerances/0/measured"},
		"reserve below zero": {func(d *frame.Document) {
			d.Tolerances = []frame.Tolerance{{Pipe: "p", Class: frame.Trim, Extra: -1}}
		}, "/tolerances/0/extra"},
		"a check nameless": {func(d *frame.Document) {
			d.ClearanceChecks = []frame.ClearanceCheck{{Kind: frame.Reach, Size: [3]measure.Length{1}}}
		}, "/clearanceChecks/0/id"},
		"a check unknown": {func(d *frame.Document) { d.ClearanceChecks = []frame.ClearanceCheck{{ID: "x", Kind: "hat"}} }, "/clearanceChecks/0/kind"},
		"a check too small": {func(d *frame.Document) {
			d.ClearanceChecks = []frame.ClearanceCheck{{ID: "x", Kind: frame.Inside, Size: [3]measure.Length{1, 1}}}
		}, "/clearanceChecks/0/size/2"},
		"a part of one port": {func(d *frame.Document) {
			d.CustomFittings = []catalog.Custom{{ID: "hub", Size: "3/4", Ports: make([]catalog.CustomPort, 1)}}
		}, "/customFittings/0/ports"},
	} {
		d := bowed().Now()
		c.change(d)
		_, err := frame.Expand(d)
		var ps frame.Problems
		if assert.ErrorAs(t, err, &ps, name) {
			assert.Equal(t, c.path, ps[0].Path, "%s: %v", name, ps)
			assert.NotEmpty(t, ps[0].Hint, name)
		}
	}
}

func TestWhatIsHeldInReserve(t *testing.T) {
	for want, of := range map[measure.Length]frame.Tolerance{
		0:                {Class: frame.Rough, Extra: measure.Inch},
		measure.Inch / 4: {Class: frame.Trim},
		measure.Inch:     {Class: frame.OnFrame},
		measure.Inch / 2: {Class: frame.OnFrame, Extra: measure.Inch / 2},
	} {
		assert.Equal(t, want, of.Reserve())
	}
	assert.Zero(t, frame.Tolerance{Class: frame.OnFrame, Extra: 5, Measured: measure.Foot}.Reserve(), "once it is measured")
	d := &frame.Document{Tolerances: []frame.Tolerance{{Pipe: "p", Class: frame.Rough}, {Pipe: "p", Class: frame.Trim}}}
	assert.Equal(t, frame.Trim, d.Tolerance("p").Class, "the last that names it")
	assert.Equal(t, frame.Exact, d.Tolerance("q").Class)
}
