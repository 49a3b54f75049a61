package project_test

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
	"sturdyelbow/internal/project"
)

// Projects as format 3 stored them, each with a check, a mode rule, a fitting of
// its own and a size that keeps something where it stood: they are read with
// every cut and fitting that they had then, and nothing is left of the old names.
func TestProjectsOfFormat3KeepTheirFigures(t *testing.T) {
	files, err := filepath.Glob("../../testdata/format3/*.json")
	require.NoError(t, err)
	require.Len(t, files, 8)
	for _, file := range files {
		t.Run(strings.TrimSuffix(filepath.Base(file), ".json"), func(t *testing.T) {
			data, err := os.ReadFile(file)
			require.NoError(t, err)
			var was struct {
				Project json.RawMessage
				Pieces  []struct {
					Pipe string
					Cut  measure.Length
				}
				Fittings []plan.FittingCount
			}
			require.NoError(t, json.Unmarshal(data, &was))
			p, err := project.Decode(was.Project)
			require.NoError(t, err)
			assert.Equal(t, frame.Format, p.Frame.Format)
			assert.Equal(t, []frame.ModeRule{{Mode: frame.Slip}}, p.ModeRules)
			assert.Len(t, p.Frame.ClearanceChecks, 1)
			assert.Len(t, p.Frame.CustomFittings, 1)
			inferred := 0
			p.Frame.EachSize(func(_ *frame.Definition, s *frame.Size) {
				if s.Inferred {
					inferred++
				}
			})
			assert.Positive(t, inferred)
			job, err := p.Job()
			require.NoError(t, err)
			job.Tool = "shear"
			made, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
			require.NoError(t, err)
			require.Len(t, made.Frames[0].Pipes, len(was.Pieces))
			for i, x := range made.Frames[0].Pipes {
				assert.Equal(t, was.Pieces[i].Pipe, x.Pipe)
				assert.Equal(t, was.Pieces[i].Cut, x.Exact, x.Pipe)
			}
			assert.Equal(t, was.Fittings, made.Fittings)
			now, err := json.Marshal(p)
			require.NoError(t, err)
			for _, old := range []string{`"holds"`, `"envelopes"`, `"stood"`, `"parts":[`, `"alike"`} {
				assert.NotContains(t, string(now), old)
			}
			again, err := project.Decode(now)
			require.NoError(t, err)
			assert.Equal(t, p, again)
		})
	}
}

// A likeness of format 3 is an equality now.
func TestALikenessOfFormat3IsAnEquality(t *testing.T) {
	var d frame.Document
	require.NoError(
		t,
		json.Unmarshal(
			[]byte(
				`{"format":3,"name":"x","units":"in","size":"3/4","mode":"slip","root":{"planes":[[{"id":"a"},{"id":"b"}],[{"id":"c"},{"id":"d"}],[]],
		"sizes":[{"id":"w","value":254000000,"meaning":"centre","axis":"x","from":"=a","to":"=b"}],
		"reasons":[{"id":"r","kind":"alike","axis":"y","of":"=d","from":"=c","likeAxis":"x","likeFrom":"=a","likeTo":"=b"}]}}`,
			),
			&d,
		),
	)
	assert.Equal(
		t,
		frame.Reason{ID: "r", Kind: frame.EqualTo, Axis: "y", Of: "=d", From: "=c", EqualAxis: "x", EqualFrom: "=a", EqualTo: "=b"},
		d.Root.Reasons[0],
	)
	_, err := frame.Expand(&d)
	require.NoError(t, err)
}
