package record_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
)

const tenFeet = 10 * measure.Foot

func stick(id string) *record.Source {
	return &record.Source{ID: id, Size: "3/4", Length: tenFeet, Origin: record.FromShop}
}

func Example() {
	piece := &record.Piece{Pipe: "p1", Copy: 1}
	w := record.Add([]record.Event{
		{ID: "a", Kind: record.Bought, Count: 2, Ware: &material.Spec{Ware: material.Pipe, Size: "3/4", Length: tenFeet}},
		{ID: "b", Kind: record.Cut, Piece: piece, Stick: stick("a.1"), Length: 40 * measure.Inch, Kerf: measure.Inch / 8},
		{ID: "c", Kind: record.Cut, Piece: piece, Stick: stick("a.1"), Length: 40 * measure.Inch, Kerf: measure.Inch / 8},
		{ID: "d", Kind: record.TakenBack, Event: "b"},
	})
	for _, s := range w.Sticks {
		fmt.Println(s.ID, len(s.Cuts), s.Left)
	}
	fmt.Println(len(w.Pieces), w.Pieces[0].ID)
	// Output:
	// a.1 1 79 7/8"
	// a.2 0 120"
	// 1 c
}

// things are the kinds that tell of so many of a thing.
var things = []record.Kind{record.Bought, record.Had}

func isThings(k record.Kind) bool { return slices.Contains(things, k) }

// draw makes a stream of events as devices send them: things are bought, cut, trimmed,
// spoilt, put on the rack, joined and taken back; some are sent twice.
func draw(t *rapid.T) (all []record.Event) {
	var sticks, pieces, ids []string
	cuts := map[string]*record.Source{}
	pick := func(from []string, what string) string {
		if len(from) == 0 {
			return "none"
		}
		return rapid.SampledFrom(from).Draw(t, what)
	}
	for n := range rapid.IntRange(0, 40).Draw(t, "events") {
		e := record.Event{
			ID:     fmt.Sprint("e", n),
			Seq:    int64(n + 1),
			Device: rapid.SampledFrom([]string{"phone", "laptop"}).Draw(t, "device"),
		}
		piece := &record.Piece{
			Pipe: rapid.SampledFrom([]string{"p1", "p2", "legs#3/p1"}).Draw(t, "pipe"),
			Copy: rapid.IntRange(1, 2).Draw(t, "copy"),
		}
		length := measure.Length(rapid.IntRange(1, 20).Draw(t, "length")) * measure.Inch
		switch k := rapid.IntRange(0, 12).Draw(t, "kind"); k {
		case 0:
			e.Kind, e.Count = rapid.SampledFrom(things).Draw(t, "from"), rapid.IntRange(1, 3).Draw(t, "count")
			e.Ware = &material.Spec{Ware: material.Pipe, Size: "3/4", Length: tenFeet}
			for i := range e.Count {
				sticks = append(sticks, record.ItemID(e.ID, i))
			}
		case 1:
			e.Kind, e.Count = rapid.SampledFrom(things).Draw(t, "from"), rapid.IntRange(1, 9).Draw(t, "count")
			if e.Kind == record.Bought {
				e.Each = 50
			}
			e.Ware = &material.Spec{Ware: material.Fitting, Kind: rapid.SampledFrom([]string{"tee", "cap"}).Draw(t, "fitting"), Size: "3/4"}
		case 2, 3, 4:
			id := pick(append(sticks, "new"+e.ID), "stick")
			e.Kind, e.Piece, e.Stick, e.Length, e.Kerf = record.Cut, piece, stick(id), length, measure.Inch/8
			cuts[e.ID] = &record.Source{ID: e.ID, Size: "3/4", Length: length, Origin: record.FromPiece}
			sticks, pieces = append(sticks, id), append(pieces, e.ID)
		case 5: // trimmed, or cut into others
			from, known := cuts[pick(pieces, "piece")]
			if !known {
				continue
			}
			e.Kind, e.Piece, e.Stick, e.Length = record.Cut, piece, from, min(length, from.Length)
			cuts[e.ID] = &record.Source{ID: e.ID, Size: "3/4", Length: e.Length, Origin: record.FromPiece}
			pieces = append(pieces, e.ID)
		case 6:
			e.Kind, e.Item = record.Spoilt, pick(pieces, "piece")
		case 7:
			e.Kind, e.Stick, e.Length = record.Spoilt, stick(pick(append(sticks, "new"+e.ID), "stick")), length
		case 8:
			e.Kind, e.Item = record.Racked, pick(append(append([]string{}, sticks...), pieces...), "item")
		case 9:
			e.Kind, e.Piece, e.Joint = rapid.SampledFrom([]record.Kind{record.Fitted, record.Driven, record.Cemented}).
				Draw(t, "join"),
				piece, "j1"
		case 11:
			e.Kind, e.Item = rapid.SampledFrom([]record.Kind{record.Deburred, record.Marked}).Draw(t, "bench"), pick(pieces, "piece")
		case 10:
			e.Kind, e.Letters = record.Lettered, []record.Letter{{
				Letter: rapid.SampledFrom([]string{"A", "B", "C"}).Draw(t, "letter"),
				Size:   "3/4", Cut: length % (3 * measure.Inch),
			}}
		default:
			if len(ids) == 0 {
				continue
			}
			e.Kind, e.Event = record.TakenBack, pick(ids, "event")
			e.Count = max(0, rapid.IntRange(-2, 2).Draw(t, "how many"))
			if e.Count == 0 && len(sticks) > 0 && rapid.IntRange(0, 3).Draw(t, "a stick") == 0 {
				e.Item = pick(sticks, "item")
			}
		}
		ids = append(ids, e.ID)
		all = append(all, e)
		if rapid.IntRange(0, 5).Draw(t, "again") == 0 {
			all = append(all, rapid.SampledFrom(all).Draw(t, "repeated"))
		}
	}
	return all
}

// itemBack says whether a stick of a purchase was not bought after all.
func itemBack(all []record.Event, event, item string) bool {
	bought := slices.IndexFunc(all, func(e record.Event) bool { return e.ID == event })
	for k := bought + 1; k < len(all); k++ {
		if all[k].Kind == record.TakenBack && all[k].Event == event && all[k].Item == item && counts(all, k) {
			return true
		}
	}
	return false
}

// left says how many of a purchase count.
func left(all []record.Event, i int) int {
	n := all[i].Count
	for k := i + 1; k < len(all); k++ {
		if all[k].Kind == record.TakenBack && all[k].Event == all[i].ID && counts(all, k) {
			n -= all[k].Count
		}
	}
	return n
}

// whole says whether an event takes back all of another.
func whole(e, of *record.Event) bool {
	return e.Count == 0 && (e.Item == "" || !isThings(of.Kind))
}

// counts says by its definition whether an event counts: nothing that counts takes it
// back.
func counts(all []record.Event, i int) bool {
	for k := i + 1; k < len(all); k++ {
		if all[k].Kind == record.TakenBack && all[k].Event == all[i].ID && whole(&all[k], &all[i]) && counts(all, k) {
			return false
		}
	}
	return !isThings(all[i].Kind) || left(all, i) > 0
}

// The state is what the events add up to: counted one by one by what each kind means, it
// is the same; what is sent twice, in whatever batches, counts once.
func TestEventsAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sent := draw(t)
		w := record.Add(sent)
		var once []record.Event
		seen := map[string]bool{}
		for _, e := range sent {
			if !seen[e.ID] {
				seen[e.ID] = true
				once = append(once, e)
			}
		}
		require.Equal(t, record.Add(once), w)
		var valid []record.Event
		for i, e := range once {
			if counts(once, i) {
				if isThings(e.Kind) {
					e.Count = left(once, i)
				}
				valid = append(valid, e)
			}
		}
		require.Equal(t, len(valid), len(record.Valid(sent)))

		pieces, left, goods, gone := map[string]measure.Length{}, map[string]measure.Length{}, map[material.Spec]int{}, map[string]bool{}
		joints, ready := map[record.Piece]record.Kind{}, map[string]bool{}
		for _, e := range valid {
			switch e.Kind {
			case record.Bought, record.Had:
				if e.Ware.Ware != material.Pipe {
					goods[*e.Ware] += e.Count
					continue
				}
				for i := range e.Count {
					id := record.ItemID(e.ID, i)
					if _, there := left[id]; !there && !itemBack(once, e.ID, id) {
						left[id] = tenFeet
					}
				}
			case record.Cut, record.Spoilt:
				if e.Item != "" {
					delete(pieces, e.Item)
					continue
				}
				if _, there := left[e.Stick.ID]; !there {
					left[e.Stick.ID] = e.Stick.Length
				}
				left[e.Stick.ID] -= e.Length + e.Kerf
				if e.Kind == record.Cut {
					delete(pieces, e.Stick.ID)
					delete(gone, e.Stick.ID)
					pieces[e.ID] = e.Length
				}
			case record.Racked:
				if _, there := left[e.Item]; there {
					gone[e.Item] = true
				}
				delete(pieces, e.Item)
			case record.Deburred, record.Marked:
				if _, there := pieces[e.Item]; there {
					ready[e.Item+string(e.Kind)] = true
				}
			case record.Fitted, record.Driven, record.Cemented:
				joints[*e.Piece] = e.Kind
			}
		}
		have := map[string]measure.Length{}
		for _, m := range w.Pieces {
			have[m.ID] = m.Length
			require.Equal(t, ready[m.ID+string(record.Deburred)], m.Deburred)
			require.Equal(t, ready[m.ID+string(record.Marked)], m.Marked)
			s := w.Stick(m.Stick)
			require.NotNil(t, s)
			require.Equal(t, catalog.Size("3/4"), m.Size)
		}
		require.Equal(t, pieces, have)
		require.Len(t, w.Sticks, len(left))
		for i := range w.Sticks {
			s := &w.Sticks[i]
			require.Equal(t, max(0, left[s.ID]), s.Left, s.ID)
			require.Equal(t, gone[s.ID], s.Racked)
			for _, c := range s.Cuts {
				_, there := pieces[c.Event]
				require.Equal(t, !there, c.Gone)
			}
		}
		n := map[material.Spec]int{}
		for _, g := range w.Goods {
			n[g.Spec] = g.Count
			require.Equal(t, measure.Money(50).Times(g.Count-g.Home), g.Paid)
		}
		require.Equal(t, goods, n)
		require.Len(t, w.Joints, len(joints))
		for _, j := range w.Joints {
			require.Equal(t, joints[j.Piece], j.State)
		}
		letters, of := map[string]bool{}, map[measure.Length]bool{}
		for _, l := range w.Letters {
			require.False(t, letters[l.Letter] || of[l.Cut], "one letter for one piece, for good")
			letters[l.Letter], of[l.Cut] = true, true
		}
		data, err := json.Marshal(sent)
		require.NoError(t, err)
		var read []record.Event
		require.NoError(t, json.Unmarshal(data, &read))
		require.Equal(t, w, record.Add(read), "as it is stored")
	})
}

// Whatever was done can be taken back, and done again by taking that back.
func TestAnythingIsTakenBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := draw(t)
		was := record.Add(all)
		n := len(all)
		for i := n - 1; i >= 0; i-- {
			if all[i].Kind != record.TakenBack {
				all = append(all, record.Event{ID: fmt.Sprint("back", i), Kind: record.TakenBack, Event: all[i].ID})
			}
		}
		none := record.Add(all)
		left := []int{
			len(none.Pieces),
			len(none.Sticks),
			len(none.Goods),
			len(none.Letters),
			len(none.Joints),
			len(none.Put),
			len(none.Shared),
		}
		require.Zero(t, slices.Max(left), "%v", left)
		require.Nil(t, none.Figures)
		for _, e := range all[n:] {
			all = append(all, record.Event{ID: "not" + e.ID, Kind: record.TakenBack, Event: e.ID})
		}
		again := record.Add(all)
		require.Equal(t, was.Pieces, again.Pieces)
		require.Equal(t, was.Sticks, again.Sticks)
		require.Equal(t, was.Goods, again.Goods)
		require.Equal(t, was.Letters, again.Letters)
	})
}

// A part of a purchase that was taken back is taken back once, also as it was before a
// plan; of sticks it is those that were, whichever they are.
func TestAPartIsTakenBackOnce(t *testing.T) {
	tees := &material.Spec{Ware: material.Fitting, Kind: "tee", Size: "3/4"}
	w := record.Add([]record.Event{
		{ID: "a", Kind: record.Bought, Count: 8, Ware: tees},
		{ID: "b", Kind: record.Bought, Count: 4, Ware: tees},
		{ID: "c", Kind: record.TakenBack, Event: "a", Count: 3},
		{ID: "d", Kind: record.Bought, Count: 3, Ware: &material.Spec{Ware: material.Pipe, Size: "3/4", Length: tenFeet}, Basis: "one"},
		{ID: "e", Kind: record.TakenBack, Event: "d", Item: "d.2"},
	})
	assert.Equal(t, 9, w.Goods[0].Count)
	assert.Equal(t, []string{"d.1", "d.3"}, []string{w.Sticks[0].ID, w.Sticks[1].ID})
	before, ok := w.Before("one")
	require.True(t, ok)
	assert.Equal(t, 9, before.Goods[0].Count)
	assert.Equal(t, []record.Event{
		{Kind: record.TakenBack, Event: "b", Count: 4}, {Kind: record.TakenBack, Event: "a", Count: 2},
	}, w.Goods[0].Back(6), "the last that were bought go back first")
}

// What was done by a plan can be left out, to see what that plan was made from.
func TestBeforeAPlan(t *testing.T) {
	w := record.Add([]record.Event{
		{ID: "a", Kind: record.Cut, Piece: &record.Piece{Pipe: "p1", Copy: 1}, Stick: stick("s"), Length: 40 * measure.Inch, Basis: "one"},
		{ID: "b", Kind: record.Cut, Piece: &record.Piece{Pipe: "p2", Copy: 1}, Stick: stick("s"), Length: 30 * measure.Inch, Basis: "two"},
	})
	assert.Equal(t, "two", w.Basis("3/4"))
	before, ok := w.Before("two")
	require.True(t, ok)
	assert.Len(t, before.Pieces, 1)
	assert.Equal(t, 80*measure.Inch, before.Sticks[0].Left)
	_, ok = w.Before("")
	assert.False(t, ok, "what came from an older record has no plan")
}

func TestAnEventThatMakesNoSenseIsPointedAt(t *testing.T) {
	piece := &record.Piece{Pipe: "p1", Copy: 1}
	for member, e := range map[string]record.Event{
		"/id":      {Kind: record.Cut},
		"/kind":    {ID: "x", Kind: "hoped"},
		"/piece":   {ID: "x", Kind: record.Cut, Stick: stick("s"), Length: measure.Inch},
		"/stick":   {ID: "x", Kind: record.Cut, Piece: piece, Length: measure.Inch},
		"/length":  {ID: "x", Kind: record.Cut, Piece: piece, Stick: stick("s"), Length: 11 * measure.Foot},
		"/count":   {ID: "x", Kind: record.Bought, Ware: &material.Spec{}},
		"/ware":    {ID: "x", Kind: record.Bought, Count: 1},
		"/joint":   {ID: "x", Kind: record.Driven, Piece: piece},
		"/item":    {ID: "x", Kind: record.Racked},
		"/event":   {ID: "x", Kind: record.TakenBack},
		"/text":    {ID: "x", Kind: record.Unmatched},
		"/letters": {ID: "x", Kind: record.Lettered, Letters: []record.Letter{{Letter: "A", Size: "7"}}},
		"/figures": {ID: "x", Kind: record.Begun},
	} {
		p := e.Problem()
		if assert.NotNil(t, p, member) {
			assert.Equal(t, member, p.Path)
			assert.NotEmpty(t, p.Hint)
		}
	}
	ok := shop.Example()
	for _, e := range []record.Event{
		{ID: "x", Kind: record.Begun, Figures: ok.Figures()},
		{ID: "x", Kind: record.Measured, Piece: piece, Length: measure.Inch},
		{ID: "x", Kind: record.Spoilt, Stick: stick("s"), Length: measure.Inch},
		{ID: "x", Kind: record.Unmatched, Text: "three sticks"},
	} {
		assert.Nil(t, e.Problem())
	}
}

// A stick is what it was, also where the first cut from it was not done after all.
func TestAStickStaysWhatItWas(t *testing.T) {
	rest := stick("s")
	rest.Length, rest.Origin = 80*measure.Inch, record.FromOffcut
	w := record.Add([]record.Event{
		{ID: "a", Kind: record.Cut, Piece: &record.Piece{Pipe: "p1", Copy: 1}, Stick: stick("s"), Length: 40 * measure.Inch},
		{ID: "b", Kind: record.Cut, Piece: &record.Piece{Pipe: "p2", Copy: 1}, Stick: rest, Length: 30 * measure.Inch},
		{ID: "c", Kind: record.TakenBack, Event: "a"},
	})
	require.Len(t, w.Sticks, 1)
	assert.Equal(t, *stick("s"), w.Sticks[0].Source)
	assert.Equal(t, 90*measure.Inch, w.Sticks[0].Left)
}

// What is put on the rack lies there for every project, until somebody cuts from it or it
// is taken back.
func TestTheRackFollowsTheRecord(t *testing.T) {
	piece, other := &record.Piece{Pipe: "p1", Copy: 1}, &record.Piece{Pipe: "p1", Copy: 2}
	mine := []record.Event{
		{ID: "a", Kind: record.Cut, Piece: piece, Stick: stick("s"), Length: 40 * measure.Inch},
		{ID: "e", Kind: record.Cut, Piece: other, Stick: stick("s"), Length: 30 * measure.Inch},
		{ID: "b", Kind: record.Racked, Item: "s"},
		{ID: "f", Kind: record.TakenBack, Event: "e"}, // of two pieces one was not cut: the rest is longer
		{ID: "c", Kind: record.Racked, Item: "a"},
		{ID: "d", Kind: record.TakenBack, Event: "c"},
	}
	rack := []shop.Offcut{{Size: "1", Length: measure.Foot, Count: 2}}
	lengths := func() (all []string) {
		for _, o := range rack {
			all = append(all, fmt.Sprint(o.Count, "x", o.Length))
		}
		return all
	}
	step := func(events []record.Event, n int) {
		before, after := record.Add(events[:n]), record.Add(events[:n+1])
		rack = record.Rack(&before, &after, rack)
	}
	want := [][]string{
		{"2x12\""},
		{"2x12\""},
		{"2x12\"", "1x50\""},
		{"2x12\"", "1x80\""},
		{"2x12\"", "1x80\"", "1x40\""},
		{"2x12\"", "1x80\""},
	}
	for n := range mine {
		step(mine, n)
		assert.Equal(t, want[n], lengths(), "after %d", n)
	}
	theirs := []record.Event{
		{
			ID:     "e",
			Kind:   record.Cut,
			Piece:  piece,
			Stick:  &record.Source{ID: "s", Size: "3/4", Length: 80 * measure.Inch, Origin: record.FromRack},
			Length: measure.Inch,
		},
		{
			ID:     "f",
			Kind:   record.Cut,
			Piece:  piece,
			Stick:  &record.Source{ID: "x", Size: "1", Length: measure.Foot, Origin: record.FromRack},
			Length: measure.Inch,
		},
		{ID: "g", Kind: record.TakenBack, Event: "e"},
	}
	want = [][]string{{"2x12\""}, {"1x12\""}, {"1x12\"", "1x80\""}}
	for n := range theirs {
		step(theirs, n)
		assert.Equal(t, want[n], lengths(), "then after %d", n)
	}
}

// A stick that measures more than its name gives pieces that are longer than its name.
func TestAStickHoldsWhatItMeasures(t *testing.T) {
	long := *stick("s")
	long.True = tenFeet + measure.Inch/4
	e := record.Event{
		ID: "x", Kind: record.Cut, Piece: &record.Piece{Pipe: "p", Copy: 1}, Stick: &long, Length: tenFeet + measure.Inch/8,
	}
	assert.Nil(t, e.Problem())
	e.Length = tenFeet + measure.Inch
	assert.NotNil(t, e.Problem())
}
