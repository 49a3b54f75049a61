package plan

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// fix is one edit with its label. The paths that the plan's fixes use are
// /tool, /shop/stock, and /frames/N/document/sizes/ID, whose value then is the
// new length as text.
func fix(label, path string, value any) finding.Fix {
	data, err := json.Marshal(value)
	if err != nil {
		panic(err) // strings and lists of lengths
	}
	return finding.Fix{Label: label, Edits: []finding.Edit{{Path: path, Value: data}}}
}

// setText is one edit that sets a text.
func setText(path, text string) finding.Edit {
	return fix("", path, text).Edits[0]
}

// roomTrials bounds how many changes are tried for pieces that are too short:
// fewer where each takes longer.
func roomTrials(pipes int) int { return min(48, max(6, 6000/max(1, pipes))) }

// offerRoom gives pieces that are too short a fix: a stated size along the
// pipe that, made larger by what is missing, lets both faces touch. It is
// tried before it is offered.
func (p *Plan) offerRoom(ctx context.Context, f *planned, d *frame.Document, c *catalog.Catalog, index int) {
	trials, most := 0, roomTrials(len(f.graph.Edges))
	for i := range f.findings {
		n := &f.findings[i]
		if n.Code != "too-short" {
			continue
		}
		pc := f.piece(n.Subject[0])
		for k := range f.Sizes {
			s := &f.Sizes[k]
			if !f.alongAxis(pc, s.Axis) || trials >= most {
				continue
			}
			if value := p.room(ctx, s, pc, d, c, &trials, most); value > 0 {
				n.Fixes = append(n.Fixes, fix(strings.TrimSpace(fmt.Sprintf("Make %s %s", s.Label, value)), fmt.Sprintf("/frames/%d/document/sizes/%s", index, s.ID), value.Format(measure.InInches, 0)))
				break
			}
		}
	}
}

// room finds the least value of a stated size, in 16ths, at which a piece is
// no longer too short; 0 when the size does not help. A piece that takes but a
// part of the change, as one of several equal bays, needs so much more.
func (p *Plan) room(ctx context.Context, s *layout.Size, pc *cutlist.Piece, d *frame.Document, c *catalog.Catalog, trials *int, most int) measure.Length {
	const step = measure.Inch / 16
	at := func(value measure.Length) *cutlist.Piece {
		*trials++
		changed := d.Clone()
		changed.SizeOf(s.ID).Value = value
		g, err := p.solve(ctx, changed, c)
		if err != nil {
			return nil
		}
		return g.piece(pc.Pipe)
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

func (f *planned) piece(pipe string) *cutlist.Piece {
	return &f.list.Pieces[f.graph.Edge(pipe)]
}

// alongAxis says whether a piece runs along an axis.
func (f *planned) alongAxis(pc *cutlist.Piece, axis measure.Axis) bool {
	if axis < measure.X {
		return false
	}
	e := f.graph.Edges[f.graph.Edge(pc.Pipe)]
	return (f.points[e.Ends[0]][axis] - f.points[e.Ends[1]][axis]).Abs() == pc.Centre
}

// usualSticks are the stick lengths that pipe is sold in.
var usualSticks = []measure.Length{2 * measure.Foot, 5 * measure.Foot, 10 * measure.Foot, 20 * measure.Foot}

// longerSticks offers the shortest usual stick that holds a length.
func longerSticks(l measure.Length) []finding.Fix {
	i := slices.IndexFunc(usualSticks, func(s measure.Length) bool { return s >= l })
	if i < 0 {
		return nil
	}
	s := usualSticks[i]
	return []finding.Fix{fix(fmt.Sprintf("Buy %s sticks", s.Format(measure.FeetInches, 0)), "/shop/stock/-", StockLength{Length: s})}
}

// finestSaw is the least slack that a plan for a shear should have: a stick
// that is used to the last bit fails with any saw.
const finestSaw = measure.Inch / 32

func (p *Plan) stockFindings(t *PipeTotal, demands []stock.Demand, draft bool) {
	m := &t.Stock
	if len(m.TooLong) > 0 {
		longest := measure.Length(0)
		for _, d := range m.TooLong {
			longest = max(longest, demands[d].Length)
		}
		p.Findings = append(p.Findings, finding.Finding{Code: "no-stock", Severity: finding.Stop, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("%s pipe is needed %s long and no stick is that long", t.Size, longest.Format(measure.InInches, 0)),
			Hint: "add a longer stock length, or join two pieces with a coupling", Fixes: longerSticks(longest)})
	}
	if len(m.Sticks) > 0 && !draft && m.Slack < max(p.Tool.Kerf, finestSaw) {
		f := finding.Finding{Code: "knife-edge", Severity: finding.Warn, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("the tightest %s stick has %s to spare, less than one cut of a saw", t.Size, m.Slack.Format(measure.InInches, 0)),
			Hint: "measure that stick before cutting; buy one more to be safe"}
		if p.Tool.Kerf > 0 {
			f.Fixes = append(f.Fixes, fix("Cut with a shear", "/tool", "shear"))
		}
		p.Findings = append(p.Findings, f)
	}
	if !m.Proven && !draft {
		p.Findings = append(p.Findings, finding.Finding{Code: "not-proven", Severity: finding.Note, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("the %s purchase is the best found; a better one is not ruled out", t.Size), Hint: "the bound beside it says by how much at most"})
	}
}

// passedOver names stick lengths on sale that alone have no price: they are
// left out, or, where no other is long enough, keep the cost from being the
// measure.
func (p *Plan) passedOver(t *PipeTotal, offers []stock.Offer) {
	some := slices.ContainsFunc(offers, func(o stock.Offer) bool { return o.Material == string(t.Size) && o.Priced })
	for _, o := range offers {
		if !some || o.Material != string(t.Size) || o.Origin != stock.Shop || o.Priced {
			continue
		}
		f := finding.Finding{Code: "stick-without-price", Severity: finding.Note, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("%s sticks of %s pipe have no price and are left out", o.Length.Format(measure.FeetInches, 0), t.Size), Hint: "give them a price to have them weighed against the others"}
		if !t.Stock.Priced {
			f.Text = fmt.Sprintf("%s sticks of %s pipe have no price, so sticks are chosen by their length", o.Length.Format(measure.FeetInches, 0), t.Size)
			f.Hint = "give them a price to have the cheapest chosen"
		}
		p.Findings = append(p.Findings, f)
	}
}

// questions asks about sizes that read like a pipe's name: a length of 1-1/2
// where the fittings leave no room for one is perhaps 1-1/2 pipe.
func questions(l *cutlist.List, sizes []layout.Size) (fs []finding.Finding) {
	for _, pc := range l.Pieces {
		if !pc.TooShort {
			continue
		}
		size, ok := catalog.NominalOf(pc.Centre)
		for _, s := range sizes {
			if n, is := catalog.NominalOf(s.Value); is && s.Centre == pc.Centre {
				size, ok = n, true
			}
		}
		if ok {
			fs = append(fs, finding.Finding{Code: "length-or-size", Severity: finding.Question, Subject: []string{pc.Pipe},
				Text: fmt.Sprintf("%s in long, or %s pipe?", size, size), Hint: "a size is the pipe's name, a length is measured: set the one that was meant"})
		}
	}
	return fs
}

func nodeOf(g *frame.Graph, s frame.ResolvedSpot) int {
	if s.Node >= 0 {
		return s.Node
	}
	return g.Edges[s.Pipe].Ends[0]
}

// parts says when a frame is in several parts that no pipe joins.
func parts(g *frame.Graph) []finding.Finding {
	group := make([]int, len(g.Nodes))
	for i := range group {
		group[i] = i
	}
	var find func(i int) int
	find = func(i int) int {
		if group[i] != i {
			group[i] = find(group[i])
		}
		return group[i]
	}
	for _, e := range g.Edges {
		group[find(e.Ends[0])] = find(e.Ends[1])
	}
	for _, b := range g.Links {
		for _, s := range b.On[1:] {
			group[find(nodeOf(g, s))] = find(nodeOf(g, b.On[0]))
		}
	}
	roots := map[int]bool{}
	for i, n := range g.Nodes {
		if len(n.Pipes) > 0 {
			roots[find(i)] = true
		}
	}
	if len(roots) < 2 {
		return nil
	}
	return []finding.Finding{{Code: "loose-parts", Severity: finding.Note, Subject: []string{},
		Text: fmt.Sprintf("%d parts that no pipe joins", len(roots)), Hint: "each is planned where it stands"}}
}
