// Package catalog answers: how big is this part, and how sure are we?
//
// It holds the pipe and fitting figures of schedule 40 pipe (outside
// diameters and walls after ASTM D1785, socket depths and diameters after
// ASTM D2466, which are minima; centre-to-stop, body, cap and bushing figures
// are typical mouldings). A builder's own measurement overrides any single
// figure; the rest stays typical, and every [Figure] says which it is. A
// [Fitting] is a record: its ports with role, direction, stop, socket depth
// and body.
package catalog
