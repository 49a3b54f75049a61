// Package cost answers: what does it come to, and what is that figure worth?
//
// A [Book] holds prices of pipe by stock length, fittings by kind and size,
// cement and primer by can. What has no price is a line without an amount and
// is listed; it is never counted as free. Example prices, invented for this
// program, mark every total they enter until the builder replaces them.
package cost
