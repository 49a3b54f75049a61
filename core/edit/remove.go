package edit

import (
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Remove takes a plane away with all that stands on it. Pipes that ran through
// it become one; the other planes stay where they are.
type Remove struct {
	In    string       `json:"in,omitempty"`
	Axis  measure.Axis `json:"axis"`
	Plane frame.Ref    `json:"plane"`
}

var _ = register[Remove]("remove")

func (w *Remove) on(e *editor) (Done, error) {
	scope, at, err := e.axis(w.In, w.Axis, w.Plane)
	if err != nil {
		return Done{}, err
	}
	all := e.place(scope).Planes[w.Axis]
	if len(all) < 2 {
		return Done{}, refuse("delete its joints instead", "%q is the only plane of its axis", all[at].Name)
	}
	def, path := e.def(scope), e.path(scope)
	plane := all[at]
	// again solves the frame; the part may be gone with what stood in it, or its place
	// among the parts be another
	again := func() error {
		if err := e.resolve(); err != nil {
			return err
		}
		var gone error
		if scope, gone = e.scope(path); gone != nil {
			scope = -1
			return nil
		}
		def = e.def(scope)
		return nil
	}
	became := map[string]string{}
	done := Done{Label: plane.Name + " away", Also: e.everywhere(scope)}
	for _, id := range plane.Joints {
		if scope < 0 {
			break
		}
		if def.Joint(id) != nil {
			e.heal(join(path, id), became)
			e.dropJoint(def, id)
			if err := again(); err != nil {
				return Done{}, err
			}
			continue
		}
		use, _, _ := strings.Cut(id, "/")
		use, _, array := strings.Cut(use, "#")
		if u := def.Use(use); u == nil || !e.wholly(scope, use, &plane) {
			continue
		} else if array {
			return Done{}, refuse("take the array away first", "the array %q stands on it", use)
		}
		e.bridge(scope, use)
		e.noteRemoved(e.doc.DropUse(def, use))
		if err := again(); err != nil {
			return Done{}, err
		}
	}
	if scope >= 0 && isNamed(&plane) {
		e.noteRemoved(e.doc.DropPlane(def, int(w.Axis), plane.Name))
	}
	return done, e.dropBareJoints()
}

// bridge makes one pipe of two that run in line through a joint of a use that
// goes.
func (e *editor) bridge(scope int, use string) {
	def, path := e.def(scope), e.path(scope)
	for again := true; again; {
		again = false
	pairs:
		for _, p := range def.Pipes {
			for _, q := range def.Pipes {
				i, k := e.view.Graph.Edge(join(path, p.ID)), e.view.Graph.Edge(join(path, q.ID))
				if i < 0 || k < 0 || i == k || p.Path != frame.Straight || q.Path != frame.Straight ||
					e.view.Graph.Edges[i].Size != e.view.Graph.Edges[k].Size {
					continue
				}
				for s, at := range []string{p.From, p.To} {
					t := slices.Index([]string{q.From, q.To}, at)
					if _, in := within(use, at); !in || t < 0 ||
						e.stoodWay(frame.PipeEnd{Pipe: i, End: s}).AngleTo(e.stoodWay(frame.PipeEnd{Pipe: k, End: t})) < 179 {
						continue
					}
					e.makeOne(scope, p.ID, q.ID, at)
					again = true
					if e.resolve() != nil {
						return
					}
					break pairs
				}
			}
		}
	}
}
