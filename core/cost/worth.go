package cost

import (
	"slices"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Terms are what a builder holds a bill against.
type Terms struct {
	Budget   measure.Money   `json:"budget,omitempty"`   // that it must not cost more than, tools that are bought included; 0: none
	Bought   measure.Money   `json:"bought,omitempty"`   // what one like it costs in a shop; 0: not said
	Uses     int             `json:"uses,omitempty"`     // how often one of it is used before it is worn out; 0: not said
	Optional []material.Spec `json:"optional,omitempty"` // what could be left out
	Tools    measure.Money   `json:"tools,omitempty"`    // what tools cost that are bought for it
}

// Worth is a bill held against the builder's terms. Amounts have their tax.
type Worth struct {
	Copies   int           `json:"copies"`
	Each     measure.Money `json:"each"`               // one copy, without tools
	Optional measure.Money `json:"optional,omitempty"` // of all copies: what could be left out
	Base     measure.Money `json:"base"`               // the rest
	Tools    measure.Money `json:"tools,omitempty"`
	All      measure.Money `json:"all"`               // with tools
	PerUse   measure.Money `json:"perUse,omitempty"`  // of one copy, without tools
	Over     measure.Money `json:"over,omitempty"`    // more than the budget; below nought what is left of it
	Budgeted bool          `json:"budgeted"`          // there is a budget
	Saves    measure.Money `json:"saves,omitempty"`   // against as many that are bought, tools included; below nought they cost more to make
	Against  bool          `json:"against"`           // there is something to hold it against
	PaysAt   int           `json:"paysAt,omitempty"`  // how many copies pay for the tools against bought ones; 0: none does
	Largest  string        `json:"largest,omitempty"` // the line that costs most
	Share    float64       `json:"share,omitempty"`   // of the bill before tax, that it is
}

// Hold holds a bill for some copies against terms; rate is the tax.
func (b *Bill) Hold(t Terms, copies int, rate float64) Worth {
	copies = max(1, copies)
	taxed := func(m measure.Money) measure.Money { return m + m.Share(rate) }
	w := Worth{Copies: copies, Tools: t.Tools, Budgeted: t.Budget > 0, Against: t.Bought > 0}
	most := measure.Money(0)
	for i := range b.Lines {
		l := &b.Lines[i]
		if slices.Contains(t.Optional, l.Spec) {
			w.Optional += l.Amount
		}
		if l.Amount > most {
			most, w.Largest = l.Amount, l.Label
		}
	}
	if b.Subtotal > 0 {
		w.Share = float64(most) / float64(b.Subtotal)
	}
	w.Optional = taxed(w.Optional)
	w.Base = b.Total - w.Optional
	w.All = b.Total + t.Tools
	w.Each = ceil(b.Total, copies)
	if t.Uses > 0 {
		w.PerUse = ceil(w.Each, t.Uses)
	}
	if w.Budgeted {
		w.Over = w.All - t.Budget
	}
	if w.Against {
		w.Saves = t.Bought.Times(copies) - w.All
		if one := t.Bought - w.Each; one > 0 {
			w.PaysAt = int((t.Tools + one - 1) / one)
		}
	}
	return w
}

// ceil is a share of an amount, a broken cent counted as a whole one.
func ceil(m measure.Money, n int) measure.Money {
	return (m + measure.Money(n) - 1) / measure.Money(n)
}

// Validate tells what of the terms makes no sense: a path and a reason for each.
func (t *Terms) Validate() map[string]string {
	bad := map[string]string{}
	for path, m := range map[string]measure.Money{"/budget": t.Budget, "/bought": t.Bought, "/tools": t.Tools} {
		if m < 0 || m > 100*maxAmount {
			bad[path] = "an amount is from 0 to 10,000,000"
		}
	}
	if t.Uses < 0 || t.Uses > 1_000_000 {
		bad["/uses"] = "it is used 1 to 1,000,000 times"
	}
	return bad
}
