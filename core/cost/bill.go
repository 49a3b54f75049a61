package cost

import (
	"fmt"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Line is one line of a bill.
type Line struct {
	material.Spec
	Label   string        `json:"label"`
	Unit    string        `json:"unit"` // stick, piece, can or each
	Rule    string        `json:"rule"` // what the count follows from
	Count   int           `json:"count"`
	Each    measure.Money `json:"each"`
	Amount  measure.Money `json:"amount"`
	Priced  bool          `json:"priced"`
	Example bool          `json:"example"`
	Got     int           `json:"got,omitempty"`    // how many of them are there already
	Events  []string      `json:"events,omitempty"` // that say so
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

// Add makes the bill for what is bought, in that order.
func (b *Book) Add(lines []material.Line) Bill {
	bill := Bill{Unpriced: []string{}, Lines: []Line{}}
	for _, w := range lines {
		if w.Quantity == 0 {
			continue
		}
		l := Line{Spec: w.Spec, Label: w.Words(), Count: w.Quantity, Unit: w.Unit, Rule: w.Rule}
		if p, ok := b.Find(w.Spec); ok {
			l.Each, l.Amount, l.Priced, l.Example = p.Amount, p.Amount.Times(w.Quantity), true, p.Example
			bill.Example = bill.Example || p.Example
		} else {
			bill.Unpriced = append(bill.Unpriced, fmt.Sprintf("%d × %s", w.Quantity, l.Label))
		}
		switch w.Ware {
		case material.Pipe, material.Service:
			bill.Pipe += l.Amount
		case material.Fitting:
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
