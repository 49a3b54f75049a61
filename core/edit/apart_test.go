package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/measure"
)

// A box of corners of three: each becomes an elbow and a tee, whose uprights stand the least centre
// distance further in. What was typed across the corners stays.
func TestACornerOfThreeBecomesTwoFittings(t *testing.T) {
	h := nothing(t)
	h.begin()
	h.walk("j1", "right 40 outside")
	h.walk("j2", "away 30 outside")
	h.walk("j3", "left 40 outside")
	h.do(edit.Edit{Gesture: &edit.Join{From: "j4", To: "j1"}})
	for _, j := range []string{"j1", "j2", "j3", "j4"} {
		h.walk(j, "up 20")
	}
	before := h.plan().Frames[0]
	h.do(edit.Edit{Gesture: &edit.Apart{Joint: "j1", More: []string{"j2", "j3", "j4"}, Along: measure.X, Move: measure.Z}})
	p := h.plan()
	kinds := map[catalog.Kind]int{}
	for _, f := range p.Fittings {
		kinds[f.Kind] += f.Count
	}
	assert.Equal(t, 4, kinds[catalog.Elbow90])
	assert.Equal(t, 4, kinds[catalog.Tee])
	assert.Zero(t, kinds[catalog.SideOutletElbow])
	f := p.Frames[0]
	assert.Equal(t, before.Overall[0].Size, f.Overall[0].Size)
	assert.Equal(t, before.Overall[1].Size, f.Overall[1].Size)
	nipples := 0
	for _, x := range f.Pipes {
		if x.Hidden {
			nipples++
			assert.Equal(t, x.Takes, x.Exact, "the fittings touch")
		}
	}
	assert.Equal(t, 4, nipples)
	for _, x := range p.Findings {
		assert.NotContains(t, []string{"sizes-contradict", "no-fitting", "too-short"}, x.Code, x.Text)
	}
}

func TestWhatCannotBeTwoFittings(t *testing.T) {
	h := nothing(t)
	h.begin()
	h.walk("j1", "right 40")
	h.walk("j2", "up 20")
	for _, w := range []edit.Apart{
		{Joint: "j2", Along: measure.X, Move: measure.X},
		{Joint: "j2", Along: measure.X, Move: measure.Z},
		{Joint: "nowhere", Along: measure.X, Move: measure.Z},
	} {
		assert.NotEmpty(t, h.refused(edit.Edit{Gesture: &w}).Hint)
	}
}
