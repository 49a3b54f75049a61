package pieces

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// atom is a part of a line between what parts it: a number, or words.
type atom struct {
	text   string
	before string // what parts it from the one before: "", ",", "x", "@", "of", "-"
	length measure.Length
	read   bool   // it is a length
	whole  int    // of a bare whole number; -1 for none
	size   string // the nominal size that it may be; "" for none
	fault  *Fault
}

var (
	// parting is what parts the numbers of a line.
	parting = regexp.MustCompile(`\s*(?:[,;\t|:=]|\s[xX*-]\s|[×@]|\s(?:at|of|by)\s|\s[–—]\s)\s*`)
	// counted are the ways to say how many, without more.
	counted = []*regexp.Regexp{
		regexp.MustCompile(`(?i)\b(?:qty\.?|quantity|count|no\.|number|(?:pcs|pieces)\s*[:=])\s*[:=]?\s*(\d+)\b`),
		regexp.MustCompile(
			`(?i)(?:^|[\s,;(|])(\d+)\s*-?\s*(?:pcs?\.?|pieces?|ea\.?|each|off|nos?\.?|times|cuts?|lengths?|sticks?)(?:$|[\s,;)|:@×])`,
		),
		regexp.MustCompile(`(?i)(?:^|[\s,;"'′″)])[x×*](\d+)\s*(?:$|[,;|)])`),
		regexp.MustCompile(`(?i)^(\d+)[x×*](?:\s|$)`),
		regexp.MustCompile(`\(\s*[x×]?\s*(\d+)\s*[x×]?\s*\)`),
		regexp.MustCompile(`^(\d+)\s*@`),
		regexp.MustCompile(`(?i)^(\d+)\s+(?:at|of)\s`),
	}
	// sized says of which pipe a piece is.
	sized = regexp.MustCompile(
		`(?i)(?:\b(?:of|from|size)\s+|^|[\s,;(])(\d/\d|\d[- ]\d/\d|\d)\s*(?:in\.?|inch(?:es)?|"|″|'')?\s*(?:sch(?:edule)?\.?\s*\d+\s*)?(?:pvc|pipes?|tub(?:e|ing))(?:\s+(?:pvc|pipes?))?\b|\bsize\s+(\d+(?:[- ]\d+/\d+|/\d+)?)`,
	)
	// ofPipe is that something is pipe, which says nothing here.
	ofPipe = regexp.MustCompile(`(?i)(\S)\s+(?:of\s+)?(?:pvc(?:\s+pipes?)?|pipes?)\b`)
	// named is what a piece is called, before its numbers.
	named = regexp.MustCompile(`^([A-Za-z][A-Za-z ]{0,40}?)\s*[:=)–-]\s*|^([A-Z]{1,2})\s+`)
	// behind is what it is called behind them.
	behind = regexp.MustCompile(`[\s,;]+([A-Za-z][A-Za-z ]{2,40})$`)
	// leading is what joins a count to its length.
	leading = regexp.MustCompile(`^[\s,]*(?:at|of|@|×)\s+`)
	bullet  = regexp.MustCompile(`^(?:[-*•·]\s+|\d+\)\s+)`)
)

// units are words that end a length and are no name.
var units = map[string]bool{
	"in": true, "inch": true, "inches": true, "ft": true, "foot": true, "feet": true, "mm": true, "cm": true, "m": true, "metre": true, "metres": true,
	"meter": true, "meters": true, "long": true, "each": true,
}

// line reads one line as people write it. A line with only a size gives it to those below.
func (r *reader) line(n int, text string) {
	if text == "" || strings.HasPrefix(text, "#") || strings.HasPrefix(text, "//") {
		return
	}
	row := Row{Line: n, Text: text, Count: 1, Size: r.size}
	s := bullet.ReplaceAllString(text, "")
	if strings.HasSuffix(s, ":") {
		if m := sized.FindStringSubmatch(strings.TrimSuffix(s, ":")); m != nil {
			r.size = sizeName(m[1] + m[2])
			return
		}
		if size, ok := catalog.ParseSize(strings.TrimSuffix(s, ":")); ok {
			r.size = string(size)
			return
		}
		if !strings.ContainsAny(s, "0123456789") {
			return // a heading
		}
	}
	s = r.name(&row, s)
	haveSize := false
	if m := sized.FindStringSubmatchIndex(s); m != nil {
		at := 2
		if m[at] < 0 {
			at = 4
		}
		if size, ok := catalog.ParseSize(s[m[at]:m[at+1]]); ok {
			row.Size, haveSize = string(size), true
			s = s[:m[0]] + " , " + s[m[1]:]
		}
	}
	if !haveSize {
		s = ofPipe.ReplaceAllString(s, "$1")
	}
	if lines, written := several(s); lines != nil {
		for i, one := range lines {
			its := row
			its.Text = written[i]
			if its.Fault = r.counts(&its, one, haveSize); len(lines) == 1 {
				its.Text = row.Text
			}
			r.add(its)
		}
		return
	}
	row.Fault = r.counts(&row, s, haveSize)
	r.add(row)
}

// counts takes how many there are off a line, and reads what is left of it.
func (r *reader) counts(row *Row, s string, haveSize bool) *Fault {
	haveCount := false
	for _, re := range counted {
		m := re.FindStringSubmatchIndex(s)
		if m == nil {
			continue
		}
		c, fault := count(s[m[2]:m[3]])
		if fault != nil {
			return fault
		}
		row.Count, haveCount = c, true
		keep := ""
		if last := s[m[1]-1]; last == ' ' || last == ',' {
			keep = ","
		}
		s = s[:m[0]] + " , " + leading.ReplaceAllString(keep+s[m[1]:], "")
		break
	}
	if fault := r.numbers(row, s, haveCount, haveSize); fault != nil {
		return fault
	}
	if row.Count == 0 {
		return &Fault{"count", "none of it", "write how many, or leave the line out"}
	}
	return nil
}

// name takes what a piece is called off its line.
func (r *reader) name(row *Row, s string) string {
	if m := named.FindStringSubmatch(s); m != nil {
		word := strings.TrimSpace(m[1] + m[2])
		low := strings.ToLower(word)
		if low != "qty" && low != "count" && low != "size" && low != "pcs" && word != "x" && low != "about" && low != "length" {
			row.Name = word
			return strings.TrimSpace(s[len(m[0]):])
		}
	}
	if m := behind.FindStringSubmatchIndex(s); m != nil && strings.ContainsAny(s[:m[0]], "0123456789") {
		word := strings.ToLower(s[m[2]:m[3]])
		first, _, _ := strings.Cut(word, " ")
		if !units[first] && first != "and" && !sized.MatchString(s[m[0]:]) && !strings.Contains(word, "pipe") &&
			!strings.Contains(word, "pvc") &&
			!countWord[first] {
			row.Name = strings.TrimSpace(s[m[2]:m[3]])
			return s[:m[0]]
		}
	}
	return s
}

var countWord = map[string]bool{
	"pcs":     true,
	"pieces":  true,
	"piece":   true,
	"off":     true,
	"times":   true,
	"cuts":    true,
	"lengths": true,
	"sticks":  true,
	"nos":     true,
}

// atoms parts a line at what parts its numbers.
func (r *reader) atoms(s string) (all []atom) {
	before, from := "", 0
	add := func(text, then string) {
		if text = strings.Trim(text, " ,;.()"); text != "" {
			a := atom{text: text, before: before, whole: -1}
			if n, err := strconv.Atoi(text); err == nil {
				a.whole = n
			}
			var fault *Fault
			if a.length, fault = r.length("length", text); fault == nil {
				a.read = true
			} else {
				a.fault = fault
			}
			if size, ok := catalog.ParseSize(text); ok && !strings.ContainsAny(text, `"'′″mc`) {
				a.size = string(size)
			}
			all = append(all, a)
			before = then
		} else if before == "" || then != "," {
			before = then
		}
	}
	for _, m := range parting.FindAllStringIndex(s, -1) {
		add(s[from:m[0]], strings.ToLower(strings.TrimSpace(s[m[0]:m[1]])))
		from = m[1]
	}
	add(s[from:], "")
	return all
}

// fraction says whether a number is written with a fraction, as nominal sizes are and counts are not.
func (a *atom) fraction() bool { return a.whole < 0 && a.size != "" }

// numbers says which of the numbers of a line is its size, which its length, and which its count.
func (r *reader) numbers(row *Row, s string, haveCount, haveSize bool) *Fault {
	all := r.atoms(s)
	if i := slices.IndexFunc(all, func(a atom) bool { return !strings.ContainsAny(a.text, "0123456789") }); i >= 0 && row.Name == "" &&
		len(all) == 4 {
		row.Name = all[i].text // 3/4, 23 5/8, legs, 2
		all = slices.Delete(all, i, i+1)
	}
	belong := []string{"size", "length", "count"}
	switch {
	case haveCount && haveSize:
		belong = []string{"length"}
	case haveCount && len(all) > 1:
		belong = []string{"size", "length"}
	case haveSize && len(all) > 1:
		belong = []string{"length", "count"}
	case len(all) == 2 && all[0].fraction() && all[1].read && (all[1].whole > 4 || all[1].whole < 0) && all[0].length < all[1].length:
		belong = []string{"size", "length"} // 3/4, 23 5/8
	case len(all) == 2:
		belong = []string{"length", "count"}
	case len(all) <= 1:
		belong = []string{"length"}
	}
	if len(all) == 0 {
		return &Fault{"length", "no length", "write how long it is: 4 @ 23 5/8"}
	}
	if len(all) > len(belong) {
		return &Fault{
			"line", fmt.Sprintf("%d fields where %d belong", len(all), len(belong)),
			"write size, length, count; a comma inside a length needs quotes",
		}
	}
	if haveCount && len(all) == 2 && row.Name == "" && !strings.ContainsAny(all[0].text, "0123456789") && all[1].read {
		row.Name, all, belong = all[0].text, all[1:], []string{"length"} // legs 4 each 30 in
	}
	order := arrange(all, belong, row)
	for i, what := range order {
		a := &all[i]
		switch what {
		case "size":
			if a.size == "" {
				return &Fault{"size", strconv.Quote(a.text) + " is no size of pipe", "write the nominal size, like 3/4"}
			}
			row.Size = a.size
		case "length":
			if !a.read {
				return a.fault
			}
			if a.length == 0 {
				return &Fault{"length", "a piece of no length", "leave the line out"}
			}
			row.Length = a.length
		case "count":
			n, fault := count(a.text)
			if fault != nil {
				return fault
			}
			row.Count = n
		}
	}
	return nil
}

// arrange says what each number is. They stand as they belong, unless they cannot: 23 5/8, 3/4 is a
// length of 3/4 pipe, and of two whole numbers at a cross the smaller is the count.
func arrange(all []atom, belong []string, row *Row) []string {
	switch strings.Join(belong, " ") {
	case "length count":
		a, b := &all[0], &all[1]
		cross := b.before == "x" || b.before == "×" || b.before == "*" || b.before == "by" || b.before == "-"
		switch {
		case b.before == "@" || b.before == "at" || b.before == "of":
			return []string{"count", "length"}
		case a.whole >= 0 && b.whole < 0 && b.read:
			return []string{"count", "length"} // 4 × 23 5/8
		case cross && a.whole >= 0 && b.whole >= 0 && a.whole != b.whole:
			large, small := max(a.whole, b.whole), min(a.whole, b.whole)
			row.Other = fmt.Sprintf("for %d pieces of %d write %d pcs %d", large, small, large, small)
			if a.whole < b.whole {
				return []string{"count", "length"}
			}
		}
	case "size length":
		if all[0].size == "" && all[1].size != "" || all[1].fraction() && !all[0].fraction() && all[1].length < all[0].length {
			return []string{"length", "size"}
		}
	case "size length count":
		if len(all) == 3 && all[0].size == "" && all[2].size != "" && all[1].read && all[0].whole < 0 {
			return []string{"length", "count", "size"}
		}
		if len(all) == 3 && all[0].whole >= 0 && all[2].fraction() && all[1].read {
			return []string{"count", "length", "size"}
		}
	}
	return belong
}
