package plan

import (
	"cmp"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/layout"
)

// names names the things of a planned frame as a builder would: a piece by its letter
// and a joint by its short name, with their place where that tells them from others.
type names struct {
	f    *Frame
	full layout.Names
}

func namesOf(f *Frame) *names {
	n := &names{f: f}
	n.full = layout.Names{Graph: f.built.Graph,
		Pipe:  func(i int) string { return placed(n.letter(i), f.Pipes[i].Where) },
		Joint: func(i int) string { return placed(f.Joints[i].Name, f.Joints[i].Where) },
	}
	return n
}

// letter is a pipe's letter; its id where it has none yet.
func (n *names) letter(i int) string { return cmp.Or(n.f.Pipes[i].Letter, n.f.Pipes[i].Placed.Pipe) }

func placed(name, where string) string {
	if where == "" {
		return name
	}
	return name + " (" + where + ")"
}

// Name gives a thing's name with its place: "B (upper left)".
func (n *names) Name(s finding.Subject) string { return n.full.Name(s) }

// Short gives a piece's letter, and a joint's name without its place.
func (n *names) Short(s finding.Subject) string {
	switch s.Kind {
	case finding.Pipe:
		if i := n.f.built.Graph.Edge(s.ID); i >= 0 {
			return n.letter(i)
		}
	case finding.Joint:
		if i := n.f.built.Graph.Node(s.ID); i >= 0 {
			return n.f.Joints[i].Name
		}
	}
	return n.full.Name(s)
}
