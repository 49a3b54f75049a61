package edit

import (
	"fmt"
	"reflect"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
)

// compass is the words for the six square directions and their letters.
var compass = map[string]measure.Dir{
	"right": {1, 0, 0}, "left": {-1, 0, 0}, "away": {0, 1, 0}, "near": {0, -1, 0}, "up": {0, 0, 1}, "down": {0, 0, -1},
	"r": {1, 0, 0}, "l": {-1, 0, 0}, "a": {0, 1, 0}, "n": {0, -1, 0}, "u": {0, 0, 1}, "d": {0, 0, -1},
	"back": {0, 1, 0}, "front": {0, -1, 0},
}

// endNames is what people say for the end of a pipe that nothing follows.
var endNames = map[string]frame.End{
	"capped": frame.CappedEnd, "staked": frame.StakedEnd, "open": frame.FreeEnd,
}

// Goal is what a line runs to instead of having a length.
type Goal string

// The goals.
const (
	NoGoal    Goal = ""
	To        Goal = "to"    // a joint that it meets or comes level with, a place of the rulers, or a pipe
	LevelWith Goal = "level" // a joint or a place that its end is level with, and never joins
)

// Line is a typed line of a walk: a direction, then a length or a goal, then what more there is to say.
type Line struct {
	Dir    measure.Dir  // in the axes that are walked on; not of length one, and zero with Along or Toward
	Along  string       // instead of a direction: the pipe that it runs along
	Toward string       // instead of a direction: the joint or the pipe that it runs toward
	Way    string       // the direction as it was typed: right up@30
	Words  string       // the direction as it is said: right up 30°
	Length string       // how long, with what that measures
	Goal   Goal         // instead of a length
	Mark   string       // with a goal: what it runs to
	Size   catalog.Size // of the new pipe
	Times  int
	End    frame.End // what is at the far end

	at struct{ length, mark int } // their places in the text, in characters
}

// ParseLine reads "right 46 clear", "up right 12 cut" (at 45 degrees), "right up@30 4 ft"
// (30 degrees from right toward up), "right@20 4" (20 degrees up from right), "up 20 x3" (three
// times on end), "near 12 capped", "left to j4", "up level with j9", "right touching",
// "toward C", "along C 12 cut", "up 4 size 1". The error is a [*Refusal].
func ParseLine(text string) (Line, error) {
	c := course{text: text, words: words.Of(text), line: Line{Times: 1}}
	if err := c.direction(); err != nil {
		return c.line, err
	}
	return c.line, c.rest()
}

// plainLine reads a line that has a direction of its own and a length at most.
func plainLine(text string) (Line, error) {
	l, err := ParseLine(text)
	switch {
	case err != nil:
		return l, err
	case l.Along+l.Toward != "" || l.Goal != NoGoal:
		return l, refuse("write a direction and a length, as in right 24", "%q leads to something else", strings.TrimSpace(text))
	case l.Times > 1:
		return l, refuse("say it once", "%q runs several times", strings.TrimSpace(text))
	case l.Size != "" || l.End != frame.OpenEnd:
		return l, refuse("write a direction and a length alone, as in right 24", "no size and no end belong to %q", strings.TrimSpace(text))
	}
	return l, nil
}

// says is the goal as it is said.
func (l *Line) says() string {
	switch l.Goal {
	case To:
		return "to " + l.Mark
	case LevelWith:
		return "level with " + l.Mark
	}
	return l.Length
}

// MarkAt is the place in the text of what the line runs to, or toward, in characters.
func (l *Line) MarkAt() int { return l.at.mark }

// Text is the line as it is typed.
func (l *Line) Text() string {
	text := l.Way
	add := func(word string) { text += " " + word }
	switch {
	case l.Along != "":
		text = "along " + words.Quote(l.Along)
	case l.Toward != "":
		text = "toward " + words.Quote(l.Toward)
	}
	switch {
	case l.Goal == To:
		add("to " + words.Quote(l.Mark))
	case l.Goal == LevelWith:
		add("level with " + words.Quote(l.Mark))
	case l.Length == "0 visible":
		add("touching")
	case l.Length != "":
		add(l.Length)
	}
	if l.Size != "" {
		add("size " + string(l.Size))
	}
	if l.Times > 1 {
		add(fmt.Sprintf("times %d", l.Times))
	}
	for said, end := range endNames {
		if end == l.End && end != frame.OpenEnd {
			add(said)
		}
	}
	return text
}

// EndCalled is what a word says of the end of a pipe that nothing follows: capped.
func EndCalled(word string) (frame.End, bool) {
	end, ok := endNames[strings.ToLower(word)]
	return end, ok
}

// IsWay says whether a word is a direction.
func IsWay(word string) bool { _, ok := compass[strings.ToLower(word)]; return ok }

// NameOf is the name of a gesture in JSON.
func NameOf(g Gesture) string { return names[reflect.TypeOf(g)] }
