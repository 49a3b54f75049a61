package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
)

// bow turns a spring into the world's axes.
func (s *Spring) bow(o Orient) *Bow {
	if s == nil {
		return nil
	}
	b := &Bow{Toward: o.Dir(measure.Z.Dir())}
	if s.Bow != nil {
		b.Toward = o.Dir(s.Bow.Unit())
	}
	for k, d := range s.Leave {
		if d != (measure.Dir{}) {
			v := o.Dir(d.Unit())
			b.Leave[k] = &v
		}
	}
	return b
}

// checkPath checks what a pipe says of its way.
func (def *Definition) checkPath(ps *Problems, p *Pipe, path string) {
	switch p.Path {
	case Straight, Sprung, Bent:
	default:
		ps.add(path+"/path", fmt.Sprintf("unknown path %q", p.Path), "use sprung or bent, or leave it out for a straight pipe")
		return
	}
	if p.Path != Sprung && p.Spring != nil {
		ps.add(path+"/spring", fmt.Sprintf("pipe %q is not sprung", p.ID), "set its path to sprung, or leave this out")
	}
	if p.Path != Bent && (len(p.Via) > 0 || p.Radius != 0) {
		ps.add(path+"/via", fmt.Sprintf("pipe %q is not bent", p.ID), "set its path to bent, or leave this out")
	}
	switch p.Path {
	case Sprung:
		p.Spring.check(ps, p.ID, path+"/spring")
		if p.Spring == nil {
			return
		}
		i := slices.IndexFunc(def.Sizes, func(s Size) bool { return s.Pipe == p.ID })
		switch {
		case i < 0 && p.Spring.Leave[1] == measure.Dir{}:
			ps.add(
				path+"/spring",
				fmt.Sprintf("how long is pipe %q, or how high does it bow?", p.ID),
				"give its cut length or its rise; half a hoop is held at its second end",
			)
		case i < 0:
		case !slices.Contains([]Meaning{Cut, Centre, Outside, Clear}, def.Sizes[i].Meaning):
			ps.add(
				path+"/spring",
				fmt.Sprintf("%q says nothing of a bow", def.Sizes[i].Meaning),
				"use cut for its length, or centre, outside or clear for its rise",
			)
		case def.Sizes[i].Value <= 0:
			ps.add(path+"/spring", "a bow of no size", "give its length or its rise")
		}
	case Bent:
		if len(p.Via) == 0 {
			ps.add(path+"/via", fmt.Sprintf("pipe %q goes round no joint", p.ID), "name the joints where its legs would cross")
		}
		if p.Radius <= 0 || p.Radius > measure.FrameLimit {
			ps.add(path+"/radius", fmt.Sprintf("pipe %q is bent to no radius", p.ID), "give the radius of its middle line")
		}
	}
}

func (s *Spring) check(ps *Problems, pipe, path string) {
	if s == nil {
		ps.add(path, fmt.Sprintf("how does pipe %q bow?", pipe), "give its length, its rise, or how it leaves its ends")
		return
	}
	if s.Bow != nil && !direction(*s.Bow) {
		ps.add(path+"/bow", "a direction of no length, or of one beyond telling", directionHint)
	}
	for k, d := range s.Leave {
		if d != (measure.Dir{}) && !direction(d) {
			ps.add(fmt.Sprintf("%s/leave/%d", path, k), "a direction of no length, or of one beyond telling", directionHint)
		}
	}
}
