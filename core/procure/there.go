package procure

import (
	"cmp"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
)

// needed says how many sticks of each length from a shop the size takes, those that are
// there with it, and which were bought for nothing.
func (p *Purchase) needed(t *PipeTotal, c *cutting, w *record.Work) []Needed {
	count := func(length measure.Length, need, got int) {
		i := slices.IndexFunc(t.Need, func(n Needed) bool { return n.Length == length })
		if i < 0 {
			i = len(t.Need)
			t.Need = append(t.Need, Needed{Length: length})
		}
		t.Need[i].Count += need
		t.Need[i].Got += got
	}
	for n := range t.Sticks {
		if s := &t.Sticks[n]; !s.Earlier && s.Origin == stock.Shop {
			count(s.Length, 1, 0)
			if i := slices.IndexFunc(t.Need, func(n Needed) bool { return n.Length == s.Length }); s.ID == "" && len(s.Parts) > 0 {
				var parts []measure.Length
				for _, part := range s.Parts {
					parts = append(parts, part.Length)
				}
				t.Need[i].Parts = append(t.Need[i].Parts, parts)
			}
		}
	}
	for n, o := range c.prob.Offers { // bought besides, and nothing is cut from it
		if o.Spare {
			used := 0
			for i := range c.stock.Sticks {
				if c.stock.Sticks[i].Offer == n {
					used++
				}
			}
			count(o.Sold, o.Count-used, 0)
		}
	}
	many := map[string]int{} // sticks of each purchase
	for i := range w.Sticks {
		many[w.Sticks[i].Bought]++
	}
	defer func() { p.wholeBack(many) }()
	for i := range w.Sticks {
		s := &w.Sticks[i]
		if s.Size != c.size || s.Origin != record.FromShop {
			continue
		}
		idle := w.Idle(s)
		if idle && s.Racked {
			continue // whole on the rack, it is every project's
		}
		inPlan := slices.ContainsFunc(t.Sticks, func(k Stick) bool { return k.ID == s.ID || record.IsPartOf(k.ID, s.ID) })
		switch {
		case !idle || inPlan:
			count(s.Length, 1, 1)
		case s.Shared:
			count(s.Length, 0, 0) // it is there for another project
		default:
			count(s.Length, 0, 0)
			p.extraStick(c.size, s)
		}
	}
	for n := range t.Sticks {
		if s := &t.Sticks[n]; s.Origin == stock.Home {
			count(s.Length, 0, 0)
			t.Need[slices.IndexFunc(t.Need, func(n Needed) bool { return n.Length == s.Length })].Home++
		}
	}
	t.Need = slices.DeleteFunc(t.Need, func(n Needed) bool { return n.Count+n.Home == 0 })
	slices.SortStableFunc(t.Need, func(a, b Needed) int { return cmp.Compare(b.Length, a.Length) })
	return t.Need
}

func (p *Purchase) extraStick(size catalog.Size, s *record.Stick) {
	spec := stickSpec(size, s.Length)
	i := slices.IndexFunc(p.Extra, func(e Extra) bool { return e.Spec == spec })
	if i < 0 {
		i = len(p.Extra)
		p.Extra = append(p.Extra, Extra{Spec: spec, Label: spec.Words()})
	}
	p.Extra[i].Count++
	p.Extra[i].Back = append(p.Extra[i].Back, record.Event{Kind: record.TakenBack, Event: s.Bought, Item: s.ID})
}

// wholeBack says of a purchase of which nothing is needed that it goes back, and not of each stick of it.
func (p *Purchase) wholeBack(many map[string]int) {
	for i := range p.Extra {
		back := map[string]int{}
		for _, e := range p.Extra[i].Back {
			back[e.Event]++
		}
		told := map[string]bool{}
		p.Extra[i].Back = slices.DeleteFunc(p.Extra[i].Back, func(e record.Event) bool {
			again := told[e.Event]
			whole := e.Item != "" && back[e.Event] == many[e.Event]
			told[e.Event] = again || whole
			return whole && again
		})
		for k := range p.Extra[i].Back {
			if e := &p.Extra[i].Back[k]; told[e.Event] {
				e.Item = ""
			}
		}
	}
}

// exist lists the pieces of a size that are there, each with its fate: as the plan began
// with them, and those that were cut by it since.
func (p *Purchase) exist(t *PipeTotal, c *cutting, w *record.Work) {
	used := map[string]bool{}
	for n := range t.Sticks {
		used[t.Sticks[n].ID] = !t.Sticks[n].Earlier
	}
	fates := map[string]Existing{}
	for _, e := range c.have.fates(c.wants, used) {
		fates[e.ID] = e
	}
	own := c.byRef()
	for _, m := range w.Pieces {
		if m.Size != c.size {
			continue
		}
		e, known := fates[m.ID]
		if at := own[PieceRef{m.Frame, m.Pipe, m.Copy}]; !known && at != nil { // cut by this very plan
			e = Existing{
				Made:     m,
				Cemented: w.Cemented(&m),
				Fate:     Keep,
				Serves:   &PieceRef{at.Frame, at.pipe, at.Copy},
				Place:    at.pipe,
				Wanted:   at.length,
			}
		}
		p.Existing = append(p.Existing, e)
	}
	for _, m := range p.twice {
		if m.Size != c.size {
			continue
		}
		e := Existing{Made: m.Made, Fate: Surplus, Twice: m.first}
		if at := own[PieceRef{m.Frame, m.Pipe, m.Copy}]; at != nil {
			e.Place, e.Wanted = at.pipe, at.length
		}
		p.Existing = append(p.Existing, e)
	}
}

// twice is a piece that may be said twice, with the id of the one that was said first.
type twice struct {
	record.Made
	first string
}

// once sets aside what may be said twice: until somebody decides, it is planned as if it were not there.
func (p *Purchase) once(w *record.Work) *record.Work {
	of := w.Twice()
	if len(of) == 0 {
		return w
	}
	for _, m := range w.Pieces {
		if first, is := of[m.ID]; is {
			p.twice = append(p.twice, twice{m, first})
		}
	}
	once := w.Without(of)
	return &once
}

// got says of each line of the bill how much of it is there, and what was bought besides.
func (p *Purchase) got(w *record.Work) {
	for i := range p.Bill.Lines {
		l := &p.Bill.Lines[i]
		if l.Ware == material.Pipe {
			for k := range p.Pipe {
				if t := &p.Pipe[k]; string(t.Size) == l.Size && l.Unit == "stick" {
					for _, n := range t.Need {
						if n.Length == l.Length {
							l.Got = n.Got + n.Home
						}
					}
				}
			}
			for k := range w.Sticks {
				s := &w.Sticks[k]
				if s.Bought != "" && string(s.Size) == l.Size && s.Length == l.Length {
					tellStick(l, s, w.Idle(s))
				}
			}
			continue
		}
		for _, g := range w.Goods {
			if g.Spec == l.Spec {
				l.Got, l.Lots = min(g.Count, l.Count), g.Lots
			}
		}
		if isCan(l.Spec) { // a can that is in another's record is everybody's
			l.Got = min(l.Count, l.Got+w.Everybodys(l.Spec))
		}
	}
	p.forOthers(w)
	for _, g := range w.Goods {
		over, bought := g.Count, g.Count-g.Home
		for i := range p.Bill.Lines {
			if p.Bill.Lines[i].Spec == g.Spec {
				over -= p.Bill.Lines[i].Count
			}
		}
		if over = min(over, bought); over > 0 && !w.IsShared(g.Spec) { // what was at home stays there
			p.Extra = append(p.Extra, Extra{Spec: g.Spec, Label: g.Words(), Count: over, Back: g.Back(over)})
		}
	}
	for _, e := range p.Extra {
		p.Findings = append(p.Findings, finding.New("too-many", finding.Note).With("what", e.Label).With("many", e.Count))
	}
}

// forOthers says what was bought for other projects, too: what this one by itself does not need is not too much.
func (p *Purchase) forOthers(w *record.Work) {
	for _, q := range w.Shared {
		i := slices.IndexFunc(p.Others, func(o ForOthers) bool { return o.Spec == q.Spec })
		if i < 0 {
			i = len(p.Others)
			p.Others = append(p.Others, ForOthers{Spec: q.Spec, Label: q.Words()})
		}
		o := &p.Others[i]
		o.Count, o.Own, o.Jobs = o.Count+q.Count, o.Own+q.Own, max(o.Jobs, q.Jobs)
	}
	for _, o := range p.Others {
		p.Findings = append(p.Findings, finding.New("for-others", finding.Note).
			With("what", o.Label).With("many", o.Count).With("own", o.Own).With("jobs", o.Jobs))
	}
}

// mostItems is how many sticks of one purchase a line tells one by one.
const mostItems = 500

// tellStick adds a stick of which the record tells to those of a line.
func tellStick(l *cost.Line, s *record.Stick, idle bool) {
	i := slices.IndexFunc(l.Lots, func(x material.Lot) bool { return x.Event == s.Bought })
	if i < 0 {
		i = len(l.Lots)
		l.Lots = append(l.Lots, material.Lot{Event: s.Bought, Home: s.Origin == record.FromHome})
	}
	l.Lots[i].Count++
	if idle && len(l.Lots[i].Items) < mostItems {
		l.Lots[i].Items = append(l.Lots[i].Items, s.ID)
	}
}
