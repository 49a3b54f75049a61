package packing

import (
	"math"
	"math/rand/v2"
	"slices"
)

// rounded takes the whole part of the relaxation and fills the rest greedily.
func (s *search) rounded() []Bin {
	left := s.counts()
	used := make([]int, len(s.kinds))
	var bins []Bin
	l := s.lp
	for row, b := range l.basis {
		if b < 0 {
			continue
		}
		p := &l.patterns[b]
		for n := int(math.Floor(l.x[row] + 1e-6)); n > 0 && used[p.kind] < s.most(p.kind); n-- {
			shares := s.within(p, left)
			if len(shares) == 0 {
				break
			}
			take(left, shares, 1)
			used[p.kind]++
			bins = append(bins, Bin{p.kind, shares})
		}
	}
	var best []Bin
	for k := range s.charged {
		rest := slices.Clone(left)
		more := s.rest(k, rest, used)
		if s.any(rest) {
			continue
		}
		all := s.shrink(append(slices.Clone(bins), more...))
		if best == nil || s.total(all).Compare(s.total(best)) < 0 {
			best = all
		}
	}
	return best
}

// rest fills what is left into bins that are not used yet, of one kind that costs something.
func (s *search) rest(main int, left, used []int) (bins []Bin) {
	for k := s.charged; k < len(s.kinds); k++ {
		s.fillAll(k, s.most(k)-used[k], left, &bins)
	}
	s.fillAll(main, s.most(main)-used[main], left, &bins)
	return bins
}

// within is what a pattern places of what is left, divisible as its kind asks.
func (s *search) within(p *pattern, left []int) []Share {
	shares := make([]Share, 0, len(p.shares))
	for _, h := range p.shares {
		if n := min(h.Count, left[h.Item]); n > 0 {
			shares = append(shares, Share{h.Item, n})
		}
	}
	return s.divisible(&s.kinds[p.kind], shares)
}

// diver fixes patterns that the relaxation favours, one after the other, and solves the
// relaxation of the rest anew each time.
type diver struct {
	*search
	left, avail []int
	bins        []Bin
	test        prices // at the relaxation of the whole
	tried       int    // pieces that were free when the rest was looked for last
	hopeless    bool   // the rest was more than could be looked through
}

const (
	diveRounds = 12 // of pricing, after each step of a dive
	turns      = 1  // patterns that a dive may pass over
	turnDepth  = 3  // how deep it may do so
	dives      = 40 // from one relaxation
	// the rest is looked for when this many pieces in a hundred are free of those before
	finishGrowth = 115
	finishSteps  = 20_000_000
)

// dive looks for a way to place what is left: first as the relaxation has it, passing over a
// few of its choices, and then again and again from other solutions of it that are as good.
func (s *search) dive(left, avail []int, test prices) []Bin {
	l := s.lp
	at := l.save()
	source := rand.New(rand.NewPCG(uint64(len(s.items)), uint64(s.sum(left))))
	until := (s.spent + s.budget) / 2
	for n := 0; n == 0 || n < dives && s.spent < until; n++ {
		d := diver{search: s, left: slices.Clone(left), avail: slices.Clone(avail), test: test}
		more := turns
		if n > 0 {
			more = 0
			l.tilt(source)
			s.relax(left, avail, diveRounds)
		}
		if d.down(0, more) {
			l.level()
			return d.bins
		}
		l.level()
		l.load(at)
	}
	return nil
}

// down fixes patterns until everything is placed. It passes over so many of the patterns
// that it would fix first, and only near the top.
func (d *diver) down(depth, turns int) bool {
	l := d.lp
	var passed []int
	defer func() {
		for _, p := range passed {
			l.ban(p, false)
		}
	}()
	for {
		if !d.any(d.left) {
			return true
		}
		if d.spent >= d.budget || l.missing() > 1e-5 {
			return false
		}
		mayTurn := turns > 0 && depth < turnDepth
		var at state
		if mayTurn { // a basis is large
			at = l.save()
		}
		bins, left, avail := len(d.bins), slices.Clone(d.left), slices.Clone(d.avail)
		fixed := d.fix()
		if fixed < -1 {
			return false
		}
		if d.spare() {
			d.relax(d.left, d.avail, diveRounds)
			if d.down(depth+1, turns) {
				return true
			}
		}
		d.bins, d.left, d.avail = d.bins[:bins], left, avail
		if d.finish() {
			return true
		}
		if !mayTurn || fixed < 0 {
			return false
		}
		turns--
		d.tried, d.hopeless = 0, false
		l.load(at)
		passed = append(passed, fixed)
		l.ban(fixed, true)
		d.relax(d.left, d.avail, diveRounds)
	}
}

// finish looks for the rest of an answer in every way, after a dive came to nothing: when
// enough more is free than when it did so last.
func (d *diver) finish() bool {
	n := 0
	for _, k := range d.left {
		n += k
	}
	if d.hopeless || n < d.tried*finishGrowth/100+1 {
		return false
	}
	d.tried = n
	bins, sure := d.searched(d.left, d.avail, finishSteps)
	d.hopeless = !sure
	if bins != nil {
		d.bins = append(d.bins, bins...)
	}
	return bins != nil
}

// spare says whether what is left can still go in, as far as prices tell.
func (d *diver) spare() bool {
	for i := range d.tests {
		if !d.tests[i].holds(d.left, d.avail) {
			return false
		}
	}
	return d.test.holds(d.left, d.avail)
}

// fix takes what the relaxation takes as a whole, or else what it takes most of: that
// pattern is given. -1 stands for several, and -2 for none.
func (d *diver) fix() int {
	l := d.lp
	several := false
	best, most := -2, 1e-6
	for row, b := range l.basis {
		if b < 0 {
			continue
		}
		for n := int(math.Floor(l.x[row] + 1e-6)); n > 0 && d.apply(b); n-- {
			several = true
		}
		if f := l.x[row]; f > most {
			best, most = b, f
		}
	}
	if several {
		return -1
	}
	if best >= 0 && !d.apply(best) {
		return -2
	}
	return best
}

// apply fills a bin with a pattern.
func (d *diver) apply(pattern int) bool {
	p := &d.lp.patterns[pattern]
	if d.avail[p.kind] == 0 {
		return false
	}
	shares := d.within(p, d.left)
	if len(shares) == 0 {
		return false
	}
	take(d.left, shares, 1)
	d.avail[p.kind]--
	d.bins = append(d.bins, Bin{p.kind, shares})
	return true
}
