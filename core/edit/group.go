package edit

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/mention"
)

// MakeGroup names a sub-assembly: joints, and what lies among them, become a group
// of their own with one use where they stood.
type MakeGroup struct {
	In     string   `json:"in,omitempty"`
	Name   string   `json:"name"`
	Joints []string `json:"joints"`
}

var _ = register[MakeGroup]("group")

func (w *MakeGroup) on(e *editor) (Done, error) {
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
			return "", refuse("pick joints of one part", "the joint %s is not in it", mention.Of(id))
		}
		step, _, deeper := strings.Cut(ref, "/")
		if deeper {
			if step, _, _ = strings.Cut(step, "#"); !slices.Contains(uses, step) {
				uses = append(uses, step)
			}
			continue
		}
		if def.Joint(ref) == nil {
			return "", refuse("pick it again", "there is no joint %s", mention.Of(id))
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
	if err := e.resolve(); err != nil {
		return err
	}
	if len(e.was.Clashes) > 0 || len(e.was.Graph.Nodes) == 0 {
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
	held := e.doc.DefaultAnchor(e.doc.Group(u.Of))
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

	anchor *[3]frame.Ref     // that the group is held at; as its other uses are where it is not given
	placed func(path string) // told where it stands, before it meets anything
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
		return Done{}, refuse("pick a joint inside it, or work on the whole frame", "the joint %s is not in %q", mention.Of(w.On), w.In)
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
	if err := e.validate(); err != nil { // as a group inside itself
		return Done{}, err
	}
	path := join(e.path(scope), u.ID)
	if w.placed != nil {
		w.placed(path)
	}
	done := Done{Label: fmt.Sprintf("Another %s at %s", cmp.Or(g.Name, g.ID), mention.Of(w.On)), Part: path, Also: e.everywhere(scope)}
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
