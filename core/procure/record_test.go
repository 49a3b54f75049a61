package procure_test

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// bench is a workshop: some cemented squares of 40 by 30 in, a shop, and what was done.
type bench struct {
	t          *testing.T
	wide, high measure.Length
	size       catalog.Size
	copies     int
	tool       string
	shop       shop.Shop
	events     []record.Event
}

func workshop(t *testing.T) *bench {
	return &bench{t: t, wide: 40 * measure.Inch, high: 30 * measure.Inch, size: "3/4", copies: 4, tool: "saw", shop: shop.Example()}
}

func (b *bench) plan() *procure.Purchase {
	built := modeltest.Built(b.t, modeltest.Square, func(d *frame.Document) {
		d.Mode, d.Size = frame.Cemented, b.size
		d.EachSize(func(_ *frame.Definition, s *frame.Size) {
			if s.Axis == "x" {
				s.Value = b.wide
			} else {
				s.Value = b.high
			}
		})
	})
	with, ok := b.shop.Tool(b.tool)
	require.True(b.t, ok)
	work := record.Add(b.events)
	p, err := procure.Procure(
		context.Background(),
		[]procure.Lot{{Built: built, Copies: b.copies}},
		procure.Order{Shop: &b.shop, Work: &work, Tool: with},
	)
	require.NoError(b.t, err)
	return p
}

func (b *bench) did(e record.Event) string {
	e.ID, e.Seq, e.Device = fmt.Sprint("e", len(b.events)+1), int64(len(b.events)+1), "saw bench"
	require.Nil(b.t, e.Problem())
	before := record.Add(b.events)
	b.events = append(b.events, e)
	after := record.Add(b.events)
	b.shop.Rack = record.Rack(&before, &after, b.shop.Rack)
	return e.ID
}

// letters fixes the letters of a plan.
func (b *bench) letters(p *procure.Purchase) {
	e := record.Event{Kind: record.Lettered}
	for _, c := range p.Cuts {
		if !c.Fixed {
			e.Letters = append(e.Letters, c.Mark())
		}
	}
	if len(e.Letters) > 0 {
		b.did(e)
	}
}

// cut cuts the first stick that is not cut yet, as the plan has it; all of its pieces, or
// so many.
func (b *bench) cut(p *procure.Purchase, most int) *procure.Stick {
	b.letters(p)
	t := &p.Pipe[0]
	for i := range t.Sticks {
		s := &t.Sticks[i]
		left := slices.ContainsFunc(s.Pieces, func(x procure.StickPiece) bool { return x.Cut == "" })
		if s.Earlier || !left {
			continue
		}
		from := record.Source{ID: s.ID, Size: t.Size, Length: s.Length, True: s.True, Origin: record.FromShop}
		switch s.Origin {
		case stock.Home:
			from.Origin = record.FromHome
		case stock.Offcut:
			from.Origin = record.FromOffcut
		case stock.Parted:
			from.Origin = record.FromPart
		case stock.Cut:
			from.Origin = record.FromPiece
		case stock.Rack:
			from.Origin = record.FromRack
		}
		if from.ID == "" {
			from.ID = fmt.Sprint("stick", len(b.events))
			b.parted(from, t.Basis, lengthsOf(s.Parts))
		}
		whole, at, on := from, 0, 0
		for _, x := range s.Pieces {
			if len(s.Parts) > 0 { // from the part that it is on
				for ; on == 0; at++ {
					on = s.Parts[at].Pieces
				}
				on--
				from = record.Source{
					ID: record.PartNo(whole.ID, at-1), Size: t.Size, Length: s.Parts[at-1].Length, Origin: record.FromPart,
				}
			}
			if x.Cut == "" && most > 0 {
				most--
				from := from
				b.did(
					record.Event{
						Kind:   record.Cut,
						Piece:  &record.Piece{Pipe: x.Pipe, Copy: x.Copy},
						Stick:  &from,
						Length: x.Length,
						Kerf:   x.Kerf,
						Letter: x.Name,
						Number: s.Number,
						Basis:  t.Basis,
					},
				)
			}
		}
		return s
	}
	return nil
}

// parted says that a stick is in parts; nothing of one that is whole.
func (b *bench) parted(s record.Source, basis string, lengths []measure.Length) {
	if len(lengths) == 0 {
		return
	}
	e := record.Event{Kind: record.Parted, Stick: &s, Lengths: lengths, Basis: basis}
	if h := b.shop.Haul; h != nil {
		e.Fee = &record.Fee{Each: h.Price, Free: h.Free}
	}
	b.did(e)
}

func lengthsOf(parts []procure.StickPart) (all []measure.Length) {
	for _, p := range parts {
		all = append(all, p.Length)
	}
	return all
}

// buy buys sticks, and has those cut in the shop that the plan says so of.
func (b *bench) buy(p *procure.Purchase, length measure.Length, n int) string {
	id := b.bought(p, length, n)
	for _, need := range p.Pipe[0].Need {
		for i, lengths := range need.Parts {
			if need.Length == length && i < n {
				b.parted(
					record.Source{ID: record.ItemID(id, i), Size: b.size, Length: length, Origin: record.FromShop},
					p.Pipe[0].Basis,
					lengths,
				)
			}
		}
	}
	return id
}

func (b *bench) bought(p *procure.Purchase, length measure.Length, n int) string {
	return b.did(
		record.Event{
			Kind:  record.Bought,
			Count: n,
			Basis: p.Pipe[0].Basis,
			Ware:  &material.Spec{Ware: material.Pipe, Size: "3/4", Length: length},
		},
	)
}

// layout is what is cut from what, without what is done of it.
func layout(p *procure.Purchase) (all []string) {
	for _, s := range p.Pipe[0].Sticks {
		all = append(all, s.Key)
	}
	return all
}

func fates(p *procure.Purchase) map[procure.Fate]int {
	n := map[procure.Fate]int{}
	for _, e := range p.Existing {
		n[e.Fate]++
	}
	return n
}

func codes(p *procure.Purchase) (all []string) {
	for _, f := range p.Findings {
		if !slices.Contains(all, f.Code) {
			all = append(all, f.Code)
		}
	}
	return all
}

// As long as nothing is planned anew, the plan stands as it was made: what is bought and
// cut by it, stick by stick and piece by piece, is only ticked off.
func TestWorkGoesOnByThePlanItWasBegunBy(t *testing.T) {
	b := workshop(t)
	was := b.plan()
	total, sticks := was.Bill.Total, was.Totals.Sticks
	assert.Equal(t, 5, sticks) // 8 × 38 7/8 and 8 × 28 7/8 are 542 in
	b.buy(was, 120*measure.Inch, was.Pipe[0].Need[0].Count)
	for n := 1; ; n++ {
		p := b.plan()
		require.Equal(t, layout(was), layout(p), "after %d", n)
		require.Equal(t, total, p.Bill.Total)
		require.Equal(t, sticks, p.Totals.Sticks)
		require.Equal(t, was.Pipe[0].Basis, p.Pipe[0].Basis)
		require.Empty(t, p.Extra)
		if b.cut(p, 2) == nil {
			break
		}
	}
	p := b.plan()
	assert.Equal(t, map[procure.Fate]int{procure.Keep: 16}, fates(p))
	for _, c := range p.Cuts {
		assert.Equal(t, c.Count, c.Done)
		assert.True(t, c.Fixed)
	}
	for _, l := range p.Bill.Lines {
		if l.Ware == material.Pipe {
			assert.Equal(t, l.Count, l.Got, "%s: what was cut from was bought", l.Label)
		}
	}
	refs := map[procure.PieceRef]bool{}
	for _, s := range p.Pipe[0].Sticks {
		for _, x := range s.Pieces {
			require.NotEmpty(t, x.Cut)
			require.False(t, refs[x.PieceRef], "each piece once")
			refs[x.PieceRef] = true
		}
	}
	assert.Len(t, refs, 16)
}

// Four sticks are cut, then a price changes: they stay cut, and only the rest is planned
// anew.
func TestAPriceLeavesWhatIsCutAlone(t *testing.T) {
	b := workshop(t)
	for range 4 {
		b.cut(b.plan(), 99)
	}
	before := b.plan()
	b.shop.Prices.Set(
		cost.Price{Spec: material.Spec{Ware: material.Pipe, Size: "3/4", Length: 120 * measure.Inch}, Asked: cost.Asked{Amount: 350}},
	)
	p := b.plan()
	done := 0
	for i, c := range p.Cuts {
		assert.Equal(t, before.Cuts[i].Letter, c.Letter)
		assert.Equal(t, before.Cuts[i].Done, c.Done)
		done += c.Done
	}
	assert.Equal(t, done, fates(p)[procure.Keep])
	assert.Equal(t, before.Totals.Sticks, p.Totals.Sticks)
	require.Len(t, p.Existing, done)
	// and the next one that is cut is again only ticked off
	b.cut(p, 1)
	assert.Equal(t, layout(p), layout(b.plan()))
}

// A width that is half an inch less is a trim of every rail that is cut, no new stick;
// one that is half an inch more makes them short, and the short ones serve as what they
// can.
func TestAChangeTrimsOrCutsAnew(t *testing.T) {
	b := workshop(t)
	for range 3 {
		b.cut(b.plan(), 99)
	}
	was := b.plan()
	rails := 0
	for _, e := range was.Existing {
		if e.Length == measure.FromInches(40-2*0.5625) {
			rails++
		}
	}
	require.Positive(t, rails)
	b.wide -= measure.Inch / 2
	p := b.plan()
	assert.Equal(t, rails, fates(p)[procure.Trim])
	assert.Zero(t, fates(p)[procure.Recut])
	assert.Equal(t, was.Totals.Sticks, p.Totals.Sticks, "no stick more")
	assert.Contains(t, codes(p), "to-trim")
	trims := 0
	for _, s := range p.Pipe[0].Sticks {
		if s.Origin == stock.Cut {
			trims++
			assert.Equal(t, measure.FromInches(39.5-2*0.5625), s.Pieces[0].Length)
			assert.NotEqual(t, "A", s.Pieces[0].Name, "what is written on pipe is never another length")
		}
	}
	assert.Equal(t, rails, trims)
	for range rails { // trimmed, they are kept
		b.cut(b.plan(), 99)
	}
	done := b.plan()
	assert.Zero(t, fates(done)[procure.Trim])
	assert.Equal(t, len(was.Existing), fates(done)[procure.Keep])
	assert.Equal(t, layout(p), layout(done))

	b.wide += measure.Inch // now they are all short
	p = b.plan()
	assert.Equal(t, rails, fates(p)[procure.Recut])
	assert.Contains(t, codes(p), "cut-anew")
	used := 0
	for _, e := range p.Existing {
		if e.Used {
			used++
		}
	}
	posts := 8 - (len(was.Existing) - rails)
	assert.Equal(t, min(posts, rails), used, "posts that are still to be cut are cut from the short rails")
	letters := map[string]measure.Length{}
	for _, l := range record.Add(b.events).Letters {
		letters[l.Letter] = l.Cut
	}
	for _, c := range p.Cuts {
		if was, written := letters[c.Letter]; written {
			assert.Equal(t, was, c.Cut, "%s is never another piece", c.Letter)
		}
	}
}

// Seven sticks that were bought are not forgotten when the lengths on sale change: they
// are used first, and what is too much is said.
func TestWhatWasBoughtIsUsedFirst(t *testing.T) {
	b := workshop(t)
	was := b.plan()
	b.buy(was, 120*measure.Inch, 8)
	p := b.plan()
	assert.Equal(t, 0, p.Pipe[0].Stock.Count, "nothing is bought besides")
	require.Len(t, p.Extra, 1)
	assert.Equal(t, 3, p.Extra[0].Count)
	assert.Len(t, p.Extra[0].Back, 3)
	assert.Contains(t, codes(p), "too-many")
	b.shop.Stock = []shop.StockLength{{Length: 240 * measure.Inch}}
	p = b.plan()
	assert.Equal(t, 3, p.Extra[0].Count, "whatever is on sale now")
	assert.Equal(t, []procure.Needed{{Length: 120 * measure.Inch, Count: 5, Got: 5}}, p.Pipe[0].Need)
	// one of each fitting too many
	b.did(record.Event{Kind: record.Bought, Count: 20, Ware: &material.Spec{Ware: material.Fitting, Kind: "elbow-90", Size: "3/4"}})
	p = b.plan()
	require.Len(t, p.Extra, 2)
	assert.Equal(t, 4, p.Extra[1].Count)
	for _, l := range p.Bill.Lines {
		if l.Ware == material.Fitting {
			assert.Equal(t, []int{16, 16}, []int{l.Count, l.Got})
		}
	}
}

// What was cut and bought of a size that the frame no longer has is told: it is not
// forgotten, nor used for another size.
func TestAnotherPipeSize(t *testing.T) {
	b := workshop(t)
	b.buy(b.plan(), 120*measure.Inch, 5)
	s := b.cut(b.plan(), 99)
	b.size = "1"
	p := b.plan()
	assert.Equal(t, map[procure.Fate]int{procure.Surplus: len(s.Pieces)}, fates(p))
	require.Len(t, p.Extra, 1)
	assert.Equal(t, 4, p.Extra[0].Count, "one was cut from")
	for _, l := range p.Bill.Lines {
		if l.Ware == material.Pipe && l.Size == "1" {
			assert.Zero(t, l.Got)
		}
	}
	for _, e := range p.Extra[0].Back {
		b.did(e)
	}
	assert.Empty(t, b.plan().Extra, "all of them taken back")
}

// A plan that cuts from the rack goes on as it was while the rack grows empty.
func TestThePlanGoesOnWhileTheRackGrowsEmpty(t *testing.T) {
	b := workshop(t)
	b.shop.Rack = []shop.Offcut{
		{Size: "3/4", Length: 45 * measure.Inch, Count: 3},
		{ID: "mine", Size: "3/4", Length: 100 * measure.Inch, Count: 1},
	}
	was := b.plan()
	for b.cut(b.plan(), 99) != nil {
		require.Equal(t, layout(was), layout(b.plan()))
	}
	assert.Empty(t, b.shop.Rack)
	assert.Equal(t, map[procure.Fate]int{procure.Keep: 16}, fates(b.plan()))
}

// Letters are fixed by the first tick: a piece that comes later gets a new one, one that
// goes leaves its letter unused.
func TestLettersStayWhatTheyWere(t *testing.T) {
	b := workshop(t)
	p := b.plan()
	assert.False(t, p.Marked)
	b.cut(p, 1)
	p = b.plan()
	assert.True(t, p.Marked)
	b.high = 50 * measure.Inch // longer than A now: without ticks it would be A itself
	p = b.plan()
	assert.False(t, p.Marked)
	names := map[string]measure.Length{}
	for _, c := range p.Cuts {
		names[c.Letter] = c.Cut
	}
	assert.Equal(t, map[string]measure.Length{"A": measure.FromInches(38.875), "C": measure.FromInches(48.875)}, names)
	b.high = 30 * measure.Inch
	assert.Equal(t, "B", b.plan().Cuts[1].Letter, "and back")
}

// A piece that two devices say they cut is two pieces until one of them is taken back.
func TestAPieceCutTwiceIsShown(t *testing.T) {
	b := workshop(t)
	p := b.plan()
	s := b.cut(p, 99)
	var phone []string
	for _, e := range b.events { // the phone shows the plan of before, and ticks the same stick
		if e.Kind == record.Cut {
			e.Stick = &record.Source{ID: "another", Size: e.Stick.Size, Length: e.Stick.Length, Origin: e.Stick.Origin}
			phone = append(phone, b.did(e))
			b.events[len(b.events)-1].Device = "phone"
		}
	}
	before := p
	p = b.plan()
	assert.Len(t, p.Existing, 2*len(s.Pieces))
	assert.Equal(t, before.Bill.Total, p.Bill.Total, "it costs nothing until somebody decides")
	before.Totals.Bought, before.Totals.Cut = 1, len(s.Pieces)
	assert.Equal(t, before.Totals, p.Totals)
	assert.Empty(t, p.Extra)
	twice := slices.IndexFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "cut-twice" })
	require.GreaterOrEqual(t, twice, 0)
	assert.Equal(t, finding.Warn, p.Findings[twice].Severity)
	done := 0
	for _, c := range p.Cuts {
		done += c.Done
	}
	assert.Equal(t, len(s.Pieces), done, "what is in doubt serves for nothing else")
	for _, k := range p.Pipe[0].Sticks {
		assert.NotEqual(t, stock.Cut, k.Origin)
	}
	var said []string
	for _, id := range phone {
		said = append(said, b.did(record.Event{Kind: record.BothCut, Item: id}))
	}
	p = b.plan()
	assert.NotContains(t, codes(p), "cut-twice", "both are there")
	assert.Len(t, p.Existing, 2*len(s.Pieces))
	for _, id := range said {
		b.did(record.Event{Kind: record.TakenBack, Event: id})
	}
	assert.Contains(t, codes(b.plan()), "cut-twice")
	for _, id := range phone {
		b.did(record.Event{Kind: record.TakenBack, Event: id})
	}
	assert.NotContains(t, codes(b.plan()), "cut-twice")
}
