package packing

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
)

// Item is a size that is to be placed so many times.
type Item struct {
	Size  int64
	Count int
}

// Endless is the limit of a kind of which there are as many as wanted.
const Endless = -1

// Kind is a sort of bin.
type Kind struct {
	Room  int64 // what the sizes of the pieces in one come to at the most
	Cost  int64 // of one, not negative
	Bins  int   // how many bins one counts for: 0 for what is there anyway
	Cuts  int   // what one adds to the third goal
	Limit int   // how many there are, or [Endless]
	Ways  []Way // how the pieces in one may be divided; none: any that fit the room will do
	// Reserve is what is kept free in a bin with so many pieces; with more, what stands last.
	// Of a bin that is divided, each part keeps it.
	Reserve []int64
}

// Way is one way to divide a bin: into parts, each with room for pieces of its own. Room
// is what all of them together may come to.
type Way struct {
	Room  int64
	Parts []int64
}

// Fee is charged for the cuts of an answer that go beyond those that are free.
type Fee struct {
	Free  int
	Price int64
}

// Problem is what to pack. Nothing in it is changed.
type Problem struct {
	Items []Item // sizes are above nought, and each is there once
	Kinds []Kind
	Fee   Fee
	// AtMost is the worst total that is of use; nil for any. Where no answer is as good, the
	// error is [ErrNoRoom].
	AtMost *Total
	Steps  int64 // what the search may spend; 0: DefaultSteps. Some three hundred million take a second
}

// DefaultSteps is what a search may spend when the problem does not say.
const DefaultSteps = 400_000_000

// Share is how many of an item are in a bin.
type Share struct {
	Item, Count int
}

// Bin is one bin with its pieces.
type Bin struct {
	Kind   int
	Shares []Share // by item, in the problem's order
}

// Total is what is sought to be least: the first that differs decides.
type Total struct {
	Cost       int64
	Bins, Cuts int
}

// Compare orders totals, the better first.
func (t Total) Compare(u Total) int {
	return cmp.Or(cmp.Compare(t.Cost, u.Cost), cmp.Compare(t.Bins, u.Bins), cmp.Compare(t.Cuts, u.Cuts))
}

// Answer is a packing of everything.
type Answer struct {
	Bins   []Bin
	Total  Total
	Bound  Total // no answer is better
	Proven bool  // the total is the bound
	Steps  int64 // spent
}

// ErrNoRoom says that the bins there are cannot hold everything at the total allowed, or
// that the steps did not suffice to find out how.
var ErrNoRoom = errors.New("the bins there are do not hold all pieces")

// Solve packs everything at the least cost, then into the fewest bins, then with the fewest
// cuts. The error is [ErrNoRoom], the context's, or says what of the problem makes no sense.
func Solve(ctx context.Context, p Problem) (Answer, error) {
	s, err := newSearch(ctx, &p)
	if err != nil {
		return Answer{}, err
	}
	a, err := s.solve()
	if ctx.Err() != nil {
		return Answer{}, ctx.Err()
	}
	return a, err
}

// Check says what is wrong with a problem.
func (p *Problem) Check() error {
	seen := map[int64]bool{}
	for i, it := range p.Items {
		switch {
		case it.Size <= 0 || it.Count < 0:
			return fmt.Errorf("item %d: %d of size %d", i, it.Count, it.Size)
		case seen[it.Size]:
			return fmt.Errorf("item %d: size %d is there twice", i, it.Size)
		}
		seen[it.Size] = true
	}
	for k, kd := range p.Kinds {
		if kd.Cost < 0 || kd.Bins < 0 || kd.Cuts < 0 || kd.Limit < Endless {
			return fmt.Errorf("kind %d: a figure is below nought", k)
		}
	}
	if p.Fee.Free < 0 || p.Fee.Price < 0 {
		return errors.New("a fee below nought")
	}
	return nil
}

// Totalled sums up what bins cost together.
func (p *Problem) Totalled(bins []Bin) (t Total) {
	for _, b := range bins {
		k := &p.Kinds[b.Kind]
		t.Cost, t.Bins, t.Cuts = t.Cost+k.Cost, t.Bins+k.Bins, t.Cuts+k.Cuts
	}
	t.Cost += p.Fee.of(t.Cuts)
	return t
}

func (f Fee) of(cuts int) int64 { return f.Price * int64(max(0, cuts-f.Free)) }

// Verify says what is wrong with bins as an answer to a problem: it trusts no total.
func (p *Problem) Verify(bins []Bin) error {
	placed := make([]int, len(p.Items))
	used := make([]int, len(p.Kinds))
	for n, b := range bins {
		used[b.Kind]++
		var sizes []int64
		for _, s := range b.Shares {
			placed[s.Item] += s.Count
			for range s.Count {
				sizes = append(sizes, p.Items[s.Item].Size)
			}
		}
		slices.SortFunc(sizes, func(a, b int64) int { return cmp.Compare(b, a) })
		if !p.Kinds[b.Kind].holds(sizes) {
			return fmt.Errorf("bin %d does not hold its pieces", n)
		}
	}
	for i, it := range p.Items {
		if placed[i] != it.Count {
			return fmt.Errorf("of size %d, %d are placed and not %d", it.Size, placed[i], it.Count)
		}
	}
	for k, kd := range p.Kinds {
		if kd.Limit != Endless && used[k] > kd.Limit {
			return fmt.Errorf("%d bins of kind %d, of which there are %d", used[k], k, kd.Limit)
		}
	}
	return nil
}

// plain says whether any pieces that fit a kind's room go into one bin.
func (k *Kind) plain() bool { return k.Ways == nil && k.Reserve == nil }

// kept is what a bin with so many pieces keeps free.
func (k *Kind) kept(pieces int) int64 {
	if k.Reserve == nil {
		return 0
	}
	return k.Reserve[min(pieces, len(k.Reserve)-1)]
}

// holds says whether pieces of these sizes, the largest first, go into one bin.
func (k *Kind) holds(sizes []int64) bool {
	held, _ := k.judge(sizes, divideSteps)
	return held
}

// judge says the same within so many steps; sure is false where they did not suffice.
func (k *Kind) judge(sizes []int64, steps int) (held, sure bool) {
	sum := int64(0)
	for _, s := range sizes {
		sum += s
	}
	kept := k.kept(len(sizes))
	if sum+kept > k.Room {
		return false, true
	}
	if k.Ways == nil {
		return true, true
	}
	sure = true
	for _, w := range k.Ways {
		if sum+kept*int64(len(w.Parts)) > w.Room {
			continue
		}
		parts := w.Parts
		if kept > 0 {
			parts = slices.Clone(parts)
			for j := range parts {
				parts[j] -= kept
			}
		}
		into, known := divide(sizes, parts, steps)
		if into != nil {
			return true, true
		}
		sure = sure && known
	}
	return false, sure
}

// judgeSteps is what may be spent on whether one bin can be divided, while bins are filled.
const judgeSteps = 2000

// Holds says whether one piece of a size goes into a bin of the kind.
func (k *Kind) Holds(size int64) bool { return k.holds([]int64{size}) }
