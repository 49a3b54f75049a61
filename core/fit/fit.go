// Package fit answers: does this go through that, and how loosely?
//
// A rod through a tee, a stake in a leg, a smaller pipe inside a larger one, a
// sleeve or a clip round a pipe: each is one thing in a bore, and the play
// between them decides. A fitting's bore past its stops is no wider than the
// pipe's own, so what passes a pipe's inside passes its fittings.
package fit

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Verdict is how something fits.
type Verdict string

// The verdicts.
const (
	Impossible Verdict = "impossible"
	Tight      Verdict = "tight"  // try a real pair
	Slides     Verdict = "slides" // as it should
	Sloppy     Verdict = "sloppy" // it rattles: shim it
	Loose      Verdict = "loose"  // it is not held at all
)

// Fit is one thing in the bore of another.
type Fit struct {
	Outside measure.Length `json:"outside"` // of what is inside
	Bore    measure.Length `json:"bore"`
	Play    measure.Length `json:"play"`
	Verdict Verdict        `json:"verdict"`
	Text    string         `json:"text"`
}

// The plays at which the verdict changes, after the handbook's pairs: 0.045 and
// 0.070 work, 0.15 to 0.19 are sloppy, under 0.05 a real pair is to be tried.
const (
	tightTo  = measure.Inch * 50 / 1000
	slidesTo = measure.Inch * 120 / 1000
	sloppyTo = measure.Inch * 250 / 1000
)

// In judges something of an outside diameter in a bore.
func In(outside, bore measure.Length) Fit {
	f := Fit{Outside: outside, Bore: bore, Play: bore - outside}
	switch p := f.Play; {
	case p < 0:
		f.Verdict, f.Text = Impossible, fmt.Sprintf("it is %s thicker than the bore", decimal(-p))
	case p < tightTo:
		f.Verdict, f.Text = Tight, fmt.Sprintf("%s of play: try a real pair, walls and sockets vary", decimal(p))
	case p <= slidesTo:
		f.Verdict, f.Text = Slides, fmt.Sprintf("%s of play: it slides", decimal(p))
	case p <= sloppyTo:
		f.Verdict, f.Text = Sloppy, fmt.Sprintf("%s of play: it rattles, so wrap or shim it", decimal(p))
	default:
		f.Verdict, f.Text = Loose, fmt.Sprintf("%s of play: it is not held", decimal(p))
	}
	return f
}

func decimal(l measure.Length) string { return l.Format(measure.Decimal, measure.Inch/1000) }

// Pipe judges a pipe inside another, from the inner's outside and the outer's
// average inside diameter.
func Pipe(c *catalog.Catalog, inner, outer catalog.Size) Fit {
	return In(c.Pipe(inner).OutsideDiameter, c.Pipe(outer).InsideDiameter)
}

// Through judges a rod through a pipe and what stands along it: the bore past
// the stops of its fittings.
func Through(c *catalog.Catalog, rod measure.Length, size catalog.Size, kind catalog.Kind) Fit {
	bore := c.Pipe(size).InsideDiameter
	if f, ok := c.Fitting(kind, size); ok {
		for _, p := range f.Ports {
			if p.Bore > 0 {
				bore = min(bore, p.Bore)
			}
		}
	}
	return In(rod, bore)
}

// Inner gives the size of pipe that telescopes best in another: it slides, or
// is worth a try; ok is false where none does.
func Inner(c *catalog.Catalog, outer catalog.Size) (best catalog.Size, f Fit, ok bool) {
	for _, s := range catalog.Sizes() {
		if g := Pipe(c, s, outer); g.Verdict != Impossible && (!ok || g.Play < f.Play) {
			best, f, ok = s, g, true
		}
	}
	return best, f, ok
}

// Clip is how a clip for a pipe is cut from pipe. Source: the handbook.
type Clip struct {
	From  catalog.Size `json:"from"`
	Slit  bool         `json:"slit"`  // slit once along its length
	Third bool         `json:"third"` // with about a third of the wall cut out
	Text  string       `json:"text"`
}

// ClipFor gives the clip that grips a pipe; ok is false for sizes that none is
// known for.
func ClipFor(size catalog.Size) (Clip, bool) {
	all := catalog.Sizes()
	switch size {
	case "1/2", "3/4", "1-1/4":
		up := all[size.Rank()+1]
		return Clip{up, true, false, fmt.Sprintf("a short piece of %s pipe, slit along its length", up)}, true
	case "1", "1-1/2", "2":
		return Clip{size, false, true, fmt.Sprintf("a short piece of %s pipe with about a third of its wall cut out", size)}, true
	}
	return Clip{}, false
}
