package edit

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// Bay sizes the room between a plane and the one before it on its axis, by a
// typed size or by pulling the plane. What hangs on the plane moves with it.
type Bay struct {
	In      string         `json:"in,omitempty"` // a use's path; "" is the frame
	Axis    measure.Axis   `json:"axis"`
	Plane   frame.Ref      `json:"plane"`            // a named plane, or a joint on it
	Length  string         `json:"length,omitempty"` // as typed
	Meaning frame.Meaning  `json:"meaning,omitempty"`
	Pull    measure.Length `json:"pull,omitempty"` // instead of Length: by how much, up the axis
}

var _ = register[Bay]("bay")

// axis finds a plane of a part among those of an axis.
func (e *editor) axis(in string, a measure.Axis, plane frame.Ref) (scope, at int, err error) {
	if a < measure.X || a > measure.Z {
		return 0, 0, refuse("use 0, 1 or 2 for x, y or z", "no such axis")
	}
	if scope, err = e.scope(in); err != nil {
		return 0, 0, err
	}
	at = e.place(scope).Find(a, plane)
	switch {
	case at < 0:
		return 0, 0, refuse("name a joint that stands on it, or its name", "there is no plane %q on the %s axis", plane.Bare(), a)
	case e.place(scope).Planes[a][at].Copied:
		return 0, 0, refuse("change the pitch of the array", "%q is a copy's", plane)
	}
	return scope, at, nil
}

// axisTwice finds two planes of one axis.
func (e *editor) axisTwice(in string, a measure.Axis, p, q frame.Ref) (scope, i, k int, err error) {
	if scope, i, err = e.axis(in, a, p); err == nil {
		_, k, err = e.axis(in, a, q)
	}
	return scope, i, k, err
}

func (w *Bay) on(e *editor) (Done, error) {
	scope, at, err := e.axis(w.In, w.Axis, w.Plane)
	if err != nil {
		return Done{}, err
	}
	all := e.place(scope).Planes[w.Axis]
	done := Done{Also: e.everywhere(scope)}
	if w.Pull != 0 {
		return w.pull(e, scope, at, done)
	}
	before := at - 1
	for before >= 0 && all[at].At-all[before].At <= near { // another one that stands at the same place
		before--
	}
	s, err := e.size(w.Length, w.Meaning)
	if err != nil {
		return Done{}, err
	}
	if s.Meaning == frame.TopOfPipe || s.Meaning == frame.TopOfCap {
		return w.height(e, scope, at, s, done)
	}
	if before < 0 {
		return Done{}, refuse("size the bay above it", "nothing is before %q", all[at].Name)
	}
	if all[before].Copied {
		return Done{}, refuse("size a bay that no copy is in", "%q is a copy's", all[before].Name)
	}
	lo, hi := &all[before], &all[at]
	done.Label = fmt.Sprintf("%s to %s %s", lo.Name, hi.Name, w.Length)
	pipe := e.between(scope, w.Axis, lo, hi)
	if s.Meaning == frame.Cut || s.Meaning == frame.Visible {
		if pipe == "" {
			return Done{}, refuse("say centre, outside or clear", "no pipe of this part runs from %s to %s", lo.Name, hi.Name)
		}
		s.Pipe = pipe
	}
	def := e.def(scope)
	direct := e.direct(scope, w.Axis, lo, hi)
	switch {
	case len(direct) > 0:
		old := e.doc.SizeOf(direct[0])
		switch {
		case s.Pipe == "" && old.Axis == "" && old.From == "":
			s.Pipe = old.Pipe
		case s.Pipe == "" || old.Axis != "":
			s.Axis, s.From, s.To = old.Axis, old.From, old.To
		}
		e.replaceSize(old, s)
		for _, id := range direct[1:] { // others that said how large the bay was
			if o := e.doc.SizeOf(id); !o.Inferred {
				e.gave = append(e.gave, GivenUp{Size: id, Was: o.Says(), Now: s.Says(), Words: "typed instead"})
			}
			e.doc.DropSize(id)
		}
	case s.Pipe == "" && pipe != "" && !isNamed(lo) && !isNamed(hi):
		s.Pipe = pipe
		e.doc.AddSize(def, s)
	default:
		s.Axis, s.From, s.To = w.Axis.String(), lo.Ref, hi.Ref
		if s.Pipe != "" {
			s.Axis, s.From, s.To = "", "", ""
		}
		e.doc.AddSize(def, s)
	}
	return done, nil
}

func isNamed(p *layout.Plane) bool { return strings.HasPrefix(string(p.Ref), "=") }

// height sizes a level from the floor.
func (w *Bay) height(e *editor, scope, at int, s frame.Size, done Done) (Done, error) {
	if w.Axis != measure.Z {
		return Done{}, refuse("say centre, outside or clear", "a height is measured straight up")
	}
	hi := &e.place(scope).Planes[w.Axis][at]
	s.Axis, s.From, s.To = "z", frame.Floor, hi.Ref
	if e.view.Lowest < 0 {
		return Done{}, refuse("draw it first", "nothing stands on the floor")
	}
	low := e.view.Graph.Nodes[e.view.Lowest].ID
	ref, ok := e.ref(scope, low)
	if !ok {
		return Done{}, refuse("measure it from a joint of the part", "its height is where the part stands")
	}
	if s.Foot = ref; slices.Contains(hi.Joints, ref) {
		return Done{}, refuse("pick a level above it", "%q is what stands on the floor", hi.Name)
	}
	def := e.def(scope)
	done.Label = fmt.Sprintf("floor to %s %s", hi.Name, w.Length)
	for i := range def.Sizes {
		if o := &def.Sizes[i]; o.From == frame.Floor && onPlane(hi, o.To) && o.Gave == nil {
			s.Axis, s.From, s.To = o.Axis, o.From, o.To
			e.replaceSize(o, s)
			return done, nil
		}
	}
	for i := range def.Sizes { // the one that places the level is typed anew
		if o := &def.Sizes[i]; o.ID == hi.Size && o.Inferred {
			e.replaceSize(o, s)
			o.Axis, o.From, o.To, o.Pipe = s.Axis, s.From, s.To, ""
			return done, nil
		}
	}
	e.heights = append(e.heights, e.doc.AddSize(def, s))
	return done, nil
}

// direct lists the sizes of a definition that lie between two planes of it.
func (e *editor) direct(scope int, a measure.Axis, lo, hi *layout.Plane) (ids []string) {
	def := e.def(scope)
	for i := range def.Sizes {
		s := &def.Sizes[i]
		if s.Gave != nil || s.From == frame.Floor {
			continue
		}
		from, to := s.From, s.To
		switch {
		case s.Axis != "" && s.Axis != a.String():
			continue
		case s.Axis == "" && s.Pipe != "" && from == "":
			p := def.Pipe(s.Pipe)
			if p == nil || p.Path != frame.Straight || p.Dir == nil || p.Gave != nil {
				continue
			}
			if b, _, square := axisAlong(*p.Dir); !square || b != a {
				continue
			}
			from, to = frame.Ref(p.From), frame.Ref(p.To)
		case s.Axis == "":
			i := slices.IndexFunc(def.Reasons, func(r frame.Reason) bool {
				return r.Kind == frame.Line && r.Gave == nil && (r.From == from && r.Of == to || r.From == to && r.Of == from)
			})
			if i < 0 {
				continue
			}
			if b, _, square := axisAlong(*def.Reasons[i].Dir); !square || b != a {
				continue
			}
		}
		if onPlane(lo, from) && onPlane(hi, to) || onPlane(hi, from) && onPlane(lo, to) {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

// between finds a pipe of a part that runs from one plane to another.
func (e *editor) between(scope int, a measure.Axis, lo, hi *layout.Plane) string {
	def := e.def(scope)
	for _, p := range def.Pipes {
		if p.Path != frame.Straight {
			continue
		}
		if slices.Contains(lo.Joints, p.From) && slices.Contains(hi.Joints, p.To) ||
			slices.Contains(lo.Joints, p.To) && slices.Contains(hi.Joints, p.From) {
			i := e.view.Graph.Edge(join(e.path(scope), p.ID))
			if i < 0 {
				continue // another copy has it
			}
			if b, _, square := axisAlong(e.place(scope).Turned(e.leaves(frame.PipeEnd{Pipe: i}))); square && b == a {
				return p.ID
			}
		}
	}
	return ""
}

// pull moves a plane: the sizes between it and the one before it change by as
// much. A plane that was spread between others stands by itself from then on.
func (w *Bay) pull(e *editor, scope, at int, done Done) (Done, error) {
	all := e.place(scope).Planes[w.Axis]
	me := &all[at]
	def := e.def(scope)
	move := func(ids []string, by measure.Length, other string) (Done, error) {
		for _, id := range ids {
			s := e.doc.SizeOf(id)
			if s.Value+by < 0 {
				return Done{}, refuse("pull it less far", "it would pass %q", other)
			}
			was := s.Says()
			e.pullTo(s, by)
			e.gave = append(e.gave, GivenUp{Size: id, Was: was, Now: s.Says(), Words: "pulled"})
			done.Label = fmt.Sprintf("%s pulled to %s", me.Name, s.Value.Tape(s.Unit))
		}
		w.bystanders(e, scope, at)
		return done, nil
	}
	for i := at - 1; i >= 0; i-- {
		if ids := e.direct(scope, w.Axis, &all[i], me); len(ids) > 0 && all[i].At < me.At {
			return move(ids, w.Pull, all[i].Name)
		}
	}
	for i := range def.Sizes {
		if s := &def.Sizes[i]; s.From == frame.Floor && onPlane(me, s.To) && w.Axis == measure.Z && s.Gave == nil {
			return move([]string{s.ID}, w.Pull, "the floor")
		}
	}
	for i := at + 1; i < len(all); i++ {
		if ids := e.direct(scope, w.Axis, me, &all[i]); len(ids) > 0 && all[i].At > me.At {
			return move(ids, -w.Pull, all[i].Name)
		}
	}
	if len(me.Even) == 0 && me.EqualAxis == "" || at == 0 {
		return Done{}, refuse("pull one that a size leads to", "nothing sizes %q", me.Name)
	}
	for _, r := range slices.Clone(def.Reasons) {
		if (r.Kind == frame.Share || r.Kind == frame.EqualTo) && onPlane(me, r.Of) && (r.Axis == "" || r.Axis == w.Axis.String()) {
			e.doc.DropReason(r.ID)
			e.note("%s goes", e.reason(def, &r))
		}
	}
	s := e.centre(me.At - all[at-1].At + w.Pull)
	if s.Value <= 0 {
		return Done{}, refuse("pull it less far", "it would pass %q", all[at-1].Name)
	}
	s.Axis, s.From, s.To = w.Axis.String(), all[at-1].Ref, me.Ref
	e.doc.AddSize(def, s)
	done.Label = fmt.Sprintf("%s pulled", me.Name)
	return done, nil
}

// bystanders offers to take along what only happens to stand where a plane
// stood that is pulled, or to keep it level from now on.
func (w *Bay) bystanders(e *editor, scope, at int) {
	all := e.place(scope).Planes[w.Axis]
	for i := range all {
		if i == at || (all[i].At-all[at].At).Abs() > near || all[i].Copied {
			continue
		}
		e.note("%s only happened to stand there", all[i].Name)
		e.offers = append(
			e.offers,
			Offer{
				Label: "Take " + all[i].Name + " along",
				Edit:  Edit{Gesture: &Bay{In: w.In, Axis: w.Axis, Plane: all[i].Ref, Pull: w.Pull}},
			},
		)
	}
}

// Level keeps two planes of an axis level from now on.
type Level struct {
	In   string       `json:"in,omitempty"`
	Axis measure.Axis `json:"axis"`
	Of   frame.Ref    `json:"of"`
	To   frame.Ref    `json:"to"`
}

var _ = register[Level]("level")

func (w *Level) on(e *editor) (Done, error) {
	scope, i, k, err := e.axisTwice(w.In, w.Axis, w.Of, w.To)
	if err != nil {
		return Done{}, err
	}
	if i == k {
		return Done{}, refuse("pick another one", "they are level already")
	}
	e.doc.AddReason(e.def(scope), frame.Reason{Kind: frame.Level, Axis: w.Axis.String(), Of: w.Of, To: w.To})
	return Done{
		Label: fmt.Sprintf("%s level with %s", e.refOf(e.def(scope), w.Of), e.refOf(e.def(scope), w.To)),
		Also:  e.everywhere(scope),
	}, nil
}

// Name names a plane; what is on it stays level because somebody said so.
type Name struct {
	In    string       `json:"in,omitempty"`
	Axis  measure.Axis `json:"axis"`
	Plane frame.Ref    `json:"plane"`
	Name  string       `json:"name"`
}

var _ = register[Name]("name")

func (w *Name) on(e *editor) (Done, error) {
	scope, at, err := e.axis(w.In, w.Axis, w.Plane)
	if err != nil {
		return Done{}, err
	}
	def, name := e.def(scope), strings.TrimSpace(w.Name)
	plane := e.place(scope).Planes[w.Axis][at]
	switch {
	case name == "" || strings.ContainsAny(name, "=/#") || frame.Ref(name) == frame.Floor:
		return Done{}, refuse("call it by what it is, as in shelf, without = / and #", "%q cannot be its name", name)
	case def.HasPlane(0, name) || def.HasPlane(1, name) || def.HasPlane(2, name):
		return Done{}, refuse("give it another name", "there is a plane %q already", name)
	}
	if isNamed(&plane) {
		for a := range 3 { // references do not say which axis they mean
			if a != int(w.Axis) && def.HasPlane(a, plane.Name) {
				return Done{}, refuse("name that one first", "a plane of %s is called %s as well", frame.AxisName(a), plane.Name)
			}
		}
		e.doc.RenamePlane(def, int(w.Axis), plane.Name, name)
		return Done{Label: fmt.Sprintf("%s is %s", plane.Name, name)}, nil
	}
	e.doc.AddPlane(def, int(w.Axis), name)
	for _, id := range plane.Joints {
		if j := def.Joint(id); j != nil && j.On[w.Axis] == "" {
			j.On[w.Axis] = name
		} else if j == nil {
			e.doc.AddReason(def, frame.Reason{Kind: frame.Level, Axis: w.Axis.String(), Of: frame.Ref(id), To: frame.OnPlane(name)})
		}
	}
	return Done{Label: fmt.Sprintf("%s is %s", plane.Name, name), Also: e.everywhere(scope)}, nil
}

// Even spreads the planes between two others evenly.
type Even struct {
	In   string       `json:"in,omitempty"`
	Axis measure.Axis `json:"axis"`
	From frame.Ref    `json:"from"`
	To   frame.Ref    `json:"to"`
}

var _ = register[Even]("even")

func (w *Even) on(e *editor) (Done, error) {
	scope, lo, hi, err := e.axisTwice(w.In, w.Axis, w.From, w.To)
	if err != nil {
		return Done{}, err
	}
	if lo > hi {
		lo, hi = hi, lo
	}
	all := e.place(scope).Planes[w.Axis]
	if hi-lo < 2 {
		return Done{}, refuse("name two with others between them", "nothing stands between %s and %s", all[lo].Name, all[hi].Name)
	}
	def := e.def(scope)
	// the whole distance stays; what sized the parts of it is given up
	whole := e.direct(scope, w.Axis, &all[lo], &all[hi])
	for i := lo; i <= hi; i++ {
		if all[i].Copied {
			return Done{}, refuse("change the pitch of the array", "%q is a copy's", all[i].Name)
		}
		for k := i + 1; k <= hi; k++ {
			if i == lo && k == hi {
				continue
			}
			for _, id := range e.direct(scope, w.Axis, &all[i], &all[k]) {
				s := e.doc.SizeOf(id)
				if !s.Inferred {
					e.gave = append(e.gave, GivenUp{Size: id, Was: s.Says(), Now: "even", Words: "spread evenly"})
				}
				e.doc.DropSize(id)
			}
		}
		for _, r := range slices.Clone(def.Reasons) {
			if i > lo && i < hi && (r.Kind == frame.Share || r.Kind == frame.EqualTo) && r.Axis == w.Axis.String() &&
				onPlane(&all[i], r.Of) {
				if r.Kind != frame.Share || !onPlane(&all[lo], r.From) || !onPlane(&all[hi], r.To) {
					e.note("%s goes", e.reason(def, &r))
				}
				e.doc.DropReason(r.ID)
			}
		}
	}
	if len(whole) == 0 {
		s := e.centre(all[hi].At - all[lo].At)
		s.Axis, s.From, s.To, s.Inferred = w.Axis.String(), all[lo].Ref, all[hi].Ref, true
		e.doc.AddSize(def, s)
	}
	for k := lo + 1; k < hi; k++ {
		e.doc.AddReason(
			def,
			frame.Reason{
				Kind:  frame.Share,
				Axis:  w.Axis.String(),
				Of:    all[k].Ref,
				From:  all[lo].Ref,
				To:    all[hi].Ref,
				Part:  k - lo,
				Parts: hi - lo,
			},
		)
	}
	return Done{Label: fmt.Sprintf("Even from %s to %s", all[lo].Name, all[hi].Name), Also: e.everywhere(scope)}, nil
}
