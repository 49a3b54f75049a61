package ends

import (
	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/model"
)

// Judge notes ports and ends that are neither filled nor said to be open.
func Judge(b *model.Built) (fs []finding.Finding) {
	a := &b.Ports
	if len(a.Bare) > 0 {
		fs = append(fs, finding.New("ends-unsaid", finding.Note, finding.All(finding.Joint, a.Bare...)...).Fixed(
			edit.Fix("Cap every open end", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}}),
			edit.Fix("They are open on purpose", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.FreeEnd}})))
	}
	if n := len(a.Open); n > 0 {
		var joints, waiting []string
		for _, p := range a.Open {
			switch k := b.Graph.Node(p.Joint); {
			case b.Graph.Nodes[k].Fitting != nil && b.Graph.Nodes[k].Fitting.Awaits:
				waiting = append(waiting, p.Joint)
			case len(joints) == 0 || joints[len(joints)-1] != p.Joint:
				joints = append(joints, p.Joint)
			}
		}
		if len(joints) > 0 {
			fs = append(
				fs,
				finding.New("ports-open", finding.Note, finding.All(finding.Joint, joints...)...).With("sockets", n-len(waiting)),
			)
		}
		if len(waiting) > 0 {
			fs = append(fs, finding.New("tee-waits", finding.Warn, finding.All(finding.Joint, waiting...)...).Fixed(
				edit.Fix("No pipe goes there", edit.Edit{Gesture: &edit.Fit{Joint: waiting[0], More: waiting[1:]}})))
		}
	}
	return fs
}
