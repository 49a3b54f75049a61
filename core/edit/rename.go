package edit

import "strings"

func named(ref string, name func(string) string) string {
	if ref == "" {
		return ""
	}
	return name(ref)
}

// rename gives joints and pipes of a definition other names wherever they are
// named: in the definition, in what uses it, and over the whole frame.
func (b *bench) rename(scope int, joint, pipe func(ref string) string) {
	def := b.def(scope)
	of := b.view.Places[scope].Group
	for i := range def.Pipes {
		p := &def.Pipes[i]
		p.From, p.To = joint(p.From), joint(p.To)
		for k := range p.Via {
			p.Via[k] = joint(p.Via[k])
		}
	}
	for i := range def.Links {
		for k := range def.Links[i].On {
			s := &def.Links[i].On[k]
			s.Pipe, s.From, s.Joint = named(s.Pipe, pipe), named(s.From, joint), named(s.Joint, joint)
		}
	}
	for i := range def.Merges {
		def.Merges[i].Keep, def.Merges[i].Drop = joint(def.Merges[i].Keep), joint(def.Merges[i].Drop)
	}
	for i := range def.Joints {
		if w := def.Joints[i].Walk; w != nil {
			w.From = joint(w.From)
			if w.Toward != "" {
				w.Toward = joint(w.Toward)
			}
		}
	}
	for _, path := range b.doc.Dimensions() {
		if d := b.doc.Dimension(path); d.Of != "" && b.doc.Definition(path) == def {
			d.Of = pipe(d.Of)
		}
	}
	full := func(id string, name func(string) string) string {
		for _, p := range b.view.Places {
			if p.Group != of || id == "" {
				continue
			}
			if rest, ok := within(p.Path, id); ok && name(rest) != rest {
				return join(p.Path, name(rest))
			}
		}
		return id
	}
	for _, other := range b.definitions() {
		for i := range other.Uses {
			u := &other.Uses[i]
			if u.Of != of || other == def {
				continue
			}
			in := func(ref string) string {
				first, rest, ok := strings.Cut(ref, "/")
				name, _, _ := strings.Cut(first, "#")
				if ok && name == u.ID {
					return first + "/" + joint(rest)
				}
				return ref
			}
			for k := range other.Pipes {
				other.Pipes[k].From, other.Pipes[k].To = in(other.Pipes[k].From), in(other.Pipes[k].To)
			}
			for k := range other.Merges {
				other.Merges[k].Keep, other.Merges[k].Drop = in(other.Merges[k].Keep), in(other.Merges[k].Drop)
			}
		}
	}
	for i := range b.doc.Holds {
		h := &b.doc.Holds[i]
		h.Joint, h.Pipe, h.Use = full(h.Joint, joint), full(h.Pipe, pipe), full(h.Use, joint)
	}
	for i := range b.doc.Tolerances {
		b.doc.Tolerances[i].Pipe = full(b.doc.Tolerances[i].Pipe, pipe)
	}
	for i := range b.doc.Drives {
		d := &b.doc.Drives[i]
		d.Pipe, d.Ends[0], d.Ends[1] = full(d.Pipe, pipe), full(d.Ends[0], joint), full(d.Ends[1], joint)
	}
}
