package edit

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// compass is the words for the six square directions and their letters.
var compass = map[string]measure.Dir{
	"right": {1, 0, 0}, "left": {-1, 0, 0}, "away": {0, 1, 0}, "near": {0, -1, 0}, "up": {0, 0, 1}, "down": {0, 0, -1},
	"r": {1, 0, 0}, "l": {-1, 0, 0}, "a": {0, 1, 0}, "n": {0, -1, 0}, "u": {0, 0, 1}, "d": {0, 0, -1},
	"back": {0, 1, 0}, "front": {0, -1, 0},
}

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

// endNames is what people say for the end of a pipe that nothing follows.
var endNames = map[string]frame.End{"capped": frame.CappedEnd, "staked": frame.StakedEnd, "open": frame.FreeEnd}

// ParsedLine is a typed line of a walk.
type ParsedLine struct {
	Dir   measure.Dir // in the axes that are walked on; not of length one
	Words string      // the direction as it is said
	Rest  string      // what follows it
	Times int
	End   frame.End // what is at the far end
}

// ParseLine reads "right 46 clear", "up right 12 cut" (at 45 degrees),
// "right up@30 4 ft" (30 degrees from right toward up), "up 20 x3" (three
// times on end), "near 12 capped". The error is a [*Refusal].
func ParseLine(text string) (ParsedLine, error) {
	c := ParsedLine{Times: 1}
	rest := strings.TrimSpace(text)
	var said []string
	lean := 45.0
	for {
		word, after, _ := strings.Cut(rest, " ")
		name, angle, leans := strings.Cut(strings.ToLower(strings.TrimRight(word, ",")), "@")
		if _, ok := compass[name]; !ok {
			break
		}
		if leans {
			v, err := strconv.ParseFloat(strings.TrimSuffix(angle, "°"), 64)
			if err != nil || len(said) == 0 || !(v > 0 && v < 90) {
				return c, &Refusal{
					What: fmt.Sprintf("%q is not an angle between two directions", word),
					Hint: "write right up@30 for 30 degrees from right toward up",
					At:   strings.Index(text, word),
				}
			}
			lean = v
		}
		said, rest = append(said, name), strings.TrimSpace(after)
	}
	switch len(said) {
	case 0:
		return c, refuse("begin with right, left, away, near, up or down, as in: right 46 clear", "no direction in %q", text)
	case 1:
		c.Dir = compass[said[0]]
	case 2:
		p, q := compass[said[0]], compass[said[1]]
		if p.Dot(q) != 0 {
			return c, refuse("name two directions that are square to each other", "%s and %s are one line", said[0], said[1])
		}
		s, k := math.Sin(lean*math.Pi/180), math.Cos(lean*math.Pi/180)
		if lean == 45 { // as whole as can be
			s, k = 1, 1
		}
		for i := range c.Dir {
			c.Dir[i] = k*p[i] + s*q[i]
		}
	default:
		return c, refuse("name one direction, or two for a slope between them", "%d directions at once", len(said))
	}
	c.Words = strings.Join(said, " ")
	if lean != 45 {
		c.Words += fmt.Sprintf(" %g°", lean)
	}
	fields := strings.Fields(rest)
	if n := len(fields); n > 1 {
		if end, ok := endNames[strings.ToLower(fields[n-1])]; ok {
			c.End, fields = end, fields[:n-1]
			rest = strings.Join(fields, " ")
		}
	}
	if n := len(fields); n > 1 {
		if times, err := strconv.Atoi(strings.TrimLeft(fields[n-1], "x×*")); err == nil && strings.ContainsAny(fields[n-1][:1], "xX*") ||
			strings.HasPrefix(fields[n-1], "×") && err == nil {
			if times < 1 || times > 50 {
				return c, refuse("walk 1 to 50 times", "%d times", times)
			}
			c.Times, rest = times, strings.Join(fields[:n-1], " ")
		}
	}
	c.Rest = rest
	return c, nil
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
