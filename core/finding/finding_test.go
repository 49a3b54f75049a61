package finding_test

import (
	"fmt"

	"sturdyelbow/core/finding"
)

func Example() {
	fs := []finding.Finding{{Code: "b", Severity: finding.Note}, {Code: "c", Severity: finding.Stop, Frame: 1}, {Code: "a", Severity: finding.Stop}, {Code: "a", Severity: finding.Question}}
	finding.Sort(fs)
	for _, f := range fs {
		fmt.Println(f.Severity, f.Code)
	}
	// Output:
	// stop a
	// stop c
	// question a
	// note b
}
