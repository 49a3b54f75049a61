package frame

import (
	"cmp"
	"slices"
	"strings"
)

// Enclose makes a group of some joints and uses of a definition, with the pipes,
// sizes, reasons, merges and links that lie wholly among them, and puts one use of
// it where they stood. Everything keeps its id; what refers to it from outside
// goes by the use's path from then on.
func (d *Document) Enclose(def *Definition, group Definition, use string, joints, uses []string) {
	ownJoint := func(id string) bool { return slices.Contains(joints, id) }
	for _, p := range def.Pipes { // a bend's corners come along
		if ownJoint(p.From) && ownJoint(p.To) {
			for _, v := range p.Via {
				if def.Joint(v) != nil && !ownJoint(v) {
					joints = append(joints, v)
				}
			}
		}
	}
	inUse := func(step string) bool {
		id, _ := useName(step)
		return slices.Contains(uses, id)
	}
	inside := func(ref string) bool {
		step, _, deeper := strings.Cut(ref, "/")
		if deeper {
			return inUse(step)
		}
		return ownJoint(ref)
	}
	// planes on which something of the group stands become the group's too
	var planes [3][]string
	for a := range 3 {
		for _, p := range def.Planes[a] {
			if slices.ContainsFunc(def.Joints, func(j Joint) bool { return j.On[a] == p.ID && ownJoint(j.ID) }) ||
				slices.ContainsFunc(def.Uses, func(u Use) bool { return slices.Contains(uses, u.ID) && u.At[a] == OnPlane(p.ID) }) {
				planes[a] = append(planes[a], p.ID)
				group.Planes[a] = append(group.Planes[a], p)
			}
		}
	}
	pipes := map[string]bool{}
	for _, p := range def.Pipes {
		pipes[p.ID] = inside(p.From) && inside(p.To)
	}
	planeIn := func(axis, id string) bool {
		a := AxisOf(axis)
		return a >= 0 && slices.Contains(planes[a], id)
	}
	within := func(axis string) func(kind RefKind, ref string) bool {
		return func(kind RefKind, ref string) bool {
			switch name, plane := strings.CutPrefix(ref, "="); {
			case ref == "" || kind == SizeRef || kind == ReasonRef:
				return true
			case kind == PipeRef && !strings.Contains(ref, "/"):
				return pipes[ref]
			case kind == PipeRef:
				step, _, _ := strings.Cut(ref, "/")
				return inUse(step)
			case plane:
				return planeIn(axis, name)
			}
			return inside(ref)
		}
	}
	moves := func(axis string, refs func(def *Definition, visit visitor)) bool {
		all, in := true, within(axis)
		refs(def, func(_ *Definition, kind RefKind, ref *string) { all = all && in(kind, *ref) })
		return all
	}
	take := func(s *Size) bool { return s.From != Floor && moves(s.Axis, s.refs) }
	sizes, reasons, links, merges := map[string]bool{}, map[string]bool{}, map[string]bool{}, map[Merge]bool{}
	for i := range def.Sizes {
		s := def.Sizes[i]
		s.Gave = nil
		sizes[s.ID] = take(&s)
	}
	for i := range def.Reasons {
		t := def.Reasons[i]
		t.Gave = nil
		reasons[t.ID] = moves(t.Axis, t.refs) && (t.EqualAxis == "" || moves(t.EqualAxis, t.refs))
	}
	for i := range def.Links {
		links[def.Links[i].ID] = moves("", def.Links[i].refs)
	}
	for _, m := range def.Merges {
		merges[m] = moves("", m.refs)
	}
	// from outside the moved things go by the use's path; among themselves by
	// the names they have
	d.renamed(def, func(kind RefKind, id string) string {
		switch {
		case kind == JointRef && ownJoint(id), kind == PipeRef && pipes[id], kind == UseRef && inUse(id):
			return use + "/" + id
		}
		return id
	})
	local := func(_ *Definition, _ RefKind, ref *string) { *ref = strings.TrimPrefix(*ref, use+"/") }
	for _, j := range def.Joints {
		if ownJoint(j.ID) {
			group.Joints = append(group.Joints, j)
		}
	}
	move(&def.Pipes, &group.Pipes, func(p *Pipe) bool { return pipes[p.ID] }, func(p *Pipe) { p.refs(def, local) })
	move(&def.Sizes, &group.Sizes, func(s *Size) bool { return sizes[s.ID] }, func(s *Size) { s.refs(def, local) })
	move(&def.Reasons, &group.Reasons, func(t *Reason) bool { return reasons[t.ID] }, func(t *Reason) { t.refs(def, local) })
	move(&def.Links, &group.Links, func(l *Link) bool { return links[l.ID] }, func(l *Link) { l.refs(def, local) })
	move(&def.Uses, &group.Uses, func(u *Use) bool { return slices.Contains(uses, u.ID) }, func(u *Use) { d.useRefs(def, u, local) })
	var stay []Merge
	for _, m := range def.Merges {
		l := Merge{strings.TrimPrefix(m.Keep, use+"/"), strings.TrimPrefix(m.Drop, use+"/")}
		if merges[l] {
			group.Merges = append(group.Merges, l)
		} else {
			stay = append(stay, m)
		}
	}
	def.Merges = stay
	def.Joints = slices.DeleteFunc(def.Joints, func(j Joint) bool { return ownJoint(j.ID) })
	d.Groups = append(d.Groups, group)
	def = d.again(def)
	def.Uses = append(def.Uses, Use{ID: use, Of: group.ID, Rank: d.NextRank()})
	for a := range 3 { // a plane that others stand on as well is level with the group's
		for _, id := range planes[a] {
			if d.planeUsed(def, a, id) {
				d.AddReason(def, Reason{Kind: Level, Axis: axisNames[a], Of: Ref(use) + "/" + OnPlane(id), To: OnPlane(id)})
			} else {
				def.Planes[a] = slices.DeleteFunc(def.Planes[a], func(p Plane) bool { return p.ID == id })
			}
		}
	}
}

// again finds a definition after the list of groups has moved.
func (d *Document) again(def *Definition) *Definition {
	if def.ID == "" {
		return &d.Root
	}
	if g := d.Group(def.ID); g != nil {
		return g
	}
	return &d.Root
}

// planeUsed says whether something stands on a named plane, or is measured by it.
func (d *Document) planeUsed(def *Definition, axis int, id string) bool {
	used := slices.ContainsFunc(def.Joints, func(j Joint) bool { return j.On[axis] == id })
	ref := string(OnPlane(id))
	see := func(name string) visitor {
		return func(_ *Definition, kind RefKind, r *string) {
			used = used || kind == PlaceRef && *r == ref && (name == "" || name == axisNames[axis])
		}
	}
	for i := range def.Sizes {
		def.Sizes[i].refs(def, see(def.Sizes[i].Axis))
	}
	for i := range def.Reasons {
		def.Reasons[i].refs(def, see(""))
	}
	for i := range def.Uses {
		used = used || def.Uses[i].At[axis] == Ref(ref)
	}
	return used
}

// move takes some of a list to another one, changed on the way.
func move[T any](from, to *[]T, which func(*T) bool, change func(*T)) {
	var stay []T
	for i := range *from {
		x := &(*from)[i]
		if !which(x) {
			stay = append(stay, *x)
			continue
		}
		change(x)
		*to = append(*to, *x)
	}
	*from = stay
}

// Dissolve puts what a use's group holds into the definition the use stands in,
// under names that are free there, and takes the use away. The group itself
// stays for its other uses, or goes with its last. It gives the names that
// joints and pipes got.
func (d *Document) Dissolve(def *Definition, use string) (joints, pipes map[string]string) {
	u := *def.Use(use)
	g := (&Document{Groups: []Definition{*d.Group(u.Of)}}).Clone().Groups[0]
	last := true
	for _, o := range d.Definitions() {
		for i := range o.Uses {
			last = last && (o.Uses[i].Of != u.Of || o == def && o.Uses[i].ID == use)
		}
	}
	if !last {
		d.freshIDs(&g)
	}
	joints, pipes = map[string]string{}, map[string]string{}
	uses, planes := map[string]string{}, map[string]string{}
	for _, j := range g.Joints {
		joints[j.ID] = j.ID
		if def.Joint(j.ID) != nil || def.Use(j.ID) != nil {
			joints[j.ID] = Free("j", func(id string) bool {
				return def.Joint(id) != nil || def.Use(id) != nil || g.Joint(id) != nil || taken(joints, id)
			})
		}
	}
	for _, p := range g.Pipes {
		pipes[p.ID] = p.ID
		if def.Pipe(p.ID) != nil {
			pipes[p.ID] = Free("p", func(id string) bool { return def.Pipe(id) != nil || g.Pipe(id) != nil || taken(pipes, id) })
		}
	}
	for _, v := range g.Uses {
		uses[v.ID] = v.ID
		if def.Use(v.ID) != nil || def.Joint(v.ID) != nil {
			uses[v.ID] = Free(v.ID+" ", func(id string) bool { return def.Use(id) != nil || g.Use(id) != nil || taken(uses, id) })
		}
	}
	for a := range 3 {
		for _, p := range g.Planes[a] {
			planes[axisNames[a]+p.ID] = p.ID
			if def.HasPlane(a, p.ID) {
				planes[axisNames[a]+p.ID] = Free(
					axisNames[a],
					func(id string) bool { return def.HasPlane(a, id) || g.HasPlane(a, id) || taken(planes, id) },
				)
			}
		}
	}
	name := func(kind RefKind, axis, ref string) string {
		step, rest, deeper := strings.Cut(ref, "/")
		switch id, plane := strings.CutPrefix(ref, "="); {
		case deeper:
			id, no, array := strings.Cut(step, "#")
			if id = cmp.Or(uses[id], id); array {
				id += "#" + no
			}
			return id + "/" + rest
		case kind == PipeRef:
			return cmp.Or(pipes[ref], ref)
		case plane && axis == "":
			return "=" + cmp.Or(planes["x"+id], planes["y"+id], planes["z"+id], id)
		case plane:
			return "=" + cmp.Or(planes[axis+id], id)
		}
		return cmp.Or(joints[ref], ref)
	}
	into := func(axis string) visitor {
		return func(_ *Definition, kind RefKind, ref *string) {
			if *ref != "" && kind != SizeRef && kind != ReasonRef && kind != GroupRef {
				*ref = name(kind, axis, *ref)
			}
		}
	}
	o := u.orient()
	axis := func(name string) (string, bool) { // of the group, in the definition's axes
		a := AxisOf(name)
		if a < 0 {
			return name, false
		}
		for b := range 3 {
			if v := o[b][a]; v > 0.5 || v < -0.5 {
				return axisNames[b], v < 0
			}
		}
		return name, false
	}
	// what led through the use leads to the new names
	d.EachRef(func(in *Definition, kind RefKind, ref *string) {
		if kind == GroupRef || kind == SizeRef || kind == ReasonRef || *ref == "" {
			return
		}
		d.dissolved(in, def, use, ref, func(rest, own string) string { return name(kind, own, rest) })
	})
	for i := range g.Joints {
		j := &g.Joints[i]
		j.ID = joints[j.ID]
		var on [3]string
		for a := range 3 {
			if j.On[a] != "" {
				to, _ := axis(axisNames[a])
				on[AxisOf(to)] = planes[axisNames[a]+j.On[a]]
			}
		}
		j.On = on
		if j.Fitting != nil {
			for k := range j.Fitting.Spare {
				j.Fitting.Spare[k] = o.Dir(j.Fitting.Spare[k])
			}
		}
		def.Joints = append(def.Joints, *j)
	}
	for a := range 3 {
		to, _ := axis(axisNames[a])
		for _, p := range g.Planes[a] {
			def.Planes[AxisOf(to)] = append(def.Planes[AxisOf(to)], Plane{ID: planes[axisNames[a]+p.ID]})
		}
	}
	for i := range g.Pipes {
		p := &g.Pipes[i]
		p.ID = pipes[p.ID]
		p.refs(def, into(""))
		p.Size = cmp.Or(p.Size, u.Size, g.Size)
		if p.Dir != nil {
			v := o.Dir(*p.Dir)
			p.Dir = &v
		}
		if p.Spring != nil {
			if p.Spring.Bow != nil {
				v := o.Dir(*p.Spring.Bow)
				p.Spring.Bow = &v
			}
			for k := range p.Spring.Leave {
				p.Spring.Leave[k] = o.Dir(p.Spring.Leave[k])
			}
		}
		def.Pipes = append(def.Pipes, *p)
	}
	for i := range g.Sizes {
		s := &g.Sizes[i]
		s.refs(def, into(s.Axis))
		if to, turned := axis(s.Axis); s.Axis != "" {
			s.Axis = to
			if turned && s.From != Floor {
				s.From, s.To = s.To, s.From
			}
		}
		def.Sizes = append(def.Sizes, *s)
	}
	for i := range g.Reasons {
		t := &g.Reasons[i]
		like := t.EqualAxis
		t.refs(def, into(t.Axis))
		t.Axis, _ = axis(t.Axis)
		t.EqualAxis, _ = axis(like)
		if t.Dir != nil {
			v := o.Dir(*t.Dir)
			t.Dir = &v
		}
		t.By = o.Point(t.By)
		def.Reasons = append(def.Reasons, *t)
	}
	for i := range g.Uses {
		v := &g.Uses[i]
		v.ID = uses[v.ID]
		var at, anchor [3]Ref
		for a := range 3 {
			if v.At[a] != "" {
				to, _ := axis(axisNames[a])
				at[AxisOf(to)] = Ref(name(PlaceRef, axisNames[a], string(v.At[a])))
			}
			anchor[a] = v.Anchor[a]
		}
		v.At, v.Anchor = at, anchor
		v.Mirror, v.Turns = within(u, *v)
		v.Size, v.Mode = cmp.Or(v.Size, u.Size, g.Size), cmp.Or(v.Mode, u.Mode, g.Mode)
		def.Uses = append(def.Uses, *v)
	}
	for _, m := range g.Merges {
		def.Merges = append(def.Merges, Merge{name(JointRef, "", m.Keep), name(JointRef, "", m.Drop)})
	}
	for i := range g.Links {
		l := &g.Links[i]
		l.refs(def, into(""))
		if slices.ContainsFunc(def.Links, func(x Link) bool { return x.ID == l.ID }) {
			l.ID = Free(string(l.Kind)+" ", func(id string) bool {
				return slices.ContainsFunc(def.Links, func(x Link) bool { return x.ID == id })
			})
		}
		def.Links = append(def.Links, *l)
	}
	def.Uses = slices.DeleteFunc(def.Uses, func(v Use) bool { return v.ID == use })
	if last {
		d.Groups = slices.DeleteFunc(d.Groups, func(x Definition) bool { return x.ID == u.Of })
	}
	return joints, pipes
}

func taken(names map[string]string, id string) bool {
	for _, v := range names {
		if v == id {
			return true
		}
	}
	return false
}

// dissolved takes the step of a use out of a reference that leads through it.
func (d *Document) dissolved(in, def *Definition, use string, ref *string, name func(rest, axis string) string) {
	steps := strings.Split(*ref, "/")
	at := in
	for i, step := range steps[:len(steps)-1] {
		if at == nil {
			return
		}
		if at == def && step == use {
			*ref = strings.Join(append(steps[:i:i], name(strings.Join(steps[i+1:], "/"), "")), "/")
			return
		}
		at = d.Inside(at, step)
	}
}
