package frame

import "encoding/json"

// UnmarshalJSON reads a document of this format or an older one, which it
// brings up to date.
func (d *Document) UnmarshalJSON(data []byte) error {
	var was struct {
		Format int `json:"format"`
	}
	if err := json.Unmarshal(data, &was); err != nil {
		return err
	}
	if was.Format == 1 {
		var err error
		if data, err = fromFormat1(data); err != nil {
			return err
		}
	}
	type plain Document // without this method
	return json.Unmarshal(data, (*plain)(d))
}

// fromFormat1 turns what format 2 writes in another way: a use's quarter
// turns about z, a number in format 1, became a list of turns.
func fromFormat1(data []byte) ([]byte, error) {
	var doc map[string]any
	if err := json.Unmarshal(data, &doc); err != nil {
		return nil, err
	}
	doc["format"] = 2
	definitions, _ := doc["groups"].([]any)
	for _, def := range append(definitions, doc["root"]) {
		def, _ := def.(map[string]any)
		uses, _ := def["uses"].([]any)
		for _, u := range uses {
			u, _ := u.(map[string]any)
			if quarters, ok := u["turn"].(float64); ok {
				delete(u, "turn")
				u["turns"] = []Turn{{About: 2, By: 90 * float64(int(quarters)%4)}}
			}
		}
	}
	return json.Marshal(doc)
}
