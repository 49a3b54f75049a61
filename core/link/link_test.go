package link_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// upright is a document of posts 30 high, so far from the first in depth, each
// a part of its own, with links on them.
func upright(links []frame.Link, away ...float64) *frametest.Document {
	d := &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Slip}
	def := &d.Root
	def.Axes[0].Stations = []frametest.Station{{ID: "x"}}
	def.Axes[2].Stations = []frametest.Station{
		{ID: "low"},
		{ID: "high", At: &frametest.Dimension{Value: 30 * measure.Inch, Meaning: frame.Centre, From: "low"}},
	}
	for i, y := range away {
		st := frametest.Station{ID: fmt.Sprint("y", i)}
		if i > 0 {
			st.At = &frametest.Dimension{Value: measure.FromInches(y), Meaning: frame.Centre, From: "y0"}
		}
		def.Axes[1].Stations = append(def.Axes[1].Stations, st)
		for _, z := range []string{"low", "high"} {
			def.Joints = append(def.Joints, frametest.Joint{ID: fmt.Sprint(z, i), At: [3]string{"x", st.ID, z}, End: frame.FreeEnd})
		}
		def.Pipes = append(def.Pipes, frametest.Pipe{ID: fmt.Sprint("post", i), From: fmt.Sprint("low", i), To: fmt.Sprint("high", i)})
	}
	def.Links = links
	return d
}

func judge(d *frametest.Document) ([]link.Report, []string, error) {
	b, err := model.Build(context.Background(), d.Now(), catalog.Typical(), measure.Inch/16, 0)
	if err != nil {
		return nil, nil, err
	}
	all, fs := link.Judge(b)
	var codes []string
	for _, f := range fs {
		codes = append(codes, f.Code)
	}
	return all, codes, nil
}

func on(pipe int, at float64) frame.Anchor {
	return frame.Anchor{Pipe: fmt.Sprint("post", pipe), At: measure.FromInches(at)}
}

func ExampleJudge() {
	d := upright(
		[]frame.Link{{ID: "bolt", Kind: frame.Pivot, Rod: measure.Inch / 4, On: []frame.Anchor{on(0, 15), on(1, 15)}, Fold: 90}},
		0,
		1.05,
	)
	all, _, _ := judge(d)
	fmt.Println(all[0].Words)
	fmt.Println(all[0].On)
	for _, s := range all[0].States {
		fmt.Println(s.Name, s.Size[0].Round(measure.Inch), s.Size[2].Round(measure.Inch))
	}
	// Output:
	// 1/4" bolt, at least 2 9/16" long, two washers and a lock nut
	// [⟨post0⟩ at 15" from ⟨low0⟩ ⟨post1⟩ at 15" from ⟨low1⟩]
	// open 1" 30"
	// folded 22" 22"
}

// A third post an inch and a half beyond the second, that the turning one does
// not reach; one in its own plane that it does.
func TestWhatTurnsHitsWhatIsInItsPlane(t *testing.T) {
	bolt := frame.Link{ID: "bolt", Kind: frame.Pivot, Rod: measure.Inch / 4, On: []frame.Anchor{on(0, 15), on(1, 15)}, Fold: 90}
	all, codes, err := judge(upright([]frame.Link{bolt}, 0, 1.05, 2.6))
	require.NoError(t, err)
	assert.Empty(t, all[0].Hits)
	assert.Empty(t, codes)
	d := upright([]frame.Link{bolt}, 0, 1.05)
	d.Root.Axes[0].Stations = append(
		d.Root.Axes[0].Stations,
		frametest.Station{ID: "aside", At: &frametest.Dimension{Value: 8 * measure.Inch, Meaning: frame.Centre, From: "x"}},
	)
	for _, z := range []string{"low", "high"} {
		d.Root.Joints = append(d.Root.Joints, frametest.Joint{ID: "aside " + z, At: [3]string{"aside", "y1", z}})
	}
	d.Root.Pipes = append(d.Root.Pipes, frametest.Pipe{ID: "aside", From: "aside low", To: "aside high"})
	all, codes, err = judge(d)
	require.NoError(t, err)
	require.NotEmpty(t, all[0].Hits)
	assert.Equal(t, "aside", all[0].Hits[0].Parts[1])
	// 8 aside, less two radii: the post's edge gets there at about asin(8/15) less what its thickness takes
	assert.InDelta(t, 30, all[0].Hits[0].Angle, 6)
	assert.Equal(t, []string{"fold-hits"}, codes)
}

// Pipes that stand far from each other are not tied, and nothing is bought for it.
func TestATieReachesOnlySoFar(t *testing.T) {
	for far, want := range map[float64]string{3: "tie-gap", 60: "tie-too-long"} {
		all, codes, err := judge(upright([]frame.Link{{ID: "l", Kind: frame.Tie, On: []frame.Anchor{on(0, 1), on(1, 1)}}}, 0, far))
		require.NoError(t, err)
		assert.Contains(t, codes, want)
		assert.Equal(t, far < 48, len(all[0].Needs) > 0)
	}
}

func TestLinksThatCannotBe(t *testing.T) {
	for code, l := range map[string]frame.Link{
		"pivot-gap":    {ID: "l", Kind: frame.Pivot, On: []frame.Anchor{on(0, 15), on(1, 15)}},
		"bolt-thick":   {ID: "l", Kind: frame.Pivot, Rod: measure.Inch / 2, On: []frame.Anchor{on(0, 15), on(1, 15)}},
		"off-the-pipe": {ID: "l", Kind: frame.Clip, On: []frame.Anchor{on(0, 90)}},
		"tie-gap":      {ID: "l", Kind: frame.Tie, On: []frame.Anchor{on(0, 1), on(1, 1)}},
		"not-in-line":  {ID: "l", Kind: frame.Telescope, On: []frame.Anchor{on(0, 0), on(1, 0)}},
		"no-rod":       {ID: "l", Kind: frame.Rod, On: []frame.Anchor{{Joint: "low0"}}},
		"no-sleeve":    {ID: "l", Kind: frame.Sleeve, On: []frame.Anchor{on(0, 5)}},
	} {
		_, codes, err := judge(upright([]frame.Link{l}, 0, 3))
		require.NoError(t, err, code)
		assert.Contains(t, codes, code)
	}
	for _, l := range []frame.Link{{Kind: frame.Tie}, {ID: "l", Kind: "glue", On: []frame.Anchor{on(0, 1)}}, {ID: "l", Kind: frame.Tie, On: []frame.Anchor{on(0, 1)}}, {ID: "l", Kind: frame.Rod, On: []frame.Anchor{{Pipe: "none"}}}, {ID: "l", Kind: frame.Rod, On: []frame.Anchor{{Joint: "none"}}}, {ID: "l", Kind: frame.Rod, On: []frame.Anchor{{}}}, {ID: "l", Kind: frame.Rod, On: []frame.Anchor{{Pipe: "post0", From: "high1"}}}} {
		_, _, err := judge(upright([]frame.Link{l}, 0, 3))
		assert.Error(t, err)
	}
}
