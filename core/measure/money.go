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
	sign := ""
	if m < 0 {
		sign, m = "−", -m
	}
	return fmt.Sprintf("%s$%d.%02d", sign, m/100, m%100)
}

// Times gives the price of n pieces.
func (m Money) Times(n int) Money { return m * Money(n) }

// Share gives a share of the amount (a tax rate of 0.0825, say), rounded to
// the cent, halves up.
func (m Money) Share(rate float64) Money {
	return Money(math.Floor(float64(m)*rate + 0.5))
}

// ParseMoney reads 4.98, $4.98, 4 or 498c.
func ParseMoney(text string) (Money, error) {
	s := strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(text), "$"))
	cents := strings.HasSuffix(s, "c") || strings.HasSuffix(s, "¢")
	s = strings.TrimSpace(strings.TrimRight(s, "c¢"))
	whole, frac, pointed := strings.Cut(s, ".")
	if len(s) == 0 || len(whole) > 9 || len(frac) > 2 || (cents && pointed) || strings.Trim(whole+frac, "0123456789") != "" ||
		whole+frac == "" {
		return 0, &ParseError{Text: text, What: "not an amount of money", Hint: "write it like 4.98"}
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
