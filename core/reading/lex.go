package reading

import (
	"regexp"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// mostOf is how many of one thing a list may have.
const mostOf = 99_999

type tokenKind int

const (
	tNumber tokenKind = iota
	tName
	tWord
	tBreak // a comma, a semicolon, and
	tTimes // x, ×, @, at
)

type token struct {
	kind  tokenKind
	at    int
	end   int
	text  string
	value measure.Length // of a number, in its unit
	unit  bool           // it has a unit
	feet  bool
	whole int          // of a bare whole number
	loose bool         // written as whole and fraction with a space between
	parts [2]string    // of a loose one
	bad   bool         // digits that make no number, or too large a one
	name  *name        // of a name
	size  catalog.Size // the nominal size that a number reads as
}

var (
	numberRE = regexp.MustCompile(`^(\d+)(?:-(\d+/\d+)| (\d+/\d+)|(/\d+)|(\.\d+))?`)
	unitRE   = regexp.MustCompile(`^[- ]?(?:(inches|inch|in\b\.?|"|'')|(feet|foot|ft\b\.?|')|(mm\b)|(cm\b)|(metres?\b|meters?\b|m\b))`)
	wordRE   = regexp.MustCompile(`^[\pL'#°]+`)
	plainer  = strings.NewReplacer(
		"″", `"`, "”", `"`, "“", `"`, "′", "'", "’", "'", "‘", "'",
		"½", " 1/2", "¼", " 1/4", "¾", " 3/4", "⅜", " 3/8", "⅝", " 5/8", "⅛", " 1/8", "⅞", " 7/8",
		"–", "-", "—", "-", "×", "x", "⁄", "/", "\t", ",",
	)
)

// lex cuts a line, in small letters and plain signs, into what it is made of.
func lex(s string) (all []token) {
	for i := 0; i < len(s); {
		rest := s[i:]
		starts := i == 0 || !isWord(s[i-1])
		if t, ok := nameAt(rest, starts); ok {
			t.at, t.end = i, i+len(t.text)
			all = append(all, t)
			i = t.end
			continue
		}
		if m := numberRE.FindStringSubmatch(rest); m != nil {
			t := number(m)
			n := len(m[0])
			if u := unitRE.FindStringSubmatch(rest[n:]); u != nil {
				t.unit = true
				t.feet = u[2] != ""
				t.value = scaled(t.value, u)
				n += len(u[0])
			}
			t.at, t.end, t.text = i, i+n, rest[:n]
			if k := len(all) - 1; t.unit && !t.feet && k >= 0 && all[k].kind == tNumber && all[k].feet && t.value < measure.Foot &&
				(t.size == "" || t.value >= 2*measure.Inch && strings.HasSuffix(all[k].text, "'")) &&
				strings.TrimSpace(s[all[k].end:i]) == "" {
				all[k].value, all[k].end = all[k].value+t.value, t.end // 5' 6"
			} else {
				all = append(all, t)
			}
			i += n
			continue
		}
		if w := wordRE.FindString(rest); w != "" {
			t := token{kind: tWord, at: i, end: i + len(w), text: w}
			switch n, is := measure.NumberWord(w); {
			case w == "and" || w == "plus":
				t.kind = tBreak
			case w == "x" || w == "at":
				t.kind = tTimes
			case is:
				t.kind, t.whole, t.value = tNumber, n, measure.Inch*measure.Length(n)
				if k := len(all) - 1; w == "dozen" && k >= 0 && all[k].kind == tNumber && !all[k].unit && all[k].whole > 0 {
					all[k].whole *= 12
					i += len(w)
					continue
				}
				if u := unitRE.FindStringSubmatch(s[t.end:]); u != nil { // ten foot
					t.unit, t.feet, t.value = true, u[2] != "", scaled(t.value, u)
					t.end += len(u[0])
					t.whole = 0
					t.size, _ = catalog.NominalOf(t.value)
				}
			}
			all = append(all, t)
			i = t.end
			continue
		}
		switch c := rest[0]; c {
		case ',', ';', '&', '|', '+':
			all = append(all, token{kind: tBreak, at: i, end: i + 1, text: string(c)})
		case '@', '*':
			all = append(all, token{kind: tTimes, at: i, end: i + 1, text: string(c)})
		case '.':
			if strings.HasPrefix(rest, ". ") {
				all = append(all, token{kind: tBreak, at: i, end: i + 1, text: "."})
			}
		}
		i++
	}
	return all
}

func isWord(c byte) bool { return c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '/' }

func nameAt(rest string, starts bool) (token, bool) {
	if !starts {
		return token{}, false
	}
	for i := range names {
		m := names[i].re.FindString(rest)
		if m == "" || len(m) < len(rest) && isWord(m[len(m)-1]) && isWord(rest[len(m)]) {
			continue
		}
		return token{kind: tName, text: m, name: &names[i]}, true
	}
	return token{}, false
}

// number reads the digits of a number; its value is in inches until a unit is
// seen.
func number(m []string) token {
	t := token{kind: tNumber}
	text := m[1]
	switch {
	case m[2] != "":
		text += " " + m[2]
	case m[3] != "":
		text += " " + m[3]
		t.loose, t.parts = true, [2]string{m[1], m[3]}
	case m[4] != "":
		text += m[4]
	case m[5] != "":
		text += m[5]
	default:
		n, err := strconv.Atoi(m[1])
		t.bad = err != nil || n > mostOf
		t.whole = min(n, mostOf)
	}
	value, err := measure.Parse(text, measure.Reading{})
	t.value = value
	t.bad = t.bad || err != nil
	t.size, _ = catalog.NominalOf(t.value)
	return t
}

func scaled(inches measure.Length, unit []string) measure.Length {
	per := measure.Inch
	switch {
	case unit[2] != "":
		per = measure.Foot
	case unit[3] != "":
		per = measure.Millimetre
	case unit[4] != "":
		per = 10 * measure.Millimetre
	case unit[5] != "":
		per = 1000 * measure.Millimetre
	}
	return inches.Scale(float64(per) / float64(measure.Inch))
}
