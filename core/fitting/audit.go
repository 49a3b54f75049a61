package fitting

import "sturdyelbow/core/frame"

// Audit accounts for every port and every pipe's end of a frame.
type Audit struct {
	Sockets  int        `json:"sockets"`  // of all fittings
	Filled   int        `json:"filled"`   // with a pipe
	Plugged  int        `json:"plugged"`  // closed
	Declared int        `json:"declared"` // open on purpose
	Open     []OpenPort `json:"open"`     // nobody said so

	Ends   int      `json:"ends"`   // of all pipes
	Seated int      `json:"seated"` // in a socket
	Capped int      `json:"capped"`
	Free   int      `json:"free"` // on purpose
	Staked int      `json:"staked"`
	Bare   []string `json:"bare"` // joints: nobody said so
}

// OpenPort is a socket that nothing is in.
type OpenPort struct {
	Joint string `json:"joint"`
	Port  int    `json:"port"`
}

// Audit counts what is in the ports and at the pipes' ends. Where no fitting
// joins the pipes, their ends count as in none.
func (r *Result) Audit() Audit {
	a := Audit{Open: []OpenPort{}, Bare: []string{}}
	for i := range r.Joints {
		j, n := &r.Joints[i], &r.g.Nodes[i]
		a.Ends += len(n.Pipes)
		switch {
		case len(n.Pipes) == 0:
			continue
		case j.Assumed:
			a.Bare = append(a.Bare, j.ID)
			continue
		case j.Kind == "":
			switch n.End {
			case frame.FreeEnd:
				a.Free++
			case frame.StakedEnd:
				a.Staked++
			default:
				a.Bare = append(a.Bare, j.ID)
			}
			continue
		case j.Free():
			a.Capped++
			continue
		}
		for k := range j.Ports {
			a.Sockets++
			switch p := &j.Ports[k]; {
			case p.Fill == WithPipe:
				a.Filled++
				a.Seated++
			case p.Fill == Plugged:
				a.Plugged++
			case n.Fitting != nil && n.Fitting.Declared:
				a.Declared++
			default:
				a.Open = append(a.Open, OpenPort{j.ID, k})
			}
		}
	}
	return a
}
