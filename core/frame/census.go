package frame

import (
	"fmt"
	"math"
)

// Limits keep nonsense from filling the machine. They count a frame as it is
// once every group is put in every place where it is used.
const (
	MaxJoints  = 5000  // joints that copies share are counted in each
	maxPipes   = 10000 // pipes
	maxScopes  = 5000  // uses and copies of groups
	maxSayings = 20000 // sizes, reasons and joints merged
	maxLinks   = 5000  // links
	maxCopies  = 500   // copies of one use
	maxDepth   = 8     // groups in groups
	maxGroups  = 1000
)

// contents is how many things a definition comes to with all that is used in it.
// Counts stop at a ceiling far above the limits, so that they never overflow.
type contents struct{ joints, pipes, scopes, sayings, links, planes, depth int }

const ceiling = math.MaxInt32

func plus(a, times, b int) int { return min(ceiling, a+times*b) }

func (c *contents) add(times int, o contents) {
	c.joints = plus(c.joints, times, o.joints)
	c.pipes = plus(c.pipes, times, o.pipes)
	c.scopes = plus(c.scopes, times, o.scopes)
	c.sayings = plus(c.sayings, times, o.sayings)
	c.links = plus(c.links, times, o.links)
	c.planes = plus(c.planes, times, o.planes)
	c.depth = max(c.depth, o.depth+1)
}

// checkExcess counts what the frame comes to before anything of it is built,
// and refuses groups that contain themselves, however many groups lie between,
// and more than the limits. It gives the count of the frame itself. Its cost is
// linear in the document.
func (d *Document) checkExcess(ps *Problems) (all contents) {
	if len(d.Groups) > maxGroups {
		ps.add("/groups", fmt.Sprintf("%d groups", len(d.Groups)), fmt.Sprintf("use at most %d", maxGroups))
		return all
	}
	at := map[string]int{}
	for i := len(d.Groups) - 1; i >= 0; i-- {
		at[d.Groups[i].ID] = i
	}
	const counting, counted = 1, 2
	state, found := make([]int, len(d.Groups)), make([]contents, len(d.Groups))
	var count func(def *Definition, where string) contents
	count = func(def *Definition, where string) contents {
		c := contents{
			joints:  len(def.Joints),
			pipes:   len(def.Pipes),
			scopes:  1,
			sayings: len(def.Sizes) + len(def.Reasons) + len(def.Merges),
			links:   len(def.Links),
		}
		for a := range def.Planes {
			c.planes += len(def.Planes[a])
		}
		for i := range def.Uses {
			u := &def.Uses[i]
			g, ok := at[u.Of]
			if !ok {
				continue // refused by name later on
			}
			path := fmt.Sprintf("/groups/%d", g)
			if state[g] == 0 {
				state[g] = counting
				found[g] = count(&d.Groups[g], path)
				state[g] = counted
			}
			if state[g] == counting {
				ps.add(fmt.Sprintf("%s/uses/%d/of", where, i), fmt.Sprintf("the group %q contains itself", u.Of), "use another group there")
				continue
			}
			times := 1
			if u.Array != nil {
				times = max(0, min(u.Array.Count, maxCopies))
				c.sayings = plus(c.sayings, times, 1+len(u.Array.Joined))
			}
			c.add(times, found[g])
		}
		return c
	}
	all = count(&d.Root, "/root")
	inFrame := all
	for i := range d.Groups { // what is used nowhere is read and checked all the same
		if state[i] == 0 {
			state[i] = counting
			found[i] = count(&d.Groups[i], fmt.Sprintf("/groups/%d", i))
			state[i] = counted
			all.add(1, found[i])
		}
	}
	all.sayings = plus(all.sayings, 1, len(d.ModeRules)+len(d.Tolerances)+len(d.ClearanceChecks))
	if len(*ps) > 0 {
		return all
	}
	for _, x := range []struct {
		n, most int
		what    string
	}{
		{all.depth, maxDepth, "groups inside groups"},
		{all.joints, MaxJoints, "joints"},
		{all.pipes, maxPipes, "pipes"},
		{all.scopes, maxScopes, "uses of groups"},
		{all.sayings, maxSayings, "sizes and reasons"},
		{all.planes, maxSayings, "planes"},
		{all.links, maxLinks, "links"},
		{len(d.CustomFittings), maxGroups, "parts of its own"},
	} {
		if x.n > x.most {
			ps.add("/root", fmt.Sprintf("more than %d %s", x.most, x.what), "plan it in parts")
		}
	}
	return inFrame
}
