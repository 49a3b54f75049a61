package export

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
)

// LineError is what is wrong with one line of a list.
type LineError struct {
	Line   int    `json:"line"`   // from 1
	Column string `json:"column"` // size, length or count
	What   string `json:"what"`
	Hint   string `json:"hint"`
}

// LineErrors is everything wrong with a list; it is an error.
type LineErrors []LineError

func (es LineErrors) Error() string {
	var ss []string
	for _, e := range es {
		ss = append(ss, fmt.Sprintf("line %d, %s: %s; %s", e.Line, e.Column, e.What, e.Hint))
	}
	return strings.Join(ss, "\n")
}

const (
	maxLines  = 5000
	maxPieces = 20_000
)

// ReadCutList reads a list of cuts: CSV with the header size,length,count in
// any order, or pasted lines without one (size, length, count; or length,
// count). With a header there may be a column least, for pieces that may be that
// short. Fields may be parted by commas, semicolons or tabs. Lengths are read
// as people write them and never rounded; a missing count is one. The error is
// a [LineErrors].
func ReadCutList(text string, unit measure.Unit) ([]stock.Demand, error) {
	r := csv.NewReader(strings.NewReader(strings.TrimPrefix(text, "\ufeff")))
	r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = -1, true, true
	first, _, _ := strings.Cut(text, "\n")
	for _, c := range "\t;" {
		if strings.ContainsRune(first, c) {
			r.Comma = c
		}
	}
	l := &list{unit: unit}
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		line, _ := r.FieldPos(0)
		if err != nil {
			return nil, LineErrors{{Line: line, Column: "line", What: err.Error(), Hint: "one piece a line: size, length, count"}}
		}
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
		}
		if strings.Join(row, "") == "" || strings.HasPrefix(row[0], "#") {
			continue
		}
		if l.columns == nil && l.header(row) {
			continue
		}
		l.row(line, row)
		if len(l.demands) > maxLines || l.pieces > maxPieces {
			l.fail(line, "line", "the list is too long", fmt.Sprintf("plan at most %d lines and %d pieces at once", maxLines, maxPieces))
			break
		}
	}
	if len(l.errs) == 0 && len(l.demands) == 0 {
		l.fail(1, "line", "no pieces", "write one piece a line, like 3/4, 23 5/8, 4")
	}
	if len(l.errs) > 0 {
		return nil, l.errs
	}
	return l.demands, nil
}

type list struct {
	unit    measure.Unit
	columns []string
	demands []stock.Demand
	pieces  int
	errs    LineErrors
}

func (l *list) fail(line int, column, what, hint string) {
	l.errs = append(l.errs, LineError{line, column, what, hint})
}

// header takes the first line as names of columns when it has a length among
// them, and otherwise guesses the columns from how many there are.
func (l *list) header(row []string) bool {
	var names []string
	for _, f := range row {
		names = append(names, strings.ToLower(f))
	}
	if slices.Contains(names, "length") {
		l.columns = names
		return true
	}
	l.columns = []string{"size", "length", "count"}
	if len(row) < 3 {
		l.columns = []string{"length", "count"}
	}
	return false
}

func (l *list) row(line int, row []string) {
	d := stock.Demand{Material: "pipe", Count: 1}
	ok := true
	for i, column := range l.columns {
		f := ""
		if i < len(row) {
			f = row[i]
		}
		switch column {
		case "size":
			if d.Material = f; f == "" {
				l.fail(line, column, "no size", "write the nominal size, like 3/4")
				ok = false
			} else if s, known := catalog.ParseSize(f); known {
				d.Material = string(s)
			}
		case "length":
			length, err := measure.Parse(f, measure.Reading{Unit: l.unit, Limit: plan.StockLimit})
			var pe *measure.ParseError
			switch {
			case errors.As(err, &pe):
				l.fail(line, column, fmt.Sprintf("%q: %s", f, pe.What), pe.Hint)
				ok = false
			case length == 0:
				l.fail(line, column, "a piece of no length", "leave the line out")
				ok = false
			}
			d.Length = length
		case "least": // how short a piece may be that need not be exact
			if f == "" {
				continue
			}
			least, err := measure.Parse(f, measure.Reading{Unit: l.unit, Limit: plan.StockLimit})
			var pe *measure.ParseError
			if errors.As(err, &pe) {
				l.fail(line, column, fmt.Sprintf("%q: %s", f, pe.What), pe.Hint)
				ok = false
			}
			d.Least = least
		case "count":
			if f == "" {
				continue
			}
			n, err := strconv.Atoi(f)
			if err != nil || n < 0 || n > maxPieces {
				l.fail(line, column, fmt.Sprintf("%q is not a number of pieces", f), "write a whole number")
				ok = false
			}
			d.Count = n
		}
	}
	if len(row) > len(l.columns) {
		l.fail(
			line,
			"line",
			fmt.Sprintf("%d fields where %d belong", len(row), len(l.columns)),
			"write size, length, count; a comma inside a length needs quotes",
		)
		ok = false
	}
	if ok && d.Least > d.Length {
		l.fail(line, "least", "the least is more than the length", "leave it out for a piece that must be exact")
		ok = false
	}
	if ok && d.Count > 0 {
		l.pieces += d.Count
		l.demands = append(l.demands, d)
	}
}
