package budget

import (
	"cmp"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
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

// Compare sets a described build beside what is bought and cut; nil where nothing was
// described. step is the tape's.
func Compare(items []reading.Item, p *procure.Purchase, c *catalog.Catalog, step measure.Length) (*Budget, []finding.Finding) {
	if len(items) == 0 {
		return nil, nil
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
		k.length = k.length.Round(step) // as the tape shows it
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
			balance(c, it, side)
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
		return cmp.Or(
			cmp.Compare(x.What, y.What),
			cmp.Compare(x.Kind, y.Kind),
			cmp.Compare(x.Size, y.Size),
			cmp.Compare(y.Length, x.Length),
		)
	})
	return b, b.findings()
}

// balance counts the sockets of a described fitting. A bushing fills one of
// its larger size and offers one of the smaller.
func balance(c *catalog.Catalog, it reading.Item, side func(catalog.Size) *Balance) {
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
	if b.Asks > 0 {
		fs = append(fs, finding.New("list-asks", finding.Question).With("lines", b.Asks))
	}
	for _, s := range b.Balance {
		about := func(code string) finding.Finding { return finding.New(code, finding.Warn).With("size", s.Size) }
		described := s.Sockets > 0 && s.Ends > 0
		switch {
		case described && s.Sockets > s.Ends:
			fs = append(fs, about("sockets-left").With("left", s.Sockets-s.Ends))
		case described && s.Ends > s.Sockets:
			fs = append(fs, about("ends-left").With("left", s.Ends-s.Sockets))
		}
		if s.Bought > 0 && s.Net > s.Bought {
			fs = append(fs, about("footage-short").With("net", s.Net).With("bought", s.Bought))
		}
	}
	over := 0
	for _, l := range b.Lines {
		if l.What == reading.Fitting && l.Have > 0 && l.Left() < 0 {
			over++
		}
	}
	if over > 0 {
		fs = append(fs, finding.New("over-budget", finding.Note).With("fittings", over))
	}
	return fs
}
