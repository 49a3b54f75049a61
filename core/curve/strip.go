package curve

import (
	"math"
	"slices"
	"sync"

	"sturdyelbow/core/linear"
)

// strip is a spring in its own plane, in inches: from 0, 0 to span, 0.
type strip struct {
	span   float64
	held   [2]bool
	angle  [2]float64 // of travel at held ends, from the line between the ends
	length float64    // one of length, rise and half
	rise   float64
	half   bool
}

// shape is a solved strip, sampled at equal steps along it.
type shape struct {
	length      float64
	x, y, th, k []float64
}

const (
	steps    = 64   // along the strip; the error of the fourth-order steps is then below 1e-6 of the length
	newtons  = 40   // rounds
	nearly   = 1e-9 // of the span, or radians
	gradual  = 16   // parts in which ends are turned to where they are held
	finest   = 2000 // parts at most
	keepMost = 2048 // solved strips remembered
)

var solved = struct {
	sync.Mutex
	of map[strip]*shape // nil: there is no such bow
}{of: map[strip]*shape{}}

// solve finds the shape at rest. What has been found is remembered: hoops come
// in rows, and every edit plans them all again.
func (q strip) solve() (*shape, bool) {
	solved.Lock()
	r, known := solved.of[q]
	solved.Unlock()
	if !known {
		r = q.find()
		solved.Lock()
		if len(solved.of) >= keepMost {
			clear(solved.of)
		}
		solved.of[q] = r
		solved.Unlock()
	}
	return r, r != nil
}

// unknowns: the force p, q (times length², over stiffness), what is free at the
// start (its angle, or its curvature times length), and the length over span.
type unknowns [4]float64

func (q strip) find() *shape {
	if q.length > 0 && q.length < q.span*(1+1e-7) && !q.held[0] && !q.held[1] {
		return q.shapeOf(unknowns{0, 0, 0, 1})
	}
	for _, u := range q.guesses() {
		if v, ok := q.newton(u); ok {
			return q.shapeOf(v)
		}
	}
	return q.turnedIn()
}

// turnedIn begins with ends that turn freely and turns them, little by little,
// to where they are held.
func (q strip) turnedIn() *shape {
	free := q
	free.held = [2]bool{}
	if q.half {
		free.half, free.rise = false, q.span/2
	}
	var u unknowns
	ok := false
	for _, g := range free.guesses() {
		if u, ok = free.newton(g); ok {
			break
		}
	}
	if !ok {
		return nil
	}
	at := free.shapeOf(u)
	first, last := at.th[0], at.th[len(at.th)-1]
	u[2] = at.k[0] * at.length // of a held start the curvature is unknown
	if !q.held[0] {
		u[2] = first
	}
	done, step := 0.0, 1.0/gradual
	for done < 1 {
		t := min(1, done+step)
		part := q
		if q.half && t < 1 {
			part.half, part.rise = false, 0
			part.length = at.length
		}
		if q.held[0] {
			part.angle[0] = first + (q.angle[0]-first)*t
		}
		if q.held[1] {
			part.angle[1] = last + (q.angle[1]-last)*t
		}
		if v, ok := part.newton(u); ok {
			u, done = v, t
			step = min(2*step, 1.0/gradual)
		} else if step /= 2; step < 1.0/finest {
			return nil
		}
	}
	return q.shapeOf(u)
}

// guesses begins the search: with a true arc through the ends, and with the
// buckled strip of small rise.
func (q strip) guesses() []unknowns {
	turn := 1.0 // the angle that an arc turns through, in all
	long := 1.1
	switch {
	case q.length > 0:
		long = q.length / q.span
		turn = arcTurn(long)
	case q.rise > 0:
		turn = min(5, 4*math.Atan(2*q.rise/q.span))
		long = turn / 2 / math.Sin(turn/2)
	}
	first, last := turn/2, -turn/2
	if q.held[0] {
		first = q.angle[0]
	}
	if q.held[1] {
		last = q.angle[1]
	}
	if q.held[0] != q.held[1] && (q.half || (q.length == 0 && q.rise == 0)) {
		if q.held[1] {
			first = -q.angle[1] * 1.3
		} else {
			last = -q.angle[0] * 1.3
		}
	}
	if q.half {
		if w := math.Abs(first - last); w > 1e-3 && w < 6 {
			long = w / 2 / math.Sin(w/2)
		}
	}
	var all []unknowns
	for _, p := range []float64{-math.Pi * math.Pi, -4, 0, -25} {
		for _, l := range []float64{long, long * 1.08} {
			u := unknowns{p, 0, first, l}
			if q.held[0] {
				u[2] = last - first
			}
			all = append(all, u)
		}
	}
	return all
}

// arcTurn is the angle of an arc that is so many times as long as its chord.
func arcTurn(long float64) float64 {
	lo, hi := 0.0, 2*math.Pi-0.01
	for range 60 {
		if m := (lo + hi) / 2; m/2/math.Sin(m/2) < long {
			lo = m
		} else {
			hi = m
		}
	}
	return lo
}

// newton solves for the unknowns that a strip has, with halved steps where a
// whole one leads away.
func (q strip) newton(u unknowns) (unknowns, bool) {
	n := 4
	if q.length > 0 {
		n, u[3] = 3, q.length/q.span
	}
	at := func(x []float64) (v unknowns) {
		v = u
		copy(v[:], x)
		return v
	}
	off := func(x []float64) []float64 {
		o := q.off(at(x))
		return o[:n]
	}
	equations := linear.Newton{Rounds: newtons, Off: off,
		Slopes: func(x, now []float64) [][]float64 {
			slope := make([][]float64, n)
			for r := range slope {
				slope[r] = make([]float64, n)
			}
			for c := range n {
				h := 1e-6 * max(1, math.Abs(x[c]))
				v := slices.Clone(x)
				v[c] += h
				o := off(v)
				for r := range n {
					slope[r][c] = (o[r] - now[r]) / h
				}
			}
			return slope
		},
		Step: func(slope [][]float64, now []float64) ([]float64, bool) { return linear.Solve(slope, now, 1e-12) },
		Near: func(off []float64) bool { return worst(off) < nearly },
		Better: func(was, now []float64, share float64) bool {
			return worst(now) < worst(was)*(1-share/10) || worst(now) < nearly
		},
		Within: func(x []float64) bool { v := at(x); return v[3] >= 0.5 && v[3] <= 50 },
	}
	x, now, _, how := equations.Solve(u[:n])
	u = at(x)
	switch how {
	case linear.Near:
		return u, q.sound(u)
	case linear.Stuck:
		return u, worst(now) < 1e-7 && q.sound(u)
	}
	return u, false
}

// sound refuses strips that wave: a pipe rests in its first bow, with at most
// as many turning points as its held ends force on it.
func (q strip) sound(u unknowns) bool {
	s := q.shapeOf(u)
	turns := 0
	last := 0.0
	for _, k := range s.k[1 : len(s.k)-1] {
		if math.Abs(k)*s.length < 1e-3 {
			continue
		}
		if last*k < 0 {
			turns++
		}
		last = k
	}
	low, high := 0.0, 0.0
	for i := range s.y {
		low, high = min(low, s.y[i]), max(high, s.y[i])
	}
	free := !q.held[0] && !q.held[1]
	return turns <= 2 && (!free || (turns == 0 && high > -low))
}

type misses [4]float64

// worst is the largest of some misses.
func worst(misses []float64) (w float64) {
	for _, v := range misses {
		if math.IsNaN(v) {
			return math.Inf(1)
		}
		w = max(w, math.Abs(v))
	}
	return w
}

// off is by how much the ends of a strip miss what they are to be.
func (q strip) off(u unknowns) (m misses) {
	th, k := u[2], 0.0
	if q.held[0] {
		th, k = q.angle[0], u[2]
	}
	x, y, top := 0.0, 0.0, 0.0
	h := 1.0 / steps
	for range steps {
		was, wasTh := y, th
		x, y, th, k = advance(x, y, th, k, u[0], u[1], h)
		if wasTh > 0 && th <= 0 { // over the top: the crest of a cubic through both slopes
			t := wasTh / (wasTh - th)
			if crest := crestOf(was, y, math.Sin(wasTh)*h, math.Sin(th)*h, t); crest > top {
				top = crest
			}
		}
		if y > top {
			top = y
		}
	}
	m[0], m[1] = u[3]*x-1, u[3]*y
	if q.held[1] {
		m[2] = th - q.angle[1]
	} else {
		m[2] = k
	}
	switch {
	case q.half:
		m[3] = u[0]*math.Sin(q.angle[1]) - u[1]*math.Cos(q.angle[1])
	case q.rise > 0:
		m[3] = u[3]*top - q.rise/q.span
	}
	return m
}

// crestOf is the value at t of the cubic with given ends and slopes.
func crestOf(a, b, da, db, t float64) float64 {
	t2, t3 := t*t, t*t*t
	return a*(2*t3-3*t2+1) + da*(t3-2*t2+t) + b*(3*t2-2*t3) + db*(t3-t2)
}

// advance goes one step of the fourth order along a strip of length one.
func advance(x, y, th, k, p, q, h float64) (float64, float64, float64, float64) {
	f := func(th, k float64) (dx, dy, dth, dk float64) {
		sin, cos := math.Sincos(th)
		return cos, sin, k, p*sin - q*cos
	}
	x1, y1, t1, k1 := f(th, k)
	x2, y2, t2, k2 := f(th+h/2*t1, k+h/2*k1)
	x3, y3, t3, k3 := f(th+h/2*t2, k+h/2*k2)
	x4, y4, t4, k4 := f(th+h*t3, k+h*k3)
	return x + h/6*(x1+2*x2+2*x3+x4), y + h/6*(y1+2*y2+2*y3+y4), th + h/6*(t1+2*t2+2*t3+t4), k + h/6*(k1+2*k2+2*k3+k4)
}

func (q strip) shapeOf(u unknowns) *shape {
	long := u[3] * q.span
	s := &shape{length: long}
	th, k := u[2], 0.0
	if q.held[0] {
		th, k = q.angle[0], u[2]
	}
	x, y := 0.0, 0.0
	add := func() {
		s.x, s.y = append(s.x, x*long), append(s.y, y*long)
		s.th, s.k = append(s.th, th), append(s.k, k/long)
	}
	add()
	for range steps {
		x, y, th, k = advance(x, y, th, k, u[0], u[1], 1.0/steps)
		add()
	}
	return s
}
