package plan

import (
	"cmp"
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// Summary is a plan in the neutral exchange form's summary.
type Summary struct {
	Pieces    []SummaryPiece     `json:"pieces"`
	PipeFeet  map[string]float64 `json:"pipe_feet"`
	Fittings  []FittingCount     `json:"fittings"`
	OverallIn [3]float64         `json:"overall_in"`
	Warnings  [][]any            `json:"warnings"`
	Buy       []SummaryBuy       `json:"buy"`
	CostCents *int64             `json:"cost_cents"`
	Bound     any                `json:"bound"` // cents with prices, else sticks by size
	Proven    bool               `json:"proven"`
	*SummaryHaul
}

// SummaryHaul is what of a purchase is cut in the shop, and what is carried; with a haul limit
// only.
type SummaryHaul struct {
	ShopCuts []SummaryShopCut `json:"shopCuts"`
	Carried  []SummaryCarried `json:"carried"`
}

// SummaryShopCut is a stick that is cut in the shop, and where, from one end.
type SummaryShopCut struct {
	Size    string    `json:"size"`
	StockIn float64   `json:"stock_in"`
	AtIn    []float64 `json:"at_in"`
}

// SummaryCarried is a length that is carried, and what is cut from it.
type SummaryCarried struct {
	Size     string    `json:"size"`
	LengthIn float64   `json:"length_in"`
	Pieces   []float64 `json:"pieces"`
}

// WarnOfLack tells of pieces that no stick holds: of a size, or where something has to be
// carried, of each length.
func WarnOfLack(p *stock.Problem, m stock.Material) (all [][]any) {
	switch {
	case len(m.Lacking) == 0:
	case p.Haul == nil:
		all = append(all, []any{"no-stock", m.Key})
	default:
		for _, l := range m.Lacking {
			all = append(all, []any{"too-long", m.Key, p.Demands[l.Demand].Length.Inches()})
		}
	}
	return all
}

// SummarizeHaul gives what is cut in the shop with a kerf, and what is carried.
func SummarizeHaul(ms []stock.Material, kerf measure.Length) *SummaryHaul {
	h := &SummaryHaul{ShopCuts: []SummaryShopCut{}, Carried: []SummaryCarried{}}
	for _, m := range ms {
		for i := range m.Sticks {
			s := &m.Sticks[i]
			if s.Origin != stock.Shop {
				continue
			}
			carry := func(length measure.Length, pieces []stock.Piece) {
				c := SummaryCarried{m.Key, length.Inches(), []float64{}}
				for _, p := range pieces {
					c.Pieces = append(c.Pieces, p.Length.Inches())
				}
				h.Carried = append(h.Carried, c)
			}
			if s.Parts == nil {
				carry(s.Length, s.Pieces)
				continue
			}
			cut := SummaryShopCut{Size: m.Key, StockIn: s.Length.Inches()}
			for _, at := range s.Marks(kerf) {
				cut.AtIn = append(cut.AtIn, at.Inches())
			}
			h.ShopCuts = append(h.ShopCuts, cut)
			from := 0
			for _, p := range s.Parts {
				carry(p.Length, s.Pieces[from:from+p.Pieces])
				from += p.Pieces
			}
		}
	}
	return h
}

// SummaryPiece is pieces of one size and cut.
type SummaryPiece struct {
	Size  string  `json:"size"`
	CutIn float64 `json:"cut_in"`
	Count int     `json:"count"`
}

// SummaryBuy is sticks of one length to buy.
type SummaryBuy struct {
	Size      string  `json:"size"`
	StockIn   float64 `json:"stock_in"`
	Count     int     `json:"count"`
	CostCents *int64  `json:"cost_cents"`
}

// Summarize gives the summary of a plan; overall size is the first frame's.
func (p *Plan) Summarize() Summary {
	s := Summary{Pieces: []SummaryPiece{}, PipeFeet: map[string]float64{}, Fittings: p.Fittings, Warnings: [][]any{}}
	for _, g := range p.Cuts {
		s.Pieces = append(s.Pieces, SummaryPiece{string(g.Size), round(g.Cut.Inches(), 6), g.Count})
		if g.Cut > 0 {
			s.PipeFeet[string(g.Size)] += (g.Cut * measure.Length(g.Count)).Feet()
		}
	}
	for k, v := range s.PipeFeet {
		s.PipeFeet[k] = round(v, 3)
	}
	slices.SortStableFunc(s.Pieces, func(a, b SummaryPiece) int {
		return cmp.Or(catalog.Compare(catalog.Size(a.Size), catalog.Size(b.Size)), cmp.Compare(b.CutIn, a.CutIn))
	})
	for a, e := range p.Frames[0].Overall {
		s.OverallIn[a] = round(e.Size.Inches(), 3)
	}
	for _, f := range p.Frames {
		for _, pc := range f.Pipes {
			if pc.TooShort {
				s.Warnings = append(s.Warnings, []any{"too-short", pc.From, pc.To})
			}
		}
		for _, j := range f.Joints {
			if j.Assumed {
				s.Warnings = append(s.Warnings, []any{"no-fitting", j.ID})
			}
		}
	}
	var ms []stock.Material
	for i := range p.Pipe {
		t := &p.Pipe[i]
		ms = append(ms, t.Answer())
		asked, _ := t.Problem()
		s.Warnings = append(s.Warnings, WarnOfLack(&asked, t.Stock)...)
	}
	s.Buy, s.CostCents, s.Bound, s.Proven = SummarizeStock(ms)
	if p.Haul != nil {
		s.SummaryHaul = SummarizeHaul(ms, p.Tool.Kerf)
	}
	return s
}

// SummarizeStock gives the purchase part of a summary, small sizes first.
func SummarizeStock(ms []stock.Material) (buy []SummaryBuy, cents *int64, bound any, proven bool) {
	ms = slices.Clone(ms)
	slices.SortStableFunc(ms, func(a, b stock.Material) int {
		return catalog.Compare(catalog.Size(a.Key), catalog.Size(b.Key))
	})
	buy, proven = []SummaryBuy{}, true
	priced, total, least := len(ms) > 0, int64(0), int64(0)
	sticks := map[string]int{}
	for _, m := range ms {
		proven = proven && m.Proven
		sticks[m.Key] = m.BoundSticks
		least += int64(m.BoundCost)
		priced = priced && m.Priced
		total += int64(m.CutCost)
		for _, b := range m.Buy {
			line := SummaryBuy{Size: m.Key, StockIn: round(b.Length.Inches(), 6), Count: b.Count}
			if b.Priced {
				c := int64(b.Cost)
				line.CostCents = &c
				total += c
			}
			buy = append(buy, line)
		}
	}
	if priced {
		return buy, &total, least, proven
	}
	return buy, nil, sticks, proven
}

func round(v float64, places int) float64 {
	k := math.Pow10(places)
	return math.Round(v*k) / k
}
