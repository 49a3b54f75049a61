package plan

import (
	"fmt"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// choices adds fixes to the findings of contradictions that nobody has decided yet:
// one for each member, which lets it give way. The findings given are changed; those
// about contradictions are in the order of the clashes.
func choices(fs []finding.Finding, s *layout.Solution) []finding.Finding {
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
			fs[i].Fixes = append(fs[i].Fixes, GestureFix(c.Words[j]+" gives way", edit.Edit{Gesture: &edit.GiveWay{Kind: p.Kind, ID: p.ID, Group: p.Group}}))
		}
	}
	return fs
}

// gaveWay lists the sizes and pipe directions that are not applied because the
// builder let them give way. One whose reason to give way is gone is offered back.
func gaveWay(g *frame.Graph, s *layout.Solution) (fs []finding.Finding) {
	for i := range s.Sizes {
		z := &s.Sizes[i]
		if z.Gave == "" {
			continue
		}
		subject := []string{}
		if z.Pipe != "" {
			subject = []string{z.Pipe}
		}
		is := z.Out.Tape(z.Unit)
		fs = append(fs, given(subject, fmt.Sprintf("%s is %s", layout.Said(z), is), z.Gave, z.Freed,
			edit.Restore{Kind: "size", ID: z.ID}, &edit.Size{ID: z.ID}))
	}
	seen := map[string]bool{}
	for i := range g.Edges {
		e := &g.Edges[i]
		of := g.Scopes[e.Scope].Of
		if e.Drawn.Gave == nil || seen[of+"/"+e.Drawn.ID] {
			continue
		}
		seen[of+"/"+e.Drawn.ID] = true
		fs = append(fs, given([]string{e.ID}, e.ID+" slopes", e.Drawn.Gave.Words, e.Drawn.Gave.Freed, edit.Restore{Kind: "pipe", ID: e.Drawn.ID, Group: of}, nil))
	}
	return fs
}

// given words one of them. forget, where there is one, takes away what was said.
func given(subject []string, what, to string, freed bool, back edit.Restore, forget edit.Gesture) finding.Finding {
	f := finding.Finding{Code: "gave-way", Severity: finding.Note, Subject: subject,
		Text: what + ": it gave way to " + to, Hint: "as you chose",
		Fixes: []finding.Fix{GestureFix("Hold it again, and choose anew", edit.Edit{Gesture: &back})}}
	if freed {
		f.Code, f.Severity = "may-hold-again", finding.Question
		f.Text, f.Hint = what+": it gave way to "+to+", and some of that has gone", "is it to hold again as you typed it?"
		f.Fixes[0].Label = "Hold it again"
	}
	if forget != nil {
		f.Fixes = append(f.Fixes, GestureFix("Forget it", edit.Edit{Gesture: forget}))
	}
	return f
}

// passed asks about heights that are measured from a joint which stood lowest when
// they were typed, where another one stands lower now.
func passed(g *frame.Graph, s *layout.Solution) (fs []finding.Finding) {
	for i := range s.Sizes {
		z := &s.Sizes[i]
		if z.Foot == "" || z.Gave != "" || z.Axis != measure.Z || s.Lowest < 0 || g.Doc.Stance != nil {
			continue
		}
		lower := z.Span[0] - s.Whole[measure.Z][0]
		if lower <= layout.TapeStep {
			continue
		}
		joint := g.Nodes[s.Lowest].ID
		is := (z.Out + lower).Tape(z.Unit)
		fs = append(fs, finding.Finding{Code: "size-passed", Severity: finding.Question, Subject: []string{joint},
			Text:  fmt.Sprintf("%s is measured from what stands at %s; %s stands lower, and from there it is %s", layout.Said(z), z.Foot, joint, is),
			Hint:  "it holds as you typed it; say where it is measured from",
			Fixes: []finding.Fix{GestureFix("Measure it from the floor as it is now", edit.Edit{Gesture: &edit.Reach{ID: z.ID, Foot: joint}})}})
	}
	return fs
}
