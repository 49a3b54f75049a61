// Package record answers: what was done, and what is there because of it? An [Event] says
// that something happened: a stick was bought, a piece cut, a joint cemented. Events are
// only ever added; what did not happen after all is taken back by an event of its own.
// [Add] gives what they add up to: the pieces, sticks and goods that exist, the letters
// that are written on pipe, and the figures that the work was begun with.
package record
