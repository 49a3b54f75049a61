package plan

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
)

// group letters the pieces: one letter for each size and cut length, the
// largest size first, then the longest.
func (p *Plan) group() {
	type key struct {
		size catalog.Size
		cut  measure.Length
	}
	at := map[key]int{}
	for fi := range p.Frames {
		f := &p.Frames[fi]
		for i := range f.Pipes {
			pc := &f.Pipes[i]
			k := key{pc.Size, pc.Cut}
			g, ok := at[k]
			if !ok {
				g = len(p.Cuts)
				at[k] = g
				p.Cuts = append(p.Cuts, Group{Size: pc.Size, Cut: pc.Cut, Sum: pc.Sum})
			}
			p.Cuts[g].Count += f.Copies
			p.Cuts[g].Pipes = append(p.Cuts[g].Pipes, PipeRef{fi, pc.Pipe})
			p.Cuts[g].Hidden = p.Cuts[g].Hidden || pc.Hidden
			p.Cuts[g].TooShort = p.Cuts[g].TooShort || pc.TooShort
			p.Totals.Pieces += f.Copies
		}
	}
	slices.SortStableFunc(p.Cuts, func(a, b Group) int {
		return cmp.Or(-catalog.Compare(a.Size, b.Size), cmp.Compare(b.Cut, a.Cut))
	})
	letter := map[key]string{}
	for i := range p.Cuts {
		p.Cuts[i].Letter = letterOf(i)
		letter[key{p.Cuts[i].Size, p.Cuts[i].Cut}] = p.Cuts[i].Letter
	}
	for fi := range p.Frames {
		for i := range p.Frames[fi].Pipes {
			pc := &p.Frames[fi].Pipes[i]
			pc.Letter = letter[key{pc.Size, pc.Cut}]
		}
	}
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

// byTool are the tools whose purchase is always shown beside the chosen one.
var byTool = []string{"shear", "hacksaw", "saw"}

// compareNodes bounds the search for the tools that are only compared.
const compareNodes = 20_000

func (p *Plan) purchase(job *Job, shop *Shop, work *Work) {
	prob := stock.Problem{Kerf: p.Tool.Kerf, EndTrim: job.EndTrim, Tidy: true, Margin: max(p.Tool.Kerf, finestSaw)}
	for _, g := range p.Cuts {
		if g.Cut > 0 {
			prob.Demands = append(prob.Demands, stock.Demand{Material: string(g.Size), Length: g.Cut, Count: g.Count, Name: g.Letter})
		}
	}
	prob.Offers = offers(p.Cuts, shop, work)
	p.Totals.Proven = true
	var wants []cost.Want
	materials := stock.Solve(prob)
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
		p.stockFindings(&t, prob.Demands)
		p.passedOver(&t, prob.Offers)
	}
	p.compare(prob, shop, materials)
	p.Bill = shop.Prices.Add(append(wants, p.otherWants()...))
}

func pipeKey(size catalog.Size, l measure.Length) cost.Key {
	return cost.Key{Ware: cost.Pipe, Size: string(size), Length: l}
}

// offers lists what sticks can be had: on sale, on the rack, bought before.
func offers(cuts []Group, shop *Shop, work *Work) (all []stock.Offer) {
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

// compare counts the sticks for the usual tools.
func (p *Plan) compare(prob stock.Problem, shop *Shop, chosen []stock.Material) {
	prob.Tidy, prob.Nodes = false, compareNodes
	for _, t := range shop.Tools {
		if t.ID != p.Tool.ID && !slices.Contains(byTool, t.ID) {
			continue
		}
		ms := chosen
		if t.Kerf != p.Tool.Kerf {
			prob.Kerf = t.Kerf
			ms = stock.Solve(prob)
		}
		c := ToolCount{ID: t.ID, Name: t.Name, Kerf: t.Kerf, Chosen: t.ID == p.Tool.ID, Priced: true, Proven: true}
		for _, m := range ms {
			c.Sticks, c.Cost = c.Sticks+m.Count, c.Cost+m.Cost
			c.Priced, c.Proven = c.Priced && m.Priced, c.Proven && m.Proven
		}
		p.Tools = append(p.Tools, c)
	}
}

// finestSaw is the least slack that a plan for a shear should have: a stick
// that is used to the last bit fails with any saw.
const finestSaw = measure.Inch / 32

func (p *Plan) stockFindings(t *PipeTotal, demands []stock.Demand) {
	m := &t.Stock
	if len(m.TooLong) > 0 {
		longest := measure.Length(0)
		for _, d := range m.TooLong {
			longest = max(longest, demands[d].Length)
		}
		p.Findings = append(p.Findings, finding.Finding{Code: "no-stock", Severity: finding.Stop, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("%s pipe is needed %s long and no stick is that long", t.Size, longest.Format(measure.InInches, 0)),
			Hint: "add a longer stock length, or join two pieces with a coupling"})
	}
	if len(m.Sticks) > 0 && m.Slack < max(p.Tool.Kerf, finestSaw) {
		f := finding.Finding{Code: "knife-edge", Severity: finding.Warn, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("the tightest %s stick has %s to spare, less than one cut of a saw", t.Size, m.Slack.Format(measure.InInches, 0)),
			Hint: "measure that stick before cutting; buy one more to be safe"}
		if p.Tool.Kerf > 0 {
			value, _ := json.Marshal("shear")
			f.Fixes = append(f.Fixes, finding.Fix{Label: "Cut with a shear", Edits: []finding.Edit{{Path: "/tool", Value: value}}})
		}
		p.Findings = append(p.Findings, f)
	}
	if !m.Proven {
		p.Findings = append(p.Findings, finding.Finding{Code: "not-proven", Severity: finding.Note, Subject: []string{string(t.Size)},
			Text: fmt.Sprintf("the %s purchase is the best found; a better one is not ruled out", t.Size), Hint: "the bound beside it says by how much at most"})
	}
}

// passedOver names stick lengths on sale that were left out because they alone
// have no price.
func (p *Plan) passedOver(t *PipeTotal, offers []stock.Offer) {
	for _, o := range offers {
		if t.Stock.Priced && o.Material == string(t.Size) && o.Origin == stock.Shop && !o.Priced {
			p.Findings = append(p.Findings, finding.Finding{Code: "stick-without-price", Severity: finding.Note, Subject: []string{string(t.Size)},
				Text: fmt.Sprintf("%s sticks of %s pipe have no price and are left out", o.Length.Format(measure.FeetInches, 0), t.Size), Hint: "give them a price to have them weighed against the others"})
		}
	}
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
