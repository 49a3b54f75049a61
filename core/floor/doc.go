// Package floor answers: how does the frame stand? Which of its feet hang above the
// floor, whether it rocks, and whether it stands on more than a line.
package floor
