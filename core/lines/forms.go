package lines

// forms are all that can be said besides running pipe, each gesture's first the one that it is
// written in. Read and write try them in their order; those that begin with a word of their own
// come before those that begin with a slot.
var forms = parseForms([][2]string{
	{"begin", "begin <Say:text> of <From:joint> [within <In:part>]"},
	{"begin", "begin"},
	{"join", "join <From:joint> to? <To:joint> [size <Size:size>] [within <In:part>]"},
	{"split", "split <Pipe:pipe> [at <Length:text>] [from <From:joint>]"},
	{"fit", "usual fitting at <Joint,More:joints> [later +Later]"},
	{"apart", "apart <Joint,More:joints> along <Along:axis> moving <Move:axis>"},
	{"delete", "delete <Joints,Pipes:things>"},
	{"size", "make <Pipe,More:every pipe> <Length:text>"},
	{"size", "make <ID:said> <Length:text>"},
	{"size", "make <Ends:two joints> <Length:text>"},
	{"size", "forget <ID:said>"},
	{"label", "label <ID:said> <Name:name>"},
	{"follow", "follow <Size:said> from <Side:said>"},
	{"retype", "retype <ID:said> <Length:text>"},
	{"resize", "size <Size:size or usual> of <Pipe,More:every pipe>"},
	{"resize", "size <Size:size or usual> along <Pipe,More:every pipe> {Run=true}"},
	{"bay", "bay <Axis,Plane:plane> <Length:text> [within <In:part>]"},
	{"bay", "pull <Axis,Plane:plane> by <Pull:by> [within <In:part>]"},
	{"overall", "overall <Axis:axis> <Length:text>"},
	{"level", "level <Axis,Of:plane> with <Axis,To:plane> [within <In:part>]"},
	{"name", "call <Axis,Plane:plane> <Name:name> [within <In:part>]"},
	{"even", "even <Axis,From:plane> to <Axis,To:plane> [within <In:part>]"},
	{
		"insert",
		"insert after <Axis,After:plane> [like <Axis,Like:plane>] [at <Length:text>] [called <Name:name>] [split +Split] [rails <Rails:joints>] [within <In:part>]",
	},
	{"remove", "remove <Axis,Plane:plane> [within <In:part>]"},
	{"giveWay", "give way <Kind:name> <ID:name> [of <Group:name>]"},
	{"restore", "restore <Kind:name> <ID:name> [of <Group:name>]"},
	{"reach", "reach <ID:said> [from <From:joint>] [to <To:joint>] [foot <Foot:joint>]"},
	{"keep", "keep"},
	{"letGo", "let go"},
	{"group", "group <Name:name> <Joints:joints> [within <In:part>]"},
	{"ungroup", "ungroup <Part:part>"},
	{"place", "place <Group:group> on <On:joint> [as <Name:name>] [within <In:part>]"},
	{"mirror", "mirror <Part:part> at <Axis,About:plane> [as <Name:name>] [within <In:part>]"},
	{"mirror", "mirror <Joints:joints> at <Axis,About:plane> [as <Name:name>] [within <In:part>]"},
	{"flip", "flip <Part:part> <Axis:axis>"},
	{"turn", "turn <Part:part> <By:degrees> about <About:axis>"},
	{"unique", "unique <Part:part> [as <Name:name>]"},
	{"repeat", "repeat <Part:part> <Count:times> [along <Axis:axis>] [at <Pitch:text>] [joined +Joined] [rails <Rails:joints>]"},
	{"rails", "rails <Pairs:pairs> [size <Size:size>] [within <In:part>]"},
	{"stand", "stand upright"},
	{"stand", "stand turned <Turns:turns>"},
	{"stand", "stand held [turned <Turns:turns>] {Held=true}"},
	{
		"ring",
		"ring of <Sides:number> [across <Across:text>] [side <Side:text>] [square <Square:axis>] [spokes +Spokes] [on <On:joint>] [within <In:part>]",
	},
	{"bow", "bow <Pipe:pipe> <Say:text> [toward <Toward:text>] [leaving <Leave:texts>]"},
	{"bow", "straighten <Pipe:pipe> [toward <Toward:text>] [leaving <Leave:texts>]"},
	{"slide", "slide <Joint:joint> <Say:text> [size <Size:size>]"},
	{"class", "cut <Pipes:pipes> <Class:class> [by <Extra:text>] [measured <Measured:text>]"},
	{"check", "drop check <Name:name> {Drop=true}"},
	{"check", "check <Name:name> <Kind:check> <Say:text> [at <Joint:joint>]"},
	{"custom", "drop part <Name:name> {Drop=true}"},
	{"custom", "part <Name:name> ports <Ports:texts> [size <Size:size>] [source <Source:name>]"},
	{"link", "drop <ID:name> {Drop=true}"},
	{
		"link",
		"change <ID:name> [rod <Rod:text>] [fold <Fold:degrees>] [size <Size:size>] [count <Count:number>] [length <Length:text>] [overlap <Overlap:text>] [pitch <Pitch:text>] [wheel <Wheel:text>] [hub <Hub:text>] [spacer <Spacer:text>]",
	},
	{"usual", "usual [size <Size:size>] [unit <Units:unit>] [joints <Mode:mode>]"},
	{"end", "<End:end> all {All=true}"},
	{"end", "<End:end> <Joint,More:joints>"},
	{"hold", "<Mode:mode> <Joints,Pipes:things> [because <Reason:name>]"},
	{"hold", "<Mode:mode>"},
	{
		"link",
		"<Kind:link> on <On:texts> [rod <Rod:text>] [fold <Fold:degrees>] [size <Size:size>] [count <Count:number>] [length <Length:text>] [overlap <Overlap:text>] [pitch <Pitch:text>] [wheel <Wheel:text>] [hub <Hub:text>] [spacer <Spacer:text>]",
	},
	{"fit", "<Kind:fitting> at <Joint,More:joints> [spare <Spare:dirs>] [plugged +Plugged] [open +Declared] [later +Later]"},
})

func parseForms(table [][2]string) (all []form) {
	for _, f := range table {
		all = append(all, parseForm(f[0], f[1]))
	}
	return all
}

// Form is one way to say something, as a builder reads it: split PIPE [at LENGTH] [from JOINT].
type Form struct {
	First string `json:"first"` // the word that it begins with; empty where it begins with what it is about
	Usage string `json:"usage"`
}

// Forms are the ways to say something besides running pipe.
func Forms() (all []Form) {
	for i := range forms {
		f := Form{Usage: forms[i].shown()}
		if first := forms[i].first(); len(first) > 0 {
			f.First = first[0]
		}
		all = append(all, f)
	}
	return append(all, Form{"size", "size SIZE"}, Form{"units", "units UNIT"}, Form{"mark", "mark JOINTS"})
}
