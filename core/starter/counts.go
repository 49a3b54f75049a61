package starter

import (
	"cmp"
	"strconv"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layer"
	"sturdyelbow/core/measure"
)

// unit is what one more of a count adds to a frame: its joints and parts, by
// their definition and name.
type unit []named

type named struct {
	in   string
	kind layer.Kind
	id   string
}

// gone says whether nothing of it is left in a document.
func (u unit) gone(d *frame.Document) bool {
	for _, n := range u {
		def := &d.Root
		if n.in != "" {
			if def = d.Group(n.in); def == nil {
				continue
			}
		}
		if n.kind == layer.Joint && def.Joint(n.id) != nil || n.kind == layer.Use && def.Use(n.id) != nil {
			return false
		}
	}
	return true
}

// units are what each further one of a count added, from the least on: the
// first is the one after the least.
func (s *Starter) units(in measure.Unit, answers map[string]Answer, p *Prompt) (all []unit) {
	n := count(answers, p)
	var before *frame.Document
	for k := p.Least; k <= n; k++ {
		d, err := s.Build(in, with(answers, p.Key, strconv.Itoa(k)))
		if err != nil {
			return nil
		}
		if before != nil {
			var u unit
			for _, r := range layer.Between(before, &d) {
				if r.Added() && (r.Kind == layer.Joint || r.Kind == layer.Use) {
					u = append(u, named{r.In, r.Kind, r.ID})
				}
			}
			all = append(all, u)
		}
		before = &d
	}
	return all
}

func count(answers map[string]Answer, p *Prompt) int {
	text := p.Default
	if a, ok := answers[p.Key]; ok {
		text = a.Text
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		return p.Least
	}
	return n
}

func with(answers map[string]Answer, key, text string) map[string]Answer {
	all := map[string]Answer{key: {Text: text}}
	for k, a := range answers {
		if k != key {
			all[k] = a
		}
	}
	return all
}

// takeCounts turns arrays that were repeated another number of times into
// answers, where the starter's own count makes that array so long.
func (s *Starter) takeCounts(in measure.Unit, answers map[string]Answer, before, after *frame.Document) map[string]Answer {
	found := map[string]Answer{}
	for _, def := range after.Definitions() {
		was := &before.Root
		if def.ID != "" {
			was = before.Group(def.ID)
		}
		for i := range def.Uses {
			u := &def.Uses[i]
			if was == nil || u.Array == nil || was.Use(u.ID) == nil || was.Use(u.ID).Array == nil ||
				was.Use(u.ID).Array.Count == u.Array.Count {
				continue
			}
			for k := range s.Prompts {
				p := &s.Prompts[k]
				if p.Input != Count || u.Array.Count < p.Least || u.Array.Count > p.Most || count(answers, p) != was.Use(u.ID).Array.Count {
					continue
				}
				d, err := s.Build(in, with(answers, p.Key, strconv.Itoa(u.Array.Count)))
				if err != nil {
					continue
				}
				same := &d.Root
				if def.ID != "" {
					same = d.Group(def.ID)
				}
				if o := same.Use(u.ID); o != nil && o.Array != nil && o.Array.Count == u.Array.Count {
					found[p.Key] = Answer{Text: strconv.Itoa(u.Array.Count)}
					u.Array.Count = was.Use(u.ID).Array.Count // the answer makes it as long
				}
			}
		}
	}
	return found
}

// Repeat is a count of a frame that is the builder's own: how many there are,
// and how many of those that the answer counts were taken away by hand.
type Repeat struct {
	Key   string `json:"key"`
	Label string `json:"label"`
	Why   string `json:"why"`
	Count int    `json:"count"`
	Gone  int    `json:"gone"`
	Least int    `json:"least"`
	Most  int    `json:"most"`
}

// Repeats gives the counts of a frame that is the builder's own; of others none.
func (b *Begun) Repeats(in measure.Unit, doc *frame.Document) []Repeat {
	all := []Repeat{}
	s, err := b.starter()
	if err != nil || !b.Own {
		return all
	}
	for i := range s.Prompts {
		p := &s.Prompts[i]
		if p.Input != Count || !s.repeats(in, b.Answers, p) {
			continue
		}
		r := Repeat{Key: p.Key, Label: p.Label, Why: p.Why, Count: count(b.Answers, p), Least: p.Least, Most: p.Most}
		for _, u := range s.units(in, b.Answers, p) {
			if len(u) > 0 && u.gone(doc) {
				r.Gone++
			}
		}
		r.Count -= r.Gone
		all = append(all, r)
	}
	return all
}

// repeats says whether a count makes more joints or parts, and no angle of it.
func (s *Starter) repeats(in measure.Unit, answers map[string]Answer, p *Prompt) bool {
	few, err1 := s.Build(in, with(answers, p.Key, strconv.Itoa(p.Least)))
	more, err2 := s.Build(in, with(answers, p.Key, strconv.Itoa(p.Least+1)))
	if err1 != nil || err2 != nil {
		return false
	}
	a, err1 := frame.Expand(&few)
	b, err2 := frame.Expand(&more)
	return err1 == nil && err2 == nil && len(b.Nodes) > len(a.Nodes)
}

// against names the answers that a document no longer does as it was told, by
// the labels of their prompts: the size that an answer asked for is gone, gave
// way or became another one, or so has one that follows from it; or of what a
// count counts nothing of one is left.
func (s *Starter) against(in measure.Unit, answers map[string]Answer, base, doc *frame.Document) (all []string) {
	var derived []*frame.Size
	broken := map[string]bool{}
	base.EachSize(func(_ *frame.Definition, z *frame.Size) {
		is := doc.SizeOf(z.ID)
		switch {
		case is != nil && holds(is) == holds(z):
		case z.Prompt != "":
			broken[z.Prompt] = true
		default:
			derived = append(derived, z)
		}
	})
	for i := range s.Prompts {
		p := &s.Prompts[i]
		switch {
		case broken[p.Key]:
		case p.Input == Length && len(derived) > 0 && s.drives(in, answers, p, derived):
		case p.Input == Count && s.anyGone(in, answers, p, doc):
		default:
			continue
		}
		all = append(all, p.Label)
	}
	return all
}

func (s *Starter) anyGone(in measure.Unit, answers map[string]Answer, p *Prompt, doc *frame.Document) bool {
	for _, u := range s.units(in, answers, p) {
		if len(u) > 0 && u.gone(doc) {
			return true
		}
	}
	return false
}

// drives says whether an answer decides the value of some size: a little more
// of it makes that another one.
func (s *Starter) drives(in measure.Unit, answers map[string]Answer, p *Prompt, sizes []*frame.Size) bool {
	a, ok := answers[p.Key]
	if !ok {
		a = Answer{Text: p.Default, Unit: measure.Inches}
	}
	l, err := measure.Parse(a.Text, measure.Reading{Unit: cmp.Or(a.Unit, in)})
	if err != nil {
		return false
	}
	more := with(answers, p.Key, exactly(l+measure.Inch/8))
	a.Text, a.Unit = more[p.Key].Text, measure.Millimetres
	more[p.Key] = a
	d, err := s.Build(in, more)
	if err != nil {
		return false
	}
	for _, z := range sizes {
		if o := d.SizeOf(z.ID); o != nil && o.Value != z.Value {
			return true
		}
	}
	return false
}
