package lines

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/words"
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
func one(says string, read func(r *reading, w words.Word) (string, error), write func(string) string) filler {
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
		write: writeString(write),
	}
}

// writeString writes a field that is a string, if it says anything.
func writeString(as func(string) string) func(v reflect.Value, s *slot) (string, bool) {
	return func(v reflect.Value, s *slot) (string, bool) {
		text := v.FieldByName(s.fields[0]).String()
		return as(text), text != ""
	}
}

// slots are the kinds of slots, by their names in the table of forms.
var slots map[string]filler

func init() {
	slots = map[string]filler{
		"joint": one("joint", func(r *reading, w words.Word) (string, error) {
			id, ok := r.known.joint(w.Trimmed())
			if !ok {
				return "", wrong(
					w.At,
					"name one that is there, as j1; the line that made it may be gone",
					"there is no joint %q",
					w.Trimmed(),
				)
			}
			return id, nil
		}, words.Quote),
		"name": one("name", func(_ *reading, w words.Word) (string, error) { return w.Trimmed(), nil }, words.Quote),
		"size": one("size", func(r *reading, w words.Word) (string, error) {
			size := strings.TrimSuffix(w.Trimmed(), `"`)
			if size == "usual" {
				return "", nil
			}
			if !catalog.Size(size).Known() {
				return "", wrong(w.At, "use a nominal size such as 3/4", "no pipe size %q", w.Text)
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
		"group": one("part", func(r *reading, w words.Word) (string, error) {
			for i := range r.known.Document.Groups {
				if g := &r.known.Document.Groups[i]; strings.EqualFold(g.ID, w.Trimmed()) || strings.EqualFold(g.Name, w.Trimmed()) {
					return g.ID, nil
				}
			}
			return "", wrong(w.At, "name a group of this frame", "there is no group %q", w.Trimmed())
		}, words.Quote),
		"said": one("size", func(r *reading, w words.Word) (string, error) {
			if r.known.Document.SizeOf(w.Trimmed()) == nil {
				return "", wrong(w.At, "name one that is there", "there is no size %q", w.Trimmed())
			}
			return w.Trimmed(), nil
		}, words.Quote),
		"end": oneOf("end", map[string]frame.End{
			"cap": frame.CappedEnd, "open": frame.FreeEnd, "stake": frame.StakedEnd, "bare": frame.OpenEnd,
		}),
		"link":  oneOf("link", self(frame.LinkKinds())),
		"check": oneOf("kind", self(frame.ClearanceKinds())),
		"mode": oneOf("mode", map[string]frame.Mode{
			"dry": frame.Slip, "cemented": frame.Cemented, "eased": frame.Eased, "pinned": frame.Pinned,
		}),
		"class": oneOf("class", map[string]frame.Class{
			"exact": "", "matched": frame.Matched, "trim": frame.Trim, "rough": frame.Rough, "on-frame": frame.OnFrame,
		}),
		"unit": oneOf("unit", units),
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
		}, write: writeString(words.Quote)},
		"every pipe": {says: "pipe", read: func(r *reading, s *slot, _ []string) error {
			ids, err := r.takePipes()
			if err != nil {
				return err
			}
			r.into.FieldByName(s.fields[0]).SetString(ids[0])
			more := r.into.FieldByName(s.fields[1])
			more.Set(reflect.AppendSlice(more, reflect.ValueOf(ids[1:])))
			return nil
		}, write: writeJoints},
		"pipes":   {says: "pipes", read: readThings, write: writeJoints},
		"things":  {says: "joints and pipes", read: readThings, write: writeJoints},
		"part":    {says: "part", read: readPart, write: writeString(words.QuotePart)},
		"plane":   {says: "place", read: readPlane, write: writePlane},
		"dirs":    {says: "directions", read: readDirs, write: writeDirs},
		"fitting": {says: "fitting", read: readFitting, write: writeString(words.Quote)},
		"turns":   {says: "degrees about axis", read: readTurns, write: writeTurns},
		"times": {says: "number", read: func(r *reading, s *slot, _ []string) error {
			if len(r.words) > 0 && r.words[0].Is("times") {
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

// units is what people say for the unit of bare numbers.
var units = map[string]measure.Unit{
	"in": measure.Inches, "inch": measure.Inches, "inches": measure.Inches,
	"mm": measure.Millimetres, "millimetres": measure.Millimetres, "millimeters": measure.Millimetres,
}

func self[T ~string](all []T) map[string]T {
	m := map[string]T{}
	for _, v := range all {
		m[string(v)] = v
	}
	return m
}

// oneOf is a slot of one of some words, each with its value. Where several mean one value, the
// shortest is written.
func oneOf[T ~string](says string, words map[string]T) filler {
	return filler{says: says,
		read: func(r *reading, s *slot, _ []string) error {
			if len(r.words) > 0 {
				if v, ok := words[strings.ToLower(r.words[0].Trimmed())]; ok {
					r.into.FieldByName(s.fields[0]).SetString(string(v))
					r.words = r.words[1:]
					return nil
				}
			}
			return wrong(r.end(), "use "+strings.Join(slices.Sorted(maps.Keys(words)), ", "), "which %s?", says)
		},
		write: func(v reflect.Value, s *slot) (string, bool) {
			at, best := T(v.FieldByName(s.fields[0]).String()), ""
			for w, value := range words {
				if value == at && (best == "" || len(w) < len(best)) {
					best = w
				}
			}
			return best, best != ""
		},
	}
}
