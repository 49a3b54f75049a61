package edit

import (
	"fmt"
	"slices"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
)

// Resize gives pipes another size.
type Resize struct {
	Pipe string       `json:"pipe"`
	More []string     `json:"more,omitempty"` // pipes that get the same
	Run  bool         `json:"run,omitempty"`  // and all that goes on in line with it
	Size catalog.Size `json:"size"`           // "" for the default of its group
}

var _ = register[Resize]("resize")

func (w *Resize) on(e *editor) (Done, error) {
	if w.Size != "" && !w.Size.Known() {
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	var all []int
	for _, id := range append([]string{w.Pipe}, w.More...) {
		i, err := e.edge(id)
		if err != nil {
			return Done{}, err
		}
		some := []int{i}
		if w.Run {
			some = e.run(i)
		}
		for _, i := range some {
			if !slices.Contains(all, i) {
				all = append(all, i)
			}
		}
	}
	var also []string
	for _, i := range all {
		_, p, scope, err := e.pipe(e.view.Graph.Edges[i].ID)
		if err != nil {
			return Done{}, err
		}
		p.Size = w.Size
		also = append(also, e.everywhere(scope)...)
	}
	label := fmt.Sprintf("%s to %s", mention.Of(w.Pipe), sizeWords(w.Size))
	if w.Size == "" {
		label = mention.Of(w.Pipe) + " to the usual size"
	}
	switch {
	case len(all) > 1 && !w.Run:
		label = fmt.Sprintf("%d pipes to %s", len(all), sizeWords(w.Size))
	case len(all) > 1:
		label = fmt.Sprintf("%d pipes in line to %s", len(all), sizeWords(w.Size))
	}
	return Done{Label: label, Pipe: w.Pipe, Also: slices.Compact(slices.Sorted(slices.Values(also)))}, nil
}

// run is a pipe and all that goes on in line with it.
func (e *editor) run(i int) []int {
	g, in := e.view.Graph, []int{i}
	for k := 0; k < len(in); k++ {
		for end, n := range g.Edges[in[k]].Ends {
			d := e.leaves(frame.PipeEnd{Pipe: in[k], End: end})
			for _, pe := range g.Nodes[n].Pipes {
				if !slices.Contains(in, pe.Pipe) && e.leaves(pe).AngleTo(d) > 180-2*fitting.Flex {
					in = append(in, pe.Pipe)
				}
			}
		}
	}
	return in
}
