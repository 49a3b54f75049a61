package lines

import (
	"encoding/json"
	"errors"
	"regexp"
	"slices"
	"strings"
	"unicode"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
)

// Pen is what the lines before leave to the next one.
type Pen struct {
	At   string       `json:"at,omitempty"`   // the joint that a line without a start goes on from
	Each []string     `json:"each,omitempty"` // the far ends of a line that ran from several joints
	Size catalog.Size `json:"size,omitempty"` // of new pipes, where that is not the frame's usual one
	Unit measure.Unit `json:"unit,omitempty"` // of bare numbers, where that is not the frame's
	// Marked are joints that a line marked.
	Marked []string `json:"marked,omitempty"`
}

// Said is what a line says: a gesture, or only something of the pen, or nothing.
type Said struct {
	Edit    edit.Edit // without a gesture where it says none
	Pen     Pen
	Comment string
	Changed bool // the pen
}

// Read reads a line. The error is a [*edit.Refusal] whose At is the place in the text, in characters.
func Read(text string, pen Pen, known *Known) (Said, error) {
	p := part(oneLine(text))
	said := Said{Pen: pen, Comment: p.comment}
	ws := words.Of(p.said)
	if len(ws) == 0 {
		return said, nil
	}
	if len(text) > 4000 && !ws[0].Is("do") {
		return said, wrong(0, "write one thing a line", "a line of more than 4,000 characters")
	}
	if known.Marked == nil {
		k := *known
		k.Marked, known = pen.Marked, &k
	}
	if done, err := said.setting(p.said, ws, known); done || err != nil {
		return said, err
	}
	said.Edit.Unit = pen.Unit
	said.Edit.Answers = p.answers
	g, err := gesture(p.said, ws, pen, known)
	said.Edit.Gesture = g
	return said, err
}

// oneLine takes out of a text what no line has.
func oneLine(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsControl(r) {
			return ' '
		}
		return r
	}, strings.ToValidUTF8(text, "\ufffd"))
}

// setting reads a line that only says how the lines after it are meant.
func (s *Said) setting(text string, ws []words.Word, known *Known) (bool, error) {
	empty := len(known.Document.Root.Joints)+len(known.Document.Root.Uses) == 0
	switch w := ws[0]; {
	case w.Is("size") && len(ws) == 2:
		size := catalog.Size(strings.TrimSuffix(ws[1].Text, `"`))
		if ws[1].Is("usual") {
			s.Pen.Size, s.Changed = "", true
			return true, nil
		}
		if !size.Known() {
			return true, wrong(ws[1].At, "use a nominal size such as 3/4", "no pipe size %q", ws[1].Text)
		}
		s.Pen.Size, s.Changed = size, true
		if empty {
			s.Pen.Size, s.Edit.Gesture = "", &edit.Usual{Size: size}
		}
		return true, nil
	case (w.Is("units") || w.Is("unit")) && len(ws) == 2:
		unit, ok := units[strings.ToLower(ws[1].Text)]
		if !ok {
			return true, wrong(ws[1].At, "write units in, or units mm", "no unit %q", ws[1].Text)
		}
		s.Pen.Unit, s.Changed = unit, true
		if empty {
			s.Pen.Unit, s.Edit.Gesture = "", &edit.Usual{Units: unit}
		}
		return true, nil
	case w.Is("copies"):
		return true, wrong(0, "set it at How many; in a text of lines, write copies 3", "how many are made is no line of the frame")
	case w.Is("mark"):
		r := reading{known: known, text: text, words: ws[1:], form: &form{usage: "mark <Joints:joints>"}}
		s.Pen.Marked, s.Changed = r.takeJoints(), true
		if len(r.words) > 0 && !(len(r.words) == 1 && r.words[0].Is("none")) {
			return true, wrong(r.words[0].At, "name joints, or mark none", "there is no joint %q", r.words[0].Trimmed())
		}
		return true, nil
	}
	return false, nil
}

// named is a name before a line: foot = near 12. What it names is the joint that the line makes.
var named = regexp.MustCompile(`^\s*([\pL_][\pL\pN_-]*)\s*=\s*(\S.*)$`)

// gesture reads a line that does something.
func gesture(text string, ws []words.Word, pen Pen, known *Known) (edit.Gesture, error) {
	if ws[0].Is("do") && len(ws) > 1 && strings.HasPrefix(ws[1].Text, "{") {
		var e edit.Edit
		if err := json.Unmarshal([]byte(text[ws[1].From:]), &e); err != nil || e.Gesture == nil {
			return nil, wrong(ws[1].At, "leave it as the page wrote it", "what follows cannot be read")
		}
		return e.Gesture, nil
	}
	name, rest, shift := "", text, 0
	from, rest, shift, err := starts(rest, shift, known)
	if err != nil {
		return nil, err
	}
	if m := named.FindStringSubmatchIndex(rest); m != nil {
		name = rest[m[2]:m[3]]
		shift += len([]rune(rest[:m[4]]))
		rest = rest[m[4]:]
		if from == nil {
			if from, rest, shift, err = starts(rest, shift, known); err != nil {
				return nil, err
			}
		}
		if _, taken := known.joint(name); taken && known.flat().Node(name) >= 0 {
			return nil, wrong(0, "give it another name", "there is a joint %s already", name)
		}
	}
	at := func(err error) error {
		var r *edit.Refusal
		if errors.As(err, &r) {
			moved := *r
			moved.At += shift
			return &moved
		}
		return err
	}
	ws = words.Of(rest)
	if len(ws) == 0 {
		return nil, wrong(shift, "write a direction and a length, as in right 24", "nothing follows")
	}
	if end, ok := edit.EndCalled(ws[0].Trimmed()); ok && len(ws) == 1 && name == "" {
		if from, err = begins(from, pen); err != nil {
			return nil, err
		}
		g := &edit.EndOf{Joint: from[0], End: end}
		if len(from) > 1 {
			g.More = from[1:]
		}
		return g, nil
	}
	if from == nil {
		g, deep, err := byForms(rest, ws, known)
		if g != nil {
			return called(g, name)
		}
		if deep > 0 || err != nil && !startsWalk(ws[0]) {
			return nil, at(err)
		}
	}
	w, err := walk(rest, ws, from, pen, known)
	if err != nil {
		return nil, at(err)
	}
	w.Name = name
	return w, nil
}

// called gives the joint that a gesture makes a name.
func called(g edit.Gesture, name string) (edit.Gesture, error) {
	if name == "" {
		return g, nil
	}
	switch g := g.(type) {
	case *edit.Begin:
		g.Name = name
	case *edit.Split:
		g.Name = name
	default:
		return nil, wrong(0, "leave the name out", "nothing that is made here takes the name %s", name)
	}
	return g, nil
}

// starts reads the joints before a colon, from which a line runs.
func starts(text string, shift int, known *Known) (from []string, rest string, at int, err error) {
	i := colon(text)
	if i < 0 {
		return nil, text, shift, nil
	}
	r := reading{known: known, text: text[:i], words: words.Of(text[:i])}
	if len(r.words) == 1 && r.words[0].Is("each") {
		return []string{"each"}, text[i+1:], shift + len([]rune(text[:i+1])), nil
	}
	from = r.takeJoints()
	if len(r.words) > 0 || len(from) == 0 {
		what := strings.TrimSpace(text[:i])
		if len(r.words) > 0 {
			what = r.words[0].Trimmed()
		}
		return nil, "", 0, wrong(
			shift, "name joints that are there, as j1: up 12; the line that made it may be gone", "there is no joint %q", what,
		)
	}
	return from, text[i+1:], shift + len([]rune(text[:i+1])), nil
}

// colon is where the starts of a line end; -1 where it names none.
func colon(text string) int {
	quoted := false
	for i := 0; i < len(text); i++ {
		switch {
		case text[i] == '"':
			quoted = !quoted
		case text[i] == ':' && !quoted:
			return i
		case text[i] == '=' && !quoted:
			return -1
		}
	}
	return -1
}

// byForms reads a line by the form that fits. The error, where none does, is that of the form that
// came the furthest; deep says how far that was.
func byForms(text string, ws []words.Word, known *Known) (g edit.Gesture, deep int, err error) {
	for i := range forms {
		f := &forms[i]
		first := f.first()
		if len(first) > len(ws) {
			continue
		}
		fits := true
		for k, lit := range first {
			fits = fits && ws[k].Is(lit)
		}
		if !fits {
			continue
		}
		made, got, bad := f.read(known, text, ws)
		if bad == nil {
			return made, got, nil
		}
		if err == nil || got > deep {
			err, deep = bad, max(deep, got)
		}
	}
	if n := slices.IndexFunc(ws, func(w words.Word) bool { return w.Is("marked") }); n > 0 && len(known.Marked) == 0 {
		return nil, deep, wrong(ws[n].At, "mark joints on the frame first, or name them, as in mirror j1 j2 at x2", "no joint is marked")
	}
	if err == nil || deep == 0 || endsWalk(ws) {
		err = begin(ws)
	}
	return nil, deep, err
}

// begin is the error for a line that begins as none does.
func begin(ws []words.Word) error {
	if endsWalk(ws) {
		all := "right"
		for _, w := range ws {
			all += " " + w.Text
		}
		return wrong(0, "begin with a direction, as in "+all, "the line does not say which way it runs")
	}
	return wrong(
		0,
		"begin with a direction, as in right 24 cut, or with a word such as tee, split or mirror",
		"%q begins no line",
		ws[0].Text,
	)
}

// endsWalk says whether a line begins with the words that end one which runs pipe.
func endsWalk(ws []words.Word) bool {
	return ws[0].Is("to") || ws[0].Is("touching") || len(ws) > 1 && ws[0].Is("level") && ws[1].Is("with")
}

// startsWalk says whether a word begins a line that runs pipe.
func startsWalk(w words.Word) bool {
	first, _, _ := strings.Cut(strings.ToLower(w.Trimmed()), "@")
	return slices.Contains([]string{"toward", "towards", "along", "hoop", "bend"}, first) || edit.IsWay(first)
}

// walk reads a line that runs pipe. One without a start runs from each of the joints that are
// marked, where there are several, else from where the line before ended.
func walk(text string, ws []words.Word, from []string, pen Pen, known *Known) (*edit.Walk, error) {
	w := &edit.Walk{Size: pen.Size}
	if n := slices.IndexFunc(ws, func(w words.Word) bool { return w.Is("within") }); n > 0 {
		r := reading{known: known, text: text, words: ws[n+1:]}
		part, ok := r.takePart()
		if !ok || len(r.words) > 0 {
			return nil, wrong(ws[n].At, "name a part of the frame, as foot 1", "within what?")
		}
		w.In, text = part, strings.TrimRight(text[:ws[n].From], " \t")
	}
	w.Line = strings.TrimSpace(text)
	if !ws[0].Is("hoop") && !ws[0].Is("bend") {
		l, err := edit.ParseLine(text)
		if err != nil {
			return nil, err
		}
		if err := names(&l, w.In, known); err != nil {
			return nil, err
		}
		w.Line = l.Text()
		if l.Size != "" {
			w.Size = ""
		}
	}
	if len(known.flat().Nodes) > 0 {
		var err error
		if from == nil && len(known.Marked) > 1 {
			from = known.Marked
		}
		if from, err = begins(from, pen); err != nil {
			return nil, err
		}
	}
	if len(from) > 0 {
		w.From, w.More = from[0], from[1:]
	}
	return w, nil
}

// begins gives the joints that a line begins at: those that it names, or that the line before
// ended at.
func begins(from []string, pen Pen) ([]string, error) {
	switch {
	case len(from) == 1 && from[0] == "each":
		if len(pen.Each) == 0 {
			return nil, wrong(0, "name the joints", "the line before ran from one joint only")
		}
		return pen.Each, nil
	case from == nil && pen.At != "":
		return []string{pen.At}, nil
	case from == nil:
		return nil, wrong(0, "name it, as in j1: up 12", "which joint does it go on from?")
	}
	return from, nil
}

// names puts the ids of what is there in the place of what a line calls it.
func names(l *edit.Line, in string, known *Known) error {
	for _, of := range []*string{&l.Along, &l.Toward, &l.Mark} {
		if *of == "" {
			continue
		}
		if of != &l.Along {
			if id, ok := known.joint(*of); ok {
				*of = id
				continue
			}
		}
		if of == &l.Mark {
			if axis, ref, ok := known.plane(in, *of); ok {
				if !strings.HasPrefix(string(ref), "=") {
					ref = frame.Ref(frame.AxisName(int(axis)) + "@" + string(ref))
				}
				*of = string(ref)
				continue
			}
		}
		id, several, ok := known.pipe(*of)
		switch {
		case ok:
			*of = id
		case len(several) > 0:
			return wrong(l.MarkAt(), "say which, in quotation marks: "+fewest(several, ""), "%s is several pieces", *of)
		default:
			return wrong(
				l.MarkAt(),
				"name a joint such as j7, a place such as x2, or a pipe; the line that made it may be gone",
				"there is no joint, place or pipe %q",
				*of,
			)
		}
	}
	return nil
}
