// Package envelope answers: does the frame go through the doorway, into the car, over
// the box, and can its builder reach the top? Checks against sizes that are not the
// frame's own.
package envelope
