package frame

import (
	"slices"
	"strings"
)

// RefKind is what a reference names.
type RefKind string

// The kinds of references. A place is a joint or a named plane.
const (
	JointRef  RefKind = "joint"
	PipeRef   RefKind = "pipe"
	PlaceRef  RefKind = "place"
	PlaneRef  RefKind = "plane"
	UseRef    RefKind = "use"
	GroupRef  RefKind = "group"
	SizeRef   RefKind = "size"
	ReasonRef RefKind = "reason"
)

// visitor is shown every reference with the definition whose names it uses.
type visitor func(in *Definition, kind RefKind, ref *string)

// EachRef shows every field of the document that names a joint, pipe, plane,
// size, reason, group or use, with the definition whose names it uses; empty ones
// too. The references of [ModeRule], [Tolerance] and [ClearanceCheck] use the names of the root. It is
// the only place that knows them all.
func (d *Document) EachRef(visit func(in *Definition, kind RefKind, ref *string)) {
	for _, def := range d.Definitions() {
		for i := range def.Joints {
			for a := range 3 {
				visit(def, PlaneRef, &def.Joints[i].On[a])
			}
		}
		for i := range def.Pipes {
			def.Pipes[i].refs(def, visit)
		}
		for i := range def.Sizes {
			def.Sizes[i].refs(def, visit)
		}
		for i := range def.Reasons {
			def.Reasons[i].refs(def, visit)
		}
		for i := range def.Uses {
			d.useRefs(def, &def.Uses[i], visit)
		}
		for i := range def.Merges {
			def.Merges[i].refs(def, visit)
		}
		for i := range def.Links {
			def.Links[i].refs(def, visit)
		}
	}
	for i := range d.ModeRules {
		h := &d.ModeRules[i]
		visit(&d.Root, JointRef, &h.Joint)
		visit(&d.Root, PipeRef, &h.Pipe)
		visit(&d.Root, UseRef, &h.Use)
		visit(&d.Root, GroupRef, &h.Group)
	}
	for i := range d.Tolerances {
		visit(&d.Root, PipeRef, &d.Tolerances[i].Pipe)
	}
	for i := range d.ClearanceChecks {
		visit(&d.Root, JointRef, &d.ClearanceChecks[i].Joint)
	}
	for i := range d.Followed {
		visit(&d.Root, PipeRef, &d.Followed[i])
	}
}

// Definitions lists the root and the groups.
func (d *Document) Definitions() []*Definition {
	all := []*Definition{&d.Root}
	for i := range d.Groups {
		all = append(all, &d.Groups[i])
	}
	return all
}

func (g *GaveWay) refs(def *Definition, visit visitor) {
	if g == nil {
		return
	}
	for i := range g.Sizes {
		visit(def, SizeRef, &g.Sizes[i])
	}
	for i := range g.Pipes {
		visit(def, PipeRef, &g.Pipes[i])
	}
	for i := range g.Reasons {
		visit(def, ReasonRef, &g.Reasons[i])
	}
}

func (p *Pipe) refs(def *Definition, visit visitor) {
	visit(def, JointRef, &p.From)
	visit(def, JointRef, &p.To)
	for i := range p.Via {
		visit(def, JointRef, &p.Via[i])
	}
	p.Gave.refs(def, visit)
}

func (s *Size) refs(def *Definition, visit visitor) {
	visit(def, PipeRef, &s.Pipe)
	if s.From != Floor {
		visit(def, PlaceRef, (*string)(&s.From))
	}
	visit(def, PlaceRef, (*string)(&s.To))
	visit(def, JointRef, &s.Foot)
	visit(def, SizeRef, &s.Solves)
	s.Gave.refs(def, visit)
}

func (t *Reason) refs(def *Definition, visit visitor) {
	for _, r := range []*Ref{&t.Of, &t.From, &t.To, &t.EqualFrom, &t.EqualTo} {
		visit(def, PlaceRef, (*string)(r))
	}
	t.Gave.refs(def, visit)
}

func (m *Merge) refs(def *Definition, visit visitor) {
	visit(def, JointRef, &m.Keep)
	visit(def, JointRef, &m.Drop)
}

func (l *Link) refs(def *Definition, visit visitor) {
	for i := range l.On {
		visit(def, PipeRef, &l.On[i].Pipe)
		visit(def, JointRef, &l.On[i].From)
		visit(def, JointRef, &l.On[i].Joint)
	}
}

func (d *Document) useRefs(def *Definition, u *Use, visit visitor) {
	visit(def, GroupRef, &u.Of)
	for a := range 3 {
		visit(def, PlaceRef, (*string)(&u.At[a]))
	}
	if u.Array != nil && u.Array.Pitch != nil {
		u.Array.Pitch.refs(def, visit)
	}
	g := d.Group(u.Of)
	if g == nil {
		return
	}
	for a := range 3 {
		visit(g, PlaceRef, (*string)(&u.Anchor[a]))
	}
	if u.Array != nil {
		for i := range u.Array.Joined {
			visit(g, JointRef, &u.Array.Joined[i][0])
			visit(g, JointRef, &u.Array.Joined[i][1])
		}
	}
}

// useName gives the id of the use that a step of a path names, and the copy's
// number where it is one of an array; 0 otherwise.
func useName(step string) (id string, copyOf int) {
	id, no, array := strings.Cut(step, "#")
	if !array {
		return id, 0
	}
	n := 0
	for _, c := range no {
		if c < '0' || c > '9' || n > 10*maxCopies {
			return id, -1
		}
		n = 10*n + int(c-'0')
	}
	if n == 0 {
		n = -1
	}
	return id, n
}

// Use finds a use of a definition by its id; nil when there is none.
func (def *Definition) Use(id string) *Use {
	for i := range def.Uses {
		if def.Uses[i].ID == id {
			return &def.Uses[i]
		}
	}
	return nil
}

// Joint finds a joint of a definition by its id; nil when there is none.
func (def *Definition) Joint(id string) *Joint {
	for i := range def.Joints {
		if def.Joints[i].ID == id {
			return &def.Joints[i]
		}
	}
	return nil
}

// Pipe finds a pipe of a definition by its id; nil when there is none.
func (def *Definition) Pipe(id string) *Pipe {
	for i := range def.Pipes {
		if def.Pipes[i].ID == id {
			return &def.Pipes[i]
		}
	}
	return nil
}

// own says whether a reference is the plain name of a joint or pipe of a
// definition; names from files may have a / in them.
func (def *Definition) own(kind RefKind, ref string) bool {
	switch kind {
	case PipeRef:
		return def.Pipe(ref) != nil
	case JointRef, PlaceRef:
		return def.Joint(ref) != nil
	}
	return false
}

// HasPlane says whether a definition has a named plane on an axis.
func (def *Definition) HasPlane(a int, id string) bool {
	return slices.ContainsFunc(def.Planes[a], func(p Plane) bool { return p.ID == id })
}

// Inside follows a path of uses from a definition; nil when it leads nowhere.
func (d *Document) Inside(def *Definition, path string) *Definition {
	for path != "" && def != nil {
		var step string
		step, path, _ = strings.Cut(path, "/")
		id, no := useName(step)
		u := def.Use(id)
		if u == nil || (u.Array != nil) != (no != 0) || u.Array != nil && (no < 1 || no > u.Array.Count) {
			return nil
		}
		def = d.Group(u.Of)
	}
	return def
}

// Names says whether a reference, in the names of a definition, names
// something.
func (d *Document) Names(def *Definition, kind RefKind, ref string) bool {
	switch kind {
	case GroupRef:
		return d.Group(ref) != nil
	case SizeRef:
		return d.SizeOf(ref) != nil
	case ReasonRef:
		return slices.ContainsFunc(d.Definitions(), func(o *Definition) bool { return o.Reason(ref) != nil })
	case UseRef:
		return d.Inside(def, ref) != nil
	case PlaneRef:
		return def.HasPlane(0, ref) || def.HasPlane(1, ref) || def.HasPlane(2, ref)
	}
	if def.own(kind, ref) {
		return true
	}
	path, name, plane := Ref(ref).Parts()
	in := d.Inside(def, path)
	switch {
	case in == nil:
		return false
	case kind == PipeRef:
		return in.Pipe(name) != nil
	case plane:
		return kind == PlaceRef && d.Names(in, PlaneRef, name)
	}
	return in.Joint(name) != nil
}

// Reason finds a reason of a definition by its id; nil when there is none.
func (def *Definition) Reason(id string) *Reason {
	for i := range def.Reasons {
		if def.Reasons[i].ID == id {
			return &def.Reasons[i]
		}
	}
	return nil
}

// EachSize shows every size of the document with the definition it is of.
func (d *Document) EachSize(visit func(def *Definition, s *Size)) {
	for _, def := range d.Definitions() {
		for i := range def.Sizes {
			visit(def, &def.Sizes[i])
		}
		for i := range def.Uses {
			if a := def.Uses[i].Array; a != nil && a.Pitch != nil {
				visit(def, a.Pitch)
			}
		}
	}
}

// SizeOf finds a size by its id; nil when there is none.
func (d *Document) SizeOf(id string) (found *Size) {
	d.EachSize(func(_ *Definition, s *Size) {
		if s.ID == id && found == nil {
			found = s
		}
	})
	return found
}

// renamed gives every reference through or to things of a definition other
// names: name is asked for each step of a path that belongs to it. A step may
// become several.
func (d *Document) renamed(of *Definition, name func(kind RefKind, id string) string) {
	d.EachRef(func(in *Definition, kind RefKind, ref *string) {
		switch {
		case *ref == "" || kind == GroupRef || kind == SizeRef || kind == ReasonRef || kind == PlaneRef:
			return // a joint's own planes go where it goes
		}
		steps := strings.Split(*ref, "/")
		if in.own(kind, *ref) { // a name from a file may have a / in it
			steps = []string{*ref}
		}
		def := in
		for i, step := range steps {
			if def == nil {
				return
			}
			last := i == len(steps)-1
			if def == of {
				switch id, plane := strings.CutPrefix(step, "="); {
				case !last || kind == UseRef:
					steps[i] = name(UseRef, step)
				case kind == PipeRef:
					steps[i] = name(PipeRef, step)
				case plane:
					to := name(PlaneRef, id)
					path, id, _ := Ref(to).Parts()
					steps[i] = join(path, "="+id)
				default:
					steps[i] = name(JointRef, step)
				}
			}
			if !last {
				def = d.Inside(def, step)
			}
		}
		*ref = strings.Join(steps, "/")
	})
}
