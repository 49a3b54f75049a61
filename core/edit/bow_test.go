package edit_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// tunnel draws five hoops over a spine.
func tunnel(t require.TestingT) *hand {
	h := nothing(t)
	h.doc.Size = "1/2"
	h.walk("", "hoop right 120 rise 24 staked")
	crown := h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}}).Joint
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "hoop", Joints: []string{"j1", "j2", crown}}})
	h.do(edit.Edit{Gesture: &edit.Repeat{Part: "hoop 1", Count: 5, Axis: measure.Y, Pitch: "36"}})
	h.walk("hoop 1#1/"+crown, "away 36 x4")
	return h
}

func TestAHoopTunnelOfFive(t *testing.T) {
	h := tunnel(t)
	assert.LessOrEqual(t, h.n, 25, "actions")
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 2, catalog.Cross: 3}, h.kinds(), "the spine ends in the first and last hoop's tee")
	p := h.plan()
	f := p.Frames[0]
	require.Len(t, f.Pipes, 14)
	assert.Empty(t, h.codes())
	// the bow of a pinned pipe over 120 with a rise of 24: k/(2E − K) = 24/120 gives
	// k = 0.2933 with K = 1.6064 and E = 1.5364; half its length is 24 × K/k / 2 = 65.72
	half := f.Pipes[0]
	assert.InDelta(t, 65.72, half.Centre.Inches(), 0.15, "a straight stub in the cross makes it a hair longer")
	assert.Greater(t, half.Centre.Inches(), math.Hypot(60, 24))
	assert.Less(t, half.Strain, 0.008)
	assert.Greater(t, half.Strain, 0.003)
	assert.Greater(t, len(half.Way), 8)
	assert.Equal(t, half.Shown[0], half.Way[0])
	assert.Equal(t, half.Cut, f.Pipes[1].Cut, "both halves alike")
	assert.InDelta(t, 24.42+0.42, f.Overall[2].Size.Inches(), 0.7, "rise and the cross's body, over the feet")
	assert.Equal(t, frame.StakedEnd, f.Joints[0].End)
}

func TestAHoopOfAStickRisesAsItMust(t *testing.T) {
	h := nothing(t)
	h.walk("", "hoop right 96 of 10 ft")
	p := h.pipe("p1")
	assert.Equal(t, 10*measure.Foot, p.Cut)
	assert.Contains(t, h.codes(), "bent-too-far", "3/4 pipe that steep is over 1.1 %")
	h.do(edit.Edit{Gesture: &edit.Bow{Pipe: "p1", Say: "rise 12 under"}})
	p = h.pipe("p1")
	assert.InDelta(t, 12+1.05/2, h.plan().Frames[0].Sizes[1].Centre.Inches(), 0.001, "under it: half the pipe more to its middle")
	assert.Empty(t, h.codes())
	// held upright in tees it stands fuller, and is cut for the tees
	h.do(edit.Edit{Gesture: &edit.Bow{Pipe: "p1", Say: "rise 60", Leave: [2]string{"up", "up"}}})
	h.walk("j1", "right 96")
	assert.Equal(t, map[catalog.Kind]int{catalog.Elbow90: 2}, h.kinds(), "the ground rail and the hoop meet square")
	q := h.pipe("p1")
	assert.Greater(t, q.Cut, p.Cut)
	assert.Less(t, q.Cut, q.Centre)
	assert.NotContains(t, h.codes(), "loop-residual", "a hoop gives way: it closes no loop")
	h.do(edit.Edit{Gesture: &edit.Bow{Pipe: "p2", Say: ""}})
	assert.Equal(t, frame.Straight, h.pipe("p2").Path)
}

func TestAPipeBentByHeat(t *testing.T) {
	h := nothing(t)
	h.walk("", "bend up 20, right 24, down 20, radius 6")
	p := h.pipe("p1")
	require.Equal(t, frame.Bent, p.Path)
	assert.InDelta(t, 14+12+14+6*math.Pi, p.Centre.Inches(), 0.001, "64 less 2 × 12 at the corners, and two quarter rounds")
	assert.InDelta(
		t,
		20.525,
		h.plan().Frames[0].Overall[2].Size.Inches(),
		0.01,
		"the bow's outer side is half a pipe above the corner line",
	)
	assert.Empty(t, h.codes())
	h.do(edit.Edit{Gesture: &edit.Bay{Axis: measure.X, Plane: h.plane("", measure.X, 1), Length: "30"}})
	assert.InDelta(t, 14+18+14+6*math.Pi, h.pipe("p1").Centre.Inches(), 0.001, "its corners stand on stations")
	h.do(edit.Edit{Gesture: &edit.MakeGroup{Name: "handle", Joints: []string{"j1", "j4"}}})
	require.Len(t, h.plan().Frames[0].Pipes, 1)
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"handle 1/p1"}}})
	assert.Empty(t, h.doc.Groups[0].Joints, "its corners go with it")
}

func TestBowsThatCannotBe(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 60")
	for say, want := range map[string]string{"of 50": "does not reach", "rise up": "", "24": "how far", "of 60 clear": "no length", "": ""} {
		if say == "" {
			continue
		}
		r := h.refused(edit.Edit{Gesture: &edit.Bow{Pipe: "p1", Say: say}})
		assert.Contains(t, r.What, want, say)
	}
	for course, want := range map[string]string{"hoop up": "how far", "hoop right 60": "how far", "hoop right 60 rise": "", "bend up 20, right 20": "no radius", "bend up 20 radius 4": "one leg", "bend up 4, right 4, radius 9": "the leg"} {
		r := h.refused(edit.Edit{Gesture: &edit.Walk{From: "j2", Line: course}})
		assert.Contains(t, r.What, want, course)
	}
	h.refused(edit.Edit{Gesture: &edit.Bow{Pipe: "p1", Say: "rise 20", Toward: "right"}})
	h.do(edit.Edit{Gesture: &edit.Bow{Pipe: "p1", Say: "rise 20"}})
	h.refused(edit.Edit{Gesture: &edit.Split{Pipe: "p1", Length: "10"}})
}

// A hoop and a bent pipe keep what their line says of size and ends, wherever it stands; what they
// cannot have is refused.
func TestACurvedLineKeepsWhatItSays(t *testing.T) {
	for line, size := range map[string]catalog.Size{
		"hoop right 96 size 1 rise 24 staked": "1", "hoop right 96 staked of 10 ft size 1/2": "1/2", "hoop right 96 rise 24": "3/4",
		"bend up 20, right 24 size 1, radius 6": "1", "bend up 20, right 24 staked, radius 6, size 1/2": "1/2",
	} {
		h := nothing(t)
		h.do(edit.Edit{Gesture: &edit.Walk{Line: line, Size: "3/4"}})
		p := h.doc.Root.Pipes[0]
		assert.Equal(t, size, p.Size, line)
		if strings.Contains(line, "staked") {
			assert.Equal(t, frame.StakedEnd, h.doc.Root.Joint(p.To).End, line)
		}
	}
	for line, what := range map[string]string{
		"hoop right 96 times 3 rise 24": "several times", "hoop right 96 size 9 rise 24": "no pipe size",
		"bend up 20 capped, right 24, radius 6": "no end", "bend up 20 x3, right 24, radius 6": "several times",
	} {
		assert.Contains(t, nothing(t).refused(edit.Edit{Gesture: &edit.Walk{Line: line}}).What, what, line)
	}
	assert.Contains(
		t,
		nothing(t).refused(edit.Edit{Gesture: &edit.Custom{Name: "hub", Ports: []string{"left 5/8 size 1"}}}).What,
		"no size",
	)
}
