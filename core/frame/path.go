package frame

import (
	"fmt"
	"slices"

	"sturdyelbow/core/measure"
)

// bow turns a spring into the world's axes.
func (s *Spring) bow(o Orient, where string) *Bow {
	if s == nil {
		return nil
	}
	b := &Bow{Size: s.Size, Toward: o.Dir(measure.Z.Dir()), Pointer: where + "/spring/size"}
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
	if s.Bow != nil && s.Bow.Dot(*s.Bow) == 0 {
		ps.add(path+"/bow", "a direction of no length", "give a direction such as 0, 0, 1")
	}
	switch d := s.Size; {
	case d == nil && s.Leave[1] == measure.Dir{}:
		ps.add(path+"/size", fmt.Sprintf("how long is pipe %q, or how high does it bow?", pipe), "give its cut length or its rise; half a hoop is held at its second end")
	case d == nil:
	case !slices.Contains([]Meaning{Cut, Centre, Outside, Clear}, d.Meaning):
		ps.add(path+"/size/meaning", fmt.Sprintf("%q says nothing of a bow", d.Meaning), "use cut for its length, or centre, outside or clear for its rise")
	case d.Value <= 0 || d.Value > measure.FrameLimit:
		ps.add(path+"/size/value", "a bow of no size, or over 1,000 ft", "give its length or its rise")
	}
}
