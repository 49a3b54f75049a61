package frame_test

import (
	"fmt"
	"math"
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// everything is a document with something in every field that bears a number.
func everything() *frame.Document {
	in := measure.Inch
	dir := func(x, y, z float64) *measure.Dir { return &measure.Dir{x, y, z} }
	d := &frame.Document{
		Format: frame.Format,
		Name:   "all",
		Units:  measure.Inches,
		Size:   "3/4",
		Mode:   frame.Cemented,
		Serial: 9,
		Shown:  map[string]int{"j1": 4},
		Seats: map[frame.Mode]float64{
			frame.Slip: 0.8,
		},
		Origin:          measure.Point{in, in, in},
		Stance:          &frame.Stance{Turns: []frame.Turn{{About: measure.X, By: 10}}},
		Tolerances:      []frame.Tolerance{{Pipe: "p1", Class: frame.OnFrame, Extra: in, Measured: 12 * in}},
		ClearanceChecks: []frame.ClearanceCheck{{ID: "door", Kind: frame.Inside, Size: [3]measure.Length{30 * in, 30 * in, 80 * in}}},
		CustomFittings: []catalog.Custom{
			{
				ID:    "own",
				Size:  "3/4",
				Ports: []catalog.CustomPort{{Dir: measure.Dir{1, 0, 0}, Stop: in, Depth: in, Body: in}, {Dir: measure.Dir{-1, 0, 0}}},
			},
		},
	}
	d.Groups = []frame.Definition{
		{
			ID:     "g",
			Joints: []frame.Joint{{ID: "a"}, {ID: "b"}},
			Pipes:  []frame.Pipe{{ID: "p", From: "a", To: "b", Dir: dir(0, 0, 1), Rank: 1}},
			Sizes:  []frame.Size{{ID: "g1", Value: 9 * in, Meaning: frame.Centre, Pipe: "p", Rank: 2}},
		},
	}
	r := &d.Root
	r.Joints = []frame.Joint{
		{ID: "a"},
		{ID: "b", Fitting: &frame.Forced{Kind: catalog.Tee, Spare: []measure.Dir{{0, 0, 1}}}},
		{ID: "c"},
		{ID: "d"},
		{ID: "e"},
		{ID: "f"},
		{ID: "via"},
	}
	r.Pipes = []frame.Pipe{{ID: "p1", From: "a", To: "b", Dir: dir(1, 0, 0)}, {ID: "p2", From: "b", To: "c", Dir: dir(0, 1, 0)},
		{
			ID:     "bow",
			From:   "c",
			To:     "d",
			Path:   frame.Sprung,
			Spring: &frame.Spring{Bow: dir(0, 0, 1), Leave: [2]measure.Dir{{0, 0, 1}, {0, 0, 1}}},
		},
		{ID: "bent", From: "e", To: "f", Path: frame.Bent, Via: []string{"via"}, Radius: 6 * in}}
	r.Sizes = []frame.Size{
		{ID: "s1", Value: 12 * in, Meaning: frame.Centre, Pipe: "p1", Rank: 3},
		{ID: "s2", Value: 12 * in, Meaning: frame.Centre, Pipe: "p2", Gave: &frame.GaveWay{Words: "x"}},
	}
	r.Reasons = []frame.Reason{
		{ID: "r1", Kind: frame.Share, Of: "e", From: "a", To: "c", Part: 1, Parts: 2, Rank: 4},
		{ID: "r2", Kind: frame.Share, Of: "f", From: "a", To: "c", Share: 0.4},
		{
			ID:   "r3",
			Kind: frame.Line,
			Of:   "d",
			From: "a",
			Dir:  dir(1, 1, 0),
		},
		{ID: "r4", Kind: frame.Placed, Of: "via", From: "a", By: measure.Point{in, in, in}},
	}
	r.Uses = []frame.Use{
		{
			ID:    "u",
			Of:    "g",
			Turns: []frame.Turn{{About: measure.Z, By: 90}},
			Rank:  5,
			Array: &frame.Array{Count: 3, Axis: measure.X, Pitch: &frame.Size{ID: "pitch", Value: 20 * in, Meaning: frame.Centre, Rank: 6}},
		},
	}
	r.Links = []frame.Link{
		{
			ID:      "l",
			Kind:    frame.Pivot,
			On:      []frame.Anchor{{Pipe: "p1", At: in}, {Pipe: "p2", At: in}},
			Rod:     in,
			Fold:    90,
			Count:   1,
			Length:  in,
			Overlap: in,
			Pitch:   in,
			Wheel:   in,
			Hub:     in,
			Spacer:  in,
			Cord:    in,
		},
	}
	return d
}

// numbers shows every number in a value, and where it is.
func numbers(v reflect.Value, where string, show func(v reflect.Value, where string)) {
	switch v.Kind() {
	case reflect.Int, reflect.Int64, reflect.Float64:
		show(v, where)
	case reflect.Pointer:
		if !v.IsNil() {
			numbers(v.Elem(), where, show)
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			numbers(v.Index(i), where, show)
		}
	case reflect.Map:
		for it := v.MapRange(); it.Next(); {
			n := reflect.New(it.Value().Type()).Elem()
			n.Set(it.Value())
			numbers(n, where, func(n reflect.Value, where string) {
				show(n, where)
				v.SetMapIndex(it.Key(), n)
			})
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() && f.Tag.Get("json") != "-" { // what is not saved comes from nowhere else
				numbers(v.Field(i), v.Type().Name()+"."+f.Name, show)
			}
		}
	}
}

// Every number that a document bears has a range: the largest and the smallest
// that its type can hold are refused, wherever they stand.
func TestEveryNumberHasARange(t *testing.T) {
	_, err := frame.Expand(everything())
	require.NoError(t, err)
	reached := map[string]bool{}
	total := 0
	numbers(reflect.ValueOf(everything()).Elem(), "", func(_ reflect.Value, where string) {
		total++
		reached[where] = true
	})
	for k := range total {
		for _, extreme := range []float64{1, -1, math.NaN()} {
			d, i, at := everything(), 0, ""
			skip := false
			numbers(reflect.ValueOf(d).Elem(), "", func(v reflect.Value, where string) {
				if i == k {
					at = where
					switch {
					case v.Kind() == reflect.Float64:
						v.SetFloat(extreme * math.MaxFloat64)
					case math.IsNaN(extreme):
						skip = true
					case extreme > 0:
						v.SetInt(math.MaxInt64)
					default:
						v.SetInt(math.MinInt64)
					}
				}
				i++
			})
			if skip {
				continue
			}
			_, err := frame.Expand(d)
			require.Error(t, err, "%s, number %d, takes %g of the largest there is", at, k, extreme)
		}
	}
	all := map[string]bool{}
	var walk func(t reflect.Type, where string)
	seen := map[reflect.Type]bool{}
	walk = func(t reflect.Type, where string) {
		switch t.Kind() {
		case reflect.Int, reflect.Int64, reflect.Float64:
			all[where] = true
		case reflect.Pointer, reflect.Slice, reflect.Array, reflect.Map:
			walk(t.Elem(), where)
		case reflect.Struct:
			if !seen[t] {
				seen[t] = true
				for i := range t.NumField() {
					if f := t.Field(i); f.Tag.Get("json") != "-" {
						walk(f.Type, t.Name()+"."+f.Name)
					}
				}
			}
		}
	}
	walk(reflect.TypeFor[frame.Document](), "")
	assert.Equal(t, all, reached, "the document of this test has every number that there can be")
}

// nested is groups in groups, each used so many times in the next.
func nested(deep, wide int, joint bool) *frame.Document {
	d := &frame.Document{Format: frame.Format, Name: "nest", Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	use := func(def *frame.Definition, of string) {
		for i := range wide {
			def.Uses = append(def.Uses, frame.Use{ID: fmt.Sprintf("u%d", i), Of: of})
		}
	}
	use(&d.Root, "g1")
	for i := 1; i <= deep; i++ {
		g := frame.Definition{ID: fmt.Sprintf("g%d", i)}
		if i < deep {
			use(&g, fmt.Sprintf("g%d", i+1))
		} else if joint {
			g.Joints = []frame.Joint{{ID: "j"}}
		}
		d.Groups = append(d.Groups, g)
	}
	return d
}

func TestExcessIsRefusedBeforeItIsBuilt(t *testing.T) {
	for name, d := range map[string]*frame.Document{
		"more than 5000 uses of groups": nested(7, 10, false),
		"more than 5000 joints":         nested(4, 9, true),
		"groups inside groups":          nested(9, 1, true),
	} {
		_, err := frame.Expand(d)
		assert.ErrorContains(t, err, name)
		assert.Less(t, testing.AllocsPerRun(1, func() { frame.Expand(d) }), 2000.0, name) //nolint:errcheck // it was looked at
	}
	round := nested(3, 2, true)
	round.Groups[2].Uses = []frame.Use{{ID: "back", Of: "g1"}}
	_, err := frame.Expand(round)
	require.ErrorContains(t, err, "contains itself")
	unused := nested(2, 2, true)
	unused.Groups = append(unused.Groups, frame.Definition{ID: "alone", Uses: []frame.Use{{ID: "u", Of: "alone"}}})
	_, err = frame.Expand(unused)
	require.ErrorContains(t, err, "/groups/2/uses/0/of: the group \"alone\" contains itself")
}

// Groups in groups that come to 10^8 uses, and a group in itself. The goal is 10 ms.
func BenchmarkExcess(b *testing.B) {
	d := nested(8, 10, false)
	round := nested(300, 3, true)
	round.Groups[299].Uses = []frame.Use{{ID: "back", Of: "g1"}}
	for range b.N {
		if _, err := frame.Expand(d); err == nil {
			b.Fatal("taken")
		}
		if _, err := frame.Expand(round); err == nil {
			b.Fatal("taken")
		}
	}
}

// What is wrong is told in the order in which a document is written, each time.
func TestProblemsComeInOrder(t *testing.T) {
	spoilt := func() *frame.Document {
		d := everything()
		d.Units, d.Serial, d.Origin[1] = "feet", -1, measure.FrameLimit*2
		d.Seats = map[frame.Mode]float64{frame.Slip: 2, frame.Pinned: 3, frame.Eased: 4, "tape": 0.5}
		d.Root.Reasons[0].Of, d.Root.Reasons[0].From, d.Root.Reasons[0].To = "x", "y", "z"
		d.Groups[0].Joints[0].End = "plug"
		return d
	}
	want := []string{
		"/units",
		"/seats/eased",
		"/seats/pinned",
		"/seats/slip",
		"/seats",
		"/serial",
		"/origin/1",
		"/root/reasons/0/of",
		"/root/reasons/0/from",
		"/root/reasons/0/to",
		"/groups/0/joints/0/end",
	}
	for range 20 {
		_, err := frame.Expand(spoilt())
		var ps frame.Problems
		require.ErrorAs(t, err, &ps)
		var paths []string
		for _, p := range ps {
			paths = append(paths, p.Path)
		}
		require.Equal(t, want, paths)
	}
}
