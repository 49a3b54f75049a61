package measure

import (
	"fmt"
	"math/big"
	"strings"
	"unicode/utf8"
)

// Unit is what a bare number means, and how lengths are shown by default.
type Unit string

// The units a frame can be planned in.
const (
	Inches      Unit = "in"
	Millimetres Unit = "mm"
)

// Reading says how [Parse] takes a text.
type Reading struct {
	Unit  Unit   // of a bare number; inches when empty
	Limit Length // greatest length accepted; FrameLimit when zero
}

// ParseError says what could not be read, where, and how to mend it.
type ParseError struct {
	Text string `json:"text"`
	At   int    `json:"at"` // position in Text, in characters, from 0
	What string `json:"what"`
	Hint string `json:"hint"`
}

func (e *ParseError) Error() string {
	return fmt.Sprintf("%q, character %d: %s; %s", e.Text, e.At+1, e.What, e.Hint)
}

// unitOf knows every spelling of a unit, lower case. The system keeps feet
// from fighting with millimetres.
var unitOf = func() map[string]unitWord {
	m := map[string]unitWord{}
	for _, u := range []unitWord{
		{"yd yds yard yards", Yard, 'i'},
		{"' ft foot feet", Foot, 'i'},
		{"\" in inch inches", Inch, 'i'},
		{"m metre metres meter meters", Metre, 'm'},
		{"cm centimetre centimetres centimeter centimeters", Centimetre, 'm'},
		{"mm millimetre millimetres millimeter millimeters", Millimetre, 'm'},
	} {
		for w := range strings.FieldsSeq(u.words) {
			m[w] = u
		}
	}
	return m
}()

type unitWord struct {
	words  string
	size   Length
	system byte
}

// Parse reads a length as people write it: 23 5/8, 23-5/8", 23.625 in,
// 1' 11 5/8", 5ft, 5'7, 2 1/2 feet, 600mm, 60 cm, with typographic quotes and
// fraction characters. A bare number is in the reading's unit; after feet it
// is inches. The result is exact to the nanometre. The error is a *[ParseError].
func Parse(text string, r Reading) (Length, error) {
	p := &parser{text: text, reading: r}
	if p.reading.Unit == "" {
		p.reading.Unit = Inches
	}
	if p.reading.Limit == 0 {
		p.reading.Limit = FrameLimit
	}
	if utf8.RuneCountInString(text) > 120 {
		return 0, p.fail(0, "too long to be one length", "write one length, like 23 5/8")
	}
	if err := p.scan(); err != nil {
		return 0, err
	}
	return p.sum()
}

type token struct {
	kind  byte // 'n' number, '/' slash, '-' dash, 'u' unit
	at    int
	num   *big.Rat
	whole bool // digits only
	frac  bool // a fraction character such as ½
	unit  unitWord
	word  string
	gap   bool // white space before it
}

type parser struct {
	text    string
	reading Reading
	toks    []token
}

func (p *parser) fail(at int, what, hint string) error {
	return &ParseError{Text: p.text, At: at, What: what, Hint: hint}
}

// fractionChars are the vulgar fractions of Unicode that a tape can show.
var fractionChars = map[rune]string{
	'½': "1/2", '⅓': "1/3", '⅔': "2/3", '¼': "1/4", '¾': "3/4", '⅕': "1/5", '⅖': "2/5", '⅗': "3/5",
	'⅘': "4/5", '⅙': "1/6", '⅚': "5/6", '⅛': "1/8", '⅜': "3/8", '⅝': "5/8", '⅞': "7/8",
}

const superDigits, subDigits = "⁰¹²³⁴⁵⁶⁷⁸⁹", "₀₁₂₃₄₅₆₇₈₉"

// plain folds typographic characters to the ones the scanner knows.
func plain(c rune) rune {
	switch c {
	case '’', '‘', '′', '`', '´', 'ʹ':
		return '\''
	case '”', '“', '″', '„', 'ʺ':
		return '"'
	case '⁄', '∕', '÷':
		return '/'
	case '–', '—', '‐', '‑', '−':
		return '-'
	case '\u00a0', '\u2009', '\u202f', '\u200a', '\u2002', '\u2003', '\t', '\n', '\r':
		return ' '
	}
	for i, d := range []rune(superDigits) {
		if c == d {
			return rune('0' + i)
		}
	}
	for i, d := range []rune(subDigits) {
		if c == d {
			return rune('0' + i)
		}
	}
	return c
}

func (p *parser) scan() error {
	raw := []rune(p.text)
	cs := make([]rune, len(raw))
	for i, c := range raw {
		cs[i] = plain(c)
	}
	gap := false
	for i := 0; i < len(cs); {
		c := cs[i]
		start := i
		switch {
		case c == ' ':
			gap = true
			i++
			continue
		case fractionChars[c] != "":
			n, _ := new(big.Rat).SetString(fractionChars[c])
			p.toks = append(p.toks, token{kind: 'n', at: i, num: n, frac: true, gap: gap})
			i++
		case c >= '0' && c <= '9' || c == '.' || c == ',':
			for i < len(cs) && (cs[i] >= '0' && cs[i] <= '9' || cs[i] == '.' || cs[i] == ',') {
				i++
			}
			t, err := p.number(string(cs[start:i]), start)
			if err != nil {
				return err
			}
			t.gap = gap
			p.toks = append(p.toks, t)
		case c == '/' || c == '-':
			p.toks = append(p.toks, token{kind: byte(c), at: i, gap: gap})
			i++
		case c == '\'' || c == '"':
			w := string(c)
			i++
			if c == '\'' && i < len(cs) && cs[i] == '\'' { // two feet marks make an inch mark
				w, i = "\"", i+1
			}
			p.toks = append(p.toks, token{kind: 'u', at: start, unit: unitOf[w], word: w, gap: gap})
		case isLetter(c):
			for i < len(cs) && isLetter(cs[i]) {
				i++
			}
			w := strings.ToLower(string(cs[start:i]))
			if i < len(cs) && cs[i] == '.' && (i+1 == len(cs) || cs[i+1] == ' ') {
				i++ // the point of an abbreviation: 5 ft. 7 in.
			}
			u, ok := unitOf[w]
			switch {
			case w == "x" || w == "by":
				return p.fail(start, "more than one length", "write each length in its own field")
			case !ok:
				return p.fail(start, fmt.Sprintf("%q is not a unit", w), "use in, ft, mm, cm or m")
			}
			p.toks = append(p.toks, token{kind: 'u', at: start, unit: u, word: w, gap: gap})
		default:
			return p.fail(start, fmt.Sprintf("%q has no place in a length", string(raw[i])), "write it like 23 5/8 or 600 mm")
		}
		gap = false
	}
	return nil
}

func isLetter(c rune) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }

func (p *parser) number(s string, at int) (token, error) {
	t := token{kind: 'n', at: at, word: s}
	if i := strings.IndexByte(s, ','); i >= 0 {
		if strings.Count(s, ",")+strings.Count(s, ".") > 1 || len(s)-i-1 == 3 {
			return t, p.fail(at+i, "the comma can be read two ways", "leave it out of thousands, or use a point for decimals")
		}
		s = strings.Replace(s, ",", ".", 1)
	}
	if strings.Count(s, ".") > 1 || s == "." {
		return t, p.fail(at, fmt.Sprintf("%q is not a number", s), "write it like 23.625")
	}
	t.whole = !strings.Contains(s, ".")
	t.num, _ = new(big.Rat).SetString(s)
	if t.num == nil {
		return t, p.fail(at, fmt.Sprintf("%q is not a number", s), "write it like 23.625")
	}
	return t, nil
}
