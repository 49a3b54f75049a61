package project

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layer"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// begun is the frame that a gesture is made on; an empty one where the project has none yet.
func (p *Project) begun() (starter.Made, error) {
	made, err := p.made()
	if errors.Is(err, ErrEmpty) {
		made.Document, err = Blank(p.Name, p.Units), nil
	}
	return made, err
}

// made gives the project's frame as it is now, with the sizes that were typed
// over. The error is a [starter.Problems], a [SizeProblems] or [ErrEmpty].
func (p *Project) made() (starter.Made, error) {
	made := starter.Made{Document: p.Frame}
	if p.Starter != nil {
		byHand := p.Frame
		if byHand != nil && len(p.Sizes) > 0 { // what is set aside keeps what was typed over it
			d, err := retyped(byHand, p.Sizes, false)
			if err != nil {
				return made, err
			}
			byHand = d
		}
		m, err := p.Starter.Make(cmp.Or(p.Units, measure.Inches), byHand)
		if err != nil {
			return made, err
		}
		made = m
		d := *made.Document // its name and unit are the project's, whenever a gesture was made on it
		d.Name, d.Units = cmp.Or(p.Name, d.Name), cmp.Or(p.Units, measure.Inches)
		made.Document = &d
	}
	if made.Document == nil {
		return made, ErrEmpty
	}
	if len(p.Sizes) > 0 {
		d, err := retyped(made.Document, p.Sizes, p.Starter == nil)
		if err != nil {
			return made, err
		}
		made.Document = d
	}
	return made, nil
}

// driven says whether the answers of a starter drive the frame.
func (p *Project) driven() bool { return p.Starter != nil && !p.Starter.Own }

// told are findings about what was done by hand to a starter's frame and has no
// place in it now.
func told(made starter.Made) (fs []finding.Finding) {
	if len(made.Aside) > 0 {
		f := finding.New("set-aside", finding.Note).With("what", wordsOf(made.Aside))
		missing := made.Aside.Missing(made.Document)
		f = f.With("waits", len(missing))
		if len(missing) > 0 {
			f = f.With("on", few(missing))
		}
		fs = append(fs, f.Fixed(edit.Fix("Let it go", edit.Edit{Gesture: &edit.LetGo{}})))
	}
	if len(made.Lost) > 0 {
		fs = append(fs, finding.New("starter-lost", finding.Note).With("what", strings.Join(made.Lost, ", ")))
	}
	return fs
}

// wordsOf names what is set aside, the first few of it.
func wordsOf(aside layer.Layer) string {
	var all []string
	count := map[string]int{}
	for i := range aside {
		w := aside[i].Words()
		if w == "" {
			continue
		}
		if count[w]++; count[w] == 1 {
			all = append(all, w)
		}
	}
	if len(all) == 0 {
		return "a size" // or what only serves others
	}
	for i, w := range all {
		if what, one := strings.CutPrefix(w, "a "); one && count[w] > 1 { // a pipe drawn by hand
			noun, how, _ := strings.Cut(what, " ")
			all[i] = fmt.Sprintf("%d %ss %s", count[w], noun, how)
		}
	}
	return few(all)
}

// few names the first of many.
func few(all []string) string {
	const most = 4
	if n := len(all) - most; n > 0 {
		return strings.Join(all[:most], ", ") + fmt.Sprintf(" and %d more", n)
	}
	return listed(all)
}

// ownFrame is the answer by which a builder goes on with a frame of their own.
const ownFrame = "own-frame"

// follow gives the project that a gesture leaves, which made one document of
// another. A gesture that contradicts an answer of a starter makes the frame the
// builder's own, and asks before it does: the error is an [*edit.Question] then.
func (p *Project) follow(e edit.Edit, made starter.Made, after *frame.Document, done *edit.Done) (*Project, error) {
	next := *p
	next.Sizes, next.Frame = nil, after
	if p.Starter == nil {
		return &next, nil
	}
	b := *p.Starter
	switch e.Gesture.(type) {
	case *edit.Keep:
		b.Own = true
	case *edit.LetGo:
		made.Aside = nil
	}
	begun, byHand, against, err := b.After(cmp.Or(p.Units, measure.Inches), made, after)
	if err != nil {
		return nil, err
	}
	if len(against) > 0 {
		if !slices.Contains(e.Answers, ownFrame) {
			return nil, &edit.Question{Title: "Go on with a frame of your own?",
				What: fmt.Sprintf(
					"This goes against what you answered for %s, so the starter cannot make it. The frame keeps every size that it has, and counts such as bays or hoops can still be changed.",
					listed(against),
				),
				Options: []edit.Option{{ID: ownFrame, Label: "Go on with a frame of my own"}}}
		}
		done.Also = append(done.Also, "it is a frame of your own now")
	}
	next.Starter, next.Frame = &begun, byHand
	if begun.Own && len(begun.Aside) == 0 && len(next.Repeats()) == 0 {
		next.Starter = nil // nothing of it is left
	}
	return &next, nil
}

// listed writes names one after the other: Width, Height and Bays.
func listed(names []string) string {
	if n := len(names) - 1; n > 0 {
		return strings.Join(names[:n], ", ") + " and " + names[n]
	}
	return names[0]
}

// Repeats are the counts of a frame that was begun from a starter and is the
// builder's own now.
func (p *Project) Repeats() []starter.Repeat {
	if p.Starter == nil || !p.Starter.Own {
		return []starter.Repeat{}
	}
	made, err := p.made()
	if err != nil {
		return []starter.Repeat{}
	}
	return p.Starter.Repeats(cmp.Or(p.Units, measure.Inches), made.Document)
}
