package layer

import (
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/frame"
)

// rounds bounds how often what was put together is looked through for what does
// not hang together; each round takes at least one thing away.
const rounds = 200

// over is a layer being put over a base.
type over struct {
	doc     *frame.Document
	base    *frame.Document
	layer   Layer
	records map[key]int // by what they are about
	out     map[int]bool
	lost    []key // of the base's own, which the layer left nothing to stand on
}

// Over puts the layer over a base, which it does not change. aside are the
// records that the base has no place for now, in their order; lost are things of
// the base's own that what the layer took away leaves nothing to refer to. The
// document is the base's alone where nothing else holds together.
func (l Layer) Over(base *frame.Document) (doc *frame.Document, aside Layer, lost []string) {
	o := &over{doc: base.Clone(), base: base, layer: l, records: map[key]int{}, out: map[int]bool{}}
	for i := range l {
		o.records[l[i].key()] = i
	}
	for i := range l {
		o.put(i)
	}
	for range rounds {
		if !o.mend() && !o.loose() {
			break
		}
	}
	if _, err := frame.Expand(o.doc); err != nil {
		return base.Clone(), l, nil
	}
	for i := range l {
		if o.out[i] {
			aside = append(aside, l[i])
		}
	}
	for _, k := range o.lost {
		lost = append(lost, k.id)
	}
	return o.doc, aside, lost
}

// in finds the lists that a record belongs to. A group that the layer added is
// made by the first of its records.
func (o *over) in(k key, make bool) *lists {
	switch {
	case slices.Contains([]Kind{Document, Tolerance, Envelope, Part}, k.kind):
		return ofDocument(o.doc)
	case k.in == "":
		return ofDefinition(&o.doc.Root)
	}
	g := o.doc.Group(k.in)
	if g == nil {
		if !make {
			return nil
		}
		o.doc.Groups = append(o.doc.Groups, frame.Definition{ID: k.in})
		g = &o.doc.Groups[len(o.doc.Groups)-1]
	}
	return ofDefinition(g)
}

func (o *over) put(i int) {
	r := &o.layer[i]
	k := r.key()
	ls := o.in(k, r.Added())
	if ls == nil {
		o.out[i] = !r.Gone()
		return
	}
	l := ls.find(k.kind)
	at := indexOf(l, k.id)
	var err error
	switch {
	case l == nil:
		o.out[i] = true
	case r.Gone():
		if k.kind == Header { // the whole group went
			o.doc.Groups = slices.DeleteFunc(o.doc.Groups, func(d frame.Definition) bool { return d.ID == k.in })
		} else if at >= 0 {
			l.drop(at)
		}
	case r.Added():
		err = l.put(r.Now)
	case at < 0:
		o.out[i] = true
	default:
		err = l.put(blend(r.Was, r.Now, encode(l.get(at))))
	}
	if err != nil {
		o.out[i] = true
	}
}

func indexOf(l list, id string) int {
	if l == nil {
		return -1
	}
	for i := range l.len() {
		if l.id(i) == id {
			return i
		}
	}
	return -1
}

// mend takes away, or puts back as the base has it, whatever the document's own
// rules refuse. It says whether there was anything.
func (o *over) mend() bool {
	_, err := frame.Expand(o.doc)
	ps, bad := err.(frame.Problems) //nolint:errorlint // Expand says so
	if !bad {
		return false
	}
	var all []key
	for _, p := range ps {
		if k, ok := o.named(p.Path); ok && !slices.Contains(all, k) {
			all = append(all, k)
		}
	}
	for _, k := range all {
		o.retreat(k)
	}
	return len(all) > 0
}

// retreat sets the record of a thing aside. What the base itself has goes where
// it cannot stay.
func (o *over) retreat(k key) {
	ls := o.in(k, false)
	if ls == nil {
		return
	}
	l := ls.find(k.kind)
	at := indexOf(l, k.id)
	if at < 0 {
		return
	}
	i, recorded := o.records[k]
	if recorded && !o.out[i] {
		o.out[i] = true
		if !o.layer[i].Added() {
			if was, has := gather(o.base).at[k]; has {
				_ = l.put(encode(was)) // it was read from there
				return
			}
		}
	} else {
		o.lost = append(o.lost, k)
	}
	l.drop(at)
}

// named gives what a JSON pointer into the document is about.
func (o *over) named(path string) (k key, ok bool) {
	steps := strings.Split(strings.TrimPrefix(path, "/"), "/")
	next := func() string {
		if len(steps) == 0 {
			return ""
		}
		s := steps[0]
		steps = steps[1:]
		return s
	}
	number := func() int {
		n, err := strconv.Atoi(next())
		if err != nil {
			return -1
		}
		return n
	}
	kinds := map[string]Kind{"joints": Joint, "pipes": Pipe, "sizes": Size, "reasons": Reason, "uses": Use, "merges": Merge, "links": Link,
		"tolerances": Tolerance, "clearanceChecks": Envelope, "customFittings": Part}
	var ls *lists
	switch top := next(); top {
	case "root":
		ls = ofDefinition(&o.doc.Root)
	case "groups":
		g := number()
		if g < 0 || g >= len(o.doc.Groups) {
			return k, false
		}
		k.in = o.doc.Groups[g].ID
		ls = ofDefinition(&o.doc.Groups[g])
	default:
		ls = ofDocument(o.doc)
		steps = append([]string{top}, steps...)
	}
	what := next()
	if k.kind = kinds[what]; what == "planes" {
		a := number()
		if a < 0 || a > 2 {
			return k, false
		}
		k.kind = Plane + " " + Kind(frame.AxisName(a))
	}
	l, i := ls.find(k.kind), number()
	if l == nil || i < 0 || i >= l.len() {
		return k, false
	}
	k.id = l.id(i)
	return k, true
}
