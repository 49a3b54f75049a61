package reading

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// What is what an item of a list is.
type What string

// What an item may be.
const (
	Fitting What = "fitting"
	Piece   What = "piece" // a pipe cut to length
	Stick   What = "stick" // a length of pipe as it is sold
	Unknown What = "unknown"
)

// Item is one thing of a list.
type Item struct {
	Line    int            `json:"line"` // counted from 1
	Text    string         `json:"text"` // as it was written
	What    What           `json:"what"`
	Count   int            `json:"count,omitempty"`
	Kind    catalog.Kind   `json:"kind,omitempty"`
	Kinds   []catalog.Kind `json:"kinds,omitempty"` // of an ambiguous name: which one is it?
	Size    catalog.Size   `json:"size,omitempty"`
	To      catalog.Size   `json:"to,omitempty"`      // the smaller size of one that reduces
	Assumed bool           `json:"assumed,omitempty"` // no size was said: it is the list's usual one
	Length  measure.Length `json:"length,omitempty"`  // of a piece or a stick
	Ask     string         `json:"ask,omitempty"`     // what has to be asked about it
	Others  []Item         `json:"others,omitempty"`  // what else the numbers can mean
}
