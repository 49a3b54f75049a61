package edit

import (
	"encoding/json"
	"sturdyelbow/core/finding"
)

// FixPath is the path of a fix that is a gesture on the frame, an [Edit],
// rather than an edit of what was stated.
const FixPath = "/gesture"

// Fix is a fix of a finding that is a gesture.
func Fix(label string, e Edit) finding.Fix {
	data, err := json.Marshal(e)
	if err != nil {
		panic(err) // plain values
	}
	return finding.Fix{Label: label, Edits: []finding.Edit{{Path: FixPath, Value: data}}}
}
