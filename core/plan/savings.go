package plan

import (
	"cmp"
	"context"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/procure"
)

// Savings is what small changes of a job would save, how much larger it could be for the same
// purchase, and what takes its sticks off a knife edge.
type Savings struct {
	Sizes   []SizeSaving `json:"sizes"`
	Repairs []Repair     `json:"repairs"`
}

// SizeSaving is what one target size costs at its margins.
type SizeSaving struct {
	Frame int            `json:"frame"`
	ID    string         `json:"id"`   // of the size
	Says  string         `json:"says"` // as it was typed
	Label string         `json:"label,omitempty"`
	Axis  string         `json:"axis,omitempty"` // along which it is: x, y or z
	Now   measure.Length `json:"now"`
	// Less is the greatest smaller size that takes less to buy and puts no more sticks on a knife
	// edge, or where none within 1/4 in of it does that, that takes less; 0 where none up to 2 in
	// less does.
	Less    measure.Length `json:"less,omitempty"`
	Saves   measure.Money  `json:"saves,omitempty"`
	Sticks  int            `json:"sticks,omitempty"` // fewer
	Length  measure.Length `json:"length,omitempty"` // less of pipe to be bought, where there are no prices
	PerInch measure.Money  `json:"perInch,omitempty"`
	Edges   int            `json:"edges,omitempty"`   // sticks that are on a knife edge then, more than now
	Letters []string       `json:"letters,omitempty"` // of the pieces that are shorter then
	// Most is the greatest size that the same purchase gives, looked for up to 12 in beyond.
	Most measure.Length `json:"most"`
	Fix  *finding.Fix   `json:"fix,omitempty"`
}

// Bounds of what is tried.
const (
	lessMost   = 2 * measure.Inch
	moreMost   = 12 * measure.Inch
	offEdge    = measure.Inch / 4 // what more may come off a size to keep sticks off a knife edge
	trySteps   = 20_000_000       // the search may spend for one change
	mostSizes  = 24
	mostShaved = 24
)

// bought is what a purchase takes.
type bought struct {
	lacking, sticks int
	edges           int // where the cuts are tidied
	cost            measure.Money
	length          measure.Length
	priced          bool
}

// compare orders purchases, the better first: by cost, or by length where there are no prices,
// and then by sticks.
func (b bought) compare(o bought) int {
	least := cmp.Compare(b.length, o.length)
	if b.priced && o.priced {
		least = cmp.Compare(b.cost, o.cost)
	}
	return cmp.Or(cmp.Compare(b.lacking, o.lacking), least, cmp.Compare(b.sticks, o.sticks))
}

// thrift tries changes of a job.
type thrift struct {
	ctx   context.Context
	job   Job
	shop  Shop
	work  Work
	cat   *catalog.Catalog
	built []*model.Built // as it is
	now   *procure.Purchase
	step  measure.Length // sizes are tried by: that of the tape
}

// FindSavings looks for small changes that save: each target size a little smaller, or larger
// for the same purchase; and for repairs of sticks on a knife edge. Sizes that are typed cuts
// are tried only where typed says so. Every answer is planned anew and priced; it takes as
// long as some dozens of plans.
func FindSavings(ctx context.Context, job Job, shop Shop, work Work, typed bool) (*Savings, error) {
	c, err := job.ready(&shop, &work)
	if err != nil {
		return nil, err
	}
	t := &thrift{ctx: ctx, job: job, shop: shop, work: work, cat: c, step: job.tape()}
	for i := range job.Frames {
		b, err := t.build(i, &job.Frames[i].Document)
		if err != nil {
			return nil, err
		}
		t.built = append(t.built, b)
	}
	if t.now, err = t.purchase(t.built, true); err != nil {
		return nil, err
	}
	out := &Savings{Sizes: []SizeSaving{}, Repairs: []Repair{}}
	for f := range job.Frames {
		for _, z := range t.targets(f, typed) {
			if len(out.Sizes) == mostSizes {
				break
			}
			s, ok, err := t.size(f, z)
			if err != nil {
				return nil, err
			}
			if ok {
				out.Sizes = append(out.Sizes, s)
			}
		}
	}
	slices.SortStableFunc(out.Sizes, func(a, b SizeSaving) int { // what saves most for an inch first
		return cmp.Or(cmp.Compare(b.PerInch, a.PerInch), cmp.Compare(b.Length, a.Length))
	})
	out.Repairs, err = t.repairs(typed)
	return out, err
}

func (t *thrift) build(frame int, d *frame.Document) (*model.Built, error) {
	return model.Build(t.ctx, t.shop.Seated(d), t.cat, t.job.tape(), frame)
}

// purchase buys for frames; tidy plans the cuts as they will be, and not only what is bought.
func (t *thrift) purchase(built []*model.Built, tidy bool) (*procure.Purchase, error) {
	o := t.job.order(&t.shop, &t.work, joinery.Report{})
	o.Bare, o.Anew = true, true
	if o.Steps = trySteps; tidy {
		o.Bare, o.Steps = false, 0
	}
	var lots []procure.Lot
	for i, b := range built {
		lots = append(
			lots,
			procure.Lot{
				Built:   b,
				Copies:  t.job.Frames[i].Copies,
				Own:     t.job.Own,
				Was:     t.job.Frames[i].Was,
				Variant: t.job.Frames[i].Variant,
			},
		)
	}
	return procure.Procure(t.ctx, lots, o)
}

func taken(p *procure.Purchase) (b bought) {
	b.priced = true
	for i := range p.Pipe {
		m := &p.Pipe[i].Stock
		b.cost, b.length, b.sticks, b.edges = b.cost+m.Cost, b.length+m.Bought, b.sticks+m.Count, b.edges+m.Edges
		b.priced = b.priced && (m.Priced || m.Net == 0)
		for _, l := range m.Lacking {
			b.lacking += l.Count
		}
	}
	return b
}

// targets lists the sizes of a frame that its builder gave: the cuts among them only where
// that is allowed.
func (t *thrift) targets(f int, typed bool) (all []frame.Size) {
	d := &t.job.Frames[f].Document
	d.EachSize(func(_ *frame.Definition, s *frame.Size) {
		if s.Gave == nil && !s.Inferred && s.Solves == "" && !s.Half && s.Value > lessMost && (typed || s.Meaning != frame.Cut) {
			all = append(all, *s)
		}
	})
	return all
}

// with is what has to be bought when a size is another; ok is false where it cannot be.
func (t *thrift) with(f int, id string, value measure.Length, tidy bool) (b bought, ok bool, err error) {
	d := t.job.Frames[f].Document.Clone()
	z := d.SizeOf(id)
	if z == nil || value <= 0 {
		return b, false, nil
	}
	z.Value = value
	built, err := t.build(f, d)
	if err != nil {
		return b, false, t.ctx.Err() // it cannot be built so
	}
	if len(built.Clashes) > len(t.built[f].Clashes) || tooShort(built) > tooShort(t.built[f]) {
		return b, false, nil
	}
	frames := slices.Clone(t.built)
	frames[f] = built
	p, err := t.purchase(frames, tidy)
	if err != nil {
		return b, false, err
	}
	return taken(p), true, nil
}

func tooShort(b *model.Built) (n int) {
	for i := range b.Pipes {
		if b.Pipes[i].TooShort || b.Pipes[i].Cut <= 0 {
			n++
		}
	}
	return n
}

// size looks for the greatest smaller value of a size that takes less to buy, and for the
// greatest that takes no more. What is bought is taken to fall with the size.
func (t *thrift) size(f int, z frame.Size) (s SizeSaving, ok bool, err error) {
	now := taken(t.now)
	s = SizeSaving{Frame: f, ID: z.ID, Says: z.Says(), Label: z.Label, Axis: z.Axis, Now: z.Value, Most: z.Value}
	same, fits, err := t.with(f, z.ID, z.Value, false)
	if err != nil || !fits {
		return s, false, err
	}
	_, smaller, err := t.with(f, z.ID, z.Value-t.step, false)
	if err != nil {
		return s, false, err
	}
	_, larger, err := t.with(f, z.ID, z.Value+t.step, false)
	if err != nil || !smaller && !larger {
		return s, false, err // another size holds it where it is
	}
	if same.compare(now) < 0 {
		now = same // found with less search: no change is needed for it
	}
	less := func(by measure.Length) (bought, bool, error) {
		b, ok, err := t.with(f, z.ID, z.Value-by, false)
		return b, ok && b.compare(now) < 0, err
	}
	best, saves, err := less(lessMost)
	if err != nil {
		return s, false, err
	}
	if saves {
		low, high := measure.Length(0), lessMost/t.step // in steps: high saves
		for high-low > 1 {
			mid := (low + high) / 2
			b, ok, err := less(mid * t.step)
			if err != nil {
				return s, false, err
			}
			if ok {
				best, high = b, mid
			} else {
				low = mid
			}
		}
		by := high * t.step
		if by, best, err = t.offTheEdge(f, z, by, best, now); err != nil {
			return s, false, err
		}
		s.Edges = max(0, best.edges-now.edges)
		s.Less, s.Sticks = z.Value-by, now.sticks-best.sticks
		if now.priced && best.priced {
			s.Saves = now.cost - best.cost
			s.PerInch = measure.Money(float64(s.Saves) / by.Inches())
		} else {
			s.Length = now.length - best.length
		}
		s.Fix = sizeFix(t.built[f], z, s.Less)
		d := t.job.Frames[f].Document.Clone()
		d.SizeOf(z.ID).Value = s.Less
		if built, err := t.build(f, d); err == nil {
			s.Letters = othersThat(t.now.Cuts, built, "", f)
		}
	}
	no := func(by measure.Length) (bool, error) {
		b, ok, err := t.with(f, z.ID, z.Value+by, false)
		return !ok || b.compare(now) > 0, err
	}
	low, high := measure.Length(0), moreMost/t.step // low takes no more
	if over, err := no(moreMost); err != nil {
		return s, false, err
	} else if !over {
		low = high
	}
	for high-low > 1 {
		mid := (low + high) / 2
		over, err := no(mid * t.step)
		if err != nil {
			return s, false, err
		}
		if over {
			high = mid
		} else {
			low = mid
		}
	}
	s.Most = z.Value + low*t.step
	return s, true, nil
}

// offTheEdge takes a little more off a size, until it puts no more sticks on a knife edge than
// there are; where that does not help, it is left.
func (t *thrift) offTheEdge(f int, z frame.Size, by measure.Length, saves, now bought) (measure.Length, bought, error) {
	first, firstSaves := by, saves
	for more := measure.Length(0); more <= offEdge; more += t.step {
		b, ok, err := t.with(f, z.ID, z.Value-by-more, true)
		if err != nil {
			return by, saves, err
		}
		if !ok || b.compare(now) >= 0 {
			continue
		}
		if more == 0 {
			firstSaves = b
		}
		if b.edges <= now.edges {
			return by + more, b, nil
		}
	}
	return first, firstSaves, nil
}

// sizeFix is the gesture that types another value for a size, in the unit and meaning it has.
func sizeFix(b *model.Built, z frame.Size, value measure.Length) *finding.Fix {
	text := value.Tape(cmp.Or(z.Unit, b.Doc.Units))
	fix := edit.Fix("Make it "+text, edit.Edit{Gesture: &edit.Size{ID: z.ID, Length: text, Meaning: z.Meaning}})
	return &fix
}
