package fitting_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
)

// under is a hoop of 60 with a rise of 20 over something that stands crosswise
// under its middle, so high.
func under(t *testing.T, high float64, linked func(a, b string) bool) []string {
	at := func(x, y, z float64) [3]string { return [3]string{key(x), key(y), key(z)} }
	def := frametest.Definition{}
	for a, all := range [][]float64{{0, 30, 60}, {-8, 0, 8}, {0, high}} {
		for i, v := range all {
			st := frametest.Station{ID: key(v)}
			if i > 0 {
				st.At = &frametest.Dimension{Value: in(v - all[0]), Meaning: frame.Centre, From: key(all[0])}
			}
			def.Axes[a].Stations = append(def.Axes[a].Stations, st)
		}
	}
	def.Joints = []frametest.Joint{
		{ID: "l", At: at(0, 0, 0)},
		{ID: "r", At: at(60, 0, 0)},
		{ID: "near", At: at(30, -8, high)},
		{ID: "far", At: at(30, 8, high)},
	}
	def.Pipes = []frametest.Pipe{
		{
			ID:     "hoop",
			From:   "l",
			To:     "r",
			Path:   frame.Sprung,
			Spring: &frametest.Spring{Size: &frametest.Dimension{Value: in(20), Meaning: frame.Centre}},
		},
		{ID: "bar", From: "near", To: "far"},
	}
	g, err := frame.Expand(frametest.Document{Units: measure.Inches, Size: "3/4", Mode: frame.Slip, Root: def}.Now())
	require.NoError(t, err)
	s := layout.Locate(g, nil, nil)
	var texts []string
	for _, f := range fitting.Resolve(g, catalog.Typical(), s.Tangents).Clearances(s.Points, s.Curves, linked) {
		texts = append(texts, message.Said(f).Text)
	}
	return texts
}

func key(v float64) string { return in(v).Format(measure.Decimal, 0) }

// The straight line between the hoop's feet is where the bar would be in the
// way; the hoop itself passes 20 above.
func TestBodiesAreKeptClearOfTheBowItself(t *testing.T) {
	assert.Empty(t, under(t, 5, nil))
	assert.Empty(t, under(t, 18, nil), "2 below its middle line")
	assert.Equal(t, []string{"⟨bar⟩ and ⟨hoop⟩ want the same place"}, under(t, 19.6, nil))
	assert.Empty(t, under(t, 22, nil), "and over it")
}

func TestWhatALinkJoinsMayTouch(t *testing.T) {
	assert.Empty(t, under(t, 19.6, func(a, b string) bool { return a == "bar" && b == "hoop" || a == "hoop" && b == "bar" }))
	assert.NotEmpty(t, under(t, 19.6, func(a, b string) bool { return false }))
}
