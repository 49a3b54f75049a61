package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// LinkKind is a way in which parts hold together that is no insertion.
type LinkKind string

// The links.
const (
	Pivot     LinkKind = "pivot"     // a bolt through two pipes: one turns
	Hinge     LinkKind = "hinge"     // a part that turns round a pipe
	Telescope LinkKind = "telescope" // a pipe that slides in another
	Tie       LinkKind = "tie"       // a cable tie round two pipes
	Axle      LinkKind = "axle"      // a rod through the frame, with a wheel at each end
	Rod       LinkKind = "rod"       // a rod or dowel in or through pipe
	Clip      LinkKind = "clip"      // clips on a pipe, cut from pipe
	Sleeve    LinkKind = "sleeve"    // a piece of larger pipe round a pipe
)

// LinkKinds lists the links.
func LinkKinds() []LinkKind { return []LinkKind{Pivot, Hinge, Telescope, Tie, Axle, Rod, Clip, Sleeve} }

// Link holds parts together, or in each other. A pivot and a tie are on two
// pipes; a hinge on the pipe it turns round and a joint of what turns; a
// telescope on the outer and the inner pipe; an axle on what it goes through,
// one spot at each side; the others on one spot.
type Link struct {
	ID   string   `json:"id"` // its name in its definition
	Kind LinkKind `json:"kind"`
	On   []Anchor `json:"on"`

	Rod     measure.Length `json:"rod,omitempty"`     // diameter of the bolt, rod or axle
	Fold    float64        `json:"fold,omitempty"`    // of a pivot or hinge: degrees to its folded state, counter-clockwise about the first pipe's side
	Size    catalog.Size   `json:"size,omitempty"`    // of a sleeve
	Count   int            `json:"count,omitempty"`   // of ties, clips or sleeves
	Length  measure.Length `json:"length,omitempty"`  // of each clip or sleeve
	Overlap measure.Length `json:"overlap,omitempty"` // of a telescope: the least; two diameters of the outer pipe where it is left out
	Pitch   measure.Length `json:"pitch,omitempty"`   // between a telescope's holes
	Wheel   measure.Length `json:"wheel,omitempty"`   // diameter
	Hub     measure.Length `json:"hub,omitempty"`     // how wide a wheel's hub is
	Spacer  measure.Length `json:"spacer,omitempty"`  // between hub and frame, on each side
	Cord    measure.Length `json:"cord,omitempty"`    // a tie's thickness
}

func (def *Definition) checkLinks(ps *Problems, where string) {
	seen := map[string]bool{}
	want := map[LinkKind]int{Pivot: 2, Hinge: 2, Telescope: 2, Tie: 2, Axle: 2}
	for i, l := range def.Links {
		path := fmt.Sprintf("%s/links/%d", where, i)
		n := max(1, want[l.Kind])
		switch {
		case l.ID == "" || seen[l.ID]:
			ps.add(path+"/id", fmt.Sprintf("the link id %q is empty or taken", l.ID), "give each link its own id")
		case !slices.Contains(LinkKinds(), l.Kind):
			ps.add(path+"/kind", fmt.Sprintf("unknown link %q", l.Kind), "use pivot, hinge, telescope, tie, axle, rod, clip or sleeve")
		case len(l.On) != n:
			ps.add(path+"/on", fmt.Sprintf("a %s on %d places", l.Kind, len(l.On)), fmt.Sprintf("it has %d", n))
		}
		seen[l.ID] = true
		for _, v := range []measure.Length{l.Rod, l.Length, l.Overlap, l.Pitch, l.Wheel, l.Hub, l.Spacer, l.Cord} {
			if v < 0 || v > measure.FrameLimit {
				ps.add(path, "a size below zero or over 1,000 ft", "sizes are positive")
				break
			}
		}
		if !(l.Fold >= -360 && l.Fold <= 360) {
			ps.add(path+"/fold", "a turn of more than a full one", "use degrees from -360 to 360")
		}
		if l.Count < 0 || l.Count > 10_000 {
			ps.add(path+"/count", fmt.Sprintf("%d of them", l.Count), "use 1 to 10,000")
		}
		checkSize(ps, path+"/size", l.Size)
		for k, s := range l.On {
			s.check(ps, fmt.Sprintf("%s/on/%d", path, k))
		}
	}
}

// ResolvedLink is a link of the flat graph.
type ResolvedLink struct {
	ID string
	Link
	On       []ResolvedAnchor
	Mirrored bool // in a mirrored use: what turns one way there turns the other way here
}

// resolveLink looks the places of a link up; problems name what is not there.
func (e *expander) resolveLink(l Link, scope int, where string) {
	path := e.g.Scopes[scope].Path
	b := ResolvedLink{ID: join(path, l.ID), Link: l, Mirrored: e.g.Scopes[scope].Orient.mirrors()}
	for k, s := range l.On {
		at := fmt.Sprintf("%s/on/%d", where, k)
		spot, ok := e.resolveAnchor(s, path, at)
		if !ok {
			return
		}
		b.On = append(b.On, spot)
	}
	e.g.Links = append(e.g.Links, b)
}
