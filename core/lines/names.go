package lines

import (
	"cmp"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// Lettered is a pipe with what it is called in the plan: its letter and its place.
type Lettered struct {
	Pipe   string
	Letter string
	Where  string // upper left; empty where one pipe has the letter
}

// Known is what a line's names may be of.
type Known struct {
	Document *frame.Document
	// Located puts the document in its place. It is asked for once, and only by a line that needs it.
	Located func() (*model.Located, error)
	// Letters are the letters of the pipes; nil where there are none.
	Letters func() []Lettered
	Marked  []string // the joints that are marked

	graph   *frame.Graph
	located *model.Located
	letters []Lettered
}

func (k *Known) flat() *frame.Graph {
	if k.graph == nil {
		g, err := frame.Expand(k.Document)
		if err != nil {
			g = &frame.Graph{}
		}
		k.graph = g
	}
	return k.graph
}

// joint finds a joint by its id, or by the short name that every joint has.
func (k *Known) joint(name string) (string, bool) {
	if k.flat().Node(name) >= 0 {
		return name, true
	}
	if i := slices.Index(layout.ShortNames(k.flat()), name); i >= 0 {
		return k.flat().Nodes[i].ID, true
	}
	return "", false
}

// pipe finds a pipe by its id, by its two joints (j5-j6), by its letter, or by letter and place.
func (k *Known) pipe(name string) (id string, several []string, ok bool) {
	if k.flat().Edge(name) >= 0 {
		return name, nil, true
	}
	if from, to, dashed := strings.Cut(name, "-"); dashed {
		a, known := k.joint(from)
		b, both := k.joint(to)
		for i := range k.flat().Edges {
			ends := k.flat().Edges[i].Ends
			if at := [2]string{k.flat().Nodes[ends[0]].ID, k.flat().Nodes[ends[1]].ID}; known && both &&
				(at == [2]string{a, b} || at == [2]string{b, a}) {
				return k.flat().Edges[i].ID, nil, true
			}
		}
	}
	if k.Letters == nil {
		return "", nil, false
	}
	if k.letters == nil {
		for _, l := range k.Letters() {
			if k.flat().Edge(l.Pipe) >= 0 { // letters of a later frame name what is not there yet
				k.letters = append(k.letters, l)
			}
		}
	}
	var at []Lettered
	for _, l := range k.letters {
		switch {
		case l.Letter == "":
		case strings.EqualFold(name, l.Letter+" "+l.Where), strings.EqualFold(name, l.Letter+", "+l.Where),
			strings.EqualFold(name, l.Letter+" ("+l.Where+")"):
			return l.Pipe, nil, true
		case strings.EqualFold(name, l.Letter):
			at = append(at, l)
		}
	}
	if len(at) == 1 {
		return at[0].Pipe, nil, true
	}
	for _, l := range at {
		several = append(several, strings.TrimSpace(l.Letter+" "+l.Where))
	}
	return "", several, false
}

// everyPipe gives the pipes that have a letter: all of them.
func (k *Known) everyPipe(letter string) (ids []string) {
	if _, several, _ := k.pipe(letter); len(several) == 0 {
		return nil
	}
	for _, l := range k.letters {
		if strings.EqualFold(letter, l.Letter) {
			ids = append(ids, l.Pipe)
		}
	}
	return ids
}

// part finds a part by its path, or by the name of its group where there is one use of it.
func (k *Known) part(name string) (string, bool) {
	found, n := "", 0
	for _, s := range k.flat().Scopes {
		if s.Path == "" {
			continue
		}
		if s.Path == name {
			return name, true
		}
		if g := k.Document.Group(s.Of); g != nil && (strings.EqualFold(g.Name, name) || strings.EqualFold(g.ID, name)) {
			if n == 0 {
				found = s.Path
			}
			if !strings.Contains(s.Path, "#") || strings.HasSuffix(s.Path, "#1") {
				n++
			}
		}
	}
	return found, n == 1
}

// place is where a scope's planes are; nil where nothing can be located.
func (k *Known) place(path string) *layout.Place {
	if k.located == nil {
		if k.Located == nil {
			return nil
		}
		l, err := k.Located()
		if err != nil {
			return nil
		}
		k.located = l
	}
	for i := range k.located.Places {
		if k.located.Places[i].Path == path {
			return &k.located.Places[i]
		}
	}
	return nil
}

// plane finds a plane of a part as [layout.Place.Called] does.
func (k *Known) plane(in, name string) (measure.Axis, frame.Ref, bool) {
	place := k.place(in)
	if place == nil {
		return 0, "", false
	}
	return place.Called(name, func(joint string) (string, bool) {
		id, ok := k.joint(joint)
		if ok && in != "" {
			id, ok = strings.CutPrefix(id, in+"/")
		}
		return id, ok
	})
}

// fewest names the first of some.
func fewest(all []string, of string) string {
	if len(all) == 0 {
		return of
	}
	const most = 4
	s := strings.Join(all[:min(most, len(all))], ", ")
	if len(all) > most {
		s += " …"
	}
	return cmp.Or(s, of)
}
