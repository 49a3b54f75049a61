// Package mention lets a text name a pipe or a joint without knowing what it is called.
//
// The core's texts are made where ids are known, p2 and "l corner, f", and read where the
// builder knows the things by a letter, a short name and a place, which depend on the whole
// plan. So a text mentions the thing, and whoever shows the text puts the name in:
// "24 cut of ⟨p2⟩" is read "24 cut of B, upper left". A text with its mentions left in can
// still be read, and kept: the ids in it stay true when letters change.
package mention

import "regexp"

// Of mentions the thing with an id: of a pipe or a joint, by its path in the frame.
func Of(id string) string { return "⟨" + id + "⟩" }

var pattern = regexp.MustCompile(`⟨([^⟨⟩]*)⟩`)

// Named gives a text with its things named. name is asked for each id, and gives the id
// back where it knows no name.
func Named(text string, name func(id string) string) string {
	return pattern.ReplaceAllStringFunc(text, func(m string) string { return name(pattern.FindStringSubmatch(m)[1]) })
}

// ByID gives a text with its things called by their ids.
func ByID(text string) string { return Named(text, func(id string) string { return id }) }
