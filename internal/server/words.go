package server

import (
	"encoding/json"

	"sturdyelbow/core/bows"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/material"
	"sturdyelbow/core/record"
)

// Words is a JSON object of what the interface says of the rules, so that each is
// written once, beside its rule: for meaning, class, mode, path and kind a list of
// labels {value, words, note}; of strain the shares that keep well and that may be;
// byLength the kinds of hardware that are sold by the length; of record how many small parts and
// how many sticks are said at once, and by how many nanometres a stick may be longer than its name.
// The interface is built with it.
func Words() ([]byte, error) {
	kinds := []frame.Word{}
	for _, k := range catalog.Kinds() {
		kinds = append(kinds, frame.Word{Value: string(k), Words: k.Words()})
	}
	return json.Marshal(map[string]any{
		"meaning": frame.MeaningWords(), "class": frame.ClassWords(), "mode": frame.ModeWords(),
		"path": frame.PathWords(), "school": joinery.SchoolWords(), "kind": kinds, "lines": lines.Forms(),
		"byLength": material.ByLength(),
		"record":   map[string]int64{"parts": record.MostAtOnce, "sticks": record.MostSticksAtOnce, "overLong": int64(record.OverLong)},
		"strain":   map[string]float64{"good": bows.GoodStrain, "most": bows.MostStrain},
	})
}
