// Package words answers: of which words is a line that was typed, and how is a name written so that
// it is read as one of them?
//
// Words stand between spaces. What is in quotation marks is one word, and so is the name of what is
// in a part: foot 1/j3.
package words

import (
	"regexp"
	"strings"
	"unicode/utf8"
)

// Word is a word of a line.
type Word struct {
	Text     string // without its quotation marks
	At       int    // its place in the line, in characters
	From, To int    // the same in bytes, with its quotation marks
	Quoted   bool
}

// Is says whether the word is a word of the language, in whatever case; a quoted one never is.
func (w Word) Is(text string) bool { return !w.Quoted && strings.EqualFold(w.Text, text) }

// Trimmed is the word without what parts it from the next one. Nothing is taken off a quoted one.
func (w Word) Trimmed() string {
	if w.Quoted {
		return w.Text
	}
	return strings.TrimRight(w.Text, ",;:")
}

// Of parts a line into its words.
func Of(line string) (all []Word) {
	for i := 0; i < len(line); {
		if line[i] == ' ' || line[i] == '\t' {
			i++
			continue
		}
		from, to, quoted := i, 0, false
		if line[i] == '"' {
			if end := strings.IndexByte(line[i+1:], '"'); end >= 0 {
				to, quoted = i+1+end+1, true
			}
		}
		if !quoted {
			if to = strings.IndexAny(line[i:], " \t"); to < 0 {
				to = len(line)
			} else {
				to += i
			}
		}
		w := Word{Text: line[from:to], At: utf8.RuneCountInString(line[:from]), From: from, To: to, Quoted: quoted}
		i = to
		if quoted {
			w.Text = line[from+1 : to-1]
			if i < len(line) && strings.IndexByte(",;", line[i]) >= 0 {
				i++ // it parts the word from the next one
			}
		}
		if k := len(all) - 1; k >= 0 && !quoted && !all[k].Quoted && inPart.MatchString(w.Text) {
			all[k].Text, all[k].To = all[k].Text+" "+w.Text, to
			continue
		}
		if k := len(all) - 1; k >= 1 && !quoted && all[k-1].Is("size") && whole.MatchString(all[k].Text) && fraction.MatchString(w.Text) {
			all[k].Text, all[k].To = all[k].Text+"-"+w.Text, to // size 1 1/2, as people write it, is 1-1/2
			continue
		}
		all = append(all, w)
	}
	return all
}

// inPart is the second half of the name of what is in a part: 1/j3 of foot 1/j3.
var inPart = regexp.MustCompile(`^\d+(#\d+)?/[^\s/0-9]`)

// whole and fraction are the two parts of a pipe size that is written as one writes a length.
var (
	whole    = regexp.MustCompile(`^\d$`)
	fraction = regexp.MustCompile(`^\d/\d"?[,;:]?$`)
)

// plain is a name that needs no quotation marks, of a part and of what is in one.
var (
	plain     = regexp.MustCompile(`^[^\s"()]+( \d+(#\d+)?/[^\s"/()0-9][^\s"/()]*)?$`)
	plainPart = regexp.MustCompile(`^[^\s"()]+( \d+(#\d+)?)?$`)
)

// Unsayable stands in a line for a name that none can hold.
const Unsayable = "\x00"

// Quote writes a name so that it is read as one word: in quotation marks where it needs them. A name
// with a quotation mark in it is [Unsayable].
func Quote(name string) string { return quote(name, plain) }

// QuotePart writes the name of a part, which may be two words.
func QuotePart(name string) string { return quote(name, plainPart) }

func quote(name string, plain *regexp.Regexp) string {
	switch {
	case strings.Contains(name, `"`):
		return Unsayable
	case plain.MatchString(name):
		return name
	}
	return `"` + name + `"`
}
