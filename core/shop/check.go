package shop

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Problem is a place in the input that makes no sense.
type Problem = frame.Problem

// ValidationError is an error that lists every such place; paths begin with /job,
// /shop or /bought.
type ValidationError []Problem

func (n ValidationError) Error() string {
	var ss []string
	for _, p := range n {
		ss = append(ss, p.Path+": "+p.What+"; "+p.Hint)
	}
	return strings.Join(ss, "\n")
}

const (
	maxRack = 2000
	// StockLimit is the longest stick or cut that is planned with.
	StockLimit = 10_000 * measure.Foot
)

// Validate tells what in the shop makes no sense; the error is a [ValidationError].
func (s *Shop) Validate() error {
	n := s.Problems()
	if _, err := catalog.Typical().With(s.Measurements...); err != nil {
		n = append(n, measurementProblem(err))
	}
	if len(n) > 0 {
		return n
	}
	return nil
}

func measurementProblem(err error) Problem {
	p := Problem{Path: "/shop/measurements", What: err.Error(), Hint: "mend the measurement"}
	var oe *catalog.OverrideError
	if errors.As(err, &oe) {
		p = Problem{Path: fmt.Sprintf("%s/%d", p.Path, oe.Index), What: oe.What, Hint: oe.Hint}
	}
	return p
}

// Problems tells what in the shop makes no sense, its measurements apart, which
// [Shop.Catalog] reads.
func (s *Shop) Problems() (n ValidationError) {
	add := func(path, what, hint string) { n = append(n, Problem{Path: path, What: what, Hint: hint}) }
	for i, t := range s.Tools {
		if t.Kerf < 0 || t.Kerf > measure.Inch {
			add(fmt.Sprintf("/shop/tools/%d/kerf", i), "a kerf below zero or above 1 in", "measure the slot the tool leaves")
		}
	}
	for _, m := range slices.Sorted(maps.Keys(s.Seats)) {
		if v := s.Seats[m]; !slices.Contains(frame.Modes(), m) || !(v > 0 && v <= 1) {
			add("/shop/seats/"+string(m), "a seat outside 0 to 1", "it is the share of the socket the pipe goes in, like 0.85")
		}
	}
	for i, st := range s.Stock {
		path := fmt.Sprintf("/shop/stock/%d", i)
		if st.Size != "" && !st.Size.Known() {
			add(path+"/size", fmt.Sprintf("unknown pipe size %q", st.Size), "use a nominal size such as 3/4")
		}
		if st.Length <= 0 || st.Length > StockLimit {
			add(path+"/length", "no length that pipe is sold in", "10 ft is usual")
		}
	}
	for i, st := range s.Stock {
		path := fmt.Sprintf("/shop/stock/%d", i)
		if st.Length <= 0 {
			continue // said above
		}
		if st.True < 0 || st.True > StockLimit || st.Belled < 0 || st.Usable() <= 0 {
			add(path+"/true", "a stick that pieces cannot be cut from", "type how long it measures, and how much of it is widened")
		}
		if st.Count < 0 || st.Count > maxRack {
			add(path+"/count", "no number of sticks that a shop can have", "leave it out where there are as many as wanted")
		}
	}
	for i, b := range s.Bars {
		if b.Kind == "" || b.Length <= 0 || b.Length > StockLimit || b.Diameter < 0 || b.Count < 0 {
			add(fmt.Sprintf("/shop/bars/%d", i), "nothing that is sold by the length", "give a kind, such as threaded rod, and a length")
		}
	}
	if h := s.Haul; h != nil {
		switch {
		case h.Limit <= 0 || h.Limit > StockLimit:
			add("/shop/haul/limit", "no length that can be carried", "type the longest that the vehicle takes, or leave it empty")
		case h.Error < 0 || h.Error >= h.Limit/2:
			add("/shop/haul/error", "a cut that is off by less than nothing, or by half of what is carried", "1/8 in is usual")
		case h.Free < 0 || h.Price < 0:
			add("/shop/haul/price", "cuts that cost less than nothing", "leave it at 0 where the shop cuts for nothing")
		}
	}
	if s.Scrap < 0 || s.Scrap > StockLimit {
		add("/shop/scrap", "no length below which a leftover is scrap", "12 in is usual")
	}
	bad := s.Prices.Validate()
	for _, path := range slices.Sorted(maps.Keys(bad)) {
		what := bad[path]
		add("/shop/prices"+path, what, "mend the price")
	}
	return append(n, Lying("/shop/rack", s.Rack)...)
}

// Lying tells what in a list of pipe at hand makes no sense.
func Lying(path string, list []Offcut) (n ValidationError) {
	for i, o := range list {
		if !o.Size.Known() || o.Length <= 0 || o.Length > StockLimit || o.Count < 1 || o.Count > maxRack || o.Worth < 0 {
			n = append(
				n,
				Problem{
					Path: fmt.Sprintf("%s/%d", path, i),
					What: "no length of pipe that can lie there",
					Hint: "give a nominal size, a length and a count",
				},
			)
		}
	}
	return n
}
