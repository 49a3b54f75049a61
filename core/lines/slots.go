package lines

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// filler reads and writes what stands in a slot.
type filler struct {
	says  string // what a builder calls it
	read  func(r *reading, s *slot, stops []string) error
	write func(v reflect.Value, s *slot) (string, bool)
}

// setText sets a field from a text: of a string, a flag or a number.
func setText(f reflect.Value, text string) {
	switch f.Kind() {
	case reflect.Bool:
		f.SetBool(text == "true")
	case reflect.String:
		f.SetString(text)
	}
}

func getText(f reflect.Value) string {
	switch {
	case f.IsZero():
		return ""
	case f.Kind() == reflect.Bool:
		return "true"
	}
	return f.String()
}

// one is a slot of one word, by what reads it and what writes it.
func one(says string, read func(r *reading, w word) (string, error), write func(string) string) filler {
	return filler{says: says,
		read: func(r *reading, s *slot, _ []string) error {
			if len(r.words) == 0 {
				return r.wrong("%s is missing", says)
			}
			text, err := read(r, r.words[0])
			if err != nil {
				return err
			}
			r.words = r.words[1:]
			r.into.FieldByName(s.fields[0]).SetString(text)
			return nil
		},
		write: func(v reflect.Value, s *slot) (string, bool) {
			text := v.FieldByName(s.fields[0]).String()
			return write(text), text != ""
		},
	}
}

func quoted(text string) string { return quote(text, plain) }

// takeJoints takes as many joints as there are.
func (r *reading) takeJoints() (all []string) {
	for len(r.words) > 0 {
		w := r.words[0]
		switch id, ok := r.known.joint(w.trimmed()); {
		case ok:
			all = append(all, id)
		case w.is("marked") || w.is("marked,"):
			all = append(all, r.known.Marked...)
		case w.is("and") && len(all) > 0:
		default:
			return all
		}
		r.words = r.words[1:]
	}
	return all
}

// takePipe takes a pipe: its id, or its letter with its place where several have it.
func (r *reading) takePipe() (string, error) {
	if len(r.words) == 0 {
		return "", r.wrong("a pipe is missing")
	}
	first := r.words[0]
	if id, _, ok := r.known.pipe(first.trimmed()); ok && r.known.flat().Edge(first.trimmed()) >= 0 {
		r.words = r.words[1:]
		return id, nil
	}
	var several []string
	for n := min(6, len(r.words)); n > 0; n-- {
		var name []string
		for _, w := range r.words[:n] {
			name = append(name, w.text)
		}
		id, more, ok := r.known.pipe(strings.TrimRight(strings.Join(name, " "), ",;"))
		if ok {
			r.words = r.words[n:]
			return id, nil
		}
		several = append(several, more...)
	}
	if len(several) > 0 {
		return "", wrong(first.at, "say which: "+fewest(several, ""), "%s is several pieces", first.trimmed())
	}
	return "", wrong(first.at, "name one by its letter or as p1, p2, …", "there is no pipe %q", first.trimmed())
}

// isPipe says whether a pipe is named next.
func (r *reading) isPipe() bool {
	look := *r
	_, err := look.takePipe()
	return err == nil
}

// takePart takes a part, whose name may be two words: foot 1.
func (r *reading) takePart() (string, bool) {
	for n := min(4, len(r.words)); n > 0; n-- {
		var name []string
		for _, w := range r.words[:n] {
			name = append(name, w.text)
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
	n, err := strconv.Atoi(r.words[0].trimmed())
	if err != nil {
		return 0, r.wrong("%q is no number", r.words[0].text)
	}
	r.words = r.words[1:]
	return n, nil
}

// takeDegrees takes an angle.
func (r *reading) takeDegrees() (float64, error) {
	if len(r.words) == 0 {
		return 0, r.wrong("an angle is missing")
	}
	v, err := strconv.ParseFloat(strings.Replace(strings.TrimSuffix(r.words[0].trimmed(), "°"), "−", "-", 1), 64)
	if err != nil {
		return 0, r.wrong("%q is no angle in degrees", r.words[0].text)
	}
	r.words = r.words[1:]
	if len(r.words) > 0 && r.words[0].is("degrees") {
		r.words = r.words[1:]
	}
	return v, nil
}

func (r *reading) takeAxis() (measure.Axis, error) {
	if len(r.words) > 0 {
		if a := frame.AxisOf(strings.ToLower(r.words[0].trimmed())); a >= 0 {
			r.words = r.words[1:]
			return measure.Axis(a), nil
		}
	}
	return 0, r.wrong("x, y or z is missing")
}

// said are directions as they are written in lines: a word, two, or three numbers.
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

// slots are the kinds of slots, by their names in the table of forms.
var slots map[string]filler

func init() {
	slots = map[string]filler{
		"joint": one("joint", func(r *reading, w word) (string, error) {
			id, ok := r.known.joint(w.trimmed())
			if !ok {
				return "", wrong(w.at, "name one that is there, as j1; the line that made it may be gone", "there is no joint %q", w.trimmed())
			}
			return id, nil
		}, quoted),
		"name": one("name", func(_ *reading, w word) (string, error) { return w.trimmed(), nil }, quoted),
		"size": one("size", func(r *reading, w word) (string, error) {
			size := strings.TrimSuffix(w.trimmed(), `"`)
			if size == "usual" {
				return "", nil
			}
			if !catalog.Size(size).Known() {
				return "", wrong(w.at, "use a nominal size such as 3/4", "no pipe size %q", w.text)
			}
			return size, nil
		}, func(s string) string { return s }),
		"size or usual": {says: "size", read: func(r *reading, s *slot, stops []string) error {
			return slots["size"].read(r, s, stops)
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			if size := v.FieldByName(s.fields[0]).String(); size != "" {
				return size, true
			}
			return "usual", true
		}},
		"group": one("part", func(r *reading, w word) (string, error) {
			for i := range r.known.Document.Groups {
				if g := &r.known.Document.Groups[i]; strings.EqualFold(g.ID, w.trimmed()) || strings.EqualFold(g.Name, w.trimmed()) {
					return g.ID, nil
				}
			}
			return "", wrong(w.at, "name a group of this frame", "there is no group %q", w.trimmed())
		}, quoted),
		"said": one("size", func(r *reading, w word) (string, error) {
			if r.known.Document.SizeOf(w.trimmed()) == nil {
				return "", wrong(w.at, "name one that is there", "there is no size %q", w.trimmed())
			}
			return w.trimmed(), nil
		}, quoted),
		"end":   oneOf("end", map[string]string{"cap": string(frame.CappedEnd), "open": string(frame.FreeEnd), "stake": string(frame.StakedEnd), "bare": ""}),
		"link":  oneOf("link", self(frame.LinkKinds())),
		"check": oneOf("kind", self(frame.ClearanceKinds())),
		"mode":  oneOf("mode", map[string]string{"dry": string(frame.Slip), "cemented": string(frame.Cemented), "eased": string(frame.Eased), "pinned": string(frame.Pinned)}),
		"class": oneOf("class", map[string]string{"exact": "", "matched": string(frame.Matched), "trim": string(frame.Trim), "rough": string(frame.Rough), "on-frame": string(frame.OnFrame)}),
		"unit":  oneOf("unit", map[string]string{"in": string(measure.Inches), "inches": string(measure.Inches), "mm": string(measure.Millimetres)}),
		"text": {says: "length", read: func(r *reading, s *slot, stops []string) error {
			text := r.until(stops)
			if text == "" {
				return r.wrong("%s is missing", "a length")
			}
			r.into.FieldByName(s.fields[0]).SetString(text)
			return nil
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			text := strings.TrimSpace(v.FieldByName(s.fields[0]).String())
			return withMeaning(v, text), text != ""
		}},
		"texts": {says: "…, …", read: func(r *reading, s *slot, stops []string) error {
			into := r.into.FieldByName(s.fields[0])
			for k, t := range strings.Split(r.until(stops), ",") {
				t = strings.TrimSpace(t)
				switch {
				case into.Kind() == reflect.Slice:
					into.Set(reflect.Append(into, reflect.ValueOf(r.spot(t))))
				case k < into.Len() && t != "freely":
					into.Index(k).SetString(t)
				}
			}
			return nil
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			at, has := v.FieldByName(s.fields[0]), false
			var all []string
			for k := range at.Len() {
				text := strings.TrimSpace(at.Index(k).String())
				if has = has || text != ""; text == "" {
					text = "freely"
				}
				all = append(all, text)
			}
			return strings.Join(all, ", "), has
		}},
		"number": {says: "number", read: func(r *reading, s *slot, _ []string) error {
			n, err := r.takeNumber("a number")
			r.into.FieldByName(s.fields[0]).SetInt(int64(n))
			return err
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			n := v.FieldByName(s.fields[0]).Int()
			return strconv.FormatInt(n, 10), n != 0
		}},
		"degrees": {says: "degrees", read: func(r *reading, s *slot, _ []string) error {
			v, err := r.takeDegrees()
			r.into.FieldByName(s.fields[0]).SetFloat(v)
			return err
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			by := v.FieldByName(s.fields[0]).Float()
			return strconv.FormatFloat(by, 'g', -1, 64), by != 0
		}},
		"by": {says: "length", read: func(r *reading, s *slot, stops []string) error {
			text := strings.Replace(r.until(stops), "−", "-", 1)
			short, minus := strings.CutPrefix(text, "-")
			l, err := measure.Parse(short, measure.Reading{})
			if err != nil {
				return r.wrong("%q is no length", text)
			}
			if minus {
				l = -l
			}
			r.into.FieldByName(s.fields[0]).SetInt(int64(l))
			return nil
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			l := measure.Length(v.FieldByName(s.fields[0]).Int())
			return exactly(l), l != 0
		}},
		"axis": {says: "axis", read: func(r *reading, s *slot, _ []string) error {
			a, err := r.takeAxis()
			r.into.FieldByName(s.fields[0]).SetInt(int64(a))
			return err
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			return frame.AxisName(int(v.FieldByName(s.fields[0]).Int())), true
		}},
		"joints":     {says: "joints", read: readJoints, write: writeJoints},
		"pairs":      {says: "joint-joint …", read: readPairs, write: writePairs},
		"two joints": {says: "joint joint", read: readTwo, write: writeTwo},
		"pipe": {says: "pipe", read: func(r *reading, s *slot, _ []string) error {
			id, err := r.takePipe()
			r.into.FieldByName(s.fields[0]).SetString(id)
			return err
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			id := v.FieldByName(s.fields[0]).String()
			return quoted(id), id != ""
		}},
		"pipes":  {says: "pipes", read: readThings, write: writeThings},
		"things": {says: "joints and pipes", read: readThings, write: writeThings},
		"part": {says: "part", read: readPart, write: func(v reflect.Value, s *slot) (string, bool) {
			id := v.FieldByName(s.fields[0]).String()
			return quote(id, plainPart), id != ""
		}},
		"plane": {says: "place", read: readPlane, write: writePlane},
		"dirs":  {says: "directions", read: readDirs, write: writeDirs},
		"fitting": {says: "fitting", read: readFitting, write: func(v reflect.Value, s *slot) (string, bool) {
			k := v.FieldByName(s.fields[0]).String()
			return quoted(k), k != ""
		}},
		"turns": {says: "degrees about axis", read: readTurns, write: writeTurns},
		"times": {says: "number", read: func(r *reading, s *slot, _ []string) error {
			if len(r.words) > 0 && r.words[0].is("times") {
				r.words = r.words[1:]
			}
			n, err := r.takeNumber("how many")
			r.into.FieldByName(s.fields[0]).SetInt(int64(n))
			return err
		}, write: func(v reflect.Value, s *slot) (string, bool) {
			return fmt.Sprintf("times %d", v.FieldByName(s.fields[0]).Int()), true
		}},
	}
}

func self[T ~string](all []T) map[string]string {
	m := map[string]string{}
	for _, v := range all {
		m[string(v)] = string(v)
	}
	return m
}

// oneOf is a slot of one of some words, each with its value.
func oneOf(says string, words map[string]string) filler {
	return filler{says: says,
		read: func(r *reading, s *slot, _ []string) error {
			if len(r.words) > 0 {
				if v, ok := words[strings.ToLower(r.words[0].trimmed())]; ok {
					r.into.FieldByName(s.fields[0]).SetString(v)
					r.words = r.words[1:]
					return nil
				}
			}
			var all []string
			for w := range words {
				all = append(all, w)
			}
			slices.Sort(all)
			return wrong(r.end(), "use "+strings.Join(all, ", "), "which %s?", says)
		},
		write: func(v reflect.Value, s *slot) (string, bool) {
			at, best := v.FieldByName(s.fields[0]).String(), ""
			for w, value := range words {
				if value == at && (best == "" || len(w) < len(best)) {
					best = w
				}
			}
			return best, best != ""
		},
	}
}

// spot resolves the name that a place on a pipe begins with: B at 12 from j2.
func (r *reading) spot(text string) string {
	look := *r
	look.words = wordsOf(text)
	if len(look.words) == 0 {
		return text
	}
	if _, ok := r.known.joint(look.words[0].trimmed()); ok {
		return text
	}
	id, err := look.takePipe()
	if err != nil {
		return text
	}
	rest := ""
	if len(look.words) > 0 {
		rest = " " + text[look.words[0].from:]
	}
	return id + rest
}

func readJoints(r *reading, s *slot, _ []string) error {
	all := r.takeJoints()
	if len(all) == 0 {
		if len(r.words) > 0 {
			return wrong(r.end(), "name joints that are there, as j1 j2; the line that made it may be gone", "there is no joint %q", r.words[0].trimmed())
		}
		return r.wrong("a joint is missing")
	}
	if len(s.fields) == 1 {
		r.into.FieldByName(s.fields[0]).Set(reflect.ValueOf(all))
		return nil
	}
	r.into.FieldByName(s.fields[0]).SetString(all[0])
	if len(all) > 1 {
		r.into.FieldByName(s.fields[1]).Set(reflect.ValueOf(all[1:]))
	}
	return nil
}

func listOf(v reflect.Value, s *slot) (all []string) {
	for _, f := range s.fields {
		switch at := v.FieldByName(f); at.Kind() {
		case reflect.String:
			if at.String() != "" {
				all = append(all, at.String())
			}
		default:
			all = append(all, at.Interface().([]string)...)
		}
	}
	return all
}

func writeJoints(v reflect.Value, s *slot) (string, bool) {
	all := listOf(v, s)
	for i := range all {
		all[i] = quoted(all[i])
	}
	return strings.Join(all, " "), len(all) > 0
}

func readTwo(r *reading, s *slot, _ []string) error {
	for k := range 2 {
		if len(r.words) == 0 {
			return r.wrong("a joint is missing")
		}
		id, ok := r.known.joint(r.words[0].trimmed())
		if !ok {
			return wrong(r.end(), "name one that is there", "there is no joint %q", r.words[0].trimmed())
		}
		r.into.FieldByName(s.fields[0]).Index(k).SetString(id)
		r.words = r.words[1:]
	}
	return nil
}

func writeTwo(v reflect.Value, s *slot) (string, bool) {
	at := v.FieldByName(s.fields[0])
	a, b := at.Index(0).String(), at.Index(1).String()
	return quoted(a) + " " + quoted(b), a != "" && b != ""
}

// readThings reads joints and pipes, whichever is named.
func readThings(r *reading, s *slot, _ []string) error {
	n := 0
	for len(r.words) > 0 {
		if joints := r.takeJoints(); len(joints) > 0 {
			if len(s.fields) < 2 {
				return r.wrong("%s is a joint", joints[0])
			}
			at := r.into.FieldByName(s.fields[0])
			at.Set(reflect.AppendSlice(at, reflect.ValueOf(joints)))
			n++
			continue
		}
		if !r.isPipe() {
			break
		}
		id, _ := r.takePipe()
		at := r.into.FieldByName(s.fields[len(s.fields)-1])
		at.Set(reflect.Append(at, reflect.ValueOf(id)))
		n++
	}
	if n > 0 {
		return nil
	}
	if len(r.words) > 0 {
		return wrong(r.end(), "name what is there, as j1 or p1; the line that made it may be gone", "there is no joint or pipe %q", r.words[0].trimmed())
	}
	return r.wrong("a joint or a pipe is missing")
}

func writeThings(v reflect.Value, s *slot) (string, bool) { return writeJoints(v, s) }

func readPart(r *reading, s *slot, _ []string) error {
	part, ok := r.takePart()
	if !ok {
		if len(r.words) > 0 {
			return wrong(r.end(), "name a part of the frame, as foot 1", "there is no part %q", r.words[0].trimmed())
		}
		return r.wrong("a part is missing")
	}
	if r.into.FieldByName(s.fields[0]).SetString(part); s.fields[0] == "Part" {
		r.in, _, _ = cutLast(part) // it stands on the planes of what it is in
	}
	return nil
}

// cutLast parts a path before its last step.
func cutLast(path string) (before, last string, ok bool) {
	i := strings.LastIndexByte(path, '/')
	if i < 0 {
		return "", path, false
	}
	return path[:i], path[i+1:], true
}

func readPlane(r *reading, s *slot, _ []string) error {
	if len(r.words) == 0 {
		return r.wrong("a place is missing")
	}
	w := r.words[0]
	axis, ref, ok := r.known.plane(r.in, w.trimmed())
	if !ok {
		return wrong(w.at, "name one of the rulers', as x2, or a joint on it, as x@j3", "there is no place %q", w.trimmed())
	}
	r.into.FieldByName(s.fields[0]).SetInt(int64(axis))
	r.into.FieldByName(s.fields[1]).SetString(string(ref))
	r.words = r.words[1:]
	return nil
}

func writePlane(v reflect.Value, s *slot) (string, bool) {
	axis := frame.AxisName(int(v.FieldByName(s.fields[0]).Int()))
	ref := v.FieldByName(s.fields[1]).String()
	return quoted(axis + "@" + ref), ref != ""
}

func readDirs(r *reading, s *slot, _ []string) error {
	at := r.into.FieldByName(s.fields[0])
	for len(r.words) > 0 {
		d, ok := wayOf(r.words[0].trimmed())
		if !ok {
			break
		}
		at.Set(reflect.Append(at, reflect.ValueOf(d)))
		r.words = r.words[1:]
	}
	if at.Len() == 0 {
		return r.wrong("which way does it point?")
	}
	return nil
}

func writeDirs(v reflect.Value, s *slot) (string, bool) {
	var all []string
	at := v.FieldByName(s.fields[0])
	for i := range at.Len() {
		all = append(all, wayWords(at.Index(i).Interface().(measure.Dir)))
	}
	return strings.Join(all, " "), len(all) > 0
}

// readFitting reads a fitting by its kind, its words, or the name of a part of the frame's own.
func readFitting(r *reading, s *slot, _ []string) error {
	var kinds []catalog.Kind
	kinds = append(kinds, catalog.JointKinds()...)
	for _, c := range r.known.Document.CustomFittings {
		kinds = append(kinds, c.ID)
	}
	for n := min(4, len(r.words)); n > 0; n-- {
		var name []string
		for _, w := range r.words[:n] {
			name = append(name, w.trimmed())
		}
		said := strings.ToLower(strings.Join(name, " "))
		for _, k := range kinds {
			if said == strings.ToLower(string(k)) || said == strings.ReplaceAll(string(k), "-", " ") || said == strings.ToLower(k.Words()) {
				r.into.FieldByName(s.fields[0]).SetString(string(k))
				r.words = r.words[n:]
				return nil
			}
		}
	}
	return r.wrong("which fitting?")
}

func readTurns(r *reading, s *slot, _ []string) error {
	at := r.into.FieldByName(s.fields[0])
	for len(r.words) > 0 {
		by, err := r.takeDegrees()
		if err != nil {
			return err
		}
		if len(r.words) == 0 || !r.words[0].is("about") {
			return r.wrong("about which axis?")
		}
		r.words = r.words[1:]
		a, err := r.takeAxis()
		if err != nil {
			return err
		}
		at.Set(reflect.Append(at, reflect.ValueOf(frame.Turn{About: a, By: by})))
	}
	if at.Len() == 0 {
		return r.wrong("by how much?")
	}
	return nil
}

func writeTurns(v reflect.Value, s *slot) (string, bool) {
	var all []string
	at := v.FieldByName(s.fields[0])
	for i := range at.Len() {
		t := at.Index(i).Interface().(frame.Turn)
		all = append(all, strconv.FormatFloat(t.By, 'g', -1, 64)+" about "+frame.AxisName(int(t.About)))
	}
	return strings.Join(all, ", "), len(all) > 0
}

// readPairs reads pairs of joints, each with a hyphen between: j4-j9 j5-j10.
func readPairs(r *reading, s *slot, _ []string) error {
	var all [][2]string
	for len(r.words) > 0 {
		w := r.words[0].trimmed()
		a, b, ok := strings.Cut(w, "-")
		x, known := r.known.joint(a)
		y, both := r.known.joint(b)
		if !ok {
			break
		}
		if !known || !both {
			return wrong(r.end(), "name two joints that are there, as j4-j9", "there is no pair of joints %q", w)
		}
		all = append(all, [2]string{x, y})
		r.words = r.words[1:]
	}
	if len(all) == 0 {
		return r.wrong("a pair of joints is missing")
	}
	r.into.FieldByName(s.fields[0]).Set(reflect.ValueOf(all))
	return nil
}

func writePairs(v reflect.Value, s *slot) (string, bool) {
	var out []string
	for _, p := range v.FieldByName(s.fields[0]).Interface().([][2]string) {
		if strings.ContainsAny(p[0]+p[1], "-") {
			return unsayable, true
		}
		out = append(out, quoted(p[0]+"-"+p[1]))
	}
	return strings.Join(out, " "), len(out) > 0
}
