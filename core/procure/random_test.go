package procure_test

import (
	"cmp"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// Whatever is planned and done in whatever order: every piece that is there is told once,
// with what becomes of it; every planned piece comes from one place; sticks hold what is
// cut from them; letters that were fixed stand for what they stood for; and where nothing
// but the next cut happened, the plan goes on as it was.
func TestWhatIsThereAgainstWhatIsPlanned(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		b := workshop(t)
		b.copies = rapid.IntRange(1, 3).Draw(r, "copies")
		for range rapid.IntRange(0, 3).Draw(r, "on the rack") {
			length := measure.Length(rapid.IntRange(20, 110).Draw(r, "offcut")) * measure.Inch
			b.shop.Rack = append(b.shop.Rack, shop.Offcut{Size: "3/4", Length: length, Count: rapid.IntRange(1, 2).Draw(r, "count")})
		}
		letters := map[string]measure.Length{}
		for range rapid.IntRange(1, 14).Draw(r, "steps") {
			before := b.plan()
			switch k := rapid.IntRange(0, 14).Draw(r, "step"); k {
			case 0, 1, 2, 3:
				cutMore(r, b, before)
			case 4:
				b.wide = measure.Length(rapid.IntRange(60, 260).Draw(r, "wide")) * measure.Inch / 2
			case 5:
				b.high = measure.Length(rapid.IntRange(30, 200).Draw(r, "high")) * measure.Inch / 4
			case 6:
				b.copies = rapid.IntRange(1, 4).Draw(r, "copies")
			case 7:
				length := rapid.SampledFrom([]measure.Length{60, 96, 120}).Draw(r, "stick") * measure.Inch
				if rapid.Bool().Draw(r, "on sale") {
					b.shop.Stock = []shop.StockLength{{Length: length}, {Length: 240 * measure.Inch}}
				} else {
					b.buy(before, length, rapid.IntRange(1, 4).Draw(r, "bought"))
				}
			case 8:
				b.shop.Prices.Set(
					cost.Price{
						Spec:  material.Spec{Ware: material.Pipe, Size: "3/4", Length: 120 * measure.Inch},
						Asked: cost.Asked{Amount: measure.Money(rapid.IntRange(200, 900).Draw(r, "price"))},
					},
				)
			case 9: // another car, or none
				b.shop.Haul = nil
				if limit := rapid.IntRange(0, 12).Draw(r, "car"); limit > 4 {
					b.shop.Haul = &stock.Haul{Limit: measure.Length(limit) * measure.Foot, Error: measure.Inch / 8, Price: 20}
				}
			case 10: // sticks measure otherwise than they are named
				for i := range b.shop.Stock {
					l := &b.shop.Stock[i]
					l.True = l.Length + measure.Length(rapid.IntRange(-2, 4).Draw(r, "longer"))*measure.Inch/8
				}
			case 11: // sticks that were at home
				length := measure.Length(rapid.IntRange(30, 130).Draw(r, "home")) * measure.Inch
				b.did(record.Event{
					Kind: record.Had, Count: rapid.IntRange(1, 3).Draw(r, "had"), Ware: &material.Spec{Ware: material.Pipe, Size: "3/4", Length: length},
				})
			case 12:
				measured(r, b)
			default:
				undoSome(r, b)
			}
			homeIsPlanned(r, b)
			p := b.plan()
			isWhole(r, b, p)
			for _, c := range p.Cuts {
				if was, known := letters[c.Letter]; known && c.Fixed {
					require.Equal(r, was, c.Cut, "letter %s", c.Letter)
				}
			}
			for _, l := range record.Add(b.events).Letters {
				if was, known := letters[l.Letter]; known {
					require.Equal(r, was, l.Cut, "letter %s", l.Letter)
				}
				letters[l.Letter] = l.Cut
			}
		}
	})
}

// cutMore cuts from the next stick by the plan, and checks that the plan goes on.
func cutMore(r *rapid.T, b *bench, before *procure.Purchase) {
	if b.cut(before, rapid.IntRange(1, 9).Draw(r, "pieces")) == nil {
		return
	}
	after := b.plan()
	require.Equal(r, layout(before), layout(after))
	require.Equal(r, before.Pipe[0].Basis, after.Pipe[0].Basis)
	require.Equal(r, before.Totals.Sticks, after.Totals.Sticks)
}

// measured says of a stick, or of a part, that it came home otherwise than it was to, or that it has a flaw.
func measured(r *rapid.T, b *bench) {
	work := record.Add(b.events)
	if len(work.Sticks) == 0 {
		return
	}
	s := rapid.SampledFrom(work.Sticks).Draw(r, "measured")
	if s.Left <= 4*measure.Inch || s.Racked {
		return
	}
	from := s.Source
	from.Length, from.True = s.Left, 0
	sixteenths := func(most measure.Length, what string) measure.Length {
		return measure.Length(rapid.Int64Range(16, int64(most/(measure.Inch/16))).Draw(r, what)) * measure.Inch / 16
	}
	first := sixteenths(s.Left-measure.Inch, "first part")
	lengths := []measure.Length{first}
	if rest := s.Left - first; rest > 2*measure.Inch && rapid.Bool().Draw(r, "flaw") {
		lengths = append(lengths, sixteenths(rest, "second part"))
	}
	b.parted(from, "", lengths)
}

// homeIsPlanned checks that what lies at home by the record is what the plan goes by, to the last of it: no stick is longer in
// the plan than it is, none is asked to be cut in the shop again, and what the shop was paid stays paid.
func homeIsPlanned(r *rapid.T, b *bench) {
	work, p := record.Add(b.events), b.plan()
	if len(p.Pipe) == 0 {
		return
	}
	numbers, of := map[int]string{}, map[string]int{}
	for _, s := range p.Pipe[0].Sticks {
		whole := cmp.Or(s.ID, fmt.Sprint("new", s.Number))
		if s.Of != nil {
			whole = s.Of.ID
		}
		if was := numbers[s.Number]; was != "" {
			require.Equal(r, was, whole, "number %d is one stick's", s.Number)
		}
		numbers[s.Number] = whole
		if was := of[s.ID]; s.ID != "" && was != 0 {
			require.Equal(r, was, s.Number)
		}
		of[s.ID] = s.Number
		if there := work.Stick(s.ID); there != nil && there.Number > 0 {
			require.Equal(r, there.Number, s.Number, "what is written on a stick stays")
		}
	}
	for _, s := range p.Pipe[0].Sticks {
		if s.Earlier || s.ID == "" || s.Origin == stock.Cut || s.Origin == stock.Rack {
			continue
		}
		require.Empty(r, s.Marks, "what is at home is not cut in the shop again")
		type piece struct {
			id           string
			holds        measure.Length
			cut, planned measure.Length
		}
		all := []piece{{id: s.ID, holds: cmp.Or(s.True, s.Length)}}
		if len(s.Parts) > 0 {
			all = nil
			for _, part := range s.Parts {
				all = append(all, piece{id: part.ID, holds: part.Length})
			}
		}
		at, left := 0, len(s.Pieces)
		if len(s.Parts) > 0 {
			left = s.Parts[0].Pieces
		}
		for _, x := range s.Pieces {
			for ; left == 0; left = s.Parts[at].Pieces {
				at++
			}
			left--
			if x.Cut != "" {
				all[at].cut += x.Length + x.Kerf
			} else {
				all[at].planned += x.Length + x.Kerf
				if all[at].cut > 0 { // it is marked from the end that is left
					require.Equal(r, all[at].planned-x.Kerf, x.At)
				}
			}
		}
		for _, x := range all {
			there := work.Stick(x.id)
			require.NotNil(r, there, x.id)
			over := measure.Length(0)
			for _, l := range b.shop.Stock {
				if there.Origin == record.FromShop && there.True == 0 && l.Length == there.Length {
					over = l.Usable() - l.Length
				}
			}
			require.Equal(r, max(0, x.holds-x.cut), max(0, there.Left+over), "%s as the plan has it, and as it lies there", x.id)
			require.LessOrEqual(r, x.planned, there.Left+over, "%s holds what is still to be cut from it", x.id)
		}
	}
	paid := 0
	for _, l := range p.Bill.Lines {
		if l.Kind == "cut in the shop" {
			paid = l.Count
		}
	}
	if fee := work.ShopCuts; fee.Each > 0 && b.shop.Haul == nil {
		require.GreaterOrEqual(r, paid, fee.Done-fee.Free, "what was paid stays paid")
	}
}

// undoSome says of something that it was not done after all, that it was spoilt or cemented, or
// that it is on the rack.
func undoSome(r *rapid.T, b *bench) {
	work := record.Add(b.events)
	if len(work.Pieces) == 0 {
		return
	}
	piece := rapid.SampledFrom(work.Pieces).Draw(r, "piece")
	switch rapid.IntRange(0, 3).Draw(r, "undone") {
	case 0:
		b.did(record.Event{Kind: record.TakenBack, Event: piece.ID})
	case 1:
		b.did(record.Event{Kind: record.Spoilt, Item: piece.ID})
	case 2:
		b.did(record.Event{Kind: record.Cemented, Piece: &piece.Piece, Joint: "j1"})
	default:
		b.did(record.Event{Kind: record.Racked, Item: piece.Stick})
	}
}

func isWhole(r *rapid.T, b *bench, p *procure.Purchase) {
	work := record.Add(b.events)
	told, served := map[string]procure.Existing{}, map[procure.PieceRef]string{}
	for _, e := range p.Existing {
		require.False(r, e.Cemented && (e.Used || e.Fate == procure.Trim), "what is cemented stays")
		_, twice := told[e.ID]
		require.False(r, twice, "each piece is told once")
		told[e.ID] = e
		if e.Serves != nil {
			require.Empty(r, served[*e.Serves], "one piece for each place")
			served[*e.Serves] = e.ID
		}
	}
	require.Len(r, told, len(work.Pieces))
	if len(p.Pipe) == 0 {
		return
	}
	pipe := &p.Pipe[0]
	lengths, toCut, trims := map[string]measure.Length{}, map[string]int{}, map[string]int{}
	for _, c := range p.Cuts {
		lengths[c.Letter] = c.Cut
	}
	seen, ids := map[procure.PieceRef]bool{}, map[string]bool{}
	for _, s := range pipe.Sticks {
		if s.Earlier {
			continue
		}
		if s.ID != "" {
			require.False(r, ids[s.ID], "a stick is there once")
			ids[s.ID] = true
		}
		room := cmp.Or(s.True, s.Length)
		for _, x := range s.Pieces {
			room -= x.Length + x.Kerf
			require.Equal(r, lengths[x.Name], x.Length)
			if x.Cut != "" {
				e, there := told[x.Cut]
				require.True(r, there, "what is cut is there")
				require.Equal(r, procure.Keep, e.Fate)
				require.Equal(r, x.PieceRef, *e.Serves)
				continue
			}
			require.NotEmpty(r, x.Pipe)
			require.False(r, seen[x.PieceRef], "each piece is cut once")
			seen[x.PieceRef] = true
			switch trim := served[x.PieceRef]; {
			case trim != "":
				require.Equal(r, procure.Trim, told[trim].Fate)
				require.Equal(r, s.ID, trim)
				trims[x.Name]++
			default:
				toCut[x.Name]++
			}
		}
		require.GreaterOrEqual(r, room, measure.Length(0), "it holds what is cut from it")
		if at := work.Stick(s.ID); at != nil && s.Origin == stock.Offcut {
			require.LessOrEqual(r, s.Length, at.Length)
			require.Empty(r, s.Parts)
		}
	}
	for _, c := range p.Cuts {
		if slices.Contains(pipe.TooLong, c.Letter) {
			continue
		}
		require.Equal(r, trims[c.Letter], c.Trims, c.Letter)
		require.Equal(r, c.Count, c.Done+c.Trims+toCut[c.Letter], "%s: %d done, %d to trim", c.Letter, c.Done, c.Trims)
	}
	// sticks of a shop that are there are needed, or said to be too many
	there, extra := 0, 0
	for i := range work.Sticks {
		if s := &work.Sticks[i]; s.Origin == record.FromShop && (len(s.Cuts) > 0 || s.Lost > 0 || !s.Racked) {
			there++ // what lies whole on the rack is every project's
		}
	}
	for _, x := range p.Extra {
		extra += x.Count
	}
	got := 0
	for _, n := range pipe.Need {
		got += n.Got
		require.LessOrEqual(r, n.Got, n.Count)
	}
	require.Equal(r, there, got+extra, fmt.Sprint(pipe.Need, p.Extra))
}
