package fitting

import (
	"cmp"
	"math"
	"slices"

	"sturdyelbow/core/curve"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// clearTolerance is how far two bodies may press into each other before it
// counts: parts that touch on purpose are not a finding.
const clearTolerance = 0.01 // inches

// maxClearances is how many overlapping pairs are named; one mistake often
// makes many.
const maxClearances = 12

// bowParts is how many points stand for a bow when bodies are kept apart.
const bowParts = 25

// cylinder is a solid with flat ends, in inches.
type cylinder struct {
	joint  int         // -1 for a pipe
	pipe   int         // -1 for a fitting
	a, d   measure.Dir // one end, and the unit direction to the other
	length float64
	radius float64
	bore   float64 // the diameter of what goes into it along its axis; 0 for nothing
	lo, hi measure.Dir
}

func (r *Result) cylinders(points []measure.Point, curves []*curve.Curve) []cylinder {
	cs := make([]cylinder, 0, 4*len(r.Joints)+len(r.g.Edges))
	bore := measure.Length(0) // of those that are added next
	add := func(joint, pipe int, from measure.Dir, d measure.Dir, start, end, diameter measure.Length) {
		c := cylinder{joint: joint, pipe: pipe, d: d, bore: bore.Inches(), radius: diameter.Inches()/2 - clearTolerance/2}
		c.a = from.Plus(start.Inches(), c.d)
		c.length = (end - start).Inches()
		far := c.a.Plus(c.length, c.d)
		for k := range 3 {
			side := c.radius * math.Sqrt(max(0, 1-c.d[k]*c.d[k]))
			c.lo[k], c.hi[k] = min(c.a[k], far[k])-side, max(c.a[k], far[k])+side
		}
		if c.length > 0 {
			cs = append(cs, c)
		}
	}
	for i := range r.Joints {
		j := &r.Joints[i]
		for k := range j.Ports {
			p := &j.Ports[k]
			bore = 0
			switch {
			case j.Kind == "" || !p.Known:
			case j.Free():
				add(i, -1, points[i].Inches(), p.Dir, -j.Beyond(), p.Takes(), p.Body)
			default:
				if bore = r.bores(p.Size); p.Fill == Plugged {
					bore = 0
				}
				add(i, -1, points[i].Inches(), p.Dir, 0, p.Face, p.Body)
			}
		}
	}
	for e, ed := range r.g.Edges {
		a, b := points[ed.Ends[0]], points[ed.Ends[1]]
		from, to := r.TakeOff(frame.PipeEnd{Pipe: e, End: 0}), a.Distance(b)-r.TakeOff(frame.PipeEnd{Pipe: e, End: 1})
		if bore = r.bore[e]; curves[e] != nil {
			c := curves[e]
			ps := c.Sample(bowParts)
			for i := 1; i < len(ps); i++ {
				add(-1, e, ps[i-1].Inches(), ps[i-1].Toward(ps[i]), 0, ps[i-1].Distance(ps[i]), 2*r.radius[e])
			}
			continue
		}
		add(-1, e, a.Inches(), a.Toward(b), from, to, 2*r.radius[e])
	}
	return cs
}

// Clearances finds bodies that would overlap: a fitting and another, a fitting
// and a pipe it does not hold, or two pipes. curves holds the ways of the pipes
// that are not straight; linked tells pipes that are meant to touch or to be in
// each other, nil for none.
func (r *Result) Clearances(points []measure.Point, curves []*curve.Curve, linked func(a, b string) bool) []finding.Finding {
	all := r.cylinders(points, curves)
	cs := make([]*cylinder, len(all))
	for i := range all {
		cs[i] = &all[i]
	}
	slices.SortStableFunc(cs, func(a, b *cylinder) int { return cmp.Compare(a.lo[0], b.lo[0]) })
	var fs []finding.Finding
	told := map[[2]finding.Subject]bool{}
	within := r.within(cs)
	for i := range cs {
		for k := i + 1; k < len(cs) && cs[k].lo[0] < cs[i].hi[0]; k++ {
			a, b := cs[i], cs[k]
			if a.lo[1] >= b.hi[1] || b.lo[1] >= a.hi[1] || a.lo[2] >= b.hi[2] || b.lo[2] >= a.hi[2] || r.related(a, b) || within(a, b) ||
				within(b, a) {
				continue
			}
			if linked != nil && a.pipe >= 0 && b.pipe >= 0 && linked(r.g.Edges[a.pipe].ID, r.g.Edges[b.pipe].ID) {
				continue
			}
			gap, apart := separation(a, b)
			if apart {
				continue
			}
			pair := [2]finding.Subject{r.subject(a), r.subject(b)}
			if b := pair[1]; cmp.Or(cmp.Compare(b.Kind, pair[0].Kind), cmp.Compare(b.ID, pair[0].ID)) < 0 {
				pair[0], pair[1] = b, pair[0]
			}
			if told[pair] {
				continue
			}
			told[pair] = true
			if len(fs) == maxClearances {
				fs[len(fs)-1] = fs[len(fs)-1].With("others", "more")
				return fs
			}
			fs = append(fs, finding.New("no-room", finding.Stop, r.subject(a), r.subject(b)).
				With("bodies", pair[:]).With("overlap", measure.FromInches(-gap)))
		}
	}
	return fs
}

// within finds what stands inside of something larger: a pipe in a pipe, or in a fitting's port and as deep as to its middle,
// or on through where another port lies opposite. It is no clash, as where a 1/2 in pole stands in a 1 in tee.
func (r *Result) within(cs []*cylinder) func(thin, wide *cylinder) bool {
	ports := map[int][]*cylinder{}
	for _, c := range cs {
		if c.joint >= 0 {
			ports[c.joint] = append(ports[c.joint], c)
		}
	}
	goesInto := func(thin, wide *cylinder) bool {
		play := wide.bore/2 - thin.radius
		if play <= 0 || math.Abs(thin.d.Dot(wide.d)) < 0.9998 { // a degree
			return false
		}
		for _, end := range thin.axis() {
			rel := end.Sub(wide.a)
			if off := rel.Plus(-rel.Dot(wide.d), wide.d); off.Dot(off) > play*play {
				return false
			}
		}
		return true
	}
	return func(thin, wide *cylinder) bool {
		switch {
		case thin.pipe < 0:
			return false
		case wide.pipe >= 0:
			return goesInto(thin, wide)
		}
		for _, port := range ports[wide.joint] {
			if !goesInto(thin, port) {
				continue
			}
			beyond := 0.0 // how far it goes past the middle
			for _, end := range thin.axis() {
				beyond = max(beyond, -end.Sub(port.a).Dot(port.d))
			}
			if beyond <= port.bore/2 || slices.ContainsFunc(ports[wide.joint], func(other *cylinder) bool {
				return other.d.Dot(port.d) < -0.9998 && goesInto(thin, other)
			}) {
				return true
			}
		}
		return false
	}
}

// subject is the thing that a body is of.
func (r *Result) subject(c *cylinder) finding.Subject {
	if c.pipe >= 0 {
		return finding.Subject{Kind: finding.Pipe, ID: r.g.Edges[c.pipe].ID}
	}
	return finding.Subject{Kind: finding.Joint, ID: r.Joints[c.joint].ID}
}

// related says whether two bodies are joined to each other: of one fitting, a
// pipe and its fitting, two pipes of one joint, or two fittings with a pipe
// between them (their faces are the cut list's concern).
func (r *Result) related(a, b *cylinder) bool {
	if a.pipe >= 0 {
		a, b = b, a
	}
	switch {
	case a.pipe >= 0 && a.pipe == b.pipe:
		return true
	case a.pipe >= 0: // two pipes
		p, q := r.g.Edges[a.pipe].Ends, r.g.Edges[b.pipe].Ends
		return p[0] == q[0] || p[0] == q[1] || p[1] == q[0] || p[1] == q[1]
	case b.pipe >= 0:
		e := r.g.Edges[b.pipe].Ends
		return e[0] == a.joint || e[1] == a.joint
	case a.joint == b.joint:
		return true
	}
	for _, pe := range r.g.Nodes[a.joint].Pipes {
		e := r.g.Edges[pe.Pipe].Ends
		if e[0] == b.joint || e[1] == b.joint {
			return true
		}
	}
	return false
}

// separation tells two solid cylinders apart. gap is the distance of their
// round sides (negative when they overlap). The flat ends are judged by
// projecting a point from one solid to the other and back: two convex solids
// with a common point draw it together, separate ones keep it apart.
func separation(a, b *cylinder) (gap float64, apart bool) {
	gap = measure.SegmentsApart(a.axis(), b.axis()) - a.radius - b.radius
	if gap >= 0 {
		return gap, true
	}
	p := a.a.Plus(a.length/2, a.d)
	for range 400 {
		q := b.nearest(p)
		n := a.nearest(q)
		if d := n.Sub(q); d.Dot(d) < 1e-12 {
			return gap, false
		}
		if m := n.Sub(p); m.Dot(m) < 1e-18 {
			return gap, true
		}
		p = n
	}
	return gap, true // drawn together too slowly to overlap by anything that matters
}

// axis gives the two ends of the middle line.
func (c *cylinder) axis() [2]measure.Dir { return [2]measure.Dir{c.a, c.a.Plus(c.length, c.d)} }

// nearest projects a point onto the solid.
func (c *cylinder) nearest(p measure.Dir) measure.Dir {
	rel := p.Sub(c.a)
	t := rel.Dot(c.d)
	axis := c.a.Plus(t, c.d)
	out := p.Sub(axis)
	axis = c.a.Plus(min(max(t, 0), c.length), c.d)
	if n := math.Sqrt(out.Dot(out)); n > c.radius {
		return axis.Plus(c.radius/n, out)
	}
	return axis.Plus(1, out)
}
