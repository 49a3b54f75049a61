package project

import (
	"cmp"
	"errors"
	"maps"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// SizeProblems are sizes of a frame that cannot be read, by their pointer.
type SizeProblems []starter.Problem

func (ps SizeProblems) Error() string { return starter.Problems(ps).Error() }

// retyped gives a copy of a frame with some of its sizes typed over.
func retyped(doc *frame.Document, sizes map[string]starter.Answer) (*frame.Document, error) {
	d := doc.Clone()
	var bad SizeProblems
	for _, path := range slices.Sorted(maps.Keys(sizes)) {
		a := sizes[path]
		dim := d.Dimension(path)
		if dim == nil {
			bad = append(bad, starter.Problem{Key: path, What: "the frame has no such size", Hint: "take this change back"})
			continue
		}
		l, err := measure.Parse(a.Text, measure.Reading{Unit: cmp.Or(a.Unit, d.Units)})
		var pe *measure.ParseError
		if errors.As(err, &pe) {
			bad = append(bad, starter.Problem{Key: path, At: pe.At, What: pe.What, Hint: pe.Hint})
			continue
		}
		dim.Value, dim.Text = l, a.Text
		if a.Meaning != "" {
			dim.Meaning = a.Meaning
		}
	}
	if len(bad) > 0 {
		return nil, bad
	}
	return d, nil
}
