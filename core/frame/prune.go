package frame

import (
	"fmt"
	"slices"
	"sturdyelbow/core/mention"
)

// prune takes away what refers to something that is gone, until nothing does,
// and says what it took.
func (d *Document) prune() (gone []Removed) {
	sound := func(def *Definition, refs func(def *Definition, visit visitor)) bool {
		ok := true
		refs(def, func(in *Definition, kind RefKind, ref *string) {
			if *ref != "" && kind != SizeRef && kind != ReasonRef {
				ok = ok && d.Names(in, kind, *ref)
			}
		})
		return ok
	}
	for again := true; again; {
		n := len(gone)
		for _, def := range d.Definitions() {
			for i := range def.Joints { // a plane without a name holds nothing
				for a := range 3 {
					if on := &def.Joints[i].On[a]; *on != "" && !def.HasPlane(a, *on) {
						*on = ""
					}
				}
			}
			for i := range def.Uses {
				for a := range 3 {
					if at := &def.Uses[i].At[a]; *at != "" && !d.Names(def, PlaceRef, string(*at)) {
						*at, def.Uses[i].Anchor[a] = "", ""
					}
				}
			}
			def.Pipes = slices.DeleteFunc(def.Pipes, func(p Pipe) bool {
				bad := !d.Names(def, JointRef, p.From) || !d.Names(def, JointRef, p.To) ||
					slices.ContainsFunc(p.Via, func(v string) bool { return !d.Names(def, JointRef, v) })
				if bad {
					gone = append(gone, Removed{"pipe", p.ID, "the pipe " + d.thing(def, p.ID)})
				}
				return bad
			})
			def.Sizes = slices.DeleteFunc(def.Sizes, func(s Size) bool {
				g := s.Gave
				s.Gave = nil
				bad := !sound(def, s.refs)
				s.Gave = g
				if bad && !s.Inferred {
					gone = append(gone, Removed{"size", s.ID, "the size " + s.Says()})
				} else if bad {
					gone = append(gone, Removed{Kind: "size", ID: s.ID})
				}
				return bad
			})
			def.Reasons = slices.DeleteFunc(def.Reasons, func(t Reason) bool {
				g := t.Gave
				t.Gave = nil
				bad := !sound(def, t.refs)
				t.Gave = g
				if bad { // what it was said of is still there: it is news
					words := ""
					if d.Names(def, PlaceRef, string(t.Of)) {
						words = t.Says(d.place(def, t.Of), d.place(def, t.From), d.place(def, t.To))
					}
					gone = append(gone, Removed{"reason", t.ID, words})
				}
				return bad
			})
			def.Merges = slices.DeleteFunc(def.Merges, func(m Merge) bool { return !sound(def, m.refs) })
			def.Links = slices.DeleteFunc(def.Links, func(l Link) bool {
				bad := !sound(def, l.refs) || !d.onItsPipe(def, &l)
				if bad {
					gone = append(gone, Removed{"link", l.ID, "the " + l.ID})
				}
				return bad
			})
		}
		again = len(gone) > n
	}
	d.Tolerances = slices.DeleteFunc(d.Tolerances, func(t Tolerance) bool {
		bad := !d.Names(&d.Root, PipeRef, t.Pipe)
		if bad {
			gone = append(gone, Removed{"class", t.Pipe, fmt.Sprintf("%s as %s", mention.Of(t.Pipe), Label(ClassWords(), t.Class))})
		}
		return bad
	})
	d.ClearanceChecks = slices.DeleteFunc(d.ClearanceChecks, func(e ClearanceCheck) bool {
		bad := e.Joint != "" && !d.Names(&d.Root, JointRef, e.Joint)
		if bad {
			gone = append(gone, Removed{"check", e.ID, "the check " + e.ID})
		}
		return bad
	})
	for i, f := range d.Followed {
		if f != "" && !d.Names(&d.Root, PipeRef, f) {
			d.Followed[i] = ""
		}
	}
	d.EachRef(func(in *Definition, kind RefKind, ref *string) { // what won is gone: the loser is offered back
		if *ref != "" && (kind == SizeRef || kind == ReasonRef) && !d.Names(in, kind, *ref) {
			*ref = ""
		}
	})
	for _, def := range d.Definitions() {
		def.eachGave(func(g *GaveWay) {
			n := len(g.Pipes)
			g.Pipes = slices.DeleteFunc(g.Pipes, func(p string) bool { return p == "" || !d.Names(def, PipeRef, p) })
			g.Freed = g.Freed || len(g.Pipes) < n
		})
	}
	return gone
}

// eachGave shows all that gave way in a definition.
func (def *Definition) eachGave(visit func(g *GaveWay)) {
	see := func(g *GaveWay) {
		if g != nil {
			visit(g)
			n := len(g.Sizes) + len(g.Reasons)
			g.Sizes = slices.DeleteFunc(g.Sizes, func(s string) bool { return s == "" })
			g.Reasons = slices.DeleteFunc(g.Reasons, func(s string) bool { return s == "" })
			g.Freed = g.Freed || len(g.Sizes)+len(g.Reasons) < n
		}
	}
	for i := range def.Sizes {
		see(def.Sizes[i].Gave)
	}
	for i := range def.Pipes {
		see(def.Pipes[i].Gave)
	}
	for i := range def.Reasons {
		see(def.Reasons[i].Gave)
	}
}

// onItsPipe says whether the joints that a link's places are measured from are
// still ends of their pipes.
func (d *Document) onItsPipe(def *Definition, l *Link) bool {
	return !slices.ContainsFunc(l.On, func(s Anchor) bool {
		if s.Pipe == "" || s.From == "" {
			return false
		}
		path, name, _ := Ref(s.Pipe).Parts()
		in := d.Inside(def, path)
		if in == nil || in.Pipe(name) == nil {
			return true
		}
		p := in.Pipe(name)
		return s.From != join(path, p.From) && s.From != join(path, p.To)
	})
}

// Note records something that was given way to: a size, a pipe's direction or
// a reason.
func (g *GaveWay) Note(kind, id string) {
	switch kind {
	case "size":
		g.Sizes = append(g.Sizes, id)
	case "pipe":
		g.Pipes = append(g.Pipes, id)
	case "reason":
		g.Reasons = append(g.Reasons, id)
	}
}

// thing mentions a pipe or a joint of a definition, where its name there is its name in
// the frame as well.
func (d *Document) thing(def *Definition, id string) string {
	if def != &d.Root {
		return id
	}
	return mention.Of(id)
}

// place is what a reason refers to: a joint, mentioned, or the name of a plane.
func (d *Document) place(def *Definition, r Ref) string {
	if _, _, plane := r.Parts(); plane || r == Floor {
		return r.Bare()
	}
	return d.thing(def, string(r))
}
