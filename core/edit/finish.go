package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// finish leaves a changed document sound: nothing without a place, nothing that
// contradicts without its builder having chosen, nothing that runs the other
// way.
func (e *editor) finish() error {
	if err := e.rest(); err != nil {
		return err
	}
	for range 40 {
		held, err := e.hold()
		if err != nil {
			return err
		}
		settled, err := e.settle()
		if err != nil {
			return err
		}
		if !held && !settled {
			break
		}
	}
	if err := e.rejoin(); err != nil {
		return err
	}
	if err := e.runsOn(); err != nil {
		return err
	}
	return e.sound()
}

// rest looks, and keeps everything where it stood that a change left without a
// place.
func (e *editor) rest() error {
	if err := e.look(); err != nil {
		return err
	}
	if err := e.stay(); err != nil {
		return err
	}
	_, err := e.hold()
	return err
}

// stay keeps the frame where it is when the joint that it was placed by has
// gone: the next one takes its place.
func (e *editor) stay() error {
	if len(e.view.Graph.Nodes) == 0 || len(e.was.Graph.Nodes) == 0 {
		return nil
	}
	first := e.view.Graph.Nodes[0].ID
	was := e.was.Graph.Node(first)
	if was <= 0 || first == e.was.Graph.Nodes[0].ID {
		return nil
	}
	moved := false
	for a := range 3 {
		if len(e.doc.Root.Planes[a]) == 0 {
			at := e.was.Places[0].Local(e.was.Points[was])[a]
			moved = moved || e.doc.Origin[a] != at
			e.doc.Origin[a] = at
		}
	}
	if moved {
		return e.look()
	}
	return nil
}

// stood is where a joint stood before the gesture.
func (e *editor) stood(n int) (measure.Point, bool) {
	id := e.view.Graph.Nodes[n].ID
	if old, ok := e.alias[id]; ok {
		id = old
	}
	k := e.was.Graph.Node(id)
	if k < 0 {
		return e.view.Points[n], false
	}
	return e.was.Points[k], true
}

// stoodApart is how far a joint stood from another before the gesture, along a
// scope's own axes. Joints of a new copy stood as those of the others did.
func (e *editor) stoodApart(scope, n, m int) measure.Point {
	p, ok1 := e.stood(n)
	q, ok2 := e.stood(m)
	place := e.place(scope)
	if ok1 && ok2 {
		return place.Local(q).Sub(place.Local(p))
	}
	a, in1 := e.ref(scope, e.view.Graph.Nodes[n].ID)
	b, in2 := e.ref(scope, e.view.Graph.Nodes[m].ID)
	of := e.view.Graph.Scopes[scope].Of
	for sc := range e.was.Graph.Scopes {
		s := &e.was.Graph.Scopes[sc]
		if s.Of != of || of == "" || !in1 || !in2 {
			continue
		}
		i, k := e.was.Graph.Node(join(s.Path, a)), e.was.Graph.Node(join(s.Path, b))
		if i >= 0 && k >= 0 {
			was := &e.was.Places[sc]
			return was.Local(e.was.Points[k]).Sub(was.Local(e.was.Points[i]))
		}
	}
	if i, k, ok := e.renamedPair(scope, a, b); ok { // a group that was made of them just now
		at := e.was.Places[0]
		return at.Local(e.was.Points[k]).Sub(at.Local(e.was.Points[i]))
	}
	return place.Local(q).Sub(place.Local(p))
}

// renamedPair finds where two joints of a definition stood under the names that
// they had.
func (e *editor) renamedPair(scope int, a, b string) (i, k int, ok bool) {
	of := e.view.Graph.Scopes[scope].Of
	for sc := range e.view.Graph.Scopes {
		if e.view.Graph.Scopes[sc].Of != of {
			continue
		}
		x, y := e.alias[join(e.path(sc), a)], e.alias[join(e.path(sc), b)]
		if x == "" || y == "" {
			continue
		}
		if i, k = e.was.Graph.Node(x), e.was.Graph.Node(y); i >= 0 && k >= 0 {
			return i, k, true
		}
	}
	return 0, 0, false
}

// common is the deepest scope that two joints are both in.
func (e *editor) common(n, m int) int {
	up := func(sc int) (all []int) {
		for ; sc >= 0; sc = e.view.Graph.Scopes[sc].Parent {
			all = append(all, sc)
		}
		return all
	}
	mine := up(e.view.Graph.Nodes[n].Scope)
	for _, sc := range up(e.view.Graph.Nodes[m].Scope) {
		if slices.Contains(mine, sc) {
			return sc
		}
	}
	return 0
}

// hold gives whatever lost its place a size, or a placement, that keeps it as
// it stood. It reports whether anything was to be held.
func (e *editor) hold() (any bool, err error) {
	for range 200 {
		if len(e.view.Free) == 0 {
			return any, nil
		}
		any = true
		if !e.placed() {
			e.keep(&e.view.Free[0])
		}
		n := len(e.view.Free)
		if err := e.look(); err != nil {
			return any, err
		}
		if len(e.view.Free) >= n && n > 0 && len(e.view.Free) > 3*len(e.view.Graph.Nodes) {
			break
		}
	}
	return any, nil
}

// placed ties a part that moves freely along all axes by one placement.
func (e *editor) placed() bool {
	f := e.view.Free
	if len(f) < 3 || !slices.Equal(f[0].Nodes, f[1].Nodes) || !slices.Equal(f[1].Nodes, f[2].Nodes) || f[0].Scope != f[1].Scope || f[1].Scope != f[2].Scope {
		return false
	}
	free := f[0].Nodes
	from := e.heldNode(free)
	if from < 0 {
		return false
	}
	to := free[0]
	scope := e.common(from, to)
	a, ok1 := e.ref(scope, e.view.Graph.Nodes[from].ID)
	b, ok2 := e.ref(scope, e.view.Graph.Nodes[to].ID)
	if !ok1 || !ok2 {
		return false
	}
	e.doc.AddReason(e.def(scope), frame.Reason{Kind: frame.Placed, Of: frame.Ref(b), From: frame.Ref(a), By: e.stoodApart(scope, from, to)})
	e.tell("the part at %s is by itself: it keeps its place from %s", b, a)
	return true
}

// heldNode gives a joint that is not among those that move freely and that is
// held itself, as near to them as parts go: of the same copy of a part before
// one outside it; -1 where there is none.
func (e *editor) heldNode(free []int) int {
	loose := map[int]bool{}
	for i := range e.view.Free {
		for _, n := range e.view.Free[i].Nodes {
			loose[n] = true
		}
	}
	best, depth := -1, -1
	for n := range e.view.Graph.Nodes {
		if slices.Contains(free, n) || loose[n] {
			continue
		}
		if d := e.depth(e.common(n, free[0])); d > depth {
			best, depth = n, d
		}
	}
	if best >= 0 {
		return best
	}
	for n := range e.view.Graph.Nodes {
		if !slices.Contains(free, n) {
			return n
		}
	}
	return -1
}

// depth is how many parts a scope is inside of.
func (e *editor) depth(scope int) (d int) {
	for ; scope > 0; scope = e.view.Graph.Scopes[scope].Parent {
		d++
	}
	return d
}

// keep gives joints that move freely along one axis a size as it stood.
func (e *editor) keep(f *layout.Free) {
	from, to := e.heldNode(f.Nodes), f.Nodes[0]
	// best between the ends of a pipe
	for _, n := range f.Nodes {
		for _, pe := range e.view.Graph.Nodes[n].Pipes {
			o := e.view.Graph.Edges[pe.Pipe].Ends[1-pe.End]
			if !slices.Contains(f.Nodes, o) && e.view.Graph.Nodes[o].Scope == f.Scope && e.view.Graph.Nodes[n].Scope == f.Scope {
				from, to = o, n
			}
		}
	}
	if from < 0 {
		return
	}
	scope := e.common(from, to)
	// the axis in that scope's own axes
	dir := e.view.Graph.Scopes[f.Scope].Orient.Dir(f.Axis.Dir())
	a, _, square := along(e.place(scope).Turned(dir))
	u, ok1 := e.ref(scope, e.view.Graph.Nodes[from].ID)
	v, ok2 := e.ref(scope, e.view.Graph.Nodes[to].ID)
	if !ok1 || !ok2 {
		return
	}
	def := e.def(scope)
	by := e.stoodApart(scope, from, to)
	if !square {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Placed, Of: frame.Ref(v), From: frame.Ref(u), By: by})
		e.tell("%s keeps its place from %s", v, u)
		return
	}
	lo, hi, d := u, v, by[a]
	if d < 0 {
		lo, hi, d = v, u, -d
	}
	if d <= measure.Length(1000) {
		e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: frame.AxisName(int(a)), Of: frame.Ref(hi), To: frame.Ref(lo)})
		e.tell("%s stays level with %s", hi, lo)
		return
	}
	s := e.centre(d)
	s.Axis, s.From, s.To, s.Stood = frame.AxisName(int(a)), frame.Ref(lo), frame.Ref(hi), true
	e.doc.AddSize(def, s)
	e.tell("%s to %s stays as it stood: %s", lo, hi, tape(s.Value))
}

// settle lets give way what was chosen to, and asks where nothing was. It
// reports whether anything gave way.
func (e *editor) settle() (any bool, err error) {
	for range 40 {
		i := slices.IndexFunc(e.view.Clashes, func(c layout.Clash) bool { return !e.clashed[c.Key()] })
		if i < 0 {
			return any, nil
		}
		c := e.view.Clashes[i]
		if e.letGo(&c) {
			any = true
			if err := e.look(); err != nil {
				return any, err
			}
			continue
		}
		chosen := -1
		for k, p := range c.Parties {
			if e.answered(optionID(p)) {
				chosen = k
			}
		}
		if chosen < 0 {
			return any, e.question(&c)
		}
		if err := e.give(&c, chosen); err != nil {
			return any, err
		}
		any = true
	}
	return any, nil
}

// letGo takes away what nobody said and only kept something where it stood,
// where it contradicts what somebody said. It reports whether there was any.
func (e *editor) letGo(c *layout.Clash) bool {
	for k := len(c.Parties) - 1; k >= 0; k-- {
		p := c.Parties[k]
		switch p.Kind {
		case "size":
			if s := e.doc.SizeOf(p.ID); s != nil && s.Stood {
				e.doc.DropSize(p.ID)
				return true
			}
		case "reason":
			if r := e.definition(p.Group).Reason(p.ID); r != nil && r.Kind == frame.Placed {
				e.doc.DropReason(p.ID)
				return true
			}
		}
	}
	return false
}

func optionID(p layout.Party) string { return strings.TrimSpace(p.Kind + " " + p.ID + " " + p.Group) }

// question asks what gives way, with what becomes of each.
func (e *editor) question(c *layout.Clash) error {
	q := &Question{What: fmt.Sprintf("%s cannot hold together (%s)", listed(c.Words), tape(c.Off.Abs()))}
	order := make([]int, len(c.Parties))
	for i := range order {
		order[i] = i
	}
	// sizes first, the last said before the others
	slices.SortStableFunc(order, func(i, k int) int {
		si, sk := c.Parties[i].Kind == "size", c.Parties[k].Kind == "size"
		switch {
		case si && !sk:
			return -1
		case sk && !si:
			return 1
		}
		return k - i
	})
	for _, i := range order {
		p := c.Parties[i]
		if p.Kind == "use" {
			continue
		}
		trial := &editor{doc: e.doc.Clone(), unit: e.unit, solve: e.solve, view: e.view, was: e.was, clashed: e.clashed, alias: e.alias}
		label := c.Words[i] + " gives way"
		if p.Kind == "pipe" {
			label = strings.Fields(c.Words[i])[0] + " slopes"
		}
		if trial.give(c, i) == nil {
			for _, g := range trial.gave {
				if g.Size == p.ID {
					label += ": " + g.Now
				}
			}
		}
		q.Options = append(q.Options, Option{ID: optionID(p), Label: label})
	}
	return q
}

func listed(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " and " + words[n-1]
	}
	return strings.Join(words, "")
}

// tape is a length as a tape shows it.
func tape(l measure.Length) string {
	return l.Round(measure.SixtyFourth).Format(measure.InInches, 0)
}

// give lets one of a set that cannot hold together give way to the others.
func (e *editor) give(c *layout.Clash, which int) error {
	p := c.Parties[which]
	g := &frame.Gave{}
	var to []string
	for k, o := range c.Parties {
		if k == which {
			continue
		}
		if o.Kind == "size" || len(c.Parties) < 3 {
			to = append(to, c.Words[k])
		}
		if o.Group == p.Group {
			switch o.Kind {
			case "size":
				g.Sizes = append(g.Sizes, o.ID)
			case "pipe":
				g.Pipes = append(g.Pipes, o.ID)
			case "reason":
				g.Reasons = append(g.Reasons, o.ID)
			}
		}
	}
	if len(to) == 0 {
		to = c.Words[:min(2, len(c.Words))]
	}
	g.Words = listed(to)
	return e.giveWay(p, c.Words[which], g)
}

func (e *editor) definition(group string) *frame.Definition {
	if group == "" {
		return &e.doc.Root
	}
	return e.doc.Group(group)
}

func (e *editor) giveWay(p layout.Party, words string, g *frame.Gave) error {
	def := e.definition(p.Group)
	switch p.Kind {
	case "size":
		s := e.doc.SizeOf(p.ID)
		s.Gave = g
		if err := e.look(); err != nil {
			return err
		}
		e.gave = append(e.gave, Gave{Size: p.ID, Was: words, Now: e.now(p.ID), Words: "gave way to " + g.Words})
		return nil
	case "reason":
		def.Reason(p.ID).Gave = g
	case "pipe":
		pipe := def.Pipe(p.ID)
		pipe.Gave = g
		e.tell("%s slopes", p.ID)
		if err := e.look(); err != nil {
			return err
		}
		return e.stillLevel(def, pipe)
	}
	return e.look()
}

// now is what a size has become, in its own meaning.
func (e *editor) now(id string) string {
	for _, z := range e.view.Sizes {
		if z.ID == id {
			return strings.TrimSpace(tape(z.Out) + " " + layout.Words(z.Is))
		}
	}
	return ""
}

// stillLevel keeps the ends of a pipe that slopes now level along the axes that
// were not in question.
func (e *editor) stillLevel(def *frame.Definition, p *frame.Pipe) error {
	if p.Dir == nil {
		return nil
	}
	from, to, rank := p.From, p.To, p.Rank
	run, _, square := along(*p.Dir)
	for a := range measure.Axis(3) {
		if !square || a == run {
			continue
		}
		n := len(e.view.Clashes)
		id := e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: a.String(), Of: frame.Ref(to), To: frame.Ref(from), Rank: rank})
		if err := e.look(); err != nil {
			return err
		}
		if len(e.view.Clashes) > n {
			e.doc.DropReason(id)
			if err := e.look(); err != nil {
				return err
			}
		}
	}
	return nil
}

// rejoin lets joined copies share what came to stand at one place in them.
func (e *editor) rejoin() error {
	changed := false
	for _, def := range e.doc.Definitions() {
		for i := range def.Uses {
			u := &def.Uses[i]
			if u.Array == nil || u.Array.Joined == nil || u.Array.Count < 2 {
				continue
			}
			for sc := range e.view.Graph.Scopes {
				if s := &e.view.Graph.Scopes[sc]; s.Parent >= 0 && e.def(s.Parent) == def && s.Use == u.ID && strings.HasSuffix(s.Path, "#1") {
					changed = e.joinCopies(u, strings.TrimSuffix(s.Path, "#1")) || changed
					break
				}
			}
		}
	}
	if changed {
		return e.look()
	}
	return nil
}

func (e *editor) joinCopies(u *frame.Use, path string) (changed bool) {
	g := e.view.Graph
	for i := range g.Nodes {
		hi, in := within(path+"#1", g.Nodes[i].ID)
		if !in {
			continue
		}
		for k := range g.Nodes {
			lo, in := within(path+"#2", g.Nodes[k].ID)
			if in && e.view.Points[i].Distance(e.view.Points[k]) <= near {
				u.Array.Joined = append(u.Array.Joined, [2]string{lo, hi})
				changed = true
			}
		}
	}
	return changed
}

// runsOn refuses what would leave a pipe less than no room.
func (e *editor) runsOn() error {
	had := map[string]bool{}
	for _, f := range e.was.Findings {
		if f.Code == "turned-round" || f.Code == "zero-length" {
			had[f.Subject[0]] = true
		}
	}
	for _, f := range e.view.Findings {
		if (f.Code == "turned-round" || f.Code == "zero-length") && !had[f.Subject[0]] {
			return refuse("write a larger size: the bodies at both ends take that much", "%s", f.Text)
		}
	}
	return nil
}
