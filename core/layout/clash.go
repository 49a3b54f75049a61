package layout

import (
	"cmp"
	"slices"
	"strings"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
)

// Clash is a smallest set of sizes, reasons and pipe directions that cannot all
// hold. They are in the order in which they were stated; where nobody chose, the
// last one gives way.
type Clash struct {
	Parties []Party        `json:"parties"`
	Words   []string       `json:"words"` // of each
	Pipes   []string       `json:"pipes"` // that each is about; "" for what is about none
	Off     measure.Length `json:"off"`   // by how much the last is off where it gives way
}

// Key identifies a clash by its members: two clashes of the same members have the
// same key.
func (c *Clash) Key() string {
	var all []string
	for _, p := range c.Parties {
		all = append(all, p.key)
	}
	return strings.Join(all, "\n")
}

// solve solves the equations. Where several solutions are possible, the one nearest
// to the previous positions is taken, or to what the sizes that gave way ask for.
func (s *solver) solve() {
	s.sys.GuessBy(func() {
		if len(s.without) > 0 || s.was == nil {
			s.guessLinear()
		} else {
			s.guessFrom(s.was)
		}
	})
	s.found = s.sys.Solve(s.without)
	s.out.Unfinished, s.out.Work = s.found.Unfinished, s.found.Work
}

// guessLinear guesses positions from all linear rules, those that gave way included.
// Coordinates that these leave free get no guess: if they all began at one point,
// Newton's method would have no direction to move them in.
func (s *solver) guessLinear() {
	r := s.sys.SolveLinear()
	unknown := map[constraint.Var]bool{}
	for _, group := range r.Free {
		for _, v := range group {
			unknown[v] = true
		}
	}
	for _, p := range s.nodes {
		for _, v := range p {
			if !unknown[v] {
				s.sys.Guess(v, r.At[v])
			}
		}
	}
}

func (s *solver) guessFrom(was *Solution) {
	if len(was.Points) != len(s.g.Nodes) {
		s.guessLinear()
		return
	}
	for key, p := range s.nodes {
		x := s.bases[key[1]].Back().Point(was.Points[key[0]])
		for k, v := range p {
			s.sys.Guess(v, x[k])
		}
	}
}

// clashes reports what cannot hold together, what is off by less than a step of the
// tape, and which joints nothing holds.
func (s *solver) clashes() {
	for _, c := range s.found.Conflicts {
		if c.Loser == constraint.Always {
			continue
		}
		out := Clash{Off: c.Off}
		for _, o := range c.Owners {
			out.Parties = append(out.Parties, s.owners[o])
			out.Words = append(out.Words, s.told(s.owners[o]).words)
			out.Pipes = append(out.Pipes, s.told(s.owners[o]).pipe)
		}
		s.out.Clashes = append(s.out.Clashes, out)
		s.addFinding(s.clashFinding(&out))
	}
	for _, m := range s.found.Off {
		p := s.owners[m.Owner]
		s.out.Near = append(s.out.Near, NearMiss{p, m.By})
		s.addFinding(finding.New("closes-nearly", finding.Note, s.subject(p)...).With("what", p.Subject()).With("off", m.By.Abs()))
	}
	s.reportFree()
}

func (s *solver) clashFinding(c *Clash) finding.Finding {
	last := len(c.Parties) - 1
	var others []finding.Subject
	for _, p := range c.Parties[:last] {
		others = append(others, p.Subject())
	}
	more := max(0, len(others)-MostParties)
	return finding.New("sizes-contradict", finding.Stop, s.subject(c.Parties[last])...).
		With("last", c.Parties[last].Subject()).With("others", others[more:]).With("more", more).With("off", c.Off.Abs())
}

// MostParties is how many members of a clash are named in a finding and offered to
// give way. Of a larger clash it is those that were stated last.
const MostParties = 24

// reportFree lists the joints that nothing holds, in groups that move together, by
// the axes of the scope of each group's first joint.
func (s *solver) reportFree() {
	type where struct{ node, axes, k int }
	of := map[constraint.Var]where{}
	for key, p := range s.nodes {
		for k, v := range p {
			of[v] = where{key[0], key[1], k}
		}
	}
	for _, group := range s.found.Free {
		f := Free{Scope: -1}
		var home []where
		for _, v := range group {
			if w, ok := of[v]; ok && w.axes == s.axesOf[s.g.Nodes[w.node].Scope] {
				home = append(home, w)
			}
		}
		slices.SortFunc(home, func(a, b where) int { return cmp.Or(cmp.Compare(a.node, b.node), cmp.Compare(a.k, b.k)) })
		for _, w := range home {
			scope, way := s.g.Nodes[w.node].Scope, measure.X
			for a := range measure.Axis(3) {
				if k, _ := s.along(scope, a); k == w.k {
					way = a
				}
			}
			if f.Scope < 0 {
				f.Scope, f.Axis = scope, way
			}
			if !slices.Contains(f.Nodes, w.node) {
				f.Nodes, f.Ways = append(f.Nodes, w.node), append(f.Ways, way)
			}
		}
		if len(f.Nodes) > 0 {
			s.out.Free = append(s.out.Free, f)
		}
	}
	slices.SortStableFunc(s.out.Free, func(a, b Free) int {
		return cmp.Or(cmp.Compare(a.Nodes[0], b.Nodes[0]), cmp.Compare(a.Axis, b.Axis))
	})
	if len(s.out.Clashes) > 0 {
		return // what gives way to another leaves others loose until it is chosen
	}
	for i := range s.out.Free { // a document from elsewhere: gestures leave nothing loose
		f := &s.out.Free[i]
		id := s.g.Nodes[f.Nodes[0]].ID
		s.addFinding(finding.New("nothing-holds", finding.Warn, finding.All(finding.Joint, id)...).With("way", axisSays[f.Axis]))
	}
}
