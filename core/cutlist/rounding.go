package cutlist

import (
	"fmt"
	"math"
	"slices"

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
	Off      measure.Length `json:"off"`  // length of the residual
	Hair     bool           `json:"hair"` // it is off by less than a tape shows
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
	off     []measure.Dir // of each loop: its residual
	in      [][]member    // of each class: the loops it is in
	work    int
}

// member is a class' part in a loop: what one unit of cut adds to the loop's
// vector.
type member struct {
	loop int
	adds measure.Dir
}

func newRounding(g *frame.Graph, s *layout.Solution, ps []Piece, step measure.Length) *rounding {
	r := &rounding{g: g, s: s, step: step}
	r.classes, r.of = classes(ps, step)
	for _, p := range ps {
		r.exact = append(r.exact, p.Exact)
	}
	r.loops = findLoops(g.Rigid())
	r.off, r.in = make([]measure.Dir, len(r.loops)), make([][]member, len(r.classes))
	for i := range r.loops {
		for _, w := range r.loops[i].steps {
			d, c := r.dir(w), r.of[w.pipe]
			if n := len(r.in[c]); n == 0 || r.in[c][n-1].loop != i {
				r.in[c] = append(r.in[c], member{loop: i})
			}
			m := &r.in[c][len(r.in[c])-1]
			for a := range 3 {
				m.adds[a] += d[a]
			}
		}
		r.measure(i)
	}
	return r
}

func (r *rounding) dir(w walkStep) measure.Dir {
	t := r.s.Tangents[w.pipe]
	along := t[0]
	if r.g.Edges[w.pipe].Path == frame.Bent { // what is cut longer goes to its last leg
		along = t[1].Neg()
	}
	if w.forward {
		return along
	}
	return along.Neg()
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
	r.off[i] = v
	l := &r.loops[i]
	for a := range 3 {
		l.Residual[a] = measure.Length(math.Round(v[a]))
	}
	l.Off = measure.Length(math.Round(math.Sqrt(v.Dot(v))))
	l.Hair = l.Off < measure.SixtyFourth
}

// settleWork bounds the search, counted in loops looked at.
const settleWork = 2_000_000

// settle moves classes by one step, the most helpful first, until no loop is
// off by more than one step or no move helps; where no single move does, two
// classes move at once. A cut never ends a whole step or more from its exact
// length.
func (r *rounding) settle() {
	if r.step <= 0 {
		return
	}
	r.work = settleWork
	for r.excess() > 0 && r.work > 0 {
		if best := r.bestMove(); best != nil {
			r.apply(*best)
		} else if !r.pair() {
			return
		}
	}
}

// move changes a class' cut by a step up or down.
type move struct {
	class int
	by    measure.Length
}

func (r *rounding) moves(class int) []move {
	var ms []move
	if r.classes[class].typed {
		return nil
	}
	for _, by := range []measure.Length{r.step, -r.step} {
		if c := &r.classes[class]; (c.cut + by - c.exact).Abs() < r.step {
			ms = append(ms, move{class, by})
		}
	}
	return ms
}

func (r *rounding) apply(m move) {
	r.classes[m.class].cut += m.by
	for _, in := range r.in[m.class] {
		r.measure(in.loop)
	}
}

// excess is how far all loops together are off beyond one step.
func (r *rounding) excess() (sum float64) {
	for i := range r.loops {
		sum += r.beyond(member{loop: i}, 0)
	}
	return sum
}

// beyond is a loop's part of the excess, after a class in it is changed.
func (r *rounding) beyond(in member, by measure.Length) float64 {
	r.work--
	v := r.off[in.loop]
	for a := range 3 {
		v[a] += in.adds[a] * float64(by)
	}
	return max(0, math.Sqrt(v.Dot(v))-float64(r.step)-10)
}

// gain is by how much a move lessens the excess.
func (r *rounding) gain(m move) (g float64) {
	for _, in := range r.in[m.class] {
		g += r.beyond(in, 0) - r.beyond(in, m.by)
	}
	return g
}

// enough tells a gain from the noise of adding floating-point numbers.
const enough = 1e-3

func (r *rounding) bestMove() (best *move) {
	top := enough
	for c := range r.classes {
		for _, m := range r.moves(c) {
			if g := r.gain(m); g > top {
				best, top = &m, g
			}
		}
	}
	return best
}

// pair finds two moves that help together: it makes one that touches a loop
// that is off, looks for the best second, and takes the first back if there is
// none.
func (r *rounding) pair() bool {
	for c := range r.classes {
		if !slices.ContainsFunc(r.in[c], func(in member) bool { return r.beyond(in, 0) > 0 }) {
			continue
		}
		for _, m := range r.moves(c) {
			loss := -r.gain(m)
			r.apply(m)
			if second := r.bestMove(); second != nil && r.gain(*second) > loss+enough {
				r.apply(*second)
				return true
			}
			r.apply(move{c, -m.by})
			if r.work < 0 {
				return false
			}
		}
	}
	return false
}

func (r *rounding) findings() []finding.Finding {
	var fs []finding.Finding
	for _, l := range r.loops {
		if r.step > 0 && l.Off > r.step+10 {
			fs = append(fs, finding.New("loop-residual", finding.Warn, finding.All(finding.Pipe, l.Pipes...)...).
				With("joints", finding.All(finding.Joint, l.Joints...)).With("off", l.Off))
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
	ways := newPaths(g)
	for e := range g.Edges {
		if g.Edges[e].Path != frame.Sprung {
			add(ways.shortestRound(e))
		}
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
func (p *paths) shortestRound(pipe int) []walkStep {
	e := &p.g.Edges[pipe]
	back := p.find(e.Ends[1], e.Ends[0], pipe)
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
