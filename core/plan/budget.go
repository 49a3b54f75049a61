package plan

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/reading"
)

// Budget is a described build: its parts beside what the frame takes of them.
type Budget struct {
	Items   []reading.Item `json:"items"` // as they were read
	Lines   []BudgetLine   `json:"lines"`
	Balance []Balance      `json:"balance"` // by pipe size: do the described parts go together at all?
	Asks    int            `json:"asks"`    // items that have to be asked about
}

// BudgetLine is one kind of part.
type BudgetLine struct {
	What   reading.What   `json:"what"`
	Kind   catalog.Kind   `json:"kind,omitempty"`
	Size   string         `json:"size"`
	Length measure.Length `json:"length,omitempty"`
	Have   int            `json:"have"`
	Used   int            `json:"used"`
}

// Left is how many are left over; below zero, missing.
func (l BudgetLine) Left() int { return l.Have - l.Used }

// Balance sets the described parts of one pipe size against each other.
type Balance struct {
	Size    catalog.Size   `json:"size"`
	Sockets int            `json:"sockets"` // of the described fittings
	Ends    int            `json:"ends"`    // of the described pieces, and of bushings
	Net     measure.Length `json:"net"`     // of the pieces, with a kerf for each cut
	Bought  measure.Length `json:"bought"`  // of the sticks
}

// budget sets a described build beside the plan.
func (p *Plan) budget(items []reading.Item, c *catalog.Catalog) {
	if len(items) == 0 {
		return
	}
	b := &Budget{Items: items, Lines: []BudgetLine{}, Balance: []Balance{}}
	type key struct {
		what   reading.What
		kind   catalog.Kind
		size   string
		length measure.Length
	}
	at := map[key]int{}
	line := func(k key) *BudgetLine {
		k.length = k.length.Round(p.Step) // as the tape shows it
		i, ok := at[k]
		if !ok {
			i = len(b.Lines)
			at[k] = i
			b.Lines = append(b.Lines, BudgetLine{What: k.what, Kind: k.kind, Size: k.size, Length: k.length})
		}
		return &b.Lines[i]
	}
	sides := map[catalog.Size]*Balance{}
	side := func(s catalog.Size) *Balance {
		if sides[s] == nil {
			sides[s] = &Balance{Size: s}
		}
		return sides[s]
	}
	for _, it := range items {
		if it.Ask != "" {
			b.Asks++
		}
		switch {
		case it.What == reading.Piece && it.Length > 0:
			line(key{reading.Piece, "", string(it.Size), it.Length}).Have += it.Count
			s := side(it.Size)
			s.Ends += 2 * it.Count
			s.Net += (it.Length + p.Tool.Kerf) * measure.Length(it.Count)
		case it.What == reading.Stick && it.Length > 0:
			side(it.Size).Bought += it.Length * measure.Length(it.Count)
		case it.What == reading.Fitting && it.Kind != "":
			size := string(it.Size)
			if it.To != "" && (it.Kind == catalog.Bushing || it.Kind == catalog.ReducingCoupling) {
				size += "x" + string(it.To)
			}
			line(key{reading.Fitting, it.Kind, size, 0}).Have += it.Count
			p.balance(c, it, side)
		}
	}
	for _, f := range p.Fittings {
		line(key{reading.Fitting, f.Kind, f.Size, 0}).Used += f.Count
	}
	for _, g := range p.Cuts {
		if g.Cut > 0 {
			line(key{reading.Piece, "", string(g.Size), g.Cut}).Used += g.Count
		}
	}
	for _, s := range sides {
		b.Balance = append(b.Balance, *s)
	}
	slices.SortFunc(b.Balance, func(x, y Balance) int { return catalog.Compare(x.Size, y.Size) })
	slices.SortStableFunc(b.Lines, func(x, y BudgetLine) int {
		return cmp.Or(cmp.Compare(x.What, y.What), cmp.Compare(x.Kind, y.Kind), cmp.Compare(x.Size, y.Size), cmp.Compare(y.Length, x.Length))
	})
	p.Budget = b
	p.Findings = append(p.Findings, b.findings()...)
}

// balance counts the sockets of a described fitting. A bushing fills one of
// its larger size and offers one of the smaller.
func (p *Plan) balance(c *catalog.Catalog, it reading.Item, side func(catalog.Size) *Balance) {
	switch {
	case it.Kind == catalog.Bushing:
		side(it.Size).Ends += it.Count
		if it.To != "" {
			side(it.To).Sockets += it.Count
		}
	case it.Kind == catalog.ReducingCoupling && it.To != "":
		side(it.Size).Sockets += it.Count
		side(it.To).Sockets += it.Count
	case it.Kind == catalog.Plug:
		side(it.Size).Ends += it.Count
	default:
		if f, ok := c.Fitting(it.Kind, it.Size); ok {
			side(it.Size).Sockets += len(f.Ports) * it.Count
		}
	}
}

func (b *Budget) findings() (fs []finding.Finding) {
	note := func(code string, sev finding.Severity, text, hint string) {
		fs = append(fs, finding.Finding{Code: code, Severity: sev, Subject: []string{}, Text: text, Hint: hint})
	}
	if b.Asks > 0 {
		note("list-asks", finding.Question, fmt.Sprintf("%s of the described parts to be asked about", count(b.Asks, "line", "lines")), "answer beside the list, or write it anew")
	}
	for _, s := range b.Balance {
		described := s.Sockets > 0 && s.Ends > 0
		switch {
		case described && s.Sockets > s.Ends:
			note("sockets-left", finding.Warn, fmt.Sprintf("of the described %s parts, %s more than pipe ends", s.Size, count(s.Sockets-s.Ends, "socket is", "sockets are")), "a piece is missing from the list, or ports stay open on purpose")
		case described && s.Ends > s.Sockets:
			note("ends-left", finding.Warn, fmt.Sprintf("of the described %s parts, %s more than sockets", s.Size, count(s.Ends-s.Sockets, "pipe end is", "pipe ends are")), "a fitting or a cap is missing from the list, or ends stay open")
		}
		if s.Bought > 0 && s.Net > s.Bought {
			note("footage-short", finding.Warn, fmt.Sprintf("the described %s pieces take %.1f ft with their cuts, and the sticks are %.1f ft", s.Size, s.Net.Feet(), s.Bought.Feet()), "buy more, or check the lengths")
		}
	}
	over := 0
	for _, l := range b.Lines {
		if l.What == reading.Fitting && l.Have > 0 && l.Left() < 0 {
			over++
		}
	}
	if over > 0 {
		note("over-budget", finding.Note, fmt.Sprintf("the frame takes more of %s than the list has", count(over, "fitting", "fittings")), "see what is left beside the list")
	}
	return fs
}
