package layout

import (
	"sturdyelbow/core/constraint"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

func (q *equations) reason(t *frame.ResolvedReason) {
	owner := q.owner("reason", q.g.Scopes[t.Scope].Of, t.ID)
	axes := []measure.Axis{measure.X, measure.Y, measure.Z}
	if a := frame.AxisOf(t.Axis); a >= 0 {
		axes = []measure.Axis{measure.Axis(a)}
	}
	for _, a := range axes {
		switch t.Kind {
		case frame.Level:
			u, ok1 := q.coordinate(t.Of, t.Scope, a)
			v, ok2 := q.coordinate(t.To, t.Scope, a)
			if ok1 && ok2 {
				q.equal(owner, v, u)
			}
		case frame.Share:
			u, ok1 := q.coordinate(t.Of, t.Scope, a)
			from, ok2 := q.coordinate(t.From, t.Scope, a)
			to, ok3 := q.coordinate(t.To, t.Scope, a)
			if ok1 && ok2 && ok3 {
				s := t.Way()
				q.sys.Sum(
					owner,
					0,
					constraint.Term{Of: u, Times: 1},
					constraint.Term{Of: from, Times: s - 1},
					constraint.Term{Of: to, Times: -s},
				)
			}
		case frame.EqualTo:
			other := measure.Axis(frame.AxisOf(t.EqualAxis))
			u, ok1 := q.coordinate(t.Of, t.Scope, a)
			from, ok2 := q.coordinate(t.From, t.Scope, a)
			lo, ok3 := q.coordinate(t.EqualFrom, t.Scope, other)
			hi, ok4 := q.coordinate(t.EqualTo, t.Scope, other)
			if ok1 && ok2 && ok3 && ok4 {
				_, s := q.along(t.Scope, a)
				_, l := q.along(t.Scope, other)
				v, w := float64(s), float64(l)
				q.sys.Sum(
					owner,
					0,
					constraint.Term{Of: u, Times: v},
					constraint.Term{Of: from, Times: -v},
					constraint.Term{Of: hi, Times: -w},
					constraint.Term{Of: lo, Times: w},
				)
			}
		case frame.Placed:
			u, ok1 := q.coordinate(t.Of, t.Scope, a)
			from, ok2 := q.coordinate(t.From, t.Scope, a)
			if ok1 && ok2 {
				_, s := q.along(t.Scope, a)
				q.sys.Difference(owner, from, u, s*t.By[a])
			}
		}
	}
	if t.Kind == frame.Toward && t.Of.Node >= 0 && t.From.Node >= 0 && t.To.Node >= 0 {
		far, at := q.sys.Auxiliary(), q.axesOf[t.Scope]
		q.sys.Toward(owner, q.node(t.Of.Node, at), q.node(t.From.Node, at), q.node(t.To.Node, at), far)
		q.lines[[2]int{t.From.Node, t.Of.Node}] = lineOf{long: far, sign: 1, axis: -1}
		q.lines[[2]int{t.Of.Node, t.From.Node}] = lineOf{long: far, sign: 1, axis: -1}
	}
	if t.Kind == frame.Line && t.Of.Node >= 0 && t.From.Node >= 0 {
		q.line(owner, t.Scope, t.From.Node, t.Of.Node, *t.Dir)
	}
}

// joints gives the joints on the plane of a coordinate.
func (q *equations) joints(v constraint.Var) []int {
	if q.on == nil {
		q.on = map[constraint.Var][]int{}
		for n := range q.g.Nodes {
			for axes := range q.bases {
				p, ok := q.nodes[[2]int{n, axes}]
				if !ok {
					continue
				}
				for k := range 3 {
					l := q.levelOf(p[k])
					q.on[l] = append(q.on[l], n)
				}
			}
		}
	}
	return q.on[q.levelOf(v)]
}

// point is where a joint was found, in the world.
func (q *equations) point(n int) measure.Point {
	axes := q.axesOf[q.g.Nodes[n].Scope]
	p := q.nodes[[2]int{n, axes}]
	var x measure.Point
	for k := range 3 {
		x[k] = q.found.At[p[k]]
	}
	return q.bases[axes].Point(x)
}
