package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Group names a sub-assembly: joints, and the pipes between them, become a
// group of their own with one use where they stood.
type Group struct {
	In     string   `json:"in,omitempty"`
	Name   string   `json:"name"`
	Joints []string `json:"joints"`
}

func (w *Group) on(b *bench) (Done, error) {
	scope, err := b.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	id, err := b.group(scope, w.Name, w.Joints)
	if err != nil {
		return Done{}, err
	}
	return Done{Label: "Group " + w.Name, Part: join(b.view.Graph.Scopes[scope].Path, id), Also: b.everywhere(scope)}, nil
}

// group moves joints of a definition into a group of their own and gives its
// use's id.
func (b *bench) group(scope int, name string, joints []string) (string, error) {
	def := b.def(scope)
	name = strings.TrimSpace(name)
	if name == "" {
		return "", refuse("name it, as in foot", "a group without a name")
	}
	if strings.ContainsAny(name, "/#") {
		return "", refuse("leave out / and #", "%q cannot be a name", name)
	}
	own, uses := map[string]bool{}, map[string]bool{}
	for _, id := range joints {
		ref, ok := b.ref(scope, id)
		if !ok {
			return "", refuse("pick joints of one part", "the joint %q is not in it", id)
		}
		first, _, inUse := strings.Cut(ref, "/")
		switch {
		case inUse:
			u, _, _ := strings.Cut(first, "#")
			uses[u] = true
		case b.has(def, ref):
			own[ref] = true
		default:
			return "", refuse("pick it again", "there is no joint %q", id)
		}
	}
	if len(own) == 0 && len(uses) < 2 {
		return "", refuse("pick the joints that belong to it", "nothing to group")
	}
	for _, j := range def.Joints {
		if own[j.ID] && j.Walk != nil {
			for _, from := range []string{j.Walk.From, j.Walk.Toward} {
				first, _, _ := strings.Cut(from, "/")
				if from != "" && !own[from] && !uses[first] {
					return "", refuse("take "+from+" into the group as well", "the joint %q is walked to from %q", j.ID, from)
				}
			}
		}
	}
	g := frame.Definition{ID: free(name, func(id string) bool { return b.doc.Group(id) != nil })}
	if b.doc.Group(name) == nil {
		g.ID = name
	}
	g.Name = name
	inside := func(ref string) bool {
		first, _, _ := strings.Cut(ref, "/")
		first, _, _ = strings.Cut(first, "#")
		return own[ref] || uses[first]
	}
	move := func(p frame.Pipe) bool { return inside(p.From) && inside(p.To) }
	for _, p := range def.Pipes {
		for _, v := range p.Via { // a bend's corners come along
			own[v] = own[v] || move(p)
		}
	}
	for _, j := range def.Joints {
		if own[j.ID] {
			g.Joints = append(g.Joints, j)
		}
	}
	for _, p := range def.Pipes {
		if move(p) {
			g.Pipes = append(g.Pipes, p)
		}
	}
	for _, u := range def.Uses {
		if uses[u.ID] {
			g.Uses = append(g.Uses, u)
		}
	}
	linked := func(l frame.Link) bool {
		return !slices.ContainsFunc(l.On, func(s frame.Spot) bool {
			if s.Joint != "" {
				return !inside(s.Joint)
			}
			return !inside(s.Pipe) && !slices.ContainsFunc(g.Pipes, func(p frame.Pipe) bool { return p.ID == s.Pipe })
		})
	}
	for _, l := range def.Links {
		if linked(l) {
			g.Links = append(g.Links, l)
		}
	}
	def.Links = slices.DeleteFunc(def.Links, linked)
	use := frame.Use{ID: free(name+" ", func(id string) bool {
		return slices.ContainsFunc(def.Uses, func(u frame.Use) bool { return u.ID == id })
	}), Of: g.ID}
	for a := range 3 {
		g.Axes[a].Stations = b.stationsFor(def, measure.Axis(a), &g)
		// it is held at the first station that something of it stands on
		for _, s := range g.Axes[a].Stations {
			if use.At[a] == "" || !b.stands(&g, measure.Axis(a), use.At[a]) && b.stands(&g, measure.Axis(a), s.ID) {
				use.At[a] = s.ID
			}
		}
	}
	use.Anchor = use.At
	// where it is held is the use's to say, not the floor's
	if id := use.Anchor[measure.Z]; g.FromFloor(id) {
		st := find(&g, measure.Z, id)
		st.At, st.Split, st.Like = nil, nil, nil
	}
	def.Joints = slices.DeleteFunc(def.Joints, func(j frame.Joint) bool { return own[j.ID] })
	def.Pipes = slices.DeleteFunc(def.Pipes, move)
	def.Uses = slices.DeleteFunc(def.Uses, func(u frame.Use) bool { return uses[u.ID] })
	def.Uses = append(def.Uses, use)
	b.rename(scope, func(ref string) string {
		if inside(ref) {
			return use.ID + "/" + ref
		}
		return ref
	}, func(pipe string) string {
		if slices.ContainsFunc(g.Pipes, func(p frame.Pipe) bool { return p.ID == pipe }) || inside(pipe) {
			return use.ID + "/" + pipe
		}
		return pipe
	})
	b.doc.Groups = append(b.doc.Groups, g)
	def = b.def(scope) // the list of groups may have moved
	for a := range 3 {
		for _, s := range slices.Clone(def.Axes[a].Stations) {
			b.dropStation(def, measure.Axis(a), s.ID)
		}
	}
	return use.ID, nil
}

// stationsFor copies the stations of a definition that a group needs, and
// those that place them.
func (b *bench) stationsFor(def *frame.Definition, a measure.Axis, g *frame.Definition) []frame.Station {
	need := map[string]bool{}
	var take func(id string)
	take = func(id string) {
		st := find(def, a, id)
		if st == nil || need[id] {
			return
		}
		need[id] = true
		if st.At != nil {
			take(st.At.From)
		}
		if st.Like != nil {
			take(st.Like.From)
		}
		if st.Split != nil {
			take(st.Split.From)
			take(st.Split.To)
		}
	}
	for _, s := range def.Axes[a].Stations {
		if b.stands(g, a, s.ID) {
			take(s.ID)
		}
	}
	var all []frame.Station
	for _, s := range def.Axes[a].Stations {
		if need[s.ID] {
			if s.At != nil {
				d := *s.At
				if d.Of != "" && !slices.ContainsFunc(g.Pipes, func(p frame.Pipe) bool { return p.ID == d.Of }) {
					d = b.came(s.At) // the pipe it measures stays behind
				}
				s.At = &d
			}
			if s.Split != nil {
				p := *s.Split
				s.Split = &p
			}
			if s.Like != nil { // its other axis may stay behind: it keeps the size it has
				s.At, s.Like = b.stoodAt(def, a, s.ID), nil
			}
			all = append(all, s)
		}
	}
	if len(all) == 0 {
		all = []frame.Station{{ID: a.String() + "1"}}
	}
	return all
}

// came is a size as the centre distance that it came to.
func (b *bench) came(d *frame.Dimension) frame.Dimension {
	c := *d
	for _, path := range b.doc.Dimensions() {
		if b.doc.Dimension(path) != d {
			continue
		}
		for _, s := range b.view.Sizes {
			if s.Path == path {
				c.Value, c.Meaning, c.Of = s.Centre, frame.Centre, ""
				c.Text = c.Value.Format(measure.InInches, 0)
			}
		}
	}
	return c
}

// stoodAt is a station's place as a size from the station it is measured from.
func (b *bench) stoodAt(def *frame.Definition, a measure.Axis, id string) *frame.Dimension {
	from := find(def, a, id).Like.From
	for i := range b.view.Places {
		p := &b.view.Places[i]
		if p.Definition(b.doc) != def {
			continue
		}
		at := map[string]measure.Length{}
		for _, s := range p.Stations[a] {
			at[s.ID] = s.At
		}
		v := at[id] - at[from]
		return &frame.Dimension{Value: v.Abs(), Meaning: frame.Centre, From: from, Back: v < 0, Text: v.Abs().Format(measure.InInches, 0)}
	}
	return &frame.Dimension{Meaning: frame.Centre, From: from}
}

// use finds a use by its path, in the definition that it stands in.
func (b *bench) use(part string) (def *frame.Definition, i, scope int, err error) {
	sc := slices.IndexFunc(b.view.Graph.Scopes, func(s frame.Scope) bool { return s.Path == part && part != "" })
	if sc < 0 {
		return nil, 0, 0, refuse("pick a part of the frame", "there is no part %q", part)
	}
	scope = b.view.Graph.Scopes[sc].Parent
	def = b.def(scope)
	local, _ := b.ref(scope, part)
	name, _, _ := strings.Cut(local, "#")
	i = slices.IndexFunc(def.Uses, func(u frame.Use) bool { return u.ID == name })
	return def, i, scope, nil
}

// PlaceUse puts a group into the frame once more.
type PlaceUse struct {
	In    string `json:"in,omitempty"`
	Group string `json:"group"`
	On    string `json:"on"`             // the joint that its anchor stands on
	Name  string `json:"name,omitempty"` // of the use

	anchor [3]string // that the group is held at; as its other uses are where it is not given
}

func (w *PlaceUse) on(b *bench) (Done, error) {
	scope, err := b.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	n, err := b.node(w.On)
	if err != nil {
		return Done{}, err
	}
	g := b.doc.Group(w.Group)
	if g == nil {
		return Done{}, refuse("name a group of this frame", "there is no group %q", w.Group)
	}
	at, ok := b.stationsOf(scope, b.view.Points[n])
	if !ok {
		return Done{}, refuse("pick a joint that stands on stations", "the joint %q stands on no stations of this part", w.On)
	}
	def := b.def(scope)
	u := frame.Use{ID: w.Name, Of: w.Group, At: at, Anchor: w.anchor}
	if u.Anchor == [3]string{} {
		u.Anchor = anchorOf(b.definitions(), w.Group)
	}
	if u.ID == "" {
		u.ID = free(cmp.Or(g.Name, g.ID)+" ", func(id string) bool { return b.takenUse(def, id) })
	}
	if b.takenUse(def, u.ID) || b.has(def, u.ID) || strings.ContainsAny(u.ID, "/#") {
		return Done{}, refuse("give it another name, without / and #", "%q cannot be its name", u.ID)
	}
	def.Uses = append(def.Uses, u)
	path := join(b.view.Graph.Scopes[scope].Path, u.ID)
	done := Done{Label: fmt.Sprintf("Another %s at %s", cmp.Or(g.Name, g.ID), w.On), Part: path, Also: b.everywhere(scope)}
	if err := b.weld(scope, path); err != nil {
		return Done{}, err
	}
	return done, b.sound() // what falls onto what is there may not go together with it
}

func (b *bench) takenUse(def *frame.Definition, id string) bool {
	return slices.ContainsFunc(def.Uses, func(u frame.Use) bool { return u.ID == id })
}

// anchorOf is the anchor that a group's uses in some definitions have.
func anchorOf(defs []*frame.Definition, group string) [3]string {
	for _, def := range defs {
		for _, u := range def.Uses {
			if u.Of == group {
				return u.Anchor
			}
		}
	}
	return [3]string{}
}

// weld joins what a part brought to the place of something that was there:
// two joints on one spot are one joint.
func (b *bench) weld(scope int, part string) error {
	if err := b.look(); err != nil {
		return err
	}
	def, same := b.def(scope), map[string]string{} // what was welded: its name from then on
	inPart := func(id string) bool {
		return id == part || strings.HasPrefix(id, part+"/") || strings.HasPrefix(id, part+"#")
	}
	for i := range b.view.Graph.Nodes {
		for k := range i {
			x, y := b.view.Graph.Nodes[k].ID, b.view.Graph.Nodes[i].ID
			if !inPart(x) && !inPart(y) || b.joined(i, k) || b.view.Points[i].Distance(b.view.Points[k]) > near {
				continue
			}
			same[x], same[y] = x, x
			if inPart(y) {
				same[x], same[y] = y, y
			}
			keep, ok1 := b.ref(scope, x)
			drop, ok2 := b.ref(scope, y)
			if !ok1 || !ok2 {
				continue
			}
			if inPart(x) && !inPart(y) {
				x, y, keep, drop = y, x, drop, keep
			}
			// a joint of the definition itself gives way to the part's
			if own := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == keep }); own >= 0 && def.Joints[own].Fitting == nil && !b.walkedFrom(def, keep) {
				b.rejoin(def, keep, drop)
				continue
			}
			def.Merges = append(def.Merges, frame.Merge{Keep: keep, Drop: drop})
		}
	}
	// a pipe that the part brought along as well is there once
	path, g := b.view.Graph.Scopes[scope].Path, b.view.Graph
	name := func(id string) string {
		if to, welded := same[id]; welded {
			return to
		}
		return id
	}
	def.Pipes = slices.DeleteFunc(def.Pipes, func(p frame.Pipe) bool {
		x, y := name(join(path, p.From)), name(join(path, p.To))
		return p.Path == frame.Straight && slices.ContainsFunc(g.Edges, func(e frame.Edge) bool {
			u, v := name(g.Nodes[e.Ends[0]].ID), name(g.Nodes[e.Ends[1]].ID)
			return inPart(e.ID) && e.Path == frame.Straight && (u == x && v == y || u == y && v == x)
		})
	})
	return nil
}

// Bring takes a group from another frame, with the groups inside it, and puts
// it on a joint.
type Bring struct {
	From  frame.Document `json:"from"`  // the other frame
	Group string         `json:"group"` // its group; "" for the whole frame
	On    string         `json:"on"`
}

func (w *Bring) on(b *bench) (Done, error) {
	if _, err := frame.Expand(&w.From); err != nil {
		return Done{}, refuse("mend it there first", "that frame cannot be built as it stands")
	}
	main := w.From.Root
	main.ID, main.Name = "frame", w.From.Name
	if w.Group != "" {
		g := w.From.Group(w.Group)
		if g == nil {
			return Done{}, refuse("pick one of its groups", "that frame has no group %q", w.Group)
		}
		main = *g
	}
	name := cmp.Or(main.Name, main.ID)
	// what it takes along gets names that are free here; equal groups are shared
	names := map[string]string{}
	var take func(def frame.Definition) string
	take = func(def frame.Definition) string {
		if to, done := names[def.ID]; done {
			return to
		}
		was := def.ID
		def.Size = cmp.Or(def.Size, w.From.Size)
		def.Mode = cmp.Or(def.Mode, w.From.Mode)
		def.Uses = slices.Clone(def.Uses)
		for i := range def.Uses {
			if g := w.From.Group(def.Uses[i].Of); g != nil {
				def.Uses[i].Of = take(*g)
			}
		}
		def.ID = was
		for n := 2; b.doc.Group(def.ID) != nil; n++ {
			def.ID = fmt.Sprintf("%s %d", was, n)
		}
		names[was] = def.ID
		b.doc.Groups = append(b.doc.Groups, def)
		return def.ID
	}
	for i := range w.From.Parts {
		if !slices.ContainsFunc(b.doc.Parts, func(c catalog.Custom) bool { return c.ID == w.From.Parts[i].ID }) {
			b.doc.Parts = append(b.doc.Parts, w.From.Parts[i])
		}
	}
	id := take(main)
	if err := b.look(); err != nil {
		return Done{}, err
	}
	place := &PlaceUse{Group: id, On: w.On}
	if w.Group != "" { // it is held as it was held there
		place.anchor = anchorOf((&bench{doc: &w.From}).definitions(), w.Group)
	}
	done, err := place.on(b)
	done.Label = fmt.Sprintf("%s brought to %s", name, w.On)
	return done, err
}
