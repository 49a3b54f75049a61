package edit

import (
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Bounds of how far tees are sought that a run waits for: rounds that each make one coupling a tee, and couplings that
// are tried in each. Each try costs one solution of the frame.
const (
	mostAwaited = 8
	mostTees    = 12
)

// awaited is a joint where two pieces go on straight, which is to be a tee already: what was typed closes only so.
type awaited struct {
	joint  string
	toward measure.Dir // the way of its third port, in the world's axes
	across bool        // a joint stands across from it, which has a pipe there or ends there
}

// tees finds which couplings have to be tees for what was typed to hold, where a run was led to a joint and it does
// not. A frame is drawn pipe by pipe: where the posts of a ladder are drawn before its rungs, the pieces of one post meet
// in couplings until the rungs come, and are shorter by two take-offs at each than the post that the rungs begin at. It
// gives none where no tees make it hold; way is the direction of the run.
func (e *editor) tees(led *editor, way measure.Dir) (all []awaited) {
	trial := led
	for range mostAwaited {
		if off := trial.awry(e); off == 0 || off >= measure.FrameLimit {
			break
		}
		next, best := e.nextTee(trial, way)
		if next == nil {
			return nil
		}
		all, trial = append(all, best), next
	}
	if _, fits := trial.residual(e); !fits {
		return nil
	}
	for i := 0; len(all) > 1 && i < len(all); { // those that turned out not to be needed
		without := led.trial()
		for k, a := range all {
			if k != i {
				without.await(a)
			}
		}
		if without.resolve() != nil {
			return nil
		}
		if _, fits := without.residual(e); fits {
			all = slices.Delete(all, i, i+1)
			continue
		}
		i++
	}
	for i := range all {
		if d, ok := trial.across(all[i].joint, 0); ok {
			all[i].toward, all[i].across = d, true
		} else {
			all[i].across = false
		}
	}
	return all
}

// farthestAxis is the axis along which a way leads farthest.
func farthestAxis(v measure.Point) measure.Axis {
	a := measure.X
	for _, b := range []measure.Axis{measure.Y, measure.Z} {
		if v[b].Abs() > v[a].Abs() {
			a = b
		}
	}
	return a
}

// awaitTees makes tees of the couplings that stand across from those that the gesture's pipes made tees of, where with
// them everything holds. It reports whether there are any. They are sought once for a gesture, and only for one that runs
// pipes: in a part that is brought, nothing is still to come.
func (e *editor) awaitTees() bool {
	if !e.runs || len(e.view.Graph.Edges) <= len(e.was.Graph.Edges) {
		return false
	}
	e.runs = false
	before := e.trial()
	before.view = e.was
	all := before.tees(e.trial(), measure.Dir{})
	if len(all) == 0 || !sure(all) {
		return false
	}
	for _, a := range all {
		e.await(a)
	}
	e.note("%s", awaitedWords(all))
	return true
}

// dropIdleTees makes couplings again of tees whose pipes are still to come, where everything holds without them: what they
// were there for has gone or was changed.
func (e *editor) dropIdleTees() error {
	e.dropTees(func(without *editor) bool {
		_, fits := without.residual(e)
		return fits
	})
	return nil
}

// dropTees makes couplings again of those tees that waited before the gesture, without which the frame is as wanted. It
// reports whether there are any. It costs a solution of the frame for each that there is.
func (e *editor) dropTees(wanted func(without *editor) bool) (any bool) {
	for i := range e.was.Graph.Nodes {
		n := &e.was.Graph.Nodes[i]
		if n.Fitting == nil || !n.Fitting.Awaits {
			continue
		}
		without := e.trial()
		_, j, _, err := without.joint(n.ID)
		if err != nil || j.Fitting == nil || !j.Fitting.Awaits {
			continue
		}
		j.Fitting = nil
		if without.resolve() != nil || !wanted(without) {
			continue
		}
		e.doc, e.view, any = without.doc, without.view, true
		e.note("%s needs no tee any more", mention.Of(n.ID))
	}
	return any
}

// nextTee makes a coupling a tee that takes away something of the first contradiction of a trial: of those that do, the one
// that leaves the least off altogether. What it sets right here may go wrong elsewhere, until the next one is made.
// The editor is nil where there is none.
func (e *editor) nextTee(trial *editor, way measure.Dir) (then *editor, best awaited) {
	first := trial.newClashes(e)[0]
	least := measure.FrameLimit
	for _, c := range trial.couplings(e, way) {
		if first.Off.Abs() < trial.gain(c.joint)-measure.Micrometre {
			continue // a tee takes more than that
		}
		next := trial.trial()
		next.await(c)
		if next.resolve() != nil || next.offBy(first.Key()) > first.Off.Abs()-measure.Micrometre {
			continue
		}
		_, c.across = next.across(c.joint, first.Off.Abs())
		left := next.awry(e)
		if left < least-measure.Micrometre || left < least+measure.Micrometre && c.across && !best.across {
			best, least, then = c, left, next
		}
	}
	return then, best
}

// gain is by how much the pieces that meet in a coupling reach farther where a tee stands in its place.
func (e *editor) gain(joint string) measure.Length {
	size := e.view.Graph.Edges[e.view.Graph.Nodes[e.view.Graph.Node(joint)].Pipes[0].Pipe].Size
	tee, ok1 := e.view.Catalog.Fitting(catalog.Tee, size)
	coupling, ok2 := e.view.Catalog.Fitting(catalog.Coupling, size)
	if !ok1 || !ok2 {
		return 0
	}
	return 2 * (tee.Ports[0].Stop - coupling.Ports[0].Stop)
}

// offBy is by how much a contradiction is off, by its key; nothing where it is none any more.
func (e *editor) offBy(key string) measure.Length {
	for i := range e.view.Clashes {
		if c := &e.view.Clashes[i]; c.Key() == key {
			return c.Off.Abs()
		}
	}
	return 0
}

// awry is by how much all new contradictions of a tried change are off together.
func (e *editor) awry(before *editor) (off measure.Length) {
	if worst, _ := e.residual(before); worst >= measure.FrameLimit {
		return worst
	}
	for _, c := range e.newClashes(before) {
		off += c.Off.Abs()
	}
	return off
}

// couplings lists where two pieces go on straight in what contradicts, but did not before.
func (e *editor) couplings(before *editor, way measure.Dir) (all []awaited) {
	seen := map[int]bool{}
	for _, c := range e.newClashes(before) {
		for _, id := range c.Pipes {
			k := e.view.Graph.Edge(id)
			if k < 0 {
				continue
			}
			for _, n := range e.view.Graph.Edges[k].Ends {
				if seen[n] || !e.drawnStraight(n) {
					continue
				}
				seen[n] = true
				if d, square := e.sideways(n, way); square && len(all) < mostTees {
					all = append(all, awaited{joint: e.view.Graph.Nodes[n].ID, toward: d})
				}
			}
		}
	}
	return all
}

// drawnStraight says whether two pieces go on straight through a joint as they were drawn: where something contradicts,
// they may slope.
func (e *editor) drawnStraight(n int) bool {
	node := &e.view.Graph.Nodes[n]
	if len(node.Pipes) != 2 || node.Fitting != nil {
		return false
	}
	var dirs [2]measure.Dir
	for k, pe := range node.Pipes {
		p := &e.view.Graph.Edges[pe.Pipe]
		if p.Path != frame.Straight || p.Size != e.view.Graph.Edges[node.Pipes[0].Pipe].Size {
			return false
		}
		dirs[k] = e.leaves(pe)
		if p.Drawn.Dir != nil {
			dirs[k] = e.view.Graph.Scopes[p.Scope].Orient.Dir(*p.Drawn.Dir)
			if pe.End == 1 {
				dirs[k] = dirs[k].Neg()
			}
		}
	}
	return dirs[0].AngleTo(dirs[1]) >= 180-2*fitting.Flex
}

// sideways is a way square to the pipes that go straight through a joint: the one in which a run came from, or to one
// side of it.
func (e *editor) sideways(n int, way measure.Dir) (measure.Dir, bool) {
	along := e.leaves(e.view.Graph.Nodes[n].Pipes[0])
	a, _, square := axisAlong(along)
	if !square {
		return way, false
	}
	if b, sign, ok := axisAlong(way); ok && a != b {
		d := measure.Dir{}
		d[b] = -sign
		return d, true
	}
	d := measure.Dir{}
	d[(a+1)%3] = 1
	if a == measure.X { // a rail has its legs below it
		d = measure.Dir{0, 0, -1}
	}
	return d, true
}

// await makes a coupling a tee whose third port waits for a pipe.
func (e *editor) await(a awaited) {
	_, j, scope, err := e.joint(a.joint)
	if err == nil {
		j.Fitting = &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{exactly(e.place(scope).Turned(a.toward))}, Awaits: true}
	}
}

// awaitAll makes couplings tees and tells it.
func (e *editor) awaitAll(all []awaited, done *Done) {
	for _, a := range all {
		e.await(a)
	}
	if len(all) > 0 {
		done.Also = append(done.Also, awaitedWords(all))
	}
}

// across gives the way from a joint to the nearest other one that stands square across from it, as near as given, and is
// no coupling: the pipe that a tee waits for runs there. ok is false where there is none.
func (e *editor) across(joint string, within measure.Length) (way measure.Dir, ok bool) {
	n := e.view.Graph.Node(joint)
	along, _, _ := axisAlong(e.leaves(e.view.Graph.Nodes[n].Pipes[0]))
	least := measure.FrameLimit
	for k, p := range e.view.Points {
		if k == n || len(e.view.Graph.Nodes[k].Pipes) == 0 || e.drawnStraight(k) {
			continue
		}
		if pe := e.view.Graph.Nodes[k].Pipes[0]; len(e.view.Graph.Nodes[k].Pipes) == 1 { // as it stands when a pipe goes on from it
			stop := catalog.Typical().Figure("", e.view.Graph.Edges[pe.Pipe].Size, catalog.Stop90).Value
			p = p.Along(e.leaves(pe), -stop)
		}
		v, d := p.Sub(e.view.Points[n]), measure.Dir{}
		a := farthestAxis(v)
		if d[a] = 1; v[a] < 0 {
			d[a] = -1
		}
		off := max(v[(a+1)%3].Abs(), v[(a+2)%3].Abs())
		if a != along && off <= within+layout.TapeStep && p.Distance(e.view.Points[n]) < least {
			way, ok, least = d, true, p.Distance(e.view.Points[n])
		}
	}
	return way, ok
}

// teesAt names what couplings become.
func teesAt(all []awaited) string {
	var names []string
	for _, a := range all {
		names = append(names, mention.Of(a.joint))
	}
	if len(names) == 1 {
		return "a tee at " + names[0]
	}
	return "tees at " + listed(names)
}

// awaitedWords tells what couplings became, and why.
func awaitedWords(all []awaited) string {
	return teesAt(all) + ", for what is still to come: only so do all cuts hold"
}

// sure says whether a joint stands across from every one of them.
func sure(all []awaited) bool {
	return !slices.ContainsFunc(all, func(a awaited) bool { return !a.across })
}
