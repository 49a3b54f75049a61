package project

import (
	"encoding/json"
	"strings"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

// inDocument begins the path of an edit of the project's one frame.
const inDocument = "/frames/0/document/sizes/"

// Adopt turns the fixes of a plan of this project, which are about the job,
// into edits of the project: a length of a frame that follows from a starter
// becomes the answer to the prompt that asked for it, any other a size typed
// over. A fix that the project has no place for is dropped. Edits of the shop
// stay as they are.
func (p *Project) Adopt(doc *frame.Document, all []finding.Finding) {
	for i := range all {
		all[i].Fixes = p.adopted(doc, all[i].Fixes)
		for k := range all[i].Cases {
			all[i].Cases[k].Fixes = p.adopted(doc, all[i].Cases[k].Fixes)
		}
	}
}

func (p *Project) adopted(doc *frame.Document, fixes []finding.Fix) (kept []finding.Fix) {
	for _, f := range fixes {
		if p.adopt(doc, &f) {
			kept = append(kept, f)
		}
	}
	return kept
}

func (p *Project) adopt(doc *frame.Document, f *finding.Fix) bool {
	edits := make([]finding.Edit, len(f.Edits))
	for i, e := range f.Edits {
		if pipe, ok := strings.CutPrefix(e.Path, "/frames/0/given/"); ok {
			var text string
			if json.Unmarshal(e.Value, &text) != nil {
				return false
			}
			value, err := json.Marshal(starter.Answer{Text: text, Unit: measure.Inches})
			if err != nil {
				return false
			}
			edits[i] = finding.Edit{Path: "/given/" + escape(pipe), Value: value}
			continue
		}
		if id, ok := strings.CutPrefix(e.Path, inDocument); ok {
			var text string
			d := doc.SizeOf(id)
			if d == nil || json.Unmarshal(e.Value, &text) != nil {
				return false
			}
			e.Path = "/sizes/" + escape(id)
			if p.driven() && d.Rank < 0 { // the starter says it, and its answers are asked
				if d.Prompt == "" {
					return false
				}
				e.Path = "/starter/answers/" + escape(d.Prompt)
			}
			value, err := json.Marshal(starter.Answer{Text: text, Meaning: d.Meaning, Unit: measure.Inches})
			if err != nil {
				return false
			}
			e.Value = value
		}
		edits[i] = e
	}
	f.Edits = edits
	return true
}

// escape makes a token of a JSON pointer (RFC 6901).
func escape(token string) string {
	return strings.NewReplacer("~", "~0", "/", "~1").Replace(token)
}
