package plan

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// Repair is a way to take the sticks of a size off their knife edge.
type Repair struct {
	Size string `json:"size"`
	// Kind is shave: a class of pieces is cut a little shorter; stop or tool: it is cut in
	// another way; length: another stick length is bought too; stick: one more is bought.
	Kind  string         `json:"kind"`
	Cost  measure.Money  `json:"cost"`  // more than now; below nought where it saves
	Edges int            `json:"edges"` // sticks that stay on a knife edge
	Left  measure.Length `json:"left"`  // of the tightest stick, then
	// Of a shave: the pieces, how much comes off each, what becomes of the outside size, and by
	// how much the worst loop does not close.
	Letter string            `json:"letter,omitempty"`
	Frames []int             `json:"frames,omitempty"` // whose pieces they are, counted from 0
	By     measure.Length    `json:"by,omitempty"`
	Grows  [3]measure.Length `json:"grows,omitzero"`
	Open   measure.Length    `json:"open,omitempty"`
	Typed  bool              `json:"typed,omitempty"` // its builder typed the cut
	Words  string            `json:"words"`
	Fix    finding.Fix       `json:"fix"`
}

// Repairs of one kind that are tried.
var shaves = []measure.Length{measure.Inch / 16, measure.Inch / 8, measure.Inch * 3 / 16, measure.Inch / 4}

// repairs looks for what takes the sticks of each size off their knife edge: the least change
// of each kind, the cheapest first.
func (t *thrift) repairs(typed bool) ([]Repair, error) {
	all := []Repair{}
	for i := range t.now.Pipe {
		pipe := &t.now.Pipe[i]
		if pipe.Stock.Edges == 0 {
			continue
		}
		r := &repairing{thrift: t, pipe: pipe}
		r.prob, r.lines = pipe.Problem()
		r.shave(typed)
		r.tools()
		if t.work.Figures == nil { // work that is begun keeps the stick lengths of then
			r.lengths()
		}
		if !t.work.HasBought(pipe.Size) { // a spare is bought with the rest
			r.oneMore()
		}
		if r.err != nil {
			return nil, r.err
		}
		r.found = slices.DeleteFunc(r.found, r.beaten)
		slices.SortStableFunc(r.found, func(a, b Repair) int {
			return cmp.Or(cmp.Compare(a.Edges, b.Edges), cmp.Compare(a.Cost, b.Cost), cmp.Compare(a.Open, b.Open), cmp.Compare(a.By, b.By))
		})
		all = append(all, r.found...)
	}
	return all, nil
}

// beaten says of another tool that it buys as much as one more stick would cost, which asks
// for no other tool.
func (r *repairing) beaten(x Repair) bool {
	return x.Kind == "tool" && slices.ContainsFunc(r.found, func(o Repair) bool {
		return o.Kind == "stick" && o.Cost <= x.Cost && o.Edges <= x.Edges
	})
}

// repairing is one size of pipe for which repairs are sought.
type repairing struct {
	*thrift
	pipe  *procure.PipeTotal
	prob  stock.Problem
	lines []int // of the cut list, of each demand
	found []Repair
	err   error
}

// try plans a changed problem, and keeps the repair if fewer sticks are on a knife edge.
func (r *repairing) try(p stock.Problem, fix Repair) bool {
	if r.err != nil {
		return false
	}
	p.Tidy, p.Steps, p.Keep = true, trySteps, nil
	all, err := stock.Solve(r.ctx, p)
	if err != nil {
		r.err = err
		return false
	}
	m, now := &all[0], &r.pipe.Stock
	if m.Edges >= now.Edges || len(m.Lacking) > len(now.Lacking) {
		return false
	}
	fix.Size, fix.Edges, fix.Cost, fix.Left = string(r.pipe.Size), m.Edges, m.Cost-now.Cost, m.Closest
	r.found = append(r.found, fix)
	return m.Edges == 0
}

// shave cuts each class of pieces a little shorter, by as little as helps.
func (r *repairing) shave(typed bool) {
	tried := 0
	for d, g := range r.lines {
		line := &r.now.Cuts[g]
		if line.Waits || line.TooShort || line.Class != frame.Exact && line.Class != frame.Matched {
			continue
		}
		its := r.isTyped(line)
		if its && !typed {
			continue
		}
		if tried++; tried > mostShaved {
			return
		}
		for _, by := range shaves {
			p := r.prob
			p.Demands = slices.Clone(p.Demands)
			p.Demands[d].Length -= by
			if p.Demands[d].Length <= 0 {
				break
			}
			fix := r.shaved(line, by)
			fix.Typed = its
			if r.try(p, fix) {
				break
			}
		}
	}
	// of one class, only the one that helps most, and of several the least
	r.found = slices.DeleteFunc(slices.Clone(r.found), func(a Repair) bool {
		return slices.ContainsFunc(r.found, func(b Repair) bool {
			return a.Letter == b.Letter && (b.Edges < a.Edges || b.Edges == a.Edges && b.By < a.By)
		})
	})
}

func (r *repairing) isTyped(line *procure.CutLine) bool {
	return slices.ContainsFunc(line.Pipes, func(ref procure.PipeRef) bool {
		b := r.built[ref.Frame]
		return slices.ContainsFunc(b.Pipes, func(p model.Placed) bool { return p.Pipe == ref.Pipe && p.Typed > 0 })
	})
}

// shaved says what it does to the frames when the pieces of a line are cut shorter.
func (r *repairing) shaved(line *procure.CutLine, by measure.Length) Repair {
	fix := Repair{Kind: "shave", Letter: line.Letter, By: by}
	var pipes []string
	for f, b := range r.built {
		cuts := make([]measure.Length, len(b.Pipes))
		some := false
		for i := range b.Pipes {
			cuts[i] = b.Pipes[i].Cut
			if slices.Contains(line.Pipes, procure.PipeRef{Frame: f, Pipe: b.Pipes[i].Pipe}) {
				cuts[i] -= by
				pipes, some = append(pipes, b.Pipes[i].Pipe), true
			}
		}
		if !some {
			continue
		}
		fix.Frames = append(fix.Frames, f)
		for _, loop := range cutlist.CheckCuts(b.Graph, b.Solution, b.Fits, b.List, cuts, b.Step).Loops {
			fix.Open = max(fix.Open, loop.Off)
		}
		was, is := b.Seated(nil), b.Seated(cuts)
		for a := range 3 {
			if g := is[len(is)-1].Size[a] - was[len(was)-1].Size[a]; g.Abs() > fix.Grows[a].Abs() {
				fix.Grows[a] = g
			}
		}
	}
	cut := by.Format(measure.InInches, 0)
	fix.Words = fmt.Sprintf("%d × %s cut up to %s shorter: %s", line.Count, line.Letter, cut, effect(fix))
	fix.Fix = edit.Fix(
		fmt.Sprintf("Let %s be up to %s shorter", line.Letter, cut),
		edit.Edit{Gesture: &edit.Tolerance{Pipes: pipes, Class: frame.Rough, Extra: cut}},
	)
	return fix
}

// effect says what a shave does to the size and to the loops.
func effect(r Repair) string {
	words := ""
	for a, way := range []string{"wide", "deep", "high"} {
		if g := r.Grows[a].Round(measure.Inch / 64); g < 0 {
			words += fmt.Sprintf("%s less %s, ", (-g).Format(measure.InInches, 0), way)
		}
	}
	if words == "" {
		words = "the outside size stays, "
	}
	if off := r.Open.Round(measure.Inch / 64); off > 0 {
		return words + fmt.Sprintf("a loop is open by %s", off.Format(measure.InInches, 0))
	}
	return words + "every loop closes"
}

// tools cuts in another way: against a stop, or with another tool.
func (r *repairing) tools() {
	own, _ := r.shop.Tool(r.job.Tool)
	tried := map[measure.Length]bool{own.Kerf: true} // of tools that take as much, the first will do
	for i, tool := range r.shop.Tools {
		p := r.prob
		if tool.ID != r.job.Tool && tried[tool.Kerf] {
			continue
		}
		tried[tool.Kerf] = true
		switch stopped := tool; {
		case tool.ID != r.job.Tool:
			p.Saw = tool.Saw()
			r.try(p, Repair{
				Kind: "tool", Words: fmt.Sprintf("cut with the %s, which takes %s", lower(tool.Name), tool.Kerf.Format(measure.InInches, 0)),
				Fix: finding.Fix{Label: "Cut with the " + lower(tool.Name), Edits: []finding.Edit{finding.Set("/tool", tool.ID)}},
			})
		case !tool.Stop && r.work.Figures == nil: // as it does tools
			stopped.Stop = true
			p.Saw = stopped.Saw()
			r.try(p, Repair{
				Kind: "stop", Words: "cut against a stop, which is off by less",
				Fix: finding.Fix{
					Label: "Cut against a stop", Edits: []finding.Edit{finding.Set(fmt.Sprintf("/shop/tools/%d/stop", i), true)},
				},
			})
		}
	}
}

func lower(name string) string {
	if name == "" {
		return name
	}
	return string(name[0]|0x20) + name[1:]
}

// lengths buys a length that pipe is usual in and that is not on sale yet.
func (r *repairing) lengths() {
	for _, l := range procure.UsualSticks {
		if slices.ContainsFunc(r.prob.Offers, func(o stock.Offer) bool { return o.Origin == stock.Shop && o.Sold == l }) {
			continue
		}
		price, priced := r.shop.Prices.Find(material.Spec{Ware: material.Pipe, Size: string(r.pipe.Size), Length: l})
		if r.pipe.Stock.Priced && !priced {
			continue // it would not be bought
		}
		p := r.prob
		p.Offers = append(slices.Clone(p.Offers), stock.Offer{
			Material: string(r.pipe.Size), Length: l, Sold: l, Price: price.Each(), Priced: priced, Origin: stock.Shop,
		})
		name := l.Format(measure.FeetInches, 0)
		r.try(p, Repair{
			Kind: "length", Words: fmt.Sprintf("buy %s sticks too", name),
			Fix: finding.Fix{
				Label: fmt.Sprintf("Buy %s sticks too", name),
				Edits: []finding.Edit{finding.Set("/shop/stock/-", shop.StockLength{Size: r.pipe.Size, Length: l})},
			},
		})
	}
}

// oneMore buys one stick more, of the length that costs least and helps.
func (r *repairing) oneMore() {
	offers := slices.Clone(r.prob.Offers)
	slices.SortStableFunc(offers, func(a, b stock.Offer) int {
		return cmp.Or(cmp.Compare(a.Price, b.Price), cmp.Compare(a.Length, b.Length))
	})
	for _, o := range offers {
		if o.Origin != stock.Shop || o.Spare || r.pipe.Stock.Priced && !o.Priced {
			continue
		}
		p := r.prob
		o.Count, o.Spare = 1, true
		p.Offers = append(slices.Clone(p.Offers), o)
		name := o.Sold.Format(measure.FeetInches, 0)
		spare := shop.StockLength{Size: r.pipe.Size, Length: o.Sold, Count: 1}
		if r.try(p, Repair{
			Kind: "stick", Words: fmt.Sprintf("buy one more stick of %s", name),
			Fix: finding.Fix{Label: fmt.Sprintf("Buy one more %s stick", name), Edits: []finding.Edit{finding.Set("/spare/-", spare)}},
		}) {
			return
		}
	}
}
