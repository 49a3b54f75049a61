package edit

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// Gesture is something that a builder does to a frame. Each is a type of this
// package, registered by the name it has in JSON.
type Gesture interface {
	on(e *editor) (Done, error)
}

// gestures makes an empty gesture of each name; names gives the name of each
// type.
var (
	gestures = map[string]func() Gesture{}
	names    = map[reflect.Type]string{}
)

// register names a gesture.
func register[T any, G interface {
	*T
	Gesture
}](name string) bool {
	gestures[name] = func() Gesture { return G(new(T)) }
	names[reflect.TypeFor[G]()] = name
	return true
}

// Names lists the gestures, with an empty one of each.
func Names() map[string]Gesture {
	all := map[string]Gesture{}
	for name, make := range gestures {
		all[name] = make()
	}
	return all
}

// Edit is one gesture with what was answered when it asked. In JSON the
// gesture is the member of its name: {"walk": {"from": "j1", …}, "unit": "in"}.
type Edit struct {
	Gesture Gesture
	Unit    measure.Unit // of bare numbers; the document's own where it is missing
	Answers []string     // the options chosen, by their ids

	Step measure.Length // of the tape by which figures are told, and no part of what is kept; zero for the finest
}

// MarshalJSON writes the gesture under its name.
func (e Edit) MarshalJSON() ([]byte, error) {
	m := map[string]any{}
	if name, known := names[reflect.TypeOf(e.Gesture)]; known {
		m[name] = e.Gesture
	}
	if e.Unit != "" {
		m["unit"] = e.Unit
	}
	if len(e.Answers) > 0 {
		m["answers"] = e.Answers
	}
	return json.Marshal(m)
}

// UnmarshalJSON reads a gesture by its name.
func (e *Edit) UnmarshalJSON(data []byte) error {
	var m map[string]json.RawMessage
	if err := json.Unmarshal(data, &m); err != nil {
		return err
	}
	*e = Edit{}
	for name, raw := range m {
		var err error
		switch name {
		case "unit":
			err = json.Unmarshal(raw, &e.Unit)
		case "answers":
			err = json.Unmarshal(raw, &e.Answers)
		case "$schema":
		default:
			make, ok := gestures[name]
			switch {
			case !ok:
				return fmt.Errorf("there is no gesture %q", name)
			case e.Gesture != nil:
				return fmt.Errorf("more than one gesture at once")
			}
			e.Gesture = make()
			err = json.Unmarshal(raw, e.Gesture)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// Done is what a gesture made. Its texts, and those of a [Question] and a [Refusal], mention
// pipes and joints ([mention.Of]): whoever shows them puts the names in.
type Done struct {
	Label   string    `json:"label"`           // in the builder's words, for undo
	Joint   string    `json:"joint,omitempty"` // what to go on from
	Ends    []string  `json:"ends,omitempty"`  // of a line that ran from several joints: all its far ends
	Pipe    string    `json:"pipe,omitempty"`
	Part    string    `json:"part,omitempty"`   // a use's path
	Also    []string  `json:"also,omitempty"`   // what it did besides, in words
	GivenUp []GivenUp `json:"gave,omitempty"`   // sizes and places that do not hold any more as they were said
	Offers  []Offer   `json:"offers,omitempty"` // what may be wanted next
}

// GivenUp is a size, or a place along a pipe, that a gesture gave up or turned into another one.
type GivenUp struct {
	Size  string `json:"size"` // its id; empty for a place
	Was   string `json:"was"`  // as it was said: 24 cut of ⟨p3⟩
	Now   string `json:"now"`  // what it is, or what it became
	Words string `json:"words"`
}

// Offer is a gesture that may be wanted next.
type Offer struct {
	Label string `json:"label"`
	Edit  Edit   `json:"edit"`
}

// Solver puts everything of a document in its place.
type Solver func(*frame.Document) (*model.Located, error)

// Refusal is a gesture that cannot be made, and why.
type Refusal struct {
	What  string `json:"what"`
	Hint  string `json:"hint"`
	At    int    `json:"at"`              // place in the text that was typed
	Field string `json:"field,omitempty"` // JSON pointer to the field at fault: /link/on/0; empty where it is none of them
}

func (r *Refusal) Error() string { return r.What + "; " + r.Hint }

func refuse(hint, what string, args ...any) *Refusal {
	return &Refusal{What: fmt.Sprintf(what, args...), Hint: hint}
}

// in names the field of a gesture, by its JSON pointer there, that an error is about.
func in(field string, err error) error {
	var r *Refusal
	if !errors.As(err, &r) {
		return err
	}
	named := *r
	named.Field = field
	return &named
}

// Question is a gesture that waits for an answer: what it would bring about
// cannot hold together, or could be meant in more than one way. It is an error;
// the gesture is made again with the chosen option among its answers. Each option was carried out before it is
// offered, and says what then stands.
type Question struct {
	Title   string   `json:"title"`
	What    string   `json:"what"`
	Options []Option `json:"options"`           // the one that keeps the most and the newest first
	Untried int      `json:"untried,omitempty"` // how many more could be, that were not carried out
}

// Option is one answer to a question.
type Option struct {
	ID    string   `json:"id"`
	More  []string `json:"more,omitempty"` // what is answered with it: of several that say the same, all give way
	Label string   `json:"label"`
	Pipe  string   `json:"pipe,omitempty"` // of the frame as it is, that it is about

	gives *giving
}

// Answers are what is answered by an option.
func (o *Option) Answers() []string { return append([]string{o.ID}, o.More...) }

func (q *Question) Error() string { return q.What }

// Apply makes a gesture on a copy of a document. The error is a [*Refusal], a
// [*Question], or what the solver says of a document that makes no sense.
func Apply(d *frame.Document, ed Edit, solve Solver) (*frame.Document, Done, error) {
	if ed.Gesture == nil {
		return nil, Done{}, refuse("send one gesture", "no gesture")
	}
	e, done, err := attempt(d, ed, solve)
	var q *Question
	if errors.As(err, &q) {
		e, done, err = offer(d, ed, q, solve)
	}
	var r *Refusal
	if errors.As(err, &r) && r.Field != "" {
		return nil, Done{}, in("/"+names[reflect.TypeOf(ed.Gesture)]+r.Field, r)
	}
	if err != nil {
		return nil, Done{}, err
	}
	return e.doc, done, nil
}

// attempt makes a gesture, and gives the editor that made it. What it asks was not carried out yet.
func attempt(d *frame.Document, ed Edit, solve Solver) (*editor, Done, error) {
	e, err := begin(d, ed, solve)
	if err != nil {
		return nil, Done{}, err
	}
	done, err := ed.Gesture.on(e)
	if err == nil {
		err = e.finish()
	}
	if err == nil {
		e.keepNames()
	}
	e.doc.Numbers.Above = 0
	done.Also = slices.Compact(slices.Concat(done.Also, e.also))
	done.GivenUp = append(done.GivenUp, e.gave...)
	done.Offers = append(done.Offers, e.offers...)
	return e, done, err
}

// Keep takes the frame as it is: one that follows from a starter is then an
// ordinary frame.
type Keep struct{}

var _ = register[Keep]("keep")

func (*Keep) on(*editor) (Done, error) { return Done{Label: "A frame of its own"}, nil }

// LetGo drops what was done by hand to a starter's frame and is set aside: the
// frame stays as it is.
type LetGo struct{}

var _ = register[LetGo]("letGo")

func (*LetGo) on(*editor) (Done, error) { return Done{Label: "What was set aside let go"}, nil }

// sizeWords names a pipe size.
func sizeWords(s catalog.Size) string { return string(s) + " pipe" }
