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
	Unit    string        `json:"unit"`          // stick, piece, can or each
	Rule    string        `json:"rule"`          // what the count follows from
	For     string        `json:"for,omitempty"` // what it is for
	Count   int           `json:"count"`
	Spare   int           `json:"spare,omitempty"` // of them, by the builder's rule for spares
	Home    int           `json:"home,omitempty"`  // of them that were at home before: they are not paid for
	Each    measure.Money `json:"each"`            // what one comes to; of several prices, what the cheapest asks
	Packs   []Packs       `json:"packs,omitempty"` // how it is bought, where packs are
	Over    int           `json:"over,omitempty"`  // left over of packs
	Amount  measure.Money `json:"amount"`
	From    measure.Money `json:"from"` // at the lower end of a range; Amount where it is none
	Priced  bool          `json:"priced"`
	Example bool          `json:"example"`
	Source  string        `json:"source,omitempty"`
	Date    string        `json:"date,omitempty"`
	Got     int           `json:"got,omitempty"` // how many of them are there already, those at home among them

	Lots []material.Lot `json:"lots,omitempty"` // of which the record tells
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
	From     measure.Money `json:"from"`     // the total at the lower ends of ranges; Total where there are none
	Example  bool          `json:"example"`  // an example price is in the total
	Unpriced []string      `json:"unpriced"` // left out of the total
}

// Add makes the bill for what is bought, in that order.
func (b *Book) Add(lines []material.Line) Bill {
	bill := Bill{Unpriced: []string{}, Lines: []Line{}}
	var from measure.Money
	for _, w := range lines {
		if w.Quantity == 0 {
			continue
		}
		l := Line{
			Spec:  w.Spec,
			Label: w.Words(),
			Count: w.Quantity,
			Spare: w.Spare,
			Home:  min(w.Home, w.Quantity),
			Unit:  w.Unit,
			Rule:  w.Rule,
			For:   w.For,
		}
		b.price(&l)
		if l.Priced {
			bill.Example = bill.Example || l.Example && l.Count > l.Home
		} else if l.Count > l.Home {
			bill.Unpriced = append(bill.Unpriced, fmt.Sprintf("%d × %s", l.Count-l.Home, l.Label))
		}
		switch w.Ware {
		case material.Pipe, material.Service:
			bill.Pipe += l.Amount
		case material.Fitting:
			bill.Fittings += l.Amount
		default:
			bill.Other += l.Amount
		}
		from += l.From
		bill.Lines = append(bill.Lines, l)
	}
	bill.Subtotal = bill.Pipe + bill.Fittings + bill.Other
	bill.Tax = bill.Subtotal.Share(b.TaxRate)
	bill.Total = bill.Subtotal + bill.Tax
	bill.From = from + from.Share(b.TaxRate)
	return bill
}

// price says what a line costs.
func (b *Book) price(l *Line) {
	p, ok := b.Find(l.Spec)
	if !ok {
		return
	}
	l.Priced, l.Each = true, p.Each()
	l.Example, l.Source, l.Date = p.Example, p.Source, p.Date
	bought, _ := b.Buy(l.Spec, l.Count-l.Home)
	l.Amount, l.From, l.Over = bought.Amount, bought.From, bought.Over
	for _, x := range bought.Packs {
		if x.Price.Pack > 1 {
			l.Packs = bought.Packs
		}
	}
}
