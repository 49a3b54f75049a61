package procure

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

const (
	// compareNodes bounds the search for the tools that are only compared.
	compareNodes = 20_000
	// smallJob is how many pieces are planned as a whole even in a draft: it takes
	// no longer than a glance.
	smallJob = 80
	// draftNodes bounds the search for a first purchase.
	draftNodes = 4000
	// finestSaw is the least slack that a plan for a shear should have: a stick
	// that is used to the last bit fails with any saw.
	finestSaw = measure.Inch / 32
)

// sticks chooses the sticks and cuts them, and gives the lines for what is bought.
// Pieces that are longer than any stick are lines too: they are still to be bought.
func (p *Purchase) sticks(ctx context.Context, lots []Lot, o *Order) (lines []material.Line, err error) {
	prob := stock.Problem{Kerf: p.Tool.Kerf, EndTrim: o.EndTrim, Tidy: true, Margin: max(p.Tool.Kerf, finestSaw)}
	var of []int // the cut that each demand is for
	for i, g := range p.Cuts {
		if g.Cut > 0 {
			prob.Demands = append(prob.Demands, stock.Demand{Material: string(g.Size), Length: g.Cut, Count: g.Count, Name: g.Letter})
			of = append(of, i)
		}
	}
	prob.Offers = offers(p.Cuts, o.Shop, o.Work)
	draft := o.Draft && p.Totals.Pieces > smallJob
	if draft {
		prob.Tidy, prob.Nodes = false, draftNodes
	}
	p.Totals.Proven = true
	materials, err := stock.Solve(ctx, prob)
	if err != nil {
		return nil, err
	}
	p.waitLast(materials, of)
	for i := range materials {
		materials[i].Name()
	}
	for _, m := range materials {
		t := PipeTotal{Size: catalog.Size(m.Key), Stock: m, Net: m.Net}
		used := m.Net + m.Kerf + m.Left + o.EndTrim*measure.Length(len(m.Sticks))
		for _, s := range m.Sticks {
			t.Pieces += len(s.Pieces)
		}
		if used > 0 {
			t.Yield = float64(m.Net) / float64(used)
		}
		for _, b := range m.Buy {
			lines = append(lines, material.Line{Spec: stick(t.Size, b.Length), Quantity: b.Count, Unit: "stick",
				Where: p.cutFrom(&m, of, b.Length), Rule: "the fewest or cheapest sticks that give every piece"})
		}
		for _, d := range m.TooLong {
			c := &p.Cuts[of[d]]
			t.TooLong = append(t.TooLong, c.Letter)
			t.Pieces += c.Count
			t.Net += c.Cut * measure.Length(c.Count)
			line := material.Line{
				Spec:     stick(t.Size, c.Cut),
				Quantity: c.Count,
				Unit:     material.Piece,
				Rule:     "longer than any stick on sale: still to be found",
			}
			for _, r := range c.Pipes {
				line.Where = append(line.Where, material.Place{Frame: r.Frame, Kind: "pipe", ID: r.Pipe})
			}
			lines = append(lines, line)
		}
		p.Pipe = append(p.Pipe, t)
		p.Totals.Sticks += m.Count
		p.Totals.Proven = p.Totals.Proven && m.Proven
		p.judge(&t, prob.Demands, draft)
		p.passedOver(&t, prob.Offers)
	}
	p.sawFrom(lots, materials, of)
	p.Improving = draft // it is tidied, and set beside other tools, with the whole plan
	return lines, p.compare(ctx, prob, o.Shop, materials, draft)
}

func stick(size catalog.Size, l measure.Length) material.Spec {
	return material.Spec{Ware: material.Pipe, Size: string(size), Length: l}
}

// waitLast puts the pieces that wait to be measured at the end of their
// sticks: what is cut before them leaves their reserve whole.
func (p *Purchase) waitLast(materials []stock.Material, of []int) {
	waits := func(c stock.Piece) int {
		if p.Cuts[of[c.Demand]].Waits {
			return 1
		}
		return 0
	}
	for _, m := range materials {
		for _, s := range m.Sticks {
			slices.SortStableFunc(s.Pieces, func(a, b stock.Piece) int { return cmp.Compare(waits(a), waits(b)) })
		}
	}
}

// sawFrom tells every pipe of the first copies which stick its piece comes
// from. Pieces of one letter are alike: the sticks serve them in order, first
// copies first.
func (p *Purchase) sawFrom(lots []Lot, materials []stock.Material, of []int) {
	at := make([]map[string]int, len(lots)) // the pipes of each frame by id
	for f := range lots {
		at[f] = map[string]int{}
		for i := range lots[f].Pipes {
			at[f][lots[f].Pipes[i].Pipe] = i
		}
	}
	served := make([]int, len(of))
	for _, m := range materials {
		for n, s := range m.Sticks {
			for _, piece := range s.Pieces {
				g := &p.Cuts[of[piece.Demand]]
				if k := served[piece.Demand]; k < len(g.Pipes) {
					ref := g.Pipes[k]
					p.Placed[ref.Frame][at[ref.Frame][ref.Pipe]].Stick = n + 1
				}
				served[piece.Demand]++
			}
		}
	}
}

// cutFrom lists the pipes whose letters are cut from sticks of one length.
func (p *Purchase) cutFrom(m *stock.Material, of []int, length measure.Length) (all []material.Place) {
	seen := map[int]bool{}
	for _, s := range m.Sticks {
		if s.Length != length || s.Origin != stock.Shop {
			continue
		}
		for _, piece := range s.Pieces {
			if g := of[piece.Demand]; !seen[g] {
				seen[g] = true
				for _, r := range p.Cuts[g].Pipes {
					all = append(all, material.Place{Frame: r.Frame, Kind: "pipe", ID: r.Pipe})
				}
			}
		}
	}
	return all
}

// offers lists what sticks can be had: on sale, on the rack, bought before.
func offers(cuts []CutLine, s *shop.Shop, work *shop.Work) (all []stock.Offer) {
	var sizes []catalog.Size
	for _, g := range cuts {
		if !slices.Contains(sizes, g.Size) {
			sizes = append(sizes, g.Size)
		}
	}
	for _, size := range sizes {
		for _, l := range s.Stock {
			if l.Size == "" || l.Size == size {
				price, ok := s.Prices.Find(stick(size, l.Length))
				all = append(
					all,
					stock.Offer{Material: string(size), Length: l.Length, Price: price.Amount, Priced: ok, Origin: stock.Shop},
				)
			}
		}
		all = append(all, atHand(size, stock.Rack, s.Rack)...)
		all = append(all, atHand(size, stock.Bought, work.Bought)...)
	}
	return all
}

func atHand(size catalog.Size, origin stock.Origin, list []shop.Offcut) (all []stock.Offer) {
	for _, o := range list {
		if o.Size == size {
			all = append(all, stock.Offer{Material: string(size), Length: o.Length, Count: o.Count, Origin: origin})
		}
	}
	return all
}

// compare counts the sticks for every tool; tools with one kerf buy alike.
func (p *Purchase) compare(ctx context.Context, prob stock.Problem, s *shop.Shop, chosen []stock.Material, draft bool) error {
	prob.Tidy, prob.Nodes = false, compareNodes
	solved := map[measure.Length][]stock.Material{p.Tool.Kerf: chosen}
	for _, t := range s.Tools {
		ms, ok := solved[t.Kerf]
		if !ok && draft {
			continue // counted with the whole plan
		}
		if !ok {
			prob.Kerf = t.Kerf
			var err error
			if ms, err = stock.Solve(ctx, prob); err != nil {
				return err
			}
			solved[t.Kerf] = ms
		}
		c := ToolCount{ID: t.ID, Name: t.Name, Kerf: t.Kerf, Chosen: t.ID == p.Tool.ID, Priced: true, Proven: true}
		for _, m := range ms {
			c.Sticks, c.Cost = c.Sticks+m.Count, c.Cost+m.Cost
			c.Priced, c.Proven = c.Priced && m.Priced, c.Proven && m.Proven
		}
		p.Tools = append(p.Tools, c)
	}
	return nil
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
	return []finding.Fix{
		{
			Label: fmt.Sprintf("Buy %s sticks", s.Format(measure.FeetInches, 0)),
			Edits: []finding.Edit{finding.Set("/shop/stock/-", shop.StockLength{Length: s})},
		},
	}
}

// judge says what is wrong with the purchase of one size: pieces longer than every
// stick, sticks used to the last bit, and an answer that may not be the best.
func (p *Purchase) judge(t *PipeTotal, demands []stock.Demand, draft bool) {
	m := &t.Stock
	about := func(code string, severity finding.Severity) finding.Finding {
		return finding.New(code, severity, finding.All(finding.PipeSize, string(t.Size))...).With("size", t.Size)
	}
	if len(m.TooLong) > 0 {
		longest := measure.Length(0)
		for _, d := range m.TooLong {
			longest = max(longest, demands[d].Length)
		}
		p.Findings = append(p.Findings, about("no-stock", finding.Stop).With("longest", longest).Fixed(longerSticks(longest)...))
	}
	if len(m.Sticks) > 0 && !draft && m.Slack < max(p.Tool.Kerf, finestSaw) {
		f := about("knife-edge", finding.Warn).With("slack", m.Slack)
		if p.Tool.Kerf > 0 {
			f = f.Fixed(finding.Fix{Label: "Cut with a shear", Edits: []finding.Edit{finding.Set("/tool", "shear")}})
		}
		p.Findings = append(p.Findings, f)
	}
	if !m.Proven && !draft {
		p.Findings = append(p.Findings, about("not-proven", finding.Note))
	}
}

// passedOver names stick lengths on sale that alone have no price: they are
// left out, or, where no other is long enough, keep the cost from being the
// measure.
func (p *Purchase) passedOver(t *PipeTotal, offers []stock.Offer) {
	some := slices.ContainsFunc(offers, func(o stock.Offer) bool { return o.Material == string(t.Size) && o.Priced })
	for _, o := range offers {
		if !some || o.Material != string(t.Size) || o.Origin != stock.Shop || o.Priced {
			continue
		}
		f := finding.New("stick-without-price", finding.Note, finding.All(finding.PipeSize, string(t.Size))...).
			With("size", t.Size).
			With("stick", o.Length)
		if t.Stock.Priced {
			f = f.With("some", "some")
		}
		p.Findings = append(p.Findings, f)
	}
}
