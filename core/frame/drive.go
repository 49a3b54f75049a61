package frame

import (
	"fmt"
	"slices"
)

func (d *Document) checkDrives(ps *Problems) {
	seen := map[string]bool{}
	gives := map[string]bool{}
	for i := range d.Drives {
		r, where := &d.Drives[i], fmt.Sprintf("/drives/%d", i)
		size := r.Size
		size.Of = "its own" // a drive names its pipe itself
		checkMeaning(ps, where+"/size", &size)
		ofPipe := r.Pipe != ""
		switch m := r.Size.Meaning; {
		case r.ID == "" || seen[r.ID]:
			ps.add(where+"/id", fmt.Sprintf("the id %q is empty or taken", r.ID), "give each such size its own id")
		case ofPipe == (r.Ends != [2]string{}):
			ps.add(where, "a size of nothing, or of two things", "name a pipe, or two joints")
		case m == TopOfPipe || m == TopOfCap:
			ps.add(where+"/size/meaning", fmt.Sprintf("%q is measured from the floor", m), "give the level that size instead")
		case ofPipe && (m == Slot || m == Outside || m == Clear):
			ps.add(where+"/size/meaning", fmt.Sprintf("a pipe has no size %q", m), "use centre, visible or cut, or name two joints")
		case !ofPipe && (m == Visible || m == Cut):
			ps.add(where+"/size/meaning", fmt.Sprintf("%q is the size of a pipe", m), "name the pipe")
		case r.Gives != "" && d.Dimension(r.Gives) == nil:
			ps.add(where+"/gives", fmt.Sprintf("there is no size at %q to give way", r.Gives), "name another one")
		case r.Gives != "" && gives[r.Gives]:
			ps.add(where+"/gives", "one size cannot give way to two others", "let each have its own")
		}
		seen[r.ID], gives[r.Gives] = true, true
	}
}

// FromFloor says whether a station on the z axis of a definition is placed,
// directly or not, by its height from the floor. "" is the first station.
func (def *Definition) FromFloor(id string) bool {
	st := def.Axes[2].Stations
	if id == "" && len(st) > 0 {
		id = st[0].ID
	}
	seen := map[string]bool{}
	var ask func(id string) bool
	ask = func(id string) bool {
		if id == Floor {
			return true
		}
		for i := range st {
			if st[i].ID != id || seen[id] {
				continue
			}
			seen[id] = true
			if st[i].At != nil && st[i].At.From == Floor {
				return true
			}
			return slices.ContainsFunc(st[i].after(), ask)
		}
		return false
	}
	return ask(id)
}
