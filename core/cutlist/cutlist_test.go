package cutlist_test

import (
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/wireframe"
)

const inch = measure.Inch

type built struct {
	g *frame.Graph
	s *layout.Solution
	f *fitting.Result
	l *cutlist.List
}

func build(t require.TestingT, text string, step measure.Length) built {
	doc, err := wireframe.Read([]byte(text))
	require.NoError(t, err)
	g, err := frame.Expand(doc)
	require.NoError(t, err)
	s := layout.Locate(g, nil, nil)
	f := fitting.Resolve(g, catalog.Typical(), s.Tangents)
	return built{g, s, f, cutlist.Build(g, s, f, step)}
}

func Example() {
	doc, _ := wireframe.Read(
		[]byte(
			`{"wireframe":1,"mode":"slip","joints":{"a":[0,0,0],"b":[30,0,0],"c":[30,0,40]},"pipes":[["a","b"],["b","c"]],"ends":{"a":"cap"}}`,
		),
	)
	g, _ := frame.Expand(doc)
	s := layout.Locate(g, nil, nil)
	l := cutlist.Build(g, s, fitting.Resolve(g, catalog.Typical(), s.Tangents), inch/16)
	for _, t := range l.Pieces[0].Sum {
		fmt.Printf("%+.3f %s\n", t.Value.Inches(), t.Label)
	}
	fmt.Println(l.Pieces[0].Cut)
	// Output:
	// +30.000 centre to centre
	// -0.562 stop of the elbow-90 at b
	// -0.108 socket left empty at b, slip
	// -0.017 rounded to the tape
	// 29 5/16"
}

// second rebuilds positions from emitted cuts, the fittings' kinds and seats
// and the port table alone, without the arithmetic under test: it looks each
// stop up in the catalog by kind and size.
func second(b built, c *catalog.Catalog, cuts []measure.Length) (points map[int][3]float64, worst float64) {
	takeOff := func(pipe, end int) float64 {
		e := b.g.Edges[pipe]
		j := &b.f.Joints[e.Ends[end]]
		if j.Kind == "" || j.Kind == catalog.Cap {
			return 0
		}
		v := func(s catalog.Size, f catalog.Field) float64 { return c.Figure(j.Kind, s, f).Value.Inches() }
		large := e.Size
		for _, pe := range b.g.Nodes[e.Ends[end]].Pipes {
			large = catalog.Larger(large, b.g.Edges[pe.Pipe].Size)
		}
		dry := (1 - e.Held[end].Seat) * v(e.Size, catalog.SocketDepth)
		switch {
		case j.Kind == catalog.ReducingCoupling:
			stop := v(large, catalog.StopCoupling)
			if e.Size != large {
				stop += (c.Pipe(large).OutsideDiameter - c.Pipe(e.Size).OutsideDiameter).Inches() / 2
			}
			return stop + dry
		case j.Kind == catalog.Coupling:
			return v(large, catalog.StopCoupling) + dry
		}
		stop := v(large, catalog.Stop90)
		if j.Kind == catalog.Elbow45 {
			stop = v(large, catalog.Stop45)
		}
		if e.Size != large {
			stop += v(large, catalog.SocketDepth) + v(large, catalog.BushingFlange) - v(e.Size, catalog.SocketDepth)
		}
		return stop + dry
	}
	points = map[int][3]float64{}
	for root := range b.g.Nodes {
		if _, done := points[root]; done {
			continue
		}
		p := b.s.Points[root]
		points[root] = [3]float64{p[0].Inches(), p[1].Inches(), p[2].Inches()}
		stack := []int{root}
		for len(stack) > 0 {
			n := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			for _, pe := range b.g.Nodes[n].Pipes {
				e := b.g.Edges[pe.Pipe]
				to := e.Ends[1-pe.End]
				d := b.f.Port(pe).Dir
				long := cuts[pe.Pipe].Inches() + takeOff(pe.Pipe, 0) + takeOff(pe.Pipe, 1)
				q := points[n]
				for a := range q {
					q[a] += d[a] * long
				}
				if have, done := points[to]; done {
					worst = max(worst, math.Hypot(math.Hypot(have[0]-q[0], have[1]-q[1]), have[2]-q[2]))
					continue
				}
				points[to] = q
				stack = append(stack, to)
			}
		}
	}
	return points, worst
}

func cuts(b built) (cs []measure.Length) {
	for _, p := range b.l.Pieces {
		cs = append(cs, p.Cut)
	}
	return cs
}

// stray is how far the rebuilt joints are from where they were planned.
func stray(b built, points map[int][3]float64) (worst float64) {
	for j, q := range points {
		for a := range q {
			worst = max(worst, math.Abs(q[a]-b.s.Points[j][a].Inches()))
		}
	}
	return worst
}

// lattice is a random box of bays with some pipes left out, in one or two sizes.
func lattice(t *rapid.T) string {
	axis := func(name string) []float64 {
		vs := []float64{0}
		for range rapid.IntRange(1, 3).Draw(t, name) {
			vs = append(vs, vs[len(vs)-1]+float64(rapid.IntRange(8*64, 40*64).Draw(t, name+" bay"))/64)
		}
		return vs
	}
	xs, ys, zs := axis("x"), axis("y"), axis("z")
	id := func(i, j, k int) string { return fmt.Sprintf(`"%d.%d.%d"`, i, j, k) }
	joints, pipes := "", ""
	add := func(a, b string) {
		if rapid.IntRange(0, 9).Draw(t, "keep") == 0 {
			return
		}
		size := rapid.SampledFrom([]string{"3/4", "3/4", "1"}).Draw(t, "size")
		pipes += fmt.Sprintf(`,{"from":%s,"to":%s,"size":%q}`, a, b, size)
	}
	for i := range xs {
		for j := range ys {
			for k := range zs {
				joints += fmt.Sprintf(`,%s:[%g,%g,%g]`, id(i, j, k), xs[i], ys[j], zs[k])
				if i > 0 {
					add(id(i-1, j, k), id(i, j, k))
				}
				if j > 0 {
					add(id(i, j-1, k), id(i, j, k))
				}
				if k > 0 {
					add(id(i, j, k-1), id(i, j, k))
				}
			}
		}
	}
	mode := rapid.SampledFrom([]string{"cemented", "slip"}).Draw(t, "mode")
	if pipes == "" {
		pipes = fmt.Sprintf(`,[%s,%s]`, id(0, 0, 0), id(1, 0, 0))
	}
	return fmt.Sprintf(`{"wireframe":1,"mode":%q,"joints":{%s},"pipes":[%s]}`, mode, joints[1:], pipes[1:])
}

func TestASecondRouteClosesEveryLoop(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := build(t, lattice(t), 0) // exact, not rounded
		points, gap := second(b, catalog.Typical(), cuts(b))
		require.Less(t, gap, 1e-5)
		require.Less(t, stray(b, points), 1e-5)
	})
}

// The property above must fail when any figure that it rests on is wrong.
func TestASecondRouteNoticesAnyChangedStop(t *testing.T) {
	data, err := os.ReadFile("../../testdata/cases/reach.wireframe.json")
	require.NoError(t, err)
	hoop, err := os.ReadFile("../../testdata/cases/hoop.wireframe.json")
	require.NoError(t, err)
	corner := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[30,20,0],"d":[60,0,0]},"pipes":[["a","b"],{"from":"b","to":"c","size":"1/2"},["b","d"]]}`
	for _, c := range []struct {
		text  string
		size  catalog.Size
		field catalog.Field
	}{
		{corner, "3/4", catalog.Stop90}, {corner, "3/4", catalog.SocketDepth}, {corner, "1/2", catalog.SocketDepth}, {corner, "3/4", catalog.BushingFlange},
		{string(data), "1", catalog.StopCoupling}, {string(data), "3/4", catalog.Stop90}, {string(hoop), "3/4", catalog.Stop45}, {string(hoop), "3/4", catalog.Stop90},
	} {
		b := build(t, c.text, 0)
		points, _ := second(b, catalog.Typical(), cuts(b))
		require.Less(t, stray(b, points), 1e-5)
		was := catalog.Typical().Figure("", c.size, c.field).Value
		wrong, err := catalog.Typical().With(catalog.Override{Size: c.size, Field: c.field, Value: was + inch/16})
		require.NoError(t, err)
		points, _ = second(b, wrong, cuts(b))
		assert.Greater(t, stray(b, points), 0.05, "%s %s", c.size, c.field)
	}
}

func TestRoundedLoopsCloseWithinAStep(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		step := rapid.SampledFrom([]measure.Length{inch / 16, inch / 8, inch / 32, measure.Millimetre}).Draw(t, "step")
		b := build(t, lattice(t), step)
		told := len(b.l.Findings) > 0
		for _, l := range b.l.Loops {
			if !told {
				require.LessOrEqual(t, l.Off, step+10, "%v", l.Joints)
			}
		}
		equal := map[string]measure.Length{}
		for _, p := range b.l.Pieces {
			require.Zero(t, p.Cut%step, "a cut is on the tape")
			require.Less(t, (p.Cut - p.Exact).Abs(), step+inch/1000, "and never a whole step off")
			key := fmt.Sprint(p.Size, int64(p.Exact))
			if other, ok := equal[key]; ok {
				require.Equal(t, other, p.Cut, "equal pieces stay equal")
			}
			equal[key] = p.Cut
		}
	})
}

// A chain of five bays against one long pipe: each of the five rounds up by
// nearly half a step, together two steps, so classes have to give.
func TestParallelChainsAgree(t *testing.T) {
	joints, pipes := `"e0":[0,0,0],"f0":[0,0,20]`, `["e0","f0"]`
	x := 0.0
	for i := 1; i <= 5; i++ {
		x += 10 + float64(i) + 0.0300 // every bay of its own length, each a hair under half a 1/16
		joints += fmt.Sprintf(`,"e%d":[%g,0,0]`, i, x)
		pipes += fmt.Sprintf(`,["e%d","e%d"]`, i-1, i)
	}
	joints += fmt.Sprintf(`,"f5":[%g,0,20]`, x)
	b := build(
		t,
		fmt.Sprintf(
			`{"wireframe":1,"fittings":{"e1":"tee","e2":"tee","e3":"tee","e4":"tee"},"joints":{%s},"pipes":[%s,["e5","f5"],["f0","f5"]]}`,
			joints,
			pipes,
		),
		inch/16,
	)
	assert.Empty(t, b.l.Findings)
	require.Len(t, b.l.Loops, 1)
	assert.LessOrEqual(t, b.l.Loops[0].Off, inch/16)
	naive := measure.Length(0)
	for i, p := range b.l.Pieces {
		if i >= 1 && i <= 5 {
			naive += p.Exact.Round(inch/16) - p.Exact
		}
	}
	assert.Greater(t, naive.Abs(), inch/16, "rounding each by itself would not close")
}

func TestHiddenNippleAndLeast(t *testing.T) {
	text := func(d float64) string {
		return fmt.Sprintf(
			`{"wireframe":1,"size":"1","joints":{"a":[0,0,9],"b":[0,0,0],"c":[%g,0,0],"d":[%g,0,9]},"pipes":[["a","b"],["b","c"],["c","d"]]}`,
			d,
			d,
		)
	}
	for d, want := range map[float64][2]bool{3.125: {true, false}, 3.11: {true, false}, 3.09: {false, true}, 3.3: {false, false}} {
		p := build(t, text(d), inch/16).l.Pieces[1]
		assert.Equal(t, want, [2]bool{p.Hidden, p.TooShort}, "%g", d)
		assert.Equal(t, measure.FromInches(3.125), p.Least, "both faces touching: 2 × (0.6875 + 0.875)")
	}
}

func TestAssembleSharesOutWhatDoesNotMeet(t *testing.T) {
	square := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,30],"d":[0,0,30]},"pipes":[["a","b"],["b","c"],["c","d"],["d","a"]]}`
	b := build(t, square, inch/16)
	cs := cuts(b)
	good := cutlist.Assemble(b.g, b.f, cs, b.s)
	assert.Less(t, good.Gap, inch/8)
	cs[0] += inch // one side an inch long: found at the dry fit, or here
	bad := cutlist.Assemble(b.g, b.f, cs, b.s)
	assert.InDelta(t, 1, (bad.Gap - good.Gap).Inches(), 0.13)
	bottom, top := bad.Points[1][0]-bad.Points[0][0], bad.Points[2][0]-bad.Points[3][0]
	assert.InDelta(t, 40.5, bottom.Inches(), 0.26, "two of four sides lie along it: half the misfit each way")
	assert.InDelta(t, 40.5, top.Inches(), 0.26)
}

func TestOverallCountsWhatTheFittingsAdd(t *testing.T) {
	files, err := filepath.Glob("../../testdata/cases/*.wireframe.json")
	require.NoError(t, err)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		b := build(t, string(data), inch/16)
		for _, e := range cutlist.Overall(b.g, b.f, b.s, b.l) {
			assert.Equal(t, e.Size, e.Sum.Total(), "%s %s", name, e.Axis)
			assert.Less(t, e.Bare, e.Size, "pipes alone never make the size")
		}
	}
}
