package edit

import (
	"cmp"
	"fmt"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Mirror makes the same on the other side of a plane: of a part, or of joints,
// which become a group first. The copy follows the original.
type Mirror struct {
	In     string       `json:"in,omitempty"`
	Part   string       `json:"part,omitempty"`
	Joints []string     `json:"joints,omitempty"`
	Name   string       `json:"name,omitempty"` // of the group made of joints
	Axis   measure.Axis `json:"axis"`
	About  frame.Ref    `json:"about"` // a joint on the plane of the mirror, or its name
}

var _ = register[Mirror]("mirror")

func (w *Mirror) on(e *editor) (Done, error) {
	part, about := w.Part, w.About
	if part == "" {
		scope, err := e.scope(w.In)
		if err != nil {
			return Done{}, err
		}
		id, err := e.group(scope, cmp.Or(w.Name, "half"), w.Joints)
		if err != nil {
			return Done{}, err
		}
		part = join(e.path(scope), id)
		for _, j := range w.Joints { // the mirror goes through one of them
			if ref, ok := e.ref(scope, j); ok && frame.Ref(ref) == about {
				about = frame.Ref(id + "/" + ref)
			}
		}
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
	}
	def, u, scope, err := e.use(part)
	if err != nil {
		return Done{}, err
	}
	_, at, err := e.axis(e.path(scope), w.Axis, about)
	if err != nil {
		return Done{}, err
	}
	if u.Array != nil {
		return Done{}, refuse("mirror a part of which there is one", "%q is an array", u.ID)
	}
	plane := e.place(scope).Planes[w.Axis][at]
	out := e.pipesOut(scope, u.ID)
	g := e.doc.Group(u.Of)
	m := *u
	m.ID = frame.Free(cmp.Or(g.Name, g.ID)+" ", func(id string) bool { return def.Use(id) != nil || def.Joint(id) != nil })
	m.Mirror, m.Turns = frame.Mirrored(u.Mirror, u.Turns, int(w.Axis))
	m.Rank = 0
	anchor := e.anchorName(u)
	own := frame.Ref(u.ID + "/" + anchor)
	for a := range 3 {
		m.At[a], m.Anchor[a] = own, ""
	}
	for a := range 3 {
		m.Anchor[a] = frame.Ref(anchor)
	}
	image := frame.Reason{}
	if !onPlane(&plane, own) {
		m.At[w.Axis] = ""
		image = frame.Reason{
			Kind:  frame.Share,
			Axis:  w.Axis.String(),
			Of:    frame.Ref(m.ID + "/" + anchor),
			From:  own,
			To:    plane.Ref,
			Share: 2,
		}
	}
	id := u.ID
	e.doc.AddUse(def, m)
	if image.Kind != "" {
		e.doc.AddReason(def, image)
	}
	path := join(e.path(scope), m.ID)
	done := Done{Label: fmt.Sprintf("%s mirrored at %s", id, plane.Name), Part: path, Also: e.everywhere(scope)}
	if err := e.meetPart(scope, path); err != nil {
		return Done{}, err
	}
	if err := e.mirrorPipes(scope, id, m.ID, w.Axis, plane, out); err != nil {
		return Done{}, err
	}
	return done, e.offerRails(scope, e.pairsOf(join(e.path(scope), id), path))
}

// Flip mirrors a part where it stands.
type Flip struct {
	Part string       `json:"part"`
	Axis measure.Axis `json:"axis"`
}

var _ = register[Flip]("flip")

func (w *Flip) on(e *editor) (Done, error) {
	def, u, scope, err := e.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	if w.Axis < measure.X || w.Axis > measure.Z {
		return Done{}, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	}
	u.Mirror, u.Turns = frame.Mirrored(u.Mirror, u.Turns, int(w.Axis))
	id := u.ID
	e.doc.DropMerges(def, id)
	return Done{Label: id + " flipped", Part: w.Part, Also: e.everywhere(scope)}, e.meetPart(scope, join(e.path(scope), id))
}

// Turn turns a part about an axis of the definition it stands in.
type Turn struct {
	Part  string       `json:"part"`
	About measure.Axis `json:"about"`
	By    float64      `json:"by"` // degrees
}

var _ = register[Turn]("turn")

func (w *Turn) on(e *editor) (Done, error) {
	def, u, scope, err := e.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	if w.About < measure.X || w.About > measure.Z || !(w.By > -360 && w.By < 360) || w.By == 0 {
		return Done{}, refuse("use degrees, as in 90", "no such turn")
	}
	u.Turns = turned(u.Turns, frame.Turn{About: w.About, By: w.By})
	id := u.ID
	e.doc.DropMerges(def, id)
	path := join(e.path(scope), id)
	return Done{Label: fmt.Sprintf("%s turned by %g°", id, w.By), Part: w.Part, Also: e.everywhere(scope)}, e.meetPart(scope, path)
}

// turned adds a turn to others; two about one axis are one.
func turned(turns []frame.Turn, t frame.Turn) []frame.Turn {
	turns = append([]frame.Turn{}, turns...)
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

var _ = register[Unique]("unique")

func (w *Unique) on(e *editor) (Done, error) {
	_, u, scope, err := e.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	g := *e.doc.Group(u.Of)
	name := cmp.Or(w.Name, g.Name, g.ID)
	g.ID = frame.Free(name+" ", func(id string) bool { return e.doc.Group(id) != nil })
	g.Name = cmp.Or(w.Name, g.ID)
	u.Of = g.ID
	e.doc.AddGroup(g, true)
	return Done{Label: w.Part + " by itself", Part: w.Part, Also: e.everywhere(scope)}, e.renamedOnly()
}

// Stand sets how the frame stands on its floor: turned about one of its axes, or on none.
// No turns stand it upright.
type Stand struct {
	Turns []frame.Turn `json:"turns"`
	Held  bool         `json:"held,omitempty"` // by hand, or hung
}

var _ = register[Stand]("stand")

func (w *Stand) on(e *editor) (Done, error) {
	if w.Held {
		e.doc.Stance = &frame.Stance{Held: true}
		if len(w.Turns) > 0 {
			e.doc.Stance.Turns = w.Turns
		}
		return Done{Label: "Held by hand, or hung"}, nil
	}
	if len(w.Turns) == 0 {
		e.doc.Stance = nil
		return Done{Label: "Upright"}, nil
	}
	e.doc.Stance = &frame.Stance{Turns: w.Turns}
	return Done{Label: fmt.Sprintf("Standing at %g°", w.Turns[len(w.Turns)-1].By)}, nil
}
