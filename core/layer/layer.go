package layer

import (
	"bytes"
	"encoding/json"
	"maps"
	"reflect"
	"slices"

	"sturdyelbow/core/frame"
)

// Kind says what sort of thing a record is about.
type Kind string

// The kinds. A header is what a definition, or the document, says of itself.
const (
	Header    Kind = "header"
	Plane     Kind = "plane" // followed by its axis: plane x
	Joint     Kind = "joint"
	Pipe      Kind = "pipe"
	Size      Kind = "size"
	Reason    Kind = "reason"
	Use       Kind = "use"
	Merge     Kind = "merge"
	Link      Kind = "link"
	Document  Kind = "document"
	Tolerance Kind = "tolerance"
	Envelope  Kind = "envelope"
	Part      Kind = "part"
)

// Record is one thing that differs from the base: added where it was nothing,
// taken away where it is nothing now, and changed otherwise.
type Record struct {
	In   string          `json:"in,omitempty"` // the definition's id; "" for the frame itself
	Kind Kind            `json:"kind"`
	ID   string          `json:"id,omitempty"` // its name there
	Was  json.RawMessage `json:"was,omitempty"`
	Now  json.RawMessage `json:"now,omitempty"`
	// Hangs says of an added joint or use that pipes led from it to the base.
	Hangs bool `json:"hangs,omitempty"`
}

// Added says whether the base did not have the thing at all.
func (r *Record) Added() bool { return len(r.Was) == 0 }

// Gone says whether the thing was taken away.
func (r *Record) Gone() bool { return len(r.Now) == 0 }

func (r *Record) key() key { return key{r.In, r.Kind, r.ID} }

type key struct {
	in   string
	kind Kind
	id   string
}

// Layer is what differs, in the order of the document.
type Layer []Record

// Between gives what differs in a document from the base that it was made from.
// Its cost is linear in both.
func Between(base, now *frame.Document) Layer {
	var l Layer
	was, is := gather(base), gather(now)
	for _, k := range is.order {
		b, had := was.at[k]
		switch {
		case !had:
			l = append(l, Record{In: k.in, Kind: k.kind, ID: k.id, Now: encode(is.at[k])})
		case !reflect.DeepEqual(b, is.at[k]):
			if x, y := encode(b), encode(is.at[k]); !bytes.Equal(x, y) {
				l = append(l, Record{In: k.in, Kind: k.kind, ID: k.id, Was: x, Now: y})
			}
		}
	}
	for _, k := range was.order {
		if _, has := is.at[k]; !has {
			l = append(l, Record{In: k.in, Kind: k.kind, ID: k.id, Was: encode(was.at[k])})
		}
	}
	l.hang(now)
	return l
}

// Find gives the record of a thing; nil where it is as the base has it.
func (l Layer) Find(in string, kind Kind, id string) *Record {
	i := slices.IndexFunc(l, func(r Record) bool { return r.key() == key{in, kind, id} })
	if i < 0 {
		return nil
	}
	return &l[i]
}

// things are what a document is made of, by name.
type things struct {
	order []key
	at    map[key]any
}

func (t *things) add(in string, kind Kind, id string, v any) {
	k := key{in, kind, id}
	if _, twice := t.at[k]; !twice {
		t.order = append(t.order, k)
	}
	t.at[k] = v
}

func gather(d *frame.Document) *things {
	t := &things{at: map[key]any{}}
	each(d, func(in string, ls *lists) {
		for _, l := range ls.all() {
			for i := range l.len() {
				t.add(in, l.kind(), l.id(i), l.get(i))
			}
		}
	})
	return t
}

func encode(v any) json.RawMessage {
	data, err := json.Marshal(v)
	if err != nil {
		panic(err) // a document is made of plain values
	}
	return data
}

// blend gives what a thing is over another base: of what the layer changed, as
// it changed it, of the rest, as the base has it. Members inside members are
// blended the same way; a list is one thing.
func blend(was, now, base json.RawMessage) json.RawMessage {
	var a, b, c map[string]json.RawMessage
	if json.Unmarshal(was, &a) != nil || json.Unmarshal(now, &b) != nil || json.Unmarshal(base, &c) != nil || a == nil || b == nil ||
		c == nil {
		if bytes.Equal(was, now) {
			return base
		}
		return now
	}
	names := map[string]bool{}
	for _, m := range []map[string]json.RawMessage{a, b} {
		for k := range m {
			names[k] = true
		}
	}
	for _, k := range slices.Sorted(maps.Keys(names)) {
		switch x, y := a[k], b[k]; {
		case bytes.Equal(x, y):
		case y == nil:
			delete(c, k)
		case x == nil || c[k] == nil:
			c[k] = y
		default:
			c[k] = blend(x, y, c[k])
		}
	}
	return encode(c)
}
