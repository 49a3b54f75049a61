package procure

import (
	"cmp"
	"context"
	"slices"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/why"
)

// Lot is a frame of the job, and how many of it are built.
type Lot struct {
	*model.Built
	Copies int
	Needs  []material.Line   // hardware of one copy
	Was    map[string]string // what the record calls pipes that have another path now
	// Own says that the lot has letters of its own, with its number before them, where all lots do.
	Own bool
	// Variant names the variant of one thing that it is: variants are put together from the same
	// parts, one at a time. "" has parts of its own.
	Variant string
}

// Order is how a job is bought and cut.
type Order struct {
	Shop    *shop.Shop
	Work    *record.Work
	Tool    shop.Tool
	EndTrim measure.Length // cut off each stick first
	Joinery joinery.Report // of all frames
	Draft   bool           // a first feasible purchase will do, where the best takes long
	Steps   int64          // the search for the sticks of a size may spend; 0: what is usual
	// Searched says for plans of a size, by their basis, that more was spent on them.
	Searched []Searched
	School   joinery.School // how joints are cemented
	// SpareEvery adds a spare to every kind of fitting and hardware for each so many of it that are
	// begun; 0: none.
	SpareEvery int
	Spare      []shop.StockLength // sticks that are bought besides
	Keep       []stock.Kept       // how sticks were to be cut before
	Bare       bool               // the purchase alone, as it is found first: nothing is tidied or compared
	// Anew plans from what is there now, also where the plan by which it was bought and cut would go
	// on. A changed plan does so too: what two of them buy is still to be bought in both.
	Anew bool
}

// Searched says what was spent on the search for a plan of a size.
type Searched struct {
	Basis string `json:"basis"` // names the plan: what it follows from
	Steps int64  `json:"steps"`
}

// Purchase is what is bought for a job, and how it is cut.
type Purchase struct {
	Cuts      []CutLine       `json:"cuts"`     // the cut list, by letter
	Fittings  []FittingCount  `json:"fittings"` // of all frames and copies
	Pipe      []PipeTotal     `json:"pipe"`     // by size
	Tools     []ToolCount     `json:"tools"`    // sticks that are still to be bought, by tool
	Tool      shop.Tool       `json:"tool"`
	Haul      *stock.Haul     `json:"haul,omitempty"`
	Materials []material.Line `json:"materials"` // the bill of materials
	Bars      []BarTotal      `json:"bars"`      // what else is cut from something sold by the length
	Bill      cost.Bill       `json:"bill"`
	Totals    Totals          `json:"totals"`
	Improving bool            `json:"improving,omitempty"` // the purchase is a first one: a better one is looked for
	Existing  []Existing      `json:"existing"`            // the pieces that are there, against what is planned
	Extra     []Extra         `json:"extra"`               // bought, and not asked for any more
	Others    []ForOthers     `json:"others"`              // bought for other projects, too
	Marked    bool            `json:"marked"`              // every letter is fixed

	// Placed says, for each pipe of each frame, what its first copy is cut from.
	Placed   [][]CutFrom       `json:"-"`
	Findings []finding.Finding `json:"-"`

	sizes   [][]catalog.Size // of each pipe of each frame
	twice   []twice
	shopCut int        // cuts that the shop made already
	paid    record.Fee // for them
}

// Extra is something that was bought and that nothing of the plan needs.
type Extra struct {
	material.Spec
	Label string         `json:"label"`
	Count int            `json:"count"`
	Back  []record.Event `json:"back"` // what takes it back to the shop, but for ids
}

// ForOthers is something that was bought for several projects at once.
type ForOthers struct {
	material.Spec
	Label string `json:"label"`
	Count int    `json:"count"` // of all of them
	Own   int    `json:"own"`   // of it, for this one
	Jobs  int    `json:"jobs"`  // so many projects
}

// CutFrom is where a piece comes from.
type CutFrom struct {
	Letter string
	Stick  int // the number of its stick, among those of its size; 0: from none
}

// Totals is the job in one line.
type Totals struct {
	Pieces   int            `json:"pieces"`
	Net      measure.Length `json:"net"`
	Sticks   int            `json:"sticks"`
	Bought   int            `json:"bought"` // of the sticks
	Cut      int            `json:"cut"`    // of the pieces: those that are there, where they belong
	Fittings int            `json:"fittings"`
	Cemented int            `json:"cemented"`
	Dry      int            `json:"dry"`
	Proven   bool           `json:"proven"`
}

// CutLine is the pieces of one size and length.
type CutLine struct {
	Letter   string         `json:"letter"`
	Size     catalog.Size   `json:"size"`
	Cut      measure.Length `json:"cut"`
	Count    int            `json:"count"`  // copies included
	Pipes    []PipeRef      `json:"pipes"`  // of each copy
	Hidden   bool           `json:"hidden"` // a hidden nipple among them
	TooShort bool           `json:"tooShort"`
	Sum      why.Sum        `json:"sum"`            // of the first
	Path     frame.Path     `json:"path,omitempty"` // of the first: it is sprung, or bent after cutting
	Class    frame.Class    `json:"class,omitempty"`
	Least    measure.Length `json:"least,omitempty"`  // how short each may be, where it is rough
	Waits    bool           `json:"waits,omitempty"`  // until it is measured on the frame; Cut is the most it may be
	Typed    string         `json:"typed,omitempty"`  // as typed for one of them, where the tape shows something else
	Done     int            `json:"done,omitempty"`   // how many of them are there
	Trims    int            `json:"trims,omitempty"`  // how many are there, and only to be trimmed
	Fixed    bool           `json:"fixed,omitempty"`  // the letter is written on pipe or on paper
	Short    bool           `json:"short,omitempty"`  // too short to be held by hand at the saw that cuts it
	Lot      int            `json:"lot,omitempty"`    // of lots that have letters of their own: which one, counted from 1
	Shared   int            `json:"shared,omitempty"` // places that pieces of another variant serve
}

// Mark is the line's letter with what it stands for, to be fixed.
func (g *CutLine) Mark() record.Letter {
	return record.Letter{Letter: g.Letter, Size: g.Size, Cut: g.Cut, Class: g.Class, Path: g.Path, Waits: g.Waits}
}

// Note says what is special about the pieces, in a word or two; "" for
// ordinary ones.
func (g *CutLine) Note() string {
	switch {
	case g.TooShort:
		return "too short"
	case g.Hidden:
		return "hidden nipple"
	case g.Waits:
		return "at most; measured on the frame"
	}
	switch {
	case g.Class == frame.OnFrame:
		return "as measured"
	case g.Class != frame.Exact:
		return frame.Label(frame.ClassWords(), g.Class)
	case g.Path == frame.Bent:
		return "bent by heat after cutting"
	case g.Path == frame.Sprung:
		return "sprung"
	case g.Typed != "":
		return "typed " + g.Typed
	}
	return ""
}

// PipeRef names a pipe of a frame.
type PipeRef struct {
	Frame int    `json:"frame"`
	Pipe  string `json:"pipe"`
}

// FittingCount is how many of one fitting.
type FittingCount struct {
	Kind  catalog.Kind `json:"kind"`
	Size  string       `json:"size"`
	Count int          `json:"count"`
}

// PipeTotal is one size of pipe: what is cut, lost, left and bought.
type PipeTotal struct {
	Size    catalog.Size   `json:"size"`
	Pieces  int            `json:"pieces"`
	Net     measure.Length `json:"net"`               // of all pieces, those included that no stick is long enough for
	TooLong []string       `json:"tooLong,omitempty"` // letters of the pieces that no stick holds
	Yield   float64        `json:"yield"`             // net as a share of what is bought or used
	Stock   stock.Material `json:"stock"`             // what is still to be cut; its sticks are in Sticks
	Sticks  []Stick        `json:"sticks"`            // cut, and to be cut
	Need    []Needed       `json:"need"`              // sticks from a shop, by length
	Basis   string         `json:"basis"`             // names this plan of the size: what is done by it is said to be

	posed *cutting
}

// Problem is what the plan of a size is the answer to, and for each of its demands the line of
// the cut list. Nothing in it is changed.
func (t *PipeTotal) Problem() (stock.Problem, []int) { return t.posed.prob, t.posed.of }

// Answer is the plan of a size with the sticks that it chose, as they are cut anew.
func (t *PipeTotal) Answer() stock.Material { return t.posed.stock }

// Needed is how many sticks of a length from a shop a job takes.
type Needed struct {
	Length measure.Length `json:"length"`
	Count  int            `json:"count"`
	Got    int            `json:"got,omitempty"`  // of them
	Home   int            `json:"home,omitempty"` // of that length that were at home, besides
	// Parts are what the shop cuts those into that are still to be bought, one after the other; none of one that stays whole.
	Parts [][]measure.Length `json:"parts,omitempty"`
}

// ToolCount is the purchase with one kerf.
type ToolCount struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Kerf   measure.Length `json:"kerf"`
	Sticks int            `json:"sticks"`
	Cost   measure.Money  `json:"cost"` // of all that the job takes, cuts in the shop and tax with it: the chosen one's is the bill's
	Priced bool           `json:"priced"`
	Proven bool           `json:"proven"`
	Chosen bool           `json:"chosen"`
}

// Procure says what is bought for the lots and how it is cut. The error is the
// context's, when it ends first.
func Procure(ctx context.Context, lots []Lot, o Order) (*Purchase, error) {
	p := &Purchase{
		Cuts:      []CutLine{},
		Fittings:  []FittingCount{},
		Pipe:      []PipeTotal{},
		Materials: []material.Line{},
		Tool:      o.Tool,
		Haul:      o.Shop.Haul,
		Existing:  []Existing{},
		Extra:     []Extra{},
		Others:    []ForOthers{},
	}
	o.Work = p.once(o.Work)
	p.shopCut, p.paid = o.Work.ShopCuts.Done, o.Work.ShopCuts.Fee
	p.letter(lots, o.Work)
	p.Totals.Cemented, p.Totals.Dry = o.Joinery.Cemented, o.Joinery.Dry
	for i := range p.Cuts {
		p.Cuts[i].Short = o.Tool.Powered() && p.Cuts[i].Cut < shop.ShortPiece
	}
	fittings := p.countFittings(lots)
	sticks, err := p.sticks(ctx, lots, &o)
	if err != nil {
		return nil, err
	}
	needs, err := p.bars(ctx, hardware(lots), &o)
	if err != nil {
		return nil, err
	}
	cuts, prices := p.shopCuts(o.Shop)
	p.Materials = slices.Concat(
		p.Materials,
		sticks,
		cuts,
		fittings,
		o.Joinery.Materials(o.School, cansThere(o.Work)),
		material.Together(needs),
	)
	spares(p.Materials, o.SpareEvery)
	atHome(p.Materials, o.Work)
	p.Bill = prices.Add(p.Materials)
	p.wholeBills(prices.TaxRate)
	p.got(o.Work)
	for i := range p.Cuts {
		p.Totals.Cut += p.Cuts[i].Done
	}
	return p, nil
}

// cansThere counts the cans that are there, those that were bought for other projects too among them: a can is
// everybody's.
func cansThere(w *record.Work) map[material.Spec]int {
	there := map[material.Spec]int{}
	for _, g := range w.Goods {
		if isCan(g.Spec) {
			there[g.Spec] += g.Count
		}
	}
	for _, q := range w.Shared {
		if isCan(q.Spec) {
			there[q.Spec] += q.Count - q.Own
		}
	}
	return there
}

func isCan(s material.Spec) bool { return s.Ware == material.Cement || s.Ware == material.Primer }

// spares adds a spare for each so many fittings and things of hardware of a kind that are begun.
func spares(lines []material.Line, every int) {
	for i := range lines {
		l := &lines[i]
		if every > 0 && l.Unit == "each" && l.Quantity > 0 && (l.Ware == material.Fitting || l.Ware == material.Hardware) {
			l.Spare = (l.Quantity + every - 1) / every
			l.Quantity += l.Spare
		}
	}
}

// atHome says of each line besides pipe how much of it was at home before.
func atHome(lines []material.Line, w *record.Work) {
	for i := range lines {
		for _, g := range w.Goods {
			if g.Spec == lines[i].Spec {
				lines[i].Home = min(g.Home, lines[i].Quantity)
			}
		}
	}
}

// Sizes are the pipe sizes of the purchase, the largest first.
func (p *Purchase) Sizes() (all []catalog.Size) {
	for _, g := range p.Cuts {
		if !slices.Contains(all, g.Size) {
			all = append(all, g.Size)
		}
	}
	slices.SortFunc(all, func(a, b catalog.Size) int { return cmp.Compare(b.Rank(), a.Rank()) })
	return all
}
