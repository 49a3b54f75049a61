package edit

import (
	"cmp"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// meet looks where the new joint came to stand. If a joint is there already
// the pipe goes to that one; if a pipe runs through the place it is split; and
// joints that the new pipe runs through become part of it. A level that is
// there already serves.
func (b *bench) meet(done Done, scope int, joint, pipe string, way measure.Dir, d *frame.Dimension) (Done, error) {
	if err := b.look(); err != nil {
		return Done{}, err
	}
	def, g, place := b.def(scope), b.view.Graph, &b.view.Places[scope]
	n, e := g.Node(join(place.Path, joint)), g.Edge(done.Pipe)
	from := g.Edges[e].Ends[0]
	if p, q := b.view.Points[from], b.view.Points[n]; p.Distance(q) <= near || p.Toward(q).Dot(way) < 0 {
		return Done{}, refuse("write a larger size: the bodies at both ends take that much", "the pipe has no length")
	}
	switch there, hit, at, err := b.met(scope, n, e, d); {
	case err != nil:
		return Done{}, err
	case there >= 0:
		id := g.Nodes[there].ID
		ref, ok := b.ref(scope, id)
		if !ok {
			return Done{}, refuse("work on the whole frame to reach it", "the joint %q is outside this part", id)
		}
		if b.joined(from, there) {
			return Done{}, refuse("they are one pipe apart", "a pipe runs from there to %q already", id)
		}
		b.rejoin(def, joint, ref)
		b.opened(id)
		done.Joint = id
		done.Also = append(done.Also, "meets "+id)
	case hit >= 0:
		if at != [3]string{} {
			b.stand(def, joint, at)
		}
		b.freeze(def, local(place.Path, g.Edges[hit].ID))
		b.cutThrough(def, g.Edges[hit].ID, place.Path, joint)
		done.Also = append(done.Also, "meets the pipe "+g.Edges[hit].ID+" in a tee")
	default:
		b.level(def, scope, joint, n)
	}
	if err := b.look(); err != nil {
		return Done{}, err
	}
	return b.through(done, scope, pipe)
}

// level stands the new joint on a station that is at its place already.
func (b *bench) level(def *frame.Definition, scope int, joint string, n int) {
	i := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == joint })
	j := &def.Joints[i]
	if j.Walk != nil {
		return
	}
	here := b.view.Places[scope].Local(b.view.Points[n])
	for a := range 3 {
		for _, st := range b.view.Places[scope].Stations[a] {
			if st.ID != j.At[a] && !st.Copied && (st.At-here[a]).Abs() <= near {
				was := j.At[a]
				j.At[a] = st.ID
				b.dropStation(def, measure.Axis(a), was)
				break
			}
		}
	}
}

// stand puts a joint of a definition on stations.
func (b *bench) stand(def *frame.Definition, joint string, at [3]string) {
	i := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == joint })
	was := def.Joints[i].At
	def.Joints[i].At, def.Joints[i].Walk = at, nil
	for a, st := range was {
		b.dropStation(def, measure.Axis(a), st)
	}
}

// reach is how far the bodies at two ends can make a size differ from the
// centre distance.
const reach = 12 * measure.Inch

// met finds what a new pipe comes to: a joint, or a pipe and the stations of
// the place where it is met. A size that is no centre distance counts as it
// will be with the fitting that stands there then, so each is tried. Without
// stations the new joint keeps the walk that led there.
func (b *bench) met(scope, n, e int, d *frame.Dimension) (joint, pipe int, at [3]string, err error) {
	g, points := b.view.Graph, b.view.Points
	from := g.Edges[e].Ends[0]
	line, long := points[from].Toward(points[n]), points[from].Distance(points[n])
	free := measure.Length(near)
	if d != nil && d.Meaning != frame.Centre {
		free = reach
	}
	type candidate struct {
		joint, pipe int
		at          [3]string
		off         measure.Length
	}
	var all []candidate
	for i := range points {
		if i == n || i == from || len(g.Nodes[i].Pipes) == 0 {
			continue
		}
		far := points[from].Distance(points[i])
		if off := (far - long).Abs(); off <= free && points[from].Along(line, far).Distance(points[i]) <= near {
			all = append(all, candidate{i, -1, at, off})
		}
	}
	for i := range g.Edges {
		if i == e || g.Edges[i].Scope != scope {
			continue
		}
		p, ok := crossing(points[from], line, points[g.Edges[i].Ends[0]], points[g.Edges[i].Ends[1]])
		if !ok || !b.runsThrough(i, p) {
			continue
		}
		on, stands := b.stationsOf(scope, p)
		if off := (points[from].Distance(p) - long).Abs(); off <= free && (stands || off <= near) {
			if !stands {
				on = [3]string{}
			}
			all = append(all, candidate{-1, i, on, off})
		}
	}
	slices.SortStableFunc(all, func(x, y candidate) int { return cmp.Compare(x.off, y.off) })
	for _, c := range all {
		fits := c.off <= near && free == near
		if !fits {
			if fits, err = b.tried(scope, e, c.joint, c.pipe, c.at, d); err != nil {
				return -1, -1, at, err
			}
		}
		if !fits {
			continue
		}
		return c.joint, c.pipe, c.at, nil
	}
	return -1, -1, at, nil
}

// tried leads the new pipe to a joint, or to a place on a pipe, in a copy of
// the document, and says whether it has the size that was asked for.
func (b *bench) tried(scope, e, there, hit int, at [3]string, d *frame.Dimension) (bool, error) {
	g, path := b.view.Graph, b.view.Places[scope].Path
	ends := g.Edges[e].Ends
	drive := frame.Drive{ID: "tried", Size: *d}
	drive.Size.Of, drive.Size.From, drive.Size.Back = "", "", false
	trial := &bench{doc: b.doc.Clone(), unit: b.unit, solve: b.solve, view: b.view}
	def := trial.def(scope)
	joint := local(path, g.Nodes[ends[1]].ID)
	to := g.Nodes[ends[1]].ID
	switch {
	case there >= 0:
		ref, ok := b.ref(scope, g.Nodes[there].ID)
		if !ok || b.joined(ends[0], there) {
			return false, nil
		}
		to = g.Nodes[there].ID
		trial.rejoin(def, joint, ref)
		trial.opened(to)
	case at == [3]string{}:
		return false, nil
	default:
		trial.stand(def, joint, at)
		trial.cutThrough(def, g.Edges[hit].ID, path, joint)
	}
	if d.Meaning == frame.Cut || d.Meaning == frame.Visible {
		drive.Pipe = g.Edges[e].ID
	} else {
		drive.Ends = [2]string{g.Nodes[ends[0]].ID, to}
	}
	trial.doc.Drives = append(trial.doc.Drives, drive)
	if err := trial.look(); err != nil {
		return false, nil //nolint:nilerr // what makes no sense is not what was meant
	}
	for _, o := range trial.view.Drives {
		if o.ID == drive.ID {
			return (o.Out - o.Value).Abs() <= near, nil
		}
	}
	return false, nil
}

// crossing is the point at which a line meets another between two points.
func crossing(from measure.Point, line measure.Dir, u, v measure.Point) (measure.Point, bool) {
	other := u.Toward(v)
	n := line.Cross(other)
	if n.Dot(n) < 1e-9 {
		return from, false
	}
	r := measure.Dir{}
	w := u.Sub(from)
	for a := range r {
		r[a] = float64(w[a])
	}
	t := r.Cross(other).Dot(n) / n.Dot(n)
	if t <= 0 {
		return from, false
	}
	return from.Along(line, measure.Length(t)), true
}

// runsThrough says whether a pipe's line goes through a point between its ends.
func (b *bench) runsThrough(e int, p measure.Point) bool {
	ends := b.view.Graph.Edges[e].Ends
	if b.view.Graph.Edges[e].Path != frame.Straight {
		return false
	}
	u, v := b.view.Points[ends[0]], b.view.Points[ends[1]]
	a, c := u.Distance(p), p.Distance(v)
	return a > near && c > near && (a+c-u.Distance(v)).Abs() <= near/100 && u.Along(u.Toward(v), a).Distance(p) <= near
}

func (b *bench) joined(i, j int) bool {
	for _, pe := range b.view.Graph.Nodes[i].Pipes {
		if e := &b.view.Graph.Edges[pe.Pipe]; e.Ends[1-pe.End] == j && e.Path == frame.Straight {
			return true
		}
	}
	return false
}

// rejoin leads the pipes of a definition's joint to another joint and drops it.
func (b *bench) rejoin(def *frame.Definition, drop, keep string) {
	for i := range def.Pipes {
		p := &def.Pipes[i]
		if p.From == drop {
			p.From = keep
		}
		if p.To == drop {
			p.To = keep
		}
		for k := range p.Via {
			if p.Via[k] == drop {
				p.Via[k] = keep
			}
		}
	}
	for i := range def.Joints {
		if w := def.Joints[i].Walk; w != nil {
			if w.From == drop {
				w.From = keep
			}
			if w.Toward == drop {
				w.Toward = keep
			}
		}
	}
	var at [3]string
	def.Joints = slices.DeleteFunc(def.Joints, func(j frame.Joint) bool {
		if j.ID == drop {
			at = j.At
		}
		return j.ID == drop
	})
	for a, st := range at {
		b.dropStation(def, measure.Axis(a), st)
	}
}

// dropStation takes a station away that nothing stands on and nothing is
// measured from; the first of an axis stays.
func (b *bench) dropStation(def *frame.Definition, a measure.Axis, id string) {
	st := def.Axes[a].Stations
	i := slices.IndexFunc(st, func(s frame.Station) bool { return s.ID == id })
	if i <= 0 || b.stands(def, a, id) || b.holds(def, a, id) || len(likened(def, a, id)) > 0 || len(b.measured(def, a, id)) > 0 {
		return
	}
	def.Axes[a].Stations = slices.Delete(st, i, i+1)
}

// stands says whether a joint, a use or a walk needs a station.
func (b *bench) stands(def *frame.Definition, a measure.Axis, id string) bool {
	return slices.ContainsFunc(def.Joints, func(j frame.Joint) bool {
		return j.Walk == nil && j.At[a] == id || j.Walk != nil && j.Walk.Until != nil && j.Walk.Until.Axis == a && j.Walk.Until.Station == id
	}) || slices.ContainsFunc(def.Uses, func(u frame.Use) bool { return u.At[a] == id })
}

// holds says whether uses of a definition are held by one of its stations.
func (b *bench) holds(def *frame.Definition, a measure.Axis, id string) bool {
	for _, other := range b.definitions() {
		for _, u := range other.Uses {
			if u.Of == def.ID && def.ID != "" && (u.Anchor[a] == id || u.Anchor[a] == "" && def.Axes[a].Stations[0].ID == id || u.Array != nil && u.Array.Joined != nil && slices.Contains(u.Array.Joined[:], id)) {
				return true
			}
		}
	}
	return false
}

// likened gives the stations of other axes that are placed like a station.
func likened(def *frame.Definition, a measure.Axis, id string) (all [][2]int) {
	for o := range def.Axes {
		for i, s := range def.Axes[o].Stations {
			if s.Like != nil && s.Like.Axis == a && (s.Like.Of == id || s.Like.To == id) {
				all = append(all, [2]int{o, i})
			}
		}
	}
	return all
}

// measured gives the stations that are placed by a station.
func (b *bench) measured(def *frame.Definition, a measure.Axis, id string) (all []int) {
	for i, s := range def.Axes[a].Stations {
		if s.Like != nil && s.Like.From == id || s.At != nil && s.At.From == id || s.Split != nil && (s.Split.From == id || s.Split.To == id) {
			all = append(all, i)
		}
	}
	return all
}

// opened takes what closes a pipe's end off a joint that a pipe goes on from.
func (b *bench) opened(id string) {
	if def, i, _, err := b.joint(id); err == nil {
		def.Joints[i].End = frame.OpenEnd
	}
}

// cutThrough splits a pipe of a definition at a joint of it that stands on its
// line. The first part keeps the id; the second's is given.
func (b *bench) cutThrough(def *frame.Definition, pipe, path, joint string) string {
	id, _ := within(path, pipe)
	i := slices.IndexFunc(def.Pipes, func(p frame.Pipe) bool { return p.ID == id })
	if i < 0 {
		return id
	}
	first := &def.Pipes[i]
	second := frame.Pipe{ID: newPipe(def), From: joint, To: first.To, Size: first.Size, Path: first.Path}
	if first.AtEnd != nil {
		second.AtEnd = &[2]frame.Insertion{{}, first.AtEnd[1]}
		first.AtEnd = &[2]frame.Insertion{first.AtEnd[0], {}}
	}
	first.To = joint
	def.Pipes = slices.Insert(def.Pipes, i+1, second)
	return second.ID
}

// through splits the new pipe at every joint that it runs through.
func (b *bench) through(done Done, scope int, pipe string) (Done, error) {
	def, g, path := b.def(scope), b.view.Graph, b.view.Places[scope].Path
	e := g.Edge(join(path, pipe))
	if e < 0 {
		return done, nil
	}
	start := b.view.Points[g.Edges[e].Ends[0]]
	var on []int
	for i := range g.Nodes {
		if _, inside := b.ref(scope, g.Nodes[i].ID); inside && len(g.Nodes[i].Pipes) > 0 && b.runsThrough(e, b.view.Points[i]) {
			on = append(on, i)
		}
	}
	slices.SortFunc(on, func(i, j int) int {
		return int((start.Distance(b.view.Points[i]) - start.Distance(b.view.Points[j])) / near)
	})
	before := g.Edges[e].Ends[0]
	for _, n := range append(slices.Clone(on), g.Edges[e].Ends[1]) {
		if len(on) > 0 && b.joined(before, n) {
			return Done{}, refuse("go on from the far end of that one", "a pipe runs from %s to %s already", g.Nodes[before].ID, g.Nodes[n].ID)
		}
		before = n
	}
	for _, n := range on {
		ref, _ := b.ref(scope, g.Nodes[n].ID)
		pipe = b.cutThrough(def, join(path, pipe), path, ref)
		b.opened(g.Nodes[n].ID)
		done.Also = append(done.Also, "goes through "+g.Nodes[n].ID)
		done.Pipe = join(path, pipe)
	}
	if len(on) > 0 {
		return done, b.look()
	}
	return done, nil
}
