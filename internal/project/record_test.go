package project_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
)

// worked plans a project with what was done to it.
func worked(t *testing.T, p *project.Project, events []record.Event) *plan.Plan {
	job, err := p.Job()
	require.NoError(t, err)
	made, err := plan.Make(context.Background(), job, plan.ExampleShop(), record.Add(events))
	require.NoError(t, err)
	return made
}

// cutAll are the events of all sticks of a plan being cut.
func cutAll(p *plan.Plan) (all []record.Event) {
	for i := range p.Pipe {
		for n, s := range p.Pipe[i].Sticks {
			for _, x := range s.Pieces {
				all = append(all, record.Event{
					ID: fmt.Sprint(
						"e",
						len(all),
					), Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Length: x.Length, Kerf: x.Kerf, Letter: x.Name, Basis: p.Pipe[i].Basis,
					Stick: &record.Source{ID: fmt.Sprint("stick", i, n), Size: p.Pipe[i].Size, Length: s.Length, Origin: record.FromShop},
				})
			}
		}
	}
	return all
}

func fates(p *plan.Plan) map[procure.Fate]int {
	n := map[procure.Fate]int{}
	for _, e := range p.Existing {
		n[e.Fate]++
	}
	return n
}

// Pieces that are cut stay those of their pipes when these become part of a group, and are
// set free of it again: each is kept at its own place, and a change of the group's size
// is a trim of its own pieces.
func TestTheRecordSurvivesAGroup(t *testing.T) {
	p := square(t, measure.Inches)
	events := cutAll(worked(t, p, nil))
	require.Len(t, events, 4)
	work := record.Add(events)
	in := project.Workshop{Work: work}
	own := func(p *project.Project, what string) {
		t.Helper()
		is := worked(t, p, events)
		assert.Equal(t, map[procure.Fate]int{procure.Keep: 4}, fates(is), what)
		for _, e := range is.Existing {
			assert.Equal(t, e.Place, e.Serves.Pipe, "%s: each at its own place", what)
		}
	}
	own(p, "as it was cut")
	grouped, _, err := p.Edit(
		context.Background(),
		edit.Edit{Gesture: &edit.MakeGroup{Joints: []string{"j1", "j2", "j3"}, Name: "corner"}},
		in)
	require.NoError(t, err)
	assert.Len(t, grouped.Was, 2, "two pipes have another path")
	own(grouped, "grouped")
	after, _, err := grouped.Edit(context.Background(), edit.Edit{Gesture: &edit.Walk{From: "j4", Line: "up 10"}}, in)
	require.NoError(t, err)
	assert.Equal(t, grouped.Was, after.Was, "another gesture keeps them")
	var use string
	for _, i := range worked(t, grouped, events).Frames[0].Instances {
		use = i.Path
	}
	free, _, err := grouped.Edit(context.Background(), edit.Edit{Gesture: &edit.Ungroup{Part: use}}, in)
	require.NoError(t, err)
	own(free, "set free")

	data, err := grouped.Encode()
	require.NoError(t, err)
	read, err := project.Decode(data)
	require.NoError(t, err)
	own(read, "stored and read")
}
