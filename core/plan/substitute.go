package plan

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Substitute is what may stand at every joint of a kind that is not to be had, and what it does to the
// frame and to the purchase.
type Substitute struct {
	Frame  int               `json:"frame"` // whose joints they are, counted from 0
	Words  string            `json:"words"` // elbows and tees, with a hidden nipple between
	Joints int               `json:"joints"`
	More   []FittingChange   `json:"more"`            // fittings that are bought more, or fewer
	Cost   measure.Money     `json:"cost"`            // to pay more
	Sticks int               `json:"sticks"`          // to buy more
	Grows  [3]measure.Length `json:"grows"`           // the outside size, along each axis
	Moves  measure.Length    `json:"moves,omitempty"` // how far pipes move; 0: they stay
	Cuts   []string          `json:"cuts"`            // letters of pieces that have another length then
	Nipple measure.Length    `json:"nipple,omitempty"`
	Asks   string            `json:"asks,omitempty"` // which size gives way is asked, when it is taken; nothing else is known then
	Warns  []string          `json:"warns"`          // what the frame has to be looked at for, that it had not before
	Fix    finding.Fix       `json:"fix"`
}

// FittingChange is a fitting of which more or fewer are bought.
type FittingChange struct {
	Kind catalog.Kind `json:"kind"`
	Size string       `json:"size"`
	More int          `json:"more"`
}

// mostSpare is how many other fittings with a spare port are tried.
const mostSpare = 3

// FindSubstitutes looks for what may stand at every joint of a job that has a fitting of a kind and size,
// frame by frame: one with a port to spare, or two fittings that touch, along every way that all of
// a frame's have pipes. Each is planned; what asks for an answer comes last.
func FindSubstitutes(ctx context.Context, job Job, shop Shop, work Work, kind catalog.Kind, size string) ([]Substitute, error) {
	before, err := Draft(ctx, job, shop, work)
	if err != nil {
		return nil, err
	}
	all := []Substitute{}
	for f := range before.Frames {
		s := &substituting{ctx: ctx, job: job, shop: shop, work: work, before: before, frame: f}
		for i := range before.Frames[f].Joints {
			if j := &before.Frames[f].Joints[i]; j.Kind == kind && j.Size == size && !j.Assumed {
				s.joints = append(s.joints, i)
			}
		}
		if len(s.joints) == 0 {
			continue
		}
		its, err := s.all(kind)
		if err != nil {
			return nil, err
		}
		all = append(all, its...)
	}
	return all, nil
}

// all are the substitutes at a frame's joints, the best first.
func (s *substituting) all(kind catalog.Kind) (all []Substitute, err error) {
	for _, c := range s.candidates(kind) {
		one, ok, err := s.try(c)
		if err != nil {
			return nil, err
		}
		if ok && !slices.ContainsFunc(all, func(o Substitute) bool { return o.same(&one) }) {
			all = append(all, one)
		}
	}
	if slices.ContainsFunc(all, func(s Substitute) bool { return s.Asks == "" }) { // what bends the frame is no substitute then
		all = slices.DeleteFunc(all, func(s Substitute) bool { return s.Asks != "" })
	}
	slices.SortStableFunc(all, func(a, b Substitute) int {
		return cmp.Or(
			cmp.Compare(len(a.Asks), len(b.Asks)),
			cmp.Compare(len(a.Warns), len(b.Warns)),
			cmp.Compare(a.grown(), b.grown()),
			cmp.Compare(a.Cost, b.Cost),
		)
	})
	return all, nil
}

// same says whether two substitutes come to the same: corners that are square may be parted either way.
func (s *Substitute) same(o *Substitute) bool {
	return s.Words == o.Words && s.Cost == o.Cost && s.Grows == o.Grows && s.Asks == o.Asks && slices.Equal(s.Cuts, o.Cuts)
}

func (s *Substitute) grown() (sum measure.Length) {
	for _, g := range s.Grows {
		sum += g.Abs()
	}
	return sum
}

type substituting struct {
	ctx    context.Context
	job    Job
	shop   Shop
	work   Work
	before *Plan
	frame  int
	joints []int // of the frame
}

// was is the frame as it is.
func (s *substituting) was() *Frame { return &s.before.Frames[s.frame] }

// candidate is what is tried.
type candidate struct {
	words string
	edits []edit.Edit
}

func (s *substituting) candidates(kind catalog.Kind) (all []candidate) {
	f := s.was()
	ids := make([]string, len(s.joints))
	for i, j := range s.joints {
		ids[i] = f.Joints[j].ID
	}
	for _, a := range []measure.Axis{measure.X, measure.Y, measure.Z} {
		for _, b := range []measure.Axis{measure.X, measure.Y, measure.Z} {
			if a != b && s.runs(a) && s.runs(b) {
				all = append(all, candidate{
					words: fmt.Sprintf("two fittings that touch; the pipes that run %s move along %s", runWords[b], alongWords[a]),
					edits: []edit.Edit{{Gesture: &edit.Apart{Joint: ids[0], More: ids[1:], Along: a, Move: b}}},
				})
			}
		}
	}
	return append(all, s.spares(kind)...)
}

// spares are fittings with a port to spare. A joint of a part is set once, for all of its uses.
func (s *substituting) spares(kind catalog.Kind) (all []candidate) {
	f := s.was()
	if fit, ok := f.built.Catalog.Fitting(kind, "3/4"); !ok || len(fit.Ports) < 2 {
		return nil
	}
	type place struct{ of, joint string }
	var joints []int
	seen := map[place]bool{}
	for _, j := range s.joints {
		node := &f.built.Graph.Nodes[j]
		_, name, _ := frame.Ref(node.ID).Parts()
		if at := (place{f.built.Graph.Scopes[node.Scope].Of, name}); !seen[at] {
			seen[at] = true
			joints = append(joints, j)
		}
	}
	ways := map[catalog.Kind][]fitting.Choice{} // by kind, the first way of each joint
	for n, j := range joints {
		had := map[catalog.Kind]bool{}
		for _, c := range f.built.Fits.Choices(j, f.built.Catalog) {
			if c.Kind != kind && len(c.Spare) > 0 && !had[c.Kind] && len(ways[c.Kind]) == n {
				had[c.Kind] = true
				ways[c.Kind] = append(ways[c.Kind], c)
			}
		}
	}
	for _, k := range catalog.JointKinds() {
		if len(ways[k]) != len(joints) || len(all) == mostSpare {
			continue
		}
		c := candidate{words: k.Words() + ", with a port to spare"}
		for n, w := range ways[k] {
			c.edits = append(c.edits, edit.Edit{Gesture: &edit.Fit{Joint: f.Joints[joints[n]].ID, Kind: k, Spare: w.Spare, Declared: true}})
		}
		all = append(all, c)
	}
	return all
}

// runWords say which pipes run along an axis, and alongWords along which others something moves there.
var (
	runWords   = map[measure.Axis]string{measure.X: "across", measure.Y: "in depth", measure.Z: "upright"}
	alongWords = map[measure.Axis]string{measure.X: "those across", measure.Y: "those in depth", measure.Z: "the uprights"}
)

// runs says whether a straight pipe leaves every joint along an axis, and whether it has enough others.
func (s *substituting) runs(a measure.Axis) bool {
	for _, j := range s.joints {
		ports, along := 0, false
		for _, p := range s.was().Joints[j].Ports {
			if p.Fill != fitting.WithPipe {
				continue
			}
			ports++
			along = along || max(p.Dir[a], -p.Dir[a]) > 1-1e-9
		}
		if ports < 3 || !along {
			return false
		}
	}
	return true
}

// try makes a candidate and plans it; ok is false where it is refused or cannot be planned.
func (s *substituting) try(c candidate) (out Substitute, ok bool, err error) {
	out = Substitute{Frame: s.frame, Words: c.words, Joints: len(s.joints), More: []FittingChange{}, Cuts: []string{}, Warns: []string{}}
	out.Fix.Label = "Take " + c.words
	doc := &s.job.Frames[s.frame].Document
	for _, e := range c.edits {
		out.Fix.Edits = append(out.Fix.Edits, edit.Fix("", e).Edits...)
		next, _, err := Edit(s.ctx, doc, e, &s.shop)
		var q *edit.Question
		var no *edit.Refusal
		var nonsense frame.Problems
		switch {
		case errors.As(err, &q):
			out.Asks = q.What
			return out, true, nil
		case errors.As(err, &no), errors.As(err, &nonsense):
			return out, false, nil
		case err != nil:
			return out, false, err
		}
		doc = next
	}
	job := s.job
	job.Frames = slices.Clone(job.Frames)
	job.Frames[s.frame].Document = *doc
	after, err := Draft(s.ctx, job, s.shop, s.work)
	if err != nil {
		return out, false, s.ctx.Err()
	}
	s.compare(&out, after)
	return out, s.serves(after), nil
}

// serves says whether a plan has none of what is not to be had, and nothing in it that cannot be built.
func (s *substituting) serves(after *Plan) bool {
	of := s.was().Joints[s.joints[0]]
	for _, f := range after.Fittings {
		if f.Kind == of.Kind && f.Size == of.Size {
			return false
		}
	}
	stops := func(p *Plan) (n int) {
		for _, f := range p.Findings {
			if f.Severity == finding.Stop || f.Code == "no-fitting" {
				n++
			}
		}
		return n
	}
	return stops(after) <= stops(s.before)
}

// compare says what is otherwise in a plan.
func (s *substituting) compare(out *Substitute, after *Plan) {
	out.Cost, out.Sticks = after.Bill.Total-s.before.Bill.Total, after.Totals.Sticks-s.before.Totals.Sticks
	count := func(p *Plan, sign int) {
		for _, f := range p.Fittings {
			i := slices.IndexFunc(out.More, func(x FittingChange) bool { return x.Kind == f.Kind && x.Size == f.Size })
			if i < 0 {
				i, out.More = len(out.More), append(out.More, FittingChange{f.Kind, f.Size, 0})
			}
			out.More[i].More += sign * f.Count
		}
	}
	count(after, 1)
	count(s.before, -1)
	out.More = slices.DeleteFunc(out.More, func(x FittingChange) bool { return x.More == 0 })
	was, is := s.was(), &after.Frames[s.frame]
	for a := range 3 {
		out.Grows[a] = is.Overall[a].Size - was.Overall[a].Size
	}
	cuts := map[string]measure.Length{}
	for i := range is.Pipes {
		cuts[is.Pipes[i].Pipe] = is.Pipes[i].Ordered
		if is.Pipes[i].Hidden {
			out.Nipple = is.Pipes[i].Ordered
		}
	}
	for i := range was.Pipes {
		p := &was.Pipes[i]
		if cuts[p.Pipe] != p.Ordered && !slices.Contains(out.Cuts, p.Letter) {
			out.Cuts = append(out.Cuts, p.Letter)
		}
	}
	slices.Sort(out.Cuts)
	out.Moves = s.moved(is)
	had := map[string]bool{}
	for _, f := range s.before.Findings {
		had[f.Code] = true
	}
	for _, f := range after.Findings {
		if f.Severity != finding.Note && !had[f.Code] {
			had[f.Code] = true
			out.Warns = append(out.Warns, f.Text)
		}
	}
}

// moved is how far two fittings that touch stand from each other: the centre distance of a hidden
// nipple that was not there before.
func (s *substituting) moved(is *Frame) (far measure.Length) {
	was := map[string]bool{}
	for i := range s.was().Joints {
		was[s.was().Joints[i].ID] = true
	}
	for i := range is.Pipes {
		if p := &is.Pipes[i]; p.Hidden && (!was[p.From] || !was[p.To]) {
			far = max(far, p.Centre)
		}
	}
	return far
}
