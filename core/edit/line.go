package edit

import (
	"fmt"
	"math"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
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

// word is a word of a line and its place there, in characters.
type word struct {
	text string
	at   int
}

// course reads a line from word to word.
type course struct {
	text  string
	words []word
	line  Line
}

// ParseLine reads "right 46 clear", "up right 12 cut" (at 45 degrees), "right up@30 4 ft"
// (30 degrees from right toward up), "right@20 4" (20 degrees up from right), "up 20 x3" (three
// times on end), "near 12 capped", "left to j4", "up level with j9", "right touching",
// "toward C", "along C 12 cut", "up 4 size 1". The error is a [*Refusal].
func ParseLine(text string) (Line, error) {
	c := course{text: text, words: wordsOf(text), line: Line{Times: 1}}
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
	}
	return l, nil
}

// wordsOf parts a text at its spaces. What stands in quotation marks is one word, and so is
// the name of a joint in a part: foot 1/j3.
func wordsOf(text string) (all []word) {
	at := 0
	for rest := text; rest != ""; {
		trimmed := strings.TrimLeft(rest, " \t")
		at += utf8.RuneCountInString(rest) - utf8.RuneCountInString(trimmed)
		if rest = trimmed; rest == "" {
			break
		}
		w, n := rest, len(rest)
		if inner, quoted := strings.CutPrefix(rest, `"`); quoted {
			if end := strings.IndexByte(inner, '"'); end > 0 && (end+2 == len(rest) || rest[end+2] == ' ' || rest[end+2] == ',') {
				w, n = inner[:end], end+2
				all = append(all, word{w, at})
				at += utf8.RuneCountInString(rest[:n])
				rest = rest[n:]
				continue
			}
		}
		if i := strings.IndexAny(rest, " \t"); i >= 0 {
			w, n = rest[:i], i
		}
		if k := len(all) - 1; k >= 0 && inPart.MatchString(w) {
			all[k].text += " " + w
		} else {
			all = append(all, word{w, at})
		}
		at += utf8.RuneCountInString(rest[:n])
		rest = rest[n:]
	}
	return all
}

// inPart is the second half of the name of a joint in a part: 1/j3 of foot 1/j3.
var inPart = regexp.MustCompile(`^\d+(#\d+)?/[^\s/0-9]`)

func (c *course) wrong(at int, hint, what string, args ...any) error {
	r := refuse(hint, what, args...)
	r.At = at
	return r
}

// next takes the first word, in lower case.
func (c *course) next() word {
	w := c.words[0]
	c.words = c.words[1:]
	return w
}

// name takes the word after a word that wants one.
func (c *course) name(after word, hint string) (word, error) {
	if len(c.words) == 0 {
		return word{}, c.wrong(after.at, hint, "%s what?", after.text)
	}
	w := c.next()
	w.text = strings.TrimRight(w.text, ",")
	return w, nil
}

// degrees reads an angle after an @.
func degrees(text string) (float64, bool) {
	v, err := strconv.ParseFloat(strings.Replace(strings.TrimSuffix(text, "°"), "−", "-", 1), 64)
	return v, err == nil && v > -90 && v < 90 && v != 0
}

// direction takes the words that say which way.
func (c *course) direction() error {
	var said []string
	var lean *float64
	for len(c.words) > 0 {
		w := c.words[0]
		name, angle, leans := strings.Cut(strings.ToLower(strings.TrimRight(w.text, ",")), "@")
		if (name == "toward" || name == "towards" || name == "along") && len(said) == 0 {
			return c.aimed()
		}
		if _, ok := compass[name]; !ok {
			break
		}
		if leans {
			v, ok := degrees(angle)
			if !ok || lean != nil {
				return c.wrong(
					w.at,
					"write right up@30 for 30 degrees from right toward up",
					"%q is not an angle between two directions",
					w.text,
				)
			}
			lean = &v
		}
		said = append(said, name)
		c.line.Way = strings.TrimSpace(c.line.Way + " " + strings.TrimRight(c.next().text, ","))
	}
	l := &c.line
	switch len(said) {
	case 0:
		return c.wrong(0, "begin with right, left, away, near, up or down, as in: right 46 clear", "no direction in %q", c.text)
	case 1:
		l.Dir, l.Words = compass[said[0]], said[0]
		if lean == nil {
			return nil
		}
		if l.Dir[measure.Z] != 0 {
			return c.wrong(0, "write "+said[0]+" right@20, or another side", "toward which side does it lean?")
		}
		said = append(said, "up")
	case 2:
	default:
		return c.wrong(0, "name one direction, or two for a slope between them", "%d directions at once", len(said))
	}
	p, q := compass[said[0]], compass[said[1]]
	if p.Dot(q) != 0 {
		return c.wrong(0, "name two directions that are square to each other", "%s and %s are one line", said[0], said[1])
	}
	s, k := 1.0, 1.0 // as whole as can be at 45 degrees
	l.Words = strings.Join(said, " ")
	if lean != nil && *lean != 45 {
		s, k = math.Sin(*lean*math.Pi/180), math.Cos(*lean*math.Pi/180)
		l.Words += fmt.Sprintf(" %g°", *lean)
	}
	for i := range l.Dir {
		l.Dir[i] = k*p[i] + s*q[i]
	}
	return nil
}

// aimed takes what a line runs along, or toward.
func (c *course) aimed() error {
	by := c.next()
	what, err := c.name(by, "name a joint or a pipe, as in toward C")
	if err != nil {
		return err
	}
	c.line.Words = strings.ToLower(by.text) + " " + what.text
	if strings.EqualFold(by.text, "along") {
		c.line.Along = what.text
	} else {
		c.line.Toward, c.line.at.mark = what.text, what.at
	}
	return nil
}

// rest takes what follows the direction.
func (c *course) rest() error {
	l := &c.line
	var long []string
	for len(c.words) > 0 {
		w := c.next()
		lower := strings.ToLower(strings.TrimRight(w.text, ","))
		var err error
		switch end, ends := endNames[lower]; {
		case lower == "to":
			err = c.goal(To, w)
		case lower == "level":
			if len(c.words) > 0 && strings.EqualFold(c.words[0].text, "with") {
				w = c.next()
			}
			err = c.goal(LevelWith, w)
		case lower == "touching":
			long, err = append(long, "0", "visible"), c.once(w, len(long) == 0)
		case lower == "size":
			err = c.size(w)
		case lower == "times":
			err = c.times(w)
		case ends:
			l.End = end
		case repeats.MatchString(lower) && l.Goal == NoGoal && len(long) > 0:
			l.Times, err = strconv.Atoi(lower[strings.IndexAny(lower, "0123456789"):])
			if err == nil && (l.Times < 1 || l.Times > 50) {
				err = c.wrong(w.at, "run 1 to 50 times", "%d times", l.Times)
			}
		case len(long) > 1 && isMeaning(long[len(long)-1]):
			err = c.wrong(
				w.at,
				"leave it out; after its length a line says capped, open or staked, size 1, or times 3",
				"%q says nothing here",
				w.text,
			)
		default:
			if len(long) == 0 {
				l.at.length = w.at
			}
			long = append(long, strings.TrimRight(w.text, ","))
		}
		if err != nil {
			return err
		}
	}
	l.Length = strings.Join(long, " ")
	if l.Goal != NoGoal && l.Length != "" {
		return c.wrong(
			l.at.length,
			fmt.Sprintf("leave one of them out: %s %s, or %s %s", l.Words, l.Length, l.Words, l.says()),
			"a length, and what it is to end at, at once",
		)
	}
	return nil
}

func isMeaning(word string) bool {
	_, m := frame.SplitMeaning(word)
	return m != ""
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

var repeats = regexp.MustCompile(`^[x×*]\d+$`)

func (c *course) once(w word, ok bool) error {
	if ok {
		return nil
	}
	return c.wrong(w.at, "say it once: right touching, or right 4 cut", "how long is it to be?")
}

func (c *course) goal(g Goal, w word) error {
	to, err := c.name(w, "name a joint, a pipe or a place, as in right to j7")
	if err != nil {
		return err
	}
	if c.line.Goal != NoGoal {
		return c.wrong(w.at, "name one of them", "two ends at once")
	}
	c.line.Goal, c.line.Mark, c.line.at.mark = g, to.text, to.at
	return nil
}

func (c *course) size(w word) error {
	of, err := c.name(w, "write a nominal size, as in size 3/4")
	if err != nil {
		return err
	}
	if c.line.Size = catalog.Size(strings.TrimSuffix(of.text, `"`)); !c.line.Size.Known() {
		return c.wrong(of.at, "use a nominal size such as 3/4", "no pipe size %q", of.text)
	}
	if len(c.words) > 0 && slices.Contains([]string{"in", "inch", "pipe"}, strings.ToLower(c.words[0].text)) {
		c.next()
	}
	return nil
}

func (c *course) times(w word) error {
	n, err := c.name(w, "write how many times, as in times 3")
	if err != nil {
		return err
	}
	k, bad := strconv.Atoi(n.text)
	if bad != nil || k < 1 || k > 50 {
		return c.wrong(n.at, "run 1 to 50 times", "%s times", n.text)
	}
	c.line.Times = k
	return nil
}

// MarkAt is the place in the text of what the line runs to, or toward, in characters.
func (l *Line) MarkAt() int { return l.at.mark }

// Text is the line as it is typed.
func (l *Line) Text() string {
	text := l.Way
	add := func(word string) { text += " " + word }
	switch {
	case l.Along != "":
		text = "along " + asWord(l.Along)
	case l.Toward != "":
		text = "toward " + asWord(l.Toward)
	}
	switch {
	case l.Goal == To:
		add("to " + asWord(l.Mark))
	case l.Goal == LevelWith:
		add("level with " + asWord(l.Mark))
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

// asWord writes a name so that it is read as one word.
func asWord(name string) string {
	if !strings.ContainsAny(name, " \t") || simple.MatchString(name) {
		return name
	}
	return `"` + name + `"`
}

var simple = regexp.MustCompile(`^[^\s"]+ \d+(#\d+)?/[^\s"/0-9][^\s"/]*$`)

// EndCalled is what a word says of the end of a pipe that nothing follows: capped.
func EndCalled(word string) (frame.End, bool) {
	end, ok := endNames[strings.ToLower(word)]
	return end, ok
}

// IsWay says whether a word is a direction.
func IsWay(word string) bool { _, ok := compass[strings.ToLower(word)]; return ok }

// NameOf is the name of a gesture in JSON.
func NameOf(g Gesture) string { return names[reflect.TypeOf(g)] }
