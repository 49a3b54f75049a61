package edit

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

type stood = layout.Stood

// Mirror makes the same on the other side of a station: of a part, or of
// joints, which become a group first. The copy follows the original.
type Mirror struct {
	In     string       `json:"in,omitempty"`
	Part   string       `json:"part,omitempty"`
	Joints []string     `json:"joints,omitempty"`
	Name   string       `json:"name,omitempty"` // of the group made of joints
	Axis   measure.Axis `json:"axis"`
	About  string       `json:"about"` // the station of the mirror
}

func (w *Mirror) on(b *bench) (Done, error) {
	part := w.Part
	if part == "" {
		scope, err := b.scope(w.In)
		if err != nil {
			return Done{}, err
		}
		id, err := b.group(scope, cmp.Or(w.Name, "half"), w.Joints)
		if err != nil {
			return Done{}, err
		}
		part = join(b.view.Graph.Scopes[scope].Path, id)
		if err := b.look(); err != nil {
			return Done{}, err
		}
	}
	def, i, scope, err := b.use(part)
	if err != nil {
		return Done{}, err
	}
	if _, _, _, err := b.axis(b.view.Graph.Scopes[scope].Path, w.Axis, w.About); err != nil {
		return Done{}, err
	}
	u := def.Uses[i]
	if u.Array != nil {
		return Done{}, refuse("mirror a part of which there is one", "%q is an array", u.ID)
	}
	m := u
	m.ID = free(b.nameOf(u.Of)+" ", func(id string) bool { return b.takenUse(def, id) })
	m.Mirror, m.Turns = mirrored(u.Mirror, u.Turns, w.Axis)
	if at := u.At[w.Axis]; at != w.About {
		m.At[w.Axis] = b.imageOf(def, w.Axis, at, w.About)
	}
	def.Uses = append(def.Uses, m)
	path := join(b.view.Graph.Scopes[scope].Path, m.ID)
	return Done{Label: fmt.Sprintf("%s mirrored at %s", u.ID, w.About), Part: path, Also: b.everywhere(scope)}, b.weld(scope, path)
}

func (b *bench) nameOf(group string) string {
	if g := b.doc.Group(group); g != nil {
		return cmp.Or(g.Name, g.ID)
	}
	return group
}

// imageOf gives the station that is another one's mirror image in a third: one
// that is that already, or a new one.
func (b *bench) imageOf(def *frame.Definition, a measure.Axis, of, in string) string {
	for _, s := range def.Axes[a].Stations {
		if s.Split != nil && s.Split.From == of && s.Split.To == in && s.Split.Share == 2 {
			return s.ID
		}
	}
	// the mirror half-way between two: the image is the other one
	if m := find(def, a, in); m.Split != nil && m.Split.Of() == 0.5 {
		switch of {
		case m.Split.From:
			return m.Split.To
		case m.Split.To:
			return m.Split.From
		}
	}
	st := frame.Station{ID: newStation(def, a), Split: &frame.Split{From: of, To: in, Share: 2}}
	def.Axes[a].Stations = append(def.Axes[a].Stations, st)
	return st.ID
}

// mirrored gives the mirror and turns of a use seen in a mirror square to an
// axis. A turn about another axis goes the other way round there; two mirrors
// are half a turn.
func mirrored(was string, turns []frame.Turn, a measure.Axis) (string, []frame.Turn) {
	var now []frame.Turn
	for _, t := range turns {
		if t.About != a {
			t.By = -t.By
		}
		now = append(now, t)
	}
	switch was {
	case "":
		return a.String(), now
	case a.String():
		return "", now
	}
	for c := range measure.Z + 1 {
		if c != a && c.String() != was {
			return "", append([]frame.Turn{{About: c, By: 180}}, now...)
		}
	}
	return was, now
}

// Turn turns a part about an axis of the definition it stands in.
type Turn struct {
	Part  string       `json:"part"`
	About measure.Axis `json:"about"`
	By    float64      `json:"by"` // degrees
}

func (w *Turn) on(b *bench) (Done, error) {
	def, i, scope, err := b.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	if w.About < measure.X || w.About > measure.Z || !(w.By > -360 && w.By < 360) || w.By == 0 {
		return Done{}, refuse("use degrees, as in 90", "no such turn")
	}
	u := &def.Uses[i]
	u.Turns = turned(u.Turns, frame.Turn{About: w.About, By: w.By})
	inside := b.weldedTo(def, u.ID)
	def.Merges = slices.DeleteFunc(def.Merges, inside)
	path := join(b.view.Graph.Scopes[scope].Path, u.ID)
	return Done{Label: fmt.Sprintf("%s turned by %g°", u.ID, w.By), Part: w.Part, Also: b.everywhere(scope)}, b.weld(scope, path)
}

// weldedTo tells the merges that a use has a part in.
func (b *bench) weldedTo(def *frame.Definition, use string) func(frame.Merge) bool {
	in := func(ref string) bool {
		_, inUse := cut(ref, use+"/")
		_, inCopy := cut(ref, use+"#")
		return inUse || inCopy
	}
	return func(m frame.Merge) bool { return in(m.Keep) || in(m.Drop) }
}

// turned adds a turn to others; two about one axis are one.
func turned(turns []frame.Turn, t frame.Turn) []frame.Turn {
	turns = slices.Clone(turns)
	if n := len(turns); n > 0 && turns[n-1].About == t.About {
		t.By += turns[n-1].By
		turns = turns[:n-1]
	}
	for t.By >= 360 {
		t.By -= 360
	}
	for t.By <= -360 {
		t.By += 360
	}
	if t.By != 0 {
		turns = append(turns, t)
	}
	return turns
}

// Unique gives a part a group of its own, so that it may become different.
type Unique struct {
	Part string `json:"part"`
	Name string `json:"name,omitempty"` // of the new group
}

func (w *Unique) on(b *bench) (Done, error) {
	def, i, scope, err := b.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	u := &def.Uses[i]
	g := b.doc.Group(u.Of)
	name := cmp.Or(w.Name, g.Name, g.ID)
	twin := (&frame.Document{Groups: []frame.Definition{*g}}).Clone().Groups[0]
	twin.ID = free(name+" ", func(id string) bool { return b.doc.Group(id) != nil })
	twin.Name = cmp.Or(w.Name, twin.ID)
	u.Of = twin.ID
	b.doc.Groups = append(b.doc.Groups, twin)
	return Done{Label: w.Part + " by itself", Part: w.Part, Also: b.everywhere(scope)}, nil
}

// Stand sets how the frame stands on its floor: turned about one of its axes.
// No turns stand it upright.
type Stand struct {
	Turns []frame.Turn `json:"turns"`
}

func (w *Stand) on(b *bench) (Done, error) {
	if len(w.Turns) == 0 {
		b.doc.Stance = nil
		return Done{Label: "Upright"}, nil
	}
	b.doc.Stance = &frame.Stance{Turns: w.Turns}
	return Done{Label: fmt.Sprintf("Standing at %g°", w.Turns[len(w.Turns)-1].By)}, nil
}
