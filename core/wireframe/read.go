package wireframe

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Version is the form's version.
const Version = 1

type file struct {
	Wireframe int                       `json:"wireframe"`
	Name      string                    `json:"name"`
	Units     measure.Unit              `json:"units"`
	Size      catalog.Size              `json:"size"`
	Mode      frame.Mode                `json:"mode"`
	Seat      map[frame.Mode]float64    `json:"seat,omitempty"`
	Joints    *ordered[[]float64]       `json:"joints"`
	Pipes     []json.RawMessage         `json:"pipes"`
	Ends      *ordered[string]          `json:"ends,omitempty"`
	Modes     *ordered[frame.Mode]      `json:"modes,omitempty"`
	Fittings  *ordered[json.RawMessage] `json:"fittings,omitempty"`
}

type pipe struct {
	From string       `json:"from"`
	To   string       `json:"to"`
	Size catalog.Size `json:"size,omitempty"`
}

type forced struct {
	Kind  catalog.Kind  `json:"kind"`
	Spare []measure.Dir `json:"spare,omitempty"`
}

// Error is one thing wrong in a file.
type Error struct {
	Path string `json:"path"` // JSON pointer
	Line int    `json:"line"` // from 1; 0 when unknown
	What string `json:"what"`
	Hint string `json:"hint"`
}

// Errors is everything wrong in a file; it is an error.
type Errors []Error

func (es Errors) Error() string {
	var ss []string
	for _, e := range es {
		ss = append(ss, fmt.Sprintf("line %d, %s: %s; %s", e.Line, e.Path, e.What, e.Hint))
	}
	return strings.Join(ss, "\n")
}

// farthest is the greatest coordinate accepted.
const farthest = measure.FrameLimit

type reader struct {
	file
	lines map[string]int
	errs  Errors
	doc   frame.Document
	unit  measure.Length
	pipes map[string]int // pipes at each joint
}

// Read reads a wireframe. The error is an [Errors].
func Read(data []byte) (*frame.Document, error) {
	r := &reader{lines: map[string]int{}, pipes: map[string]int{}}
	if err := json.Unmarshal(data, &r.file); err != nil {
		return nil, Errors{syntax(data, err)}
	}
	r.lines = lineMap(data)
	r.head()
	if len(r.errs) == 0 {
		r.joints()
	}
	if len(r.errs) == 0 {
		r.pipesAndEnds()
	}
	if len(r.errs) > 0 {
		return nil, r.errs
	}
	return &r.doc, nil
}

func syntax(data []byte, err error) Error {
	e := Error{Path: "/", What: err.Error(), Hint: "write it as the wireframe form says"}
	at := int64(-1)
	switch x := err.(type) {
	case *json.SyntaxError:
		at, e.What, e.Hint = x.Offset, "not valid JSON: "+x.Error(), "check commas, quotes and brackets before this place"
	case *json.UnmarshalTypeError:
		at, e.Path = x.Offset, "/"+strings.ReplaceAll(x.Field, ".", "/")
		e.What = fmt.Sprintf("%s stands where %s belongs", x.Value, kindWord(x.Type))
	}
	if at >= 0 {
		e.Line = 1 + bytes.Count(data[:min(int(at), len(data))], []byte("\n"))
	}
	return e
}

// kindWord names what JSON calls a Go type.
func kindWord(t reflect.Type) string {
	switch t.Kind() {
	case reflect.Struct, reflect.Map:
		return "an object"
	case reflect.Slice, reflect.Array:
		return "a list"
	case reflect.String:
		return "text"
	}
	return "a number"
}

func (r *reader) fail(path, what, hint string) {
	r.errs = append(r.errs, Error{path, r.lines[path], what, hint})
}

func (r *reader) head() {
	if r.Wireframe != Version {
		r.fail("/wireframe", fmt.Sprintf("wireframe version %d", r.Wireframe), "this program reads version 1")
	}
	d := &r.doc
	d.Format, d.Name, d.Units, d.Size, d.Mode, d.Seats = frame.Format, r.Name, measure.Inches, "3/4", frame.Cemented, r.Seat
	switch r.Units {
	case "", measure.Inches:
		r.unit = measure.Inch
	case measure.Millimetres:
		r.unit, d.Units = measure.Millimetre, measure.Millimetres
	default:
		r.fail("/units", fmt.Sprintf("unknown unit %q", r.Units), "use in or mm")
	}
	if r.Size != "" {
		d.Size = r.Size
	}
	if !d.Size.Known() {
		r.fail("/size", fmt.Sprintf("unknown pipe size %q", d.Size), "use a nominal size such as 3/4")
	}
	if r.Mode != "" {
		d.Mode = r.Mode
	}
	r.mode("/mode", d.Mode)
	for m, s := range r.Seat {
		r.mode("/seat/"+string(m), m)
		if !(s > 0 && s <= 1) {
			r.fail("/seat/"+string(m), fmt.Sprintf("a seat of %g", s), "it is a share of the socket, above 0 and at most 1")
		}
	}
	if r.Joints == nil || len(r.Joints.keys) == 0 {
		r.fail("/joints", "no joints", "name at least two joints with coordinates")
	}
}

func (r *reader) mode(path string, m frame.Mode) {
	if m != frame.Cemented && m != frame.Slip {
		r.fail(path, fmt.Sprintf("unknown mode %q", m), "use cemented or slip")
	}
}

// joints turns coordinates into named planes, each measured from the one before.
func (r *reader) joints() {
	points := make([]measure.Point, len(r.Joints.keys))
	for i, id := range r.Joints.keys {
		c := r.Joints.values[id]
		path := "/joints/" + escape(id)
		if id == "" {
			r.fail(path, "a joint without a name", "give it one")
		}
		if len(c) != 3 {
			r.fail(path, fmt.Sprintf("%d coordinates", len(c)), "give x, y and z")
			continue
		}
		for a, v := range c {
			l := measure.Length(math.Round(v * float64(r.unit)))
			if math.Abs(v)*float64(r.unit) > float64(farthest) {
				r.fail(path, "farther out than 1,000 ft", "check the units")
				break
			}
			points[i][a] = l
		}
	}
	if len(r.errs) > 0 {
		return
	}
	var at [3]map[measure.Length]string
	for a := range 3 {
		at[a] = r.planes(points, a)
	}
	for i, id := range r.Joints.keys {
		p := points[i]
		r.doc.Root.Joints = append(r.doc.Root.Joints, frame.Joint{ID: id, On: [3]string{at[0][p[0]], at[1][p[1]], at[2][p[2]]}})
	}
}

func (r *reader) planes(points []measure.Point, a int) map[measure.Length]string {
	var vs []measure.Length
	for _, p := range points {
		vs = append(vs, p[a])
	}
	slices.Sort(vs)
	vs = slices.Compact(vs)
	style, unit := measure.InInches, measure.Inches
	if r.doc.Units == measure.Millimetres {
		style, unit = measure.Metric, measure.Millimetres
	}
	ids := map[measure.Length]string{}
	root := &r.doc.Root
	for i, v := range vs {
		id := fmt.Sprintf("%s%d", measure.Axis(a), i)
		ids[v] = id
		root.Planes[a] = append(root.Planes[a], frame.Plane{ID: id})
		if i == 0 {
			r.doc.Origin[a] = v
			continue
		}
		d := v - vs[i-1]
		n := len(root.Sizes) + 1
		root.Sizes = append(
			root.Sizes,
			frame.Size{ID: fmt.Sprintf("s%d", n), Rank: n, Value: d, Meaning: frame.Centre, Axis: frame.AxisName(a),
				From: frame.OnPlane(ids[vs[i-1]]), To: frame.OnPlane(id), Text: d.Format(style, 0), Unit: unit},
		)
	}
	return ids
}

func (r *reader) pipesAndEnds() {
	root := &r.doc.Root
	index := map[string]int{}
	for i, id := range r.Joints.keys {
		index[id] = i
	}
	drawn := map[[2]int]bool{}
	taken := map[string]bool{}
	for i, raw := range r.file.Pipes {
		path := fmt.Sprintf("/pipes/%d", i)
		p, ok := readPipe(raw)
		if !ok {
			r.fail(path, "not a pipe", `write it as ["a","b"] or {"from":"a","to":"b","size":"1"}`)
			continue
		}
		a, okA := index[p.From]
		b, okB := index[p.To]
		switch {
		case !okA:
			r.fail(path, fmt.Sprintf("there is no joint %q", p.From), "name a joint under joints")
			continue
		case !okB:
			r.fail(path, fmt.Sprintf("there is no joint %q", p.To), "name a joint under joints")
			continue
		case root.Joints[a].On == root.Joints[b].On:
			r.fail(path, fmt.Sprintf("the pipe from %q to %q has no length", p.From, p.To), "its joints stand at one place; move one")
			continue
		case drawn[[2]int{min(a, b), max(a, b)}]:
			r.fail(path, fmt.Sprintf("a second pipe from %q to %q", p.From, p.To), "remove one of them")
			continue
		case p.Size != "" && !p.Size.Known():
			r.fail(path, fmt.Sprintf("unknown pipe size %q", p.Size), "use a nominal size such as 3/4")
			continue
		}
		drawn[[2]int{min(a, b), max(a, b)}] = true
		id := p.From + "-" + p.To
		for taken[id] {
			id += "'"
		}
		taken[id] = true
		r.pipes[p.From]++
		r.pipes[p.To]++
		root.Pipes = append(root.Pipes, frame.Pipe{ID: id, From: p.From, To: p.To, Size: p.Size})
	}
	each(r, r.Ends, "ends", index, func(j *frame.Joint, path, end string) {
		switch {
		case end != "cap" && end != "open":
			r.fail(path, fmt.Sprintf("unknown end %q", end), "use cap, or leave it out for an open end")
		case r.pipes[j.ID] > 1:
			r.fail(path, fmt.Sprintf("the joint %q has %d pipes", j.ID, r.pipes[j.ID]), "only the end of a single pipe can have a cap")
		case end == "cap":
			j.End = frame.CappedEnd
		}
	})
	each(r, r.Modes, "modes", index, func(j *frame.Joint, path string, m frame.Mode) {
		r.mode(path, m)
		j.Mode = m
	})
	each(r, r.Fittings, "fittings", index, func(j *frame.Joint, path string, raw json.RawMessage) {
		var f forced
		if json.Unmarshal(raw, &f.Kind) != nil && json.Unmarshal(raw, &f) != nil {
			r.fail(path, "not a fitting", `write it as "tee" or {"kind":"tee","spare":[[0,1,0]]}`)
			return
		}
		switch {
		case !f.Kind.Known():
			r.fail(path, fmt.Sprintf("unknown fitting %q", f.Kind), "use a kind such as tee, cross or side-outlet-elbow")
		case slices.Contains(f.Spare, measure.Dir{}):
			r.fail(path, "a spare port without a direction", "give its direction, like [0,1,0]")
		case j.End == frame.CappedEnd && f.Kind != catalog.Cap:
			r.fail(path, fmt.Sprintf("the joint %q has a cap and a %s", j.ID, f.Kind), "keep one of them")
		default:
			j.Fitting = &frame.Forced{Kind: f.Kind, Spare: f.Spare, Unstated: true}
		}
	})
}

func each[T any](r *reader, m *ordered[T], name string, index map[string]int, do func(j *frame.Joint, path string, v T)) {
	if m == nil {
		return
	}
	for _, id := range m.keys {
		path := "/" + name + "/" + escape(id)
		i, ok := index[id]
		if !ok {
			r.fail(path, fmt.Sprintf("there is no joint %q", id), "name a joint under joints")
			continue
		}
		if r.pipes[id] > 0 { // a joint without pipes counts for nothing
			do(&r.doc.Root.Joints[i], path, m.values[id])
		}
	}
}

func readPipe(raw json.RawMessage) (p pipe, ok bool) {
	var ends []string
	if json.Unmarshal(raw, &ends) == nil {
		if len(ends) != 2 {
			return p, false
		}
		return pipe{From: ends[0], To: ends[1]}, true
	}
	return p, json.Unmarshal(raw, &p) == nil && p.From != "" && p.To != ""
}
