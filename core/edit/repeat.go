package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Repeat makes an array of a part: at a pitch, or joined, so that each copy
// shares an end with the next. A count of 1 takes the array away.
type Repeat struct {
	Part    string        `json:"part"`
	Count   int           `json:"count"`
	Axis    measure.Axis  `json:"axis"`
	Pitch   string        `json:"pitch,omitempty"` // as typed
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Joined  bool          `json:"joined,omitempty"`
}

func (w *Repeat) on(b *bench) (Done, error) {
	def, i, scope, err := b.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	if w.Count < 1 || w.Count > 500 {
		return Done{}, refuse("use 1 to 500", "%d copies", w.Count)
	}
	if w.Axis < measure.X || w.Axis > measure.Z {
		return Done{}, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	}
	u := &def.Uses[i]
	was := u.Array
	array := &frame.Array{Count: w.Count, Axis: w.Axis}
	switch {
	case w.Count == 1:
		array = nil
	case w.Joined:
		if array.Joined, err = b.ends(u, scope, w.Axis); err != nil {
			return Done{}, err
		}
	case w.Pitch == "" && was != nil && was.Axis == w.Axis && was.Pitch != nil:
		array.Pitch = was.Pitch
	default:
		d, err := b.size(w.Pitch, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		if d.Value == 0 || !slices.Contains([]frame.Meaning{frame.Centre, frame.Outside, frame.Clear, frame.Slot}, d.Meaning) {
			return Done{}, refuse("say centre, clear or outside, as in 24 clear", "copies stand at a pitch")
		}
		array.Pitch = &d
	}
	u.Array = array
	name := u.ID
	// the first copy of an array has a number of its own
	from, to := name+"/", name+"#1/"
	if array == nil {
		from, to = to, from
	}
	if (was == nil) != (array == nil) {
		turn := func(ref string) string {
			if rest, ok := strings.CutPrefix(ref, from); ok {
				return to + rest
			}
			return ref
		}
		b.rename(scope, turn, turn)
	}
	part := join(b.view.Graph.Scopes[scope].Path, name)
	done := Done{Label: fmt.Sprintf("%d of %s", w.Count, name), Part: part, Also: b.everywhere(scope)}
	if array != nil {
		done.Part += "#1"
	}
	if array != nil && array.Joined == nil {
		return done, b.weld(scope, part)
	}
	return done, nil
}

// ends finds the two outermost stations of a use's group along an axis of the
// definition that it stands in: what joined copies share.
func (b *bench) ends(u *frame.Use, scope int, a measure.Axis) (*[2]string, error) {
	path := join(b.view.Graph.Scopes[scope].Path, u.ID)
	for i := range b.view.Places {
		p := &b.view.Places[i]
		if p.Path != path && p.Path != path+"#1" {
			continue
		}
		world := b.view.Graph.Scopes[scope].Orient.Dir(a.Dir())
		k, sign, ok := along(p.Turned(world))
		if !ok {
			return nil, refuse("turn the group by quarter turns, or give a pitch", "it leans against that axis")
		}
		st := slices.DeleteFunc(slices.Clone(p.Stations[k]), func(s stood) bool { return s.Joints == 0 || s.Copied })
		if len(st) < 2 {
			return nil, refuse("give a pitch, as in 24 clear", "it has but one station along %s", a)
		}
		lo, hi := st[0].ID, st[len(st)-1].ID
		if sign < 0 {
			lo, hi = hi, lo
		}
		return &[2]string{lo, hi}, nil
	}
	return nil, refuse("pick it again", "there is no part %q", path)
}
