package lines

import (
	"cmp"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/model"
)

// Line is a line of a page, with the numbers of what it makes: those from the first to before the
// second. A line that was not made yet has none.
type Line struct {
	Text   string `json:"text"`
	Joints [2]int `json:"joints,omitzero"` // j7 is 7
	Pipes  [2]int `json:"pipes,omitzero"`
	Said   [2]int `json:"said,omitzero"` // sizes and reasons
}

// Wrong is why a line was not made.
type Wrong struct {
	Line    int           `json:"line"` // its place on the page, from 0
	At      int           `json:"at"`   // the place in its text, in characters
	What    string        `json:"what"`
	Hint    string        `json:"hint"`
	Answers []edit.Option `json:"answers,omitempty"` // where it waits for an answer: those that may be written after it
}

func (w *Wrong) Error() string { return fmt.Sprintf("line %d: %s; %s", w.Line+1, w.What, w.Hint) }

// Page is how a frame was drawn, line by line.
type Page struct {
	Lines []Line `json:"lines"`
	Drawn int    `json:"drawn"`           // how many of them the frame has; those after them wait
	Wrong *Wrong `json:"wrong,omitempty"` // why the first of those was not made
	Pen   Pen    `json:"pen,omitzero"`    // what the lines that the frame has leave
}

// Tools are what a page needs to draw.
type Tools struct {
	Edit    func(*frame.Document, edit.Edit) (*frame.Document, edit.Done, error)
	Locate  func(*frame.Document) (*model.Located, error)
	Letters func(*frame.Document) []Lettered // nil where there are none
}

// Known is what the lines on a document may name.
func (t Tools) Known(d *frame.Document) *Known {
	k := &Known{Document: d, Located: func() (*model.Located, error) { return t.Locate(d) }}
	if t.Letters != nil {
		k.Letters = func() []Lettered { return t.Letters(d) }
	}
	return k
}

// MostLines is how many lines a page may have.
const MostLines = 4000

// Parse reads a text as a page of lines, none of which is made yet.
func Parse(text string) ([]Line, error) {
	text = strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff")
	var all []Line
	for i, t := range strings.Split(strings.TrimRight(text, "\n \t"), "\n") {
		l := Pinned(Line{Text: t})
		all = append(all, l)
		if i >= MostLines {
			return nil, &Wrong{Line: i, What: fmt.Sprintf("more than %d lines", MostLines), Hint: "make two frames of it"}
		}
	}
	if len(all) == 1 && all[0].Text == "" {
		return nil, nil
	}
	return all, nil
}

// Pinned takes the numbers that stand after #: out of a line's text, and gives them to what it makes.
func Pinned(l Line) Line {
	p := part(l.Text)
	for f := range strings.FieldsSeq(p.numbers) {
		n, err := strconv.Atoi(f[1:])
		if err != nil || n <= 0 || n >= 1e9 {
			continue
		}
		switch f[0] {
		case 'j':
			l.Joints = [2]int{n}
		case 'p':
			l.Pipes = [2]int{n}
		case 's':
			l.Said = [2]int{n}
		}
	}
	if p.numbers != "" {
		l.Text, _, _ = strings.Cut(l.Text, "#:")
	}
	l.Text = strings.TrimSpace(l.Text)
	return l
}

// Text writes a page so that it is read as it is.
func Text(all []Line) string {
	var out strings.Builder
	next := counts{1, 1, 1}
	for _, l := range all {
		out.WriteString(l.Text)
		var pins []string
		pin := func(letter string, span [2]int, counted *int) {
			if span[0] > 0 && span[1] > span[0] && span[0] != *counted {
				pins = append(pins, letter+strconv.Itoa(span[0]))
			}
			*counted = max(*counted, span[1])
		}
		pin("j", l.Joints, &next[0])
		pin("p", l.Pipes, &next[1])
		pin("s", l.Said, &next[2])
		if len(pins) > 0 {
			out.WriteString("  #: " + strings.Join(pins, " "))
		}
		out.WriteString("\n")
	}
	return out.String()
}

// counts are the next numbers of joints, of pipes, and of sizes and reasons.
type counts [3]int

var numbered = regexp.MustCompile(`^[jp]\d{1,9}$`)

// seen counts what a document has.
func seen(d *frame.Document) (ids map[string]bool, next counts) {
	ids, next = map[string]bool{}, counts{1, 1, d.Serial + 1}
	see := func(id string, k int) {
		ids[id] = true
		if numbered.MatchString(id) {
			n, _ := strconv.Atoi(id[1:])
			next[k] = max(next[k], n+1)
		}
	}
	for _, def := range d.Definitions() {
		for i := range def.Joints {
			see(def.Joints[i].ID, 0)
		}
		for i := range def.Pipes {
			see(def.Pipes[i].ID, 1)
		}
	}
	return ids, next
}

// over is the numbers that no line of a page has yet.
func (p *Page) over(next counts) counts {
	for _, l := range p.Lines {
		next = counts{max(next[0], l.Joints[1]), max(next[1], l.Pipes[1]), max(next[2], l.Said[1])}
	}
	return next
}

// numbers gives a document the numbers that a line makes things by.
func (p *Page) numbers(d *frame.Document, l *Line) {
	_, next := seen(d)
	next = p.over(next)
	span := func(own [2]int, free int) frame.Span {
		if own[0] == 0 {
			return frame.Span{From: free}
		}
		if own[1] == 0 {
			return frame.Span{From: own[0]}
		}
		return frame.Span{From: own[0], To: own[1], Then: free}
	}
	d.Numbers = frame.Numbers{Joints: span(l.Joints, next[0]), Pipes: span(l.Pipes, next[1]), Said: span(l.Said, next[2])}
	d.Serial = d.Numbers.Said.From - 1
}

// made notes what a line made of one document that is there now, and takes the numbers off it.
func (l *Line) made(before, after *frame.Document, serial int) {
	was, _ := seen(before)
	n := after.Numbers
	l.Joints, l.Pipes, l.Said = [2]int{n.Joints.From, n.Joints.From}, [2]int{n.Pipes.From, n.Pipes.From}, [2]int{n.Said.From, n.Said.From}
	note := func(id string, span *[2]int) {
		if !was[id] && numbered.MatchString(id) {
			k, _ := strconv.Atoi(id[1:])
			if span[0] == span[1] { // the first one: it may be beyond those that are shown already
				span[0] = k
			}
			span[0], span[1] = min(span[0], k), max(span[1], k+1)
		}
	}
	for _, def := range after.Definitions() {
		for i := range def.Joints {
			note(def.Joints[i].ID, &l.Joints)
		}
		for i := range def.Pipes {
			note(def.Pipes[i].ID, &l.Pipes)
		}
	}
	l.Said[1] = max(l.Said[1], after.Serial+1)
	after.Numbers, after.Serial = frame.Numbers{}, max(after.Serial, serial)
}

// Ready gives a copy of a document on which a gesture can be made as the page's next line, with the
// line's own numbers where it has them.
func (p *Page) Ready(d *frame.Document, l Line) *frame.Document {
	ready := *d
	p.numbers(&ready, &l)
	return &ready
}

// Add notes a gesture that was made on what [Page.Ready] gave: its line comes before those that wait.
func (p *Page) Add(e edit.Edit, done edit.Done, before, after *frame.Document, comment string) {
	next := *p
	next.Lines = slices.Clone(p.Lines[:p.Drawn])
	unit := cmp.Or(p.Pen.Unit, before.Units)
	if e.Unit != "" && e.Unit != unit && bareNumber(e) {
		next.Lines = append(next.Lines, Line{Text: "units " + string(e.Unit)})
		next.Pen.Unit = e.Unit
	}
	if w, ok := e.Gesture.(*edit.Walk); ok && w.Size == "" && next.Pen.Size != "" {
		next.Lines = append(next.Lines, Line{Text: "size usual"})
		next.Pen.Size = ""
	}
	l := Line{Text: writeOn(before, e, next.Pen, comment)}
	l.made(before, after, before.Serial)
	next.Lines = append(next.Lines, l)
	next.Pen = next.Pen.after(e, done, after)
	*p = next.with(p.Lines[p.Drawn:])
}

// Note adds a line that does nothing to the frame, as one that says the size of what follows.
func (p *Page) Note(text string) {
	next := *p
	next.Lines = append(slices.Clone(p.Lines[:p.Drawn]), Line{Text: text})
	*p = next.with(p.Lines[p.Drawn:])
}

// with gives a page, all of whose lines are drawn, with lines that wait.
func (p Page) with(waiting []Line) Page {
	if p.Wrong != nil {
		moved := *p.Wrong
		moved.Line += len(p.Lines) - p.Drawn
		p.Wrong = &moved
	}
	p.Drawn = len(p.Lines)
	p.Lines = append(p.Lines, waiting...)
	return p
}

// writeOn writes a gesture on a document: what is usual in an empty frame is said as it is for what
// follows in another one.
func writeOn(d *frame.Document, e edit.Edit, pen Pen, comment string) string {
	if u, ok := e.Gesture.(*edit.Usual); ok && len(d.Root.Joints)+len(d.Root.Uses) == 0 {
		switch *u {
		case edit.Usual{Size: u.Size}:
			return strings.TrimSpace("size " + string(u.Size) + " " + comment)
		case edit.Usual{Units: u.Units}:
			return strings.TrimSpace("units " + string(u.Units) + " " + comment)
		}
	}
	return Write(e, pen, comment)
}

// bareNumber says whether a gesture has a number that needs a unit.
func bareNumber(e edit.Edit) bool { return digits.MatchString(Write(e, Pen{}, "")) }

var digits = regexp.MustCompile(`(^|[ ,])\d`)

// Draw makes the lines of a page on an empty frame, one after the other; it stops
// at the first that cannot be made. done is of each line that was. The cost is that of its gestures.
func (p *Page) Draw(empty *frame.Document, tools Tools) (page *Page, doc *frame.Document, done []edit.Done) {
	next := &Page{Lines: slices.Clone(p.Lines)}
	doc = empty.Clone()
	for i := range next.Lines {
		did, err := next.draw(i, &doc, tools)
		if err != nil {
			next.Wrong = Why(i, err)
			return next, doc, done
		}
		done = append(done, did)
		next.Drawn = i + 1
	}
	return next, doc, done
}

// draw makes one line of a page, and writes it as it was read.
func (p *Page) draw(i int, doc **frame.Document, tools Tools) (edit.Done, error) {
	l := &p.Lines[i]
	said, err := Read(l.Text, p.Pen, tools.Known(*doc))
	if err != nil {
		return edit.Done{}, err
	}
	if said.Edit.Gesture == nil {
		p.Pen = said.Pen
		return edit.Done{}, nil
	}
	ready := **doc
	p.numbers(&ready, l)
	after, done, err := tools.Edit(&ready, said.Edit)
	if err != nil {
		return edit.Done{}, err
	}
	l.Text = writeOn(*doc, said.Edit, p.Pen, said.Comment)
	l.made(*doc, after, (*doc).Serial)
	p.Pen = said.Pen.after(said.Edit, done, after)
	*doc = after
	return done, nil
}

// Why tells why a line was not made.
func Why(line int, err error) *Wrong {
	w := &Wrong{Line: line}
	var q *edit.Question
	var r *edit.Refusal
	var ps frame.Problems
	switch {
	case errors.As(err, &q):
		w.What, w.Answers = strings.TrimSuffix(q.What, "."), q.Options
		var all []string
		for _, o := range q.Options {
			all = append(all, "("+strings.Join(o.Answers(), ") (")+") "+o.Label)
		}
		w.Hint = "write an answer after the line: " + strings.Join(all, ", ")
	case errors.As(err, &r):
		w.What, w.Hint, w.At = r.What, r.Hint, r.At
	case errors.As(err, &ps) && len(ps) > 0:
		w.What, w.Hint = ps[0].What, ps[0].Hint
	default:
		w.What, w.Hint = err.Error(), "change the line"
	}
	return w
}

var howMany = regexp.MustCompile(`(?i)^\s*copies\s+(\d{1,6})\s*$`)

// HowMany reads a line that says how many of the frame are made: copies 3. It is of the job, and draws nothing.
func (l Line) HowMany() (many int, ok bool) {
	m := howMany.FindStringSubmatch(l.Text)
	if m == nil {
		return 0, false
	}
	many, err := strconv.Atoi(m[1])
	return many, err == nil && many > 0
}
