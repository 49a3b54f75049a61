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
	if m.Net > 0 && !draft && m.Slack < max(p.Tool.Kerf, finestSaw) {
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
		case "to-trim", "cut-anew":
			f = f.With("wanted", e.Wanted)
		}
		p.Findings = append(p.Findings, f)
	}
	for _, n := range notes {
		p.Findings = append(p.Findings, finding.New("unmatched", finding.Note).With("what", n))
	}
}
