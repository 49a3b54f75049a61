package frame

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
)

// The changes in this file and its neighbours are the only ways in which a
// document is edited. Each leaves it sound: what it takes away it takes with
// all that refers to it, and says so.

// Removed is something that went with what was taken away.
type Removed struct {
	Kind  string `json:"kind"` // pipe, size, reason, link, …
	ID    string `json:"id"`
	Words string `json:"words"`
}

// AddJoint puts a joint into a definition, with an id where it has none, and
// gives its id.
func (d *Document) AddJoint(def *Definition, j Joint) string {
	j.ID = cmp.Or(j.ID, d.FreeJoint(def))
	def.Joints = append(def.Joints, j)
	return j.ID
}

// AddPipe puts a pipe into a definition and gives its id.
func (d *Document) AddPipe(def *Definition, p Pipe) string {
	p.ID = cmp.Or(p.ID, d.FreePipe(def))
	p.Rank = cmp.Or(p.Rank, d.NextRank())
	def.Pipes = append(def.Pipes, p)
	return p.ID
}

// AddSize puts a size into a definition and gives its id.
func (d *Document) AddSize(def *Definition, s Size) string {
	s.ID = cmp.Or(s.ID, d.FreeSize())
	s.Rank = cmp.Or(s.Rank, d.NextRank())
	def.Sizes = append(def.Sizes, s)
	return s.ID
}

// AddReason adds a reason to a definition and gives its id.
func (d *Document) AddReason(def *Definition, t Reason) string {
	t.ID = cmp.Or(t.ID, d.FreeReason())
	t.Rank = cmp.Or(t.Rank, d.NextRank())
	def.Reasons = append(def.Reasons, t)
	return t.ID
}

// AddUse puts a use of a group into a definition.
func (d *Document) AddUse(def *Definition, u Use) {
	u.Rank = cmp.Or(u.Rank, d.NextRank())
	def.Uses = append(def.Uses, u)
}

// AddLink puts a link into a definition.
func (d *Document) AddLink(def *Definition, l Link) { def.Links = append(def.Links, l) }

// AddPlane names a plane of an axis.
func (d *Document) AddPlane(def *Definition, axis int, id string) {
	def.Planes[axis] = append(def.Planes[axis], Plane{ID: id})
}

// MergeJoints makes one joint of two of a definition; either may be in a use. The pipes and
// settings of the second go to the first. A joint of the definition itself is
// gone afterwards, one of a use is merged.
func (d *Document) MergeJoints(def *Definition, keep, drop string) {
	own := def.Joint(drop)
	if own == nil && def.Joint(keep) != nil {
		keep, drop = drop, keep
		own = def.Joint(drop)
	}
	if own == nil {
		if !slices.ContainsFunc(def.Merges, func(m Merge) bool { return m == Merge{keep, drop} || m == Merge{drop, keep} }) {
			def.Merges = append(def.Merges, Merge{keep, drop})
		}
		return
	}
	if k := def.Joint(keep); k != nil {
		for a := range 3 {
			if own.On[a] != "" && k.On[a] != "" && own.On[a] != k.On[a] {
				d.AddReason(def, Reason{Kind: Level, Axis: axisNames[a], Of: OnPlane(own.On[a]), To: OnPlane(k.On[a])})
			}
			k.On[a] = cmp.Or(k.On[a], own.On[a])
		}
		k.Name = cmp.Or(k.Name, own.Name)
		k.Mode, k.Reason = cmp.Or(k.Mode, own.Mode), cmp.Or(k.Reason, own.Reason)
		if k.Fitting == nil {
			k.Fitting = own.Fitting
		}
		if k.Later == nil {
			k.Later = own.Later
		}
	} else {
		for a := range 3 {
			if own.On[a] != "" {
				d.AddReason(def, Reason{Kind: Level, Axis: axisNames[a], Of: Ref(keep), To: OnPlane(own.On[a])})
			}
		}
	}
	d.renamed(def, func(kind RefKind, id string) string {
		if kind == JointRef && id == drop {
			return keep
		}
		return id
	})
	for i := range def.Uses { // what went into a use is no place that it could stand on
		u := &def.Uses[i]
		for a := range 3 {
			step, _, deeper := strings.Cut(string(u.At[a]), "/")
			if id, _ := useName(step); deeper && id == u.ID {
				u.At[a], u.Anchor[a] = "", ""
			}
		}
	}
	def.Joints = slices.DeleteFunc(def.Joints, func(j Joint) bool { return j.ID == drop })
	def.Merges = slices.DeleteFunc(def.Merges, func(m Merge) bool { return m.Keep == m.Drop })
	def.Reasons = slices.DeleteFunc(def.Reasons, func(t Reason) bool { return t.Of == t.To && t.Kind == Level })
}

// Split lets a pipe of a definition end at a joint of it and gives the id of a
// second pipe that goes on from there. What was typed for the pipe is not
// touched; places that are measured from its far end are places on the second.
func (d *Document) Split(def *Definition, pipe, joint string) string {
	i := slices.IndexFunc(def.Pipes, func(p Pipe) bool { return p.ID == pipe })
	first := &def.Pipes[i]
	second := *first
	second.ID, second.From, second.Gave = d.FreePipe(def), joint, nil
	if first.Gave != nil {
		g := *first.Gave
		second.Gave = &g
	}
	if first.Dir != nil {
		dir := *first.Dir
		second.Dir = &dir
	}
	if first.AtEnd != nil {
		second.AtEnd = &[2]Insertion{{}, first.AtEnd[1]}
		first.AtEnd = &[2]Insertion{first.AtEnd[0], {}}
	}
	d.NameDatums(def, pipe)
	d.EachAnchorOn(def, pipe, func(_ *Definition, path string, _ *Link, a *Anchor) {
		if a.From == join(path, second.To) {
			a.Pipe = join(path, second.ID)
		}
	})
	first.To = joint
	for _, h := range slices.Clone(d.ModeRules) { // what is set at the far end stays there
		if h.Pipe != "" && h.Joint != "" {
			d.moveModeRule(def, h, pipe, second)
		}
	}
	def.Pipes = slices.Insert(def.Pipes, i+1, second)
	return second.ID
}

// moveModeRule lets a setting of a split pipe's far end be one of the second part.
func (d *Document) moveModeRule(def *Definition, h ModeRule, pipe string, second Pipe) {
	path, name, _ := Ref(h.Pipe).Parts()
	if name != pipe || d.Inside(&d.Root, path) != def || h.Joint != join(path, second.To) {
		return
	}
	for i := range d.ModeRules {
		if d.ModeRules[i] == h {
			d.ModeRules[i].Pipe = join(path, second.ID)
		}
	}
}

// Heal makes one pipe of two that meet at a joint of a definition: the first
// goes on to where the second ends. The joint stays; what is measured from it along the
// two goes.
func (d *Document) Heal(def *Definition, older, younger, at string) []Removed {
	p, q := def.Pipe(older), *def.Pipe(younger)
	far, end := q.To, 1
	if q.To == at {
		far, end = q.From, 0
	}
	mine := 1
	if p.From == at {
		mine = 0
	}
	d.NameDatums(def, older)
	d.NameDatums(def, younger)
	d.EachAnchorOn(def, younger, func(_ *Definition, path string, _ *Link, a *Anchor) { a.Pipe = join(path, older) })
	if p.AtEnd != nil || q.AtEnd != nil {
		held := [2]Insertion{}
		if p.AtEnd != nil {
			held[1-mine] = p.AtEnd[1-mine]
		}
		if q.AtEnd != nil {
			held[mine] = q.AtEnd[end]
		}
		p.AtEnd = &held
	}
	if mine == 0 {
		p.From = far
	} else {
		p.To = far
	}
	if q.Dir == nil {
		p.Dir = nil
	}
	return d.DropPipe(def, younger)
}

// DropPipe takes a pipe away with what was said of it.
func (d *Document) DropPipe(def *Definition, id string) []Removed {
	def.Pipes = slices.DeleteFunc(def.Pipes, func(p Pipe) bool { return p.ID == id })
	return d.prune()
}

// DropJoint takes a joint away with the pipes at it and what was said of it.
func (d *Document) DropJoint(def *Definition, id string) []Removed {
	def.Joints = slices.DeleteFunc(def.Joints, func(j Joint) bool { return j.ID == id })
	return d.prune()
}

// DropUse takes a use away with all that joins it.
func (d *Document) DropUse(def *Definition, id string) []Removed {
	def.Uses = slices.DeleteFunc(def.Uses, func(u Use) bool { return u.ID == id })
	return d.prune()
}

// DropPlane lets a plane have no name any more. Joints that stood on it stay
// level, by a reason, with the first of them.
func (d *Document) DropPlane(def *Definition, axis int, id string) []Removed {
	for i := range def.Joints {
		if def.Joints[i].On[axis] == id {
			def.Joints[i].On[axis] = ""
		}
	}
	def.Planes[axis] = slices.DeleteFunc(def.Planes[axis], func(p Plane) bool { return p.ID == id })
	return d.prune()
}

// DropSize takes a size away.
func (d *Document) DropSize(id string) {
	for _, def := range d.Definitions() {
		def.Sizes = slices.DeleteFunc(def.Sizes, func(s Size) bool { return s.ID == id })
	}
	d.prune()
}

// DropReason removes a reason.
func (d *Document) DropReason(id string) {
	for _, def := range d.Definitions() {
		def.Reasons = slices.DeleteFunc(def.Reasons, func(t Reason) bool { return t.ID == id })
	}
	d.prune()
}

// DropMerges takes the meetings of a use's joints away.
func (d *Document) DropMerges(def *Definition, use string) {
	in := func(ref string) bool {
		step, _, deeper := strings.Cut(ref, "/")
		id, _ := useName(step)
		return deeper && id == use
	}
	def.Merges = slices.DeleteFunc(def.Merges, func(m Merge) bool { return in(m.Keep) || in(m.Drop) })
}

// Says is a size as its builder says it: 24 cut.
func (s *Size) Says() string {
	return strings.TrimSpace(s.Value.Typed(s.Text, s.Unit) + " " + meaningWord[s.Meaning])
}

// Says is a reason as its builder would say it, of places by the names given;
// "" for one that only keeps a part where it is.
func (t *Reason) Says(of, from, to string) string {
	switch t.Kind {
	case Level:
		return of + " level with " + to
	case Share:
		return fmt.Sprintf("%s spread between %s and %s", of, from, to)
	case EqualTo:
		return fmt.Sprintf("%s as far from %s as it is %s", of, from, map[string]string{"x": "wide", "y": "deep", "z": "high"}[t.EqualAxis])
	case Line, Toward:
		return fmt.Sprintf("%s in line from %s", of, from)
	}
	return ""
}

var meaningWord = map[Meaning]string{
	Centre:    "centre to centre",
	Outside:   "outside",
	Clear:     "clear",
	TopOfPipe: "to the top of the pipe",
	TopOfCap:  "to the top of the cap",
	Slot:      "between the bodies",
	Visible:   "visible",
	Cut:       "cut",
}

// axisNames are the axes as the document names them.
var axisNames = [3]string{"x", "y", "z"}

// AxisName gives an axis' name in the document.
func AxisName(a int) string { return axisNames[a] }

// AxisOf finds an axis by its name; -1 when there is none.
func AxisOf(name string) int { return slices.Index(axisNames[:], name) }

// RenamePlane gives a named plane another name.
func (d *Document) RenamePlane(def *Definition, axis int, from, to string) {
	for i := range def.Planes[axis] {
		if def.Planes[axis][i].ID == from {
			def.Planes[axis][i].ID = to
		}
	}
	for i := range def.Joints {
		if def.Joints[i].On[axis] == from {
			def.Joints[i].On[axis] = to
		}
	}
	d.renamed(def, func(kind RefKind, id string) string {
		if kind == PlaneRef && id == from {
			return to
		}
		return id
	})
}

// SetArray repeats a use, or no longer, and takes away what named copies that
// there are no more.
func (d *Document) SetArray(u *Use, a *Array) []Removed {
	if a != nil && a.Pitch != nil && a.Pitch.ID == "" {
		a.Pitch.ID, a.Pitch.Rank = d.FreeSize(), d.NextRank()
	}
	u.Array = a
	return d.prune()
}

// DropLink takes a link away.
func (d *Document) DropLink(def *Definition, id string) {
	def.Links = slices.DeleteFunc(def.Links, func(l Link) bool { return l.ID == id })
}

// TurnPipe lets a pipe run from where it ended to where it began.
func (d *Document) TurnPipe(def *Definition, id string) {
	d.NameDatums(def, id)
	p := def.Pipe(id)
	p.From, p.To = p.To, p.From
	if p.AtEnd != nil {
		p.AtEnd = &[2]Insertion{p.AtEnd[1], p.AtEnd[0]}
	}
	if p.Dir != nil {
		dir := p.Dir.Neg()
		p.Dir = &dir
	}
}

// JoinCopies makes two joints of neighbouring copies of an array one.
func (d *Document) JoinCopies(u *Use, pair [2]string) {
	u.Array.Joined = append(u.Array.Joined, pair)
}

// SetCustomFitting puts a part of the document's own among the others, in the place of
// one of the same name.
func (d *Document) SetCustomFitting(c catalog.Custom) {
	if i := slices.IndexFunc(d.CustomFittings, func(o catalog.Custom) bool { return o.ID == c.ID }); i >= 0 {
		d.CustomFittings[i] = c
		return
	}
	d.CustomFittings = append(d.CustomFittings, c)
}

// DropCustomFitting takes a part of the document's own away.
func (d *Document) DropCustomFitting(id catalog.Kind) {
	d.CustomFittings = slices.DeleteFunc(d.CustomFittings, func(c catalog.Custom) bool { return c.ID == id })
}

// SetClearanceCheck puts a check among the others, in the place of one of the same
// name.
func (d *Document) SetClearanceCheck(v ClearanceCheck) {
	if i := slices.IndexFunc(d.ClearanceChecks, func(o ClearanceCheck) bool { return o.ID == v.ID }); i >= 0 {
		d.ClearanceChecks[i] = v
		return
	}
	d.ClearanceChecks = append(d.ClearanceChecks, v)
}

// DropClearanceCheck takes a check away.
func (d *Document) DropClearanceCheck(id string) {
	d.ClearanceChecks = slices.DeleteFunc(d.ClearanceChecks, func(v ClearanceCheck) bool { return v.ID == id })
}

// SetTolerance says how exactly a pipe must be cut, in the place of what was
// said of it before; an exact one needs nothing said.
func (d *Document) SetTolerance(t Tolerance) {
	d.Tolerances = slices.DeleteFunc(d.Tolerances, func(o Tolerance) bool { return o.Pipe == t.Pipe })
	if t.Class != Exact {
		d.Tolerances = append(d.Tolerances, t)
	}
}

// Become makes a document the same as another one. Its name stays, and what whoever holds it wants
// to know.
func (d *Document) Become(o *Document) {
	c := o.Clone()
	c.Name, c.Followed, c.Numbers = cmp.Or(d.Name, o.Name), d.Followed, d.Numbers
	c.Serial = max(c.Serial, d.Serial)
	*d = *c
}

// SizeCalled finds a size of a definition by its id; nil where it has none.
func (def *Definition) SizeCalled(id string) *Size {
	for i := range def.Sizes {
		if def.Sizes[i].ID == id {
			return &def.Sizes[i]
		}
	}
	return nil
}
