package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

// BadCut is what becomes of a cut that went wrong, and what it costs.
type BadCut struct {
	Letter string               `json:"letter,omitempty"` // of the piece that it was to be
	Wanted measure.Length       `json:"wanted"`
	Is     measure.Length       `json:"is"`               // as long as it came out; 0: of no use
	Fate   procure.Fate         `json:"fate,omitempty"`   // of it, by the best plan for the rest; "" where it is of no use
	Serves *procure.PieceRef    `json:"serves,omitempty"` // the planned piece that it is, or becomes
	As     string               `json:"as,omitempty"`     // the letter of that piece
	Used   bool                 `json:"used,omitempty"`   // others are cut from it
	CanBe  []procure.PieceRef   `json:"canBe"`            // pieces still to be cut that are no longer, the longest first
	Need   map[catalog.Size]int `json:"need"`             // sticks to buy more, by size
	Cost   measure.Money        `json:"cost"`             // to pay more, where there are prices
	Proven bool                 `json:"proven"`           // nothing costs less
	Same   []Same               `json:"same"`             // other sizes by which its twins are as long as it is
}

// Same is another value of a size, by which the twins of a wrong piece are as long as it is.
type Same struct {
	Frame  int                  `json:"frame"` // counted from 0
	ID     string               `json:"id"`    // of the size
	Says   string               `json:"says"`  // as it was typed
	Label  string               `json:"label,omitempty"`
	Axis   string               `json:"axis,omitempty"` // along which it is
	Now    measure.Length       `json:"now"`
	Then   measure.Length       `json:"then"`
	Need   map[catalog.Size]int `json:"need"`            // sticks to buy more, by size
	Cost   measure.Money        `json:"cost"`            // to pay more
	Trims  int                  `json:"trims,omitempty"` // pieces that are cut already, and to be trimmed then
	Recut  int                  `json:"recut,omitempty"` // pieces that are cut already, and too short then
	Others []string             `json:"others"`          // letters of other pieces whose length changes with it
	Fix    finding.Fix          `json:"fix"`
}

// FindBadCut plans the rest of a job after a cut went wrong: bad is the event that says so, a
// [record.Cut] with the length that the piece came out at, or a [record.Spoilt]. What is cut
// stays, and what the wrong piece can still be is found with the rest. The error is a [ValidationError] where the piece is said
// to be longer than what was left to cut it from.
func FindBadCut(ctx context.Context, job Job, shop Shop, work Work, bad record.Event) (*BadCut, error) {
	before, err := Make(ctx, job, shop, work)
	if err != nil {
		return nil, err
	}
	if most := roomFor(before, bad); bad.Kind == record.Cut && most > 0 && bad.Length > most {
		return nil, ValidationError{{
			Path: "/event/length", What: fmt.Sprintf("a piece of %v, and what it is cut from is %v long", bad.Length, most),
			Hint: "measure it once more",
		}}
	}
	after, err := Make(ctx, job, shop, work.With(bad))
	if err != nil {
		return nil, err
	}
	b := &BadCut{
		CanBe: []procure.PieceRef{}, Need: moreSticks(after, before),
		// what was bought is paid, and what a plan from the beginning would save is not saved by this cut
		Cost:   max(0, after.Bill.Total-before.Bill.Total),
		Proven: after.Totals.Proven, Same: []Same{},
	}
	if bad.Kind == record.Cut && bad.Piece != nil {
		b.Is = bad.Length
		b.Letter, b.Wanted = bad.Letter, wanted(before, bad)
		for i := range after.Existing {
			e := &after.Existing[i]
			if e.ID != bad.ID {
				continue
			}
			b.Fate, b.Used, b.Serves = e.Fate, e.Used, e.Serves
			if e.Serves != nil {
				b.As = letterAt(after, *e.Serves)
			}
		}
		b.CanBe = noLonger(before, bad)
		if b.Same, err = findSame(ctx, job, shop, work, before, bad); err != nil {
			return nil, err
		}
	}
	return b, nil
}

// roomFor is how much there is of what a piece is cut from, a part of a stick or the whole, before it is cut; 0 where that is not
// known.
func roomFor(p *Plan, bad record.Event) measure.Length {
	if bad.Piece == nil {
		return 0
	}
	for i := range p.Pipe {
		for n := range p.Pipe[i].Sticks {
			s := &p.Pipe[i].Sticks[n]
			at := slices.IndexFunc(s.Pieces, func(x procure.StickPiece) bool { return x.Cut == "" && isOf(&x, bad) })
			if s.Earlier || at < 0 {
				continue
			}
			room, from, to := cmp.Or(s.True, s.Length), 0, len(s.Pieces)
			for _, part := range s.Parts {
				if room, to = part.Length, from+part.Pieces; at < to {
					break
				}
				from = to
			}
			for _, x := range s.Pieces[from:to] {
				if x.Cut != "" {
					room -= x.Length + x.Kerf
				}
			}
			return room
		}
	}
	return 0
}

// moreSticks says how many more sticks of each size one plan takes from a shop than another.
func moreSticks(after, before *Plan) map[catalog.Size]int {
	need := map[catalog.Size]int{}
	for i := range after.Pipe {
		size := after.Pipe[i].Size
		if more := sticksTaken(after, size) - sticksTaken(before, size); more != 0 {
			need[size] = more
		}
	}
	return need
}

// sticksTaken counts the sticks of a size that a plan takes from a shop, those that are there with
// the others.
func sticksTaken(p *Plan, size catalog.Size) (n int) {
	for i := range p.Pipe {
		if p.Pipe[i].Size == size {
			for _, need := range p.Pipe[i].Need {
				n += need.Count
			}
		}
	}
	return n
}

// eachToCut shows every piece that is still to be cut, with its place.
func eachToCut(p *Plan, visit func(size catalog.Size, x *procure.StickPiece)) {
	for i := range p.Pipe {
		for n := range p.Pipe[i].Sticks {
			s := &p.Pipe[i].Sticks[n]
			for k := range s.Pieces {
				if x := &s.Pieces[k]; x.Cut == "" && !s.Earlier {
					visit(p.Pipe[i].Size, x)
				}
			}
		}
	}
}

// isOf says whether a piece that is still to be cut is the one that an event is about.
func isOf(x *procure.StickPiece, e record.Event) bool {
	return x.Frame == e.Frame && x.Pipe == e.Piece.Pipe && x.Copy == e.Piece.Copy
}

func wanted(p *Plan, bad record.Event) (l measure.Length) {
	eachToCut(p, func(_ catalog.Size, x *procure.StickPiece) {
		if isOf(x, bad) {
			l = x.Length
		}
	})
	return l
}

func letterAt(p *Plan, ref procure.PieceRef) (letter string) {
	for i := range p.Cuts {
		if slices.Contains(p.Cuts[i].Pipes, procure.PipeRef{Frame: ref.Frame, Pipe: ref.Pipe}) {
			letter = p.Cuts[i].Letter
		}
	}
	return letter
}

// noLonger lists the pieces that a wrong one could still be: those of its size that are still
// to be cut and no longer, but for its own.
func noLonger(p *Plan, bad record.Event) []procure.PieceRef {
	type piece struct {
		procure.PieceRef
		length measure.Length
	}
	var all []piece
	eachToCut(p, func(size catalog.Size, x *procure.StickPiece) {
		if bad.Stick != nil && size == bad.Stick.Size && x.Length <= bad.Length && !isOf(x, bad) {
			all = append(all, piece{x.PieceRef, x.Length})
		}
	})
	slices.SortStableFunc(all, func(a, b piece) int { return cmp.Compare(b.length, a.length) })
	refs := make([]procure.PieceRef, len(all))
	for i := range all {
		refs[i] = all[i].PieceRef
	}
	return refs
}
