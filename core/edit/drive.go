package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Drive gives a pipe, or two joints, a size, and lets another size give way
// for it: a round cut in, the outside size out. Where the pipe alone spans a
// stated size, that size takes the new meaning and nothing needs to give way.
type Drive struct {
	Pipe    string        `json:"pipe,omitempty"`
	Ends    [2]string     `json:"ends,omitzero"`
	Length  string        `json:"length"` // as typed: 24 cut; "" takes the size away
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Gives   string        `json:"gives,omitempty"` // JSON pointer of the size that gives way; "none" for a check
	ID      string        `json:"id,omitempty"`    // of the driven size to change
}

// Check is a drive that nothing gives way to.
const Check = "none"

func (w *Drive) on(b *bench) (Done, error) {
	if i := slices.IndexFunc(b.doc.Drives, func(d frame.Drive) bool { return d.ID == w.ID }); w.ID != "" && i >= 0 {
		return w.change(b, i)
	}
	meaning := w.Meaning
	if meaning == "" && w.Pipe != "" {
		meaning = frame.Cut
	}
	d, err := b.size(w.Length, meaning)
	if err != nil {
		return Done{}, err
	}
	if err := w.measures(d.Meaning); err != nil {
		return Done{}, err
	}
	done := Done{Label: fmt.Sprintf("%s %s", w.Pipe, w.Length), Pipe: w.Pipe}
	drive := frame.Drive{Pipe: w.Pipe, Ends: w.Ends, Size: d}
	if w.Pipe == "" {
		done.Label = fmt.Sprintf("%s to %s %s", w.Ends[0], w.Ends[1], w.Length)
		for _, id := range w.Ends {
			if _, err := b.node(id); err != nil {
				return Done{}, err
			}
		}
	} else {
		def, i, scope, err := b.pipe(w.Pipe)
		if err != nil {
			return Done{}, err
		}
		if w.Gives == "" && b.spans(def, i, scope, d) {
			return done, nil
		}
	}
	drive.ID = free("size ", func(id string) bool {
		return slices.ContainsFunc(b.doc.Drives, func(d frame.Drive) bool { return d.ID == id })
	})
	same := func(o frame.Drive) bool { return o.Pipe == w.Pipe && o.Ends == w.Ends && o.Size.Meaning == d.Meaning }
	b.doc.Drives = append(slices.DeleteFunc(b.doc.Drives, same), drive)
	return done, b.giveWay(len(b.doc.Drives)-1, w.Gives)
}

// measures says whether a pipe, or two joints, have a size of a meaning.
func (w *Drive) measures(m frame.Meaning) error {
	ofPipe := m == frame.Cut || m == frame.Visible
	switch {
	case (w.Pipe == "") == (w.Ends == [2]string{}):
		return refuse("pick one of them", "a size of a pipe, or between two joints")
	case m == frame.TopOfPipe || m == frame.TopOfCap:
		return refuse("size the level instead", "a height is measured from the floor")
	case w.Pipe != "" && !ofPipe && m != frame.Centre:
		return refuse("say cut, visible or centre", "a pipe has no size of that kind")
	case w.Pipe == "" && ofPipe:
		return refuse("pick the pipe", "joints have no size of that kind")
	}
	return nil
}

func (w *Drive) change(b *bench, i int) (Done, error) {
	d := &b.doc.Drives[i]
	done := Done{Label: "Size " + w.ID, Pipe: d.Pipe}
	if strings.TrimSpace(w.Length) == "" && w.Gives == "" {
		b.doc.Drives = slices.Delete(b.doc.Drives, i, i+1)
		done.Label += " away"
		return done, nil
	}
	if w.Length != "" {
		size, err := b.size(w.Length, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		if err := (&Drive{Pipe: d.Pipe, Ends: d.Ends}).measures(size.Meaning); err != nil {
			return Done{}, err
		}
		d.Size = size
	}
	if w.Gives == "" {
		return done, nil
	}
	return done, b.giveWay(i, w.Gives)
}

// spans gives a size to the station or walk that the pipe alone spans: both
// ends stand on stations of which one is measured from the other.
func (b *bench) spans(def *frame.Definition, i, scope int, d frame.Dimension) bool {
	p := def.Pipes[i]
	of := func(ref string) *frame.Joint {
		k := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { return j.ID == ref })
		if k < 0 {
			return nil
		}
		return &def.Joints[k]
	}
	from, to := of(p.From), of(p.To)
	if from == nil || to == nil {
		return false
	}
	if d.Meaning == frame.Cut || d.Meaning == frame.Visible {
		d.Of = p.ID
	}
	for _, pair := range [][2]*frame.Joint{{from, to}, {to, from}} {
		if w := pair[1].Walk; w != nil && w.From == pair[0].ID && w.Size != nil {
			d.Label, d.Prompt = w.Size.Label, w.Size.Prompt
			w.Size = &d
			return true
		}
	}
	if from.Walk != nil || to.Walk != nil {
		return false
	}
	apart := 0
	for a := range 3 {
		if from.At[a] != to.At[a] {
			apart++
		}
	}
	for a := range 3 {
		if from.At[a] == to.At[a] || apart != 1 {
			continue
		}
		for _, pair := range [][2]string{{from.At[a], to.At[a]}, {to.At[a], from.At[a]}} {
			if st := find(def, measure.Axis(a), pair[1]); st != nil && st.At != nil && st.At.From == pair[0] {
				d.From, d.Back, d.Label, d.Prompt = st.At.From, st.At.Back, st.At.Label, st.At.Prompt
				st.At = &d
				return true
			}
		}
	}
	return false
}

// giveWay chooses the size that gives way to a drive: the one named, or the
// one that leads to it most directly.
func (b *bench) giveWay(i int, named string) error {
	d := &b.doc.Drives[i]
	switch named {
	case Check:
		d.Gives = ""
		return nil
	case "":
	default:
		if b.doc.Dimension(named) == nil {
			return refuse("choose one of the sizes that lead to it", "there is no size %q", named)
		}
		d.Gives = named
		return nil
	}
	leads, err := b.leads(i)
	if err != nil {
		return err
	}
	if len(leads) == 0 {
		return refuse("pick another pipe", "no size leads to it that could give way")
	}
	// a plain centre distance gives way before a size that was meant for more
	plain := slices.IndexFunc(leads, func(s layout.Size) bool { return s.Is == frame.Centre && s.Label == "" })
	d.Gives = leads[max(0, plain)].Path
	return nil
}

// leads lists the sizes that lead to a drive, the most direct first.
func (b *bench) leads(i int) ([]layout.Size, error) {
	d := &b.doc.Drives[i]
	taken := map[string]bool{}
	for k := range b.doc.Drives {
		if k != i {
			taken[b.doc.Drives[k].Gives] = true
		}
	}
	gives, value := d.Gives, d.Size.Value
	defer func() { d.Gives, d.Size.Value = gives, value }()
	d.Gives = ""
	if err := b.look(); err != nil {
		return nil, err
	}
	// a size that cannot hold is contradicted by just those that lead to it
	d.Size.Value += 1000 * measure.Foot
	if d.Size.Value > measure.FrameLimit {
		d.Size.Value = 0
	}
	if err := b.look(); err != nil {
		return nil, err
	}
	at := slices.IndexFunc(b.view.Drives, func(o layout.Driven) bool { return o.ID == d.ID })
	if at < 0 {
		return nil, nil
	}
	var all []layout.Size
	for _, path := range b.view.Drives[at].Lead {
		k := slices.IndexFunc(b.view.Sizes, func(s layout.Size) bool { return s.Path == path })
		if k >= 0 && !taken[path] {
			all = append(all, b.view.Sizes[k])
		}
	}
	return all, nil
}
