package procure

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/record"
)

// alike is what pieces of one letter have in common.
type alike struct {
	size  catalog.Size
	cut   measure.Length
	class frame.Class
	waits bool
	path  frame.Path
	lot   int // of lots that have letters of their own: which one, counted from 1
}

func likeness(p *model.Placed, lot int) alike {
	return alike{p.Size, p.Ordered, p.Class, p.Waits, p.Path, lot}
}

// lotOf is the number of a lot that has letters of its own; 0 where all have the same. Variants are
// put together from the same pieces, and so have the same letters.
func lotOf(lots []Lot, i int) int {
	if len(lots) < 2 || slices.ContainsFunc(lots, func(l Lot) bool { return l.Variant != "" || !l.Own }) {
		return 0
	}
	return i + 1
}

// letter gives the pieces their letters: one for each size and cut length, the
// largest size first, then the longest. Letters that are written on pipe or on paper
// stay with what they were written on; a new piece gets one that never was another's.
//
// Lots that have letters of their own have those that each has by itself, with its number before them:
// 1A, 2A.
func (p *Purchase) letter(lots []Lot, w *record.Work) {
	at := map[alike]int{}
	for fi := range lots {
		f := &lots[fi]
		for i := range f.Pipes {
			pc := &f.Pipes[i]
			like := likeness(pc, lotOf(lots, fi))
			g, known := at[like]
			if !known {
				g = len(p.Cuts)
				at[like] = g
				sum := pc.Sum
				if pc.Ordered != pc.Cut {
					sum = slices.Clip(sum).Plus(orderWords(pc), pc.Ordered-pc.Cut)
				}
				p.Cuts = append(
					p.Cuts,
					CutLine{Size: pc.Size, Cut: pc.Ordered, Sum: sum, Path: pc.Path, Class: pc.Class, Waits: pc.Waits, Lot: like.lot},
				)
			}
			line := &p.Cuts[g]
			if text := typed(f, i); text != "" {
				line.Typed = text
			}
			line.Count += f.Copies
			line.Pipes = append(line.Pipes, PipeRef{fi, pc.Pipe})
			line.Least = max(line.Least, pc.Least)
			line.Hidden = line.Hidden || pc.Hidden
			line.TooShort = line.TooShort || pc.TooShort
			p.Totals.Pieces += f.Copies
			if pc.Ordered > 0 {
				p.Totals.Net += pc.Ordered * measure.Length(f.Copies)
			}
		}
	}
	slices.SortStableFunc(p.Cuts, func(a, b CutLine) int {
		return cmp.Or(
			cmp.Compare(a.Lot, b.Lot),
			-catalog.Compare(a.Size, b.Size),
			cmp.Compare(b.Cut, a.Cut),
			cmp.Compare(a.Class, b.Class),
			cmp.Compare(a.Path, b.Path),
		)
	})
	type name struct {
		lot    int
		letter string
	}
	written, taken := map[alike]string{}, map[name]bool{}
	fix := func(lot int, all []record.Letter) {
		for _, l := range all {
			written[alike{l.Size, l.Cut, l.Class, l.Waits, l.Path, lot}], taken[name{lot, l.Letter}] = l.Letter, true
		}
	}
	fix(0, w.Letters)
	for i := range lots {
		if lot := lotOf(lots, i); lot > 0 && i < len(w.LettersOf) {
			fix(lot, w.LettersOf[i])
		}
	}
	letters, next := map[alike]string{}, map[int]int{}
	p.Marked = len(taken) > 0
	for i := range p.Cuts {
		c := &p.Cuts[i]
		like := alike{c.Size, c.Cut, c.Class, c.Waits, c.Path, c.Lot}
		c.Letter, c.Fixed = written[like]
		if !c.Fixed {
			for c.Letter = Letter(next[c.Lot]); taken[name{c.Lot, c.Letter}]; c.Letter = Letter(next[c.Lot]) {
				next[c.Lot]++
			}
			next[c.Lot]++
			p.Marked = false
		}
		if c.Lot > 0 {
			c.Letter = fmt.Sprint(c.Lot, c.Letter)
		}
		letters[like] = c.Letter
	}
	p.Placed, p.sizes = make([][]CutFrom, len(lots)), make([][]catalog.Size, len(lots))
	for fi := range lots {
		p.Placed[fi] = make([]CutFrom, len(lots[fi].Pipes))
		for i := range lots[fi].Pipes {
			p.sizes[fi] = append(p.sizes[fi], lots[fi].Pipes[i].Size)
			p.Placed[fi][i].Letter = letters[likeness(&lots[fi].Pipes[i], lotOf(lots, fi))]
		}
	}
}

// typed is a pipe's cut as its builder typed it, where the list prints another
// figure for it.
func typed(b *Lot, pipe int) string {
	pc := &b.Pipes[pipe]
	if pc.Typed == 0 || pc.Typed == pc.Cut {
		return ""
	}
	t := b.Solution.Typed[pipe]
	for i := range b.Sizes {
		if z := &b.Sizes[i]; z.ID == t.Size && z.Text != "" {
			text := strings.TrimSpace(strings.TrimSuffix(z.Text, "cut"))
			if _, err := strconv.ParseFloat(text, 64); err == nil && z.Unit != "" {
				text += " " + string(z.Unit)
			}
			return text
		}
	}
	return ""
}

func orderWords(pc *model.Placed) string {
	switch {
	case pc.Measured:
		return "as measured on the frame"
	case pc.Waits:
		return "in reserve until it is measured"
	}
	return "cut long, to be trimmed"
}

// Letter counts A … Z, AA, AB, … and leaves out I and O, which read as 1
// and 0 on a pipe.
func Letter(i int) string {
	const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ"
	s := ""
	for i++; i > 0; i = (i - 1) / len(letters) {
		s = string(letters[(i-1)%len(letters)]) + s
	}
	return s
}

// countFittings counts the fittings of every frame and copy, and says where each
// goes.
func (p *Purchase) countFittings(lots []Lot) (lines []material.Line) {
	type key struct {
		kind catalog.Kind
		size string
	}
	n, where := map[key]tally{}, map[key][]material.Place{}
	for fi := range lots {
		add := func(joint string, kind catalog.Kind, size string) {
			if n[key{kind, size}] == nil {
				n[key{kind, size}] = tally{}
			}
			n[key{kind, size}].add(lots[fi].Variant, lots[fi].Copies)
			where[key{kind, size}] = append(where[key{kind, size}], material.Place{Frame: fi, Kind: "joint", ID: joint})
		}
		for _, j := range lots[fi].Fits.Joints {
			if j.Kind == "" || j.Assumed {
				continue
			}
			add(j.ID, j.Kind, j.Size)
			for _, port := range j.Ports {
				for _, b := range port.Bushings {
					add(j.ID, b.Kind, b.Size)
				}
				if port.Fill == fitting.Plugged {
					add(j.ID, catalog.Plug, string(port.Size))
				}
			}
		}
	}
	for k, t := range n {
		p.Fittings = append(p.Fittings, FittingCount{k.kind, k.size, t.sum()})
		p.Totals.Fittings += t.sum()
	}
	late := func(k catalog.Kind) int {
		return slices.Index([]catalog.Kind{catalog.ReducingCoupling, catalog.Bushing, catalog.Plug, catalog.Cap}, k)
	}
	slices.SortFunc(p.Fittings, func(a, b FittingCount) int {
		return cmp.Or(cmp.Compare(late(a.Kind), late(b.Kind)), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Size, b.Size))
	})
	for _, f := range p.Fittings {
		rule := "one for each joint where the pipes run so"
		switch f.Kind {
		case catalog.Bushing, catalog.ReducingCoupling:
			rule = "one for each step from one pipe size to another"
		case catalog.Plug, catalog.Cap:
			rule = "one for each end that is closed"
		}
		lines = append(
			lines,
			material.Line{
				Spec:     material.Spec{Ware: material.Fitting, Kind: string(f.Kind), Size: f.Size},
				Quantity: f.Count,
				Unit:     "each",
				Where:    where[key{f.Kind, f.Size}],
				For:      forFrames(lots, where[key{f.Kind, f.Size}]),
				Rule:     rule,
			},
		)
	}
	return lines
}

// forFrames says how many of a thing each of several frames takes; nothing of one alone.
func forFrames(lots []Lot, where []material.Place) string {
	if len(lots) < 2 {
		return ""
	}
	count := make([]int, len(lots))
	for _, at := range where {
		count[at.Frame] += lots[at.Frame].Copies
	}
	var words []string
	for i, n := range count {
		if n > 0 {
			words = append(words, fmt.Sprintf("%d for %s", n, cmp.Or(lots[i].Doc.Name, fmt.Sprint("number ", i+1))))
		}
	}
	return strings.Join(words, ", ")
}
