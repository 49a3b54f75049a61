// Package tolerance answers: does the frame still go together from the cuts that were
// really made? Cuts of a list or measured on the frame are put together instead of the
// plan's, with the fewest changes that mend them.
package tolerance
