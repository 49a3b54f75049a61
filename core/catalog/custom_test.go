package catalog_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

func wye() catalog.Custom {
	return catalog.Custom{ID: "wye", Source: "bought", Size: "1", Ports: []catalog.CustomPort{
		{
			Dir:  measure.Dir{2, 0, 0},
			Stop: in(0.5),
		}, {Dir: measure.Dir{-1, 0, 0}, Stop: in(1.25), Body: in(1.7)}, {Dir: measure.Dir{1, 1, 0}, Stop: in(1.5), Depth: in(1)}}}
}

// What a custom part leaves out is as typical of its size, or as it was
// measured there.
func TestACustomPartIsAFitting(t *testing.T) {
	c, err := catalog.Typical().With(catalog.Override{Size: "1", Field: catalog.SocketDepth, Value: in(0.9)})
	require.NoError(t, err)
	n := c.WithParts([]catalog.Custom{wye()})
	f, ok := n.Fitting("wye", "1")
	require.True(t, ok)
	require.Len(t, f.Ports, 3)
	assert.Equal(t, measure.Dir{1, 0, 0}, f.Ports[0].Dir, "of length one")
	assert.Equal(t, [2]measure.Length{in(0.9), in(1)}, [2]measure.Length{f.Ports[0].Depth, f.Ports[2].Depth})
	assert.Equal(
		t,
		[2]measure.Length{c.Figure("", "1", catalog.BodyDiameter).Value, in(1.7)},
		[2]measure.Length{f.Ports[0].Body, f.Ports[1].Body},
	)
	assert.Equal(t, in(2.5), f.Ports[2].Face())
	assert.Equal(t, []catalog.Kind{"wye"}, n.Customs())
	_, ok = n.Fitting("wye", "3/4")
	assert.False(t, ok, "it has one size")
	_, ok = c.Fitting("wye", "1")
	assert.False(t, ok, "the catalog it was added to is not touched")
	assert.Same(t, c, c.WithParts(nil))
}

func TestPartsThatCannotBe(t *testing.T) {
	for what, change := range map[string]func(c *catalog.Custom){
		"is empty":       func(c *catalog.Custom) { c.ID = " " },
		"the catalog's":  func(c *catalog.Custom) { c.ID = catalog.Tee },
		"unknown pipe":   func(c *catalog.Custom) { c.Size = "5/8" },
		"and this one 1": func(c *catalog.Custom) { c.Ports = c.Ports[:1] },
		"points nowhere": func(c *catalog.Custom) { c.Ports[1].Dir = measure.Dir{} },
		"below zero":     func(c *catalog.Custom) { c.Ports[1].Stop = -1 },
		"over 10 ft":     func(c *catalog.Custom) { c.Ports[1].Depth = 20 * measure.Foot },
		"the same way":   func(c *catalog.Custom) { c.Ports[1].Dir = measure.Dir{1, 0.2, 0} },
	} {
		c := wye()
		change(&c)
		field, got, hint := c.Problem()
		assert.Contains(t, got, what)
		assert.NotEmpty(t, hint)
		assert.Regexp(t, "^/(id|size|ports(/1/(dir|stop))?)$", field, what)
		assert.Empty(t, catalog.Typical().WithParts([]catalog.Custom{c}).Customs(), "it is left out: %s", what)
	}
	good := wye()
	_, what, _ := good.Problem()
	assert.Empty(t, what)
}
