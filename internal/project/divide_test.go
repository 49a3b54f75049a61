package project_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/stock"
	"sturdyelbow/internal/project"
)

// pair is two projects that are bought and cut together, each with its own record.
type pair struct {
	all    []*project.Project
	events [][]record.Event
	n      int
}

func (p *pair) works() (all []record.Work) {
	for _, e := range p.events {
		all = append(all, record.Add(e))
	}
	return all
}

func (p *pair) plan(t require.TestingT) *plan.Plan {
	job, work, err := (&project.Several{}).Job(&project.Project{Tool: "saw"}, p.all, p.works())
	require.NoError(t, err)
	made, err := plan.Draft(context.Background(), job, plan.ExampleShop(), work)
	require.NoError(t, err)
	return made
}

// do divides what was done and puts it into the records.
func (p *pair) do(t require.TestingT, made *plan.Plan, events ...record.Event) {
	for i := range events {
		p.n++
		events[i].ID = fmt.Sprint("e", p.n)
	}
	shares, wrong := plan.Divide(plan.Sharing{Plan: made, Works: p.works(), Names: []string{"one", "two"}}, events)
	require.Empty(t, wrong)
	for i, share := range shares {
		for _, e := range share {
			require.Nil(t, e.Problem(), "%+v", e)
			e.Seq = int64(len(p.events[i]) + 1)
			p.events[i] = append(p.events[i], e)
		}
	}
}

func (p *pair) cutNext(t require.TestingT, made *plan.Plan) bool {
	for i := range made.Pipe {
		of := &made.Pipe[i]
		for n := range of.Sticks {
			s := &of.Sticks[n]
			for _, x := range s.Pieces {
				if x.Cut != "" || s.Earlier {
					continue
				}
				from := record.Source{ID: s.ID, Size: of.Size, Length: s.Length, True: s.True, Origin: record.FromShop}
				if s.Origin == stock.Offcut {
					from.Origin = record.FromOffcut
				}
				if from.ID == "" {
					from.ID = fmt.Sprint("stick", p.n)
				}
				p.do(t, made, record.Event{
					Kind: record.Cut, Frame: x.Frame, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Stick: &from,
					Length: x.Length, Kerf: x.Kerf, Letter: x.Name, Basis: of.Basis,
				})
				return true
			}
		}
	}
	return false
}

func jumpOf(width string) *project.Project {
	p := answer(begun("jump"), "width", starter.Answer{Text: width})
	p.Tool = "saw"
	return p
}

func two(*testing.T) *pair {
	return &pair{all: []*project.Project{jumpOf("4 ft"), jumpOf("3 ft")}, events: make([][]record.Event, 2)}
}

// Letters are each project's own with its number; what is bought together is shared out by need.
func TestLettersAndPurchasesAreEachProjectsOwn(t *testing.T) {
	p := two(t)
	made := p.plan(t)
	alone, err := p.all[1].Job()
	require.NoError(t, err)
	one, err := plan.Make(context.Background(), alone, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	letters := map[string]measure.Length{}
	for _, g := range made.Cuts {
		letters[g.Letter] = g.Cut
	}
	for _, g := range one.Cuts {
		assert.Equal(t, g.Cut, letters["2"+g.Letter], "its own, with its number")
	}
	for _, l := range made.Bill.Lines {
		spec := l.Spec
		p.do(t, made, record.Event{Kind: record.Bought, Ware: &spec, Count: l.Count})
	}
	made = p.plan(t)
	for _, l := range made.Bill.Lines {
		assert.Equal(t, l.Count, l.Got, l.Label)
	}
	assert.Empty(t, made.Extra)
	for i, w := range p.works() {
		assert.NotEmpty(t, w.Goods, "project %d", i)
	}
	first := made.Bill.Lines[0].Lots
	p.do(t, made, record.Event{Kind: record.TakenBack, Event: first[0].Event, Item: first[0].Items[0]})
	assert.Equal(t, made.Bill.Lines[0].Got-1, p.plan(t).Bill.Lines[0].Got)
}

// Two projects are cut together to the end, in between something is taken back: the plan goes on as it
// was, each record by itself adds up, and no stick gives more than it has.
func TestCutTogetherToTheEnd(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		p := two(t)
		made := p.plan(r)
		if rapid.Bool().Draw(r, "bought") {
			for _, l := range made.Bill.Lines {
				if l.Ware == "pipe" {
					spec := l.Spec
					p.do(r, made, record.Event{Kind: record.Bought, Ware: &spec, Count: l.Count, Basis: made.Pipe[0].Basis})
				}
			}
			made = p.plan(r)
		}
		sticks := made.Totals.Sticks
		for n := 0; p.cutNext(r, made) && n < 80; n++ {
			made = p.plan(r)
			require.Equal(r, sticks, made.Totals.Sticks, "after %d cuts", n+1)
			if rapid.IntRange(0, 9).Draw(r, "again") == 0 {
				var done []string
				for _, w := range p.works() {
					for _, m := range w.Pieces {
						done = append(done, m.ID)
					}
				}
				p.do(r, made, record.Event{Kind: record.TakenBack, Event: rapid.SampledFrom(done).Draw(r, "back")})
				made = p.plan(r)
				require.Equal(r, sticks, made.Totals.Sticks)
			}
		}
		pieces := 0
		for i, w := range p.works() {
			pieces += len(w.Pieces)
			for _, s := range w.Sticks {
				used := s.Lost
				for _, c := range s.Cuts {
					used += c.Length
				}
				require.LessOrEqual(r, used, s.Length, "project %d, stick %s", i, s.ID)
			}
			job, err := p.all[i].Job()
			require.NoError(r, err)
			alone, err := plan.Make(context.Background(), job, plan.ExampleShop(), w)
			require.NoError(r, err)
			for _, e := range alone.Existing {
				require.Equal(r, procure.Keep, e.Fate, "every piece is at its place, also by itself")
			}
		}
		require.Equal(r, made.Totals.Pieces, pieces)
		for _, g := range made.Cuts {
			require.Equal(r, g.Count, g.Done, g.Letter)
		}
	})
}

// What none of the projects has is said, and lost nowhere silently.
func TestWhatIsOfNoProject(t *testing.T) {
	p := two(t)
	made := p.plan(t)
	for _, e := range []record.Event{
		{Kind: record.Spoilt, Item: "nothing"}, {Kind: record.Racked, Item: "nothing"}, {Kind: record.TakenBack, Event: "nothing"},
		{Kind: record.Fitted, Frame: 7, Joint: "j"},
	} {
		shares, wrong := plan.Divide(plan.Sharing{Plan: made, Works: p.works(), Names: []string{"one", "two"}}, []record.Event{e})
		assert.Len(t, wrong, 1)
		assert.Empty(t, shares[0])
		assert.Empty(t, shares[1])
	}
}
