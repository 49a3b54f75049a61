package edit

import (
	"fmt"
	"slices"

	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Split puts a joint into a pipe: where a tee is to stand, or a coupling. The
// first part keeps the pipe's id, and the old ends their distance.
type Split struct {
	Pipe    string        `json:"pipe"`
	From    string        `json:"from,omitempty"`   // the end it is measured from; the pipe's first end by default
	Length  string        `json:"length,omitempty"` // from that end's joint; half the way when left out
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Name    string        `json:"name,omitempty"` // of the new joint
}

var _ = register[Split]("split")

func (w *Split) on(e *editor) (Done, error) {
	def, p, scope, err := e.pipe(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	i := e.view.Graph.Edge(w.Pipe)
	switch p.Path {
	case frame.Sprung:
		return w.crown(e, def, p, scope)
	case frame.Bent:
		return Done{}, refuse("make it straight first, or of two pieces", "a bent pipe is not split")
	}
	if taken(def, w.Name) {
		return Done{}, refuse("give it another name", "there is a joint %q already", w.Name)
	}
	ends := e.view.Graph.Edges[i].Ends
	from, to := p.From, p.To
	turned := w.From != "" && w.From == e.view.Graph.Nodes[ends[1]].ID
	words := "in half"
	var size *frame.Size
	if w.Length != "" {
		s, err := e.size(w.Length, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		if s.Meaning == frame.TopOfPipe || s.Meaning == frame.TopOfCap {
			return Done{}, refuse("say cut, visible, centre, clear or outside", "a pipe is not split at a height")
		}
		long := e.view.Points[ends[0]].Distance(e.view.Points[ends[1]])
		if s.Value <= 0 || s.Value >= long {
			return Done{}, refuse(
				fmt.Sprintf("write less than its %s from centre to centre", long.Tape(e.unit)),
				"%s is not on the pipe",
				s.Value.Typed(s.Text, s.Unit),
			)
		}
		size, words = &s, "at "+w.Length
	}
	if p.Dir == nil { // drawn between planes: in line along its axis all the same
		place := e.place(scope)
		v := place.Local(e.view.Points[ends[1]]).Sub(place.Local(e.view.Points[ends[0]]))
		if d := straight(v); d != nil && exactlyAlong(v) {
			p.Dir, p.Gave = d, nil
		}
	}
	sloped := p.Dir == nil || p.Gave != nil
	var axis string
	if !sloped {
		if a, _, square := axisAlong(*p.Dir); square {
			axis = a.String()
		}
	}
	e.keepDistance(scope, p.ID)
	j := e.doc.AddJoint(def, frame.Joint{Name: w.Name})
	second := e.split(scope, local(e.path(scope), w.Pipe), j)
	switch {
	case size == nil:
		e.doc.AddReason(def, halfway(axis, frame.Ref(j), frame.Ref(from), frame.Ref(to), 0))
	default:
		if size.Pipe = local(e.path(scope), w.Pipe); turned {
			size.Pipe = second
		}
		if sloped {
			if turned {
				from, to = to, from
			}
			e.doc.AddReason(def, frame.Reason{Kind: frame.Toward, Of: frame.Ref(j), From: frame.Ref(from), To: frame.Ref(to)})
		}
		e.doc.AddSize(def, *size)
		first, last := e.view.Graph.Nodes[ends[0]].ID, e.view.Graph.Nodes[ends[1]].ID
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
		if !e.standsBetween(first, last, join(e.path(scope), j)) {
			return Done{}, refuse("write less, so that there is pipe on both sides", "%s ends beyond the pipe", size.Says())
		}
	}
	return Done{
		Label: fmt.Sprintf("Pipe %s split %s", mention.Of(w.Pipe), words),
		Joint: join(e.path(scope), j),
		Pipe:  w.Pipe,
		Also:  e.everywhere(scope),
	}, nil
}

// standsBetween says whether a joint stands between two others, as seen along the line from
// one to the other.
func (e *editor) standsBetween(from, to, joint string) bool {
	point := func(id string) measure.Point { return e.view.Points[e.view.Graph.Node(id)] }
	a, b, at := point(from), point(to), point(joint)
	way := a.Toward(b)
	return a.Toward(at).Dot(way) > 0 && at.Toward(b).Dot(way) > 0
}

func exactlyAlong(v measure.Point) bool {
	n := 0
	for _, x := range v {
		if x != 0 {
			n++
		}
	}
	return n == 1
}

// local is an id as its definition has it.
func local(path, id string) string {
	id, _ = within(path, id)
	return id
}

// Delete takes pipes and joints away. Where pipes run in line through a joint
// that goes, they become one.
type Delete struct {
	Joints []string `json:"joints,omitempty"`
	Pipes  []string `json:"pipes,omitempty"`
}

var _ = register[Delete]("delete")

func (w *Delete) on(e *editor) (Done, error) {
	if len(w.Joints)+len(w.Pipes) == 0 {
		return Done{}, refuse("pick a pipe or a joint", "nothing to delete")
	}
	done := Done{}
	became := map[string]string{} // a pipe that was healed into another
	for _, id := range w.Pipes {
		for became[id] != "" {
			id = became[id]
		}
		if e.view.Graph.Edge(id) < 0 && len(done.Also) > 0 {
			continue // it went with another one
		}
		def, p, scope, err := e.pipe(id)
		if err != nil {
			return Done{}, err
		}
		done.Also = append(done.Also, e.everywhere(scope)...)
		e.noteRemoved(e.dropPipe(def, p.ID))
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
		done.Also = append(done.Also, "")
	}
	for _, id := range w.Joints {
		if e.view.Graph.Node(id) < 0 && len(done.Also) > 0 {
			continue
		}
		def, j, scope, err := e.joint(id)
		if err != nil {
			return Done{}, err
		}
		done.Also = append(done.Also, e.everywhere(scope)...)
		e.heal(id, became)
		e.dropJoint(def, j.ID)
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
		done.Also = append(done.Also, "")
	}
	if err := e.dropBareJoints(); err != nil {
		return Done{}, err
	}
	for _, n := range e.view.Graph.Nodes {
		if e.inLine(e.view.Graph.Node(n.ID)) && e.wasNoCoupling(n.ID) {
			e.offers = append(
				e.offers,
				Offer{Label: "One pipe through " + mention.Of(n.ID), Edit: Edit{Gesture: &Delete{Joints: []string{n.ID}}}},
			)
		}
	}
	done.Also = slices.Compact(slices.Sorted(slices.Values(slices.DeleteFunc(done.Also, func(s string) bool { return s == "" }))))
	what := append(slices.Clone(w.Pipes), w.Joints...)
	done.Label = "Delete " + mention.Of(what[0])
	if len(what) > 1 {
		done.Label = fmt.Sprintf("Delete %d parts", len(what))
	}
	return done, nil
}

// inLine says whether a joint is nothing but a coupling between two pipes of a
// size.
func (e *editor) inLine(n int) bool {
	node := &e.view.Graph.Nodes[n]
	if len(node.Pipes) != 2 || node.Fitting != nil {
		return false
	}
	p, q := &e.view.Graph.Edges[node.Pipes[0].Pipe], &e.view.Graph.Edges[node.Pipes[1].Pipe]
	return p.Path == frame.Straight && q.Path == frame.Straight && p.Size == q.Size && p.Scope == q.Scope &&
		e.stoodWay(node.Pipes[0]).AngleTo(e.stoodWay(node.Pipes[1])) >= 180-2*fitting.Flex
}

// stoodWay is the direction in which a straight pipe leaves one of its joints, as
// the joints stood before the gesture: what is taken away moves nothing.
func (e *editor) stoodWay(pe frame.PipeEnd) measure.Dir {
	ends := e.view.Graph.Edges[pe.Pipe].Ends
	p, ok1 := e.positionBefore(ends[pe.End])
	q, ok2 := e.positionBefore(ends[1-pe.End])
	if !ok1 || !ok2 {
		return e.leaves(pe)
	}
	return p.Toward(q)
}

// wasNoCoupling says whether a joint was no mere coupling before the gesture.
func (e *editor) wasNoCoupling(id string) bool {
	n := e.was.Graph.Node(id)
	return n >= 0 && len(e.was.Graph.Nodes[n].Pipes) != 2
}

// dropPipe takes a pipe away with the corners that only it goes round.
func (e *editor) dropPipe(def *frame.Definition, id string) []frame.Removed {
	via := slices.Clone(def.Pipe(id).Via)
	gone := e.doc.DropPipe(def, id)
	for _, v := range via {
		used := slices.ContainsFunc(def.Pipes, func(o frame.Pipe) bool { return o.From == v || o.To == v || slices.Contains(o.Via, v) })
		if !used && def.Joint(v) != nil {
			gone = append(gone, e.doc.DropJoint(def, v)...)
		}
	}
	return gone
}

func (e *editor) dropJoint(def *frame.Definition, id string) {
	for _, p := range slices.Clone(def.Pipes) {
		if (p.From == id || p.To == id) && len(p.Via) > 0 {
			e.noteRemoved(e.dropPipe(def, p.ID))
		}
	}
	var asked []string // the pipes at it are asked to go with it; those that come to it in another copy are not
	for _, p := range def.Pipes {
		if p.From == id || p.To == id {
			asked = append(asked, p.ID)
		}
	}
	var gone []frame.Removed
	for _, r := range e.doc.DropJoint(def, id) {
		if i := slices.Index(asked, r.ID); r.Kind == "pipe" && i >= 0 {
			asked = slices.Delete(asked, i, i+1)
			continue
		}
		gone = append(gone, r)
	}
	e.noteRemoved(gone)
}

// heal makes one of each two pipes of a size that run in line through a joint;
// the older keeps its id. Their outer distance stays, and what was typed for
// them is given up.
func (e *editor) heal(id string, became map[string]string) {
	g := e.view.Graph
	node := &g.Nodes[g.Node(id)]
	done := map[int]bool{}
	for i, p := range node.Pipes {
		for _, q := range node.Pipes[i+1:] {
			a, b := &g.Edges[p.Pipe], &g.Edges[q.Pipe]
			if done[p.Pipe] || done[q.Pipe] || a.Path != frame.Straight || b.Path != frame.Straight || a.Size != b.Size ||
				a.Scope != b.Scope ||
				a.Scope != node.Scope ||
				e.stoodWay(p).AngleTo(e.stoodWay(q)) < 180-2*fitting.Flex {
				continue
			}
			scope := a.Scope
			def := e.def(scope)
			older, younger := local(e.path(scope), a.ID), local(e.path(scope), b.ID)
			drawn := func(id string) int { return slices.IndexFunc(def.Pipes, func(x frame.Pipe) bool { return x.ID == id }) }
			if drawn(younger) < drawn(older) {
				older, younger = younger, older
			}
			if def.Pipe(older) == nil || def.Pipe(younger) == nil {
				continue
			}
			done[p.Pipe], done[q.Pipe] = true, true
			became[join(e.path(scope), younger)] = join(e.path(scope), older)
			e.makeOne(scope, older, younger, local(e.path(scope), id))
			e.note("%s and %s are one pipe", e.ofDefinition(def, older), e.ofDefinition(def, younger))
		}
	}
}

// dropBareJoints removes joints that no pipe is left at and that nothing refers to.
func (e *editor) dropBareJoints() error {
	for again := true; again; {
		again = false
		if err := e.resolve(); err != nil {
			return err
		}
		for n := len(e.view.Graph.Nodes) - 1; n >= 0; n-- {
			node := &e.view.Graph.Nodes[n]
			if len(node.Pipes) > 0 {
				continue
			}
			def, j, _, err := e.joint(node.ID)
			if err != nil || e.mentioned(def, j.ID) || e.pipesElsewhere(def, j.ID) {
				continue
			}
			e.noteRemoved(e.doc.DropJoint(def, j.ID))
			again = true
			break
		}
	}
	return nil
}

// mentioned says whether a link, check, use or meeting needs a joint.
func (e *editor) mentioned(def *frame.Definition, id string) (yes bool) {
	e.doc.EachRef(func(in *frame.Definition, kind frame.RefKind, ref *string) {
		if yes || kind != frame.JointRef && kind != frame.PlaceRef || *ref == "" {
			return
		}
		path, name, plane := frame.Ref(*ref).Parts()
		if !plane && name == id && e.doc.Inside(in, path) == def {
			yes = true
		}
	})
	if yes { // sizes and reasons that keep only it in its place do not count
		yes = false
		keeps := func(refs ...string) bool { return slices.Contains(refs, id) }
		for i := range def.Links {
			for _, s := range def.Links[i].On {
				yes = yes || keeps(s.Joint)
			}
		}
		for i := range def.Pipes {
			yes = yes || keeps(append(slices.Clone(def.Pipes[i].Via), def.Pipes[i].From, def.Pipes[i].To)...)
		}
		for i := range def.Uses {
			yes = yes || keeps(string(def.Uses[i].At[0]), string(def.Uses[i].At[1]), string(def.Uses[i].At[2]))
		}
		for i := range def.Reasons {
			yes = yes ||
				def.Reasons[i].Kind != frame.Level && def.Reasons[i].Kind != frame.Placed &&
					keeps(
						string(def.Reasons[i].From),
						string(def.Reasons[i].To),
						string(def.Reasons[i].EqualFrom),
						string(def.Reasons[i].EqualTo),
					)
		}
		for _, v := range e.doc.ClearanceChecks {
			path, name, _ := frame.Ref(v.Joint).Parts()
			yes = yes || name == id && e.doc.Inside(&e.doc.Root, path) == def
		}
		for _, o := range e.doc.Definitions() {
			if o == def {
				continue
			}
			for i := range o.Pipes {
				for _, r := range []string{o.Pipes[i].From, o.Pipes[i].To} {
					path, name, _ := frame.Ref(r).Parts()
					yes = yes || name == id && path != "" && e.doc.Inside(o, path) == def
				}
			}
		}
	}
	return yes
}

// pipesElsewhere says whether pipes are left at a joint in another use of its
// definition.
func (e *editor) pipesElsewhere(def *frame.Definition, id string) bool {
	for sc := range e.view.Graph.Scopes {
		if e.def(sc) != def {
			continue
		}
		if n := e.view.Graph.Node(join(e.path(sc), id)); n < 0 || len(e.view.Graph.Nodes[n].Pipes) > 0 {
			return true
		}
	}
	return false
}
