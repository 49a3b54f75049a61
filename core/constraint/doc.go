// Package constraint answers: where do coordinates stand, given what was said
// of them; which of it cannot hold together; and what does nothing hold?
//
// A [System] has coordinates and rules between them: two stand so far apart,
// some add up, two points are at a distance, one point lies toward another. Each rule has
// an owner, the thing that can give way: a size that somebody typed, a pipe
// that runs level. Owners are numbered in the order in which they count, the
// first the most. Where rules contradict each other, the last owner of the
// smallest set that cannot hold together gives way, and the set is reported.
//
// Differences of two coordinates are kept in whole nanometres by a union-find
// with weights, in near linear time. A rule among more coordinates waits until
// all but one of its groups are known, and what is left then (slopes of unknown
// length, triangles) is found by Newton's method.
package constraint
