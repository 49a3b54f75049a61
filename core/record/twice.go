package record

import (
	"slices"

	"sturdyelbow/core/measure"
)

// sameOnTape is how much two lengths may differ and still be one on the tape.
const sameOnTape = measure.Inch / 128

// AlikeOnTape says whether two lengths are one on the tape.
func AlikeOnTape(a, b measure.Length) bool { return (a - b).Abs() <= sameOnTape }

// sameCut says whether two pieces may be one, said to be cut twice: of one pipe and copy,
// as long, by one plan, which asks for each piece once, or on two devices.
func sameCut(a, b *Made) bool {
	return AlikeOnTape(a.Length, b.Length) && (a.Basis != "" && a.Basis == b.Basis || a.Device != b.Device)
}

// Twice gives the pieces that may be said twice, each with the one that was said first. Nobody has decided yet: one of
// the two may be taken back, or the second be said to be there besides ([BothCut]). What is cemented is there.
func (w *Work) Twice() map[string]string {
	type place struct {
		Piece
		frame int
	}
	var twice map[string]string
	own := map[place][]int{}
	for k := range w.Pieces {
		m := &w.Pieces[k]
		at := place{m.Piece, m.Frame}
		for _, j := range own[at] {
			if first := &w.Pieces[j]; !m.Both && twice[first.ID] == "" && sameCut(first, m) && !w.Cemented(m) {
				if twice == nil {
					twice = map[string]string{}
				}
				twice[m.ID] = first.ID
				break
			}
		}
		own[at] = append(own[at], k)
	}
	return twice
}

// Without is the work as if some of its events were not there: neither what they cut nor what it was cut from.
func (w *Work) Without(events map[string]string) Work {
	if w.parts != nil {
		parts := make([]Work, len(w.parts))
		for i := range w.parts {
			parts[i] = w.parts[i].Without(events)
		}
		return Together(parts...)
	}
	return Add(slices.DeleteFunc(slices.Clone(w.events), func(e Event) bool {
		_, left := events[e.ID]
		if _, lent := events[e.Item]; e.Kind == Elsewhere && lent {
			left = true
		}
		return left
	}))
}
