package lines

import (
	"reflect"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/words"
)

// form is one way to say a gesture: words that stand as they are, and slots that its fields fill.
//
//	split <Pipe:pipe> [at <Length:text>] [from <From:joint>]
//
// What is in brackets may be left out and comes in any order, also before what may not; a word with ? may be left out; +Name
// in brackets sets a flag. What stands in braces is how a field is where this form is the right one.
type form struct {
	gesture string
	usage   string
	head    []element
	clauses []clause
	given   map[string]string
}

type element struct {
	literal  string
	optional bool
	slot     *slot
	flag     string
}

type slot struct {
	fields []string
	kind   string
}

type clause struct {
	key  string
	body []element
}

var pieces = regexp.MustCompile(`\{[^}]*\}|\[[^\]]*\]|<[^>]*>|[^\s\[\]<>{}]+`)

// parseForm reads a form as the table has it.
func parseForm(gesture, text string) form {
	f := form{gesture: gesture, usage: strings.TrimSpace(text), given: map[string]string{}}
	for _, p := range pieces.FindAllString(text, -1) {
		switch p[0] {
		case '{':
			for _, g := range strings.Fields(strings.Trim(p, "{}")) {
				field, value, _ := strings.Cut(g, "=")
				f.given[field] = value
			}
		case '[':
			body := elements(strings.Trim(p, "[]"))
			f.clauses = append(f.clauses, clause{key: body[0].literal, body: body[1:]})
		default:
			f.head = append(f.head, elements(p)...)
		}
	}
	return f
}

func elements(text string) (all []element) {
	for _, p := range pieces.FindAllString(text, -1) {
		switch {
		case p[0] == '<':
			fields, kind, _ := strings.Cut(strings.Trim(p, "<>"), ":")
			all = append(all, element{slot: &slot{fields: strings.Split(fields, ","), kind: kind}})
		case p[0] == '+':
			all = append(all, element{flag: p[1:]})
		case strings.HasSuffix(p, "?"):
			all = append(all, element{literal: strings.TrimSuffix(p, "?"), optional: true})
		default:
			all = append(all, element{literal: p})
		}
	}
	return all
}

var (
	unshown = regexp.MustCompile(`\s*(\{[^}]*\}|\+\w+)`) // what is given, and flags
	slotIn  = regexp.MustCompile(`<[^:>]*:([^>]*)>`)
)

// shown is the form as a builder reads it: split PIPE [at LENGTH] [from JOINT].
func (f *form) shown() string {
	s := slotIn.ReplaceAllStringFunc(unshown.ReplaceAllString(f.usage, ""), func(m string) string {
		return strings.ToUpper(slots[slotIn.FindStringSubmatch(m)[1]].says)
	})
	return strings.ReplaceAll(s, "?", "")
}

// first is the words that a form begins with.
func (f *form) first() (all []string) {
	for _, e := range f.head {
		if e.literal == "" || e.optional {
			break
		}
		all = append(all, e.literal)
	}
	return all
}

// reading reads the words of a line into a gesture.
type reading struct {
	known *Known
	form  *form
	text  string
	words []words.Word
	into  reflect.Value
	in    string // the part that the line is about, for its planes
	deep  int    // how many elements were read: the form that reads the most tells what is wrong
}

func (r *reading) end() int {
	if len(r.words) > 0 {
		return r.words[0].At
	}
	return len([]rune(strings.TrimRight(r.text, " ")))
}

func (r *reading) wrong(what string, args ...any) error {
	return wrong(r.end(), "write "+r.form.shown(), what, args...)
}

// read reads the line by the form.
func (f *form) read(known *Known, text string, ws []words.Word) (g edit.Gesture, deep int, err error) {
	g = edit.Names()[f.gesture]
	r := &reading{known: known, form: f, text: text, words: ws, into: reflect.ValueOf(g).Elem()}
	r.findPart()
	for field, value := range f.given {
		if value != "" {
			setText(r.into.FieldByName(field), value)
		}
	}
	for i := range f.head {
		err := r.all(f.head[i:], f.stops(), 1)
		for err != nil && i > 0 && r.isClause() { // what may be left out stands before what may not: repeat bow along y times 5
			if bad := r.clause(); bad != nil {
				return nil, r.deep, bad
			}
			err = r.all(f.head[i:], f.stops(), 1)
		}
		if err != nil {
			return nil, r.deep, err
		}
	}
	for len(r.words) > 0 {
		if !r.isClause() {
			return nil, r.deep, r.wrong("%q is not expected here", r.words[0].Text)
		}
		if err := r.clause(); err != nil {
			return nil, r.deep, err
		}
	}
	return g, r.deep, nil
}

// isClause says whether the next word begins what may be left out.
func (r *reading) isClause() bool {
	return len(r.words) > 0 && slices.ContainsFunc(r.form.keys(), r.words[0].Is)
}

// clause reads what may be left out, by the word that it begins with.
func (r *reading) clause() error {
	i := slices.IndexFunc(r.form.clauses, func(c clause) bool { return r.words[0].Is(c.key) })
	r.words = r.words[1:]
	body := r.form.clauses[i].body
	return r.all(body, r.form.stops(), len(body))
}

// findPart looks ahead for the part that the line is about.
func (r *reading) findPart() {
	for i, w := range r.words {
		if w.Is("within") && i+1 < len(r.words) {
			look := *r
			look.words = r.words[i+1:]
			if part, ok := look.takePart(); ok {
				r.in = part
			}
		}
	}
}

func (f *form) keys() (all []string) {
	for _, c := range f.clauses {
		all = append(all, c.key)
	}
	return all
}

// stops are the words that end a text of a form: those that begin what may be left out, and the one of a number of times.
func (f *form) stops() []string {
	all := f.keys()
	for _, e := range f.head {
		if e.slot != nil && e.slot.kind == "times" {
			all = append(all, "times")
		}
	}
	return all
}

// all reads the first few elements one after the other; stops are the words that end a text, like those of the elements
// that follow.
func (r *reading) all(elements []element, stops []string, few int) error {
	for i, e := range elements[:few] {
		switch {
		case e.flag != "":
			r.into.FieldByName(e.flag).SetBool(true)
		case e.literal != "":
			if len(r.words) == 0 || !r.words[0].Is(e.literal) {
				if e.optional {
					continue
				}
				return r.wrong("%q is missing", e.literal)
			}
			r.words = r.words[1:]
		default:
			ends := slices.Clone(stops)
			for _, next := range elements[i+1:] {
				if next.literal != "" {
					ends = append(ends, next.literal)
				}
			}
			if err := slots[e.slot.kind].read(r, e.slot, ends); err != nil {
				return err
			}
		}
		r.deep++
	}
	return nil
}

// until takes words as far as one that ends a text, as they were written.
func (r *reading) until(stops []string) string {
	n := 0
	for n < len(r.words) && !slices.ContainsFunc(stops, r.words[n].Is) {
		n++
	}
	if n == 0 {
		return ""
	}
	text := r.text[r.words[0].From:r.words[n-1].To]
	r.words = r.words[n:]
	return strings.TrimSpace(text)
}

// empty says whether a field says nothing.
func empty(v reflect.Value) bool { return v.IsZero() || v.Kind() == reflect.Slice && v.Len() == 0 }

// write writes a gesture by the form; ok is false where it is not the right one for it.
func (f *form) write(g edit.Gesture) (text string, ok bool) {
	v := reflect.ValueOf(g).Elem()
	said := map[string]bool{}
	for field, value := range f.given {
		at := v.FieldByName(field)
		if getText(at) != value {
			return "", false
		}
		said[field] = true
	}
	var out []string
	put := func(elements []element) bool {
		for _, e := range elements {
			switch {
			case e.flag != "":
				said[e.flag] = true
				if !v.FieldByName(e.flag).Bool() {
					return false
				}
			case e.literal != "":
				if !e.optional {
					out = append(out, e.literal)
				}
			default:
				for _, n := range e.slot.fields {
					said[n] = true
				}
				s, has := slots[e.slot.kind].write(v, e.slot)
				if !has {
					return false
				}
				out = append(out, s)
			}
		}
		return true
	}
	if !put(f.head) {
		return "", false
	}
	for _, c := range f.clauses {
		before := out
		out = append(slices.Clone(out), c.key)
		if !put(c.body) {
			out = before
		}
	}
	for i := range v.NumField() { // everything that it says is in the line
		field := v.Type().Field(i)
		if field.IsExported() && !said[field.Name] && !empty(v.Field(i)) && field.Name != "Meaning" {
			return "", false
		}
	}
	return strings.Join(out, " "), true
}
