package procure

import (
	"context"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// Mistakes is what spoilt cuts of a size of pipe would cost.
type Mistakes struct {
	Size catalog.Size `json:"size"`
	// Stand is of the cuts that are not done yet, stick by stick as they are listed: what each
	// would cost if it were spoilt then.
	Stand []Mistake `json:"stand"`
	// Safest is of the same cuts in the order in which spoilt ones cost least together; Exact
	// says that no order is better.
	Safest []Mistake `json:"safest"`
	Exact  bool      `json:"exact"`
}

// Mistake is a cut, and what it would cost to spoil it.
type Mistake struct {
	Stick  int            `json:"stick"` // index into the size's sticks
	Piece  int            `json:"piece"` // index into its pieces
	Letter string         `json:"letter"`
	Length measure.Length `json:"length"`
	Cost   measure.Money  `json:"cost"`
	Sticks int            `json:"sticks"` // to be bought for it
	Fatal  bool           `json:"fatal,omitempty"`
}

// Mistakes says what each cut that is still to be made would cost if it were spoilt.
func (t *PipeTotal) Mistakes(ctx context.Context) (m Mistakes, err error) {
	m = Mistakes{Size: t.Size, Stand: []Mistake{}, Safest: []Mistake{}, Exact: true}
	c := t.posed
	if len(c.stock.Sticks) == 0 {
		return m, nil
	}
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
	tell := func(all []stock.Mistake) []Mistake {
		out := make([]Mistake, len(all))
		for i, x := range all {
			p := &t.Sticks[at[x.Stick]].Pieces[x.Piece]
			out[i] = Mistake{at[x.Stick], x.Piece, p.Name, p.Length, x.Cost, x.Sticks, x.Fatal}
		}
		return out
	}
	stand, err := stock.Mistakes(ctx, c.prob, c.stock, done)
	if err != nil {
		return m, err
	}
	safest, exact, err := stock.SafestOrder(ctx, c.prob, c.stock, done)
	m.Stand, m.Safest, m.Exact = tell(stand), tell(safest), exact
	return m, err
}
