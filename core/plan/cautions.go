package plan

// cautions are the usual ones that apply to this job.
func (p *Plan) cautions() {
	p.Cautions = []string{
		"Cutting: wear glasses, clamp the pipe, keep fingers clear. Never hold a piece under 6 in by hand at a power saw. Deburr every end.",
		"Below 40 °F PVC shatters into sharp pieces: do not shear, drive or drop it.",
	}
	if p.Joinery.Cemented > 0 {
		p.Cautions = append(
			p.Cautions,
			"Primer and cement are flammable and their vapour harms: work outdoors or well aired, with gloves, away from flames. Air a cemented frame a day or two before indoor use or use by children or animals.",
		)
	}
	p.Cautions = append(
		p.Cautions,
		"Not for overhead loads, climbing, or holding people. Children and animals: mind small parts, gaps of 3-1/2 to 9 in, and frames that tip.",
		"Never compressed air or gas in PVC. Follow local codes; where a body relies on it, ask a licensed professional.",
	)
}
