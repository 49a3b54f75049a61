package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Size gives a pipe, or two joints, a size: a round cut in, the outside size
// out. It comes in the place of one that the pipe had; what else it contradicts
// is asked about.
type Size struct {
	Pipe    string        `json:"pipe,omitempty"`
	More    []string      `json:"more,omitempty"` // pipes that get the same
	Ends    [2]string     `json:"ends,omitzero"`
	Length  string        `json:"length"` // as typed: 24 cut; "" takes the size away
	Meaning frame.Meaning `json:"meaning,omitempty"`
	ID      string        `json:"id,omitempty"` // of the size to change
}

var _ = register[Size]("size")

func (w *Size) on(e *editor) (Done, error) {
	if w.Pipe == "" {
		return w.one(e)
	}
	return each(w.Pipe, e.drawnOnce(w.Pipe, w.More), func(pipe string) (Done, error) {
		one := *w
		one.Pipe = pipe
		return one.one(e)
	})
}

// drawnOnce are those of some pipes that are drawn by themselves: of the copies of a part that share a pipe's drawing, one
// stands for all.
func (e *editor) drawnOnce(first string, more []string) (once []string) {
	type drawing struct {
		def  *frame.Definition
		pipe string
	}
	seen := map[drawing]bool{}
	for k, id := range append([]string{first}, more...) {
		def, p, _, err := e.pipe(id)
		if err == nil && seen[drawing{def, p.ID}] {
			continue
		}
		if err == nil {
			seen[drawing{def, p.ID}] = true
		}
		if k > 0 {
			once = append(once, id) // what is not there is refused by its name
		}
	}
	return once
}

// one gives one pipe, or two joints, a size.
func (w *Size) one(e *editor) (Done, error) {
	if w.ID != "" {
		return w.change(e)
	}
	meaning := w.Meaning
	if meaning == "" && w.Pipe != "" {
		meaning = frame.Cut
	}
	s, err := e.size(w.Length, meaning)
	if err != nil {
		return Done{}, err
	}
	if err := w.measures(s.Meaning); err != nil {
		return Done{}, err
	}
	if w.Pipe == "" {
		return w.between(e, s)
	}
	def, p, scope, err := e.pipe(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	switch p.Path {
	case frame.Sprung:
		if isSide(def, p) {
			return w.side(e, def, p, scope, s)
		}
		return Done{}, refuse("say how far it bows, in its own field", "%s is sprung", mention.Of(w.Pipe))
	case frame.Bent:
		return Done{}, refuse(
			"size its legs: mark the joint or corner at each end of one and type how far apart they are",
			"%s is bent, and its cut follows from its legs",
			mention.Of(w.Pipe),
		)
	}
	s.Pipe = p.ID
	done := Done{Label: strings.TrimSpace(fmt.Sprintf("%s %s", mention.Of(w.Pipe), w.Length)), Pipe: w.Pipe, Also: e.everywhere(scope)}
	if old := e.sizeOf(def, p.ID, scope); old != nil {
		e.replaceSize(old, s)
		return done, nil
	}
	e.doc.AddSize(def, s)
	return done, nil
}

// sizeOf finds the size that is a pipe's own: typed for it, or along an axis
// between the two planes that it alone runs between.
func (e *editor) sizeOf(def *frame.Definition, pipe string, scope int) *frame.Size {
	for i := range def.Sizes {
		if s := &def.Sizes[i]; s.Pipe == pipe && s.Gave == nil {
			return s
		}
	}
	i := e.view.Graph.Edge(join(e.path(scope), pipe))
	if i < 0 {
		return nil
	}
	ends := e.view.Graph.Edges[i].Ends
	place := e.place(scope)
	a, _, square := axisAlong(place.Turned(e.view.Points[ends[0]].Toward(e.view.Points[ends[1]])))
	if !square {
		return nil
	}
	var planes [2]int
	for k := range planes {
		ref, ok := e.ref(scope, e.view.Graph.Nodes[ends[k]].ID)
		if planes[k] = place.Find(a, frame.Ref(ref)); !ok || planes[k] < 0 {
			return nil
		}
	}
	lo, hi := place.Planes[a][planes[0]], place.Planes[a][planes[1]]
	if lo.At > hi.At {
		lo, hi = hi, lo
	}
	for i := range def.Sizes {
		s := &def.Sizes[i]
		if s.Axis == a.String() && s.Gave == nil && s.Pipe == "" && s.From != frame.Floor && onPlane(&lo, s.From) && onPlane(&hi, s.To) {
			return s
		}
	}
	return nil
}

// onPlane says whether what a size ends at is on a plane.
func onPlane(p *layout.Plane, r frame.Ref) bool {
	return p.Ref == r || slices.Contains(p.Joints, string(r))
}

// replaceSize puts a size in the place of another one, which it says.
func (e *editor) replaceSize(old *frame.Size, s frame.Size) {
	if !old.Inferred {
		e.gave = append(e.gave, GivenUp{Size: old.ID, Was: old.Says(), Now: s.Says(), Words: "typed instead"})
	}
	s.ID, s.Label, s.Prompt, s.Rank = old.ID, old.Label, old.Prompt, e.doc.NextRank()
	if s.Axis == "" && old.Axis != "" { // it lies where the old one lay
		s.Axis, s.From, s.To = old.Axis, old.From, old.To
	}
	*old = s
	e.heights = append(e.heights, old.ID)
}

// between sizes the distance of two joints: along the axis that they lie on.
func (w *Size) between(e *editor, s frame.Size) (Done, error) {
	var nodes [2]int
	for k, id := range w.Ends {
		n, err := e.node(id)
		if err != nil {
			return Done{}, err
		}
		nodes[k] = n
	}
	if nodes[0] == nodes[1] {
		return Done{}, refuse("pick two joints", "a size from a joint to itself")
	}
	scope := e.common(nodes[0], nodes[1])
	place := e.place(scope)
	v := place.Local(e.view.Points[nodes[1]]).Sub(place.Local(e.view.Points[nodes[0]]))
	a, _ := e.ref(scope, w.Ends[0])
	b, _ := e.ref(scope, w.Ends[1])
	s.From, s.To = frame.Ref(a), frame.Ref(b)
	if d := straight(v); d != nil {
		axis, sign, _ := axisAlong(*d)
		if s.Axis = axis.String(); sign < 0 {
			s.From, s.To = s.To, s.From
		}
	}
	def := e.def(scope)
	for i := range def.Sizes {
		if o := &def.Sizes[i]; o.From == s.From && o.To == s.To && o.Axis == s.Axis && o.Gave == nil && o.Pipe == "" {
			e.replaceSize(o, s)
			return Done{Label: fmt.Sprintf("%s to %s %s", mention.Of(w.Ends[0]), mention.Of(w.Ends[1]), w.Length)}, nil
		}
	}
	e.doc.AddSize(def, s)
	return Done{Label: fmt.Sprintf("%s to %s %s", mention.Of(w.Ends[0]), mention.Of(w.Ends[1]), w.Length)}, nil
}

// measures says whether a pipe, or two joints, have a size of a meaning.
func (w *Size) measures(m frame.Meaning) error {
	ofPipe := m == frame.Cut || m == frame.Visible
	switch {
	case (w.Pipe == "") == (w.Ends == [2]string{}):
		return refuse("pick one of them", "a size of a pipe, or between two joints")
	case m == frame.TopOfPipe || m == frame.TopOfCap:
		return refuse("size the level instead", "a height is measured from the floor")
	case w.Pipe == "" && ofPipe:
		return refuse("pick the pipe", "joints have no size of that kind")
	}
	return nil
}

func (w *Size) change(e *editor) (Done, error) {
	old := e.doc.SizeOf(w.ID)
	if old == nil {
		return Done{}, refuse("pick it again", "there is no size %q", w.ID)
	}
	done := Done{Label: "Size " + old.Says()}
	if strings.TrimSpace(w.Length) == "" {
		if e.isPitch(w.ID) {
			return Done{}, refuse("type another, or take the copies away", "copies stand so far apart")
		}
		e.gave = append(e.gave, GivenUp{Size: old.ID, Was: old.Says(), Words: "taken away"})
		e.doc.DropSize(w.ID)
		done.Label += " away"
		return done, nil
	}
	meaning := w.Meaning
	if meaning == "" {
		meaning = old.Meaning
	}
	s, err := e.size(w.Length, meaning)
	if err != nil {
		return Done{}, err
	}
	if !old.Inferred {
		e.gave = append(e.gave, GivenUp{Size: old.ID, Was: old.Says(), Now: s.Says(), Words: "typed instead"})
	}
	old.Value, old.Text, old.Unit, old.Meaning = s.Value, s.Text, s.Unit, s.Meaning
	old.Inferred, old.Gave, old.Solves, old.Rank = false, nil, "", e.doc.NextRank()
	done.Label = fmt.Sprintf("Size %s", old.Says())
	e.heights = append(e.heights, old.ID)
	return done, nil
}

// isPitch says whether a size is how far apart the copies of a part stand.
func (e *editor) isPitch(id string) bool {
	for _, def := range e.doc.Definitions() {
		for i := range def.Uses {
			if a := def.Uses[i].Array; a != nil && a.Pitch != nil && a.Pitch.ID == id {
				return true
			}
		}
	}
	return false
}

// GiveWay chooses what gives way of some that cannot hold together.
type GiveWay struct {
	Kind  string `json:"kind"` // size, pipe (the way it runs) or reason
	ID    string `json:"id"`
	Group string `json:"group,omitempty"`
}

var _ = register[GiveWay]("giveWay")

func (w *GiveWay) on(e *editor) (Done, error) {
	for i := range e.view.Clashes {
		c := e.view.Clashes[i]
		for k, p := range c.Parties {
			if p.Kind != w.Kind || p.ID != w.ID || p.Group != w.Group {
				continue
			}
			words := c.Words[k]
			return Done{Label: words + " gives way"}, e.letGiveWay(&c, k)
		}
	}
	return Done{}, refuse("plan it again: it may have been settled", "nothing contradicts %s any more", w.ID)
}

// Restore lets something that gave way hold again as it was said; what it then
// contradicts is asked about.
type Restore struct {
	Kind  string `json:"kind"`
	ID    string `json:"id"`
	Group string `json:"group,omitempty"`
}

var _ = register[Restore]("restore")

func (w *Restore) on(e *editor) (Done, error) {
	def := e.definition(w.Group)
	var g **frame.GaveWay
	var label string
	switch w.Kind {
	case "size":
		if s := e.doc.SizeOf(w.ID); s != nil {
			g, label = &s.Gave, s.Says()
			s.Rank = e.doc.NextRank()
		}
	case "pipe":
		if def != nil && def.Pipe(w.ID) != nil {
			g, label = &def.Pipe(w.ID).Gave, e.ofDefinition(def, w.ID)+" straight"
			def.Pipe(w.ID).Rank = e.doc.NextRank()
		}
	case "reason":
		if def != nil && def.Reason(w.ID) != nil {
			g, label = &def.Reason(w.ID).Gave, w.ID
			def.Reason(w.ID).Rank = e.doc.NextRank()
		}
	}
	if g == nil || *g == nil {
		return Done{}, refuse("pick it again", "%q did not give way", w.ID)
	}
	*g = nil
	return Done{Label: label + " holds again"}, nil
}

// pullTo is a length as a pulled size is written.
func (e *editor) pullTo(s *frame.Size, by measure.Length) {
	c := e.centre(s.Value + by)
	s.Value, s.Text, s.Unit = c.Value, c.Text, c.Unit
}
