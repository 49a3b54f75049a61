package weight

import (
	"math"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

// Weight is what one frame weighs, in pounds, without what hangs on it.
type Weight struct {
	Pipe     float64 `json:"pipe"`
	Fittings float64 `json:"fittings"` // about: 20 % more or less
	Total    float64 `json:"total"`
}

// density is pounds of fitting for each cubic inch between its body and the pipe (handbook, weights).
const density = 0.0506

// Judge weighs a frame: pipe by the foot, as the catalog has it, and each port of a fitting as a sleeve
// from its centre to its rim. Bushings, hardware and cement are left out.
func Judge(b *model.Built) (w Weight, _ []finding.Finding) {
	for i := range b.Pipes {
		p := &b.Pipes[i]
		w.Pipe += max(0, p.Ordered).Inches() / 12 * b.Catalog.Pipe(p.Size).PoundsPerFoot
	}
	for i := range b.Fits.Joints {
		j := &b.Fits.Joints[i]
		if j.Kind == "" || j.Assumed {
			continue
		}
		for k := range j.Ports {
			w.Fittings += sleeve(&j.Ports[k], b.Catalog.Pipe(j.Ports[k].Size).OutsideDiameter)
		}
	}
	w.Total = w.Pipe + w.Fittings
	return w, nil
}

// sleeve is the weight of one port.
func sleeve(p *fitting.Port, inner measure.Length) float64 {
	body, od, long := p.Body.Inches(), inner.Inches(), (p.Stop + p.Depth).Inches()
	return density * math.Pi / 4 * max(0, body*body-od*od) * max(0, long)
}
