package packing

import (
	"cmp"
	"encoding/binary"
	"slices"
)

// decide says whether everything goes into a set of bins, and how. No bins and sure mean that
// it does not.
func (s *search) decide(charged []int) (bins []Bin, sure bool) {
	avail := s.avail(charged)
	left := s.counts()
	for i := range s.tests {
		if !s.tests[i].holds(left, avail) {
			return nil, true
		}
	}
	if bins := s.quick(charged); bins != nil {
		return bins, true
	}
	if s.divided() {
		if bins, sure := s.byParts(avail, (s.budget-s.spent)/4); bins != nil || sure {
			return bins, true
		}
	}
	if bins, sure := s.searched(s.counts(), avail, searchSteps); sure {
		return bins, sure
	}
	if s.lp != nil {
		s.relax(left, avail, 2*s.lp.rows+40)
		test := s.safe()
		s.learn(test)
		if !test.holds(left, avail) {
			return nil, true
		}
		if bins := s.dive(left, avail, test); bins != nil {
			return bins, true
		}
	}
	return s.searched(s.counts(), avail, max(searchSteps, (s.budget-s.spent)/2))
}

// searchSteps is what a first search may spend.
const searchSteps = 2_000_000

// mostTests is how many tests are kept: each is asked at every step of a search.
const mostTests = 10

// learn keeps a test: the one by volume stays, and of the others those found last.
func (s *search) learn(v prices) {
	if len(s.tests) == mostTests {
		s.tests = slices.Delete(s.tests, 1, 2)
	}
	s.tests = append(s.tests, v)
}

// searched places the largest piece that is left in every way that can lead to an answer,
// and so on. It spends so many steps at the most.
func (s *search) searched(left, avail []int, steps int64) (bins []Bin, sure bool) {
	p := &placer{
		search: s,
		left:   slices.Clone(left),
		avail:  slices.Clone(avail),
		failed: map[string]struct{}{},
		until:  s.spent + steps,
		sure:   true,
	}
	p.most = int(min(mostWays, max(leastOfWays, steps/stepsPerWay)))
	for i := range s.tests {
		p.spare = append(p.spare, s.tests[i].spare(p.left, avail))
		if p.spare[i] < 0 {
			return nil, true
		}
	}
	if p.fits(0) {
		return p.bins, true
	}
	return nil, p.sure
}

// placer fits pieces into bins.
type placer struct {
	*search
	left, avail []int
	spare       []int64 // by test: how much more the bins that are left could hold
	bins        []Bin
	failed      map[string]struct{}
	until       int64
	most        int  // ways to fill one bin
	sure        bool // every branch was looked at
}

// choice is a way to fill a bin: what it wastes is told for each test.
type choice struct {
	kind   int
	shares []Share
	waste  []int64
}

// fits places the largest piece that is left: it must go somewhere, and of the ways to fill
// its bin only those matter to which nothing can be added.
func (p *placer) fits(must int) bool {
	for must < len(p.left) && p.left[must] == 0 {
		must++
	}
	if must == len(p.left) {
		return true
	}
	key := p.key()
	if _, known := p.failed[key]; known {
		return false
	}
	var choices []*choice
	for k, n := range p.avail {
		if n > 0 && p.kinds[k].Room >= p.items[must].Size {
			choices = p.ways(choices, k, must)
		}
	}
	p.spend(int64(8*len(p.left) + 20*len(choices)))
	slices.SortFunc(choices, func(a, b *choice) int {
		for i := range a.waste {
			if d := a.waste[i] - b.waste[i]; d != 0 {
				return int(min(max(d, -1), 1))
			}
		}
		if a.kind != b.kind {
			return b.kind - a.kind // what is there anyway first
		}
		return compareShares(b.shares, a.shares) // large pieces first
	})
	for _, c := range choices {
		if p.spent > p.until || p.spent > p.budget {
			p.sure = false
			return false
		}
		p.apply(c, 1)
		p.bins = append(p.bins, Bin{c.kind, c.shares})
		if p.fits(must) {
			return true
		}
		p.bins = p.bins[:len(p.bins)-1]
		p.apply(c, -1)
	}
	if p.spent <= p.until && p.spent <= p.budget && len(p.failed) < mostFailed {
		p.failed[key] = struct{}{}
	}
	return false
}

// mostFailed bounds what is remembered of what came to nothing.
const mostFailed = 400_000

// compareShares orders ways to fill a bin: the one with more of the largest piece is greater.
func compareShares(a, b []Share) int {
	for i := range min(len(a), len(b)) {
		if a[i].Item != b[i].Item {
			return b[i].Item - a[i].Item
		}
		if a[i].Count != b[i].Count {
			return a[i].Count - b[i].Count
		}
	}
	return len(a) - len(b)
}

func (p *placer) apply(c *choice, sign int) {
	p.avail[c.kind] -= sign
	for i, w := range c.waste {
		p.spare[i] -= int64(sign) * w
	}
	take(p.left, c.shares, sign)
}

func (p *placer) key() string {
	b := make([]byte, 0, 2*(len(p.left)+len(p.avail)))
	for _, n := range p.left {
		b = binary.AppendUvarint(b, uint64(n))
	}
	for _, n := range p.avail {
		b = binary.AppendUvarint(b, uint64(n))
	}
	return string(b)
}

// mostWays is how many ways to fill one bin are looked at; of a search that may spend little,
// fewer.
const (
	mostWays    = 2500
	stepsPerWay = 4000
	leastOfWays = 100
	stepsInAWay = 40
)

// ways adds the ways to fill a bin of a kind that hold a piece of the item that must go
// somewhere, to which nothing can be added, and that waste no more than can be spared by any
// test.
func (p *placer) ways(all []*choice, kind, must int) []*choice {
	k := &p.kinds[kind]
	n, tests := len(p.items), len(p.tests)
	first := len(all)
	var cur []Share
	var sizes []int64
	// what a test can still hope for from items i on: the most worth for a unit of size
	hope := make([][]float64, tests)
	for t := range hope {
		hope[t] = make([]float64, n+1)
		for i := n - 1; i >= must; i-- {
			hope[t][i] = hope[t][i+1]
			if p.left[i] > 0 {
				hope[t][i] = max(hope[t][i], float64(p.tests[t].worth[i])/float64(p.items[i].Size))
			}
		}
	}
	tail := make([]int64, n+1) // what items from i on could fill at most
	for i := n - 1; i >= must; i-- {
		tail[i] = tail[i+1] + p.items[i].Size*int64(p.left[i])
	}
	waste := make([]int64, tests)
	for t := range waste {
		waste[t] = p.tests[t].most[kind]
	}
	steps := int64(0)
	whole := true
	var fill func(i int, room, skipped int64)
	fill = func(i int, room, skipped int64) {
		if len(all)-first >= p.most || steps > int64(stepsInAWay*p.most) {
			whole = false
			return
		}
		for t := range waste {
			if float64(waste[t])-hope[t][i]*float64(min(room, tail[i]))-1 > float64(p.spare[t]) {
				return
			}
		}
		for ; i < n; i++ {
			steps++
			if room-tail[i] > p.spare[0] { // the first test is by volume
				return
			}
			if p.left[i] > 0 && p.items[i].Size <= room {
				break
			}
		}
		if i == n {
			if skipped <= room {
				fits := k.plain()
				if !fits {
					fits, _ = k.judge(with(sizes, skipped), judgeSteps)
				}
				if fits {
					return // something left out would still fit
				}
			}
			for t := range waste {
				if max(0, waste[t]) > p.spare[t] {
					return
				}
			}
			all = append(all, &choice{kind, slices.Clone(cur), slices.Clone(waste)})
			return
		}
		have := int64(p.left[i])
		size := p.items[i].Size
		least := int64(0)
		if i == must {
			least = 1
		}
		for c := min(have, room/size); c >= least; c-- {
			skip := skipped
			if c < have {
				skip = min(skip, size)
			}
			if c > 0 {
				cur = append(cur, Share{i, int(c)})
				for range c {
					sizes = append(sizes, size)
				}
			}
			for t := range waste {
				waste[t] -= c * p.tests[t].worth[i]
			}
			if !k.plain() {
				steps += int64(1 + len(sizes)*len(k.Ways))
			}
			held, sure := true, true
			if !k.plain() {
				held, sure = k.judge(sizes, judgeSteps)
			}
			whole = whole && sure
			if held {
				fill(i+1, room-c*size, skip)
			}
			for t := range waste {
				waste[t] += c * p.tests[t].worth[i]
			}
			if c > 0 {
				cur, sizes = cur[:len(cur)-1], sizes[:len(sizes)-int(c)]
			}
		}
	}
	const none = int64(1) << 62
	fill(must, k.Room, none)
	p.spend(steps * int64(2+tests))
	p.sure = p.sure && whole
	return all
}

// with puts one more size among others, the largest first.
func with(sizes []int64, size int64) []int64 {
	at, _ := slices.BinarySearchFunc(sizes, size, func(a, b int64) int { return cmp.Compare(b, a) })
	return slices.Insert(slices.Clone(sizes), at, size)
}
