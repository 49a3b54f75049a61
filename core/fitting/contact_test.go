package fitting_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/wireframe"
)

func contacts(t *testing.T, file string) (map[string][]fitting.Contact, measure.Length) {
	doc, err := wireframe.Read([]byte(file))
	require.NoError(t, err)
	g, err := frame.Expand(doc)
	require.NoError(t, err)
	var r *fitting.Result
	s := layout.Locate(g, nil, nil)
	for range 3 {
		r = fitting.Resolve(g, catalog.Typical(), s.Tangents)
		s = layout.Locate(g, r, s)
	}
	by := map[string][]fitting.Contact{}
	for _, c := range r.Contacts(s.Points, s.Floor) {
		by[c.Joint] = append(by[c.Joint], c)
	}
	return by, s.Floor
}

// A foot of 3/4 pipe along y with a post of 1 pipe on it: the tee is a 1 tee
// with bushings, its body of 1.62 stands on the floor, and the caps of the
// foot, of 1.32, hover (1.62 − 1.32) / 2 = 0.15 above it.
func TestUnlikeSizesInABaseHover(t *testing.T) {
	by, floor := contacts(t, `{"wireframe":1,"joints":{"f":[0,-12,0],"o":[0,0,0],"b":[0,12,0],"t":[0,0,30]},
		"pipes":[["f","o"],["o","b"],{"from":"o","to":"t","size":"1"}],"ends":{"f":"cap","b":"cap"}}`)
	assert.Equal(t, in(-0.81), floor)
	require.NotEmpty(t, by["o"])
	for _, c := range by["o"] {
		assert.Zero(t, c.Gap)
		assert.Equal(t, floor, c.At[2])
	}
	for _, id := range []string{"f", "b"} {
		require.Len(t, by[id], 1, "%s hovers: its lowest point alone", id)
		assert.InDelta(t, 0.15, by[id][0].Gap.Inches(), 1e-6)
	}
	assert.Empty(t, by["t"], "what is high up is no contact")
}

// A leg stands on its cap's flat end: the contact is the middle of it.
func TestALegStandsOnItsCap(t *testing.T) {
	by, floor := contacts(
		t,
		`{"wireframe":1,"joints":{"toe":[3,4,0],"top":[3,4,20],"far":[20,4,20]},"pipes":[["toe","top"],["top","far"]],"ends":{"toe":"cap"}}`,
	)
	require.Len(t, by["toe"], 1)
	assert.Equal(t, measure.Point{3 * measure.Inch, 4 * measure.Inch, floor}, by["toe"][0].At)
	assert.InDelta(t, -0.20, floor.Inches(), 1e-9, "the cap's end is 0.20 thick")
}
