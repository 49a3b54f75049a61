// Package level answers: which places of a frame are nearly one? Two levels that are nearer to each other than half a
// fitting are hardly ever meant to be two: a rail that runs an eighth out of level comes from a size that was measured to
// one thing on one side, and to another on the other.
package level
