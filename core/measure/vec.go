package measure

import "math"

// Point is a position: x to the right, y away from the viewer, z up.
type Point [3]Length

// Dir is a vector without a unit: a direction or a turn's axis, which has length one, or
// a place in inches where the geometry of solids asks for one.
type Dir [3]float64

// Add gives p + q.
func (p Point) Add(q Point) Point { return Point{p[0] + q[0], p[1] + q[1], p[2] + q[2]} }

// Sub gives p − q.
func (p Point) Sub(q Point) Point { return Point{p[0] - q[0], p[1] - q[1], p[2] - q[2]} }

// Along gives the point a distance from p in a direction.
func (p Point) Along(d Dir, by Length) Point {
	return Point{p[0] + by.Scale(d[0]), p[1] + by.Scale(d[1]), p[2] + by.Scale(d[2])}
}

// Distance gives the straight distance between two points.
func (p Point) Distance(q Point) Length {
	d := q.Sub(p)
	x, y, z := float64(d[0]), float64(d[1]), float64(d[2])
	switch { // a square pipe's length stays exact
	case d[1] == 0 && d[2] == 0:
		return d[0].Abs()
	case d[0] == 0 && d[2] == 0:
		return d[1].Abs()
	case d[0] == 0 && d[1] == 0:
		return d[2].Abs()
	}
	return Length(math.Round(math.Sqrt(x*x + y*y + z*z)))
}

// Toward gives the unit direction from p to q; the zero Dir when they coincide.
func (p Point) Toward(q Point) Dir {
	d := q.Sub(p)
	return Dir{float64(d[0]), float64(d[1]), float64(d[2])}.Unit()
}

// Dot is the scalar product.
func (d Dir) Dot(e Dir) float64 { return d[0]*e[0] + d[1]*e[1] + d[2]*e[2] }

// Cross is the vector product.
func (d Dir) Cross(e Dir) Dir {
	return Dir{d[1]*e[2] - d[2]*e[1], d[2]*e[0] - d[0]*e[2], d[0]*e[1] - d[1]*e[0]}
}

// Sub gives d − e.
func (d Dir) Sub(e Dir) Dir { return Dir{d[0] - e[0], d[1] - e[1], d[2] - e[2]} }

// Plus gives d + k e.
func (d Dir) Plus(k float64, e Dir) Dir { return Dir{d[0] + k*e[0], d[1] + k*e[1], d[2] + k*e[2]} }

// Inches gives a position as a vector in inches.
func (p Point) Inches() Dir { return Dir{p[0].Inches(), p[1].Inches(), p[2].Inches()} }

// SegmentsApart is how far two straight segments are from each other, each given by its
// ends; one of no length is a point.
func SegmentsApart(a, b [2]Dir) float64 {
	u, v, w := a[1].Sub(a[0]), b[1].Sub(b[0]), a[0].Sub(b[0])
	uu, uv, vv, uw, vw := u.Dot(u), u.Dot(v), v.Dot(v), u.Dot(w), v.Dot(w)
	clamp := func(t float64) float64 { return min(1, max(0, t)) }
	s, t := 0.0, 0.0 // where on each the nearest points are
	switch den := uu*vv - uv*uv; {
	case uu == 0 && vv == 0:
	case uu == 0:
		t = clamp(vw / vv)
	case vv == 0:
		s = clamp(-uw / uu)
	default:
		if den > 1e-12*uu*vv {
			s = clamp((uv*vw - vv*uw) / den)
		}
		t = clamp((uv*s + vw) / vv)
		s = clamp((uv*t - uw) / uu)
	}
	d := w.Plus(s, u).Plus(-t, v)
	return math.Sqrt(d.Dot(d))
}

// Neg is the opposite direction.
func (d Dir) Neg() Dir { return Dir{-d[0], -d[1], -d[2]} }

// Unit scales to length one; the zero Dir stays zero.
func (d Dir) Unit() Dir {
	n := math.Sqrt(d.Dot(d))
	if n == 0 {
		return Dir{}
	}
	return Dir{d[0] / n, d[1] / n, d[2] / n}
}

// AngleTo gives the angle between two directions in degrees, 0 to 180.
func (d Dir) AngleTo(e Dir) float64 {
	c := d.Cross(e)
	return math.Atan2(math.Sqrt(c.Dot(c)), d.Dot(e)) * 180 / math.Pi
}

// Axis is one of the three axes.
type Axis int

// The axes: right, away, up.
const (
	X Axis = iota
	Y
	Z
)

// String names the axis: x, y or z.
func (a Axis) String() string { return [...]string{"x", "y", "z"}[a] }

// Dir is the axis' positive direction.
func (a Axis) Dir() Dir {
	var d Dir
	d[a] = 1
	return d
}
