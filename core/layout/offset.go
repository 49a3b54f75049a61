package layout

import (
	"fmt"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var words = map[frame.Meaning]string{
	frame.Centre: "centre to centre", frame.Outside: "outside of fittings", frame.Clear: "clear inside", frame.TopOfPipe: "floor to top of pipe",
	frame.TopOfCap: "floor to top of cap", frame.Slot: "slot between bodies", frame.Visible: "visible pipe", frame.Cut: "cut length",
}

// Words gives the meaning in the builder's words.
func Words(m frame.Meaning) string { return words[m] }

// offset is what one end of a dimension adds to the value to reach the
// centre. inward points from this end to the other.
func (s *solver) offset(sc int, a measure.Axis, station string, inward measure.Dir, d *frame.Dimension) (label string, v measure.Length) {
	joints := s.on[3*sc+int(a)][station]
	switch d.Meaning {
	case frame.Outside:
		for _, j := range joints {
			v = max(v, s.bodies.Reach(j, inward.Neg()))
		}
		return "what stands out beyond the centre", -v
	case frame.Clear:
		return "half the pipe", s.inPlane(joints, inward)
	case frame.Slot:
		for _, j := range joints {
			v = max(v, s.bodies.Reach(j, inward))
		}
		return "half the body", v
	case frame.Visible, frame.Cut:
		scope := &s.g.Scopes[sc]
		e := s.g.Edge(joinPath(scope.Path, d.Of))
		if e < 0 {
			s.note(finding.Finding{Code: "size-without-pipe", Severity: finding.Stop, Subject: []string{d.Of},
				Text: fmt.Sprintf("the pipe %q that this size measures does not exist", d.Of), Hint: "name another pipe or give the size another meaning"})
			return "", 0
		}
		for k, n := range s.g.Edges[e].Ends {
			for _, j := range joints {
				if j != n {
					continue
				}
				if d.Meaning == frame.Visible {
					return "centre to face", s.bodies.Face(frame.PipeEnd{Pipe: e, End: k})
				}
				return "centre to the pipe's end", s.bodies.TakeOff(frame.PipeEnd{Pipe: e, End: k})
			}
		}
		s.note(finding.Finding{Code: "size-off-its-pipe", Severity: finding.Stop, Subject: []string{d.Of},
			Text: fmt.Sprintf("the pipe %q does not run between the two stations it is to measure", d.Of), Hint: "name the pipe between them"})
	}
	return "", 0
}

func joinPath(path, id string) string {
	if path == "" {
		return id
	}
	return path + "/" + id
}

// inPlane is the greatest radius of the pipes that lie square to a direction
// at some joints; of the bodies there when no pipe does.
func (s *solver) inPlane(joints []int, d measure.Dir) measure.Length {
	var r measure.Length
	for _, j := range joints {
		for _, pe := range s.g.Nodes[j].Pipes {
			if s.lies(pe.Pipe, joints, j) {
				r = max(r, s.bodies.Radius(pe.Pipe))
			}
		}
	}
	if r == 0 {
		for _, j := range joints {
			r = max(r, s.bodies.Reach(j, d))
		}
	}
	return r
}

// lies says whether both ends of a pipe are among the joints of one station.
func (s *solver) lies(pipe int, joints []int, this int) bool {
	other := s.g.Edges[pipe].Ends[0]
	if other == this {
		other = s.g.Edges[pipe].Ends[1]
	}
	for _, j := range joints {
		if j == other {
			return true
		}
	}
	return false
}

// topOf is how far the top of what is meant stands above a station.
func (s *solver) topOf(on int, station string, m frame.Meaning, upward measure.Dir) measure.Length {
	joints := s.on[on][station]
	switch m {
	case frame.Centre:
		return 0
	case frame.TopOfPipe:
		return s.inPlane(joints, upward)
	}
	top := measure.Length(0)
	for i, j := range joints {
		if r := s.bodies.Reach(j, upward); i == 0 || r > top {
			top = r
		}
	}
	return top
}
