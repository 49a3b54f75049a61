package layout

import (
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// places lists, for each scope, the planes that its joints stand on.
func (s *solver) places() {
	s.out.Places = make([]Place, len(s.g.Scopes))
	s.gather()
	for i := range s.g.Scopes {
		sc, p := &s.g.Scopes[i], &s.out.Places[i]
		p.Path, p.Group = sc.Path, sc.Of
		for a := range 3 {
			p.Axes[a] = sc.Orient.Dir(measure.Axis(a).Dir())
			p.Planes[a] = s.planesOf(i, measure.Axis(a))
		}
	}
}

// member is a joint of a scope, by its name there.
type member struct {
	node  int
	local string
}

// inScope is what belongs to one scope, those inside it included for joints.
type inScope struct {
	members        []member
	sizes, reasons []int
}

// gather sorts joints, sizes and reasons by their scopes. A joint is in its own
// scope and in every one around it; one that was merged, also in those of the
// names that it had.
func (s *solver) gather() {
	s.in = make([]inScope, len(s.g.Scopes))
	byPath := map[string]int{}
	for i := range s.g.Scopes {
		byPath[s.g.Scopes[i].Path] = i
	}
	for n := range s.g.Nodes {
		add := func(scope int, local string) {
			l := &s.in[scope].members
			if len(*l) == 0 || (*l)[len(*l)-1].node != n {
				*l = append(*l, member{n, local})
			}
		}
		name := func(id string) {
			add(0, id)
			for i := range id {
				if id[i] == '/' {
					if scope, ok := byPath[id[:i]]; ok {
						add(scope, id[i+1:])
					}
				}
			}
		}
		name(s.g.Nodes[n].ID)
		for _, id := range s.g.Nodes[n].Names {
			name(id)
		}
	}
	for i := range s.g.Sizes {
		in := &s.in[s.g.Sizes[i].Scope]
		in.sizes = append(in.sizes, i)
	}
	for i := range s.g.Reasons {
		in := &s.in[s.g.Reasons[i].Scope]
		in.reasons = append(in.reasons, i)
	}
}

func (s *solver) planesOf(scope int, a measure.Axis) []Plane {
	sc := &s.g.Scopes[scope]
	k, sign := s.along(scope, a)
	all := []Plane{}
	at := map[constraint.Var]int{}
	see := func(v constraint.Var) *Plane {
		l := s.levelOf(v)
		i, ok := at[l]
		if !ok {
			i = len(all)
			at[l] = i
			all = append(all, Plane{At: sign * s.found.At[v], Joints: []string{}})
		}
		return &all[i]
	}
	for _, p := range sc.Planes[a] {
		l := see(s.plane(scope, int(a), p.ID))
		if l.Ref == "" {
			l.Ref, l.Name = frame.OnPlane(p.ID), p.ID
		}
	}
	for _, m := range s.in[scope].members {
		p, has := s.nodes[[2]int{m.node, s.axesOf[scope]}]
		if !has {
			continue
		}
		local := m.local
		l := see(p[k])
		if l.Ref == "" {
			l.Ref, l.Name = frame.Ref(local), s.called(scope, m.node, local)
			use, _, deeper := strings.Cut(local, "/")
			_, no, array := strings.Cut(use, "#")
			l.Copied = deeper && array && no != "1"
		}
		l.Joints = append(l.Joints, local)
	}
	find := func(w frame.ResolvedRef) int {
		v, ok := s.coordinate(w, scope, a)
		if !ok {
			return -1
		}
		if i, ok := at[s.levelOf(v)]; ok {
			return i
		}
		return -1
	}
	for _, i := range s.in[scope].sizes {
		z := &s.g.Sizes[i]
		if z.Gave != nil {
			continue
		}
		from, to := -1, -1
		switch {
		case z.Axis == frame.AxisName(int(a)):
			from, to = find(z.From), find(z.To)
		case z.Axis == "":
			p, q := s.sizeEnds(z)
			if l, ok := s.lines[[2]int{p, q}]; ok && l.axis == k && l.axes == s.axesOf[scope] {
				from, to = find(frame.ResolvedRef{Node: p}), find(frame.ResolvedRef{Node: q})
			}
		}
		if to < 0 || from < 0 && z.Size.From != frame.Floor {
			continue
		}
		if from >= 0 && all[from].At > all[to].At {
			from, to = to, from
		}
		if all[to].Size == "" {
			all[to].Size = z.ID
			if all[to].From = frame.Floor; from >= 0 {
				all[to].From = all[from].Ref
			}
		}
	}
	for _, i := range s.in[scope].reasons {
		t := &s.g.Reasons[i]
		if t.Axis != "" && t.Axis != frame.AxisName(int(a)) {
			continue
		}
		of, from, to := find(t.Of), find(t.From), find(t.To)
		switch {
		case t.Kind == frame.Share && of >= 0 && from >= 0 && to >= 0 && from != to:
			all[of].Even = []frame.Ref{all[from].Ref, all[to].Ref}
		case t.Kind == frame.EqualTo && of >= 0:
			all[of].EqualAxis = t.EqualAxis
		}
	}
	sortPlanes(all)
	mark := 0
	for i := range all {
		slices.Sort(all[i].Joints)
		if i > 0 && all[i].At-all[i-1].At > OneMark {
			mark++
		}
		all[i].Mark = mark
	}
	return all
}

// OneMark is how near planes stand that are one mark of a ruler.
const OneMark = measure.Inch / 500

// Station finds the place along an axis that the rulers number k, from 0; -1 where there is none.
func (p *Place) Station(a measure.Axis, k int) int {
	return slices.IndexFunc(p.Planes[a], func(l Plane) bool { return l.Mark == k })
}

// Called finds a plane by what a builder calls it: by its name with or without =, by its number along
// its axis as the rulers have it (x2), or by a joint on it (x@j7). The joint is one of the scope, or
// what local gives for its name.
func (p *Place) Called(name string, local func(joint string) (string, bool)) (measure.Axis, frame.Ref, bool) {
	named := frame.OnPlane(strings.TrimPrefix(name, "="))
	for a := range measure.Axis(3) {
		if p.Find(a, named) >= 0 {
			return a, named, true
		}
	}
	if axis, joint, ok := strings.Cut(name, "@"); ok {
		a := measure.Axis(frame.AxisOf(strings.ToLower(axis)))
		if a < 0 {
			return 0, "", false
		}
		if p.Find(a, frame.Ref(joint)) < 0 {
			if joint, ok = local(joint); !ok || p.Find(a, frame.Ref(joint)) < 0 {
				return 0, "", false
			}
		}
		return a, frame.Ref(joint), true
	}
	if len(name) < 2 {
		return 0, "", false
	}
	a := measure.Axis(frame.AxisOf(strings.ToLower(name[:1])))
	k, err := strconv.ParseUint(name[1:], 10, 16)
	if a < 0 || err != nil {
		return 0, "", false
	}
	i := p.Station(a, int(k))
	if i < 0 {
		return 0, "", false
	}
	return a, p.Planes[a][i].Ref, true
}
