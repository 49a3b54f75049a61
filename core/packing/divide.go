package packing

import "slices"

// Divide puts sizes, the largest first, into parts with the rooms given, and says for each
// size into which; nil where they cannot all go in. It looks at every way, so it is meant
// for the few pieces of one bin.
func Divide(sizes, rooms []int64) []int {
	into := make([]int, len(sizes))
	if len(sizes) == 0 {
		return into
	}
	if len(rooms) == 0 {
		return nil
	}
	left := slices.Clone(rooms)
	if fitBest(sizes, left, into) {
		return into
	}
	copy(left, rooms)
	spare := int64(0) // what may stay empty
	for _, r := range rooms {
		spare += r
	}
	for _, s := range sizes {
		spare -= s
	}
	least := sizes[len(sizes)-1]
	steps := divideSteps
	var place func(i int) bool
	place = func(i int) bool {
		if i == len(sizes) {
			return true
		}
		if steps--; steps < 0 {
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
		for j := range left {
			if left[j] < sizes[i] || slices.Contains(left[:j], left[j]) {
				continue // too small, or like one that was tried
			}
			left[j] -= sizes[i]
			into[i] = j
			if place(i + 1) {
				return true
			}
			left[j] += sizes[i]
		}
		return false
	}
	if spare < 0 || !place(0) {
		return nil
	}
	return into
}

// divideSteps bounds the ways that are looked at. A bin has few pieces: they suffice for some
// dozen of unlike sizes.
const divideSteps = 200_000

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
