// Package frame holds the document: what the builder said, and nothing that
// can be derived from it.
//
// A [Document] has a root [Definition] and named groups. A definition places
// joints on stations of its three axes; a [Station] stands at a [Dimension]
// from another, and the dimension keeps the meaning it was given (outside,
// clear inside, floor to top of pipe, …). Pipes run from joint to joint.
// A [Use] puts a group into a definition: turned, mirrored, repeated at a
// pitch, with joints merged explicitly. [Expand] gives the flat [Graph] that
// every other package reads; its ids are paths and are never renumbered.
package frame
