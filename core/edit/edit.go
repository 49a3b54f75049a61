package edit

import (
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Edit is one gesture. Exactly one member is set.
type Edit struct {
	Begin  *Begin       `json:"begin,omitempty"`
	Walk   *Walk        `json:"walk,omitempty"`
	Join   *Join        `json:"join,omitempty"`
	Split  *Split       `json:"split,omitempty"`
	Bow    *Bow         `json:"bow,omitempty"`
	Delete *Delete      `json:"delete,omitempty"`
	Resize *Resize      `json:"resize,omitempty"`
	Fit    *Fit         `json:"fit,omitempty"`
	End    *EndOf       `json:"end,omitempty"`
	Bay    *Bay         `json:"bay,omitempty"`
	Insert *Insert      `json:"insert,omitempty"`
	Remove *Remove      `json:"remove,omitempty"`
	Even   *Even        `json:"even,omitempty"`
	Group  *Group       `json:"group,omitempty"`
	Place  *PlaceUse    `json:"place,omitempty"`
	Bring  *Bring       `json:"bring,omitempty"`
	Repeat *Repeat      `json:"repeat,omitempty"`
	Mirror *Mirror      `json:"mirror,omitempty"`
	Turn   *Turn        `json:"turn,omitempty"`
	Unique *Unique      `json:"unique,omitempty"`
	Ring   *Ring        `json:"ring,omitempty"`
	Drive  *Drive       `json:"drive,omitempty"`
	Class  *Tolerance   `json:"class,omitempty"`
	Link   *Link        `json:"link,omitempty"`
	Slide  *Slide       `json:"slide,omitempty"`
	Check  *Envelope    `json:"check,omitempty"`
	Custom *Custom      `json:"custom,omitempty"`
	Stand  *Stand       `json:"stand,omitempty"`
	Keep   *Keep        `json:"keep,omitempty"`
	Unit   measure.Unit `json:"unit,omitempty"` // of bare numbers; the document's own where it is missing
}

// Done is what a gesture made.
type Done struct {
	Label string   `json:"label"`           // in the builder's words, for undo
	Joint string   `json:"joint,omitempty"` // what to go on from
	Pipe  string   `json:"pipe,omitempty"`
	Part  string   `json:"part,omitempty"` // a use's path
	Also  []string `json:"also,omitempty"` // what it did besides, in words
}

// View is a frame with everything in its place.
type View struct {
	Graph *frame.Graph
	*layout.Solution
}

// Solver puts a document's parts in their places.
type Solver func(*frame.Document) (*View, error)

// Refusal is a gesture that cannot be made, and why.
type Refusal struct {
	What string `json:"what"`
	Hint string `json:"hint"`
	At   int    `json:"at"` // place in the text that was typed
}

func (r *Refusal) Error() string { return r.What + "; " + r.Hint }

func refuse(hint, what string, args ...any) *Refusal {
	return &Refusal{What: fmt.Sprintf(what, args...), Hint: hint}
}

// Apply makes a gesture on a copy of a document. The error is a [*Refusal],
// or what the solver says of a document that makes no sense.
func Apply(d *frame.Document, e Edit, solve Solver) (*frame.Document, Done, error) {
	b, err := lay(d, e.Unit, solve)
	if err != nil {
		return nil, Done{}, err
	}
	gestures := []gesture{}
	add := func(set bool, g gesture) {
		if set {
			gestures = append(gestures, g)
		}
	}
	add(e.Begin != nil, e.Begin)
	add(e.Walk != nil, e.Walk)
	add(e.Join != nil, e.Join)
	add(e.Split != nil, e.Split)
	add(e.Bow != nil, e.Bow)
	add(e.Delete != nil, e.Delete)
	add(e.Resize != nil, e.Resize)
	add(e.Fit != nil, e.Fit)
	add(e.End != nil, e.End)
	add(e.Bay != nil, e.Bay)
	add(e.Insert != nil, e.Insert)
	add(e.Remove != nil, e.Remove)
	add(e.Even != nil, e.Even)
	add(e.Group != nil, e.Group)
	add(e.Place != nil, e.Place)
	add(e.Bring != nil, e.Bring)
	add(e.Repeat != nil, e.Repeat)
	add(e.Mirror != nil, e.Mirror)
	add(e.Turn != nil, e.Turn)
	add(e.Unique != nil, e.Unique)
	add(e.Ring != nil, e.Ring)
	add(e.Drive != nil, e.Drive)
	add(e.Class != nil, e.Class)
	add(e.Link != nil, e.Link)
	add(e.Slide != nil, e.Slide)
	add(e.Check != nil, e.Check)
	add(e.Custom != nil, e.Custom)
	add(e.Keep != nil, e.Keep)
	add(e.Stand != nil, e.Stand)
	if len(gestures) != 1 {
		return nil, Done{}, refuse("send one gesture at a time", "%d gestures at once", len(gestures))
	}
	done, err := gestures[0].on(b)
	if err != nil {
		return nil, Done{}, err
	}
	b.prune()
	b.regive()
	done.Also = append(done.Also, b.also...)
	b.forget()
	if _, err := frame.Expand(b.doc); err != nil {
		return nil, Done{}, err
	}
	return b.doc, done, nil
}

// Keep takes the frame as it is: one that follows from a starter is then an
// ordinary frame.
type Keep struct{}

func (*Keep) on(*bench) (Done, error) { return Done{Label: "A frame of its own"}, nil }

// forget takes away the tolerances of pipes that are gone.
func (b *bench) forget() {
	if len(b.doc.Tolerances) == 0 || b.look() != nil {
		return
	}
	b.doc.Tolerances = slices.DeleteFunc(b.doc.Tolerances, func(t frame.Tolerance) bool { return b.view.Graph.Edge(t.Pipe) < 0 })
}

// gesture changes what is on the bench.
type gesture interface {
	on(b *bench) (Done, error)
}

// sizeWords names a pipe size.
func sizeWords(s catalog.Size) string { return string(s) + " pipe" }

// gives holds the size itself that gives way to each drive: its pointer in the
// document changes when something before it comes or goes.
func (b *bench) gives() map[string]given {
	all := map[string]given{}
	for _, d := range b.doc.Drives {
		if d.Gives != "" {
			all[d.ID] = given{d.Gives, b.doc.Dimension(d.Gives)}
		}
	}
	return all
}

type given struct {
	path string
	size *frame.Dimension
}

// regive finds those sizes again. A drive whose size was stated anew or went
// away has had its day.
func (b *bench) regive() {
	paths := map[*frame.Dimension]string{}
	for _, p := range b.doc.Dimensions() {
		paths[b.doc.Dimension(p)] = p
	}
	b.doc.Drives = slices.DeleteFunc(b.doc.Drives, func(d frame.Drive) bool {
		w, had := b.given[d.ID]
		gone := had && d.Gives == w.path && paths[w.size] == ""
		if gone {
			b.also = append(b.also, fmt.Sprintf("%s no longer holds", d.ID))
		}
		return gone
	})
	for i := range b.doc.Drives {
		d := &b.doc.Drives[i]
		if w, had := b.given[d.ID]; had && d.Gives == w.path {
			d.Gives = paths[w.size]
			b.given[d.ID] = given{d.Gives, w.size}
		}
	}
}
