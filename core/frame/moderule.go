package frame

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
)

// ModeRule sets how pipe ends are held, instead of what the definitions say. It
// applies to everything that its scope names: one joint, or one pipe's end at it; an
// instance and everything in it; every instance of a group; every fitting of a kind;
// with no scope, the whole frame. Where several rules apply to a pipe's end, the
// last one wins.
//
// A rule whose scope is not in the frame applies to nothing and is no error: a joint
// that comes back with another bay has its setting again.
type ModeRule struct {
	Joint  string       `json:"joint,omitempty"  ref:"joint"` // a joint's path
	Pipe   string       `json:"pipe,omitempty"   ref:"pipe"`  // with Joint: the end of this pipe only
	Use    string       `json:"use,omitempty"    ref:"use"`   // a use's path
	Group  string       `json:"group,omitempty"  ref:"group"` // a group's id
	Kind   catalog.Kind `json:"kind,omitempty"`               // of the fitting
	Mode   Mode         `json:"mode"`
	Reason string       `json:"reason,omitempty"` // why, as the builder said
}

// scope describes what a rule applies to.
func (h *ModeRule) scope() string {
	switch {
	case h.Pipe != "":
		return "set here"
	case h.Joint != "":
		return "set at the joint"
	case h.Use != "":
		return "set for " + h.Use
	case h.Group != "":
		return "set for every " + h.Group
	case h.Kind != "":
		return "set for every " + string(h.Kind)
	}
	return "set for the whole frame"
}

// Why gives the rule's reason in words, or what it applies to where none was given.
func (h *ModeRule) Why() string { return cmp.Or(h.Reason, h.scope()) }

func (d *Document) checkModeRules(ps *Problems) {
	for i, h := range d.ModeRules {
		where := fmt.Sprintf("/modeRules/%d", i)
		checkMode(ps, where+"/mode", h.Mode, false)
		scopes := 0
		for _, s := range []string{h.Joint, h.Use, h.Group, string(h.Kind)} {
			if s != "" {
				scopes++
			}
		}
		if scopes > 1 {
			ps.add(where, "a hold with more than one scope", "name a joint, a use, a group or a kind")
		}
		if h.Pipe != "" && h.Joint == "" {
			ps.add(where+"/pipe", "the end of a pipe at no joint", "name the joint as well")
		}
	}
}

// ApplyModeRules decides how each pipe's end is held: by the last of the document's
// mode rules that applies to it, else by what the definitions say. kindOf gives the
// kind of fitting at a joint; it is nil while fittings are not known. It reports
// whether anything changed. The cost is rules × pipes.
func (g *Graph) ApplyModeRules(kindOf func(joint int) catalog.Kind) (changed bool) {
	for i := range g.Edges {
		ed := &g.Edges[i]
		for s, n := range ed.Ends {
			held := ed.drawn[s]
			for k := len(g.Doc.ModeRules) - 1; k >= 0; k-- {
				if h := &g.Doc.ModeRules[k]; g.counts(h, n, ed.ID, kindOf) {
					held = EndMode{Mode: h.Mode, Reason: h.Why(), Seat: g.Doc.Seat(h.Mode)}
					break
				}
			}
			changed = changed || held != ed.Held[s]
			ed.Held[s] = held
		}
	}
	return changed
}

// counts says whether a rule applies to a pipe's end at a joint.
func (g *Graph) counts(h *ModeRule, joint int, pipe string, kindOf func(int) catalog.Kind) bool {
	n := &g.Nodes[joint]
	switch {
	case h.Joint != "":
		return h.Joint == n.ID && (h.Pipe == "" || h.Pipe == pipe)
	case h.Use != "":
		path := g.Scopes[n.Scope].Path
		return path == h.Use || strings.HasPrefix(path, h.Use+"/") || strings.HasPrefix(path, h.Use+"#")
	case h.Group != "":
		for sc := n.Scope; sc >= 0; sc = g.Scopes[sc].Parent {
			if g.Scopes[sc].Of == h.Group {
				return true
			}
		}
		return false
	case h.Kind != "":
		return kindOf != nil && kindOf(joint) == h.Kind
	}
	return true
}

// SetMode adds a rule after those that are there, in the place of one of the same scope.
func (d *Document) SetMode(r ModeRule) {
	d.ModeRules = slices.DeleteFunc(d.ModeRules, func(o ModeRule) bool {
		return o.Joint == r.Joint && o.Pipe == r.Pipe && o.Use == r.Use && o.Group == r.Group && o.Kind == r.Kind
	})
	d.ModeRules = append(d.ModeRules, r)
}
