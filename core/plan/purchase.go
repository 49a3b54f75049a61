package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// makeCutLines letters the pieces: one letter for each size and cut length, the
// largest size first, then the longest.
func (p *Plan) makeCutLines() {
	type key struct {
		size  catalog.Size
		cut   measure.Length
		class frame.Class
		waits bool
		path  frame.Path
	}
	of := func(pc *Pipe) key { return key{pc.Size, pc.Ordered, pc.Class, pc.Waits, pc.Path} }
	at := map[key]int{}
	for fi := range p.Frames {
		f := &p.Frames[fi]
		for i := range f.Pipes {
			pc := &f.Pipes[i]
			k := of(pc)
			g, ok := at[k]
			if !ok {
				g = len(p.Cuts)
				at[k] = g
				sum := pc.Sum
				if pc.Ordered != pc.Cut {
					sum = slices.Clip(sum).Plus(orderWords(pc), pc.Ordered-pc.Cut)
				}
				p.Cuts = append(p.Cuts, CutLine{Size: pc.Size, Cut: pc.Ordered, Sum: sum, Path: pc.Path, Class: pc.Class, Waits: pc.Waits})
			}
			if text := f.typed(pc); text != "" {
				p.Cuts[g].Typed = text
			}
			p.Cuts[g].Count += f.Copies
			p.Cuts[g].Pipes = append(p.Cuts[g].Pipes, PipeRef{fi, pc.Pipe})
			p.Cuts[g].Hidden = p.Cuts[g].Hidden || pc.Hidden
			p.Cuts[g].TooShort = p.Cuts[g].TooShort || pc.TooShort
			p.Totals.Pieces += f.Copies
		}
	}
	slices.SortStableFunc(p.Cuts, func(a, b CutLine) int {
		return cmp.Or(-catalog.Compare(a.Size, b.Size), cmp.Compare(b.Cut, a.Cut), cmp.Compare(a.Class, b.Class), cmp.Compare(a.Path, b.Path))
	})
	letter := map[key]string{}
	for i := range p.Cuts {
		p.Cuts[i].Letter = letterOf(i)
		letter[key{p.Cuts[i].Size, p.Cuts[i].Cut, p.Cuts[i].Class, p.Cuts[i].Waits, p.Cuts[i].Path}] = p.Cuts[i].Letter
	}
	for fi := range p.Frames {
		for i := range p.Frames[fi].Pipes {
			pc := &p.Frames[fi].Pipes[i]
			pc.Letter = letter[of(pc)]
		}
	}
}

// typed is a pipe's cut as its builder typed it, where the list prints another
// figure for it.
func (f *Frame) typed(pc *Pipe) string {
	if pc.Typed == 0 || pc.Typed == pc.Cut {
		return ""
	}
	t := f.solved.Typed[f.graph.Edge(pc.Pipe)]
	for i := range f.Sizes {
		if z := &f.Sizes[i]; z.ID == t.Size && z.Text != "" {
			text := strings.TrimSpace(strings.TrimSuffix(z.Text, "cut"))
			if _, err := strconv.ParseFloat(text, 64); err == nil && z.Unit != "" {
				text += " " + string(z.Unit)
			}
			return text
		}
	}
	return ""
}

func orderWords(pc *Pipe) string {
	switch {
	case pc.Measured:
		return "as measured on the frame"
	case pc.Waits:
		return "in reserve until it is measured"
	}
	return "cut long, to be trimmed"
}

// letterOf counts A … Z, AA, AB, … and leaves out I and O, which read as 1
// and 0 on a pipe.
func letterOf(i int) string {
	const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ"
	s := ""
	for i++; i > 0; i = (i - 1) / len(letters) {
		s = string(letters[(i-1)%len(letters)]) + s
	}
	return s
}

func (p *Plan) countFittings() {
	type key struct {
		kind catalog.Kind
		size string
	}
	n := map[key]int{}
	for _, f := range p.Frames {
		for _, j := range f.Joints {
			if j.Kind == "" || j.Assumed {
				continue
			}
			n[key{j.Kind, j.Size}] += f.Copies
			for _, port := range j.Ports {
				for _, b := range port.Bushings {
					n[key{b.Kind, b.Size}] += f.Copies
				}
				if port.Fill == fitting.Plugged {
					n[key{catalog.Plug, string(port.Size)}] += f.Copies
				}
			}
		}
	}
	for k, c := range n {
		p.Fittings = append(p.Fittings, FittingCount{k.kind, k.size, c})
		p.Totals.Fittings += c
	}
	late := func(k catalog.Kind) int {
		return slices.Index([]catalog.Kind{catalog.ReducingCoupling, catalog.Bushing, catalog.Plug, catalog.Cap}, k)
	}
	slices.SortFunc(p.Fittings, func(a, b FittingCount) int {
		return cmp.Or(cmp.Compare(late(a.Kind), late(b.Kind)), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Size, b.Size))
	})
}

// compareNodes bounds the search for the tools that are only compared.
const compareNodes = 20_000

// smallJob is how many pieces are planned as a whole even in a draft: it takes
// no longer than a glance.
const smallJob = 80

// draftNodes bounds the search for a first purchase.
const draftNodes = 4000

func (p *Plan) purchase(ctx context.Context, job *Job, shop *Shop, work *Work, draft bool) error {
	prob := stock.Problem{Kerf: p.Tool.Kerf, EndTrim: job.EndTrim, Tidy: true, Margin: max(p.Tool.Kerf, finestSaw)}
	var of []int // the cut that each demand is for
	for i, g := range p.Cuts {
		if g.Cut > 0 {
			prob.Demands = append(prob.Demands, stock.Demand{Material: string(g.Size), Length: g.Cut, Count: g.Count, Name: g.Letter})
			of = append(of, i)
		}
	}
	prob.Offers = offers(p.Cuts, shop, work)
	draft = draft && p.Totals.Pieces > smallJob
	if draft {
		prob.Tidy, prob.Nodes = false, draftNodes
	}
	p.Totals.Proven = true
	var wants []cost.Want
	materials, err := stock.Solve(ctx, prob)
	if err != nil {
		return err
	}
	p.waitLast(materials, of)
	for _, m := range materials {
		t := PipeTotal{Size: catalog.Size(m.Key), Stock: m}
		used := m.Net + m.Kerf + m.Left + job.EndTrim*measure.Length(len(m.Sticks))
		for _, s := range m.Sticks {
			t.Pieces += len(s.Pieces)
		}
		if used > 0 {
			t.Yield = float64(m.Net) / float64(used)
		}
		p.Pipe = append(p.Pipe, t)
		p.Totals.Net += m.Net
		p.Totals.Sticks += m.Count
		p.Totals.Proven = p.Totals.Proven && m.Proven
		for _, b := range m.Buy {
			wants = append(wants, cost.Want{Key: pipeKey(t.Size, b.Length), Count: b.Count,
				Label: fmt.Sprintf("%s pipe, %s stick", t.Size, b.Length.Format(measure.FeetInches, 0))})
		}
		p.stockFindings(&t, prob.Demands, draft)
		p.passedOver(&t, prob.Offers)
	}
	p.sawFrom(materials, of)
	p.Improving = draft // it is tidied, and set beside other tools, with the whole plan
	p.Bill = shop.Prices.Add(append(wants, p.otherWants()...))
	return p.compare(ctx, prob, shop, materials, draft)
}

// waitLast puts the pieces that wait to be measured at the end of their
// sticks: what is cut before them leaves their reserve whole.
func (p *Plan) waitLast(materials []stock.Material, of []int) {
	waits := func(c stock.Piece) int {
		if p.Cuts[of[c.Demand]].Waits {
			return 1
		}
		return 0
	}
	for _, m := range materials {
		for _, s := range m.Sticks {
			slices.SortStableFunc(s.Pieces, func(a, b stock.Piece) int { return cmp.Compare(waits(a), waits(b)) })
		}
	}
}

// sawFrom tells every pipe of the first copies which stick its piece comes
// from. Pieces of one letter are alike: the sticks serve them in order, first
// copies first.
func (p *Plan) sawFrom(materials []stock.Material, of []int) {
	at := make([]map[string]*Pipe, len(p.Frames))
	for f := range p.Frames {
		at[f] = map[string]*Pipe{}
		for i := range p.Frames[f].Pipes {
			at[f][p.Frames[f].Pipes[i].Pipe] = &p.Frames[f].Pipes[i]
		}
	}
	served := make([]int, len(of))
	for _, m := range materials {
		for n, s := range m.Sticks {
			for _, piece := range s.Pieces {
				g := &p.Cuts[of[piece.Demand]]
				if k := served[piece.Demand]; k < len(g.Pipes) {
					ref := g.Pipes[k]
					at[ref.Frame][ref.Pipe].Stick = n + 1
				}
				served[piece.Demand]++
			}
		}
	}
}

func pipeKey(size catalog.Size, l measure.Length) cost.Key {
	return cost.Key{Ware: cost.Pipe, Size: string(size), Length: l}
}

// offers lists what sticks can be had: on sale, on the rack, bought before.
func offers(cuts []CutLine, shop *Shop, work *Work) (all []stock.Offer) {
	var sizes []catalog.Size
	for _, g := range cuts {
		if !slices.Contains(sizes, g.Size) {
			sizes = append(sizes, g.Size)
		}
	}
	for _, size := range sizes {
		for _, s := range shop.Stock {
			if s.Size == "" || s.Size == size {
				price, ok := shop.Prices.Find(pipeKey(size, s.Length))
				all = append(all, stock.Offer{Material: string(size), Length: s.Length, Price: price.Amount, Priced: ok, Origin: stock.Shop})
			}
		}
		all = append(all, atHand(size, stock.Rack, shop.Rack)...)
		all = append(all, atHand(size, stock.Bought, work.Bought)...)
	}
	return all
}

func atHand(size catalog.Size, origin stock.Origin, list []Offcut) (all []stock.Offer) {
	for _, o := range list {
		if o.Size == size {
			all = append(all, stock.Offer{Material: string(size), Length: o.Length, Count: o.Count, Origin: origin})
		}
	}
	return all
}

func (p *Plan) otherWants() (wants []cost.Want) {
	for _, f := range p.Fittings {
		wants = append(wants, cost.Want{Key: cost.Key{Ware: cost.Fitting, Kind: string(f.Kind), Size: f.Size}, Count: f.Count, Label: f.Size + " " + string(f.Kind)})
	}
	for ware, c := range []joinery.Cans{p.Joinery.Cement, p.Joinery.Primer} {
		name := []cost.Ware{cost.Cement, cost.Primer}[ware]
		for _, can := range c.Cans {
			wants = append(wants, cost.Want{Key: cost.Key{Ware: name, Ounces: can.Ounces}, Count: can.Count, Label: fmt.Sprintf("%s, %d fl oz can", name, can.Ounces)})
		}
	}
	return wants
}

// compare counts the sticks for every tool; tools with one kerf buy alike.
func (p *Plan) compare(ctx context.Context, prob stock.Problem, shop *Shop, chosen []stock.Material, draft bool) error {
	prob.Tidy, prob.Nodes = false, compareNodes
	solved := map[measure.Length][]stock.Material{p.Tool.Kerf: chosen}
	for _, t := range shop.Tools {
		ms, ok := solved[t.Kerf]
		if !ok && draft {
			continue // counted with the whole plan
		}
		if !ok {
			prob.Kerf = t.Kerf
			var err error
			if ms, err = stock.Solve(ctx, prob); err != nil {
				return err
			}
			solved[t.Kerf] = ms
		}
		c := ToolCount{ID: t.ID, Name: t.Name, Kerf: t.Kerf, Chosen: t.ID == p.Tool.ID, Priced: true, Proven: true}
		for _, m := range ms {
			c.Sticks, c.Cost = c.Sticks+m.Count, c.Cost+m.Cost
			c.Priced, c.Proven = c.Priced && m.Priced, c.Proven && m.Proven
		}
		p.Tools = append(p.Tools, c)
	}
	return nil
}

// cautions are the usual ones that apply to this job.
func (p *Plan) cautions() {
	p.Cautions = []string{
		"Cutting: wear glasses, clamp the pipe, keep fingers clear. Never hold a piece under 6 in by hand at a power saw. Deburr every end.",
		"Below 40 °F PVC shatters into sharp pieces: do not shear, drive or drop it.",
	}
	if p.Joinery.Cemented > 0 {
		p.Cautions = append(p.Cautions, "Primer and cement are flammable and their vapour harms: work outdoors or well aired, with gloves, away from flames. Air a cemented frame a day or two before indoor use or use by children or animals.")
	}
	p.Cautions = append(p.Cautions,
		"Not for overhead loads, climbing, or holding people. Children and animals: mind small parts, gaps of 3-1/2 to 9 in, and frames that tip.",
		"Never compressed air or gas in PVC. Follow local codes; where a body relies on it, ask a licensed professional.")
}
