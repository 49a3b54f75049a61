package linear_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/linear"
)

func ExampleSolve() {
	x, ok := linear.Solve([][]float64{{0, 2}, {1, 1}}, []float64{6, 5}, 1e-9)
	fmt.Println(x, ok)
	_, ok = linear.Solve([][]float64{{1, 2}, {2, 4}}, []float64{6, 5}, 1e-9)
	fmt.Println(ok)
	// Output:
	// [2 3] true
	// false
}

func TestWhatIsFoundSolves(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 6).Draw(t, "n")
		number := rapid.Float64Range(-10, 10)
		a, b := make([][]float64, n), make([]float64, n)
		for i := range a {
			for range n {
				a[i] = append(a[i], number.Draw(t, "a"))
			}
			b[i] = number.Draw(t, "b")
		}
		x, ok := linear.Solve(a, b, 1e-3)
		if !ok {
			return
		}
		for i := range a {
			sum := 0.0
			for k := range x {
				sum += a[i][k] * x[k]
			}
			require.InDelta(t, b[i], sum, 1e-5)
		}
	})
}
