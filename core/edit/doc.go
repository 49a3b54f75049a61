// Package edit answers: what does a builder's gesture make of the document?
//
// A gesture is a value with one member set: walk from a joint, split a pipe,
// size a bay, repeat a group. [Apply] gives a changed copy and says what was
// done; the document given is never touched. Where a gesture needs to know
// where things stand (a pipe that ends on a joint that is there already, a tee
// where a pipe is met), it asks through [Solver].
//
// A gesture on a pipe or joint of a group changes the group, and so every use
// of it. Ids never change: a split keeps the id on the first part, a heal
// keeps the older one.
package edit
