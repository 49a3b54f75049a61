package layout

import (
	"cmp"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Place is one set of axes, the frame's own or a use's, with its stations
// where they stand.
type Place struct {
	Path     string         `json:"path"`  // of the use; "" for the frame itself
	Group    string         `json:"group"` // its definition; "" for the frame itself
	Origin   measure.Point  `json:"origin"`
	Axes     [3]measure.Dir `json:"axes"` // in the world
	Stations [3][]Stood     `json:"stations"`
}

// Stood is a station where it stands. Stations are in the order of the axis.
type Stood struct {
	ID     string         `json:"id"`
	At     measure.Length `json:"at"`             // along its own axis
	By     string         `json:"by,omitempty"`   // JSON pointer of the dimension that places it
	From   string         `json:"from,omitempty"` // the station that is measured from, or the floor
	Split  []string       `json:"split,omitempty"`
	Like   string         `json:"like,omitempty"`   // the axis that it takes its size from
	Copied bool           `json:"copied,omitempty"` // the station of an array's copy
	Joints int            `json:"joints"`           // how many stand on it
}

// Local gives a point of the world in a place's own axes.
func (p *Place) Local(q measure.Point) (l measure.Point) {
	for a := range 3 {
		l[a] = dot(q.Sub(p.Origin), p.Axes[a])
	}
	return l
}

// Turned gives a direction of the world in a place's own axes.
func (p *Place) Turned(d measure.Dir) (l measure.Dir) {
	for a := range 3 {
		l[a] = d.Dot(p.Axes[a])
	}
	return l
}

func (s *solver) places() {
	s.out.Places = make([]Place, len(s.g.Scopes))
	for i := range s.g.Scopes {
		sc, p := &s.g.Scopes[i], &s.out.Places[i]
		p.Path, p.Group, p.Origin = sc.Path, sc.Of, s.originOf(i)
		for a := range 3 {
			p.Axes[a] = sc.Orient.Dir(measure.Axis(a).Dir())
			p.Stations[a] = []Stood{}
			own := s.g.Doc.Own(sc.Of)
			for k, st := range sc.Axes[a].Stations {
				at := Stood{ID: st.ID, At: s.find(i, measure.Axis(a), st.ID), Copied: k >= own[a], Joints: len(s.on[3*i+a][st.ID])}
				switch {
				case st.Like != nil:
					at.Like = st.Like.Axis.String()
				case st.Split != nil:
					at.Split = []string{st.Split.From, st.Split.To}
				case st.At != nil:
					at.By, at.From = sc.Pointers[a][k], st.At.From
				}
				p.Stations[a] = append(p.Stations[a], at)
			}
			slices.SortStableFunc(p.Stations[a], func(x, y Stood) int { return cmp.Compare(x.At, y.At) })
		}
	}
}

// Definition of a place in a document.
func (p *Place) Definition(d *frame.Document) *frame.Definition {
	if p.Group == "" {
		return &d.Root
	}
	return d.Group(p.Group)
}
