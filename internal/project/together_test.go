package project_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/internal/project"
)

// Whatever is said of buying several projects, together they never cost more than apart, bought as it is said:
// pieces share sticks, and sockets share cans.
func TestTogetherIsNeverDearer(t *testing.T) {
	shop := plan.ExampleShop()
	cost := func(t require.TestingT, p *project.Project, all ...*project.Project) (measure.Money, int) {
		job, work, err := p.Together.Job(p, all, make([]record.Work, len(all)))
		require.NoError(t, err)
		made, err := plan.Make(context.Background(), job, shop, work)
		require.NoError(t, err)
		require.True(t, made.Totals.Proven, "or the sum proves nothing")
		return made.Bill.Total, made.Totals.Pieces
	}
	rapid.Check(t, func(t *rapid.T) {
		var all []*project.Project
		for i := range rapid.IntRange(2, 3).Draw(t, "projects") {
			one := jumpOf(fmt.Sprintf("%d 1/2", rapid.IntRange(20, 70).Draw(t, fmt.Sprint("width ", i))))
			one.Copies = rapid.IntRange(1, 2).Draw(t, fmt.Sprint("copies ", i))
			one.Tool = rapid.SampledFrom([]string{"saw", "shear"}).Draw(t, fmt.Sprint("its tool ", i))
			all = append(all, one)
		}
		p := &project.Project{
			Tool:       rapid.SampledFrom([]string{"saw", "shear", "hacksaw"}).Draw(t, "tool"),
			School:     rapid.SampledFrom([]joinery.School{"", joinery.OneStep}).Draw(t, "school"),
			SpareEvery: rapid.SampledFrom([]int{0, 10, 10_000}).Draw(t, "spares"),
			Together:   &project.Several{},
		}
		if rapid.Bool().Draw(t, "its own sticks") {
			p.Sale = &project.Sale{Stock: []plan.StockLength{{Length: 10 * measure.Foot}}}
		}
		cent, pieces := cost(t, p, all...)
		var apart measure.Money
		sum := 0
		for _, one := range all {
			c, n := cost(t, p, one)
			apart, sum = apart+c, sum+n
		}
		require.LessOrEqual(t, cent, apart)
		require.Equal(t, sum, pieces)
	})
}
