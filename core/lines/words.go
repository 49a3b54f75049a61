package lines

import (
	"fmt"
	"regexp"
	"strings"
	"unicode/utf8"

	"sturdyelbow/core/edit"
)

// word is a word of a line; at is its place in the text in characters, from and to in bytes.
type word struct {
	text     string
	at       int
	from, to int
	quoted   bool
}

func (w word) is(text string) bool { return !w.quoted && strings.EqualFold(w.text, text) }

// trimmed is the word without the comma or colon after it.
func (w word) trimmed() string {
	if w.quoted {
		return w.text
	}
	return strings.TrimRight(w.text, ",;:")
}

// wordsOf parts a text at its spaces. What stands in quotation marks is one word, and so is the
// name of a joint in a part: foot 1/j3.
func wordsOf(text string) (all []word) {
	for i := 0; i < len(text); {
		if text[i] == ' ' || text[i] == '\t' {
			i++
			continue
		}
		from, to, quoted := i, 0, false
		if text[i] == '"' {
			if end := strings.IndexByte(text[i+1:], '"'); end >= 0 {
				to, quoted = i+1+end+1, true
			}
		}
		if !quoted {
			if to = strings.IndexAny(text[i:], " \t"); to < 0 {
				to = len(text)
			} else {
				to += i
			}
		}
		w := word{text: text[from:to], at: utf8.RuneCountInString(text[:from]), from: from, to: to, quoted: quoted}
		if quoted {
			w.text = text[from+1 : to-1]
		}
		i = to
		if k := len(all) - 1; k >= 0 && !quoted && !all[k].quoted && inPart.MatchString(w.text) {
			all[k].text, all[k].to = all[k].text+" "+w.text, to
			continue
		}
		all = append(all, w)
	}
	return all
}

// inPart is the second half of the name of what is in a part: 1/j3 of foot 1/j3.
var inPart = regexp.MustCompile(`^\d+(#\d+)?/[^\s/0-9]`)

// plain is a name that needs no quotation marks, of a part and of what is in one.
var (
	plain     = regexp.MustCompile(`^[^\s"()]+( \d+(#\d+)?/[^\s"/()0-9][^\s"/()]*)?$`)
	plainPart = regexp.MustCompile(`^[^\s"()]+( \d+(#\d+)?)?$`)
)

// unsayable stands for a name that no line can hold.
const unsayable = "\x00"

func quote(name string, as *regexp.Regexp) string {
	if strings.Contains(name, `"`) {
		return unsayable
	}
	if as.MatchString(name) {
		return name
	}
	return `"` + name + `"`
}

// wrong is a refusal at a place of the line.
func wrong(at int, hint, what string, args ...any) *edit.Refusal {
	return &edit.Refusal{What: fmt.Sprintf(what, args...), Hint: hint, At: at}
}

// parted is a line with its comment and its answers apart.
type parted struct {
	said    string
	answers []string
	comment string // with the # that begins it
	numbers string // what stands after #:
}

// part parts a line. A # begins a comment where nothing, or a space, stands before it.
func part(text string) (p parted) {
	p.said = text
	for i := 0; i < len(text); i++ {
		if text[i] == '#' && (i == 0 || text[i-1] == ' ' || text[i-1] == '\t') {
			p.said, p.comment = text[:i], strings.TrimSpace(text[i:])
			break
		}
	}
	if said, numbers, ok := strings.Cut(p.comment, "#:"); ok {
		p.comment, p.numbers = strings.TrimSpace(said), strings.TrimSpace(numbers)
	}
	for {
		m := answer.FindStringSubmatch(p.said)
		if m == nil {
			break
		}
		p.said = m[1]
		p.answers = append([]string{strings.TrimSpace(m[2])}, p.answers...)
	}
	return p
}

var answer = regexp.MustCompile(`^(.*\S)\s*\(([^()]*)\)\s*$`)
