package edit

import (
	"cmp"
	"errors"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// ParseSize reads a length with what it measures: "46 clear", "12 cut", "4 ft
// outside". Without a word it means what fallback says. The error is a
// [*Refusal].
func ParseSize(text string, unit measure.Unit, fallback frame.Meaning) (frame.Size, error) {
	length, m := frame.SplitMeaning(text)
	d := frame.Size{Meaning: cmp.Or(m, fallback), Text: length, Unit: unit}
	l, err := measure.Parse(length, measure.Reading{Unit: unit})
	var pe *measure.ParseError
	if errors.As(err, &pe) {
		return d, &Refusal{What: pe.What, Hint: pe.Hint, At: pe.At}
	}
	if err != nil {
		return d, err
	}
	d.Value = l
	return d, nil
}

// size reads a typed length; with no meaning said it is centre to centre.
func (e *editor) size(text string, given frame.Meaning) (frame.Size, error) {
	if strings.TrimSpace(text) == "" {
		return frame.Size{}, refuse("write how long, as in 46 clear or 12 cut", "no length")
	}
	d, err := ParseSize(text, e.unit, cmp.Or(given, frame.Centre))
	_, said := frame.SplitMeaning(text)
	if err == nil && d.Value == 0 && d.Meaning != frame.Visible && d.Meaning != frame.Slot && said != frame.Centre {
		return d, refuse("write how long it is to be", "a size of no length")
	}
	if err == nil && given != "" && !slices.Contains(frame.Meanings(), given) {
		return d, refuse("use one of the meanings of a size", "no such meaning %q", given)
	}
	return d, err
}
