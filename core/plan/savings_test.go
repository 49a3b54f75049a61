package plan_test

import (
	"context"
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
)

// stand is a rectangle on edge, of a width and a height that are typed as outside sizes.
func stand(t require.TestingT, wide, high string) frame.Document {
	return *draws(t, "3/4", "right "+wide+" outside", "up "+high+" outside", "left level with j1", "down to j1").doc
}

// owed is what a plan has still to buy: money and sticks.
func owed(p *plan.Plan, shop plan.Shop) (cost measure.Money, sticks int) {
	for i := range p.Pipe {
		for _, n := range p.Pipe[i].Need {
			price, _ := shop.Prices.Find(material.Spec{Ware: material.Pipe, Size: string(p.Pipe[i].Size), Length: n.Length})
			cost += price.Each() * measure.Money(n.Count-n.Got)
			sticks += n.Count - n.Got
		}
	}
	return cost, sticks
}

// press carries out a fix on a job, as the page does.
func press(t require.TestingT, job plan.Job, shop plan.Shop, fix finding.Fix) (plan.Job, plan.Shop) {
	return pressIn(t, job, shop, 0, fix)
}

// pressIn carries out a fix on one of a job's frames.
func pressIn(t require.TestingT, job plan.Job, shop plan.Shop, frame int, fix finding.Fix) (plan.Job, plan.Shop) {
	job.Frames = append([]plan.FrameUse{}, job.Frames...)
	shop.Tools = append([]plan.Tool{}, shop.Tools...)
	for _, e := range fix.Edits {
		var length plan.StockLength
		switch {
		case e.Path == edit.FixPath:
			var g edit.Edit
			require.NoError(t, json.Unmarshal(e.Value, &g))
			d, _, err := plan.Edit(context.Background(), &job.Frames[frame].Document, g, &shop)
			require.NoError(t, err)
			job.Frames[frame].Document = *d
		case e.Path == "/tool":
			require.NoError(t, json.Unmarshal(e.Value, &job.Tool))
		case e.Path == "/school":
			require.NoError(t, json.Unmarshal(e.Value, &job.School))
		case e.Path == "/sale/stock":
			require.NoError(t, json.Unmarshal(e.Value, &job.Stock))
		case e.Path == "/spare/-":
			require.NoError(t, json.Unmarshal(e.Value, &length))
			job.Spare = append(append([]plan.StockLength{}, job.Spare...), length)
		case e.Path == "/shop/stock/-":
			require.NoError(t, json.Unmarshal(e.Value, &length))
			shop.Stock = append(append([]plan.StockLength{}, shop.Stock...), length)
		default:
			at := -1
			_, err := fmt.Sscanf(e.Path, "/shop/tools/%d/stop", &at)
			require.NoError(t, err, e.Path)
			shop.Tools[at].Stop = true
		}
	}
	return job, shop
}

func tenFeet(cents measure.Money) plan.Shop {
	shop := plan.ExampleShop()
	shop.Stock = []plan.StockLength{{Length: 10 * measure.Foot}}
	shop.Prices.Set(
		cost.Price{Spec: material.Spec{Ware: material.Pipe, Size: "3/4", Length: 10 * measure.Foot}, Asked: cost.Asked{Amount: cents}},
	)
	return shop
}

// What is told of a size is so: one step more than the smaller size saves nothing, the size
// itself does, the largest takes no more, and one step beyond it does.
func TestSavingsAreTrue(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		wide, high := rapid.IntRange(14, 60).Draw(t, "wide"), rapid.IntRange(14, 60).Draw(t, "high")
		job := plan.Job{
			Frames: []plan.FrameUse{
				{Document: stand(t, fmt.Sprint(wide), fmt.Sprint(high)), Copies: rapid.IntRange(1, 3).Draw(t, "copies")},
			},
			Tool: rapid.SampledFrom([]string{"shear", "hacksaw", "saw"}).Draw(t, "tool"),
		}
		shop := tenFeet(498)
		work := doneSoFar(t, job, shop)
		found, err := plan.FindSavings(context.Background(), job, shop, work, false)
		require.NoError(t, err)
		require.NotEmpty(t, found.Sizes)
		before, err := plan.Make(context.Background(), job, shop, work)
		require.NoError(t, err)
		now, sticks := owed(before, shop)
		for _, c := range before.Tools {
			if c.Chosen {
				require.Equal(t, sticks, c.Sticks, "more, with the tool of the job")
				require.Equal(t, before.Bill.Total, c.Cost, "the whole bill")
			}
		}
		edgesNow := before.Pipe[0].Stock.Edges
		costAt := func(s plan.SizeSaving, value measure.Length) (measure.Money, int) {
			d := job.Frames[0].Document.Clone()
			d.SizeOf(s.ID).Value = value
			other := job
			other.Frames = []plan.FrameUse{{Document: *d, Copies: job.Frames[0].Copies}}
			p, err := plan.Make(context.Background(), other, shop, work)
			require.NoError(t, err)
			cost, _ := owed(p, shop)
			return cost, p.Pipe[0].Stock.Edges
		}
		at := func(s plan.SizeSaving, value measure.Length) measure.Money {
			cost, _ := costAt(s, value)
			return cost
		}
		for _, s := range found.Sizes {
			step := measure.Inch / 16
			if s.Less > 0 {
				require.Equal(t, now-s.Saves, at(s, s.Less), "%s at %v", s.Says, s.Less)
				for value := s.Less + step; value < s.Now; value += step { // none nearer saves, or else it is on an edge
					cost, edges := costAt(s, value)
					require.True(t, cost >= now || edges > s.Edges, "%v", value)
				}
				_, edges := costAt(s, s.Less)
				require.Equal(t, s.Edges, max(0, edges-edgesNow))
				pressed, _ := press(t, job, shop, *s.Fix)
				after, err := plan.Make(context.Background(), pressed, shop, work)
				require.NoError(t, err)
				cost, fewer := owed(after, shop)
				require.Equal(t, now-s.Saves, cost, "the press does it")
				require.Equal(t, s.Sticks, sticks-fewer)
			} else {
				require.GreaterOrEqual(t, at(s, s.Now-2*measure.Inch), now)
			}
			require.LessOrEqual(t, at(s, s.Most), now)
			if s.Most < s.Now+12*measure.Inch {
				require.Greater(t, at(s, s.Most+step), now)
			}
		}
	})
}

// doneSoFar draws a job's work: none, or begun with the figures of the shop, or also some of its
// sticks bought.
func doneSoFar(t *rapid.T, job plan.Job, shop plan.Shop) plan.Work {
	far := rapid.IntRange(0, 2).Draw(t, "far")
	if far == 0 {
		return plan.Work{}
	}
	events := []record.Event{{ID: "a", Seq: 1, Kind: record.Begun, Figures: shop.Figures()}}
	if far == 2 {
		p, err := plan.Make(context.Background(), job, shop, plan.Work{})
		require.NoError(t, err)
		events = append(events, record.Event{
			ID: "b", Seq: 2, Kind: record.Bought, Count: rapid.IntRange(1, p.Pipe[0].Stock.Count).Draw(t, "sticks"),
			Ware:  &material.Spec{Ware: material.Pipe, Size: "3/4", Length: p.Pipe[0].Need[0].Length},
			Basis: p.Pipe[0].Basis,
		})
	}
	return record.Add(events)
}

// Every repair that is offered does what it says when it is pressed, in work that is begun too.
func TestRepairsAreTrue(t *testing.T) {
	some := map[string]int{}
	holds := func(t rapid.TB, tool string, copies int, wide, high string, far func(plan.Job, plan.Shop) plan.Work) {
		job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, wide, high), Copies: copies}}, Tool: tool}
		shop := tenFeet(498)
		work := far(job, shop)
		before, err := plan.Make(context.Background(), job, shop, work)
		require.NoError(t, err)
		found, err := plan.FindSavings(context.Background(), job, shop, work, true)
		require.NoError(t, err)
		if before.Pipe[0].Stock.Edges == 0 {
			require.Empty(t, found.Repairs)
			return
		}
		for _, r := range found.Repairs {
			some[r.Kind]++
			if work.Figures != nil {
				some["begun"]++
			}
			j, s := press(t, job, shop, r.Fix)
			after, err := plan.Make(context.Background(), j, s, work)
			require.NoError(t, err)
			require.Equal(t, r.Edges, after.Pipe[0].Stock.Edges, "%s", r.Words)
			was, _ := owed(before, shop)
			is, _ := owed(after, s)
			require.Equal(t, r.Cost, is-was, "%s", r.Words)
			if r.Kind == "shave" {
				require.NotEmpty(t, r.Letter)
				require.LessOrEqual(t, r.By, measure.Inch/4)
			}
		}
	}
	rapid.Check(t, func(t *rapid.T) {
		tool := rapid.SampledFrom([]string{"shear", "hacksaw", "saw"}).Draw(t, "tool")
		kerf := map[string]int{"shear": 0, "hacksaw": 1, "saw": 4}[tool] // in 1/32
		// pieces of which so many fill a stick to the last bit, and what the elbows add outside
		outside := func(name string) string {
			if n := rapid.IntRange(1, 4).Draw(t, name); n > 1 {
				n16 := (120*32-(n-1)*kerf-rapid.IntRange(0, 2).Draw(t, "left"))/n/2 + 39
				return fmt.Sprintf("%d %d/16", n16/16, n16%16)
			}
			return fmt.Sprint(rapid.IntRange(20, 62).Draw(t, "inches"))
		}
		wide, high := outside("wide"), outside("high")
		holds(
			t,
			tool,
			rapid.IntRange(1, 4).Draw(t, "copies"),
			wide,
			high,
			func(job plan.Job, shop plan.Shop) plan.Work { return doneSoFar(t, job, shop) },
		)
	})
	// one more stick is a repair in few of the frames that are drawn, and few are begun and on an edge
	none := func(plan.Job, plan.Shop) plan.Work { return plan.Work{} }
	holds(t, "shear", 2, "32 7/16", "62 7/16", none)
	holds(t, "saw", 2, "62 6/16", "32 5/16", none)
	holds(t, "shear", 2, "32 7/16", "62 7/16", func(_ plan.Job, shop plan.Shop) plan.Work {
		return record.Add([]record.Event{{ID: "a", Seq: 1, Kind: record.Begun, Figures: shop.Figures()}})
	})
	for _, kind := range []string{"shave", "tool", "stick", "begun"} {
		assert.Positive(t, some[kind], "or the test shows nothing of %s", kind)
	}
}

// 32 3/8 wide and high with a saw: four pieces of 29 15/16 and three kerfs are 120 1/8. One of the
// sizes 1/16 smaller makes two of them 29 7/8, and they go into one stick to its last bit; 1/8
// smaller leaves 1/8 free, a kerf.
func TestAStickIsSavedBySoMuch(t *testing.T) {
	job := plan.Job{Frames: []plan.FrameUse{{Document: stand(t, "32 3/8", "32 3/8"), Copies: 1}}, Tool: "saw"}
	shop := tenFeet(500)
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	cut := p.Cuts[0].Cut
	require.Equal(t, 2, p.Pipe[0].Stock.Count)
	require.Equal(t, measure.Inch*479/16, cut)
	found, err := plan.FindSavings(context.Background(), job, shop, plan.Work{}, false)
	require.NoError(t, err)
	s := found.Sizes[0]
	assert.Positive(t, s.Less)
	assert.Equal(t, measure.Money(500), s.Saves)
	assert.Equal(t, 1, s.Sticks)
	assert.Equal(t, measure.Inch/8, s.Now-s.Less)
	assert.Zero(t, s.Edges)
	assert.Equal(t, measure.Money(4000), s.PerInch)
}
