package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Fit asks for a fitting with more ports than the pipes that meet, and says
// which way the spare ones point.
type Fit struct {
	Joint    string        `json:"joint"`
	More     []string      `json:"more,omitempty"`  // joints that get the same
	Kind     catalog.Kind  `json:"kind,omitempty"`  // "" for what the pipes alone ask for
	Spare    []measure.Dir `json:"spare,omitempty"` // in the world's axes
	Plugged  bool          `json:"plugged,omitempty"`
	Declared bool          `json:"declared,omitempty"` // open on purpose
	Later    bool          `json:"later,omitempty"`    // it may stand there one day: what is there now stays
}

var _ = register[Fit]("fit")

func (w *Fit) on(e *editor) (Done, error) {
	return each(w.Joint, w.More, func(joint string) (Done, error) { return w.at(e, joint) })
}

// each does to some joints what one can do to one. It is told in one line.
func each(first string, more []string, one func(joint string) (Done, error)) (Done, error) {
	done, err := one(first)
	if err != nil || len(more) == 0 {
		return done, err
	}
	var names []string
	for _, joint := range more {
		next, err := one(joint)
		if err != nil {
			return Done{}, err
		}
		done.Also = append(done.Also, next.Also...)
		names = append(names, mention.Of(joint))
	}
	done.Label += ", and so at " + strings.Join(names, ", ")
	return done, nil
}

// at sets the fitting of one joint.
func (w *Fit) at(e *editor, joint string) (Done, error) {
	_, j, scope, err := e.joint(joint)
	if err != nil {
		return Done{}, err
	}
	done := Done{Joint: joint, Also: e.everywhere(scope)}
	if w.Kind == "" && w.Later {
		if j.Later == nil {
			return Done{}, refuse("there is nothing to take back", "nothing was kept in mind for %s", mention.Of(joint))
		}
		j.Later = nil
		done.Label = mention.Of(joint) + " stays what it is"
		return done, nil
	}
	if w.Kind == "" {
		j.Fitting = nil
		done.Label = "The usual fitting at " + mention.Of(joint)
		return done, nil
	}
	if !w.Kind.Known() && !slices.ContainsFunc(e.doc.CustomFittings, func(c catalog.Custom) bool { return c.ID == w.Kind }) {
		return Done{}, refuse("use a kind such as tee or cross", "no fitting %q", w.Kind)
	}
	f := &frame.Forced{Kind: w.Kind, Plugged: w.Plugged, Declared: w.Declared && !w.Plugged}
	for _, d := range w.Spare {
		if d.Dot(d) == 0 {
			return Done{}, refuse("give a direction such as 0, 0, 1", "a spare port that points nowhere")
		}
		f.Spare = append(f.Spare, e.place(scope).Turned(d.Unit()))
	}
	if w.Later {
		j.Later = f
		done.Label = fmt.Sprintf("%s may become a %s one day", mention.Of(joint), w.Kind.Words())
		return done, nil
	}
	j.Fitting = f
	if j.Later != nil && j.Later.Kind == f.Kind {
		j.Later = nil // it has become that
	}
	if j.End != frame.OpenEnd {
		j.End = frame.OpenEnd
		done.Also = append(done.Also, "what closed the end goes")
	}
	done.Label = fmt.Sprintf("A %s at %s", w.Kind.Words(), mention.Of(joint))
	return done, nil
}

// EndOf says what is at the end of a pipe that meets no other.
type EndOf struct {
	Joint string    `json:"joint"`
	More  []string  `json:"more,omitempty"` // joints of which the same is said
	End   frame.End `json:"end"`
	All   bool      `json:"all,omitempty"` // every end that nothing is said of
}

var endWords = map[frame.End]string{
	frame.OpenEnd:   "open",
	frame.CappedEnd: "capped",
	frame.FreeEnd:   "free on purpose",
	frame.StakedEnd: "over a stake",
}

var _ = register[EndOf]("end")

func (w *EndOf) on(e *editor) (Done, error) {
	if !slices.Contains(frame.Ends(), w.End) {
		return Done{}, refuse("use cap, free or stake", "no such end %q", w.End)
	}
	if w.All {
		n := 0
		for i := range e.view.Graph.Nodes {
			node := &e.view.Graph.Nodes[i]
			if len(node.Pipes) != 1 || node.End != frame.OpenEnd || node.Fitting != nil {
				continue
			}
			if _, j, _, err := e.joint(node.ID); err == nil {
				j.End = w.End
				n++
			}
		}
		if n == 0 {
			return Done{}, refuse("there is nothing to do", "no end is open")
		}
		return Done{Label: fmt.Sprintf("%d ends %s", n, endWords[w.End]), Joint: w.Joint}, nil
	}
	return each(w.Joint, w.More, func(joint string) (Done, error) { return w.at(e, joint) })
}

// at says what is at one end.
func (w *EndOf) at(e *editor, joint string) (Done, error) {
	_, j, scope, err := e.joint(joint)
	if err != nil {
		return Done{}, err
	}
	n := e.view.Graph.Node(joint)
	if len(e.view.Graph.Nodes[n].Pipes) > 1 {
		return Done{}, refuse("pick the end of a single pipe", "%d pipes meet at %s", len(e.view.Graph.Nodes[n].Pipes), mention.Of(joint))
	}
	j.End = w.End
	if w.End != frame.OpenEnd {
		j.Fitting = nil
	}
	return Done{Label: fmt.Sprintf("%s %s", mention.Of(joint), endWords[w.End]), Joint: joint, Also: e.everywhere(scope)}, nil
}
