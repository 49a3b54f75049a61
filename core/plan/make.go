package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
	"sturdyelbow/core/model"
	"sturdyelbow/core/procure"
)

// The tape's steps where a job names none: a sixteenth, and a millimetre for a frame in millimetres.
const (
	DefaultStep = measure.Inch / 16
	MetricStep  = measure.Millimetre
)

// tape is the step to which the job's cuts are rounded: its own, or that of the tape which its first frame is measured with.
func (j *Job) tape() measure.Length {
	var unit measure.Unit
	if len(j.Frames) > 0 {
		unit = j.Frames[0].Document.Units
	}
	return TapeStep(j.Step, unit)
}

// TapeStep is the step that a job names, or that of a tape in a unit where it names none.
func TapeStep(named measure.Length, unit measure.Unit) measure.Length {
	switch {
	case named > 0:
		return named
	case unit == measure.Millimetres:
		return MetricStep
	}
	return DefaultStep
}

// Make plans a job with what the shop sells and what has been done. Work that was begun
// keeps the figures of the shop that it was begun with. Make builds the frames, runs the analyses of each, buys and cuts, and runs those of the whole job. The
// error is a [ValidationError], or the context's when it ends first; anything that can
// be planned at all is a plan with findings.
func Make(ctx context.Context, job Job, shop Shop, work Work) (*Plan, error) {
	return plans(ctx, job, shop, work, false, 0)
}

// Draft is [Make] with a first feasible purchase where the best one takes long
// to find: [Plan.Improving] then says that the whole plan is still to come. A small
// job is planned as a whole.
func Draft(ctx context.Context, job Job, shop Shop, work Work) (*Plan, error) {
	return plans(ctx, job, shop, work, true, 0)
}

func plans(ctx context.Context, job Job, shop Shop, work Work, draft bool, steps int64) (*Plan, error) {
	newer := newerFigures(&shop, work.Figures)
	c, err := job.ready(&shop, &work)
	if err != nil {
		return nil, err
	}
	p := &Plan{Step: job.tape(), Findings: []finding.Finding{}, Newer: newer, Begun: work.Figures != nil}
	if err := p.build(ctx, &job, &shop, c); err != nil {
		return nil, err
	}
	p.Joinery = joinery.Count(c, p.insertions())
	if err := p.procure(ctx, &job, &shop, &work, draft, steps); err != nil {
		return nil, err
	}
	p.analyse(&job, &shop, c)
	p.couple()
	p.cautions()
	p.say()
	return p, nil
}

// ready puts what the work was begun with and what is the job's own over what the shop has, and
// says what of all that makes no sense.
func (j *Job) ready(shop *Shop, work *Work) (*catalog.Catalog, error) {
	if work.Figures != nil {
		work.Figures.Put(shop)
	}
	j.put(shop)
	if n := j.validate(shop); len(n) > 0 {
		return nil, n
	}
	return shop.Catalog()
}

// build builds every frame of the job and runs its analyses.
func (p *Plan) build(ctx context.Context, job *Job, s *Shop, c *catalog.Catalog) error {
	var nonsense ValidationError
	for i := range job.Frames {
		use := &job.Frames[i]
		b, err := model.Build(ctx, s.Seated(&use.Document), c, p.Step, i)
		if ps, bad := err.(frame.Problems); bad {
			for _, q := range ps {
				q.Path = fmt.Sprintf("/job/frames/%d/document%s", i, q.Path)
				nonsense = append(nonsense, q)
			}
			continue
		}
		if err != nil {
			return err
		}
		f := frameOf(b, use.Copies, use.Was)
		found := append(f.analyse(ctx, use), use.Findings...)
		if use.Waiting != nil {
			w := *use.Waiting
			w.Words = w.wait()
			f.Waiting = &w
			found = append([]finding.Finding{f.Waiting.finding()}, found...)
		}
		for k := range found {
			found[k].Frame = i
		}
		p.Findings = append(p.Findings, found...)
		p.Frames = append(p.Frames, f)
	}
	if len(nonsense) > 0 {
		return nonsense
	}
	return nil
}

// frameOf is a built frame as the plan shows it.
func frameOf(b *model.Built, copies int, was map[string]string) Frame {
	f := Frame{Name: b.Doc.Name, Units: b.Doc.Units, Copies: copies, Floor: b.Floor, Loops: b.List.Loops,
		Insertions: b.Fits.Insertions(), Sizes: b.Sizes, Places: b.Places, Overall: b.Overall,
		Contacts: b.Contacts, Ports: b.Ports, Instances: []Instance{}, built: b}
	if f.Loops == nil {
		f.Loops = []cutlist.Loop{}
	}
	for _, sc := range b.Graph.Scopes {
		if sc.Parent >= 0 {
			f.Instances = append(f.Instances, Instance{sc.Path, sc.Of, cmp.Or(b.Graph.Doc.Group(sc.Of).Name, sc.Of)})
		}
	}
	where, short := b.Whereabouts(), layout.ShortNames(b.Graph)
	pipes := where.Pipes()
	f.Pipes, f.Joints = make([]Pipe, len(b.Pipes)), make([]Joint, len(short))
	for i := range b.Pipes {
		f.Pipes[i] = Pipe{Placed: b.Pipes[i], Where: pipes[i], Was: was[b.Pipes[i].Pipe]}
	}
	for i := range short {
		f.Joints[i] = Joint{Joint: b.Fits.Joints[i], Name: short[i], Where: where.Joint(i)}
		if l := b.Graph.Nodes[i].Later; l != nil {
			f.Joints[i].Later = l.Kind
		}
	}
	return f
}

// order is how the job is bought and cut.
func (j *Job) order(s *Shop, work *Work, joints joinery.Report) procure.Order {
	o := procure.Order{
		Shop:       s,
		Work:       work,
		EndTrim:    j.EndTrim,
		Joinery:    joints,
		Searched:   j.Searched,
		Spare:      j.Spare,
		SpareEvery: j.SpareEvery,
		School:     j.School,
		Keep:       j.Keep,
	}
	o.Tool, _ = s.Tool(j.Tool)
	return o
}

// procure buys what the built frames take, and says what each pipe is cut from.
func (p *Plan) procure(ctx context.Context, job *Job, s *Shop, work *Work, draft bool, steps int64) error {
	order := job.order(s, work, p.Joinery)
	order.Draft, order.Steps = draft, steps
	var lots []procure.Lot
	for i := range p.Frames {
		f := &p.Frames[i]
		lots = append(
			lots,
			procure.Lot{
				Built:   f.built,
				Copies:  f.Copies,
				Own:     job.Own,
				Needs:   slices.Concat(link.Needs(f.Links), job.Frames[i].needs()),
				Was:     job.Frames[i].Was,
				Variant: job.Frames[i].Variant,
			},
		)
	}
	bought, err := procure.Procure(ctx, lots, order)
	if err != nil {
		return err
	}
	p.Purchase = *bought
	for i, placed := range bought.Placed {
		for k := range placed {
			p.Frames[i].Pipes[k].Letter, p.Frames[i].Pipes[k].Stick = placed[k].Letter, placed[k].Stick
		}
	}
	return nil
}

// say tells as one what many findings say alike, sorts them and puts them into words.
func (p *Plan) say() {
	p.Findings = finding.Group(p.Findings, message.Groups)
	finding.Sort(p.Findings)
	of := make([]*names, len(p.Frames))
	for i := range p.Findings {
		f := &p.Findings[i]
		if of[f.Frame] == nil {
			of[f.Frame] = namesOf(&p.Frames[f.Frame])
		}
		message.Say(f, of[f.Frame], p.Frames[f.Frame].Units)
	}
}
