package fitting_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/frame/frametest"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
	"sturdyelbow/core/wireframe"
)

func in(x float64) measure.Length { return measure.FromInches(x) }

// star is one joint "o" with pipes in some directions, sizes as given or 3/4.
func star(t require.TestingT, forced *frame.Forced, dirs []measure.Dir, sizes ...catalog.Size) (*fitting.Joint, *fitting.Result) {
	d := &frametest.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	var tangents [][2]measure.Dir
	for a := range 3 {
		d.Root.Axes[a].Stations = []frametest.Station{{ID: "s"}}
	}
	at := [3]string{"s", "s", "s"}
	d.Root.Joints = []frametest.Joint{{ID: "o", At: at, Fitting: forced}}
	for i, dir := range dirs {
		id := fmt.Sprintf("p%d", i+1)
		p := frametest.Pipe{ID: id, From: "o", To: id}
		if i < len(sizes) {
			p.Size = sizes[i]
		}
		d.Root.Joints, d.Root.Pipes = append(d.Root.Joints, frametest.Joint{ID: id, At: at}), append(d.Root.Pipes, p)
		tangents = append(tangents, [2]measure.Dir{dir.Unit(), dir.Unit().Neg()})
	}
	g, err := frame.Expand(d.Now())
	require.NoError(t, err)
	r := fitting.Resolve(g, catalog.Typical(), tangents)
	return &r.Joints[0], r
}

var (
	right, left = measure.Dir{1, 0, 0}, measure.Dir{-1, 0, 0}
	away, near  = measure.Dir{0, 1, 0}, measure.Dir{0, -1, 0}
	up, down    = measure.Dir{0, 0, 1}, measure.Dir{0, 0, -1}
)

func Example() {
	doc, _ := wireframe.Read(
		[]byte(`{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[60,0,0],"d":[30,0,40]},"pipes":[["a","b"],["b","c"],["b","d"]]}`),
	)
	g, _ := frame.Expand(doc)
	r := fitting.Resolve(g, catalog.Typical(), layout.Locate(g, nil, nil).Tangents)
	j := r.Joints[g.Node("b")]
	fmt.Println(j.Size, j.Kind)
	for _, p := range j.Ports {
		fmt.Println(p.Role, p.Dir, p.Pipe)
	}
	// Output:
	// 3/4 tee
	// run [-1 0 0] a-b
	// run [1 0 0] b-c
	// branch [0 0 1] b-d
}

func TestEveryKindFromItsTangents(t *testing.T) {
	for kind, dirs := range map[catalog.Kind][]measure.Dir{
		catalog.Coupling: {right, left}, catalog.Elbow90: {right, up}, catalog.Elbow45: {right, {-1, 0, 1}},
		catalog.Tee: {right, left, up}, catalog.SideOutletElbow: {right, away, up}, catalog.Cross: {right, left, up, down},
		catalog.SideOutletTee: {right, left, away, up}, catalog.SideOutletCross: {right, left, near, away, up}, catalog.SixWay: {right, left, near, away, up, down},
	} {
		j, r := star(t, nil, dirs)
		assert.Equal(t, kind, j.Kind)
		assert.False(t, j.Assumed)
		assert.Empty(t, r.Findings)
	}
}

// Any turn of a fitting, bent by up to two degrees a port, is still that
// fitting, and each pipe sits in a port that points its way.
func TestTurnedAndBentWithinFlex(t *testing.T) {
	c := catalog.Typical()
	rapid.Check(t, func(t *rapid.T) {
		f, _ := c.Fitting(rapid.SampledFrom(catalog.JointKinds()).Draw(t, "kind"), "3/4")
		angle := func(name string) float64 { return rapid.Float64Range(0, 2*math.Pi).Draw(t, name) }
		a, b := angle("a"), angle("b")
		turn := func(d measure.Dir) measure.Dir {
			d = measure.Dir{d[0]*math.Cos(a) - d[1]*math.Sin(a), d[0]*math.Sin(a) + d[1]*math.Cos(a), d[2]}
			return measure.Dir{d[0]*math.Cos(b) - d[2]*math.Sin(b), d[1], d[0]*math.Sin(b) + d[2]*math.Cos(b)}
		}
		var dirs []measure.Dir
		for _, p := range f.Ports {
			d := turn(p.Dir)
			k := math.Tan(1.9 * math.Pi / 180) // bent to some side by 1.9°
			side := d.Cross(turn(measure.Dir{0.3, 0.5, 0.8})).Unit()
			s := rapid.Float64Range(-k, k).Draw(t, "bend")
			dirs = append(dirs, measure.Dir{d[0] + s*side[0], d[1] + s*side[1], d[2] + s*side[2]})
		}
		j, _ := star(t, nil, dirs)
		require.Equal(t, f.Kind, j.Kind)
		require.LessOrEqual(t, j.Flex, 4.0)
		for _, p := range j.Ports {
			require.Equal(t, fitting.WithPipe, p.Fill)
		}
	})
}

func TestOffByMoreThanFlexHasNoFitting(t *testing.T) {
	bend := func(deg float64) []measure.Dir {
		r := deg * math.Pi / 180
		return []measure.Dir{right, {math.Cos(r), 0, math.Sin(r)}}
	}
	for deg, assumed := range map[float64]bool{86.1: false, 85.9: true, 93.9: false, 94.1: true, 131.1: false, 130.9: true, 176.1: false, 175.9: true, 120: true, 60: true} {
		j, r := star(t, nil, bend(deg))
		assert.Equal(t, assumed, j.Assumed, "%.1f°", deg)
		if assumed {
			require.Len(t, r.Findings, 1)
			assert.Equal(t, "no-fitting", r.Findings[0].Code)
			assert.Contains(t, message.Said(r.Findings[0]).Hint, "nearest angle")
			assert.Equal(t, in(0.5625), j.Ports[0].Stop, "worked as if an elbow stood there")
		}
	}
	mixed, _ := star(t, nil, bend(120), "1-1/2", "3/4")
	assert.Equal(t, in(1.5625), mixed.Ports[1].Stop, "the smaller pipe as if in a bushing")
	assert.Empty(t, mixed.Ports[1].Bushings, "but none is counted")
	j, r := star(t, nil, []measure.Dir{right, left, up, down, away, near, {1, 1, 0}})
	assert.True(t, j.Assumed)
	assert.Contains(t, message.Said(r.Findings[0]).Text, "more than six")
	_, r = star(t, nil, []measure.Dir{right, left, {1, 0, 1}})
	assert.Contains(t, message.Said(r.Findings[0]).Text, "45.0°")
	assert.Contains(t, message.Said(r.Findings[0]).Hint, "tee of its own")
}

// 1-1/2 tee, 3/4 branch: stop 1.0 + 1.094 + 0.1875 − 0.719 = 1.5625; rim 1.0 + 1.094 + 0.1875.
func TestSmallerPipesGetBushings(t *testing.T) {
	j, _ := star(t, nil, []measure.Dir{right, left, up}, "1-1/2", "1-1/2", "3/4")
	assert.Equal(t, catalog.Tee, j.Kind)
	assert.Equal(t, "1-1/2", j.Size)
	p := j.Ports[2]
	assert.Equal(t, in(1.5625), p.Stop)
	assert.Equal(t, in(1.0+1.094+0.1875), p.Face)
	assert.Equal(t, in(0.719), p.Depth)
	assert.Equal(t, in(2.24), p.Body)
	require.Len(t, p.Bushings, 1)
}

func TestTwoSizesInLineGetAReducingCoupling(t *testing.T) {
	j, _ := star(t, nil, []measure.Dir{left, right}, "3/4", "1")
	assert.Equal(t, catalog.ReducingCoupling, j.Kind)
	assert.Equal(t, "1x3/4", j.Size)
	for _, p := range j.Ports {
		want := map[catalog.Size]float64{"1": 0.0625, "3/4": 0.0625 + (1.315-1.050)/2}[p.PipeSize]
		assert.Equal(t, in(want), p.Stop)
		assert.Empty(t, p.Bushings)
	}
	j, _ = star(t, &frame.Forced{Kind: catalog.Coupling}, []measure.Dir{left, right}, "3/4", "1")
	assert.Equal(t, catalog.Coupling, j.Kind, "coupling and bushing is the substitute")
	assert.Equal(t, 1, len(j.Ports[0].Bushings)+len(j.Ports[1].Bushings))
}

func TestForcedFittingsKeepSparePorts(t *testing.T) {
	open := func(j *fitting.Joint) (known, unknown int) {
		for _, p := range j.Ports {
			if p.Fill == fitting.Open && p.Known {
				known++
			} else if p.Fill == fitting.Open {
				unknown++
			}
		}
		return
	}
	j, _ := star(t, &frame.Forced{Kind: catalog.Tee}, []measure.Dir{right, left})
	known, unknown := open(j)
	assert.Equal(t, [2]int{0, 1}, [2]int{known, unknown}, "the branch may point anywhere round the run")
	j, _ = star(t, &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{up}}, []measure.Dir{right, left})
	known, _ = open(j)
	assert.Equal(t, 1, known)
	assert.InDelta(t, 1, j.Ports[2].Dir.Dot(up), 1e-9)
	j, _ = star(t, &frame.Forced{Kind: catalog.Cross}, []measure.Dir{right, left, up})
	known, _ = open(j)
	assert.Equal(t, 1, known, "the fourth port of a cross can only point down")
	j, r := star(t, &frame.Forced{Kind: catalog.Cross, Unstated: true}, []measure.Dir{right, left, up})
	assert.Equal(t, in(0.66), r.Extent(0, down), "the exchange form leaves it out of the size unless it is stated")
	_, r = star(t, &frame.Forced{Kind: catalog.Cross, Unstated: true, Spare: []measure.Dir{down}}, []measure.Dir{right, left, up})
	assert.Equal(t, j.Ports[0].Face, r.Extent(0, down))
	j, _ = star(t, &frame.Forced{Kind: catalog.Tee, Plugged: true}, []measure.Dir{right, left})
	assert.Equal(t, fitting.Plugged, j.Ports[2].Fill)
	j, _ = star(t, &frame.Forced{Kind: catalog.Tee}, []measure.Dir{up})
	assert.Equal(t, catalog.Tee, j.Kind, "a single pipe in a forced tee")
	for _, bad := range []frame.Forced{{Kind: catalog.Elbow45}, {Kind: catalog.Coupling}, {Kind: catalog.Bushing}, {Kind: catalog.Tee, Spare: []measure.Dir{{1, 0, 1}}}} {
		j, r := star(t, &bad, []measure.Dir{right, up})
		assert.True(t, j.Assumed, bad.Kind)
		assert.Equal(t, "no-fitting", r.Findings[0].Code)
	}
}

func TestInsertionsCountABushingTwice(t *testing.T) {
	_, r := star(t, &frame.Forced{Kind: catalog.SideOutletTee, Plugged: true}, []measure.Dir{right, left, up}, "1", "1", "1/2")
	by := map[catalog.Size]int{}
	ids := map[string]bool{}
	for _, i := range r.Insertions() {
		by[i.Size]++
		ids[i.ID] = true
		assert.Equal(t, frame.Cemented, i.Mode)
	}
	assert.Equal(t, map[catalog.Size]int{"1": 4, "1/2": 1}, by, "two pipes, a bushing and a plug in 1 in sockets, a pipe in the bushing")
	assert.Len(t, ids, 5, "each has an id of its own")
}

func TestReachAndExtent(t *testing.T) {
	j, r := star(t, nil, []measure.Dir{right, left, up})
	face := j.Ports[0].Face
	assert.Equal(t, in(0.5625+0.719), face)
	assert.Equal(t, face, r.Extent(0, up))
	assert.Equal(t, in(0.66), r.Reach(0, up), "a pipe leaves by the top port: it is no outer edge")
	assert.Equal(t, in(0.66), r.Extent(0, down))
}

func TestClearances(t *testing.T) {
	gaps := func(text string) []string {
		doc, err := wireframe.Read([]byte(text))
		require.NoError(t, err)
		g, err := frame.Expand(doc)
		require.NoError(t, err)
		s := layout.Locate(g, nil, nil)
		var codes []string
		for _, f := range fitting.Resolve(g, catalog.Typical(), s.Tangents).Clearances(s.Points, s.Curves, nil) {
			codes = append(codes, message.Said(f).Text)
		}
		return codes
	}
	crossing := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[20,%s,-9],"d":[20,%s,9]},"pipes":[["a","b"],["c","d"]]}`
	assert.Len(t, gaps(fmt.Sprintf(crossing, "1.0", "1.0")), 1, "1.050 pipes one inch apart")
	assert.Empty(t, gaps(fmt.Sprintf(crossing, "1.05", "1.05")), "touching is allowed")
	// flat ends: two capped pipes end to end, a hair apart, do not overlap
	ends := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[%s,0,0],"d":[40,0,0]},"pipes":[["a","b"],["c","d"]],"ends":{"b":"cap","c":"cap"}}`
	assert.Empty(t, gaps(fmt.Sprintf(ends, "20.41")))
	assert.NotEmpty(t, gaps(fmt.Sprintf(ends, "20.3")))
}
