package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Insert puts a plane after another one. Like copies what stands on a plane to
// it: another column, another level. Beyond the last plane it makes a further
// bay like the last.
type Insert struct {
	In      string        `json:"in,omitempty"`
	Axis    measure.Axis  `json:"axis"`
	After   frame.Ref     `json:"after"`
	Length  string        `json:"length,omitempty"` // from After; half the bay, or as much as the last bay, when left out
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Like    frame.Ref     `json:"like,omitempty"`
	Name    string        `json:"name,omitempty"`
	Split   bool          `json:"split,omitempty"` // a tee in every pipe that crosses it
	Rails   []string      `json:"rails,omitempty"` // with Like: the joints, by path, from which a pipe runs to their copy
}

var _ = register[Insert]("insert")

func (w *Insert) on(e *editor) (Done, error) {
	scope, at, err := e.axis(w.In, w.Axis, w.After)
	if err != nil {
		return Done{}, err
	}
	all := e.place(scope).Planes[w.Axis]
	next := at + 1
	for next < len(all) && all[next].At-all[at].At <= near {
		next++
	}
	last := next >= len(all)
	def := e.def(scope)
	if w.Name != "" && def.HasPlane(int(w.Axis), w.Name) {
		return Done{}, refuse("give it another name", "there is a plane %q already", w.Name)
	}
	// how far from After
	far, evenly, like := frame.Size{}, false, frame.Ref("")
	switch {
	case w.Length != "":
		if far, err = e.size(w.Length, w.Meaning); err != nil {
			return Done{}, err
		}
		if slices.Contains([]frame.Meaning{frame.Cut, frame.Visible, frame.TopOfCap, frame.TopOfPipe}, far.Meaning) &&
			!(far.Meaning == frame.Cut || far.Meaning == frame.Visible) {
			return Done{}, refuse("say centre, outside or clear", "a level is placed between pipes")
		}
	case !last:
		evenly = true
	default:
		before := at - 1
		for before >= 0 && all[at].At-all[before].At <= near {
			before--
		}
		if before < 0 || all[before].Copied {
			return Done{}, refuse("write how far from it", "no bay to be like")
		}
		far = e.centre(all[at].At - all[before].At)
		if ids := e.direct(scope, w.Axis, &all[before], &all[at]); len(ids) > 0 {
			o := e.doc.SizeOf(ids[0])
			far.Value, far.Meaning, far.Text, far.Unit = o.Value, o.Meaning, o.Text, o.Unit
		}
		like = all[before].Ref
	}
	done := Done{Label: "A level after " + all[at].Name, Also: e.everywhere(scope)}
	if w.Like == "" {
		if !w.Split {
			return Done{}, refuse("say what it is to be like, or split the pipes that cross it", "nothing would stand there")
		}
		return done, e.addCrossing(scope, w.Axis, &all[at], &all[next%len(all)], far, evenly)
	}
	_, from, err := e.axis(w.In, w.Axis, w.Like)
	if err != nil {
		return Done{}, err
	}
	done.Label = fmt.Sprintf("Another %s after %s", all[from].Name, all[at].Name)
	twins, err := e.copyPlane(scope, w.Axis, &all[from], w.Name)
	if err != nil {
		return Done{}, err
	}
	def = e.def(scope)
	first := twins[firstOf(twins, all[from].Joints)]
	var rail string
	switch {
	case len(w.Rails) > 0:
		if rail, err = e.rails(scope, w.Axis, w.Rails, twins); err != nil {
			return Done{}, err
		}
	case last:
		rail = e.copyRun(scope, w.Axis, &all[from], twins)
	}
	size := ""
	switch {
	case evenly:
		e.doc.AddReason(def, halfway(w.Axis.String(), frame.Ref(first), all[at].Ref, all[next].Ref, 0))
	case rail != "" && from == at && !isNamed(&all[at]):
		far.Pipe = rail
		size = e.doc.AddSize(def, far)
	default:
		if far.Meaning == frame.Cut || far.Meaning == frame.Visible {
			if far.Pipe = rail; rail == "" {
				return Done{}, refuse("say centre, outside or clear", "no pipe runs there")
			}
		} else {
			far.Axis, far.From, far.To = w.Axis.String(), all[at].Ref, frame.Ref(first)
		}
		size = e.doc.AddSize(def, far)
	}
	if like != "" && far.Meaning != frame.Cut && far.Meaning != frame.Visible {
		if err := e.asFar(scope, w.Axis, size, [3]frame.Ref{like, all[at].Ref, frame.Ref(first)}); err != nil {
			return Done{}, err
		}
	}
	if !last {
		if err := e.ontoPipes(scope, w.Axis, twins); err != nil {
			return Done{}, err
		}
	}
	var pairs [][2]string
	path := e.path(scope)
	for _, orig := range all[from].Joints {
		if twin := twins[orig]; twin != "" {
			pairs = append(pairs, [2]string{join(path, orig), join(path, twin)})
		}
	}
	return done, e.offerRails(scope, pairs)
}

// asFar sees to it that a new bay, from the second to the third of three places, is as large as the one before it. The size
// that both have as it was typed says so where what stands at their ends is alike; where it is not (the last bay had ended
// in a cap, the new one begins at a coupling), it is turned into the distance of their centres.
func (e *editor) asFar(scope int, a measure.Axis, size string, at [3]frame.Ref) error {
	if err := e.resolve(); err != nil {
		return err
	}
	place := e.place(scope)
	var v [3]measure.Length
	for i, r := range at {
		k := place.Find(a, r)
		if k < 0 {
			return nil
		}
		v[i] = place.Planes[a][k].At
	}
	if s, c := e.doc.SizeOf(size), e.centre(v[1]-v[0]); s != nil && (v[2]-v[1]-c.Value).Abs() > near {
		s.Value, s.Meaning, s.Text, s.Unit = c.Value, c.Meaning, c.Text, c.Unit
	}
	return nil
}

// firstOf gives the first of some joints that has a copy.
func firstOf(twins map[string]string, joints []string) string {
	for _, j := range joints {
		if twins[j] != "" {
			return j
		}
	}
	return ""
}

// copyPlane copies what stands on a plane and gives each joint's twin, both as
// the definition names them. The twins are level with each other along the
// axis, and with their originals across it.
func (e *editor) copyPlane(scope int, a measure.Axis, from *layout.Plane, name string) (map[string]string, error) {
	def := e.def(scope)
	twins, rank := map[string]string{}, e.doc.NextRank()
	if name != "" {
		e.doc.AddPlane(def, int(a), name)
	}
	level := func(axis measure.Axis, of, to string) {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: axis.String(), Of: frame.Ref(of), To: frame.Ref(to), Rank: rank})
	}
	first := ""
	add := func(orig, copied string) {
		twins[orig] = copied
		if first == "" {
			first = copied
		} else {
			level(a, copied, first)
		}
	}
	uses := map[string]string{}
	for _, id := range from.Joints {
		use, _, deeper := strings.Cut(id, "/")
		if !deeper {
			j := *def.Joint(id)
			j.ID, j.On[a] = "", name
			if j.Fitting != nil {
				f := *j.Fitting
				f.Spare = slices.Clone(f.Spare)
				j.Fitting = &f
			}
			c := e.doc.AddJoint(def, j)
			for b := range measure.Axis(3) {
				if b != a && j.On[b] == "" {
					level(b, c, id)
				}
			}
			add(id, c)
			continue
		}
		u := def.Use(use)
		if u == nil || u.Array != nil || uses[use] != "" || !e.wholly(scope, use, from) {
			continue
		}
		c := *u
		c.ID = frame.Free(u.ID+" ", func(id string) bool { return def.Use(id) != nil || def.Joint(id) != nil })
		anchor := e.anchorName(u)
		for b := range measure.Axis(3) {
			if c.At[b] = ""; b != a {
				c.At[b] = frame.Ref(u.ID + "/" + anchor)
				c.Anchor[b] = frame.Ref(anchor)
			}
		}
		c.Rank = 0
		e.doc.AddUse(def, c)
		uses[use] = c.ID
		add(u.ID+"/"+anchor, c.ID+"/"+anchor)
	}
	if len(twins) == 0 {
		return nil, refuse("name a plane with joints on it", "nothing stands on %q", from.Name)
	}
	for use, now := range uses {
		for _, n := range e.view.Graph.Nodes {
			if ref, in := e.ref(scope, n.ID); in {
				if rest, ok := within(use, ref); ok {
					twins[ref] = now + "/" + rest
				}
			}
		}
	}
	for _, p := range slices.Clone(def.Pipes) {
		f, t := twins[p.From], twins[p.To]
		if f == "" || t == "" {
			continue
		}
		c := p
		c.ID, c.From, c.To, c.Rank, c.Gave = "", f, t, rank, nil
		c.Via = slices.Clone(p.Via)
		for i, v := range c.Via {
			if twins[v] != "" {
				c.Via[i] = twins[v]
			}
		}
		id := e.doc.AddPipe(def, c)
		if p.Path == frame.Sprung { // how far it bows is said of each
			for _, s := range slices.Clone(def.Sizes) {
				if s.Pipe == p.ID {
					s.ID, s.Pipe = "", id
					e.doc.AddSize(def, s)
				}
			}
		}
	}
	return twins, nil
}

// anchorName is the joint of a group by which an instance of it is placed.
func (e *editor) anchorName(u *frame.Use) string {
	g := e.doc.Group(u.Of)
	for a := range 3 {
		if _, name, plane := u.Anchor[a].Parts(); u.Anchor[a] != "" && !plane {
			return name
		}
	}
	if len(g.Joints) > 0 {
		return g.Joints[0].ID
	}
	if len(g.Uses) == 0 {
		return ""
	}
	id := g.Uses[0].ID
	if g.Uses[0].Array != nil {
		id += "#1"
	}
	return id + "/" + e.anchorName(&g.Uses[0])
}

// wholly says whether an instance of a group stands on a plane: whether its anchor
// joint is on it.
func (e *editor) wholly(scope int, use string, on *layout.Plane) bool {
	u := e.def(scope).Use(use)
	return slices.Contains(on.Joints, use+"/"+e.anchorName(u))
}

// rails draws a pipe from each of some joints to its copy, and gives the first.
func (e *editor) rails(scope int, a measure.Axis, from []string, twins map[string]string) (first string, err error) {
	def, dir := e.def(scope), a.Dir()
	for _, id := range from {
		ref, ok := e.ref(scope, id)
		twin, copied := twins[ref]
		if !ok || !copied {
			return "", refuse("name joints that stand on it", "the joint %q has no copy", id)
		}
		d := dir
		p := e.doc.AddPipe(def, frame.Pipe{From: ref, To: twin, Dir: &d})
		if first == "" {
			first = p
		}
		e.clearEnds(def, ref, twin)
	}
	return first, nil
}

// clearEnds takes what closes their ends off joints that pipes go on from.
func (e *editor) clearEnds(def *frame.Definition, refs ...string) {
	for _, r := range refs {
		path, name, _ := frame.Ref(r).Parts()
		if in := e.doc.Inside(def, path); in != nil && in.Joint(name) != nil {
			in.Joint(name).End = frame.OpenEnd
		}
	}
}

// copyRun draws pipes to a copied plane as they run to the original from the plane
// before it, and gives the first of them.
func (e *editor) copyRun(scope int, a measure.Axis, from *layout.Plane, twins map[string]string) (first string) {
	def, place := e.def(scope), e.place(scope)
	for _, p := range slices.Clone(def.Pipes) {
		i := e.view.Graph.Edge(join(place.Path, p.ID))
		if i < 0 || p.Path != frame.Straight {
			continue
		}
		for k, ref := range []string{p.From, p.To} {
			twin := twins[ref]
			b, sign, square := axisAlong(place.Turned(e.leaves(frame.PipeEnd{Pipe: i, End: k})))
			if twin == "" || !slices.Contains(from.Joints, ref) || !square || b != a || sign > 0 {
				continue
			}
			dir := a.Dir()
			id := e.doc.AddPipe(def, frame.Pipe{From: ref, To: twin, Dir: &dir, Size: p.Size})
			if first == "" {
				first = id
			}
			e.clearEnds(def, ref, twin)
		}
	}
	return first
}

// ontoPipes splits pipes at the joints that were copied onto them.
func (e *editor) ontoPipes(scope int, a measure.Axis, twins map[string]string) error {
	if err := e.resolve(); err != nil {
		return err
	}
	place, def := e.place(scope), e.def(scope)
	for _, twin := range sorted(twins) {
		n := e.view.Graph.Node(join(place.Path, twin))
		if n < 0 {
			continue
		}
		for _, p := range slices.Clone(def.Pipes) {
			i := e.view.Graph.Edge(join(place.Path, p.ID))
			if i < 0 || p.From == twin || p.To == twin || !e.runsThrough(i, e.view.Points[n], near) {
				continue
			}
			if b, _, square := axisAlong(place.Turned(e.leaves(frame.PipeEnd{Pipe: i}))); !square || b != a {
				continue
			}
			e.splitAt(scope, p.ID, twin)
			e.clearEnds(def, twin)
			if err := e.resolve(); err != nil {
				return err
			}
			place, def = e.place(scope), e.def(scope)
			break
		}
	}
	return nil
}

func sorted(m map[string]string) (all []string) {
	for _, v := range m {
		all = append(all, v)
	}
	slices.Sort(all)
	return all
}

// addCrossing puts a joint into every pipe that runs from one plane to another, on a
// new plane between the two.
func (e *editor) addCrossing(scope int, a measure.Axis, lo, hi *layout.Plane, far frame.Size, evenly bool) error {
	def, place := e.def(scope), e.place(scope)
	rank, first := e.doc.NextRank(), ""
	at := lo.At + (hi.At - lo.At).Half()
	if !evenly {
		at = lo.At + far.Value
	}
	for _, p := range slices.Clone(def.Pipes) {
		i := e.view.Graph.Edge(join(place.Path, p.ID))
		if i < 0 || p.Path != frame.Straight {
			continue
		}
		ends := e.view.Graph.Edges[i].Ends
		u, v := place.Local(e.view.Points[ends[0]])[a], place.Local(e.view.Points[ends[1]])[a]
		if min(u, v) >= at-near || max(u, v) <= at+near {
			continue
		}
		if def.Pipe(p.ID).Dir == nil {
			if d := straight(place.Local(e.view.Points[ends[1]]).Sub(place.Local(e.view.Points[ends[0]]))); d != nil {
				def.Pipe(p.ID).Dir = d
			}
		}
		q := def.Pipe(p.ID)
		from, to := frame.Ref(q.From), frame.Ref(q.To)
		sloped := q.Dir == nil || q.Gave != nil
		j := e.doc.AddJoint(def, frame.Joint{})
		e.splitAt(scope, p.ID, j)
		if sloped {
			e.doc.AddReason(def, frame.Reason{Kind: frame.Toward, Of: frame.Ref(j), From: from, To: to, Rank: rank})
		}
		switch {
		case first != "":
			e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(j), To: frame.Ref(first), Rank: rank})
		case evenly:
			e.doc.AddReason(def, halfway(a.String(), frame.Ref(j), lo.Ref, hi.Ref, rank))
		default:
			far.Axis, far.From, far.To = a.String(), lo.Ref, frame.Ref(j)
			e.doc.AddSize(def, far)
		}
		if first == "" {
			first = j
		}
	}
	if first == "" {
		return refuse("name one that pipes run on from", "no pipe crosses there")
	}
	return nil
}
