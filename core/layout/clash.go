package layout

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
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
			out.Words = append(out.Words, s.partyWords(s.owners[o]))
			out.Pipes = append(out.Pipes, s.aboutPipe(s.owners[o]))
		}
		s.out.Clashes = append(s.out.Clashes, out)
		s.addFinding(s.clashFinding(&out))
	}
	for _, m := range s.found.Off {
		p := s.owners[m.Owner]
		s.out.Near = append(s.out.Near, NearMiss{p, m.By})
		s.addFinding(finding.Finding{Code: "closes-nearly", Severity: finding.Note, Subject: s.subject(p),
			Text: fmt.Sprintf("%s is off by %s, less than a step of the tape: all is cut as typed", s.partyWords(p), m.By.Abs().Tape(s.g.Doc.Units)), Hint: "the joints take it up"})
	}
	s.reportFree()
}

func (s *solver) clashFinding(c *Clash) finding.Finding {
	last := len(c.Parties) - 1
	f := finding.Finding{Code: "sizes-contradict", Severity: finding.Stop, Subject: s.subject(c.Parties[last]),
		Text: fmt.Sprintf("%s cannot hold with %s (%s): the last said gives way", c.Words[last], someOf(c.Words[:last]), c.Off.Abs().Tape(s.g.Doc.Units)),
		Hint: "choose what gives way"}
	return f
}

// MostParties is how many members of a clash are named in a finding and offered to
// give way. Of a larger clash it is those that were stated last.
const MostParties = 24

// someOf lists the last of many words, and says how many others there are.
func someOf(words []string) string {
	if n := len(words) - MostParties; n > 0 {
		return fmt.Sprintf("%d others and %s", n, strings.Join(words[n:], ", "))
	}
	return strings.Join(words, ", ")
}

// subject gives the pipes and joints that a member of a clash is about.
func (s *solver) subject(p Party) []string {
	out := []string{}
	for i := range s.g.Sizes {
		if z := &s.g.Sizes[i]; p.Kind == "size" && z.ID == p.ID && !z.Again {
			if z.Pipe >= 0 {
				return []string{s.g.Edges[z.Pipe].ID}
			}
			for _, w := range []frame.ResolvedRef{z.From, z.To} {
				if w.Node >= 0 {
					out = append(out, s.g.Nodes[w.Node].ID)
				}
			}
			return out
		}
	}
	for i := range s.g.Edges {
		if e := &s.g.Edges[i]; p.Kind == "pipe" && e.Drawn.ID == p.ID && s.g.Scopes[e.Scope].Of == p.Group {
			return []string{e.ID}
		}
	}
	for i := range s.g.Reasons {
		if t := &s.g.Reasons[i]; p.Kind == "reason" && t.ID == p.ID && t.Of.Node >= 0 {
			return []string{s.g.Nodes[t.Of.Node].ID}
		}
	}
	return out
}

// pipeOf gives the pipe that a party is about, where it is about one.
func (s *solver) pipeOf(p Party) string {
	if about := s.subject(p); len(about) == 1 && s.g.Edge(about[0]) >= 0 {
		return about[0]
	}
	return ""
}

var axisSays = [3]string{"across", "in depth", "in height"}

var axisRuns = [3]string{"straight across", "straight in depth", "straight up"}

// said is how a member of a clash is presented: in words, and the pipe that it is
// about.
type said struct{ words, pipe string }

// told gives the presentation of a member, which is worked out once: in a large
// frame thousands of clashes may contain the same member.
func (s *solver) told(p Party) said {
	t, known := s.worded[p.key]
	if !known {
		if s.worded == nil {
			s.worded = map[string]said{}
		}
		t = said{s.wordParty(p), s.pipeOf(p)}
		s.worded[p.key] = t
	}
	return t
}

// partyWords names what can give way as a builder would.
func (s *solver) partyWords(p Party) string { return s.told(p).words }

// aboutPipe gives the pipe that it is about, where it is about one.
func (s *solver) aboutPipe(p Party) string { return s.told(p).pipe }

func (s *solver) wordParty(p Party) string {
	switch p.Kind {
	case "size":
		for i := range s.g.Sizes {
			z := &s.g.Sizes[i]
			if z.ID != p.ID || z.Again {
				continue
			}
			says := z.Says()
			switch {
			case z.Label != "":
				return z.Label + " " + says
			case z.Pipe >= 0:
				return fmt.Sprintf("%s of %s", says, s.g.Edges[z.Pipe].ID)
			}
			return fmt.Sprintf("%s from %s to %s", says, s.name(z.From, z.Size.From), s.name(z.To, z.Size.To))
		}
	case "pipe":
		for i := range s.g.Edges {
			e := &s.g.Edges[i]
			if e.Drawn.ID != p.ID || s.g.Scopes[e.Scope].Of != p.Group || e.Dir == nil {
				continue
			}
			for a, v := range e.Dir {
				if v > 1-1e-9 || v < -1+1e-9 {
					return e.ID + " " + axisRuns[a]
				}
			}
			return e.ID + " at its slope"
		}
	case "reason":
		for i := range s.g.Reasons {
			if t := &s.g.Reasons[i]; t.ID == p.ID {
				return s.reasonWords(t)
			}
		}
	case "use":
		return p.ID + " where it is held"
	}
	return p.ID
}

func (s *solver) reasonWords(t *frame.ResolvedReason) string {
	of, from, to := s.name(t.Of, t.Reason.Of), s.name(t.From, t.Reason.From), s.name(t.To, t.Reason.To)
	if t.Kind == frame.Placed {
		return fmt.Sprintf("%s placed from %s", of, from)
	}
	return cmp.Or(t.Says(of, from, to), t.ID)
}

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
		s.addFinding(finding.Finding{Code: "nothing-holds", Severity: finding.Warn, Subject: []string{id},
			Text: fmt.Sprintf("nothing says where %s stands %s", id, axisSays[f.Axis]), Hint: "type how far it is from another joint; until then it is where it happens to be"})
	}
}
