package packing

import (
	"cmp"
	"context"
	"slices"
)

// search is a problem made ready: items the largest first, sizes without their common
// divisor, and the kinds of bins that cost something before those that do not.
type search struct {
	items   []Item
	item    []int // the problem's index of each
	kinds   []Kind
	kind    []int
	charged int // kinds[:charged] cost something: sets of bins are sets of these
	fee     Fee
	atMost  *Total

	budget, spent int64
	nextLook      int64
	done          <-chan struct{}

	tests []prices // what rules sets of bins out
	lp    *master
}

// prices says what each item is worth, and for each kind the most that one bin can hold:
// where all pieces are worth more than the bins of a set can hold, they do not go in.
type prices struct {
	worth []int64
	most  []int64
}

func newSearch(ctx context.Context, p *Problem) (*search, error) {
	if err := p.Check(); err != nil {
		return nil, err
	}
	s := &search{fee: p.Fee, atMost: p.AtMost, budget: cmp.Or(p.Steps, DefaultSteps), done: ctx.Done()}
	unit := int64(0)
	for i, it := range p.Items {
		if it.Count > 0 {
			s.items, s.item = append(s.items, it), append(s.item, i)
			unit = divisor(unit, it.Size)
		}
	}
	if len(s.items) == 0 {
		return s, nil
	}
	order(s.items, s.item, func(a, b Item) int { return cmp.Compare(b.Size, a.Size) })
	for i := range s.items {
		s.items[i].Size /= unit
	}
	smallest := s.items[len(s.items)-1].Size
	for i, k := range p.Kinds {
		if k.Reserve != nil {
			reserve := make([]int64, len(k.Reserve))
			for n, r := range k.Reserve {
				if reserve[n] = (r + unit - 1) / unit; k.Ways == nil { // what it takes of the whole units of the room
					reserve[n] = k.Room/unit - max(-unit, k.Room-r)/unit
				}
			}
			k.Reserve = reserve
		}
		k.Room = k.Room / unit
		if k.Ways != nil {
			ways := make([]Way, len(k.Ways))
			most := int64(0)
			for w, way := range k.Ways {
				ways[w] = Way{Room: min(way.Room/unit, k.Room), Parts: make([]int64, len(way.Parts))}
				most = max(most, ways[w].Room)
				for j, r := range way.Parts {
					ways[w].Parts[j] = r / unit
				}
				slices.SortFunc(ways[w].Parts, func(a, b int64) int { return cmp.Compare(b, a) })
			}
			k.Ways, k.Room = ways, most
		}
		if k.Room >= smallest && k.Limit != 0 {
			s.kinds, s.kind = append(s.kinds, k), append(s.kind, i)
		}
	}
	free := func(k *Kind) bool { return k.Cost == 0 && k.Bins == 0 && k.Cuts == 0 }
	order(s.kinds, s.kind, func(a, b Kind) int {
		switch fa, fb := free(&a), free(&b); {
		case fa && fb:
			return cmp.Compare(a.Room, b.Room) // what is there: the smallest that will do
		case fa:
			return 1
		case fb:
			return -1
		}
		return cmp.Or(cmp.Compare(b.Room, a.Room), cmp.Compare(a.Cuts, b.Cuts))
	})
	for s.charged < len(s.kinds) && !free(&s.kinds[s.charged]) {
		s.charged++
	}
	return s, nil
}

// order sorts values, and what stands beside them, alike.
func order[T any](values []T, beside []int, compare func(a, b T) int) {
	at := make([]int, len(values))
	for i := range at {
		at[i] = i
	}
	slices.SortStableFunc(at, func(i, j int) int { return compare(values[i], values[j]) })
	v, b := slices.Clone(values), slices.Clone(beside)
	for n, i := range at {
		values[n], beside[n] = v[i], b[i]
	}
}

func divisor(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// spend counts steps, and says whether there are more.
func (s *search) spend(steps int64) bool {
	if s.spent += steps; s.spent > s.nextLook {
		s.nextLook = s.spent + 1_000_000
		select {
		case <-s.done:
			s.budget = 0
		default:
		}
	}
	return s.spent <= s.budget
}

func (s *search) counts() []int {
	c := make([]int, len(s.items))
	for i, it := range s.items {
		c[i] = it.Count
	}
	return c
}

// sum is what pieces come to.
func (s *search) sum(left []int) (room int64) {
	for i, n := range left {
		room += s.items[i].Size * int64(n)
	}
	return room
}

// sizes lists the sizes of a bin's pieces, the largest first.
func (s *search) sizes(shares []Share) []int64 {
	var all []int64
	for _, h := range shares {
		for range h.Count {
			all = append(all, s.items[h.Item].Size)
		}
	}
	return all
}

// total sums up what bins cost.
func (s *search) total(bins []Bin) Total {
	p := Problem{Kinds: s.kinds, Fee: s.fee}
	return p.Totalled(bins)
}

// answer gives bins in the problem's own words.
func (s *search) answer(bins []Bin) []Bin {
	out := make([]Bin, 0, len(bins))
	for _, b := range bins {
		if len(b.Shares) == 0 {
			continue
		}
		c := Bin{Kind: s.kind[b.Kind], Shares: make([]Share, len(b.Shares))}
		for i, h := range b.Shares {
			c.Shares[i] = Share{s.item[h.Item], h.Count}
		}
		slices.SortFunc(c.Shares, func(a, b Share) int { return cmp.Compare(a.Item, b.Item) })
		out = append(out, c)
	}
	return out
}

// byVolume prices each item at its size: a bin holds no more than its room.
func (s *search) byVolume() prices {
	v := prices{worth: make([]int64, len(s.items)), most: make([]int64, len(s.kinds))}
	for i, it := range s.items {
		v.worth[i] = it.Size
	}
	for k := range s.kinds {
		v.most[k] = s.kinds[k].Room
	}
	return v
}

// holds says whether what is left goes into so many bins of each kind, as far as one test
// can tell.
func (v *prices) holds(left, avail []int) bool {
	return v.spare(left, avail) >= 0
}

// spare is how much more the bins can hold, in the worth of the items.
func (v *prices) spare(left, avail []int) int64 {
	spare := int64(0)
	for k, n := range avail {
		spare += v.most[k] * int64(n)
	}
	for i, n := range left {
		spare -= v.worth[i] * int64(n)
	}
	return spare
}
