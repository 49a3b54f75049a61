package reading

import (
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Read reads a list. A size that is not said is the last that was, or usual.
// A line that says nothing to read, as a heading does, is left out.
func Read(text string, usual catalog.Size) []Item {
	items := []Item{}
	r := &reader{size: usual}
	for n, line := range strings.Split(text, "\n") {
		for _, it := range r.line(line) {
			it.Line = n + 1
			for k := range it.Others {
				it.Others[k].Line = n + 1
			}
			items = append(items, it)
		}
	}
	return items
}

type reader struct{ size catalog.Size }

func (r *reader) line(line string) (items []Item) {
	s := strings.ToLower(plainer.Replace(line))
	if strings.Trim(s, " \t-=_*#•.") == "" || heading(s) {
		return nil
	}
	trim := func(seg []token) string {
		return strings.Trim(strings.TrimSpace(s[seg[0].at:seg[len(seg)-1].end]), " ,;")
	}
	all := lex(s)
	for _, seg := range segments(all) {
		it, ok := r.item(seg)
		if !ok {
			continue
		}
		it.Text = trim(seg)
		for k := range it.Others {
			it.Others[k].Text = it.Text
		}
		items = append(items, it)
	}
	if len(items) == 0 && len(all) > 0 && !onlySize(all) {
		return []Item{{Text: strings.TrimSpace(line), What: Unknown, Ask: "what is this?"}}
	}
	return items
}

// heading says whether a line only names columns or what follows.
func heading(s string) bool {
	s = strings.TrimSpace(s)
	if strings.HasSuffix(s, ":") && !strings.ContainsAny(s, "0123456789") {
		return true
	}
	words := strings.FieldsFunc(s, func(c rune) bool { return c == ',' || c == ' ' || c == ';' || c == '|' })
	for _, w := range words {
		switch w {
		case "kind", "type", "item", "part", "parts", "size", "count", "qty", "quantity", "length",
			"description", "number", "pcs", "each", "list", "needed", "materials", "material":
		default:
			return false
		}
	}
	return len(words) > 0
}

// onlySize is a line that sets the size of those that follow: "all 3/4 in".
func onlySize(all []token) bool {
	n := 0
	for _, t := range all {
		if t.kind == tNumber && t.size != "" {
			n++
		}
	}
	return n == 1 && len(all) <= 6
}

// segments cuts a line at its commas and ands, and before the count of a
// second thing; what has no name of its own goes to the thing before it.
func segments(all []token) (out [][]token) {
	var cur []token
	flush := func() {
		if len(cur) > 0 {
			out = append(out, cur)
		}
		cur = nil
	}
	for i := 0; i < len(all); i++ {
		t := all[i]
		if t.kind == tBreak {
			flush()
			continue
		}
		if t.kind == tName && !t.name.weak && strong(cur) >= 0 && !modifies(all[:i], cur, t) {
			// the numbers right before it are its own
			k := len(cur)
			for k > 0 && (cur[k-1].kind == tNumber || cur[k-1].kind == tTimes || cur[k-1].kind == tWord) && k-1 > strong(cur) {
				k--
			}
			if next := cur[k:]; hasNumber(next) {
				out, cur = append(out, cur[:k:k]), append([]token(nil), next...)
			}
		}
		cur = append(cur, t)
	}
	flush()
	// a part without a name belongs to the one before it, or to the one after
	var joined [][]token
	for i, seg := range out {
		nameless := strong(seg) < 0 && !measured(seg)
		switch {
		case strong(seg) < 0 && hasLength(seg) && i+1 < len(out) && strong(out[i+1]) >= 0 &&
			out[i+1][strong(out[i+1])].name.what != Fitting && !hasLength(out[i+1]):
			out[i+1] = append(append([]token(nil), seg...), out[i+1]...)
		case nameless && hasNumber(seg) && len(joined) > 0 && strong(joined[len(joined)-1]) >= 0 && !complete(joined[len(joined)-1]):
			joined[len(joined)-1] = append(joined[len(joined)-1], seg...)
		case nameless && hasNumber(seg) && i+1 < len(out) && !hasCount(out[i+1]):
			out[i+1] = append(append([]token(nil), seg...), out[i+1]...)
		default:
			joined = append(joined, seg)
		}
	}
	return joined
}

// modifies says whether a name only says more of what a segment is about: the
// sticks of pipe, the pieces cut to length.
func modifies(_ []token, cur []token, t token) bool {
	s := cur[strong(cur)].name
	return s.what != Fitting && t.name.what != Fitting && t.name.what != Unknown
}

// strong is the place of a segment's own name; -1 where it has none. A weak
// one counts where there is no other.
func strong(seg []token) int {
	weak := -1
	for i, t := range seg {
		if t.kind != tName {
			continue
		}
		if !t.name.weak {
			return i
		}
		weak = i
	}
	return weak
}

func hasNumber(seg []token) bool {
	for _, t := range seg {
		if t.kind == tNumber {
			return true
		}
	}
	return false
}

func hasCount(seg []token) bool {
	for _, t := range seg {
		if t.kind == tNumber && !t.unit && t.whole > 0 {
			return true
		}
	}
	return false
}

// complete says whether a segment has both a count and a size or length.
func complete(seg []token) bool {
	if seg[strong(seg)].name.what != Fitting {
		return hasLength(seg)
	}
	n := 0
	for _, t := range seg {
		if t.kind == tNumber {
			n++
			if t.loose {
				n++
			}
		}
	}
	return n >= 2 && !(seg[strong(seg)].name.two && n < 3)
}

// hasLength says whether a segment says how long something is.
func hasLength(seg []token) bool {
	bare := 0
	for _, t := range seg {
		switch {
		case t.kind != tNumber:
		case t.feet || t.unit && t.value > 4*measure.Inch || !t.unit && t.whole == 0 && t.size == "" && !t.loose:
			return true
		case !t.unit && t.whole > 0:
			bare++
		}
	}
	return bare > 1
}

// measured says whether a segment without a name is a piece all the same: a
// count and a length.
func measured(seg []token) bool {
	times, lengths, bare, words := false, 0, 0, 0
	for _, t := range seg {
		switch {
		case t.kind == tTimes:
			times = true
		case t.kind == tWord && len(t.text) > 2:
			words++
		case t.kind == tNumber && t.unit && t.value > 4*measure.Inch:
			lengths++
		case t.kind == tNumber:
			bare++
		}
	}
	return lengths > 0 && bare > 0 && (words == 0 || times) || times && bare+lengths >= 2
}

func (r *reader) item(seg []token) (Item, bool) {
	at := strong(seg)
	if at < 0 && !measured(seg) {
		for _, t := range seg {
			if t.kind == tNumber && t.size != "" && (t.unit || t.whole == 0) && !hasCount(seg) {
				r.size = t.size // all of 3/4
				return Item{}, false
			}
		}
		if hasNumber(seg) {
			return Item{What: Unknown, Ask: "what is this?"}, true
		}
		return Item{}, false
	}
	if at >= 0 && seg[at].name.what == Unknown {
		return Item{What: Unknown, Ask: "no part of a frame that is planned here; keep it on your own list"}, true
	}
	for _, t := range seg {
		if t.bad {
			return Item{What: Unknown, Ask: "how many, and how large? " + t.text + " makes no number"}, true
		}
	}
	if at >= 0 && seg[at].name.what == Fitting {
		return r.fitting(seg, at)
	}
	return r.pipe(seg, at)
}

// fitting tells the count and the sizes of a fitting apart.
func (r *reader) fitting(seg []token, at int) (Item, bool) {
	n := seg[at].name
	it := Item{What: Fitting, Kinds: n.kinds}
	if len(n.kinds) == 1 {
		it.Kind, it.Kinds = n.kinds[0], nil
	}
	var sizes []catalog.Size
	var bare []token
	var loose *token
	most := 1
	if n.two {
		most = 2
	}
	for i, t := range seg {
		switch {
		case t.kind != tNumber:
		case t.loose && t.size == "" && len(sizes) < most: // 4 3/4 tees: four of 3/4
			if s := catalog.Size(t.parts[1]); s.Known() && !t.unit || s.Known() {
				sizes = append(sizes, s)
				bare = append(bare, number([]string{"", t.parts[0], "", "", "", ""}))
			}
		case t.loose && len(sizes) < most:
			loose = &seg[i]
		case t.size != "" && (t.unit || t.whole == 0) && len(sizes) < most:
			sizes = append(sizes, t.size)
		case t.size != "" && t.whole > 0 && len(sizes) > 0 && len(sizes) < most && i > 0 &&
			(seg[i-1].kind == tTimes || seg[i-1].text == "to" || seg[i-1].text == "by"):
			sizes = append(sizes, t.size)
		case n.two && t.size != "" && t.whole > 0 && len(sizes) == 0 && reducesTo(seg, i):
			sizes = append(sizes, t.size)
		case !t.unit && t.whole > 0:
			bare = append(bare, t)
		}
	}
	if loose != nil {
		if len(bare) > 0 || len(sizes) > 0 && n.two { // the count is elsewhere: 6 tees, 1 1/2
			sizes = append([]catalog.Size{loose.size}, sizes...)
		} else { // one of 1/2, or of 1-1/2? not to be guessed
			count := number([]string{"", loose.parts[0], "", "", "", ""}).whole
			it.Count, it.Size = count, catalog.Size(loose.parts[1])
			other := it
			other.Count, other.Size = 1, loose.size
			it.Others = []Item{other}
			it.Ask = loose.parts[0] + " of " + loose.parts[1] + ", or of " + string(loose.size) + "?"
			r.size = it.Size
			return r.sized(it, nil), true
		}
	}
	if len(sizes) == 0 && len(bare) >= 2 { // tee, 1, 6: the size stands first in columns, the count before a name
		first, second := bare[0], bare[1]
		if first.at > seg[at].at && first.size != "" {
			sizes, bare = append(sizes, first.size), bare[1:]
		} else if second.size != "" {
			sizes, bare = append(sizes, second.size), bare[:1]
		}
	}
	it.Count = 1
	if len(bare) > 0 {
		it.Count = bare[0].whole
	}
	return r.sized(it, sizes), true
}

// reducesTo says whether a number is followed by to, by or x and a size.
func reducesTo(seg []token, i int) bool {
	return i+2 < len(seg) && (seg[i+1].kind == tTimes || seg[i+1].text == "to" || seg[i+1].text == "by") && seg[i+2].kind == tNumber &&
		seg[i+2].size != ""
}

// sized gives an item its sizes, the larger first.
func (r *reader) sized(it Item, sizes []catalog.Size) Item {
	if len(sizes) == 2 && catalog.Compare(sizes[0], sizes[1]) < 0 {
		sizes[0], sizes[1] = sizes[1], sizes[0]
	}
	switch {
	case len(sizes) > 0:
		it.Size = sizes[0]
		r.size = it.Size
	case it.Size == "":
		it.Size, it.Assumed = r.size, true
	}
	if len(sizes) > 1 {
		it.To = sizes[1]
	}
	if len(it.Kinds) > 1 {
		it.Ask = "which of the two is it?"
	}
	reduces := it.Kind == catalog.Bushing || it.Kind == catalog.ReducingCoupling || len(it.Kinds) > 1 && it.Kinds[0] == catalog.Bushing
	if reduces && it.To == "" && it.Ask == "" {
		it.Ask = "down to which size?"
	}
	return it
}
