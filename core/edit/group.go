package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
)

// Group names a sub-assembly: joints, and what lies among them, become a group
// of their own with one use where they stood.
type Group struct {
	In     string   `json:"in,omitempty"`
	Name   string   `json:"name"`
	Joints []string `json:"joints"`
}

var _ = register[Group]("group")

func (w *Group) on(e *editor) (Done, error) {
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	id, err := e.group(scope, w.Name, w.Joints)
	if err != nil {
		return Done{}, err
	}
	return Done{Label: "Group " + w.Name, Part: join(e.path(scope), id), Also: e.everywhere(scope)}, nil
}

// group moves joints of a definition into a group of their own and gives its
// use's id.
func (e *editor) group(scope int, name string, ids []string) (string, error) {
	def := e.def(scope)
	name = strings.TrimSpace(name)
	if name == "" {
		return "", refuse("name it, as in foot", "a group without a name")
	}
	if strings.ContainsAny(name, "/#=") || frame.Ref(name) == frame.Floor {
		return "", refuse("leave out /, # and =", "%q cannot be a name", name)
	}
	var joints, uses []string
	for _, id := range ids {
		ref, ok := e.ref(scope, id)
		if !ok {
			return "", refuse("pick joints of one part", "the joint %q is not in it", id)
		}
		step, _, deeper := strings.Cut(ref, "/")
		if deeper {
			if step, _, _ = strings.Cut(step, "#"); !slices.Contains(uses, step) {
				uses = append(uses, step)
			}
			continue
		}
		if def.Joint(ref) == nil {
			return "", refuse("pick it again", "there is no joint %q", id)
		}
		if !slices.Contains(joints, ref) {
			joints = append(joints, ref)
		}
	}
	if len(joints) == 0 && len(uses) < 2 {
		return "", refuse("pick the joints that belong to it", "nothing to group")
	}
	g := frame.Definition{ID: name, Name: name}
	if e.doc.Group(name) != nil {
		g.ID = frame.Free(name+" ", func(id string) bool { return e.doc.Group(id) != nil })
	}
	use := frame.Free(name+" ", func(id string) bool { return def.Use(id) != nil || def.Joint(id) != nil })
	e.doc.Enclose(def, g, use, joints, uses)
	e.follow(scope, func(ref string) (string, bool) {
		step, _, deeper := strings.Cut(ref, "/")
		step, _, _ = strings.Cut(step, "#")
		if !deeper && slices.Contains(joints, ref) || deeper && slices.Contains(uses, step) {
			return use + "/" + ref, true
		}
		return ref, false
	})
	return use, e.renamedOnly()
}

// renamedOnly is for gestures that give what is there other names and change
// nothing else: what could not hold together before cannot now, and was
// answered, or is shown, already.
func (e *editor) renamedOnly() error {
	if err := e.look(); err != nil {
		return err
	}
	if len(e.was.Clashes) > 0 {
		for i := range e.view.Clashes {
			e.clashed[e.view.Clashes[i].Key()] = true
		}
	}
	return nil
}

// follow remembers the names that joints of a scope's definition had, in every
// use of it.
func (e *editor) follow(scope int, now func(ref string) (string, bool)) {
	if e.alias == nil {
		e.alias = map[string]string{}
	}
	of := e.view.Graph.Scopes[scope].Of
	for sc := range e.view.Graph.Scopes {
		if e.view.Graph.Scopes[sc].Of != of {
			continue
		}
		for _, n := range e.view.Graph.Nodes {
			ref, in := e.ref(sc, n.ID)
			if to, moved := now(ref); in && moved {
				e.alias[join(e.path(sc), to)] = cmp.Or(e.alias[n.ID], n.ID)
			}
		}
	}
}

// Ungroup puts what a part holds into what it stands in.
type Ungroup struct {
	Part string `json:"part"`
}

var _ = register[Ungroup]("ungroup")

func (w *Ungroup) on(e *editor) (Done, error) {
	def, u, scope, err := e.use(w.Part)
	if err != nil {
		return Done{}, err
	}
	switch {
	case u.Array != nil:
		return Done{}, refuse("set how many to 1 first", "%q is an array", u.ID)
	case !quarter(u.Turns):
		return Done{}, refuse("turn it back first", "%q leans: its sizes run along its own axes", u.ID)
	}
	id := u.ID
	anchors, at := u.Anchor, u.At
	held := e.doc.Held(e.doc.Group(u.Of))
	joints, _ := e.doc.Dissolve(def, id)
	def = e.def(scope) // the list of groups may have moved
	for a := range 3 { // where it was held, its joint is level with what it stood on
		_, name, plane := cmp.Or(anchors[a], held[a]).Parts()
		if !strings.Contains(name, "/") {
			name = joints[name]
		}
		if at[a] == "" || plane || name == "" {
			continue
		}
		e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: frame.AxisName(a), Of: frame.Ref(name), To: at[a]})
	}
	e.follow(scope, func(ref string) (string, bool) {
		rest, in := within(id, ref)
		if !in {
			return ref, false
		}
		step, deeper, more := strings.Cut(rest, "/")
		if more {
			return step + "/" + deeper, true
		}
		return cmp.Or(joints[rest], rest), true
	})
	return Done{Label: id + " is no part of its own any more", Also: e.everywhere(scope)}, e.renamedOnly()
}

func quarter(turns []frame.Turn) bool {
	return !slices.ContainsFunc(turns, func(t frame.Turn) bool { return t.By != 90*float64(int(t.By/90)) })
}

// use finds a use by its path, in the definition that it stands in.
func (e *editor) use(part string) (def *frame.Definition, u *frame.Use, scope int, err error) {
	sc := slices.IndexFunc(e.view.Graph.Scopes, func(s frame.Scope) bool { return s.Path == part && part != "" })
	if sc < 0 {
		return nil, nil, 0, refuse("pick a part of the frame", "there is no part %q", part)
	}
	scope = e.view.Graph.Scopes[sc].Parent
	def = e.def(scope)
	return def, def.Use(e.view.Graph.Scopes[sc].Use), scope, nil
}

// Place puts a group into the frame once more.
type Place struct {
	In    string `json:"in,omitempty"`
	Group string `json:"group"`
	On    string `json:"on"`             // the joint that its anchor stands on
	Name  string `json:"name,omitempty"` // of the use

	anchor *[3]frame.Ref // that the group is held at; as its other uses are where it is not given
}

var _ = register[Place]("place")

func (w *Place) on(e *editor) (Done, error) {
	scope, err := e.scope(w.In)
	if err != nil {
		return Done{}, err
	}
	if _, err := e.node(w.On); err != nil {
		return Done{}, err
	}
	g := e.doc.Group(w.Group)
	if g == nil {
		return Done{}, refuse("name a group of this frame", "there is no group %q", w.Group)
	}
	ref, ok := e.ref(scope, w.On)
	if !ok {
		return Done{}, refuse("pick a joint inside it, or work on the whole frame", "the joint %q is not in %q", w.On, w.In)
	}
	def := e.def(scope)
	u := frame.Use{ID: w.Name, Of: w.Group, At: [3]frame.Ref{frame.Ref(ref), frame.Ref(ref), frame.Ref(ref)}}
	if w.anchor != nil {
		u.Anchor = *w.anchor
	} else {
		u.Anchor = anchorOf(e.doc, w.Group)
	}
	taken := func(id string) bool { return def.Use(id) != nil || def.Joint(id) != nil }
	if u.ID == "" {
		u.ID = frame.Free(cmp.Or(g.Name, g.ID)+" ", taken)
	}
	if taken(u.ID) || strings.ContainsAny(u.ID, "/#=") {
		return Done{}, refuse("give it another name, without /, # and =", "%q cannot be its name", u.ID)
	}
	e.doc.AddUse(def, u)
	if err := e.sound(); err != nil { // as a group inside itself
		return Done{}, err
	}
	path := join(e.path(scope), u.ID)
	done := Done{Label: fmt.Sprintf("Another %s at %s", cmp.Or(g.Name, g.ID), w.On), Part: path, Also: e.everywhere(scope)}
	return done, e.meetPart(scope, path)
}

// anchorOf is the anchor that a group's uses in a document have.
func anchorOf(d *frame.Document, group string) [3]frame.Ref {
	for _, def := range d.Definitions() {
		for _, u := range def.Uses {
			if u.Of == group && u.Anchor != ([3]frame.Ref{}) {
				return u.Anchor
			}
		}
	}
	return [3]frame.Ref{}
}

// meetPart lets what a part brought meet what stands where it came to stand:
// joints become one, and pipes that its joints came to lie on are split. A pipe
// that was there and that the part brought as well is there once.
func (e *editor) meetPart(scope int, part string) error {
	if err := e.rest(); err != nil {
		return err
	}
	inPart := func(id string) bool {
		return id == part || strings.HasPrefix(id, part+"/") || strings.HasPrefix(id, part+"#")
	}
	g := e.view.Graph
	met := make([]int, len(g.Nodes)) // which joints became one
	for i := range met {
		met[i] = i
	}
	one := func(i int) int {
		for met[i] != i {
			i = met[i]
		}
		return i
	}
	names := make([]string, len(g.Nodes)) // what each goes by now
	for i := range names {
		names[i] = g.Nodes[i].ID
	}
	for i := range g.Nodes {
		for k := range i {
			if one(i) == one(k) || !inPart(g.Nodes[k].ID) && !inPart(g.Nodes[i].ID) || e.view.Points[i].Distance(e.view.Points[k]) > layout.TapeStep {
				continue
			}
			if inPart(g.Nodes[k].ID) && inPart(g.Nodes[i].ID) && !differentCopies(part, g.Nodes[k].ID, g.Nodes[i].ID) {
				continue
			}
			x, y := names[one(k)], names[one(i)]
			if inPart(x) && !inPart(y) {
				x, y = y, x // what stood there first is kept
			}
			keep, ok1 := e.ref(scope, x)
			drop, ok2 := e.ref(scope, y)
			if !ok1 || !ok2 {
				continue
			}
			e.open(e.def(scope), keep, drop)
			e.tell("%s meets %s", y, x)
			def, stays := e.def(scope), x
			if def.Joint(keep) != nil { // one of the definition's own goes into the part's
				keep, drop, stays = drop, keep, y
			}
			e.doc.Unite(def, keep, drop)
			met[one(k)] = one(i)
			names[one(i)] = stays
		}
	}
	// a pipe that the part brought along as well is there once
	e.once(scope, part, g, one)
	if err := e.look(); err != nil {
		return err
	}
	// joints of the part that lie on a pipe of the definition
	for again := true; again; {
		again = false
		for i := range e.view.Graph.Nodes {
			id := e.view.Graph.Nodes[i].ID
			ref, in := e.ref(scope, id)
			if !in || !inPart(id) || len(e.view.Graph.Nodes[i].Pipes) == 0 {
				continue
			}
			for _, p := range e.def(scope).Pipes {
				k := e.view.Graph.Edge(join(e.path(scope), p.ID))
				if k < 0 || p.From == ref || p.To == ref || !e.runsThrough(k, e.view.Points[i], layout.TapeStep) {
					continue
				}
				e.splitAt(scope, p.ID, ref)
				e.open(e.def(scope), ref)
				e.tell("%s meets the pipe %s", id, p.ID)
				again = true
				break
			}
			if again {
				// the two halves may be pipes that the part brought as well
				if _, err := e.solve(e.doc); err != nil {
					e.onceApart(scope, part)
				}
				if err := e.look(); err != nil {
					return err
				}
				break
			}
		}
	}
	return nil
}

// once takes pipes of a definition away that a part brought as well; one gives
// what stands for joints that became one.
func (e *editor) once(scope int, part string, g *frame.Graph, one func(int) int) {
	def, path := e.def(scope), e.path(scope)
	for _, p := range slices.Clone(def.Pipes) {
		k := g.Edge(join(path, p.ID))
		if k < 0 || p.Path != frame.Straight {
			continue
		}
		u, v := one(g.Edges[k].Ends[0]), one(g.Edges[k].Ends[1])
		if u == v || slices.ContainsFunc(g.Edges, func(x frame.Edge) bool {
			a, b := one(x.Ends[0]), one(x.Ends[1])
			inPart := strings.HasPrefix(x.ID, part+"/") || strings.HasPrefix(x.ID, part+"#")
			return inPart && x.Path == frame.Straight && (a == u && b == v || a == v && b == u)
		}) {
			e.tell("%s is there already", p.ID)
			e.told(slices.DeleteFunc(e.doc.DropPipe(def, p.ID), func(r frame.Removed) bool { return r.ID == p.ID }))
		}
	}
}

// onceApart does the same where a pipe has just been split: by the names that
// its halves end at.
func (e *editor) onceApart(scope int, part string) {
	def, path, g := e.def(scope), e.path(scope), e.view.Graph
	for _, p := range slices.Clone(def.Pipes) {
		u, v := g.Node(join(path, p.From)), g.Node(join(path, p.To))
		if p.Path != frame.Straight || u < 0 || v < 0 {
			continue
		}
		for _, x := range g.Edges {
			inPart := strings.HasPrefix(x.ID, part+"/") || strings.HasPrefix(x.ID, part+"#")
			if inPart && x.Path == frame.Straight && (x.Ends == [2]int{u, v} || x.Ends == [2]int{v, u}) {
				e.tell("%s is there already", p.ID)
				e.told(slices.DeleteFunc(e.doc.DropPipe(def, p.ID), func(r frame.Removed) bool { return r.ID == p.ID }))
				break
			}
		}
	}
}

// differentCopies says whether two joints are of different copies of an array.
func differentCopies(part, x, y string) bool {
	a, ok1 := strings.CutPrefix(x, part+"#")
	b, ok2 := strings.CutPrefix(y, part+"#")
	if !ok1 || !ok2 {
		return false
	}
	a, _, _ = strings.Cut(a, "/")
	b, _, _ = strings.Cut(b, "/")
	return a != b
}

// Bring takes a group from another frame, with the groups inside it, and puts
// it on a joint.
type Bring struct {
	From  frame.Document `json:"from"`  // the other frame
	Group string         `json:"group"` // its group; "" for the whole frame
	On    string         `json:"on"`
}

var _ = register[Bring]("bring")

func (w *Bring) on(e *editor) (Done, error) {
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
	id := e.doc.Import(&w.From, main)
	if err := e.look(); err != nil {
		return Done{}, err
	}
	place := &Place{Group: id, On: w.On}
	if w.Group != "" { // it is held as it was held there
		anchor := anchorOf(&w.From, w.Group)
		place.anchor = &anchor
	}
	done, err := place.on(e)
	done.Label = fmt.Sprintf("%s brought to %s", name, w.On)
	return done, err
}
