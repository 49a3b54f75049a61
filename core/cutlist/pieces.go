package cutlist

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// Piece is one pipe as it is cut.
type Piece struct {
	Pipe     string         `json:"pipe"`
	Size     catalog.Size   `json:"size"`
	Centre   measure.Length `json:"centre"`  // centre distance, to the drawn point at a free end
	Exact    measure.Length `json:"exact"`   // before rounding
	Cut      measure.Length `json:"cut"`     // to the tape step
	Takes    measure.Length `json:"takes"`   // what its two sockets take in
	Visible  measure.Length `json:"visible"` // bare pipe between the two faces
	Least    measure.Length `json:"least"`   // least centre distance, both faces touching
	Hidden   bool           `json:"hidden"`  // a hidden nipple: the fittings touch and no pipe shows
	TooShort bool           `json:"tooShort"`
	Sum      why.Sum        `json:"sum"` // from the centre distance to the cut
	// Typed is the cut as its builder typed it: it is what is cut. The list prints
	// it to the tape's step, and both where they differ.
	Typed measure.Length `json:"typed,omitempty"`
	index int
}

// List is the pieces of one frame, in the order of its pipes.
type List struct {
	Pieces   []Piece
	Loops    []Loop
	Findings []finding.Finding
}

var alongWords = map[frame.Path]string{
	frame.Straight: "centre to centre",
	frame.Sprung:   "centre to centre, along the bow",
	frame.Bent:     "centre to centre, along its legs and arcs",
}

// Build works out every piece of a frame, rounds the cuts to the step and
// checks that the loops still close.
func Build(g *frame.Graph, s *layout.Solution, f *fitting.Result, step measure.Length) *List {
	l := &List{Pieces: make([]Piece, len(g.Edges))}
	for i, e := range g.Edges {
		p := &l.Pieces[i]
		*p = Piece{Pipe: e.ID, Size: e.Size, Centre: s.Lengths[i], Least: f.Least(i), index: i}
		p.Sum = why.Sum{{Label: alongWords[e.Path], Value: p.Centre}}
		free := false
		for k := range e.Ends {
			end := frame.PipeEnd{Pipe: i, End: k}
			j, port := &f.Joints[e.Ends[k]], f.Port(end)
			p.Takes += port.Takes()
			if j.Free() {
				free = true
				p.Least += port.Takes() // a cap's rim stands so far in from the pipe's end
				continue
			}
			what := string(j.Kind)
			if len(port.Bushings) > 0 {
				what += " with bushing"
			}
			p.Sum = p.Sum.Plus(fmt.Sprintf("stop of the %s at %s", what, j.ID), -port.Stop)
			p.Sum = p.Sum.Plus(fmt.Sprintf("socket left empty at %s, %s", j.ID, port.Mode), -port.Gap(port.Seat))
		}
		p.Visible = p.Centre - p.Least
		p.Exact = p.Sum.Total()
		if t, ok := s.Typed[i]; ok && t.Holds {
			p.Typed = t.Value
			p.Sum = p.Sum.Plus("as typed, which the joints take up", t.Value-p.Exact)
			p.Exact = t.Value
		}
		p.TooShort = p.Exact < p.Takes-fitting.ShortBy
		p.Hidden = !free && !p.TooShort && p.Visible.Abs() <= max(step/2, fitting.ShortBy)
	}
	r := newRounding(g, s, l.Pieces, step)
	r.settle()
	l.Loops = r.loops
	for i := range l.Pieces {
		p := &l.Pieces[i]
		p.Cut = r.cut(i)
		p.Sum = p.Sum.Plus("rounded to the tape", p.Cut-p.Exact)
		if p.TooShort {
			l.Findings = append(l.Findings, p.tooShort())
		}
	}
	l.Findings = append(l.Findings, r.findings()...)
	return l
}

func (p *Piece) tooShort() finding.Finding {
	return finding.New("too-short", finding.Stop, finding.All(finding.Pipe, p.Pipe)...).
		With("long", p.Exact).
		With("takes", p.Takes).
		With("least", p.Least)
}

// class is a set of pieces that must stay equal: one size, one exact length.
type class struct {
	exact  measure.Length
	cut    measure.Length
	typed  bool // a typed cut is among them: rounding moves none of them
	pieces []int
}

// sameLength is how near two exact cuts are when they are meant to be equal.
const sameLength = measure.Inch / 2000

// hair is added before rounding, so that a half step that arithmetic left a
// few nanometres short still goes up.
const hair = 500 * measure.Nanometre

func classes(ps []Piece, step measure.Length) ([]class, []int) {
	order := make([]int, len(ps))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		return cmp.Or(catalog.Compare(ps[a].Size, ps[b].Size), cmp.Compare(ps[a].Exact, ps[b].Exact))
	})
	var cs []class
	of := make([]int, len(ps))
	for n, i := range order {
		if n == 0 || ps[i].Size != ps[order[n-1]].Size || ps[i].Exact-ps[order[n-1]].Exact > sameLength {
			cs = append(cs, class{})
		}
		c := &cs[len(cs)-1]
		c.typed = c.typed || ps[i].Typed > 0
		c.pieces = append(c.pieces, i)
		of[i] = len(cs) - 1
	}
	for i := range cs {
		c := &cs[i]
		c.exact = ps[c.pieces[len(c.pieces)/2]].Exact
		for _, i := range c.pieces {
			if ps[i].Typed > 0 {
				c.exact = ps[i].Typed
			}
		}
		c.cut = (c.exact + min(hair, step/100)).Round(step)
		if step <= 0 {
			c.cut = c.exact
		}
	}
	return cs, of
}
