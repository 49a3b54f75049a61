package plan

import (
	"fmt"
	"reflect"
	"strings"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
)

// Newer is a figure that the shop has another of since the work was begun.
type Newer struct {
	What string `json:"what"` // sticks on sale
	Kept string `json:"kept"` // what the plan goes by
	Now  string `json:"now"`  // what the shop has
}

// newerFigures says where a shop's figures are no longer those that were kept.
func newerFigures(s *Shop, kept *shop.Figures) []Newer {
	all := []Newer{}
	if kept == nil {
		return all
	}
	now := s.Figures()
	add := func(what string, was, is any, words func(*shop.Figures) string) {
		if same(was, is) {
			return
		}
		all = append(all, Newer{what, words(kept), words(now)})
	}
	add("sticks on sale", kept.Stock, now.Stock, stockWords)
	add("fittings as measured", kept.Measurements, now.Measurements, func(f *shop.Figures) string { return counted(len(f.Measurements)) })
	add("how far pipe goes in, as measured", kept.Seats, now.Seats, func(f *shop.Figures) string { return counted(len(f.Seats)) })
	add("what tools take", kept.Tools, now.Tools, func(f *shop.Figures) string { return counted(len(f.Tools)) })
	return all
}

// same compares figures; none and an empty list are one.
func same(a, b any) bool {
	x, y := reflect.ValueOf(a), reflect.ValueOf(b)
	return x.Len() == 0 && y.Len() == 0 || reflect.DeepEqual(a, b)
}

func counted(n int) string {
	if n == 0 {
		return "none"
	}
	return fmt.Sprint(n)
}

func stockWords(f *shop.Figures) string {
	var words []string
	for _, s := range f.Stock {
		w := s.Length.Format(measure.FeetInches, 0)
		if s.Size != "" {
			w = string(s.Size) + " in " + w
		}
		words = append(words, w)
	}
	if len(words) == 0 {
		return "none"
	}
	return strings.Join(words, ", ")
}
