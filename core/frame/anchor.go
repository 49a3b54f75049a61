package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
)

// Datum is what a place along a pipe is measured from, at the joint that it names.
type Datum string

// The datums.
const (
	FromCentre Datum = ""     // the joint's centre
	FromFace   Datum = "face" // the rim of its fitting, where the pipe shows
	FromEnd    Datum = "end"  // the pipe's own end, inside the fitting
)

// Side is a side of a pipe or a joint, in the frame's axes.
type Side string

// The sides.
const (
	Top    Side = "top"
	Bottom Side = "bottom"
	Left   Side = "left"
	Right  Side = "right"
	Front  Side = "front"
	Back   Side = "back"
)

// sideWays are the directions of the sides.
var sideWays = map[Side]measure.Dir{
	Top:    {0, 0, 1},
	Bottom: {0, 0, -1},
	Left:   {-1, 0, 0},
	Right:  {1, 0, 0},
	Front:  {0, -1, 0},
	Back:   {0, 1, 0},
}

// Way is the direction of a side, in the frame's axes; ok is false for none.
func (s Side) Way() (d measure.Dir, ok bool) {
	d, ok = sideWays[s]
	return d, ok
}

// Anchor is a place: on a pipe, so far along it, or at a joint and the fitting that
// stands there. Round it, the place is on a side, or turned by an angle.
type Anchor struct {
	Pipe  string         `json:"pipe,omitempty"  ref:"pipe"`  // the pipe that it is on
	From  string         `json:"from,omitempty"  ref:"joint"` // the joint it is measured from; the pipe's first where it is left out
	At    measure.Length `json:"at,omitempty"`                // along the pipe
	Text  string         `json:"text,omitempty"`              // At as it was typed
	Unit  measure.Unit   `json:"unit,omitempty"`              // of a bare number in it
	Datum Datum          `json:"datum,omitempty"`
	Joint string         `json:"joint,omitempty" ref:"joint"` // instead of a pipe
	Angle float64        `json:"angle,omitempty"`             // round a pipe, in degrees: from its upper side, or the front of one that stands, counter-clockwise as seen from the joint that it is measured from
	Side  Side           `json:"side,omitempty"`              // instead of an angle
}

// Says is a place along a pipe as its builder says it, measured from the joint of that
// name: 40 from the face of j1, on the left. It can be typed so.
func (a *Anchor) Says(from string) string {
	words := a.At.Typed(a.Text, a.Unit) + " from "
	if a.Datum != FromCentre {
		words += "the " + string(a.Datum) + " of "
	}
	return words + from + a.saysRound()
}

// saysRound is where round its pipe a place is, in words that go on from its distance.
func (a *Anchor) saysRound() string {
	switch {
	case a.Side != "":
		return ", on the " + string(a.Side)
	case a.Angle != 0:
		return fmt.Sprintf(", turned %g°", a.Angle)
	}
	return ""
}

// Says is a place in words that mention its pipe and its joint: ⟨p2⟩ at 40 from ⟨j1⟩.
func (g *Graph) Says(a *Anchor, r ResolvedAnchor) string {
	if r.Node >= 0 {
		return mention.Of(g.Nodes[r.Node].ID) + a.saysRound()
	}
	e := &g.Edges[r.Pipe]
	return mention.Of(e.ID) + " at " + a.Says(mention.Of(g.Nodes[e.Ends[r.End]].ID))
}

// EachAnchorOn visits the places on a pipe of a definition, in whichever definition they
// are said: owner is that one, and path the way from it to the pipe's, so that the joints
// of the pipe's definition are named there with the path before them.
func (d *Document) EachAnchorOn(def *Definition, pipe string, visit func(owner *Definition, path string, l *Link, a *Anchor)) {
	for _, owner := range d.Definitions() {
		for i := range owner.Links {
			l := &owner.Links[i]
			for k := range l.On {
				path, name, _ := Ref(l.On[k].Pipe).Parts()
				if name == pipe && d.Inside(owner, path) == def {
					visit(owner, path, l, &l.On[k])
				}
			}
		}
	}
}

// NameDatums names the joint that the places on a pipe are measured from, where that was
// left to be the pipe's first: before its ends become others.
func (d *Document) NameDatums(def *Definition, pipe string) {
	p := def.Pipe(pipe)
	d.EachAnchorOn(def, pipe, func(_ *Definition, path string, _ *Link, a *Anchor) {
		if a.From == "" {
			a.From = join(path, p.From)
		}
	})
}

// check tells what in an anchor makes no sense.
func (a *Anchor) check(ps *Problems, path string) {
	if (a.Pipe == "") == (a.Joint == "") {
		ps.add(path, "a place that is neither on a pipe nor a joint", "name one of them")
	}
	if a.At < 0 || a.At > measure.FrameLimit {
		ps.add(path+"/at", "a distance below zero or over 1,000 ft", "measure it from one of the pipe's ends")
	}
	if !slices.Contains([]Datum{FromCentre, FromFace, FromEnd}, a.Datum) {
		ps.add(path+"/datum", fmt.Sprintf("nothing called %q to measure from", a.Datum), "use end or face, or leave it out for the centre")
	}
	if !(a.Angle >= -360 && a.Angle <= 360) {
		ps.add(path+"/angle", "a turn of more than a full one", "use degrees from -360 to 360")
	}
	if _, known := a.Side.Way(); a.Side != "" && !known {
		ps.add(path+"/side", fmt.Sprintf("there is no side %q", a.Side), "use top, bottom, left, right, front or back")
	} else if a.Side != "" && a.Angle != 0 {
		ps.add(path+"/side", "both a side and an angle", "leave one of them out")
	}
}

// ResolvedAnchor is an anchor in the flat graph: at a node, or on a pipe at a distance
// from one of its ends.
type ResolvedAnchor struct {
	Node  int // -1: on a pipe
	Pipe  int
	End   int
	At    measure.Length
	Datum Datum
	Angle float64     // against the clock, mirrored or not
	Up    measure.Dir // the upper side and the front of the part that it is in, in the world's axes
	Front measure.Dir
	Side  measure.Dir // in the world's axes; zero where no side is said
}

// NodeOf is a joint that a place hangs on: itself, or the first of its pipe's.
func (g *Graph) NodeOf(a ResolvedAnchor) int {
	if a.Node >= 0 {
		return a.Node
	}
	return g.Edges[a.Pipe].Ends[0]
}

// resolveAnchor looks an anchor up among what is in a scope, by the scope's path;
// problems name what is not there.
func (e *expander) resolveAnchor(a Anchor, path, where string) (ResolvedAnchor, bool) {
	orient := e.g.Scopes[e.scopes[path]].Orient
	r := ResolvedAnchor{
		Node:  -1,
		Pipe:  -1,
		At:    a.At,
		Datum: a.Datum,
		Angle: a.Angle,
		Up:    orient.Dir(sideWays[Top]),
		Front: orient.Dir(sideWays[Front]),
	}
	if orient.mirrors() {
		r.Angle = -r.Angle
	}
	if way, ok := a.Side.Way(); ok {
		r.Side = orient.Dir(way)
	}
	if a.Joint != "" {
		n, ok := e.at[join(path, a.Joint)]
		if !ok {
			e.problems.add(
				where+"/joint",
				fmt.Sprintf("there is no joint %q", a.Joint),
				"name a joint of this group or of a group used in it",
			)
			return r, false
		}
		r.Node = n
		return r, true
	}
	r.Pipe = slices.IndexFunc(e.g.Edges, func(ed Edge) bool { return ed.ID == join(path, a.Pipe) })
	if r.Pipe < 0 {
		e.problems.add(where+"/pipe", fmt.Sprintf("there is no pipe %q", a.Pipe), "name a pipe of this group or of a group used in it")
		return r, false
	}
	if a.From != "" {
		n, ok := e.at[join(path, a.From)]
		switch ends := e.g.Edges[r.Pipe].Ends; {
		case ok && ends[1] == n:
			r.End = 1
		case !ok || ends[0] != n:
			e.problems.add(where+"/from", fmt.Sprintf("the pipe %q does not end at %q", a.Pipe, a.From), "measure from one of its joints")
			return r, false
		}
	}
	return r, true
}
