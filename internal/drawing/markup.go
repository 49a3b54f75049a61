package drawing

import (
	"fmt"
	"html"
	"reflect"
	"strings"
)

// markup is SVG that is written as it is. Every other text is written into it by [mark], which escapes it.
type markup string

// mark writes SVG by a format. Whatever text comes from a document, an id, a letter, a name, a mode, is escaped:
// a text never opens a tag and never ends an attribute.
func mark(format string, args ...any) markup {
	for i, a := range args {
		if _, is := a.(markup); is {
			continue
		}
		if s, is := a.(fmt.Stringer); is {
			args[i] = escaped(s.String())
		} else if v := reflect.ValueOf(a); v.Kind() == reflect.String {
			args[i] = escaped(v.String())
		}
	}
	return markup(fmt.Sprintf(format, args...))
}

// escaped is a text as it stands in SVG, without the characters that none may hold.
func escaped(s string) string {
	return html.EscapeString(strings.Map(func(r rune) rune {
		if r < ' ' && r != '\t' && r != '\n' || r == 0xfffe || r == 0xffff {
			return -1
		}
		return r
	}, strings.ToValidUTF8(s, "")))
}

// sheet collects markup.
type sheet struct{ b strings.Builder }

func (s *sheet) put(m markup) { s.b.WriteString(string(m)) }

func (s *sheet) add(format string, args ...any) { s.put(mark(format, args...)) }

func (s *sheet) markup() markup { return markup(s.b.String()) }
