package lines

import (
	"reflect"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
)

// spot resolves the name that a place on a pipe begins with: B at 12 from j2.
func (r *reading) spot(text string) string {
	look := *r
	look.words = words.Of(text)
	if len(look.words) == 0 {
		return text
	}
	if _, ok := r.known.joint(look.words[0].Trimmed()); ok {
		return text
	}
	id, err := look.takePipe()
	if err != nil {
		return text
	}
	rest := ""
	if len(look.words) > 0 {
		rest = " " + text[look.words[0].From:]
	}
	return id + rest
}

func readJoints(r *reading, s *slot, _ []string) error {
	all := r.takeJoints()
	if len(all) == 0 {
		if len(r.words) > 0 {
			return wrong(
				r.end(),
				"name joints that are there, as j1 j2; the line that made it may be gone",
				"there is no joint %q",
				r.words[0].Trimmed(),
			)
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

// writeJoints writes what is named: joints, pipes.
func writeJoints(v reflect.Value, s *slot) (string, bool) {
	all := listOf(v, s)
	for i := range all {
		all[i] = words.Quote(all[i])
	}
	return strings.Join(all, " "), len(all) > 0
}

func readTwo(r *reading, s *slot, _ []string) error {
	for k := range 2 {
		if len(r.words) == 0 {
			return r.wrong("a joint is missing")
		}
		id, ok := r.known.joint(r.words[0].Trimmed())
		if !ok {
			return wrong(r.end(), "name one that is there", "there is no joint %q", r.words[0].Trimmed())
		}
		r.into.FieldByName(s.fields[0]).Index(k).SetString(id)
		r.words = r.words[1:]
	}
	return nil
}

func writeTwo(v reflect.Value, s *slot) (string, bool) {
	at := v.FieldByName(s.fields[0])
	a, b := at.Index(0).String(), at.Index(1).String()
	return words.Quote(a) + " " + words.Quote(b), a != "" && b != ""
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
		ids, err := r.takePipes()
		if err != nil {
			break
		}
		at := r.into.FieldByName(s.fields[len(s.fields)-1])
		at.Set(reflect.AppendSlice(at, reflect.ValueOf(ids)))
		n++
	}
	if n > 0 {
		return nil
	}
	if len(r.words) > 0 {
		return wrong(
			r.end(),
			"name what is there, as j1 or p1; the line that made it may be gone",
			"there is no joint or pipe %q",
			r.words[0].Trimmed(),
		)
	}
	return r.wrong("a joint or a pipe is missing")
}

func readPart(r *reading, s *slot, _ []string) error {
	part, ok := r.takePart()
	if !ok {
		if len(r.words) > 0 {
			return wrong(r.end(), "name a part of the frame, as foot 1", "there is no part %q", r.words[0].Trimmed())
		}
		return r.wrong("a part is missing")
	}
	if r.into.FieldByName(s.fields[0]).SetString(part); s.fields[0] == "Part" {
		r.in, _ = cutLast(part) // it stands on the planes of what it is in
	}
	return nil
}

// cutLast parts a path before its last step.
func cutLast(path string) (before, last string) {
	i := strings.LastIndexByte(path, '/')
	if i < 0 {
		return "", path
	}
	return path[:i], path[i+1:]
}

func readPlane(r *reading, s *slot, _ []string) error {
	if len(r.words) == 0 {
		return r.wrong("a place is missing")
	}
	w := r.words[0]
	axis, ref, ok := r.known.plane(r.in, w.Trimmed())
	if !ok {
		return wrong(w.At, "name one of the rulers', as x2, or a joint on it, as x@j3", "there is no place %q", w.Trimmed())
	}
	r.into.FieldByName(s.fields[0]).SetInt(int64(axis))
	r.into.FieldByName(s.fields[1]).SetString(string(ref))
	r.words = r.words[1:]
	return nil
}

func writePlane(v reflect.Value, s *slot) (string, bool) {
	axis := frame.AxisName(int(v.FieldByName(s.fields[0]).Int()))
	ref := v.FieldByName(s.fields[1]).String()
	return words.Quote(axis + "@" + ref), ref != ""
}

func readDirs(r *reading, s *slot, _ []string) error {
	at := r.into.FieldByName(s.fields[0])
	for len(r.words) > 0 {
		d, ok := wayOf(r.words[0].Trimmed())
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
			name = append(name, w.Trimmed())
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
		if len(r.words) == 0 || !r.words[0].Is("about") {
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
		w := r.words[0].Trimmed()
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
			return words.Unsayable, true
		}
		out = append(out, words.Quote(p[0]+"-"+p[1]))
	}
	return strings.Join(out, " "), len(out) > 0
}
