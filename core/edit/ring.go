package edit

import (
	"fmt"
	"math"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Ring draws a regular polygon: across its flats as a size says, square to an
// axis, its lowest or first corner's side at a joint or at the frame's origin.
// Four and eight sides have fittings; of others the corners say what to change.
type Ring struct {
	In      string        `json:"in,omitempty"`
	On      string        `json:"on,omitempty"` // the joint at which the first side begins; a new frame begins with it
	Sides   int           `json:"sides"`
	Across  string        `json:"across,omitempty"` // over the flats, as typed; or
	Side    string        `json:"side,omitempty"`   // each side, as typed: 12 cut
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Square  measure.Axis  `json:"square"`           // the axis that its plane is square to
	Spokes  bool          `json:"spokes,omitempty"` // from the middles of four sides to a cross at the centre
}

// corner is the share of the way across an octagon's flats at which a corner
// lies: (1 − tan 22.5°) / 2.
var corner = (1 - math.Tan(math.Pi/8)) / 2

var _ = register[Ring]("ring")

func (w *Ring) on(e *editor) (Done, error) {
	switch {
	case w.Sides < 3 || w.Sides > 48:
		return Done{}, refuse("use 3 to 48", "a ring of %d sides", w.Sides)
	case w.Square < measure.X || w.Square > measure.Z:
		return Done{}, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	case (w.Across == "") == (w.Side == ""):
		return Done{}, refuse("write one of them", "a size across, or of each side")
	}
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	if w.Sides == 8 && w.Across != "" {
		return w.octagon(e, scope)
	}
	if w.Spokes {
		return Done{}, refuse("give an octagon its size across the flats", "spokes need a side at each quarter")
	}
	if w.Across != "" && w.Sides != 4 {
		return Done{}, refuse("give the size of each side", "%d sides have no flats opposite each other", w.Sides)
	}
	return w.round(e, scope)
}

// axes are the two that the ring lies along: across first.
func (w *Ring) axes() (measure.Axis, measure.Axis) {
	switch w.Square {
	case measure.X:
		return measure.Y, measure.Z
	case measure.Y:
		return measure.X, measure.Z
	}
	return measure.X, measure.Y
}

// begin finds the joint that the ring begins on, or makes it.
func (w *Ring) begin(e *editor, scope int) (string, error) {
	def := e.def(scope)
	if w.On == "" {
		if len(def.Joints)+len(def.Uses) > 0 {
			return "", refuse("pick a joint", "where is the ring to begin?")
		}
		return e.doc.AddJoint(def, frame.Joint{}), nil
	}
	if _, err := e.node(w.On); err != nil {
		return "", err
	}
	ref, ok := e.ref(scope, w.On)
	if !ok {
		return "", refuse("pick a joint inside it, or work on the whole frame", "the joint %q is not in %q", w.On, w.In)
	}
	return ref, nil
}

// octagon draws a ring of eight sides: its flats are as far apart as the size
// says, its corners at their share of the way.
func (w *Ring) octagon(e *editor, scope int) (Done, error) {
	size, err := e.size(w.Across, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if size.Meaning != frame.Outside && size.Meaning != frame.Clear && size.Meaning != frame.Centre {
		return Done{}, refuse("say outside, clear or centre", "a ring is measured across its flats")
	}
	on, err := w.begin(e, scope)
	if err != nil {
		return Done{}, err
	}
	def, rank := e.def(scope), e.doc.NextRank()
	axes := [2]measure.Axis{}
	axes[0], axes[1] = w.axes()
	// along each axis: low flat, corner, middle, corner, high flat, and a joint
	// of the ring that stands there
	corners := [][2]int{{1, 0}, {2, 0}, {3, 0}, {4, 1}, {4, 2}, {4, 3}, {3, 4}, {2, 4}, {1, 4}, {0, 3}, {0, 2}, {0, 1}}
	var stands [2][5]string
	var ring []string
	first := true
	because := func(r frame.Reason) {
		r.Rank = rank
		e.doc.AddReason(def, r)
	}
	put := func(c [2]int) string {
		id := ""
		if first && w.On == "" {
			id = on // the frame begins with it
		} else {
			id = e.doc.AddJoint(def, frame.Joint{})
		}
		first = false
		for k, a := range axes {
			if s := stands[k][c[k]]; s != "" {
				because(frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(id), To: frame.Ref(s)})
			} else {
				stands[k][c[k]] = id
			}
		}
		if len(ring) > 0 {
			because(frame.Reason{Kind: frame.Level, Axis: w.Square.String(), Of: frame.Ref(id), To: frame.Ref(ring[0])})
		}
		return id
	}
	for _, c := range corners {
		if w.Spokes || c[0] != 2 && c[1] != 2 {
			ring = append(ring, put(c))
		}
	}
	hub := ""
	if w.Spokes {
		hub = put([2]int{2, 2})
	}
	if w.On != "" { // its low flats go through the joint that it begins on
		for k, a := range axes {
			because(frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(stands[k][0]), To: frame.Ref(on)})
		}
		because(frame.Reason{Kind: frame.Level, Axis: w.Square.String(), Of: frame.Ref(ring[0]), To: frame.Ref(on)})
	}
	for k, a := range axes {
		lo, hi := frame.Ref(stands[k][0]), frame.Ref(stands[k][4])
		if k == 0 {
			size.Axis, size.From, size.To, size.Label, size.Rank = a.String(), lo, hi, "Across", rank
			e.doc.AddSize(def, size)
		} else { // one size drives both
			because(frame.Reason{
				Kind: frame.EqualTo, Axis: a.String(), Of: hi, From: lo,
				EqualAxis: axes[0].String(), EqualFrom: frame.Ref(stands[0][0]), EqualTo: frame.Ref(stands[0][4]),
			})
		}
		because(frame.Reason{Kind: frame.Share, Axis: a.String(), Of: frame.Ref(stands[k][1]), From: lo, To: hi, Share: corner})
		because(frame.Reason{Kind: frame.Share, Axis: a.String(), Of: frame.Ref(stands[k][3]), From: lo, To: hi, Share: 1 - corner})
		if w.Spokes {
			because(frame.Reason{Kind: frame.Share, Axis: a.String(), Of: frame.Ref(stands[k][2]), From: lo, To: hi, Part: 1, Parts: 2})
		}
	}
	for i, from := range ring {
		e.doc.AddPipe(def, frame.Pipe{From: from, To: ring[(i+1)%len(ring)], Rank: rank})
	}
	path := e.path(scope)
	done := Done{Label: fmt.Sprintf("A ring of 8, %s across", w.Across), Joint: join(path, ring[0]), Also: e.everywhere(scope)}
	if w.Spokes {
		for _, i := range []int{1, 4, 7, 10} {
			e.doc.AddPipe(def, frame.Pipe{From: hub, To: ring[i], Rank: rank})
		}
		done.Joint = join(path, hub)
	}
	return done, nil
}

// round runs a ring side by side and closes it with the last pipe.
func (w *Ring) round(e *editor, scope int) (Done, error) {
	text := w.Side
	if text == "" {
		text = w.Across
	}
	size, err := e.size(text, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if size.Meaning == frame.TopOfPipe || size.Meaning == frame.TopOfCap {
		return Done{}, refuse("say cut, visible, centre, clear or outside", "a side is no height")
	}
	first, err := w.begin(e, scope)
	if err != nil {
		return Done{}, err
	}
	def, rank := e.def(scope), e.doc.NextRank()
	u, v := w.axes()
	from := first
	for k := range w.Sides - 1 {
		angle := 2 * math.Pi * float64(k) / float64(w.Sides)
		var dir measure.Dir
		dir[u], dir[v] = math.Cos(angle), math.Sin(angle)
		dir = exactly(dir)
		j := e.doc.AddJoint(def, frame.Joint{})
		s := size
		s.Pipe = e.doc.AddPipe(def, frame.Pipe{From: from, To: j, Dir: &dir, Rank: rank})
		s.Rank = rank
		e.doc.AddSize(def, s)
		from = j
	}
	e.doc.AddPipe(def, frame.Pipe{From: from, To: first, Rank: rank})
	return Done{Label: fmt.Sprintf("A ring of %d", w.Sides), Joint: join(e.path(scope), first), Also: e.everywhere(scope)}, nil
}
