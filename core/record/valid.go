package record

// Valid gives the events that count, in their order: of those of one id the first, and
// none that was taken back, unless that was taken back itself. Of a purchase that was
// taken back in part, the rest counts; of one that was made for several projects it counts
// also where nothing of it is this one's.
func Valid(events []Event) (all []Event) {
	eachValid(once(events), func(e *Event) { all = append(all, *e) })
	return all
}

// eachValid shows the events that count, of some that each have an id of their own. None is to be changed.
func eachValid(events []Event, visit func(e *Event)) {
	// only what is later takes back: from the end, every event is decided before those it
	// is about
	var at map[string]int // of those that something is told of later, which is the place of each
	off := make([]bool, len(events))
	parts := map[int]*partly{}
	for i := len(events) - 1; i >= 0; i-- {
		e := &events[i]
		if e.Kind != TakenBack || off[i] {
			continue
		}
		if at == nil {
			at = make(map[string]int, len(events))
			for i := range events {
				at[events[i].ID] = i
			}
		}
		of, known := at[e.Event]
		if !known || of >= i {
			continue
		}
		back := &events[of]
		if !back.counted() {
			off[of] = off[of] || e.Count == 0
			continue
		}
		p := parts[of]
		if p == nil {
			p = &partly{}
			parts[of] = p
		}
		if e.Item != "" {
			p.without = append(p.without, e.Item)
		}
		switch {
		case back.Shared != nil && e.Shared != nil:
			p.less, p.whole = p.less+e.Count, p.whole+e.Shared.Count
			off[of] = off[of] || p.whole >= back.Shared.Count
		case e.Item != "":
		case e.Count == 0:
			off[of] = true
		default:
			p.less += e.Count
			off[of] = off[of] || p.less >= back.Count
		}
	}
	for i := range events {
		if off[i] {
			continue
		}
		e := &events[i]
		if p := parts[i]; p != nil {
			rest := *e
			rest.Count, rest.without = max(0, e.Count-p.less), p.without
			if e.Shared != nil {
				shared := *e.Shared
				shared.Count -= p.whole
				rest.Shared = &shared
			}
			e = &rest
		}
		visit(e)
	}
}

// partly is what was taken back of a purchase: so many, these sticks, and so many of the whole of which it is a share.
type partly struct {
	less, whole int
	without     []string
}

// counted says whether an event is about so many of a thing.
func (e *Event) counted() bool { return e.Kind == Bought || e.Kind == Had }

// once gives the first event of each id.
func once(events []Event) []Event {
	seen, first := map[string]bool{}, make([]Event, 0, len(events))
	for i := range events {
		if id := events[i].ID; !seen[id] {
			seen[id] = true
			first = append(first, events[i])
		}
	}
	return first
}
