// Package cutlist answers: how long is each piece, and does the frame close
// when it is built from them?
//
//	cut = centre distance − Σ over both ends ( stop + (1 − seat) × socket depth )
//
// Cuts are rounded to the step of the tape, all together: equal pieces stay
// equal, and a class of pieces moves by one step where a loop would otherwise
// be off by more than one. [Assemble] goes the other way, from cuts to
// positions, and serves the second size of a frame, the check of a list and
// the as-built alike.
package cutlist
