package edit

import (
	"fmt"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Insert puts a station after another one. Like copies what stands on a
// station to it: another column, another level. Beyond the last station it
// makes a further bay like the last.
type Insert struct {
	In      string        `json:"in,omitempty"`
	Axis    measure.Axis  `json:"axis"`
	After   string        `json:"after"`
	Length  string        `json:"length,omitempty"` // from After; half the bay, or as much as the last bay, when left out
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Like    string        `json:"like,omitempty"`
	Name    string        `json:"name,omitempty"`
	Split   bool          `json:"split,omitempty"` // a tee in every pipe that crosses it
	Rails   []string      `json:"rails,omitempty"` // with Like: the joints, by path, from which a pipe runs to their copy
}

func (w *Insert) on(b *bench) (Done, error) {
	def, scope, at, err := b.axis(w.In, w.Axis, w.After)
	if err != nil {
		return Done{}, err
	}
	all := b.view.Places[scope].Stations[w.Axis]
	last := at == len(all)-1
	st := frame.Station{ID: w.Name}
	if st.ID == "" {
		st.ID = newStation(def, w.Axis)
	}
	if find(def, w.Axis, st.ID) != nil {
		return Done{}, refuse("give it another name", "there is a station %q already", st.ID)
	}
	switch {
	case w.Length != "":
		d, err := b.size(w.Length, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		if slices.Contains([]frame.Meaning{frame.Cut, frame.Visible, frame.TopOfCap, frame.TopOfPipe}, d.Meaning) {
			return Done{}, refuse("say centre, outside or clear", "a station is placed between pipes")
		}
		d.From = w.After
		st.At = &d
	case !last:
		st.Split = &frame.Split{From: w.After, To: all[at+1].ID, Part: 1, Parts: 2}
	case at > 0 && !all[at-1].Copied:
		d := frame.Dimension{Value: all[at].At - all[at-1].At, Meaning: frame.Centre}
		if before := find(def, w.Axis, w.After); before.At != nil && before.At.From == all[at-1].ID && before.At.Of == "" && !before.At.Back {
			d.Value, d.Meaning, d.Text = before.At.Value, before.At.Meaning, before.At.Text
		}
		d.From = w.After
		st.At = &d
	default:
		return Done{}, refuse("write how far from it", "no bay to be like")
	}
	def.Axes[w.Axis].Stations = append(def.Axes[w.Axis].Stations, st)
	done := Done{Label: fmt.Sprintf("Station %s after %s", st.ID, w.After), Also: b.everywhere(scope)}
	var twins map[string]string
	if w.Like != "" {
		if twins, err = b.copyPlane(scope, w.Axis, w.Like, st.ID); err != nil {
			return Done{}, err
		}
		done.Label = fmt.Sprintf("Another %s after %s", w.Like, w.After)
	}
	if len(w.Rails) > 0 {
		return done, b.rails(scope, w.Rails, twins)
	}
	if last && w.Like != "" {
		b.another(scope, w.Axis, at, w.Like, twins)
		return done, nil
	}
	if w.Like != "" || w.Split {
		err = b.cross(scope, w.Axis, st.ID, w.Like, twins, w.Split)
	}
	return done, err
}

// copyPlane copies what stands on a station to another and gives each joint's
// twin, both as the definition names them.
func (b *bench) copyPlane(scope int, a measure.Axis, from, to string) (map[string]string, error) {
	def := b.def(scope)
	twins := map[string]string{}
	uses := map[string]string{}
	for _, u := range slices.Clone(def.Uses) {
		if u.At[a] != from {
			continue
		}
		c := u
		c.ID = free(u.ID+" ", func(id string) bool {
			return slices.ContainsFunc(def.Uses, func(v frame.Use) bool { return v.ID == id })
		})
		c.At[a] = to
		def.Uses = append(def.Uses, c)
		uses[u.ID] = c.ID
	}
	for _, j := range slices.Clone(def.Joints) {
		if j.Walk != nil || j.At[a] != from {
			continue
		}
		c := j
		c.ID, c.At[a] = newJoint(def), to
		def.Joints = append(def.Joints, c)
		twins[j.ID] = c.ID
	}
	if len(twins)+len(uses) == 0 {
		return nil, refuse("name a station with joints on it", "nothing stands on %q", from)
	}
	for _, u := range def.Uses {
		if now, copied := uses[u.ID]; copied {
			for _, ref := range b.jointsOf(&u) {
				rest, _ := cut(ref, u.ID)
				twins[ref] = now + rest
			}
		}
	}
	for _, m := range def.Merges { // two names of one joint
		if t, ok := twins[m.Drop]; ok && twins[m.Keep] == "" {
			twins[m.Keep] = t
		}
	}
	for _, p := range slices.Clone(def.Pipes) {
		if f, ok := twins[p.From]; ok {
			if t, ok := twins[p.To]; ok {
				c := p
				c.ID, c.From, c.To = newPipe(def), f, t
				c.Via = renamed(p.Via, twins)
				def.Pipes = append(def.Pipes, c)
			}
		}
	}
	return twins, nil
}

// jointsOf lists the joints that a use brings, as the definition it stands in
// names them.
func (b *bench) jointsOf(u *frame.Use) (all []string) {
	g := b.doc.Group(u.Of)
	if g == nil {
		return nil
	}
	names := []string{u.ID}
	if u.Array != nil {
		names = names[:0]
		for k := range u.Array.Count {
			names = append(names, fmt.Sprintf("%s#%d", u.ID, k+1))
		}
	}
	for _, name := range names {
		for _, j := range g.Joints {
			all = append(all, name+"/"+j.ID)
		}
		for i := range g.Uses {
			for _, ref := range b.jointsOf(&g.Uses[i]) {
				all = append(all, name+"/"+ref)
			}
		}
	}
	return all
}

func cut(s, prefix string) (string, bool) {
	if len(s) > len(prefix) && s[:len(prefix)] == prefix {
		return s[len(prefix):], true
	}
	return s, false
}

// rails runs pipes from some joints to their copies.
func (b *bench) rails(scope int, from []string, twins map[string]string) error {
	def := b.def(scope)
	for _, id := range from {
		ref, ok := b.ref(scope, id)
		twin, copied := twins[ref]
		if !ok || !copied {
			return refuse("name joints that stand on the station", "the joint %q has no copy", id)
		}
		def.Pipes = append(def.Pipes, frame.Pipe{ID: newPipe(def), From: ref, To: twin})
		b.opened(id)
		for k := range def.Joints {
			if def.Joints[k].ID == twin {
				def.Joints[k].End = frame.OpenEnd
			}
		}
	}
	return nil
}

// another runs pipes to a plane's copy as they run to the plane from the one
// before it.
func (b *bench) another(scope int, a measure.Axis, at int, like string, twins map[string]string) {
	def, place := b.def(scope), &b.view.Places[scope]
	here := place.Stations[a][at].At
	for _, p := range slices.Clone(def.Pipes) {
		e := b.view.Graph.Edge(join(place.Path, p.ID))
		if e < 0 {
			continue
		}
		for k, ref := range []string{p.From, p.To} {
			n := b.view.Graph.Edges[e].Ends
			mine, far := place.Local(b.view.Points[n[k]])[a], place.Local(b.view.Points[n[1-k]])[a]
			k0, _, square := along(place.Turned(b.leaves(frame.PipeEnd{Pipe: e, End: k})))
			if twin, ok := twins[ref]; ok && square && k0 == a && (mine-here).Abs() <= near && far < here-near {
				c := p
				c.ID, c.From, c.To = newPipe(def), ref, twin
				c.Path, c.Spring, c.Via, c.Radius = frame.Straight, nil, nil, 0 // it runs from the original to its copy
				def.Pipes = append(def.Pipes, c)
				b.opened(join(place.Path, ref))
			}
		}
	}
}

// cross splits the pipes that run through a new station: at the joint copied
// there, and, where all are to be split, at new ones.
func (b *bench) cross(scope int, a measure.Axis, station, like string, twins map[string]string, all bool) error {
	type crossing struct {
		pipe  string
		start int
	}
	var found []crossing
	was := b.view
	if err := b.look(); err != nil {
		return err
	}
	place := &b.view.Places[scope]
	var at measure.Length
	for _, s := range place.Stations[a] {
		if s.ID == station {
			at = s.At
		}
	}
	def := b.def(scope)
	for _, p := range def.Pipes {
		e := b.view.Graph.Edge(join(place.Path, p.ID))
		if e < 0 || was.Graph.Edge(join(place.Path, p.ID)) < 0 || p.Path != frame.Straight {
			continue
		}
		ends := b.view.Graph.Edges[e].Ends
		lo, hi := place.Local(b.view.Points[ends[0]])[a], place.Local(b.view.Points[ends[1]])[a]
		if min(lo, hi) < at-near && max(lo, hi) > at+near {
			found = append(found, crossing{p.ID, ends[0]})
		}
	}
	for _, c := range found {
		e := b.view.Graph.Edge(join(place.Path, c.pipe))
		joint := ""
		for _, twin := range twins {
			if n := b.view.Graph.Node(join(place.Path, twin)); n >= 0 && b.runsThrough(e, b.view.Points[n]) && (joint == "" || twin < joint) {
				joint = twin
			}
		}
		if joint == "" && all {
			joint = b.crossingJoint(scope, a, station, e)
		}
		if joint != "" {
			b.freeze(def, c.pipe)
			b.cutThrough(def, join(place.Path, c.pipe), place.Path, joint)
		}
	}
	return nil
}

// crossingJoint makes a joint where a pipe crosses a station.
func (b *bench) crossingJoint(scope int, a measure.Axis, station string, e int) string {
	def, place := b.def(scope), &b.view.Places[scope]
	ends := b.view.Graph.Edges[e].Ends
	j := frame.Joint{ID: newJoint(def)}
	d := place.Turned(b.view.Points[ends[0]].Toward(b.view.Points[ends[1]]))
	_, _, square := along(d)
	if at, ok := b.stationsOf(scope, b.view.Points[ends[0]]); ok && square {
		j.At = at
		j.At[a] = station
	} else {
		from, _ := b.ref(scope, b.view.Graph.Nodes[ends[0]].ID)
		j.Walk = &frame.Walk{From: from, Dir: &d, Until: &frame.Until{Axis: a, Station: station}}
	}
	def.Joints = append(def.Joints, j)
	return j.ID
}

// Remove takes a station away with all that stands on it. Pipes that ran
// through it become one; the other stations stay where they are.
type Remove struct {
	In      string       `json:"in,omitempty"`
	Axis    measure.Axis `json:"axis"`
	Station string       `json:"station"`
}

func (w *Remove) on(b *bench) (Done, error) {
	def, scope, at, err := b.axis(w.In, w.Axis, w.Station)
	if err != nil {
		return Done{}, err
	}
	place := &b.view.Places[scope]
	all := place.Stations[w.Axis]
	if len(all) < 2 {
		return Done{}, refuse("delete its joints instead", "%q is the only station of its axis", w.Station)
	}
	for _, u := range def.Uses {
		if u.At[w.Axis] == w.Station && u.Array != nil {
			return Done{}, refuse("take the array away first", "the array %q begins on it", u.ID)
		}
	}
	if b.holds(def, w.Axis, w.Station) {
		return Done{}, refuse("delete its joints instead", "%q is where the group %q is held", w.Station, place.Group)
	}
	gone := map[string]bool{}
	for i := range b.view.Graph.Nodes {
		ref, in := b.ref(scope, b.view.Graph.Nodes[i].ID)
		if in && (place.Local(b.view.Points[i])[w.Axis]-all[at].At).Abs() <= near && b.onStation(def, w.Axis, w.Station, ref) {
			gone[ref] = true
		}
	}
	b.bridge(def, scope, w.Axis, gone)
	for k := range def.Joints {
		if s := def.Joints[k].Walk; s != nil && (gone[s.From] || gone[s.Toward] || s.Until != nil && s.Until.Axis == w.Axis && s.Until.Station == w.Station) {
			b.ground(def, &def.Joints[k])
		}
	}
	def.Joints = slices.DeleteFunc(def.Joints, func(j frame.Joint) bool { return gone[j.ID] || j.Walk == nil && j.At[w.Axis] == w.Station })
	def.Uses = slices.DeleteFunc(def.Uses, func(u frame.Use) bool { return u.At[w.Axis] == w.Station })
	b.unhang(def, scope, w.Axis, w.Station, at)
	i := slices.IndexFunc(def.Axes[w.Axis].Stations, func(s frame.Station) bool { return s.ID == w.Station })
	def.Axes[w.Axis].Stations = slices.Delete(def.Axes[w.Axis].Stations, i, i+1)
	return Done{Label: "Station " + w.Station + " away", Also: b.everywhere(scope)}, nil
}

// onStation says whether a joint stands on a station itself or in a use that does.
func (b *bench) onStation(def *frame.Definition, a measure.Axis, station, ref string) bool {
	for _, j := range def.Joints {
		if j.ID == ref {
			return j.Walk == nil && j.At[a] == station
		}
	}
	for _, u := range def.Uses {
		if _, ok := cut(ref, u.ID+"/"); ok {
			return u.At[a] == station
		}
	}
	return false
}

// bridge makes one pipe of two that run on through a joint that goes.
func (b *bench) bridge(def *frame.Definition, scope int, a measure.Axis, gone map[string]bool) {
	place := &b.view.Places[scope]
	for i := 0; i < len(def.Pipes); i++ {
		p := &def.Pipes[i]
		e := b.view.Graph.Edge(join(place.Path, p.ID))
		if e < 0 {
			continue
		}
		for k, ref := range []string{p.From, p.To} {
			if !gone[ref] || gone[[]string{p.To, p.From}[k]] {
				continue
			}
			d := b.leaves(frame.PipeEnd{Pipe: e, End: 1 - k})
			for m := range def.Pipes {
				q := &def.Pipes[m]
				f := b.view.Graph.Edge(join(place.Path, q.ID))
				if m == i || f < 0 {
					continue
				}
				for l, other := range []string{q.From, q.To} {
					far := []string{q.To, q.From}[l]
					if other != ref || gone[far] || b.leaves(frame.PipeEnd{Pipe: f, End: l}).AngleTo(d) > 1 {
						continue
					}
					b.freeze(def, p.ID)
					b.freeze(def, q.ID)
					if k == 0 {
						p.From = far
					} else {
						p.To = far
					}
					q.From, q.To = ref, ref // it goes with its joint
				}
			}
		}
	}
	def.Pipes = slices.DeleteFunc(def.Pipes, func(p frame.Pipe) bool { return gone[p.From] || gone[p.To] })
}

// unhang lets what is placed by a station stand by itself before it goes.
func (b *bench) unhang(def *frame.Definition, scope int, a measure.Axis, station string, at int) {
	all := b.view.Places[scope].Stations[a]
	st := def.Axes[a].Stations
	if st[0].ID == station { // another one becomes the origin
		next := at + 1
		if next == len(all) {
			next = at - 1
		}
		i := slices.IndexFunc(st, func(s frame.Station) bool { return s.ID == all[next].ID })
		origin := st[i]
		origin.At, origin.Split, origin.Like = nil, nil, nil
		def.Axes[a].Origin = all[next].At
		st = slices.Insert(slices.Delete(st, i, i+1), 0, origin)
		def.Axes[a].Stations = st
	}
	for i := range st {
		if s := &st[i]; s.Like != nil && s.Like.From == station || s.At != nil && s.At.From == station || s.Split != nil && (s.Split.From == station || s.Split.To == station) {
			b.turnRound(def, scope, a, s.ID)
		}
	}
	for _, l := range likened(def, a, station) {
		b.turnRound(def, scope, measure.Axis(l[0]), def.Axes[l[0]].Stations[l[1]].ID)
	}
}

// renamed gives joints the names of their copies, where they have one.
func renamed(refs []string, twins map[string]string) []string {
	out := slices.Clone(refs)
	for i, r := range out {
		if t, ok := twins[r]; ok {
			out[i] = t
		}
	}
	return out
}
