package edit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Apart puts two fittings where one of many ports stood: one pipe moves along another by the least
// that two fittings take, with a hidden nipple between them. A corner of three becomes an elbow and a
// tee; what was typed is measured from where the corner was, and stays there.
type Apart struct {
	Joint string       `json:"joint"`
	More  []string     `json:"more,omitempty"` // joints that get the same
	Along measure.Axis `json:"along"`          // of the frame: the pipe that the second fitting stands on
	Move  measure.Axis `json:"move"`           // of the frame: the pipe that goes to the second fitting
}

var _ = register[Apart]("apart")

func (w *Apart) on(e *editor) (Done, error) {
	if w.Along == w.Move {
		return Done{}, refuse("say along one way and moving another", "a pipe is not moved along itself")
	}
	joints := append([]string{w.Joint}, w.More...)
	if err := w.part(e, joints); err != nil {
		return Done{}, err
	}
	// all is read of the frame as it is, before the first pipe is moved
	var all []parting
	var told []string
	for _, joint := range joints {
		p, err := w.read(e, joint)
		if err != nil {
			return Done{}, err
		}
		told = append(told, mention.Of(p.joint))
		// a joint of a part is one in all of its uses
		if !slices.ContainsFunc(all, func(o parting) bool {
			return o.inner == p.inner && o.here == p.here || slices.Contains(o.with, p.joint)
		}) {
			all = append(all, p)
		}
	}
	done := Done{Label: "Two fittings at " + strings.Join(told, ", "), Also: e.everywhere(all[0].inner)}
	for i := range all {
		k, nipple := all[i].make(e)
		if i == 0 {
			done.Joint, done.Pipe = k, nipple
		}
	}
	return done, e.resolve()
}

// limb is a pipe that leaves a joint: as its definition names it, and which way.
type limb struct {
	edge, scope int
	id          string // in its definition
	dir         measure.Dir
}

// parting is what is done at one joint.
type parting struct {
	joint     string
	rail, leg limb
	inner     int    // the scope in which the second fitting is drawn: that of the pipe that is deeper in a part
	here      string // the joint, as that scope names it
	others    []use  // pipes that are drawn further out: in every use their ends go to the second fitting
	with      []string
}

// read says what is to be done at a joint.
func (w *Apart) read(e *editor, joint string) (p parting, err error) {
	n, err := e.node(joint)
	if err != nil {
		return p, err
	}
	p.joint = e.view.Graph.Nodes[n].ID
	if len(e.view.Graph.Nodes[n].Pipes) < 3 {
		return p, refuse("pick one where three pipes or more meet", "%s needs no two fittings", mention.Of(p.joint))
	}
	if p.rail, err = w.limb(e, n, w.Along); err != nil {
		return p, err
	}
	if p.leg, err = w.limb(e, n, w.Move); err != nil {
		return p, err
	}
	p.inner = p.rail.scope
	if len(e.path(p.leg.scope)) > len(e.path(p.inner)) {
		p.inner = p.leg.scope
	}
	apart := refuse("take its part apart first", "the pipes that meet at %s are of different parts", mention.Of(p.joint))
	var ok bool
	if p.here, ok = e.ref(p.inner, p.joint); !ok {
		return p, apart
	}
	outer := p.rail
	if p.leg.scope != p.inner {
		outer = p.leg
	}
	if outer.scope == p.inner {
		return p, nil
	}
	if p.inner != e.view.Graph.Nodes[n].Scope {
		return p, apart
	}
	p.others, err = e.usesWith(p.inner, p.here, outer.dir)
	for _, u := range p.others {
		p.with = append(p.with, join(u.path, p.here))
	}
	return p, err
}

// make does it, and gives the second joint and the nipple by their paths. Nothing is solved yet.
func (p *parting) make(e *editor) (joint, pipe string) {
	def := e.def(p.inner)
	if j := def.Joint(p.here); j != nil {
		if j.Fitting != nil { // what was asked for had other ports
			e.note("the fitting that was chosen at %s goes", mention.Of(p.joint))
			j.Fitting = nil
		}
		j.Later = nil
	}
	size := e.view.Graph.Edges[p.rail.edge].Size
	e.straighten(p.rail)
	e.straighten(p.leg)
	for _, u := range p.others {
		e.straighten(u.limb)
	}
	k := e.doc.AddJoint(def, frame.Joint{})
	def = e.def(p.inner)
	var nipple string
	if p.rail.scope == p.inner {
		e.keepDistance(p.inner, p.rail.id)
		if x := def.Pipe(p.rail.id); x.From == p.here {
			e.doc.TurnPipe(def, x.ID) // the long part is the pipe that it was, and the nipple a new one
		}
		nipple = e.split(p.inner, p.rail.id, k)
	} else {
		dir := e.place(p.inner).Turned(p.rail.dir)
		nipple = e.doc.AddPipe(def, frame.Pipe{From: p.here, To: k, Dir: &dir, Size: size, Rank: e.doc.NextRank()})
	}
	if p.leg.scope == p.inner {
		e.moveEnd(p.inner, p.leg.id, p.here, k)
	}
	for _, u := range p.others {
		from, _ := e.ref(u.limb.scope, join(u.path, p.here))
		to, _ := e.ref(u.limb.scope, join(u.path, k))
		e.moveEnd(u.limb.scope, u.limb.id, from, to)
	}
	e.doc.AddSize(e.def(p.inner), frame.Size{Meaning: frame.Visible, Text: "0", Unit: e.unit, Pipe: nipple})
	return join(e.path(p.inner), k), join(e.path(p.inner), nipple)
}

// part gives uses of a part definitions of their own where the pipes from outside that it is about leave
// them another way: a leg of a table at the left, and one at the right.
func (w *Apart) part(e *editor, joints []string) error {
	sign := map[int]string{} // by scope: which joints it is about there, and which way the pipes from outside leave
	of := map[string]bool{}
	for _, joint := range joints {
		n, err := e.node(joint)
		if err != nil {
			return err
		}
		home := e.view.Graph.Nodes[n].Scope
		if e.view.Graph.Scopes[home].Of == "" {
			continue
		}
		local, _ := e.ref(home, e.view.Graph.Nodes[n].ID)
		for _, a := range []measure.Axis{w.Along, w.Move} {
			l, err := w.limb(e, n, a)
			if err != nil {
				return err
			}
			if l.scope != home {
				sign[home] += fmt.Sprintf("%s %.3f;", local, e.place(home).Turned(l.dir))
			}
		}
		of[e.view.Graph.Scopes[home].Of] = true
	}
	changed := false
	for _, group := range slices.Sorted(maps.Keys(of)) {
		first, uses, groups := "", map[*frame.Use]string{}, map[string]string{}
		begun := false
		for s := range e.view.Graph.Scopes {
			if e.view.Graph.Scopes[s].Of != group {
				continue
			}
			_, u, _, err := e.use(e.path(s))
			if err != nil {
				return err
			}
			if was, known := uses[u]; known && was != sign[s] {
				return refuse("take its part apart first", "one use of the part %s goes several ways", e.path(s))
			}
			if uses[u] = sign[s]; !begun {
				first, begun = sign[s], true
			}
			if sign[s] == first {
				continue
			}
			if groups[sign[s]] == "" {
				g := *e.doc.Group(group)
				name := cmp.Or(g.Name, g.ID)
				g.ID = frame.Free(name+" ", func(id string) bool { return e.doc.Group(id) != nil })
				g.Name = g.ID
				e.doc.AddGroup(g, true)
				groups[sign[s]] = g.ID
			}
			u.Of, changed = groups[sign[s]], true
		}
	}
	if !changed {
		return nil
	}
	e.note("parts that lie the other way are parts of their own now")
	return e.renamedOnly()
}

// use is a use of a part, and the pipe from outside that goes to a joint of it.
type use struct {
	path string
	limb limb
}

// usesWith finds in every use of a part the pipe from outside that leaves a joint of it the same way, as
// the part sees it.
func (e *editor) usesWith(scope int, joint string, dir measure.Dir) (all []use, err error) {
	local := e.place(scope).Turned(dir)
	for s := range e.view.Graph.Scopes {
		if e.view.Graph.Scopes[s].Of != e.view.Graph.Scopes[scope].Of {
			continue
		}
		path := e.path(s)
		n := e.view.Graph.Node(join(path, joint))
		found := false
		for _, pe := range e.pipesAt(n) {
			x := &e.view.Graph.Edges[pe.Pipe]
			if x.Scope == s || x.Path != frame.Straight || e.place(s).Turned(e.leaves(pe)).Dot(local) < 1-1e-9 {
				continue
			}
			id, ok := e.ref(x.Scope, x.ID)
			if _, inside := e.ref(x.Scope, join(path, joint)); !ok || !inside {
				continue
			}
			all, found = append(all, use{path, limb{pe.Pipe, x.Scope, id, e.leaves(pe)}}), true
			break
		}
		if !found {
			return nil, refuse(
				"take its part apart first",
				"the part is also used where no pipe goes that way, at %s",
				mention.Of(join(path, joint)),
			)
		}
	}
	return all, nil
}

func (e *editor) pipesAt(n int) []frame.PipeEnd {
	if n < 0 {
		return nil
	}
	return e.view.Graph.Nodes[n].Pipes
}

// straighten says of a pipe that was drawn between planes that it runs along its axis all the same.
func (e *editor) straighten(l limb) {
	p := e.def(l.scope).Pipe(l.id)
	if p == nil || p.Dir != nil {
		return
	}
	ends := e.view.Graph.Edges[l.edge].Ends
	place := e.place(l.scope)
	v := place.Local(e.view.Points[ends[1]]).Sub(place.Local(e.view.Points[ends[0]]))
	if d := straight(v); d != nil && exactlyAlong(v) {
		if p.From != local(e.path(l.scope), e.view.Graph.Nodes[ends[0]].ID) &&
			p.To == local(e.path(l.scope), e.view.Graph.Nodes[ends[0]].ID) {
			turned := d.Neg()
			d = &turned
		}
		p.Dir, p.Gave = d, nil
	}
}

// limb finds the straight pipe that leaves a joint along an axis: of two the one that goes up the axis.
func (w *Apart) limb(e *editor, n int, a measure.Axis) (l limb, err error) {
	best := 0.0
	for _, pe := range e.view.Graph.Nodes[n].Pipes {
		x := &e.view.Graph.Edges[pe.Pipe]
		along, sign, ok := axisAlong(e.leaves(pe))
		if !ok || along != a || x.Path != frame.Straight {
			continue
		}
		if sign > best || l.id == "" {
			l, best = limb{pe.Pipe, x.Scope, local(e.path(x.Scope), x.ID), e.leaves(pe)}, sign
		}
	}
	if l.id == "" {
		return l, refuse("pick one that has a pipe that way", "no pipe leaves %s along %s", mention.Of(e.view.Graph.Nodes[n].ID), a)
	}
	return l, nil
}

// moveEnd lets a pipe of a definition end at another joint: what is said of its end goes with it.
func (e *editor) moveEnd(scope int, pipe, from, to string) {
	def := e.def(scope)
	e.doc.NameDatums(def, pipe)
	e.doc.EachAnchorOn(def, pipe, func(owner *frame.Definition, path string, l *frame.Link, a *frame.Anchor) {
		if a.From != join(path, from) {
			return
		}
		was := l.ID + " at " + a.Says(e.ofDefinition(owner, a.From))
		a.From = join(path, to)
		e.gave = append(e.gave, GivenUp{Was: was, Now: a.Says(e.ofDefinition(owner, a.From)), Words: "its pipe goes to another fitting"})
	})
	for i := range e.doc.ModeRules {
		h := &e.doc.ModeRules[i]
		path, name, _ := frame.Ref(h.Pipe).Parts()
		if h.Pipe != "" && name == pipe && h.Joint == join(path, from) && e.doc.Inside(&e.doc.Root, path) == def {
			h.Joint = join(path, to)
		}
	}
	p := def.Pipe(pipe)
	if p.From == from {
		p.From = to
	} else {
		p.To = to
	}
}
