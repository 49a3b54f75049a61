package sound

import (
	"slices"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/model"
	"sturdyelbow/core/together"
)

// Judge looks for what keeps a frame from being put together. linked says whether two
// pipes, by their ids, are meant to touch or to be in each other.
func Judge(b *model.Built, linked func(a, b string) bool) (fs []finding.Finding) {
	fs = slices.Concat(b.Fits.Clearances(b.Points, b.Curves, linked), questions(b), parts(b.Graph))
	switch {
	case b.Unfinished:
		fs = append(fs, finding.New("not-found", finding.Stop))
	case !b.Settled:
		fs = append(fs, finding.New("not-settled", finding.Warn))
	}
	return fs
}

// questions asks about sizes that read like a pipe's name: a length of 1-1/2
// where the fittings leave no room for one is perhaps 1-1/2 pipe.
func questions(b *model.Built) (fs []finding.Finding) {
	for _, pc := range b.List.Pieces {
		if !pc.TooShort {
			continue
		}
		size, ok := catalog.NominalOf(pc.Centre)
		for _, s := range b.Sizes {
			if n, is := catalog.NominalOf(s.Value); is && s.Centre == pc.Centre {
				size, ok = n, true
			}
		}
		if ok {
			fs = append(fs, finding.New("length-or-size", finding.Question, finding.All(finding.Pipe, pc.Pipe)...).With("size", size))
		}
	}
	return fs
}

// parts says when a frame is in several parts that no pipe and no link joins.
func parts(g *frame.Graph) []finding.Finding {
	sets := together.New(len(g.Nodes))
	for _, e := range g.Edges {
		sets.Join(e.Ends[0], e.Ends[1], 0)
	}
	for _, l := range g.Links {
		for _, s := range l.On[1:] {
			sets.Join(g.NodeOf(l.On[0]), g.NodeOf(s), 0)
		}
	}
	roots := map[int]bool{}
	for i, n := range g.Nodes {
		if len(n.Pipes) > 0 {
			roots[sets.Root(i)] = true
		}
	}
	n := len(roots)
	if n < 2 {
		return nil
	}
	return []finding.Finding{finding.New("loose-parts", finding.Note).With("parts", n)}
}
