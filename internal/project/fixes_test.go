package project_test

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/project"
)

func adopted(t *testing.T, p *project.Project) []finding.Finding {
	job, err := p.Job()
	require.NoError(t, err)
	got, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	p.Adopt(&job.Frames[0].Document, got.Findings)
	return got.Findings
}

func firstFix(t *testing.T, fs []finding.Finding) finding.Edit {
	for _, f := range fs {
		if len(f.Fixes) > 0 {
			return f.Fixes[0].Edits[0]
		}
	}
	require.Fail(t, "no fix")
	return finding.Edit{}
}

// A fix of a frame that follows from a starter answers the starter's prompt,
// in inches whatever a bare number means there.
func TestAFixAnswersThePrompt(t *testing.T) {
	p := project.Project{
		Units:   measure.Millimetres,
		Tool:    "saw",
		Starter: &starter.Begun{ID: "screen", Answers: map[string]starter.Answer{"low": {Text: "50"}}},
	}
	e := firstFix(t, adopted(t, &p))
	assert.Equal(t, "/starter/answers/low", e.Path)
	var a starter.Answer
	require.NoError(t, json.Unmarshal(e.Value, &a))
	assert.Equal(t, measure.Inches, a.Unit)
	assert.Equal(t, frame.TopOfPipe, a.Meaning)
	p.Starter.Answers["low"] = a
	for _, f := range adopted(t, &p) {
		assert.NotEqual(t, "too-short", f.Code)
	}
}

// A fix of a frame of its own types the size over.
func TestAFixTypesTheSizeOver(t *testing.T) {
	doc, err := wireframe.Read(
		[]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[2,0,0],"c":[2,0,20]},"pipes":[["a","b"],["b","c"]],"fittings":{"a":"elbow-90"}}`),
	)
	require.NoError(t, err)
	p := project.Project{Frame: doc, Tool: "saw"}
	e := firstFix(t, adopted(t, &p))
	assert.Equal(t, "/sizes/s1", e.Path)
	var a starter.Answer
	require.NoError(t, json.Unmarshal(e.Value, &a))
	p.Sizes = map[string]starter.Answer{"s1": a}
	for _, f := range adopted(t, &p) {
		assert.NotEqual(t, "too-short", f.Code)
	}
}

// A fix with no place in the project is not offered; one of the shop stays.
func TestAFixWithoutAPlaceIsDropped(t *testing.T) {
	p := project.Project{Tool: "saw", Starter: &starter.Begun{ID: "jump"}}
	job, err := p.Job()
	require.NoError(t, err)
	fs := []finding.Finding{{Fixes: []finding.Fix{
		{Label: "gone", Edits: []finding.Edit{{Path: "/frames/0/document/sizes/gone", Value: json.RawMessage(`"4"`)}}},
		{Label: "not asked for", Edits: []finding.Edit{{Path: "/frames/0/document/sizes/frame y bar", Value: json.RawMessage(`"4"`)}}},
		{Label: "shop", Edits: []finding.Edit{{Path: "/shop/stock/-", Value: json.RawMessage(`{}`)}}},
	}}}
	p.Adopt(&job.Frames[0].Document, fs)
	require.Len(t, fs[0].Fixes, 1)
	assert.Equal(t, "shop", fs[0].Fixes[0].Label)
}

// What the builder set counts over what the starter says, and leaves the
// stored frame alone.
func TestHoldsGoOverTheFrame(t *testing.T) {
	p := project.Project{Starter: &starter.Begun{ID: "jump"}, ModeRules: []frame.ModeRule{{Mode: frame.Slip}}, Tool: "saw"}
	job, err := p.Job()
	require.NoError(t, err)
	got, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	assert.Zero(t, got.Totals.Cemented)
	doc, err := wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0]},"pipes":[["a","b"]]}`))
	require.NoError(t, err)
	q := project.Project{Frame: doc, ModeRules: p.ModeRules}
	_, err = q.Job()
	require.NoError(t, err)
	assert.Empty(t, doc.ModeRules)
}
