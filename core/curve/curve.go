package curve

import (
	"fmt"
	"math"

	"sturdyelbow/core/measure"
)

// Curve is the way of a pipe's middle line.
type Curve struct {
	Points   []measure.Point // along it, both ends included
	Length   measure.Length  // developed: along the curve from end to end
	Tangents [2]measure.Dir  // leaving its two ends
	Tightest measure.Length  // its least radius; 0 where it is straight all along
	Where    int             // the point at which it is tightest
	Rise     measure.Length  // the farthest that it stands off the line between its ends
	Apex     measure.Point   // where that is
}

// Impossible says why a pipe cannot take a way.
type Impossible struct{ What, Hint string }

func (i *Impossible) Error() string { return i.What + "; " + i.Hint }

func impossible(hint, what string, args ...any) error {
	return &Impossible{What: fmt.Sprintf(what, args...), Hint: hint}
}

// measureRise finds where a curve stands farthest off the line between its ends.
func (c *Curve) measureRise() {
	a, b := c.Points[0], c.Points[len(c.Points)-1]
	d := a.Toward(b)
	for _, p := range c.Points {
		v := p.Sub(a)
		along := v[0].Scale(d[0]) + v[1].Scale(d[1]) + v[2].Scale(d[2])
		if h := p.Distance(a.Along(d, along)); h > c.Rise {
			c.Rise, c.Apex = h, p
		}
	}
}

// At is the point at a distance along a curve from its first end, and the way it goes
// there; beyond its ends it goes straight on.
func (c *Curve) At(long measure.Length) (measure.Point, measure.Dir) {
	i, sum := 1, measure.Length(0) // the points are joined by chords, which are a little shorter
	for k := 1; k < len(c.Points); k++ {
		sum += c.Points[k-1].Distance(c.Points[k])
	}
	if c.Length > 0 {
		long = long.Scale(float64(sum) / float64(c.Length))
	}
	for ; i < len(c.Points)-1; i++ {
		step := c.Points[i-1].Distance(c.Points[i])
		if long <= step {
			break
		}
		long -= step
	}
	way := c.Points[i-1].Toward(c.Points[i])
	return c.Points[i-1].Along(way, long), way
}

// Sample gives n points spread evenly along a curve, both ends included.
func (c *Curve) Sample(n int) []measure.Point {
	out := make([]measure.Point, n)
	out[0], out[n-1] = c.Points[0], c.Points[len(c.Points)-1]
	var total measure.Length
	for i := 1; i < len(c.Points); i++ {
		total += c.Points[i-1].Distance(c.Points[i])
	}
	at, done := 1, measure.Length(0)
	for k := 1; k < n-1; k++ {
		want := total.Scale(float64(k) / float64(n-1))
		for at < len(c.Points)-1 && done+c.Points[at-1].Distance(c.Points[at]) < want {
			done += c.Points[at-1].Distance(c.Points[at])
			at++
		}
		out[k] = c.Points[at-1].Along(c.Points[at-1].Toward(c.Points[at]), want-done)
	}
	return out
}

// Reach is how far a round body of a radius about a curve reaches in a
// direction, from the origin.
func (c *Curve) Reach(toward measure.Dir, radius measure.Length) (far measure.Length) {
	for i := 1; i < len(c.Points); i++ {
		p, q := c.Points[i-1], c.Points[i]
		along := p.Toward(q).Dot(toward)
		side := radius.Scale(math.Sqrt(max(0, 1-along*along)))
		for k, at := range []measure.Point{p, q} {
			v := at[0].Scale(toward[0]) + at[1].Scale(toward[1]) + at[2].Scale(toward[2]) + side
			if i == 1 && k == 0 || v > far {
				far = v
			}
		}
	}
	return far
}

// Strain is the stretch of the outer fibre of a pipe bent to a radius of its middle
// line, as a share of its length: OD/(2R).
func Strain(od, radius measure.Length) float64 {
	if radius <= 0 {
		return 0
	}
	return float64(od) / 2 / float64(radius)
}
