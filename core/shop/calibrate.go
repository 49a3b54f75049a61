package shop

import (
	"fmt"
	"maps"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Figured is one figure that the plan rests on, typical and the builder's own
// side by side.
type Figured struct {
	Size     catalog.Size   `json:"size"`
	Kind     catalog.Kind   `json:"kind,omitempty"` // of a figure of this kind alone
	Field    catalog.Field  `json:"field"`
	Typical  measure.Length `json:"typical"`
	Mine     measure.Length `json:"mine"` // what is planned with
	Measured bool           `json:"measured"`
	Note     string         `json:"note,omitempty"`
}

// Seating is how deep a pipe goes, by how it is held.
type Seating struct {
	Mode     frame.Mode `json:"mode"`
	Typical  float64    `json:"typical"`
	Mine     float64    `json:"mine"`
	Measured bool       `json:"measured"`
}

// Seated gives a document the shop's own seats where it has none of its own.
func (s *Shop) Seated(d *frame.Document) *frame.Document {
	if s == nil || len(s.Seats) == 0 {
		return d
	}
	n := *d
	n.Seats = maps.Clone(s.Seats)
	maps.Copy(n.Seats, d.Seats)
	return &n
}

// Catalog is the typical one with the shop's own measurements.
func (s *Shop) Catalog() (*catalog.Catalog, error) {
	if s == nil {
		return catalog.Typical(), nil
	}
	c, err := catalog.Typical().With(s.Measurements...)
	if err != nil {
		return nil, ValidationError{measurementProblem(err)}
	}
	return c, nil
}

// Measured is a measurement that a builder made: a figure read directly, or a
// trial of one real joint.
type Measured struct {
	Figure *catalog.Override `json:"figure,omitempty"` // a value of 0 takes the measurement away
	Trial  *catalog.Trial    `json:"trial,omitempty"`
	Seat   frame.Mode        `json:"seat,omitempty"`   // the mode that a trial's mark is of; "" for a trial of the stop
	Forget frame.Mode        `json:"forget,omitempty"` // the mode whose seat is typical again
}

// Calibrate takes a measurement into a copy of the shop. The error is a
// [*catalog.TrialError], or a [ValidationError].
func (s Shop) Calibrate(m Measured) (Shop, error) {
	s.Measurements, s.Seats = slices.Clone(s.Measurements), maps.Clone(s.Seats)
	if s.Seats == nil {
		s.Seats = map[frame.Mode]float64{}
	}
	put := func(o catalog.Override) {
		s.Measurements = slices.DeleteFunc(s.Measurements, func(p catalog.Override) bool {
			return p.Size == o.Size && p.Kind == o.Kind && p.Field == o.Field
		})
		if o.Value > 0 {
			s.Measurements = append(s.Measurements, o)
		}
	}
	c, err := s.Catalog()
	if err != nil {
		return s, err
	}
	switch {
	case m.Figure != nil:
		put(*m.Figure)
	case m.Forget != "":
		delete(s.Seats, m.Forget)
	case m.Trial != nil && m.Seat != "":
		if !slices.Contains(frame.Modes(), m.Seat) {
			return s, &catalog.TrialError{
				Field: "seat",
				What:  fmt.Sprintf("no way of holding %q", m.Seat),
				Hint:  "use cemented, slip, eased or pinned",
			}
		}
		v, err := c.Seat(*m.Trial)
		if err != nil {
			return s, err
		}
		s.Seats[m.Seat] = v
	case m.Trial != nil:
		o, err := c.Stop(*m.Trial)
		if err != nil {
			return s, err
		}
		put(o)
	}
	return s, s.Validate()
}

// Rests lists what a plan of some sizes of pipe rests on: the figures of its fittings
// and the seats of its joints, typical and the builder's own. c is the shop's catalog.
func (s *Shop) Rests(c *catalog.Catalog, sizes []catalog.Size) (figures []Figured, seats []Seating) {
	typical := catalog.Typical()
	figures = []Figured{}
	for _, t := range sizes {
		for _, f := range catalog.Fields() {
			if f == catalog.OutsideDiameter {
				continue
			}
			a, b := typical.Figure("", t, f), c.Figure("", t, f)
			figures = append(figures, Figured{Size: t, Field: f, Typical: a.Value, Mine: b.Value, Measured: b.Measured, Note: b.Note})
		}
	}
	for _, o := range s.Measurements {
		if o.Kind != "" {
			figures = append(
				figures,
				Figured{o.Size, o.Kind, o.Field, typical.Figure(o.Kind, o.Size, o.Field).Value, o.Value, true, o.Note},
			)
		}
	}
	for _, m := range frame.Modes() {
		v := Seating{Mode: m, Typical: (&frame.Document{}).Seat(m)}
		v.Mine = v.Typical
		if mine, ok := s.Seats[m]; ok {
			v.Mine, v.Measured = mine, true
		}
		seats = append(seats, v)
	}
	return figures, seats
}
