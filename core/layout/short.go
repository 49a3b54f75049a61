package layout

import (
	"fmt"
	"strconv"
	"strings"

	"sturdyelbow/core/frame"
)

// ShortNames gives every joint of an expanded frame a short name: the one that the builder gave it, or j4. One that has
// such an id keeps it; the others go by the number that they were shown with, or are numbered in the frame's order, with
// the numbers that are free.
func ShortNames(g *frame.Graph) []string {
	names, taken := make([]string, len(g.Nodes)), map[string]bool{}
	for i := range g.Nodes {
		if id := g.Nodes[i].ID; short(id) {
			names[i], taken[id] = id, true
		}
	}
	for i := range names {
		if given := g.Nodes[i].Name; given != "" && g.Nodes[i].Scope == 0 && !taken[given] {
			names[i], taken[given] = given, true
		}
	}
	for i := range names {
		n, has := g.Doc.Shown[g.Nodes[i].ID]
		if !has || names[i] != "" {
			continue
		}
		if shown := fmt.Sprintf("j%d", n); !taken[shown] {
			names[i], taken[shown] = shown, true
		}
	}
	next := 1
	for i := range names {
		for names[i] == "" {
			if name := fmt.Sprintf("j%d", next); !taken[name] {
				names[i] = name
			}
			next++
		}
	}
	return names
}

// short says whether an id is a short name already.
func short(id string) bool {
	n, is := strings.CutPrefix(id, "j")
	_, err := strconv.ParseUint(n, 10, 32)
	return is && err == nil
}

// called is what a joint is called on the rulers of a scope: by its short name on the
// frame's own, by its name in the definition on a part's.
func (s *solver) called(scope, node int, local string) string {
	if scope > 0 {
		return local
	}
	if s.short == nil {
		s.short = ShortNames(s.g)
	}
	return s.short[node]
}
