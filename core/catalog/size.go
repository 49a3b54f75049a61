package catalog

import (
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// Size is a nominal pipe size: a name, never a measured length. 3/4 pipe is
// 1.050 in outside.
type Size string

// ladder is every nominal size from small to large.
var ladder = []Size{"1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "4"}

// Sizes lists the nominal sizes from small to large.
func Sizes() []Size { return slices.Clone(ladder) }

// Rank is the size's place on the ladder from small to large, -1 for a size
// that does not exist.
func (s Size) Rank() int { return slices.Index(ladder, s) }

// Known says whether the size exists in the catalog.
func (s Size) Known() bool { return s.Rank() >= 0 }

// Compare orders sizes from small to large.
func Compare(a, b Size) int { return a.Rank() - b.Rank() }

// Larger gives the larger of two sizes.
func Larger(a, b Size) Size {
	if Compare(a, b) >= 0 {
		return a
	}
	return b
}

// ParseSize reads a nominal size as people write it: 3/4, 1-1/2, 1 1/2, 1.5, 3/4".
func ParseSize(text string) (Size, bool) {
	s := strings.TrimSpace(text)
	if l, err := measure.Parse(s, measure.Reading{}); err == nil {
		return NominalOf(l)
	}
	return "", false
}

// NominalOf gives the nominal size whose name reads as this length: 1-1/2 in
// could be meant as 1-1/2 pipe.
func NominalOf(l measure.Length) (Size, bool) {
	s, ok := nominal[l]
	return s, ok
}

var nominal = func() map[measure.Length]Size {
	m := map[measure.Length]Size{}
	for _, s := range ladder {
		l, err := measure.Parse(string(s), measure.Reading{})
		if err != nil {
			panic(err)
		}
		m[l] = s
	}
	return m
}()
