package why_test

import (
	"fmt"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

func Example() {
	s := why.Sum{{Label: "centre to centre", Value: 48 * measure.Inch}}
	s = s.Plus("stop", -9*measure.Inch/16).Plus("nothing at all", 0)
	fmt.Println(len(s), "terms make", s.Total())
	// Output: 2 terms make 47 7/16"
}
