package project

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/stock"
)

// formerDevice is the device of events that an upgrade made of ticks.
const formerDevice = "an earlier version"

// Ticked gives, as events, what a body of format 1 said was bought and cut. Its ticks
// named sticks by what was cut from what, and goods by what they are; what nothing of the
// plan answers to is an event that says so. There are none of a body without ticks.
func Ticked(ctx context.Context, data []byte, shop plan.Shop) []record.Event {
	var was struct {
		Marks struct {
			Cart map[string]int `json:"cart"`
			Sawn map[string]int `json:"sawn"`
		} `json:"marks"`
		Work struct {
			Bought []plan.Offcut `json:"bought"`
		} `json:"work"`
	}
	if json.Unmarshal(data, &was) != nil || len(was.Marks.Cart)+len(was.Marks.Sawn)+len(was.Work.Bought) == 0 {
		return nil
	}
	t := ticks{at: map[catalog.Size]int{}}
	t.add(record.Event{Kind: record.Begun, Figures: shop.Figures()})
	for _, b := range was.Work.Bought {
		t.bought(material.Spec{Ware: material.Pipe, Size: string(b.Size), Length: b.Length}, b.Count, "")
	}
	if p, err := Decode(data); err == nil {
		if job, err := p.Job(); err == nil {
			job.Tool = cmp.Or(job.Tool, "saw")
			if made, err := plan.Make(ctx, job, shop, record.Add(t.events)); err == nil {
				t.plan = made
			}
		}
	}
	t.letters()
	for _, key := range slices.Sorted(maps.Keys(was.Marks.Cart)) {
		n := was.Marks.Cart[key]
		spec, ok := specOf(key)
		if !ok || n < 1 {
			t.note("%d × %s in the cart", n, key)
			continue
		}
		t.bought(spec, n, t.basis(catalog.Size(spec.Size)))
	}
	for _, key := range slices.Sorted(maps.Keys(was.Marks.Sawn)) {
		for range was.Marks.Sawn[key] {
			t.sawn(key)
		}
	}
	return t.events
}

type ticks struct {
	plan   *plan.Plan
	events []record.Event
	free   []record.Source // bought sticks that nothing is cut from yet
	used   map[*procure.Stick]bool
	at     map[catalog.Size]int
}

func (t *ticks) add(e record.Event) string {
	e.ID, e.Device = fmt.Sprintf("format1-%d", len(t.events)+1), formerDevice
	if e.Problem() != nil {
		return ""
	}
	t.events = append(t.events, e)
	return e.ID
}

func (t *ticks) note(format string, args ...any) {
	t.add(record.Event{Kind: record.Unmatched, Text: fmt.Sprintf(format, args...)})
}

func (t *ticks) basis(size catalog.Size) string {
	if t.plan != nil {
		for i := range t.plan.Pipe {
			if t.plan.Pipe[i].Size == size {
				return t.plan.Pipe[i].Basis
			}
		}
	}
	return ""
}

func (t *ticks) letters() {
	if t.plan == nil {
		return
	}
	e := record.Event{Kind: record.Lettered}
	for i := range t.plan.Cuts {
		e.Letters = append(e.Letters, t.plan.Cuts[i].Mark())
	}
	t.add(e)
}

func (t *ticks) bought(spec material.Spec, n int, basis string) {
	id := t.add(record.Event{Kind: record.Bought, Ware: &spec, Count: n, Basis: basis})
	if id == "" {
		t.note("%d × %s bought", n, spec.Words())
		return
	}
	if spec.Ware == material.Pipe {
		for i := range n {
			t.free = append(
				t.free,
				record.Source{ID: record.ItemID(id, i), Size: catalog.Size(spec.Size), Length: spec.Length, Origin: record.FromShop},
			)
		}
	}
}

// specOf reads what a tick in the shop was of: ware, kind, size, length, ounces and, of
// hardware, its diameter.
func specOf(key string) (s material.Spec, ok bool) {
	parts := strings.Split(key, "|")
	if len(parts) < 5 || len(parts) > 6 || !slices.Contains(material.Wares(), material.Ware(parts[0])) {
		return s, false
	}
	var n [3]int64
	for i, text := range parts[3:] {
		v, err := strconv.ParseInt(text, 10, 64)
		if err != nil || v < 0 {
			return s, false
		}
		n[i] = v
	}
	return material.Spec{
		Ware: material.Ware(parts[0]), Kind: parts[1], Size: parts[2],
		Length: measure.Length(n[0]), Ounces: int(n[1]), Diameter: measure.Length(n[2]),
	}, true
}

// sawn makes cuts of a stick that was ticked at the saw, by what was cut from what.
func (t *ticks) sawn(key string) {
	if t.plan != nil {
		for i := range t.plan.Pipe {
			p := &t.plan.Pipe[i]
			for k := range p.Sticks {
				s := &p.Sticks[k]
				if !t.used[s] && formerKey(p.Size, s) == key {
					if t.used == nil {
						t.used = map[*procure.Stick]bool{}
					}
					t.used[s] = true
					t.cut(p, s)
					return
				}
			}
		}
	}
	t.note("a stick was cut: %s", stickWords(key))
}

// formerKey is how format 1 named a stick.
func formerKey(size catalog.Size, s *procure.Stick) string {
	key := fmt.Sprintf("%s|%s|%d", size, s.Origin, s.Length)
	for _, x := range s.Pieces {
		key += fmt.Sprintf("|%d", x.Length)
	}
	return key
}

func (t *ticks) cut(p *procure.PipeTotal, s *procure.Stick) {
	t.at[p.Size]++
	from := record.Source{
		ID: cmp.Or(s.ID, fmt.Sprintf("format1-%s-%d", p.Size, t.at[p.Size])), Size: p.Size, Length: s.Length, Origin: record.FromShop,
	}
	if s.Origin == stock.Rack {
		from.Origin = record.FromRack
	}
	if i := slices.IndexFunc(t.free, func(f record.Source) bool { return s.ID == "" && f.Size == p.Size && f.Length == s.Length }); i >= 0 {
		from = t.free[i]
		t.free = slices.Delete(t.free, i, i+1)
	}
	for _, x := range s.Pieces {
		t.add(record.Event{
			Kind: record.Cut, Piece: &record.Piece{Pipe: x.Pipe, Copy: x.Copy}, Stick: &from, Length: x.Length, Kerf: x.Kerf, Letter: x.Name, Basis: p.Basis,
		})
	}
}

// stickWords says what a tick at the saw was of.
func stickWords(key string) string {
	parts := strings.Split(key, "|")
	var lengths []string
	for _, text := range parts[min(2, len(parts)):] {
		if v, err := strconv.ParseInt(text, 10, 64); err == nil {
			lengths = append(lengths, measure.Length(v).String())
		}
	}
	if len(lengths) < 2 {
		return key
	}
	return fmt.Sprintf("%s pipe, %s, into %s", parts[0], lengths[0], strings.Join(lengths[1:], ", "))
}
