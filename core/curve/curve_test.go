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

const inch = measure.Inch

func at(x, y, z float64) measure.Point {
	return measure.Point{measure.FromInches(x), measure.FromInches(y), measure.FromInches(z)}
}

var up = measure.Dir{0, 0, 1}

func hold(d measure.Dir) *measure.Dir { d = d.Unit(); return &d }

// elliptic gives the complete integrals K and E by the arithmetic-geometric
// mean.
func elliptic(k float64) (K, E float64) {
	a, g, sum, two := 1.0, math.Sqrt(1-k*k), k*k/2, 1.0
	for range 30 {
		c := (a - g) / 2
		sum += two * c * c
		a, g = (a+g)/2, math.Sqrt(a*g)
		two *= 2
	}
	K = math.Pi / 2 / a
	return K, K * (1 - sum)
}

// The bow of a pipe between two pins has a closed form: with k = sin(α/2) of
// the angle α at the pins, span/length = 2E/K − 1, rise/length = k/K and the
// sharpest curvature times length = 4kK.
func TestAPinnedBowIsTheClosedForm(t *testing.T) {
	for _, alpha := range []float64{5, 20, 45, 70, 90, 110} {
		k := math.Sin(alpha / 2 * math.Pi / 180)
		K, E := elliptic(k)
		const long = 120.0
		span, rise, tight := long*(2*E/K-1), long*k/K, long/(4*k*K)
		for name, s := range map[string]curve.Spring{"by length": {Length: measure.FromInches(long)}, "by rise": {Rise: measure.FromInches(rise)}} {
			s.Ends, s.Bow = [2]measure.Point{at(0, 0, 0), at(span, 0, 0)}, up
			c, err := s.Solve()
			require.NoError(t, err, "%s %g", name, alpha)
			assert.InDelta(t, long, c.Length.Inches(), 0.002, "%s %g", name, alpha)
			assert.InDelta(t, rise, c.Rise.Inches(), 0.002*rise+0.002, "%s %g", name, alpha)
			assert.InDelta(t, tight, c.Tightest.Inches(), 0.002*tight, "%s %g", name, alpha)
			assert.InDelta(t, alpha, c.Tangents[0].AngleTo(measure.Dir{1, 0, 0}), 0.02, "%s %g", name, alpha)
			assert.InDelta(t, alpha, c.Tangents[1].AngleTo(measure.Dir{-1, 0, 0}), 0.02, "%s %g", name, alpha)
		}
	}
}

// The peak of a bow is about 1.3 times as sharp as a true arc of its length
// and span, as the handbook of the trade says of low ones.
func TestAPinnedBowIsSharperThanAnArc(t *testing.T) {
	c, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(96, 0, 0)}, Bow: up, Length: 120 * inch}.Solve()
	require.NoError(t, err)
	turn := 2.262 // radians of an arc of 120 over a chord of 96: 2 × 120/turn × sin(turn/2) = 96
	require.InDelta(t, 96, 2*120/turn*math.Sin(turn/2), 0.05)
	assert.InDelta(t, 1.3, 120/turn/c.Tightest.Inches(), 0.1)
}

// Two pipes held square to the line between their ends make a ring when each
// is half its round: an arc, with no force in it.
func TestHalfARingIsAnArc(t *testing.T) {
	c, err := curve.Spring{
		Ends:   [2]measure.Point{at(-40, 0, 0), at(40, 0, 0)},
		Leave:  [2]*measure.Dir{hold(up), hold(up)},
		Length: measure.FromInches(40 * math.Pi),
	}.Solve()
	require.NoError(t, err)
	for _, p := range c.Points {
		assert.InDelta(t, 40, p.Distance(at(0, 0, 0)).Inches(), 0.001)
	}
	assert.InDelta(t, 40, c.Tightest.Inches(), 0.01)
}

// Half a hoop, from a pin to a tee at its crown, is half of the whole one.
func TestHalfAHoopIsHalfOfTheWhole(t *testing.T) {
	for _, rise := range []float64{10, 24, 40, 60} {
		whole, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(96, 0, 0)}, Bow: up, Rise: measure.FromInches(rise)}.Solve()
		require.NoError(t, err)
		half, err := curve.Spring{
			Ends:  [2]measure.Point{at(0, 0, 0), at(48, 0, rise)},
			Leave: [2]*measure.Dir{nil, hold(measure.Dir{-1, 0, 0})},
			Half:  true,
		}.Solve()
		require.NoError(t, err, "%g", rise)
		assert.InDelta(t, whole.Length.Inches()/2, half.Length.Inches(), 0.01, "%g", rise)
		assert.InDelta(t, whole.Tightest.Inches(), half.Tightest.Inches(), 0.01*whole.Tightest.Inches(), "%g", rise)
	}
	// held upright at its feet and level at its crown
	whole, err := curve.Spring{
		Ends:  [2]measure.Point{at(0, 0, 0), at(80, 0, 0)},
		Leave: [2]*measure.Dir{hold(up), hold(up)},
		Rise:  50 * inch,
	}.Solve()
	require.NoError(t, err)
	half, err := curve.Spring{
		Ends:  [2]measure.Point{at(0, 0, 0), at(40, 0, 50)},
		Leave: [2]*measure.Dir{hold(up), hold(measure.Dir{-1, 0, 0})},
		Half:  true,
	}.Solve()
	require.NoError(t, err)
	assert.InDelta(t, whole.Length.Inches()/2, half.Length.Inches(), 0.01)
}

// Whatever the ends, the curve has its length, leaves as it is held, goes
// straight through its stubs and stays in its plane.
func TestAnySpringKeepsItsWord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		span := rapid.Float64Range(20, 200).Draw(t, "span")
		s := curve.Spring{Bow: up, Ends: [2]measure.Point{at(3, 5, 7), at(3+span, 5, 7)}}
		lean := rapid.Float64Range(20, 100).Draw(t, "lean") * math.Pi / 180
		for k, sign := range []float64{1, -1} {
			if rapid.Bool().Draw(t, "held") {
				s.Leave[k] = hold(measure.Dir{sign * math.Cos(lean), 0, math.Sin(lean)})
				s.Stub[k] = measure.FromInches(0.75)
			}
		}
		arc := max(1.12, lean/math.Sin(lean)) // so long is an arc that leaves both ends like that; much shorter ones snap over
		s.Length = measure.FromInches(span * arc * rapid.Float64Range(1, 1.4).Draw(t, "long"))
		c, err := s.Solve()
		require.NoError(t, err)
		sum := measure.Length(0)
		for i := 1; i < len(c.Points); i++ {
			sum += c.Points[i-1].Distance(c.Points[i])
		}
		require.InDelta(t, s.Length.Inches(), sum.Inches(), 0.004*s.Length.Inches(), "chords along it")
		require.LessOrEqual(t, sum, s.Length+inch/1000)
		for k, d := range s.Leave {
			first, second := c.Points[0], c.Points[1]
			if k == 1 {
				first, second = c.Points[len(c.Points)-1], c.Points[len(c.Points)-2]
			}
			require.Equal(t, s.Ends[k], first)
			if d != nil {
				require.InDelta(t, 0, first.Toward(second).AngleTo(*d), 0.01)
				require.InDelta(t, 0.75, first.Distance(second).Inches(), 0.001)
			}
		}
		for _, p := range c.Points {
			require.Equal(t, s.Ends[0][1], p[1])
		}
	})
}

func TestImpossibleSpringsSayWhy(t *testing.T) {
	ends := [2]measure.Point{at(0, 0, 0), at(60, 0, 0)}
	for what, s := range map[string]curve.Spring{
		"does not reach": {Ends: ends, Bow: up, Length: 50 * inch},
		"at one place":   {Bow: up, Length: 50 * inch},
		"along the line": {Ends: ends, Bow: measure.Dir{1, 0, 0}, Length: 70 * inch},
		"in one plane":   {Ends: ends, Leave: [2]*measure.Dir{hold(up), hold(measure.Dir{0, 1, 0})}, Length: 90 * inch},
		"at its crown":   {Ends: ends, Bow: up, Half: true},
	} {
		_, err := s.Solve()
		var no *curve.Impossible
		require.ErrorAs(t, err, &no, what)
		assert.Contains(t, no.What, what)
		assert.NotEmpty(t, no.Hint)
	}
}

// A quarter bend: two legs of 20 lose a radius of 6 each and gain a quarter
// round of it: 14 + 6 × π/2 + 14 = 37.425.
func TestABentPipeIsAsLongAsItsMiddleLine(t *testing.T) {
	c, err := curve.Bend{Corners: []measure.Point{at(0, 0, 0), at(0, 0, 20), at(20, 0, 20)}, Radius: 6 * inch}.Solve()
	require.NoError(t, err)
	assert.InDelta(t, 28+3*math.Pi, c.Length.Inches(), 1e-5)
	assert.Equal(t, 6*inch, c.Tightest)
	assert.Equal(t, [2]measure.Dir{{0, 0, 1}, {-1, 0, 0}}, c.Tangents)
	mid := c.Points[c.Where]
	assert.InDelta(t, 6*(1-math.Sqrt2/2), mid[0].Inches(), 1e-4, "the middle of the arc, from the corner's centre at 6, 14")
	// a handle: up, over, down; then with legs too short for the radius
	u := curve.Bend{Corners: []measure.Point{at(0, 0, 0), at(0, 0, 20), at(24, 0, 20), at(24, 0, 0)}, Radius: 6 * inch}
	c, err = u.Solve()
	require.NoError(t, err)
	assert.InDelta(t, 14+12+14+6*math.Pi, c.Length.Inches(), 1e-5)
	u.Radius = 13 * inch
	_, err = u.Solve()
	assert.ErrorContains(t, err, "the leg at bend 2 is 24")
	// a 45 in a plane of its own: 2 × (20 − 6 tan 22.5°) + 6 × π/4
	c, err = curve.Bend{
		Corners: []measure.Point{at(0, 0, 0), at(0, 20, 0), at(0, 20+20*math.Sqrt2/2, 20*math.Sqrt2/2)},
		Radius:  6 * inch,
	}.Solve()
	require.NoError(t, err)
	assert.InDelta(t, 40-12*math.Tan(math.Pi/8)+6*math.Pi/4, c.Length.Inches(), 1e-5)
}

func TestSampleSpreadsPointsEvenly(t *testing.T) {
	c, err := curve.Spring{Ends: [2]measure.Point{at(0, 0, 0), at(60, 0, 0)}, Bow: up, Length: 80 * inch}.Solve()
	require.NoError(t, err)
	ps := c.Sample(9)
	require.Len(t, ps, 9)
	for i := 1; i < len(ps); i++ {
		assert.InDelta(t, 10, ps[i-1].Distance(ps[i]).Inches(), 0.35)
	}
	assert.Equal(t, c.Points[0], ps[0])
	assert.Equal(t, c.Points[len(c.Points)-1], ps[8])
}

func BenchmarkSpring(b *testing.B) {
	for i := range b.N {
		s := curve.Spring{
			Ends:  [2]measure.Point{at(0, 0, 0), at(60, 0, 0)},
			Leave: [2]*measure.Dir{hold(up), hold(up)},
			Rise:  measure.FromInches(40 + float64(i)/1e6),
		}
		if _, err := s.Solve(); err != nil {
			b.Fatal(err)
		}
	}
}

// Half a ring of 20 in radius: a third of the way along it is 60° round, and its ends are
// where it begins and ends.
func TestAPlaceAlongACurve(t *testing.T) {
	c, err := curve.Spring{
		Ends: [2]measure.Point{at(0, 0, 0), at(40, 0, 0)}, Bow: up,
		Leave: [2]*measure.Dir{hold(up), hold(up)}, Length: measure.FromInches(20 * math.Pi),
	}.Solve()
	require.NoError(t, err)
	p, way := c.At(c.Length / 3)
	assert.InDelta(t, 0, p.Distance(at(20-20*math.Cos(math.Pi/3), 0, 20*math.Sin(math.Pi/3))).Inches(), 0.1)
	assert.InDelta(t, 1, way.Dot(measure.Dir{math.Sin(math.Pi / 3), 0, math.Cos(math.Pi / 3)}), 0.01)
	for along, want := range map[measure.Length]measure.Point{0: at(0, 0, 0), c.Length: at(40, 0, 0), c.Length.Half(): c.Apex} {
		p, _ := c.At(along)
		assert.Less(t, p.Distance(want), inch/32, "at %s", along)
	}
}
