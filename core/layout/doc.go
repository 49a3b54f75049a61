// Package layout answers: where does everything stand, given the sizes the
// builder stated?
//
// Along an axis every dimension is a linear difference: the value, plus what
// the bodies at both ends add or take for its meaning ("outside 48" is the
// centre distance plus a fitting's reach at each end). What stands at a joint
// is another room's question, so [Solve] asks it through [Bodies].
package layout
