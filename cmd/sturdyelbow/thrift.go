package main

import (
	"context"
	"fmt"
	"io"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/stock"
)

// printSavings prints what small changes save, and what takes a stick off a knife edge.
func printSavings(w *paper, s *plan.Savings) {
	w.head("Small changes that save")
	for _, z := range s.Sizes {
		saves := "nothing within 2 in"
		if z.Less > 0 {
			saves = z.Less.Format(measure.InInches, 0) + " saves " + saved(z)
		}
		most := "no larger for the same pipe"
		if z.Most > z.Now {
			most = "up to " + z.Most.Format(measure.InInches, 0) + " for the same pipe"
		}
		w.row("  "+z.Says, z.Label, saves, most)
	}
	w.flush()
	if len(s.Repairs) == 0 {
		return
	}
	w.head("\nOff the knife edge")
	for _, r := range s.Repairs {
		after := "then no stick is on an edge"
		if r.Edges > 0 {
			after = fmt.Sprintf("%d on an edge still", r.Edges)
		}
		w.row("  "+r.Size, r.Words, dearer(r.Cost), after)
	}
	w.flush()
}

func saved(z plan.SizeSaving) string {
	words := z.Length.Format(measure.FeetInches, 0) + " of pipe"
	if z.Saves > 0 {
		words = fmt.Sprintf("%v, %v an inch", z.Saves, z.PerInch)
	}
	if z.Sticks == 1 {
		return words + ", 1 stick"
	} else if z.Sticks > 0 {
		return words + fmt.Sprintf(", %d sticks", z.Sticks)
	}
	return words
}

func dearer(m measure.Money) string {
	switch {
	case m == 0:
		return "costs nothing more"
	case m < 0:
		return fmt.Sprintf("saves %v", -m)
	}
	return fmt.Sprintf("costs %v more", m)
}

// printMistakes prints what each spoilt cut would cost, in the safest order.
func printMistakes(w *paper, m procure.Mistakes) {
	order := "best order found"
	if m.Exact {
		order = "safest order"
	}
	w.head("%s pipe: what a spoilt cut costs, in the %s", m.Size, order)
	for i := 0; i < len(m.Safest); {
		x := m.Safest[i]
		n := 0 // cuts that are alike, one after the other
		for alike := x; i < len(m.Safest) && alike == x; n++ {
			if i++; i < len(m.Safest) {
				alike = m.Safest[i]
				alike.Piece = x.Piece
			}
		}
		fatal := ""
		if x.Fatal {
			fatal = "the worst to spoil"
		}
		w.row(fmt.Sprintf("  stick %d", x.Stick+1), fmt.Sprintf("%d ×", n), x.Letter, x.Length.Format(measure.InInches, 0), spoilt(x), fatal)
	}
	w.flush()
}

func spoilt(x procure.Mistake) string {
	switch {
	case x.Sticks == 0 && x.Cost == 0:
		return "nothing"
	case x.Cost > 0:
		return fmt.Sprintf("%d to buy, %v", x.Sticks, x.Cost)
	}
	return fmt.Sprintf("%d to buy", x.Sticks)
}

// printCutMistakes does the same for a list alone.
func printCutMistakes(ctx context.Context, out io.Writer, p *stock.Problem, ms []stock.Material, asJSON bool) error {
	all := []procure.Mistakes{}
	for _, m := range ms {
		tell := func(of []stock.Mistake) []procure.Mistake {
			to := make([]procure.Mistake, len(of))
			for i, x := range of {
				pc := &m.Sticks[x.Stick].Pieces[x.Piece]
				to[i] = procure.Mistake{
					Stick: x.Stick, Piece: x.Piece, Letter: pc.Name, Length: pc.Length, Cost: x.Cost, Sticks: x.Sticks, Fatal: x.Fatal,
				}
			}
			return to
		}
		stand, err := stock.Mistakes(ctx, *p, m, nil)
		if err != nil {
			return err
		}
		safest, exact, err := stock.SafestOrder(ctx, *p, m, nil)
		if err != nil {
			return err
		}
		all = append(all, procure.Mistakes{Size: catalog.Size(m.Key), Stand: tell(stand), Safest: tell(safest), Exact: exact})
	}
	if asJSON {
		return printJSON(out, all)
	}
	for _, m := range all {
		printMistakes(newPaper(out), m)
	}
	return nil
}
