package frame

import (
	"encoding/json"
	"fmt"
	"regexp"
	"strconv"
)

var pointer = regexp.MustCompile(`^/(root|groups/(\d+))/(?:axes/([012])/stations/(\d+)/at|uses/(\d+)/array/pitch|joints/(\d+)/walk/size|pipes/(\d+)/spring/size)$`)

// Dimension finds the dimension that a JSON pointer names; nil when there is
// none.
func (d *Document) Dimension(path string) *Dimension {
	m := pointer.FindStringSubmatch(path)
	if m == nil {
		return nil
	}
	at := func(s string) int {
		n, err := strconv.Atoi(s)
		if err != nil {
			return -1
		}
		return n
	}
	def := &d.Root
	if m[2] != "" {
		g := at(m[2])
		if g < 0 || g >= len(d.Groups) {
			return nil
		}
		def = &d.Groups[g]
	}
	if m[5] != "" {
		if u := at(m[5]); u >= 0 && u < len(def.Uses) && def.Uses[u].Array != nil {
			return def.Uses[u].Array.Pitch
		}
		return nil
	}
	if m[6] != "" {
		if j := at(m[6]); j >= 0 && j < len(def.Joints) && def.Joints[j].Walk != nil {
			return def.Joints[j].Walk.Size
		}
		return nil
	}
	if m[7] != "" {
		if p := at(m[7]); p >= 0 && p < len(def.Pipes) && def.Pipes[p].Spring != nil {
			return def.Pipes[p].Spring.Size
		}
		return nil
	}
	st := def.Axes[at(m[3])].Stations
	if i := at(m[4]); i >= 0 && i < len(st) {
		return st[i].At
	}
	return nil
}

// Clone gives a copy that shares nothing with the document.
func (d *Document) Clone() *Document {
	data, err := json.Marshal(d)
	if err != nil {
		panic(err) // it is made of plain values
	}
	c := &Document{}
	if err := json.Unmarshal(data, c); err != nil {
		panic(err)
	}
	return c
}

// Dimensions lists the JSON pointers of every dimension of the document.
func (d *Document) Dimensions() []string {
	var all []string
	each := func(def *Definition, where string) {
		for a := range def.Axes {
			for i := range def.Axes[a].Stations {
				if def.Axes[a].Stations[i].At != nil {
					all = append(all, fmt.Sprintf("%s/axes/%d/stations/%d/at", where, a, i))
				}
			}
		}
		for i := range def.Joints {
			if w := def.Joints[i].Walk; w != nil && w.Size != nil {
				all = append(all, fmt.Sprintf("%s/joints/%d/walk/size", where, i))
			}
		}
		for i := range def.Pipes {
			if s := def.Pipes[i].Spring; s != nil && s.Size != nil {
				all = append(all, fmt.Sprintf("%s/pipes/%d/spring/size", where, i))
			}
		}
		for i := range def.Uses {
			if u := &def.Uses[i]; u.Array != nil && u.Array.Pitch != nil {
				all = append(all, fmt.Sprintf("%s/uses/%d/array/pitch", where, i))
			}
		}
	}
	each(&d.Root, "/root")
	for i := range d.Groups {
		each(&d.Groups[i], fmt.Sprintf("/groups/%d", i))
	}
	return all
}

// Definition finds the definition that a dimension's JSON pointer leads into.
func (d *Document) Definition(path string) *Definition {
	m := pointer.FindStringSubmatch(path)
	if m == nil {
		return nil
	}
	if m[2] == "" {
		return &d.Root
	}
	if g, err := strconv.Atoi(m[2]); err == nil && g < len(d.Groups) {
		return &d.Groups[g]
	}
	return nil
}
