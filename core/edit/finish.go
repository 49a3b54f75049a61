package edit

import (
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// finish leaves a changed document sound: nothing without a place, nothing that
// contradicts without its builder having chosen, nothing that runs the other
// way.
func (e *editor) finish() error {
	if err := e.resolveAndHold(); err != nil {
		return err
	}
	for _, step := range []func() error{e.balance, e.mergeCopyJoints, e.bindHeights, e.restoreWhatHolds, e.refuseLoose, e.refuseReversed} {
		if err := step(); err != nil {
			return err
		}
	}
	e.offerBack()
	e.reportPassed()
	return e.validate()
}

// balance holds what lost its place and lets give way what was chosen to, until
// there is neither.
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

// freeCutsFromAxes lets sizes that were typed for a pipe, and lay along an axis because
// it did, go the pipe's own way where nothing keeps it along the axis: a cut is
// that of the piece, whichever way it comes to run. It reports whether any does.
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

// resolveConflicts holds and lets give way by turns.
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

// refuseLoose refuses what would leave joints without a place that had one.
func (e *editor) refuseLoose() error {
	if len(e.view.Clashes) > 0 || len(e.view.Free) <= len(e.was.Free) {
		return nil
	}
	loose := e.view.Graph.Nodes[e.view.Free[0].Nodes[0]].ID
	return refuse("size it first, or make it in two steps", "this leaves nothing that says where %s stands", loose)
}

// resolveAndHold looks, and keeps everything where it stood that a change left without a
// place.
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

// keepOrigin keeps the frame where it is when the joint that it was placed by has
// gone: the next one takes its place.
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

// mergeCopyJoints lets joined copies share what came to stand at one place in them.
func (e *editor) mergeCopyJoints() error {
	changed := false
	for _, def := range e.doc.Definitions() {
		for i := range def.Uses {
			u := &def.Uses[i]
			if u.Array == nil || u.Array.Joined == nil || u.Array.Count < 2 {
				continue
			}
			for sc := range e.view.Graph.Scopes {
				if s := &e.view.Graph.Scopes[sc]; s.Parent >= 0 && e.def(s.Parent) == def && s.Use == u.ID && strings.HasSuffix(s.Path, "#1") {
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

// refuseReversed refuses what would leave a pipe less than no room, or a sprung or bent
// one no way between its ends.
func (e *editor) refuseReversed() error {
	larger := "write a larger size: the bodies at both ends take that much"
	hints := map[string]string{"turned-round": larger, "zero-length": larger, "size-too-small": larger, "no-curve": "make the pipe longer first, or its ends less far apart"}
	had := map[string]bool{}
	for _, f := range e.was.Findings {
		if hints[f.Code] != "" {
			had[f.Subject[0]] = true
		}
	}
	for _, f := range e.view.Findings {
		if hint := hints[f.Code]; hint != "" && !had[f.Subject[0]] {
			return refuse(hint, "%s", f.Text)
		}
	}
	return nil
}

// offerBack offers sizes to hold again that gave way to something that this
// gesture took away. They do not do so by themselves.
func (e *editor) offerBack() {
	was := map[string]bool{}
	for _, z := range e.was.Sizes {
		was[z.ID] = z.Gave != "" && !z.Freed
	}
	for _, z := range e.view.Sizes {
		if z.Freed && was[z.ID] {
			e.offers = append(e.offers, Offer{Label: layout.Said(&z) + " holds again", Edit: Edit{Gesture: &Restore{Kind: "size", ID: z.ID}}})
		}
	}
}
