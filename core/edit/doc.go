// Package edit answers: what does a builder's gesture make of the document?
//
// A gesture is a type of its own in a file of its own, registered by the name
// that it has in JSON: walk from a joint, split a pipe, size a bay, repeat a
// part. [Apply] gives a changed copy and says what was done and what gave way;
// the document given is never touched. What a gesture would bring about that
// cannot hold together comes back as a [Question], and the gesture is made again
// with the answer. Gestures change a document by the primitives of core/frame
// alone. Where things stand they ask through [Solver].
//
// A gesture on a pipe or joint of a group changes the group, and so every use
// of it. Ids of sizes never change; a split keeps a pipe's id on the first
// part, a heal keeps the older one.
package edit
