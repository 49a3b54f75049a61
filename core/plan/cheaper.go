package plan

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
)

// Cheaper is another way to buy and cut a job, which costs less.
type Cheaper struct {
	Words  string        `json:"words"` // cut with the ratchet shear
	Saves  measure.Money `json:"saves"`
	Sticks int           `json:"sticks"`         // to buy more
	Warns  int           `json:"warns"`          // more that has to be looked at
	Size   catalog.Size  `json:"size,omitempty"` // of the pipe, where it is another
	Fix    finding.Fix   `json:"fix"`
}

// way is one that is tried.
type way struct {
	words string
	job   Job
	size  catalog.Size
	fix   finding.Fix
}

// FindCheaper looks for what costs less than a job as it is: sticks of other lengths that have a price of a
// size, another tool, another cement, and where sizes says so the first frame of pipe of another size.
// Each is planned; what lacks a price or a stick that holds a piece, or cannot be built, is none. It
// takes as long as some twenty plans; the errors are those of [Make].
func FindCheaper(ctx context.Context, job Job, shop Shop, work Work, size catalog.Size, sizes bool) ([]Cheaper, error) {
	before, err := Make(ctx, job, shop, work)
	if err != nil {
		return nil, err
	}
	all := []Cheaper{}
	for _, w := range waysOf(ctx, job, shop, size, sizes) {
		after, err := Make(ctx, w.job, shop, work)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		saves := measure.Money(0)
		if err == nil {
			saves = before.Bill.Total - after.Bill.Total
		}
		if saves <= 0 || lacks(after) > lacks(before) || count(after, finding.Stop) > count(before, finding.Stop) {
			continue
		}
		one := Cheaper{Words: w.words, Saves: saves, Sticks: after.Totals.Sticks - before.Totals.Sticks, Size: w.size, Fix: w.fix}
		grave := func(p *Plan) int { return len(p.Findings) - count(p, finding.Note) }
		one.Warns = max(0, grave(after)-grave(before))
		// of several that come to the same, the first will do
		if !slices.ContainsFunc(all, func(o Cheaper) bool { return o.Saves == one.Saves && o.Sticks == one.Sticks && o.Size == one.Size }) {
			all = append(all, one)
		}
	}
	slices.SortStableFunc(all, func(a, b Cheaper) int { return cmp.Compare(b.Saves, a.Saves) })
	return all, nil
}

// lacks counts what a plan has no price for, and the letters that no stick holds.
func lacks(p *Plan) int {
	n := len(p.Bill.Unpriced)
	for i := range p.Pipe {
		n += len(p.Pipe[i].TooLong)
	}
	return n
}

func count(p *Plan, s finding.Severity) (n int) {
	for i := range p.Findings {
		if p.Findings[i].Severity == s {
			n++
		}
	}
	return n
}

// waysOf are all that are tried.
func waysOf(ctx context.Context, job Job, shop Shop, size catalog.Size, sizes bool) (all []way) {
	add := func(words string, change func(*Job), edits ...finding.Edit) {
		w := way{words: words, job: job, fix: finding.Fix{Label: capital(words), Edits: edits}}
		change(&w.job)
		all = append(all, w)
	}
	sold := shop
	job.put(&sold)
	sticks := func(words string, lengths ...measure.Length) {
		var of []StockLength
		for _, l := range lengths {
			of = append(of, StockLength{Length: l})
		}
		add(words, func(j *Job) { j.Stock = of }, finding.Set("/sale/stock", of))
	}
	lengths := pricedLengths(&sold, size)
	names := make([]string, len(lengths))
	for i, l := range lengths {
		names[i] = l.Format(measure.FeetInches, 0)
		sticks("sticks of "+names[i]+" alone", l)
	}
	if len(lengths) > 1 {
		sticks("sticks of "+strings.Join(names, " and "), lengths...)
	}
	for _, t := range sold.Tools {
		if t.ID != job.Tool {
			add("cut with the "+lower(t.Name), func(j *Job) { j.Tool = t.ID }, finding.Set("/tool", t.ID))
		}
	}
	for _, s := range joinery.SchoolWords() {
		if school := joinery.School(s.Value); school != job.School {
			add("joints with "+s.Words, func(j *Job) { j.School = school }, finding.Set("/school", school))
		}
	}
	if !sizes {
		return all
	}
	for _, s := range catalog.Sizes() {
		gesture := edit.Edit{Gesture: &edit.Usual{Size: s}}
		if s == size {
			continue
		}
		doc, _, err := Edit(ctx, &job.Frames[0].Document, gesture, &shop)
		if err != nil {
			continue // it asks which size gives way, or is refused
		}
		words := string(s) + " in pipe and its fittings"
		w := way{words: words, job: job, size: s, fix: edit.Fix(capital(words), gesture)}
		w.job.Frames = slices.Clone(job.Frames)
		w.job.Frames[0].Document = *doc
		all = append(all, w)
	}
	return all
}

// pricedLengths are the stick lengths of a size that have a price, the longest first.
func pricedLengths(shop *Shop, size catalog.Size) (all []measure.Length) {
	for i := range shop.Prices.Prices {
		p := &shop.Prices.Prices[i]
		if p.Ware == material.Pipe && p.Spec.Size == string(size) && p.Length > 0 && !slices.Contains(all, p.Length) {
			all = append(all, p.Length)
		}
	}
	slices.SortFunc(all, func(a, b measure.Length) int { return cmp.Compare(b, a) })
	return all
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
