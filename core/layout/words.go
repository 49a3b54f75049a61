package layout

import (
	"cmp"
	"fmt"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
)

// Subject is a member of a clash as a thing that a finding names.
func (p Party) Subject() finding.Subject {
	kind := finding.Kind(p.Kind)
	if p.Kind == "pipe" {
		kind = finding.Direction
	}
	return finding.Subject{Kind: kind, ID: p.ID, Group: p.Group}
}

// Names names what is in an expanded frame, and what was said of it. Pipe and Joint
// give the names of a pipe and a joint by their index; where they are nil, they are
// mentioned.
type Names struct {
	Graph       *frame.Graph
	Pipe, Joint func(i int) string
}

func (n *Names) pipe(i int) string {
	if n.Pipe == nil {
		return mention.Of(n.Graph.Edges[i].ID)
	}
	return n.Pipe(i)
}

func (n *Names) joint(i int) string {
	if n.Joint == nil {
		return mention.Of(n.Graph.Nodes[i].ID)
	}
	return n.Joint(i)
}

// Short is the same as [Names.Name].
func (n *Names) Short(s finding.Subject) string { return n.Name(s) }

// Name names a thing as a builder would: a size by what was typed and between what,
// a direction by its pipe. What is not in the frame goes by its id.
func (n *Names) Name(s finding.Subject) string {
	switch s.Kind {
	case finding.Pipe:
		if i := n.Graph.Edge(s.ID); i >= 0 {
			return n.pipe(i)
		}
	case finding.Joint:
		if i := n.Graph.Node(s.ID); i >= 0 {
			return n.joint(i)
		}
	case finding.Size:
		for i := range n.Graph.Sizes {
			if z := &n.Graph.Sizes[i]; z.ID == s.ID && !z.Again {
				return n.size(z)
			}
		}
	case finding.Direction:
		for i := range n.Graph.Edges {
			if e := &n.Graph.Edges[i]; e.Drawn.ID == s.ID && n.Graph.Scopes[e.Scope].Of == s.Group {
				return n.direction(i)
			}
		}
	case finding.Reason:
		for i := range n.Graph.Reasons {
			if t := &n.Graph.Reasons[i]; t.ID == s.ID {
				return n.reason(t)
			}
		}
	case finding.Use:
		return s.ID + " where it is held"
	}
	return s.ID
}

func (n *Names) size(z *frame.ResolvedSize) string {
	says := z.Says()
	switch {
	case z.Label != "":
		return z.Label + " " + says
	case z.Pipe >= 0:
		return fmt.Sprintf("%s of %s", says, n.pipe(z.Pipe))
	}
	return fmt.Sprintf("%s from %s to %s", says, n.ref(z.From, z.Size.From), n.ref(z.To, z.Size.To))
}

func (n *Names) direction(i int) string {
	e := &n.Graph.Edges[i]
	if e.Dir != nil {
		for a, v := range e.Dir {
			if v > 1-1e-9 || v < -1+1e-9 {
				return n.pipe(i) + " " + axisRuns[a]
			}
		}
	}
	return n.pipe(i) + " at its slope"
}

func (n *Names) reason(t *frame.ResolvedReason) string {
	of, from, to := n.ref(t.Of, t.Reason.Of), n.ref(t.From, t.Reason.From), n.ref(t.To, t.Reason.To)
	if t.Kind == frame.Placed {
		return fmt.Sprintf("%s placed from %s", of, from)
	}
	return cmp.Or(t.Says(of, from, to), t.ID)
}

// ref names what a size or a reason refers to.
func (n *Names) ref(w frame.ResolvedRef, r frame.Ref) string {
	switch {
	case w.Node >= 0:
		return n.joint(w.Node)
	case r == frame.Floor:
		return string(frame.Floor)
	}
	return w.Plane
}

var axisSays = [3]string{"across", "in depth", "in height"}

var axisRuns = [3]string{"straight across", "straight in depth", "straight up"}

// subject gives the pipes and joints that a member of a clash is about.
func (s *solver) subject(p Party) []finding.Subject {
	switch p.Kind {
	case "size":
		for i := range s.g.Sizes {
			z := &s.g.Sizes[i]
			if z.ID != p.ID || z.Again {
				continue
			}
			if z.Pipe >= 0 {
				return finding.All(finding.Pipe, s.g.Edges[z.Pipe].ID)
			}
			var out []finding.Subject
			for _, w := range []frame.ResolvedRef{z.From, z.To} {
				if w.Node >= 0 {
					out = append(out, finding.Subject{Kind: finding.Joint, ID: s.g.Nodes[w.Node].ID})
				}
			}
			return out
		}
	case "pipe":
		for i := range s.g.Edges {
			if e := &s.g.Edges[i]; e.Drawn.ID == p.ID && s.g.Scopes[e.Scope].Of == p.Group {
				return finding.All(finding.Pipe, e.ID)
			}
		}
	case "reason":
		for i := range s.g.Reasons {
			if t := &s.g.Reasons[i]; t.ID == p.ID && t.Of.Node >= 0 {
				return finding.All(finding.Joint, s.g.Nodes[t.Of.Node].ID)
			}
		}
	}
	return nil
}

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
		names := Names{Graph: s.g}
		t.words = names.Name(p.Subject())
		if about := s.subject(p); len(about) == 1 && about[0].Kind == finding.Pipe {
			t.pipe = about[0].ID
		}
		s.worded[p.key] = t
	}
	return t
}
