package export

import (
	"cmp"
	"encoding/csv"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/pricelist"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/stock"
)

// safe keeps a spreadsheet from taking a builder's text for a formula.
func safe(s string) string {
	if s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) {
		return "'" + s
	}
	return s
}

func write(w io.Writer, rows [][]string) error {
	c := csv.NewWriter(w)
	for _, r := range rows {
		for i := range r {
			r[i] = safe(r[i])
		}
	}
	if err := c.WriteAll(rows); err != nil {
		return err
	}
	return c.Error()
}

// unfinished tells of frames that lines wait of, in rows that are no part of the list.
func unfinished(p *plan.Plan) (rows [][]string) {
	for i := range p.Frames {
		f := &p.Frames[i]
		if f.Waiting == nil {
			continue
		}
		rows = append(rows, []string{fmt.Sprintf(
			"# unfinished: %s of %s, from line %d on (%s): this is of what is drawn so far",
			f.Waiting.Words, cmp.Or(f.Name, "the frame"), f.Waiting.Line, f.Waiting.Text,
		)})
	}
	return rows
}

// CutList writes the cut list: one line a letter. The first columns are those
// that a cut list is read by; the rest say which pipes they are.
func CutList(w io.Writer, p *plan.Plan, style measure.Style) error {
	rows := append(unfinished(p), []string{"size", "length", "count", "letter", "where", "note"})
	for _, g := range p.Cuts {
		var places []string // in plain words; its name where the frame has no words for it
		for _, r := range g.Pipes {
			f := &p.Frames[r.Frame]
			i := slices.IndexFunc(f.Pipes, func(x plan.Pipe) bool { return x.Pipe == r.Pipe })
			if i < 0 {
				continue
			}
			if where := cmp.Or(f.Pipes[i].Where, r.Pipe); !slices.Contains(places, where) {
				places = append(places, where)
			}
		}
		length := g.Cut.Format(style, 0)
		rows = append(rows, []string{string(g.Size), length, strconv.Itoa(g.Count), g.Letter, strings.Join(places, "; "), g.Note()})
	}
	for i := range p.Bars {
		rows = append(rows, barRows(&p.Bars[i], style)...)
	}
	return write(w, rows)
}

// barRows are the pieces of something else that is sold by the length, those that are alike in one row.
func barRows(b *procure.BarTotal, style measure.Style) (rows [][]string) {
	count := map[[2]string]int{}
	var order [][2]string
	for _, s := range b.Stock.Sticks {
		for _, x := range s.Pieces {
			of := [2]string{x.Length.Format(style, 0), x.Name}
			if count[of] == 0 {
				order = append(order, of)
			}
			count[of]++
		}
	}
	for _, of := range order {
		rows = append(rows, []string{b.Label, of[0], strconv.Itoa(count[of]), "", "", of[1]})
	}
	return rows
}

// Shopping writes the shopping list with prices; what has no price has an
// empty amount.
func Shopping(w io.Writer, p *plan.Plan) error {
	rows := append(unfinished(p), []string{"count", "what", "each", "amount", "price"})
	for _, l := range p.Bill.Lines {
		row := []string{strconv.Itoa(l.Count), l.Label, "", "", "none"}
		if l.Priced {
			row[2], row[3], row[4] = l.Each.Plain(), l.Amount.Plain(), "own"
			if l.Example {
				row[4] = "example"
			}
		}
		rows = append(rows, row)
	}
	mark := "own"
	if p.Bill.Example {
		mark = "with example prices"
	}
	rows = append(rows, []string{"", "subtotal", "", p.Bill.Subtotal.Plain(), mark}, []string{"", "tax", "", p.Bill.Tax.Plain(), mark},
		[]string{"", "total", "", p.Bill.Total.Plain(), mark})
	return write(w, rows)
}

// Prices writes a price book, by columns that it is read by again.
func Prices(w io.Writer, b *cost.Book) error { return write(w, pricelist.Write(b)) }

// PieceList writes a list that is cut without a frame: its pieces, and then the sticks, each with what
// is cut from it, in order, the marks from its one end, and what is left.
func PieceList(w io.Writer, rows [][]string, of []stock.Material) error {
	all := [][]string{{"size", "length", "count", "letter", "name"}}
	all = append(all, rows...)
	all = append(all, []string{}, []string{"size", "stick", "of length", "pieces", "marks", "left"})
	inches := func(l measure.Length) string { return l.Format(measure.InInches, 0) }
	for i := range of {
		for n := range of[i].Sticks {
			s := &of[i].Sticks[n]
			var names, marks []string
			for _, p := range s.Pieces {
				marks = append(marks, inches(p.At))
				names = append(names, strings.TrimSpace(p.Name+" "+inches(p.Length)))
			}
			all = append(all, []string{
				of[i].Key, strconv.Itoa(n + 1), inches(s.Length), strings.Join(names, "; "), strings.Join(marks, "; "), inches(s.Left),
			})
		}
	}
	return write(w, all)
}
