package packing

import "math/rand/v2"

// dear is added to the cost of a pattern that is not to be used.
const dear = 1000

// ban makes a pattern so dear that it leaves the basis, or lets it be used again.
func (l *master) ban(p int, banned bool) {
	if l.patterns[p].banned == banned {
		return
	}
	if l.patterns[p].banned = banned; banned {
		l.patterns[p].cost += dear
	} else {
		l.patterns[p].cost -= dear
	}
	if l.at[p] >= 0 {
		l.settle()
	}
}

// lean is by how much [master.tilt] makes a pattern cheaper at the most.
const lean = 1e-3

// tilt makes each pattern a little cheaper, as chance has it, so that another of many
// solutions that are as good is the best.
func (l *master) tilt(source *rand.Rand) {
	for i := range l.patterns {
		p := &l.patterns[i]
		p.off = lean * source.Float64()
		p.cost -= p.off
	}
	l.settle()
}

// level takes that back.
func (l *master) level() {
	for i := range l.patterns {
		p := &l.patterns[i]
		p.cost += p.off
		p.off = 0
	}
	l.settle()
}

// state is a basis that can be taken up again.
type state struct {
	basis []int
	inv   []float64
	want  []float64
}

func (l *master) save() state {
	return state{append([]int(nil), l.basis...), append([]float64(nil), l.inv...), append([]float64(nil), l.want...)}
}

func (l *master) load(s state) {
	for _, b := range l.basis {
		l.mark(b, -1)
	}
	copy(l.basis, s.basis)
	copy(l.inv, s.inv)
	copy(l.want, s.want)
	for i, b := range l.basis {
		l.mark(b, i)
	}
	l.settle()
}
