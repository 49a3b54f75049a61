package project

import (
	"cmp"
	"encoding/json"
	"errors"
	"maps"
	"regexp"
	"slices"
	"strconv"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// SizeProblems are sizes of a frame that cannot be read, by their pointer.
type SizeProblems []starter.Problem

func (ps SizeProblems) Error() string { return starter.Problems(ps).Error() }

var pointer = regexp.MustCompile(`^/(root|groups/(\d+))/(?:axes/([012])/stations/(\d+)/at|uses/(\d+)/array/pitch)$`)

// retyped gives a copy of a frame with some of its sizes typed over.
func retyped(doc *frame.Document, sizes map[string]starter.Answer) (*frame.Document, error) {
	data, err := json.Marshal(doc)
	if err != nil {
		return nil, err
	}
	d := &frame.Document{}
	if err := json.Unmarshal(data, d); err != nil {
		return nil, err
	}
	var bad SizeProblems
	for _, path := range slices.Sorted(maps.Keys(sizes)) {
		a := sizes[path]
		dim := dimension(d, path)
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

// dimension finds the dimension a pointer names; nil when there is none.
func dimension(d *frame.Document, path string) *frame.Dimension {
	m := pointer.FindStringSubmatch(path)
	if m == nil {
		return nil
	}
	at := func(s string) int {
		n, err := strconv.Atoi(s)
		if err != nil {
			return -1
		}
		return n
	}
	def := &d.Root
	if m[2] != "" {
		g := at(m[2])
		if g < 0 || g >= len(d.Groups) {
			return nil
		}
		def = &d.Groups[g]
	}
	if m[5] != "" {
		if u := at(m[5]); u >= 0 && u < len(def.Uses) && def.Uses[u].Array != nil {
			return &def.Uses[u].Array.Pitch
		}
		return nil
	}
	st := def.Axes[at(m[3])].Stations
	if i := at(m[4]); i >= 0 && i < len(st) {
		return st[i].At
	}
	return nil
}
