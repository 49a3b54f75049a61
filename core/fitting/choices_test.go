package fitting_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// At the end of a pipe that came up: a coupling goes straight on, an elbow has
// four ways, a 45 four; a tee has its run across (2 ways) or its branch (4
// ways). Where two pipes make a corner, a tee has its third port against
// either of them.
func TestChoicesOfAFitting(t *testing.T) {
	count := func(dirs ...measure.Dir) map[catalog.Kind]int {
		_, r := star(t, nil, dirs)
		n := map[catalog.Kind]int{}
		for _, c := range r.Choices(0, catalog.Typical()) {
			n[c.Kind]++
			_, forced := star(t, &frame.Forced{Kind: c.Kind, Spare: c.Spare}, dirs)
			assert.Empty(t, forced.Findings, "%s %v", c.Kind, c.Spare)
			for _, p := range forced.Joints[0].Ports {
				assert.True(t, p.Known)
			}
		}
		return n
	}
	one := count(down)
	assert.Equal(t, 1, one[catalog.Coupling])
	assert.Equal(t, 4, one[catalog.Elbow90])
	assert.Equal(t, 4, one[catalog.Elbow45])
	assert.Equal(t, 6, one[catalog.Tee])
	assert.Equal(t, 1, one[catalog.SixWay])
	corner := count(right, up)
	assert.Equal(t, 2, corner[catalog.Tee])
	assert.Equal(t, 2, corner[catalog.SideOutletElbow])
	assert.Equal(t, 1, corner[catalog.Cross])
	assert.Zero(t, corner[catalog.Elbow90])
	_, r := star(t, nil, nil)
	assert.Equal(t, []fitting.Choice{}, r.Choices(0, catalog.Typical()))
}
