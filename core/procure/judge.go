package procure

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// UsualSticks are the stick lengths that pipe is sold in.
var UsualSticks = []measure.Length{2 * measure.Foot, 5 * measure.Foot, 10 * measure.Foot, 20 * measure.Foot}

// longerSticks offers the shortest usual stick that holds a length.
func longerSticks(l measure.Length) []finding.Fix {
	i := slices.IndexFunc(UsualSticks, func(s measure.Length) bool { return s >= l })
	if i < 0 {
		return nil
	}
	s := UsualSticks[i]
	return []finding.Fix{
		{
			Label: fmt.Sprintf("Buy %s sticks", s.Format(measure.FeetInches, 0)),
			Edits: []finding.Edit{finding.Set("/shop/stock/-", shop.StockLength{Length: s})},
		},
	}
}

// judge says what is wrong with the purchase of one size: pieces that no stick holds, sticks
// on a knife edge, and an answer that may not be the best.
func (p *Purchase) judge(t *PipeTotal, c *cutting, haul *stock.Haul) {
	m := &t.Stock
	about := func(code string, severity finding.Severity) finding.Finding {
		return finding.New(code, severity, finding.All(finding.PipeSize, string(t.Size))...).With("size", t.Size)
	}
	if len(m.Lacking) > 0 {
		p.Findings = append(p.Findings, p.lacking(c, haul, about))
	}
	if m.Edges > 0 && !c.draft {
		s := &c.stock.Sticks[m.Tightest]
		p.Findings = append(
			p.Findings,
			about("knife-edge", finding.Warn).With("many", m.Edges).With("stick", s.Length).With("rest", s.Left).
				With("cuts", s.Cuts).With("allowance", s.Allowance).With("kerf", p.Tool.Kerf),
		)
	}
	if !m.Proven && !c.draft {
		p.Findings = append(p.Findings, about("not-proven", finding.Note))
	}
}

// lacking says why no stick holds some pieces: they are longer than any on sale, or than the
// vehicle takes, or the shop has too few.
func (p *Purchase) lacking(c *cutting, haul *stock.Haul, about func(string, finding.Severity) finding.Finding) finding.Finding {
	longest, many := measure.Length(0), 0
	for _, l := range c.stock.Lacking {
		longest, many = max(longest, c.prob.Demands[l.Demand].Length), many+l.Count
	}
	some, sold := measure.Length(0), false
	for _, o := range c.prob.Offers {
		if o.Origin == stock.Shop {
			some, sold = max(some, o.Length-c.prob.EndTrim), true
		}
	}
	switch {
	case haul != nil && longest > haul.Limit-haul.Error:
		return about("too-long-to-carry", finding.Stop).With("longest", longest).With("limit", haul.Limit)
	case sold && longest <= some:
		return about("too-few-sticks", finding.Stop).With("many", many)
	}
	return about("no-stock", finding.Stop).With("longest", longest).Fixed(longerSticks(longest)...)
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

// noteExisting tells what of the pieces that are there is not kept as it is, and what was
// cut twice.
func (p *Purchase) noteExisting(notes []string) {
	codes := map[Fate]string{Trim: "to-trim", Recut: "cut-anew", Surplus: "surplus-piece"}
	by := map[string]*Existing{}
	for i := range p.Existing {
		by[p.Existing[i].ID] = &p.Existing[i]
	}
	for i := range p.Existing {
		e := &p.Existing[i]
		twice := by[e.Twice]
		code := codes[e.Fate]
		severity := finding.Note
		switch {
		case twice != nil:
			code, severity = "cut-twice", finding.Warn
		case e.Cemented && e.Fate == Keep && e.serves != nil && !e.serves.is(e.Length):
			code, severity = "cemented-otherwise", finding.Warn
		case e.Cemented && e.Fate == Surplus:
			code, severity = "cemented-surplus", finding.Warn
		case e.Fate == Recut:
			severity = finding.Warn
		case code == "":
			continue
		}
		var about []finding.Subject
		if e.Place != "" { // its pipe is still there
			about = finding.All(finding.Pipe, e.Place)
		}
		f := finding.New(code, severity, about...).With("letter", e.Letter).With("length", e.Length)
		f.Frame = e.Frame
		if e.Copy > 1 {
			f = f.With("copy", e.Copy)
		}
		switch code {
		case "cut-twice":
			f = f.With("device", cmp.Or(twice.Device, "one device")).With("other", cmp.Or(e.Device, "another"))
		case "to-trim", "cut-anew", "cemented-otherwise":
			f = f.With("wanted", e.Wanted)
		}
		p.Findings = append(p.Findings, f)
	}
	for _, n := range notes {
		p.Findings = append(p.Findings, finding.New("unmatched", finding.Note).With("what", n))
	}
}
