// Package curve answers: which way does a pipe take that is not straight?
//
// A sprung pipe is a thin elastic strip of one length, bent within a plane and
// held at its ends: the elastica. Its curvature k answers to the force in it,
//
//	dk/ds = p sin θ − q cos θ
//
// where θ is the angle of its tangent and p, q the force over the pipe's
// stiffness, so that the curve does not depend on the stiffness at all. Its own
// weight is left out: over the spans that pipe stands, it changes the rise by
// far less than the ground does. A heat-bent pipe is straight legs joined by
// arcs of one radius.
package curve
