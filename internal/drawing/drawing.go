// Package drawing draws a planned frame to scale as SVG: pipes and fittings
// with their real diameters standing on the floor, pieces lettered as in the
// cut list, cemented joints with a collar and dry ones with an open ring, and
// the outside size along the three axes.
//
// Everything has a class, so that a page can colour it; the attributes are
// what a viewer without the page's styles shows.
package drawing

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/link"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
)

// Options says how lengths are written, and whether letters and sizes are
// left out.
type Options struct {
	Style measure.Style
	Step  measure.Length
	Plain bool
	Paper bool // letters large, to be read at arm's length from a sheet
}

// size of the drawing's longer side, in its own units; a plain one is shown
// small, where lines should be bolder.
const canvas, plainCanvas = 1000.0, 440.0

// the view: from the front, a little from the right and above
const (
	turn = 32 * math.Pi / 180
	tilt = 20 * math.Pi / 180
)

type flat struct{ x, y, depth float64 }

type artist struct {
	f      *plan.Frame
	o      Options
	scale  float64 // drawing units per inch
	lo, hi [2]float64
	b      sheet
	tags   []box
}

type box struct{ x, y, w, h float64 }

// Frame draws one frame.
func Frame(f *plan.Frame, o Options) string {
	a := &artist{f: f, o: o, scale: 1}
	a.frameIn()
	margin := 62.0
	if o.Plain {
		margin = 24
	}
	w, h := a.hi[0]-a.lo[0]+2*margin, a.hi[1]-a.lo[1]+2*margin
	a.b.add(
		`<svg xmlns="http://www.w3.org/2000/svg" class="frame" viewBox="%.1f %.1f %.1f %.1f" role="img" aria-label="%s" font-family="sans-serif">`,
		a.lo[0]-margin,
		a.lo[1]-margin,
		w,
		h,
		a.caption(),
	)
	a.floor()
	a.bodies()
	if !o.Plain {
		a.sizes()
		a.letters()
		if w := a.f.Waiting; w != nil {
			a.b.add(
				`<text class="unfinished" x="%.1f" y="%.1f" font-size="26" fill="#b3261e">unfinished: %s</text>`,
				a.lo[0]-margin+12,
				a.lo[1]-margin+30,
				w.Words,
			)
		}
	}
	a.b.put("</svg>")
	return string(a.b.markup())
}

func (a *artist) caption() string {
	e := a.f.Overall
	return fmt.Sprintf(
		"%s: %s wide, %s deep, %s high, %d pipes",
		a.f.Name,
		a.text(e[0].Size),
		a.text(e[1].Size),
		a.text(e[2].Size),
		len(a.f.Pipes),
	)
}

func (a *artist) text(l measure.Length) string {
	step := a.o.Step
	if step == 0 {
		step = plan.DefaultStep
	}
	return l.Format(a.o.Style, step)
}

func (a *artist) at(p measure.Point) flat {
	x, y, z := p[0].Inches(), p[1].Inches(), p[2].Inches()
	u := x*math.Cos(turn) + y*math.Sin(turn)
	d := y*math.Cos(turn) - x*math.Sin(turn)
	return flat{u * a.scale, -(z*math.Cos(tilt) + d*math.Sin(tilt)) * a.scale, d*math.Cos(tilt) - z*math.Sin(tilt)}
}

// corner gives a corner of the outside box: bit i set means the far side.
func (a *artist) corner(bits int) measure.Point {
	var p measure.Point
	for i, e := range a.f.Overall {
		if p[i] = e.From; bits>>i&1 == 1 {
			p[i] += e.Size
		}
	}
	return p
}

// frameIn finds the scale at which the outside box fills the canvas.
func (a *artist) frameIn() {
	a.bounds()
	if s := max(a.hi[0]-a.lo[0], a.hi[1]-a.lo[1]); s > 0 {
		a.scale = canvas / s
		if a.o.Plain {
			a.scale = plainCanvas / s
		}
	}
	a.bounds()
}

func (a *artist) bounds() {
	for i := range 8 {
		q := a.at(a.corner(i))
		if i == 0 {
			a.lo, a.hi = [2]float64{q.x, q.y}, [2]float64{q.x, q.y}
		}
		a.lo = [2]float64{min(a.lo[0], q.x), min(a.lo[1], q.y)}
		a.hi = [2]float64{max(a.hi[0], q.x), max(a.hi[1], q.y)}
	}
}

func (a *artist) floor() {
	var pts []string
	for _, c := range []int{0, 1, 3, 2} {
		q := a.at(a.corner(c))
		pts = append(pts, fmt.Sprintf("%.1f,%.1f", q.x, q.y))
	}
	a.b.add(`<polygon class="floor" points="%s" fill="#8883" stroke="#8886" stroke-dasharray="4 6"/>`, strings.Join(pts, " "))
}

// body is a pipe's visible part or a whole fitting; far ones are drawn first.
type body struct {
	depth float64
	svg   markup
}

const edge = `#33302c`

func (a *artist) bodies() {
	var all []body
	for i := range a.f.Pipes {
		if p := &a.f.Pipes[i]; p.Cut > 0 {
			all = append(all, a.pipe(p))
		}
	}
	for i := range a.f.Joints {
		if j := &a.f.Joints[i]; j.Kind != "" {
			all = append(all, a.joint(&j.Joint))
		}
	}
	for i := range a.f.Links {
		for _, d := range a.f.Links[i].Discs {
			all = append(all, a.disc(&d))
		}
	}
	slices.SortStableFunc(all, func(s, t body) int { return cmp.Compare(t.depth, s.depth) })
	for _, s := range all {
		a.b.put(s.svg)
	}
}

func line(class, colour string, p, q flat, width float64) markup {
	return mark(
		`<line class="%s" x1="%.1f" y1="%.1f" x2="%.1f" y2="%.1f" stroke="%s" stroke-width="%.2f"/>`,
		class,
		p.x,
		p.y,
		q.x,
		q.y,
		colour,
		width,
	)
}

// disc draws a wheel: its two sides and the hub's middle.
func (a *artist) disc(d *link.Disc) body {
	u := d.Axis.Cross(measure.Dir{0, 0, 1}).Unit()
	if u == (measure.Dir{}) {
		u = measure.Dir{1, 0, 0}
	}
	v := d.Axis.Cross(u).Unit()
	side := func(out measure.Length, radius measure.Length, fill string) markup {
		var pts []string
		for k := range 36 {
			sin, cos := math.Sincos(float64(k) * math.Pi / 18)
			q := a.at(d.At.Along(d.Axis, out).Along(u, radius.Scale(cos)).Along(v, radius.Scale(sin)))
			pts = append(pts, fmt.Sprintf("%.1f,%.1f", q.x, q.y))
		}
		return mark(
			`<polygon class="wheel" points="%s" fill="%s" stroke="%s" stroke-width="1.2"/>`,
			strings.Join(pts, " "),
			fill,
			edge,
		)
	}
	near, far := d.Wide.Half(), -d.Wide.Half()
	if a.at(d.At.Along(d.Axis, near)).depth > a.at(d.At.Along(d.Axis, far)).depth {
		near, far = far, near
	}
	r := d.Diameter.Half()
	return body{
		a.at(d.At).depth,
		side(far, r, "#5b5750") + side(near, r, "#8a857b") + side(near, r.Scale(0.55), "#ece6da") + side(near, r.Scale(0.1), "#5b5750"),
	}
}

// curve draws the way of a pipe that is not straight.
func (a *artist) curve(class, colour string, way []measure.Point, width float64) markup {
	var pts []string
	for _, p := range way {
		q := a.at(p)
		pts = append(pts, fmt.Sprintf("%.1f,%.1f", q.x, q.y))
	}
	return mark(
		`<polyline class="%s" points="%s" fill="none" stroke="%s" stroke-width="%.2f" stroke-linejoin="round"/>`,
		class,
		strings.Join(pts, " "),
		colour,
		width,
	)
}

func (a *artist) pipe(p *plan.Pipe) body {
	m, n := a.at(p.Shown[0]), a.at(p.Shown[1])
	class, fill := "pipe", "#f4f1ea"
	if p.TooShort {
		class, fill = "pipe bad", "#e07a5f"
	}
	w := p.OD.Inches() * a.scale
	title := fmt.Sprintf("%s: %s pipe, cut %s, %s to %s", p.Letter, p.Size, a.text(p.Cut), p.From, p.To)
	under, over := line("edge", edge, m, n, w+2), line(class, fill, m, n, max(w-1.2, 1))
	if len(p.Way) > 0 {
		under, over = a.curve("edge", edge, p.Way, w+2), a.curve(class, fill, p.Way, max(w-1.2, 1))
	}
	return body{(m.depth + n.depth) / 2, mark(`<g class="piece" data-pipe="%s" data-letter="%s"><title>%s</title>%s%s</g>`,
		p.Pipe, p.Letter, title, under, over)}
}

// collar is how long the ring is that tells a cemented joint from a dry one.
const collar = measure.Inch / 4

// joint draws a fitting as one body: first every outline, then every hub over
// them, then the rings at the rims, the nearest port last.
func (a *artist) joint(j *fitting.Joint) body {
	class, fill := "hub", "#ddd8cd"
	if j.Assumed {
		class, fill = "hub bad", "#e07a5f"
	}
	ports := slices.Clone(j.Ports)
	slices.SortStableFunc(ports, func(p, q fitting.Port) int {
		return cmp.Compare(a.at(j.At.Along(q.Dir, measure.Foot)).depth, a.at(j.At.Along(p.Dir, measure.Foot)).depth)
	})
	var outline, hubs, rings sheet
	centre := a.at(j.At)
	if !j.Free() {
		r := j.Body.Inches() * a.scale / 2
		outline.add(`<circle class="edge-fill" cx="%.1f" cy="%.1f" r="%.2f" fill="%s"/>`, centre.x, centre.y, r+1, edge)
		hubs.add(`<circle class="%s-fill" cx="%.1f" cy="%.1f" r="%.2f" fill="%s"/>`,
			class,
			centre.x,
			centre.y,
			max(r-0.6, 0.5),
			fill,
		)
	}
	for i := range ports {
		p := &ports[i]
		if !p.Known {
			continue
		}
		w := p.Body.Inches() * a.scale
		from, to := j.At, j.At.Along(p.Dir, p.Face)
		if j.Free() {
			from, to = j.At.Along(p.Dir, -j.Beyond()), j.At.Along(p.Dir, p.Takes())
		}
		m, n := a.at(from), a.at(to)
		outline.put(line("edge", edge, m, n, w+2))
		hubs.put(line(class, fill, m, n, max(w-1.2, 1)))
		if p.Fill != fitting.WithPipe {
			continue
		}
		ring, colour := "ring dry", "#ffffff"
		if p.Mode == frame.Cemented {
			ring, colour = "ring cemented", "#7b4fa3"
		}
		back := a.at(to.Along(p.Dir, -collar))
		rings.add(`<g data-insertion="%s" data-mode="%s">%s%s</g>`, j.ID+"|"+p.Pipe, p.Mode,
			line("edge", edge, a.at(to.Along(p.Dir, -collar-collar/4)), n, w+2), line(ring, colour, back, n, max(w-0.4, 1)))
	}
	return body{centre.depth, mark(`<g class="fitting" data-joint="%s"><title>%s</title>%s%s%s</g>`, j.ID,
		fmt.Sprintf("%s %s at %s", j.Size, j.Kind, j.ID), outline.markup(), hubs.markup(), rings.markup())}
}

// sizes writes the outside size along each axis, clear of the frame.
func (a *artist) sizes() {
	const off = 30.0
	for axis, ends := range [3][2]int{{0, 1}, {1, 3}, {0, 4}} {
		e := a.f.Overall[axis]
		if e.Size <= 0 {
			continue
		}
		p, q := a.at(a.corner(ends[0])), a.at(a.corner(ends[1]))
		dx, dy := q.x-p.x, q.y-p.y
		n := math.Hypot(dx, dy)
		if n < 40 { // too short in this view for a line of its own
			continue
		}
		nx, ny := -dy/n*off, dx/n*off
		if axis == 2 {
			nx, ny = -off, 0
		}
		a.b.add(
			`<path class="dim" d="M%.1f %.1fL%.1f %.1fM%.1f %.1fL%.1f %.1fM%.1f %.1fL%.1f %.1f" stroke="#6b655c" stroke-width="1.4" fill="none"/>`,
			p.x+nx,
			p.y+ny,
			q.x+nx,
			q.y+ny,
			p.x+nx*0.7,
			p.y+ny*0.7,
			p.x+nx*1.3,
			p.y+ny*1.3,
			q.x+nx*0.7,
			q.y+ny*0.7,
			q.x+nx*1.3,
			q.y+ny*1.3,
		)
		cx, cy := (p.x+q.x)/2+nx, (p.y+q.y)/2+ny
		angle := math.Atan2(dy, dx) * 180 / math.Pi
		if axis == 2 {
			angle = -90
		}
		text := a.text(e.Size)
		w := float64(len([]rune(text)))*12 + 14
		a.b.add(
			`<g transform="translate(%.1f %.1f) rotate(%.1f)"><rect class="paper" x="%.1f" y="-14" width="%.1f" height="28" fill="#fffdf8"/><text class="dim-text" text-anchor="middle" y="7" font-size="21" fill="#33302c">%s</text></g>`,
			cx,
			cy,
			angle,
			-w/2,
			w,
			text,
		)
		a.tags = append(a.tags, box{cx - w/2, cy - w/2, w, w})
	}
}

// letters puts each piece's letter on its pipe, moved along it where another
// letter or a size is in the way.
func (a *artist) letters() {
	r, size := 14.0, 17.0
	if a.o.Paper {
		r, size = 24, 31
	}
	for i := range a.f.Pipes {
		p := &a.f.Pipes[i]
		best, least := 0.5, math.Inf(1)
		for _, t := range []float64{0.5, 0.35, 0.65, 0.22, 0.78} {
			m := a.at(p.Spot(t))
			b := box{m.x - r, m.y - r, 2 * r, 2 * r}
			if hit := a.covered(b); hit < least {
				best, least = t, hit
			}
			if least == 0 {
				break
			}
		}
		at := a.at(p.Spot(best))
		x, y := at.x, at.y
		a.tags = append(a.tags, box{x - r, y - r, 2 * r, 2 * r})
		a.b.add(
			`<g class="tag" data-letter="%s"><circle cx="%.1f" cy="%.1f" r="%.0f" fill="#fffdf8" stroke="#33302c" stroke-width="1.4"/><text x="%.1f" y="%.1f" text-anchor="middle" font-size="%.0f" font-weight="600" fill="#33302c">%s</text></g>`,
			p.Letter,
			x,
			y,
			r,
			x,
			y+size*0.36,
			size,
			p.Letter,
		)
	}
}

func (a *artist) covered(b box) (area float64) {
	for _, t := range a.tags {
		w := min(b.x+b.w, t.x+t.w) - max(b.x, t.x)
		h := min(b.y+b.h, t.y+t.h) - max(b.y, t.y)
		if w > 0 && h > 0 {
			area += w * h
		}
	}
	return area
}
