package stock

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// Mistake is a cut of a plan, and what it would cost to spoil it then: with what is cut before
// it there, its piece lost, and the rest cut from what is left and what has to be bought.
type Mistake struct {
	Stick  int            `json:"stick"`          // index into the plan's sticks
	Piece  int            `json:"piece"`          // index into its pieces
	Name   string         `json:"name,omitempty"` // of the piece
	Length measure.Length `json:"length"`
	Cost   measure.Money  `json:"cost"`
	Sticks int            `json:"sticks"`          // to be bought for it
	Bought measure.Length `json:"bought"`          // their length, which is the measure where there are no prices
	Fatal  bool           `json:"fatal,omitempty"` // none costs more
	Count  int            `json:"count"`           // so many cuts that are alike, one after the other
}

// Risk is what spoilt cuts of a plan would cost.
type Risk struct {
	Stand  []Mistake `json:"stand"`  // in the order in which the sticks stand
	Safest []Mistake `json:"safest"` // in the order in which spoilt cuts cost least together
	Exact  bool      `json:"exact"`  // no order is safer
	Cuts   int       `json:"cuts"`   // all of them
	Costly int       `json:"costly"` // of these, how many would cost something as they stand
	// Sticks that would be bought if each cut were spoilt once, in either order: what tells how
	// much safer the other is.
	StandSticks  int `json:"standSticks"`
	SafestSticks int `json:"safestSticks"`
}

// RiskOf gives what spoilt cuts of a plan would cost; done tells of pieces that are cut already,
// by stick and piece, nil for none.
func RiskOf(ctx context.Context, p Problem, m Material, done [][]bool) (r Risk, err error) {
	stand, err := Mistakes(ctx, p, m, done)
	if err != nil {
		return r, err
	}
	safest, exact, err := SafestOrder(ctx, p, m, done)
	r = Risk{Stand: runs(stand), Safest: runs(safest), Exact: exact, Cuts: len(stand)}
	r.StandSticks, r.SafestSticks = weigh(stand).Sticks, weigh(safest).Sticks
	for _, x := range stand {
		if x.compare(Mistake{}) > 0 {
			r.Costly++
		}
	}
	return r, err
}

// runs tells cuts that are alike and follow each other as one.
func runs(all []Mistake) []Mistake {
	out := []Mistake{}
	for _, x := range all {
		if n := len(out); n > 0 {
			if like := out[n-1]; like.Stick == x.Stick && like.Length == x.Length && like.Name == x.Name && like.compare(x) == 0 {
				out[n-1].Count++
				continue
			}
		}
		out = append(out, x)
	}
	return out
}

// compare orders mistakes by what they cost.
func (m Mistake) compare(o Mistake) int {
	return cmp.Or(cmp.Compare(m.Cost, o.Cost), cmp.Compare(m.Bought, o.Bought), cmp.Compare(m.Sticks, o.Sticks))
}

// rod is a length that is there, and the pieces that are to be cut from it.
type rod struct {
	stick, first int // of the plan: the stick, and its piece that is the first of the rod
	length       measure.Length
	pieces       []measure.Length
}

// sawing is a plan while it is cut.
type sawing struct {
	ctx   context.Context
	plan  *Material
	p     Problem // nothing is trimmed any more: offers are that much shorter
	rods  []rod
	done  [][]bool
	known map[string]Mistake
	asked int
	err   error
}

// newSawing begins with the pieces cut that done tells of, by stick and piece; nil for none.
func newSawing(ctx context.Context, p *Problem, m *Material, done [][]bool) *sawing {
	w := &sawing{ctx: ctx, p: *p, plan: m, known: map[string]Mistake{}}
	w.p.EndTrim, w.p.Tidy, w.p.Steps, w.p.Keep, w.p.Demands = 0, false, mistakeSteps, nil, nil
	w.p.Offers = nil
	used := map[int]int{}
	for n := range m.Sticks {
		used[m.Sticks[n].Offer]++
	}
	for i, o := range p.Offers {
		if o.Material != m.Key || o.Length <= p.EndTrim {
			continue
		}
		o.Sold = o.named()
		o.Length -= p.EndTrim
		switch {
		case !o.fromShop() || o.Spare: // what is there, as far as the plan leaves it
			if o.Count -= used[i]; o.Count <= 0 {
				continue
			}
			if o.Spare {
				o.Spare, o.Origin = false, Bought
			}
		default:
			o.Count = 0 // the shop is taken to have more
		}
		w.p.Offers = append(w.p.Offers, o)
	}
	for n := range m.Sticks {
		s := &m.Sticks[n]
		lengths := func(pieces []Piece) (all []measure.Length) {
			for _, pc := range pieces {
				all = append(all, pc.Length)
			}
			return all
		}
		if s.Parts == nil {
			w.rods = append(w.rods, rod{n, 0, s.Length - p.EndTrim, lengths(s.Pieces)})
			continue
		}
		from := 0
		for j, part := range s.Parts {
			l := part.Length
			if j == 0 {
				l -= p.EndTrim
			}
			w.rods = append(w.rods, rod{n, from, l, lengths(s.Pieces[from : from+part.Pieces])})
			from += part.Pieces
		}
	}
	for _, r := range w.rods {
		cut := make([]bool, len(r.pieces))
		for i := range cut {
			cut[i] = done != nil && done[r.stick][r.first+i]
		}
		w.done = append(w.done, cut)
	}
	return w
}

// mistakeSteps bounds the search for what one mistake costs.
const mistakeSteps = 3_000_000

// state names what is still to be cut, and from what. Rods that are alike are one.
func (w *sawing) state() string {
	all := make([]string, len(w.rods))
	for r := range w.rods {
		var b strings.Builder
		rest := w.rods[r].length
		for i, l := range w.rods[r].pieces {
			if w.done[r][i] {
				rest -= l + w.p.Saw.Kerf
				continue
			}
			fmt.Fprintf(&b, " %d", l)
		}
		all[r] = fmt.Sprintf("%d:%s", rest, b.String())
	}
	slices.Sort(all)
	return strings.Join(all, "|")
}

// spoilt is what it costs to spoil a piece now.
func (w *sawing) spoilt(r, i int) Mistake {
	key := fmt.Sprintf("%d %d %s", w.rest(r), w.rods[r].pieces[i], w.state())
	m, known := w.known[key]
	if !known && w.err == nil {
		w.asked++
		m = w.buy(r, i)
		w.known[key] = m
	}
	m.Stick, m.Piece, m.Count = w.rods[r].stick, w.rods[r].first+i, 1
	pc := &w.plan.Sticks[m.Stick].Pieces[m.Piece]
	m.Name, m.Length = pc.Name, pc.Length
	return m
}

// rest is what is left of a rod by now.
func (w *sawing) rest(r int) measure.Length {
	rest := w.rods[r].length
	for i, l := range w.rods[r].pieces {
		if w.done[r][i] {
			rest -= l + w.p.Saw.Kerf
		}
	}
	return rest
}

// buy plans the rest, with one piece lost, and says what has to be bought for it.
func (w *sawing) buy(r, i int) (m Mistake) {
	p := w.p
	p.Offers = slices.Clone(w.p.Offers)
	for n := range w.rods {
		rest := w.rest(n)
		if n == r {
			rest -= w.rods[r].pieces[i] + p.Saw.Kerf
		}
		if rest > 0 {
			p.Offers = append(p.Offers, Offer{Material: "", Length: rest, Count: 1, Origin: Offcut})
		}
		for k, l := range w.rods[n].pieces {
			if !w.done[n][k] {
				at := slices.IndexFunc(p.Demands, func(d Demand) bool { return d.Length == l })
				if at < 0 {
					at = len(p.Demands)
					p.Demands = append(p.Demands, Demand{Length: l})
				}
				p.Demands[at].Count++
			}
		}
	}
	for n := range p.Offers {
		p.Offers[n].Material = ""
	}
	all, err := Solve(w.ctx, p)
	if err != nil {
		w.err = err
		return m
	}
	return Mistake{Cost: all[0].Cost, Sticks: all[0].Count, Bought: all[0].Bought}
}

// Mistakes says what each spoilt cut would cost, of the sticks of a plan cut one after the
// other as they stand, but for pieces that are cut already: done tells of them by stick and
// piece, nil for none. The most expensive ones are marked as fatal.
func Mistakes(ctx context.Context, p Problem, m Material, done [][]bool) ([]Mistake, error) {
	w := newSawing(ctx, &p, &m, done)
	var all []Mistake
	for r := range w.rods {
		for i := range w.rods[r].pieces {
			if w.done[r][i] {
				continue
			}
			all = append(all, w.spoilt(r, i))
			w.done[r][i] = true
		}
	}
	return fatal(all), w.err
}

// fatal marks the mistakes of which none costs more, if they cost anything.
func fatal(all []Mistake) []Mistake {
	if len(all) == 0 {
		return []Mistake{}
	}
	worst := slices.MaxFunc(all, Mistake.compare)
	for i := range all {
		all[i].Fatal = all[i].compare(worst) == 0 && worst.compare(Mistake{}) > 0
	}
	return all
}

const (
	// exactStates is how many states of a plan that is cut are looked at for the best order.
	exactStates = 1200
	// mostAsked bounds the mistakes that are reckoned for a good order.
	mostAsked = 3000
)

// SafestOrder gives the order of all cuts of a plan that are not done yet in which spoilt cuts
// cost least together, each taken to be as likely. exact says that none is better; of a large plan the order is the
// best found.
func SafestOrder(ctx context.Context, p Problem, m Material, done [][]bool) (order []Mistake, exact bool, err error) {
	w := newSawing(ctx, &p, &m, done)
	states := 1
	for r := range w.rods {
		alike := map[measure.Length]int{}
		for i, l := range w.rods[r].pieces {
			if !w.done[r][i] {
				alike[l]++
			}
		}
		for _, n := range alike {
			states = min(states*(n+1), exactStates+1)
		}
	}
	if states <= exactStates {
		order = w.best(map[string][]Mistake{})
		return fatal(order), w.err == nil, w.err
	}
	for _, o := range w.goodOrders() {
		if w.asked > mostAsked && order != nil {
			break
		}
		all := w.along(o)
		if order == nil || weigh(all).compare(weigh(order)) < 0 {
			order = all
		}
	}
	return fatal(order), false, w.err
}

// weigh sums up what the mistakes of an order cost.
func weigh(all []Mistake) (sum Mistake) {
	for _, m := range all {
		sum.Cost, sum.Bought, sum.Sticks = sum.Cost+m.Cost, sum.Bought+m.Bought, sum.Sticks+m.Sticks
	}
	return sum
}

// best is the best order of what is still to be cut.
func (w *sawing) best(known map[string][]Mistake) []Mistake {
	// which rod is which matters for the order: states are told apart by it
	var b strings.Builder
	for r := range w.rods {
		for i, l := range w.rods[r].pieces {
			if !w.done[r][i] {
				fmt.Fprintf(&b, " %d", l)
			}
		}
		b.WriteByte('|')
	}
	key := b.String()
	if all, ok := known[key]; ok {
		return all
	}
	var best []Mistake
	for r := range w.rods {
		tried := map[measure.Length]bool{}
		for i, l := range w.rods[r].pieces {
			if w.done[r][i] || tried[l] {
				continue
			}
			tried[l] = true
			now := w.spoilt(r, i)
			w.done[r][i] = true
			all := append([]Mistake{now}, w.best(known)...)
			w.done[r][i] = false
			if c := weigh(all).compare(weigh(best)); best == nil || c < 0 {
				best = all
			}
		}
	}
	if best != nil {
		known[key] = best
	}
	return best
}

// goodOrders gives orders by rules of the hand: as they stand; the longest pieces of all first;
// stick by stick, the one with the least left first, or the one with the most.
func (w *sawing) goodOrders() (all [][][2]int) {
	var stand [][2]int
	for r := range w.rods {
		for i := range w.rods[r].pieces {
			if !w.done[r][i] {
				stand = append(stand, [2]int{r, i})
			}
		}
	}
	spare := func(r int) measure.Length {
		l := w.rods[r].length
		for _, p := range w.rods[r].pieces {
			l -= p
		}
		return l
	}
	all = append(all, stand)
	by := func(compare func(a, b [2]int) int) {
		o := slices.Clone(stand)
		slices.SortStableFunc(o, compare)
		all = append(all, o)
	}
	length := func(a [2]int) measure.Length { return w.rods[a[0]].pieces[a[1]] }
	by(func(a, b [2]int) int { return cmp.Compare(length(b), length(a)) })
	by(func(a, b [2]int) int { return cmp.Compare(spare(a[0]), spare(b[0])) })
	by(func(a, b [2]int) int { return cmp.Compare(spare(b[0]), spare(a[0])) })
	return all
}

// along reckons the mistakes of an order.
func (w *sawing) along(order [][2]int) (all []Mistake) {
	for _, at := range order {
		all = append(all, w.spoilt(at[0], at[1]))
		w.done[at[0]][at[1]] = true
	}
	for _, at := range order {
		w.done[at[0]][at[1]] = false
	}
	return all
}
