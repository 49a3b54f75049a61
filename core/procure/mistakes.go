package procure

import (
	"context"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/stock"
)

// Mistakes is what spoilt cuts of a size of pipe would cost.
type Mistakes struct {
	Size catalog.Size `json:"size"`
	stock.Risk
}

// Mistakes says what each cut that is still to be made would cost if it were spoilt. Sticks are
// told by their index among the size's.
func (t *PipeTotal) Mistakes(ctx context.Context) (m Mistakes, err error) {
	c := t.posed
	at := make([]int, len(c.stock.Sticks)) // where each chosen stick is listed
	done := make([][]bool, len(c.stock.Sticks))
	for n := range t.Sticks {
		if s := &t.Sticks[n]; s.chosen > 0 {
			at[s.chosen-1] = n
			cut := make([]bool, len(s.Pieces))
			for i := range s.Pieces {
				cut[i] = s.Pieces[i].Cut != ""
			}
			done[s.chosen-1] = cut
		}
	}
	m.Size = t.Size
	m.Risk, err = stock.RiskOf(ctx, c.prob, c.stock, done)
	for _, all := range [][]stock.Mistake{m.Stand, m.Safest} {
		for i := range all {
			all[i].Stick = at[all[i].Stick]
		}
	}
	return m, err
}
