package pieces

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
)

// Row is one line of a list as it was read.
type Row struct {
	Line   int            `json:"line"`             // counted from 1
	Text   string         `json:"text"`             // as it was written
	Name   string         `json:"name,omitempty"`   // what it is called: A, legs
	Size   string         `json:"size,omitempty"`   // nominal, or whatever the list calls the material; "" where it says none
	Length measure.Length `json:"length,omitempty"` // never rounded
	Least  measure.Length `json:"least,omitempty"`  // how short a piece may be; 0: no shorter
	Count  int            `json:"count"`
	Words  string         `json:"words,omitempty"` // how it was read
	Other  string         `json:"other,omitempty"` // how else it might be meant, and how to write that
	Fault  *Fault         `json:"fault,omitempty"` // why it was not read
}

// Fault is why a line was not read.
type Fault struct {
	Column string `json:"column"` // size, length, count, least; line where it is none of them
	What   string `json:"what"`
	Hint   string `json:"hint"`
}

// The largest list that is read, and the longest piece.
const (
	maxLines  = 5000
	maxPieces = 20_000
	maxLength = 10_000 * measure.Foot
)

// Read reads a list. unit is that of bare numbers.
func Read(text string, unit measure.Unit) []Row {
	text = strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff")
	r := &reader{unit: unit}
	if at, comma, names := header(text); names != nil {
		r.table(text, at, comma, names)
	} else {
		for n, line := range strings.Split(text, "\n") {
			r.line(n+1, strings.TrimSpace(line))
			if r.full(n + 1) {
				break
			}
		}
	}
	return r.rows
}

type reader struct {
	unit   measure.Unit
	size   string // that a heading gave the lines below it
	rows   []Row
	pieces int
}

// full says that the list is too long, and that no more of it is read.
func (r *reader) full(line int) bool {
	if len(r.rows) <= maxLines && r.pieces <= maxPieces {
		return false
	}
	r.rows = append(r.rows, Row{Line: line, Fault: &Fault{
		"line", "the list is too long", fmt.Sprintf("plan at most %d lines and %d pieces at once", maxLines, maxPieces),
	}})
	return true
}

func (r *reader) add(row Row) {
	if row.Fault == nil {
		row.Words = row.words()
		r.pieces += row.Count
	}
	r.rows = append(r.rows, row)
}

// words say how a row was read.
func (row *Row) words() string {
	w := fmt.Sprintf("%d × %s", row.Count, row.Length.Format(measure.InInches, 0))
	if row.Size != "" {
		w += " of " + row.Size + " pipe"
	}
	if row.Least > 0 {
		w += ", or as short as " + row.Least.Format(measure.InInches, 0)
	}
	if row.Name != "" {
		w = row.Name + ": " + w
	}
	return w
}

// names are what columns of a table may be called.
var names = map[string]string{
	"size": "size", "nominal": "size", "pipe": "size", "material": "size", "length": "length", "cut": "length", "cut length": "length",
	"count": "count", "qty": "count", "quantity": "count", "pcs": "count", "pieces": "count", "number": "count", "no": "count",
	"least": "least", "letter": "name", "name": "name", "piece": "name", "part": "name", "label": "name",
}

// header finds the line that names the columns of a table; nil where the first line that says
// something has no length among its names.
func header(text string) (at int, comma rune, columns []string) {
	for n, line := range strings.Split(text, "\n") {
		if t := strings.TrimLeft(strings.TrimSpace(line), `"`); t == "" || strings.HasPrefix(t, "#") {
			continue
		}
		for _, c := range ",\t;" {
			var all []string
			for _, f := range strings.Split(line, string(c)) {
				all = append(all, names[strings.ToLower(strings.Trim(strings.TrimSpace(f), `"`))])
			}
			if slices.Contains(all, "length") {
				return n + 1, c, all
			}
		}
		return 0, 0, nil
	}
	return 0, 0, nil
}

func (r *reader) table(text string, at int, comma rune, columns []string) {
	c := csv.NewReader(strings.NewReader(text))
	c.Comma, c.FieldsPerRecord, c.LazyQuotes, c.TrimLeadingSpace = comma, -1, true, true
	for {
		fields, err := c.Read()
		if errors.Is(err, io.EOF) {
			return
		}
		line := 1
		if len(fields) > 0 {
			line, _ = c.FieldPos(0)
		}
		row := Row{Line: line, Text: strings.TrimSpace(strings.Join(fields, string(comma)+" ")), Count: 1}
		if err != nil {
			row.Fault = &Fault{"line", err.Error(), "one piece a line: size, length, count"}
			r.add(row)
			return
		}
		if line <= at || strings.Trim(row.Text, string(comma)+" ") == "" || strings.HasPrefix(row.Text, "#") {
			continue
		}
		row.Fault = r.fields(&row, fields, columns)
		if row.Fault != nil || row.Count > 0 {
			r.add(row)
		}
		if r.full(line) {
			return
		}
	}
}

// fields reads a line of a table.
func (r *reader) fields(row *Row, fields, columns []string) *Fault {
	if len(fields) > len(columns) {
		return &Fault{
			"line", fmt.Sprintf("%d fields where %d belong", len(fields), len(columns)),
			"write size, length, count; a comma inside a length needs quotes",
		}
	}
	for i, column := range columns {
		f := ""
		if i < len(fields) {
			f = strings.TrimSpace(fields[i])
		}
		switch column {
		case "size":
			if f == "" {
				return &Fault{"size", "no size", "write the nominal size, like 3/4"}
			}
			row.Size = sizeName(f)
		case "name":
			row.Name = f
		case "length":
			l, fault := r.length("length", f)
			if fault != nil {
				return fault
			}
			if l == 0 {
				return &Fault{"length", "a piece of no length", "leave the line out"}
			}
			row.Length = l
		case "least":
			if f == "" {
				continue
			}
			l, fault := r.length("least", f)
			if fault != nil {
				return fault
			}
			row.Least = l
		case "count":
			n, fault := count(f)
			if fault != nil {
				return fault
			}
			row.Count = n
		}
	}
	if row.Least > row.Length {
		return &Fault{"least", "the least is more than the length", "leave it out for a piece that must be exact"}
	}
	return nil
}

func sizeName(f string) string {
	if s, known := catalog.ParseSize(f); known {
		return string(s)
	}
	return f
}

func (r *reader) length(column, f string) (measure.Length, *Fault) {
	l, err := measure.Parse(f, measure.Reading{Unit: r.unit, Limit: maxLength})
	var p *measure.ParseError
	if errors.As(err, &p) {
		return 0, &Fault{column, strconv.Quote(f) + ": " + p.What, p.Hint}
	}
	return l, nil
}

func count(f string) (int, *Fault) {
	if f == "" {
		return 1, nil
	}
	n, err := strconv.Atoi(f)
	if err != nil || n < 0 || n > maxPieces {
		return 0, &Fault{"count", strconv.Quote(f) + " is not a number of pieces", "write a whole number"}
	}
	return n, nil
}
