package fitting_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// A tee with a plugged spare, one with a declared one, one of which nothing is
// said; four ends, each with something else at it.
func TestEveryPortIsAccountedFor(t *testing.T) {
	_, r := star(t, &frame.Forced{Kind: catalog.Cross, Spare: []measure.Dir{up}, Plugged: true}, []measure.Dir{right, left, down})
	a := r.Audit()
	assert.Equal(t, 4, a.Sockets)
	assert.Equal(t, 3, a.Filled)
	assert.Equal(t, 1, a.Plugged)
	assert.Len(t, a.Bare, 3)
	_, r = star(t, &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{up}, Declared: true}, []measure.Dir{right, left})
	assert.Equal(t, 1, r.Audit().Declared)
	_, r = star(t, &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{up}}, []measure.Dir{right, left})
	assert.Equal(t, []fitting.OpenPort{{Joint: "o", Port: 2}}, r.Audit().Open)

	d := &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	for a := range 3 {
		d.Root.Axes[a].Stations = []frametest.Station{{ID: "s"}}
	}
	for i, e := range frame.Ends() {
		from, to := string(rune('a'+i)), string(rune('A'+i))
		d.Root.Joints = append(
			d.Root.Joints,
			frametest.Joint{ID: from, At: [3]string{"s", "s", "s"}, End: e},
			frametest.Joint{
				ID:   to,
				Walk: &frametest.Walk{From: from, Dir: &up, Size: &frametest.Dimension{Value: in(9), Meaning: frame.Centre}},
				End:  frame.CappedEnd,
			},
		)
		d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: from, From: from, To: to})
	}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	got := fitting.Resolve(g, catalog.Typical(), layout.Locate(g, nil, nil).Tangents).Audit()
	assert.Equal(t, fitting.Audit{Open: []fitting.OpenPort{}, Ends: 8, Capped: 5, Free: 1, Staked: 1, Bare: []string{"a"}}, got)
}

// Whatever meets, every end and every socket is in just one of the columns.
func TestTheAuditAddsUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		dirs := rapid.SliceOfNDistinct(rapid.SampledFrom([]measure.Dir{right, left, up, down, near, away, {1, 1, 0}}), 1, 6, rapid.ID).
			Draw(t, "dirs")
		var force *frame.Forced
		if rapid.Bool().Draw(t, "forced") {
			force = &frame.Forced{
				Kind:     rapid.SampledFrom(catalog.JointKinds()).Draw(t, "kind"),
				Plugged:  rapid.Bool().Draw(t, "plugged"),
				Declared: rapid.Bool().Draw(t, "declared"),
			}
		}
		j, r := star(t, force, dirs)
		a := r.Audit()
		require.Equal(t, a.Sockets, a.Filled+a.Plugged+a.Declared+len(a.Open))
		unjoined := 0 // a joint without a fitting is named once, whatever meets there
		if j.Assumed {
			unjoined = len(dirs) - 1
		}
		require.Equal(t, a.Ends, a.Seated+a.Capped+a.Free+a.Staked+len(a.Bare)+unjoined)
	})
}
