package frame

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// within gives the mirror and turns of a use that stood in another one.
func within(outer, inner Use) (string, []Turn) {
	mirror, turns := inner.Mirror, slices.Clone(inner.Turns)
	if outer.Mirror != "" {
		mirror, turns = Mirrored(mirror, turns, AxisOf(outer.Mirror))
	}
	return mirror, append(turns, outer.Turns...)
}

// Mirrored gives the mirror and turns of a use seen in a mirror square to an
// axis. A turn about another axis goes the other way round there; two mirrors
// are half a turn.
func Mirrored(was string, turns []Turn, a int) (string, []Turn) {
	var now []Turn
	for _, t := range turns {
		if int(t.About) != a {
			t.By = -t.By
		}
		now = append(now, t)
	}
	switch was {
	case "":
		return axisNames[a], now
	case axisNames[a]:
		return "", now
	}
	for c := range 3 {
		if c != a && axisNames[c] != was {
			return "", append([]Turn{{About: measure.Axis(c), By: 180}}, now...)
		}
	}
	return was, now
}

// freshIDs gives the sizes and reasons of a copied definition ids of their own.
func (d *Document) freshIDs(g *Definition) {
	sizes, reasons := map[string]string{}, map[string]string{}
	fresh := func(names map[string]string, id *string, free func() string) {
		to := free()
		names[*id] = to
		*id = to
	}
	for i := range g.Sizes {
		fresh(sizes, &g.Sizes[i].ID, d.FreeSize)
	}
	for i := range g.Uses {
		if a := g.Uses[i].Array; a != nil && a.Pitch != nil {
			fresh(sizes, &a.Pitch.ID, d.FreeSize)
		}
	}
	for i := range g.Reasons {
		fresh(reasons, &g.Reasons[i].ID, d.FreeReason)
	}
	g.eachGave(func(v *GaveWay) {
		for i := range v.Sizes {
			v.Sizes[i] = cmp.Or(sizes[v.Sizes[i]], v.Sizes[i])
		}
		for i := range v.Reasons {
			v.Reasons[i] = cmp.Or(reasons[v.Reasons[i]], v.Reasons[i])
		}
	})
}

// AddGroup puts a copy of a definition among the groups, with sizes and reasons of
// its own where fresh.
func (d *Document) AddGroup(g Definition, fresh bool) {
	c := (&Document{Groups: []Definition{g}}).Clone().Groups[0]
	if fresh {
		d.freshIDs(&c)
	}
	d.Groups = append(d.Groups, c)
}

// RenameUse gives a use's copies other names in every reference: the first copy
// of an array has a number, a use by itself has none.
func (d *Document) RenameUse(def *Definition, from, to string) {
	d.renamed(def, func(kind RefKind, id string) string {
		if kind == UseRef && id == from {
			return to
		}
		return id
	})
}

// Import takes a definition of another document, with the groups and parts of
// its own that it is made of. It gives the id that it has here, and those of
// the groups by the ids that they have there.
func (d *Document) Import(from *Document, main Definition) (id string, groups map[string]string) {
	for _, c := range from.CustomFittings {
		if !slices.ContainsFunc(d.CustomFittings, func(o catalog.Custom) bool { return o.ID == c.ID }) {
			d.SetCustomFitting(c)
		}
	}
	names := map[string]string{}
	var take func(def Definition) string
	take = func(def Definition) string {
		if to, done := names[def.ID]; done {
			return to
		}
		was := def.ID
		def.Size = cmp.Or(def.Size, from.Size)
		def.Mode = cmp.Or(def.Mode, from.Mode)
		def.Uses = slices.Clone(def.Uses)
		for i := range def.Uses {
			if g := from.Group(def.Uses[i].Of); g != nil {
				def.Uses[i].Of = take(*g)
			}
		}
		plain := strings.NewReplacer("/", " ", "#", " ", "=", " ").Replace(was)
		for n := 2; d.Group(def.ID) != nil || strings.ContainsAny(def.ID, "/#="); n++ {
			def.ID = fmt.Sprintf("%s %d", plain, n)
		}
		names[was] = def.ID
		d.AddGroup(def, true)
		return def.ID
	}
	return take(main), names
}

// ImportSaid takes over what another document says of a part by its path: how
// exactly its pipes must be cut and what must be reached from them, with how its
// joints are held, none of it by the kind of fitting. part is its path there, "" for the whole of that frame,
// whose checks come as well; path is its path here, and groups are as
// [Document.Import] gives them. It gives the names of the checks that came.
func (d *Document) ImportSaid(from *Document, holds []ModeRule, part, path string, groups map[string]string) (checks []string) {
	here := func(ref string) (string, bool) {
		if part == "" {
			return join(path, ref), true
		}
		rest, in := strings.CutPrefix(ref, part+"/")
		return join(path, rest), in
	}
	for _, t := range from.Tolerances {
		if pipe, in := here(t.Pipe); in {
			t.Pipe = pipe
			d.SetTolerance(t)
		}
	}
	for _, h := range holds {
		in := true
		switch {
		case h.Joint != "":
			if h.Joint, in = here(h.Joint); in && h.Pipe != "" {
				h.Pipe, in = here(h.Pipe)
			}
		case h.Use == part && part != "":
			h.Use = path
		case h.Use != "":
			h.Use, in = here(h.Use)
		case h.Group != "":
			h.Group, in = groups[h.Group], groups[h.Group] != ""
		default:
			h.Use = path
		}
		if in {
			d.ModeRules = append(d.ModeRules, h)
		}
	}
	for _, v := range from.ClearanceChecks {
		in := part == ""
		if v.Joint != "" {
			v.Joint, in = here(v.Joint)
		}
		taken := func(id string) bool {
			return slices.ContainsFunc(d.ClearanceChecks, func(o ClearanceCheck) bool { return o.ID == id })
		}
		if !in || slices.Contains(d.ClearanceChecks, v) {
			continue
		}
		if taken(v.ID) {
			v.ID = Free(v.ID+" ", taken)
		}
		d.SetClearanceCheck(v)
		checks = append(checks, v.ID)
	}
	return checks
}
