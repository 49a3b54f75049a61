// Package lines answers: what does a page of lines say, and how is a gesture written as one?
//
// A line is what a builder tells of a frame in one breath: "right 24 cut", "tee at j2 spare up",
// "repeat foot 3 at 40". [Read] gives the gesture of core/edit that a line means, [Write] the line
// that means a gesture; each is the other's inverse. [Page.Draw] makes the lines of a page one
// after the other on a document.
//
// A name belongs to the line that made it: each line has numbers of its own for what it makes, so
// that j7 stays what it is when lines before it come, change or go. Names of what stands for a
// moment only, a piece's letter or a mark on a ruler, are taken once, when the line is read.
//
// docs/lines.md tells the language to its users, and is the help of the page.
package lines
