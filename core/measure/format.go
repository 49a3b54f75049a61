package measure

import (
	"fmt"
	"strconv"
	"strings"
)

// Style is a way to print a length.
type Style string

// The styles: 23 5/8", 1' 11 5/8", 23.625 in, 600 mm.
const (
	InInches   Style = "inches"
	FeetInches Style = "feet-inches"
	Decimal    Style = "decimal"
	Metric     Style = "metric"
)

// SixtyFourth is the finest fraction a tape shows; finer values are printed
// as decimals.
const SixtyFourth = Inch / 64

// Format prints the length rounded to step (halves up; zero means as it is).
// What cannot be written exactly in a style (a millimetre step in inches) is
// written in millimetres, so that reading it again gives the same length.
func (l Length) Format(style Style, step Length) string {
	l = l.Round(step)
	if l < 0 {
		return "-" + (-l).Format(style, 0)
	}
	switch style {
	case FeetInches:
		if s, ok := l.fraction(); ok {
			return s.feetInches()
		}
	case Decimal:
		if s, ok := l.decimal(Inch); ok {
			return s + " in"
		}
	case Metric:
	default:
		if s, ok := l.fraction(); ok {
			return s.String() + "\""
		}
		if s, ok := l.decimal(Inch); ok {
			return s + "\""
		}
	}
	s, _ := l.decimal(Millimetre)
	return s + " mm"
}

// Tape prints the length as a tape of a unit shows it: to the nearest 1/64 of
// an inch, or to the nearest tenth of a millimetre.
func (l Length) Tape(unit Unit) string {
	if unit == Millimetres {
		return l.Format(Metric, Millimetre/10)
	}
	return l.Format(InInches, SixtyFourth)
}

// Typed gives a length as its builder wrote it. A bare number of millimetres
// gets its unit, which inches go without; where nothing was written it is what
// a tape shows.
func (l Length) Typed(text string, unit Unit) string {
	if text == "" {
		return l.Tape(unit)
	}
	if unit != Millimetres {
		return text
	}
	in, err := Parse(text, Reading{Unit: Inches})
	if mm, err2 := Parse(text, Reading{Unit: Millimetres}); err == nil && err2 == nil && in == mm {
		return text
	}
	return text + " mm"
}

// String prints inches to the nearest 1/64, with a "≈" when that rounds.
func (l Length) String() string {
	r := l.Round(SixtyFourth)
	s := r.Format(InInches, 0)
	if r != l {
		return "≈ " + s
	}
	return s
}

// mixed is a length as whole inches and a reduced binary fraction.
type mixed struct{ whole, top, below int64 }

func (l Length) fraction() (mixed, bool) {
	if l%SixtyFourth != 0 {
		return mixed{}, false
	}
	m := mixed{whole: int64(l / Inch), top: int64(l % Inch / SixtyFourth), below: 64}
	for m.top%2 == 0 && m.below > 1 {
		m.top, m.below = m.top/2, m.below/2
	}
	return m, true
}

// String prints 23 5/8, 5/8 or 23.
func (m mixed) String() string {
	switch {
	case m.top == 0:
		return strconv.FormatInt(m.whole, 10)
	case m.whole == 0:
		return fmt.Sprintf("%d/%d", m.top, m.below)
	}
	return fmt.Sprintf("%d %d/%d", m.whole, m.top, m.below)
}

func (m mixed) feetInches() string {
	feet := m.whole / 12
	rest := mixed{m.whole % 12, m.top, m.below}
	switch {
	case feet == 0:
		return rest.String() + "\""
	case rest.whole == 0 && rest.top == 0:
		return fmt.Sprintf("%d'", feet)
	}
	return fmt.Sprintf("%d' %s\"", feet, rest)
}

// decimal prints the length in a unit with as many places as it takes, when
// ten are enough to be exact.
func (l Length) decimal(unit Length) (string, bool) {
	whole, rest := l/unit, l%unit
	s := strconv.FormatInt(int64(whole), 10)
	if rest == 0 {
		return s, true
	}
	var b strings.Builder
	for range 10 {
		rest *= 10
		b.WriteByte(byte('0' + rest/unit))
		rest %= unit
		if rest == 0 {
			return s + "." + b.String(), true
		}
	}
	return "", false
}

// ParseStep reads the step of a tape: 1/16, 1/32, 1 mm, 0.5mm.
func ParseStep(text string) (Length, error) {
	l, err := Parse(text, Reading{Limit: Foot})
	if err == nil && l <= 0 {
		err = &ParseError{Text: text, What: "a step of nothing", Hint: "write it like 1/16 or 1 mm"}
	}
	return l, err
}
