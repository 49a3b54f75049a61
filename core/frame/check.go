package frame

import (
	"fmt"
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

// Problems is every nonsense found; it is an error.
type Problems []Problem

func (ps *Problems) add(path, what, hint string) { *ps = append(*ps, Problem{path, what, hint}) }

func (ps Problems) Error() string {
	var ss []string
	for _, p := range ps {
		ss = append(ss, fmt.Sprintf("%s: %s; %s", p.Path, p.What, p.Hint))
	}
	return strings.Join(ss, "\n")
}

func (d *Document) check(ps *Problems) {
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
	for m, s := range d.Seats {
		checkMode(ps, "/seats", m, false)
		if !(s > 0 && s <= 1) {
			ps.add("/seats/"+string(m), "a seat outside 0 to 1", "it is the share of the socket the pipe goes in, like 0.85")
		}
	}
	d.checkHolds(ps)
	d.checkDrives(ps)
	d.checkTolerances(ps)
	d.checkEnvelopes(ps)
	for i := range d.Parts {
		if what, hint := d.Parts[i].Problem(); what != "" {
			ps.add(fmt.Sprintf("/parts/%d", i), what, hint)
		}
	}
	if d.Stance != nil {
		checkTurns(ps, "/stance/turns", d.Stance.Turns)
	}
	d.checkDefinition(ps, &d.Root, "/root")
	seen := map[string]bool{}
	for i := range d.Groups {
		g, where := &d.Groups[i], fmt.Sprintf("/groups/%d", i)
		if g.ID == "" || seen[g.ID] {
			ps.add(where+"/id", fmt.Sprintf("the group id %q is empty or taken", g.ID), "give each group its own id")
		}
		seen[g.ID] = true
		d.checkDefinition(ps, g, where)
	}
}

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

func (d *Document) checkDefinition(ps *Problems, def *Definition, where string) {
	checkSize(ps, where+"/size", def.Size)
	checkMode(ps, where+"/mode", def.Mode, true)
	def.checkLinks(ps, where)
	known := [3]map[string]bool{}
	for a := range def.Axes {
		known[a] = def.checkAxis(ps, measure.Axis(a), fmt.Sprintf("%s/axes/%d", where, a))
	}
	on := func(at [3]string, path, what string) {
		for a, s := range at {
			if !known[a][s] {
				ps.add(fmt.Sprintf("%s/at/%d", path, a), fmt.Sprintf("%s stands on no station %q of the %s axis", what, s, measure.Axis(a)), "name a station of this group")
			}
		}
	}
	for i, j := range def.Joints {
		path := fmt.Sprintf("%s/joints/%d", where, i)
		if j.Walk == nil {
			on(j.At, path, fmt.Sprintf("the joint %q", j.ID))
		} else {
			def.checkWalk(ps, &j, path, known)
		}
		checkMode(ps, path+"/mode", j.Mode, true)
		switch {
		case j.ID == "":
			ps.add(path+"/id", "a joint without an id", "give it one")
		case !slices.Contains(Ends(), j.End):
			ps.add(path+"/end", fmt.Sprintf("unknown end %q", j.End), "use cap, free or stake, or leave it out for an open end")
		case j.Fitting != nil && !j.Fitting.Kind.Known() && !slices.ContainsFunc(d.Parts, func(c catalog.Custom) bool { return c.ID == j.Fitting.Kind }):
			ps.add(path+"/fitting", fmt.Sprintf("unknown fitting %q", j.Fitting.Kind), "use a kind such as tee or cross")
		case j.Fitting != nil && j.End == CappedEnd && j.Fitting.Kind != catalog.Cap:
			ps.add(path+"/end", fmt.Sprintf("the joint %q has a fitting and a cap", j.ID), "keep one of them")
		}
	}
	for i, p := range def.Pipes {
		path := fmt.Sprintf("%s/pipes/%d", where, i)
		checkSize(ps, path+"/size", p.Size)
		if p.ID == "" {
			ps.add(path+"/id", "a pipe without an id", "give it one")
		}
		def.checkPath(ps, &p, path)
		if p.AtEnd != nil {
			for k := range p.AtEnd {
				checkMode(ps, fmt.Sprintf("%s/atEnd/%d/mode", path, k), p.AtEnd[k].Mode, true)
			}
		}
	}
	for i, u := range def.Uses {
		path := fmt.Sprintf("%s/uses/%d", where, i)
		on(u.At, path, fmt.Sprintf("the use %q", u.ID))
		checkSize(ps, path+"/size", u.Size)
		checkMode(ps, path+"/mode", u.Mode, true)
		switch {
		case u.ID == "":
			ps.add(path+"/id", "a use without an id", "give it one")
		case d.Group(u.Of) == nil:
			ps.add(path+"/of", fmt.Sprintf("there is no group %q", u.Of), "name a group of this document")
		case !slices.Contains([]string{"", "x", "y", "z"}, u.Mirror):
			ps.add(path+"/mirror", fmt.Sprintf("unknown mirror %q", u.Mirror), "use x, y or z")
		}
		if g := d.Group(u.Of); g != nil {
			for a, st := range u.Anchor {
				if a == int(measure.Z) && g.FromFloor(st) {
					ps.add(fmt.Sprintf("%s/anchor/%d", path, a), fmt.Sprintf("the group %q is held at the station %q, whose height the floor decides", u.Of, st), "hold it at another station, or measure that one from a station")
				}
				if st != "" && !slices.ContainsFunc(g.Axes[a].Stations, func(s Station) bool { return s.ID == st }) {
					ps.add(fmt.Sprintf("%s/anchor/%d", path, a), fmt.Sprintf("the group %q has no station %q", u.Of, st), "name a station of the group")
				}
			}
		}
		if a := u.Array; a != nil {
			if a.Count < 1 || a.Count > maxCopies {
				ps.add(path+"/array/count", fmt.Sprintf("%d copies", a.Count), fmt.Sprintf("use 1 to %d", maxCopies))
			}
			if a.Axis < measure.X || a.Axis > measure.Z {
				ps.add(path+"/array/axis", "no such axis", "use 0, 1 or 2 for x, y or z")
				continue
			}
			switch {
			case a.Joined != nil:
				d.checkJoined(ps, &u, path)
			case a.Pitch == nil:
				ps.add(path+"/array/pitch", "copies at no distance", "give a pitch, or the two stations that copies share")
			default:
				pitch := *a.Pitch
				pitch.From = u.At[a.Axis]
				checkDimension(ps, path+"/array/pitch", &pitch, a.Axis, known[a.Axis])
			}
		}
		checkTurns(ps, path+"/turns", u.Turns)
	}
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

// checkJoined checks an array whose copies share what stands on two stations.
func (d *Document) checkJoined(ps *Problems, u *Use, path string) {
	g := d.Group(u.Of)
	if g == nil {
		return // said already
	}
	along, square := u.along(u.Array.Axis)
	if !square {
		ps.add(path+"/array/joined", "copies that share stations stand along one of the group's own axes", "turn the group by quarter turns, or give a pitch")
		return
	}
	for k, id := range u.Array.Joined {
		if !slices.ContainsFunc(g.Axes[along].Stations, func(s Station) bool { return s.ID == id }) {
			ps.add(fmt.Sprintf("%s/array/joined/%d", path, k), fmt.Sprintf("the group %q has no station %q on its %s axis", u.Of, id, along), "name a station of the group")
		}
	}
}

func (def *Definition) checkWalk(ps *Problems, j *Joint, path string, known [3]map[string]bool) {
	w := j.Walk
	path += "/walk"
	ways, fars := 0, 0
	for _, is := range []bool{w.Dir != nil, w.Toward != ""} {
		if is {
			ways++
		}
	}
	for _, is := range []bool{w.Size != nil, w.Share != 0, w.Until != nil} {
		if is {
			fars++
		}
	}
	switch {
	case j.At != [3]string{}:
		ps.add(path, fmt.Sprintf("the joint %q stands on stations and is walked to", j.ID), "keep one of them")
	case ways != 1:
		ps.add(path, fmt.Sprintf("the way to joint %q needs a direction or a joint to walk toward", j.ID), "give one of them")
	case w.Dir != nil && w.Dir.Dot(*w.Dir) == 0:
		ps.add(path+"/dir", "a direction of no length", "give a direction such as 1, 0, 1")
	case fars != 1:
		ps.add(path, fmt.Sprintf("how far is joint %q?", j.ID), "give a size, a share of the way, or a station")
	case w.Share != 0 && w.Toward == "":
		ps.add(path+"/share", "a share of no way", "name the joint to walk toward")
	case w.Until != nil && w.Dir == nil:
		ps.add(path+"/until", "a station is reached in a direction", "give the direction")
	case w.Until != nil && (w.Until.Axis < measure.X || w.Until.Axis > measure.Z):
		ps.add(path+"/until/axis", "no such axis", "use 0, 1 or 2 for x, y or z")
	case w.Until != nil && !known[w.Until.Axis][w.Until.Station]:
		ps.add(path+"/until/station", fmt.Sprintf("there is no station %q on the %s axis", w.Until.Station, w.Until.Axis), "name a station of this group")
	case w.Size != nil:
		checkMeaning(ps, path+"/size", w.Size)
		if w.Size.Meaning == TopOfPipe || w.Size.Meaning == TopOfCap {
			ps.add(path+"/size/meaning", fmt.Sprintf("%q is measured from the floor", w.Size.Meaning), "use a level for it")
		}
	}
}

func (def *Definition) checkLike(ps *Problems, s *Station, axis measure.Axis, path string, known map[string]bool) {
	l := s.Like
	has := func(id string) bool {
		return slices.ContainsFunc(def.Axes[l.Axis].Stations, func(o Station) bool { return o.ID == id })
	}
	switch {
	case s.At != nil || s.Split != nil:
		ps.add(path+"/like", fmt.Sprintf("the station %q is placed in two ways", s.ID), "keep one of them")
	case l.Axis < measure.X || l.Axis >= axis:
		ps.add(path+"/like/axis", "a station is like those of an axis before its own", "use x for y, x or y for z")
	case !known[l.From]:
		ps.add(path+"/like/from", fmt.Sprintf("there is no station %q to measure from", l.From), "name a station of this axis")
	case !has(l.Of) || !has(l.To):
		ps.add(path+"/like", fmt.Sprintf("there is no station %q or %q on the %s axis", l.Of, l.To, l.Axis), "name two stations of that axis")
	}
}

// checkMeaning checks what a size says by itself.
func checkMeaning(ps *Problems, where string, d *Dimension) {
	switch {
	case !slices.Contains(Meanings(), d.Meaning):
		ps.add(where+"/meaning", fmt.Sprintf("unknown meaning %q", d.Meaning), "use centre, outside, clear, top-of-pipe, top-of-cap, slot, visible or cut")
	case d.Value < 0 || d.Value > measure.FrameLimit:
		ps.add(where+"/value", "a size below zero or over 1,000 ft", "sizes are positive; turn the direction with back")
	case (d.Meaning == Visible || d.Meaning == Cut) && d.Of == "":
		ps.add(where+"/of", "which pipe is meant?", "name the pipe that has this length")
	}
}

func (def *Definition) checkAxis(ps *Problems, axis measure.Axis, where string) map[string]bool {
	known := map[string]bool{}
	for i, s := range def.Axes[axis].Stations {
		if s.ID == "" || s.ID == Floor || known[s.ID] {
			ps.add(fmt.Sprintf("%s/stations/%d/id", where, i), fmt.Sprintf("the station id %q is empty, taken or reserved", s.ID), "give each station of an axis its own id")
		}
		known[s.ID] = true
	}
	after := map[string][]string{}
	for i, s := range def.Axes[axis].Stations {
		path := fmt.Sprintf("%s/stations/%d", where, i)
		after[s.ID] = s.after()
		if s.Like != nil {
			def.checkLike(ps, &s, axis, path, known)
			continue
		}
		switch sp := s.Split; {
		case sp != nil && s.At != nil:
			ps.add(path+"/split", fmt.Sprintf("the station %q has a dimension and a split", s.ID), "keep one of them")
		case sp != nil && (!known[sp.From] || !known[sp.To]):
			ps.add(path+"/split", fmt.Sprintf("there is no station %q or %q to split between", sp.From, sp.To), "name two stations of this axis")
		case sp != nil && sp.Share != 0 && (sp.Part != 0 || sp.Parts != 0 || math.IsNaN(sp.Share) || math.Abs(sp.Share) > 1000):
			ps.add(path+"/split/share", fmt.Sprintf("a share of %g", sp.Share), "use a share such as 0.5, without part and parts")
		case sp != nil && sp.Share == 0 && (sp.Part < 1 || sp.Part >= sp.Parts):
			ps.add(path+"/split/part", fmt.Sprintf("part %d of %d", sp.Part, sp.Parts), "use a part from 1 to one less than the parts")
		case s.At != nil:
			checkDimension(ps, path+"/at", s.At, axis, known)
		}
	}
	state := map[string]int{} // 1: being followed, 2: known to end at the origin
	var follow func(id string) bool
	follow = func(id string) bool {
		if state[id] == 1 {
			return false
		}
		ok := true
		if state[id] == 0 {
			state[id] = 1
			for _, before := range after[id] {
				ok = ok && follow(before)
			}
			state[id] = 2
		}
		return ok
	}
	for i, s := range def.Axes[axis].Stations {
		if !follow(s.ID) {
			ps.add(fmt.Sprintf("%s/stations/%d/at/from", where, i), fmt.Sprintf("the station %q is measured from itself, round a ring of dimensions", s.ID), "measure one of them from the origin")
			break
		}
	}
	return known
}

func checkDimension(ps *Problems, where string, d *Dimension, axis measure.Axis, known map[string]bool) {
	fromFloor := d.From == Floor && axis == measure.Z
	checkMeaning(ps, where, d)
	switch {
	case !slices.Contains(Meanings(), d.Meaning):
	case !fromFloor && !known[d.From]:
		ps.add(where+"/from", fmt.Sprintf("there is no station %q to measure from", d.From), "name a station of this axis")
	case fromFloor && !slices.Contains([]Meaning{TopOfPipe, TopOfCap, Outside, Centre}, d.Meaning):
		ps.add(where+"/meaning", fmt.Sprintf("%q is not measured from the floor", d.Meaning), "use top-of-pipe, top-of-cap, outside or centre")
	case !fromFloor && (d.Meaning == TopOfPipe || d.Meaning == TopOfCap):
		ps.add(where+"/from", fmt.Sprintf("%q is measured from the floor", d.Meaning), "measure it from floor")
	}
}
