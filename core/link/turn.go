package link

import (
	"math"
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
)

// capsule is a member of the frame: a line with a radius, in inches.
type capsule struct {
	name   string
	pipe   int // -1: a fitting
	joint  int
	a, b   measure.Dir
	radius float64
}

func (j *judge) capsules() (all []capsule) {
	for i := range j.Graph.Edges {
		e := &j.Graph.Edges[i]
		points := []measure.Point{j.Points[e.Ends[0]], j.Points[e.Ends[1]]}
		if c := j.Curves[i]; c != nil {
			points = c.Sample(17)
		}
		for k := 1; k < len(points); k++ {
			all = append(all, capsule{e.ID, i, -1, points[k-1].Inches(), points[k].Inches(), j.Fits.Radius(i).Inches()})
		}
	}
	for i := range j.Fits.Joints {
		jt := &j.Fits.Joints[i]
		if jt.Kind == "" || len(jt.Ports) == 0 {
			continue
		}
		p := j.Points[i].Inches()
		all = append(all, capsule{jt.ID, -1, i, p, p, jt.Body.Inches() / 2})
	}
	return all
}

// moving marks the pipes and joints that hang together with a pipe.
func (j *judge) moving(pipe int) (pipes, joints map[int]bool) {
	pipes, joints = map[int]bool{pipe: true}, map[int]bool{}
	queue := []int{j.Graph.Edges[pipe].Ends[0], j.Graph.Edges[pipe].Ends[1]}
	for len(queue) > 0 {
		n := queue[0]
		queue = queue[1:]
		if joints[n] {
			continue
		}
		joints[n] = true
		for _, pe := range j.Graph.Nodes[n].Pipes {
			pipes[pe.Pipe] = true
			queue = append(queue, j.Graph.Edges[pe.Pipe].Ends[1-pe.End])
		}
	}
	return pipes, joints
}

// hitStep is how finely a turn is looked through, in degrees.
const hitStep = 2.0

// touching is how much nearer than their bodies two members come before it
// counts, in inches: parts that graze each other by design are left alone.
const touching = 0.05

// turn works out a part that turns about an axis: what belongs to it, the size
// of the frame open and folded, and what it hits.
func (j *judge) turn(pipe int, centre measure.Point, axis measure.Dir) {
	pipes, joints := j.moving(pipe)
	if s := j.b.On[0]; s.Pipe >= 0 && pipes[s.Pipe] || s.Node >= 0 && joints[s.Node] {
		j.tell(j.ofLink("cannot-turn", finding.Warn))
		return
	}
	for i := range j.Graph.Edges {
		if pipes[i] {
			j.r.Moves = append(j.r.Moves, j.Graph.Edges[i].ID)
		}
	}
	all := j.capsules()
	c := centre.Inches()
	moves := func(x *capsule) bool { return x.pipe >= 0 && pipes[x.pipe] || x.joint >= 0 && joints[x.joint] }
	at := func(angle float64) []capsule {
		out := slices.Clone(all)
		for i := range out {
			if moves(&out[i]) {
				out[i].a, out[i].b = rotate(out[i].a, c, axis, angle), rotate(out[i].b, c, axis, angle)
			}
		}
		return out
	}
	j.r.States = append(j.r.States, State{"open", 0, box(all)})
	fold := j.b.Fold
	if fold == 0 {
		return
	}
	if j.b.Mirrored {
		fold = -fold
	}
	j.r.States = append(j.r.States, State{"folded", fold, packed(at(fold), c, axis)})
	all = within(all, c, moves)
	step := hitStep * math.Ceil(float64(len(all)*len(all))/pairsAtOnce)
	near := func(x *capsule) bool { return x.pipe >= 0 && (x.pipe == pipe || x.pipe == j.b.On[0].Pipe) }
	inPlace := overlaps(all, moves, nil)
	for angle := step; ; angle += step {
		t := math.Copysign(min(angle, math.Abs(fold)), fold)
		for _, h := range overlaps(at(t), moves, near) {
			if !slices.Contains(inPlace, h) {
				j.r.Hits = append(j.r.Hits, Hit{t, h})
				inPlace = append(inPlace, h)
			}
		}
		if angle >= math.Abs(fold) || len(j.r.Hits) > 4 {
			break
		}
	}
	if len(j.r.Hits) > 0 {
		h := j.r.Hits[0]
		j.tell(
			j.ofLink("fold-hits", finding.Warn).
				With("hit", []finding.Subject{j.named(h.Parts[0]), j.named(h.Parts[1])}).
				With("angle", finding.Degrees(math.Abs(h.Angle))),
		)
	}
}

// pairsAtOnce is how many pairs of members are looked at in every step; with
// more of them the steps are longer.
const pairsAtOnce = 30_000

// within leaves out what stands beyond the reach of what turns.
func within(all []capsule, c measure.Dir, moves func(*capsule) bool) []capsule {
	at := capsule{a: c, b: c}
	reach := 0.0
	for i := range all {
		if x := &all[i]; moves(x) {
			for _, end := range []measure.Dir{x.a, x.b} {
				reach = max(reach, distance(&at, &capsule{a: end, b: end})+x.radius)
			}
		}
	}
	return slices.DeleteFunc(slices.Clone(all), func(x capsule) bool { return !moves(&x) && distance(&at, &x) > reach+x.radius })
}

// overlaps names the moving and the standing members that are in each other.
// Two that both are near the bolt turn past each other on it.
func overlaps(all []capsule, moves, near func(*capsule) bool) (pairs [][2]string) {
	for i := range all {
		if !moves(&all[i]) {
			continue
		}
		for k := range all {
			x, y := &all[i], &all[k]
			if moves(y) || near != nil && near(x) && near(y) {
				continue
			}
			if distance(x, y) < x.radius+y.radius-touching {
				if p := [2]string{x.name, y.name}; !slices.Contains(pairs, p) {
					pairs = append(pairs, p)
				}
			}
		}
	}
	return pairs
}

func rotate(p, c measure.Dir, axis measure.Dir, degrees float64) measure.Dir {
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	v := p.Sub(c)
	x, d := axis.Cross(v), axis.Dot(v)
	return c.Plus(cos, v).Plus(sin, x).Plus(d*(1-cos), axis)
}

// packed is the size of the smallest box round some members, laid down by
// turning them about an axis: what is folded is carried as it lies best.
func packed(all []capsule, c measure.Dir, axis measure.Dir) (best [3]measure.Length) {
	least := math.Inf(1)
	for angle := 0.0; angle < 180; angle += hitStep {
		turned := slices.Clone(all)
		for i := range turned {
			turned[i].a, turned[i].b = rotate(turned[i].a, c, axis, angle), rotate(turned[i].b, c, axis, angle)
		}
		size := box(turned)
		if v := size[0].Inches() * size[1].Inches() * size[2].Inches(); v < least-1e-9 {
			least, best = v, size
		}
	}
	return best
}

// box is the outside size of some members.
func box(all []capsule) (size [3]measure.Length) {
	for a := range size {
		lo, hi := math.Inf(1), math.Inf(-1)
		for i := range all {
			c := &all[i]
			d := c.b.Sub(c.a)
			n := math.Sqrt(d.Dot(d))
			side := c.radius // a fitting counts all round, a pipe's flat end does not
			if n > 0 {
				side *= math.Sqrt(max(0, 1-d[a]*d[a]/n/n))
			}
			lo, hi = min(lo, c.a[a]-side, c.b[a]-side), max(hi, c.a[a]+side, c.b[a]+side)
		}
		if hi > lo {
			size[a] = measure.FromInches(hi - lo)
		}
	}
	return size
}

// distance is how far the lines of two members are apart.
func distance(x, y *capsule) float64 {
	return measure.SegmentsApart([2]measure.Dir{x.a, x.b}, [2]measure.Dir{y.a, y.b})
}

// named is the pipe or the joint of an id.
func (j *judge) named(id string) finding.Subject {
	if j.Graph.Edge(id) >= 0 {
		return finding.Subject{Kind: finding.Pipe, ID: id}
	}
	return finding.Subject{Kind: finding.Joint, ID: id}
}
