package fit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/measure"
)

// The pairs that the handbook of the trade names.
func TestTheHandbooksPairs(t *testing.T) {
	c := catalog.Typical()
	for _, p := range []struct {
		inner, outer catalog.Size
		want         []fit.Verdict
		play         float64
	}{
		{"1", "1-1/4", []fit.Verdict{fit.Tight, fit.Slides}, 0.045}, {"2", "2-1/2", []fit.Verdict{fit.Slides}, 0.070},
		{"1-1/2", "2", []fit.Verdict{fit.Sloppy}, 0.15}, {"2-1/2", "3", []fit.Verdict{fit.Sloppy}, 0.17}, {"1/2", "1", []fit.Verdict{fit.Sloppy}, 0.19},
		{"1/2", "3/4", []fit.Verdict{fit.Impossible}, 0}, {"3/4", "1", []fit.Verdict{fit.Impossible}, 0}, {"1-1/4", "1-1/2", []fit.Verdict{fit.Impossible}, 0},
	} {
		f := fit.Pipe(c, p.inner, p.outer)
		assert.Contains(t, p.want, f.Verdict, "%s in %s: %s", p.inner, p.outer, f.Play)
		if p.play > 0 {
			assert.InDelta(t, p.play, f.Play.Inches(), 0.03, "%s in %s", p.inner, p.outer)
		}
	}
	s, f, ok := fit.Inner(c, "1-1/4")
	assert.True(t, ok)
	assert.Equal(t, catalog.Size("1"), s)
	assert.NotEqual(t, fit.Impossible, f.Verdict)
	_, _, ok = fit.Inner(c, "1/2")
	assert.False(t, ok, "nothing goes into the smallest")
}

func TestRodsAndClips(t *testing.T) {
	c := catalog.Typical()
	assert.Equal(t, fit.Loose, fit.Through(c, measure.Inch/2, "3/4", catalog.Tee).Verdict, "a 1/2 rod in 0.82")
	assert.Equal(t, fit.Slides, fit.Through(c, measure.Inch*3/4, "3/4", catalog.Tee).Verdict)
	assert.Equal(t, fit.Impossible, fit.Through(c, measure.Inch, "3/4", catalog.Tee).Verdict)
	up, ok := fit.ClipFor("3/4")
	assert.True(t, ok && up.Slit && up.From == "1")
	same, ok := fit.ClipFor("2")
	assert.True(t, ok && same.Third && same.From == "2")
	_, ok = fit.ClipFor("4")
	assert.False(t, ok)
}

func ExamplePipe() {
	for _, outer := range []catalog.Size{"1-1/4", "1-1/2", "2"} {
		inner, f, ok := fit.Inner(catalog.Typical(), outer)
		fmt.Println(outer, inner, f.Verdict, ok)
	}
	// Output:
	// 1-1/4 1 tight true
	// 1-1/2 1 loose true
	// 2 1-1/2 sloppy true
}
