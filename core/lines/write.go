package lines

import (
	"cmp"
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
)

// Write writes a gesture as the line that means it, after lines that left a pen.
func Write(e edit.Edit, pen Pen, comment string) string {
	text := ""
	if w, ok := e.Gesture.(*edit.Walk); ok {
		text = writeWalk(w, pen)
	} else {
		for i := range forms {
			f := &forms[i]
			if made := edit.NameOf(e.Gesture); made != f.gesture {
				continue
			}
			g, name := unnamed(e.Gesture)
			said, ok := f.write(g)
			if ok && !strings.ContainsAny(said, "()\n"+words.Unsayable) && !strings.Contains(" "+said, " #") {
				if text = said; name != "" {
					text = name + " = " + said
				}
				break
			}
		}
	}
	if text == "" || strings.ContainsAny(text, "\n"+words.Unsayable) {
		data, err := json.Marshal(edit.Edit{Gesture: e.Gesture})
		if err != nil {
			return "# " + fmt.Sprint(err)
		}
		// what would begin a comment, or an answer, is written so that it does not
		text = "do " + strings.NewReplacer("#", `\u0023`, "(", `\u0028`, ")", `\u0029`).Replace(string(data))
	}
	for _, a := range e.Answers {
		text += " (" + a + ")"
	}
	return strings.TrimSpace(text + " " + comment)
}

// unnamed takes the name of the joint that it makes off a gesture.
func unnamed(g edit.Gesture) (edit.Gesture, string) {
	switch g := g.(type) {
	case *edit.Begin:
		c := *g
		c.Name = ""
		return &c, g.Name
	case *edit.Split:
		c := *g
		c.Name = ""
		return &c, g.Name
	}
	return g, ""
}

// sized is a line that says the size of its pipe.
var sized = regexp.MustCompile(`(?i)\bsize\s`)

func writeWalk(w *edit.Walk, pen Pen) string {
	course := w.Line
	first, _, _ := strings.Cut(strings.ToLower(strings.TrimSpace(course)), " ")
	if first != "hoop" && first != "bend" {
		l, err := edit.ParseLine(course)
		if w.Along != "" {
			l, err = edit.Line{
				Along:  w.Along,
				Words:  "along " + w.Along,
				Way:    "along " + words.Quote(w.Along),
				Length: w.Length,
				Times:  1,
			}, nil
		}
		if err != nil {
			return ""
		}
		if w.Until != "" && l.Goal == edit.NoGoal && l.Length == "" {
			l.Goal, l.Mark = edit.To, w.Until
		}
		if w.Meaning != "" && l.Length != "" {
			if s, err := edit.ParseSize(l.Length, measure.Inches, ""); err == nil && s.Meaning == "" {
				l.Length += " " + string(w.Meaning)
			}
		}
		if w.End != "" {
			l.End = w.End
		}
		if l.Size == "" {
			l.Size = w.Size
		}
		if l.Size == pen.Size {
			l.Size = ""
		}
		course = l.Text()
		if back, err := edit.ParseLine(course); err != nil || back.Text() != course {
			return ""
		}
	} else {
		if w.End != "" || w.Meaning != "" {
			return ""
		}
		if w.Size != pen.Size && !sized.MatchString(course) {
			if w.Size == "" {
				return ""
			}
			course += " size " + string(w.Size)
		}
	}
	if strings.ContainsAny(course, "()\n") || strings.Contains(" "+course, " #") || named.MatchString(course) || colon(course) >= 0 {
		return "" // it would be read as something else
	}
	if w.In != "" {
		course += " within " + words.QuotePart(w.In)
	}
	if w.Name != "" {
		course = w.Name + " = " + course
	}
	from := append([]string{}, w.From)
	from = append(from, w.More...)
	switch {
	case len(from) == 1 && (from[0] == "" || from[0] == pen.At && len(pen.Marked) < 2):
		return course
	case len(from) > 1 && slices.Equal(from, pen.Each):
		return "each: " + course
	}
	for i := range from {
		from[i] = words.Quote(from[i])
	}
	return strings.Join(from, " ") + ": " + course
}

// after is the pen that a gesture leaves.
func (p Pen) after(e edit.Edit, done edit.Done, doc *frame.Document) Pen {
	next := p
	next.Each = nil
	switch e.Gesture.(type) {
	case *edit.Walk, *edit.Begin, *edit.Join, *edit.Split, *edit.Ring, *edit.Slide:
		next.At, next.Each = cmp.Or(done.Joint, p.At), done.Ends
	}
	g, err := frame.Expand(doc)
	if err != nil {
		return next
	}
	there := func(id string) string {
		if id == "" || g.Node(id) >= 0 {
			return id
		}
		found := ""
		for i := range g.Nodes { // it is in a part now
			if _, last := cutLast(g.Nodes[i].ID); last == id {
				if found != "" {
					return found
				}
				found = g.Nodes[i].ID
			}
		}
		return found
	}
	next.At = there(next.At)
	var marked []string
	for _, m := range next.Marked {
		if m = there(m); m != "" {
			marked = append(marked, m)
		}
	}
	next.Marked = marked
	return next
}
