package project

import (
	"encoding/json"
	"fmt"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/starter"
)

// Format is the stored form of a project that is read and written. One without a number
// is of format 1.
const Format = 2

// A body is a stored project, by its members.
type body map[string]json.RawMessage

// upgrades make of a body of each format, counted from 1, one of the next.
var upgrades = []func(b body) error{
	1: toFormat2,
}

// NewerError says that a newer version of the program wrote a project.
type NewerError struct{ Format int }

func (e *NewerError) Error() string {
	return fmt.Sprintf(
		"a newer version of Sturdy Elbow wrote this project (its format is %d, this one knows %d): open it with that version",
		e.Format,
		Format,
	)
}

// Decode reads a stored project of this format or an older one; the error is a
// [NewerError] where it is of a newer one.
func Decode(data []byte) (*Project, error) {
	p := &Project{}
	if err := json.Unmarshal(data, p); err != nil {
		return nil, fmt.Errorf("the stored project cannot be read: %w", err)
	}
	return p, nil
}

// Encode writes a project as it is stored.
func (p *Project) Encode() ([]byte, error) {
	q := *p
	q.Format = Format
	return json.Marshal(q)
}

// UnmarshalJSON reads a project of any format, and brings it up to date step by step.
func (p *Project) UnmarshalJSON(data []byte) error {
	type plain Project // without this method
	var is struct {
		Format int `json:"format"`
	}
	if err := json.Unmarshal(data, &is); err != nil {
		return err
	}
	switch is.Format = max(1, is.Format); {
	case is.Format > Format:
		return &NewerError{is.Format}
	case is.Format < Format:
		b := body{}
		if err := json.Unmarshal(data, &b); err != nil {
			return err
		}
		for f := is.Format; f < Format; f++ {
			if err := upgrades[f](b); err != nil {
				return err
			}
		}
		var err error
		if data, err = json.Marshal(b); err != nil {
			return err
		}
	}
	if err := json.Unmarshal(data, (*plain)(p)); err != nil {
		return err
	}
	p.Format = Format
	return nil
}

// toFormat2 names sizes by their ids, which format 1 named by where they stood in the
// frame; calls mode rules by their name; and takes out the ticks and what was bought,
// which are the project's record from then on: see [Ticked].
func toFormat2(b body) error {
	if _, has := b["modeRules"]; !has && b["holds"] != nil {
		b["modeRules"] = b["holds"]
	}
	for _, gone := range []string{"holds", "marks", "work"} {
		delete(b, gone)
	}
	var was struct {
		Format int `json:"format"`
	}
	if json.Unmarshal(b["frame"], &was) != nil || was.Format > 2 || was.Format == 0 {
		return nil
	}
	_, ids, err := frame.FromFormat2(b["frame"])
	if err != nil {
		return nil //nolint:nilerr // what it is is read, and said, with the frame
	}
	if sizes := (map[string]starter.Answer{}); json.Unmarshal(b["sizes"], &sizes) == nil {
		now := map[string]starter.Answer{}
		for pointer, a := range sizes {
			if id, ok := ids[pointer]; ok {
				now[id] = a
			}
		}
		if err := b.put("sizes", now); err != nil {
			return err
		}
	}
	var asks struct {
		About   string `json:"about"`
		Prompts []struct {
			Ask
			Path string `json:"path"`
		} `json:"prompts"`
	}
	if json.Unmarshal(b["asks"], &asks) == nil {
		now := Asks{About: asks.About}
		for _, a := range asks.Prompts {
			a.Size = ids[a.Path]
			now.Prompts = append(now.Prompts, a.Ask)
		}
		now.Prompts = slices.DeleteFunc(now.Prompts, func(a Ask) bool { return a.Size == "" })
		return b.put("asks", now)
	}
	return nil
}

func (b body) put(member string, value any) error {
	data, err := json.Marshal(value)
	b[member] = data
	return err
}
