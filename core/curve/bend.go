package curve

import (
	"math"

	"sturdyelbow/core/measure"
)

// Bend is a pipe bent by heat: straight legs from corner to corner, the
// corners rounded to one radius of its middle line.
type Bend struct {
	Corners []measure.Point // the two ends and, between them, where the legs would cross
	Radius  measure.Length
}

// arcStep is the greatest angle between two points of an arc, in radians.
const arcStep = math.Pi / 48

// Solve finds the way. Where the legs are too short for the radius the error,
// an [*Impossible], says how large it may be.
func (b Bend) Solve() (Curve, error) {
	n := len(b.Corners)
	c := Curve{
		Points:   []measure.Point{b.Corners[0]},
		Tangents: [2]measure.Dir{b.Corners[0].Toward(b.Corners[1]), b.Corners[n-1].Toward(b.Corners[n-2])},
	}
	back := measure.Length(0) // how far the last arc reached into this leg
	for i := 1; i < n; i++ {
		leg := b.Corners[i-1].Distance(b.Corners[i])
		in := b.Corners[i-1].Toward(b.Corners[i])
		if i == n-1 {
			if leg < back {
				return Curve{}, b.tight(i-1, leg, back)
			}
			c.Length += leg - back
			c.Points = append(c.Points, b.Corners[i])
			break
		}
		out := b.Corners[i].Toward(b.Corners[i+1])
		turn := in.AngleTo(out) * math.Pi / 180
		if turn < 1e-4 { // straight on
			c.Length += leg - back
			c.Points, back = append(c.Points, b.Corners[i]), 0
			continue
		}
		if turn > math.Pi-0.01 {
			return Curve{}, impossible("put two corners there", "a pipe cannot be bent back on itself at one corner")
		}
		reach := b.Radius.Scale(math.Tan(turn / 2))
		if leg < back+reach {
			return Curve{}, b.tight(i, leg, back+reach)
		}
		c.Length += leg - back - reach + b.Radius.Scale(turn)
		start := b.Corners[i].Along(in, -reach)
		axis := in.Cross(out).Unit()
		toCentre := axis.Cross(in)
		centre := start.Along(toCentre, b.Radius)
		parts := int(math.Ceil(turn / arcStep))
		c.Tightest = b.Radius
		for k := range parts + 1 {
			sin, cos := math.Sincos(turn * float64(k) / float64(parts))
			if k == parts/2 {
				c.Where = len(c.Points)
			}
			c.Points = append(c.Points, centre.Along(toCentre, -b.Radius.Scale(cos)).Along(in, b.Radius.Scale(sin)))
		}
		back = reach
	}
	c.measureRise()
	return c, nil
}

func (b Bend) tight(corner int, leg, needs measure.Length) error {
	return impossible(
		"bend it to a smaller radius, or move the corner away",
		"the leg at bend %d is %s and the arcs at its ends take %s",
		max(1, corner),
		leg.Round(measure.Inch/16),
		needs.Round(measure.Inch/16),
	)
}
