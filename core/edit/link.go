package edit

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Link makes a link, changes one, or takes one away.
type Link struct {
	ID      string         `json:"id,omitempty"` // of the link to change or take away, by its path
	Kind    frame.LinkKind `json:"kind,omitempty"`
	On      []string       `json:"on,omitempty"` // as typed: a joint, a pipe, or a pipe with a place, as [editor.readAnchor] reads it
	Rod     string         `json:"rod,omitempty"`
	Fold    float64        `json:"fold,omitempty"`
	Size    catalog.Size   `json:"size,omitempty"`
	Count   int            `json:"count,omitempty"`
	Length  string         `json:"length,omitempty"`
	Overlap string         `json:"overlap,omitempty"`
	Pitch   string         `json:"pitch,omitempty"`
	Wheel   string         `json:"wheel,omitempty"`
	Hub     string         `json:"hub,omitempty"`
	Spacer  string         `json:"spacer,omitempty"`
	Drop    bool           `json:"drop,omitempty"` // take it away
}

// linkWords names the links.
var linkWords = map[frame.LinkKind]string{
	frame.Pivot: "pivot", frame.Hinge: "hinge", frame.Telescope: "telescope", frame.Tie: "tie",
	frame.Axle: "axle", frame.Rod: "rod", frame.Clip: "clip", frame.Sleeve: "sleeve",
}

var _ = register[Link]("link")

func (w *Link) on(e *editor) (Done, error) {
	if w.ID != "" {
		return w.change(e)
	}
	if !slices.Contains(frame.LinkKinds(), w.Kind) {
		return Done{}, refuse("use pivot, hinge, telescope, tie, axle, rod, clip or sleeve", "no such link %q", w.Kind)
	}
	l := frame.Link{Kind: w.Kind, Size: w.Size, Count: w.Count, Fold: w.Fold}
	if err := w.sizes(e, &l); err != nil {
		return Done{}, err
	}
	var spots []frame.Anchor
	for k, text := range w.On {
		s, err := e.readAnchor(text)
		if err != nil {
			return Done{}, in(fmt.Sprintf("/on/%d", k), err)
		}
		spots = append(spots, s)
	}
	def, path := e.commonPart(spots)
	for _, s := range spots {
		s.Pipe, s.Joint, s.From = local(path, s.Pipe), local(path, s.Joint), local(path, s.From)
		l.On = append(l.On, s)
	}
	l.ID = frame.Free(linkWords[w.Kind]+" ", func(id string) bool {
		return slices.ContainsFunc(def.Links, func(o frame.Link) bool { return o.ID == id })
	})
	e.doc.AddLink(def, l)
	return Done{Label: "A " + linkWords[w.Kind]}, e.validate()
}

// sizes reads what was typed of a link's sizes; what was not stays.
func (w *Link) sizes(e *editor, l *frame.Link) error {
	for _, f := range []struct {
		field, text string
		into        *measure.Length
	}{
		{"/rod", w.Rod, &l.Rod},
		{"/length", w.Length, &l.Length},
		{"/overlap", w.Overlap, &l.Overlap},
		{"/pitch", w.Pitch, &l.Pitch},
		{"/wheel", w.Wheel, &l.Wheel},
		{"/hub", w.Hub, &l.Hub},
		{"/spacer", w.Spacer, &l.Spacer},
	} {
		if strings.TrimSpace(f.text) == "" {
			continue
		}
		d, err := ParseSize(f.text, e.unit, frame.Centre)
		if err != nil {
			return in(f.field, err)
		}
		*f.into = d.Value
	}
	if w.Size != "" && !w.Size.Known() {
		return refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	return nil
}

func (w *Link) change(e *editor) (Done, error) {
	for i := range e.view.Graph.Links {
		if e.view.Graph.Links[i].ID != w.ID {
			continue
		}
		for _, def := range e.doc.Definitions() {
			for k := range def.Links {
				l := &def.Links[k]
				if l.ID != e.view.Graph.Links[i].Link.ID || !e.shows(def, w.ID, l.ID) {
					continue
				}
				if w.Drop {
					e.doc.DropLink(def, l.ID)
					return Done{Label: w.ID + " taken away"}, nil
				}
				if w.Fold != 0 {
					l.Fold = w.Fold
				}
				if w.Count != 0 {
					l.Count = w.Count
				}
				if w.Size != "" {
					l.Size = w.Size
				}
				return Done{Label: w.ID + " changed"}, w.sizes(e, l)
			}
		}
	}
	return Done{}, refuse("pick it in the list", "there is no link %q", w.ID)
}

// shows says whether a use of a definition has a link by its path.
func (e *editor) shows(def *frame.Definition, path, id string) bool {
	for i := range e.view.Places {
		p := &e.view.Places[i]
		if p.Definition(e.doc) == def && join(p.Path, id) == path {
			return true
		}
	}
	return false
}

// commonPart is the definition that all places of a link are in: the part they
// share, else the frame.
func (e *editor) commonPart(spots []frame.Anchor) (*frame.Definition, string) {
	for i := len(e.view.Places) - 1; i > 0; i-- {
		p := &e.view.Places[i]
		if p.Path != "" && !slices.ContainsFunc(spots, func(s frame.Anchor) bool {
			_, in := within(p.Path, s.Pipe+s.Joint)
			return !in
		}) {
			return p.Definition(e.doc), p.Path
		}
	}
	return &e.doc.Root, ""
}

// Slide lets a pipe slide out of the free end of another, as a leg that grows.
type Slide struct {
	Joint string       `json:"joint"` // the free end
	Say   string       `json:"say"`   // how far the inner pipe shows, and what more: 10; 10 inside 6 pitch 2 pin 1/4
	Size  catalog.Size `json:"size,omitempty"`
}

var slideWords = regexp.MustCompile(`(?i)\b(inside|pitch|pin)\b`)

// said reads a slide's line: how far the inner pipe shows, then in any order
// how far it is inside (four diameters of the outer pipe where it is left out),
// the pitch of its holes, and the pin.
func (w *Slide) said() (out string, more map[string]string) {
	more = map[string]string{}
	at := slideWords.FindAllStringIndex(w.Say, -1)
	out = w.Say
	if len(at) > 0 {
		out = w.Say[:at[0][0]]
	}
	for i, word := range at {
		end := len(w.Say)
		if i+1 < len(at) {
			end = at[i+1][0]
		}
		more[strings.ToLower(w.Say[word[0]:word[1]])] = strings.TrimSpace(w.Say[word[1]:end])
	}
	return strings.TrimSpace(out), more
}

var _ = register[Slide]("slide")

func (w *Slide) on(e *editor) (Done, error) {
	n, err := e.node(w.Joint)
	if err != nil {
		return Done{}, err
	}
	node := &e.view.Graph.Nodes[n]
	if len(node.Pipes) != 1 || node.Fitting != nil {
		return Done{}, refuse("pick the free end of a pipe", "%s is no free end", mention.Of(w.Joint))
	}
	outer := &e.view.Graph.Edges[node.Pipes[0].Pipe]
	c := catalog.Typical()
	size := w.Size
	if size == "" {
		best, _, ok := fit.Inner(c, outer.Size)
		if !ok {
			return Done{}, refuse("make the outer pipe larger: 1 goes in 1-1/4, 2 in 2-1/2", "nothing slides in %s pipe", outer.Size)
		}
		size = best
	}
	if !size.Known() {
		return Done{}, refuse("use a nominal size such as 1", "no pipe size %q", size)
	}
	shows, more := w.said()
	out, err := e.size(shows, frame.Centre)
	if err != nil {
		return Done{}, err
	}
	in := 4 * c.Pipe(outer.Size).OutsideDiameter
	if inside, said := more["inside"]; said {
		d, err := e.size(inside, frame.Centre)
		if err != nil {
			return Done{}, err
		}
		in = d.Value
	}
	scope := node.Scope
	def, path := e.def(scope), e.path(scope)
	end, _ := e.ref(scope, w.Joint)
	other, ok := e.ref(scope, e.view.Graph.Nodes[outer.Ends[1-node.Pipes[0].End]].ID)
	if !ok {
		return Done{}, refuse("work inside that part", "the pipe at %s is of another part", mention.Of(w.Joint))
	}
	away := exactly(e.place(scope).Turned(e.leaves(node.Pipes[0]).Neg()))
	rank := e.doc.NextRank()
	inner := e.doc.AddJoint(def, frame.Joint{End: frame.FreeEnd})
	e.doc.AddReason(def, frame.Reason{Kind: frame.Toward, Of: frame.Ref(inner), From: frame.Ref(end), To: frame.Ref(other), Rank: rank})
	e.doc.AddSize(
		def,
		frame.Size{Value: in, Meaning: frame.Centre, Label: "Inside", From: frame.Ref(end), To: frame.Ref(inner), Rank: rank},
	)
	foot := e.doc.AddJoint(def, frame.Joint{End: frame.CappedEnd})
	e.doc.AddReason(def, frame.Reason{Kind: frame.Line, Of: frame.Ref(foot), From: frame.Ref(end), Dir: &away, Rank: rank})
	out.Meaning, out.Label, out.From, out.To, out.Rank = frame.Centre, "Shows", frame.Ref(end), frame.Ref(foot), rank
	e.doc.AddSize(def, out)
	p := e.doc.AddPipe(def, frame.Pipe{From: inner, To: foot, Size: size, Rank: rank})
	if _, j, _, err := e.joint(w.Joint); err == nil {
		j.End = frame.FreeEnd
	}
	l := frame.Link{Kind: frame.Telescope, On: []frame.Anchor{{Pipe: local(path, outer.ID)}, {Pipe: p}}}
	if err := (&Link{Pitch: more["pitch"], Rod: more["pin"]}).sizes(e, &l); err != nil {
		return Done{}, err
	}
	l.ID = frame.Free("telescope ", func(id string) bool {
		return slices.ContainsFunc(def.Links, func(o frame.Link) bool { return o.ID == id })
	})
	e.doc.AddLink(def, l)
	return Done{
		Label: fmt.Sprintf("%s pipe slides out of %s", size, mention.Of(w.Joint)),
		Joint: join(path, foot),
		Pipe:  join(path, p),
		Also:  e.everywhere(scope),
	}, e.validate()
}
