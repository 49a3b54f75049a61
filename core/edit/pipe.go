package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Split puts a joint into a pipe: where a tee is to stand, or a coupling. The
// first part keeps the pipe's id.
type Split struct {
	Pipe    string        `json:"pipe"`
	From    string        `json:"from,omitempty"`   // the end it is measured from; the pipe's first end by default
	Length  string        `json:"length,omitempty"` // from that end's joint; half the way when left out
	Meaning frame.Meaning `json:"meaning,omitempty"`
	Name    string        `json:"name,omitempty"` // of the new joint
}

func (w *Split) on(b *bench) (Done, error) {
	def, i, scope, err := b.pipe(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	e := b.view.Graph.Edge(w.Pipe)
	switch def.Pipes[i].Path {
	case frame.Sprung:
		return w.crown(b, def, i, scope)
	case frame.Bent:
		return Done{}, refuse("make it straight first, or of two pieces", "a bent pipe is not split")
	}
	pipe, ends := def.Pipes[i], b.view.Graph.Edges[e].Ends
	refs := [2]string{pipe.From, pipe.To}
	if w.From != "" && w.From == b.view.Graph.Nodes[ends[1]].ID {
		refs, ends = [2]string{refs[1], refs[0]}, [2]int{ends[1], ends[0]}
	}
	j := frame.Joint{ID: w.Name}
	if j.ID == "" {
		j.ID = newJoint(def)
	}
	if b.has(def, j.ID) {
		return Done{}, refuse("give it another name", "there is a joint %q already", j.ID)
	}
	var d *frame.Dimension
	words := "in half"
	if w.Length != "" {
		size, err := b.size(w.Length, w.Meaning)
		if err != nil {
			return Done{}, err
		}
		long := b.view.Points[ends[0]].Distance(b.view.Points[ends[1]])
		if size.Value <= 0 || size.Value >= long {
			return Done{}, refuse(fmt.Sprintf("write less than its %s from centre to centre", long.Round(measure.SixtyFourth)), "%s is not on the pipe", size.Value)
		}
		if size.Meaning == frame.Cut || size.Meaning == frame.Visible {
			size.Of = pipe.ID
			if ends != b.view.Graph.Edges[e].Ends { // the part by that end is the second one
				size.Of = newPipe(def)
			}
		}
		d, words = &size, "at "+w.Length
	}
	b.freeze(def, pipe.ID)
	b.placeBetween(scope, &j, ends, refs, d)
	def.Joints = append(def.Joints, j)
	path := b.view.Places[scope].Path
	b.cutThrough(def, w.Pipe, path, j.ID)
	return Done{Label: fmt.Sprintf("Pipe %s split %s", w.Pipe, words), Joint: join(path, j.ID), Pipe: w.Pipe, Also: b.everywhere(scope)}, nil
}

// placeBetween stands a joint between two others: on a station of its own
// where the two stand on stations and differ along one axis, else on the line.
func (b *bench) placeBetween(scope int, j *frame.Joint, ends [2]int, refs [2]string, d *frame.Dimension) {
	def, place := b.def(scope), &b.view.Places[scope]
	p, ok1 := b.stationsOf(scope, b.view.Points[ends[0]])
	q, ok2 := b.stationsOf(scope, b.view.Points[ends[1]])
	a, sign, square := along(place.Turned(b.view.Points[ends[0]].Toward(b.view.Points[ends[1]])))
	if !ok1 || !ok2 || !square || d != nil && d.Meaning != frame.Centre && (d.Meaning == frame.TopOfPipe || d.Meaning == frame.TopOfCap) {
		j.Walk = &frame.Walk{From: refs[0], Toward: refs[1], Size: d}
		if d == nil {
			j.Walk.Share = 0.5
		}
		return
	}
	st := frame.Station{ID: newStation(def, a)}
	if d == nil {
		st.Split = &frame.Split{From: p[a], To: q[a], Part: 1, Parts: 2}
	} else {
		d.From, d.Back = p[a], sign < 0
		st.At = d
		if d.Meaning == frame.Centre { // a level that is there already serves
			here := place.Local(b.view.Points[ends[0]])[a]
			if id, there := b.station(scope, a, here+d.Value.Scale(sign)); there {
				j.At = p
				j.At[a] = id
				return
			}
		}
	}
	def.Axes[a].Stations = append(def.Axes[a].Stations, st)
	j.At = p
	j.At[a] = st.ID
}

// freeze turns sizes that are a pipe's cut or visible length into the centre
// distances they came to: the pipe is about to change. Other sizes no longer
// give way to it.
func (b *bench) freeze(def *frame.Definition, pipe string) {
	b.doc.Drives = slices.DeleteFunc(b.doc.Drives, func(d frame.Drive) bool {
		return slices.ContainsFunc(b.view.Places, func(p layout.Place) bool { return p.Definition(b.doc) == def && d.Pipe == join(p.Path, pipe) })
	})
	for _, path := range b.doc.Dimensions() {
		if d := b.doc.Dimension(path); d.Of == pipe && b.doc.Definition(path) == def {
			*d = b.came(d)
		}
	}
}

// Delete takes pipes and joints away. Where two pipes in line are left at a
// joint, they become one.
type Delete struct {
	Joints []string `json:"joints,omitempty"`
	Pipes  []string `json:"pipes,omitempty"`
}

func (w *Delete) on(b *bench) (Done, error) {
	if len(w.Joints)+len(w.Pipes) == 0 {
		return Done{}, refuse("pick a pipe or a joint", "nothing to delete")
	}
	done := Done{}
	var touched []string // joints that may heal
	for _, id := range w.Pipes {
		def, i, scope, err := b.pipe(id)
		if err != nil {
			return Done{}, err
		}
		for _, n := range b.view.Graph.Edges[b.view.Graph.Edge(id)].Ends {
			touched = append(touched, b.view.Graph.Nodes[n].ID)
		}
		b.freeze(def, def.Pipes[i].ID)
		b.dropVia(def, &def.Pipes[i])
		def.Pipes = slices.Delete(def.Pipes, i, i+1)
		done.Also = append(done.Also, b.everywhere(scope)...)
	}
	for _, id := range w.Joints {
		n, err := b.node(id)
		if err != nil {
			return Done{}, err
		}
		if b.heal(id) { // a joint in the middle of a line
			continue
		}
		for _, pe := range b.view.Graph.Nodes[n].Pipes {
			e := &b.view.Graph.Edges[pe.Pipe]
			if def, i, scope, err := b.pipe(e.ID); err == nil {
				b.freeze(def, def.Pipes[i].ID)
				def.Pipes = slices.Delete(def.Pipes, i, i+1)
				touched = append(touched, b.view.Graph.Nodes[e.Ends[1-pe.End]].ID)
				done.Also = append(done.Also, b.everywhere(scope)...)
			}
		}
		if def, i, _, err := b.joint(id); err == nil {
			b.dropJoint(def, i)
		}
	}
	if err := b.look(); err != nil {
		return Done{}, err
	}
	for _, id := range touched {
		switch n := b.view.Graph.Node(id); {
		case n < 0:
		case len(b.view.Graph.Nodes[n].Pipes) == 0:
			if def, i, _, err := b.joint(id); err == nil && !b.walkedFrom(def, def.Joints[i].ID) && b.bare(def, def.Joints[i].ID) {
				b.dropJoint(def, i)
				if err := b.look(); err != nil {
					return Done{}, err
				}
			}
		case b.heal(id):
			done.Also = append(done.Also, "heals at "+id)
			if err := b.look(); err != nil {
				return Done{}, err
			}
		default:
			done.Joint = id
		}
	}
	done.Also = slices.Compact(slices.Sorted(slices.Values(done.Also)))
	what := append(slices.Clone(w.Pipes), w.Joints...)
	done.Label = "Delete " + what[0]
	if len(what) > 1 {
		done.Label = fmt.Sprintf("Delete %d parts", len(what))
	}
	return done, nil
}

// bare says whether no pipe is left at a definition's joint in any of its uses.
func (b *bench) bare(def *frame.Definition, id string) bool {
	for i := range b.view.Places {
		if p := &b.view.Places[i]; p.Definition(b.doc) == def {
			if n := b.view.Graph.Node(join(p.Path, id)); n < 0 || len(b.view.Graph.Nodes[n].Pipes) > 0 {
				return false
			}
		}
	}
	return true
}

func (b *bench) walkedFrom(def *frame.Definition, joint string) bool {
	return slices.ContainsFunc(def.Joints, func(j frame.Joint) bool { return j.Walk != nil && (j.Walk.From == joint || j.Walk.Toward == joint) })
}

// dropJoint takes a joint of a definition away and what it alone stood on.
// Joints that were walked to from it stay where they are, on stations of their
// own.
func (b *bench) dropJoint(def *frame.Definition, i int) {
	at, id := def.Joints[i].At, def.Joints[i].ID
	for _, d := range b.definitions() {
		for k := range d.Joints {
			if w := d.Joints[k].Walk; w != nil && (b.is(d, w.From, def, id) || b.is(d, w.Toward, def, id)) {
				b.ground(d, &d.Joints[k])
			}
		}
	}
	def.Joints = slices.Delete(def.Joints, i, i+1)
	for a, st := range at {
		b.dropStation(def, measure.Axis(a), st)
	}
}

// is says whether a definition's name for a joint means another definition's
// joint.
func (b *bench) is(in *frame.Definition, ref string, def *frame.Definition, id string) bool {
	first, rest, inUse := strings.Cut(ref, "/")
	if !inUse {
		return in == def && ref == id
	}
	name, _, _ := strings.Cut(first, "#")
	for i := range in.Uses {
		if in.Uses[i].ID == name {
			if g := b.doc.Group(in.Uses[i].Of); g != nil {
				return b.is(g, rest, def, id)
			}
		}
	}
	return false
}

// ground stands a joint that was walked to on stations where it is.
func (b *bench) ground(def *frame.Definition, j *frame.Joint) {
	for i := range b.view.Places {
		p := &b.view.Places[i]
		n := b.view.Graph.Node(join(p.Path, j.ID))
		if p.Definition(b.doc) != def || n < 0 {
			continue
		}
		here := p.Local(b.view.Points[n])
		for a := range 3 {
			id, there := b.station(i, measure.Axis(a), here[a])
			if !there {
				first := def.Axes[a].Stations[0].ID
				k := slices.IndexFunc(p.Stations[a], func(s layout.Stood) bool { return s.ID == first })
				by := here[a] - p.Stations[a][k].At
				id = newStation(def, measure.Axis(a))
				def.Axes[a].Stations = append(def.Axes[a].Stations, frame.Station{ID: id, At: &frame.Dimension{Value: by.Abs(), Meaning: frame.Centre, From: first, Back: by < 0, Text: by.Abs().Format(measure.InInches, 0)}})
			}
			j.At[a] = id
		}
		j.Walk = nil
		return
	}
}

// heal makes one pipe of the two that meet in line at a joint. The older keeps
// its id.
func (b *bench) heal(id string) bool {
	g := b.view.Graph
	n := g.Node(id)
	node := &g.Nodes[n]
	if len(node.Pipes) != 2 || node.Fitting != nil {
		return false
	}
	p, q := node.Pipes[0], node.Pipes[1]
	if g.Edges[p.Pipe].Path != frame.Straight || g.Edges[q.Pipe].Path != frame.Straight {
		return false
	}
	if g.Edges[p.Pipe].Size != g.Edges[q.Pipe].Size || g.Edges[p.Pipe].Scope != g.Edges[q.Pipe].Scope || b.leaves(p).AngleTo(b.leaves(q)) < 180-2*fitting.Flex {
		return false
	}
	def, at, _, err := b.joint(id)
	if err != nil || b.walkedFrom(def, def.Joints[at].ID) {
		return false
	}
	keep, i, scope, err := b.pipe(g.Edges[p.Pipe].ID)
	if err != nil || keep != def {
		return false
	}
	_, k, _, err := b.pipe(g.Edges[q.Pipe].ID)
	if err != nil {
		return false
	}
	if k < i {
		i, k, p, q = k, i, q, p
	}
	far, ok := b.ref(scope, g.Nodes[g.Edges[q.Pipe].Ends[1-q.End]].ID)
	if !ok {
		return false
	}
	b.freeze(def, def.Pipes[i].ID)
	b.freeze(def, def.Pipes[k].ID)
	older, gone := &def.Pipes[i], def.Pipes[k]
	if p.End == 0 {
		older.From = far
	} else {
		older.To = far
	}
	if gone.AtEnd != nil || older.AtEnd != nil {
		held := [2]frame.Insertion{}
		if older.AtEnd != nil {
			held[1-p.End] = older.AtEnd[1-p.End]
		}
		if gone.AtEnd != nil {
			held[p.End] = gone.AtEnd[1-q.End]
		}
		older.AtEnd = &held
	}
	def.Pipes = slices.Delete(def.Pipes, k, k+1)
	if j := slices.IndexFunc(def.Joints, func(j frame.Joint) bool { local, _ := b.ref(scope, id); return j.ID == local }); j >= 0 {
		b.dropJoint(def, j)
	}
	return true
}

// Resize gives pipes another size.
type Resize struct {
	Pipe string       `json:"pipe"`
	Run  bool         `json:"run,omitempty"` // and all that goes on in line with it
	Size catalog.Size `json:"size"`          // "" for the default of its group
}

func (w *Resize) on(b *bench) (Done, error) {
	if w.Size != "" && !w.Size.Known() {
		return Done{}, refuse("use a nominal size such as 3/4", "no pipe size %q", w.Size)
	}
	e, err := b.edge(w.Pipe)
	if err != nil {
		return Done{}, err
	}
	all := []int{e}
	if w.Run {
		all = b.run(e)
	}
	var also []string
	for _, e := range all {
		def, i, scope, err := b.pipe(b.view.Graph.Edges[e].ID)
		if err != nil {
			return Done{}, err
		}
		def.Pipes[i].Size = w.Size
		also = append(also, b.everywhere(scope)...)
	}
	label := fmt.Sprintf("%s to %s", w.Pipe, sizeWords(w.Size))
	if w.Size == "" {
		label = w.Pipe + " to the usual size"
	}
	if len(all) > 1 {
		label = fmt.Sprintf("%d pipes in line to %s", len(all), sizeWords(w.Size))
	}
	return Done{Label: label, Pipe: w.Pipe, Also: slices.Compact(slices.Sorted(slices.Values(also)))}, nil
}

// run is a pipe and all that goes on in line with it.
func (b *bench) run(e int) []int {
	g, in := b.view.Graph, []int{e}
	for k := 0; k < len(in); k++ {
		for end, n := range g.Edges[in[k]].Ends {
			d := b.leaves(frame.PipeEnd{Pipe: in[k], End: end})
			for _, pe := range g.Nodes[n].Pipes {
				if !slices.Contains(in, pe.Pipe) && b.leaves(pe).AngleTo(d) > 180-2*fitting.Flex {
					in = append(in, pe.Pipe)
				}
			}
		}
	}
	return in
}
