// Package reading answers: what does somebody's list of parts say?
//
// It takes a list as people write it, one item a line, in a sentence, or as
// columns with commas, and gives counts, kinds, nominal sizes and lengths in
// the trade's own terms. A name that means two fittings is never guessed: both
// are given, to be asked about. A line that it cannot read is kept as it is.
package reading
