package server

import (
	"encoding/json"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
)

// Words is a JSON object of the labels of what a builder chooses among:
// for each of meaning, class, mode, path and kind a list of {value, words, note}.
// The interface is built with it, so a label is written once, beside its rule.
func Words() ([]byte, error) {
	kinds := []frame.Word{}
	for _, k := range catalog.Kinds() {
		kinds = append(kinds, frame.Word{Value: string(k), Words: k.Words()})
	}
	return json.Marshal(map[string][]frame.Word{
		"meaning": frame.MeaningWords(), "class": frame.ClassWords(), "mode": frame.ModeWords(),
		"path": frame.PathWords(), "kind": kinds,
	})
}
