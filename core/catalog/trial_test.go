package catalog_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
)

// A mark at the socket's depth, 0.719, shows 0.108 beyond the rim: 0.611 of
// 0.719 is in, 0.85.
func TestAMarkGivesTheSeat(t *testing.T) {
	c := catalog.Typical()
	s, err := c.Seat(catalog.Trial{Size: "3/4", Gap: in(0.108)})
	require.NoError(t, err)
	assert.InDelta(t, 0.85, s, 0.001)
	s, err = c.Seat(catalog.Trial{Size: "3/4", Mark: in(1.719), Gap: in(1)})
	require.NoError(t, err)
	assert.InDelta(t, 1, s, 0.001, "the second mark, an inch further in")
	for field, bad := range map[string]catalog.Trial{"size": {Size: "5/8"}, "gap": {Size: "3/4", Gap: in(0.8)}, "mark": {Size: "3/4", Mark: in(1)}} {
		_, err := c.Seat(bad)
		var te *catalog.TrialError
		require.ErrorAs(t, err, &te, field)
		assert.Equal(t, field, te.Field)
	}
}

// A piece of 10 bottomed in two elbows is 12.485 over all; with bodies of
// 1.32 the stops are (12.485 − 10 − 1.32)/2 = 0.5825.
func TestABottomedPieceGivesTheStop(t *testing.T) {
	c := catalog.Typical()
	o, err := c.Stop(catalog.Trial{Size: "3/4", Kind: catalog.Elbow90, Cut: in(10), Outside: in(12.485), Ends: 2})
	require.NoError(t, err)
	assert.Equal(t, catalog.Override{Size: "3/4", Kind: catalog.Elbow90, Field: catalog.Stop90, Value: in(0.5825), Note: o.Note}, o)
	mine, err := c.With(o)
	require.NoError(t, err)
	assert.True(t, mine.Figure(catalog.Elbow90, "3/4", catalog.Stop90).Measured)
	assert.Equal(t, in(0.5625), mine.Figure(catalog.Tee, "3/4", catalog.Stop90).Value, "tees stay typical")
	// the same over one end, with the body measured: 11.27 − 10 − 1.37/2
	o, err = c.Stop(catalog.Trial{Size: "3/4", Kind: catalog.Tee, Cut: in(10), Outside: in(11.27), Body: in(1.37), Ends: 1})
	require.NoError(t, err)
	assert.Equal(t, in(0.585), o.Value)
	for field, bad := range map[string]catalog.Trial{
		"size": {Size: "9"}, "kind": {Size: "3/4", Kind: catalog.Coupling}, "ends": {Size: "3/4", Kind: catalog.Tee, Cut: in(10), Outside: in(12)},
		"outside": {Size: "3/4", Kind: catalog.Tee, Cut: in(10), Outside: in(11), Ends: 2},
	} {
		_, err := c.Stop(bad)
		var te *catalog.TrialError
		require.ErrorAs(t, err, &te, field)
		assert.Equal(t, field, te.Field)
	}
}
