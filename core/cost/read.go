package cost

import (
	"regexp"
	"strconv"
	"strings"

	"sturdyelbow/core/measure"
)

// Asked is what is asked for a thing: an amount or a range of amounts, for one or for several.
type Asked struct {
	Amount measure.Money `json:"amount"`         // of a range the upper end: it is planned with, so that the money is enough
	From   measure.Money `json:"from,omitempty"` // the lower end of a range; 0: it is none
	Pack   int           `json:"pack,omitempty"` // how many it is for; 0 or 1: one
}

// maxPack is the largest number of things that are sold as one.
const maxPack = 10_000

// Words says what is asked as one would write it, in whatever currency: 4.98, 7.98-8.49, 3 for 20.00.
func (a Asked) Words() string {
	words := a.Amount.Plain()
	if a.From > 0 && a.From < a.Amount {
		words = a.From.Plain() + "-" + words
	}
	if a.Pack > 1 {
		words = strconv.Itoa(a.Pack) + " for " + words
	}
	return words
}

// Each is what one of it comes to, a broken cent counted as a whole one.
func (a Asked) Each() measure.Money {
	n := measure.Money(max(1, a.Pack))
	return (a.Amount + n - 1) / n
}

var (
	// numberFor is 3 for 20, 3/$20: a number of things, and what they come to.
	numberFor = regexp.MustCompile(`^(\d+)\s*(?:x\s*)?(?:for|@|/|=)\s*(.+)$`)
	// packOf is 10-pack 6.98, pack of 10: 6.98, pk/10 6.98.
	packOf = regexp.MustCompile(
		`^(?:(\d+)\s*-?\s*(?:pack|pk|pc|pcs|piece)s?|(?:pack|pk|bag|box|set)\s*(?:of|/)?\s*(\d+))\s*[:=@,]?\s*(?:for\s+)?(.+)$`,
	)
	// amountFor is 6.98 for 10, 6.98 per 10, 6.98 a pack of 10, 6.98/10 pk, 6.98 (10 pack).
	amountFor = regexp.MustCompile(
		`^(.+?)\s*(?:(?:for|per|/|a|the|an|,\s|\()\s*)+(?:(?:pack|pk|bag|box|set)\s*(?:of|/)?\s*)?(\d+)\s*-?\s*(?:pack|pk|pc|pcs|piece|count)?s?\s*\)?$`,
	)
	// each is what may stand behind the price of one.
	each = regexp.MustCompile(`(?:\s+|\s*/\s*)(?:each|ea\.?|a piece|per piece|per stick|apiece|pc\.?|stick)$`)
	// about is what may stand before a price that is not known to the cent.
	about = regexp.MustCompile(`^(?:about|around|approx\.?|ca\.?|~|≈)\s*`)
	// span parts the ends of a range.
	span = regexp.MustCompile(`^(.*[\d.c¢)])\s*(?:-|to|\.\.)\s*(.*\d.*)$`)
)

// Read reads a price as people write it: .88, 98c, $4.98, 4,98, 3 for 20, 2/$5, 6.98 for 10, 10-pack
// 6.98, 7.98-8.49, about 5, free. The error is a [*measure.ParseError] that says how to mend it.
func Read(text string) (Asked, error) {
	s := strings.ToLower(strings.TrimSpace(text))
	s = strings.NewReplacer("–", "-", "—", "-", "−", "-", "\u00a0", " ").Replace(s)
	no := func(what string) (Asked, error) {
		return Asked{}, &measure.ParseError{Text: text, What: what, Hint: "write it like 4.98, .88, 98c, 3 for 20 or 7.98-8.49"}
	}
	if s == "" {
		return no("no price")
	}
	s = about.ReplaceAllString(s, "")
	s = each.ReplaceAllString(s, "")
	if s == "free" || s == "nothing" {
		return Asked{}, nil
	}
	pack := ""
	switch {
	case numberFor.MatchString(s):
		m := numberFor.FindStringSubmatch(s)
		pack, s = m[1], each.ReplaceAllString(m[2], "")
	case packOf.MatchString(s):
		m := packOf.FindStringSubmatch(s)
		pack, s = m[1]+m[2], m[3]
	case amountFor.MatchString(s):
		m := amountFor.FindStringSubmatch(s)
		s, pack = m[1], m[2]
	}
	var a Asked
	if pack != "" {
		n, err := strconv.Atoi(pack)
		if err != nil || n < 1 || n > maxPack {
			return no("no number of things that are sold as one")
		}
		if n > 1 {
			a.Pack = n
		}
	}
	var err error
	if m := span.FindStringSubmatch(s); m != nil {
		low := m[1]
		if cents := strings.TrimLeft(m[2], "0123456789 "); strings.HasPrefix(cents, "c") || strings.HasPrefix(cents, "¢") {
			if strings.Trim(low, "0123456789 ") == "" {
				low += "c" // 98-120c
			}
		}
		if a.From, err = measure.ParseMoney(low); err != nil {
			return no("no range of prices")
		}
		s = m[2]
	}
	if a.Amount, err = measure.ParseMoney(s); err != nil {
		what := "not an amount of money"
		if p, ok := err.(*measure.ParseError); ok {
			what = p.What
		}
		return no(what)
	}
	if a.Amount > maxAmount || a.From > maxAmount {
		return no("too much to be a price")
	}
	if a.From > a.Amount {
		a.From, a.Amount = a.Amount, a.From
	}
	if a.From == a.Amount {
		a.From = 0
	}
	return a, nil
}

// maxAmount is the most that a thing may cost.
const maxAmount measure.Money = 100_000_00
