package project_test

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/material"
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

// taking is what of some things each of three projects has, told by hand: in the order of what was bought.
type taking struct {
	spec material.Spec
}

// Whatever is bought for three projects and taken back, before the next plan or after it, together or by one of them,
// whole or in part: what they have comes to what was bought and not taken back, each knows how much that is, and
// what is sent twice counts once.
func TestSharesComeToTheWhole(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		p := &pair{all: []*project.Project{jumpOf("4 ft"), jumpOf("3 ft"), jumpOf("5 ft")}, events: make([][]record.Event, 3)}
		made := p.plan(r)
		var specs []material.Spec
		for _, l := range made.Bill.Lines {
			specs = append(specs, l.Spec)
		}
		count := map[string]int{} // of each purchase, what is left
		of := map[string]taking{} // by purchase
		var order []string
		send := func(alone int, e record.Event) {
			p.n++
			e.ID = fmt.Sprint("e", p.n)
			s := plan.Sharing{Plan: made, Works: p.works(), Names: []string{"one", "two", "three"}}
			at := []int{0, 1, 2}
			if alone >= 0 { // as the server does: the others are kin
				at = append([]int{alone}, slices.DeleteFunc([]int{0, 1, 2}, func(i int) bool { return i == alone })...)
				s = plan.Sharing{
					Works: []record.Work{s.Works[alone]},
					Names: []string{"it"},
					Kin:   []record.Work{s.Works[at[1]], s.Works[at[2]]},
				}
			}
			shares, wrong := plan.Divide(s, []record.Event{e})
			require.Empty(r, wrong)
			for k, share := range shares {
				for _, e := range share {
					require.Nil(r, e.Problem(), "%+v", e)
					e.Seq = int64(p.n)
					p.events[at[k]] = append(p.events[at[k]], e)
				}
			}
		}
		for range rapid.IntRange(1, 12).Draw(r, "steps") {
			switch rapid.IntRange(0, 3).Draw(r, "what") {
			case 0, 1:
				spec := rapid.SampledFrom(specs).Draw(r, "of")
				n := rapid.IntRange(1, 9).Draw(r, "many")
				send(-1, record.Event{Kind: record.Bought, Ware: &spec, Count: n})
				id := fmt.Sprint("e", p.n)
				order, count[id], of[id] = append(order, id), n, taking{spec: spec}
			case 2: // the purchase itself, as a page does that has no plan with it yet
				if len(order) == 0 {
					continue
				}
				id := rapid.SampledFrom(order).Draw(r, "purchase")
				n := rapid.IntRange(0, 9).Draw(r, "less")
				shared := slices.ContainsFunc(p.events[0], func(e record.Event) bool { return e.Shared != nil && e.Shared.Of == id }) ||
					slices.ContainsFunc(p.events[1], func(e record.Event) bool { return e.Shared != nil && e.Shared.Of == id })
				if !shared && count[id] == 0 {
					continue
				}
				send(-1, record.Event{Kind: record.TakenBack, Event: id, Count: n})
				if n == 0 {
					n = count[id]
				}
				count[id] = max(0, count[id]-n)
			default: // what one of them has of it, by its own log
				i := rapid.IntRange(0, 2).Draw(r, "whose")
				w := p.works()[i]
				if len(w.Shared) == 0 {
					continue
				}
				q := rapid.SampledFrom(w.Shared).Draw(r, "share")
				if q.Own == 0 {
					continue
				}
				n := rapid.IntRange(0, q.Own).Draw(r, "less of it")
				e := record.Event{Kind: record.TakenBack, Event: q.Share, Count: n}
				if n == 0 {
					n = q.Own
				}
				if k := slices.IndexFunc(w.Sticks, func(s record.Stick) bool { return s.Bought == q.Share }); k >= 0 &&
					rapid.Bool().Draw(r, "one stick") {
					e.Item, e.Count, n = w.Sticks[k].ID, 0, 1
				}
				send(i, e)
				count[q.Event] -= n
			}
			works := p.works()
			for _, id := range order {
				shared, own := 0, 0
				for _, w := range works {
					for _, q := range w.Shared {
						if q.Event == id {
							shared, own = shared+1, own+q.Own
							require.Equal(r, count[id], q.Count, "each knows how much all of it is")
						}
					}
				}
				if shared > 0 {
					require.Equal(r, count[id], own, "their shares come to it")
				}
			}
			for _, spec := range specs {
				want, have := 0, 0
				for id, o := range of {
					if o.spec == spec {
						want += count[id]
					}
				}
				for _, w := range works {
					for _, g := range w.Goods {
						if g.Spec == spec {
							have += g.Count
						}
					}
					for _, s := range w.Sticks {
						if spec.Ware == material.Pipe && string(s.Size) == spec.Size && s.Length == spec.Length {
							have++
						}
					}
				}
				require.Equal(r, want, have, "%v", spec.Words())
			}
			all := record.Together(works...)
			require.Empty(r, all.Shared, "together nothing is another's")
		}
	})
}

// A project by itself knows what was bought for the others, and asks nobody to take it back; a can in another's
// record is there for it, too.
func TestAProjectAloneKnowsOfTheOthers(t *testing.T) {
	p := two(t)
	made := p.plan(t)
	for _, l := range made.Bill.Lines {
		spec := l.Spec
		p.do(t, made, record.Event{Kind: record.Bought, Ware: &spec, Count: l.Count})
	}
	for i, w := range p.works() {
		job, err := p.all[i].Job()
		require.NoError(t, err)
		alone, err := plan.Make(context.Background(), job, plan.ExampleShop(), w)
		require.NoError(t, err)
		assert.Empty(t, alone.Extra, "project %d", i)
		require.NotEmpty(t, alone.Others)
		for _, o := range alone.Others {
			whole := 0
			for _, l := range made.Bill.Lines {
				if l.Spec == o.Spec {
					whole = l.Count
				}
			}
			assert.Equal(t, whole, o.Count, o.Label)
			assert.Equal(t, 2, o.Jobs)
			assert.LessOrEqual(t, o.Own, o.Count)
		}
		for _, l := range alone.Bill.Lines {
			if l.Ware == material.Cement {
				assert.Equal(t, l.Count, l.Got, "the can is everybody's")
			}
		}
	}
}
