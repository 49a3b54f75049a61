package server

import (
	"encoding/json"
	"fmt"
	"strings"

	"sturdyelbow/core/frame"
)

// Schema is the JSON Schema (draft 2020-12) of the product's own document of a
// frame, made of the same types as the API.
func Schema() ([]byte, error) {
	spec, err := Spec()
	if err != nil {
		return nil, err
	}
	var doc struct {
		Components struct {
			Schemas map[string]json.RawMessage `json:"schemas"`
		} `json:"components"`
	}
	if err := json.Unmarshal(spec, &doc); err != nil {
		return nil, err
	}
	all := doc.Components.Schemas
	const root = "FrameDocument"
	defs := map[string]json.RawMessage{}
	var take func(name string) error
	take = func(name string) error {
		raw, ok := all[name]
		if _, done := defs[name]; done || !ok {
			return nil
		}
		text := strings.ReplaceAll(string(raw), "#/components/schemas/", "#/$defs/")
		defs[name] = json.RawMessage(text)
		for rest := text; ; {
			_, after, found := strings.Cut(rest, `"#/$defs/`)
			if !found {
				return nil
			}
			used, tail, _ := strings.Cut(after, `"`)
			if err := take(used); err != nil {
				return err
			}
			rest = tail
		}
	}
	if err := take(root); err != nil {
		return nil, err
	}
	if len(defs) == 0 {
		return nil, fmt.Errorf("the API has no type %s", root)
	}
	return json.MarshalIndent(map[string]any{
		"$schema":  "https://json-schema.org/draft/2020-12/schema",
		"title":    fmt.Sprintf("A frame, format %d", frame.Format),
		"$comment": "Lengths are whole nanometres: 25400000 is an inch. Programs read this format and older ones, and write this one.",
		"$ref":     "#/$defs/" + root,
		"$defs":    defs,
	}, "", " ")
}
