package frame

import (
	"bytes"
	"encoding/json"
)

// fromFormat3 gives a document of format 3 in the form of format 4, which says
// the same by other names.
func fromFormat3(data []byte) ([]byte, error) {
	var raw map[string]any
	read := json.NewDecoder(bytes.NewReader(data))
	read.UseNumber() // lengths in nanometres stay whole
	if err := read.Decode(&raw); err != nil {
		return nil, err
	}
	renameFormat3(raw)
	return json.Marshal(raw)
}

// renameFormat3 gives the members of a decoded document the names of format 4.
func renameFormat3(raw map[string]any) {
	raw["format"] = Format
	rename(raw, "holds", "modeRules")
	rename(raw, "envelopes", "clearanceChecks")
	rename(raw, "parts", "customFittings")
	defs := []any{raw["root"]}
	if groups, ok := raw["groups"].([]any); ok {
		defs = append(defs, groups...)
	}
	for _, def := range defs {
		def, _ := def.(map[string]any)
		for _, size := range objects(def["sizes"]) {
			rename(size, "stood", "inferred")
		}
		for _, use := range objects(def["uses"]) {
			if array, ok := use["array"].(map[string]any); ok {
				if pitch, ok := array["pitch"].(map[string]any); ok {
					rename(pitch, "stood", "inferred")
				}
			}
		}
		for _, reason := range objects(def["reasons"]) {
			if reason["kind"] == "alike" {
				reason["kind"] = string(EqualTo)
			}
			rename(reason, "likeAxis", "equalAxis")
			rename(reason, "likeFrom", "equalFrom")
			rename(reason, "likeTo", "equalTo")
		}
	}
}

// objects are the objects of a decoded list; none of anything else.
func objects(list any) (all []map[string]any) {
	items, _ := list.([]any)
	for _, item := range items {
		if object, ok := item.(map[string]any); ok {
			all = append(all, object)
		}
	}
	return all
}

func rename(in map[string]any, from, to string) {
	if v, has := in[from]; has {
		delete(in, from)
		in[to] = v
	}
}
