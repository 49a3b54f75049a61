package finding

import (
	"cmp"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"

	"sturdyelbow/core/measure"
)

// Severity says how much a finding matters.
type Severity string

// From "cannot be built so" to "good to know". Question asks the builder
// something that the plan cannot decide.
const (
	Stop     Severity = "stop"
	Warn     Severity = "warn"
	Question Severity = "question"
	Note     Severity = "note"
)

func (s Severity) rank() int { return slices.Index([]Severity{Stop, Warn, Question, Note}, s) }

// Kind is the kind of thing that a finding is about.
type Kind string

// The things of a plan that have a name.
const (
	Joint     Kind = "joint"     // by its id in the expanded frame
	Pipe      Kind = "pipe"      // by its id in the expanded frame
	Size      Kind = "size"      // a size that was typed, by its id
	Reason    Kind = "reason"    // why joints are level or spread, by its id
	Direction Kind = "direction" // the way a pipe was drawn, by the pipe's id in its definition
	Use       Kind = "use"       // where a use of a group is held, by its id
	Link      Kind = "link"
	Check     Kind = "check" // a check against a size that is not the frame's own
	PipeSize  Kind = "pipe size"
)

// Subject is a thing that a finding is about.
type Subject struct {
	Kind  Kind   `json:"kind"`
	ID    string `json:"id"`
	Group string `json:"group,omitempty"` // the definition that the id is of, where it is not of the expanded frame
}

// All gives subjects of one kind.
func All(k Kind, ids ...string) []Subject {
	all := make([]Subject, len(ids))
	for i, id := range ids {
		all[i] = Subject{Kind: k, ID: id}
	}
	return all
}

// Names gives the name of a thing as a builder would say it: with its place, and in
// short for lists.
type Names interface {
	Name(s Subject) string
	Short(s Subject) string
}

// Edit is one change to the job: the JSON pointer of a member and its new value.
type Edit struct {
	Path  string          `json:"path"`
	Value json.RawMessage `json:"value"`
}

// Fix is a way to mend a finding.
type Fix struct {
	Label string `json:"label"`
	Edits []Edit `json:"edits"`
}

// Set is an edit that gives a member of the job a new value, which must be one that
// JSON can hold.
func Set(path string, value any) Edit {
	data, err := json.Marshal(value)
	if err != nil {
		panic(err) // texts, numbers, and lists of them
	}
	return Edit{Path: path, Value: data}
}

// Unit says what a figure counts.
type Unit string

// The units of figures. Words are what somebody typed or what a part is called;
// things are named when the finding is put into words.
const (
	Length Unit = "nm"
	Count  Unit = "count"
	Share  Unit = "share" // 1 is the whole
	Angle  Unit = "degrees"
	Words  Unit = "words"
	Things Unit = "things"
)

// Degrees is an angle as a figure.
type Degrees float64

// Figure is what a finding rests on: a number with its unit, a word, or things.
type Figure struct {
	Name   string    `json:"name"`
	Unit   Unit      `json:"unit"`
	Value  float64   `json:"value,omitempty"`
	Text   string    `json:"text,omitempty"`
	Things []Subject `json:"things,omitempty"`
}

// Finding is one thing that the plan noticed. Text and Hint are its English, from
// the catalogue of messages; everything else is data.
type Finding struct {
	Code     string    `json:"code"`
	Severity Severity  `json:"severity"`
	Frame    int       `json:"frame"` // index of the frame in the job
	Subjects []Subject `json:"subjects"`
	Figures  []Figure  `json:"figures"`
	Text     string    `json:"text"` // what is so
	Hint     string    `json:"hint"` // what to do about it
	Fixes    []Fix     `json:"fixes,omitempty"`
	Cases    []Case    `json:"cases,omitempty"` // of several that say the same: each by itself
}

// Case is one of several findings of a code that are told as one.
type Case struct {
	Subjects []Subject `json:"subjects"`
	Figures  []Figure  `json:"figures"`
	Text     string    `json:"text"`
	Hint     string    `json:"hint"`
	Fixes    []Fix     `json:"fixes,omitempty"`
}

// New is a finding about some things.
func New(code string, severity Severity, about ...Subject) Finding {
	if about == nil {
		about = []Subject{}
	}
	return Finding{Code: code, Severity: severity, Subjects: about, Figures: []Figure{}}
}

// With adds a figure: a length, a whole number, a share, [Degrees], a word, or
// things.
func (f Finding) With(name string, value any) Finding {
	g := Figure{Name: name}
	switch v := value.(type) {
	case measure.Length:
		g.Unit, g.Value = Length, float64(v)
	case int:
		g.Unit, g.Value = Count, float64(v)
	case float64:
		g.Unit, g.Value = Share, v
	case Degrees:
		g.Unit, g.Value = Angle, float64(v)
	case Subject:
		g.Unit, g.Things = Things, []Subject{v}
	case []Subject:
		g.Unit, g.Things = Things, v
	default:
		r := reflect.ValueOf(value)
		if r.Kind() != reflect.String {
			panic(fmt.Sprintf("finding: the figure %s of %s is a %T", name, f.Code, value))
		}
		g.Unit, g.Text = Words, r.String()
	}
	f.Figures = append(slices.Clip(f.Figures), g)
	return f
}

// Fixed adds ways to mend it.
func (f Finding) Fixed(by ...Fix) Finding {
	f.Fixes = append(slices.Clip(f.Fixes), by...)
	return f
}

// Subject gives the id of the first thing that a finding is about; "" for none.
func (f *Finding) Subject() string {
	if len(f.Subjects) == 0 {
		return ""
	}
	return f.Subjects[0].ID
}

// IDs gives the ids of all things that a finding is about.
func (f *Finding) IDs() []string {
	ids := []string{}
	for _, s := range f.Subjects {
		ids = append(ids, s.ID)
	}
	return ids
}

// Length gives a figure that is a length; 0 where there is none of that name.
func (f *Finding) Length(name string) measure.Length {
	for _, g := range f.Figures {
		if g.Name == name && g.Unit == Length {
			return measure.Length(g.Value)
		}
	}
	return 0
}

// Sort puts the gravest first; ties go by code, then keep their order.
func Sort(fs []Finding) {
	slices.SortStableFunc(fs, func(a, b Finding) int {
		return cmp.Or(cmp.Compare(a.Severity.rank(), b.Severity.rank()), cmp.Compare(a.Frame, b.Frame), cmp.Compare(a.Code, b.Code))
	})
}

// Group tells as one the findings of one code, severity and frame for which alike
// says that they say the same. The first keeps its place, and takes the subjects
// and fixes of the others; each is a [Case] of it.
func Group(fs []Finding, alike func(code string) bool) []Finding {
	type key struct {
		code     string
		severity Severity
		frame    int
	}
	at := map[key]int{}
	out := []Finding{}
	for _, f := range fs {
		k := key{f.Code, f.Severity, f.Frame}
		i, known := at[k]
		switch {
		case !known || !alike(f.Code):
			at[k] = len(out)
			out = append(out, f)
		default:
			o := &out[i]
			if len(o.Cases) == 0 {
				o.Cases = []Case{{Subjects: o.Subjects, Figures: o.Figures, Fixes: o.Fixes}}
				o.Subjects, o.Fixes = slices.Clone(o.Subjects), slices.Clone(o.Fixes)
			}
			o.Cases = append(o.Cases, Case{Subjects: f.Subjects, Figures: f.Figures, Fixes: f.Fixes})
			for _, s := range f.Subjects {
				if !slices.Contains(o.Subjects, s) {
					o.Subjects = append(o.Subjects, s)
				}
			}
			for _, x := range f.Fixes {
				if !slices.ContainsFunc(o.Fixes, func(y Fix) bool { return reflect.DeepEqual(x, y) }) {
					o.Fixes = append(o.Fixes, x)
				}
			}
		}
	}
	return out
}
