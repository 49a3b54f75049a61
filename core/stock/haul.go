package stock

import (
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/packing"
)

// division is one way to cut a stick in the shop: into so many parts, of which some have
// pieces. Those with pieces take the ends of the stick, which the shop does not cut, and the
// empty ones stand before the last of them; or one that is empty begins the stick, so that no
// part with pieces loses what is trimmed off that end.
type division struct {
	parts, full int
	emptyFirst  bool
}

// divisions lists the ways to cut a stick into so many parts.
func (p *Problem) divisions(parts int) (all []division) {
	for full := 1; full <= parts; full++ {
		all = append(all, division{parts, full, false})
		if full < parts && p.EndTrim > 0 {
			all = append(all, division{parts, full, true})
		}
	}
	return all
}

// places says which of the parts have pieces.
func (d division) places() []int {
	at := make([]int, d.full)
	for j := range at {
		if at[j] = j; d.emptyFirst {
			at[j]++
		}
	}
	if d.full > 1 || d.emptyFirst {
		at[d.full-1] = d.parts - 1
	}
	return at
}

// cutEnds is how many ends of a part the shop cuts.
func (d division) cutEnds(part int) int {
	n := 2
	if part == 0 {
		n--
	}
	if part == d.parts-1 {
		n--
	}
	return n
}

// off is what the shop's cuts may take of a part, and what is trimmed off it.
func (p *Problem) off(d division, part int) measure.Length {
	off := p.Haul.Error * measure.Length(d.cutEnds(part))
	if part == 0 {
		off += p.EndTrim
	}
	return off
}

// hauled gives the kinds of bin that a stick is which is cut in the shop: in as few parts as
// can be carried, and in more, where pieces do not go into so few.
//
// A piece and its kerf being one item, a part holds items that come to its length and a
// kerf, less what is off it. A cut in the shop takes the place of one at home; each part
// that stays empty costs one more.
func (p *Problem) hauled(length measure.Length, whole packing.Kind) (kinds []packing.Kind) {
	limit, kerf := p.Haul.Limit, p.Saw.Kerf
	least := p.fewestParts(length)
	for parts := least; parts <= 2*least-1; parts++ {
		k := whole
		k.Cuts, k.Room = parts-1, 0
		for _, d := range p.divisions(parts) {
			w := packing.Way{Room: int64(length + kerf - kerf*measure.Length(parts-d.full))}
			if d.emptyFirst {
				w.Room -= int64(p.EndTrim)
			}
			for _, at := range d.places() {
				off := p.off(d, at)
				w.Room -= int64(off)
				w.Parts = append(w.Parts, int64(limit+kerf-off))
			}
			k.Ways = append(k.Ways, w)
			k.Room = max(k.Room, w.Room)
		}
		kinds = append(kinds, k)
	}
	return kinds
}

// asMayBe stands for as few parts as the pieces of a stick go into.
const asMayBe = 0

// together makes one kind of those of a stick in fewer and in more parts.
func together(kinds []packing.Kind) packing.Kind {
	k := kinds[0]
	k.Ways = slices.Clone(k.Ways)
	for _, more := range kinds[1:] {
		k.Ways = append(k.Ways, more.Ways...)
		k.Room = max(k.Room, more.Room)
	}
	return k
}

// fewestParts is into how many parts a length has to be cut to be carried.
func (p *Problem) fewestParts(length measure.Length) int {
	limit, kerf := p.Haul.Limit, p.Saw.Kerf
	return int((length + kerf + limit + kerf - 1) / (limit + kerf))
}

// Part is what one stick that is cut in the shop is carried as.
type Part struct {
	Length measure.Length `json:"length"`
	Pieces int            `json:"pieces"` // so many of the stick's, in their order
	Left   measure.Length `json:"left"`   // what stays of it, after kerfs
}

// Marks are where the shop cuts a stick, from one end: each takes a kerf beyond its mark.
func (s *Stick) Marks(kerf measure.Length) (at []measure.Length) {
	from := measure.Length(0)
	for _, p := range s.Parts[:max(0, len(s.Parts)-1)] {
		at = append(at, from+p.Length)
		from += p.Length + kerf
	}
	return at
}

// carry divides a stick with its pieces into parts, and chooses how long each is: as long as
// its pieces need, with a fair share of what is over for real cuts, the rest with the last;
// and where it can be, a round figure that a shop cuts willingly.
func (p *Problem) carry(s *Stick, parts int) {
	limit, kerf := p.Haul.Limit, p.Saw.Kerf
	sizes, sum := make([]int64, len(s.Pieces)), int64(0)
	for i, pc := range s.Pieces {
		sizes[i] = int64(pc.Length + kerf)
		sum += sizes[i]
	}
	var group [][]Piece
	var need []measure.Length // of each part; then with its share for real cuts
seek:
	for _, kind := range p.hauled(s.Length, packing.Kind{}) {
		if parts != asMayBe && parts != kind.Cuts+1 {
			continue
		}
		for n, d := range p.divisions(kind.Cuts + 1) {
			w := kind.Ways[n]
			into := packing.Divide(sizes, w.Parts)
			if sum > w.Room || into == nil {
				continue
			}
			parts = d.parts
			group, need = make([][]Piece, parts), make([]measure.Length, parts)
			at := d.places()
			for i, j := range into {
				group[at[j]] = append(group[at[j]], s.Pieces[i])
			}
			for j := range need {
				if need[j] = p.off(d, j); len(group[j]) == 0 {
					need[j] = 0
				}
			}
			if d.emptyFirst {
				need[0] = p.EndTrim
			}
			break seek
		}
	}
	want := make([]measure.Length, parts)
	rest := s.Length - kerf*measure.Length(parts-1)
	for j, g := range group {
		for _, pc := range g {
			need[j] += pc.Length + kerf
		}
		if len(g) > 0 {
			need[j] -= kerf // none after the last
		}
		rest -= need[j]
	}
	for j, g := range group { // a share for real cuts
		if len(g) > 0 {
			share := min(p.Saw.Edge(len(g)), max(0, limit-need[j]), max(0, rest))
			need[j] += share
			rest -= share
		}
		want[j] = need[j]
	}
	for j := parts - 1; j >= 0; j-- { // what is over with the last, as far as it may be carried
		more := min(rest, limit-want[j])
		want[j] += more
		rest -= more
	}
	p.roundMarks(need, want)
	s.Parts = make([]Part, parts)
	s.Pieces = s.Pieces[:0:0]
	for j, g := range group {
		s.Parts[j] = Part{Length: want[j], Pieces: len(g)}
		s.Pieces = append(s.Pieces, g...)
	}
}

// roundMarks moves what is over from one part to the next so that the shop's marks are round
// figures, as far as every part keeps what it needs and may be carried.
func (p *Problem) roundMarks(need, length []measure.Length) {
	h, kerf := p.Haul, p.Saw.Kerf
	from := measure.Length(0)
	for j := range len(length) - 1 {
		least, most := need[j], h.Limit
		both := length[j] + length[j+1]
		least, most = max(least, both-h.Limit), min(most, both-need[j+1])
		mark := from + length[j]
		for _, step := range []measure.Length{measure.Inch, measure.Inch / 2, measure.Inch / 4, measure.Inch / 8, measure.Inch / 16} {
			up := (mark + step - 1) / step * step
			down := mark / step * step
			if up-from <= most {
				mark = up
				break
			}
			if down-from >= least {
				mark = down
				break
			}
		}
		length[j+1] += length[j] - (mark - from)
		length[j] = mark - from
		from = mark + kerf
	}
}
