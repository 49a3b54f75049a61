package envelope_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/envelope"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
)

const inch = measure.Inch

func checked(t *testing.T, folded []envelope.Folded, all ...frame.ClearanceCheck) ([]envelope.CheckedClearance, int) {
	b := modeltest.Built(t, modeltest.Square, func(d *frame.Document) { d.ClearanceChecks = all })
	out, found := envelope.Judge(b, folded)
	require.Len(t, out, len(all))
	for _, f := range found {
		assert.Equal(t, "envelope", f.Code)
	}
	return out, len(found)
}

// 1.32 by 31.32 go through a door of 32 by 80 edgewise; the 41.32 are the way in.
func TestThroughADoorEdgewise(t *testing.T) {
	all, found := checked(t, nil, frame.ClearanceCheck{ID: "door", Kind: frame.Doorway, Size: [3]measure.Length{32 * inch}})
	assert.Zero(t, found)
	assert.True(t, all[0].Fits)
	assert.Equal(t, []measure.Length{30*inch + inch*68/100, 48*inch + inch*68/100}, all[0].Slack)
}

// A box takes the frame turned by quarters, and says by how much it does not.
func TestABoxAnyWayRound(t *testing.T) {
	box := func(id string, w, d, h measure.Length) frame.ClearanceCheck {
		return frame.ClearanceCheck{ID: id, Kind: frame.Inside, Size: [3]measure.Length{w, d, h}}
	}
	all, found := checked(t, nil, box("car", 2*inch, 32*inch, 42*inch), box("crate", 42*inch, 2*inch, 31*inch))
	assert.Equal(t, 1, found, "the crate")
	assert.True(t, all[0].Fits)
	assert.Equal(t, `goes in, 11/16" to spare`, all[0].Words)
	assert.False(t, all[1].Fits)
	assert.Equal(t, -inch*32/100, all[1].Slack[2])
	assert.Equal(t, `too large by 5/16"`, all[1].Words)
}

// Folded, a frame may go where it does not as it stands.
func TestFoldedItGoesIn(t *testing.T) {
	folded := []envelope.Folded{{Link: "hinge 1", Size: [3]measure.Length{21 * inch, 3 * inch, 31 * inch}}}
	all, found := checked(t, folded,
		frame.ClearanceCheck{ID: "car", Kind: frame.Inside, Size: [3]measure.Length{24 * inch, 4 * inch, 32 * inch}})
	assert.Zero(t, found)
	assert.Equal(t, `goes in folded at hinge 1, 1" to spare`, all[0].Words)
}
