package plan

import (
	"slices"
	"strings"

	"sturdyelbow/core/record"
)

// parts are the shares of a purchase that was divided, less what was taken back of it.
type parts struct {
	count int // of all
	all   []part
}

// part is one share: whose it is, and how much.
type part struct {
	record int
	id     string
	own    int
}

// partsOf finds the shares of a purchase, by the event that was divided; nil for none.
func (d *dividing) partsOf(of string) *parts {
	if p, known := d.parts[of]; known {
		return p
	}
	var p *parts
	for i := range d.records {
		for _, q := range d.records[i].Shared {
			if q.Event != of {
				continue
			}
			if p == nil {
				p = &parts{count: q.Count}
			}
			p.all = append(p.all, part{i, q.Share, q.Own})
		}
	}
	d.parts[of] = p
	return p
}

// shareOf finds the purchase of which an event is a share.
func (d *dividing) shareOf(event string) (p *parts, at int) {
	for of, p := range d.parts {
		if p != nil && strings.HasPrefix(event, of) {
			if at := slices.IndexFunc(p.all, func(x part) bool { return x.id == event }); at >= 0 {
				return p, at
			}
		}
	}
	for i := range d.records {
		for _, q := range d.records[i].Shared {
			if q.Share == event {
				p := d.partsOf(q.Event)
				return p, slices.IndexFunc(p.all, func(x part) bool { return x.id == event })
			}
		}
	}
	return nil, 0
}

// back takes something back in each record that has a part in it.
func (d *dividing) back(e record.Event) string {
	if p, at := d.shareOf(e.Event); p != nil {
		n := min(p.all[at].own, max(e.Count, 0))
		switch {
		case e.Item != "":
			n = min(p.all[at].own, 1)
		case e.Count == 0:
			n = p.all[at].own
		}
		d.backOfShares(e, p, func(i int) int {
			if i == at {
				return n
			}
			return 0
		})
		return ""
	}
	if p := d.partsOf(e.Event); p != nil {
		left := e.Count
		if left == 0 || left > p.count {
			left = p.count
		}
		less := make([]int, len(p.all))
		for i := len(p.all) - 1; i >= 0; i-- { // the last that have a share give it back first
			less[i] = min(left, p.all[i].own)
			left -= less[i]
		}
		e.Item = ""
		d.backOfShares(e, p, func(i int) int { return less[i] })
		return ""
	}
	found := false
	for i := range d.records {
		w := &d.records[i]
		there := func(id string) bool {
			return w.Has(id) || slices.ContainsFunc(d.all[i], func(o record.Event) bool { return o.ID == id })
		}
		if there(e.Event) {
			d.to(i, e)
			found = true
		}
		lent := record.Event{ID: LentID(e.ID), Kind: record.TakenBack}
		if lent.Event = LentID(e.Event); there(lent.Event) { // the stick's owner has it back
			d.to(i, lent)
		}
		if cut, is := strings.CutSuffix(e.Event, lentEnd); is && there(cut) { // what was not lent was not cut
			lent.Event = cut
			d.to(i, lent)
		}
	}
	for i := range d.Works { // all that there was of it is back already
		if !found && d.records[i].Knows(e.Event) {
			d.to(i, e)
			found = true
		}
	}
	if !found {
		if d.alone {
			d.to(0, e) // what it is about may come yet
			return ""
		}
		return "what none of the projects has on record"
	}
	return ""
}

// backOfShares takes back so many of each share of a purchase: every record that has one knows how much all of it is then.
func (d *dividing) backOfShares(e record.Event, p *parts, less func(i int) int) {
	whole := 0
	for i := range p.all {
		whole += less(i)
	}
	for i := range p.all {
		one, n := e, less(i)
		one.Event, one.Count = p.all[i].id, n
		one.Shared = &record.Shared{Count: whole}
		if one.Item != "" && n == 0 {
			one.Item = ""
		} else if one.Item != "" {
			one.Count = 0
		}
		p.all[i].own -= n
		d.to(p.all[i].record, one)
	}
	p.count -= whole
}
