package layout

import (
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// meanings says of each size what it could mean as well.
func (s *solver) meanings() {
	done := map[string]bool{}
	for i := range s.g.Sizes {
		z := &s.g.Sizes[i]
		k := slices.IndexFunc(s.out.Sizes, func(o Size) bool { return o.ID == z.ID })
		if k < 0 || done[z.ID] {
			continue
		}
		done[z.ID] = true
		o := &s.out.Sizes[k]
		if z.Size.Pipe == "" && z.Axis != "" && z.Size.From != frame.Floor {
			o.Between = s.pipeBetween(z)
		}
		o.Can = z.Can(o.Between != "")
	}
	for i := range s.out.Sizes {
		if s.out.Sizes[i].Can == nil {
			s.out.Sizes[i].Can = []frame.Meaning{s.out.Sizes[i].Is}
		}
	}
}

// pipeBetween finds a straight pipe of a size's own definition that runs from one of its places to the
// other, by its name there; empty where there is none.
func (s *solver) pipeBetween(z *frame.ResolvedSize) string {
	a := measure.Axis(frame.AxisOf(z.Axis))
	place := &s.out.Places[z.Scope]
	lo, hi := place.Find(a, z.Size.From), place.Find(a, z.Size.To)
	if lo < 0 || hi < 0 {
		return ""
	}
	on := func(plane, node int) bool {
		id := s.g.Nodes[node].ID
		if place.Path != "" {
			id = id[min(len(id), len(place.Path)+1):]
		}
		return slices.Contains(place.Planes[a][plane].Joints, id)
	}
	dir := s.g.Scopes[z.Scope].Orient.Dir(a.Dir())
	for i := range s.g.Edges {
		e := &s.g.Edges[i]
		if e.Scope != z.Scope || e.Path != frame.Straight {
			continue
		}
		if c := dir.Dot(s.out.Tangents[i][0]); c < 1-1e-9 && c > -1+1e-9 {
			continue
		}
		if on(lo, e.Ends[0]) && on(hi, e.Ends[1]) || on(lo, e.Ends[1]) && on(hi, e.Ends[0]) {
			return e.Drawn.ID
		}
	}
	return ""
}
