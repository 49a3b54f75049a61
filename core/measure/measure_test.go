package measure_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
)

func Example() {
	l, _ := measure.Parse("1' 11 5/8\"", measure.Reading{})
	fmt.Println(l.Format(measure.InInches, 0), "=", l.Format(measure.Decimal, 0), "=", l.Format(measure.Metric, measure.Millimetre))
	_, err := measure.Parse("5 ft 30 cm", measure.Reading{})
	fmt.Println(err)
	// Output:
	// 23 5/8" = 23.625 in = 600 mm
	// "5 ft 30 cm", character 9: two units fighting: inches or feet with metric; use one system in one length
}

func TestParseReadsWhatPeopleWrite(t *testing.T) {
	in := measure.Inch
	for text, want := range map[string]measure.Length{
		"23 5/8": 23*in + 5*in/8, "23-5/8\"": 23*in + 5*in/8, "23.625 in": 23*in + 5*in/8, "23.625": 23*in + 5*in/8,
		"1' 11 5/8\"": 23*in + 5*in/8, "1'-11 5/8\"": 23*in + 5*in/8, "1' - 11-5/8": 23*in + 5*in/8, "1′ 11⅝″": 23*in + 5*in/8,
		"1’ 11 5⁄8”": 23*in + 5*in/8, "23⅝": 23*in + 5*in/8, "23 ⁵⁄₈": 23*in + 5*in/8, "23 5/8''": 23*in + 5*in/8,
		"5ft": 60 * in, "5'7": 67 * in, "5' 7\"": 67 * in, "5 ft. 7 in.": 67 * in, "5FT 7IN": 67 * in,
		"2 1/2 feet": 30 * in, "2½ ft": 30 * in, "½": in / 2, "5/8": 5 * in / 8, "7/4": 7 * in / 4, ".5": in / 2, "5.": 5 * in,
		"600mm": 600 * measure.Millimetre, "60 cm": 600 * measure.Millimetre, "1 m 20 cm": 1200 * measure.Millimetre,
		"59,5 cm": 595 * measure.Millimetre, "1 yd 1 ft": 48 * in, "0": 0, " 48 ": 48 * in,
	} {
		got, err := measure.Parse(text, measure.Reading{})
		if assert.NoError(t, err, text) {
			assert.Equal(t, want, got, text)
		}
	}
	mm, err := measure.Parse("600", measure.Reading{Unit: measure.Millimetres})
	require.NoError(t, err)
	assert.Equal(t, 600*measure.Millimetre, mm)
	feet, err := measure.Parse("5'7", measure.Reading{Unit: measure.Millimetres})
	require.NoError(t, err)
	assert.Equal(t, 67*in, feet, "after feet a bare number is inches whatever the frame's unit")
}

func TestParseRefusesWithPositionAndHint(t *testing.T) {
	for text, at := range map[string]int{
		"": 0, "   ": 0, "-5": 0, "5 - 3": 4, "5 kg": 2, "abc": 0, "5 ft 30 cm": 8, "10 mm 2 in": 8, "5 in 2 ft": 7, "5 5": 2,
		"5 1/0": 4, "5 1/": 3, "1/2/3": 3, "5.5 1/2": 4, "5 9/8": 2, "1,200": 1, "1.2.3": 0, "5 ft 6 ft": 7, "1001 ft": 0,
		"48 x 30": 3, "5'-": 2, "\"5": 0, "5$": 1, "1 m 20": 4, "5 ft 1/2.5": 5,
	} {
		_, err := measure.Parse(text, measure.Reading{})
		var pe *measure.ParseError
		if assert.ErrorAs(t, err, &pe, text) {
			assert.Equal(t, at, pe.At, "%s: %s", text, pe.What)
			assert.NotEmpty(t, pe.Hint, text)
		}
	}
	_, err := measure.Parse("1001 ft", measure.Reading{Limit: 10000 * measure.Foot})
	assert.NoError(t, err, "stock cutting may go higher")
	_, err = measure.Parse(strings.Repeat("9", 200), measure.Reading{})
	assert.Error(t, err)
}

func TestFormat(t *testing.T) {
	l := 23*measure.Inch + 5*measure.Inch/8
	for want, got := range map[string]string{
		"23 5/8\"":    l.Format(measure.InInches, 0),
		"1' 11 5/8\"": l.Format(measure.FeetInches, 0),
		"23.625 in":   l.Format(measure.Decimal, 0),
		"600.075 mm":  l.Format(measure.Metric, 0),
		"2'":          (2 * measure.Foot).Format(measure.FeetInches, 0),
		"24\"":        (2 * measure.Foot).Format(measure.InInches, 0),
		"1/16\"":      (measure.Inch / 32).Format(measure.InInches, measure.Inch/16), // a half goes up
		"600 mm":      l.Format(measure.InInches, measure.Millimetre),                // a metric step has no inch fraction
		"-1/2\"":      (-measure.Inch / 2).Format(measure.InInches, 0),
	} {
		assert.Equal(t, want, got)
	}
	assert.Equal(t, "≈ 1/32\"", (measure.Inch/32 + 5).String())
}

func anyLength(t *rapid.T) measure.Length {
	return measure.Length(rapid.Int64Range(0, int64(measure.FrameLimit)-int64(measure.Inch)).Draw(t, "nm"))
}

// parse(print(x, step)) = round(x, step), in every style and for every step.
func TestALengthAsTyped(t *testing.T) {
	l := measure.Inch*23 + measure.Inch/2
	assert.Equal(t, `23 1/2"`, l.Tape(measure.Inches))
	assert.Equal(t, "596.9 mm", l.Tape(measure.Millimetres))
	assert.Equal(t, `1/64"`, (measure.Inch / 100).Tape(measure.Inches), "the nearest that a tape shows")
	assert.Equal(t, "23.5", l.Typed("23.5", measure.Inches))
	assert.Equal(t, "596.9 mm", l.Typed("596.9", measure.Millimetres), "a bare number gets its unit")
	for _, own := range []string{"59.69 cm", "23 1/2 in", `1' 11 1/2"`} {
		assert.Equal(t, own, l.Typed(own, measure.Millimetres))
	}
	assert.Equal(t, "596.9 mm", l.Typed("", measure.Millimetres), "nobody typed it")
}

func TestPrintThenParse(t *testing.T) {
	steps := []measure.Length{measure.Inch / 16, measure.Inch / 8, measure.Inch / 32, measure.Inch / 64, measure.Inch / 1000,
		measure.Millimetre, measure.Millimetre / 2, measure.Inch, 0}
	styles := []measure.Style{measure.InInches, measure.FeetInches, measure.Decimal, measure.Metric}
	rapid.Check(t, func(t *rapid.T) {
		x := anyLength(t)
		step := rapid.SampledFrom(steps).Draw(t, "step")
		style := rapid.SampledFrom(styles).Draw(t, "style")
		text := x.Format(style, step)
		got, err := measure.Parse(
			text,
			measure.Reading{Unit: rapid.SampledFrom([]measure.Unit{measure.Inches, measure.Millimetres}).Draw(t, "unit")},
		)
		require.NoError(t, err, text)
		require.Equal(t, x.Round(step), got, text)
	})
}

func TestRoundHalvesUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := anyLength(t) - measure.FrameLimit/2
		step := measure.Length(rapid.Int64Range(1, int64(measure.Foot)).Draw(t, "step"))
		r := x.Round(step)
		require.Zero(t, r%step)
		require.LessOrEqual(t, 2*(x-r), step-1) // strictly less than half a step below x
		require.LessOrEqual(t, 2*(r-x), step)
		require.LessOrEqual(t, x.Floor(step), x)
	})
	assert.Equal(t, measure.Length(10), measure.Length(5).Round(10))
	assert.Equal(t, measure.Length(0), measure.Length(-5).Round(10))
}

func TestMoney(t *testing.T) {
	for text, want := range map[string]measure.Money{"4.98": 498, "$4.98": 498, "4": 400, "4.5": 450, "79c": 79, " $ 12 ": 1200, ".5": 50,
		".88": 88, "4,98": 498, "98¢": 98, "98 cents": 98, "1,299": 129_900, "1,299.00": 129_900, "1.299,00": 129_900, "€4,98": 498, "4.98 USD": 498,
		"4 dollars": 400, "4.98€": 498, "4.": 400} {
		got, err := measure.ParseMoney(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for _, bad := range []string{"", "$", "-3", "4.999", "four", "1e9", "99999999999", "4.5c", "−3", ".", "1,2,3", "1.2.3", "c", "4 98", "0x4", "NaN"} {
		_, err := measure.ParseMoney(bad)
		assert.Error(t, err, bad)
	}
	assert.Equal(t, "−$3.10", measure.Money(-310).String())
	assert.Equal(t, measure.Money(83), measure.Money(1000).Share(0.0825), "82.5 cents: the half goes up")
	assert.Equal(t, measure.Money(996), measure.Money(498).Times(2))
}

func TestVectors(t *testing.T) {
	a, b := measure.Point{0, 0, 0}, measure.Point{3 * measure.Inch, 4 * measure.Inch, 0}
	assert.Equal(t, 5*measure.Inch, a.Distance(b))
	assert.InDelta(t, 90, measure.X.Dir().AngleTo(measure.Z.Dir()), 1e-9)
	assert.InDelta(t, 180, measure.X.Dir().AngleTo(measure.X.Dir().Neg()), 1e-9)
	assert.Equal(t, b, a.Along(a.Toward(b), 5*measure.Inch))
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"23 5/8", "5'7", "60 cm", "1' - 2 1/2\"", "½½", "5//8", "'", "-", "5 ft 7/"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		l, err := measure.Parse(text, measure.Reading{})
		if err != nil {
			var pe *measure.ParseError
			require.ErrorAs(t, err, &pe)
			require.LessOrEqual(t, pe.At, len([]rune(text)))
			return
		}
		require.GreaterOrEqual(t, l, measure.Length(0))
		require.LessOrEqual(t, l, measure.FrameLimit)
		again, err := measure.Parse(l.Format(measure.InInches, 0), measure.Reading{})
		require.NoError(t, err)
		require.Equal(t, l, again)
	})
}

func TestParseDegrees(t *testing.T) {
	for text, want := range map[string]float64{"30": 30, "-7.5": -7.5, "−20°": -20, "0": 0} {
		got, ok := measure.ParseDegrees(text)
		assert.True(t, ok, text)
		assert.InDelta(t, want, got, 0, text)
	}
	for _, text := range []string{"", "°", "steep", "NaN", "Inf", "3 0"} {
		_, ok := measure.ParseDegrees(text)
		assert.False(t, ok, text)
	}
}
