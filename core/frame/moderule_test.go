package frame_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
)

// held gives the mode at one end of a pipe, from its joint's path.
func held(t *testing.T, g *frame.Graph, pipe, joint string) frame.EndMode {
	e := g.Edge(pipe)
	require.GreaterOrEqual(t, e, 0, pipe)
	for k, n := range g.Edges[e].Ends {
		if g.Nodes[n].ID == joint {
			return g.Edges[e].Held[k]
		}
	}
	require.Fail(t, "the pipe does not end there", "%s at %s", pipe, joint)
	return frame.EndMode{}
}

func TestTheLastHoldThatCountsWins(t *testing.T) {
	for _, tc := range []struct {
		what  string
		holds []frame.ModeRule
		leg1  frame.Mode // posts#1/leg at its head
		leg2  frame.Mode // posts#2/leg at its head
		rail  frame.Mode // rail 1 at posts#1/head
	}{
		{"none", nil, "cemented", "cemented", "cemented"},
		{"all", []frame.ModeRule{{Mode: frame.Slip}}, "slip", "slip", "slip"},
		{"one joint", []frame.ModeRule{{Joint: "posts#1/head", Mode: frame.Eased}}, "eased", "cemented", "eased"},
		{"one end", []frame.ModeRule{{Joint: "posts#1/head", Pipe: "posts#1/leg", Mode: frame.Pinned}}, "pinned", "cemented", "cemented"},
		{"one use", []frame.ModeRule{{Use: "posts#2", Mode: frame.Slip}}, "cemented", "slip", "cemented"},
		{"all uses of an array", []frame.ModeRule{{Use: "posts", Mode: frame.Slip}}, "slip", "slip", "slip"},
		{"a group", []frame.ModeRule{{Group: "post", Mode: frame.Slip}}, "slip", "slip", "slip"},
		{"a kind", []frame.ModeRule{{Kind: catalog.Elbow90, Mode: frame.Slip}}, "slip", "slip", "slip"},
		{"another kind", []frame.ModeRule{{Kind: catalog.Cross, Mode: frame.Slip}}, "cemented", "cemented", "cemented"},
		{"a wide one after a narrow one", []frame.ModeRule{{Joint: "posts#1/head", Mode: frame.Slip}, {Mode: frame.Cemented}}, "cemented", "cemented", "cemented"},
		{"a narrow one after a wide one", []frame.ModeRule{{Mode: frame.Slip}, {Joint: "posts#1/head", Mode: frame.Cemented}}, "cemented", "slip", "cemented"},
		{"a kind after a joint", []frame.ModeRule{{Joint: "posts#1/head", Mode: frame.Pinned}, {Kind: catalog.Elbow90, Mode: frame.Slip}}, "slip", "slip", "slip"},
		{"what is not there", []frame.ModeRule{{Joint: "posts#9/head", Mode: frame.Slip}, {Use: "gate", Mode: frame.Slip}, {Group: "gate", Mode: frame.Slip}}, "cemented", "cemented", "cemented"},
	} {
		d := fence(2)
		d.Holds = tc.holds
		g, err := frame.Expand(d.Now())
		require.NoError(t, err, tc.what)
		g.ApplyModeRules(func(int) catalog.Kind { return catalog.Elbow90 })
		assert.Equal(t, tc.leg1, held(t, g, "posts#1/leg", "posts#1/head").Mode, tc.what)
		assert.Equal(t, tc.leg2, held(t, g, "posts#2/leg", "posts#2/head").Mode, tc.what)
		assert.Equal(t, tc.rail, held(t, g, "rail 1", "posts#1/head").Mode, tc.what)
		assert.False(t, g.ApplyModeRules(func(int) catalog.Kind { return catalog.Elbow90 }), "%s: nothing changes a second time", tc.what)
	}
}

func TestAHoldSaysWhyAndHowDeep(t *testing.T) {
	d := fence(2)
	d.Holds = []frame.ModeRule{
		{Group: "post", Mode: frame.Slip},
		{Joint: "posts#1/head", Mode: frame.Slip, Reason: "comes apart for the car"},
	}
	d.Seats = map[frame.Mode]float64{frame.Slip: 0.8}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	assert.Equal(
		t,
		frame.EndMode{Mode: frame.Slip, Reason: "comes apart for the car", Seat: 0.8},
		held(t, g, "posts#1/leg", "posts#1/head"),
	)
	assert.Equal(t, "set for every post", held(t, g, "posts#2/leg", "posts#2/foot").Reason)
}

func TestHoldsThatMakeNoSense(t *testing.T) {
	d := fence(2)
	d.Holds = []frame.ModeRule{{Mode: "tape"}, {Mode: frame.Slip, Joint: "a", Kind: catalog.Tee}, {Mode: frame.Slip, Pipe: "leg"}}
	_, err := frame.Expand(d.Now())
	var ps frame.Problems
	require.ErrorAs(t, err, &ps)
	var paths []string
	for _, p := range ps {
		paths = append(paths, p.Path)
	}
	assert.Equal(t, []string{"/modeRules/0/mode", "/modeRules/1", "/modeRules/2/pipe"}, paths)
}
