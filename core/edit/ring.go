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

func (w *Ring) on(b *bench) (Done, error) {
	switch {
	case w.Sides < 3 || w.Sides > 48:
		return Done{}, refuse("use 3 to 48", "%d sides", w.Sides)
	case w.Square < measure.X || w.Square > measure.Z:
		return Done{}, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	case (w.Across == "") == (w.Side == ""):
		return Done{}, refuse("write one of them", "a size across, or of each side")
	}
	scope, err := b.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	if w.Sides == 8 && w.Across != "" {
		return w.octagon(b, scope)
	}
	if w.Spokes {
		return Done{}, refuse("give an octagon its size across the flats", "spokes need a side at each quarter")
	}
	if w.Across != "" && w.Sides != 4 {
		return Done{}, refuse("give the size of each side", "%d sides have no flats opposite on stations", w.Sides)
	}
	return w.round(b, scope)
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

// begin finds the stations of the joint that the ring begins on, or begins.
func (w *Ring) begin(b *bench, scope int) (at [3]string, err error) {
	def := b.def(scope)
	if w.On != "" {
		n, err := b.node(w.On)
		if err != nil {
			return at, err
		}
		at, ok := b.stationsOf(scope, b.view.Points[n])
		if !ok {
			return at, refuse("pick a joint that stands on stations", "%q stands on none of this part", w.On)
		}
		return at, nil
	}
	for a := range 3 {
		if len(def.Axes[a].Stations) == 0 {
			def.Axes[a].Stations = []frame.Station{{ID: measure.Axis(a).String() + "1"}}
		}
		at[a] = def.Axes[a].Stations[0].ID
	}
	return at, nil
}

// octagon stands a ring of eight sides on stations: its flats are as far apart
// as the size says, its corners at their share of the way.
func (w *Ring) octagon(b *bench, scope int) (Done, error) {
	d, err := b.size(w.Across, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if d.Meaning != frame.Outside && d.Meaning != frame.Clear && d.Meaning != frame.Centre {
		return Done{}, refuse("say outside, clear or centre", "a ring is measured across its flats")
	}
	at, err := w.begin(b, scope)
	if err != nil {
		return Done{}, err
	}
	def := b.def(scope)
	u, v := w.axes()
	var on [2][5]string // along each axis: low flat, corner, middle, corner, high flat
	for k, a := range []measure.Axis{u, v} {
		add := func(st frame.Station) string {
			st.ID = newStation(def, a)
			def.Axes[a].Stations = append(def.Axes[a].Stations, st)
			return st.ID
		}
		on[k][0] = at[a]
		if k == 0 {
			size := d
			size.From, size.Label = at[a], "Across"
			on[k][4] = add(frame.Station{At: &size})
		} else { // one size drives both
			on[k][4] = add(frame.Station{Like: &frame.Like{From: at[a], Axis: u, Of: on[0][0], To: on[0][4]}})
		}
		on[k][1] = add(frame.Station{Split: &frame.Split{From: at[a], To: on[k][4], Share: corner}})
		on[k][3] = add(frame.Station{Split: &frame.Split{From: at[a], To: on[k][4], Share: 1 - corner}})
		if w.Spokes {
			on[k][2] = add(frame.Station{Split: &frame.Split{From: at[a], To: on[k][4], Part: 1, Parts: 2}})
		}
	}
	path := b.view.Graph.Scopes[scope].Path
	joint := func(i, k int) string {
		j := frame.Joint{ID: newJoint(def), At: at}
		j.At[u], j.At[v] = on[0][i], on[1][k]
		def.Joints = append(def.Joints, j)
		return j.ID
	}
	pipe := func(from, to string) {
		def.Pipes = append(def.Pipes, frame.Pipe{ID: newPipe(def), From: from, To: to})
	}
	var ring []string
	for _, c := range [][2]int{{1, 0}, {2, 0}, {3, 0}, {4, 1}, {4, 2}, {4, 3}, {3, 4}, {2, 4}, {1, 4}, {0, 3}, {0, 2}, {0, 1}} {
		if w.Spokes || c[0] != 2 && c[1] != 2 {
			ring = append(ring, joint(c[0], c[1]))
		}
	}
	for i, from := range ring {
		pipe(from, ring[(i+1)%len(ring)])
	}
	done := Done{Label: fmt.Sprintf("A ring of 8, %s across", w.Across), Joint: join(path, ring[0]), Also: b.everywhere(scope)}
	if w.Spokes {
		hub := joint(2, 2)
		for _, i := range []int{1, 4, 7, 10} {
			pipe(hub, ring[i])
		}
		done.Joint = join(path, hub)
	}
	return done, nil
}

// round walks a ring side by side and closes it with the last pipe.
func (w *Ring) round(b *bench, scope int) (Done, error) {
	text := w.Side
	if text == "" {
		text = w.Across
	}
	d, err := b.size(text, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if d.Meaning == frame.TopOfPipe || d.Meaning == frame.TopOfCap {
		return Done{}, refuse("say cut, visible, centre, clear or outside", "a side is no height")
	}
	at, err := w.begin(b, scope)
	if err != nil {
		return Done{}, err
	}
	def := b.def(scope)
	u, v := w.axes()
	var first string
	if ref, ok := b.ref(scope, w.On); ok && w.On != "" {
		first = ref
	} else {
		j := frame.Joint{ID: newJoint(def), At: at}
		def.Joints = append(def.Joints, j)
		first = j.ID
	}
	from := first
	for k := range w.Sides - 1 {
		angle := 2 * math.Pi * float64(k) / float64(w.Sides)
		var dir measure.Dir
		dir[u], dir[v] = math.Cos(angle), math.Sin(angle)
		pipe, size := newPipe(def), d
		if d.Meaning == frame.Cut || d.Meaning == frame.Visible {
			size.Of = pipe
		}
		j := frame.Joint{ID: newJoint(def), Walk: &frame.Walk{From: from, Dir: &dir, Size: &size}}
		def.Joints = append(def.Joints, j)
		def.Pipes = append(def.Pipes, frame.Pipe{ID: pipe, From: from, To: j.ID})
		from = j.ID
	}
	def.Pipes = append(def.Pipes, frame.Pipe{ID: newPipe(def), From: from, To: first})
	return Done{Label: fmt.Sprintf("A ring of %d", w.Sides), Joint: join(b.view.Graph.Scopes[scope].Path, first), Also: b.everywhere(scope)}, nil
}
