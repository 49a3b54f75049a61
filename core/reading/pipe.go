package reading

import (
	"strings"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// pipe tells the count, the length and the size of pipe apart.
func (r *reader) pipe(seg []token, at int) (Item, bool) {
	it := Item{What: Piece, Count: 1}
	if at >= 0 {
		it.What = seg[at].name.what
	}
	var length *token
	var bare []token
	size := catalog.Size("")
	for i := range seg {
		t := &seg[i]
		if t.kind != tNumber {
			continue
		}
		named := ofPipe(seg, i)
		switch {
		case t.feet || t.unit && t.size == "":
			if length == nil {
				length = t
			}
		case t.loose && !t.unit && size == "" && named && t.size == "" && catalog.Size(t.parts[1]).Known(): // 4 3/4 pipes
			size = catalog.Size(t.parts[1])
			bare = append(bare, number([]string{"", t.parts[0], "", "", "", ""}))
		case t.size != "" && size == "" && (named || t.unit && hasLonger(seg, t) || t.whole == 0 && hasLonger(seg, t)):
			size = t.size
		case t.unit || t.whole == 0:
			if length == nil {
				length = t
			}
		default:
			bare = append(bare, *t)
		}
	}
	times := false
	for _, t := range seg {
		times = times || t.kind == tTimes
	}
	if length == nil && len(bare) >= 2 { // 2 x 36, 4 pieces at 16
		length, bare = &bare[1], bare[:1]
	} else if length == nil && len(bare) == 1 && bare[0].whole > 12 && !times {
		length, bare = &bare[0], nil
	}
	if len(bare) > 0 {
		it.Count = bare[0].whole
	}
	if size != "" {
		it.Size, r.size = size, size
	} else {
		it.Size, it.Assumed = r.size, true
	}
	if length == nil {
		if it.What == Piece || size == "" || at >= 0 && seg[at].name.weak && len(bare) == 0 {
			it.Ask = "how long?"
			if size == "" && len(bare) == 0 {
				return Item{What: Unknown, Ask: "what is this?"}, at >= 0 && !seg[at].name.weak
			}
			return it, true
		}
		it.Length = 10 * measure.Foot
		it.Ask = "how long are they? 10 ft is usual"
		return it, true
	}
	it.Length = length.value
	switch { // what is as long as pipe is sold is a stick, unless it is said to be cut
	case at < 0 || seg[at].name.what == Piece:
		it.What = Piece
		if length.feet && it.Length >= 10*measure.Foot && it.Length%(10*measure.Foot) == 0 && !says(seg, "cut") {
			it.What = Stick
		}
	case it.Length < 2*measure.Foot || !length.feet && it.Length%(5*measure.Foot) != 0 || it.Length%measure.Foot != 0:
		it.What = Piece
	}
	return it, true
}

func says(seg []token, word string) bool {
	for _, t := range seg {
		if strings.HasPrefix(t.text, word) {
			return true
		}
	}
	return false
}

// ofPipe says whether a number stands right before the word for pipe.
func ofPipe(seg []token, i int) bool {
	for k := i + 1; k < len(seg) && k <= i+4; k++ {
		switch t := seg[k]; {
		case t.kind == tName && t.name.weak:
			return true
		case t.kind == tNumber && t.text != "40":
			return false
		case t.kind == tName:
			return false
		}
	}
	return i > 0 && seg[i-1].kind == tName && seg[i-1].name.weak || i > 0 && seg[i-1].text == "of"
}

// hasLonger says whether another number of a segment is a length.
func hasLonger(seg []token, than *token) bool {
	for i := range seg {
		if t := &seg[i]; t.kind == tNumber && t != than && (t.feet || t.value > than.value && (t.unit || t.value > 4*measure.Inch)) {
			return true
		}
	}
	return false
}
