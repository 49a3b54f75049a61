package edit

import (
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// trial is a copy of the editor, with a document of its own, to try a change on.
func (e *editor) trial() *editor {
	return &editor{
		doc: e.doc.Clone(), unit: e.unit, step: e.step, solve: e.solve, view: e.view, was: e.was, clashed: e.clashed, alias: e.alias,
	}
}

// newClashes are the contradictions of a tried change that the editor before it did not have.
func (e *editor) newClashes(before *editor) (all []*layout.Clash) {
	was := map[string]bool{}
	for i := range before.view.Clashes {
		was[before.view.Clashes[i].Key()] = true
	}
	for i := range e.view.Clashes {
		if c := &e.view.Clashes[i]; !was[c.Key()] && !e.clashed[c.Key()] {
			all = append(all, c)
		}
	}
	return all
}

// residual compares a tried change with the editor before it: off is by how much the
// worst new contradiction is off, and fits says that there is no new one.
func (e *editor) residual(before *editor) (off measure.Length, fits bool) {
	for _, c := range e.newClashes(before) {
		off = max(off, c.Off.Abs())
	}
	for _, f := range e.view.Findings {
		if f.Code == "turned-round" || f.Code == "zero-length" {
			if !told(before.view.Findings, &f) {
				return measure.FrameLimit, false
			}
		}
	}
	return off, off == 0
}

// told says whether a finding is among others: of its code, about the same.
func told(all []finding.Finding, f *finding.Finding) bool {
	return slices.ContainsFunc(all, func(g finding.Finding) bool { return g.Code == f.Code && g.Subject() == f.Subject() })
}
