// Package budget answers: does the frame take what its builder described? A list of parts
// beside what is bought and cut, and whether the described parts go together at all.
package budget
