// Package stock answers: which sticks to buy, and which pieces to cut from
// each? It knows nothing of pipe; rod, rope and fabric use it too.
//
// A stick of length S yields pieces l1…lk if Σl + (k−1) × kerf ≤ S − end trim.
// The purchase is exact: least cost over all lengths on sale (least bought
// length where there are no prices), then fewest sticks, both proven where
// the counted nodes suffice. The bound comes from the linear relaxation over
// all cutting patterns (column generation after Gilmore and Gomory, 1961),
// made safe in whole numbers; the proof goes through every set of sticks from
// the bound up to the answer. Fewest cuts and the longest leftover are best
// found, not proven.
package stock
