// Package message answers: how is a finding said in English? It has one message
// for each code, with places for the figures; every text of every finding comes
// from here.
//
// A message is a text/template over the finding's figures by their names, with
// .subject and .subjects for the names of what it is about. Lengths are printed
// in the frame's unit as a tape shows them.
package message
