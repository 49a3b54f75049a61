package cost

import (
	_ "embed"
	"encoding/csv"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Price is what one costs.
type Price struct {
	material.Spec
	Amount  measure.Money `json:"amount"`
	Example bool          `json:"example,omitempty"` // invented; the builder has not replaced it
	Source  string        `json:"source,omitempty"`
}

// Book is a price book.
type Book struct {
	Prices  []Price `json:"prices"`
	TaxRate float64 `json:"taxRate"` // a share: 0.0825
}

// Find gives the price of something; ok is false when it has none.
func (b *Book) Find(k material.Spec) (p Price, ok bool) {
	i := slices.IndexFunc(b.Prices, func(p Price) bool { return p.Spec == k })
	if i < 0 {
		return Price{}, false
	}
	return b.Prices[i], true
}

// Set replaces or adds a price, which then is the builder's own.
func (b *Book) Set(p Price) {
	if i := slices.IndexFunc(b.Prices, func(q Price) bool { return q.Spec == p.Spec }); i >= 0 {
		b.Prices[i] = p
		return
	}
	b.Prices = append(b.Prices, p)
}

// AllSizes sets one price for a stick length in every size of pipe.
func (b *Book) AllSizes(l measure.Length, amount measure.Money) {
	for _, s := range catalog.Sizes() {
		b.Set(Price{Spec: material.Spec{Ware: material.Pipe, Size: string(s), Length: l}, Amount: amount})
	}
}

// Validate tells what is wrong with the book: a path and a reason for each.
func (b *Book) Validate() map[string]string {
	bad := map[string]string{}
	if b.TaxRate < 0 || b.TaxRate > 1 {
		bad["/taxRate"] = "a tax rate is a share from 0 to 1: 8.25 % is 0.0825"
	}
	for i, p := range b.Prices {
		switch {
		case p.Amount < 0 || p.Amount > 100_000_00:
			bad[fmt.Sprintf("/prices/%d/amount", i)] = "a price is from $0 to $100,000"
		case !slices.Contains(material.Wares(), p.Ware):
			bad[fmt.Sprintf("/prices/%d/ware", i)] = "use pipe, fitting, cement, primer or hardware"
		}
	}
	return bad
}

//go:embed data/example_prices.csv
var exampleCSV string

// Example is the price book the program ships: every price in it is invented
// and marked so.
func Example() Book {
	rows, err := csv.NewReader(strings.NewReader(exampleCSV)).ReadAll()
	if err != nil {
		panic(err)
	}
	var b Book
	for i, r := range rows[1:] {
		amount, err := measure.ParseMoney(r[4])
		if err != nil {
			panic(fmt.Sprintf("example_prices.csv line %d: %v", i+2, err))
		}
		p := Price{Spec: material.Spec{Ware: material.Ware(r[0]), Kind: r[1], Size: r[2]}, Amount: amount, Example: true, Source: "example"}
		if r[3] != "" {
			var n int
			if _, err := fmt.Sscan(r[3], &n); err != nil {
				panic(fmt.Sprintf("example_prices.csv line %d: %v", i+2, err))
			}
			if p.Ware == material.Pipe {
				p.Length = measure.Length(n) * measure.Inch
			} else {
				p.Ounces = n
			}
		}
		b.Prices = append(b.Prices, p)
	}
	return b
}
