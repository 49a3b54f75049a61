package edit

import (
	"fmt"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model"
)

// Reach lets a size that was typed between bodies end at another one: an
// outside size at what came to stand beyond it, a height at what came to stand
// below its foot.
type Reach struct {
	ID   string `json:"id"`
	Foot string `json:"foot,omitempty"` // the joint whose body a height is measured from
	From string `json:"from,omitempty"` // the joint that it begins at
	To   string `json:"to,omitempty"`   // the joint that it ends at
}

var _ = register[Reach]("reach")

func (w *Reach) on(e *editor) (Done, error) {
	s := e.doc.SizeOf(w.ID)
	if s == nil || s.Axis == "" {
		return Done{}, refuse("pick it again", "there is no size %q that ends at bodies", w.ID)
	}
	done := Done{Label: fmt.Sprintf("%s reaches further", s.Says())}
	for _, end := range []struct {
		joint string
		to    func(ref string)
	}{
		{w.Foot, func(ref string) { s.Foot = ref }},
		{w.From, func(ref string) { s.From = frame.Ref(ref) }},
		{w.To, func(ref string) { s.To = frame.Ref(ref) }},
	} {
		if end.joint == "" {
			continue
		}
		if _, err := e.node(end.joint); err != nil {
			return Done{}, err
		}
		end.to(end.joint)
		done.Joint = end.joint
	}
	s.Rank = e.doc.NextRank()
	return done, nil
}

// bindHeights records, for a height that was typed just now, the joint that stands
// lowest once the gesture is done: the height is measured from it. The fitting at
// the end of the new line may be lower than everything that was there before.
func (e *editor) bindHeights() error {
	for range 4 { // what is bound anew moves, and something else may stand lowest then
		bound := false
		for i := range e.view.Sizes {
			z := &e.view.Sizes[i]
			now := e.doc.SizeOf(z.ID)
			if z.Foot == "" || now == nil || !slices.Contains(e.heights, z.ID) || e.belowFoot(e.view, z) <= 0 {
				continue
			}
			scope, err := e.scope(z.Scope)
			if err != nil {
				return err
			}
			if ref, ok := e.ref(scope, e.view.Graph.Nodes[e.view.Lowest].ID); ok && ref != now.Foot {
				now.Foot, bound = ref, true
			}
		}
		if !bound {
			return nil
		}
		if err := e.resolve(); err != nil {
			return err
		}
		if err := e.balance(); err != nil {
			return err
		}
	}
	return nil
}

// reportPassed tells the builder where the gesture put a body beyond the end of an
// outside size, or below the foot of a height. The size keeps its typed value, and
// no longer measures the whole frame; measuring the whole is offered.
func (e *editor) reportPassed() {
	was := e.sizesBefore()
	for i := range e.view.Sizes {
		z := &e.view.Sizes[i]
		old := was[z.ID]
		if old == nil || z.Scope != "" || z.Gave != "" || z.Inferred || z.Pipe != "" {
			continue
		}
		said := layout.Said(z)
		switch {
		case z.Foot != "":
			if e.belowFoot(e.was, old) <= layout.TapeStep && e.belowFoot(e.view, z) > layout.TapeStep {
				joint := e.view.Graph.Nodes[e.view.Lowest].ID
				e.note(
					"%s is measured from what stands at %s; %s reaches %s lower",
					said,
					mention.Of(z.Foot),
					mention.Of(joint),
					e.belowFoot(e.view, z).Tape(e.unit),
				)
				e.offers = append(
					e.offers,
					Offer{Label: "Measure it from the floor as it is now", Edit: Edit{Gesture: &Reach{ID: z.ID, Foot: joint}}},
				)
			}
		case z.Is == frame.Outside && z.Axis >= 0 && old.Axis == z.Axis:
			over, before := beyond(e.view, z), beyond(e.was, old)
			for k, word := range []string{"from", "to"} {
				if over[k] <= layout.TapeStep || before[0] > layout.TapeStep || before[1] > layout.TapeStep {
					continue
				}
				joint := e.view.Graph.Nodes[e.view.Outmost[z.Axis][k]].ID
				e.note("%s holds between the bodies it was typed for; %s reaches %s beyond", said, mention.Of(joint), over[k].Tape(e.unit))
				way := &Reach{ID: z.ID, To: joint}
				if word == "from" {
					way = &Reach{ID: z.ID, From: joint}
				}
				e.offers = append(e.offers, Offer{Label: said + " is to be the whole, with " + mention.Of(joint), Edit: Edit{Gesture: way}})
			}
		}
	}
}

// belowFoot is how far the lowest body is below the foot that a height is measured
// from; zero or less where nothing is lower.
func (e *editor) belowFoot(v *model.Located, z *layout.Size) measure.Length {
	if v.Lowest < 0 || z.Axis != measure.Z {
		return 0
	}
	return z.Span[0] - v.Whole[measure.Z][0]
}

// beyond is by how much the whole is larger than a size, before and after it.
func beyond(v *model.Located, z *layout.Size) [2]measure.Length {
	lo, hi := min(z.Span[0], z.Span[1]), max(z.Span[0], z.Span[1])
	return [2]measure.Length{lo - v.Whole[z.Axis][0], v.Whole[z.Axis][1] - hi}
}

// sizesBefore are the sizes of the frame as it was before the gesture, by their ids.
func (e *editor) sizesBefore() map[string]*layout.Size {
	was := map[string]*layout.Size{}
	for i := range e.was.Sizes {
		was[e.was.Sizes[i].ID] = &e.was.Sizes[i]
	}
	return was
}

// reportUncapped tells which typed sizes end at something else than before, because a pipe goes on where a cap or an open
// end was. They hold as typed, measured to the fitting that stands there now, and what hangs on them moves.
func (e *editor) reportUncapped() {
	goesOn := func(n frame.Node) bool {
		k := e.view.Graph.Node(n.ID)
		return n.End != frame.OpenEnd && len(n.Pipes) == 1 && k >= 0 && len(e.view.Graph.Nodes[k].Pipes) > 1
	}
	if !slices.ContainsFunc(e.was.Graph.Nodes, goesOn) {
		return
	}
	was := e.sizesBefore()
	for i := range e.view.Sizes {
		z := &e.view.Sizes[i]
		old := was[z.ID]
		if old == nil || z.Inferred || z.Gave != "" || z.Value != old.Value || z.Is != old.Is || z.Pipe != old.Pipe {
			continue
		}
		if by := (z.Centre - old.Centre).Abs(); by > layout.TapeStep.Half() {
			e.note("%s ends at a fitting now, where a pipe's end was: what hangs on it moves by %s", layout.Said(z), by.Tape(e.unit))
		}
	}
}
