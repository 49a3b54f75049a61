package frame

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Problem is a place in the document that makes no sense.
type Problem struct {
	Path string `json:"path"` // JSON pointer into the document
	What string `json:"what"`
	Hint string `json:"hint"`
}

// Problems lists everything in a document that makes no sense; it is an error. They come in the order in
// which a document is written: its own fields, the frame's own definition, then
// the groups, each list from its first; what only shows once the groups are put
// in their places comes after that, and excess alone.
type Problems []Problem

func (ps *Problems) add(path, what, hint string) { *ps = append(*ps, Problem{path, what, hint}) }

func (ps Problems) Error() string {
	var ss []string
	for _, p := range ps {
		ss = append(ss, fmt.Sprintf("%s: %s; %s", p.Path, p.What, p.Hint))
	}
	return strings.Join(ss, "\n")
}

func (d *Document) validate(ps *Problems) {
	if d.Format != Format {
		ps.add("/format", fmt.Sprintf("form version %d", d.Format), fmt.Sprintf("this program reads version %d", Format))
	}
	if d.Units != measure.Inches && d.Units != measure.Millimetres {
		ps.add("/units", fmt.Sprintf("unknown unit %q", d.Units), "use in or mm")
	}
	if !d.Size.Known() {
		ps.add("/size", fmt.Sprintf("unknown pipe size %q", d.Size), sizeHint)
	}
	checkMode(ps, "/mode", d.Mode, false)
	for _, m := range slices.Sorted(maps.Keys(d.Seats)) {
		s := d.Seats[m]
		checkMode(ps, "/seats", m, false)
		if !(s > 0 && s <= 1) {
			ps.add("/seats/"+string(m), "a seat outside 0 to 1", "it is the share of the socket the pipe goes in, like 0.85")
		}
	}
	for joint, n := range d.Shown {
		if n < 1 || n > maxRank {
			ps.add("/shown", fmt.Sprintf("the joint %q is shown as number %d", joint, n), "leave it out")
		}
	}
	if d.Serial < 0 || d.Serial > maxRank {
		ps.add("/serial", fmt.Sprintf("a serial number of %d", d.Serial), "leave it out")
	}
	checkPoint(ps, "/origin", d.Origin)
	d.checkModeRules(ps)
	d.checkTolerances(ps)
	d.validateClearanceChecks(ps)
	for i := range d.CustomFittings {
		if field, what, hint := d.CustomFittings[i].Problem(); what != "" {
			ps.add(fmt.Sprintf("/customFittings/%d%s", i, field), what, hint)
		}
	}
	if d.Stance != nil {
		checkTurns(ps, "/stance/turns", d.Stance.Turns)
	}
	ids := &ids{map[string]bool{}, map[string]bool{}}
	d.validateDefinition(ps, &d.Root, "/root", ids)
	seen := map[string]bool{}
	for i := range d.Groups {
		g, where := &d.Groups[i], fmt.Sprintf("/groups/%d", i)
		if g.ID == "" || seen[g.ID] {
			ps.add(where+"/id", fmt.Sprintf("the group id %q is empty or taken", g.ID), "give each group its own id")
		}
		seen[g.ID] = true
		d.validateDefinition(ps, g, where, ids)
	}
}

const directionHint = "give a direction such as 1, 0, 1"

const sizeHint = "use a nominal size: 1/2, 3/4, 1, 1-1/4, 1-1/2, 2, 2-1/2, 3 or 4"

func checkMode(ps *Problems, path string, m Mode, optional bool) {
	if !(optional && m == "") && !slices.Contains(Modes(), m) {
		ps.add(path, fmt.Sprintf("unknown mode %q", m), "use cemented, slip, eased or pinned")
	}
}

func checkSize(ps *Problems, path string, s catalog.Size) {
	if s != "" && !s.Known() {
		ps.add(path, fmt.Sprintf("unknown pipe size %q", s), sizeHint)
	}
}

func (d *Document) validateDefinition(ps *Problems, def *Definition, where string, ids *ids) {
	checkSize(ps, where+"/size", def.Size)
	checkMode(ps, where+"/mode", def.Mode, true)
	def.checkLinks(ps, where)
	for a := range def.Planes {
		seen := map[string]bool{}
		for i, p := range def.Planes[a] {
			if p.ID == "" || seen[p.ID] || strings.ContainsAny(p.ID, "=/") || Ref(p.ID) == Floor {
				ps.add(
					fmt.Sprintf("%s/planes/%d/%d/id", where, a, i),
					fmt.Sprintf("the name %q of a plane is empty, taken or reserved", p.ID),
					"give each plane of an axis a name of its own, without = and /",
				)
			}
			seen[p.ID] = true
		}
	}
	for i, j := range def.Joints {
		path := fmt.Sprintf("%s/joints/%d", where, i)
		if j.Name != "" && slices.ContainsFunc(def.Joints[:i], func(k Joint) bool { return k.Name == j.Name }) {
			ps.add(path+"/name", fmt.Sprintf("two joints are called %q", j.Name), "give one of them another name")
		}
		for a, on := range j.On {
			if on != "" && !def.HasPlane(a, on) {
				ps.add(
					fmt.Sprintf("%s/on/%d", path, a),
					fmt.Sprintf("the joint %q stands on no plane %q of the %s axis", j.ID, on, measure.Axis(a)),
					"name a plane of this group",
				)
			}
		}
		checkMode(ps, path+"/mode", j.Mode, true)
		if j.Fitting != nil {
			for k, spare := range j.Fitting.Spare {
				if !direction(spare) {
					ps.add(fmt.Sprintf("%s/fitting/spare/%d", path, k), "a direction of no length, or of one beyond telling", directionHint)
				}
			}
		}
		if j.Later != nil {
			known := j.Later.Kind.Known() ||
				slices.ContainsFunc(d.CustomFittings, func(c catalog.Custom) bool { return c.ID == j.Later.Kind })
			if !known || slices.ContainsFunc(j.Later.Spare, func(s measure.Dir) bool { return !direction(s) }) {
				ps.add(
					path+"/later",
					fmt.Sprintf("unknown fitting %q, or a direction of no length", j.Later.Kind),
					"use a kind such as tee or cross",
				)
			}
		}
		switch {
		case j.ID == "":
			ps.add(path+"/id", "a joint without an id", "give it one")
		case !slices.Contains(Ends(), j.End):
			ps.add(path+"/end", fmt.Sprintf("unknown end %q", j.End), "use cap, free or stake, or leave it out for an open end")
		case j.Fitting != nil && !j.Fitting.Kind.Known() &&
			!slices.ContainsFunc(d.CustomFittings, func(c catalog.Custom) bool { return c.ID == j.Fitting.Kind }):
			ps.add(path+"/fitting", fmt.Sprintf("unknown fitting %q", j.Fitting.Kind), "use a kind such as tee or cross")
		case j.Fitting != nil && j.End == CappedEnd && j.Fitting.Kind != catalog.Cap:
			ps.add(path+"/end", fmt.Sprintf("the joint %q has a fitting and a cap", j.ID), "keep one of them")
		}
	}
	for i, p := range def.Pipes {
		path := fmt.Sprintf("%s/pipes/%d", where, i)
		checkSize(ps, path+"/size", p.Size)
		switch {
		case p.ID == "":
			ps.add(path+"/id", "a pipe without an id", "give it one")
		case p.Dir != nil && !direction(*p.Dir):
			ps.add(path+"/dir", "a direction of no length, or of one beyond telling", directionHint)
		}
		checkRank(ps, path, p.Rank)
		def.checkPath(ps, &p, path)
		if p.AtEnd != nil {
			for k := range p.AtEnd {
				checkMode(ps, fmt.Sprintf("%s/atEnd/%d/mode", path, k), p.AtEnd[k].Mode, true)
			}
		}
	}
	for i := range def.Sizes {
		d.checkStated(ps, def, &def.Sizes[i], fmt.Sprintf("%s/sizes/%d", where, i), ids)
	}
	for i := range def.Reasons {
		d.checkReason(ps, def, &def.Reasons[i], fmt.Sprintf("%s/reasons/%d", where, i), ids)
	}
	for i, u := range def.Uses {
		path := fmt.Sprintf("%s/uses/%d", where, i)
		checkSize(ps, path+"/size", u.Size)
		checkMode(ps, path+"/mode", u.Mode, true)
		g := d.Group(u.Of)
		switch {
		case u.ID == "" || strings.ContainsAny(u.ID, "/#"):
			ps.add(path+"/id", "a use without an id, or with / or # in it", "give it one")
		case g == nil:
			ps.add(path+"/of", fmt.Sprintf("there is no group %q", u.Of), "name a group of this document")
		case !slices.Contains([]string{"", "x", "y", "z"}, u.Mirror):
			ps.add(path+"/mirror", fmt.Sprintf("unknown mirror %q", u.Mirror), "use x, y or z")
		}
		for a := range 3 {
			d.checkPlace(ps, def, u.At[a], a, fmt.Sprintf("%s/at/%d", path, a))
			if g != nil {
				d.checkPlace(ps, g, u.Anchor[a], a, fmt.Sprintf("%s/anchor/%d", path, a))
			}
		}
		if a := u.Array; a != nil {
			switch {
			case a.Count < 1 || a.Count > maxCopies:
				ps.add(path+"/array/count", fmt.Sprintf("%d copies", a.Count), fmt.Sprintf("use 1 to %d", maxCopies))
			case a.Axis < measure.X || a.Axis > measure.Z:
				ps.add(path+"/array/axis", "no such axis", "use 0, 1 or 2 for x, y or z")
			case a.Joins() && g != nil:
				for k, pair := range a.Joined {
					if !d.Names(g, JointRef, pair[0]) || !d.Names(g, JointRef, pair[1]) {
						ps.add(
							fmt.Sprintf("%s/array/joined/%d", path, k),
							fmt.Sprintf("the group %q has no joint %q or %q", u.Of, pair[0], pair[1]),
							"name two joints of the group",
						)
					}
				}
			case a.Pitch == nil && !a.Joins():
				ps.add(path+"/array/pitch", "copies at no distance", "give a pitch, or the joints that copies share")
			case a.Pitch != nil:
				ids.size(ps, a.Pitch, path+"/array/pitch")
				checkMeaning(ps, path+"/array/pitch", a.Pitch)
			}
		}
		checkTurns(ps, path+"/turns", u.Turns)
		checkRank(ps, path, u.Rank)
	}
}

// ids are those that are of the whole document.
type ids struct{ sizes, reasons map[string]bool }

func (n *ids) size(ps *Problems, s *Size, where string) {
	if s.ID == "" || n.sizes[s.ID] {
		ps.add(where+"/id", fmt.Sprintf("the id %q of a size is empty or taken", s.ID), "give each size of the document its own id")
	}
	n.sizes[s.ID] = true
}

// checkPlace checks a reference to a joint or a named plane.
func (d *Document) checkPlace(ps *Problems, def *Definition, r Ref, axis int, where string) {
	if r == "" {
		return
	}
	if def.Joint(string(r)) != nil {
		return
	}
	path, name, plane := r.Parts()
	in := d.Inside(def, path)
	switch {
	case in == nil:
		ps.add(where, fmt.Sprintf("there is no part %q", path), "name a use of this group")
	case plane && axis >= 0 && path == "" && !in.HasPlane(axis, name), plane && !d.Names(in, PlaneRef, name):
		ps.add(where, fmt.Sprintf("there is no plane %q", name), "name a plane of that axis")
	case !plane && in.Joint(name) == nil:
		ps.add(where, fmt.Sprintf("there is no joint %q", string(r)), "name a joint of this group or of a group used in it")
	}
}

func (d *Document) checkStated(ps *Problems, def *Definition, s *Size, where string, ids *ids) {
	ids.size(ps, s, where)
	checkMeaning(ps, where, s)
	axis := AxisOf(s.Axis)
	if s.From != Floor {
		d.checkPlace(ps, def, s.From, axis, where+"/from")
	}
	d.checkPlace(ps, def, s.To, axis, where+"/to")
	height := s.Meaning == TopOfPipe || s.Meaning == TopOfCap
	switch {
	case s.Axis != "" && axis < 0:
		ps.add(where+"/axis", fmt.Sprintf("no axis %q", s.Axis), "use x, y or z")
	case s.Pipe != "" && !d.Names(def, PipeRef, s.Pipe):
		ps.add(where+"/pipe", fmt.Sprintf("there is no pipe %q", s.Pipe), "name a pipe of this group")
	case s.Foot != "" && !d.Names(def, JointRef, s.Foot):
		ps.add(where+"/foot", fmt.Sprintf("there is no joint %q", s.Foot), "name a joint of this group")
	case s.Pipe == "" && (s.From == "" || s.To == "" || s.From == s.To), s.Axis != "" && (s.From == "" || s.To == ""):
		ps.add(where, "a size of nothing", "name the pipe, or two joints or planes that it lies between")
	case s.From == Floor && (axis != 2 || !slices.Contains([]Meaning{TopOfPipe, TopOfCap, Outside, Centre}, s.Meaning)):
		ps.add(
			where+"/meaning",
			fmt.Sprintf("%q is not measured from the floor", s.Meaning),
			"a height goes along z and means top-of-pipe, top-of-cap, outside or centre",
		)
	case s.From != Floor && height:
		ps.add(where+"/from", fmt.Sprintf("%q is measured from the floor", s.Meaning), "measure it from floor")
	case (s.Meaning == Visible || s.Meaning == Cut) && s.Pipe == "":
		ps.add(where+"/pipe", "which pipe is meant?", "name the pipe that has this length")
	case s.Pipe != "" && s.Axis == "" && !d.sprung(def, s.Pipe) &&
		(s.Meaning == Slot || s.Meaning == Outside || s.Meaning == Clear) && (s.From != "" || s.To != ""):
		ps.add(where, "a pipe's size that lies between other things too", "leave from and to out")
	}
}

func (d *Document) sprung(def *Definition, pipe string) bool {
	if p := def.Pipe(pipe); p != nil {
		return p.Path == Sprung
	}
	path, name, _ := Ref(pipe).Parts()
	in := d.Inside(def, path)
	return in != nil && in.Pipe(name) != nil && in.Pipe(name).Path == Sprung
}

func (d *Document) checkReason(ps *Problems, def *Definition, t *Reason, where string, ids *ids) {
	if t.ID == "" || ids.reasons[t.ID] {
		ps.add(where+"/id", fmt.Sprintf("the id %q of a reason is empty or taken", t.ID), "give each reason of the document its own id")
	}
	ids.reasons[t.ID] = true
	axis := AxisOf(t.Axis)
	if !slices.Contains(ReasonKinds(), t.Kind) {
		ps.add(where+"/kind", fmt.Sprintf("unknown reason %q", t.Kind), "use level, share, equal, line, toward or placed")
		return
	}
	need := map[ReasonKind][]Ref{
		Level: {t.Of, t.To}, Share: {t.Of, t.From, t.To}, EqualTo: {t.Of, t.From, t.EqualFrom, t.EqualTo},
		Line: {t.Of, t.From}, Toward: {t.Of, t.From, t.To}, Placed: {t.Of, t.From},
	}[t.Kind]
	if slices.Contains(need, "") {
		ps.add(where, fmt.Sprintf("a reason %q of too few things", t.Kind), "name what it is about")
	}
	d.checkPlace(ps, def, t.Of, axis, where+"/of")
	d.checkPlace(ps, def, t.From, axis, where+"/from")
	d.checkPlace(ps, def, t.To, axis, where+"/to")
	d.checkPlace(ps, def, t.EqualFrom, AxisOf(t.EqualAxis), where+"/likeFrom")
	d.checkPlace(ps, def, t.EqualTo, AxisOf(t.EqualAxis), where+"/likeTo")
	switch {
	case axis < 0 && (t.Axis != "" || t.Kind == Level || t.Kind == EqualTo):
		ps.add(where+"/axis", fmt.Sprintf("no axis %q", t.Axis), "use x, y or z")
	case t.Kind == EqualTo && AxisOf(t.EqualAxis) < 0:
		ps.add(where+"/likeAxis", fmt.Sprintf("no axis %q", t.EqualAxis), "use x, y or z")
	case t.Kind == Line && t.Dir == nil, t.Dir != nil && !direction(*t.Dir):
		ps.add(where+"/dir", "a direction of no length, or of one beyond telling", directionHint)
	case !(math.Abs(t.Share) <= 1000) || t.Kind == Share && t.Share != 0 && (t.Part != 0 || t.Parts != 0):
		ps.add(where+"/share", fmt.Sprintf("a share of %g", t.Share), "use a share such as 0.5, without part and parts")
	case t.Part < 0 || t.Parts < 0 || max(t.Part, t.Parts) > maxCopies+1 ||
		t.Kind == Share && t.Share == 0 && (t.Part < 1 || t.Part >= t.Parts):
		ps.add(where+"/part", fmt.Sprintf("part %d of %d", t.Part, t.Parts), "use a part from 1 to one less than the parts")
	}
	checkPoint(ps, where+"/by", t.By)
	checkRank(ps, where, t.Rank)
}

// checkPoint checks that a point is not out of reach.
func checkPoint(ps *Problems, where string, p measure.Point) {
	for a := range p {
		if p[a] > measure.FrameLimit || p[a] < -measure.FrameLimit {
			ps.add(fmt.Sprintf("%s/%d", where, a), "farther away than 1,000 ft", "check the units")
		}
	}
}

// maxRank is the largest number in an order of typing.
const maxRank = 1_000_000_000

func checkRank(ps *Problems, where string, rank int) {
	if rank < -maxRank || rank > maxRank {
		ps.add(where+"/rank", fmt.Sprintf("a rank of %d", rank), "leave it out")
	}
}

// direction says whether a direction can be told: its length is from a
// millionth to a million.
func direction(d measure.Dir) bool {
	n := math.Hypot(math.Hypot(d[0], d[1]), d[2])
	return n >= 1e-6 && n <= 1e6
}

func checkTurns(ps *Problems, path string, turns []Turn) {
	for i, t := range turns {
		if t.About < measure.X || t.About > measure.Z {
			ps.add(fmt.Sprintf("%s/%d/about", path, i), "no such axis", "use 0, 1 or 2 for x, y or z")
		}
		if !(t.By >= -360 && t.By <= 360) {
			ps.add(fmt.Sprintf("%s/%d/by", path, i), "a turn of more than a full one", "use degrees from -360 to 360")
		}
	}
}

// checkMeaning checks what a size says by itself.
func checkMeaning(ps *Problems, where string, s *Size) {
	switch {
	case !slices.Contains(Meanings(), s.Meaning):
		ps.add(
			where+"/meaning",
			fmt.Sprintf("unknown meaning %q", s.Meaning),
			"use centre, outside, clear, top-of-pipe, top-of-cap, slot, visible or cut",
		)
	case s.Value < 0 || s.Value > measure.FrameLimit:
		ps.add(where+"/value", "a size below zero or over 1,000 ft", "sizes are positive: name first what it is measured from")
	case s.Rank < -maxRank || s.Rank > maxRank:
		checkRank(ps, where, s.Rank)
	case s.Unit != "" && s.Unit != measure.Inches && s.Unit != measure.Millimetres:
		ps.add(where+"/unit", fmt.Sprintf("unknown unit %q", s.Unit), "use in or mm")
	}
}
