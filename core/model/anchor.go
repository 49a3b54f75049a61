package model

import (
	"math"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Spot is where an anchor is.
type Spot struct {
	At    measure.Point  // on the middle line of a pipe, or the centre of a joint
	Along measure.Dir    // the way of the pipe, away from the joint that it is measured from; zero at a joint
	Out   measure.Dir    // square to Along, to the side that the anchor names; zero at a joint that names none
	From  measure.Length // from that joint's centre, along the pipe
	On    bool           // whether the pipe is so long
}

// Spot finds the place of an anchor. On a bent pipe it is along the curve.
func (l *Located) Spot(a frame.ResolvedAnchor) Spot {
	if a.Node >= 0 {
		return Spot{At: l.Points[a.Node], Out: a.Side, On: true}
	}
	e := &l.Graph.Edges[a.Pipe]
	s := Spot{From: a.At}
	switch end := (frame.PipeEnd{Pipe: a.Pipe, End: a.End}); a.Datum {
	case frame.FromFace:
		s.From += l.Fits.Face(end)
	case frame.FromEnd:
		s.From += l.Fits.TakeOff(end)
	}
	if way := l.Curves[a.Pipe]; way != nil {
		along := s.From
		if a.End == 1 {
			along = way.Length - along
		}
		if s.At, s.Along = way.At(along); a.End == 1 {
			s.Along = s.Along.Neg()
		}
		s.On = s.From <= way.Length+measure.Micrometre
	} else {
		from, to := l.Points[e.Ends[a.End]], l.Points[e.Ends[1-a.End]]
		s.Along = from.Toward(to)
		s.At, s.On = from.Along(s.Along, s.From), s.From <= from.Distance(to)+measure.Micrometre
	}
	s.Out = around(s.Along, a)
	return s
}

// around is the direction out of a pipe that an anchor names: the part of its side that
// is square to the pipe, or its upper side turned by the angle. A pipe that runs up
// has its front in place of an upper side.
func around(along measure.Dir, a frame.ResolvedAnchor) measure.Dir {
	square := func(d measure.Dir) measure.Dir { return d.Plus(-d.Dot(along), along) }
	if a.Side != (measure.Dir{}) {
		if out := square(a.Side); out.Dot(out) > 1e-12 {
			return out.Unit()
		}
		return measure.Dir{} // the side that it runs to
	}
	up := square(a.Up)
	if up.Dot(up) < 1e-6 {
		up = square(a.Front)
	}
	sin, cos := math.Sincos(a.Angle * math.Pi / 180)
	up = up.Unit()
	// seen from where it is measured, the way runs away from the eye: counter-clockwise is
	// against it
	return measure.Dir{}.Plus(cos, up).Plus(-sin, along.Cross(up))
}
