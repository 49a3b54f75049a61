package cutlist_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/measure"
)

func check(b built, cs []measure.Length) *cutlist.Report {
	return cutlist.CheckCuts(b.g, b.s, b.f, b.l, cs, inch/16)
}

const square = `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,30],"d":[0,0,30]},"pipes":[["a","b"],["b","c"],["c","d"],["d","a"]]}`

func TestOneSideAnInchLong(t *testing.T) {
	b := build(t, square, inch/16)
	cs := cuts(b)
	r := check(b, cs)
	assert.True(t, r.Closed)
	assert.Empty(t, r.Pieces)
	assert.Empty(t, r.Levels)
	cs[0] += inch
	r = check(b, cs)
	require.Len(t, r.Loops, 1)
	assert.InDelta(t, 1, r.Loops[0].Off.Inches(), 0.07)
	assert.InDelta(t, 1, r.Loops[0].Residual[0].Inches(), 0.07, "along x")
	assert.InDelta(t, 0, r.Loops[0].Residual[2].Inches(), 0.07)
	require.Len(t, r.Mends, 2, "one piece is enough: this side, or the one across")
	assert.Equal(
		t,
		[]cutlist.Change{{Pipe: b.l.Pieces[0].Pipe, From: cs[0], To: cs[0] - inch}},
		r.Mends[0].Changes,
		"back to the plan comes first",
	)
	assert.Equal(t, []cutlist.Change{{Pipe: b.l.Pieces[2].Pipe, From: cs[2], To: cs[2] + inch}}, r.Mends[1].Changes)
	require.Len(t, r.Pieces, 1)
	assert.Equal(t, b.l.Pieces[0].Cut, r.Pieces[0].Planned)
}

// Two bays side by side, one too wide above and the other too narrow below:
// no one piece closes both.
func TestOnePieceCannotCloseTwoLoops(t *testing.T) {
	text := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[50,0,0],"d":[0,0,30],"e":[20,0,30],"f":[50,0,30]},"pipes":[["a","b"],["b","c"],["d","e"],["e","f"],["a","d"],["b","e"],["c","f"]]}`
	b := build(t, text, inch/16)
	cs := cuts(b)
	cs[0] += inch / 2
	cs[3] -= inch
	r := check(b, cs)
	require.NotEmpty(t, r.Mends)
	for _, m := range r.Mends {
		assert.Len(t, m.Changes, 2)
	}
	assert.Equal(t, cs[0]-inch/2, r.Mends[0].Changes[0].To)
	assert.Equal(t, cs[3]+inch, r.Mends[0].Changes[1].To)
	assert.Equal(t, inch+inch/2, r.Mends[0].By)
}

// A list made by hand: 12 + tee + 12 against one 24. The row with the tee is
// longer by what the tee adds, 2 × its stop.
func TestWhatATeeAddsIsFound(t *testing.T) {
	text := `{"wireframe":1,"joints":{"a":[0,0,0],"m":[14,0,0],"b":[28,0,0],"c":[28,0,30],"d":[0,0,30],"n":[14,20,0]},"pipes":[["a","m"],["m","b"],["b","c"],["c","d"],["d","a"],["m","n"]]}`
	b := build(t, text, inch/16)
	cs := cuts(b)
	cs[0], cs[1], cs[3] = 12*inch, 12*inch, 24*inch
	r := check(b, cs)
	require.Len(t, r.Loops, 1)
	assert.InDelta(t, 2*0.5625, r.Loops[0].Off.Inches(), 0.001, "two stops of a 3/4 tee")
	assert.InDelta(t, 24+2*0.5625, r.Mends[0].Changes[0].To.Inches(), 0.04)
	assert.Equal(t, b.l.Pieces[3].Pipe, r.Mends[0].Changes[0].Pipe, "one piece of five")
}

// Posts of one length, one with a coupling in it: it ends higher.
func TestLevelsThatDiffer(t *testing.T) {
	text := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,20],"d":[40,0,40],"e":[0,0,40]},"fittings":{"c":"coupling"},"pipes":[["a","b"],["b","c"],["c","d"],["a","e"]]}`
	b := build(t, text, inch/16)
	cs := cuts(b)
	require.Empty(t, check(b, cs).Levels)
	cs[1], cs[2] = cs[3].Half(), cs[3].Half() // cut in two and joined again
	r := check(b, cs)
	require.NotEmpty(t, r.Levels)
	assert.Equal(t, measure.Z, r.Levels[0].Axis)
	assert.Equal(t, 40*inch, r.Levels[0].At)
	assert.Equal(t, [2]string{"e", "d"}, [2]string{r.Levels[0].Low, r.Levels[0].High})
	assert.InDelta(t, 2*0.0625, r.Levels[0].Spread.Inches(), 0.001, "two stops of the coupling")
	assert.True(t, r.Closed, "there is no loop to close")
}

// 1 in sockets are 0.875 deep: a 1-1/2 piece does not fill two, so the faces
// touch; a 3/4 piece would sit less than half a socket deep on each side.
func TestAPieceShorterThanItsSockets(t *testing.T) {
	text := `{"wireframe":1,"size":"1","joints":{"a":[0,0,9],"b":[0,0,0],"c":[5,0,0],"d":[5,0,9]},"pipes":[["a","b"],["b","c"],["c","d"]]}`
	b := build(t, text, inch/16)
	cs := cuts(b)
	cs[1] = inch + inch/2
	p := check(b, cs).Pieces[0]
	assert.True(t, p.FaceToFace)
	assert.False(t, p.TooShort)
	assert.Equal(t, measure.FromInches(3.125), p.Spacing, "2 × (0.6875 + 0.875), not 2 × 0.6875 + 1.5")
	cs[1] = inch * 3 / 4
	assert.True(t, check(b, cs).Pieces[0].TooShort)
	cs[1] = measure.FromInches(0.88)
	assert.False(t, check(b, cs).Pieces[0].TooShort)
}

// Whatever one or two pieces of a lattice were cut to, what is offered closes
// it, and never changes more pieces than were spoilt.
func TestMendsCloseEveryLoop(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := build(t, lattice(t), inch/16)
		if len(b.l.Findings) > 0 || len(b.l.Loops) == 0 {
			return
		}
		cs := cuts(b)
		n := rapid.IntRange(1, 2).Draw(t, "spoilt")
		for range n {
			i := rapid.IntRange(0, len(cs)-1).Draw(t, "piece")
			cs[i] += measure.Length(rapid.IntRange(-32, 32).Draw(t, "by")) * inch / 16
		}
		r := check(b, cs)
		if r.Closed {
			return
		}
		require.NotEmpty(t, r.Mends)
		for _, m := range r.Mends {
			require.LessOrEqual(t, len(m.Changes), n)
			mended := append([]measure.Length{}, cs...)
			for _, ch := range m.Changes {
				i := b.g.Edge(ch.Pipe)
				require.Equal(t, mended[i], ch.From)
				mended[i] = ch.To
			}
			again := check(b, mended)
			require.True(t, again.Closed, fmt.Sprint(m))
		}
		require.LessOrEqual(t, r.Mends[0].By, r.Mends[len(r.Mends)-1].By+inch/16)
	})
}

func BenchmarkCheck(b *testing.B) {
	text := `{"wireframe":1,"joints":{"x":[0,0,0]`
	pipes := ""
	for i := range 12 {
		for k := range 12 {
			text += fmt.Sprintf(`,"%d.%d":[%d,0,%d]`, i, k, i*20, 5+k*20)
			if i > 0 {
				pipes += fmt.Sprintf(`,["%d.%d","%d.%d"]`, i-1, k, i, k)
			}
			if k > 0 {
				pipes += fmt.Sprintf(`,["%d.%d","%d.%d"]`, i, k-1, i, k)
			}
		}
	}
	w := build(b, text+`},"pipes":[`+pipes[1:]+`]}`, inch/16)
	cs := cuts(w)
	cs[5] += inch
	cs[77] -= inch / 2
	b.ResetTimer()
	for range b.N {
		if r := check(w, cs); len(r.Mends) == 0 {
			b.Fatal("no mend")
		}
	}
}
