package layout

import (
	"slices"
	"strings"

	"sturdyelbow/core/frame"
)

// GaveTo says what something gave way to, as that is now: a size that was typed anew since is told as it says today, and one
// that gave way itself is no reason any more. freed says that some of what it gave way to is gone, so that it may hold again.
func GaveTo(g *frame.Graph, gave *frame.GaveWay) (words string, freed bool) {
	names, now := Names{Graph: g}, []string{}
	freed = gave.Freed
	for _, id := range gave.Sizes {
		i := slices.IndexFunc(g.Sizes, func(z frame.ResolvedSize) bool { return z.ID == id })
		if i < 0 || g.Sizes[i].Gave != nil {
			freed = true
			continue
		}
		now = append(now, names.Name(Party{Kind: "size", ID: id}.Subject()))
	}
	if len(now) == 0 { // pipes and reasons have no numbers that change, and of what is gone the words are all there is
		return gave.Words, freed
	}
	if n := len(now); n > 1 {
		return strings.Join(now[:n-1], ", ") + " and " + now[n-1], freed
	}
	return now[0], freed
}
