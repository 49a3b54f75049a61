package edit

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/together"
)

// Rails runs a pipe between each of some pairs of joints, as between the copies of a part.
type Rails struct {
	In    string       `json:"in,omitempty"`
	Pairs [][2]string  `json:"pairs"`
	Size  catalog.Size `json:"size,omitempty"`
}

var _ = register[Rails]("rails")

func (w *Rails) on(e *editor) (Done, error) {
	if len(w.Pairs) == 0 {
		return Done{}, refuse("name two joints for each pipe", "no joints to run pipes between")
	}
	done := Done{}
	for _, pair := range w.Pairs {
		step, err := (&Join{From: pair[0], To: pair[1], In: w.In, Size: w.Size}).on(e)
		if err != nil {
			return Done{}, err
		}
		step.Also = append(done.Also, step.Also...)
		done = step
		if err := e.resolve(); err != nil {
			return Done{}, err
		}
	}
	done.Label = fmt.Sprintf("%d pipes between copies", len(w.Pairs))
	if len(w.Pairs) == 1 {
		done.Label = "A pipe between copies"
	}
	return done, nil
}

// copyOf parts the path of something in a copy of an array: the number of the copy and what is
// within it.
func copyOf(array, id string) (k int, rest string, ok bool) {
	tail, ok := strings.CutPrefix(id, array+"#")
	if !ok {
		return 0, "", false
	}
	n, rest, deeper := strings.Cut(tail, "/")
	k, err := strconv.Atoi(n)
	return k, rest, deeper && err == nil
}

// between is a pipe that runs from a copy of an array to the next one.
type between struct {
	from, to string // the joints, within their copies
	size     catalog.Size
	forth    bool // it is drawn from the earlier copy
	dir      *measure.Dir
	name     string // what its id is before the number of the copy, where it is called so
	rank     int
}

// railsOf lists the pipes that run from one copy of an array to the next between every two copies:
// what joins them goes on when there are more.
func (e *editor) railsOf(scope int, use string, count int) (all []between) {
	def := e.def(scope)
	seen := map[between]int{}
	for i := range def.Pipes {
		p := &def.Pipes[i]
		a, x, ok1 := copyOf(use, p.From)
		b, y, ok2 := copyOf(use, p.To)
		if !ok1 || !ok2 || p.Path != frame.Straight || a != b+1 && b != a+1 {
			continue
		}
		r := between{from: x, to: y, size: p.Size, forth: b == a+1}
		if seen[r]++; seen[r] == count-1 {
			if name, ok := strings.CutSuffix(p.ID, strconv.Itoa(min(a, b))); ok && strings.HasSuffix(name, " ") {
				r.name, r.rank = name, p.Rank
			}
			r.dir = p.Dir
			all = append(all, r)
		}
	}
	return all
}

// goOn runs the pipes that join the copies of an array to the copies that are new.
func (e *editor) goOn(scope int, use string, was, now int, rails []between) {
	def := e.def(scope)
	for k := was; k < now; k++ {
		for _, r := range rails {
			lo, hi := fmt.Sprintf("%s#%d/", use, k), fmt.Sprintf("%s#%d/", use, k+1)
			p := frame.Pipe{From: lo + r.from, To: hi + r.to, Size: r.size}
			if !r.forth {
				p.From, p.To = hi+r.from, lo+r.to
			}
			if r.dir != nil {
				dir := *r.dir
				p.Dir = &dir
			}
			if id := fmt.Sprintf("%s%d", r.name, k); r.name != "" && def.Pipe(id) == nil {
				p.ID = id
			}
			id := e.doc.AddPipe(def, p)
			if r.name != "" {
				def.Pipe(id).Rank = r.rank // as if it had been there from the first
			}
			e.clearEnds(def, p.From, p.To)
		}
	}
	if n := len(rails) * (now - was); n > 0 && now > was {
		e.note("%d more pipes join the copies", n)
	}
}

// offerRails says that copies stand by themselves, and offers the pipes that would join them:
// between the highest joints that are alike, or between the lowest.
func (e *editor) offerRails(scope int, pairs [][2]string) error {
	if err := e.resolve(); err != nil {
		return err
	}
	if len(pairs) == 0 || e.hangTogether(pairs) {
		return nil
	}
	e.note("the copies stand by themselves: nothing joins them yet")
	g := e.view.Graph
	height := func(pair [2]string) measure.Length {
		if n := g.Node(pair[0]); n >= 0 {
			return e.view.Points[n][measure.Z]
		}
		return 0
	}
	pairs = slices.DeleteFunc(slices.Clone(pairs), func(p [2]string) bool { return g.Node(p[0]) < 0 || g.Node(p[1]) < 0 || p[0] == p[1] })
	if len(pairs) == 0 {
		return nil
	}
	lo, hi := height(pairs[0]), height(pairs[0])
	for _, p := range pairs {
		lo, hi = min(lo, height(p)), max(hi, height(p))
	}
	offer := func(words string, at measure.Length) {
		some := slices.DeleteFunc(slices.Clone(pairs), func(p [2]string) bool { return (height(p) - at).Abs() > near })
		pipes := "a pipe"
		if len(some) > 1 {
			pipes = fmt.Sprintf("%d pipes", len(some))
		}
		e.offers = append(e.offers, Offer{
			Label: fmt.Sprintf("Join them %s: %s", words, pipes),
			Edit:  Edit{Gesture: &Rails{In: e.path(scope), Pairs: some}},
		})
	}
	if hi-lo > near {
		offer("at the top", hi)
		offer("at the bottom", lo)
	} else {
		offer("with pipes from each to the next", hi)
	}
	return nil
}

// hangTogether says whether the two joints of every pair hang together, by way of any pipe.
func (e *editor) hangTogether(pairs [][2]string) bool {
	g := e.view.Graph
	sets := together.New(len(g.Nodes))
	for i := range g.Edges {
		sets.Join(g.Edges[i].Ends[0], g.Edges[i].Ends[1], 0)
	}
	for _, p := range pairs {
		a, b := g.Node(p[0]), g.Node(p[1])
		if a >= 0 && b >= 0 && sets.Root(a) != sets.Root(b) {
			return false
		}
	}
	return true
}

// pairsOf lists the joints of a part that have pipes, each with the same one of another part.
func (e *editor) pairsOf(part, other string) (all [][2]string) {
	g := e.view.Graph
	for i := range g.Nodes {
		if rest, in := within(part, g.Nodes[i].ID); in && len(g.Nodes[i].Pipes) > 0 {
			if g.Node(join(other, rest)) >= 0 {
				all = append(all, [2]string{g.Nodes[i].ID, join(other, rest)})
			}
		}
	}
	return all
}
