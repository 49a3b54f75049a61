// Package measure answers one question: what length did the builder mean?
//
// A [Length] is a whole number of nanometres, so that 1/64 in (396,875 nm),
// 0.001 in (25,400 nm) and 1 mm are all exact and sums never drift. [Parse]
// reads what people write on paper and in the aisle; [Format] prints a length
// the way a tape is read, to a [Step]. Directions are unit vectors and carry
// no unit. Money is whole cents.
package measure
