package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Repeat makes an array of a part: at a pitch, or joined, so that each copy
// shares an end with the next. With neither, only how many there are changes. A count of 1 takes the
// array away.
type Repeat struct {
	Part    string        `json:"part"`
	Count   int           `json:"count"`
	Axis    measure.Axis  `json:"axis"`
	Pitch   string        `json:"pitch,omitempty"` // as typed
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Joined  bool          `json:"joined,omitempty"`
	Rails   []string      `json:"rails,omitempty"` // joints of the part from which a pipe runs to the next copy
}

var _ = register[Repeat]("repeat")

func (w *Repeat) on(e *editor) (Done, error) {
	def, u, scope, err := e.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	if w.Count < 1 || w.Count > 500 {
		return Done{}, in("/count", refuse("use 1 to 500", "%d copies", w.Count))
	}
	if w.Axis < measure.X || w.Axis > measure.Z {
		return Done{}, in("/axis", refuse("use 0, 1 or 2 for x, y or z", "no such axis"))
	}
	was := u.Array
	axis, joined := w.Axis, w.Joined
	if was != nil && w.Pitch == "" && !joined { // only how many there are changes
		axis, joined = was.Axis, was.Joins()
	}
	array := &frame.Array{Count: w.Count, Axis: axis}
	var cut *frame.Size // of the pipes from copy to copy
	switch {
	case w.Count == 1:
		array = nil
	case joined:
		if array.Joined, err = e.ends(u, scope, axis); err != nil {
			return Done{}, in("/joined", err)
		}
	case w.Pitch == "" && was != nil && was.Axis == axis && was.Pitch != nil:
		array.Pitch = was.Pitch
	default:
		s, err := e.size(w.Pitch, w.Meaning)
		if err != nil {
			return Done{}, in("/pitch", err)
		}
		ofRail := s.Meaning == frame.Cut || s.Meaning == frame.Visible
		if ofRail && len(w.Rails) == 0 && (was == nil || len(e.railsOf(scope, u.ID, was.Count)) == 0) {
			return Done{}, in(
				"/pitch",
				refuse(
					"name the joints that pipes run from, as in rails j3, or say centre, clear or outside",
					"no pipe runs from copy to copy",
				),
			)
		}
		if s.Value == 0 || !ofRail && !slices.Contains([]frame.Meaning{frame.Centre, frame.Outside, frame.Clear, frame.Slot}, s.Meaning) {
			return Done{}, in("/pitch", refuse("say centre, clear or outside, as in 24 clear", "copies stand at a pitch"))
		}
		if ofRail {
			cut = &frame.Size{Value: s.Value, Meaning: s.Meaning, Text: s.Text, Unit: s.Unit}
			s.Meaning = frame.Centre // until the pipes are there
		}
		if was != nil && was.Pitch != nil {
			s.ID, s.Label, s.Prompt = was.Pitch.ID, was.Pitch.Label, was.Pitch.Prompt
			s.Rank = e.doc.NextRank()
		}
		array.Pitch = &s
	}
	if was != nil && was.Pitch != nil && !was.Pitch.Inferred {
		gave := GivenUp{Size: was.Pitch.ID, Was: was.Pitch.Says() + " from copy to copy", Words: "taken away with the copies"}
		switch {
		case array != nil && array.Joins():
			gave.Words = "the copies are joined"
		case array != nil:
			gave.Now, gave.Words = array.Pitch.Says(), "typed instead"
		}
		if array == nil || array.Pitch != was.Pitch {
			e.gave = append(e.gave, gave)
		}
	}
	name := u.ID
	var rails []between
	if was != nil && array != nil {
		rails = e.railsOf(scope, name, was.Count)
	}
	// the first copy of an array has a number of its own
	switch {
	case was == nil && array != nil:
		e.doc.RenameUse(def, name, name+"#1")
		e.follow(scope, func(ref string) (string, bool) {
			if rest, ok := within(name, ref); ok {
				return name + "#1/" + rest, true
			}
			return ref, false
		})
	case was != nil && array == nil:
		e.doc.RenameUse(def, name+"#1", name)
		e.follow(scope, func(ref string) (string, bool) {
			if rest, ok := within(name+"#1", ref); ok {
				return name + "/" + rest, true
			}
			return ref, false
		})
	}
	e.noteRemoved(e.doc.SetArray(def.Use(name), array))
	part := join(e.path(scope), name) // of which each copy has a number
	done := Done{Label: fmt.Sprintf("%d of %s", w.Count, name), Part: part, Also: e.everywhere(scope)}
	if array == nil {
		return done, nil
	}
	done.Part += "#1"
	if err := e.validate(); err != nil {
		return Done{}, err
	}
	if array.Joins() {
		if err := e.holdJoined(scope, name, array); err != nil {
			return Done{}, err
		}
		return done, e.meetPart(scope, part)
	}
	if was != nil {
		e.goOn(scope, name, was.Count, w.Count, rails)
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
	}
	if err := e.meetPart(scope, part); err != nil {
		return Done{}, err
	}
	if len(w.Rails) > 0 {
		if err := e.railFrom(w.Rails, scope, name, array); err != nil {
			return Done{}, err
		}
	}
	if cut != nil {
		return done, e.pitchOfRail(scope, name, *cut)
	}
	if len(w.Rails) > 0 {
		return done, nil
	}
	var pairs [][2]string
	for k := 1; k < w.Count; k++ {
		pairs = append(pairs, e.pairsOf(fmt.Sprintf("%s#%d", part, k), fmt.Sprintf("%s#%d", part, k+1))...)
	}
	return done, e.offerRails(scope, pairs)
}

// railFrom runs pipes from joints of an array's first copy to the next copy, and on to the last.
func (e *editor) railFrom(joints []string, scope int, use string, array *frame.Array) error {
	if err := e.resolve(); err != nil {
		return err
	}
	for _, id := range joints {
		ref, ok := e.ref(scope, id)
		rest := ""
		if _, in, is := copyOf(use, ref); is {
			rest = in
		} else if in, is := within(use, ref); is {
			rest = in
		}
		if !ok || rest == "" {
			return in("/rails", refuse("name joints of the part", "the joint %q is not in it", id))
		}
		dir := array.Axis.Dir()
		e.goOn(scope, use, 1, array.Count, []between{{from: rest, to: rest, forth: true, dir: &dir}})
	}
	return e.resolve()
}

// holdJoined holds what in a part stands only as something outside it says: joined copies
// have nothing of that, and would fall together. They stand apart for the moment, so that
// each joint is held within its own copy, as it stands in the first.
func (e *editor) holdJoined(scope int, use string, array *frame.Array) error {
	if err := e.resolve(); err != nil {
		return err
	}
	part := join(e.path(scope), use)
	loose := slices.ContainsFunc(e.view.Free, func(f layout.Free) bool {
		return slices.ContainsFunc(f.Nodes, func(n int) bool { return strings.HasPrefix(e.view.Graph.Nodes[n].ID, part+"#") })
	})
	if !loose {
		return nil
	}
	pitch := e.centre(measure.Foot)
	pitch.Inferred = true
	e.noteRemoved(e.doc.SetArray(e.def(scope).Use(use), &frame.Array{Count: array.Count, Axis: array.Axis, Pitch: &pitch}))
	if err := e.resolveAndHold(); err != nil {
		return err
	}
	e.noteRemoved(e.doc.SetArray(e.def(scope).Use(use), array))
	return e.resolve()
}

// ends pairs the joints on the two outermost planes of a use along an axis of
// the definition that it stands in: what joined copies share.
func (e *editor) ends(u *frame.Use, scope int, a measure.Axis) ([][2]string, error) {
	path := join(e.path(scope), u.ID)
	if u.Array != nil {
		path += "#1"
	}
	place := e.place(scope)
	type at struct {
		ref string
		p   measure.Point
	}
	var all []at
	for i, n := range e.view.Graph.Nodes {
		if ref, in := within(path, n.ID); in && len(n.Pipes) > 0 {
			all = append(all, at{ref, place.Local(e.view.Points[i])})
		}
	}
	if len(all) < 2 {
		return nil, refuse("give a pitch, as in 24 clear", "it has but one joint")
	}
	lo, hi := all[0].p[a], all[0].p[a]
	for _, j := range all {
		lo, hi = min(lo, j.p[a]), max(hi, j.p[a])
	}
	pairs := [][2]string{}
	for _, x := range all {
		for _, y := range all {
			d := y.p.Sub(x.p)
			d[a] = 0
			if x.p[a]-lo <= near && hi-y.p[a] <= near && d[0].Abs() <= near && d[1].Abs() <= near && d[2].Abs() <= near && x.ref != y.ref {
				pairs = append(pairs, [2]string{x.ref, y.ref})
			}
		}
	}
	if len(pairs) == 0 || hi-lo <= near {
		return nil, refuse("give a pitch, as in 24 clear", "its two ends along %s have no joints alike", a)
	}
	return pairs, nil
}

// pitchOfRail lets the copies of an array stand as far apart as the cut of the pipes between them says.
func (e *editor) pitchOfRail(scope int, use string, cut frame.Size) error {
	def := e.def(scope)
	for i := range def.Pipes {
		p := &def.Pipes[i]
		a, _, ok1 := copyOf(use, p.From)
		b, _, ok2 := copyOf(use, p.To)
		if ok1 && ok2 && a+b == 3 && p.Path == frame.Straight {
			pitch := def.Use(use).Array.Pitch
			pitch.Value, pitch.Meaning, pitch.Text, pitch.Unit, pitch.Pipe = cut.Value, cut.Meaning, cut.Text, cut.Unit, p.ID
			return e.resolve()
		}
	}
	return in("/pitch", refuse("say centre, clear or outside", "no pipe runs from copy to copy"))
}
