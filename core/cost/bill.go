package cost

import (
	"fmt"

	"sturdyelbow/core/measure"
)

// Want is something to be bought and how many.
type Want struct {
	Key
	Label string
	Count int
}

// Line is one line of a bill.
type Line struct {
	Key
	Label   string        `json:"label"`
	Count   int           `json:"count"`
	Each    measure.Money `json:"each"`
	Amount  measure.Money `json:"amount"`
	Priced  bool          `json:"priced"`
	Example bool          `json:"example"`
}

// Bill is what a job costs.
type Bill struct {
	Lines    []Line        `json:"lines"`
	Pipe     measure.Money `json:"pipe"`
	Fittings measure.Money `json:"fittings"`
	Other    measure.Money `json:"other"`
	Subtotal measure.Money `json:"subtotal"`
	Tax      measure.Money `json:"tax"`
	Total    measure.Money `json:"total"`
	Example  bool          `json:"example"`  // an example price is in the total
	Unpriced []string      `json:"unpriced"` // left out of the total
}

// Add makes the bill for what is wanted, in that order.
func (b *Book) Add(wants []Want) Bill {
	bill := Bill{Unpriced: []string{}, Lines: []Line{}}
	for _, w := range wants {
		if w.Count == 0 {
			continue
		}
		l := Line{Key: w.Key, Label: w.Label, Count: w.Count}
		if p, ok := b.Find(w.Key); ok {
			l.Each, l.Amount, l.Priced, l.Example = p.Amount, p.Amount.Times(w.Count), true, p.Example
			bill.Example = bill.Example || p.Example
		} else {
			bill.Unpriced = append(bill.Unpriced, fmt.Sprintf("%d × %s", w.Count, w.Label))
		}
		switch w.Ware {
		case Pipe:
			bill.Pipe += l.Amount
		case Fitting:
			bill.Fittings += l.Amount
		default:
			bill.Other += l.Amount
		}
		bill.Lines = append(bill.Lines, l)
	}
	bill.Subtotal = bill.Pipe + bill.Fittings + bill.Other
	bill.Tax = bill.Subtotal.Share(b.TaxRate)
	bill.Total = bill.Subtotal + bill.Tax
	return bill
}
