package level_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/level"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
)

// two are two uprights on a rail, with an arm across each at its own height.
func two(high string) string {
	return `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[0,0,20],"d":[40,0,` + high + `],"e":[0,10,20],"f":[40,10,` + high + `]},` +
		`"pipes":[["a","b"],["a","c"],["b","d"],["c","e"],["d","f"]]}`
}

// fromBelow measures the last level from the lowest, and not from the one an eighth below it.
func fromBelow(d *frame.Document) {
	z := &d.Root.Sizes[len(d.Root.Sizes)-1]
	z.From, z.Value = frame.OnPlane("z0"), 20*measure.Inch+measure.Inch/8
}

func TestLevelsThatAreNearlyOne(t *testing.T) {
	assert.Empty(t, level.Judge(modeltest.Built(t, two("20"), nil)))
	assert.Empty(t, level.Judge(modeltest.Built(t, two("20.02"), nil)), "nobody cuts a fiftieth of an inch")
	assert.Empty(t, level.Judge(modeltest.Built(t, two("21"), nil)), "an inch is more than half of a fitting")

	found := level.Judge(modeltest.Built(t, two("20.125"), fromBelow))
	require.Len(t, found, 1)
	assert.Equal(t, "levels-apart", found[0].Code)
	assert.Equal(t, finding.Warn, found[0].Severity)
	assert.Equal(t, finding.All(finding.Joint, "c", "d"), found[0].Subjects)
	assert.InDelta(t, float64(measure.Inch/8), found[0].Figures[0].Value, 1)
	require.Len(t, found[0].Fixes, 1)

	assert.Empty(t, level.Judge(modeltest.Built(t, two("20.125"), nil)), "somebody typed the eighth")
}

// A rail from one upright to another that is longer by an eighth.
func TestARailThatRunsOutOfLevel(t *testing.T) {
	const sloped = `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[0,0,20],"d":[40,0,20.125]},"pipes":[["a","b"],["a","c"],["b","d"],["c","d"]]}`
	found := level.Judge(modeltest.Built(t, sloped, func(d *frame.Document) {
		d.Root.Pipes[3].Dir = nil
	}))
	require.Len(t, found, 1)
	assert.Equal(t, "nearly-level", found[0].Code)
	assert.Equal(t, []finding.Subject{{Kind: finding.Pipe, ID: found[0].Subjects[0].ID}}, found[0].Subjects)
}
