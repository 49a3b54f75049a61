// Package families makes instances of cutting problems by their kind, number and seed, for
// measurements and tests: lists as a shop sees them, and the hard ones of the literature.
package families

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"

	"sturdyelbow/core/packing"
)

// Family is a kind of instance.
type Family struct {
	Name string
	Make func(seed uint64) packing.Problem
}

// All are the families that are measured.
func All() []Family {
	return []Family{
		{"shop list 40/8", func(seed uint64) packing.Problem { return ShopList(40, 8, seed) }},
		{"shop list 80/14", func(seed uint64) packing.Problem { return ShopList(80, 14, seed) }},
		{"uniform 120", func(seed uint64) packing.Problem { return Uniform(120, seed) }},
		{"uniform 500", func(seed uint64) packing.Problem { return Uniform(500, seed) }},
		{"triplets 60", func(seed uint64) packing.Problem { return Triplets(60, seed) }},
		{"triplets 120", func(seed uint64) packing.Problem { return Triplets(120, seed) }},
		{"triplets 249", func(seed uint64) packing.Problem { return Triplets(249, seed) }},
	}
}

func source(seed uint64) *rand.Rand { return rand.New(rand.NewPCG(seed, 0x5eed)) }

// gather makes items of single sizes.
func gather(sizes []int64) (items []packing.Item) {
	slices.SortFunc(sizes, func(a, b int64) int { return cmp.Compare(b, a) })
	for _, s := range sizes {
		if n := len(items); n > 0 && items[n-1].Size == s {
			items[n-1].Count++
		} else {
			items = append(items, packing.Item{Size: s, Count: 1})
		}
	}
	return items
}

// ShopList is a list of pieces of so many lengths, from sticks of 10 ft and of 5 ft at prices
// of their own, cut with a saw of 1/8 in. The unit is 1/16 in.
func ShopList(pieces, lengths int, seed uint64) packing.Problem {
	r := source(seed)
	const kerf = 2
	seen := map[int64]bool{}
	var sizes []int64
	for len(sizes) < lengths {
		if s := int64(3*16+r.IntN(45*16)) + kerf; !seen[s] {
			seen[s] = true
			sizes = append(sizes, s)
		}
	}
	all := slices.Clone(sizes)
	for len(all) < pieces {
		all = append(all, sizes[r.IntN(lengths)])
	}
	long := int64(400 + r.IntN(400))
	short := long*55/100 + int64(r.IntN(int(long/6)))
	return packing.Problem{Items: gather(all), Kinds: []packing.Kind{
		{Room: 120*16 + kerf, Cost: long, Bins: 1, Limit: packing.Endless},
		{Room: 60*16 + kerf, Cost: short, Bins: 1, Limit: packing.Endless},
	}}
}

// Uniform is so many pieces of 20 to 100, in bins of 150.
func Uniform(pieces int, seed uint64) packing.Problem {
	r := source(seed)
	sizes := make([]int64, pieces)
	for i := range sizes {
		sizes[i] = int64(20 + r.IntN(81))
	}
	return packing.Problem{Items: gather(sizes), Kinds: []packing.Kind{{Room: 150, Cost: 1, Bins: 1, Limit: packing.Endless}}}
}

// Triplets is a third as many bins of 1000 as pieces, each filled by three pieces of 250 and
// more to the last unit (Falkenauer, 1996).
func Triplets(pieces int, seed uint64) packing.Problem {
	if pieces%3 != 0 {
		panic(fmt.Sprintf("%d pieces are no triplets", pieces))
	}
	r := source(seed)
	var sizes []int64
	for range pieces / 3 {
		a := int64(380 + r.IntN(490-380+1))
		b := int64(250) + r.Int64N((1000-a)/2-250+1)
		sizes = append(sizes, a, b, 1000-a-b)
	}
	return packing.Problem{Items: gather(sizes), Kinds: []packing.Kind{{Room: 1000, Cost: 1, Bins: 1, Limit: packing.Endless}}}
}
