package edit

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model"
)

// near is the distance within which two points count as the same: that of one mark of a ruler.
const near = layout.OneMark

// editor is a document being changed, with where its parts stand. Gestures
// change the document by what [frame.Document] offers for it, and by nothing
// else.
type editor struct {
	doc       *frame.Document
	unit      measure.Unit
	step      measure.Length // of the tape by which figures are told
	solve     Solver
	view      *model.Located // of the document as it was last solved
	was       *model.Located // of the document as it was given
	clashed   map[string]bool
	yielded   []layout.Party // what gave way in the document as it was given
	heights   []string       // sizes that were typed just now, which may be heights from the floor
	answers   []string
	also      []string
	gave      []GivenUp
	splits    []splitPipe
	runs      bool     // the gesture runs single pipes, and tees for pipes to come were not sought yet
	met       []string // joints and pipes that the ends of new pipes met
	offers    []Offer
	asNow     bool              // loose joints are held where they are now, not where they stood before the gesture
	goesOnYet bool              // a line that repeats has not come to its end yet
	alias     map[string]string // the old names of joints that the gesture renamed, by their new ones
}

func begin(d *frame.Document, ed Edit, solve Solver) (*editor, error) {
	e := &editor{
		doc:     d.Clone(),
		unit:    cmp.Or(ed.Unit, d.Units, measure.Inches),
		solve:   solve,
		step:    ed.Step,
		answers: ed.Answers,
		clashed: map[string]bool{},
	}
	if err := e.resolve(); err != nil {
		return nil, err
	}
	for _, g := range e.gaveWays() {
		e.yielded = append(e.yielded, g.Party)
	}
	e.was = e.view
	for i, name := range layout.ShortNames(e.view.Graph) {
		if n, number := numberOf(name); number && name != e.view.Graph.Nodes[i].ID {
			e.doc.Numbers.Above = max(e.doc.Numbers.Above, n)
		}
	}
	for i := range e.view.Clashes {
		e.clashed[e.view.Clashes[i].Key()] = true
	}
	return e, nil
}

// resolve solves the document as it is now and keeps the result as the view. What
// the document's own rules do not allow, such as two pipes between the same joints,
// is refused in a builder's words. It costs one solution of the frame.
func (e *editor) resolve() error {
	view, err := e.solve(e.doc)
	var ps frame.Problems
	if errors.As(err, &ps) && len(ps) > 0 && e.view != nil {
		return &Refusal{What: ps[0].What, Hint: ps[0].Hint}
	}
	if err == nil {
		e.view = view
	}
	return err
}

func (e *editor) note(what string, args ...any) { e.also = append(e.also, fmt.Sprintf(what, args...)) }

// noteRemoved tells the builder what was removed besides what was asked for.
func (e *editor) noteRemoved(gone []frame.Removed) {
	for _, r := range gone {
		if r.Words != "" {
			e.note("%s goes", r.Words)
		}
	}
}

// answered says whether an option was chosen.
func (e *editor) answered(id string) bool { return slices.Contains(e.answers, id) }

// scope finds the axes of a use by its path.
func (e *editor) scope(path string) (int, error) {
	i := slices.IndexFunc(e.view.Graph.Scopes, func(s frame.Scope) bool { return s.Path == path })
	if i < 0 {
		return 0, refuse("name a part of the frame", "there is no part %q", path)
	}
	return i, nil
}

// def is the definition a scope shows.
func (e *editor) def(scope int) *frame.Definition {
	if of := e.view.Graph.Scopes[scope].Of; of != "" {
		return e.doc.Group(of)
	}
	return &e.doc.Root
}

func (e *editor) path(scope int) string { return e.view.Graph.Scopes[scope].Path }

// thing mentions a pipe or a joint of a scope by its name there.
func (e *editor) thing(scope int, id string) string { return mention.Of(join(e.path(scope), id)) }

// ofDefinition mentions a pipe or a joint by its name in a definition: of a group that
// is used several times, that of its first use.
func (e *editor) ofDefinition(def *frame.Definition, id string) string {
	if i := e.scopeOf(def.ID); i >= 0 {
		return e.thing(i, id)
	}
	return id
}

// scopeOf is the first scope that shows a definition, by the definition's id; -1 for none.
func (e *editor) scopeOf(group string) int {
	return slices.IndexFunc(e.view.Graph.Scopes, func(s frame.Scope) bool { return s.Of == group })
}

// refOf mentions the joint that a reference of a definition names, or gives the name of its plane.
func (e *editor) refOf(def *frame.Definition, r frame.Ref) string {
	if _, _, plane := r.Parts(); plane || r == frame.Floor {
		return r.Bare()
	}
	return e.ofDefinition(def, string(r))
}

// reason says a reason of a definition in words.
func (e *editor) reason(def *frame.Definition, r *frame.Reason) string {
	return r.Says(e.refOf(def, r.Of), e.refOf(def, r.From), e.refOf(def, r.To))
}

func (e *editor) place(scope int) *layout.Place { return &e.view.Places[scope] }

// ref names a joint as the definition of a scope does; ok is false for a joint
// outside it.
func (e *editor) ref(scope int, id string) (string, bool) { return within(e.path(scope), id) }

func within(path, id string) (string, bool) {
	if path == "" {
		return id, true
	}
	return strings.CutPrefix(id, path+"/")
}

func join(path, id string) string {
	if path == "" {
		return id
	}
	return path + "/" + id
}

// called finds a joint by its path, or by the short name that every joint has; -1 where
// there is none.
func (e *editor) called(name string) int {
	if n := e.view.Graph.Node(name); n >= 0 {
		return n
	}
	return slices.Index(layout.ShortNames(e.view.Graph), name)
}

// taken says whether a name is one of a joint, or of a part, of a definition already.
func taken(def *frame.Definition, name string) bool {
	return name != "" &&
		(def.Use(name) != nil || slices.ContainsFunc(def.Joints, func(j frame.Joint) bool { return j.ID == name || j.Name == name }))
}

// keepNames keeps the numbers that joints were shown with, of those that the gesture left and that have no other name.
func (e *editor) keepNames() {
	g, was := e.view.Graph, map[string]string{}
	for i, name := range layout.ShortNames(e.was.Graph) {
		was[e.was.Graph.Nodes[i].ID] = name
	}
	for i, name := range layout.ShortNames(g) {
		before := was[cmp.Or(e.alias[g.Nodes[i].ID], g.Nodes[i].ID)]
		if n, number := numberOf(before); number && before != name && name != g.Nodes[i].Name {
			if e.doc.Shown == nil {
				e.doc.Shown = map[string]int{}
			}
			e.doc.Shown[g.Nodes[i].ID] = n
		}
	}
}

// numberOf is the number in a joint's short name; ok is false of a name that the builder gave.
func numberOf(name string) (n int, ok bool) {
	digits, ok := strings.CutPrefix(name, "j")
	n, err := strconv.Atoi(digits)
	return n, ok && err == nil
}

// node finds a joint by its path or its short name.
func (e *editor) node(id string) (int, error) {
	n := e.called(id)
	if n < 0 {
		return 0, refuse("pick a joint of the frame", "there is no joint %s", mention.Of(id))
	}
	return n, nil
}

// edge finds a pipe by its path.
func (e *editor) edge(id string) (int, error) {
	i := e.view.Graph.Edge(id)
	if i < 0 {
		return 0, refuse("pick a pipe of the frame", "there is no pipe %s", mention.Of(id))
	}
	return i, nil
}

// joint gives a joint of its definition by its path, and the scope it is drawn in.
func (e *editor) joint(id string) (def *frame.Definition, j *frame.Joint, scope int, err error) {
	n, err := e.node(id)
	if err != nil {
		return nil, nil, 0, err
	}
	scope = e.view.Graph.Nodes[n].Scope
	def = e.def(scope)
	local, _ := e.ref(scope, e.view.Graph.Nodes[n].ID)
	if j = def.Joint(local); j == nil {
		return nil, nil, 0, refuse("pick it again", "the joint %s is not in its group", mention.Of(id))
	}
	return def, j, scope, nil
}

// pipe gives a pipe of its definition by its path, and the scope it is drawn in.
func (e *editor) pipe(id string) (def *frame.Definition, p *frame.Pipe, scope int, err error) {
	i, err := e.edge(id)
	if err != nil {
		return nil, nil, 0, err
	}
	scope = e.view.Graph.Edges[i].Scope
	def = e.def(scope)
	local, _ := e.ref(scope, id)
	if p = def.Pipe(local); p == nil {
		return nil, nil, 0, refuse("pick it again", "the pipe %s is not in its group", mention.Of(id))
	}
	return def, p, scope, nil
}

// everywhere gives the note that a change of a group applies to all its instances,
// where there are several.
func (e *editor) everywhere(scope int) []string {
	of := e.view.Graph.Scopes[scope].Of
	n := 0
	for _, s := range e.view.Graph.Scopes {
		if of != "" && s.Of == of {
			n++
		}
	}
	if n < 2 {
		return nil
	}
	return []string{fmt.Sprintf("in every one of the %d %s", n, cmp.Or(e.doc.Group(of).Name, of))}
}

// leaves is the direction in which a pipe leaves one of its joints.
func (e *editor) leaves(pe frame.PipeEnd) measure.Dir { return e.view.Tangents[pe.Pipe][pe.End] }

// joined says whether a straight pipe runs between two joints.
func (e *editor) joined(i, j int) bool {
	_, there := e.pipeTo(i, j)
	return there
}

// pipeTo is the end at one joint of the straight pipe that runs from it to another one.
func (e *editor) pipeTo(i, j int) (frame.PipeEnd, bool) {
	for _, pe := range e.view.Graph.Nodes[i].Pipes {
		if p := &e.view.Graph.Edges[pe.Pipe]; p.Ends[1-pe.End] == j && p.Path == frame.Straight {
			return pe, true
		}
	}
	return frame.PipeEnd{}, false
}

// clearEnd removes the cap, or whatever was said of the open end, from a joint from
// which a pipe goes on, and the tee that waited for it.
func (e *editor) clearEnd(id string) {
	if _, j, _, err := e.joint(id); err == nil {
		j.End = frame.OpenEnd
		if j.Fitting != nil && j.Fitting.Awaits {
			j.Fitting = nil
		}
	}
}

// axisAlong is the axis that a direction runs along, and its sign.
func axisAlong(d measure.Dir) (a measure.Axis, sign float64, ok bool) {
	d = d.Unit()
	for k := range d {
		if d[k] > 1-1e-9 {
			return measure.Axis(k), 1, true
		} else if d[k] < -1+1e-9 {
			return measure.Axis(k), -1, true
		}
	}
	return 0, 0, false
}

// tape tells a length as it is told in a unit: to the step of the tape, or as fine as a tape shows where none is known.
func (e *editor) tape(l measure.Length, unit measure.Unit) string {
	if e.step == 0 {
		return l.Tape(unit)
	}
	return l.Round(e.step).Tape(unit)
}

// off tells by how much something is off, which is never nothing.
func (e *editor) off(l measure.Length) string {
	if l = l.Abs(); l < e.step {
		return "less than " + e.step.Tape(e.unit)
	}
	return e.tape(l, e.unit)
}

// centre is an unnamed size of a given centre distance.
func (e *editor) centre(v measure.Length) frame.Size {
	text := v.Tape(e.unit)
	if l, err := measure.Parse(text, measure.Reading{}); err != nil || l != v {
		text = "" // no tape shows it as it is
	}
	return frame.Size{Value: v, Meaning: frame.Centre, Text: text, Unit: e.unit}
}

// halfway is the reason of a place halfway between two others, along an axis or, where it is
// empty, in space. A rank of 0 is the next.
func halfway(axis string, of, from, to frame.Ref, rank int) frame.Reason {
	return frame.Reason{Kind: frame.Share, Axis: axis, Of: of, From: from, To: to, Part: 1, Parts: 2, Rank: rank}
}

// reachOf is the distance from a pipe's end within which another joint may be what
// the builder meant: what the bodies at the end take up, and two socket depths.
func reachOf(size catalog.Size) measure.Length {
	c := catalog.Typical()
	return c.Figure("", size, catalog.Stop90).Value + 2*c.Figure("", size, catalog.SocketDepth).Value
}

// socketOf is the depth of a size's socket.
func socketOf(size catalog.Size) measure.Length {
	return catalog.Typical().Figure("", size, catalog.SocketDepth).Value
}

// validate refuses what the document's own rules refuse, in a builder's words.
func (e *editor) validate() error {
	_, err := frame.Expand(e.doc)
	if ps, bad := err.(frame.Problems); bad && len(ps) > 0 { //nolint:errorlint // Expand says so
		return &Refusal{What: ps[0].What, Hint: ps[0].Hint}
	}
	return err
}
