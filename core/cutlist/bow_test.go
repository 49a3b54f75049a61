package cutlist_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// squareWith is the square of 40 by 30 with one more pipe, that is not straight,
// or with one of its own made so.
func squareWith(t *testing.T, change func(d *frame.Document)) built {
	b := build(t, square, inch/16)
	d := b.g.Doc.Clone()
	change(d)
	g, err := frame.Expand(d)
	require.NoError(t, err)
	s := layout.Locate(g, nil, nil)
	f := fitting.Resolve(g, catalog.Typical(), s.Tangents)
	for range 3 {
		s = layout.Locate(g, f, s)
		f = fitting.Resolve(g, catalog.Typical(), s.Tangents)
	}
	return built{g, s, f, cutlist.Build(g, s, f, inch/16)}
}

// A hoop over the top of the square closes no loop: cut an inch long it only
// stands higher.
func TestAHoopClosesNoLoop(t *testing.T) {
	b := squareWith(t, func(d *frame.Document) {
		d.AddPipe(
			&d.Root,
			frame.Pipe{
				ID:     "hoop",
				From:   "d",
				To:     "c",
				Path:   frame.Sprung,
				Spring: &frame.Spring{Leave: [2]measure.Dir{{0, 0, 1}, {0, 0, 1}}},
			},
		)
		d.AddSize(&d.Root, frame.Size{Value: 15 * inch, Meaning: frame.Centre, Pipe: "hoop"})
	})
	require.Len(t, b.l.Loops, 1)
	assert.Len(t, b.l.Loops[0].Pipes, 4)
	hoop := &b.l.Pieces[4]
	assert.Equal(t, "centre to centre, along the bow", hoop.Sum[0].Label)
	assert.Greater(t, hoop.Centre, 40*inch)
	assert.Equal(t, hoop.Cut, hoop.Sum.Total())
	cs := cuts(b)
	cs[4] += inch
	r := cutlist.CheckCuts(b.g, b.s, b.f, b.l, cs, inch/16)
	assert.True(t, r.Closed)
	assert.Empty(t, r.Levels)
	require.Len(t, r.Pieces, 1)
	cs[0] += inch
	r = cutlist.CheckCuts(b.g, b.s, b.f, b.l, cs, inch/16)
	require.NotEmpty(t, r.Mends)
	for _, m := range r.Mends {
		assert.NotEqual(t, "hoop", m.Changes[0].Pipe, "and no hoop mends one")
	}
}

// A side bent by heat keeps its ends where they are: cut an inch long it opens
// the loop along its last leg.
func TestABentSideIsPartOfTheLoop(t *testing.T) {
	b := squareWith(t, func(d *frame.Document) {
		for from, to := range map[string]string{"d": "out", "c": "over"} {
			d.AddJoint(&d.Root, frame.Joint{ID: to})
			d.AddReason(&d.Root, frame.Reason{Kind: frame.Line, Of: frame.Ref(to), From: frame.Ref(from), Dir: &measure.Dir{0, 0, 1}})
			d.AddSize(&d.Root, frame.Size{Value: 12 * inch, Meaning: frame.Centre, From: frame.Ref(from), To: frame.Ref(to)})
		}
		p := &d.Root.Pipes[2] // c to d
		p.Path, p.Via, p.Radius = frame.Bent, []string{"over", "out"}, 4*inch
	})
	p := &b.l.Pieces[2]
	// 12 − 4 + 40 − 8 + 12 − 4 and two quarter rounds of 4
	assert.InDelta(t, 48+4*3.14159265, p.Centre.Inches(), 1e-4)
	assert.Equal(t, "centre to centre, along its legs and arcs", p.Sum[0].Label)
	require.Len(t, b.l.Loops, 1)
	assert.LessOrEqual(t, b.l.Loops[0].Off, inch/16+10)
	cs := cuts(b)
	cs[2] += inch
	r := cutlist.CheckCuts(b.g, b.s, b.f, b.l, cs, inch/16)
	require.Len(t, r.Loops, 1)
	assert.InDelta(t, 1, r.Loops[0].Residual[2].Abs().Inches(), 0.07, "its last leg runs up and down")
	assert.InDelta(t, 0, r.Loops[0].Residual[0].Inches(), 0.07)
	gap := cutlist.Assemble(b.g, b.f, cs, b.s).Gap - cutlist.Assemble(b.g, b.f, cuts(b), b.s).Gap
	assert.InDelta(t, 1, gap.Inches(), 0.07)
}

// Where no piece is shorter than its sockets the cuts count as they are, at
// any seat; one that is keeps the faces apart.
func TestEffectiveCuts(t *testing.T) {
	b := build(t, square, inch/16)
	cs := cuts(b)
	assert.Equal(t, cs, cutlist.Effective(b.g, b.f, cs))
	loose := b.f.Reseat(func(p *fitting.Port) float64 { return 0.4 })
	assert.Equal(t, cs, cutlist.Effective(b.g, loose, cs))
	cs[1] = inch
	out := cutlist.Effective(b.g, b.f, cs)
	// both faces touch at 2 × (0.5625 + 0.719) = 2.563 between centres, less two stops: 1.438
	assert.InDelta(t, 2*0.719, out[1].Inches(), 1e-6)
	assert.Equal(t, cs[0], out[0])
	assert.Equal(t, inch, cs[1], "the list itself is not touched")
}
