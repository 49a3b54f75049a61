package edit

import (
	"fmt"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/words"
)

// Begin puts the first joint into a frame that has none, or a joint of a part by itself that
// stands so far from another one.
type Begin struct {
	Name string `json:"name,omitempty"` // of the joint
	From string `json:"from,omitempty"` // the joint that it stands away from
	Say  string `json:"say,omitempty"`  // how far, centre to centre, as typed: 10 right, 4 up
	In   string `json:"in,omitempty"`
}

var _ = register[Begin]("begin")

func (w *Begin) on(e *editor) (Done, error) {
	if len(e.view.Graph.Nodes) == 0 {
		if w.From != "" || strings.TrimSpace(w.Say) != "" {
			return Done{}, refuse("write begin alone for the first joint", "the frame has nothing to stand away from")
		}
		return Done{Label: "A first joint", Joint: e.doc.AddJoint(&e.doc.Root, frame.Joint{Name: w.Name})}, nil
	}
	if w.From == "" {
		return Done{}, refuse("go on from a joint, or say where it stands: begin 10 right of j1", "the frame has begun already")
	}
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	n, err := e.node(w.From)
	if err != nil {
		return Done{}, in("/from", err)
	}
	from, ok := e.ref(scope, e.view.Graph.Nodes[n].ID)
	if !ok {
		return Done{}, in("/from", refuse("name one inside it", "the joint %s is not in %q", mention.Of(w.From), w.In))
	}
	by, err := e.away(w.Say)
	if err != nil {
		return Done{}, in("/say", err)
	}
	for k := range e.view.Points {
		if e.view.Points[k].Distance(e.view.Points[n].Add(e.view.Graph.Scopes[scope].Orient.Point(by))) <= near {
			return Done{}, in("/say", refuse("go on from that one", "%s stands there already", mention.Of(e.view.Graph.Nodes[k].ID)))
		}
	}
	def := e.def(scope)
	if taken(def, w.Name) {
		return Done{}, in("/name", refuse("give it another name", "there is a joint %q already", w.Name))
	}
	id := e.doc.AddJoint(def, frame.Joint{Name: w.Name})
	e.doc.AddReason(def, frame.Reason{Kind: frame.Placed, Of: frame.Ref(id), From: frame.Ref(from), By: by})
	return Done{
		Label: fmt.Sprintf("A part by itself, %s of %s", strings.TrimSpace(w.Say), mention.Of(w.From)),
		Joint: join(e.path(scope), id),
		Also:  e.everywhere(scope),
	}, nil
}

// away reads how far one joint is from another: 10 right, 4 ft up and 3 near.
func (e *editor) away(text string) (by measure.Point, err error) {
	hint := "write how far and which way, as in 10 right"
	var long []string
	said := false
	for _, w := range words.Of(strings.NewReplacer(",", " ", " and ", " ").Replace(text)) {
		d, ok := compass[strings.ToLower(w.Text)]
		if !ok {
			long = append(long, w.Text)
			continue
		}
		l, err := measure.Parse(strings.Join(long, " "), measure.Reading{Unit: e.unit})
		if pe, is := err.(*measure.ParseError); is { //nolint:errorlint // Parse says so
			return by, refuse(hint, "how far %s? %s", w.Text, pe.What)
		}
		long, said = nil, true
		for a := range by {
			by[a] += l.Scale(d[a])
		}
	}
	switch {
	case !said || len(long) > 0:
		return by, refuse(hint, "%q says no direction", strings.TrimSpace(text))
	case by == measure.Point{}:
		return by, refuse(hint, "it would stand in the other joint")
	}
	return by, nil
}
