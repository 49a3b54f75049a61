// Package kept answers: does what the builder said hold? A size that gave way, a
// direction that became a slope, a height measured from a foot that is no longer the
// lowest, and sizes that contradict each other with the choices.
package kept
