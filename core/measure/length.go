package measure

import "math"

// Length is an exact length in nanometres. In JSON it is that whole number.
type Length int64

// The units a length is written in. Source: the international inch of 1959
// is 25.4 mm exactly.
const (
	Nanometre  Length = 1
	Micrometre        = 1000 * Nanometre // what rounding may leave between two lengths that are one
	Millimetre Length = 1_000_000
	Centimetre        = 10 * Millimetre
	Metre             = 1000 * Millimetre
	Inch       Length = 25_400_000
	Foot              = 12 * Inch
	Yard              = 3 * Foot
)

// FrameLimit is the greatest frame dimension that [Parse] accepts by default.
const FrameLimit = 1000 * Foot

// FromInches gives the length nearest to a number of inches.
func FromInches(in float64) Length { return Length(math.Round(in * float64(Inch))) }

// Inches gives the length as a number of inches, for drawing and for open
// formats; arithmetic stays in Length.
func (l Length) Inches() float64 { return float64(l) / float64(Inch) }

// Millimetres gives the length as a number of millimetres.
func (l Length) Millimetres() float64 { return float64(l) / float64(Millimetre) }

// Feet gives the length as a number of feet.
func (l Length) Feet() float64 { return float64(l) / float64(Foot) }

// Scale multiplies by a pure number and rounds to the nanometre.
func (l Length) Scale(by float64) Length { return Length(math.Round(float64(l) * by)) }

// Half is half the length, halves of a nanometre up.
func (l Length) Half() Length { return (l + 1) >> 1 }

// Abs is the length without its sign.
func (l Length) Abs() Length {
	if l < 0 {
		return -l
	}
	return l
}

// Round gives the nearest multiple of step, halves up (toward +∞). A step of
// zero or less returns the length unchanged.
func (l Length) Round(step Length) Length {
	if step <= 0 {
		return l
	}
	return floorDiv(2*l+step, 2*step) * step
}

// Floor gives the greatest multiple of step that is not above the length.
func (l Length) Floor(step Length) Length {
	if step <= 0 {
		return l
	}
	return floorDiv(l, step) * step
}

func floorDiv(a, b Length) Length {
	q := a / b
	if a%b != 0 && (a < 0) != (b < 0) {
		q--
	}
	return q
}
