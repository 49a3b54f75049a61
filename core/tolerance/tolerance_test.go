package tolerance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/tolerance"
)

func TestNothingGivenNothingToCheck(t *testing.T) {
	c, found := tolerance.Check(modeltest.Built(t, modeltest.Square, nil), nil)
	assert.Nil(t, c)
	assert.Empty(t, found)
}

// One rail an eighth short: the loop is open by an eighth, and a mend closes it. A name
// that the frame does not have is told.
func TestAShortRailLeavesTheLoopOpen(t *testing.T) {
	b := modeltest.Built(t, modeltest.Square, nil)
	rail := &b.Pipes[0]
	c, found := tolerance.Check(b, map[string]measure.Length{rail.Pipe: rail.Cut - measure.Inch/8, "nobody": measure.Inch})
	require.NotNil(t, c)
	require.Len(t, c.Loops, 1)
	assert.InDelta(t, float64(measure.Inch/8), float64(c.Loops[0].Off), 2)
	assert.False(t, c.Loops[0].Hair)
	assert.Equal(t, []string{"nobody"}, c.Unknown)
	require.NotEmpty(t, found)
	assert.Equal(t, "list-open", found[0].Code)
	assert.NotEmpty(t, c.Mends)
	require.Len(t, c.Seated, 3)
	for _, s := range c.Seated {
		assert.Equal(t, s.Gap <= measure.Inch/16, s.Meets, s.State)
	}
	assert.False(t, c.Seated[len(c.Seated)-1].Meets, "an eighth is more than joints take up")
}

// The plan's own cuts close.
func TestThePlansCutsClose(t *testing.T) {
	b := modeltest.Built(t, modeltest.Square, nil)
	own := map[string]measure.Length{}
	for i := range b.Pipes {
		own[b.Pipes[i].Pipe] = b.Pipes[i].Cut
	}
	c, found := tolerance.Check(b, own)
	require.NotNil(t, c)
	assert.Empty(t, found)
	for _, s := range c.Seated {
		assert.True(t, s.Meets, s.State)
	}
}
