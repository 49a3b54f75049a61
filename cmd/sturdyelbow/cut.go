package main

import (
	"context"
	"slices"

	"github.com/spf13/cobra"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
	"sturdyelbow/internal/export"
)

func cutCommand() *cobra.Command {
	var f cutting
	c := &cobra.Command{
		Use: "cut FILE.csv", Short: "Plan the cutting of a list: size,length,count (- reads standard input)", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			g, err := f.read()
			if err != nil {
				return err
			}
			data, err := readFile(c, args[0])
			if err != nil {
				return failed(err)
			}
			prob := stock.Problem{Saw: g.saw, EndTrim: g.trim, Haul: g.haul, Keep: g.keep, Tidy: true}
			if prob.Demands, err = export.ReadCutList(string(data), measure.Inches); err != nil {
				return failed(inFile(args[0], err))
			}
			seen := map[string]bool{}
			for _, d := range prob.Demands {
				if !seen[d.Material] {
					seen[d.Material] = true
					prob.Offers = append(prob.Offers, g.offers(d.Material)...)
				}
			}
			ms, err := f.solve(c.Context(), prob)
			if err != nil {
				return err
			}
			out := c.OutOrStdout()
			if f.mistakes {
				return failed(printCutMistakes(c.Context(), out, &prob, ms, f.json))
			}
			switch {
			case f.summary:
				return failed(printJSON(out, summarizeCut(&prob, ms)))
			case f.json:
				return failed(printJSON(out, ms))
			}
			paper := newPaper(out)
			for _, m := range ms {
				printSticks(paper, m, prob.Saw.Kerf)
				for _, l := range m.Lacking {
					why := "longer than all stock"
					switch {
					case g.haul != nil && prob.Demands[l.Demand].Length > g.haul.Limit-g.haul.Error:
						why = "longer than what is carried"
					case prob.Demands[l.Demand].Length <= longest(prob.Offers):
						why = "not enough sticks"
					}
					paper.bad("%d of %s %s: %s", l.Count, m.Key, prob.Demands[l.Demand].Length, why)
					err = &exitError{code: 3}
				}
			}
			paper.flush()
			return err
		},
	}
	f.add(c)
	return c
}

// solve plans the cutting, and goes on with the search for as long as the flag says.
func (f *cutting) solve(ctx context.Context, p stock.Problem) ([]stock.Material, error) {
	ms, err := stock.Solve(ctx, p)
	if err != nil || f.search <= 0 || !slices.ContainsFunc(ms, func(m stock.Material) bool { return !m.Proven }) {
		return ms, err
	}
	ctx, stop := context.WithTimeout(ctx, f.search)
	defer stop()
	better, err := stock.Improve(ctx, p, func([]stock.Material) {})
	if len(better) == 0 {
		return ms, err
	}
	return better, err
}

// cutSummary is the exchange form's summary of a cutting plan.
type cutSummary struct {
	Sticks    []cutStick        `json:"sticks"`
	Buy       []plan.SummaryBuy `json:"buy"`
	CostCents *int64            `json:"cost_cents"`
	Bound     any               `json:"bound"`
	Proven    bool              `json:"proven"`
	Warnings  [][]any           `json:"warnings"`
	*plan.SummaryHaul
}

type cutStick struct {
	Size    string    `json:"size"`
	StockIn float64   `json:"stock_in"`
	Pieces  []float64 `json:"pieces"`
	LeftIn  float64   `json:"left_in"` // stick − end trim − pieces − the kerfs between them
}

func summarizeCut(p *stock.Problem, ms []stock.Material) cutSummary {
	s := cutSummary{Sticks: []cutStick{}, Warnings: [][]any{}}
	for _, m := range ms {
		for _, st := range m.Sticks {
			left := st.Length - p.EndTrim - p.Saw.Kerf*measure.Length(len(st.Pieces)-1)
			c := cutStick{Size: m.Key, StockIn: st.Length.Inches()}
			for _, pc := range st.Pieces {
				c.Pieces = append(c.Pieces, pc.Length.Inches())
				left -= pc.Length
			}
			c.LeftIn = left.Inches()
			s.Sticks = append(s.Sticks, c)
		}
		s.Warnings = append(s.Warnings, plan.WarnOfLack(p, m)...)
	}
	s.Buy, s.CostCents, s.Bound, s.Proven = plan.SummarizeStock(ms)
	if p.Haul != nil {
		s.SummaryHaul = plan.SummarizeHaul(ms, p.Saw.Kerf)
	}
	return s
}
