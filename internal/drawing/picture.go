package drawing

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"sync"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// pictured is the size whose proportions the pictures have.
const pictured = catalog.Size("1")

// Pictures gives a small picture of each kind of fitting as SVG. The classes
// are those of the drawn frame.
var Pictures = sync.OnceValue(func() map[catalog.Kind]string {
	c := catalog.Typical()
	all := map[catalog.Kind]string{}
	for _, k := range append(catalog.JointKinds(), catalog.Cap) {
		f, _ := c.Fitting(k, pictured)
		all[k] = picture(f)
	}
	all[catalog.ReducingCoupling] = picture(c.ReducingCoupling("1-1/4", "3/4"))
	all[catalog.Bushing] = picture(c.Bushings("1-1/4", "3/4")[0])
	plug := picture(c.Bushings("1", "3/4")[0])
	all[catalog.Plug] = strings.ReplaceAll(plug, `class="bore"`, `class="hub-fill"`)
	return all
})

// plain are the kinds without a body between their ports; they are small and
// drawn larger.
var plain = []catalog.Kind{catalog.Cap, catalog.Bushing, catalog.Coupling, catalog.ReducingCoupling}

// tube is a piece of a fitting from one point to another, open at the far end
// or not.
type tube struct {
	from, to flat
	dir      measure.Dir
	wide     float64 // in drawing units
	bore     float64 // 0: closed
}

// picture draws one fitting as it lies in the hand: its branch up, a side
// outlet towards the viewer.
func picture(f catalog.Fitting) string {
	a := &artist{scale: 22}
	if slices.Contains(plain, f.Kind) {
		a.scale = 30
	}
	var tubes []tube
	for i := range f.Ports {
		p := &f.Ports[i]
		d := measure.Dir{p.Dir[0], -p.Dir[2], p.Dir[1]}
		from, to := measure.Point{}, measure.Point{}.Along(d, p.Face())
		bore := p.Bore
		switch f.Kind {
		case catalog.Cap: // stands on its closed end
			d = measure.Dir{0, 0, 1}
			from, to, bore = measure.Point{}.Along(d, -f.End), measure.Point{}.Along(d, p.Depth), p.Body*3/4
		case catalog.Bushing: // its flange up
			d = measure.Dir{0, 0, 1}
			from, to = measure.Point{}, measure.Point{}.Along(d, f.Ports[0].Depth)
			if i == 1 {
				from, to, bore = to, to.Along(d, f.Flange), p.Bore
			}
		}
		tubes = append(tubes, tube{a.at(from), a.at(to), d, p.Body.Inches() * a.scale, bore.Inches() * a.scale})
	}
	towards := func(t *tube) float64 { return t.from.depth - t.to.depth }
	slices.SortStableFunc(tubes, func(s, t tube) int { return cmp.Compare(towards(&s), towards(&t)) })
	if f.Kind == catalog.Bushing {
		slices.SortStableFunc(tubes, func(s, t tube) int { return cmp.Compare(t.to.y, s.to.y) })
	}
	top := -50
	if f.Kind == catalog.Cap || f.Kind == catalog.Bushing {
		top = -62 // they stand on the origin
	}
	var b sheet
	b.add(`<svg xmlns="http://www.w3.org/2000/svg" class="frame" viewBox="-50 %d 100 100">`, top)
	centre := !slices.Contains(plain, f.Kind)
	for _, layer := range []bool{true, false} { // every outline, then every body over them
		if r := f.Ports[0].Body.Inches() * a.scale / 2; centre {
			b.add(`<circle r="%.1f" class="%s"/>`, r+edgeIf(layer), classIf(layer))
		}
		for i := range tubes {
			t := &tubes[i]
			b.put(t.ellipse(t.from, t.wide+2*edgeIf(layer), classIf(layer)))
			b.put(t.side(t.wide+2*edgeIf(layer), classIf(layer)))
			if layer {
				b.put(t.ellipse(t.to, t.wide+2*edgeIf(layer), classIf(layer)))
				continue
			}
			if towards(t) < 0 {
				b.put(t.ellipse(t.to, t.wide, "hub-fill"))
				continue
			}
			b.put(t.ellipse(t.to, t.wide, "edge-fill"))
			b.put(t.ellipse(t.to, t.wide-3, "lip"))
			b.put(t.ellipse(t.to, t.bore, "bore"))
		}
	}
	b.put("</svg>")
	return string(b.markup())
}

func edgeIf(outline bool) float64 {
	if outline {
		return 2.2
	}
	return 0
}

func classIf(outline bool) string {
	if outline {
		return "edge-fill"
	}
	return "hub-fill"
}

// ellipse is a disc of a diameter, square to the tube, seen from where the
// viewer stands.
func (t *tube) ellipse(at flat, diameter float64, class string) markup {
	if diameter <= 0 {
		return ""
	}
	origin, far := (&artist{scale: 1}).at(measure.Point{}), (&artist{scale: 1}).at(measure.Point{}.Along(t.dir, measure.Inch))
	dx, dy := far.x-origin.x, far.y-origin.y
	flatness := math.Sqrt(max(0, 1-dx*dx-dy*dy))
	return mark(`<ellipse cx="%.1f" cy="%.1f" rx="%.1f" ry="%.1f" transform="rotate(%.1f %.1f %.1f)" class="%s"/>`,
		at.x, at.y, diameter/2*flatness, diameter/2, math.Atan2(dy, dx)*180/math.Pi, at.x, at.y, class)
}

func (t *tube) side(width float64, class string) markup {
	dx, dy := t.to.x-t.from.x, t.to.y-t.from.y
	n := math.Hypot(dx, dy)
	if n == 0 {
		return ""
	}
	x, y := -dy/n*width/2, dx/n*width/2
	return mark(`<polygon points="%.1f,%.1f %.1f,%.1f %.1f,%.1f %.1f,%.1f" class="%s"/>`,
		t.from.x+x, t.from.y+y, t.to.x+x, t.to.y+y, t.to.x-x, t.to.y-y, t.from.x-x, t.from.y-y, class)
}
