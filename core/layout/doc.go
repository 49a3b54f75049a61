// Package layout answers: where does everything stand, given the sizes the
// builder stated and the reasons that joints are level for?
//
// Along an axis a size is a difference between two planes: the value, plus what
// the bodies at both ends add or take for its meaning ("outside 48" is the
// centre distance plus a fitting's reach at each end). What stands at a joint
// is another room's question, so [Locate] asks it through [Bodies]. The equations
// are solved by core/constraint; what cannot hold together comes back as a
// [Clash] of the smallest set, and what nothing holds as [Free].
package layout
