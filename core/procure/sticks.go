package procure

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

const (
	// compareSteps bounds the search for the tools that are only compared.
	compareSteps = 60_000_000
	// smallJob is how many pieces are planned as a whole even in a draft: it takes
	// no longer than a glance.
	smallJob = 80
	// draftSteps bounds the search for a first purchase.
	draftSteps = 4_000_000
	// usualSteps bounds it for the best: about half a second, which few lists take.
	usualSteps = 200_000_000
)

// Stick is a stick of pipe, or an offcut or a piece that others are cut from: as it was
// cut, and as it is to be.
type Stick struct {
	ID        string           `json:"id,omitempty"`   // of one that is there
	Number    int              `json:"number"`         // among those of its size: what is written on it stays
	Key       string           `json:"key"`            // sticks of one key are cut alike
	Length    measure.Length   `json:"length"`         // that it is named by
	True      measure.Length   `json:"true,omitempty"` // what pieces can be cut from, where that is not its name
	Origin    stock.Origin     `json:"origin"`
	Parts     []StickPart      `json:"parts,omitempty"`     // what it is carried as, where the shop cuts it
	Marks     []measure.Length `json:"marks,omitempty"`     // where the shop cuts it, from one end
	Edge      bool             `json:"edge,omitempty"`      // real cuts may take more than it has to spare
	Allowance measure.Length   `json:"allowance,omitempty"` // what real cuts may take together
	Pieces    []StickPiece     `json:"pieces"`              // in the order of the cuts
	Left      measure.Length   `json:"left"`
	Earlier   bool             `json:"earlier,omitempty"` // it was cut by an earlier plan
	Letter    string           `json:"letter,omitempty"`  // written on it, where it is a piece
	Racked    bool             `json:"racked,omitempty"`  // what is left of it lies on the rack
	Mark      string           `json:"mark,omitempty"`    // written on it, where it comes from the rack
	Lent      []record.Lent    `json:"lent,omitempty"`    // pieces of other projects that were cut from it
	Of        *PartOf          `json:"of,omitempty"`      // the stick that it is a part of

	chosen int // which of the chosen sticks it is, counted from 1; 0: none of them
}

// StickPart is a part of a stick that the shop cuts, or has cut.
type StickPart struct {
	stock.Part
	ID     string `json:"id,omitempty"` // of one that is there
	Racked bool   `json:"racked,omitempty"`
}

// PartOf is the stick that one is a part of.
type PartOf struct {
	ID     string         `json:"id"`
	Length measure.Length `json:"length"` // that it is named by
}

// StickPiece is a piece of a stick.
type StickPiece struct {
	PieceRef                // as the record calls it
	Name     string         `json:"name"` // its letter
	Length   measure.Length `json:"length"`
	At       measure.Length `json:"at"`             // where its far end is cut, from the end at which cutting begins; 0: of a stick that is cut
	Kerf     measure.Length `json:"kerf"`           // lost to the saw by its cut
	Cut      string         `json:"cut,omitempty"`  // the event that says that it is cut
	Fate     Fate           `json:"fate,omitempty"` // of one that an earlier plan cut; "" of one that is not there any more
}

// cutting is one size of pipe while it is planned.
type cutting struct {
	size  catalog.Size
	wants []want
	have  have
	prob  stock.Problem
	of    []int // the line of the cut list that each demand is for
	draft bool  // a first purchase will do
	basis string
	base  record.Work   // what was there before this plan
	rack  []shop.Offcut // and what lay on the rack
	done  *record.Work  // what was done by it; nil for nothing
	stock stock.Material
	there []there // for each chosen stick the one that is there for it
}

// sticks chooses the sticks and cuts them, and gives the lines for what is bought.
// Pieces that are longer than any stick are lines too: they are still to be bought.
func (p *Purchase) sticks(ctx context.Context, lots []Lot, o *Order) (lines []material.Line, err error) {
	p.Totals.Proven = true
	whole := stock.Problem{Saw: p.Tool.Saw(), EndTrim: o.EndTrim, Haul: p.haulLeft()}
	var chosen []stock.Material
	draft, goesOn := false, false
	at := places(lots)
	for _, size := range p.cutSizes(o.Work) {
		c := &cutting{size: size, wants: p.share(p.wants(lots, size), lots)}
		if err := p.plan(ctx, c, o); err != nil {
			return nil, err
		}
		draft = draft || c.draft
		rest := c
		if c.done != nil { // of a plan that goes on, what is there is bought already
			goesOn = true
			rest = &cutting{size: size, wants: c.wants, base: *o.Work, rack: o.Shop.Rack}
			p.pose(rest, o, false)
		}
		whole.Demands, whole.Offers = append(whole.Demands, rest.prob.Demands...), append(whole.Offers, rest.prob.Offers...)
		if len(c.prob.Demands) > 0 {
			chosen = append(chosen, c.stock)
		}
		lines = append(lines, p.total(c, o, at)...)
		p.judge(&p.Pipe[len(p.Pipe)-1], c, o.Shop.Haul)
		p.passedOver(&p.Pipe[len(p.Pipe)-1], c.prob.Offers)
	}
	p.noteExisting(o.Work.Notes)
	p.Improving = draft // it is tidied, and set beside other tools, with the whole plan
	if o.Bare {
		return lines, nil
	}
	solved := map[measure.Length][]stock.Material{}
	if !goesOn {
		solved[p.Tool.Kerf] = chosen
	}
	return lines, p.compare(ctx, whole, o.Shop, solved, draft)
}

// haulLeft is what the vehicle takes, and how many cuts the shop still makes for nothing after
// those of the sizes before.
func (p *Purchase) haulLeft() *stock.Haul {
	if p.Haul == nil {
		return nil
	}
	cuts := p.shopCut
	for i := range p.Pipe {
		cuts += p.Pipe[i].Stock.ShopCuts
	}
	return p.Haul.After(cuts)
}

// shopCuts is the line of the bill for cuts in the shop that cost something.
func (p *Purchase) shopCuts(s *shop.Shop) (lines []material.Line, prices cost.Book) {
	prices = s.Prices
	fee := p.paid
	if p.Haul != nil && p.Haul.Price > 0 {
		fee = record.Fee{Each: p.Haul.Price, Free: p.Haul.Free}
	}
	if fee.Each == 0 {
		return nil, prices
	}
	cuts := p.shopCut
	for i := range p.Pipe {
		cuts += p.Pipe[i].Stock.ShopCuts
	}
	prices.Prices = slices.Clone(prices.Prices)
	prices.Set(cost.Price{Spec: cutInShop, Asked: cost.Asked{Amount: fee.Each}})
	rule := fmt.Sprintf("%d in all, %d free", cuts, min(cuts, fee.Free))
	if p.shopCut > 0 {
		rule += fmt.Sprintf(", %d made", p.shopCut)
	}
	return []material.Line{{Spec: cutInShop, Quantity: max(0, cuts-fee.Free), Unit: "each", Rule: rule}}, prices
}

// cutInShop is what a shop does for money.
var cutInShop = material.Spec{Ware: material.Service, Kind: "cut in the shop"}

// cutSizes are the sizes of pipe that something is cut of, in the order of the cut list,
// and then those of which there are sticks or pieces that nothing is cut of any more.
func (p *Purchase) cutSizes(w *record.Work) (all []catalog.Size) {
	for _, g := range p.Cuts {
		if g.Cut > 0 && !slices.Contains(all, g.Size) {
			all = append(all, g.Size)
		}
	}
	for i := range w.Sticks {
		if size := w.Sticks[i].Size; !slices.Contains(all, size) {
			all = append(all, size)
		}
	}
	return all
}

// wants lists the planned pieces of a size, by the lines of the cut list, first copies
// first.
func (p *Purchase) wants(lots []Lot, size catalog.Size) (all []want) {
	for g := range p.Cuts {
		line := &p.Cuts[g]
		if line.Size != size || line.Cut <= 0 {
			continue
		}
		copies := 0
		for _, r := range line.Pipes {
			copies = max(copies, lots[r.Frame].Copies)
		}
		for n := 1; n <= copies; n++ {
			for _, r := range line.Pipes {
				if n <= lots[r.Frame].Copies {
					made := PieceRef{r.Frame, cmp.Or(lots[r.Frame].Was[r.Pipe], r.Pipe), n}
					all = append(all, want{made, r.Pipe, g, line.Cut, line.Least})
				}
			}
		}
	}
	return all
}

// plan finds what a size is cut from. Where all that was done last was done by the very
// plan that stood before it, that plan goes on; else what is there is taken as it is, and
// the rest is planned anew.
func (p *Purchase) plan(ctx context.Context, c *cutting, o *Order) error {
	basis := o.Work.Basis(c.size)
	if before, ok := o.Work.Before(basis); ok && !o.Anew {
		c.base, c.rack = before, record.Rack(o.Work, &before, o.Shop.Rack)
		if p.pose(c, o, false); c.basis == basis {
			if err := p.solve(ctx, c); err != nil {
				return err
			}
			var covered bool
			if c.there, covered = c.assign(o.Work, basis); covered {
				c.done = o.Work
				return nil
			}
		}
	}
	c.base, c.rack = *o.Work, o.Shop.Rack
	p.pose(c, o, o.Draft)
	err := p.solve(ctx, c)
	c.there = make([]there, len(c.stock.Sticks))
	return err
}

// pose sets what is there against what is wanted, and says what is to be cut from what.
// For a draft of a large job a first purchase will do.
func (p *Purchase) pose(c *cutting, o *Order, draft bool) {
	c.have = match(c.wants, c.size, &c.base)
	c.have.atHand(c.size, &c.base, c.rack, o.Shop)
	c.prob = stock.Problem{Saw: p.Tool.Saw(), EndTrim: o.EndTrim, Haul: p.haulLeft(), Tidy: !o.Bare, Steps: cmp.Or(o.Steps, usualSteps)}
	for _, k := range o.Keep {
		if k.Material == string(c.size) {
			c.prob.Keep = append(c.prob.Keep, k)
		}
	}
	c.draft = false
	c.of = nil
	shortest := measure.Length(0)
	for _, i := range c.have.todo {
		w := &c.wants[i]
		if n := len(c.of); n == 0 || c.of[n-1] != w.cut {
			c.of = append(c.of, w.cut)
			c.prob.Demands = append(
				c.prob.Demands,
				stock.Demand{Material: string(c.size), Length: w.length, Least: w.least, Name: p.Cuts[w.cut].Letter},
			)
		}
		c.prob.Demands[len(c.of)-1].Count++
		if l := cmp.Or(w.least, w.length); shortest == 0 || l < shortest {
			shortest = l
		}
	}
	for _, l := range o.Shop.Stock {
		if l.Size == "" || l.Size == c.size {
			price, ok := o.Shop.Prices.Find(stickSpec(c.size, l.Length))
			c.prob.Offers = append(c.prob.Offers, stock.Offer{
				Material: string(
					c.size,
				), Length: l.Usable(), Sold: l.Length, Price: price.Each(), Priced: ok, Count: l.Count, Origin: stock.Shop,
			})
		}
	}
	c.spare(o)
	ids := make([][]string, len(c.prob.Offers))
	for i, h := range c.have.offers {
		if shortest > 0 && h.Length >= shortest+o.EndTrim { // what is shorter holds nothing
			c.prob.Offers, ids = append(c.prob.Offers, h), append(ids, c.have.ids[i])
		}
	}
	c.have.ids = ids
	if draft && p.Totals.Pieces > smallJob {
		c.prob.Tidy, c.prob.Steps, c.draft = false, draftSteps, true
	}
	c.basis = c.basisOf()
	for _, s := range o.Searched {
		if s.Basis == c.basis && !c.draft {
			c.prob.Steps = max(c.prob.Steps, s.Steps)
		}
	}
}

// spare offers the sticks that are bought besides, unless some of the size are there: what was
// bought besides is among them.
func (c *cutting) spare(o *Order) {
	if c.base.HasBought(c.size) {
		return
	}
	for _, l := range o.Spare {
		if l.Size == c.size {
			price, ok := o.Shop.Prices.Find(stickSpec(c.size, l.Length))
			usable := l.Usable()
			if i := slices.IndexFunc(o.Shop.Stock, func(s shop.StockLength) bool { return (s.Size == "" || s.Size == c.size) && s.Length == l.Length }); i >= 0 {
				usable = o.Shop.Stock[i].Usable()
			}
			c.prob.Offers = append(c.prob.Offers, stock.Offer{
				Material: string(c.size), Length: usable, Sold: l.Length, Price: price.Each(), Priced: ok,
				Count: max(1, l.Count), Origin: stock.Shop, Spare: true,
			})
		}
	}
}

// basisOf names the plan of a size by all that it follows from: what is wanted, what is
// offered, and what was there before it.
func (c *cutting) basisOf() string {
	q := c.prob
	q.Steps, q.Demands = 0, slices.Clone(q.Demands)
	q.Tidy = true
	for i := range q.Demands {
		q.Demands[i].Name = ""
	}
	data, err := json.Marshal(q)
	if err != nil {
		return ""
	}
	for i := range c.base.Sticks {
		if s := &c.base.Sticks[i]; s.Size == c.size {
			data = fmt.Appendf(data, "|%s", s.ID)
			for _, t := range s.Cuts {
				data = fmt.Appendf(data, " %s", t.Event)
			}
		}
	}
	for i := range c.wants {
		w := &c.wants[i]
		data = fmt.Appendf(data, "|%d %s %d %d", w.Frame, w.Pipe, w.Copy, w.length)
	}
	sum := sha256.Sum256(data)
	return hex.EncodeToString(sum[:8])
}

func (p *Purchase) solve(ctx context.Context, c *cutting) error {
	c.stock = stock.Material{Key: string(c.size), Proven: true, Priced: true}
	if len(c.prob.Demands) == 0 {
		return nil
	}
	all, err := stock.Solve(ctx, c.prob)
	if err != nil {
		return err
	}
	c.stock = all[0]
	waits := func(s stock.Piece) int {
		if p.Cuts[c.of[s.Demand]].Waits {
			return 1
		}
		return 0
	}
	// what waits to be measured is at the end of its stick: what is cut before it leaves
	// its reserve whole
	for i := range c.stock.Sticks {
		s := &c.stock.Sticks[i]
		s.EachPart(func(pieces []stock.Piece) {
			slices.SortStableFunc(pieces, func(a, b stock.Piece) int { return cmp.Compare(waits(a), waits(b)) })
		})
		s.Mark(c.prob.Saw.Kerf, c.prob.EndTrim)
	}
	return nil
}

func stickSpec(size catalog.Size, l measure.Length) material.Spec {
	return material.Spec{Ware: material.Pipe, Size: string(size), Length: l}
}

// keyOf names a stick by where it is from, its length and its pieces.
func keyOf(size catalog.Size, s *Stick) string {
	from := s.Origin
	if from == stock.Bought {
		from = stock.Shop
	}
	key := fmt.Sprintf("%s|%s|%d", size, from, s.Length)
	for _, p := range s.Pieces {
		key += fmt.Sprintf("|%d", p.Length)
	}
	return key
}
