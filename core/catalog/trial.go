package catalog

import (
	"fmt"

	"sturdyelbow/core/measure"
)

// Trial is what was measured on one real joint.
type Trial struct {
	Size Size `json:"size"`
	Kind Kind `json:"kind,omitempty"` // of the fitting

	// An insertion mark gives the seat: how far from the pipe's end it was
	// drawn, and how much of that shows beyond the rim once the joint is made.
	Mark measure.Length `json:"mark,omitempty"`
	Gap  measure.Length `json:"gap,omitempty"`

	// A bottomed piece gives the stop: how long it is, how far it is over all
	// with a fitting on one end or on both, and the body's diameter; the
	// catalog's body where it was not measured.
	Cut     measure.Length `json:"cut,omitempty"`
	Outside measure.Length `json:"outside,omitempty"`
	Body    measure.Length `json:"body,omitempty"`
	Ends    int            `json:"ends,omitempty"`
}

// TrialError says what cannot be about a trial.
type TrialError struct{ Field, What, Hint string }

func (e *TrialError) Error() string { return e.What + "; " + e.Hint }

// Seat is the share of its socket that a pipe went in by:
// (mark − gap) / socket depth. The error is a [*TrialError].
func (c *Catalog) Seat(t Trial) (float64, error) {
	if !t.Size.Known() {
		return 0, &TrialError{"size", "no such pipe size", "use a nominal size such as 3/4"}
	}
	depth := c.Figure(t.Kind, t.Size, SocketDepth).Value
	mark := t.Mark
	if mark == 0 {
		mark = depth
	}
	in := mark - t.Gap
	switch {
	case t.Gap < 0 || mark < 0:
		return 0, &TrialError{"gap", "a length below zero", "measure from the rim to the mark"}
	case in <= 0:
		return 0, &TrialError{
			"gap",
			"the pipe is not in its socket",
			"measure from the rim to the mark; the mark is measured from the pipe's end",
		}
	case float64(in) > 1.02*float64(depth):
		return 0, &TrialError{
			"mark",
			fmt.Sprintf("the pipe would be %s deep in a socket of %s", in.Round(measure.SixtyFourth), depth.Round(measure.SixtyFourth)),
			"measure the mark again, or the socket's depth",
		}
	}
	return min(1, float64(in)/float64(depth)), nil
}

// Stop is the distance from a fitting's centre to the ledge that the pipe
// meets: over one fitting, over all − cut − body/2; over two, half of over
// all − cut − body. The error is a [*TrialError].
func (c *Catalog) Stop(t Trial) (Override, error) {
	o := Override{Size: t.Size, Kind: t.Kind, Field: Stop90}
	if !t.Size.Known() {
		return o, &TrialError{"size", "no such pipe size", "use a nominal size such as 3/4"}
	}
	switch t.Kind {
	case Elbow90, Tee, Cross, SideOutletElbow, SideOutletTee, SideOutletCross, SixWay:
	default:
		return o, &TrialError{
			"kind",
			fmt.Sprintf("a %s has no body square to the pipe to measure over", t.Kind),
			"measure its stop directly, and type it into the table",
		}
	}
	body := t.Body
	if body == 0 {
		body = c.Figure(t.Kind, t.Size, BodyDiameter).Value
	}
	if t.Cut <= 0 || t.Outside <= t.Cut {
		return o, &TrialError{"outside", "over all it is no longer than the piece", "measure from the far side of the fitting"}
	}
	switch t.Ends {
	case 1:
		o.Value = t.Outside - t.Cut - body.Half()
	case 2:
		o.Value = (t.Outside - t.Cut - body).Half()
	default:
		return o, &TrialError{"ends", "on how many ends is a fitting?", "put it on one end or on both"}
	}
	o.Note = fmt.Sprintf("a piece of %s bottomed in %d, %s over all", t.Cut, t.Ends, t.Outside)
	if _, err := c.With(o); err != nil {
		return o, &TrialError{
			"outside",
			fmt.Sprintf("the stop would be %s, which no part has", o.Value.Round(measure.SixtyFourth)),
			"push the piece home, and measure again",
		}
	}
	return o, nil
}
