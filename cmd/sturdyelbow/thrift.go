package main

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"os"

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
	for _, x := range m.Safest {
		fatal := ""
		if x.Fatal {
			fatal = "the worst to spoil"
		}
		w.row(
			fmt.Sprintf("  stick %d", x.Stick+1),
			fmt.Sprintf("%d ×", x.Count),
			x.Name,
			x.Length.Format(measure.InInches, 0),
			spoilt(x),
			fatal,
		)
	}
	w.flush()
}

func spoilt(x stock.Mistake) string {
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
		r, err := stock.RiskOf(ctx, *p, m, nil)
		if err != nil {
			return err
		}
		all = append(all, procure.Mistakes{Size: catalog.Size(m.Key), Risk: r})
	}
	if asJSON {
		return printJSON(out, all)
	}
	for _, m := range all {
		printMistakes(newPaper(out), m)
	}
	return nil
}

// readKept reads the sticks of an earlier plan: that of a list or of a frame, as --json prints
// them.
func readKept(name string) ([]stock.Kept, error) {
	data, err := os.ReadFile(name)
	if err != nil {
		return nil, fmt.Errorf("--keep: %w", err)
	}
	type stick struct {
		Length measure.Length `json:"length"`
		Sold   measure.Length `json:"sold"`
		Origin stock.Origin   `json:"origin"`
		Pieces []struct {
			Length measure.Length `json:"length"`
		} `json:"pieces"`
	}
	type size struct {
		Key    string  `json:"key"`
		Size   string  `json:"size"`
		Sticks []stick `json:"sticks"`
	}
	var sizes []size
	if json.Unmarshal(data, &sizes) != nil {
		var plan struct {
			Pipe []size `json:"pipe"`
		}
		if err := json.Unmarshal(data, &plan); err != nil || plan.Pipe == nil {
			return nil, fmt.Errorf("--keep %s: no plan; write one with --json", name)
		}
		sizes = plan.Pipe
	}
	var all []stock.Kept
	for _, s := range sizes {
		for _, st := range s.Sticks {
			k := stock.Kept{Material: cmp.Or(s.Key, s.Size), Length: cmp.Or(st.Sold, st.Length), Origin: st.Origin}
			for _, p := range st.Pieces {
				k.Pieces = append(k.Pieces, p.Length)
			}
			all = append(all, k)
		}
	}
	return all, nil
}
