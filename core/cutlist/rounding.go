package cutlist

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Loop is a closed way round the frame and how far the rounded cuts leave it
// open.
type Loop struct {
	Joints   []string       `json:"joints"`
	Pipes    []string       `json:"pipes"`
	Residual measure.Point  `json:"residual"`
	Off      measure.Length `json:"off"` // length of the residual
	steps    []walkStep
}

type walkStep struct {
	pipe    int
	forward bool
}

type rounding struct {
	g       *frame.Graph
	s       *layout.Solution
	step    measure.Length
	classes []class
	of      []int // piece → class
	exact   []measure.Length
	loops   []Loop
	share   [][]measure.Dir // loop × class: what one unit of cut adds to the loop's vector
}

func newRounding(g *frame.Graph, s *layout.Solution, ps []Piece, step measure.Length) *rounding {
	r := &rounding{g: g, s: s, step: step}
	r.classes, r.of = classes(ps, step)
	for _, p := range ps {
		r.exact = append(r.exact, p.Exact)
	}
	r.loops = findLoops(g)
	for i := range r.loops {
		share := make([]measure.Dir, len(r.classes))
		for _, w := range r.loops[i].steps {
			d := r.dir(w)
			for a := range 3 {
				share[r.of[w.pipe]][a] += d[a]
			}
		}
		r.share = append(r.share, share)
		r.measure(i)
	}
	return r
}

func (r *rounding) dir(w walkStep) measure.Dir {
	if w.forward {
		return r.s.Tangents[w.pipe][0]
	}
	return r.s.Tangents[w.pipe][1]
}

func (r *rounding) cut(piece int) measure.Length {
	if r.step <= 0 {
		return r.exact[piece]
	}
	return r.classes[r.of[piece]].cut
}

// measure works out a loop's residual from the cuts as they stand. The exact
// cuts close every loop, so only the roundings count.
func (r *rounding) measure(i int) {
	var v measure.Dir
	for _, w := range r.loops[i].steps {
		d, e := r.dir(w), float64(r.cut(w.pipe)-r.exact[w.pipe])
		for a := range 3 {
			v[a] += d[a] * e
		}
	}
	l := &r.loops[i]
	for a := range 3 {
		l.Residual[a] = measure.Length(math.Round(v[a]))
	}
	l.Off = measure.Length(math.Round(math.Sqrt(v.Dot(v))))
}

// settleMoves bounds the search; each move lessens the excess.
const settleMoves = 400

// settle moves classes by one step, the most helpful first, until no loop is
// off by more than one step or no move helps. A cut never ends a whole step
// or more from its exact length.
func (r *rounding) settle() {
	if r.step <= 0 {
		return
	}
	for range settleMoves {
		now := r.excess(-1, 0)
		if now == 0 {
			return
		}
		best, by, least := -1, measure.Length(0), now
		for c := range r.classes {
			for _, d := range []measure.Length{r.step, -r.step} {
				if (r.classes[c].cut + d - r.classes[c].exact).Abs() >= r.step {
					continue
				}
				if e := r.excess(c, d); e < least-1e-6 {
					best, by, least = c, d, e
				}
			}
		}
		if best < 0 {
			return
		}
		r.classes[best].cut += by
		for i := range r.loops {
			if r.share[i][best] != (measure.Dir{}) {
				r.measure(i)
			}
		}
	}
}

// excess is how far all loops together are off beyond one step, if a class
// were moved.
func (r *rounding) excess(class int, by measure.Length) float64 {
	sum := 0.0
	for i := range r.loops {
		v := measure.Dir{float64(r.loops[i].Residual[0]), float64(r.loops[i].Residual[1]), float64(r.loops[i].Residual[2])}
		if class >= 0 {
			for a := range 3 {
				v[a] += r.share[i][class][a] * float64(by)
			}
		}
		sum += max(0, math.Sqrt(v.Dot(v))-float64(r.step)-10)
	}
	return sum
}

func (r *rounding) findings() []finding.Finding {
	var fs []finding.Finding
	for _, l := range r.loops {
		if r.step > 0 && l.Off > r.step+10 {
			fs = append(fs, finding.Finding{Code: "loop-residual", Severity: finding.Warn, Subject: l.Pipes,
				Text: fmt.Sprintf("the loop %s is off by %s after rounding", strings.Join(l.Joints, " – "), l.Off.Round(measure.SixtyFourth)),
				Hint: "cut one of its pieces to a finer step"})
		}
	}
	return fs
}

// findLoops gives the shortest loop through every pipe, and the long loops of
// a depth-first walk, each once.
func findLoops(g *frame.Graph) []Loop {
	var loops []Loop
	seen := map[string]bool{}
	add := func(steps []walkStep) {
		if len(steps) == 0 {
			return
		}
		ids := make([]int, len(steps))
		for i, w := range steps {
			ids[i] = w.pipe
		}
		slices.Sort(ids)
		key := fmt.Sprint(ids)
		if seen[key] {
			return
		}
		seen[key] = true
		l := Loop{steps: steps}
		for _, w := range steps {
			e := &g.Edges[w.pipe]
			from := e.Ends[1]
			if w.forward {
				from = e.Ends[0]
			}
			l.Joints, l.Pipes = append(l.Joints, g.Nodes[from].ID), append(l.Pipes, e.ID)
		}
		loops = append(loops, l)
	}
	for e := range g.Edges {
		add(shortestRound(g, e))
	}
	for _, steps := range treeLoops(g) {
		add(steps)
	}
	return loops
}

// leave goes from a joint by one of its pipes and says where it arrives.
func leave(g *frame.Graph, pe frame.PipeEnd) (walkStep, int) {
	return walkStep{pe.Pipe, pe.End == 0}, g.Edges[pe.Pipe].Ends[1-pe.End]
}

// shortestRound gives the fewest-pipe loop through a pipe; nil when it is in none.
func shortestRound(g *frame.Graph, pipe int) []walkStep {
	back := path(g, g.Edges[pipe].Ends[1], g.Edges[pipe].Ends[0], pipe)
	if back == nil {
		return nil
	}
	return append([]walkStep{{pipe, true}}, back...)
}

// treeLoops closes each pipe that a depth-first walk did not use.
func treeLoops(g *frame.Graph) [][]walkStep {
	depth := make([]int, len(g.Nodes))
	up := make([]walkStep, len(g.Nodes)) // the step that led here
	parent := make([]int, len(g.Nodes))
	used := make([]bool, len(g.Edges))
	var all [][]walkStep
	var visit func(n int)
	visit = func(n int) {
		for _, pe := range g.Nodes[n].Pipes {
			w, to := leave(g, pe)
			if used[pe.Pipe] {
				continue
			}
			used[pe.Pipe] = true
			if depth[to] == 0 {
				depth[to], up[to], parent[to] = depth[n]+1, w, n
				visit(to)
				continue
			}
			steps := []walkStep{w} // n → to, and back down from to to n
			var down []walkStep
			for m := n; m != to && m >= 0 && depth[m] > depth[to]; m = parent[m] {
				down = append(down, up[m])
			}
			slices.Reverse(down)
			all = append(all, append(steps, down...))
		}
	}
	for n := range g.Nodes {
		if depth[n] == 0 {
			depth[n], parent[n] = 1, -1
			visit(n)
		}
	}
	return all
}
