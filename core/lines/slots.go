package lines

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
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

// slots are the kinds of slots, by their names in the table of forms.
var slots map[string]filler

func init() {
	slots = map[string]filler{
		"joint": one("joint", func(r *reading, w word) (string, error) {
			id, ok := r.known.joint(w.trimmed())
			if !ok {
				return "", wrong(
					w.at,
					"name one that is there, as j1; the line that made it may be gone",
					"there is no joint %q",
					w.trimmed(),
				)
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
		"end": oneOf(
			"end",
			map[string]string{"cap": string(frame.CappedEnd), "open": string(frame.FreeEnd), "stake": string(frame.StakedEnd), "bare": ""},
		),
		"link":  oneOf("link", self(frame.LinkKinds())),
		"check": oneOf("kind", self(frame.ClearanceKinds())),
		"mode": oneOf(
			"mode",
			map[string]string{
				"dry":      string(frame.Slip),
				"cemented": string(frame.Cemented),
				"eased":    string(frame.Eased),
				"pinned":   string(frame.Pinned),
			},
		),
		"class": oneOf(
			"class",
			map[string]string{
				"exact":    "",
				"matched":  string(frame.Matched),
				"trim":     string(frame.Trim),
				"rough":    string(frame.Rough),
				"on-frame": string(frame.OnFrame),
			},
		),
		"unit": oneOf(
			"unit",
			map[string]string{"in": string(measure.Inches), "inches": string(measure.Inches), "mm": string(measure.Millimetres)},
		),
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
