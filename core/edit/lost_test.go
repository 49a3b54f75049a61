package edit_test

import (
	"context"
	"slices"
	"strings"

	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model"
)

// thing is something in a document that a gesture could take away without a
// word: what it is called by, and the pipe or joint that it is of.
type thing struct{ kind, id, of string }

// things lists what a document's builder put into it by hand, in its root. What
// is typed is looked at by holds.
func things(d *frame.Document) (all []thing) {
	for i := range d.Root.Pipes {
		all = append(all, thing{"pipe", d.Root.Pipes[i].ID, ""})
	}
	for _, l := range d.Root.Links {
		all = append(all, thing{"link", l.ID, ""})
	}
	for _, t := range d.Root.Reasons {
		if t.Says("", "", "") != "" {
			all = append(all, thing{"reason", t.ID, t.Says(t.Of.Bare(), t.From.Bare(), t.To.Bare())})
		}
	}
	for a := range d.Root.Planes {
		for _, p := range d.Root.Planes[a] {
			all = append(all, thing{"plane", p.ID, frame.AxisName(a)})
		}
	}
	for _, t := range d.Tolerances {
		all = append(all, thing{"class", t.Pipe, ""})
	}
	for _, v := range d.ClearanceChecks {
		all = append(all, thing{"check", v.ID, ""})
	}
	return all
}

// renames says whether a gesture gives things other names, so that what seems
// gone is elsewhere.
func renames(g edit.Gesture) bool {
	switch g.(type) {
	case *edit.MakeGroup, *edit.Ungroup, *edit.Repeat, *edit.Mirror, *edit.Unique:
		return true
	}
	return false
}

// askedFor says whether a gesture names what went, or what it was part of.
func askedFor(before, after *frame.Document, g edit.Gesture, t thing) bool {
	if c, ok := g.(*edit.Tolerance); ok && t.kind == "class" {
		return slices.Contains(c.Pipes, t.id)
	}
	if n, ok := g.(*edit.Name); ok && t.kind == "plane" {
		return n.Plane == frame.OnPlane(t.id)
	}
	if r, ok := g.(*edit.Remove); ok && t.kind == "plane" {
		return r.Plane == frame.OnPlane(t.id)
	} else if ok && t.kind == "pipe" { // a plane goes with all that stands on it
		p := before.Root.Pipe(t.id)
		return after.Root.Joint(p.From) == nil || after.Root.Joint(p.To) == nil
	}
	w, ok := g.(*edit.Delete)
	if !ok || t.kind != "pipe" {
		return false
	}
	if slices.Contains(w.Pipes, t.id) {
		return true
	}
	p := before.Root.Pipe(t.id)
	return slices.ContainsFunc(w.Joints, func(j string) bool { return p.From == j || p.To == j || slices.Contains(p.Via, j) })
}

// spreadAnew says whether a gesture that spreads evenly says a share again that was there: of
// the same plane between the same two, by other joints on them.
func spreadAnew(t require.TestingT, before, after *frame.Document, g edit.Gesture, reason string) bool {
	e, ok := g.(*edit.Even)
	was := before.Root.Reason(reason)
	if !ok || was.Kind != frame.Share || was.Axis != e.Axis.String() {
		return false
	}
	l, err := model.Locate(context.Background(), before, catalog.Typical())
	require.NoError(t, err)
	plane := func(r frame.Ref) int { return l.Places[0].Find(e.Axis, r) }
	return slices.ContainsFunc(after.Root.Reasons, func(r frame.Reason) bool {
		return r.Kind == frame.Share && r.Axis == was.Axis &&
			plane(r.Of) == plane(was.Of) && plane(r.From) == plane(was.From) && plane(r.To) == plane(was.To)
	})
}

// nothingLost wants that whatever a gesture took away beyond what it was asked
// to is named in its answer.
func nothingLost(t require.TestingT, before, after *frame.Document, g edit.Gesture, done edit.Done) {
	if renames(g) {
		return
	}
	told := strings.Join(done.Also, "\n")
	for _, v := range done.GivenUp {
		told += "\n" + v.Was + " " + v.Now + " " + v.Words
	}
	now := things(after)
	for _, was := range things(before) {
		if slices.ContainsFunc(now, func(n thing) bool { return n.kind == was.kind && n.id == was.id }) || askedFor(before, after, g, was) {
			continue
		}
		name := was.id
		if was.kind == "reason" { // by its words; what says the same again is no loss
			name = was.of
			of := before.Root.Reason(was.id).Of.Bare()
			if after.Root.Joint(of) == nil || spreadAnew(t, before, after, g, was.id) ||
				slices.ContainsFunc(now, func(n thing) bool { return n.kind == was.kind && n.of == was.of }) {
				continue
			}
		}
		require.Contains(t, mention.ByID(told), name, "%v went in silence with %T%+v", was, g, g)
	}
}
