package frame

import (
	"cmp"
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/measure"
)

// current is a document of this format, without the method that reads older ones.
type current Document

// UnmarshalJSON reads a document of this format or an older one, which it
// brings up to date.
func (d *Document) UnmarshalJSON(data []byte) error {
	var was struct {
		Format int `json:"format"`
	}
	if err := json.Unmarshal(data, &was); err != nil {
		return err
	}
	switch was.Format {
	case 1, 2:
	case 3:
		now, err := fromFormat3(data)
		if err != nil {
			return err
		}
		return json.Unmarshal(now, (*current)(d))
	default:
		return json.Unmarshal(data, (*current)(d))
	}
	now, _, err := FromFormat2(data)
	if err != nil {
		return err
	}
	*d = *now
	return nil
}

// The parts of format 2 that are no more. A station was a named plane with the
// one size that placed it; a joint stood on three of them, or was walked to.
type dimensionV2 struct {
	Value   measure.Length `json:"value"`
	Meaning Meaning        `json:"meaning"`
	From    string         `json:"from"`
	Back    bool           `json:"back"`
	Of      string         `json:"of"`
	Label   string         `json:"label"`
	Text    string         `json:"text"`
	Prompt  string         `json:"prompt"`
}

type stationV2 struct {
	ID    string       `json:"id"`
	At    *dimensionV2 `json:"at"`
	Split *struct {
		From, To    string
		Part, Parts int
		Share       float64
	} `json:"split"`
	Like *struct {
		From string
		Axis int
		Of   string
		To   string
	} `json:"like"`
}

type jointV2 struct {
	ID   string    `json:"id"`
	At   [3]string `json:"at"`
	Walk *struct {
		From   string
		Dir    *measure.Dir
		Toward string
		Size   *dimensionV2
		Share  float64
		Until  *struct {
			Axis    int
			Station string
		}
	} `json:"walk"`
}

type definitionV2 struct {
	ID   string `json:"id"`
	Axes [3]struct {
		Origin   measure.Length `json:"origin"`
		Stations []stationV2    `json:"stations"`
	} `json:"axes"`
	Joints []jointV2 `json:"joints"`
	Pipes  []struct {
		Spring *struct {
			Size *dimensionV2 `json:"size"`
		} `json:"spring"`
	} `json:"pipes"`
	Uses []struct {
		ID     string    `json:"id"`
		Of     string    `json:"of"`
		At     [3]string `json:"at"`
		Anchor [3]string `json:"anchor"`
		Turn   float64   `json:"turn"` // format 1: quarter turns about z
		Array  *struct {
			Pitch  *dimensionV2 `json:"pitch"`
			Joined *[2]string   `json:"joined"`
		} `json:"array"`
	} `json:"uses"`
}

type documentV2 struct {
	Root   definitionV2   `json:"root"`
	Groups []definitionV2 `json:"groups"`
	Drives []struct {
		ID    string      `json:"id"`
		Pipe  string      `json:"pipe"`
		Ends  [2]string   `json:"ends"`
		Size  dimensionV2 `json:"size"`
		Gives string      `json:"gives"`
	} `json:"drives"`
}

type upgrade struct {
	d   *Document
	ids map[string]string // JSON pointer of a size in format 2 → its id
	n   int
}

// FromFormat2 reads a document of format 1 or 2 and gives it in this one, with
// the ids that its sizes got by the JSON pointers that they had.
func FromFormat2(data []byte) (*Document, map[string]string, error) {
	var old documentV2
	// what both formats have is read as it is; lists of stations, walks and
	// pitches are taken from the old form
	var raw map[string]any
	if err := json.Unmarshal(data, &raw); err != nil {
		return nil, nil, err
	}
	if err := json.Unmarshal(data, &old); err != nil {
		return nil, nil, err
	}
	groups, _ := raw["groups"].([]any)
	for _, def := range append(slices.Clone(groups), raw["root"]) {
		def, _ := def.(map[string]any)
		uses, _ := def["uses"].([]any)
		for _, u := range uses {
			u, _ := u.(map[string]any)
			delete(u, "at")
			delete(u, "anchor")
			if a, ok := u["array"].(map[string]any); ok {
				delete(a, "pitch")
				delete(a, "joined")
			}
		}
	}
	renameFormat3(raw)
	rest, err := json.Marshal(raw)
	if err != nil {
		return nil, nil, err
	}
	d := &Document{}
	if err := json.Unmarshal(rest, (*current)(d)); err != nil {
		return nil, nil, err
	}
	u := &upgrade{d: d, ids: map[string]string{}}
	u.definition(&d.Root, &old.Root, "/root", old.Groups)
	for a := range 3 {
		d.Origin[a] = old.Root.Axes[a].Origin
	}
	for i := range d.Groups {
		if i < len(old.Groups) {
			u.definition(&d.Groups[i], &old.Groups[i], fmt.Sprintf("/groups/%d", i), old.Groups)
		}
	}
	for _, r := range old.Drives {
		s := u.size(&r.Size, "")
		s.Pipe, s.Text = r.Pipe, r.Size.Text
		if r.Pipe == "" {
			s.From, s.To = Ref(r.Ends[0]), Ref(r.Ends[1])
		}
		d.Root.Sizes = append(d.Root.Sizes, s)
		if loser := d.SizeOf(u.ids[r.Gives]); r.Gives != "" && loser != nil {
			loser.Gave = &GaveWay{Words: s.Says()}
			if slices.ContainsFunc(d.Root.Sizes, func(x Size) bool { return x.ID == loser.ID }) {
				loser.Gave.Sizes = []string{s.ID}
			}
		}
	}
	return d, u.ids, nil
}

// size makes a size of the old one that a JSON pointer names.
func (u *upgrade) size(o *dimensionV2, pointer string) Size {
	u.n++
	s := Size{ID: fmt.Sprintf("s%d", u.n), Value: o.Value, Meaning: o.Meaning, Label: o.Label, Prompt: o.Prompt, Text: o.Text, Rank: u.n}
	if pointer != "" {
		u.ids[pointer] = s.ID
	}
	// a text carried no unit: it is read in the one that gives its value
	for _, unit := range []measure.Unit{u.d.Units, measure.Inches, measure.Millimetres} {
		if l, err := measure.Parse(o.Text, measure.Reading{Unit: unit}); err == nil && l == o.Value {
			s.Unit = unit
			break
		}
	}
	return s
}

func (u *upgrade) reason(def *Definition, r Reason) {
	u.n++
	r.ID, r.Rank = fmt.Sprintf("r%d", u.n), u.n
	def.Reasons = append(def.Reasons, r)
}

func (u *upgrade) definition(def *Definition, old *definitionV2, where string, groups []definitionV2) {
	for a := range old.Axes {
		all := old.Axes[a].Stations
		for i, st := range all {
			def.Planes[a] = append(def.Planes[a], Plane{ID: st.ID})
			switch {
			case st.Split != nil:
				u.reason(
					def,
					Reason{
						Kind:  Share,
						Axis:  axisNames[a],
						Of:    OnPlane(st.ID),
						From:  OnPlane(st.Split.From),
						To:    OnPlane(st.Split.To),
						Part:  st.Split.Part,
						Parts: st.Split.Parts,
						Share: st.Split.Share,
					},
				)
			case st.Like != nil:
				u.reason(
					def,
					Reason{
						Kind:      EqualTo,
						Axis:      axisNames[a],
						Of:        OnPlane(st.ID),
						From:      OnPlane(st.Like.From),
						EqualAxis: axisNames[max(0, min(2, st.Like.Axis))],
						EqualFrom: OnPlane(st.Like.Of),
						EqualTo:   OnPlane(st.Like.To),
					},
				)
			case st.At != nil:
				s := u.size(st.At, fmt.Sprintf("%s/axes/%d/stations/%d/at", where, a, i))
				s.Axis, s.Pipe, s.From, s.To = axisNames[a], st.At.Of, OnPlane(st.At.From), OnPlane(st.ID)
				if st.At.From == "floor" {
					s.From = Floor
				} else if st.At.Back {
					s.From, s.To = s.To, s.From
				}
				def.Sizes = append(def.Sizes, s)
			case i > 0:
				u.reason(def, Reason{Kind: Level, Axis: axisNames[a], Of: OnPlane(st.ID), To: OnPlane(all[0].ID)})
			}
		}
	}
	for i, j := range old.Joints {
		if j.Walk == nil {
			def.Joints[i].On = j.At
			continue
		}
		w := j.Walk
		pipe := ""
		for k := range def.Pipes {
			p := &def.Pipes[k]
			if p.Path != Straight || !(p.From == w.From && p.To == j.ID || p.To == w.From && p.From == j.ID) {
				continue
			}
			pipe = p.ID
			if w.Dir != nil {
				dir := w.Dir.Unit()
				if p.To == w.From {
					dir = dir.Neg()
				}
				p.Dir = &dir
			}
		}
		switch {
		case w.Toward != "" && w.Share != 0:
			u.reason(def, Reason{Kind: Share, Of: Ref(j.ID), From: Ref(w.From), To: Ref(w.Toward), Share: w.Share})
		case w.Toward != "":
			u.reason(def, Reason{Kind: Toward, Of: Ref(j.ID), From: Ref(w.From), To: Ref(w.Toward)})
		case w.Dir != nil && pipe == "":
			dir := *w.Dir
			u.reason(def, Reason{Kind: Line, Of: Ref(j.ID), From: Ref(w.From), Dir: &dir})
		}
		if w.Until != nil && w.Until.Axis >= 0 && w.Until.Axis < 3 {
			def.Joints[i].On[w.Until.Axis] = w.Until.Station
		}
		if w.Size != nil {
			s := u.size(w.Size, fmt.Sprintf("%s/joints/%d/walk/size", where, i))
			if s.Pipe = cmp.Or(w.Size.Of, pipe); w.Toward != "" || s.Pipe == "" {
				s.From, s.To = Ref(w.From), Ref(j.ID)
			}
			def.Sizes = append(def.Sizes, s)
		}
	}
	for i := range old.Pipes {
		if sp := old.Pipes[i].Spring; sp != nil && sp.Size != nil {
			s := u.size(sp.Size, fmt.Sprintf("%s/pipes/%d/spring/size", where, i))
			s.Pipe = def.Pipes[i].ID
			def.Sizes = append(def.Sizes, s)
		}
	}
	for i := range old.Uses {
		o, use := &old.Uses[i], &def.Uses[i]
		u.n++
		use.Rank = u.n
		if o.Turn != 0 {
			use.Turns = []Turn{{About: 2, By: 90 * float64(int(o.Turn)%4)}}
		}
		for a := range 3 {
			use.At[a] = OnPlane(o.At[a])
			if o.Anchor[a] != "" {
				use.Anchor[a] = OnPlane(o.Anchor[a])
			}
		}
		if o.Array == nil || use.Array == nil {
			continue
		}
		if o.Array.Pitch != nil {
			s := u.size(o.Array.Pitch, fmt.Sprintf("%s/uses/%d/array/pitch", where, i))
			use.Array.Pitch = &s
		}
		if o.Array.Joined != nil {
			use.Array.Joined = joinedV2(groups, o.Of, use, *o.Array.Joined)
		}
	}
}

// joinedV2 finds the joints that copies shared by two stations of their group.
func joinedV2(groups []definitionV2, of string, use *Use, on [2]string) (pairs [][2]string) {
	i := slices.IndexFunc(groups, func(g definitionV2) bool { return g.ID == of })
	along, ok := use.along(use.Array.Axis)
	if i < 0 || !ok {
		return [][2]string{}
	}
	twin := func(a, b [3]string) bool {
		if a[along] != on[0] || b[along] != on[1] {
			return false
		}
		a[along], b[along] = "", ""
		return a == b
	}
	g := &groups[i]
	for _, lo := range g.Joints {
		for _, hi := range g.Joints {
			if lo.Walk == nil && hi.Walk == nil && twin(lo.At, hi.At) {
				pairs = append(pairs, [2]string{lo.ID, hi.ID})
			}
		}
	}
	for _, lo := range g.Uses {
		for _, hi := range g.Uses {
			if !twin(lo.At, hi.At) || lo.Of != hi.Of || lo.Anchor != hi.Anchor || lo.Array != nil || hi.Array != nil {
				continue
			}
			for _, j := range jointsOfV2(groups, lo.Of, 0) {
				pairs = append(pairs, [2]string{lo.ID + "/" + j, hi.ID + "/" + j})
			}
		}
	}
	if pairs == nil {
		pairs = [][2]string{}
	}
	return pairs
}

func jointsOfV2(groups []definitionV2, of string, depth int) (all []string) {
	i := slices.IndexFunc(groups, func(g definitionV2) bool { return g.ID == of })
	if i < 0 || depth > maxDepth {
		return nil
	}
	for _, j := range groups[i].Joints {
		all = append(all, j.ID)
	}
	for _, u := range groups[i].Uses {
		for _, j := range jointsOfV2(groups, u.Of, depth+1) {
			all = append(all, u.ID+"/"+j)
		}
	}
	return all
}

// whole says whether a number is a whole one; quarter turns are.
func whole(v float64) bool { return v == math.Trunc(v) }
