package edit

import (
	"fmt"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Overall sizes the whole frame along an axis, over however many bays: between the two bodies that
// stand outermost. What it contradicts is asked about.
type Overall struct {
	Axis   measure.Axis `json:"axis"`
	Length string       `json:"length"` // as typed; over the fittings unless it says otherwise
}

var _ = register[Overall]("overall")

func (w *Overall) on(e *editor) (Done, error) {
	if w.Axis < measure.X || w.Axis > measure.Z {
		return Done{}, in("/axis", refuse("use 0, 1 or 2 for x, y or z", "no such axis"))
	}
	s, err := e.size(w.Length, frame.Outside)
	if err != nil {
		return Done{}, in("/length", err)
	}
	ends := e.view.Outmost[w.Axis]
	if ends[0] < 0 || ends[1] < 0 || ends[0] == ends[1] {
		return Done{}, refuse("draw it first", "nothing is to be measured %s", []string{"across", "in depth", "in height"}[w.Axis])
	}
	if s.Meaning != frame.Outside && s.Meaning != frame.Centre && s.Meaning != frame.Clear && s.Meaning != frame.Slot {
		return Done{}, in("/length", refuse("say outside, centre, clear or slot", "the whole has no %s", label(s.Meaning)))
	}
	if e.doc.Tilted() {
		return Done{}, refuse("stand it upright first", "the frame is tilted: its own axes are not those of the floor")
	}
	scope := e.common(ends[0], ends[1])
	var planes [2]int
	place := e.place(scope)
	for k, n := range ends {
		ref, ok := e.ref(scope, e.view.Graph.Nodes[n].ID)
		if planes[k] = place.Find(w.Axis, frame.Ref(ref)); !ok || planes[k] < 0 {
			return Done{}, refuse("size a bay of it", "what stands outermost is placed by a part that is turned")
		}
	}
	lo, hi := &place.Planes[w.Axis][planes[0]], &place.Planes[w.Axis][planes[1]]
	if lo.Copied || hi.Copied {
		return Done{}, refuse("change how far apart the copies stand, or how many there are", "a copy stands outermost")
	}
	def := e.def(scope)
	done := Done{Label: fmt.Sprintf("%s over all, %s", strings.TrimSpace(w.Length), []string{"across", "in depth", "in height"}[w.Axis])}
	if ids := e.direct(scope, w.Axis, lo, hi); len(ids) > 0 {
		old := e.doc.SizeOf(ids[0])
		s.Axis, s.From, s.To = old.Axis, old.From, old.To
		if old.Axis == "" {
			s.Axis, s.From, s.To = w.Axis.String(), lo.Ref, hi.Ref
		}
		pipe := old.Pipe
		e.replaceSize(old, s)
		if s.Axis != "" && pipe != "" {
			e.doc.SizeOf(ids[0]).Pipe = ""
		}
		return done, nil
	}
	s.Axis, s.From, s.To = w.Axis.String(), lo.Ref, hi.Ref
	e.doc.AddSize(def, s)
	return done, nil
}
