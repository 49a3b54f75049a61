package packing_test

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"sturdyelbow/core/packing"
	"sturdyelbow/core/packing/families"
)

func TestLook(t *testing.T) {
	want := os.Getenv("FAMILY")
	for _, f := range families.All() {
		if want != "" && !strings.Contains(f.Name, want) {
			continue
		}
		var times []time.Duration
		proven := 0
		line := ""
		for seed := range uint64(20) {
			p := f.Make(seed)
			start := time.Now()
			a, err := packing.Solve(context.Background(), p)
			if err != nil {
				t.Fatal(err)
			}
			d := time.Since(start)
			if err := p.Verify(a.Bins); err != nil {
				t.Fatal(err)
			}
			times = append(times, d)
			if a.Proven {
				proven++
			}
			line += fmt.Sprintf(" %d/%d:%d:%dM", a.Total.Cost, a.Bound.Cost, d.Milliseconds(), a.Steps/1e6)
		}
		slices.Sort(times)
		fmt.Printf("%-18s proven %d median %v max %v\n  %s\n", f.Name, proven, times[10].Round(time.Microsecond), times[19].Round(time.Millisecond), line)
	}
}
