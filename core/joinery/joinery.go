package joinery

import (
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
)

// Sockets counts the sockets of one size.
type Sockets struct {
	Size     catalog.Size `json:"size"`
	Cemented int          `json:"cemented"`
	Dry      int          `json:"dry"`
}

// Cans is a consumable in can sizes.
type Cans struct {
	Ounces float64 `json:"ounces"` // needed, US fluid ounces
	Cans   []Can   `json:"cans"`
}

// Can is a can size and how many.
type Can struct {
	Ounces int `json:"ounces"`
	Count  int `json:"count"`
}

// canSizes are the usual cans, in US fluid ounces: a quart is 32.
var canSizes = []int{4, 8, 16, 32}

const quart = 32.0

// Report is what a job's joints need.
type Report struct {
	Cemented int       `json:"cemented"` // sockets
	Dry      int       `json:"dry"`
	BySize   []Sockets `json:"bySize"`
	Cement   Cans      `json:"cement"`
	Primer   Cans      `json:"primer"`
}

// Count adds up insertions; each list counts as often as its copies say.
func Count(c *catalog.Catalog, lists []Copies) Report {
	var r Report
	by := map[catalog.Size]*Sockets{}
	for _, l := range lists {
		for _, i := range l.Insertions {
			s := by[i.Size]
			if s == nil {
				s = &Sockets{Size: i.Size}
				by[i.Size] = s
			}
			if i.Mode == frame.Cemented {
				s.Cemented += l.Copies
			} else {
				s.Dry += l.Copies
			}
		}
	}
	quarts := 0.0
	for _, size := range catalog.Sizes() {
		s := by[size]
		if s == nil {
			continue
		}
		r.BySize = append(r.BySize, *s)
		r.Cemented, r.Dry = r.Cemented+s.Cemented, r.Dry+s.Dry
		quarts += float64(s.Cemented) / float64(c.JointsPerQuart(size))
	}
	r.Cement, r.Primer = cans(quarts*quart), cans(quarts*quart/2)
	return r
}

// Copies is the insertions of one frame and how many are built.
type Copies struct {
	Insertions []fitting.Insertion
	Copies     int
}

// School is the way in which joints are cemented.
type School string

// Joints are primed and then cemented, or cemented with a one-step cement, which needs no primer and
// sets a little slower (handbook 10). The zero School is primed.
const (
	Primed  School = ""
	OneStep School = "one-step"
)

// Schools lists them.
func Schools() []School { return []School{Primed, OneStep} }

// SchoolWords are their labels.
func SchoolWords() []frame.Word {
	return []frame.Word{
		{Value: string(Primed), Words: "primer and cement", Note: "primer softens both surfaces first"},
		{Value: string(OneStep), Words: "one-step cement", Note: "no primer; sets a little slower"},
	}
}

// Materials are the cans that it takes: those that are there first, whatever their size, and then those to buy.
// there counts the cans that are, by what they are.
func (r *Report) Materials(by School, there map[material.Spec]int) (lines []material.Line) {
	type part struct {
		ware material.Ware
		cans Cans
		rule string
	}
	parts := []part{
		{material.Cement, r.Cement, "a quart for so many joints of each size"},
		{material.Primer, r.Primer, "half as much as cement"},
	}
	if by == OneStep {
		parts = parts[:1]
	}
	sockets := fmt.Sprintf("%d sockets", r.Cemented)
	for _, of := range parts {
		for _, c := range of.cans.with(func(ounces int) int { return there[material.Spec{Ware: of.ware, Kind: string(by), Ounces: ounces}] }) {
			lines = append(
				lines,
				material.Line{
					Spec:     material.Spec{Ware: of.ware, Kind: string(by), Ounces: c.Ounces},
					For:      fmt.Sprintf("%s, about %.1f fl oz", sockets, of.cans.Ounces),
					Quantity: c.Count,
					Unit:     "can",
					Where:    []material.Place{},
					Rule:     of.rule,
				},
			)
		}
	}
	return lines
}

// with gives the cans that hold what is needed, where some are there: of these the smallest that holds all, or
// else the largest first, and cans of the usual sizes for the rest.
func (c *Cans) with(there func(ounces int) int) []Can {
	left := map[int]int{}
	var sizes []int
	for _, size := range canSizes {
		if left[size] = there(size); left[size] > 0 {
			sizes = append(sizes, size)
		}
	}
	if len(sizes) == 0 {
		return c.Cans
	}
	many, need := map[int]int{}, c.Ounces
	for need > 0 && len(sizes) > 0 {
		i := slices.IndexFunc(sizes, func(s int) bool { return float64(s) >= need })
		if i < 0 {
			i = len(sizes) - 1
		}
		size := sizes[i]
		many[size]++
		need -= float64(size)
		if left[size]--; left[size] == 0 {
			sizes = slices.Delete(sizes, i, i+1)
		}
	}
	if need > 0 {
		for _, more := range cans(need).Cans {
			many[more.Ounces] += more.Count
		}
	}
	var all []Can
	for i := len(canSizes) - 1; i >= 0; i-- {
		if n := many[canSizes[i]]; n > 0 {
			all = append(all, Can{canSizes[i], n})
		}
	}
	return all
}

// cans picks the smallest can that holds what is needed, after as many of the
// largest as it takes.
func cans(ounces float64) Cans {
	c := Cans{Ounces: math.Round(ounces*100) / 100}
	largest := canSizes[len(canSizes)-1]
	if n := int(ounces) / largest; n > 0 {
		c.Cans = append(c.Cans, Can{largest, n})
		ounces -= float64(n * largest)
	}
	if ounces <= 0 {
		return c
	}
	i := slices.IndexFunc(canSizes, func(s int) bool { return float64(s) >= ounces })
	if n := len(c.Cans); n > 0 && canSizes[i] == largest {
		c.Cans[0].Count++
		return c
	}
	c.Cans = append(c.Cans, Can{canSizes[i], 1})
	return c
}
