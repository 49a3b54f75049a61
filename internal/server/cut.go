package server

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/pieces"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/stock"
	"sturdyelbow/internal/export"
)

// CutRequest is a pasted list and the sticks to cut it from.
type CutRequest struct {
	Text  string       `json:"text"`
	Units measure.Unit `json:"units"`
	Size  string       `json:"size,omitempty"`  // nominal, of pieces whose line says none
	Stock []string     `json:"stock,omitempty"` // lengths as written, each with its price where there is one: 10 ft @ 4.98; none: what the shop sells
	Tool  string       `json:"tool"`
}

// CutAnswer is the list as it was read, and how it is cut. Lines that cannot be read are left out of
// the cutting, and say why.
type CutAnswer struct {
	Rows      []pieces.Row     `json:"rows"`
	Lines     []CutLetter      `json:"lines"` // pieces that are alike, by letter
	Materials []stock.Material `json:"materials"`
	Cost      measure.Money    `json:"cost"`
	Priced    bool             `json:"priced"` // every stick has a price
	Example   bool             `json:"example"`
}

// CutLetter is pieces of a list that are alike.
type CutLetter struct {
	Letter   string         `json:"letter"`
	Names    []string       `json:"names"` // what the list calls them
	Material string         `json:"material"`
	Length   measure.Length `json:"length"`
	Least    measure.Length `json:"least,omitempty"`
	Count    int            `json:"count"`
	Short    bool           `json:"short,omitempty"` // too short to be held by hand at the saw that cuts it
}

func (a *api) cut(ctx context.Context, in *body[CutRequest]) (*body[CutAnswer], error) {
	out, err := a.cutList(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	return answer(*out), nil
}

func (a *api) cutList(ctx context.Context, r *CutRequest) (*CutAnswer, error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	out := &CutAnswer{Rows: pieces.Read(r.Text, r.Units), Lines: []CutLetter{}, Materials: []stock.Material{}, Priced: true}
	for i := range out.Rows {
		if row := &out.Rows[i]; row.Fault == nil && row.Size == "" && r.Size != "" {
			row.Size = r.Size
		}
	}
	p := stock.Problem{Tidy: true}
	tool, _ := shop.Tool(r.Tool)
	p.Saw = tool.Saw()
	out.Lines = letters(out.Rows)
	for i := range out.Lines {
		l := &out.Lines[i]
		l.Short = tool.Powered() && l.Length < plan.ShortPiece
		p.Demands = append(p.Demands, stock.Demand{Material: l.Material, Length: l.Length, Least: l.Least, Count: l.Count, Name: l.Letter})
	}
	sold, err := readSticks(r.Stock, r.Units)
	if err != nil {
		return nil, err
	}
	seen := map[string]bool{}
	for _, d := range p.Demands {
		if !seen[d.Material] {
			seen[d.Material] = true
			offers, example := offersOf(d.Material, sold, shop)
			p.Offers, out.Example = append(p.Offers, offers...), out.Example || example
		}
	}
	if err := bounded(&p); err != nil {
		return nil, err
	}
	if len(p.Demands) == 0 {
		return out, nil
	}
	if out.Materials, err = stock.Solve(ctx, p); err != nil {
		return nil, problem(err)
	}
	for i := range out.Materials {
		out.Cost += out.Materials[i].Cost
		out.Priced = out.Priced && out.Materials[i].Priced
	}
	out.Example = out.Example && out.Priced
	return out, nil
}

// PiecesRequest is a list of pieces as it was typed.
type PiecesRequest struct {
	Text  string       `json:"text"`
	Units measure.Unit `json:"units"`
}

func (a *api) readPieces(_ context.Context, in *body[PiecesRequest]) (*body[[]pieces.Row], error) {
	return answer(pieces.Read(in.Body.Text, in.Body.Units)), nil
}

// letters puts pieces that are alike together, the longest of each material first, and gives them
// letters: their own where the list has one for them alone.
func letters(rows []pieces.Row) []CutLetter {
	all := []CutLetter{}
	for _, d := range rows {
		if d.Fault != nil {
			continue
		}
		of := cmp.Or(d.Size, "pipe")
		i := slices.IndexFunc(all, func(l CutLetter) bool { return l.Material == of && l.Length == d.Length && l.Least == d.Least })
		if i < 0 {
			i = len(all)
			all = append(all, CutLetter{Material: of, Length: d.Length, Least: d.Least, Names: []string{}})
		}
		all[i].Count += d.Count
		if d.Name != "" && !slices.Contains(all[i].Names, d.Name) {
			all[i].Names = append(all[i].Names, d.Name)
		}
	}
	slices.SortStableFunc(all, func(a, b CutLetter) int {
		return cmp.Or(cmp.Compare(catalog.Size(b.Material).Rank(), catalog.Size(a.Material).Rank()), cmp.Compare(a.Material, b.Material),
			cmp.Compare(b.Length, a.Length))
	})
	taken := map[string]int{}
	own := func(l *CutLetter) string {
		if len(l.Names) == 1 && len(l.Names[0]) <= 2 && l.Names[0] == strings.ToUpper(l.Names[0]) {
			return l.Names[0]
		}
		return ""
	}
	for i := range all {
		taken[own(&all[i])]++
	}
	for i, n := 0, 0; i < len(all); i++ {
		l := &all[i]
		if name := own(l); name != "" && taken[name] == 1 {
			l.Letter, l.Names = name, []string{}
			continue
		}
		for l.Letter == "" || taken[l.Letter] > 0 {
			l.Letter, n = procure.Letter(n), n+1
		}
	}
	return all
}

// sold is a stick length as it was typed, with its price where one was.
type sold struct {
	length measure.Length
	price  *cost.Asked
}

// readSticks reads stick lengths with their prices: 10 ft, 10 ft @ 4.98.
func readSticks(texts []string, unit measure.Unit) (all []sold, err error) {
	var details []error
	for i, t := range texts {
		where := fmt.Sprintf("/stock/%d", i)
		name, price, priced := strings.Cut(t, "@")
		l, err := measure.Parse(name, measure.Reading{Unit: unit, Limit: plan.StockLimit})
		if err != nil || l == 0 {
			details = append(
				details,
				&Fault{Message: fmt.Sprintf("%q is no stick length; write it like 10 ft, or 10 ft @ 4.98", t), Pointer: where},
			)
			continue
		}
		s := sold{length: l}
		if priced {
			asked, err := cost.Read(price)
			if p, ok := err.(*measure.ParseError); ok {
				details = append(details, &Fault{Message: p.What + "; " + p.Hint, Pointer: where})
				continue
			}
			s.price = &asked
		}
		all = append(all, s)
	}
	if len(details) > 0 {
		return nil, huma.Error422UnprocessableEntity("A stick length cannot be read", details...)
	}
	return all, nil
}

// offersOf are the sticks of a material that a list is cut from: those that were typed, else those
// of the shop. What was typed without a price has the shop's.
func offersOf(of string, typed []sold, shop *plan.Shop) (all []stock.Offer, example bool) {
	priced := func(l measure.Length) (measure.Money, bool) {
		p, ok := shop.Prices.Find(material.Spec{Ware: material.Pipe, Size: of, Length: l})
		example = example || ok && p.Example
		return p.Each(), ok
	}
	for _, s := range typed {
		o := stock.Offer{Material: of, Length: s.length, Origin: stock.Shop}
		if s.price != nil {
			o.Price, o.Priced = s.price.Each(), true
		} else {
			o.Price, o.Priced = priced(s.length)
		}
		all = append(all, o)
	}
	if len(typed) > 0 {
		return all, example
	}
	for _, l := range shop.Stock {
		if l.Size != "" && string(l.Size) != of {
			continue
		}
		o := stock.Offer{Material: of, Length: l.Usable(), Sold: l.Length, Count: l.Count, Origin: stock.Shop}
		o.Price, o.Priced = priced(l.Length)
		all = append(all, o)
	}
	return all, example
}

// cutFile writes the cutting of a list as CSV: its pieces by letter, and the sticks with what is cut
// from each.
func (a *api) cutFile(ctx context.Context, in *body[CutRequest]) (*fileOutput, error) {
	out, err := a.cutList(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	var b strings.Builder
	var rows [][]string
	for _, l := range out.Lines {
		rows = append(rows, []string{
			l.Material, l.Length.Format(measure.InInches, 0), fmt.Sprint(l.Count), l.Letter, strings.Join(l.Names, ", "),
		})
	}
	if err := export.PieceList(&b, rows, out.Materials); err != nil {
		return nil, err
	}
	return &fileOutput{Type: "text/csv; charset=utf-8", Name: `attachment; filename="cuts.csv"`, Body: []byte(b.String())}, nil
}

// The largest list that is cut: more takes long to plan well, and is cut in parts anyway.
const (
	mostPieces  = 2000
	mostLengths = 200
	mostStock   = 20
)

// bounded refuses a list that is too large to be planned while somebody waits.
func bounded(p *stock.Problem) error {
	pieces := 0
	for _, d := range p.Demands {
		pieces += min(d.Count, mostPieces+1)
	}
	var wrong []error
	no := func(pointer, what string, args ...any) {
		wrong = append(wrong, &Fault{Pointer: pointer, Message: fmt.Sprintf(what, args...)})
	}
	if pieces > mostPieces {
		no("/text", "more than %d pieces; cut them in parts", mostPieces)
	}
	if len(p.Demands) > mostLengths {
		no("/text", "more than %d lines; cut them in parts", mostLengths)
	}
	if len(p.Offers) > mostStock*max(1, len(p.Demands)) || len(p.Offers) > mostLengths {
		no("/stock", "more than %d stick lengths; leave out those you would not buy", mostStock)
	}
	if len(wrong) > 0 {
		return huma.Error422UnprocessableEntity("The list is too large", wrong...)
	}
	if pieces > mostPieces/10 {
		p.Steps, p.Tidy = largeSteps, false
	}
	return nil
}

// largeSteps bounds the search for a large list.
const largeSteps = 50_000_000
