package plan

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
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
	add := func(what string, was, is any, words func(*shop.Figures) []string) {
		if same(was, is) {
			return
		}
		before, after := words(kept), words(now)
		all = append(all, Newer{what, but(before, after), but(after, before)})
	}
	add("sticks on sale", kept.Stock, now.Stock, stockWords)
	add("fittings as measured", kept.Measurements, now.Measurements, measuredWords)
	add("how far pipe goes in, as measured", kept.Seats, now.Seats, seatWords)
	add("what tools take", kept.Tools, now.Tools, toolWords)
	add("what the car takes", haulWords(kept), haulWords(now), haulWords)
	return all
}

// but lists the words that are not among others too.
func but(words, others []string) string {
	var own []string
	for _, w := range words {
		if !slices.Contains(others, w) {
			own = append(own, w)
		}
	}
	if len(own) == 0 {
		return "none"
	}
	return strings.Join(own, ", ")
}

// same compares figures; none and an empty list are one.
func same(a, b any) bool {
	x, y := reflect.ValueOf(a), reflect.ValueOf(b)
	return x.Len() == 0 && y.Len() == 0 || reflect.DeepEqual(a, b)
}

func stockWords(f *shop.Figures) (words []string) {
	for _, s := range f.Stock {
		w := s.Length.Format(measure.FeetInches, 0)
		if u := s.Usable(); u != s.Length {
			w += " that measures " + u.Format(measure.InInches, 0)
		}
		if s.Size != "" {
			w = string(s.Size) + " in " + w
		}
		words = append(words, w)
	}
	return words
}

func measuredWords(f *shop.Figures) (words []string) {
	for _, m := range f.Measurements {
		what := strings.ReplaceAll(string(m.Field), "_", " ")
		if m.Kind != "" {
			what = string(m.Kind) + " " + what
		}
		words = append(words, fmt.Sprintf("%s %s %s", m.Size, what, m.Value.Format(measure.Decimal, 0)))
	}
	return words
}

func seatWords(f *shop.Figures) (words []string) {
	for _, m := range slices.Sorted(maps.Keys(f.Seats)) {
		words = append(words, fmt.Sprintf("%s %.0f %%", frame.Label(frame.ModeWords(), m), 100*f.Seats[m]))
	}
	return words
}

func toolWords(f *shop.Figures) (words []string) {
	for _, t := range f.Tools {
		w := t.Name + " " + t.Kerf.Format(measure.InInches, 0)
		if t.Stop {
			w += " against a stop"
		}
		words = append(words, w)
	}
	return words
}

func haulWords(f *shop.Figures) (words []string) {
	if f.Haul != nil {
		words = append(words, f.Haul.Limit.Format(measure.InInches, 0), f.Haul.Error.Format(measure.InInches, 0)+" off in the shop")
		if f.Haul.Price > 0 {
			words = append(words, fmt.Sprintf("%d cuts free, then %v", f.Haul.Free, f.Haul.Price))
		}
	}
	return words
}
