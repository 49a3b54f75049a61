package frame

import (
	"fmt"
	"strings"

	"sturdyelbow/core/measure"
)

// pitch stands a further copy of an array a pitch from the one before it, level
// with it across.
func (e *expander) pitch(u *Use, of string, scope int, from, to string, k int) {
	for a := range 3 {
		p, ok1 := e.anchorOf(u, from, measure.Axis(a))
		q, ok2 := e.anchorOf(u, to, measure.Axis(a))
		if !ok1 || !ok2 {
			continue
		}
		if measure.Axis(a) != u.Array.Axis {
			e.g.Holds = append(e.g.Holds, ResolvedHold{scope, e.scopes[to], measure.Axis(a), p, q, u.ID, of, u.Rank})
			continue
		}
		s := *u.Array.Pitch
		s.Axis = axisNames[a]
		st := ResolvedSize{
			Size:  &s,
			Key:   fmt.Sprintf("%s@%s", s.ID, to),
			Scope: scope,
			Pipe:  -1,
			From:  p,
			To:    q,
			Foot:  -1,
			Again: e.seen[s.ID] || k > 1,
		}
		e.seen[s.ID] = true
		if s.Pipe == "" {
			e.g.Sizes = append(e.g.Sizes, st)
			continue
		}
		e.later = append(e.later, func() { // it is the cut of the pipe that runs from copy to copy
			st.Pipe = e.railBetween(u, scope, s.Pipe, k)
			e.g.Sizes = append(e.g.Sizes, st)
		})
	}
}

// railBetween finds the pipe that runs from the copy before copy k+1 of an array to it as another
// one runs from the first to the second; that one where there is none.
func (e *expander) railBetween(u *Use, scope int, first string, k int) int {
	path := e.g.Scopes[scope].Path
	i, ok := e.pipes[join(path, first)]
	if !ok {
		return -1
	}
	rail := e.g.Edges[i].Drawn
	shifted := func(ref string) string {
		for n, m := range map[int]int{1: k, 2: k + 1} {
			if rest, in := strings.CutPrefix(ref, fmt.Sprintf("%s#%d/", u.ID, n)); in {
				return fmt.Sprintf("%s#%d/%s", u.ID, m, rest)
			}
		}
		return ref
	}
	from, to := shifted(rail.From), shifted(rail.To)
	for n := range e.g.Edges {
		d := e.g.Edges[n].Drawn
		if e.g.Edges[n].Scope == scope && d != nil && (d.From == from && d.To == to || d.From == to && d.To == from) {
			return n
		}
	}
	return i
}
