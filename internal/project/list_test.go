package project_test

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/project"
)

func square(t *testing.T, unit measure.Unit) *project.Project {
	p := &project.Project{Name: "Rack", Units: unit, Tool: "saw"}
	for _, e := range []edit.Edit{{Gesture: &edit.Walk{Line: "right 1000 mm"}}, {Gesture: &edit.Walk{From: "j2", Line: "up 800 mm"}}, {Gesture: &edit.Walk{From: "j3", Line: "left 1000 mm"}}, {Gesture: &edit.Join{From: "j4", To: "j1"}}} {
		next, _, err := p.Edit(context.Background(), e, project.Workshop{})
		require.NoError(t, err)
		p = next
	}
	return p
}

// The cuts of a list are read each time, each in the unit it was typed in; an
// empty one says nothing, and what cannot be read is told by its pipe and kept.
func TestTheCutsOfAListAreRead(t *testing.T) {
	p := square(t, measure.Millimetres)
	p.Given = map[string]starter.Answer{"p1": {Text: "900"}, "p2": {Text: "30", Unit: measure.Inches}, "p3": {Text: "  "}}
	job, err := p.Job()
	require.NoError(t, err)
	assert.Equal(t, map[string]measure.Length{"p1": 900 * measure.Millimetre, "p2": 30 * measure.Inch}, job.Frames[0].Given)
	p.Given["p3"], p.Given["p4"] = starter.Answer{Text: "wide"}, starter.Answer{Text: "0"}
	_, err = p.Job()
	var bad project.GivenProblems
	require.ErrorAs(t, err, &bad)
	require.Len(t, bad, 2)
	assert.Equal(t, [2]string{"p3", "p4"}, [2]string{bad[0].Key, bad[1].Key})
	assert.Equal(t, "wide", p.Given["p3"].Text)
}

// A mend that is offered is an edit of the project: carried out, it closes.
func TestAMendIsAnEditOfTheProject(t *testing.T) {
	p := square(t, measure.Millimetres)
	p.Given = map[string]starter.Answer{"p1": {Text: "1000"}}
	var mend []byte
	path := ""
	for _, f := range adopted(t, p) {
		if f.Code == "list-open" {
			require.NotEmpty(t, f.Fixes)
			require.Len(t, f.Fixes[0].Edits, 1)
			path, mend = f.Fixes[0].Edits[0].Path, f.Fixes[0].Edits[0].Value
		}
	}
	assert.Equal(t, "/given/p1", path)
	var a starter.Answer
	require.NoError(t, json.Unmarshal(mend, &a))
	assert.Equal(t, measure.Inches, a.Unit, "whatever a bare number means in the project")
	p.Given["p1"] = a
	for _, f := range adopted(t, p) {
		assert.NotEqual(t, "list-open", f.Code)
	}
}

// What was answered about a list holds by the line's text, so that it outlives
// a change of the lines round it.
func TestAnswersToAListHold(t *testing.T) {
	d := &project.Described{
		Text:   "2 three-ways\n1 1/2 tee",
		Kinds:  map[string]catalog.Kind{"2 three-ways": catalog.SideOutletElbow},
		Others: map[string]int{"1 1/2 tee": 1},
	}
	check := func() {
		asked := 0
		for _, it := range d.Items("3/4") {
			if it.Ask != "" {
				asked++
			}
			switch it.Text {
			case "2 three-ways":
				assert.Equal(t, catalog.SideOutletElbow, it.Kind)
			case "1 1/2 tee":
				assert.Equal(t, [2]any{1, catalog.Size("1-1/2")}, [2]any{it.Count, it.Size})
			}
		}
		assert.Zero(t, asked)
	}
	check()
	d.Text = "4 caps\n" + d.Text + "\n2 elbows"
	check()
	d.Kinds["2 three-ways"] = catalog.Cap
	assert.NotEmpty(t, d.Items("3/4")[1].Ask, "an answer that was no choice is none")
	d.Others["1 1/2 tee"] = 0
	assert.Equal(t, catalog.Size("1/2"), d.Items("3/4")[2].Size, "the first reading, chosen")
	d.Others["1 1/2 tee"] = 7
	assert.NotEmpty(t, d.Items("3/4")[2].Ask)
	assert.Nil(t, (*project.Described)(nil).Items("3/4"))
}

// The shop's own seats count in gestures and in the plan, and never get into
// the document.
func TestAShopsSeatsStayInTheShop(t *testing.T) {
	p := square(t, measure.Inches)
	shop := plan.ExampleShop()
	shop.Seats = map[frame.Mode]float64{frame.Cemented: 0.9}
	next, _, err := p.Edit(
		context.Background(),
		edit.Edit{Gesture: &edit.Walk{From: "j4", Line: "up 12 cut"}},
		project.Workshop{Shop: &shop},
	)
	require.NoError(t, err)
	assert.Empty(t, next.Frame.Seats)
	job, err := next.Job()
	require.NoError(t, err)
	with, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	without, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	// two sockets of 0.719, a tenth of each left empty
	assert.InDelta(t, -2*0.0719, (with.Frames[0].Pipes[0].Exact - without.Frames[0].Pipes[0].Exact).Inches(), 0.001)
	assert.Equal(t, 12*measure.Inch, with.Frames[0].Pipes[4].Cut, "what was stated as a cut stays one")
}

// A frame that is kept is an ordinary one, the same in every cut.
func TestAKeptFrameIsTheSame(t *testing.T) {
	p := &project.Project{Units: measure.Inches, Tool: "saw", Starter: &starter.Begun{ID: "sling"}}
	before := planned(t, p)
	next, _, err := p.Edit(context.Background(), edit.Edit{Gesture: &edit.Keep{}}, project.Workshop{})
	require.NoError(t, err)
	assert.Nil(t, next.Starter)
	after := planned(t, next)
	assert.Equal(t, before.Cuts, after.Cuts)
	assert.Equal(t, before.Frames[0].Links, after.Frames[0].Links)
}
