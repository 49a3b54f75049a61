// Package procure answers: what is bought for some built frames, and how is it cut? The
// pieces by letter, the fittings, the sticks with their cuts, the bill of materials and
// what it costs.
package procure
