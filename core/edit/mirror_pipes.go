package edit

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// outward is a pipe from a part to a joint outside it, in the names of the definition in which the part stands.
type outward struct {
	pipe    frame.Pipe
	outside string
}

// pipesOut are the straight pipes from a part to joints outside it.
func (e *editor) pipesOut(scope int, part string) (all []outward) {
	for _, p := range e.def(scope).Pipes {
		for k, ref := range []string{p.From, p.To} {
			other := []string{p.To, p.From}[k]
			_, in := within(part, ref)
			_, too := within(part, other)
			if in && !too && p.Path == frame.Straight {
				all = append(all, outward{p, other})
			}
		}
	}
	return all
}

// mirrorPipes runs the mirror images of pipes that run from a part to what is outside it: to the same joint, where that is
// on the plane of the mirror, or to what stands at its image, a joint or a pipe, which then is split. So both twins are
// joined to the rest, or it is told that one is not.
func (e *editor) mirrorPipes(scope int, part, image string, a measure.Axis, plane layout.Plane, pipes []outward) error {
	def := e.def(scope)
	for _, o := range pipes {
		if err := e.resolve(); err != nil {
			return err
		}
		p := o.pipe
		outside, ok := e.imageOf(scope, o.outside, a, plane, part, image)
		if !ok {
			e.note("%s joins the one to %s; nothing stands at the image of that", e.thing(scope, p.ID), e.thing(scope, o.outside))
			continue
		}
		c := frame.Pipe{From: outside, To: outside, Size: p.Size}
		if rest, in := within(part, p.From); in {
			c.From = join(image, rest)
		} else if rest, in := within(part, p.To); in {
			c.To = join(image, rest)
		}
		if p.Dir != nil {
			dir := *p.Dir
			dir[a] = -dir[a]
			c.Dir = &dir
		}
		if err := e.resolve(); err != nil {
			return err
		}
		u, v := e.view.Graph.Node(join(e.path(scope), c.From)), e.view.Graph.Node(join(e.path(scope), c.To))
		if u < 0 || v < 0 || u == v || e.joined(u, v) {
			continue // what it meets is there already
		}
		e.doc.AddPipe(def, c)
		e.clearEnds(def, c.From, c.To)
		e.note("the pipe to %s is mirrored, too", mention.Of(join(e.path(scope), c.To)))
	}
	return e.resolve()
}

// imageOf is the joint of a definition that stands at the image of another one: itself where it is on the plane, one that
// is there, or a new one in a pipe along the axis of the mirror that goes through there; of the parts
// that are mirrored it is none.
func (e *editor) imageOf(scope int, joint string, a measure.Axis, plane layout.Plane, not ...string) (string, bool) {
	n := e.view.Graph.Node(join(e.path(scope), joint))
	if slices.Contains(plane.Joints, joint) || n < 0 {
		return joint, n >= 0
	}
	place := e.place(scope)
	at := place.Local(e.view.Points[n])
	at[a] = 2*plane.At - at[a]
	best, least := "", reachOf(biggest(e, n)) // a pipe that is still to come there takes no more
	for k, p := range e.view.Points {
		ref, in := e.ref(scope, e.view.Graph.Nodes[k].ID)
		in = in && !slices.ContainsFunc(not, func(part string) bool { return inside(part, ref) })
		if off := place.Local(p).Distance(at); in && k != n && off < least && len(e.view.Graph.Nodes[k].Pipes) > 0 {
			best, least = ref, off
		}
	}
	if best != "" {
		return best, true
	}
	for i := range e.view.Graph.Edges {
		edge := &e.view.Graph.Edges[i]
		p, q := place.Local(e.view.Points[edge.Ends[0]]), place.Local(e.view.Points[edge.Ends[1]])
		along, _, square := axisAlong(place.Turned(e.view.Tangents[i][0]))
		local, in := e.ref(scope, edge.ID)
		between := min(p[a], q[a]) < at[a] && at[a] < max(p[a], q[a])
		beside := max((p[(a+1)%3] - at[(a+1)%3]).Abs(), (p[(a+2)%3] - at[(a+2)%3]).Abs())
		if !in || edge.Scope != scope || edge.Path != frame.Straight || !square || along != a || !between || beside > layout.TapeStep {
			continue
		}
		id := e.doc.AddJoint(e.def(scope), frame.Joint{})
		e.splitAt(scope, local, id)
		e.doc.AddReason(e.def(scope), frame.Reason{
			Kind: frame.Share, Axis: a.String(), Of: frame.Ref(id), From: frame.Ref(joint), To: plane.Ref, Share: 2,
		})
		return id, true
	}
	return "", false
}
