// Package stock answers: which sticks to buy, and which pieces to cut from each? It knows
// nothing of pipe; rod, rope and fabric use it too.
//
// A stick of length S yields pieces l1…lk if Σl + (k−1) × kerf ≤ S − end trim. The purchase
// is exact: least cost over all lengths on sale (least bought length where there are no
// prices), then fewest sticks, then fewest cuts in the shop, all proven where the steps
// allowed suffice (package packing). Where several plans are as good, one is sought in which
// every stick keeps more than real cuts may take together, and then the longest single
// leftover: those are the best found, and not proven.
//
// Where a vehicle takes only so much, longer sticks are cut in the shop. Each end that is
// cut there may be off by the shop's error once, so what is cut from a part fits its length
// less that.
package stock
