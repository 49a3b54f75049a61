package lines

import (
	"reflect"
	"strconv"
	"strings"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// takeJoints takes as many joints as there are.
func (r *reading) takeJoints() (all []string) {
	for len(r.words) > 0 {
		w := r.words[0]
		switch id, ok := r.known.joint(w.Trimmed()); {
		case ok:
			all = append(all, id)
		case w.Is("marked") || w.Is("marked,"):
			all = append(all, r.known.Marked...)
		case w.Is("and") && len(all) > 0:
		default:
			return all
		}
		r.words = r.words[1:]
	}
	return all
}

// mostWords is of how many words a pipe's name may be: F in the middle, 2nd from below, 3rd from the left.
const mostWords = 12

// takePipes takes pipes: one or more by their names, or all that have a letter.
func (r *reading) takePipes() (ids []string, err error) {
	for len(r.words) > 0 {
		var id string
		before := r.words
		if id, err = r.takePipe(); err == nil {
			ids = append(ids, id)
			continue
		}
		r.words = before
		every := r.known.everyPipe(r.words[0].Trimmed())
		if len(every) == 0 {
			break
		}
		ids, r.words = append(ids, every...), r.words[1:]
	}
	if len(ids) > 0 {
		return ids, nil
	}
	if err == nil {
		err = r.wrong("a pipe is missing")
	}
	return nil, err
}

// takePipe takes a pipe: its id, or its letter with its place where several have it.
func (r *reading) takePipe() (string, error) {
	if len(r.words) == 0 {
		return "", r.wrong("a pipe is missing")
	}
	first := r.words[0]
	if id, _, ok := r.known.pipe(first.Trimmed()); ok && r.known.flat().Edge(first.Trimmed()) >= 0 {
		r.words = r.words[1:]
		return id, nil
	}
	var several []string
	for n := min(mostWords, len(r.words)); n > 0; n-- {
		var name []string
		for _, w := range r.words[:n] {
			name = append(name, w.Text)
		}
		id, more, ok := r.known.pipe(strings.TrimRight(strings.Join(name, " "), ",;"))
		if ok {
			r.words = r.words[n:]
			return id, nil
		}
		several = append(several, more...)
	}
	if len(several) > 0 {
		return "", wrong(first.At, "say which: "+fewest(several, ""), "%s is several pieces", first.Trimmed())
	}
	return "", wrong(first.At, "name one by its letter or as p1, p2, …", "there is no pipe %q", first.Trimmed())
}

// takePart takes a part, whose name may be two words: foot 1.
func (r *reading) takePart() (string, bool) {
	for n := min(4, len(r.words)); n > 0; n-- {
		var name []string
		for _, w := range r.words[:n] {
			name = append(name, w.Text)
		}
		if id, ok := r.known.part(strings.TrimRight(strings.Join(name, " "), ",;")); ok {
			r.words = r.words[n:]
			return id, true
		}
	}
	return "", false
}

func (r *reading) takeNumber(says string) (int, error) {
	if len(r.words) == 0 {
		return 0, r.wrong("%s is missing", says)
	}
	n, err := strconv.Atoi(r.words[0].Trimmed())
	if err != nil {
		return 0, r.wrong("%q is no number", r.words[0].Text)
	}
	r.words = r.words[1:]
	return n, nil
}

// takeDegrees takes an angle.
func (r *reading) takeDegrees() (float64, error) {
	if len(r.words) == 0 {
		return 0, r.wrong("an angle is missing")
	}
	v, ok := measure.ParseDegrees(r.words[0].Trimmed())
	if !ok {
		return 0, r.wrong("%q is no angle in degrees", r.words[0].Text)
	}
	r.words = r.words[1:]
	if len(r.words) > 0 && r.words[0].Is("degrees") {
		r.words = r.words[1:]
	}
	return v, nil
}

func (r *reading) takeAxis() (measure.Axis, error) {
	if len(r.words) > 0 {
		if a := frame.AxisOf(strings.ToLower(r.words[0].Trimmed())); a >= 0 {
			r.words = r.words[1:]
			return measure.Axis(a), nil
		}
	}
	return 0, r.wrong("x, y or z is missing")
}

// wayOf reads directions as they are written in lines: a word, two, or three numbers.
func wayOf(text string) (measure.Dir, bool) {
	var d measure.Dir
	parts := strings.Split(text, ";")
	if len(parts) == 3 {
		for i, p := range parts {
			v, err := strconv.ParseFloat(p, 64)
			if err != nil {
				return d, false
			}
			d[i] = v
		}
		return d, d != measure.Dir{}
	}
	l, err := edit.ParseLine(strings.ReplaceAll(text, "+", " ") + " 1")
	return l.Dir, err == nil && l.Goal == edit.NoGoal && l.Dir != measure.Dir{}
}

func wayWords(d measure.Dir) string {
	six := []string{"right", "left", "away", "near", "up", "down"}
	for _, w := range six {
		if at, ok := wayOf(w); ok && at == d {
			return w
		}
		for _, v := range six {
			if at, ok := wayOf(w + "+" + v); ok && at == d {
				return w + "+" + v
			}
		}
	}
	num := func(v float64) string { return strconv.FormatFloat(v, 'g', -1, 64) }
	return num(d[0]) + ";" + num(d[1]) + ";" + num(d[2])
}

// exactly writes a length so that it is read as it is.
func exactly(l measure.Length) string {
	sign := ""
	if l < 0 {
		sign, l = "-", -l
	}
	if text := l.Tape(measure.Inches); text != "" {
		if back, err := measure.Parse(text, measure.Reading{}); err == nil && back == l {
			return sign + text
		}
	}
	return sign + strconv.FormatFloat(float64(l)/1e6, 'f', -1, 64) + " mm"
}

// withMeaning adds to a typed length the meaning that another field says.
func withMeaning(v reflect.Value, text string) string {
	at := v.FieldByName("Meaning")
	if !at.IsValid() || at.IsZero() || strings.TrimSpace(text) == "" {
		return text
	}
	if s, err := edit.ParseSize(text, measure.Inches, ""); err != nil || s.Meaning != "" {
		return text
	}
	return text + " " + at.String()
}
