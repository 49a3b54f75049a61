package project

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// Page is how a project's frame was drawn. Where there was a frame before the first line that was
// drawn, the page begins with it.
type Page struct {
	lines.Page
	// Begun says that the frame followed from a starter's answers when the first line was drawn:
	// more lines can be drawn on it, and those that are there stay.
	Begun bool `json:"begun,omitempty"`
	// Held are the project's mode rules that its lines said.
	Held []frame.ModeRule `json:"held,omitempty"`
}

// page gives the project's page, or begins one on a document.
func (p *Project) page(doc *frame.Document) *Page {
	if p.Page != nil {
		c := *p.Page
		return &c
	}
	page := &Page{Begun: p.Starter != nil}
	if !page.Begun && !blank(doc) {
		page.begin(doc)
	}
	return page
}

// begin begins a page with a frame that is there.
func (page *Page) begin(doc *frame.Document) {
	from := doc.Clone()
	from.ModeRules = nil
	page.Add(edit.Edit{Gesture: &edit.Start{From: *from}}, edit.Done{}, Blank(doc.Name, doc.Units), from.Clone(), "")
}

// LinesText writes the project's frame as a text of lines that draws it: the lines of its page, with
// what was typed since and how joints are held. A frame that follows from a starter, or that no line
// was drawn on, is one line that holds it as it is.
func (p *Project) LinesText() (string, error) {
	made, err := p.made()
	if err != nil {
		return "", err
	}
	page := &Page{}
	if p.Page == nil || p.Page.Begun {
		page.begin(made.Document)
	} else {
		page = p.page(made.Document)
		p.typed(page, made.Document)
	}
	page.hold(p.ModeRules, made.Document)
	text := lines.Text(page.Lines)
	if p.Copies > 1 {
		text = fmt.Sprintf("copies %d\n%s", p.Copies, text)
	}
	return text, nil
}

// Beside are the lines of what was done beside those of the page since the last of them was drawn:
// sizes that were typed over, and joints that were held another way. The next line that is drawn
// has them before it.
func (p *Project) Beside() []string {
	said := []string{}
	if p.Page == nil || len(p.Sizes) == 0 && !slices.ContainsFunc(p.ModeRules, func(r frame.ModeRule) bool {
		return !slices.Contains(p.Page.Held, r)
	}) {
		return said
	}
	made, err := p.made()
	if err != nil {
		return said
	}
	page := p.page(made.Document)
	p.typed(page, made.Document)
	for _, l := range page.Lines[p.Page.Drawn:page.Drawn] {
		said = append(said, l.Text)
	}
	return said
}

// waiting tells of the lines of the page that the frame does not have; nil where it has all that say something.
func (p *Project) waiting() *plan.Waiting {
	if p.Page == nil || p.Page.Drawn >= len(p.Page.Lines) {
		return nil
	}
	w := &plan.Waiting{}
	for i, l := range p.Page.Lines[p.Page.Drawn:] {
		if t := strings.TrimSpace(l.Text); t == "" || strings.HasPrefix(t, "#") {
			continue
		}
		if w.Lines++; w.Lines == 1 {
			w.Line, w.Text = p.Page.Drawn+i+1, l.Text
		}
	}
	if w.Lines == 0 {
		return nil
	}
	if wrong := p.Page.Wrong; wrong != nil {
		w.What, w.Hint = wrong.What, wrong.Hint
	}
	return w
}

// blank says whether a document is as an empty project has it.
func blank(d *frame.Document) bool {
	b := Blank(d.Name, d.Units)
	return len(d.Root.Joints)+len(d.Root.Uses)+len(d.Groups)+len(d.CustomFittings) == 0 && d.Size == b.Size && d.Mode == b.Mode &&
		d.Stance == nil
}

// typed notes what was done beside the lines since the last of them: sizes that were typed over, and
// joints that were set.
func (p *Project) typed(page *Page, doc *frame.Document) {
	if p.Page == nil {
		return // the page begins with them
	}
	for _, id := range slices.Sorted(maps.Keys(p.Sizes)) {
		a := p.Sizes[id]
		if doc.SizeOf(id) == nil {
			continue
		}
		e := edit.Edit{Gesture: &edit.Retype{ID: id, Length: a.Text, Meaning: a.Meaning}, Unit: cmp.Or(a.Unit, doc.Units)}
		page.Add(e, edit.Done{}, doc, page.Ready(doc, lines.Line{}), "")
	}
	page.hold(p.ModeRules, doc)
}

// hold notes rules of how joints are held that no line said. One that a line said and that is gone
// was taken back.
func (page *Page) hold(rules []frame.ModeRule, doc *frame.Document) {
	for _, r := range rules {
		if slices.Contains(page.Held, r) {
			continue
		}
		g := &edit.Hold{Rules: []frame.ModeRule{r}}
		// of an open end nothing is held yet, and no line says so: the rule is kept as it is, for what comes to stand there
		if r == (frame.ModeRule{Joint: r.Joint, Mode: r.Mode, Reason: r.Reason}) && r.Joint != "" && !openEnd(doc, r.Joint) {
			g = &edit.Hold{Joints: []string{r.Joint}, Mode: r.Mode, Reason: r.Reason}
		}
		page.Add(edit.Edit{Gesture: g}, edit.Done{}, doc, page.Ready(doc, lines.Line{}), "")
	}
	page.Held = slices.Clone(rules)
}

// openEnd says whether a joint of the frame itself is the open end of a pipe.
func openEnd(doc *frame.Document, joint string) bool {
	j, pipes := doc.Root.Joint(joint), 0
	for i := range doc.Root.Pipes {
		if p := &doc.Root.Pipes[i]; p.From == joint || p.To == joint {
			pipes++
		}
	}
	return j != nil && pipes <= 1 && j.Fitting == nil && j.End != frame.CappedEnd
}

// Saying is a line as it is typed, with what is picked while it is.
type Saying struct {
	Line    string       `json:"line"`
	From    string       `json:"from,omitempty"`   // the joint that is picked
	Marked  []string     `json:"marked,omitempty"` // the joints that are marked
	Size    catalog.Size `json:"size,omitempty"`   // of new pipe, where the line names none
	End     frame.End    `json:"end,omitempty"`    // of new pipe that nothing follows, where the line says nothing of it
	In      string       `json:"in,omitempty"`     // the part that is worked on
	Answers []string     `json:"answers,omitempty"`

	as lines.Line // that waited on the page, with the numbers of what it makes
}

// Say draws one line that was typed. A line that runs pipe and names no start runs from each of the
// joints that are marked, where there are several, else from the one that is picked.
func (p *Project) Say(ctx context.Context, s Saying, e edit.Edit, in Workshop) (*Project, edit.Done, error) {
	begun, err := p.begun()
	if err != nil {
		return nil, edit.Done{}, err
	}
	tools, err := p.tools(ctx, in)
	if err != nil {
		return nil, edit.Done{}, err
	}
	page := p.page(begun.Document)
	pen := page.Pen
	pen.At = cmp.Or(s.From, pen.At)
	if pen.Unit == "" {
		pen.Unit = e.Unit
	}
	known := tools.Known(begun.Document)
	known.Marked = append([]string{}, s.Marked...) // those, and none that a line marked before
	said, err := lines.Read(s.Line, pen, known)
	if err != nil {
		return nil, edit.Done{}, err
	}
	if said.Edit.Gesture == nil {
		next := *p
		page.Pen.Size, page.Pen.Unit, page.Pen.Marked = said.Pen.Size, said.Pen.Unit, said.Pen.Marked
		page.Note(s.Line)
		next.Page = page
		return &next, edit.Done{Label: s.Line, Joint: s.From, Ends: said.Pen.Marked}, nil
	}
	if w, ok := said.Edit.Gesture.(*edit.Walk); ok {
		w.In = cmp.Or(w.In, s.In)
		l, curved := edit.ParseLine(w.Line)
		if l.Size == "" {
			w.Size = cmp.Or(s.Size, w.Size)
		}
		if curved == nil && l.End == frame.OpenEnd {
			w.End = s.End
		}
	}
	said.Edit.Answers = append(said.Edit.Answers, s.Answers...)
	return p.edit(ctx, said.Edit, in, s.as, said.Comment)
}

// tools are what lines are read and drawn with. A letter is the one that the builder sees: that of
// the project as it is, with what was done. Only where nothing is drawn yet the letters are those of
// the frame as far as the lines before have drawn it.
func (p *Project) tools(ctx context.Context, in Workshop) (lines.Tools, error) {
	tool := cmp.Or(p.Tool, "saw")
	t, err := plan.LineTools(ctx, plan.Job{Tool: tool, Step: p.Step}, in.Shop)
	if err != nil || in.Shop == nil {
		return t, err
	}
	shown := sync.OnceValue(func() []lines.Lettered {
		job, err := p.Job()
		if err != nil {
			return nil
		}
		job.Tool = tool
		seen, err := plan.Draft(ctx, job, *in.Shop, in.Work)
		if err != nil {
			return nil
		}
		return plan.Lettered(seen)
	})
	if _, err := p.made(); err == nil && (p.Page == nil || p.Page.Drawn > 0) {
		t.Letters = func(*frame.Document) []lines.Lettered { return shown() }
	}
	return t, nil
}

// Draw draws the frame from other lines than it has. Those that it begins with as they are stay
// drawn; a line that cannot be drawn, and those after it, wait on the page. What was typed and what
// was cut of pipes that are gone goes with them, and is told.
func (p *Project) Draw(ctx context.Context, all []lines.Line, in Workshop) (*Project, edit.Done, error) {
	begun, err := p.begun()
	if err != nil {
		return nil, edit.Done{}, err
	}
	many := max(1, p.Copies)
	all = slices.DeleteFunc(slices.Clone(all), func(l lines.Line) bool {
		n, said := l.HowMany()
		if said {
			many = n
		}
		return said
	})
	if many > plan.MaxCopies {
		return nil, edit.Done{}, &edit.Refusal{
			What: fmt.Sprintf("%d copies", many), Hint: fmt.Sprintf("build 1 to %d", plan.MaxCopies),
		}
	}
	for i := range all {
		all[i] = lines.Pinned(all[i])
	}
	page := p.page(begun.Document)
	said, had, waiting := page.Held, page.Drawn, len(page.Lines)-page.Drawn
	same := len(all) >= had
	for i := 0; same && i < had; i++ {
		same = all[i].Text == page.Lines[i].Text
	}
	p.typed(page, begun.Document)
	// what was typed beside the lines is drawn after those that are there
	at := max(0, len(all)-waiting)
	if same {
		at = had
	}
	all = slices.Concat(all[:at], page.Lines[had:page.Drawn], all[at:])
	if !same && page.Begun {
		return nil, edit.Done{}, &edit.Refusal{
			What: "this frame was begun from a starter, so its lines are there to read",
			Hint: "change its answers, take it back with undo, or add lines after them",
		}
	}
	tools, err := p.tools(ctx, in)
	if err != nil {
		return nil, edit.Done{}, err
	}
	next := *p
	next.Copies = many
	doc, done := begun.Document, edit.Done{}
	if !same {
		fresh := lines.Page{Lines: all}
		drawn, d, _ := fresh.Draw(Blank(p.Name, p.Units), tools)
		d.Name = doc.Name
		next.Sizes, next.Starter = nil, nil
		next.Page = &Page{Page: *drawn, Held: d.ModeRules}
		next.ModeRules = nil
		for _, r := range d.ModeRules { // what a line says, but for what was taken back since
			if !slices.Contains(said, r) || slices.Contains(p.ModeRules, r) {
				next.ModeRules = append(next.ModeRules, r)
			}
		}
		next.Page.Held = slices.Clone(next.ModeRules)
		d.ModeRules = nil
		next.Frame = d
		done.Label = "Drawn anew from its lines"
		next.dropGone(d, &done)
		next.unit(doc, d)
		done.Joint = drawn.Pen.At
		return &next, done, nil
	}
	// what is drawn stays; the lines after it are made one by one
	page.Lines = slices.Clone(page.Lines[:page.Drawn])
	page.Wrong = nil
	now := &next
	now.Page, now.Frame = page, p.Frame
	n := 0
	for i := page.Drawn; i < len(all); i++ {
		step, did, err := now.Say(
			ctx,
			Saying{Line: all[i].Text, From: now.Page.Pen.At, Marked: now.Page.Pen.Marked, as: all[i]},
			edit.Edit{},
			in,
		)
		if err != nil {
			waits := *now.Page
			waits.Wrong = lines.Why(len(waits.Lines), err)
			waits.Lines = append(slices.Clone(waits.Lines), all[i:]...)
			c := *now
			c.Page = &waits
			now = &c
			break
		}
		now, n = step, n+1
		done.Also = append(done.Also, did.Also...)
		done.GivenUp = append(done.GivenUp, did.GivenUp...)
		done.Joint = did.Joint
	}
	done.Label = counted(n)
	return now, done, nil
}

func counted(n int) string {
	if n == 1 {
		return "A line drawn"
	}
	return fmt.Sprintf("%d lines drawn", n)
}

// dropGone drops what was said of pipes that are gone.
func (p *Project) dropGone(d *frame.Document, done *edit.Done) {
	g, err := frame.Expand(d)
	if err != nil {
		return
	}
	given, was := map[string]starter.Answer{}, map[string]string{}
	for id, a := range p.Given {
		if g.Edge(id) >= 0 {
			given[id] = a
		} else {
			done.Also = append(done.Also, "what "+id+" was cut to goes with it")
		}
	}
	for id, name := range p.Was {
		if g.Edge(id) >= 0 {
			was[id] = name
		}
	}
	p.Given, p.Was = nil, nil
	if len(given) > 0 {
		p.Given = given
	}
	if len(was) > 0 {
		p.Was = was
	}
	slices.Sort(done.Also)
}

// unit makes the project's own unit that of its frame, where a line said another.
func (p *Project) unit(before, after *frame.Document) {
	if after.Units != before.Units {
		p.Units = after.Units
		if p.Style = measure.InInches; after.Units == measure.Millimetres {
			p.Style = measure.Metric
		}
	}
}
