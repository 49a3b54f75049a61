// Package link answers: what comes of the parts that hold together without
// going into a socket?
//
// A pivot turns one part of the frame about its bolt: which part, how large the
// frame is folded, and where it hits something on the way, with every member
// as a capsule. A telescope has play, an overlap and a range. An axle and a
// bolt are as long as what is stacked on them. One link is judged at a time,
// as if the others held still.
package link
