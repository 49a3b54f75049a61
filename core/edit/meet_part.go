package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// meetPart lets what a part brought meet what stands where it came to stand:
// joints become one, and pipes that its joints came to lie on are split. A pipe
// that was there and that the part brought as well is there once. What comes
// within a socket's depth of something is asked about, one after the other,
// since what meets decides which fittings stand there.
func (e *editor) meetPart(scope int, part string) error {
	if err := e.resolveAndHold(); err != nil {
		return err
	}
	if err := e.resolveConflicts(); err != nil { // what contradicts itself stands nowhere: what gives way decides what meets
		return err
	}
	tried := map[[2]string]bool{}
	for range 50 {
		if err := e.meetJoints(scope, part, [2]string{}); err != nil {
			return err
		}
		if pair, ok := e.meetsAsTyped(scope, part, tried); ok {
			if err := e.meetJoints(scope, part, pair); err != nil {
				return err
			}
			continue
		}
		x, y, off := e.nearest(scope, part)
		if x == "" {
			break
		}
		if !e.answered(meets(x, y)) {
			return &Question{
				Title: "Do they meet?",
				What:  fmt.Sprintf("%s comes close to %s (%s): are they to meet?", mention.Of(x), mention.Of(y), e.off(off)),
				Options: []Option{
					{ID: meets(x, y), Label: "They meet"},
					{ID: apart(x, y), Label: "Stay apart, as they are"},
				},
			}
		}
		if err := e.meetJoints(scope, part, [2]string{x, y}); err != nil {
			return err
		}
		if _, err := e.settle(); err != nil { // what gives way decides what meets next
			return err
		}
	}
	return e.meetPipes(scope, part)
}

// mostMeetings is how many pairs of joints are tried of a part that comes to stand close to what is there.
const mostMeetings = 8

// meetsAsTyped gives a joint of a part and one outside it that stand nearer to each other than two bodies can, and of
// which everything that was typed holds when they are one. It costs a solution of the frame for each pair that was not
// tried yet, of [mostMeetings] at most.
func (e *editor) meetsAsTyped(scope int, part string, tried map[[2]string]bool) (pair [2]string, ok bool) {
	for _, c := range e.close(scope, part, func(i, _ int) measure.Length { return reachOf(biggest(e, i)) }) {
		pair := [2]string{e.view.Graph.Nodes[c.i].ID, e.view.Graph.Nodes[c.k].ID}
		if tried[pair] || len(tried) >= mostMeetings {
			continue
		}
		tried[pair] = true
		trial := e.trial()
		if trial.meetJoints(scope, part, pair) != nil || trial.resolve() != nil {
			continue
		}
		if _, fits := trial.residual(e); fits {
			return pair, true
		}
	}
	return pair, false
}

// closeBy are two joints that stand close to each other, of which the first is a part's.
type closeBy struct {
	i, k int
	off  measure.Length
}

// close lists joints of which one is a part's and the other is not, that stand as near to each other as given and were not
// said to stay apart; the nearest first.
func (e *editor) close(scope int, part string, reach func(i, k int) measure.Length) (all []closeBy) {
	g := e.view.Graph
	for i := range g.Nodes {
		u := g.Nodes[i].ID
		if !inside(part, u) || len(g.Nodes[i].Pipes) == 0 {
			continue
		}
		for k := range g.Nodes {
			v := g.Nodes[k].ID
			d := e.view.Points[i].Distance(e.view.Points[k])
			if inside(part, v) || len(g.Nodes[k].Pipes) == 0 || d <= layout.TapeStep || d > reach(i, k) || e.joined(i, k) ||
				e.answered(apart(u, v)) {
				continue
			}
			if _, ok := e.ref(scope, v); ok {
				all = append(all, closeBy{i, k, d})
			}
		}
	}
	slices.SortStableFunc(all, func(x, y closeBy) int { return cmp.Compare(x.off, y.off) })
	return all
}

func meets(x, y string) string { return fmt.Sprintf("meet %s %s", x, y) }
func apart(x, y string) string { return fmt.Sprintf("apart %s %s", x, y) }

// inside says whether an id is of a part, or of a copy of it.
func inside(part, id string) bool {
	return id == part || strings.HasPrefix(id, part+"/") || strings.HasPrefix(id, part+"#")
}

// nearest gives joints of which one is a part's and the other is not, that
// stand within a socket's depth of each other and were not said to stay apart.
func (e *editor) nearest(scope int, part string) (x, y string, off measure.Length) {
	all := e.close(scope, part, func(i, _ int) measure.Length { return socketOf(biggest(e, i)) })
	if len(all) == 0 {
		return "", "", 0
	}
	return e.view.Graph.Nodes[all[0].i].ID, e.view.Graph.Nodes[all[0].k].ID, all[0].off
}

// meetJoints makes joints one that stand at one place, of which at least one is
// a part's; and a pair that is to meet though it stands apart.
func (e *editor) meetJoints(scope int, part string, pair [2]string) error {
	inPart := func(id string) bool { return inside(part, id) }
	g := e.view.Graph
	met := make([]int, len(g.Nodes)) // which joints became one
	for i := range met {
		met[i] = i
	}
	one := func(i int) int {
		for met[i] != i {
			i = met[i]
		}
		return i
	}
	names := make([]string, len(g.Nodes)) // what each goes by now
	for i := range names {
		names[i] = g.Nodes[i].ID
	}
	for i := range g.Nodes {
		for k := range i {
			u, v := g.Nodes[i].ID, g.Nodes[k].ID
			if one(i) == one(k) || !inPart(u) && !inPart(v) || inPart(u) && inPart(v) && !differentCopies(part, u, v) {
				continue
			}
			if e.view.Points[i].Distance(e.view.Points[k]) > layout.TapeStep && pair != [2]string{u, v} && pair != [2]string{v, u} {
				continue
			}
			x, y := names[one(k)], names[one(i)]
			if inPart(x) && !inPart(y) {
				x, y = y, x // what stood there first is kept
			}
			if inPart(x) && inPart(y) && !differentCopies(part, x, y) {
				continue // two of the part's came to one place: the part holds them apart
			}
			keep, ok1 := e.ref(scope, x)
			drop, ok2 := e.ref(scope, y)
			if !ok1 || !ok2 {
				continue
			}
			e.clearEnds(e.def(scope), keep, drop)
			e.note("%s meets %s", mention.Of(y), mention.Of(x))
			def, stays := e.def(scope), x
			if def.Joint(keep) != nil { // one of the definition's own goes into the part's
				keep, drop, stays = drop, keep, y
			}
			e.doc.MergeJoints(def, keep, drop)
			met[one(k)] = one(i)
			names[one(i)] = stays
		}
	}
	// a pipe that the part brought along as well is there once
	e.dropDuplicatePipes(scope, part, g, one)
	return e.resolve()
}

// meetPipes splits pipes of a definition that joints of a part came to lie on.
func (e *editor) meetPipes(scope int, part string) error {
	inPart := func(id string) bool { return inside(part, id) }
	met := map[string]int{}
	for again := true; again; {
		again = false
		for i := range e.view.Graph.Nodes {
			id := e.view.Graph.Nodes[i].ID
			ref, in := e.ref(scope, id)
			if !in || !inPart(id) || len(e.view.Graph.Nodes[i].Pipes) == 0 {
				continue
			}
			for _, p := range e.def(scope).Pipes {
				k := e.view.Graph.Edge(join(e.path(scope), p.ID))
				if k < 0 || p.From == ref || p.To == ref || !e.runsThrough(k, e.view.Points[i], layout.TapeStep) {
					continue
				}
				if met[id]++; met[id] > 3 { // one pipe each way; more lie along each other, and never come to rest
					return refuse(
						"take away what it lies along first, or put it elsewhere",
						"%s comes to lie along the pipe %s",
						part,
						e.thing(scope, p.ID),
					)
				}
				e.splitAt(scope, p.ID, ref)
				e.clearEnds(e.def(scope), ref)
				e.note("%s meets the pipe %s", mention.Of(id), e.thing(scope, p.ID))
				again = true
				break
			}
			if again {
				// the two halves may be pipes that the part brought as well
				if _, err := e.solve(e.doc); err != nil {
					e.dropDuplicateHalves(scope, part)
				}
				if err := e.resolve(); err != nil {
					return err
				}
				break
			}
		}
	}
	return nil
}

// dropDuplicatePipes removes pipes of a definition that a new part brought as well.
// one gives the joint that stands for several that were merged.
func (e *editor) dropDuplicatePipes(scope int, part string, g *frame.Graph, one func(int) int) {
	def, path := e.def(scope), e.path(scope)
	for _, p := range slices.Clone(def.Pipes) {
		k := g.Edge(join(path, p.ID))
		if k < 0 || p.Path != frame.Straight {
			continue
		}
		u, v := one(g.Edges[k].Ends[0]), one(g.Edges[k].Ends[1])
		if u == v || slices.ContainsFunc(g.Edges, func(x frame.Edge) bool {
			a, b := one(x.Ends[0]), one(x.Ends[1])
			inPart := strings.HasPrefix(x.ID, part+"/") || strings.HasPrefix(x.ID, part+"#")
			return inPart && x.Path == frame.Straight && (a == u && b == v || a == v && b == u)
		}) {
			e.note("%s is there already", e.thing(scope, p.ID))
			e.noteRemoved(slices.DeleteFunc(e.doc.DropPipe(def, p.ID), func(r frame.Removed) bool { return r.ID == p.ID }))
		}
	}
}

// dropDuplicateHalves does the same after a pipe was split, by the joints that its
// two halves end at.
func (e *editor) dropDuplicateHalves(scope int, part string) {
	def, path, g := e.def(scope), e.path(scope), e.view.Graph
	for _, p := range slices.Clone(def.Pipes) {
		u, v := g.Node(join(path, p.From)), g.Node(join(path, p.To))
		if p.Path != frame.Straight || u < 0 || v < 0 {
			continue
		}
		for _, x := range g.Edges {
			inPart := strings.HasPrefix(x.ID, part+"/") || strings.HasPrefix(x.ID, part+"#")
			if inPart && x.Path == frame.Straight && (x.Ends == [2]int{u, v} || x.Ends == [2]int{v, u}) {
				e.note("%s is there already", e.thing(scope, p.ID))
				e.noteRemoved(slices.DeleteFunc(e.doc.DropPipe(def, p.ID), func(r frame.Removed) bool { return r.ID == p.ID }))
				break
			}
		}
	}
}

// differentCopies says whether two joints are of different copies of an array.
func differentCopies(part, x, y string) bool {
	a, ok1 := strings.CutPrefix(x, part+"#")
	b, ok2 := strings.CutPrefix(y, part+"#")
	if !ok1 || !ok2 {
		return false
	}
	a, _, _ = strings.Cut(a, "/")
	b, _, _ = strings.Cut(b, "/")
	return a != b
}
