package curve

import (
	"math"

	"sturdyelbow/core/measure"
)

// Spring is a pipe sprung between two places. An end that is held leaves in
// its direction, straight for the length of its stub; one that is not turns as
// it likes, as on a pin or in loose ground.
type Spring struct {
	Ends  [2]measure.Point
	Leave [2]*measure.Dir   // unit; nil: it turns freely
	Stub  [2]measure.Length // of held ends
	Bow   measure.Dir       // the side it stands out to, where neither end is held

	// One of these says how far it bows: the developed length from end to end,
	// the rise over the line between the ends, or that it is the half of a
	// hoop whose other half is its mirror image at the second end.
	Length measure.Length
	Rise   measure.Length
	Half   bool
}

// Solve finds the curve. The error is an [*Impossible].
func (s Spring) Solve() (Curve, error) {
	a, b := s.Ends[0], s.Ends[1]
	for k, d := range s.Leave {
		if d == nil {
			s.Stub[k] = 0
			continue
		}
		if p := s.Ends[k].Along(*d, s.Stub[k]); k == 0 {
			a = p
		} else {
			b = p
		}
	}
	span := a.Distance(b)
	if span < measure.Inch/16 {
		return Curve{}, impossible("move its ends apart, or make the ring of two pipes", "a sprung pipe begins and ends at one place")
	}
	e1 := a.Toward(b)
	side := s.Bow
	for k, d := range s.Leave {
		if d != nil && math.Abs(d.Dot(e1)) < 1-1e-6 {
			side = *d
			if k == 1 && s.Leave[0] != nil && math.Abs(s.Leave[0].Dot(e1)) < 1-1e-6 {
				side = *s.Leave[0]
			}
		}
	}
	e2 := measure.Dir{side[0] - side.Dot(e1)*e1[0], side[1] - side.Dot(e1)*e1[1], side[2] - side.Dot(e1)*e1[2]}.Unit()
	if e2 == (measure.Dir{}) {
		return Curve{}, impossible("say to which side it bows", "a pipe bows along the line between its ends")
	}
	e3 := e1.Cross(e2)
	q := strip{span: span.Inches(), half: s.Half}
	for k, d := range s.Leave {
		if d == nil {
			continue
		}
		if math.Abs(d.Dot(e3)) > 0.02 { // about a degree
			return Curve{}, impossible("let one of them turn freely", "the two ends of a sprung pipe do not lie in one plane")
		}
		v := *d
		if k == 1 {
			v = d.Neg() // the way it travels
		}
		q.held[k], q.angle[k] = true, math.Atan2(v.Dot(e2), v.Dot(e1))
	}
	switch {
	case s.Half:
		if !q.held[1] {
			return Curve{}, impossible("hold it there, as a tee at the crown does", "half a hoop is held at its crown")
		}
	case s.Rise > 0:
		q.rise = s.Rise.Inches()
	default:
		if q.length = (s.Length - s.Stub[0] - s.Stub[1]).Inches(); q.length < q.span*(1-1e-9) {
			return Curve{}, impossible(
				"take a longer pipe, or move its ends nearer to each other",
				"a pipe %s long does not reach over %s",
				s.Length.Round(measure.Inch/16),
				s.Ends[0].Distance(s.Ends[1]).Round(measure.Inch/16),
			)
		}
	}
	r, ok := q.solve()
	if !ok {
		return Curve{}, impossible("take another length or rise, or other directions at its ends", "no bow of a pipe fits these ends")
	}
	c := Curve{Length: measure.FromInches(r.length) + s.Stub[0] + s.Stub[1]}
	if s.Length > 0 && !s.Half && s.Rise == 0 {
		c.Length = s.Length
	}
	place := func(x, y float64) measure.Point {
		return a.Along(e1, measure.FromInches(x)).Along(e2, measure.FromInches(y))
	}
	if s.Stub[0] > 0 {
		c.Points = append(c.Points, s.Ends[0])
	}
	tight := 0.0
	for i := range r.x {
		if k := math.Abs(r.k[i]); k > tight {
			tight, c.Where = k, len(c.Points)
		}
		c.Points = append(c.Points, place(r.x[i], r.y[i]))
	}
	c.Points[len(c.Points)-1] = b
	if s.Stub[1] > 0 {
		c.Points = append(c.Points, s.Ends[1])
	}
	if tight > 1e-9 {
		c.Tightest = measure.FromInches(1 / tight)
	}
	dir := func(th float64) measure.Dir {
		var d measure.Dir
		for i := range d {
			d[i] = math.Cos(th)*e1[i] + math.Sin(th)*e2[i]
		}
		return d
	}
	c.Tangents = [2]measure.Dir{dir(r.th[0]), dir(r.th[len(r.th)-1]).Neg()}
	for k, d := range s.Leave {
		if d != nil {
			c.Tangents[k] = *d
		}
	}
	c.measureRise()
	return c, nil
}
