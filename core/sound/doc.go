// Package sound answers: can the frame be put together at all? Pieces that have no room,
// with the sizes that would give it; bodies that want the same place; parts that nothing
// joins; sizes that read like the name of a pipe.
package sound
