package project_test

import (
	"context"
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/demo"
	"sturdyelbow/internal/project"
)

func Example() {
	p := project.Project{Name: "Gate", Units: measure.Inches, Copies: 2, Tool: "saw",
		Starter: &starter.Begun{ID: "screen", Answers: map[string]starter.Answer{"width": {Text: "6 ft"}}}}
	job, err := p.Job()
	fmt.Println(job.Frames[0].Document.Name, job.Frames[0].Copies, err)
	p.Starter.Answers["width"] = starter.Answer{Text: "6 fet"}
	_, err = p.Job()
	fmt.Println(err)
	// Output:
	// Gate 2 <nil>
	// width: "fet" is not a unit; use in, ft, mm, cm or m
}

func TestRetypedSizesKeepTheFrameAndItsFaults(t *testing.T) {
	doc, err := wireframe.Read([]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,20]},"pipes":[["a","b"],["b","c"]]}`))
	require.NoError(t, err)
	p := project.Project{Frame: doc, Sizes: map[string]starter.Answer{"s1": {Text: "4 ft", Meaning: frame.Outside}}, Tool: "saw"}
	job, err := p.Job()
	require.NoError(t, err)
	got, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err)
	assert.Equal(t, 48*measure.Inch, got.Frames[0].Overall[0].Size)
	assert.Equal(t, 40*measure.Inch, doc.SizeOf("s1").Value, "the frame itself is not touched")

	for path, text := range map[string]string{"s1": "4 fot", "s9": "4", "/root/axes/0/stations/1/at": "4", "": "4"} {
		p.Sizes = map[string]starter.Answer{path: {Text: text}}
		_, err = p.Job()
		var bad project.SizeProblems
		if assert.ErrorAs(t, err, &bad, path) {
			assert.Equal(t, path, bad[0].Key)
		}
	}
}

func TestEmptyProjectSaysSo(t *testing.T) {
	_, err := (&project.Project{}).Job()
	assert.ErrorIs(t, err, project.ErrEmpty)
	_, err = (&project.Project{Starter: &starter.Begun{ID: "castle"}}).Job()
	assert.Error(t, err)
	_, err = project.Decode([]byte("{"))
	assert.Error(t, err)
}

func TestDemoProjectsPlanWithoutFaults(t *testing.T) {
	all, err := demo.Projects()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(all), 4)
	for _, d := range all {
		data, err := json.Marshal(d)
		require.NoError(t, err)
		p, err := project.Decode(data)
		require.NoError(t, err)
		assert.Equal(t, d, *p)
		job, err := p.Job()
		require.NoError(t, err, d.Name)
		got, err := plan.Make(context.Background(), job, plan.ExampleShop(), plan.Work{})
		require.NoError(t, err, d.Name)
		assert.True(t, got.Totals.Proven, d.Name)
		for _, f := range got.Findings {
			assert.NotContains(t, []string{"stop", "warn"}, string(f.Severity), "%s: %s", d.Name, f.Text)
		}
	}
}

func BenchmarkDemo(b *testing.B) {
	all, err := demo.Projects()
	require.NoError(b, err)
	for _, p := range all {
		job, err := p.Job()
		require.NoError(b, err)
		shop := plan.ExampleShop()
		b.Run(p.Name, func(b *testing.B) {
			for b.Loop() {
				if _, err := plan.Make(context.Background(), job, shop, plan.Work{}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// What is bought besides is bought also when projects are bought together.
func TestSpareSticksAreBoughtTogetherToo(t *testing.T) {
	jump := func(spare ...plan.StockLength) *project.Project {
		return &project.Project{Starter: &starter.Begun{ID: "jump"}, Copies: 1, Tool: "saw", Spare: spare}
	}
	stick := plan.StockLength{Size: "3/4", Length: 5 * measure.Foot, Count: 1}
	job, _, err := together(&project.Project{Spare: []plan.StockLength{stick}}, jump(stick), jump(), jump(stick))
	require.NoError(t, err)
	assert.Equal(t, []plan.StockLength{stick, stick, stick}, job.Spare)
}

// together is some projects that are bought as one, as p says.
func together(p *project.Project, all ...*project.Project) (plan.Job, plan.Work, error) {
	return (&project.Several{}).Job(p, all, make([]record.Work, len(all)))
}

// What is said of buying several projects counts for all of them, over what each says for itself.
func TestWhatIsSaidOfSeveralCountsForAll(t *testing.T) {
	jump := func() *project.Project {
		return &project.Project{
			Starter: &starter.Begun{ID: "jump"}, Tool: "shear", School: joinery.OneStep, SpareEvery: 4,
			Sale: &project.Sale{Stock: []plan.StockLength{{Length: 5 * measure.Foot}}, Haul: &stock.Haul{Limit: 6 * measure.Foot}},
		}
	}
	job, _, err := together(&project.Project{}, jump(), jump())
	require.NoError(t, err)
	assert.Equal(t, "shear", job.Tool, "the first project's")
	assert.Empty(t, job.Stock, "what is on sale for one is not for the others")
	assert.Equal(t, 6*measure.Foot, job.Haul.Limit)
	assert.Empty(t, job.School)

	as := jump().BuysAs([]string{"a", "b"})
	assert.Equal(t, joinery.OneStep, as.School)
	assert.Equal(t, 4, as.SpareEvery)
	assert.Nil(t, as.Sale)
	as.Tool, as.Terms = "saw", &cost.Terms{Budget: 50_00}
	as.Sale = &project.Sale{
		Stock: []plan.StockLength{{Length: 20 * measure.Foot}}, Prices: []cost.Price{{}}, Haul: &stock.Haul{Limit: 8 * measure.Foot},
	}
	job, _, err = together(as, jump(), jump())
	require.NoError(t, err)
	assert.Equal(t, "saw", job.Tool)
	assert.Equal(t, as.Sale.Stock, job.Stock)
	assert.Equal(t, as.Sale.Prices, job.Prices)
	assert.Equal(t, 8*measure.Foot, job.Haul.Limit)
	assert.Equal(t, measure.Money(50_00), job.Terms.Budget)

	_, _, err = together(as)
	require.Error(t, err)
	_, _, err = together(as, jump(), &project.Project{Name: "Bare"})
	require.ErrorContains(t, err, "Bare")
}

// How a project's sticks are carried stands over what the shop says; bought together, all go in the
// car by the shortest of what each says.
func TestSticksAreCarriedAsTheProjectSays(t *testing.T) {
	jump := func(limit measure.Length) *project.Project {
		p := &project.Project{Starter: &starter.Begun{ID: "jump"}, Copies: 1, Tool: "saw"}
		if limit > 0 {
			p.Sale = &project.Sale{Haul: &stock.Haul{Limit: limit}}
		}
		return p
	}
	longest := func(all ...*project.Project) (most measure.Length) {
		job, _, err := together(&project.Project{}, all...)
		require.NoError(t, err)
		shop := plan.ExampleShop()
		shop.Haul = &stock.Haul{Limit: 9 * measure.Foot}
		p, err := plan.Make(t.Context(), job, shop, plan.Work{})
		require.NoError(t, err)
		for _, total := range p.Pipe {
			for _, s := range total.Sticks {
				for _, part := range s.Parts {
					most = max(most, part.Length)
				}
			}
		}
		return most
	}
	whole := longest(jump(0))
	assert.Greater(t, whole, 7*measure.Foot)
	assert.LessOrEqual(t, whole, 9*measure.Foot)
	five := longest(jump(5 * measure.Foot))
	assert.Positive(t, five)
	assert.LessOrEqual(t, five, 5*measure.Foot)
	assert.LessOrEqual(t, longest(jump(7*measure.Foot), jump(5*measure.Foot), jump(0)), 5*measure.Foot)
}
