package pricelist

import (
	"regexp"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/reading"
)

// lines reads a list without names of columns, a thing and its price a line.
func (r *reader) lines(text string) {
	for n, line := range strings.Split(text, "\n") {
		t := strings.TrimSpace(line)
		if t == "" || strings.HasPrefix(t, "#") || strings.HasSuffix(t, ":") {
			continue
		}
		all, fault := r.line(t)
		r.add(Row{Line: n + 1, Text: t, Fault: fault}, all)
	}
}

// breaks are where a price may begin in a line.
var breaks = regexp.MustCompile(`[\s,;:@=\t]+(?:-\s+)?|\s+[-–—]\s+`)

// line reads a thing and then its price. Where the line can be parted in several ways, the thing is
// the shortest that is one: "3/4 tee 3 for 2" is three tees for two.
func (r *reader) line(t string) ([]cost.Price, *Fault) {
	var last *Fault
	priced := false
	for _, at := range breaks.FindAllStringIndex(t, -1) {
		name, tail := strings.TrimSpace(t[:at[0]]), strings.TrimSpace(t[at[1]:])
		asked, typed := r.asked(tail)
		if asked == nil || name == "" {
			continue
		}
		priced = true
		spec, fault := r.thing(name)
		if fault != nil {
			last = fault
			continue
		}
		var all []cost.Price
		for i := range asked {
			all = append(all, cost.Price{Spec: spec, Asked: asked[i], Typed: typed[i], Source: r.source, Date: r.date})
		}
		return all, r.check(all)
	}
	if !priced {
		return nil, &Fault{"price", "no price at its end", "write the thing and then its price: 3/4 tee .88"}
	}
	return nil, last
}

// between are what parts the prices of one thing, singly and by the pack: .98; 10 for 6.98.
var between = regexp.MustCompile(`\s*;\s*|,\s+|\s+(?:or|and|/)\s+`)

// asked reads a price, or several of one thing that are for so many each; nil where a text is none.
func (r *reader) asked(text string) (all []cost.Asked, typed []string) {
	if one, err := cost.Read(text); err == nil && !between.MatchString(text) {
		return []cost.Asked{one}, []string{text}
	}
	parts := between.Split(text, -1)
	packs := map[int]bool{}
	for _, t := range parts {
		one, err := cost.Read(t)
		if err != nil || packs[max(1, one.Pack)] {
			all = nil
			break
		}
		packs[max(1, one.Pack)] = true
		all, typed = append(all, one), append(typed, t)
	}
	if all == nil {
		if one, err := cost.Read(text); err == nil {
			return []cost.Asked{one}, []string{text}
		}
	}
	return all, typed
}

var (
	ounces = regexp.MustCompile(`(\d+)\s*(?:fl\.?\s*)?oz`)
	quart  = regexp.MustCompile(`\b(?:quart|qt)\b`)
	pint   = regexp.MustCompile(`\b(?:pint|pt)\b`)
)

// thing says what a name names.
func (r *reader) thing(name string) (s material.Spec, fault *Fault) {
	if known, ok := r.known[plain(name)]; ok {
		return known, nil
	}
	low := strings.ToLower(name)
	if strings.Contains(low, "cement") || strings.Contains(low, "primer") || strings.Contains(low, "glue") {
		return can(name, low)
	}
	items := reading.Read(name, "")
	if len(items) != 1 {
		return s, unknown(name)
	}
	it := items[0]
	if first, _, _ := strings.Cut(name, " "); it.Size == "" { // of a price one is a size, and no count
		it.Size, _ = catalog.ParseSize(first)
	}
	switch {
	case it.What == reading.Fitting && it.Kind == "":
		return s, &Fault{"thing", strconv.Quote(name) + " may be more than one fitting", "say which: " + kinds(it.Kinds)}
	case it.What == reading.Fitting:
		if it.Size == "" {
			return s, noSize(name)
		}
		s = material.Spec{Ware: material.Fitting, Kind: string(it.Kind), Size: string(it.Size)}
		if it.To != "" {
			s.Size += "x" + string(it.To)
		}
		return s, nil
	case it.What == reading.Stick || it.What == reading.Piece:
		if it.Size == "" {
			return s, noSize(name)
		}
		if it.Length == 0 {
			return s, &Fault{
				"length",
				"a price of pipe without the length of its stick",
				"write how long the stick is: 3/4 pipe 10 ft 4.98",
			}
		}
		return material.Spec{Ware: material.Pipe, Size: string(it.Size), Length: it.Length}, nil
	}
	return s, unknown(name)
}

func unknown(name string) *Fault {
	return &Fault{
		"thing",
		strconv.Quote(name) + " is nothing that is bought here",
		"write it as a list of yours names it, like 3/4 tee or 3/4 pipe, 10′ stick",
	}
}

func noSize(name string) *Fault {
	return &Fault{"size", strconv.Quote(name) + " has no size", "write the nominal size before it, like 3/4"}
}

func kinds(all []catalog.Kind) string {
	var words []string
	for _, k := range all {
		words = append(words, k.Words())
	}
	return strings.Join(words, " or ")
}

// can reads a can of cement or primer.
func can(name, low string) (s material.Spec, fault *Fault) {
	s.Ware = material.Cement
	switch {
	case strings.Contains(low, "one-step") || strings.Contains(low, "one step") || strings.Contains(low, "1-step"):
		s.Kind = "one-step"
	case strings.Contains(low, "primer") && !strings.Contains(low, "cement"):
		s.Ware = material.Primer
	case strings.Contains(low, "primer"):
		return s, &Fault{"thing", strconv.Quote(name) + " is primer and cement", "give each its own line"}
	}
	switch m := ounces.FindStringSubmatch(low); {
	case m != nil:
		s.Ounces, _ = strconv.Atoi(m[1])
	case quart.MatchString(low):
		s.Ounces = 32
	case pint.MatchString(low):
		s.Ounces = 16
	}
	if s.Ounces < 1 {
		return s, &Fault{"ounces", strconv.Quote(name) + " has no size of can", "write how much is in it, like 8 oz"}
	}
	return s, nil
}

// Write gives a book as CSV, by columns that [Read] reads.
func Write(b *cost.Book) [][]string {
	rows := [][]string{{"thing", "what", "kind", "size", "length", "diameter", "ounces", "price", "date", "source", "example"}}
	inches := func(l measure.Length) string {
		if l == 0 {
			return ""
		}
		return l.Format(measure.InInches, 0)
	}
	for _, p := range b.Prices {
		oz, example := "", ""
		if p.Ounces > 0 {
			oz = strconv.Itoa(p.Ounces)
		}
		if p.Example {
			example = "yes"
		}
		rows = append(rows, []string{
			p.Spec.Words(), string(p.Ware), p.Kind, p.Size, inches(p.Length), inches(p.Diameter), oz, p.Asked.Words(), p.Date, p.Source, example,
		})
	}
	return rows
}
