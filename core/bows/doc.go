// Package bows answers: does a pipe stand being bent so? The stretch of its outer fibre
// beside what keeps well, and the cautions of bows and of bending by heat.
package bows
