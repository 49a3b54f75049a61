package catalog

import (
	"fmt"
	"maps"
	"math"
	"slices"

	"sturdyelbow/core/measure"
)

// Pipe is one size of pipe. Use OD − 2 × WallMin for strength and
// InsideDiameter, an average, for volume and play.
type Pipe struct {
	Size            Size           `json:"size"`
	OutsideDiameter measure.Length `json:"outsideDiameter"`
	WallMin         measure.Length `json:"wallMin"`
	InsideDiameter  measure.Length `json:"insideDiameter"`
	PoundsPerFoot   float64        `json:"poundsPerFoot"`
	Note            string         `json:"note"`
}

// Field names one figure of a fitting size.
type Field string

// The figures a size has; a builder can measure each on a real part.
const (
	SocketDepth     Field = "socket_depth"
	EntranceField   Field = "socket_entrance_diameter"
	BottomField     Field = "socket_bottom_diameter"
	Stop90          Field = "stop_90"
	Stop45          Field = "stop_45"
	StopCoupling    Field = "stop_coupling"
	BodyDiameter    Field = "body_diameter"
	CapEnd          Field = "cap_end"
	BushingFlange   Field = "bushing_flange"
	OutsideDiameter Field = "outside_diameter"
)

// Fields lists the figures that can be overridden.
func Fields() []Field {
	return []Field{
		SocketDepth,
		EntranceField,
		BottomField,
		Stop90,
		Stop45,
		StopCoupling,
		BodyDiameter,
		CapEnd,
		BushingFlange,
		OutsideDiameter,
	}
}

// Figure is a number of the catalog and where it comes from.
type Figure struct {
	Value    measure.Length `json:"value"`
	Measured bool           `json:"measured"` // the builder's own; otherwise typical
	Note     string         `json:"note,omitempty"`
}

// Override is a builder's measurement of one figure on a real part. With a
// Kind it holds for that kind alone (tees of this make, say), otherwise for
// the whole size.
type Override struct {
	Size  Size           `json:"size"`
	Kind  Kind           `json:"kind,omitempty"`
	Field Field          `json:"field"`
	Value measure.Length `json:"value"`
	Note  string         `json:"note,omitempty"`
}

type figureKey struct {
	kind  Kind
	size  Size
	field Field
}

// Catalog is a set of figures. It never changes once made.
type Catalog struct {
	pipes    map[Size]Pipe
	figures  map[figureKey]Figure
	perQuart map[Size]int
	fittings map[fittingKey]Fitting
	customs  []Kind
}

// Typical is the catalog as shipped.
func Typical() *Catalog { return typical }

// With gives a catalog in which measurements replace typical figures. It
// refuses what no part can be: unless bottom < OD < entrance, stop_90 ≥ OD/2,
// stop_45 ≥ OD/2 × tan 22.5°, body > entrance + 2 × wall.
func (c *Catalog) With(own ...Override) (*Catalog, error) {
	if len(own) == 0 {
		return c, nil
	}
	n := &Catalog{pipes: maps.Clone(c.pipes), figures: maps.Clone(c.figures), perQuart: c.perQuart}
	for i, o := range own {
		switch {
		case !o.Size.Known():
			return nil, &OverrideError{i, o, "no such size", "use a nominal size such as 3/4"}
		case !slices.Contains(Fields(), o.Field):
			return nil, &OverrideError{i, o, "no such figure", "use one of the catalog's columns"}
		case o.Kind != "" && !o.Kind.Known():
			return nil, &OverrideError{i, o, "no such kind of fitting", "leave the kind out to mean the whole size"}
		case o.Value <= 0:
			return nil, &OverrideError{i, o, "not a size a part can have", "measure again"}
		}
		n.figures[figureKey{o.Kind, o.Size, o.Field}] = Figure{Value: o.Value, Measured: true, Note: o.Note}
		if o.Field == OutsideDiameter && o.Kind == "" {
			p := n.pipes[o.Size]
			p.OutsideDiameter = o.Value
			n.pipes[o.Size] = p
		}
	}
	for i, o := range own {
		if what, hint := n.impossible(o.Kind, o.Size); what != "" {
			return nil, &OverrideError{i, o, what, hint}
		}
	}
	return n.index(), nil
}

// OverrideError says which measurement no real part can have, and why.
type OverrideError struct {
	Index    int
	Override Override
	What     string
	Hint     string
}

func (e *OverrideError) Error() string {
	return fmt.Sprintf("measurement %d (%s %s %s = %s): %s; %s", e.Index+1, e.Override.Size, e.Override.Kind, e.Override.Field,
		e.Override.Value.Format(measure.Decimal, 0), e.What, e.Hint)
}

func (c *Catalog) impossible(k Kind, s Size) (what, hint string) {
	v := func(f Field) measure.Length { return c.Figure(k, s, f).Value }
	od := v(OutsideDiameter)
	switch {
	case v(BottomField) >= od:
		return "the socket's bottom is not narrower than the pipe", "a socket tapers: bottom < pipe < entrance"
	case v(EntranceField) <= od:
		return "the socket's entrance is not wider than the pipe", "a socket tapers: bottom < pipe < entrance"
	case 2*v(Stop90) < od:
		return "the stop is nearer than half the pipe's diameter", "measure from the fitting's centre line to the ledge"
	case v(Stop45) < od.Half().Scale(math.Tan(math.Pi/8)):
		return "the 45's stop is nearer than the pipes can meet", "measure from where the centre lines cross to the ledge"
	case v(BodyDiameter) <= v(EntranceField)+2*c.pipes[s].WallMin:
		return "the body leaves no wall round the socket", "measure the outside of the hub"
	}
	return "", ""
}

// Pipe gives the pipe of a size; the zero Pipe for a size that does not exist.
func (c *Catalog) Pipe(s Size) Pipe { return c.pipes[s] }

// Figure gives one figure for a kind of fitting at a size: the kind's own
// measurement, else the size's.
func (c *Catalog) Figure(k Kind, s Size, f Field) Figure {
	if own, ok := c.figures[figureKey{k, s, f}]; ok {
		return own
	}
	return c.figures[figureKey{"", s, f}]
}

// HandTight is how deep a dry pipe goes by hand, as a share of socket depth:
// where the tapering socket is as narrow as the pipe,
// (entrance − OD) / (entrance − bottom).
func (c *Catalog) HandTight(s Size) float64 {
	v := func(f Field) float64 { return float64(c.Figure("", s, f).Value) }
	return (v(EntranceField) - v(OutsideDiameter)) / (v(EntranceField) - v(BottomField))
}

// JointsPerQuart is how many cemented sockets of a size a US quart of cement
// makes, typically; primer goes twice as far.
func (c *Catalog) JointsPerQuart(s Size) int { return c.perQuart[s] }
