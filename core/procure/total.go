package procure

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// places finds the index of each pipe of each lot by its id.
func places(lots []Lot) []map[string]int {
	at := make([]map[string]int, len(lots))
	for f := range lots {
		at[f] = map[string]int{}
		for i := range lots[f].Pipes {
			at[f][lots[f].Pipes[i].Pipe] = i
		}
	}
	return at
}

// total puts the plan of a size into the purchase, what is there with what is still to be
// cut and bought, and gives its lines of the bill.
func (p *Purchase) total(c *cutting, o *Order, at []map[string]int) (lines []material.Line) {
	for f := range at { // which of them each piece is from is told anew
		for _, i := range at[f] {
			if p.sizes[f][i] == c.size {
				p.Placed[f][i].Stick = 0
			}
		}
	}
	m := &c.stock
	t := PipeTotal{posed: c, Size: c.size, Stock: *m, Basis: c.basis, Net: m.Net, Sticks: []Stick{}, Need: []Needed{}}
	if used := m.Net + m.Kerf + m.Left + o.EndTrim*measure.Length(len(m.Sticks)); used > 0 {
		t.Yield = float64(m.Net) / float64(used)
	}
	t.Net = 0
	for i := range c.wants {
		t.Pieces, t.Net = t.Pieces+1, t.Net+c.wants[i].length
	}
	p.earlier(&t, c, o, at)
	p.trims(&t, c, at)
	p.chosen(&t, c, o, at)
	p.number(&t, o.Work, at)
	p.exist(&t, c, o.Work)
	for _, n := range p.needed(&t, c, o.Work) {
		where, letters := p.cutFrom(&t, n.Length)
		lines = append(lines, material.Line{Spec: stickSpec(t.Size, n.Length), Quantity: n.Count + n.Home, Home: n.Home, Unit: "stick",
			Where: where, For: letters, Rule: "the fewest or cheapest sticks that give every piece"})
	}
	for _, d := range m.Lacking {
		line := &p.Cuts[c.of[d.Demand]]
		n := d.Count
		t.TooLong = append(t.TooLong, line.Letter)
		l := material.Line{
			Spec: stickSpec(t.Size, line.Cut), Quantity: n, Unit: material.Piece,
			Rule: "no stick on sale holds it: still to be found",
		}
		for _, r := range line.Pipes {
			l.Where = append(l.Where, material.Place{Frame: r.Frame, Kind: "pipe", ID: r.Pipe})
		}
		lines = append(lines, l)
	}
	for _, n := range t.Need {
		p.Totals.Sticks += n.Count
		p.Totals.Bought += n.Got
	}
	p.Totals.Proven = p.Totals.Proven && m.Proven
	t.Stock.Sticks = []stock.Stick{}
	p.Pipe = append(p.Pipe, t)
	return lines
}

// number gives the sticks of a size their numbers: what is written on one stays, the others are counted on in their order.
// Parts of a stick on which a number is written have it, too.
func (p *Purchase) number(t *PipeTotal, w *record.Work, at []map[string]int) {
	written, taken := map[string]int{}, map[int]bool{}
	for i := range w.Sticks {
		if s := &w.Sticks[i]; s.Size == t.Size && s.Number > 0 {
			written[s.ID], taken[s.Number] = s.Number, true
			if s.Of != "" {
				written[s.Of] = s.Number
			}
		}
	}
	next := 1
	for n := range t.Sticks {
		s := &t.Sticks[n]
		if s.Number = written[s.ID]; s.Number == 0 && s.Of != nil {
			s.Number = written[s.Of.ID]
		}
		if s.Number == 0 {
			for taken[next] {
				next++
			}
			s.Number, taken[next] = next, true
			if s.ID != "" { // an earlier stick from which more is cut is one with that
				written[s.ID] = next
			}
		}
	}
	for f := range at {
		for _, i := range at[f] {
			if from := &p.Placed[f][i]; from.Stick > 0 && p.sizes[f][i] == t.Size {
				from.Stick = t.Sticks[from.Stick-1].Number
			}
		}
	}
}

// from tells a pipe's first copy which stick its piece comes from.
func (p *Purchase) from(ref PieceRef, stick int, at []map[string]int) {
	if i, known := at[ref.Frame][ref.Pipe]; known && ref.Copy == 1 {
		p.Placed[ref.Frame][i].Stick = stick
	}
}

// earlier lists the sticks that were cut by earlier plans.
func (p *Purchase) earlier(t *PipeTotal, c *cutting, o *Order, at []map[string]int) {
	there := map[string]Existing{}
	for _, e := range c.have.fates(c.wants, nil) {
		there[e.ID] = e
		if e.Fate == Keep {
			p.Cuts[e.serves.cut].Done++
		}
	}
	for i := range c.base.Sticks {
		s := &c.base.Sticks[i]
		if s.Size != c.size || len(s.Cuts)+len(s.Lent) == 0 {
			continue
		}
		over := trueOver(o.Shop, s)
		k := Stick{ID: s.ID, Length: s.Length, Origin: originOf(s), Left: s.Left + over, Earlier: true, Racked: s.Racked, Lent: s.Lent}
		if over != 0 {
			k.True = s.Length + over
		}
		for _, x := range s.Cuts {
			e := there[x.Event]
			k.Pieces = append(k.Pieces, StickPiece{
				PieceRef: PieceRef{x.Frame, x.Pipe, x.Copy}, Name: x.Letter, Length: x.Length, Cut: x.Event, Fate: e.Fate,
			})
			if e.Fate == Keep {
				p.from(*e.Serves, len(t.Sticks)+1, at)
			}
		}
		k.Of = partOf(&c.base, s.ID)
		k.Key = keyOf(c.size, &k)
		t.Sticks = append(t.Sticks, k)
	}
}

// partOf tells of which stick one is a part; nil for what is none. A part of a part is of the whole stick.
func partOf(w *record.Work, id string) (of *PartOf) {
	for s := w.Stick(id); s != nil && s.Of != ""; {
		if s = w.Stick(s.Of); s != nil {
			of = &PartOf{s.ID, s.Length}
		}
	}
	return of
}

func originOf(s *record.Stick) stock.Origin {
	switch s.Origin {
	case record.FromHome:
		return stock.Home
	case record.FromRack:
		return stock.Rack
	case record.FromOffcut:
		return stock.Offcut
	case record.FromPiece:
		return stock.Cut
	case record.FromPart:
		return stock.Parted
	}
	return stock.Bought
}

// trims lists the pieces that are only cut to length.
func (p *Purchase) trims(t *PipeTotal, c *cutting, at []map[string]int) {
	for _, i := range sortedKeys(c.have.trim) {
		w, m := &c.wants[i], &c.have.pieces[c.have.trim[i]]
		kerf := min(c.prob.Saw.Kerf, m.Length-w.length)
		piece := StickPiece{PieceRef: w.PieceRef, Name: p.Cuts[w.cut].Letter, Length: w.length, At: w.length, Kerf: kerf}
		p.Cuts[w.cut].Trims++
		if c.done != nil {
			if s := c.done.Stick(m.ID); s != nil {
				piece.Cut = s.Cuts[0].Event
				p.Cuts[w.cut].Trims--
				p.Cuts[w.cut].Done++
			}
		}
		k := Stick{
			ID: m.ID, Length: m.Length, Origin: stock.Cut, Pieces: []StickPiece{piece}, Left: m.Length - w.length - kerf, Letter: m.Letter,
		}
		k.Key = keyOf(c.size, &k)
		t.Sticks = append(t.Sticks, k)
		p.from(PieceRef{w.Frame, w.pipe, w.Copy}, len(t.Sticks), at)
	}
}

func sortedKeys(m map[int]int) []int {
	keys := make([]int, 0, len(m))
	for k := range m {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	return keys
}

// chosen lists the sticks that the plan cuts, those that are there with their ids, and
// says which planned piece each of their pieces is.
func (p *Purchase) chosen(t *PipeTotal, c *cutting, o *Order, at []map[string]int) {
	assigned := c.there
	cut := map[PieceRef]bool{}
	for _, a := range assigned {
		for _, x := range a.cuts {
			cut[PieceRef{x.Frame, x.Pipe, x.Copy}] = true
		}
	}
	wanted := c.byRef()
	waiting := map[int][]PieceRef{} // the pieces that are still to be cut, by their line
	for _, i := range c.have.todo {
		if w := &c.wants[i]; !cut[w.PieceRef] {
			waiting[w.cut] = append(waiting[w.cut], w.PieceRef)
		}
	}
	// next gives a piece of a line that is still to be cut, or of another that is as long: of two
	// projects that have letters of their own, what is cut for one may have been planned for the other
	next := func(line int) (PieceRef, int, bool) {
		for _, g := range append([]int{line}, c.of...) {
			if refs := waiting[g]; len(refs) > 0 && p.Cuts[g].Cut == p.Cuts[line].Cut && p.Cuts[g].Least == p.Cuts[line].Least {
				waiting[g] = refs[1:]
				return refs[0], g, true
			}
		}
		return PieceRef{}, line, false
	}
	free := make([][]string, len(c.prob.Offers))
	for i := range free {
		for _, id := range c.have.ids[i] {
			if !slices.ContainsFunc(assigned, func(a there) bool { return a.id == id }) {
				free[i] = append(free[i], id)
			}
		}
	}
	first := len(t.Sticks)
	for n := range c.stock.Sticks {
		s := &c.stock.Sticks[n]
		of := &c.prob.Offers[s.Offer]
		k := Stick{chosen: n + 1, ID: assigned[n].id, Length: cmp.Or(of.Sold, s.Length), Origin: s.Origin, Left: s.Left,
			Marks: s.Marks(c.prob.Saw.Kerf), Edge: s.Edge, Allowance: s.Allowance}
		for i := range s.Parts {
			part := StickPart{Part: s.Parts[i]}
			if assigned[n].parted { // the shop has cut it
				part.ID, k.Marks = record.PartNo(k.ID, i), nil
				if at := o.Work.Stick(part.ID); at != nil {
					part.Racked = at.Racked
				}
			}
			k.Parts = append(k.Parts, part)
		}
		if k.Length != s.Length {
			k.True = s.Length
		}
		if k.ID != "" && k.Origin == stock.Shop {
			k.Origin = stock.Bought
		}
		if ids := free[s.Offer]; k.ID == "" && len(ids) > 0 {
			k.ID, free[s.Offer] = ids[0], ids[1:]
		}
		done := slices.Clone(assigned[n].cuts)
		lost := s.Kerf + c.prob.EndTrim
		for _, x := range s.Pieces {
			line := c.of[x.Demand]
			piece := StickPiece{Name: p.Cuts[line].Letter, Length: x.Length, At: x.At, Kerf: min(lost, c.prob.Saw.Kerf)}
			if len(k.Pieces) == 0 {
				piece.Kerf += c.prob.EndTrim
			}
			lost -= piece.Kerf
			if i := slices.IndexFunc(done, func(d record.Taken) bool { return d.Length == x.Length }); i >= 0 {
				piece.PieceRef, piece.Cut = PieceRef{done[i].Frame, done[i].Pipe, done[i].Copy}, done[i].Event
				done = slices.Delete(done, i, i+1)
				if w := wanted[piece.PieceRef]; w != nil {
					line = w.cut
				}
				p.Cuts[line].Done++
				piece.Name = p.Cuts[line].Letter
			} else if ref, of, ok := next(line); ok {
				piece.PieceRef, piece.Name = ref, p.Cuts[of].Letter
			}
			k.Pieces = append(k.Pieces, piece)
		}
		k.remark()
		k.Of = partOf(o.Work, k.ID)
		k.Key = keyOf(c.size, &k)
		if c.done != nil && k.ID != "" {
			if s := c.done.Stick(k.ID); s != nil {
				k.Racked, k.Lent = s.Racked, s.Lent
			}
		}
		if i := slices.IndexFunc(o.Shop.Rack, func(x shop.Offcut) bool { return x.ID != "" && x.ID == k.ID }); k.Origin == stock.Rack &&
			i >= 0 {
			k.Mark = o.Shop.Rack[i].Mark
		}
		if k.Origin == stock.Cut {
			k.Letter = c.have.letterOf(k.ID)
		}
		t.Sticks = append(t.Sticks, k)
	}
	// those of one key stand together as they did; those that are cut come first
	slices.SortStableFunc(t.Sticks[first:], func(a, b Stick) int {
		if a.Key != b.Key {
			return 0
		}
		return cmp.Compare(b.cut(), a.cut())
	})
	for n := first; n < len(t.Sticks); n++ {
		for _, x := range t.Sticks[n].Pieces {
			if w := wanted[x.PieceRef]; w != nil {
				p.from(PieceRef{w.Frame, w.pipe, w.Copy}, n+1, at)
			}
		}
	}
}

// remark measures what is still to be cut from the end that is there: once a piece is off, that is where it was cut.
func (s *Stick) remark() {
	from := 0
	next := func(n int) {
		pieces, off, cut := s.Pieces[from:from+n], measure.Length(0), false
		from += n
		for i := range pieces {
			cut = cut || pieces[i].Cut != ""
		}
		for i := range pieces {
			switch x := &pieces[i]; {
			case !cut:
			case x.Cut != "":
				x.At = 0
			default:
				x.At = off + x.Length
				off = x.At + x.Kerf
			}
		}
	}
	for _, p := range s.Parts {
		next(p.Pieces)
	}
	next(len(s.Pieces) - from)
}

// byRef finds the planned pieces by what the record calls them.
func (c *cutting) byRef() map[PieceRef]*want {
	at := map[PieceRef]*want{}
	for i := range c.wants {
		at[c.wants[i].PieceRef] = &c.wants[i]
	}
	return at
}

// cut counts the pieces of a stick that are cut.
func (s *Stick) cut() (n int) {
	for _, x := range s.Pieces {
		if x.Cut != "" {
			n++
		}
	}
	return n
}

// cutFrom lists the pipes whose letters are cut from sticks of one length, and says in words which
// pieces these sticks give.
func (p *Purchase) cutFrom(t *PipeTotal, length measure.Length) (all []material.Place, words string) {
	many, order := map[string]int{}, []string{}
	for n := range t.Sticks {
		s := &t.Sticks[n]
		named := s.Length
		if s.Of != nil {
			named = s.Of.Length
		}
		if named != length || s.Earlier || !slices.Contains([]stock.Origin{stock.Shop, stock.Bought, stock.Home, stock.Parted}, s.Origin) {
			continue
		}
		for _, x := range s.Pieces {
			if many[x.Name]++; many[x.Name] == 1 {
				order = append(order, x.Name)
			}
		}
	}
	// as they stand in the cut list
	for i := range p.Cuts {
		letter := p.Cuts[i].Letter
		if !slices.Contains(order, letter) {
			continue
		}
		for _, r := range p.Cuts[i].Pipes {
			all = append(all, material.Place{Frame: r.Frame, Kind: "pipe", ID: r.Pipe})
		}
		if words != "" {
			words += ", "
		}
		words += fmt.Sprintf("%d × %s", many[letter], letter)
	}
	return all, words
}
