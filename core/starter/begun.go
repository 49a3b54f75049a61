package starter

import (
	"cmp"
	"fmt"
	"maps"
	"strconv"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layer"
	"sturdyelbow/core/measure"
)

// Begun is a frame that was begun from a starter: its answers, and what was done
// to the frame by hand since. The answers drive the frame for as long as they
// can; what was done by hand lies over it as a [layer.Layer].
//
// By hand means: there is a document, the frame as it was when a gesture was
// made on it last. As are the answers that it followed then. Where they are the
// answers of now, that document is the frame; else what was done by hand is put
// over the frame that the answers of now make.
type Begun struct {
	ID      string            `json:"id"`
	Answers map[string]Answer `json:"answers"`
	As      map[string]Answer `json:"as,omitempty"`
	// Aside is what was done by hand and has no place in the frame as the answers
	// make it now. It is put back when it has.
	Aside layer.Layer `json:"aside,omitempty"`
	// Own says that the frame is the builder's own: a gesture contradicted an
	// answer. Its sizes are the document's; of the answers only counts are left,
	// as repeats that can still be changed.
	Own bool `json:"own,omitempty"`
}

// Made is the document that follows from a [Begun].
type Made struct {
	Document *frame.Document
	Aside    layer.Layer // done by hand, without a place now
	Lost     []string    // of the starter's own, with nothing to stand on
}

// starter finds the starter that a frame was begun from.
func (b *Begun) starter() (Starter, error) {
	s, ok := Find(b.ID)
	if !ok {
		return s, Problems{{Key: "id", What: fmt.Sprintf("there is no starter %q", b.ID), Hint: "choose one of the list"}}
	}
	return s, nil
}

// Make gives the frame as it is now. byHand is the document of the last gesture;
// nil where there was none. Neither is changed. The error is a [Problems].
func (b *Begun) Make(unit measure.Unit, byHand *frame.Document) (Made, error) {
	s, err := b.starter()
	if err != nil {
		return Made{}, err
	}
	if byHand != nil && maps.Equal(b.Answers, b.As) {
		return Made{Document: byHand, Aside: b.Aside}, nil
	}
	base, err := s.Build(unit, b.Answers)
	if err != nil {
		return Made{}, err
	}
	if byHand == nil {
		return Made{Document: &base}, nil
	}
	was, err := s.Build(unit, b.As)
	if err != nil {
		return Made{}, err
	}
	l := layer.Between(&was, byHand)
	for _, r := range b.Aside {
		if l.Find(r.In, r.Kind, r.ID) == nil {
			l = append(l, r)
		}
	}
	doc, aside, lost := l.Over(&base)
	doc.Name, doc.Units, doc.Serial = byHand.Name, byHand.Units, max(doc.Serial, byHand.Serial)
	return Made{Document: doc, Aside: aside, Lost: lost}, nil
}

// After gives what a frame is begun as once a gesture has made one document of
// another, and the document to keep, nil where nothing was done by hand. against
// names the answers that the gesture contradicts, by the labels of their
// prompts: the frame is the builder's own then.
func (b *Begun) After(
	unit measure.Unit,
	before Made,
	after *frame.Document,
) (next Begun, byHand *frame.Document, against []string, err error) {
	s, err := b.starter()
	if err != nil {
		return next, nil, nil, err
	}
	next = Begun{ID: b.ID, Answers: maps.Clone(b.Answers), Aside: before.Aside, Own: b.Own}
	if next.Answers == nil {
		next.Answers = map[string]Answer{}
	}
	doc := after.Clone()
	if !b.Own {
		s.takeSizes(next.Answers, before.Document, doc)
	}
	base, err := s.Build(unit, next.Answers)
	if err != nil { // what was typed is no answer: it stays by hand
		next.Answers = maps.Clone(b.Answers)
		if base, err = s.Build(unit, next.Answers); err != nil {
			return next, nil, nil, err
		}
	}
	if !b.Own {
		s.settle(&base, doc)
	}
	if counts := s.takeCounts(unit, next.Answers, before.Document, doc); len(counts) > 0 {
		answers := maps.Clone(next.Answers)
		maps.Copy(answers, counts)
		if grown, err := s.Build(unit, answers); err == nil {
			made, aside, _ := layer.Between(&base, doc).Over(&grown)
			made.Name, made.Units, made.ModeRules, made.Serial = doc.Name, doc.Units, doc.ModeRules, doc.Serial
			next.Answers, doc, base = answers, made, grown
			next.Aside = append(aside, next.Aside...)
		}
	}
	if !b.Own {
		against = s.against(unit, next.Answers, &base, doc)
		next.Own = len(against) > 0
	}
	if len(next.Aside) == 0 {
		next.Aside = nil
	}
	if !next.Own && next.Aside == nil && len(layer.Between(&base, doc)) == 0 {
		return next, nil, against, nil
	}
	next.As = maps.Clone(next.Answers)
	return next, doc, against, nil
}

// takeSizes turns sizes that were typed over into answers of the prompts that
// asked for them.
func (s *Starter) takeSizes(answers map[string]Answer, before, after *frame.Document) {
	for _, p := range s.Prompts {
		switch p.Input {
		case Length:
			was, is := before.SizeOf(p.Key), after.SizeOf(p.Key)
			if was == nil || is == nil || is.Prompt != p.Key || is.Gave != nil || said(was) == said(is) {
				continue
			}
			a := Answer{Text: is.Text, Meaning: is.Meaning, Unit: cmp.Or(is.Unit, after.Units)}
			if l, err := measure.Parse(a.Text, measure.Reading{Unit: a.Unit}); err != nil || l != is.Value {
				a.Text, a.Unit = exactly(is.Value), measure.Millimetres
			}
			if is.Meaning == frame.Cut || is.Meaning == frame.Visible {
				a.Of = is.Pipe
			}
			answers[p.Key] = a
		case Pipe:
			if p.Key == "size" && after.Size != before.Size {
				answers[p.Key] = Answer{Text: string(after.Size)}
			}
		case Choice:
			if p.Key == "mode" && after.Mode != before.Mode {
				for _, o := range p.Options {
					if o.Value == string(after.Mode) {
						answers[p.Key] = Answer{Text: o.Value}
					}
				}
			}
		}
	}
}

// exactly writes a length so that it is read again as it is.
func exactly(l measure.Length) string {
	mm := strconv.FormatInt(int64(l/measure.Millimetre), 10)
	if rest := int64(l % measure.Millimetre); rest != 0 {
		mm += "." + strings.TrimRight(fmt.Sprintf("%06d", rest), "0")
	}
	return mm + " mm"
}

// saying is what a size says, whenever it was said.
type saying struct {
	value   measure.Length
	meaning frame.Meaning
	text    string
	unit    measure.Unit
	pipe    string
	axis    string
	from    frame.Ref
	to      frame.Ref
	gave    bool
}

func said(z *frame.Size) saying {
	return saying{z.Value, z.Meaning, z.Text, z.Unit, z.Pipe, z.Axis, z.From, z.To, z.Gave != nil}
}

// holds is what makes a size the one that an answer asked for, however it is
// written.
func holds(z *frame.Size) saying {
	s := said(z)
	s.text, s.unit = "", ""
	if s.meaning != frame.Cut && s.meaning != frame.Visible {
		s.pipe = ""
	}
	return s
}

// settle writes sizes of a document that say what an answer says as the base
// has them: then they follow the answer.
func (s *Starter) settle(base, doc *frame.Document) {
	for _, p := range s.Prompts {
		if z, is := base.SizeOf(p.Key), doc.SizeOf(p.Key); p.Input == Length && z != nil && is != nil && holds(z) == holds(is) {
			*is = *z
		}
	}
}
