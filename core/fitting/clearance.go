package fitting

import (
	"cmp"
	"fmt"
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

type vec [3]float64

func (a vec) sub(b vec) vec             { return vec{a[0] - b[0], a[1] - b[1], a[2] - b[2]} }
func (a vec) plus(b vec, k float64) vec { return vec{a[0] + k*b[0], a[1] + k*b[1], a[2] + k*b[2]} }
func (a vec) dot(b vec) float64         { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }

// cylinder is a solid with flat ends, in inches.
type cylinder struct {
	joint  int // -1 for a pipe
	pipe   int // -1 for a fitting
	a, d   vec // one end, and the unit direction to the other
	length float64
	radius float64
	lo, hi vec
}

func (r *Result) cylinders(points []measure.Point, curves []*curve.Curve) []cylinder {
	cs := make([]cylinder, 0, 4*len(r.Joints)+len(r.g.Edges))
	inch := func(p measure.Point) vec { return vec{p[0].Inches(), p[1].Inches(), p[2].Inches()} }
	add := func(joint, pipe int, from vec, d measure.Dir, start, end, diameter measure.Length) {
		c := cylinder{joint: joint, pipe: pipe, d: vec(d), radius: diameter.Inches()/2 - clearTolerance/2}
		c.a = from.plus(c.d, start.Inches())
		c.length = (end - start).Inches()
		far := c.a.plus(c.d, c.length)
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
			switch {
			case j.Kind == "" || !p.Known:
			case j.Free():
				add(i, -1, inch(points[i]), p.Dir, -j.Beyond(), p.Takes(), p.Body)
			default:
				add(i, -1, inch(points[i]), p.Dir, 0, p.Face, p.Body)
			}
		}
	}
	for e, ed := range r.g.Edges {
		a, b := points[ed.Ends[0]], points[ed.Ends[1]]
		from, to := r.TakeOff(frame.PipeEnd{Pipe: e, End: 0}), a.Distance(b)-r.TakeOff(frame.PipeEnd{Pipe: e, End: 1})
		if c := curves[e]; c != nil {
			ps := c.Sample(bowParts)
			for i := 1; i < len(ps); i++ {
				add(-1, e, inch(ps[i-1]), ps[i-1].Toward(ps[i]), 0, ps[i-1].Distance(ps[i]), 2*r.radius[e])
			}
			continue
		}
		add(-1, e, inch(a), a.Toward(b), from, to, 2*r.radius[e])
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
	told := map[[2]string]bool{}
	for i := range cs {
		for k := i + 1; k < len(cs) && cs[k].lo[0] < cs[i].hi[0]; k++ {
			a, b := cs[i], cs[k]
			if a.lo[1] >= b.hi[1] || b.lo[1] >= a.hi[1] || a.lo[2] >= b.hi[2] || b.lo[2] >= a.hi[2] || r.related(a, b) {
				continue
			}
			if linked != nil && a.pipe >= 0 && b.pipe >= 0 && linked(r.g.Edges[a.pipe].ID, r.g.Edges[b.pipe].ID) {
				continue
			}
			gap, apart := separation(a, b)
			if apart {
				continue
			}
			names := [2]string{r.named(a), r.named(b)}
			slices.Sort(names[:])
			if told[names] {
				continue
			}
			told[names] = true
			if len(fs) == maxClearances {
				fs[len(fs)-1].Hint = "and more pairs like it; mend these first"
				return fs
			}
			fs = append(fs, finding.Finding{Code: "no-room", Severity: finding.Stop, Subject: []string{r.subject(a), r.subject(b)},
				Text:    fmt.Sprintf("%s and %s want the same place", names[0], names[1]),
				Hint:    fmt.Sprintf("move them at least %s apart", measure.FromInches(-gap).Round(measure.Inch/16)),
				Figures: []finding.Figure{{Label: "overlap", Text: measure.FromInches(-gap).Format(measure.Decimal, measure.Inch/100)}}})
		}
	}
	return fs
}

// named is what a builder calls the thing that a body is of.
func (r *Result) named(c *cylinder) string {
	switch {
	case c.pipe >= 0:
		return "pipe " + r.g.Edges[c.pipe].ID
	case r.Joints[c.joint].Free():
		return "the cap at " + r.Joints[c.joint].ID
	}
	return "the " + string(r.Joints[c.joint].Kind) + " at " + r.Joints[c.joint].ID
}

func (r *Result) subject(c *cylinder) string {
	if c.pipe >= 0 {
		return r.g.Edges[c.pipe].ID
	}
	return r.Joints[c.joint].ID
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
	gap = segments(a, b) - a.radius - b.radius
	if gap >= 0 {
		return gap, true
	}
	p := a.a.plus(a.d, a.length/2)
	for range 400 {
		q := b.nearest(p)
		n := a.nearest(q)
		if d := n.sub(q); d.dot(d) < 1e-12 {
			return gap, false
		}
		if m := n.sub(p); m.dot(m) < 1e-18 {
			return gap, true
		}
		p = n
	}
	return gap, true // drawn together too slowly to overlap by anything that matters
}

// nearest projects a point onto the solid.
func (c *cylinder) nearest(p vec) vec {
	rel := p.sub(c.a)
	t := rel.dot(c.d)
	axis := c.a.plus(c.d, t)
	out := p.sub(axis)
	axis = c.a.plus(c.d, min(max(t, 0), c.length))
	if n := math.Sqrt(out.dot(out)); n > c.radius {
		return axis.plus(out, c.radius/n)
	}
	return axis.plus(out, 1)
}

// segments is the distance between two axes.
func segments(a, b *cylinder) float64 {
	r := a.a.sub(b.a)
	k, c, f := a.d.dot(b.d), a.d.dot(r), b.d.dot(r)
	den := 1 - k*k
	s := 0.0
	if den > 1e-12 {
		s = min(max((k*f-c)/den, 0), a.length)
	}
	t := min(max(k*s+f, 0), b.length)
	s = min(max(k*t-c, 0), a.length)
	d := a.a.plus(a.d, s).sub(b.a.plus(b.d, t))
	return math.Sqrt(d.dot(d))
}
