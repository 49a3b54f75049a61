package kept

import (
	"slices"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// Judge says what of the builder's sizes and directions does not hold, and offers the
// choices. all are the findings of the frame as it was built; those about
// contradictions get their fixes.
func Judge(b *model.Built, all []finding.Finding) []finding.Finding {
	choices(all, b.Solution)
	return slices.Concat(gaveWay(b.Graph, b.Solution), passed(b.Graph, b.Solution), sides(b.Graph.Doc, b.Solution))
}

// sides lists the sides of hoops that are not as long as was said, because their rise and span were
// said as well.
func sides(d *frame.Document, s *layout.Solution) (fs []finding.Finding) {
	open := edit.Sides(d)
	for i := range s.Sizes {
		z := &s.Sizes[i]
		of, is := open[z.ID]
		if !is || (z.Out-z.Value).Abs() <= layout.TapeStep {
			continue
		}
		f := finding.New("side-not-kept", finding.Question, finding.All(finding.Pipe, z.Pipe)...).
			With("what", layout.Said(z)).With("is", z.Out.Tape(z.Unit))
		for _, id := range of {
			name := "The span"
			if d.SizeOf(id).Axis == "z" {
				name = "The rise"
			}
			f = f.Fixed(edit.Fix(name+" follows", edit.Edit{Gesture: &edit.Follow{Side: z.ID, Size: id}}))
		}
		fs = append(fs, f.Fixed(edit.Fix("The side follows", edit.Edit{Gesture: &edit.Size{ID: z.ID}})))
	}
	return fs
}

// choices adds fixes to the findings of contradictions that nobody has decided yet:
// one for each member, which lets it give way. The findings given are changed; those
// about contradictions are in the order of the clashes.
func choices(fs []finding.Finding, s *layout.Solution) {
	k := 0
	for i := range fs {
		if fs[i].Code != "sizes-contradict" || k >= len(s.Clashes) {
			continue
		}
		c := &s.Clashes[k]
		k++
		for j := len(c.Parties) - 1; j >= max(0, len(c.Parties)-1-layout.MostParties); j-- {
			p := c.Parties[j]
			if p.Kind == "use" {
				continue
			}
			fs[i].Fixes = append(
				fs[i].Fixes,
				edit.Fix(c.Words[j]+" gives way", edit.Edit{Gesture: &edit.GiveWay{Kind: p.Kind, ID: p.ID, Group: p.Group}}),
			)
		}
	}
}

// gaveWay lists the sizes and pipe directions that are not applied because the
// builder let them give way. One whose reason to give way is gone is offered back.
func gaveWay(g *frame.Graph, s *layout.Solution) (fs []finding.Finding) {
	for i := range s.Sizes {
		z := &s.Sizes[i]
		if z.Gave == "" {
			continue
		}
		f := given(z.Freed).With("what", layout.Said(z)).With("is", z.Out.Tape(z.Unit)).With("to", z.Gave)
		if z.Pipe != "" {
			f.Subjects = finding.All(finding.Pipe, z.Pipe)
		}
		fs = append(
			fs,
			f.Fixed(again(z.Freed, edit.Restore{Kind: "size", ID: z.ID}), edit.Fix("Forget it", edit.Edit{Gesture: &edit.Size{ID: z.ID}})),
		)
	}
	seen := map[string]bool{}
	for i := range g.Edges {
		e := &g.Edges[i]
		of := g.Scopes[e.Scope].Of
		if e.Drawn.Gave == nil || seen[of+"/"+e.Drawn.ID] {
			continue
		}
		seen[of+"/"+e.Drawn.ID] = true
		to, freed := layout.GaveTo(g, e.Drawn.Gave)
		f := given(freed, finding.All(finding.Pipe, e.ID)...).With("is", "").With("to", to)
		fs = append(fs, f.Fixed(again(freed, edit.Restore{Kind: "pipe", ID: e.Drawn.ID, Group: of})))
	}
	return fs
}

// given begins the finding of something that gave way; where the reason for it has
// gone, it is a question whether it is to hold again.
func given(freed bool, about ...finding.Subject) finding.Finding {
	if freed {
		return finding.New("may-hold-again", finding.Question, about...)
	}
	return finding.New("gave-way", finding.Note, about...)
}

// again is the fix that takes it back.
func again(freed bool, back edit.Restore) finding.Fix {
	label := "Hold it again, and choose anew"
	if freed {
		label = "Hold it again"
	}
	return edit.Fix(label, edit.Edit{Gesture: &back})
}

// passed asks about heights that are measured from a joint which stood lowest when
// they were typed, where another one stands lower now.
func passed(g *frame.Graph, s *layout.Solution) (fs []finding.Finding) {
	for i := range s.Sizes {
		z := &s.Sizes[i]
		if z.Foot == "" || z.Gave != "" || z.Axis != measure.Z || s.Lowest < 0 || g.Doc.Tilted() {
			continue
		}
		lower := z.Span[0] - s.Whole[measure.Z][0]
		if lower <= layout.TapeStep {
			continue
		}
		joint := g.Nodes[s.Lowest].ID
		is := (z.Out + lower).Tape(z.Unit)
		fs = append(fs, finding.New("size-passed", finding.Question, finding.All(finding.Joint, joint)...).
			With("size", layout.Said(z)).With("foot", finding.All(finding.Joint, z.Foot)).With("is", is).
			Fixed(edit.Fix("Measure it from the floor as it is now", edit.Edit{Gesture: &edit.Reach{ID: z.ID, Foot: joint}})))
	}
	return fs
}
