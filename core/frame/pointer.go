package frame

import (
	"encoding/json"
	"regexp"
	"strconv"
)

var pointer = regexp.MustCompile(`^/(root|groups/(\d+))/(?:axes/([012])/stations/(\d+)/at|uses/(\d+)/array/pitch)$`)

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
			return &def.Uses[u].Array.Pitch
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
