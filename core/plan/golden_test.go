package plan_test

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/wireframe"
)

// expected is what the handbook's arithmetic gives for a case, worked out
// independently of this program.
type expected struct {
	Pieces    []plan.SummaryPiece       `json:"pieces"`
	PipeFeet  map[string]float64        `json:"pipe_feet"`
	Fittings  []plan.FittingCount       `json:"fittings"`
	OverallIn [3]float64                `json:"overall_in"`
	Warnings  [][]any                   `json:"warnings"`
	Sticks    map[string]map[string]int `json:"sticks"`
}

// bareShop sells one stock length at no price and cuts with one kerf.
func bareShop(kerf measure.Length, stock ...measure.Length) plan.Shop {
	s := plan.Shop{Tools: []plan.Tool{{ID: "given", Kerf: kerf}}}
	for _, l := range stock {
		s.Stock = append(s.Stock, plan.StockLength{Length: l})
	}
	return s
}

func readCase(t testing.TB, name string) plan.Job {
	data, err := os.ReadFile(filepath.Join("../../testdata/cases", name+".wireframe.json"))
	require.NoError(t, err)
	doc, err := wireframe.Read(data)
	require.NoError(t, err)
	return plan.Job{Frames: []plan.FrameUse{{Document: *doc, Copies: 1}}, Step: plan.DefaultStep, Tool: "given"}
}

func caseNames(t testing.TB) (names []string) {
	files, err := filepath.Glob("../../testdata/cases/*.wireframe.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range files {
		names = append(names, strings.TrimSuffix(filepath.Base(f), ".wireframe.json"))
	}
	return names
}

func TestGoldenCases(t *testing.T) {
	for _, name := range caseNames(t) {
		t.Run(name, func(t *testing.T) {
			var want expected
			data, err := os.ReadFile(filepath.Join("../../testdata/cases", name+".expected.json"))
			require.NoError(t, err)
			require.NoError(t, json.Unmarshal(data, &want))
			job := readCase(t, name)
			for kerf, text := range map[measure.Length]string{0: "0.0", measure.Inch / 8: "0.125"} {
				p, err := plan.Make(context.Background(), job, bareShop(kerf, 120*measure.Inch), plan.Work{})
				require.NoError(t, err)
				s := p.Summarize()
				if assert.Len(t, s.Pieces, len(want.Pieces)) {
					for i, w := range want.Pieces {
						assert.Equal(t, w.Size, s.Pieces[i].Size)
						assert.Equal(t, w.Count, s.Pieces[i].Count, "count of %v", w)
						assert.Equal(t, w.CutIn, s.Pieces[i].CutIn, "cut of %v", w)
					}
				}
				assert.ElementsMatch(t, want.Fittings, s.Fittings)
				for a := range want.OverallIn {
					assert.InDelta(t, want.OverallIn[a], s.OverallIn[a], 0.006, "overall %d", a)
				}
				assert.ElementsMatch(t, want.Warnings, s.Warnings)
				for size, feet := range want.PipeFeet {
					assert.InDelta(t, feet, s.PipeFeet[size], 0.02)
				}
				for size, by := range want.Sticks {
					n := 0
					for _, b := range s.Buy {
						if b.Size == size {
							n += b.Count
						}
					}
					assert.Equal(t, by[text], n, "sticks of %s at kerf %s", size, text)
				}
				assert.True(t, s.Proven)
			}
		})
	}
}

func TestSameJobSameBytes(t *testing.T) {
	for _, name := range caseNames(t) {
		job := readCase(t, name)
		job.Tool = "saw"
		var first []byte
		for range 3 {
			p, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
			require.NoError(t, err)
			data, err := json.Marshal(p)
			require.NoError(t, err)
			if first == nil {
				first = data
			}
			require.Equal(t, string(first), string(data), name)
		}
	}
}

func BenchmarkCase(b *testing.B) {
	for _, name := range caseNames(b) {
		job := readCase(b, name)
		job.Tool = "saw"
		shop := plan.ExampleShop()
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if _, err := plan.Make(context.Background(), job, shop, plan.Work{}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func Example() {
	doc, _ := wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[48,0,0],"c":[48,0,30]},
		"pipes":[["a","b"],["b","c"]],"ends":{"a":"cap","c":"cap"}}`))
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *doc, Copies: 2}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, g := range p.Cuts {
		fmt.Println(g.Letter, g.Count, "of", g.Size, g.Cut)
	}
	fmt.Println(p.Totals.Sticks, "sticks,", p.Bill.Total, "example:", p.Bill.Example)
	// Output:
	// A 2 of 3/4 47 7/16"
	// B 2 of 3/4 29 7/16"
	// 2 sticks, $21.96 example: true
}
