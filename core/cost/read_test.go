package cost_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/measure"
)

func TestPricesAreReadAsTheyAreWritten(t *testing.T) {
	one := func(m measure.Money) cost.Asked { return cost.Asked{Amount: m} }
	for text, want := range map[string]cost.Asked{
		".88": one(88), "0.88": one(88), "98c": one(98), "98¢": one(98), "$4.98": one(498), "4,98": one(498), " 4 ": one(400),
		"4.98 each": one(498), "4.98 ea": one(498), "$4.98/ea": one(498), "4.98 a piece": one(498), "about 5": one(500), "~5": one(500),
		"free": {}, "0": {}, "1,299.00": one(1299_00),
		"3 for 20": {Amount: 2000, Pack: 3}, "3 for $20.00": {Amount: 2000, Pack: 3}, "2/$5": {Amount: 500, Pack: 2}, "2 / 5": {Amount: 500, Pack: 2},
		"6.98 for 10": {Amount: 698, Pack: 10}, "$20 for 3": {Amount: 2000, Pack: 3}, "6.98 per 10": {Amount: 698, Pack: 10},
		"6.98/10 pk": {Amount: 698, Pack: 10}, "6.98 (10 pack)": {Amount: 698, Pack: 10}, "6.98 a pack of 10": {Amount: 698, Pack: 10},
		"10-pack 6.98": {Amount: 698, Pack: 10}, "10 pk for 6.98": {Amount: 698, Pack: 10}, "pack of 10: 6.98": {Amount: 698, Pack: 10},
		"bag of 25 12.50": {Amount: 1250, Pack: 25}, "1 for 3": one(300), "3 for 98c": {Amount: 98, Pack: 3},
		"7.98-8.49": {Amount: 849, From: 798}, "7.98 – 8.49": {Amount: 849, From: 798}, "$7.98 to $8.49": {Amount: 849, From: 798},
		"8.49-7.98": {Amount: 849, From: 798}, "98-120c": {Amount: 120, From: 98}, ".98-1.20": {Amount: 120, From: 98}, "5-5": one(500),
		"3 for 18-20": {Amount: 2000, From: 1800, Pack: 3}, "98c-1.20": {Amount: 120, From: 98},
	} {
		got, err := cost.Read(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for _, bad := range []string{
		"", "cheap", "-3", "4.985", "3 for", "for 20", "0 for 20", "3 for cheap", "99999 for 3", "$", "4.5c", "1e9", "200000", "7.98-", "3 for 4 for 5",
		"3 for -2", "<b>", "99999999999999999999 for 2", "NaN",
	} {
		_, err := cost.Read(bad)
		var p *measure.ParseError
		require.ErrorAs(t, err, &p, bad)
		assert.NotEmpty(t, p.Hint)
	}
}

// What is asked is read again as it is said.
func TestPricesAreReadAsTheyAreSaid(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		a := cost.Asked{Amount: measure.Money(rapid.IntRange(1, 100_000_00).Draw(r, "amount"))}
		if rapid.Bool().Draw(r, "range") {
			a.From = measure.Money(rapid.IntRange(0, int(a.Amount)-1).Draw(r, "from"))
		}
		if rapid.Bool().Draw(r, "pack") {
			a.Pack = rapid.IntRange(2, 10_000).Draw(r, "pack of")
		}
		got, err := cost.Read(a.Words())
		require.NoError(r, err)
		require.Equal(r, a, got, a.Words())
	})
}

// Whatever is typed is read or refused with words, and what is read is a price.
func FuzzRead(f *testing.F) {
	for _, s := range []string{".88", "3 for 20", "7.98-8.49", "10-pack 6.98", "2/$5", "about 5 each", "1,299.00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		a, err := cost.Read(s)
		if err != nil {
			return
		}
		if a.Amount < 0 || a.From < 0 || a.From > a.Amount || a.Pack < 0 || a.Each() > a.Amount {
			t.Fatalf("%q is read as %+v", s, a)
		}
	})
}
