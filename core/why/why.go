package why

import "sturdyelbow/core/measure"

// Term is one line of a sum; Value carries its sign.
type Term struct {
	Label string         `json:"label"`
	Value measure.Length `json:"value"`
}

// Sum is a list of terms in the order they are read.
type Sum []Term

// Total adds the terms up.
func (s Sum) Total() measure.Length {
	var t measure.Length
	for _, x := range s {
		t += x.Value
	}
	return t
}

// Plus appends a term, leaving terms of nothing out.
func (s Sum) Plus(label string, v measure.Length) Sum {
	if v == 0 {
		return s
	}
	return append(s, Term{label, v})
}
