package plan_test

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/wireframe"
)

// two plans two of a frame, cut with a saw.
func two(t *testing.T, doc *frame.Document) *plan.Plan {
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *doc, Copies: 2}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	return p
}

// A rail of 150 in is no stick on sale holds it of 10 ft: it stays in the footage and among the
// pieces, and is still to be bought, said as such; the rest is bought as ever.
func TestAPieceLongerThanAnyStick(t *testing.T) {
	doc, err := wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[150,0,0],"c":[150,0,30]},"pipes":[["a","b"],["b","c"]]}`))
	require.NoError(t, err)
	p := two(t, doc)
	var net measure.Length
	for _, c := range p.Cuts {
		net += c.Cut * measure.Length(c.Count)
	}
	assert.InDelta(t, 29.8125, net.Feet(), 1e-9, "two of 149 7/16 in and two of 29 7/16")
	assert.Equal(t, net, p.Totals.Net)
	assert.Equal(t, 4, p.Totals.Pieces)
	total := p.Pipe[0]
	assert.Equal(t, []string{"A"}, total.TooLong)
	assert.Equal(t, net, total.Net)
	assert.Equal(t, 4, total.Pieces)
	require.Len(t, p.Materials, 3+len(p.Joinery.Cement.Cans)+len(p.Joinery.Primer.Cans), "sticks, what no stick gives, elbows")
	long := p.Materials[1]
	assert.Equal(t, material.Piece, long.Unit)
	assert.Equal(t, 2, long.Quantity)
	assert.Equal(t, p.Cuts[0].Cut, long.Length)
	assert.Contains(t, long.Rule, "no stick on sale holds it")
	assert.Len(t, long.Where, 1, "the pipe of the frame that it is")
	assert.True(t, strings.Contains(strings.Join(p.Bill.Unpriced, "\n"), "in one piece: no stick holds it"), p.Bill.Unpriced)
}

// Hardware is lines of the bill of materials: what, how large, how many for all copies, for
// what, and by which rule. What is alike is one line.
func TestHardwareIsData(t *testing.T) {
	doc, err := wireframe.Read(
		[]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[0,0,40],"c":[0,1.05,0],"d":[0,1.05,40]},"pipes":[["a","b"],["c","d"]]}`),
	)
	require.NoError(t, err)
	on := func(at float64) []frame.Anchor {
		return []frame.Anchor{
			{Pipe: doc.Root.Pipes[0].ID, At: measure.FromInches(at)},
			{Pipe: doc.Root.Pipes[1].ID, At: measure.FromInches(at)},
		}
	}
	doc.Root.Links = []frame.Link{
		{ID: "bolt", Kind: frame.Pivot, On: on(20), Rod: measure.Inch / 4},
		{ID: "tie", Kind: frame.Tie, On: on(5), Count: 3},
		{ID: "other tie", Kind: frame.Tie, On: on(35), Count: 3},
	}
	p := two(t, doc)
	lines := map[string]material.Line{}
	for _, l := range p.Materials {
		if l.Ware == material.Hardware {
			lines[l.Kind] = l
		}
	}
	require.Len(t, lines, 4)
	// two pipes of 1.05, two washers of 1/16, a nut of 7/32 and two threads of 1/8
	assert.Equal(
		t,
		(measure.FromInches(2.1+0.125+0.21875+0.125)+measure.Inch/16-1)/(measure.Inch/16)*(measure.Inch/16),
		lines["bolt"].Length,
	)
	assert.Equal(t, measure.Inch/4, lines["bolt"].Diameter)
	assert.Equal(t, 2, lines["bolt"].Quantity)
	assert.Equal(t, 4, lines["washer"].Quantity)
	assert.Equal(t, 12, lines["cable tie"].Quantity, "three at two places in two copies")
	assert.Equal(t, []material.Place{{Kind: "link", ID: "tie"}, {Kind: "link", ID: "other tie"}}, lines["cable tie"].Where)
	for _, l := range lines {
		assert.NotEmpty(t, l.Rule, l.Kind)
	}
}
