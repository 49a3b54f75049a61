package project

import (
	"cmp"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// SizeProblems are sizes of a frame that cannot be read, by their id.
type SizeProblems []starter.Problem

func (ps SizeProblems) Error() string { return starter.Problems(ps).Error() }

// GivenProblems are cuts of a list that cannot be read, by the pipe.
type GivenProblems []starter.Problem

func (ps GivenProblems) Error() string { return starter.Problems(ps).Error() }

// given reads the cuts of the list. An empty one says nothing.
func (p *Project) given(unit measure.Unit) (map[string]measure.Length, error) {
	var bad GivenProblems
	all := map[string]measure.Length{}
	for _, id := range slices.Sorted(maps.Keys(p.Given)) {
		a := p.Given[id]
		if strings.TrimSpace(a.Text) == "" {
			continue
		}
		l, err := measure.Parse(a.Text, measure.Reading{Unit: cmp.Or(a.Unit, p.Units, unit)})
		var pe *measure.ParseError
		if errors.As(err, &pe) {
			bad = append(bad, starter.Problem{Key: id, At: pe.At, What: pe.What, Hint: pe.Hint})
			continue
		}
		if l <= 0 {
			bad = append(bad, starter.Problem{Key: id, What: "a piece of no length", Hint: "type how long it is"})
			continue
		}
		all[id] = l
	}
	if len(bad) > 0 {
		return nil, bad
	}
	return all, nil
}

// retyped gives a copy of a frame with some of its sizes typed over. One that the
// frame does not have is a problem where strict; it may have gone with an answer
// of a starter.
func retyped(doc *frame.Document, sizes map[string]starter.Answer, strict bool) (*frame.Document, error) {
	d := doc.Clone()
	var bad SizeProblems
	for _, id := range slices.Sorted(maps.Keys(sizes)) {
		a := sizes[id]
		dim := d.SizeOf(id)
		if dim == nil && !strict {
			continue
		}
		if dim == nil {
			bad = append(bad, starter.Problem{Key: id, What: "the frame has no such size", Hint: "take this change back"})
			continue
		}
		text, said := frame.SplitMeaning(a.Text)
		l, err := measure.Parse(text, measure.Reading{Unit: cmp.Or(a.Unit, d.Units)})
		var pe *measure.ParseError
		if errors.As(err, &pe) {
			bad = append(bad, starter.Problem{Key: id, At: pe.At, What: pe.What, Hint: pe.Hint})
			continue
		}
		if m := cmp.Or(said, a.Meaning); m != "" && m != dim.Meaning {
			if !slices.Contains(dim.Can(a.Of != ""), m) {
				what := fmt.Sprintf("this size cannot be %s", frame.Label(frame.MeaningWords(), m))
				bad = append(bad, starter.Problem{Key: id, What: what, Hint: "it can be " + dim.CanSay(a.Of != "")})
				continue
			}
			ofPipe := m == frame.Cut || m == frame.Visible
			switch {
			case ofPipe && dim.Pipe == "":
				dim.Pipe = a.Of
			case !ofPipe && dim.Axis != "":
				dim.Pipe = ""
			}
			dim.Meaning = m
		}
		if dim.Gave != nil && l != dim.Value { // typed anew, it is the last that was said
			dim.Gave, dim.Rank = nil, d.NextRank()
		}
		dim.Value, dim.Text, dim.Unit, dim.Inferred, dim.Solves = l, text, cmp.Or(a.Unit, d.Units), false, ""
	}
	if len(bad) > 0 {
		return nil, bad
	}
	return d, nil
}
