package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// near is how close two places are when they are meant to be one.
const near = measure.Inch / 500

// bench is a document being changed, with where its parts stood before.
type bench struct {
	doc   *frame.Document
	unit  measure.Unit
	view  *View
	solve Solver
	given map[string]given // what gives way to each drive, as it was at first
	also  []string         // what a change did besides
}

func lay(d *frame.Document, unit measure.Unit, solve Solver) (*bench, error) {
	b := &bench{doc: d.Clone(), unit: cmp.Or(unit, d.Units, measure.Inches), solve: solve}
	b.given = b.gives()
	return b, b.look()
}

// look puts the parts of the document as it is now in their places.
func (b *bench) look() (err error) {
	b.prune()
	b.regive()
	b.view, err = b.solve(b.doc)
	return err
}

// scope finds the axes of a use by its path.
func (b *bench) scope(path string) (int, error) {
	i := slices.IndexFunc(b.view.Graph.Scopes, func(s frame.Scope) bool { return s.Path == path })
	if i < 0 {
		return 0, refuse("name a part of the frame", "there is no part %q", path)
	}
	return i, nil
}

// def is the definition a scope shows.
func (b *bench) def(scope int) *frame.Definition { return b.view.Places[scope].Definition(b.doc) }

// ref names a joint as the definition of a scope does; ok is false for a joint
// outside it.
func (b *bench) ref(scope int, joint string) (string, bool) {
	return within(b.view.Graph.Scopes[scope].Path, joint)
}

func within(path, id string) (string, bool) {
	if path == "" {
		return id, true
	}
	return strings.CutPrefix(id, path+"/")
}

// local is an id as its definition has it.
func local(path, id string) string {
	id, _ = within(path, id)
	return id
}

func join(path, id string) string {
	if path == "" {
		return id
	}
	return path + "/" + id
}

// node finds a joint by its path.
func (b *bench) node(id string) (int, error) {
	n := b.view.Graph.Node(id)
	if n < 0 {
		return 0, refuse("pick a joint of the frame", "there is no joint %q", id)
	}
	return n, nil
}

// edge finds a pipe by its path.
func (b *bench) edge(id string) (int, error) {
	e := b.view.Graph.Edge(id)
	if e < 0 {
		return 0, refuse("pick a pipe of the frame", "there is no pipe %q", id)
	}
	return e, nil
}

// joint gives the definition and the place in it of a joint, by its path, and
// the scope it stands in.
func (b *bench) joint(id string) (def *frame.Definition, i, scope int, err error) {
	n, err := b.node(id)
	if err != nil {
		return nil, 0, 0, err
	}
	scope = b.view.Graph.Nodes[n].Places[0].Scope
	def = b.def(scope)
	local, _ := b.ref(scope, id)
	i = slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == local })
	if i < 0 {
		return nil, 0, 0, refuse("change the array it belongs to", "the joint %q belongs to a copy", id)
	}
	return def, i, scope, nil
}

// pipe gives the definition and the place in it of a pipe, by its path.
func (b *bench) pipe(id string) (def *frame.Definition, i, scope int, err error) {
	e, err := b.edge(id)
	if err != nil {
		return nil, 0, 0, err
	}
	scope = b.view.Graph.Edges[e].Scope
	def = b.def(scope)
	local, _ := b.ref(scope, id)
	i = slices.IndexFunc(def.Pipes, func(p frame.Pipe) bool { return p.ID == local })
	if i < 0 {
		return nil, 0, 0, refuse("pick it again", "the pipe %q is not in its group", id)
	}
	return def, i, scope, nil
}

// everywhere words that a change of a group counts for all its uses.
func (b *bench) everywhere(scope int) []string {
	of := b.view.Places[scope].Group
	n := 0
	for _, p := range b.view.Places {
		if of != "" && p.Group == of {
			n++
		}
	}
	if n < 2 {
		return nil
	}
	return []string{fmt.Sprintf("in every one of the %d %s", n, cmp.Or(b.doc.Group(of).Name, of))}
}

// station finds a station of a definition that stands at a coordinate.
func (b *bench) station(scope int, a measure.Axis, at measure.Length) (string, bool) {
	for _, st := range b.view.Places[scope].Stations[a] {
		if (st.At-at).Abs() <= near && !st.Copied {
			return st.ID, true
		}
	}
	return "", false
}

// stationsOf gives the stations of a scope on which a point stands.
func (b *bench) stationsOf(scope int, p measure.Point) (at [3]string, ok bool) {
	local := b.view.Places[scope].Local(p)
	for a := range 3 {
		if at[a], ok = b.station(scope, measure.Axis(a), local[a]); !ok {
			return at, false
		}
	}
	return at, true
}

// free gives an id that no item has yet: the prefix with the next number.
func free(prefix string, taken func(id string) bool) string {
	for n := 1; ; n++ {
		if id := fmt.Sprintf("%s%d", prefix, n); !taken(id) {
			return id
		}
	}
}

func newJoint(def *frame.Definition) string {
	return free("j", func(id string) bool {
		return slices.ContainsFunc(def.Joints, func(j frame.Joint) bool { return j.ID == id }) || slices.ContainsFunc(def.Uses, func(u frame.Use) bool { return u.ID == id })
	})
}

func newPipe(def *frame.Definition) string {
	return free("p", func(id string) bool {
		return slices.ContainsFunc(def.Pipes, func(p frame.Pipe) bool { return p.ID == id })
	})
}

func newStation(def *frame.Definition, a measure.Axis) string {
	return free(a.String(), func(id string) bool {
		return slices.ContainsFunc(def.Axes[a].Stations, func(s frame.Station) bool { return s.ID == id }) || slices.ContainsFunc(def.Uses, func(u frame.Use) bool { return strings.HasPrefix(id, u.ID+"#") })
	})
}

// leaves is the direction in which a pipe leaves one of its joints.
func (b *bench) leaves(pe frame.PipeEnd) measure.Dir {
	return b.view.Tangents[pe.Pipe][pe.End]
}

// along is the axis of a scope that a direction runs along, and its sign.
func along(d measure.Dir) (a measure.Axis, sign float64, ok bool) {
	d = d.Unit()
	for k := range d {
		if d[k] > 1-1e-9 || d[k] < -1+1e-9 {
			return measure.Axis(k), d[k], true
		}
	}
	return 0, 0, false
}

// prune takes away what a change left without a joint or a place: pipes whose
// joints are gone, joints that were left bare by it, stations that nothing
// stands on and nothing is measured from.
func (b *bench) prune() {
	for changed := true; changed; {
		changed = false
		for _, def := range b.definitions() {
			n := len(def.Pipes) + len(def.Merges) + len(def.Joints)
			def.Pipes = slices.DeleteFunc(def.Pipes, func(p frame.Pipe) bool {
				return !b.has(def, p.From) || !b.has(def, p.To) || slices.ContainsFunc(p.Via, func(v string) bool { return !b.has(def, v) })
			})
			def.Links = slices.DeleteFunc(def.Links, func(l frame.Link) bool {
				return slices.ContainsFunc(l.On, func(s frame.Spot) bool { return !b.hasSpot(def, s) })
			})
			def.Merges = slices.DeleteFunc(def.Merges, func(m frame.Merge) bool { return !b.has(def, m.Keep) || !b.has(def, m.Drop) })
			def.Joints = slices.DeleteFunc(def.Joints, func(j frame.Joint) bool {
				return j.Walk != nil && (!b.has(def, j.Walk.From) || j.Walk.Toward != "" && !b.has(def, j.Walk.Toward))
			})
			changed = changed || n != len(def.Pipes)+len(def.Merges)+len(def.Joints)
		}
	}
}

func (b *bench) definitions() []*frame.Definition {
	all := []*frame.Definition{&b.doc.Root}
	for i := range b.doc.Groups {
		all = append(all, &b.doc.Groups[i])
	}
	return all
}

// hasSpot says whether the place of a link is there.
func (b *bench) hasSpot(def *frame.Definition, s frame.Spot) bool {
	if s.Joint != "" {
		return b.has(def, s.Joint)
	}
	in, id := def, s.Pipe
	if use, rest, inUse := strings.Cut(s.Pipe, "/"); inUse {
		name, _, _ := strings.Cut(use, "#")
		for i := range def.Uses {
			if def.Uses[i].ID == name {
				if g := b.doc.Group(def.Uses[i].Of); g != nil {
					return b.hasSpot(g, frame.Spot{Pipe: rest})
				}
			}
		}
		return false
	}
	return slices.ContainsFunc(in.Pipes, func(p frame.Pipe) bool { return p.ID == id && (s.From == "" || p.From == s.From || p.To == s.From) })
}

// has says whether a definition has a joint by a name: its own, or one of a
// group used in it.
func (b *bench) has(def *frame.Definition, ref string) bool {
	first, rest, inUse := strings.Cut(ref, "/")
	if !inUse {
		return slices.ContainsFunc(def.Joints, func(j frame.Joint) bool { return j.ID == ref })
	}
	name, copyOf, array := strings.Cut(first, "#")
	for i := range def.Uses {
		u := &def.Uses[i]
		if u.ID != name || array != (u.Array != nil) {
			continue
		}
		var n int
		if array {
			if _, err := fmt.Sscanf(copyOf, "%d", &n); err != nil || n < 1 || n > u.Array.Count {
				return false
			}
		}
		g := b.doc.Group(u.Of)
		return g != nil && b.has(g, rest)
	}
	return false
}
