package packing

import (
	"cmp"
	"encoding/binary"
	"slices"
)

// Divide puts sizes, the largest first, into parts with the rooms given, and says for each
// size into which; nil where they cannot all go in. It looks at every way, so it is meant
// for the few pieces of one bin.
func Divide(sizes, rooms []int64) []int {
	unit := int64(0) // as in a search: sizes without what they have in common, the largest part first
	for _, s := range sizes {
		unit = divisor(unit, s)
	}
	if unit == 0 {
		return []int{}
	}
	whole := make([]int64, len(sizes))
	for i, s := range sizes {
		whole[i] = s / unit
	}
	parts, at := make([]int64, len(rooms)), make([]int, len(rooms))
	for j, r := range rooms {
		parts[j], at[j] = r/unit, j
	}
	order(parts, at, func(a, b int64) int { return cmp.Compare(b, a) })
	into, _ := divide(whole, parts, divideSteps)
	for i, j := range into {
		into[i] = at[j]
	}
	return into
}

// divideSteps is what may be spent on dividing one bin for good.
const divideSteps = 2_000_000

// divide does the same within so many steps; sure is false where they did not suffice to find
// a way, or that there is none.
func divide(sizes, rooms []int64, steps int) (into []int, sure bool) {
	into = make([]int, len(sizes))
	if len(sizes) == 0 {
		return into, true
	}
	spare := int64(0) // what may stay empty
	for _, r := range rooms {
		spare += r
	}
	for _, s := range sizes {
		spare -= s
	}
	if spare < 0 {
		return nil, true
	}
	left := slices.Clone(rooms)
	if fitBest(sizes, left, into) {
		return into, true
	}
	copy(left, rooms)
	least := sizes[len(sizes)-1]
	failed := map[string]bool{}
	key := func(i int) string {
		sorted := slices.Clone(left)
		slices.Sort(sorted)
		b := binary.AppendUvarint(nil, uint64(i))
		for _, r := range sorted {
			b = binary.AppendVarint(b, r)
		}
		return string(b)
	}
	sure = true
	var place func(i int) bool
	place = func(i int) bool {
		if i == len(sizes) {
			return true
		}
		if steps--; steps < 0 {
			sure = false
			return false
		}
		// parts too small for what is left are lost: sizes fall, so only the smallest tells
		lost := int64(0)
		for _, r := range left {
			if r < least {
				lost += max(0, r)
			}
		}
		if lost > spare {
			return false
		}
		first := 0 // one like the last goes no further to the left than that
		again := i > 0 && sizes[i] == sizes[i-1]
		var known string
		if again {
			first = into[i-1]
		} else if known = key(i); failed[known] {
			return false
		}
		for j := first; j < len(left); j++ {
			if left[j] < sizes[i] || slices.Contains(left[first:j], left[j]) {
				continue // too small, or like one that was tried
			}
			left[j] -= sizes[i]
			into[i] = j
			if place(i + 1) {
				return true
			}
			left[j] += sizes[i]
			if !sure {
				return false
			}
		}
		if !again {
			failed[known] = true
		}
		return false
	}
	if !place(0) {
		return nil, sure
	}
	return into, true
}

// fitBest puts each size into the part that it leaves least room in, which mostly will do.
func fitBest(sizes, left []int64, into []int) bool {
	for i, s := range sizes {
		best := -1
		for j, r := range left {
			if r >= s && (best < 0 || r < left[best]) {
				best = j
			}
		}
		if best < 0 {
			return false
		}
		left[best] -= s
		into[i] = best
	}
	return true
}
