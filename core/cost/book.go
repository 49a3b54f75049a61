package cost

import (
	"cmp"
	_ "embed"
	"encoding/csv"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Price is what one costs, or what several cost together. A thing may have several prices, for one and
// for packs of it.
type Price struct {
	material.Spec
	Asked
	Typed   string `json:"typed,omitempty"`   // as the builder wrote it
	Date    string `json:"date,omitempty"`    // when it was asked: 2026-11-29
	Source  string `json:"source,omitempty"`  // where: a shop, a receipt, the builder's own word
	Example bool   `json:"example,omitempty"` // invented; the builder has not replaced it
}

// Book is a price book.
type Book struct {
	Prices  []Price `json:"prices"`
	TaxRate float64 `json:"taxRate"` // a share: 0.0825
	// Currency is what amounts are shown in, by its ISO 4217 code; USD where it is left out. Nothing is
	// ever converted.
	Currency string `json:"currency,omitempty"`
}

// Find gives the price of something by which one of it comes to the least; ok is false when it has
// none.
func (b *Book) Find(k material.Spec) (p Price, ok bool) {
	for _, q := range b.Prices {
		if q.Spec == k && (!ok || q.Each() < p.Each()) {
			p, ok = q, true
		}
	}
	return p, ok
}

// Packs is so many of a pack.
type Packs struct {
	Price Price `json:"price"`
	Count int   `json:"count"`
}

// Bought is how so many of a thing are bought.
type Bought struct {
	Packs  []Packs       `json:"packs"`
	Amount measure.Money `json:"amount"`
	From   measure.Money `json:"from"` // at the lower ends of ranges; Amount where there are none
	Over   int           `json:"over"` // bought more than asked for, as packs are not broken
}

// Buy gives the cheapest way to buy n of something, and of ways that cost the same the one that
// leaves least over, then that of the fewest packs. ok is false when it has no price. It takes n
// steps for each of its prices.
func (b *Book) Buy(k material.Spec, n int) (out Bought, ok bool) {
	var prices []Price
	for _, p := range b.Prices {
		if p.Spec == k {
			p.Pack = max(1, p.Pack)
			prices, ok = append(prices, p), true
		}
	}
	if !ok || n < 1 {
		return out, ok
	}
	type way struct {
		amount      measure.Money
		over, packs int
		last        int // index of the price that came last
	}
	best := make([]way, n+1)
	for i := 1; i <= n; i++ {
		for at := range prices {
			from := best[max(0, i-prices[at].Pack)]
			w := way{from.amount + prices[at].Amount, from.over + max(0, prices[at].Pack-i), from.packs + 1, at}
			if at == 0 || cmp.Or(
				cmp.Compare(w.amount, best[i].amount), cmp.Compare(w.over, best[i].over), cmp.Compare(w.packs, best[i].packs),
			) < 0 {
				best[i] = w
			}
		}
	}
	count := make([]int, len(prices))
	for i := n; i > 0; i -= prices[best[i].last].Pack {
		count[best[i].last]++
	}
	out.Over = best[n].over
	for at, p := range prices {
		if count[at] == 0 {
			continue
		}
		out.Packs = append(out.Packs, Packs{p, count[at]})
		out.Amount += p.Amount.Times(count[at])
		out.From += cmp.Or(p.From, p.Amount).Times(count[at])
	}
	return out, true
}

// Set replaces or adds a price for one, or for a pack of so many, which then is the builder's own.
func (b *Book) Set(p Price) {
	same := func(q Price) bool { return q.Spec == p.Spec && max(1, q.Pack) == max(1, p.Pack) }
	if i := slices.IndexFunc(b.Prices, same); i >= 0 {
		b.Prices[i] = p
		return
	}
	b.Prices = append(b.Prices, p)
}

// Replace puts one price in the place of all that a thing had.
func (b *Book) Replace(p Price) {
	at := slices.IndexFunc(b.Prices, func(q Price) bool { return q.Spec == p.Spec })
	if at < 0 {
		b.Prices = append(b.Prices, p)
		return
	}
	b.Prices[at] = p
	b.Prices = slices.Concat(b.Prices[:at+1], slices.DeleteFunc(b.Prices[at+1:], func(q Price) bool { return q.Spec == p.Spec }))
}

// AllSizes sets one price for a stick length in every size of pipe.
func (b *Book) AllSizes(l measure.Length, amount measure.Money) {
	for _, s := range catalog.Sizes() {
		b.Set(Price{Spec: material.Spec{Ware: material.Pipe, Size: string(s), Length: l}, Asked: Asked{Amount: amount}})
	}
}

// Validate tells what is wrong with the book: a path and a reason for each.
func (b *Book) Validate() map[string]string {
	bad := map[string]string{}
	if b.TaxRate < 0 || b.TaxRate > 1 {
		bad["/taxRate"] = "a tax rate is a share from 0 to 1: 8.25 % is 0.0825"
	}
	if b.Currency != "" && !currencyForm.MatchString(b.Currency) {
		bad["/currency"] = "a currency is three letters, like USD or EUR"
	}
	for i, p := range b.Prices {
		switch {
		case p.Amount < 0 || p.Amount > maxAmount:
			bad[fmt.Sprintf("/prices/%d/amount", i)] = "a price is from 0 to 100,000"
		case p.From < 0 || p.From > p.Amount:
			bad[fmt.Sprintf("/prices/%d/from", i)] = "a range of prices begins below its end, and not below nothing"
		case p.Pack < 0 || p.Pack > maxPack:
			bad[fmt.Sprintf("/prices/%d/pack", i)] = "a pack holds 1 to 10,000"
		case p.Date != "" && !isDate(p.Date):
			bad[fmt.Sprintf("/prices/%d/date", i)] = "a date is written like 2026-11-29"
		case !slices.Contains(material.Wares(), p.Ware):
			bad[fmt.Sprintf("/prices/%d/ware", i)] = "use pipe, fitting, cement, primer or hardware"
		}
	}
	return bad
}

// isDate says whether a text is written like a date. The core has no clock and no calendar: how old
// a price is, is for others to say.
func isDate(s string) bool { return dateForm.MatchString(s) }

var currencyForm = regexp.MustCompile(`^[A-Z]{3}$`)

var dateForm = regexp.MustCompile(`^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$`)

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
		p := Price{
			Spec:    material.Spec{Ware: material.Ware(r[0]), Kind: r[1], Size: r[2]},
			Asked:   Asked{Amount: amount},
			Example: true,
			Source:  "example",
		}
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
