package edit

import (
	"cmp"
	"errors"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// meaningWords is what people say for what a size measures.
var meaningWords = map[string]frame.Meaning{
	"centre": frame.Centre, "center": frame.Centre, "c-c": frame.Centre, "cc": frame.Centre, "c": frame.Centre,
	"outside": frame.Outside, "out": frame.Outside, "over": frame.Outside,
	"clear": frame.Clear, "inside": frame.Clear, "in-between": frame.Clear, "free": frame.Clear,
	"cut": frame.Cut, "long": frame.Cut, "piece": frame.Cut,
	"visible": frame.Visible, "bare": frame.Visible, "shows": frame.Visible,
	"slot": frame.Slot, "gap": frame.Slot,
	"top": frame.TopOfPipe, "high": frame.TopOfPipe, "top-of-pipe": frame.TopOfPipe, "cap": frame.TopOfCap, "top-of-cap": frame.TopOfCap,
}

// ParseSize reads a length with what it measures: "46 clear", "12 cut", "4 ft
// outside". Without a word it means what fallback says. The error is a
// [*Refusal].
func ParseSize(text string, unit measure.Unit, fallback frame.Meaning) (frame.Size, error) {
	d := frame.Size{Meaning: fallback, Text: strings.TrimSpace(text), Unit: unit}
	length := text
	if i := strings.LastIndexAny(strings.TrimRight(text, " "), " \t"); i >= 0 {
		if m, ok := meaningWords[strings.ToLower(strings.TrimSpace(text[i:]))]; ok {
			d.Meaning, length = m, text[:i]
		}
	}
	d.Text = strings.TrimSpace(length)
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
	if err == nil && d.Value == 0 && d.Meaning != frame.Visible && d.Meaning != frame.Slot {
		return d, refuse("write how long it is to be", "a size of no length")
	}
	if err == nil && given != "" && !slices.Contains(frame.Meanings(), given) {
		return d, refuse("use one of the meanings of a size", "no such meaning %q", given)
	}
	return d, err
}
