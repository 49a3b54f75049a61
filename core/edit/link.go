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
)

// Link makes a link, changes one, or takes one away.
type Link struct {
	ID      string         `json:"id,omitempty"` // of the link to change or take away, by its path
	Kind    frame.LinkKind `json:"kind,omitempty"`
	On      []string       `json:"on,omitempty"` // as typed: a joint, a pipe, or a pipe with a place: p1 at 12, p1 at 12 from j2
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
	frame.Pivot: "pivot", frame.Hinge: "hinge", frame.Telescope: "telescope", frame.Tie: "tie", frame.Axle: "axle", frame.Rod: "rod", frame.Clip: "clip", frame.Sleeve: "sleeve",
}

func (w *Link) on(b *bench) (Done, error) {
	if w.ID != "" {
		return w.change(b)
	}
	if !slices.Contains(frame.LinkKinds(), w.Kind) {
		return Done{}, refuse("use pivot, hinge, telescope, tie, axle, rod, clip or sleeve", "no such link %q", w.Kind)
	}
	l := frame.Link{Kind: w.Kind, Size: w.Size, Count: w.Count, Fold: w.Fold}
	if err := w.sizes(b, &l); err != nil {
		return Done{}, err
	}
	var spots []frame.Spot
	for _, text := range w.On {
		s, err := b.place(text)
		if err != nil {
			return Done{}, err
		}
		spots = append(spots, s)
	}
	def, path := b.common(spots)
	for _, s := range spots {
		s.Pipe, s.Joint, s.From = local(path, s.Pipe), local(path, s.Joint), local(path, s.From)
		l.On = append(l.On, s)
	}
	l.ID = free(linkWords[w.Kind]+" ", func(id string) bool {
		return slices.ContainsFunc(def.Links, func(o frame.Link) bool { return o.ID == id })
	})
	def.Links = append(def.Links, l)
	return Done{Label: "A " + linkWords[w.Kind]}, b.sound()
}

// sound refuses what the document's own rules refuse, in a builder's words.
func (b *bench) sound() error {
	_, err := frame.Expand(b.doc)
	if ps, bad := err.(frame.Problems); bad && len(ps) > 0 { //nolint:errorlint // Expand says so
		return &Refusal{What: ps[0].What, Hint: ps[0].Hint}
	}
	return err
}

// sizes reads what was typed of a link's sizes; what was not stays.
func (w *Link) sizes(b *bench, l *frame.Link) error {
	for _, f := range []struct {
		text string
		into *measure.Length
	}{{w.Rod, &l.Rod}, {w.Length, &l.Length}, {w.Overlap, &l.Overlap}, {w.Pitch, &l.Pitch}, {w.Wheel, &l.Wheel}, {w.Hub, &l.Hub}, {w.Spacer, &l.Spacer}} {
		if strings.TrimSpace(f.text) == "" {
			continue
		}
		d, err := ParseSize(f.text, b.unit, frame.Centre)
		if err != nil {
			return err
		}
		*f.into = d.Value
	}
	if w.Size != "" && !w.Size.Known() {
		return refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	return nil
}

func (w *Link) change(b *bench) (Done, error) {
	for i := range b.view.Graph.Bonds {
		if b.view.Graph.Bonds[i].ID != w.ID {
			continue
		}
		for _, def := range b.definitions() {
			for k := range def.Links {
				l := &def.Links[k]
				if l.ID != b.view.Graph.Bonds[i].Link.ID || !b.shows(def, w.ID, l.ID) {
					continue
				}
				if w.Drop {
					def.Links = slices.Delete(def.Links, k, k+1)
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
				return Done{Label: w.ID + " changed"}, w.sizes(b, l)
			}
		}
	}
	return Done{}, refuse("pick it in the list", "there is no link %q", w.ID)
}

// shows says whether a use of a definition has a link by its path.
func (b *bench) shows(def *frame.Definition, path, id string) bool {
	for i := range b.view.Places {
		p := &b.view.Places[i]
		if p.Definition(b.doc) == def && join(p.Path, id) == path {
			return true
		}
	}
	return false
}

// place reads where a link is: "j3", "p1", "p1 at 12", "p1 at 12 from j2".
func (b *bench) place(text string) (frame.Spot, error) {
	name, rest, placed := strings.Cut(strings.TrimSpace(text), " at ")
	name = strings.TrimSpace(name)
	if b.view.Graph.Node(name) >= 0 && !placed {
		return frame.Spot{Joint: name}, nil
	}
	e := b.view.Graph.Edge(name)
	if e < 0 {
		return frame.Spot{}, refuse("name a joint or a pipe, as in p1 at 12", "there is no joint or pipe %q", name)
	}
	s := frame.Spot{Pipe: name}
	if placed {
		length, from, measured := strings.Cut(rest, " from ")
		d, err := ParseSize(length, b.unit, frame.Centre)
		if err != nil {
			return s, err
		}
		s.At = d.Value
		if measured {
			s.From = strings.TrimSpace(from)
			if n := b.view.Graph.Node(s.From); n < 0 || !slices.Contains(b.view.Graph.Edges[e].Ends[:], n) {
				return s, refuse("name one of its two joints", "%s does not end at %q", name, s.From)
			}
		}
		ends := b.view.Graph.Edges[e].Ends
		if long := b.view.Points[ends[0]].Distance(b.view.Points[ends[1]]); s.At > long {
			return s, refuse(fmt.Sprintf("it is %s long from centre to centre", long.Round(measure.SixtyFourth)), "%s is not on the pipe %s", s.At, name)
		}
	} else {
		ends := b.view.Graph.Edges[e].Ends
		s.At = b.view.Points[ends[0]].Distance(b.view.Points[ends[1]]).Half()
	}
	return s, nil
}

// common is the definition that all places of a link are in: the part they
// share, else the frame.
func (b *bench) common(spots []frame.Spot) (*frame.Definition, string) {
	for i := len(b.view.Places) - 1; i > 0; i-- {
		p := &b.view.Places[i]
		if p.Path != "" && !slices.ContainsFunc(spots, func(s frame.Spot) bool {
			_, in := within(p.Path, s.Pipe+s.Joint)
			return !in
		}) {
			return p.Definition(b.doc), p.Path
		}
	}
	return &b.doc.Root, ""
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

func (w *Slide) on(b *bench) (Done, error) {
	n, err := b.node(w.Joint)
	if err != nil {
		return Done{}, err
	}
	node := &b.view.Graph.Nodes[n]
	if len(node.Pipes) != 1 || node.Fitting != nil {
		return Done{}, refuse("pick the free end of a pipe", "%s is no free end", w.Joint)
	}
	outer := &b.view.Graph.Edges[node.Pipes[0].Pipe]
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
	out, err := b.size(shows, frame.Centre)
	if err != nil {
		return Done{}, err
	}
	in := 4 * c.Pipe(outer.Size).OutsideDiameter
	if inside, said := more["inside"]; said {
		d, err := b.size(inside, frame.Centre)
		if err != nil {
			return Done{}, err
		}
		in = d.Value
	}
	scope := node.Places[0].Scope
	def, path := b.def(scope), b.view.Places[scope].Path
	end, _ := b.ref(scope, w.Joint)
	other, ok := b.ref(scope, b.view.Graph.Nodes[outer.Ends[1-node.Pipes[0].End]].ID)
	if !ok {
		return Done{}, refuse("work inside that part", "the pipe at %s is of another part", w.Joint)
	}
	away := b.view.Places[scope].Turned(b.leaves(node.Pipes[0]).Neg())
	inner, foot := frame.Joint{ID: newJoint(def), End: frame.FreeEnd, Walk: &frame.Walk{From: end, Toward: other, Size: &frame.Dimension{Value: in, Meaning: frame.Centre, Label: "Inside"}}}, frame.Joint{}
	def.Joints = append(def.Joints, inner)
	foot = frame.Joint{ID: newJoint(def), End: frame.CappedEnd, Walk: &frame.Walk{From: end, Dir: &away, Size: &frame.Dimension{Value: out.Value, Meaning: frame.Centre, Text: out.Text, Label: "Shows"}}}
	def.Joints = append(def.Joints, foot)
	p := frame.Pipe{ID: newPipe(def), From: inner.ID, To: foot.ID, Size: size}
	def.Pipes = append(def.Pipes, p)
	if _, i, _, err := b.joint(w.Joint); err == nil {
		def.Joints[i].End = frame.FreeEnd
	}
	l := frame.Link{Kind: frame.Telescope, On: []frame.Spot{{Pipe: local(path, outer.ID)}, {Pipe: p.ID}}}
	if err := (&Link{Pitch: more["pitch"], Rod: more["pin"]}).sizes(b, &l); err != nil {
		return Done{}, err
	}
	l.ID = free("telescope ", func(id string) bool {
		return slices.ContainsFunc(def.Links, func(o frame.Link) bool { return o.ID == id })
	})
	def.Links = append(def.Links, l)
	return Done{Label: fmt.Sprintf("%s pipe slides out of %s", size, w.Joint), Joint: join(path, foot.ID), Pipe: join(path, p.ID), Also: b.everywhere(scope)}, b.sound()
}
