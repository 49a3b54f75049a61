package pricelist

import (
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/reading"
)

// Row is one line of a list as it was read.
type Row struct {
	Line  int         `json:"line"`            // counted from 1
	Text  string      `json:"text"`            // as it was written
	Price *cost.Price `json:"price,omitempty"` // nil where the line says none
	Label string      `json:"label,omitempty"` // what it is a price of
	Fault *Fault      `json:"fault,omitempty"` // why it was not read
}

// Fault is why a line, or a field of it, was not read.
type Fault struct {
	Column string `json:"column"` // thing, size, price, date; line where it is none of them
	What   string `json:"what"`
	Hint   string `json:"hint"`
}

// The largest list that is read.
const (
	maxRows = 5000
	maxText = 1 << 20
)

// columns are the names that a list may give its columns, and what each stands for.
var columns = map[string]string{
	"thing": "thing", "item": "thing", "description": "thing", "name": "thing", "part": "thing", "product": "thing",
	"what": "what", "ware": "what", "kind": "kind", "type": "kind", "size": "size", "nominal": "size",
	"length": "length", "diameter": "diameter", "ounces": "ounces", "fl oz": "ounces", "oz": "ounces",
	"price": "price", "cost": "price", "each": "price", "unit price": "price", "amount": "price",
	"pack price": "pack price", "price per pack": "pack price", "price of a pack": "pack price", "per pack price": "pack price",
	"pack": "pack", "pack of": "pack", "per pack": "pack", "qty": "pack",
	"date": "date", "seen": "date", "source": "source", "shop": "source", "where": "source", "supplier": "source", "example": "example",
}

// Read reads a list. Known are things that it may name as they are called elsewhere, such as
// hardware, which has no other names; source and date are said of prices that say none themselves.
func Read(text string, known []material.Spec, source, date string) []Row {
	r := &reader{known: map[string]material.Spec{}, source: source, date: date}
	for _, s := range known {
		r.known[plain(s.Words())] = s
	}
	if len(text) > maxText {
		return []Row{{Line: 1, Fault: &Fault{"line", "more than a megabyte", "read the list in parts"}}}
	}
	text = strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff")
	if comma, ok := r.header(text); ok {
		r.table(text, comma)
	} else {
		r.lines(text)
	}
	if len(r.rows) > maxRows {
		r.rows = append(
			r.rows[:maxRows],
			Row{Line: r.rows[maxRows].Line, Fault: &Fault{"line", "more than 5,000 prices", "read the list in parts"}},
		)
	}
	return r.rows
}

type reader struct {
	known        map[string]material.Spec
	source, date string
	columns      []string
	first        int // the line of the header
	rows         []Row
}

// plain is a text without what writing it otherwise changes.
func plain(s string) string {
	return strings.Join(strings.FieldsFunc(strings.ToLower(s), func(c rune) bool { return strings.ContainsRune(" \t,;:()", c) }), " ")
}

// header finds names of columns in the first line that is not empty.
func (r *reader) header(text string) (comma rune, ok bool) {
	for n, line := range strings.Split(text, "\n") {
		if strings.TrimSpace(line) == "" || strings.HasPrefix(strings.TrimSpace(line), "#") {
			continue
		}
		for _, c := range ",\t;" {
			fields := strings.Split(line, string(c))
			var names []string
			for _, f := range fields {
				names = append(names, columns[strings.ToLower(strings.Trim(strings.TrimSpace(f), `"'`))])
			}
			if slices.Contains(names, "price") &&
				(slices.Contains(names, "thing") || slices.Contains(names, "what") || slices.Contains(names, "kind")) {
				r.columns, r.first = names, n+1
				return c, true
			}
		}
		return 0, false
	}
	return 0, false
}

func (r *reader) table(text string, comma rune) {
	c := csv.NewReader(strings.NewReader(text))
	c.Comma, c.FieldsPerRecord, c.LazyQuotes, c.TrimLeadingSpace = comma, -1, true, true
	for {
		fields, err := c.Read()
		if errors.Is(err, io.EOF) {
			return
		}
		line, _ := 0, 0
		if len(fields) > 0 {
			line, _ = c.FieldPos(0)
		}
		if err != nil {
			r.rows = append(r.rows, Row{Line: line, Fault: &Fault{"line", "a quote that is not closed", "close it, or leave it out"}})
			return
		}
		joined := strings.TrimSpace(strings.Join(fields, string(comma)))
		if line <= r.first || strings.Trim(joined, string(comma)+" ") == "" || strings.HasPrefix(joined, "#") {
			continue
		}
		by := map[string]string{}
		for i, name := range r.columns {
			if i < len(fields) && name != "" && by[name] == "" {
				by[name] = strings.TrimPrefix(strings.TrimSpace(fields[i]), "'")
			}
		}
		all, fault := r.fields(by)
		r.add(Row{Line: line, Text: joined, Fault: fault}, all)
	}
}

// add takes a line in: a row for each price that it says, or one with what is wrong.
func (r *reader) add(row Row, all []cost.Price) {
	if row.Fault != nil || len(all) == 0 {
		r.rows = append(r.rows, row)
		return
	}
	for i := range all {
		row.Price, row.Label = &all[i], all[i].Spec.Words()
		r.rows = append(r.rows, row)
	}
}

// fields reads a line of a table by the names of its columns.
func (r *reader) fields(by map[string]string) ([]cost.Price, *Fault) {
	spec, fault := r.spec(by)
	if fault != nil {
		return nil, fault
	}
	pack := 1
	if n := by["pack"]; n != "" {
		v, err := strconv.Atoi(n)
		if err != nil || v < 1 || v > 10_000 {
			return nil, &Fault{"pack", strconv.Quote(n) + " is no number of things in a pack", "write a whole number, or leave it empty"}
		}
		pack = v
	}
	var all []cost.Price
	// a column of its own for what a pack costs: the other is what one does
	for _, column := range []string{"price", "pack price"} {
		text := by[column]
		if text == "" && (column == "pack price" || by["pack price"] != "") {
			continue
		}
		asked, typed := r.asked(text)
		if asked == nil {
			_, err := cost.Read(text)
			return nil, faultOf("price", err)
		}
		for i := range asked {
			p := cost.Price{Spec: spec, Asked: asked[i], Typed: typed[i], Source: r.source, Date: r.date}
			if pack > 1 && p.Pack == 0 && len(asked) == 1 && (column == "pack price" || by["pack price"] == "") {
				p.Pack, p.Typed = pack, ""
			}
			if d := by["date"]; d != "" {
				p.Date = d
			}
			if s := by["source"]; s != "" {
				p.Source = s
			}
			p.Example = by["example"] != "" && by["example"] != "no"
			all = append(all, p)
		}
	}
	return all, r.check(all)
}

// check says what is wrong with prices that were read.
func (r *reader) check(all []cost.Price) *Fault {
	for path, what := range (&cost.Book{Prices: all}).Validate() {
		column := path[strings.LastIndex(path, "/")+1:]
		return &Fault{
			map[string]string{"amount": "price", "from": "price", "ware": "thing"}[column] + map[string]string{"date": "date", "pack": "pack"}[column],
			what,
			"mend it, or leave it out",
		}
	}
	return nil
}

func faultOf(column string, err error) *Fault {
	var p *measure.ParseError
	if errors.As(err, &p) {
		return &Fault{column, strconv.Quote(p.Text) + ": " + p.What, p.Hint}
	}
	return &Fault{column, err.Error(), "mend it"}
}

// spec says which thing a line of a table is about: by its own columns, or by its name.
func (r *reader) spec(by map[string]string) (s material.Spec, fault *Fault) {
	s.Ware = material.Ware(strings.ToLower(by["what"]))
	if !slices.Contains(material.Wares(), s.Ware) {
		name := by["thing"]
		if name == "" {
			name = strings.TrimSpace(by["size"] + " " + by["what"] + " " + by["kind"] + " " + by["length"])
		} else if by["size"] != "" && !strings.Contains(name, by["size"]) {
			name = by["size"] + " " + name
		}
		if by["length"] != "" && !strings.Contains(name, by["length"]) {
			name += " " + by["length"]
		}
		return r.thing(name)
	}
	s.Kind, s.Size = by["kind"], by["size"]
	if s.Size != "" {
		size, err := sizeOf(s.Size)
		if err != nil {
			return s, err
		}
		s.Size = size
	}
	if s.Ware == material.Fitting && !slices.Contains(catalog.Kinds(), catalog.Kind(s.Kind)) {
		it, ok := fittingOf(s.Size + " " + s.Kind)
		if !ok {
			return s, &Fault{
				"kind",
				strconv.Quote(s.Kind) + " is no fitting that is known here",
				"write tee, elbow-90, coupling, side-outlet-elbow …",
			}
		}
		s.Kind = string(it)
	}
	for _, x := range []struct {
		name string
		to   *measure.Length
	}{{"length", &s.Length}, {"diameter", &s.Diameter}} {
		if t := by[x.name]; t != "" {
			l, err := measure.Parse(t, measure.Reading{Unit: measure.Inches, Limit: 10_000 * measure.Foot})
			if err != nil {
				return s, faultOf(x.name, err)
			}
			*x.to = l
		}
	}
	if t := by["ounces"]; t != "" {
		n, err := strconv.Atoi(t)
		if err != nil || n < 1 {
			return s, &Fault{"ounces", strconv.Quote(t) + " is no number of ounces", "write a whole number, like 8"}
		}
		s.Ounces = n
	}
	if s.Ware == material.Pipe && s.Length == 0 {
		return s, &Fault{"length", "a price of pipe without the length of its stick", "write how long the stick is, like 10 ft"}
	}
	return s, nil
}

// sizeOf reads a nominal size, or two of a fitting that reduces: 1x3/4.
func sizeOf(t string) (string, *Fault) {
	parts := strings.FieldsFunc(strings.ToLower(t), func(c rune) bool { return c == 'x' || c == '×' })
	for i, p := range parts {
		size, ok := catalog.ParseSize(strings.TrimSpace(p))
		if !ok {
			return "", &Fault{"size", strconv.Quote(t) + " is no nominal size of pipe", "write it like 3/4 or 1-1/2"}
		}
		parts[i] = string(size)
	}
	if len(parts) == 0 || len(parts) > 2 {
		return "", &Fault{"size", strconv.Quote(t) + " is no nominal size of pipe", "write it like 3/4, or 1 x 3/4"}
	}
	return strings.Join(parts, "x"), nil
}

func fittingOf(text string) (catalog.Kind, bool) {
	items := reading.Read(text, "3/4")
	if len(items) == 1 && items[0].What == reading.Fitting && items[0].Kind != "" {
		return items[0].Kind, true
	}
	return "", false
}
