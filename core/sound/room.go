package sound

import (
	"context"
	"fmt"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// roomTrials bounds how many changes are tried for pieces that are too short:
// fewer where each takes longer.
func roomTrials(pipes int) int { return min(48, max(6, 6000/max(1, pipes))) }

// OfferRoom gives pieces that are too short a fix: a stated size along the
// pipe that, made larger by what is missing, lets both faces touch. It is
// tried before it is offered. fs are the findings of the frame as it was built; those
// about such pieces get their fixes.
func OfferRoom(ctx context.Context, b *model.Built, fs []finding.Finding) {
	trials, most := 0, roomTrials(len(b.Graph.Edges))
	for i := range fs {
		n := &fs[i]
		if n.Code != "too-short" {
			continue
		}
		pc := b.Piece(n.Subject())
		for k := range b.Sizes {
			s := &b.Sizes[k]
			if !alongAxis(b, pc, s.Axis) || trials >= most {
				continue
			}
			if value := room(ctx, b, s, pc, &trials, most); value > 0 {
				label := fmt.Sprintf("Make %s %s", s.Label, value.Tape(b.Doc.Units))
				if s.Label == "" {
					label = fmt.Sprintf("%s becomes %s", layout.Said(s), value.Tape(b.Doc.Units))
				}
				n.Fixes = append(n.Fixes, finding.Fix{Label: label,
					Edits: []finding.Edit{
						finding.Set(fmt.Sprintf("/frames/%d/document/sizes/%s", b.Index, s.ID), value.Format(measure.InInches, 0)),
					}})
				break
			}
		}
	}
}

// room finds the least value of a stated size, in steps of the tape, at which a piece is
// no longer too short; 0 when the size does not help. A piece that takes but a
// part of the change, as one of several equal bays, needs so much more.
func room(ctx context.Context, b *model.Built, s *layout.Size, pc *cutlist.Piece, trials *int, most int) measure.Length {
	step := b.Step
	at := func(value measure.Length) *cutlist.Piece {
		*trials++
		changed := b.Doc.Clone()
		changed.SizeOf(s.ID).Value = value
		g, err := model.Locate(ctx, changed, b.Catalog)
		if err != nil {
			return nil
		}
		return &cutlist.Build(g.Graph, g.Solution, g.Fits, b.Step).Pieces[g.Graph.Edge(pc.Pipe)]
	}
	bad, good := s.Value, measure.Length(0)
	for was, more := pc, pc.Least-pc.Centre; good == 0; {
		next := (bad + max(more, step) + step - 1) / step * step
		now := at(next)
		if now == nil || *trials >= most {
			return 0
		}
		if !now.TooShort {
			good = next
			break
		}
		gain := float64(now.Centre-was.Centre) / float64(next-bad)
		if gain < 0.01 {
			return 0
		}
		bad, was, more = next, now, (now.Least - now.Centre).Scale(1/gain)
	}
	for good-bad > step && *trials < most {
		half := (bad + (good - bad).Half()) / step * step
		if half <= bad {
			break
		}
		if now := at(half); now != nil && !now.TooShort {
			good = half
		} else {
			bad = half
		}
	}
	return good
}

// alongAxis says whether a piece runs along an axis.
func alongAxis(b *model.Built, pc *cutlist.Piece, axis measure.Axis) bool {
	if axis < measure.X {
		return false
	}
	e := b.Graph.Edges[b.Graph.Edge(pc.Pipe)]
	return (b.Points[e.Ends[0]][axis] - b.Points[e.Ends[1]][axis]).Abs() == pc.Centre
}
