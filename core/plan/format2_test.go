package plan_test

import (
	"context"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// saved is a document of format 2 with the figures that it had then: the demo's
// projects, the starters with their usual answers, the golden cases, and frames
// drawn by gestures.
type saved struct {
	Document json.RawMessage `json:"document"`
	Pieces   []struct {
		Pipe string         `json:"pipe"`
		Cut  measure.Length `json:"cut"`
	} `json:"pieces"`
	Fittings []plan.FittingCount `json:"fittings"`
	Overall  [3]measure.Length   `json:"overall"`
}

// A document of format 2 has the figures that it had: every cut, before it is
// rounded, to a hundred-thousandth of an inch, every fitting and the outside.
func TestDocumentsOfFormat2KeepTheirFigures(t *testing.T) {
	files, err := filepath.Glob("../../testdata/format2/*.json")
	require.NoError(t, err)
	require.Greater(t, len(files), 30)
	const same = float64(measure.Inch / 100_000)
	for _, path := range files {
		t.Run(strings.TrimSuffix(filepath.Base(path), ".json"), func(t *testing.T) {
			data, err := os.ReadFile(path)
			require.NoError(t, err)
			var was saved
			require.NoError(t, json.Unmarshal(data, &was))
			d, _, err := frame.FromFormat2(was.Document)
			require.NoError(t, err)
			assert.Equal(t, frame.Format, d.Format)
			p, err := plan.Make(
				context.Background(),
				plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "shear"},
				plan.ExampleShop(),
				plan.Work{},
			)
			require.NoError(t, err)
			now := map[string]measure.Length{}
			for _, x := range p.Frames[0].Pipes {
				now[x.Pipe] = x.Exact
			}
			require.Len(t, now, len(was.Pieces))
			for _, x := range was.Pieces {
				assert.InDelta(t, float64(x.Cut), float64(now[x.Pipe]), same, x.Pipe)
			}
			assert.Equal(t, was.Fittings, p.Fittings)
			for a := range 3 {
				assert.InDelta(t, float64(was.Overall[a]), float64(p.Frames[0].Overall[a].Size), 2*same, "outside %d", a)
			}
			for _, f := range p.Findings {
				assert.NotContains(t, []string{"sizes-contradict", "turned-round", "zero-length", "size-passed"}, f.Code, f.Text)
			}
		})
	}
}
