package cutlist

import (
	"math"

	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Assembly is a frame put together from cut pieces.
type Assembly struct {
	Points []measure.Point // of each joint
	Gap    measure.Length  // the worst distance by which a loop does not meet
}

// Assemble puts a frame together from its cuts, its fittings' port table and
// the seats in f (see [fitting.Result.Reseat]), by walking from joint to joint
// along the ports. Each connected part starts at the planned point of its
// first joint, and so does each part that hangs together by sprung pipes only,
// since those give way. Where loops do not meet, the misfit is shared out evenly (least
// squares), and Gap says how much there was to share.
func Assemble(g *frame.Graph, f *fitting.Result, cuts []measure.Length, s *layout.Solution) Assembly {
	g = g.Rigid()
	n := len(g.Nodes)
	a := Assembly{Points: make([]measure.Point, n)}
	done := make([]bool, n)
	steps := make([]measure.Point, len(g.Edges)) // from Ends[0] to Ends[1]
	for e := range g.Edges {
		from, to := frame.PipeEnd{Pipe: e, End: 0}, frame.PipeEnd{Pipe: e, End: 1}
		length := cuts[e] + f.TakeOff(from) + f.TakeOff(to)
		// the pipe's own line: the mean of the two ports that face each other
		d, back := f.Port(from).Dir, f.Port(to).Dir
		line := measure.Dir{d[0] - back[0], d[1] - back[1], d[2] - back[2]}.Unit()
		steps[e] = measure.Point{}.Along(line, length)
		if ed := &g.Edges[e]; ed.Path == frame.Bent {
			// from end to end as planned, the last leg longer or shorter
			steps[e] = s.Points[ed.Ends[1]].Sub(s.Points[ed.Ends[0]]).Along(back.Neg(), length-s.Lengths[e])
		}
	}
	var queue []int
	for root := range n {
		if done[root] {
			continue
		}
		done[root], a.Points[root] = true, s.Points[root]
		for queue = append(queue[:0], root); len(queue) > 0; queue = queue[1:] {
			at := queue[0]
			for _, pe := range g.Nodes[at].Pipes {
				_, to := leave(g, pe)
				if done[to] {
					continue
				}
				done[to] = true
				if a.Points[to] = a.Points[at].Add(steps[pe.Pipe]); pe.End == 1 {
					a.Points[to] = a.Points[at].Sub(steps[pe.Pipe])
				}
				queue = append(queue, to)
			}
		}
	}
	for e, ed := range g.Edges {
		if ed.Path == frame.Sprung {
			continue
		}
		a.Gap = max(a.Gap, a.Points[ed.Ends[0]].Add(steps[e]).Distance(a.Points[ed.Ends[1]]))
	}
	if a.Gap > measure.Inch/1000 {
		share(g, steps, a.Points)
	}
	return a
}

// share finds the positions with the least sum of squared misfits, by
// conjugate gradients on the graph's Laplacian, one axis at a time. The mean
// position stays where it was.
func share(g *frame.Graph, steps, points []measure.Point) {
	n := len(points)
	for axis := range 3 {
		x, r := make([]float64, n), make([]float64, n)
		for i := range x {
			x[i] = float64(points[i][axis])
		}
		apply := func(v, out []float64) {
			clear(out)
			for _, e := range g.Edges {
				if e.Path == frame.Sprung {
					continue
				}
				d := v[e.Ends[1]] - v[e.Ends[0]]
				out[e.Ends[1]] += d
				out[e.Ends[0]] -= d
			}
		}
		apply(x, r)
		for i := range r {
			r[i] = -r[i]
		}
		for e, ed := range g.Edges {
			if ed.Path == frame.Sprung {
				continue
			}
			d := float64(steps[e][axis])
			r[ed.Ends[1]] += d
			r[ed.Ends[0]] -= d
		}
		p := append([]float64(nil), r...)
		q := make([]float64, n)
		rr := dot(r, r)
		for k := 0; k < 4*n && rr > 1e4; k++ { // until off by under 100 nm
			apply(p, q)
			alpha := rr / dot(p, q)
			for i := range x {
				x[i] += alpha * p[i]
				r[i] -= alpha * q[i]
			}
			next := dot(r, r)
			for i := range p {
				p[i] = r[i] + next/rr*p[i]
			}
			rr = next
		}
		for i := range points {
			points[i][axis] = measure.Length(math.Round(x[i]))
		}
	}
}

func dot(a, b []float64) (s float64) {
	for i := range a {
		s += a[i] * b[i]
	}
	return s
}
