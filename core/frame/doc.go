// Package frame holds the document: what the builder said, and nothing that
// can be derived from it.
//
// A [Document] has a root [Definition] and named groups. A definition has
// joints and pipes that run between them, each in a direction where one was
// said. A [Size] is what the builder typed, with an id that never changes and
// the meaning it was given (outside, clear inside, cut, floor to the top of the
// pipe, …); a [Reason] says why joints are level, spread or in line. Planes are
// joints that are level for a reason; they are named only when somebody names
// them. A [Use] puts a group into a definition: turned, mirrored, repeated.
//
// Documents are changed by the methods in change.go, enclose.go and copies.go,
// each of which leaves the document sound; [Document.EachRef] shows every field
// that refers to something. [Expand] gives the flat [Graph] that every other
// package reads; its ids are paths.
package frame
