package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
)

// arch is a hoop over 60 between two joints, with a rail along the ground
// where rail says so, and posts below them where posts does.
func arch(s frametest.Spring, rail, posts bool) *frametest.Document {
	d := walks(map[string]frametest.Walk{"b": {From: "o", Dir: &measure.Dir{1, 0, 0}, Size: by(frame.Centre, 60, "")}}, "b")
	if !rail {
		d.Root.Pipes = nil
	}
	d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "hoop", From: "o", To: "b", Path: frame.Sprung, Spring: &s})
	if posts {
		for _, from := range []string{"o", "b"} {
			d.Root.Joints = append(
				d.Root.Joints,
				frametest.Joint{
					ID:   "under " + from,
					Walk: &frametest.Walk{From: from, Dir: &measure.Dir{0, 0, -1}, Size: by(frame.Centre, 10, "")},
				},
			)
			d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "post " + from, From: from, To: "under " + from})
		}
	}
	return d
}

var upright = [2]measure.Dir{{0, 0, 1}, {0, 0, 1}}

func sizeOf(t *testing.T, s *layout.Solution, meaning frame.Meaning) layout.Size {
	for _, z := range s.Sizes {
		if z.Is == meaning && z.Axis == layout.Sloped {
			return z
		}
	}
	require.Fail(t, "no such size")
	return layout.Size{}
}

// A rise is that of the middle line, over it half a pipe more, under it half a
// pipe less; the bow is the same.
func TestARiseHasAMeaning(t *testing.T) {
	for m, value := range map[frame.Meaning]float64{frame.Centre: 12, frame.Outside: 12.525, frame.Clear: 11.475} {
		g, s, _ := settled(t, arch(frametest.Spring{Size: by(m, value, "")}, false, false))
		c := s.Curves[g.Edge("hoop")]
		require.NotNil(t, c, m)
		assert.InDelta(t, 12, c.Rise.Inches(), 0.01, m)
		z := sizeOf(t, s, m)
		assert.Equal(t, in(12), z.Centre)
		assert.Equal(t, z.Centre, z.Sum.Total())
		require.Len(t, z.Ends, 2, "drawn from the line between its ends to its top")
		assert.InDelta(t, 12, z.Ends[0].Distance(z.Ends[1]).Inches(), 0.01)
		assert.InDelta(t, 30, z.Ends[1][0].Inches(), 0.01)
	}
}

// A stick of 80 cut length in two elbows: each takes 0.5625 from the centre,
// so along the bow it is 81.125 from centre to centre, and it leaves both
// sockets straight for 0.5625 + 0.719.
func TestAHoopByItsCutLength(t *testing.T) {
	g, s, f := settled(t, arch(frametest.Spring{Size: by(frame.Cut, 80, ""), Leave: upright}, true, false))
	e := g.Edge("hoop")
	assert.InDelta(t, 81.125, s.Lengths[e].Inches(), 1e-6)
	c := s.Curves[e]
	require.NotNil(t, c)
	face := f.Face(frame.PipeEnd{Pipe: e, End: 0})
	assert.Equal(t, in(0.5625+0.719), face)
	assert.Equal(t, measure.Point{0, 0, face}, c.Points[1], "straight up to the rim")
	assert.Equal(t, measure.Dir{0, 0, 1}, s.Tangents[e][0])
	z := sizeOf(t, s, frame.Cut)
	assert.Equal(t, in(80), z.Value)
	assert.InDelta(t, 81.125, z.Centre.Inches(), 1e-6)
}

// What hangs below its ends is what the frame stands on.
func TestABowDownwardIsTheFloor(t *testing.T) {
	down := &measure.Dir{0, 0, -1}
	_, s, _ := settled(t, arch(frametest.Spring{Size: by(frame.Centre, 9, ""), Bow: down}, false, false))
	assert.InDelta(t, -9.525, s.Floor.Inches(), 0.01, "half a pipe below its middle line")
	_, s, _ = settled(t, arch(frametest.Spring{Size: by(frame.Centre, 9, "")}, false, true))
	assert.InDelta(t, -10, s.Floor.Inches(), 0.01, "bowed up, the posts stand")
}

// A bow that no pipe takes is said, and planned as if it were straight.
func TestABowThatCannotBeIsAFinding(t *testing.T) {
	g, s, _ := settled(t, arch(frametest.Spring{Size: by(frame.Cut, 40, "")}, false, false))
	require.Len(t, s.Findings, 1)
	f := s.Findings[0]
	assert.Equal(t, "no-curve", f.Code)
	assert.Equal(t, finding.Stop, f.Severity)
	assert.Equal(t, "hoop", f.Subject())
	assert.Contains(t, message.Said(f).Text, "does not reach")
	assert.Nil(t, s.Curves[g.Edge("hoop")])
	assert.Equal(t, in(60), s.Lengths[g.Edge("hoop")])
}

// A bent pipe follows its corners when they move, and a radius that its legs
// have no room for is said with what they have.
func TestABendFollowsItsCorners(t *testing.T) {
	bend := func(radius float64) *frametest.Document {
		d := walks(map[string]frametest.Walk{
			"corner": {From: "o", Dir: &measure.Dir{0, 0, 1}, Size: by(frame.Centre, 20, "")},
			"end":    {From: "corner", Dir: &measure.Dir{1, 0, 0}, Size: by(frame.Centre, 30, "")},
		}, "corner", "end")
		d.Root.Pipes = []frametest.Pipe{{ID: "bent", From: "o", To: "end", Path: frame.Bent, Via: []string{"corner"}, Radius: in(radius)}}
		return d
	}
	d := bend(5)
	g, s, _ := settled(t, d)
	// 20 − 5 + 30 − 5 + a quarter round of 5
	assert.InDelta(t, 40+5*1.5707963, s.Lengths[g.Edge("bent")].Inches(), 1e-5)
	assert.Equal(t, [2]measure.Dir{{0, 0, 1}, {-1, 0, 0}}, s.Tangents[g.Edge("bent")])
	d.Root.Joints[1].Walk.Size.Value = in(24)
	g, s, _ = settled(t, d)
	assert.InDelta(t, 44+5*1.5707963, s.Lengths[g.Edge("bent")].Inches(), 1e-5)
	_, s, _ = settled(t, bend(25))
	require.Len(t, s.Findings, 1)
	assert.Contains(t, message.Said(s.Findings[0]).Text, "the leg at bend 1 is 20")
}
