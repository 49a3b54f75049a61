package edit

import (
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/message"
)

// finish runs after every gesture and makes the changed document consistent: every
// joint has a position, every contradiction was decided by the builder, and no pipe
// runs against the direction it was drawn in. The error is a refusal or a question.
func (e *editor) finish() error {
	if err := e.resolveAndHold(); err != nil {
		return err
	}
	for _, step := range []func() error{
		e.balance, e.mergeCopyJoints, e.sides, e.bindHeights, e.restoreWhatHolds, e.dropIdleTees, e.movePlaces, e.refuseLoose, e.refuseReversed,
	} {
		if err := step(); err != nil {
			return err
		}
	}
	e.offerBack()
	e.reportPassed()
	e.reportUncapped()
	return e.validate()
}

// balance repeats two steps until neither changes anything: give joints that lost
// their position a size that keeps them where they stood, and let the sizes that
// the builder chose give way.
func (e *editor) balance() error {
	for range 4 {
		if err := e.resolveConflicts(); err != nil {
			return err
		}
		if !e.freeCutsFromAxes() {
			return nil
		}
		if err := e.resolve(); err != nil {
			return err
		}
	}
	return nil
}

// freeCutsFromAxes turns a cut that was typed for a pipe from a size along an axis
// into a size along the pipe itself, where the pipe no longer runs along that axis.
// A cut is the length of the piece, whichever way the pipe runs. It reports whether
// it changed any.
func (e *editor) freeCutsFromAxes() (any bool) {
	for sc := range e.view.Graph.Scopes {
		def, place := e.def(sc), e.place(sc)
		for i := range def.Sizes {
			s := &def.Sizes[i]
			a := frame.AxisOf(s.Axis)
			if s.Pipe == "" || a < 0 || s.Gave != nil || s.Meaning != frame.Cut && s.Meaning != frame.Visible {
				continue
			}
			p := def.Pipe(s.Pipe)
			if p == nil || p.Path != frame.Straight || p.Dir != nil && p.Gave == nil {
				continue
			}
			for b := range measure.Axis(3) {
				from, to := place.Find(b, frame.Ref(p.From)), place.Find(b, frame.Ref(p.To))
				if int(b) != a && from >= 0 && to >= 0 && from != to {
					s.Axis, s.From, s.To, any = "", "", "", true
					break
				}
			}
		}
	}
	return any
}

// resolveConflicts alternates between holding loose joints and letting sizes give
// way, at most twelve times.
func (e *editor) resolveConflicts() error {
	for range 12 {
		held, err := e.holdLoose()
		if err != nil {
			return err
		}
		settled, err := e.settle()
		if err != nil {
			return err
		}
		if !held && !settled {
			return nil
		}
	}
	return refuse("make it in two steps", "what this leaves without a place cannot be held where it stood")
}

// refuseLoose refuses a gesture that leaves joints without a position that had one
// before.
func (e *editor) refuseLoose() error {
	if len(e.view.Clashes) > 0 || len(e.view.Free) <= len(e.was.Free) {
		return nil
	}
	loose := e.view.Graph.Nodes[e.view.Free[0].Nodes[0]].ID
	return refuse("size it first, or make it in two steps", "this leaves nothing that says where %s stands", mention.Of(loose))
}

// resolveAndHold solves the frame, and gives every joint that the change left
// without a position a size that keeps it where it stood.
func (e *editor) resolveAndHold() error {
	if err := e.resolve(); err != nil {
		return err
	}
	if err := e.keepOrigin(); err != nil {
		return err
	}
	_, err := e.holdLoose()
	return err
}

// keepOrigin keeps the frame where it is when the joint at its origin was removed:
// the next joint becomes the origin, at the position that it has.
func (e *editor) keepOrigin() error {
	if len(e.view.Graph.Nodes) == 0 || len(e.was.Graph.Nodes) == 0 {
		return nil
	}
	first := e.view.Graph.Nodes[0].ID
	was := e.was.Graph.Node(first)
	if was <= 0 || first == e.was.Graph.Nodes[0].ID {
		return nil
	}
	moved := false
	for a := range 3 {
		if len(e.doc.Root.Planes[a]) == 0 {
			at := e.was.Places[0].Local(e.was.Points[was])[a]
			moved = moved || e.doc.Origin[a] != at
			e.doc.Origin[a] = at
		}
	}
	if moved {
		return e.resolve()
	}
	return nil
}

// mergeCopyJoints merges joints of neighbouring joined copies that the gesture
// brought to the same point.
func (e *editor) mergeCopyJoints() error {
	changed := false
	for _, def := range e.doc.Definitions() {
		for i := range def.Uses {
			u := &def.Uses[i]
			if u.Array == nil || !u.Array.Joins() || u.Array.Count < 2 {
				continue
			}
			for sc := range e.view.Graph.Scopes {
				if s := &e.view.Graph.Scopes[sc]; s.Parent >= 0 && e.def(s.Parent) == def && s.Use == u.ID &&
					strings.HasSuffix(s.Path, "#1") {
					changed = e.joinCopies(u, strings.TrimSuffix(s.Path, "#1")) || changed
					break
				}
			}
		}
	}
	if changed {
		return e.resolve()
	}
	return nil
}

func (e *editor) joinCopies(u *frame.Use, path string) (changed bool) {
	g := e.view.Graph
	for i := range g.Nodes {
		hi, in := within(path+"#1", g.Nodes[i].ID)
		if !in {
			continue
		}
		for k := range g.Nodes {
			lo, in := within(path+"#2", g.Nodes[k].ID)
			if in && e.view.Points[i].Distance(e.view.Points[k]) <= near {
				e.doc.JoinCopies(u, [2]string{lo, hi})
				changed = true
			}
		}
	}
	return changed
}

// refuseReversed refuses a gesture that leaves a pipe a length of zero or less, or a
// sprung or bent pipe no possible curve between its ends.
func (e *editor) refuseReversed() error {
	larger := "write a larger size: the bodies at both ends take that much"
	hints := map[string]string{
		"turned-round":   larger,
		"zero-length":    larger,
		"size-too-small": larger,
		"no-curve":       "make the pipe longer first, or its ends less far apart",
	}
	had := map[string]bool{}
	for _, f := range e.was.Findings {
		if hints[f.Code] != "" {
			had[f.Subject()] = true
		}
	}
	for _, f := range e.view.Findings {
		if hint := hints[f.Code]; hint != "" && !had[f.Subject()] {
			return refuse(hint, "%s", message.Said(f).Text)
		}
	}
	return nil
}

// offerBack offers to restore sizes that gave way to something which this gesture
// removed. They are not restored without the builder's consent.
func (e *editor) offerBack() {
	was := map[string]bool{}
	for _, z := range e.was.Sizes {
		was[z.ID] = z.Gave != "" && !z.Freed
	}
	for _, z := range e.view.Sizes {
		if z.Freed && was[z.ID] {
			e.offers = append(
				e.offers,
				Offer{Label: layout.Said(&z) + " holds again", Edit: Edit{Gesture: &Restore{Kind: "size", ID: z.ID}}},
			)
		}
	}
}
