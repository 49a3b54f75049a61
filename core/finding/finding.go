package finding

import (
	"cmp"
	"encoding/json"
	"slices"
)

// Severity says how much a finding matters.
type Severity string

// From "cannot be built so" to "good to know". Question asks the builder
// something that the plan cannot decide.
const (
	Stop     Severity = "stop"
	Warn     Severity = "warn"
	Question Severity = "question"
	Note     Severity = "note"
)

func (s Severity) rank() int { return slices.Index([]Severity{Stop, Warn, Question, Note}, s) }

// Edit is one change to the job: the JSON pointer of a member and its new value.
type Edit struct {
	Path  string          `json:"path"`
	Value json.RawMessage `json:"value"`
}

// Fix is a way to mend a finding.
type Fix struct {
	Label string `json:"label"`
	Edits []Edit `json:"edits"`
}

// Figure is a number a finding rests on, already worded.
type Figure struct {
	Label string `json:"label"`
	Text  string `json:"text"`
}

// Finding is one thing the plan noticed.
type Finding struct {
	Code     string   `json:"code"`
	Severity Severity `json:"severity"`
	Frame    int      `json:"frame"`   // index of the frame in the job
	Subject  []string `json:"subject"` // ids of joints, pipes or sizes
	Text     string   `json:"text"`    // what is so
	Hint     string   `json:"hint"`    // what to do about it
	Figures  []Figure `json:"figures,omitempty"`
	Fixes    []Fix    `json:"fixes,omitempty"`
}

// Sort puts the gravest first; ties go by code, then keep their order.
func Sort(fs []Finding) {
	slices.SortStableFunc(fs, func(a, b Finding) int {
		return cmp.Or(cmp.Compare(a.Severity.rank(), b.Severity.rank()), cmp.Compare(a.Frame, b.Frame), cmp.Compare(a.Code, b.Code))
	})
}
