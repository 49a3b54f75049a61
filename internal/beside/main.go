// Command beside measures package packing on families of hard instances, and a general solver
// of integer programs, CBC, on the arc-flow model of the same instances in the same run. It
// prints a table for docs/benchmarks/packing.md. CBC is Debian's package coinor-cbc; it runs
// on one thread, for a minute at the most.
package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"runtime"
	"slices"
	"strings"
	"time"

	"sturdyelbow/core/packing"
	"sturdyelbow/core/packing/families"
)

func main() {
	seeds := flag.Int("seeds", 20, "instances of each family")
	rival := flag.Int("cbc", 5, "of these, how many CBC solves too")
	limit := flag.Duration("cap", time.Minute, "what CBC may take for one")
	only := flag.String("family", "", "only families with this in their name")
	flag.Parse()
	if err := run(*seeds, *rival, *limit, *only); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(seeds, rival int, limit time.Duration, only string) error {
	version := "no CBC here"
	if out, err := exec.Command("cbc", "-quit").Output(); err == nil {
		version = field(string(out), "Version:")
	} else {
		rival = 0
	}
	fmt.Printf("%s, %s, %s; CBC %s\n\n", time.Now().Format(time.DateOnly), runtime.Version(), processor(), version)
	fmt.Println("| family | instances | proven | median | longest | CBC, each instance | CBC ÷ packing |")
	fmt.Println("|---|---|---|---|---|---|---|")
	for _, f := range families.All() {
		if !strings.Contains(f.Name, only) {
			continue
		}
		var took []time.Duration
		var other, times []string
		proven := 0
		for seed := range seeds {
			p := f.Make(uint64(seed))
			a, d, err := solve(p)
			if err != nil {
				return fmt.Errorf("%s, seed %d: %w", f.Name, seed, err)
			}
			if a.Proven {
				proven++
			}
			took = append(took, d)
			if seed < rival {
				r, err := cbc(&p, limit)
				if err != nil {
					return err
				}
				word := round(r.took)
				switch {
				case !r.optimal:
					word = "> " + word
				case r.cost != a.Total.Cost:
					return fmt.Errorf("%s, seed %d: CBC finds %d, packing %d", f.Name, seed, r.cost, a.Total.Cost)
				}
				other = append(other, word)
				times = append(times, fmt.Sprintf("%.0f", float64(r.took)/float64(d)))
			}
		}
		slices.Sort(took)
		fmt.Printf("| %s | %d | %d | %s | %s | %s | %s |\n", f.Name, seeds, proven, round(took[len(took)/2]), round(took[len(took)-1]),
			strings.Join(other, ", "), strings.Join(times, ", "))
	}
	return nil
}

// solve takes the middle one of three runs: the answers are the same.
func solve(p packing.Problem) (a packing.Answer, took time.Duration, err error) {
	var all []time.Duration
	for range 3 {
		start := time.Now()
		if a, err = packing.Solve(context.Background(), p); err != nil {
			return a, 0, err
		}
		all = append(all, time.Since(start))
	}
	slices.Sort(all)
	return a, all[1], p.Verify(a.Bins)
}

func round(d time.Duration) string {
	switch {
	case d < time.Millisecond:
		return fmt.Sprintf("%.2f ms", float64(d)/float64(time.Millisecond))
	case d < 100*time.Millisecond:
		return fmt.Sprintf("%.1f ms", float64(d)/float64(time.Millisecond))
	case d < time.Second:
		return fmt.Sprintf("%.0f ms", float64(d)/float64(time.Millisecond))
	}
	return fmt.Sprintf("%.1f s", d.Seconds())
}

func processor() string {
	data, err := os.ReadFile("/proc/cpuinfo")
	if err != nil {
		return runtime.GOARCH
	}
	return strings.TrimSpace(strings.TrimPrefix(field(string(data), "model name"), ":"))
}

// field gives what stands behind a word, up to the end of its line.
func field(text, name string) string {
	_, rest, _ := strings.Cut(text, name)
	line, _, _ := strings.Cut(rest, "\n")
	return strings.TrimSpace(line)
}
