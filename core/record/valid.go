package record

// Valid gives the events that count, in their order: of those of one id the first, and
// none that was taken back, unless that was taken back itself. Of a purchase that was
// taken back in part, the rest counts; of one that was made for several projects it counts
// also where nothing of it is this one's.
func Valid(events []Event) []Event {
	first := once(events)
	at := map[string]int{}
	for i := range first {
		at[first[i].ID] = i
	}
	// only what is later takes back: from the end, every event is decided before those it
	// is about
	off, less := make([]bool, len(first)), make([]int, len(first))
	wholeLess := map[int]int{} // of purchases for several: of all of it
	for i := len(first) - 1; i >= 0; i-- {
		e := &first[i]
		if e.Kind != TakenBack || off[i] {
			continue
		}
		of, known := at[e.Event]
		if !known || of >= i {
			continue
		}
		switch back := &first[of]; {
		case back.counted() && back.Shared != nil && e.Shared != nil:
			if e.Item != "" {
				back.without = append(back.without, e.Item)
			}
			less[of] += e.Count
			wholeLess[of] += e.Shared.Count
			off[of] = off[of] || wholeLess[of] >= back.Shared.Count
		case back.counted() && e.Item != "":
			back.without = append(back.without, e.Item)
		case e.Count == 0:
			off[of] = true
		case back.counted():
			less[of] += e.Count
			off[of] = off[of] || less[of] >= back.Count
		}
	}
	n := 0
	for i, e := range first {
		if off[i] {
			continue
		}
		if first[n] = e; e.counted() {
			first[n].Count = max(0, first[n].Count-less[i])
			if e.Shared != nil && wholeLess[i] > 0 {
				left := *e.Shared
				left.Count -= wholeLess[i]
				first[n].Shared = &left
			}
		}
		n++
	}
	return first[:n]
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
