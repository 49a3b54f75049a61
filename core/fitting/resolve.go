package fitting

import (
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Resolve finds the fitting at every joint of a graph from the directions in
// which the pipes leave it. tangents holds, for each pipe, the unit
// directions in which it leaves its two joints.
func Resolve(g *frame.Graph, c *catalog.Catalog, tangents [][2]measure.Dir) *Result {
	r := &Result{
		g:      g,
		Joints: make([]Joint, len(g.Nodes)),
		ports:  make([][2]int, len(g.Edges)),
		radius: make([]measure.Length, len(g.Edges)),
		bore:   make([]measure.Length, len(g.Edges)),
		bores:  func(size catalog.Size) measure.Length { return c.Pipe(size).InsideDiameter },
	}
	for i, e := range g.Edges {
		r.radius[i], r.bore[i] = c.Pipe(e.Size).OutsideDiameter.Half(), c.Pipe(e.Size).InsideDiameter
	}
	for i := range g.Nodes {
		w := &work{r: r, c: c, n: &g.Nodes[i], out: &r.Joints[i]}
		w.out.ID = w.n.ID
		for _, pe := range w.n.Pipes {
			w.dirs = append(w.dirs, tangents[pe.Pipe][pe.End])
			w.sizes = append(w.sizes, g.Edges[pe.Pipe].Size)
			w.largest = catalog.Larger(w.largest, g.Edges[pe.Pipe].Size)
		}
		w.resolve()
		for p := range w.out.Ports {
			if port := &w.out.Ports[p]; port.Fill == WithPipe {
				r.ports[port.at.Pipe][port.at.End] = p
			}
		}
	}
	return r
}

type work struct {
	r       *Result
	c       *catalog.Catalog
	n       *frame.Node
	out     *Joint
	dirs    []measure.Dir
	sizes   []catalog.Size
	largest catalog.Size
}

func (w *work) resolve() {
	force := w.n.Fitting
	if force != nil && force.Awaits && (len(w.dirs) != 2 || w.dirs[0].AngleTo(w.dirs[1]) < 135) {
		force = nil
	}
	switch n := len(w.dirs); {
	case n == 0:
	case n == 1 && (force == nil || force.Kind == catalog.Cap):
		w.freeEnd(w.n.End == frame.CappedEnd || force != nil)
	case force != nil:
		w.forced(force)
	case n == 2 && w.sizes[0] != w.sizes[1] && w.dirs[0].AngleTo(w.dirs[1]) >= 180-2*Flex-1e-9:
		w.reduce()
	default:
		for _, k := range catalog.JointKinds() {
			f, _ := w.c.Fitting(k, w.largest)
			if len(f.Ports) != n {
				continue
			}
			if of, off, ok := match(f.Ports, w.dirs); ok {
				w.take(f, of, off, w.dirs)
				return
			}
		}
		for _, k := range w.c.Customs() {
			if f, ok := w.c.Fitting(k, w.largest); ok && len(f.Ports) == n {
				if of, off, ok := match(f.Ports, w.dirs); ok {
					w.take(f, of, off, w.dirs)
					return
				}
			}
		}
		w.none(w.why())
	}
}

func (w *work) freeEnd(capped bool) {
	size := w.sizes[0]
	p := w.filled(0)
	p.Dir, p.Known, p.Role, p.Size = w.dirs[0], true, catalog.End, size
	w.out.Body, w.out.Size = w.c.Pipe(size).OutsideDiameter, string(size)
	if capped {
		f, _ := w.c.Fitting(catalog.Cap, size)
		p.Depth, p.Body = f.Ports[0].Depth, f.Ports[0].Body
		w.out.Kind, w.out.Body, w.out.CapEnd = catalog.Cap, p.Body, f.End
	} else {
		p.Mode, p.Reason, p.Seat = "", "", 0
	}
	w.out.Ports, w.out.End = []Port{p}, w.n.End
}

// filled starts the port that a pipe goes into.
func (w *work) filled(i int) Port {
	pe := w.n.Pipes[i]
	e := &w.r.g.Edges[pe.Pipe]
	h := e.Held[pe.End]
	return Port{
		Fill:     WithPipe,
		Pipe:     e.ID,
		PipeSize: e.Size,
		Mode:     h.Mode,
		Reason:   h.Reason,
		Seat:     h.Seat,
		Dir:      w.dirs[i],
		Known:    true,
		at:       pe,
	}
}

// take fits pipes into a fitting. dirs may hold, beyond the pipes, the
// directions of declared spare ports; of gives the port of each.
func (w *work) take(f catalog.Fitting, of []int, off float64, dirs []measure.Dir) {
	w.out.Kind, w.out.Size, w.out.Flex = f.Kind, f.Size, off
	if off > noticed {
		w.tell(w.about("flex", finding.Note).With("angle", finding.Degrees(off)).With("kind", f.Kind))
	}
	at, known := spareDirs(f.Ports, dirs, of)
	if w.n.Fitting != nil && w.n.Fitting.Unstated {
		for p := range known {
			known[p] = slices.Contains(of[:len(dirs)], p)
		}
	}
	pipeOf := make([]int, len(f.Ports))
	for p := range pipeOf {
		pipeOf[p] = -1
	}
	for i := range w.n.Pipes {
		pipeOf[of[i]] = i
	}
	w.out.Ports = make([]Port, 0, len(f.Ports))
	for p, fp := range f.Ports {
		port := Port{Fill: Open, Dir: at[p], Known: known[p]}
		if i := pipeOf[p]; i >= 0 {
			port = w.filled(i)
		} else if w.n.Fitting != nil && w.n.Fitting.Plugged {
			port.Fill = Plugged
		}
		port.Role, port.Size, port.Stop, port.Depth, port.Body, port.Face = fp.Role, fp.Size, fp.Stop, fp.Depth, fp.Body, fp.Face()
		if port.Fill == WithPipe && port.PipeSize != fp.Size {
			port.Bushings = port.reduce(w.c)
			if len(port.Bushings) > 1 {
				w.tell(
					w.about("nested-bushings", finding.Note).
						With("from", fp.Size).
						With("to", port.PipeSize).
						With("bushings", len(port.Bushings)),
				)
			}
		}
		w.out.Ports = append(w.out.Ports, port)
		w.out.Body = max(w.out.Body, fp.Body)
	}
}

// noticed is the angle, in degrees, from which flex is worth a word.
const noticed = 0.5

// about begins a finding about this joint.
func (w *work) about(code string, severity finding.Severity) finding.Finding {
	return finding.New(code, severity, finding.All(finding.Joint, w.n.ID)...)
}

func (w *work) tell(f finding.Finding) { w.r.Findings = append(w.r.Findings, f) }

// reduce brings a port down to its pipe's size and gives the bushings that
// takes, outermost first.
func (p *Port) reduce(c *catalog.Catalog) []catalog.Fitting {
	bushings := c.Bushings(p.Size, p.PipeSize)
	for _, b := range bushings {
		p.Stop += b.AddedStop()
		p.Face += b.Flange
		p.Depth = b.Ports[1].Depth
	}
	return bushings
}

func (w *work) reduce() {
	large, small := 0, 1
	if catalog.Compare(w.sizes[1], w.sizes[0]) > 0 {
		large, small = 1, 0
	}
	f := w.c.ReducingCoupling(w.sizes[large], w.sizes[small])
	of := make([]int, 2)
	of[large], of[small] = 0, 1
	w.take(f, of, 180-w.dirs[0].AngleTo(w.dirs[1]), w.dirs)
}

func (w *work) forced(force *frame.Forced) {
	if force.Kind == catalog.ReducingCoupling && len(w.dirs) == 2 && w.sizes[0] != w.sizes[1] &&
		w.dirs[0].AngleTo(w.dirs[1]) >= 180-2*Flex-1e-9 {
		w.reduce()
		return
	}
	f, ok := w.c.Fitting(force.Kind, w.largest)
	if !ok || force.Kind == catalog.Cap || len(f.Ports) < len(w.dirs) {
		w.none("ports", func(n finding.Finding) finding.Finding { return n.With("kind", force.Kind).With("ports", len(f.Ports)) })
		return
	}
	dirs := w.dirs
	if len(f.Ports) >= len(dirs)+len(force.Spare) {
		for _, d := range force.Spare {
			dirs = append(dirs[:len(dirs):len(dirs)], d.Unit())
		}
	}
	of, off, ok := match(f.Ports, dirs)
	if !ok {
		w.none("way", func(n finding.Finding) finding.Finding { return n.With("kind", force.Kind) })
		return
	}
	w.take(f, of, off, dirs)
}

// none works the joint as if an elbow-90 of the largest size stood there. why says
// what keeps the other fittings out, and with adds its figures.
func (w *work) none(why string, with func(finding.Finding) finding.Finding) {
	f, _ := w.c.Fitting(catalog.Elbow90, w.largest)
	w.out.Assumed, w.out.Size, w.out.Body = true, f.Size, f.Ports[0].Body
	w.out.Kind = catalog.Elbow90
	for i := range w.n.Pipes {
		p := w.filled(i)
		fp := f.Ports[0]
		p.Role, p.Size, p.Stop, p.Depth, p.Body, p.Face = catalog.End, fp.Size, fp.Stop, fp.Depth, fp.Body, fp.Face()
		if p.PipeSize != fp.Size {
			p.reduce(w.c) // worked with bushings, but none is counted
		}
		w.out.Ports = append(w.out.Ports, p)
	}
	n := w.about("no-fitting", finding.Stop).With("why", why).With("pipes", len(w.dirs))
	w.tell(w.mend(with(n)))
}

// why tells what keeps every fitting out: too many pipes, or an angle that has no
// port.
func (w *work) why() (why string, with func(finding.Finding) finding.Finding) {
	same := func(n finding.Finding) finding.Finding { return n }
	if len(w.dirs) > 6 {
		return "many", same
	}
	i, j, off := w.worst()
	if off <= 2*Flex {
		return "angles", same
	}
	return "pair", func(n finding.Finding) finding.Finding {
		pipe := func(k int) string { return w.r.g.Edges[w.n.Pipes[k].Pipe].ID }
		return n.With("pair", finding.All(finding.Pipe, pipe(i), pipe(j))).With("angle", finding.Degrees(w.dirs[i].AngleTo(w.dirs[j])))
	}
}

// worst finds the pair of pipes whose angle is farthest from any port's.
func (w *work) worst() (a, b int, off float64) {
	for i := range w.dirs {
		for j := range i {
			at := w.dirs[i].AngleTo(w.dirs[j])
			if d := math.Abs(at - nearest(at, len(w.dirs))); d > off {
				a, b, off = j, i, d
			}
		}
	}
	return a, b, off
}

// nearest is the angle nearest to one that has a port: 90 or 180, and 135
// where just two pipes meet.
func nearest(at float64, pipes int) float64 {
	best := 90.0
	for _, x := range []float64{135, 180} {
		if (x != 135 || pipes == 2) && math.Abs(at-x) < math.Abs(at-best) {
			best = x
		}
	}
	return best
}

// mend adds what would help: another place, another kind, or the nearest angle that
// has a fitting.
func (w *work) mend(f finding.Finding) finding.Finding {
	if len(w.dirs) > 6 {
		return f.With("mend", "move")
	}
	if len(w.dirs) < 2 {
		return f.With("mend", "kind")
	}
	i, j, off := w.worst()
	at := w.dirs[i].AngleTo(w.dirs[j])
	if off > 2*Flex {
		f = f.With("nearest", finding.Degrees(nearest(at, len(w.dirs)))).With("away", finding.Degrees(off))
	}
	switch {
	case len(w.dirs) > 2:
		return f.With("mend", "tee")
	case at > 90-2*Flex:
		return f.With("mend", "turn")
	}
	return f.With("mend", "bend")
}
