// Package export reads and writes the open formats around a plan: cut lists
// and shopping lists as CSV. The wireframe form has a room of its own in core.
package export
