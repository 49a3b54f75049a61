package wireframe

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
)

// ordered is a JSON object that keeps the order of its keys, so that a file
// read and written again lists its joints as before.
type ordered[T any] struct {
	keys   []string
	values map[string]T
}

func (o *ordered[T]) set(key string, v T) {
	if o.values == nil {
		o.values = map[string]T{}
	}
	if _, again := o.values[key]; !again {
		o.keys = append(o.keys, key)
	}
	o.values[key] = v
}

// UnmarshalJSON refuses a key that is there twice: one of the two would be lost.
func (o *ordered[T]) UnmarshalJSON(data []byte) error {
	if bytes.Equal(data, []byte("null")) {
		return nil
	}
	if err := json.Unmarshal(data, &o.values); err != nil {
		return err
	}
	dec := json.NewDecoder(bytes.NewReader(data))
	if _, err := dec.Token(); err != nil {
		return err
	}
	seen := map[string]bool{}
	for dec.More() {
		t, err := dec.Token()
		if err != nil {
			return err
		}
		key := t.(string)
		if seen[key] {
			return fmt.Errorf("%q is there twice", key)
		}
		seen[key] = true
		o.keys = append(o.keys, key)
		var skip json.RawMessage
		if err := dec.Decode(&skip); err != nil {
			return err
		}
	}
	return nil
}

// MarshalJSON writes the keys in order.
func (o *ordered[T]) MarshalJSON() ([]byte, error) {
	var b bytes.Buffer
	b.WriteByte('{')
	for i, k := range o.keys {
		if i > 0 {
			b.WriteByte(',')
		}
		key, err := json.Marshal(k)
		if err != nil {
			return nil, err
		}
		v, err := json.Marshal(o.values[k])
		if err != nil {
			return nil, err
		}
		b.Write(key)
		b.WriteByte(':')
		b.Write(v)
	}
	b.WriteByte('}')
	return b.Bytes(), nil
}

// escape writes a key as a part of a JSON pointer (RFC 6901).
func escape(key string) string {
	return strings.NewReplacer("~", "~0", "/", "~1").Replace(key)
}

// lineMap gives the line on which each value of a valid JSON text begins, by
// JSON pointer.
func lineMap(data []byte) map[string]int {
	lines := map[string]int{}
	dec := json.NewDecoder(bytes.NewReader(data))
	line, at := 1, int64(0)
	here := func() int {
		now := dec.InputOffset()
		line += bytes.Count(data[at:now], []byte("\n"))
		at = now
		return line
	}
	var walk func(path string) bool
	walk = func(path string) bool {
		t, err := dec.Token()
		if err != nil {
			return false
		}
		lines[path] = here()
		d, ok := t.(json.Delim)
		if !ok {
			return true
		}
		for i := 0; dec.More(); i++ {
			key := fmt.Sprint(i)
			if d == '{' {
				k, err := dec.Token()
				if err != nil {
					return false
				}
				key = escape(k.(string))
			}
			if !walk(path + "/" + key) {
				return false
			}
		}
		_, err = dec.Token()
		return err == nil
	}
	walk("")
	return lines
}
