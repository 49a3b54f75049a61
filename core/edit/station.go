package edit

import (
	"fmt"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Bay sizes the room between a station and the one before it on its axis, by a
// typed size or by pulling the station. What is measured from the station
// moves with it.
type Bay struct {
	In      string         `json:"in,omitempty"` // a use's path; "" is the frame
	Axis    measure.Axis   `json:"axis"`
	Station string         `json:"station"`
	Length  string         `json:"length,omitempty"` // as typed
	Meaning frame.Meaning  `json:"meaning,omitempty"`
	Pull    measure.Length `json:"pull,omitempty"` // instead of Length: by how much, up the axis
}

// axis finds a definition's axis and the place of a station in its order.
func (b *bench) axis(in string, a measure.Axis, station string) (def *frame.Definition, scope, at int, err error) {
	if a < measure.X || a > measure.Z {
		return nil, 0, 0, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	}
	if scope, err = b.scope(in); err != nil {
		return nil, 0, 0, err
	}
	at = slices.IndexFunc(b.view.Places[scope].Stations[a], func(s layout.Stood) bool { return s.ID == station })
	switch {
	case at < 0:
		return nil, 0, 0, refuse("name one of its stations", "there is no station %q on the %s axis", station, a)
	case b.view.Places[scope].Stations[a][at].Copied:
		return nil, 0, 0, refuse("change the pitch of the array", "the station %q is a copy's", station)
	}
	return b.def(scope), scope, at, nil
}

func find(def *frame.Definition, a measure.Axis, id string) *frame.Station {
	st := def.Axes[a].Stations
	if i := slices.IndexFunc(st, func(s frame.Station) bool { return s.ID == id }); i >= 0 {
		return &st[i]
	}
	return nil
}

func (w *Bay) on(b *bench) (Done, error) {
	def, scope, at, err := b.axis(w.In, w.Axis, w.Station)
	if err != nil {
		return Done{}, err
	}
	all := b.view.Places[scope].Stations[w.Axis]
	st := find(def, w.Axis, w.Station)
	done := Done{Also: b.everywhere(scope)}
	if w.Pull != 0 {
		return w.pull(b, def, scope, at, done)
	}
	if at == 0 {
		return Done{}, refuse("size the bay above it", "nothing is before the station %q", w.Station)
	}
	d, err := b.size(w.Length, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if d.Meaning == frame.Cut || d.Meaning == frame.Visible {
		if d.Of, err = b.between(scope, w.Axis, all[at-1].ID, w.Station); err != nil {
			return Done{}, err
		}
	}
	before := all[at-1].ID
	top := d.Meaning == frame.TopOfPipe || d.Meaning == frame.TopOfCap
	switch {
	case top && w.Axis != measure.Z:
		return Done{}, refuse("say centre, outside or clear", "a height is measured straight up")
	case top:
		before = frame.Floor
	case all[at-1].Copied:
		return Done{}, refuse("size a bay that no copy is in", "the station %q is a copy's", before)
	}
	done.Label = fmt.Sprintf("%s to %s %s", before, w.Station, w.Length)
	if !top && b.follows(def, w.Axis, before, w.Station) { // the one before hangs on this one: it moves
		d.Back = true
		b.size1(find(def, w.Axis, before), w.Station, d)
		return done, nil
	}
	b.size1(st, before, d)
	for _, s := range def.Axes[measure.Z].Stations {
		if top && b.holds(def, measure.Z, s.ID) && def.FromFloor(s.ID) {
			return Done{}, refuse("measure it from another station", "the group is held at %q: its height is where the group stands", s.ID)
		}
	}
	return done, nil
}

// size1 places a station by a size from another, keeping its name and label.
func (b *bench) size1(st *frame.Station, from string, d frame.Dimension) {
	d.From = from
	if st.At != nil {
		d.Label, d.Prompt = st.At.Label, st.At.Prompt
	}
	st.At, st.Split, st.Like = &d, nil, nil
}

// follows says whether a station is placed, directly or not, by another.
func (b *bench) follows(def *frame.Definition, a measure.Axis, id, on string) bool {
	seen := map[string]bool{}
	var ask func(id string) bool
	ask = func(id string) bool {
		if id == on {
			return true
		}
		if seen[id] {
			return false
		}
		seen[id] = true
		st := find(def, a, id)
		switch {
		case st == nil:
		case st.At != nil:
			return ask(st.At.From)
		case st.Like != nil:
			return ask(st.Like.From)
		case st.Split != nil:
			return ask(st.Split.From) || ask(st.Split.To)
		}
		return false
	}
	return ask(id)
}

// turnRound makes a station stand by its own place, measured from the first
// station of its axis, so that others may be measured from it.
func (b *bench) turnRound(def *frame.Definition, scope int, a measure.Axis, id string) {
	first := def.Axes[a].Stations[0].ID
	if id == first {
		return
	}
	var here, origin measure.Length
	for _, s := range b.view.Places[scope].Stations[a] {
		switch s.ID {
		case id:
			here = s.At
		case first:
			origin = s.At
		}
	}
	d := &frame.Dimension{Value: (here - origin).Abs(), Meaning: frame.Centre, From: first, Back: here < origin}
	d.Text = d.Value.Format(measure.InInches, 0)
	st := find(def, a, id)
	st.At, st.Split, st.Like = d, nil, nil
}

// between finds a pipe that runs from one station to another.
func (b *bench) between(scope int, a measure.Axis, from, to string) (string, error) {
	def := b.def(scope)
	on := func(ref, station string) bool {
		return slices.ContainsFunc(def.Joints, func(j frame.Joint) bool { return j.ID == ref && j.Walk == nil && j.At[a] == station })
	}
	for _, p := range def.Pipes {
		if on(p.From, from) && on(p.To, to) || on(p.From, to) && on(p.To, from) {
			return p.ID, nil
		}
	}
	return "", refuse("say centre, outside or clear", "no pipe of this part runs from %s to %s", from, to)
}

// pull moves a station. A size that places it changes by as much; a station
// that was spread between others stands on its own from then on.
func (w *Bay) pull(b *bench, def *frame.Definition, scope, at int, done Done) (Done, error) {
	all := b.view.Places[scope].Stations[w.Axis]
	st := find(def, w.Axis, w.Station)
	by := w.Pull
	target := st
	if st.At == nil && st.Split == nil && st.Like == nil { // the first one stays: its neighbour moves the other way
		if at+1 >= len(all) {
			return Done{}, refuse("run a pipe from it first", "the station %q is alone", w.Station)
		}
		next := find(def, w.Axis, all[at+1].ID)
		if next == nil || next.At == nil || next.At.From != w.Station || next.At.Back {
			return Done{}, refuse("pull another one", "the others are measured from the station %q", w.Station)
		}
		target, by = next, -by
	}
	if target.At == nil {
		before := all[max(0, at-1)]
		d := frame.Dimension{Value: all[at].At - before.At + by, Meaning: frame.Centre}
		if d.Value < 0 || at == 0 {
			return Done{}, refuse("pull it less far", "it would pass the station %q", before.ID)
		}
		d.Text = d.Value.Format(measure.InInches, 0)
		b.size1(target, before.ID, d)
		done.Label = fmt.Sprintf("%s pulled", w.Station)
		return done, nil
	}
	d := target.At
	if d.Back {
		by = -by
	}
	if d.Value+by < 0 {
		return Done{}, refuse("pull it less far", "it would pass the station %q", d.From)
	}
	d.Value += by
	d.Text = d.Value.Format(measure.InInches, 0)
	done.Label = fmt.Sprintf("%s pulled to %s", w.Station, d.Text)
	return done, nil
}

// Even spreads the stations between two others evenly.
type Even struct {
	In   string       `json:"in,omitempty"`
	Axis measure.Axis `json:"axis"`
	From string       `json:"from"`
	To   string       `json:"to"`
}

func (w *Even) on(b *bench) (Done, error) {
	def, scope, lo, err := b.axis(w.In, w.Axis, w.From)
	if err != nil {
		return Done{}, err
	}
	_, _, hi, err := b.axis(w.In, w.Axis, w.To)
	if err != nil {
		return Done{}, err
	}
	if lo > hi {
		lo, hi = hi, lo
	}
	all := b.view.Places[scope].Stations[w.Axis]
	if hi-lo < 2 {
		return Done{}, refuse("name two with others between them", "nothing stands between %s and %s", w.From, w.To)
	}
	// the two ends may hang on what is to be spread between them
	for _, end := range []layout.Stood{all[lo], all[hi]} {
		for _, s := range all[lo+1 : hi] {
			if b.follows(def, w.Axis, end.ID, s.ID) {
				b.turnRound(def, scope, w.Axis, end.ID)
				break
			}
		}
	}
	for k, s := range all[lo+1 : hi] {
		if s.Copied {
			return Done{}, refuse("change the pitch of the array", "the station %q is a copy's", s.ID)
		}
		st := find(def, w.Axis, s.ID)
		if st.At == nil && st.Split == nil && st.Like == nil {
			return Done{}, refuse("spread from it to another", "everything is measured from the station %q", s.ID)
		}
		st.At, st.Like, st.Split = nil, nil, &frame.Split{From: all[lo].ID, To: all[hi].ID, Part: k + 1, Parts: hi - lo}
	}
	return Done{Label: fmt.Sprintf("Even from %s to %s", all[lo].ID, all[hi].ID), Also: b.everywhere(scope)}, nil
}
