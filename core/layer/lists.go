package layer

import (
	"encoding/json"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// list is one list of a document, of things that have names.
type list interface {
	kind() Kind
	len() int
	id(i int) string
	get(i int) any
	drop(i int)
	put(data json.RawMessage) error // in the place of the one of its name, else at the end
}

// listOf is a list of one type.
type listOf[T any] struct {
	what Kind
	list *[]T
	name func(*T) string
}

func (o listOf[T]) kind() Kind      { return o.what }
func (o listOf[T]) len() int        { return len(*o.list) }
func (o listOf[T]) id(i int) string { return o.name(&(*o.list)[i]) }
func (o listOf[T]) get(i int) any   { return (*o.list)[i] }
func (o listOf[T]) drop(i int)      { *o.list = slices.Delete(*o.list, i, i+1) }

func (o listOf[T]) put(data json.RawMessage) error {
	var v T
	if err := json.Unmarshal(data, &v); err != nil {
		return err
	}
	if i := slices.IndexFunc(*o.list, func(x T) bool { return o.name(&x) == o.name(&v) }); i >= 0 {
		(*o.list)[i] = v
	} else {
		*o.list = append(*o.list, v)
	}
	return nil
}

// lists are those of a definition, or, with the document, those of the whole.
type lists struct{ of []list }

func (l *lists) all() []list { return l.of }

func (l *lists) find(kind Kind) list {
	i := slices.IndexFunc(l.of, func(o list) bool { return o.kind() == kind })
	if i < 0 {
		return nil
	}
	return l.of[i]
}

// header is what a definition says of itself.
type header struct {
	Name string       `json:"name,omitempty"`
	Size catalog.Size `json:"size,omitempty"`
	Mode frame.Mode   `json:"mode,omitempty"`
}

// whole is what the document says of itself. Its name and unit are the
// project's, and its serial number only grows.
type whole struct {
	Size   catalog.Size           `json:"size"`
	Mode   frame.Mode             `json:"mode"`
	Seats  map[frame.Mode]float64 `json:"seats,omitempty"`
	Origin measure.Point          `json:"origin,omitzero"`
	Stance *frame.Stance          `json:"stance,omitempty"`
}

// single is a list of the one thing that a document or definition says of itself.
type single[T any] struct {
	what Kind
	read func() T
	set  func(T)
}

func (a single[T]) kind() Kind    { return a.what }
func (a single[T]) len() int      { return 1 }
func (a single[T]) id(int) string { return "" }
func (a single[T]) get(int) any   { return a.read() }
func (a single[T]) drop(int)      {}
func (a single[T]) put(data json.RawMessage) error {
	var v T
	if err := json.Unmarshal(data, &v); err != nil {
		return err
	}
	a.set(v)
	return nil
}

// each shows the lists of the document, then those of its definitions, the
// frame's own first.
func each(d *frame.Document, show func(in string, ls *lists)) {
	show("", ofDocument(d))
	for _, def := range d.Definitions() {
		show(def.ID, ofDefinition(def))
	}
}

func ofDocument(d *frame.Document) *lists {
	return &lists{[]list{
		single[whole]{Document, func() whole { return whole{d.Size, d.Mode, d.Seats, d.Origin, d.Stance} },
			func(w whole) {
				d.Size, d.Mode, d.Seats, d.Origin, d.Stance = w.Size, w.Mode, w.Seats, w.Origin, w.Stance
			}},
		listOf[frame.Tolerance]{Tolerance, &d.Tolerances, func(t *frame.Tolerance) string { return t.Pipe }},
		listOf[frame.ClearanceCheck]{Envelope, &d.ClearanceChecks, func(e *frame.ClearanceCheck) string { return e.ID }},
		listOf[catalog.Custom]{Part, &d.CustomFittings, func(c *catalog.Custom) string { return string(c.ID) }},
	}}
}

func ofDefinition(def *frame.Definition) *lists {
	ls := &lists{[]list{
		single[header]{
			Header,
			func() header { return header{def.Name, def.Size, def.Mode} },
			func(h header) { def.Name, def.Size, def.Mode = h.Name, h.Size, h.Mode },
		},
	}}
	for a := range def.Planes {
		ls.of = append(
			ls.of,
			listOf[frame.Plane]{Plane + " " + Kind(frame.AxisName(a)), &def.Planes[a], func(p *frame.Plane) string { return p.ID }},
		)
	}
	ls.of = append(ls.of,
		listOf[frame.Joint]{Joint, &def.Joints, func(j *frame.Joint) string { return j.ID }},
		listOf[frame.Pipe]{Pipe, &def.Pipes, func(p *frame.Pipe) string { return p.ID }},
		listOf[frame.Size]{Size, &def.Sizes, func(s *frame.Size) string { return s.ID }},
		listOf[frame.Reason]{Reason, &def.Reasons, func(r *frame.Reason) string { return r.ID }},
		listOf[frame.Use]{Use, &def.Uses, func(u *frame.Use) string { return u.ID }},
		listOf[frame.Merge]{Merge, &def.Merges, func(m *frame.Merge) string { return m.Keep + " & " + m.Drop }},
		listOf[frame.Link]{Link, &def.Links, func(l *frame.Link) string { return l.ID }},
	)
	return ls
}
