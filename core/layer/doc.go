// Package layer answers: what did a builder add to, change in and take from a
// frame that is made from something else, and what becomes of it when that is
// made anew?
//
// A starter makes a document from its answers, the base. A builder draws a pipe
// on it, drives a stake, forces a fitting: that makes another document. [Between]
// gives the difference as a [Layer], thing by thing and by name. When an answer
// changes, the base is made anew, and [Layer.Over] puts the same layer over it:
// what was not touched follows the base, and of a thing that was changed only
// the members that were. What refers to something that the new base does not
// have is set aside, and is there again once the base has it.
package layer
