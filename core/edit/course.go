package edit

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
)

// course reads a line from word to word.
type course struct {
	text  string
	words []words.Word
	line  Line
}

func (c *course) wrong(at int, hint, what string, args ...any) error {
	r := refuse(hint, what, args...)
	r.At = at
	return r
}

// next takes the first word.
func (c *course) next() words.Word {
	w := c.words[0]
	c.words = c.words[1:]
	return w
}

// name takes the word after a word that wants one.
func (c *course) name(after words.Word, hint string) (words.Word, error) {
	if len(c.words) == 0 {
		return words.Word{}, c.wrong(after.At, hint, "%s what?", after.Text)
	}
	w := c.next()
	w.Text = w.Trimmed()
	return w, nil
}

// direction takes the words that say which way.
func (c *course) direction() error {
	var said []string
	var lean *float64
	for len(c.words) > 0 {
		w := c.words[0]
		name, angle, leans := strings.Cut(strings.ToLower(strings.TrimRight(w.Text, ",")), "@")
		if (name == "toward" || name == "towards" || name == "along") && len(said) == 0 {
			return c.aimed()
		}
		if _, ok := compass[name]; !ok {
			break
		}
		if leans {
			v, ok := measure.ParseDegrees(angle)
			if !ok || math.Abs(v) >= 90 || v == 0 || lean != nil {
				return c.wrong(
					w.At,
					"write right up@30 for 30 degrees from right toward up",
					"%q is not an angle between two directions",
					w.Text,
				)
			}
			lean = &v
		}
		said = append(said, name)
		c.line.Way = strings.TrimSpace(c.line.Way + " " + strings.TrimRight(c.next().Text, ","))
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
	c.line.Words = strings.ToLower(by.Text) + " " + what.Text
	if strings.EqualFold(by.Text, "along") {
		c.line.Along = what.Text
	} else {
		c.line.Toward, c.line.at.mark = what.Text, what.At
	}
	return nil
}

// rest takes what follows the direction.
func (c *course) rest() error {
	l := &c.line
	var long []string
	for len(c.words) > 0 {
		w := c.next()
		lower := strings.ToLower(strings.TrimRight(w.Text, ","))
		var err error
		switch end, ends := endNames[lower]; {
		case lower == "to":
			err = c.goal(To, w)
		case lower == "level":
			if len(c.words) > 0 && strings.EqualFold(c.words[0].Text, "with") {
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
			err = c.repeated(w, strings.TrimLeft(lower, "x×*"))
		case len(long) > 1 && isMeaning(long[len(long)-1]):
			err = c.wrong(
				w.At,
				"leave it out; after its length a line says capped, open or staked, size 1, or times 3",
				"%q says nothing here",
				w.Text,
			)
		default:
			if len(long) == 0 {
				l.at.length = w.At
			}
			long = append(long, strings.TrimRight(w.Text, ","))
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

var repeats = regexp.MustCompile(`^[x×*]\d+$`)

func (c *course) once(w words.Word, ok bool) error {
	if ok {
		return nil
	}
	return c.wrong(w.At, "say it once: right touching, or right 4 cut", "how long is it to be?")
}

func (c *course) goal(g Goal, w words.Word) error {
	to, err := c.name(w, "name a joint, a pipe or a place, as in right to j7")
	if err != nil {
		return err
	}
	if c.line.Goal != NoGoal {
		return c.wrong(w.At, "name one of them", "two ends at once")
	}
	c.line.Goal, c.line.Mark, c.line.at.mark = g, to.Text, to.At
	return nil
}

func (c *course) size(w words.Word) error {
	of, err := c.name(w, "write a nominal size, as in size 3/4")
	if err != nil {
		return err
	}
	if c.line.Size = catalog.Size(strings.TrimSuffix(of.Text, `"`)); !c.line.Size.Known() {
		return c.wrong(of.At, "use a nominal size such as 3/4", "no pipe size %q", of.Text)
	}
	if len(c.words) > 0 && slices.Contains([]string{"in", "inch", "pipe"}, strings.ToLower(c.words[0].Text)) {
		c.next()
	}
	return nil
}

func (c *course) times(w words.Word) error {
	n, err := c.name(w, "write how many times, as in times 3")
	if err != nil {
		return err
	}
	return c.repeated(n, n.Text)
}

func (c *course) repeated(w words.Word, count string) error {
	k, err := strconv.Atoi(count)
	if err != nil || k < 1 || k > 50 {
		return c.wrong(w.At, "run 1 to 50 times", "%s times", count)
	}
	c.line.Times = k
	return nil
}
