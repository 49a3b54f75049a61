package message

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"
	"text/template"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Codes lists the codes that there are messages for.
func Codes() []string { return slices.Sorted(maps.Keys(messages)) }

// Groups says whether several findings of a code are told as one.
func Groups(code string) bool { return messages[code].Many != "" }

// parsed is a message whose three texts are ready to be filled in.
type parsed struct{ text, hint, many *template.Template }

// catalogue is every message, parsed when the first finding is said.
var catalogue = sync.OnceValue(func() map[string]parsed {
	all := map[string]parsed{}
	for code, m := range messages {
		read := func(text string) *template.Template {
			return template.Must(template.New(code).Funcs(functions).Option("missingkey=zero").Parse(text))
		}
		all[code] = parsed{read(m.Text), read(m.Hint), read(m.Many)}
	}
	return all
})

// Say puts a finding into words: its text and hint, and those of its cases. names
// gives the names of things; with nil they are mentioned. Lengths are in unit.
// It panics where there is no message for the finding's code.
func Say(f *finding.Finding, names finding.Names, unit measure.Unit) {
	m, ok := catalogue()[f.Code]
	if !ok {
		panic("message: there is none for " + f.Code)
	}
	if names == nil {
		names = mentions{}
	}
	w := words{f.Code, names, unit}
	for i := range f.Fixes {
		f.Fixes[i].Label = w.named(f.Fixes[i].Label)
	}
	if len(f.Cases) == 0 {
		data := w.data(f.Subjects, f.Figures)
		f.Text, f.Hint = w.fill(m.text, data), w.fill(m.hint, data)
		return
	}
	var first []finding.Subject
	for i := range f.Cases {
		c := &f.Cases[i]
		data := w.data(c.Subjects, c.Figures)
		c.Text, c.Hint = w.fill(m.text, data), w.fill(m.hint, data)
		first = append(first, c.Subjects[:min(1, len(c.Subjects))]...)
	}
	data := w.data(first, f.Figures)
	data["n"] = len(f.Cases)
	f.Text, f.Hint = w.fill(m.many, data), f.Cases[0].Hint
	for _, c := range f.Cases {
		if c.Hint != f.Hint {
			f.Hint = "see each of them"
		}
	}
}

// Said gives a finding in words that mention things, with lengths in inches.
func Said(f finding.Finding) finding.Finding {
	Say(&f, nil, measure.Inches)
	return f
}

// mentions leaves the names of pipes and joints to whoever shows the text.
type mentions struct{}

func (mentions) Name(s finding.Subject) string {
	if s.Kind == finding.Pipe || s.Kind == finding.Joint {
		return mention.Of(s.ID)
	}
	return s.ID
}

func (m mentions) Short(s finding.Subject) string { return m.Name(s) }

// words fills one finding's message.
type words struct {
	code  string
	names finding.Names
	unit  measure.Unit
}

// length is a length that prints as a tape of the frame's unit shows it.
type length struct {
	measure.Length
	unit measure.Unit
}

func (l length) String() string { return l.Tape(l.unit) }

// rounded prints the length at a coarser step of the tape in inches, and as it is in millimetres.
func (l length) rounded(step measure.Length) string {
	if l.unit == measure.Millimetres {
		return l.Round(measure.Millimetre).Format(measure.Metric, 0)
	}
	return l.Round(step).Format(measure.InInches, 0)
}

// named puts names in the place of the mentions in a text.
func (w words) named(text string) string {
	return mention.Named(text, func(id string) string {
		if name := w.names.Name(finding.Subject{Kind: finding.Pipe, ID: id}); name != id {
			return name
		}
		return w.names.Name(finding.Subject{Kind: finding.Joint, ID: id})
	})
}

func (w words) fill(t *template.Template, data map[string]any) string {
	var b strings.Builder
	if err := t.Execute(&b, data); err != nil {
		panic(fmt.Sprintf("message: %s: %v", w.code, err))
	}
	return b.String()
}

// data is what a template is filled from: the figures by their names, and the names
// of what the finding is about.
func (w words) data(subjects []finding.Subject, figures []finding.Figure) map[string]any {
	data := map[string]any{"n": len(subjects), "subjects": w.short(subjects), "subject": ""}
	if len(subjects) > 0 {
		data["subject"] = w.names.Name(subjects[0])
	}
	for _, f := range figures {
		switch f.Unit {
		case finding.Length:
			data[f.Name] = length{measure.Length(f.Value), w.unit}
		case finding.Count:
			data[f.Name] = int(f.Value)
		case finding.Words:
			data[f.Name] = w.named(f.Text)
		case finding.Things:
			names := make([]string, len(f.Things))
			for i, s := range f.Things {
				names[i] = w.names.Name(s)
			}
			if data[f.Name] = names; len(names) == 1 {
				data[f.Name] = names[0]
			}
		default:
			data[f.Name] = f.Value
		}
	}
	return data
}

// short gives the short names of things, each name once.
func (w words) short(all []finding.Subject) (names []string) {
	for _, s := range all {
		if n := w.names.Short(s); !slices.Contains(names, n) {
			names = append(names, n)
		}
	}
	return names
}

// functions are what a message can do with a figure.
var functions = template.FuncMap{
	"count": func(n int, one, many string) string {
		if n == 1 {
			return "1 " + one
		}
		return fmt.Sprintf("%d %s", n, many)
	},
	"are": func(n int) string {
		if n == 1 {
			return "is"
		}
		return "are"
	},
	"a":         article,
	"list":      func(names []string) string { return List(names, most) },
	"commas":    func(names any) string { return joined(names, ", ") },
	"join":      joined,
	"percent":   func(share float64) string { return fmt.Sprintf("%.2f %%", 100*share) },
	"degrees":   func(v float64) string { return fmt.Sprintf("%.1f°", v) },
	"whole":     func(v float64) string { return fmt.Sprintf("%.0f°", v) },
	"quarter":   func(l length) string { return l.rounded(measure.Inch / 4) },
	"sixteenth": func(l length) string { return l.rounded(measure.Inch / 16) },
	"feet":      func(l length) string { return l.Format(measure.FeetInches, 0) },
	"footage":   func(l length) string { return fmt.Sprintf("%.1f ft", l.Feet()) },
}

// most is how many names a list gives before it only counts the others.
const most = 8

// List joins names as one would say them; beyond most of them it says how many more.
func List(names []string, most int) string {
	switch n := len(names); {
	case n == 0:
		return ""
	case n > most:
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most-1], ", "), n-most+1)
	case n == 1:
		return names[0]
	case n == 2:
		return names[0] + " and " + names[1]
	default:
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
}

func joined(names any, by string) string {
	if all, several := names.([]string); several {
		return strings.Join(all, by)
	}
	return fmt.Sprint(names)
}

// article puts a or an before what a figure prints: an elbow-90, a tee, an 8-port
// hub; a fraction is said by its top, "an 11/16".
func article(v any) string {
	s := fmt.Sprint(v)
	low := strings.ToLower(s)
	switch {
	case low == "":
		return ""
	case strings.HasPrefix(low, "8"),
		strings.HasPrefix(low, "11 "),
		strings.HasPrefix(low, "18"),
		low == "11",
		strings.HasPrefix(low, "11\""),
		strings.HasPrefix(low, "11/"):
		return "an " + s
	case strings.HasPrefix(low, "u-"), strings.HasPrefix(low, "union"), strings.HasPrefix(low, "one"), strings.HasPrefix(low, "eu"):
		return "a " + s
	case strings.ContainsRune("aeiou", rune(low[0])):
		return "an " + s
	}
	return "a " + s
}
