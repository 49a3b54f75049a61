package plan_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
)

func in(x float64) measure.Length { return measure.FromInches(x) }

func build(t require.TestingT, id string, answers map[string]starter.Answer) plan.Job {
	s, ok := starter.Find(id)
	require.True(t, ok)
	doc, err := s.Build(measure.Inches, answers)
	require.NoError(t, err)
	return plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 1}}, Tool: "saw"}
}

func make1(t require.TestingT, job plan.Job) *plan.Plan {
	p, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	return p
}

func group(p *plan.Plan, pipe string) plan.CutLine {
	for _, g := range p.Cuts {
		for _, r := range g.Pipes {
			if r.Pipe == pipe {
				return g
			}
		}
	}
	return plan.CutLine{}
}

func codes(p *plan.Plan) (cs []string) {
	for _, f := range p.Findings {
		cs = append(cs, f.Code)
	}
	return cs
}

// A jump 4 ft wide inside, the bar at 20 in, of 3/4 pipe, cemented:
//
//	tie: 48 clear + 2 × 1.050/2 = 49.05 centres; − 2 × 0.5625 = 47.925 → 47 15/16
//	bar: 49.05 + 2 × 2 overhang = 53.05 → 53 1/16, between two caps
//	top: the body of the foot is 1.32/2 = 0.66 above the floor; the cap's top
//	     at 36 stands 0.20 above the pipe's end; the peg's tee is at
//	     20 − 1.05/2 − 1.05 = 18.425; so 36 − 0.20 − 18.425 − 0.5625 = 16.8125 → 16 13/16
//	leg: 18.425 − 0.66 − 2 × 0.5625 = 16.64 → 16 5/8
func TestJumpByHand(t *testing.T) {
	p := make1(t, build(t, "jump", nil))
	assert.Equal(t, in(47.9375), group(p, "tie").Cut)
	assert.Equal(t, in(53.0625), group(p, "bar").Cut)
	assert.Equal(t, in(16.8125), group(p, "cup.l-top.l").Cut)
	assert.Equal(t, in(16.625), group(p, "left.hub-cup.l").Cut)
	assert.Equal(t, []string{"loose-parts"}, codes(p), "the bar lies on its pegs; nothing graver")
	assert.Equal(t, in(36), p.Frames[0].Overall[2].Size, "floor to the top of the caps")
	assert.Equal(t, in(24), p.Frames[0].Overall[1].Size, "the feet over their caps")
	assert.Equal(t, 2*p.Totals.Pieces, doubled(t, build(t, "jump", nil)).Totals.Pieces)
}

func doubled(t *testing.T, job plan.Job) *plan.Plan {
	job.Frames[0].Copies = 2
	return make1(t, job)
}

func TestTermsSumToTheNumbers(t *testing.T) {
	for _, s := range starter.All() {
		p := make1(t, build(t, s.ID, map[string]starter.Answer{"mode": {Text: "slip"}}))
		for _, f := range p.Frames {
			for _, pc := range f.Pipes {
				assert.Equal(t, pc.Cut, pc.Sum.Total(), "%s %s", s.ID, pc.Pipe)
			}
			for _, e := range f.Overall {
				assert.Equal(t, e.Size, e.Sum.Total(), "%s %s", s.ID, e.Axis)
				assert.Less(t, e.Bare, e.Size)
			}
			for _, z := range f.Sizes {
				assert.Equal(t, z.Centre, z.Sum.Total())
			}
		}
	}
}

// Whatever the pipe's size, what was stated stays as it was stated.
func TestSizesKeepTheirMeaning(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(classic()).Draw(t, "starter")
		answers := map[string]starter.Answer{
			"width": {
				Text:    "48",
				Meaning: frame.Outside,
			}, "foot": {Text: "30"}, "height": {Text: "44"}, "top": {Text: "44"}, "depth": {Text: "30"},
			"size": {Text: string(rapid.SampledFrom([]catalog.Size{"1/2", "3/4", "1", "1-1/4", "1-1/2", "2"}).Draw(t, "size"))},
			"mode": {Text: rapid.SampledFrom([]string{"cemented", "slip"}).Draw(t, "mode")},
			"rest": {Text: "fixed"}, "bar": {Text: "24"}, "low": {Text: "14"},
		}
		p := make1(t, build(t, s.ID, answers))
		o := p.Frames[0].Overall
		require.Equal(t, in(48), o[0].Size, "outside 48 stays 48")
		require.Equal(t, in(30), o[1].Size)
		require.Equal(t, in(44), o[2].Size, "from the floor to the top")
		for _, f := range p.Findings {
			if f.Code != "knife-edge" { // the purchase's concern, not the frame's
				require.Equal(t, finding.Note, f.Severity, "%+v", f)
			}
		}
	})
}

func TestClearInsideIsBetweenThePipes(t *testing.T) {
	p := make1(t, build(t, "table", map[string]starter.Answer{"width": {Text: "46", Meaning: frame.Clear}, "size": {Text: "1"}}))
	s := p.Frames[0].Sizes[0]
	assert.Equal(t, in(46+1.315), s.Centre)
	assert.Equal(t, in(46+1.315+1.62), s.Also[1].Value, "outside follows: centre distance and half a body at each end")
}

func TestDryFrameGrowsAndCementedFrameShrinks(t *testing.T) {
	p := make1(t, build(t, "screen", nil))
	by := map[string]measure.Length{}
	for _, s := range p.Frames[0].Seated {
		by[s.State] = s.Size[0]
	}
	// two rails in a row: each socket stays a third empty by hand, 0.719/3 = 0.24 an end
	assert.InDelta(t, 4*0.719/3, (by["hand-tight"] - by["finished"]).Inches(), 0.01)
	assert.InDelta(t, 4*0.719*0.15, (by["driven"] - by["finished"]).Inches(), 0.01)
	assert.InDelta(t, 96, by["finished"].Inches(), 0.07, "the target, but for the rounding of the cuts")
}

func TestFindings(t *testing.T) {
	read := func(text string) *plan.Plan {
		doc, err := wireframe.Read([]byte(text))
		require.NoError(t, err)
		return make1(t, plan.Job{Frames: []plan.FrameUse{{Document: *doc, Copies: 1}}, Tool: "saw"})
	}
	for code, text := range map[string]string{
		"no-fitting":     `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[30,17,0]},"pipes":[["a","b"],["b","c"]]}`,
		"too-short":      `{"wireframe":1,"joints":{"a":[0,0,9],"b":[0,0,0],"c":[2,0,0],"d":[2,0,9]},"pipes":[["a","b"],["b","c"],["c","d"]]}`,
		"length-or-size": `{"wireframe":1,"joints":{"a":[0,0,9],"b":[0,0,0],"c":[1.5,0,0],"d":[1.5,0,9]},"pipes":[["a","b"],["b","c"],["c","d"]]}`,
		"no-room":        `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[20,0.5,-9],"d":[20,0.5,9]},"pipes":[["a","b"],["c","d"]]}`,
		"no-stock":       `{"wireframe":1,"joints":{"a":[0,0,0],"b":[140,0,0]},"pipes":[["a","b"]]}`,
		"knife-edge":     `{"wireframe":1,"joints":{"a":[0,0,0],"b":[60,0,0],"c":[0,9,0],"d":[59.875,9,0]},"pipes":[["a","b"],["c","d"]]}`,
		"flex":           `{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[31,0,30]},"pipes":[["a","b"],["b","c"]]}`,
		"nested-bushings": `{"wireframe":1,"size":"2","joints":{"a":[0,0,0],"b":[30,0,0],"c":[30,0,30]},
			"pipes":[["a","b"],{"from":"b","to":"c","size":"1/2"}]}`,
		"ends-unsaid":      `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0]},"pipes":[["a","b"]]}`,
		"ports-open":       `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0]},"pipes":[["a","b"]],"fittings":{"b":"tee"}}`,
		"stands-on-a-line": `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,40]},"pipes":[["a","b"],["b","c"]]}`,
		"hovers":           `{"wireframe":1,"joints":{"a":[0,-12,0],"o":[0,0,0],"b":[0,12,0],"c":[0,0,30]},"pipes":[["a","o"],["o","b"],{"from":"o","to":"c","size":"1"}],"ends":{"a":"cap","b":"cap","c":"cap"}}`,
		"loose-parts":      `{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[0,9,0],"d":[30,9,0]},"pipes":[["a","b"],["c","d"]]}`,
	} {
		assert.Contains(t, codes(read(text)), code)
	}
	clean := read(
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,20,0],"d":[0,20,0]},"pipes":[["a","b"],["b","c"],["c","d"],["d","a"]]}`,
	)
	assert.Empty(t, clean.Findings)
}

func TestNonsenseNamesThePlace(t *testing.T) {
	for path, spoil := range map[string]func(j *plan.Job, s *plan.Shop, w *plan.Work){
		"/job/frames":                          func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Frames = nil },
		"/job/frames/0/copies":                 func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Frames[0].Copies = 0 },
		"/job/tool":                            func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Tool = "teeth" },
		"/job/step":                            func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Step = -1 },
		"/job/frames/0/document/size":          func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Frames[0].Document.Size = "7" },
		"/job/frames/0/document/root/pipes/0/": func(j *plan.Job, _ *plan.Shop, _ *plan.Work) { j.Frames[0].Document.Root.Pipes[0].From = "nowhere" },
		"/shop/measurements/0": func(_ *plan.Job, s *plan.Shop, _ *plan.Work) {
			s.Measurements = []catalog.Override{{Size: "3/4", Field: catalog.Stop90, Value: 1}}
		},
		"/shop/stock/0/length": func(_ *plan.Job, s *plan.Shop, _ *plan.Work) { s.Stock[0].Length = 0 },
		"/shop/prices/taxRate": func(_ *plan.Job, s *plan.Shop, _ *plan.Work) { s.Prices.TaxRate = 8.25 },
		"/shop/rack/0": func(_ *plan.Job, s *plan.Shop, _ *plan.Work) {
			s.Rack = []plan.Offcut{{Size: "9", Length: 1, Count: 1}}
		},
	} {
		job, shop, work := build(t, "jump", nil), plan.ExampleShop(), plan.Work{}
		spoil(&job, &shop, &work)
		_, err := plan.Make(context.Background(), job, shop, work)
		var n plan.ValidationError
		if assert.ErrorAs(t, err, &n, path) {
			assert.True(t, strings.HasPrefix(n[0].Path, path), "%s: %s", path, n[0].Path)
		}
	}
}

func TestBoughtSticksAndRackGoFirst(t *testing.T) {
	job, shop := build(t, "jump", nil), plan.ExampleShop()
	before, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	shop.Rack = []plan.Offcut{{Size: "3/4", Length: 54 * measure.Inch, Count: 1}}
	bought := record.Event{
		ID:    "a",
		Kind:  record.Bought,
		Count: 1,
		Ware:  &material.Spec{Ware: material.Pipe, Size: "3/4", Length: 120 * measure.Inch},
	}
	after, err := plan.Make(context.Background(), job, shop, record.Add([]record.Event{bought}))
	require.NoError(t, err)
	assert.Less(t, after.Pipe[0].Stock.Bought, before.Pipe[0].Stock.Bought)
	assert.Less(t, after.Bill.Total, before.Bill.Total)
	assert.Equal(t, 1, after.Pipe[0].Need[0].Got)
}

func TestSticksWithoutAPriceAreNotLeftOutInSilence(t *testing.T) {
	job, shop := build(t, "jump", map[string]starter.Answer{"rest": {Text: "fixed"}}), plan.ExampleShop()
	shop.Stock = append(shop.Stock, plan.StockLength{Length: 20 * measure.Foot})
	p, err := plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	assert.Contains(t, codes(p), "stick-without-price")
	shop.Prices = cost.Book{}
	p, err = plan.Make(context.Background(), job, shop, plan.Work{})
	require.NoError(t, err)
	assert.NotContains(t, codes(p), "stick-without-price", "without any prices all lengths are weighed by their length")
	assert.NotEmpty(t, p.Bill.Unpriced)
}

// 60 and 59 7/8 with a saw take a stick to its last bit; one of 120 is used as it is, and cut
// nowhere.
func TestKnifeEdge(t *testing.T) {
	read := func(text string) *plan.Plan {
		doc, err := wireframe.Read([]byte(text))
		require.NoError(t, err)
		return make1(t, plan.Job{Frames: []plan.FrameUse{{Document: *doc, Copies: 1}}, Tool: "saw"})
	}
	p := read(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[60,0,0],"c":[0,9,0],"d":[59.875,9,0]},"pipes":[["a","b"],["c","d"]]}`)
	i := slices.IndexFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "knife-edge" })
	require.GreaterOrEqual(t, i, 0)
	assert.Contains(t, p.Findings[i].Text, `of one of 120", 0" is left after 1 cut, which may be off by 1/32" together`)
	assert.NotContains(t, codes(read(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[120,0,0]},"pipes":[["a","b"]]}`)), "knife-edge")
}

func BenchmarkStarter(b *testing.B) {
	for _, s := range starter.All() {
		job := build(b, s.ID, nil)
		shop := plan.ExampleShop()
		b.Run(s.ID, func(b *testing.B) {
			for b.Loop() {
				if _, err := plan.Make(context.Background(), job, shop, plan.Work{}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// classic are the starters that state a height from the floor under one key.
func classic() (all []starter.Starter) {
	for _, id := range []string{"jump", "screen", "table"} {
		s, _ := starter.Find(id)
		all = append(all, s)
	}
	return all
}

// A size is said as people write one, for a pipe and for all that follow.
func TestASizeIsSaidAsItIsWritten(t *testing.T) {
	tools, err := plan.LineTools(context.Background(), plan.Job{Tool: "saw"}, nil)
	require.NoError(t, err)
	for _, text := range []string{"right 24 cut size 1 1/2", "size 1 1/2\nright 24 cut", "size 1-1/2\nright 24 cut"} {
		all, err := lines.Parse(text)
		require.NoError(t, err)
		page, doc, _ := (&lines.Page{Lines: all}).Draw(
			&frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented},
			tools,
		)
		require.Nil(t, page.Wrong, "%s: %v", text, page.Wrong)
		g, err := frame.Expand(doc)
		require.NoError(t, err)
		assert.Equal(t, catalog.Size("1-1/2"), g.Edges[0].Size, text)
	}
}

// A frame in millimetres is cut by a millimetre's tape: 1200 stays 1200. A step that is said counts.
func TestTheStepIsThatOfTheUnits(t *testing.T) {
	s, ok := starter.Find("panel")
	require.True(t, ok)
	doc, err := s.Build(measure.Millimetres, map[string]starter.Answer{"width": {Text: "1200", Meaning: frame.Centre}})
	require.NoError(t, err)
	job := plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 1}}, Tool: "saw"}
	made, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	assert.Equal(t, measure.Millimetre, made.Step)
	for _, c := range made.Cuts {
		assert.Zero(t, c.Cut%measure.Millimetre, "%s", c.Cut)
	}
	job.Step = plan.DefaultStep
	made, err = plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	for _, c := range made.Cuts {
		assert.Zero(t, c.Cut%plan.DefaultStep, "%s", c.Cut)
	}
}
