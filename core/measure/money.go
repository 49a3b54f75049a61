package measure

import (
	"fmt"
	"math"
	"strings"
)

// Money is an amount in whole cents.
type Money int64

// String prints dollars and cents: $12.40, −$3.10.
func (m Money) String() string {
	if m < 0 {
		return "−$" + (-m).Plain()
	}
	return "$" + m.Plain()
}

// Plain writes an amount without the sign of a currency: 4.98.
func (m Money) Plain() string {
	if m < 0 {
		return "-" + (-m).Plain()
	}
	return fmt.Sprintf("%d.%02d", m/100, m%100)
}

// Times gives the price of n pieces.
func (m Money) Times(n int) Money { return m * Money(n) }

// Share gives a share of the amount (a tax rate of 0.0825, say), rounded to
// the cent, halves up.
func (m Money) Share(rate float64) Money {
	return Money(math.Floor(float64(m)*rate + 0.5))
}

// ParseMoney reads an amount as people write it: 4.98, 4,98, $4.98, .88, 4, 1,299.00, 98c, 98¢,
// 98 cents, 4 USD. What stands for the currency is read over. The error is a [*ParseError].
func ParseMoney(text string) (Money, error) {
	no := func(what string) (Money, error) {
		return 0, &ParseError{Text: text, What: what, Hint: "write it like 4.98, .88 or 98c"}
	}
	s := strings.ToLower(strings.TrimSpace(text))
	if strings.HasPrefix(s, "-") || strings.HasPrefix(s, "−") {
		return no("an amount below nothing")
	}
	cents := false
	for _, sign := range []string{"cents", "cent", "ct", "c", "¢"} {
		if rest, ok := strings.CutSuffix(s, sign); ok {
			s, cents = strings.TrimSpace(rest), true
			break
		}
	}
	for _, name := range currencies {
		if rest, ok := strings.CutSuffix(s, name); ok {
			s = strings.TrimSpace(rest)
			break
		}
	}
	s = strings.TrimLeft(s, "$€£ ")
	whole, frac := moneyParts(s)
	switch {
	case whole+frac == "" || strings.Trim(whole+frac, "0123456789") != "":
		return no("not an amount of money")
	case len(whole) > 9:
		return no("too much to be a price")
	case cents && frac != "":
		return no("parts of a cent")
	case len(frac) > 2:
		return no("a price has two places behind the point")
	}
	var m Money
	for _, c := range whole + (frac + "00")[:2] {
		m = m*10 + Money(c-'0')
	}
	if cents {
		m /= 100
	}
	return m, nil
}

// currencies are what may be written behind an amount.
var currencies = []string{"dollars", "dollar", "bucks", "euros", "euro", "pounds", "usd", "cad", "aud", "nzd", "eur", "gbp", "$", "€", "£"}

// moneyParts parts a number at its decimal sign. Of several signs the last is it; a single comma
// before three digits parts thousands.
func moneyParts(s string) (whole, frac string) {
	at := strings.LastIndexAny(s, ".,")
	if at < 0 {
		return s, ""
	}
	whole, frac = s[:at], s[at+1:]
	if s[at] == ',' && len(frac) == 3 && whole != "" {
		whole, frac = s, ""
	}
	groups := strings.FieldsFunc(whole, func(c rune) bool { return c == ',' || c == '.' })
	for _, g := range groups[min(1, len(groups)):] {
		if len(g) != 3 {
			return "?", "" // 1,2,3 is no number
		}
	}
	return strings.Join(groups, ""), frac
}
