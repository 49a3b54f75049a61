package plan

import (
	"cmp"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// DefaultStep is the tape's step where a job names none.
const DefaultStep = measure.Inch / 16

// Make plans a job with what the shop sells and what has been bought. The
// error is a [Nonsense]; anything that can be planned at all is a plan with
// findings.
func Make(job Job, shop Shop, work Work) (*Plan, error) {
	if n := job.check(&shop, &work); len(n) > 0 {
		return nil, n
	}
	c, err := catalog.Typical().With(shop.Measurements...)
	if err != nil {
		return nil, Nonsense{measurementProblem(err)}
	}
	p := &Plan{Step: cmp.Or(job.Step, DefaultStep), Findings: []finding.Finding{}, Cuts: []Group{}, Fittings: []FittingCount{}, Pipe: []PipeTotal{}}
	p.Tool, _ = shop.tool(job.Tool)
	var nonsense Nonsense
	for i := range job.Frames {
		f, err := p.frame(&job.Frames[i].Document, c)
		if ps, bad := err.(frame.Problems); bad {
			for _, q := range ps {
				q.Path = fmt.Sprintf("/job/frames/%d/document%s", i, q.Path)
				nonsense = append(nonsense, q)
			}
			continue
		}
		f.Copies = job.Frames[i].Copies
		for k := range f.findings {
			f.findings[k].Frame = i
		}
		p.Findings = append(p.Findings, f.findings...)
		p.Frames = append(p.Frames, f.Frame)
	}
	if len(nonsense) > 0 {
		return nil, nonsense
	}
	p.group()
	p.countFittings()
	p.join(c)
	p.purchase(&job, &shop, &work)
	p.cautions()
	finding.Sort(p.Findings)
	return p, nil
}

type planned struct {
	Frame
	findings []finding.Finding
}

// settleRounds bounds how often positions and fittings are found from each
// other; square frames settle at the second look.
const settleRounds = 12

func (p *Plan) frame(d *frame.Document, c *catalog.Catalog) (planned, error) {
	g, err := frame.Expand(d)
	if err != nil {
		return planned{}, err
	}
	var fits *fitting.Result
	s := layout.Solve(g, nil, 0)
	settled := false
	for range settleRounds {
		fits = fitting.Resolve(g, c, s.Tangents)
		next := layout.Solve(g, fits, s.Floor)
		settled = next.Floor == s.Floor && slices.Equal(next.Points, s.Points)
		s = next
		if settled {
			break
		}
	}
	for j := range fits.Joints {
		fits.Joints[j].At = s.Points[j]
	}
	l := cutlist.Build(g, s, fits, p.Step)
	f := planned{Frame: Frame{Name: d.Name, Units: d.Units, Joints: fits.Joints, Floor: s.Floor, Loops: l.Loops,
		Insertions: fits.Insertions(), graph: g, points: s.Points, list: l, fits: fits}}
	if f.Loops == nil {
		f.Loops = []cutlist.Loop{}
	}
	f.Sizes = onceEach(s.Sizes)
	f.Overall = cutlist.Overall(g, fits, s.Points, l)
	f.place(c, s)
	f.seat(c)
	f.findings = slices.Concat(s.Findings, fits.Findings, l.Findings, fits.Clearances(s.Points), questions(l, s.Sizes), parts(g))
	if !settled {
		f.findings = append(f.findings, finding.Finding{Code: "not-settled", Severity: finding.Warn, Subject: []string{},
			Text: "the sizes and the fittings they lead to do not settle", Hint: "give one of the sloped parts a size centre to centre"})
	}
	return f, nil
}

// onceEach keeps the first of the sizes that come from one dimension: a group
// used twice states its sizes once.
func onceEach(all []layout.Size) []layout.Size {
	out := []layout.Size{}
	seen := map[string]bool{}
	for _, s := range all {
		if !seen[s.Path] {
			seen[s.Path] = true
			out = append(out, s)
		}
	}
	return out
}

// place puts every pipe where it stands, from its cut ends.
func (f *planned) place(c *catalog.Catalog, s *layout.Solution) {
	f.Pipes = make([]Pipe, len(f.graph.Edges))
	for i, e := range f.graph.Edges {
		pipe := Pipe{Piece: f.list.Pieces[i], From: f.graph.Nodes[e.Ends[0]].ID, To: f.graph.Nodes[e.Ends[1]].ID, OD: c.Pipe(e.Size).OutsideDiameter}
		for k, n := range e.Ends {
			end := frame.PipeEnd{Pipe: i, End: k}
			pipe.Bare[k] = s.Points[n].Along(s.Tangents[i][k], f.fits.TakeOff(end))
			pipe.Shown[k] = s.Points[n].Along(s.Tangents[i][k], f.fits.Face(end))
		}
		f.Pipes[i] = pipe
	}
}

// drivenSeat is how deep a mallet drives a dry pipe, typically.
const drivenSeat = 0.85

// seat works out the second size of the frame: the same cuts with the joints
// put together by hand, driven, and finished as planned.
func (f *planned) seat(c *catalog.Catalog) {
	cuts := make([]measure.Length, len(f.list.Pieces))
	for i := range cuts {
		cuts[i] = f.list.Pieces[i].Cut
	}
	for _, st := range []struct {
		state, text string
		seat        func(p *fitting.Port) float64
	}{
		{"hand-tight", "dry-fitted by hand", func(p *fitting.Port) float64 {
			if p.Mode == frame.Eased || p.Mode == "" {
				return p.Seat
			}
			return c.HandTight(p.PipeSize)
		}},
		{"driven", "dry-fitted, driven with a mallet", func(p *fitting.Port) float64 {
			if p.Mode == frame.Eased || p.Mode == "" {
				return p.Seat
			}
			return drivenSeat
		}},
		{"finished", "finished as planned", func(p *fitting.Port) float64 { return p.Seat }},
	} {
		fits := f.fits.Reseat(st.seat)
		a := cutlist.Assemble(f.graph, fits, cuts, f.points)
		lo, hi := fits.Overall(a.Points)
		f.Seated = append(f.Seated, Seated{State: st.state, Text: st.text, Size: hi.Sub(lo), Gap: a.Gap})
	}
}

// questions asks about sizes that read like a pipe's name: a length of 1-1/2
// where the fittings leave no room for one is perhaps 1-1/2 pipe.
func questions(l *cutlist.List, sizes []layout.Size) (fs []finding.Finding) {
	for _, pc := range l.Pieces {
		if !pc.TooShort {
			continue
		}
		size, ok := catalog.NominalOf(pc.Centre)
		for _, s := range sizes {
			if n, is := catalog.NominalOf(s.Value); is && s.Centre == pc.Centre {
				size, ok = n, true
			}
		}
		if ok {
			fs = append(fs, finding.Finding{Code: "length-or-size", Severity: finding.Question, Subject: []string{pc.Pipe},
				Text: fmt.Sprintf("%s in long, or %s pipe?", size, size), Hint: "a size is the pipe's name, a length is measured: set the one that was meant"})
		}
	}
	return fs
}

// parts says when a frame is in several parts that no pipe joins.
func parts(g *frame.Graph) []finding.Finding {
	group := make([]int, len(g.Nodes))
	for i := range group {
		group[i] = i
	}
	var find func(i int) int
	find = func(i int) int {
		if group[i] != i {
			group[i] = find(group[i])
		}
		return group[i]
	}
	for _, e := range g.Edges {
		group[find(e.Ends[0])] = find(e.Ends[1])
	}
	roots := map[int]bool{}
	for i, n := range g.Nodes {
		if len(n.Pipes) > 0 {
			roots[find(i)] = true
		}
	}
	if len(roots) < 2 {
		return nil
	}
	return []finding.Finding{{Code: "loose-parts", Severity: finding.Note, Subject: []string{},
		Text: fmt.Sprintf("%d parts that no pipe joins", len(roots)), Hint: "each is planned where it stands"}}
}

// join counts cement and the joints to leave dry.
func (p *Plan) join(c *catalog.Catalog) {
	var lists []joinery.Copies
	for _, f := range p.Frames {
		lists = append(lists, joinery.Copies{Insertions: f.Insertions, Copies: f.Copies})
	}
	p.Joinery = joinery.Count(c, lists)
	p.Totals.Cemented, p.Totals.Dry = p.Joinery.Cemented, p.Joinery.Dry
}
