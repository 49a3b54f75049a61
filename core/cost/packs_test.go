package cost_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

func asked(spec material.Spec, texts ...string) (b cost.Book) {
	for _, t := range texts {
		a, err := cost.Read(t)
		if err != nil {
			panic(err)
		}
		b.Set(cost.Price{Spec: spec, Asked: a})
	}
	return b
}

// 12 elbows at 98c or 10 for 6.98: a pack and two are 8.94, two packs 13.96, singly 11.76. Of 9 the
// pack is cheaper, and one is left over.
func TestPacksAndSinglesTogether(t *testing.T) {
	b := asked(tee(1).Spec, ".98", "10 for 6.98")
	bill := b.Add([]material.Line{tee(12)})
	l := bill.Lines[0]
	assert.Equal(t, measure.Money(8_94), l.Amount)
	assert.Zero(t, l.Over)
	require.Len(t, l.Packs, 2)
	l = b.Add([]material.Line{tee(9)}).Lines[0]
	assert.Equal(t, measure.Money(6_98), l.Amount)
	assert.Equal(t, "10 for 6.98", l.Packs[0].Price.Asked.Words())
	assert.Equal(t, 1, l.Over)
	l = b.Add([]material.Line{tee(3)}).Lines[0]
	assert.Equal(t, measure.Money(2_94), l.Amount)
	assert.Empty(t, l.Packs, "singly, as always")
}

// A range is planned at its upper end, and the total says what it may be.
func TestARangeIsPlannedAtItsUpperEnd(t *testing.T) {
	b := asked(tee(1).Spec, "7.98-8.49")
	b.TaxRate = 0.1
	bill := b.Add([]material.Line{tee(2)})
	assert.Equal(t, measure.Money(16_98), bill.Subtotal)
	assert.Equal(t, measure.Money(18_68), bill.Total)
	assert.Equal(t, measure.Money(17_56), bill.From, "15.96 and its tax")
}

// What is at home is counted and not paid for, with or without a price.
func TestWhatIsAtHomeIsNotPaidFor(t *testing.T) {
	b := asked(tee(1).Spec, "3 for 2")
	line := tee(8)
	line.Home = 4
	bill := b.Add([]material.Line{line})
	assert.Equal(t, measure.Money(4_00), bill.Total, "two packs of three for the other four")
	assert.Equal(t, 2, bill.Lines[0].Over)
	assert.Equal(t, 8, bill.Lines[0].Count)
	b = cost.Book{}
	assert.Equal(t, []string{"4 × 3/4 in tee"}, b.Add([]material.Line{line}).Unpriced)
	line.Home = 8
	assert.Empty(t, b.Add([]material.Line{line}).Unpriced)
}

// No way of buying a number of a thing costs less, against every number of every pack.
func TestBuyingIsTheCheapest(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		var b cost.Book
		for range rapid.IntRange(1, 3).Draw(r, "prices") {
			b.Prices = append(b.Prices, cost.Price{Spec: tee(1).Spec, Asked: cost.Asked{
				Amount: measure.Money(rapid.IntRange(0, 40).Draw(r, "amount")), Pack: rapid.IntRange(0, 6).Draw(r, "pack"),
			}})
		}
		n := rapid.IntRange(1, 14).Draw(r, "wanted")
		got, ok := b.Buy(tee(1).Spec, n)
		require.True(r, ok)
		best, over := measure.Money(1<<40), 0
		var try func(at, have int, paid measure.Money)
		try = func(at, have int, paid measure.Money) {
			if have >= n {
				if paid < best || paid == best && have-n < over {
					best, over = paid, have-n
				}
				return
			}
			for i := at; i < len(b.Prices); i++ {
				try(i, have+max(1, b.Prices[i].Pack), paid+b.Prices[i].Amount)
			}
		}
		try(0, 0, 0)
		require.Equal(r, best, got.Amount)
		require.Equal(r, over, got.Over)
		have, paid := 0, measure.Money(0)
		for _, p := range got.Packs {
			have, paid = have+p.Price.Pack*p.Count, paid+p.Price.Amount.Times(p.Count)
		}
		require.Equal(r, n+got.Over, have)
		require.Equal(r, got.Amount, paid)
	})
}

func TestOnePriceInThePlaceOfAll(t *testing.T) {
	b := asked(tee(1).Spec, ".98", "10 for 6.98")
	require.Len(t, b.Prices, 2)
	b.Replace(cost.Price{Spec: tee(1).Spec, Asked: cost.Asked{Amount: 50}})
	require.Len(t, b.Prices, 1)
	other := material.Spec{Ware: material.Cement, Ounces: 8}
	b.Replace(cost.Price{Spec: other, Asked: cost.Asked{Amount: 7_89}})
	require.Len(t, b.Prices, 2)
}
