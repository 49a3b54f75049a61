package server

import (
	"encoding/json"

	"sturdyelbow/core/bows"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/material"
)

// Words is a JSON object of what the interface says of the rules, so that each is
// written once, beside its rule: for meaning, class, mode, path and kind a list of
// labels {value, words, note}; of strain the shares that keep well and that may be;
// byLength the kinds of hardware that are sold by the length.
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
		"strain":   map[string]float64{"good": bows.GoodStrain, "most": bows.MostStrain},
	})
}
