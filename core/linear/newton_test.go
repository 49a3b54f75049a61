package linear_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/linear"
)

// circleAndLine is x² + y² = 25 and y = x + 1, which meet at 3, 4 and at -4, -3.
func circleAndLine() linear.Newton {
	worst := func(f []float64) float64 { return max(math.Abs(f[0]), math.Abs(f[1])) }
	return linear.Newton{Rounds: 40,
		Off:    func(x []float64) []float64 { return []float64{x[0]*x[0] + x[1]*x[1] - 25, x[1] - x[0] - 1} },
		Slopes: func(x, _ []float64) [][]float64 { return [][]float64{{2 * x[0], 2 * x[1]}, {-1, 1}} },
		Step:   func(s [][]float64, f []float64) ([]float64, bool) { return linear.Solve(s, f, 1e-12) },
		Near:   func(f []float64) bool { return worst(f) < 1e-9 },
		Better: func(was, now []float64, _ float64) bool { return worst(now) < worst(was) },
	}
}

func TestNewton(t *testing.T) {
	n := circleAndLine()
	begin := []float64{1, 7}
	x, off, _, how := n.Solve(begin)
	assert.Equal(t, linear.Near, how)
	assert.InDeltaSlice(t, []float64{3, 4}, x, 1e-6)
	assert.InDeltaSlice(t, []float64{0, 0}, off, 1e-9)
	assert.Equal(t, []float64{1, 7}, begin, "what it began with is left as it was")

	n.Within = func(x []float64) bool { return x[0] < 2 }
	x, _, _, how = n.Solve([]float64{1, 7})
	assert.Equal(t, linear.Stuck, how, "the answer is where it may not look")
	assert.Less(t, x[0], 2.0)

	n = circleAndLine()
	_, _, _, how = n.Solve([]float64{1, -1})
	assert.Equal(t, linear.Singular, how, "the slopes depend on each other there")
	n.Rounds = 2
	_, _, _, how = n.Solve([]float64{1, 700})
	assert.Equal(t, linear.Spent, how)
	n.Afford = func() bool { return false }
	x, _, slopes, how := n.Solve([]float64{1, 7})
	assert.Equal(t, linear.Stopped, how)
	assert.Equal(t, []float64{1, 7}, x)
	assert.Nil(t, slopes)
}
