package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
)

// DefaultStep is the tape's step where a job names none.
const DefaultStep = measure.Inch / 16

// Make plans a job with what the shop sells and what has been bought. The
// error is a [ValidationError], or the context's when it ends first; anything that can
// be planned at all is a plan with findings.
func Make(ctx context.Context, job Job, shop Shop, work Work) (*Plan, error) {
	return plans(ctx, job, shop, work, false)
}

// Draft is [Make] with a first feasible purchase where the best one takes long
// to find: [Plan.Improving] then says that the whole plan is still to come. A small
// job is planned as a whole.
func Draft(ctx context.Context, job Job, shop Shop, work Work) (*Plan, error) {
	return plans(ctx, job, shop, work, true)
}

func plans(ctx context.Context, job Job, shop Shop, work Work, draft bool) (*Plan, error) {
	if n := job.validate(&shop, &work); len(n) > 0 {
		return nil, n
	}
	c, err := shop.catalog()
	if err != nil {
		return nil, err
	}
	p := &Plan{Step: cmp.Or(job.Step, DefaultStep), Findings: []finding.Finding{}, Cuts: []CutLine{}, Fittings: []FittingCount{}, Pipe: []PipeTotal{}, Figures: []Figured{}, Seats: []Seating{}}
	p.Tool, _ = shop.tool(job.Tool)
	var nonsense ValidationError
	for i := range job.Frames {
		f, err := p.frame(ctx, shop.seated(&job.Frames[i].Document), job.Frames[i].Given, c, i)
		if ps, bad := err.(frame.Problems); bad {
			for _, q := range ps {
				q.Path = fmt.Sprintf("/job/frames/%d/document%s", i, q.Path)
				nonsense = append(nonsense, q)
			}
			continue
		}
		if err != nil {
			return nil, err
		}
		f.Copies = job.Frames[i].Copies
		for _, told := range job.Frames[i].Findings {
			told.Frame = i
			f.findings = append(f.findings, told)
		}
		p.Findings = append(p.Findings, f.findings...)
		p.Frames = append(p.Frames, f.Frame)
	}
	if len(nonsense) > 0 {
		return nil, nonsense
	}
	p.makeCutLines()
	p.countFittings()
	p.join(c)
	p.budget(job.Have, c)
	p.figures(&shop, c)
	if err := p.purchase(ctx, &job, &shop, &work, draft); err != nil {
		return nil, err
	}
	p.cautions()
	finding.Sort(p.Findings)
	return p, nil
}

type planned struct {
	Frame
	findings []finding.Finding
}

// frame plans one frame of the job and looks for fixes of what it found.
func (p *Plan) frame(ctx context.Context, d *frame.Document, given map[string]measure.Length, c *catalog.Catalog, index int) (planned, error) {
	f, err := p.solve(ctx, d, c)
	if err != nil {
		return f, err
	}
	p.offerRoom(ctx, &f, d, c, index)
	f.checkCutList(given, p.Step, func(cuts []measure.Length) []Seated { return f.seatedFrom(cuts, states(c)) }, index)
	for k := range f.findings {
		f.findings[k].Frame = index
	}
	return f, nil
}

func (p *Plan) solve(ctx context.Context, d *frame.Document, c *catalog.Catalog) (planned, error) {
	c = c.WithParts(d.CustomFittings)
	g, s, fits, settled, err := settle(ctx, d, c)
	if err != nil {
		return planned{}, err
	}
	l := cutlist.Build(g, s, fits, p.Step)
	f := planned{Frame: Frame{Name: d.Name, Units: d.Units, Joints: fits.Joints, Floor: s.Floor, Loops: l.Loops,
		Insertions: fits.Insertions(), graph: g, points: s.Points, list: l, fits: fits, solved: s}}
	if f.Loops == nil {
		f.Loops = []cutlist.Loop{}
	}
	f.Sizes, f.Instances = s.Sizes, instancesOf(g)
	f.Places = s.Places
	f.Overall = cutlist.Overall(g, fits, s, l)
	f.Contacts = fits.Contacts(s.Points, s.Floor)
	f.Ports = fits.Audit()
	f.place(c, s)
	f.tolerate(d)
	f.seat(c)
	var links []finding.Finding
	f.Links, links = link.Judge(link.Frame{Graph: g, Solved: s, Fits: fits, Catalog: c})
	var checked []finding.Finding
	f.ClearanceChecks, checked = f.checkClearances(d)
	f.findings = slices.Concat(choices(s.Findings, s), gaveWay(g, s), passed(g, s), fits.Findings, l.Findings, links, checked, fits.Clearances(s.Points, s.Curves, f.linked), bent(g, s, fits), questions(l, s.Sizes), parts(g), unsaid(&f.Ports), standing(slices.Concat(f.Contacts, f.wheels()), f.bare()))
	switch {
	case s.Unfinished:
		f.findings = append(f.findings, finding.Finding{Code: "not-settled", Severity: finding.Stop, Subject: []string{},
			Text: "so many slopes decide each other that finding where they run was given up", Hint: "plan it in parts, or say which way more of the pipes run"})
	case !settled:
		f.findings = append(f.findings, finding.Finding{Code: "not-settled", Severity: finding.Warn, Subject: []string{},
			Text: "the sizes and the fittings they lead to do not settle", Hint: "give one of the sloped parts a size centre to centre"})
	}
	return f, nil
}

// wheels are the places where the wheels of axles touch the floor.
func (f *planned) wheels() (all []fitting.Contact) {
	for _, l := range f.Links {
		for _, p := range l.Wheels {
			all = append(all, fitting.Contact{Joint: l.ID, At: p})
		}
	}
	return all
}

// linked says whether a link holds two pipes at or in each other.
func (f *planned) linked(a, b string) bool {
	return slices.ContainsFunc(f.Links, func(l link.Report) bool {
		return l.Joined == [2]string{a, b} || l.Joined == [2]string{b, a}
	})
}

// bare tells the joints that are an open pipe's end.
func (f *planned) bare() map[string]bool {
	ends := map[string]bool{}
	for i := range f.Joints {
		if f.Joints[i].Kind == "" {
			ends[f.Joints[i].ID] = true
		}
	}
	return ends
}

func instancesOf(g *frame.Graph) []Instance {
	all := []Instance{}
	for _, sc := range g.Scopes {
		if sc.Parent >= 0 {
			all = append(all, Instance{sc.Path, sc.Of, cmp.Or(g.Doc.Group(sc.Of).Name, sc.Of)})
		}
	}
	return all
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
		if way := s.Curves[i]; way != nil {
			pipe.Path, pipe.Way = e.Path, wayOf(way, pipe.Shown)
			pipe.Radius, pipe.Strain = way.Tightest, strain(pipe.OD, way.Tightest)
		}
		f.Pipes[i] = pipe
	}
}

// drivenSeat is how deep a mallet drives a dry pipe, typically.
const drivenSeat = 0.85

// states are the states of the joints in which a cut frame has a size of its own.
func states(c *catalog.Catalog) []state {
	dry := func(depth func(p *fitting.Port) float64) func(p *fitting.Port) float64 {
		return func(p *fitting.Port) float64 {
			if p.Mode == frame.Eased || p.Mode == "" {
				return p.Seat
			}
			return depth(p)
		}
	}
	return []state{
		{"hand-tight", "dry-fitted by hand", dry(func(p *fitting.Port) float64 { return c.HandTight(p.PipeSize) })},
		{"driven", "dry-fitted, driven with a mallet", dry(func(*fitting.Port) float64 { return drivenSeat })},
		{"finished", "finished as planned", func(p *fitting.Port) float64 { return p.Seat }},
	}
}

// seat works out the second size of the frame: the same cuts with the joints
// put together by hand, driven, and finished as planned.
func (f *planned) seat(c *catalog.Catalog) {
	cuts := make([]measure.Length, len(f.list.Pieces))
	for i := range cuts {
		cuts[i] = f.list.Pieces[i].Cut
	}
	f.Seated = f.seatedFrom(cuts, states(c))
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
