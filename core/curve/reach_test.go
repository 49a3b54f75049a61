package curve_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/measure"
)

// A handle with legs on the ground: its flat ends reach no lower than they
// are, its top half a pipe above its middle line, its sides half a pipe out.
func TestHowFarARoundBodyReaches(t *testing.T) {
	c, err := curve.Bend{Corners: []measure.Point{at(0, 0, 0), at(0, 0, 20), at(24, 0, 20), at(24, 0, 0)}, Radius: 6 * inch}.Solve()
	require.NoError(t, err)
	r := inch / 2
	for want, toward := range map[measure.Length]measure.Dir{
		20*inch + r: {0, 0, 1}, 0: {0, 0, -1}, 24*inch + r: {1, 0, 0}, r: {0, 1, 0},
	} {
		assert.InDelta(t, want.Inches(), c.Reach(toward, r).Inches(), 0.002, "%v", toward)
	}
	assert.InDelta(t, 0.5, c.Reach(measure.Dir{-1, 0, 0}, r).Inches(), 1e-6)
}

// A spring between places anywhere, its bow to any side, is the same spring:
// turning everything turns the curve.
func TestASpringTurnsWithItsEnds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		turn := rapid.Float64Range(0, 2*math.Pi).Draw(t, "turn")
		sin, cos := math.Sincos(turn)
		span := rapid.Float64Range(30, 150).Draw(t, "span")
		rise := span * rapid.Float64Range(0.05, 0.4).Draw(t, "rise")
		flat, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(span, 0, 0)}, Bow: up, Rise: measure.FromInches(rise)}.Solve()
		require.NoError(t, err)
		turned, err := curve.Spring{
			Ends: [2]measure.Point{at(5, 6, 7), at(5+span*cos, 6+span*sin, 7)},
			Bow:  measure.Dir{-sin, cos, 0},
			Rise: measure.FromInches(rise),
		}.Solve()
		require.NoError(t, err)
		require.InDelta(t, flat.Length.Inches(), turned.Length.Inches(), 1e-3)
		require.InDelta(t, flat.Tightest.Inches(), turned.Tightest.Inches(), 1e-2)
		for i, p := range flat.Points {
			x, y := p[0].Inches(), p[2].Inches()
			want := at(5+x*cos-y*sin, 6+x*sin+y*cos, 7)
			require.Less(t, want.Distance(turned.Points[i]).Inches(), 1e-3)
		}
	})
}

// Longer pipe over one span rises higher and is bent harder.
func TestMorePipeRisesHigher(t *testing.T) {
	last := curve.Curve{Tightest: measure.FrameLimit}
	for _, long := range []float64{61, 65, 72, 84, 100} {
		c, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(60, 0, 0)}, Bow: up, Length: measure.FromInches(long)}.Solve()
		require.NoError(t, err)
		assert.Greater(t, c.Rise, last.Rise, "%g", long)
		assert.Less(t, c.Tightest, last.Tightest, "%g", long)
		last = c
	}
	// just as long as the span it is straight
	c, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(60, 0, 0)}, Bow: up, Length: 60 * inch}.Solve()
	require.NoError(t, err)
	assert.Less(t, c.Rise, inch/100)
}

// One end in a socket, the other on a pin: it leaves the socket as it must,
// and the curvature is gone at the pin.
func TestOneEndHeld(t *testing.T) {
	c, err := curve.Spring{
		Ends:   [2]measure.Point{at(0, 0, 0), at(60, 0, 0)},
		Leave:  [2]*measure.Dir{hold(up), nil},
		Stub:   [2]measure.Length{inch, inch},
		Length: 90 * inch,
	}.Solve()
	require.NoError(t, err)
	assert.Equal(t, at(0, 0, 1), c.Points[1], "its stub")
	n := len(c.Points)
	turnAt := func(i int) float64 {
		return c.Points[i-1].Toward(c.Points[i]).AngleTo(c.Points[i].Toward(c.Points[i+1]))
	}
	assert.Greater(t, turnAt(3), 5*turnAt(n-2), "no stub and no bending at the pin")
	assert.Greater(t, c.Points[n/3][2], c.Points[2*n/3][2], "fuller on the held side")
}
