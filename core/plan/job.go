package plan

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/reading"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
	"sturdyelbow/core/stock"
)

// FrameUse is a frame and how many of it are built.
type FrameUse struct {
	Document frame.Document `json:"document"`
	Copies   int            `json:"copies"`
	// Given is what some pieces are or were cut to, by the pipe's path, against
	// the plan.
	Given map[string]measure.Length `json:"given,omitempty"`
	// Was says, by the path of now, what the record calls pipes that had another path when
	// their pieces were cut.
	Was map[string]string `json:"was,omitempty"`
	// Variant names the variant of one thing that the frame is: variants are put together from the
	// same parts, one at a time. "" has parts of its own.
	Variant string `json:"variant,omitempty"`
	// Also are pieces of one copy that are cut from something else than pipe.
	Also []Also `json:"also,omitempty"`
	// Waiting says that the document is but a part of what was drawn; nil where it is all of it.
	Waiting *Waiting `json:"waiting,omitempty"`
	// Told are findings of whoever made the document, to be told with the plan's.
	Findings []finding.Finding `json:"-"`
}

// Also is so many pieces of one length that are cut from something else that is sold by the length: rope,
// webbing, a sleeve of foam, rod.
type Also struct {
	Kind     string         `json:"kind"`               // one of those of [material.ByLength]
	Diameter measure.Length `json:"diameter,omitempty"` // or its width; 0: any will do
	Length   measure.Length `json:"length"`
	Count    int            `json:"count"`
	For      string         `json:"for,omitempty"` // what they are for, in the builder's words
}

// needs are the lines of what else is cut for one copy.
func (f *FrameUse) needs() (all []material.Line) {
	for _, a := range f.Also {
		all = append(all, material.Line{
			Spec:     material.Spec{Ware: material.Hardware, Kind: a.Kind, Diameter: a.Diameter, Length: a.Length},
			Quantity: a.Count, Unit: "each", For: a.For, Rule: "as its builder says",
		})
	}
	return all
}

// Bounds of what else is cut for one copy.
const (
	mostAlso       = 200
	mostAlsoPieces = 2000
)

// Job is what is to be built.
type Job struct {
	Frames  []FrameUse     `json:"frames"`
	Tool    string         `json:"tool"`           // the cutting tool's id; it sets the kerf
	Step    measure.Length `json:"step"`           // of the tape; where it is zero, 1/16 in, or 1 mm of a frame in millimetres
	EndTrim measure.Length `json:"endTrim"`        // cut off each stick first
	Have    []reading.Item `json:"have,omitempty"` // the parts of a described build
	// Stock and Prices are the job's own: the lengths in the place of those on sale in
	// the shop, the prices over the shop's.
	Stock  []StockLength `json:"stock,omitempty"`
	Prices []cost.Price  `json:"prices,omitempty"`
	// Haul is what is carried for this job, in the place of what the shop says of the vehicle.
	Haul *stock.Haul `json:"haul,omitempty"`
	// TaxRate is the job's own, in the place of the shop's.
	TaxRate *float64 `json:"taxRate,omitempty"`
	// Spare are sticks that are bought besides those that the pieces take.
	Spare []StockLength `json:"spare,omitempty"`
	// Own says that each frame has letters of its own, with its number before them.
	Own bool `json:"own,omitempty"`
	// Terms are what the bill is held against.
	Terms cost.Terms `json:"terms,omitzero"`
	// School is the way in which joints are cemented.
	School joinery.School `json:"school,omitempty"`
	// SpareEvery adds a spare to every kind of fitting and hardware for each so many of it that are
	// begun; 0: none.
	SpareEvery int `json:"spareEvery,omitempty"`
	// Keep is how sticks were to be cut before: the plan keeps to it where that costs nothing.
	Keep []stock.Kept `json:"keep,omitempty"`
	// Searched says for which plans of a size more was spent on the search than is usual.
	Searched []procure.Searched `json:"searched,omitempty"`
}

func (j *Job) validate(s *Shop) (n ValidationError) {
	add := func(path, what, hint string) { n = append(n, Problem{Path: path, What: what, Hint: hint}) }
	if len(j.Frames) == 0 {
		add("/job/frames", "no frame", "add one")
	}
	for i, f := range j.Frames {
		if f.Copies < 1 || f.Copies > MaxCopies {
			add(fmt.Sprintf("/job/frames/%d/copies", i), fmt.Sprintf("%d copies", f.Copies), fmt.Sprintf("build 1 to %d", MaxCopies))
		}
		if len(f.Also) > mostAlso {
			add(
				fmt.Sprintf("/job/frames/%d/also", i),
				fmt.Sprintf("%d kinds of pieces", len(f.Also)),
				fmt.Sprintf("name up to %d", mostAlso),
			)
		}
		for k, a := range f.Also {
			path := fmt.Sprintf("/job/frames/%d/also/%d", i, k)
			if !material.IsByLength(a.Kind) {
				add(
					path+"/kind",
					fmt.Sprintf("%q is not sold by the length", a.Kind),
					"take one of "+strings.Join(material.ByLength(), ", "),
				)
			}
			if a.Length <= 0 || a.Length > StockLimit || a.Diameter < 0 || a.Diameter > measure.Foot {
				add(path+"/length", "a piece of no length", "type how long each is, like 14 or 3 ft")
			}
			if a.Count < 1 || a.Count > mostAlsoPieces {
				add(path+"/count", fmt.Sprintf("%d pieces", a.Count), fmt.Sprintf("cut 1 to %d", mostAlsoPieces))
			}
		}
		for _, id := range slices.Sorted(maps.Keys(f.Given)) {
			if v := f.Given[id]; v <= 0 || v > StockLimit {
				add(fmt.Sprintf("/job/frames/%d/given/%s", i, id), fmt.Sprintf("pipe %s cut to no length", id), "type how long it is")
			}
		}
	}
	if j.Step < 0 || j.Step > measure.Inch {
		add("/job/step", "a tape step below zero or above 1 in", "use 1/16 in or 1 mm")
	}
	if !slices.Contains(joinery.Schools(), j.School) {
		add("/job/school", fmt.Sprintf("there is no way of cementing %q", j.School), "use one-step, or leave it out for primer and cement")
	}
	if j.SpareEvery < 0 || j.SpareEvery > maxSpareEvery {
		add("/job/spareEvery", "a spare for less than nothing", "say for how many of a kind there is one spare, or 0")
	}
	bad := j.Terms.Validate()
	for _, path := range slices.Sorted(maps.Keys(bad)) {
		add("/job/terms"+path, bad[path], "mend it, or leave it out")
	}
	if j.EndTrim < 0 || j.EndTrim > measure.Foot {
		add("/job/endTrim", "an end trim below zero or above 1 ft", "leave it at 0 where the ends are square")
	}
	for i, l := range j.Spare {
		if !l.Size.Known() || l.Length <= 0 || l.Length > StockLimit || l.Count < 0 || l.Count > MaxCopies {
			add(fmt.Sprintf("/job/spare/%d", i), "no stick that can be bought", "give a nominal size, a length and a count")
		}
	}
	for i, q := range j.Searched {
		if q.Steps < 0 || q.Steps > mostSteps {
			add(fmt.Sprintf("/job/searched/%d/steps", i), "a search that spends less than nothing, or more than an hour", "search again")
		}
	}
	for i, k := range j.Keep {
		if k.Length <= 0 || len(k.Pieces) > maxKept || len(j.Keep) > maxKept {
			add(fmt.Sprintf("/job/keep/%d", i), "no stick that was cut", "give the sticks of an earlier plan")
			break
		}
	}
	if _, ok := s.Tool(j.Tool); !ok {
		add("/job/tool", fmt.Sprintf("there is no tool %q", j.Tool), "choose one of the shop's tools")
	}
	return append(n, s.Problems()...)
}

// put puts what is the job's own over what the shop has.
func (j *Job) put(s *Shop) {
	if len(j.Stock) > 0 {
		s.Stock = j.Stock
	}
	if j.Haul != nil {
		s.Haul = j.Haul
	}
	if j.TaxRate != nil {
		s.Prices.TaxRate = *j.TaxRate
	}
	if len(j.Prices) > 0 {
		s.Prices.Prices = slices.Clone(s.Prices.Prices)
		own := map[material.Spec]bool{}
		for _, p := range j.Prices {
			if !own[p.Spec] { // they stand in the place of all that the shop asks for the thing
				s.Prices.Prices = slices.DeleteFunc(s.Prices.Prices, func(q cost.Price) bool { return q.Spec == p.Spec })
				own[p.Spec] = true
			}
			s.Prices.Set(p)
		}
	}
}

const (
	// MaxCopies is how many of a frame are planned at most.
	MaxCopies = 500
	maxKept   = 2000
	// maxSpareEvery is a spare of every kind, however many there are of it.
	maxSpareEvery = 10_000
	// mostSteps is the longest search that is taken up again: some minutes.
	mostSteps = 100_000_000_000
)

// The shop's types are part of what a plan is made from.
type (
	Shop            = shop.Shop
	Work            = record.Work
	Tool            = shop.Tool
	Offcut          = shop.Offcut
	StockLength     = shop.StockLength
	Measured        = shop.Measured
	Problem         = shop.Problem
	ValidationError = shop.ValidationError
)

// StockLimit is the longest stick or cut that is planned with.
const StockLimit = shop.StockLimit

// ShortPiece is what is not held by hand at a powered saw when it is shorter.
const ShortPiece = shop.ShortPiece

// ExampleShop sells 10 ft and 5 ft sticks at example prices.
func ExampleShop() Shop { return shop.Example() }

// Tools are the usual cutting tools with typical kerfs.
func Tools() []Tool { return shop.Tools() }
