package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/measure"
)

// counted gives how many pieces there are of each cut.
func (h *hand) counted() map[string]int {
	all := map[string]int{}
	for _, c := range h.cuts() {
		all[c]++
	}
	return all
}

func (h *hand) kinds() map[catalog.Kind]int {
	all := map[catalog.Kind]int{}
	for _, f := range h.plan().Fittings {
		all[f.Kind] += f.Count
	}
	return all
}

// on goes on from a joint and gives the one that the line ends at.
func (h *hand) on(from, course string) string {
	require.NoError(h.t, h.line(from+": "+course), "%s: %s", from, course)
	return h.last.Joint
}

// A sign on two posts with a bar on top and one near the floor, drawn by lines
// alone: the last bar lands on the joint that is there.
func TestASignStandByLines(t *testing.T) {
	h := draws(
		t,
		"1-1/4",
		"away 16 cut capped",
		"j1: near 16 cut capped",
		"j1: up 3 cut",
		"up 66 cut",
		"right 66 cut",
		"down 66 cut",
		"down 3 cut",
		"j8: away 16 cut capped",
		"j8: near 16 cut capped",
		"j4: right 66 cut",
	)
	assert.Contains(t, h.last.Also, "meets ⟨j7⟩")
	h.sound(t)
	assert.Equal(t, map[string]int{"66": 4, "16": 4, "3": 2}, h.counted())
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 4, catalog.Elbow90: 2, catalog.Cap: 4}, h.kinds())
}

// Three columns of posts 30, 22 and 22 with bars of 42 at each level; the true
// outside is 88 3/8 by 79 3/4.
func TestAWallOfThreeColumnsByLines(t *testing.T) {
	h := draws(t, "1", "away 10 cut")
	for _, side := range []string{"right", "left"} {
		h.on("j2", side+" 10 cut capped")
	}
	near := h.on("j1", "near 10 cut")
	for _, side := range []string{"right", "left"} {
		h.on(near, side+" 10 cut capped")
	}
	column := []string{"j1"}
	for _, up := range []string{"30", "22", "22"} {
		column = append(column, h.on(column[len(column)-1], "up "+up+" cut"))
	}
	for side, inward := range map[string]string{"right": "left", "left": "right"} {
		low := h.on(column[1], side+" 42 cut")
		mid := h.on(column[2], side+" 42 cut")
		top := h.on(column[3], side+" 42 cut")
		assert.Equal(t, mid, h.on(low, "up 22 cut"))
		assert.Equal(t, top, h.on(mid, "up 22 cut"))
		foot := h.on(low, "down 30 cut")
		for _, way := range []string{"away", "near"} {
			h.on(h.on(foot, way+" 10 cut"), inward+" 10 cut capped")
		}
	}
	h.sound(t)
	assert.Equal(t, map[string]int{"30": 3, "22": 6, "42": 6, "10": 14}, h.counted())
	p := h.plan()
	assert.InDelta(t, 88.375, p.Frames[0].Overall[0].Size.Inches(), 0.006)
	assert.InDelta(t, 79.75, p.Frames[0].Overall[2].Size.Inches(), 0.006)
}

// Six upside-down Vs on two rails: tees turned by 45 degrees about their rail.
// The ends are joined by a free piece of 20 1/4.
func TestStallsOfVsByLines(t *testing.T) {
	h := draws(t, "3/4", "away 2 cut")
	rail := []string{"j2"}
	for _, cut := range []string{"2", "10", "2", "10", "2"} {
		rail = append(rail, h.on(rail[len(rail)-1], "away "+cut+" cut"))
	}
	last := h.on(rail[len(rail)-1], "away 2 cut")
	var feet []string
	for _, j := range rail {
		feet = append(feet, h.on(h.on(j, "up right 14 cut"), "down right 14 cut"))
	}
	for i, cut := range []string{"2", "10", "2", "10", "2"} {
		assert.Equal(t, feet[i+1], h.on(feet[i], "away "+cut+" cut"))
	}
	h.lines(fmt.Sprintf("join j1 %s", h.on(feet[0], "near 2 cut")))
	h.lines(fmt.Sprintf("join %s %s", last, h.on(feet[len(feet)-1], "away 2 cut")))
	h.sound(t)
	assert.Equal(t, map[string]int{"2": 10, "10": 4, "14": 12, "20 1/4": 2}, h.counted())
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 12, catalog.Elbow90: 10}, h.kinds())
	p := h.plan()
	assert.InDelta(t, 22.4, p.Totals.Net.Feet(), 0.05)
	for _, pipe := range p.Frames[0].Pipes {
		if pipe.Cut == measure.FromInches(20.25) {
			assert.InDelta(t, 20.265, pipe.Exact.Inches(), 0.001)
		}
	}
	for a, want := range []int{3, 8, 2} {
		at := map[measure.Length]bool{}
		for _, l := range p.Frames[0].Places[0].Planes[a] {
			at[l.At.Round(measure.Inch/1000)] = true
		}
		assert.Len(t, at, want, "no stray place")
	}
}

// A ring of eight sides of two 6s with a tee between, and four spokes to a cross in
// the middle: they follow, at 15 5/16.
func TestARingWithSpokesByLines(t *testing.T) {
	h := draws(t, "1/2", "right 6 cut")
	tee := func(j string) string {
		require.NoError(t, h.do(&edit.Fit{Joint: j, Kind: catalog.Tee}))
		return j
	}
	tees := []string{tee("j2")}
	at := h.on("j2", "right 6 cut")
	for _, way := range []string{"right away", "away", "left away", "left", "left near", "near", "right near"} {
		tees = append(tees, tee(h.on(at, way+" 6 cut")))
		at = h.on(tees[len(tees)-1], way+" 6 cut")
	}
	require.Equal(t, "j1", at, "the ring closes")
	hub := h.on(tees[0], "away to "+tees[2])
	h.on(hub, "right to "+tees[2])
	h.on(hub, "away to "+tees[4])
	h.on(hub, "left to "+tees[6])
	h.sound(t)
	assert.Equal(t, map[string]int{"6": 16, "15 5/16": 4}, h.counted())
	assert.Equal(t, 8, h.kinds()[catalog.Elbow45])
	assert.Equal(t, 1, h.kinds()[catalog.Cross])
}

// A spine on two legs, at each end a nipple to a corner whose arms splay at 45
// degrees: drawn by cuts, and the two rails between the arms follow: 22 1/4.
func TestALowTrestleByLines(t *testing.T) {
	h := draws(t, "3/4", "right 16 cut")
	var ends [2][2]string
	for i, side := range []string{"left", "right"} {
		spine := []string{"j1", "j2"}[i]
		foot := h.on(spine, "down 14 cut")
		h.on(foot, "away 11 cut capped")
		h.on(foot, "near 11 cut capped")
		corner := h.on(spine, side+" 2 cut")
		ends[i] = [2]string{h.on(corner, "away up 6 cut"), h.on(corner, "near up 6 cut")}
	}
	for k := range 2 {
		h.lines(fmt.Sprintf("join %s %s", ends[0][k], ends[1][k]))
	}
	h.sound(t)
	assert.Equal(t, map[string]int{"16": 1, "14": 2, "2": 2, "6": 4, "11": 4, "22 1/4": 2}, h.counted())
	assert.Equal(t, map[catalog.Kind]int{catalog.Tee: 4, catalog.SideOutletElbow: 2, catalog.Elbow90: 4, catalog.Cap: 4}, h.kinds())
}

// A front rail of seven fittings that touch, posts of 4 and 3 on five of them
// under a rail at one level: the two outer posts follow, 8 3/8, and not a round 7.
func TestADeskByLines(t *testing.T) {
	h := draws(t, "1", "right 0 visible x6")
	var tops []string
	for k := 2; k <= 6; k++ {
		tee := h.on(fmt.Sprintf("j%d", k), "up 4 cut")
		tops = append(tops, h.on(tee, "up 3 cut"))
		h.on(tee, "near 4 cut capped")
	}
	left, right := h.on("j1", "up to "+tops[0]), h.on("j7", "up to "+tops[0])
	row := append(append([]string{left}, tops...), right)
	for i := 1; i < len(row); i++ {
		h.lines(fmt.Sprintf("join %s %s", row[i-1], row[i]))
	}
	h.sound(t)
	assert.Equal(t, map[string]int{"1 3/4": 12, "4": 10, "3": 5, "8 3/8": 2}, h.counted())
	for _, p := range h.plan().Frames[0].Pipes[:6] {
		assert.Equal(t, measure.FromInches(3.125), p.Centre)
		assert.True(t, p.Hidden)
	}
}
