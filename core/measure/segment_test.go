package measure_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
)

// Segments whose distance is seen at once: crossing at right angles a foot apart, in one
// line with a gap, side by side, a point beside a segment, two points, and one in the other.
func TestSegmentsApart(t *testing.T) {
	type seg = [2]measure.Dir
	for _, c := range []struct {
		what string
		a, b seg
		want float64
	}{
		{"crossing", seg{{-5, 0, 0}, {5, 0, 0}}, seg{{0, -5, 12}, {0, 5, 12}}, 12},
		{"in line", seg{{0, 0, 0}, {4, 0, 0}}, seg{{7, 0, 0}, {9, 0, 0}}, 3},
		{"side by side", seg{{0, 0, 0}, {4, 0, 0}}, seg{{1, 2, 0}, {9, 2, 0}}, 2},
		{"beside, past the end", seg{{0, 0, 0}, {4, 0, 0}}, seg{{7, 4, 0}, {7, 9, 0}}, 5},
		{"a point and a segment", seg{{2, 3, 0}, {2, 3, 0}}, seg{{0, 0, 0}, {4, 0, 0}}, 3},
		{"two points", seg{{0, 0, 0}, {0, 0, 0}}, seg{{0, 3, 4}, {0, 3, 4}}, 5},
		{"meeting", seg{{0, 0, 0}, {4, 0, 0}}, seg{{2, 0, 0}, {2, 5, 0}}, 0},
	} {
		assert.InDelta(t, c.want, measure.SegmentsApart(c.a, c.b), 1e-12, c.what)
		assert.InDelta(t, c.want, measure.SegmentsApart(c.b, c.a), 1e-12, c.what)
	}
}

// No two points of the segments are nearer than what it says, and some are as near.
func TestNothingIsNearerThanTheSegments(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		place := rapid.Custom(func(t *rapid.T) (d measure.Dir) {
			for i := range d {
				d[i] = float64(rapid.IntRange(-6, 6).Draw(t, "at"))
			}
			return d
		})
		a, b := [2]measure.Dir{place.Draw(t, "a"), place.Draw(t, "a")}, [2]measure.Dir{place.Draw(t, "b"), place.Draw(t, "b")}
		got, least := measure.SegmentsApart(a, b), math.Inf(1)
		const parts = 60
		for i := range parts + 1 {
			p := a[0].Plus(float64(i)/parts, a[1].Sub(a[0]))
			for k := range parts + 1 {
				d := b[0].Plus(float64(k)/parts, b[1].Sub(b[0])).Sub(p)
				least = min(least, math.Sqrt(d.Dot(d)))
			}
		}
		assert.LessOrEqual(t, got, least+1e-9)
		assert.GreaterOrEqual(t, got, least-0.4, "two steps of the grid at most")
	})
}
