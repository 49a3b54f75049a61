package edit

import (
	"cmp"
	"errors"
	"fmt"
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
	"sturdyelbow/core/model"
)

// Bounds of how much is carried out before a question is asked, which costs the gesture once for each.
const (
	mostTried   = 12   // options of one question
	mostEqual   = 60   // sizes that say the same and give way together
	mostFurther = 3    // questions that follow one another besides
	mostSolved  = 1500 // solutions of the frame that all options of a question may take
	mostMade    = 8    // times that the gesture is made to find out where one option leads
)

// giving is what gives way by an option, where that is what it says.
type giving struct {
	layout.Party
	words string // 24 cut of ⟨p3⟩
}

// How good an option turned out to be: only those of the best sort that there is are offered.
const (
	holdsTogether = iota
	saysNothing   // what gives way reads as before, or the frame is that of another option
	notToBeBuilt
	isRefused
)

// outcome is what an option led to when it was carried out.
type outcome struct {
	option  Option
	e       *editor // as it was at the end, or when it asked further
	done    Done
	further bool     // it asks about something else besides
	gives   []giving // by the option, and by those that are its equals
	sort    int
	why     string // it cannot be built
	made    int    // how often the gesture was made for it
	refused error
}

// offer carries out the options of a question, each on a copy of the frame, and asks only those that lead to a
// frame: each with what then stands, the one that keeps the most and the newest first. Where nothing is left to
// choose, and nothing is given up by it, what is left is made and there is no question. The error is the question, or
// the refusal where no option can be made. It costs at most [mostTried] times what the gesture costs, and that again
// for each question which follows from an option.
func offer(d *frame.Document, ed Edit, q *Question, solve Solver) (*editor, Done, error) {
	var all []outcome
	solved := 0
	counted := func(d *frame.Document) (*model.Located, error) {
		solved++
		return solve(d)
	}
	for _, o := range q.Options[:min(len(q.Options), mostTried)] {
		if solved > mostSolved {
			break // the others are told as untried
		}
		all = append(all, carryOut(d, ed, o, counted))
	}
	tried := len(all)
	best := isRefused
	for i := range all {
		x := &all[i]
		if x.sort == holdsTogether && slices.ContainsFunc(all[:i], x.same) {
			x.sort = saysNothing
		}
		best = min(best, x.sort)
	}
	if best == isRefused {
		return nil, Done{}, all[0].refused
	}
	all = slices.DeleteFunc(all, func(x outcome) bool { return x.sort > best })
	if !slices.ContainsFunc(all, func(x outcome) bool { return x.option.gives == nil }) { // whether it meets comes before what that costs
		slices.SortStableFunc(all, func(x, y outcome) int { return x.compare(&y, d) })
	}
	if x := &all[0]; len(all) == 1 && len(q.Options) == tried && !x.further && len(x.given()) == 0 && best == holdsTogether {
		return x.e, x.done, nil
	}
	if k := slices.IndexFunc(all, func(x outcome) bool { return !x.isNew(d) }); k > 0 {
		first := all[k]
		all = slices.Insert(slices.Delete(all, k, k+1), 0, first)
	}
	asked := *q
	asked.Options, asked.Untried = nil, len(q.Options)-tried
	said := map[string]int{}
	for i := range all {
		o := all[i].option
		o.Label = all[i].says()
		if said[o.Label]++; said[o.Label] > 1 { // two sizes of one pipe that say the same
			o.Label = "The " + model.Ordinal(said[o.Label]) + " of them: " + o.Label
		}
		asked.Options = append(asked.Options, o)
	}
	return nil, Done{}, &asked
}

// carryOut makes a gesture with an option chosen, and with those that are its equals.
func carryOut(d *frame.Document, ed Edit, o Option, solve Solver) outcome {
	x := outcome{option: o}
	if o.gives != nil {
		x.gives = []giving{*o.gives}
	}
	x.follow(d, ed, []string{o.ID}, solve, mostFurther)
	for _, g := range x.gives[min(1, len(x.gives)):] {
		x.option.More = append(x.option.More, optionID(g.Party))
	}
	return x
}

// follow makes the gesture with the answers so far. A question that follows is answered by what is equal to what was
// chosen: of six bars of 3 ft that a shorter one goes against, all give way or none. Any other is left to the builder;
// here its options show, one after the other, whether it leads to a frame that can be built.
func (x *outcome) follow(d *frame.Document, ed Edit, answers []string, solve Solver, more int) {
	next := ed
	next.Answers = slices.Concat(ed.Answers, answers)
	e, done, err := attempt(d, next, solve)
	x.made++
	var q *Question
	switch asks := errors.As(err, &q); {
	case err == nil:
		x.e, x.done = e, done
		switch x.why = x.cannot(); {
		case x.why != "":
			x.sort = notToBeBuilt
		case x.readsAsBefore() && !x.further:
			x.sort = saysNothing
		default:
			x.sort = holdsTogether
		}
		return
	case !asks:
		x.sort, x.refused = isRefused, err
		return
	case more == 0: // how it ends was not found out
		x.e, x.further, x.sort = e, true, holdsTogether
		return
	}
	if o := equal(e.doc, x.gives, q); o != nil && !x.further && len(x.gives) < mostEqual {
		x.gives = append(x.gives, *o.gives)
		x.follow(d, ed, append(answers, o.ID), solve, more)
		return
	}
	x.further, x.sort = true, isRefused
	best := *x
	for _, o := range q.Options[:min(len(q.Options), mostTried)] {
		if x.made >= mostMade {
			best.sort = holdsTogether // whether it leads to a frame was not found out
			break
		}
		if x.follow(d, ed, append(slices.Clone(answers), o.ID), solve, more-1); x.sort < best.sort {
			best = *x
		}
		if best.sort == holdsTogether {
			break
		}
	}
	if best.sort == isRefused && len(q.Options) > mostTried { // one that was not tried may lead to a frame
		best.sort = holdsTogether
	}
	made := x.made
	*x = best
	x.made = made
	if x.e = e; x.refused == nil {
		x.refused = refuse("change what was there first", "nothing can give way for it")
	}
}

// equal is the option of a question by which a size gives way that says the same, in the document as it is then, as
// those that gave way already; nil where there is none.
func equal(d *frame.Document, gives []giving, q *Question) *Option {
	if len(gives) == 0 || gives[0].Kind != "size" {
		return nil
	}
	s := d.SizeOf(gives[0].ID)
	for i := range q.Options {
		o := &q.Options[i]
		if o.gives == nil || o.gives.Kind != "size" || s == nil {
			continue
		}
		if t := d.SizeOf(o.gives.ID); t != nil && t.ID != s.ID && t.Value == s.Value && t.Meaning == s.Meaning {
			return o
		}
	}
	return nil
}

// given lists what gave way by the gesture.
func (x *outcome) given() (all []gaveWay) {
	for _, g := range x.e.gaveWays() {
		if !slices.Contains(x.e.yielded, g.Party) {
			all = append(all, g)
		}
	}
	return all
}

// cannot says why a frame cannot be built that could be before: by what stops its plan, by a pipe between bodies that
// meet before it is seated, or by a size of nothing. Empty where it can.
func (x *outcome) cannot() string {
	e := x.e
	had := slices.Concat(e.was.Findings, e.was.Fits.Findings)
	for _, f := range slices.Concat(e.view.Findings, e.view.Fits.Findings) {
		if f.Severity == finding.Stop && !told(had, &f) {
			return message.Said(f).Text
		}
	}
	for i := range e.view.Graph.Edges {
		id := e.view.Graph.Edges[i].ID
		k := e.was.Graph.Edge(id)
		if e.view.Fits.TooShort(i, e.view.Lengths[i]) && (k < 0 || !e.was.Fits.TooShort(k, e.was.Lengths[k])) {
			return e.knownWords(id) + " is too short for its sockets"
		}
	}
	for _, g := range x.given() {
		if z := e.solvedSize(g.ID); g.Kind == "size" && z != nil && z.Out <= 0 {
			return "nothing is left of " + g.words
		}
	}
	return ""
}

// readsAsBefore says whether something gives way, and every size that does reads as it did.
func (x *outcome) readsAsBefore() bool {
	given := x.given()
	for _, g := range given {
		z := x.e.solvedSize(g.ID)
		if g.Kind != "size" || z == nil || x.e.tape(z.Out, z.Unit) != x.e.tape(z.Value, z.Unit) {
			return false
		}
	}
	return len(given) > 0
}

// same says whether two options lead to the same frame: every pipe as long, and as much given up.
func (x *outcome) same(y outcome) bool {
	if x.sort != y.sort || x.further || y.further || len(x.given()) != len(y.given()) ||
		len(x.e.view.Lengths) != len(y.e.view.Lengths) {
		return false
	}
	for i, long := range x.e.view.Lengths {
		if x.e.view.Graph.Edges[i].ID != y.e.view.Graph.Edges[i].ID || (long-y.e.view.Lengths[i]).Abs() > measure.Micrometre {
			return false
		}
	}
	for i, p := range x.e.view.Points {
		if p.Distance(y.e.view.Points[i]) > measure.Micrometre {
			return false
		}
	}
	return true
}

// isNew says whether an option gives up what the gesture says.
func (x *outcome) isNew(d *frame.Document) bool {
	return slices.ContainsFunc(x.gives, func(g giving) bool {
		if g.Kind != "size" {
			return false
		}
		was, is := d.SizeOf(g.ID), x.e.doc.SizeOf(g.ID)
		return was == nil || is != nil && (was.Value != is.Value || was.Meaning != is.Meaning || was.Rank != is.Rank)
	})
}

// compare orders options: a number that gives way before a pipe that slopes, then what was there before what is said
// just now, then what gives up less, then what is older.
func (x *outcome) compare(y *outcome, d *frame.Document) int {
	slopes := func(x *outcome) bool { return len(x.gives) > 0 && x.gives[0].Kind != "size" }
	rank := func(x *outcome) (r int) {
		for _, g := range x.gives {
			if s := d.SizeOf(g.ID); g.Kind == "size" && s != nil {
				r = max(r, s.Rank)
			}
		}
		return r
	}
	return cmp.Or(
		order(slopes(x), slopes(y)),
		order(x.isNew(d), y.isNew(d)),
		order(x.further, y.further),
		cmp.Compare(len(x.given()), len(y.given())),
		cmp.Compare(rank(x), rank(y)),
	)
}

// order puts what is not so before what is.
func order(x, y bool) int {
	switch {
	case x == y:
		return 0
	case y:
		return -1
	}
	return 1
}

// says is the label of an option with what then stands.
func (x *outcome) says() string {
	label := x.option.Label
	own := map[string]bool{}
	var now []string
	for _, g := range x.gives {
		own[g.ID] = true
		if v := x.e.valueNow(g.ID); g.Kind == "size" && !x.further && !slices.Contains(now, v) {
			now = append(now, v)
		}
	}
	if n := len(x.gives); n > 1 {
		label = fmt.Sprintf("%s and %d more that say the same give way", x.gives[0].words, n-1)
		if n == 2 {
			label = fmt.Sprintf("%s and %s give way", x.gives[0].words, x.gives[1].words)
		}
	}
	switch {
	case len(now) > 0 && len(x.gives) > 1:
		label += ": they become " + listed(now)
	case len(now) > 0:
		label += ": it becomes " + now[0]
	}
	if x.further {
		return label + ", and it asks what else does"
	}
	for _, g := range x.e.gave {
		if s := x.e.solvedSize(g.Size); s != nil && s.Gave != "" && !own[g.Size] {
			label += fmt.Sprintf("; %s becomes %s", g.Was, x.e.valueNow(g.Size))
			own[g.Size] = true
		}
	}
	for _, g := range x.given() {
		switch {
		case own[g.ID]:
		case g.Kind == "size": // one that the gesture itself said
			label += fmt.Sprintf("; %s becomes %s", g.words, x.e.valueNow(g.ID))
		case g.Kind == "pipe":
			label += fmt.Sprintf("; %s slopes", x.e.knownWords(x.e.shown(g)))
		}
	}
	if x.why != "" {
		label += "; " + x.why
	}
	return label
}

// shown is the path of a pipe that gave way, where the frame first shows it.
func (e *editor) shown(g gaveWay) string {
	if i := e.scopeOf(g.Group); i >= 0 {
		return join(e.path(i), g.ID)
	}
	return g.ID
}
