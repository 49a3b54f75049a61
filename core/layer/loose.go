package layer

import (
	"encoding/json"
	"regexp"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/together"
)

// pieces numbers the joints of a frame so that those that pipes join have one
// number, and says which numbers have a joint of the base among them.
func pieces(g *frame.Graph, own func(node int) bool) (piece []int, based map[int]bool) {
	sets := together.New(len(g.Nodes))
	for i := range g.Edges {
		sets.Join(g.Edges[i].Ends[0], g.Edges[i].Ends[1], 0)
	}
	for i := range g.Links { // what is bolted or tied to the base hangs on it too
		on := g.Links[i].On
		for k := 1; k < len(on); k++ {
			sets.Join(g.NodeOf(on[0]), g.NodeOf(on[k]), 0)
		}
	}
	piece = make([]int, len(g.Nodes))
	based = map[int]bool{}
	for i := range piece {
		piece[i] = sets.Root(i)
		if own(i) {
			based[piece[i]] = true
		}
	}
	return piece, based
}

// standsOn gives the joint, or the use of the frame's own, that a node belongs to.
func standsOn(g *frame.Graph, node int) key {
	n := &g.Nodes[node]
	sc := &g.Scopes[n.Scope]
	if sc.Parent < 0 {
		return key{"", Joint, n.ID}
	}
	for g.Scopes[sc.Parent].Parent >= 0 {
		sc = &g.Scopes[sc.Parent]
	}
	return key{"", Use, sc.Use}
}

// hang marks what was added to the frame itself and hung on the base.
func (l Layer) hang(now *frame.Document) {
	g, err := frame.Expand(now)
	if err != nil {
		return
	}
	added := map[key]*Record{}
	for i := range l {
		if r := &l[i]; r.In == "" && r.Added() && (r.Kind == Joint || r.Kind == Use) {
			added[r.key()] = r
		}
	}
	if len(added) == 0 {
		return
	}
	piece, based := pieces(g, func(n int) bool { return added[standsOn(g, n)] == nil })
	for n := range g.Nodes {
		if r := added[standsOn(g, n)]; r != nil && based[piece[n]] {
			r.Hangs = true
		}
	}
}

// loose sets aside what was added and hung on the base, and hangs on nothing of
// it now. It says whether there was anything.
func (o *over) loose() bool {
	g, err := frame.Expand(o.doc)
	if err != nil {
		return false
	}
	record := func(n int) *Record {
		if i, ok := o.records[standsOn(g, n)]; ok && o.layer[i].Added() {
			return &o.layer[i]
		}
		return nil
	}
	piece, based := pieces(g, func(n int) bool { return record(n) == nil })
	hung := map[int]bool{}
	for n := range g.Nodes {
		if r := record(n); r != nil && r.Hangs {
			hung[piece[n]] = true
		}
	}
	found := false
	for n := range g.Nodes {
		if r := record(n); r != nil && hung[piece[n]] && !based[piece[n]] {
			if i := o.records[r.key()]; !o.out[i] {
				o.retreat(r.key())
				found = true
			}
		}
	}
	return found
}

// Missing names the joints that pipes of the layer would run to and that a
// document does not have, each once.
func (l Layer) Missing(doc *frame.Document) (all []string) {
	g, err := frame.Expand(doc)
	if err != nil {
		return nil
	}
	own := map[string]bool{}
	for i := range l {
		if l[i].Kind == Joint && l[i].In == "" {
			own[l[i].ID] = true
		}
	}
	for i := range l {
		var p frame.Pipe
		if l[i].Kind != Pipe || l[i].In != "" || json.Unmarshal(l[i].Now, &p) != nil {
			continue
		}
		for _, joint := range []string{p.From, p.To} {
			if joint != "" && !own[joint] && g.Node(joint) < 0 && !slices.Contains(all, joint) {
				all = append(all, joint)
			}
		}
	}
	return all
}

// Words names a thing of the layer as a builder would; "" for what only serves
// others: planes, sizes, reasons.
func (r *Record) Words() string {
	name := r.ID
	if r.Added() && byHand.MatchString(name) { // it has a number, and no name that anybody gave it
		switch r.Kind {
		case Joint:
			return "a joint drawn by hand"
		case Pipe:
			return "a pipe drawn by hand"
		}
	}
	if r.In != "" {
		name += " of " + r.In
	}
	switch r.Kind {
	case Joint:
		return r.jointWords(name)
	case Pipe:
		return "pipe " + name
	case Use:
		return name
	case Link:
		return "the link " + name
	case Part:
		return "the fitting " + name
	case Envelope:
		return "the check " + name
	case Size:
		if !r.Added() && !r.Gone() {
			return "what was typed for " + name
		}
	}
	return ""
}

// byHand is the number of what a gesture made.
var byHand = regexp.MustCompile(`^[jp]\d+$`)

func (r *Record) jointWords(name string) string {
	if r.Added() || r.Gone() {
		return name
	}
	for _, s := range [][2]string{
		{`"end":"stake"`, "the stake at "}, {`"end":"cap"`, "the cap at "}, {`"fitting":`, "the fitting chosen at "},
	} {
		if strings.Contains(string(r.Now), s[0]) && !strings.Contains(string(r.Was), s[0]) {
			return s[1] + name
		}
	}
	return "what was said of " + name
}
