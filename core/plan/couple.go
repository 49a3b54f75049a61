package plan

import (
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
)

// couple offers, where pieces are longer than any stick or than what is carried, to make each
// of two pieces that a coupling joins. A bent pipe is of one piece.
func (p *Plan) couple() {
	for i := range p.Findings {
		f := &p.Findings[i]
		if f.Code != "no-stock" && f.Code != "too-long-to-carry" {
			continue
		}
		var fix finding.Fix
		for k := range p.Pipe {
			t := &p.Pipe[k]
			if string(t.Size) != f.Subject() {
				continue
			}
			_, lines := t.Problem()
			for _, l := range t.Stock.Lacking {
				for _, ref := range p.Cuts[lines[l.Demand]].Pipes {
					if e := p.Frames[ref.Frame].built.Graph.Edge(ref.Pipe); e < 0 || ref.Frame != 0 ||
						p.Frames[0].Pipes[e].Path == frame.Bent {
						continue
					}
					one := edit.Fix("Join two pieces with a coupling", edit.Edit{Gesture: &edit.Split{Pipe: ref.Pipe}})
					fix.Label = one.Label
					fix.Edits = append(fix.Edits, one.Edits...)
				}
			}
		}
		if len(fix.Edits) > 0 {
			*f = f.Fixed(fix)
		}
	}
}
