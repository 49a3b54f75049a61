package edit

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Join runs a pipe between two joints. Where they lie along an axis it keeps
// them in line from then on.
type Join struct {
	From string       `json:"from"`
	To   string       `json:"to"`
	In   string       `json:"in,omitempty"`
	Size catalog.Size `json:"size,omitempty"`
}

var _ = register[Join]("join")

func (w *Join) on(e *editor) (Done, error) {
	e.runs = true
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	var refs [2]string
	var nodes [2]int
	for k, id := range []string{w.From, w.To} {
		if nodes[k], err = e.node(id); err != nil {
			return Done{}, err
		}
		var ok bool
		if refs[k], ok = e.ref(scope, id); !ok {
			return Done{}, refuse("work on the whole frame to reach it", "the joint %s is not in %q", mention.Of(id), w.In)
		}
	}
	switch {
	case nodes[0] == nodes[1]:
		return Done{}, refuse("pick another joint", "a pipe from a joint to itself")
	case w.Size != "" && !w.Size.Known():
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	label := fmt.Sprintf("Pipe from %s to %s", mention.Of(w.From), mention.Of(w.To))
	if pe, there := e.pipeTo(nodes[0], nodes[1]); there {
		done := e.thereAlready(pe)
		done.Label = label
		return done, nil
	}
	p := frame.Pipe{Size: w.Size}
	if at := e.sizeAt(nodes[:]...); w.Size == "" && at != e.usual(scope) {
		p.Size = at // as the pipes that it joins
	}
	l := leg{scope: scope, n: nodes[0], ref: refs[0], size: p.Size}
	tees := e.inLineWith(&l, nodes[1], refs[1])
	id := e.runTo(l, nodes[1], refs[1])
	e.clearEnd(w.From)
	done := Done{
		Label: label,
		Joint: w.To,
		Pipe:  join(e.path(scope), id),
		Also:  e.everywhere(scope),
	}
	e.awaitAll(tees, &done)
	if err := e.resolve(); err != nil {
		return Done{}, err
	}
	return e.through(done, scope, id)
}

// inLineWith gives a pipe that is to join two joints the direction of the axis that they lie along. They may be off it by
// what fittings do that are still to come: where they are nearer to it than two bodies can stand, and all that was typed
// holds with a pipe straight along it, perhaps with tees, it is straight. Any other keeps none, and runs wherever its
// joints are.
func (e *editor) inLineWith(l *leg, m int, to string) []awaited {
	from, end := e.place(l.scope).Local(e.view.Points[l.n]), e.place(l.scope).Local(e.view.Points[m])
	v := end.Sub(from)
	a := farthestAxis(v)
	off := max(v[(a+1)%3].Abs(), v[(a+2)%3].Abs())
	if off > reachOf(biggest(e, l.n))+reachOf(biggest(e, m)) || v[a].Abs() <= 2*layout.TapeStep {
		l.straightTo = true
		return nil
	}
	if l.dir[a] = 1; v[a] < 0 {
		l.dir[a] = -1
	}
	if off <= layout.TapeStep {
		return nil
	}
	tees, holds := e.holdsTo(*l, m, to, e.view.Graph.Scopes[l.scope].Orient.Dir(l.dir))
	l.straightTo = !holds
	return tees
}

// sizeAt is the size of all pipes at some joints, where they are of one size.
func (e *editor) sizeAt(nodes ...int) (size catalog.Size) {
	for _, n := range nodes {
		for _, pe := range e.view.Graph.Nodes[n].Pipes {
			switch s := e.view.Graph.Edges[pe.Pipe].Size; {
			case size == "":
				size = s
			case size != s:
				return ""
			}
		}
	}
	return size
}

// straight is the direction of a way that runs along an axis but for what no
// tape shows; nil of any other.
func straight(v measure.Point) *measure.Dir {
	for a := range v {
		b, c := (a+1)%3, (a+2)%3
		if v[b].Abs() <= layout.TapeStep && v[c].Abs() <= layout.TapeStep && v[a].Abs() > 2*layout.TapeStep {
			var d measure.Dir
			if d[a] = 1; v[a] < 0 {
				d[a] = -1
			}
			return &d
		}
	}
	return nil
}
