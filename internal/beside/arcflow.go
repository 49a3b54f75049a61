package main

import (
	"bufio"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"sturdyelbow/core/packing"
)

// result is what CBC says of an instance.
type result struct {
	optimal bool
	cost    int64
	took    time.Duration // of the processor
}

// cbc solves the arc-flow model of an instance.
func cbc(p *packing.Problem, limit time.Duration) (r result, err error) {
	dir, err := os.MkdirTemp("", "arcflow")
	if err != nil {
		return r, err
	}
	defer os.RemoveAll(dir)
	model, answer := filepath.Join(dir, "model.lp"), filepath.Join(dir, "answer.txt")
	f, err := os.Create(model)
	if err != nil {
		return r, err
	}
	w := bufio.NewWriter(f)
	arcFlow(w, p)
	if err := w.Flush(); err != nil {
		return r, err
	}
	if err := f.Close(); err != nil {
		return r, err
	}
	c := exec.Command("cbc", model, "-threads", "1", "-sec", strconv.Itoa(int(limit.Seconds())), "-solve", "-solution", answer)
	out, err := c.Output()
	if err != nil {
		return r, fmt.Errorf("cbc: %w: %s", err, out)
	}
	r.took = c.ProcessState.UserTime() + c.ProcessState.SystemTime()
	said, err := os.ReadFile(answer)
	if err != nil {
		return r, err
	}
	first, _, _ := strings.Cut(string(said), "\n")
	r.optimal = strings.HasPrefix(first, "Optimal")
	value, err := strconv.ParseFloat(field(first+"\n", "objective value"), 64)
	r.cost = int64(math.Round(value))
	return r, err
}

// arcFlow writes an instance as a flow (Valério de Carvalho, 1999): a bin is a way from nought
// over the pieces in it, largest first, to the end of its room. Rooms and sizes are divided by
// what they have in common.
func arcFlow(w *bufio.Writer, p *packing.Problem) {
	unit := int64(0)
	for _, it := range p.Items {
		for a, b := unit, it.Size; ; a, b = b, a%b {
			if b == 0 {
				unit = a
				break
			}
		}
	}
	room := int64(0)
	for _, k := range p.Kinds {
		room = max(room, k.Room/unit)
	}
	type arc struct {
		from, to int64
		item     int
	}
	var arcs []arc
	reached := make([]bool, room+1)
	reached[0] = true
	for i, it := range p.Items {
		size := it.Size / unit
		seen := map[int64]bool{}
		for d := room; d >= 0; d-- { // from the far end: what this item reaches is not gone on from
			if !reached[d] {
				continue
			}
			for n := int64(0); n < int64(it.Count) && d+(n+1)*size <= room; n++ {
				if from := d + n*size; !seen[from] {
					seen[from] = true
					arcs = append(arcs, arc{from, from + size, i})
				}
			}
		}
		for from := range seen {
			reached[from+size] = true
		}
	}
	var nodes []int64
	for d := range reached {
		if reached[d] {
			nodes = append(nodes, int64(d))
		}
	}
	slices.SortFunc(arcs, func(a, b arc) int {
		if a.item != b.item {
			return a.item - b.item
		}
		return int(a.from - b.from)
	})
	end := make([]int64, len(p.Kinds)) // the last node in a kind's room
	for k, kd := range p.Kinds {
		for _, d := range nodes {
			if d <= kd.Room/unit {
				end[k] = d
			}
		}
	}
	fmt.Fprint(w, "Minimize\n obj:")
	for k, kd := range p.Kinds {
		fmt.Fprintf(w, " + %d z%d", kd.Cost, k)
	}
	fmt.Fprint(w, "\nSubject To\n")
	balance := map[int64]*strings.Builder{}
	for _, d := range nodes {
		balance[d] = &strings.Builder{}
	}
	for n, a := range arcs {
		fmt.Fprintf(balance[a.from], " - x%d", n)
		fmt.Fprintf(balance[a.to], " + x%d", n)
	}
	for n := range len(nodes) - 1 { // what stays empty
		fmt.Fprintf(balance[nodes[n]], " - e%d", n)
		fmt.Fprintf(balance[nodes[n+1]], " + e%d", n)
	}
	for k := range p.Kinds {
		fmt.Fprintf(balance[0], " + z%d", k)
		fmt.Fprintf(balance[end[k]], " - z%d", k)
	}
	for n, d := range nodes {
		fmt.Fprintf(w, " n%d:%s = 0\n", n, balance[d])
	}
	for i, it := range p.Items {
		fmt.Fprintf(w, " i%d:", i)
		for n, a := range arcs {
			if a.item == i {
				fmt.Fprintf(w, " + x%d", n)
			}
		}
		fmt.Fprintf(w, " >= %d\n", it.Count)
	}
	fmt.Fprint(w, "Bounds\n")
	for n, a := range arcs {
		fmt.Fprintf(w, " 0 <= x%d <= %d\n", n, p.Items[a.item].Count)
	}
	fmt.Fprint(w, "General\n")
	for n := range arcs {
		fmt.Fprintf(w, " x%d\n", n)
	}
	for n := range len(nodes) - 1 {
		fmt.Fprintf(w, " e%d\n", n)
	}
	for k := range p.Kinds {
		fmt.Fprintf(w, " z%d\n", k)
	}
	fmt.Fprint(w, "End\n")
}
