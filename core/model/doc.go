// Package model answers: what is built of a document? [Locate] puts everything in
// its place; [Build] also cuts the pieces. A [Built] is made once for a plan, is not
// changed after that, and is what every analysis reads.
package model
