// Package pricelist answers: what does a list of prices say?
//
// A list is CSV with names of columns in its first line, as [Write] writes it or a shop sends it, or
// lines as people write them, "3/4 tee .88" or "10 ft of 3/4 pipe, 4.98". Each line is read for
// itself: one that cannot be read keeps its text and says why, and the others are taken.
package pricelist
