package packing

import (
	"cmp"
	"slices"
)

// maxSets and maxSetSteps bound the sets of bins that are listed.
const (
	maxSets     = 4000
	maxSetSteps = 1_000_000
)

// set is how many bins of each kind that costs something there are.
type set struct {
	count []int
	total Total
}

// avail is how many bins of every kind there are with a set: what is there anyway is, too.
func (s *search) avail(charged []int) []int {
	avail := make([]int, len(s.kinds))
	copy(avail, charged)
	for k := len(charged); k < len(s.kinds); k++ {
		avail[k] = s.most(k)
	}
	return avail
}

// most is how many bins of a kind can be of use.
func (s *search) most(k int) int {
	if n := s.kinds[k].Limit; n != Endless {
		return n
	}
	n := 0
	for _, it := range s.items {
		n += it.Count
	}
	return n
}

func (s *search) solve() (Answer, error) {
	if len(s.items) == 0 {
		return Answer{Proven: true}, nil
	}
	s.tests = []prices{s.byVolume()}
	best, err := s.first()
	if err != nil {
		return Answer{Steps: s.spent}, err
	}
	total := s.total(best)
	if s.atMost != nil && (best == nil || total.Compare(*s.atMost) > 0) {
		best, total = nil, *s.atMost
		total.Cuts++ // as good as asked for will do
	}
	sets, whole := s.sets(total, 0)
	if len(sets) > 0 {
		if bins := s.quick(sets[0].count); bins != nil { // none that is better holds enough
			best, total, sets = bins, sets[0].total, nil
		}
	}
	bound, proven := total, true
	if len(sets) > 0 || !whole {
		least := int64(0)
		s.program(best)
		if s.lp != nil {
			every := make([]int, s.charged)
			for k := range every {
				every[k] = s.most(k)
			}
			all := s.budget // half of what is left is for what follows: also a relaxation that is cut short is a guide
			s.budget = s.spent + (all-s.spent)/2
			s.relax(s.counts(), s.avail(every), 4*s.lp.rows+60)
			s.budget = all
			v := s.safe()
			s.learn(v)
			least = s.bound(&v)
			if bins := s.rounded(); bins != nil {
				if t := s.total(bins); t.Compare(total) < 0 {
					best, total, bound = bins, t, t
				}
			}
		}
		sets, whole = s.sets(total, least)
		doubt := func(t Total) {
			if proven {
				proven, bound = false, t
			}
		}
		for _, c := range sets {
			bins, sure := s.decide(c.count)
			if bins != nil {
				best, total = bins, c.total
				if proven {
					bound = c.total
				}
				break
			}
			if !sure {
				doubt(c.total)
			}
			if s.spent >= s.budget {
				doubt(c.total)
				break
			}
		}
		if !whole {
			doubt(Total{Cost: least})
		}
	}
	if best == nil {
		return Answer{Steps: s.spent}, ErrNoRoom
	}
	return Answer{Bins: s.answer(best), Total: total, Bound: bound, Proven: proven, Steps: s.spent}, nil
}

// first finds an answer in a few simple ways and keeps the best.
func (s *search) first() (best []Bin, err error) {
	try := func(bins []Bin) {
		if bins == nil {
			return
		}
		bins = s.shrink(bins)
		if best == nil || s.total(bins).Compare(s.total(best)) < 0 {
			best = bins
		}
	}
	tried := map[[2]int64]bool{}
	for k := range s.kinds {
		kd := &s.kinds[k]
		// of kinds that only the ways to divide them set apart, each is tried
		if k >= s.charged && s.charged > 0 || tried[[2]int64{kd.Room, int64(kd.Cuts)}] {
			continue
		}
		tried[[2]int64{kd.Room, int64(kd.Cuts)}] = true
		try(s.fit(k, false))
		try(s.fit(k, true))
		left := s.counts()
		if bins := s.greedy(k, left); !s.any(left) {
			try(bins)
		}
	}
	if best != nil {
		return best, nil
	}
	// no kind alone will do: all that can be had
	if s.atMost != nil {
		return nil, nil // the sets that are good enough are looked at one by one
	}
	every := make([]int, s.charged)
	for k := range every {
		every[k] = s.most(k)
	}
	s.program()
	bins, _ := s.decide(every)
	if bins == nil {
		return nil, ErrNoRoom
	}
	return s.shrink(bins), nil
}

// quick fills a set of bins in a few simple ways; nil where none of them holds everything.
func (s *search) quick(charged []int) []Bin {
	avail := s.avail(charged)
	order := make([]int, len(s.kinds)) // what is there anyway, then the largest
	for i := range order {
		order[i] = (s.charged + i) % len(order)
	}
	if bins := s.into(avail, order); bins != nil {
		return bins
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(s.kinds[a].Room, s.kinds[b].Room) })
	return s.into(avail, order)
}

// sets lists the sets of bins that are better than a total, that cost at least the bound and
// that no test rules out, the best first.
func (s *search) sets(best Total, bound int64) (all []set, whole bool) {
	n := len(s.tests)
	need := make([]float64, n)  // what the bins that cost something have to hold
	scale := make([]float64, n) // the most worth for a unit of cost
	free := make([]bool, n)     // there is a kind that costs nothing: no bound by cost
	for i := range s.tests {
		v := &s.tests[i]
		for j, it := range s.items {
			need[i] += float64(v.worth[j]) * float64(it.Count)
		}
		for k := s.charged; k < len(s.kinds); k++ {
			need[i] -= float64(v.most[k]) * float64(s.most(k))
		}
		for k := range s.charged {
			if c := s.kinds[k].Cost; c == 0 {
				free[i] = true
			} else {
				scale[i] = max(scale[i], float64(v.most[k])/float64(c))
			}
		}
	}
	cur := make([]int, s.charged)
	have := make([]float64, n)
	steps := maxSetSteps
	whole = true
	var add func(k int, t Total)
	add = func(k int, t Total) {
		if steps--; steps < 0 {
			whole = false
			return
		}
		with := t
		with.Cost += s.fee.of(t.Cuts)
		if with.Compare(best) >= 0 {
			return
		}
		for i := range need {
			lack := need[i] - have[i]
			if k == s.charged && lack > 0 || !free[i] && lack > float64(best.Cost-t.Cost)*scale[i]*(1+1e-12) {
				return
			}
		}
		if k == s.charged {
			if with.Cost >= bound {
				all = append(all, set{slices.Clone(cur), with})
			}
			return
		}
		kd := &s.kinds[k]
		for c := 0; c <= s.most(k) && steps >= 0; c++ {
			u := Total{t.Cost + int64(c)*kd.Cost, t.Bins + c*kd.Bins, t.Cuts + c*kd.Cuts}
			if u.Compare(best) >= 0 {
				break
			}
			cur[k] = c
			for i := range have {
				have[i] += float64(s.tests[i].most[k]) * float64(c)
			}
			add(k+1, u)
			for i := range have {
				have[i] -= float64(s.tests[i].most[k]) * float64(c)
			}
		}
		cur[k] = 0
	}
	add(0, Total{})
	s.spend(int64(10 * (maxSetSteps - steps)))
	slices.SortStableFunc(all, func(a, b set) int {
		return cmp.Or(a.total.Compare(b.total), -slices.Compare(a.count, b.count))
	})
	if len(all) > maxSets {
		all, whole = all[:maxSets], false
	}
	return all, whole
}
