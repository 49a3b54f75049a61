// Package pieces answers: what does a list of pieces to cut say?
//
// A list is CSV with names of columns (size, length, count, least, letter) or lines as people write
// them: "4 @ 23 5/8", "23 5/8 x4", "legs: 2 pcs 30 in 3/4 pipe", "3/4, 23 5/8, qty 3". Each line is
// read for itself and says how it was read; one that cannot be read says why, and the others hold.
package pieces
