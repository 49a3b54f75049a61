package record_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
)

// A sum that is advanced, in whatever batches, is the sum of the whole; what was handed out before
// stays as it was.
func TestASumIsAdvanced(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := withParts(t, draw(t))
		type handed struct {
			work record.Work
			was  []byte
		}
		var before []handed
		tally := record.Tally{}
		for from := 0; from < len(all); {
			to := rapid.IntRange(from+1, len(all)).Draw(t, "to")
			tally.Add(all[from:to]...)
			from = to
			w := tally.Work()
			is := says(t, &w)
			whole := record.Add(all[:to])
			require.Equal(t, string(says(t, &whole)), string(is), "after %d events", to)
			require.Equal(t, whole.Basis("3/4"), w.Basis("3/4"))
			before = append(before, handed{w, is})
		}
		for i := range before {
			require.Equal(t, string(before[i].was), string(says(t, &before[i].work)), "what was handed out is changed by nobody")
		}
	})
}

// withParts puts parts of sticks, numbers, and pieces that are there twice among events.
func withParts(t *rapid.T, all []record.Event) (more []record.Event) {
	var ids []string
	for _, e := range all {
		if e.Kind == record.Cut {
			e.Number = rapid.IntRange(0, 4).Draw(t, "number")
		}
		if s := e.Stick; s != nil {
			ids = append(ids, s.ID, record.PartNo(s.ID, 0))
			if rapid.IntRange(0, 4).Draw(t, "from a part") == 0 {
				e.Stick = stick(record.PartNo(s.ID, rapid.IntRange(0, 2).Draw(t, "which")))
			}
		}
		more = append(more, e)
		switch rapid.IntRange(0, 6).Draw(t, "more") {
		case 0:
			if len(ids) > 0 {
				p := record.Event{
					ID: "parted" + e.ID, Seq: e.Seq, Kind: record.Parted, Stick: stick(rapid.SampledFrom(ids).Draw(t, "parted")),
					Fee: &record.Fee{Each: 50, Free: 1},
				}
				for range rapid.IntRange(1, 3).Draw(t, "parts") {
					p.Lengths = append(p.Lengths, measure.Length(rapid.IntRange(1, 40).Draw(t, "part"))*measure.Inch)
				}
				more = append(more, p)
			}
		case 1:
			more = append(more, record.Event{ID: "both" + e.ID, Seq: e.Seq, Kind: record.BothCut, Item: e.ID})
		case 2:
			more = append(
				more,
				record.Event{ID: "back" + e.ID, Seq: e.Seq, Kind: record.TakenBack, Event: rapid.SampledFrom(more).Draw(t, "back").ID},
			)
		}
	}
	return more
}

func says(t require.TestingT, w *record.Work) []byte {
	data, err := json.Marshal(w)
	require.NoError(t, err)
	return data
}

// A record has bounds that no builder meets; what takes back is never too much, and one that is beyond them adds up.
func TestARecordHasBounds(t *testing.T) {
	pipe := func(id string, n int) record.Event {
		return record.Event{ID: id, Kind: record.Bought, Count: n, Ware: &material.Spec{Ware: material.Pipe, Size: "3/4", Length: tenFeet}}
	}
	caps := record.Event{
		ID:    "caps",
		Kind:  record.Bought,
		Count: 10_000,
		Ware:  &material.Spec{Ware: material.Fitting, Kind: "cap", Size: "3/4"},
	}
	assert.Nil(t, caps.Problem())
	caps.Count++
	assert.NotNil(t, caps.Problem())
	most, more := pipe("a", 500), pipe("b", 501)
	assert.Nil(t, most.Problem())
	assert.NotNil(t, more.Problem())
	var all []record.Event
	for i := range 10 {
		e := pipe(fmt.Sprint("a", i), 500)
		w := record.Add(all)
		require.Nil(t, w.TooMuch(&e))
		all = append(all, e)
	}
	w, one, back := record.Add(all), pipe("c", 1), record.Event{ID: "d", Kind: record.TakenBack, Event: "a1"}
	assert.NotNil(t, w.TooMuch(&one))
	assert.Nil(t, w.TooMuch(&back))
	beyond := record.Add(append(all, pipe("old", 10_000)))
	assert.Len(t, beyond.Sticks, 15_000)
	again := beyond.With(record.Event{ID: "e", Kind: record.TakenBack, Event: "old"})
	assert.Len(t, again.Sticks, 5000)
}

// Of several projects the work with one more event is that of the one that it is of, with all that was done of the others.
func TestOneMoreOfSeveral(t *testing.T) {
	cut := func(id string) record.Event {
		return record.Event{
			ID:     id,
			Kind:   record.Cut,
			Piece:  &record.Piece{Pipe: "p", Copy: 1},
			Stick:  stick(id + "s"),
			Length: measure.Foot,
		}
	}
	w := record.Together(record.Add([]record.Event{cut("a")}), record.Add([]record.Event{cut("b")}))
	more := cut("c")
	more.Frame = 1
	after := w.With(more)
	require.Len(t, after.Pieces, 3)
	assert.Equal(t, "c", after.Pieces[2].ID)
	assert.Equal(t, 1, after.Pieces[2].Frame)
	assert.Len(t, w.Pieces, 2)
}

// One tick onto a record of ten thousand.
func BenchmarkOneMore(b *testing.B) {
	tally := record.Tally{}
	tally.Add(long(10_000)...)
	b.ResetTimer()
	for i := range b.N {
		tally.Add(
			record.Event{
				ID:     fmt.Sprint("more", i),
				Kind:   record.Cut,
				Piece:  &record.Piece{Pipe: "p", Copy: i + 1},
				Stick:  stick(fmt.Sprint("more", i)),
				Length: measure.Foot,
			},
		)
		_ = tally.Work()
	}
}

// One that takes back, of a record of ten thousand.
func BenchmarkOneBack(b *testing.B) {
	tally := record.Tally{}
	all := long(10_000)
	tally.Add(all...)
	b.ResetTimer()
	for i := range b.N {
		tally.Add(record.Event{ID: fmt.Sprint("back", i), Kind: record.TakenBack, Event: all[i%len(all)].ID})
		_ = tally.Work()
	}
}

// long is a record of so many cuts, each nth with its marks.
func long(n int) (all []record.Event) {
	for i := range n {
		e := record.Event{
			ID:     fmt.Sprint("e", i),
			Seq:    int64(i + 1),
			Kind:   record.Cut,
			Piece:  &record.Piece{Pipe: fmt.Sprint("p", i%50), Copy: i/50 + 1},
			Stick:  stick(fmt.Sprint("s", i/8)),
			Length: measure.Foot,
			Kerf:   measure.Inch / 8,
			Letter: "A",
			Basis:  "x",
		}
		if i%3 == 2 {
			e = record.Event{ID: e.ID, Seq: e.Seq, Kind: record.Marked, Item: fmt.Sprint("e", i-1)}
		}
		all = append(all, e)
	}
	return all
}

// Parts lie at home with their lengths; what is told again of a stick is so; a leftover of two parts is two; taken back it is
// whole, and what was cut from a part is cut from it.
func TestPartsAreSticks(t *testing.T) {
	inch := measure.Inch
	bought := record.Event{ID: "b", Kind: record.Bought, Count: 1, Ware: &material.Spec{Ware: material.Pipe, Size: "3/4", Length: tenFeet}}
	parted := func(id string, lengths ...measure.Length) record.Event {
		e := record.Event{ID: id, Kind: record.Parted, Stick: stick("b.1"), Lengths: lengths, Fee: &record.Fee{Each: 50}}
		require.Nil(t, e.Problem())
		return e
	}
	cut := record.Event{ID: "c", Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: 1}, Length: 20 * inch, Kerf: inch / 8,
		Stick: &record.Source{ID: "b.1/2", Size: "3/4", Length: 59*inch + 7*inch/8, Origin: record.FromPart}}
	left := func(events ...record.Event) map[string]measure.Length {
		w := record.Add(events)
		all := map[string]measure.Length{}
		for _, s := range w.Sticks {
			all[s.ID] = s.Left
		}
		return all
	}
	home := parted("p", 60*inch, 59*inch+7*inch/8)
	assert.Equal(t, map[string]measure.Length{"b.1": 0, "b.1/1": 60 * inch, "b.1/2": 59*inch + 7*inch/8}, left(bought, home))
	assert.Equal(t, map[string]measure.Length{"b.1": 0, "b.1/1": 60 * inch, "b.1/2": 39*inch + 3*inch/4}, left(bought, home, cut))
	again := parted("q", 59*inch, 60*inch)
	assert.Equal(
		t,
		map[string]measure.Length{"b.1": 0, "b.1/1": 59 * inch, "b.1/2": 40*inch - inch/8},
		left(bought, home, cut, again),
		"as it really came",
	)
	whole := parted("r", 120*inch+inch/4)
	assert.Equal(t, measure.Length(120*inch+inch/4), left(bought, home, whole)["b.1"], "one, as long as it measures")
	assert.Zero(t, left(bought, home, whole)["b.1/1"])
	back := record.Event{ID: "x", Kind: record.TakenBack, Event: "p"}
	assert.Equal(
		t,
		map[string]measure.Length{"b.1": 100*inch - inch/8},
		left(bought, home, cut, back),
		"it was not cut in the shop after all",
	)
	w := record.Add([]record.Event{bought, home})
	assert.Equal(t, 1, w.ShopCuts.Done)
	assert.Equal(t, measure.Money(50), w.ShopCuts.Each)
	long := parted("p", 60*inch)
	long.Lengths = []measure.Length{100 * inch, 40 * inch}
	assert.NotNil(t, long.Problem(), "longer than the stick")
}

// A leftover is by what the stick measures.
func TestALeftoverIsByTheMeasure(t *testing.T) {
	s := stick("s")
	s.True = tenFeet + measure.Inch/4
	w := record.Add([]record.Event{
		{ID: "a", Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: 1}, Stick: s, Length: 40 * measure.Inch, Kerf: measure.Inch / 8},
		{ID: "r", Kind: record.Racked, Item: "s"},
	})
	before := record.Add(nil)
	assert.Equal(t, 80*measure.Inch+measure.Inch/8, w.Sticks[0].Left)
	assert.Equal(t, 80*measure.Inch+measure.Inch/8, record.Rack(&before, &w, nil)[0].Length, "on the rack, too")
}
