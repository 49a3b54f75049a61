// Package packing answers: into which bins do pieces of given sizes go, at the least cost?
//
// It knows nothing of pipe: sizes and rooms are whole numbers of any unit. A bin of a kind
// holds pieces whose sizes sum to no more than its room; a kind may also ask that they can
// be divided into parts, each with a room of its own. The answer is exact where the work
// allowed suffices: least cost, then fewest bins, then fewest cuts; and it says what no
// answer can go below.
//
// How it is found: a bound by volume and a few simple ways to fill bins settle most lists
// at once. Else the linear relaxation over all patterns (Gilmore and Gomory, 1961) is solved
// by column generation, and made into a bound that no rounding can spoil (Farley, 1990).
// Every set of bins that would be better than the best answer known is then looked at, from
// the bound up: a dive fixes the patterns that the relaxation favours one after the other,
// and a search places the largest piece that is left in every way that still can lead to an
// answer.
package packing
