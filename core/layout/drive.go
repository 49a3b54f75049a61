package layout

import (
	"fmt"
	"maps"
	"math"
	"strings"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/linear"
	"sturdyelbow/core/measure"
)

// Driven is a size between two joints, or of a pipe, that other sizes answer
// to, as it came out.
type Driven struct {
	ID     string         `json:"id"`
	Pipe   string         `json:"pipe,omitempty"`
	Ends   [2]string      `json:"ends,omitzero"`
	Is     frame.Meaning  `json:"meaning"`
	Text   string         `json:"text"`
	Value  measure.Length `json:"value"` // stated
	Out    measure.Length `json:"out"`   // what it is
	Gives  string         `json:"gives,omitempty"`
	Lead   []string       `json:"lead"`             // JSON pointers of the sizes that lead to it
	Contra bool           `json:"contra,omitempty"` // it does not hold
}

const (
	// driveSlack is how near a driven size comes to what was asked.
	driveSlack = measure.Inch / 100_000
	// checkSlack is how far a size that nothing gives way to may be off before
	// it contradicts the others: what rounding cuts to the tape may leave.
	checkSlack = measure.Inch / 32
	// driveProbe is how far a size is moved to see what it does to another.
	driveProbe  = measure.Inch / 8
	driveRounds = 24
)

// drive moves the sizes that give way until every driven size is what was
// asked, by Newton's method with differences for slopes.
func (s *solver) drive() {
	drives := s.g.Doc.Drives
	free := []int{} // drives that something gives way to
	for i := range drives {
		if drives[i].Gives != "" {
			free = append(free, i)
		}
	}
	adjust := map[string]measure.Length{}
	with := func(p string, by measure.Length) map[string]measure.Length {
		m := maps.Clone(adjust)
		m[p] += by
		return m
	}
	off := func() []float64 {
		v := make([]float64, len(free))
		for k, i := range free {
			v[k] = float64(s.driven(i) - drives[i].Size.Value)
		}
		return v
	}
	s.run(adjust)
	now := off()
	for range driveRounds {
		if worst(now) <= float64(driveSlack) || len(free) == 0 {
			break
		}
		slope := make([][]float64, len(free))
		for k := range slope {
			slope[k] = make([]float64, len(free))
		}
		for c, i := range free {
			s.run(with(drives[i].Gives, driveProbe))
			for r, v := range off() {
				slope[r][c] = (v - now[r]) / float64(driveProbe)
			}
		}
		step, ok := linear.Solve(slope, now, 1e-6)
		if !ok {
			break
		}
		better := false
		for share := 1.0; share > 0.01; share /= 2 { // a step too far is halved
			next := maps.Clone(adjust)
			for c, i := range free {
				next[drives[i].Gives] -= measure.Length(math.Round(share * step[c]))
			}
			s.run(next)
			if v := off(); worst(v) < worst(now) {
				adjust, now, better = next, v, true
				break
			}
		}
		if !better {
			break
		}
	}
	s.run(adjust)
	for i := range drives {
		s.report(i, adjust)
	}
}

func worst(v []float64) (w float64) {
	for _, x := range v {
		w = max(w, math.Abs(x))
	}
	return w
}

// driven measures a drive as everything stands.
func (s *solver) driven(i int) measure.Length {
	d := &s.g.Doc.Drives[i]
	a, b := s.driveEnds(d)
	if a < 0 || b < 0 {
		return d.Size.Value
	}
	p, q := s.out.Points[a], s.out.Points[b]
	dir := p.Toward(q)
	_, v1 := s.end(a, b, dir, d.Size.Meaning, d.Pipe)
	_, v2 := s.end(b, a, dir.Neg(), d.Size.Meaning, d.Pipe)
	return p.Distance(q) - v1 - v2
}

func (s *solver) driveEnds(d *frame.Drive) (a, b int) {
	if d.Pipe != "" {
		e := s.g.Edge(d.Pipe)
		if e < 0 {
			return -1, -1
		}
		return s.g.Edges[e].Ends[0], s.g.Edges[e].Ends[1]
	}
	return s.g.Node(d.Ends[0]), s.g.Node(d.Ends[1])
}

// report says how a drive came out and, when it does not hold, which sizes
// contradict it. Every one of those leads to it by itself, so that letting go
// of any single one would do: the set is a smallest one.
func (s *solver) report(i int, adjust map[string]measure.Length) {
	d := &s.g.Doc.Drives[i]
	out := Driven{ID: d.ID, Pipe: d.Pipe, Ends: d.Ends, Is: d.Size.Meaning, Text: d.Size.Text, Value: d.Size.Value, Gives: d.Gives, Lead: []string{}}
	if a, b := s.driveEnds(d); a < 0 || b < 0 {
		s.note(finding.Finding{Code: "size-without-pipe", Severity: finding.Stop, Subject: []string{},
			Text: fmt.Sprintf("what the size %q measures does not exist any more", d.ID), Hint: "take this size away"})
		s.out.Drives = append(s.out.Drives, out)
		return
	}
	out.Out = s.driven(i)
	out.Contra = (out.Out - out.Value).Abs() > checkSlack
	for k := range s.out.Sizes {
		if z := &s.out.Sizes[k]; z.Path == d.Gives {
			z.Gives = d.ID
		}
	}
	if out.Contra {
		var names []string
		for _, z := range s.lead(i, out.Out, adjust) {
			out.Lead = append(out.Lead, z.Path)
			names = append(names, s.nameOf(z))
		}
		f := finding.Finding{Code: "sizes-contradict", Severity: finding.Stop, Subject: s.subject(d),
			Text: fmt.Sprintf("%s is to be %s and comes out at %s", s.driveName(d), d.Size.Value.Round(measure.SixtyFourth), out.Out.Round(measure.SixtyFourth))}
		switch {
		case d.Gives != "":
			f.Hint = "no value of the size that is to give way reaches it: let another one give way"
		case len(names) == 0:
			f.Hint = "no stated size leads to it: take this size away"
		default:
			f.Hint = "it contradicts " + strings.Join(names, ", ") + ": let one of them give way"
		}
		s.note(f)
	}
	s.out.Drives = append(s.out.Drives, out)
}

// lead gives the sizes that lead to a drive: those which, moved alone, move it.
func (s *solver) lead(i int, is measure.Length, adjust map[string]measure.Length) (all []*Size) {
	kept := s.out
	defer func() { s.out = kept }()
	seen := map[string]bool{}
	for k := range kept.Sizes {
		z := &kept.Sizes[k]
		if seen[z.Path] {
			continue
		}
		seen[z.Path] = true
		probe := maps.Clone(adjust)
		probe[z.Path] += driveProbe
		s.run(probe)
		if moved := s.driven(i) - is; moved.Abs() > driveProbe/1000 {
			all = append(all, z)
		}
	}
	return all
}

func (s *solver) subject(d *frame.Drive) []string {
	if d.Pipe != "" {
		return []string{d.Pipe}
	}
	return d.Ends[:]
}

func (s *solver) driveName(d *frame.Drive) string {
	what := "pipe " + d.Pipe
	if d.Pipe == "" {
		what = d.Ends[0] + " to " + d.Ends[1]
	}
	return what + ", " + words[d.Size.Meaning] + ","
}

// nameOf words a stated size.
func (s *solver) nameOf(z *Size) string {
	name := z.Label
	if name == "" {
		name = z.From + " to " + z.To
	}
	return fmt.Sprintf("%s (%s %s)", name, z.Value.Round(measure.SixtyFourth), words[z.Is])
}
