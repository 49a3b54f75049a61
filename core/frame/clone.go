package frame

import (
	"encoding/json"
	"fmt"
	"slices"
)

// Clone gives a copy that shares nothing with the document.
func (d *Document) Clone() *Document {
	data, err := json.Marshal(d)
	if err != nil {
		panic(err) // it is made of plain values
	}
	c := &Document{}
	if err := json.Unmarshal(data, (*current)(c)); err != nil {
		panic(err)
	}
	c.Followed = slices.Clone(d.Followed)
	return c
}

// current is a document of this format, without the method that reads older ones.
type current Document

// where is the JSON pointer of a group.
func (d *Document) where(group string) string {
	for i := range d.Groups {
		if d.Groups[i].ID == group {
			return fmt.Sprintf("/groups/%d", i)
		}
	}
	return ""
}
