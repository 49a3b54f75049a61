// Package wireframe reads and writes the neutral exchange form, version 1:
// joints with coordinates, pipes between them, and what stands at the ends.
//
// Reading makes an ordinary document: each coordinate in use becomes a station
// of its axis, measured centre to centre from the one before, so that a frame
// from a file can be changed like any other. A point is the fitting's centre;
// where a joint has one pipe it is where the bare pipe ends.
package wireframe
