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
		all := draw(t)
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
	caps := record.Event{ID: "caps", Kind: record.Bought, Count: 10_000, Ware: &material.Spec{Ware: material.Fitting, Kind: "cap", Size: "3/4"}}
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
		return record.Event{ID: id, Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: 1}, Stick: stick(id + "s"), Length: measure.Foot}
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
		tally.Add(record.Event{ID: fmt.Sprint("more", i), Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: i + 1}, Stick: stick(fmt.Sprint("more", i)), Length: measure.Foot})
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
		e := record.Event{ID: fmt.Sprint("e", i), Seq: int64(i + 1), Kind: record.Cut, Piece: &record.Piece{Pipe: fmt.Sprint("p", i%50), Copy: i/50 + 1},
			Stick: stick(fmt.Sprint("s", i/8)), Length: measure.Foot, Kerf: measure.Inch / 8, Letter: "A", Basis: "x"}
		if i%3 == 2 {
			e = record.Event{ID: e.ID, Seq: e.Seq, Kind: record.Marked, Item: fmt.Sprint("e", i-1)}
		}
		all = append(all, e)
	}
	return all
}
