package measure

import "math"

// Point is a position: x to the right, y away from the viewer, z up.
type Point [3]Length

// Dir is a direction or a turn's axis: a vector without unit, normally of
// length one.
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
