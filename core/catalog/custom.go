package catalog

import (
	"fmt"
	"maps"
	"strings"

	"sturdyelbow/core/measure"
)

// Custom is a fitting that the catalog does not have: bought elsewhere,
// printed, home-made. A wye, a 22-1/2 elbow, a hub for a ring.
type Custom struct {
	ID     Kind         `json:"id"`               // its name
	Source string       `json:"source,omitempty"` // bought, printed or home-made
	Size   Size         `json:"size"`
	Ports  []CustomPort `json:"ports"`
	Note   string       `json:"note,omitempty"` // what its builder wrote of it
}

// CustomPort is one opening of a custom part. What is zero is as typical of
// its size.
type CustomPort struct {
	Dir   measure.Dir    `json:"dir"`  // outward
	Stop  measure.Length `json:"stop"` // centre to the ledge the pipe meets
	Depth measure.Length `json:"depth,omitempty"`
	Body  measure.Length `json:"body,omitempty"`
}

// Problem says what cannot be about a custom part, how to mend it, and the JSON pointer
// of the field at fault; all are "" when it can.
func (c *Custom) Problem() (field, what, hint string) {
	switch {
	case strings.TrimSpace(string(c.ID)) == "" || c.ID.Known():
		return "/id", fmt.Sprintf("the part's name %q is empty or one of the catalog's", c.ID), "give it a name of its own"
	case !c.Size.Known():
		return "/size", fmt.Sprintf("unknown pipe size %q", c.Size), "use a nominal size such as 3/4"
	case len(c.Ports) < 2 || len(c.Ports) > 24:
		return "/ports", fmt.Sprintf("a part joins 2 to 24 pipes, and this one %d", len(c.Ports)), "write a line for each port"
	}
	at := func(i int, field string) string { return fmt.Sprintf("/ports/%d/%s", i, field) }
	for i, p := range c.Ports {
		switch {
		case !(p.Dir.Dot(p.Dir) >= 1e-12 && p.Dir.Dot(p.Dir) <= 1e12):
			return at(i, "dir"), fmt.Sprintf("port %d points nowhere", i+1), "give a direction such as right, or right up"
		case p.Stop < 0 || p.Depth < 0 || p.Body < 0 || max(p.Stop, p.Depth, p.Body) > 10*measure.Foot:
			return at(i, "stop"), fmt.Sprintf("port %d has a size below zero or over 10 ft", i+1), "measure it again"
		}
		for k := range i {
			if p.Dir.AngleTo(c.Ports[k].Dir) < 20 {
				what := fmt.Sprintf("ports %d and %d point the same way", k+1, i+1)
				return at(i, "dir"), what, "two sockets want at least 20 degrees between them"
			}
		}
	}
	return "", "", ""
}

// Customs lists the custom parts of a catalog.
func (c *Catalog) Customs() []Kind { return c.customs }

// WithParts gives a catalog that has custom parts as well.
func (c *Catalog) WithParts(parts []Custom) *Catalog {
	if len(parts) == 0 {
		return c
	}
	n := *c
	n.fittings, n.customs = maps.Clone(c.fittings), nil
	for i := range parts {
		p := &parts[i]
		if _, what, _ := p.Problem(); what != "" {
			continue
		}
		v := func(f Field) measure.Length { return c.Figure("", p.Size, f).Value }
		f := Fitting{Kind: p.ID, Size: string(p.Size)}
		for _, q := range p.Ports {
			o := Port{
				Role:   End,
				Dir:    q.Dir.Unit(),
				Gender: Socket,
				Size:   p.Size,
				Stop:   q.Stop,
				Depth:  q.Depth,
				Body:   q.Body,
				Bore:   c.pipes[p.Size].InsideDiameter,
			}
			if o.Depth == 0 {
				o.Depth = v(SocketDepth)
			}
			if o.Body == 0 {
				o.Body = v(BodyDiameter)
			}
			f.Ports = append(f.Ports, o)
		}
		n.fittings[fittingKey{p.ID, p.Size}] = f
		n.customs = append(n.customs, p.ID)
	}
	return &n
}
