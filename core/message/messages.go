package message

// Message is how one code is said: what is so, and what to do about it. Many says
// it of several at once, where that reads better than one line for each; .n is how
// many, and .subjects the first thing of each.
type Message struct{ Text, Hint, Many string }

// messages is the catalogue, by code, in the order in which a plan is made.
var messages = map[string]Message{
	// where everything stands
	"sizes-contradict": {
		Text: `{{.last}} cannot hold with {{with .more}}{{count . "other" "others"}} and {{end}}{{commas .others}} ({{.off}}): the last said gives way`,
		Hint: `choose what gives way`,
	},
	"closes-nearly": {
		Text: `{{.what}} is off by {{.off}}, less than a step of the tape: all is cut as typed`,
		Hint: `the joints take it up`,
	},
	"nothing-holds": {
		Text: `nothing says where {{.subject}} stands {{.way}}`,
		Hint: `type how far it is from another joint; until then it is where it happens to be`,
	},
	"size-too-small": {
		Text: `{{.meaning}} {{.value}} leaves less than nothing between the centres`,
		Hint: `the bodies alone take {{.bodies}}`,
	},
	"height-on-a-slope": {
		Text: `{{.subject}} is a height from the floor, and its group leans`,
		Hint: `measure it from a joint of the group`,
	},
	"zero-length": {
		Text: `the pipe {{.subject}} has no length`,
		Hint: `move one of its ends`,
		Many: `{{count .n "pipe has" "pipes have"}} no length: {{list .subjects}}`,
	},
	"turned-round": {
		Text: `the pipe {{.subject}} would run the other way: there is less than no room for it`,
		Hint: `make one of the sizes that lead to it larger`,
		Many: `{{count .n "pipe" "pipes"}} would run the other way, with less than no room: {{list .subjects}}`,
	},
	"no-curve": {
		Text: `pipe {{.subject}} cannot take its way: {{.why}}`,
		Hint: `{{.mend}}`,
	},
	"not-settled": {
		Text: `the sizes and the fittings they lead to do not settle`,
		Hint: `give one of the sloped parts a size centre to centre`,
	},
	"not-found": {
		Text: `so many slopes decide each other that finding where they run was given up`,
		Hint: `plan it in parts, or say which way more of the pipes run`,
	},
	"loose-parts": {
		Text: `{{count .parts "part" "parts"}} that no pipe joins`,
		Hint: `each is planned where it stands`,
	},

	"unfinished": {
		Text: `unfinished: {{.words}}. Line {{.line}}, “{{.text}}”: {{.what}}`,
		Hint: `{{.mend}}; all that is summed up is of what is drawn so far`,
	},

	// what became of what was said
	"gave-way": {
		Text: `{{if .is}}{{.what}} is {{.is}}{{else}}{{.subject}} slopes{{end}}: it gave way to {{.to}}`,
		Hint: `as you chose`,
	},
	"may-hold-again": {
		Text: `{{if .is}}{{.what}} is {{.is}}{{else}}{{.subject}} slopes{{end}}: it gave way to {{.to}}, and some of that has gone`,
		Hint: `is it to hold again as you typed it?`,
	},
	"side-not-kept": {
		Text: `{{.what}} is {{.is}}: the rise and the span of its hoop are typed, too`,
		Hint: `of the three, one follows from the others: choose which`,
	},
	"size-passed": {
		Text: `{{.size}} is measured from what stands at {{.foot}}; {{.subject}} stands lower, and from there it is {{.is}}`,
		Hint: `it holds as you typed it; say where it is measured from`,
	},
	"set-aside": {
		Text: `set aside for now: {{.what}}`,
		Hint: `{{if .waits}}it hangs on {{.on}}, which {{are .waits}} not there now, and comes back with {{if eq .waits 1}}it{{else}}them{{end}}{{else}}what it hangs on is not there; it comes back with it{{end}}`,
	},
	"starter-lost": {
		Text: `{{.what}}: the starter has it, and what it would run to was taken away`,
		Hint: `run it anew by hand if it is wanted`,
	},

	// fittings
	"no-fitting": {
		Text: `no fitting joins the pipes at {{.subject}}: ` +
			`{{if eq .why "many"}}{{count .pipes "pipe meets" "pipes meet"}} and no fitting has more than six ports` +
			`{{else if eq .why "angles"}}{{count .pipes "pipe" "pipes"}} at these angles {{if eq .pipes 1}}has{{else}}have{{end}} no common fitting` +
			`{{else if eq .why "pair"}}{{index .pair 0}} and {{index .pair 1}} meet at {{degrees .angle}}` +
			`{{else if eq .why "ports"}}{{a .kind}} has {{count .ports "port" "ports"}} and {{count .pipes "pipe meets" "pipes meet"}} here` +
			`{{else}}the ports of {{a .kind}} do not point the way these pipes run{{end}}`,
		Hint: `{{if eq .mend "move"}}move some of them to a joint of their own, a least centre distance away` +
			`{{else if eq .mend "kind"}}leave the kind out, or choose one whose ports point this way` +
			`{{else}}{{if .nearest}}the nearest angle with a fitting is {{whole .nearest}}, {{degrees .away}} away; {{end}}` +
			`{{if eq .mend "turn"}}two 45s turned about each other make any angle from 90° to 180°; {{end}}` +
			`{{if eq .mend "tee"}}give one pipe a tee of its own next to this joint; {{end}}` +
			`a bolted crossing or a bent pipe takes any angle{{end}}`,
	},
	"flex": {
		Text: `the pipes at {{.subject}} are up to {{degrees .angle}} off the ports of {{a .kind}}`,
		Hint: `the sockets take it up; seat these by hand first`,
		Many: `at {{count .n "joint" "joints"}} pipes are a little off the ports of their fittings: {{list .subjects}}`,
	},
	"nested-bushings": {
		Text: `no bushing is sold from {{.from}} to {{.to}}: {{.bushings}} {{are .bushings}} nested at {{.subject}}`,
		Hint: `cement them into each other first`,
		Many: `bushings are nested at {{count .n "joint" "joints"}}, where none is sold for the step: {{list .subjects}}`,
	},
	"no-room": {
		Text: `{{index .bodies 0}} and {{index .bodies 1}} want the same place`,
		Many: `{{count .n "pair" "pairs"}} of bodies want the same place, at {{list .subjects}}`,
		Hint: `move them at least {{sixteenth .overlap}} apart{{if .others}}; there are more pairs like it: mend these first{{end}}`,
	},

	// pieces
	"too-short": {
		Text: `pipe {{.subject}} would be {{.long}} and its two sockets take {{.takes}}: the fittings would overlap`,
		Hint: `the least centre distance here is {{.least}}, with both faces touching`,
		Many: `{{count .n "piece" "pieces"}} cannot be seated: {{list .subjects}}`,
	},
	"length-or-size": {
		Text: `{{.size}} in long, or {{.size}} pipe?`,
		Hint: `a size is the pipe's name, a length is measured: set the one that was meant`,
		Many: `{{.size}} in long, or {{.size}} pipe? It is asked of {{count .n "piece" "pieces"}}: {{list .subjects}}`,
	},
	"loop-residual": {
		Text: `the loop {{join .joints " – "}} is off by {{.off}} after rounding`,
		Hint: `cut one of its pieces to a finer step`,
	},
	"list-open": {
		Text: `cut to the list, the loop of {{count .pipes "pipe" "pipes"}} through {{.joint}} misses by {{.off}} {{.way}}{{with .more}}, and {{.}} more {{if eq . 1}}does{{else}}do{{end}} not close{{end}}`,
		Hint: `{{if .stuck}}no four pieces or fewer close it: compare the list with the plan, piece by piece` +
			`{{else if gt .changes 1}}no single piece closes it: {{.changes}} have to change{{else}}change the pieces that are offered, fewest first{{end}}`,
	},
	"list-level": {
		Text: `cut to the list, {{list .subjects}} end {{.off}} apart where the plan has them level`,
		Hint: `what stands across them will tilt`,
	},
	"list-too-short": {
		Text: `{{count .n "piece fills" "pieces fill"}} less than half a socket on each side and will not hold: {{list .subjects}}`,
		Hint: `cut it anew; as short as two whole sockets is best`,
	},
	"face-to-face": {
		Text: `{{count .n "piece is" "pieces are"}} shorter than the two sockets: the fittings meet face to face: {{list .subjects}}`,
		Hint: `it goes together with less pipe in each socket`,
	},

	// bows
	"bent-too-far": {
		Text: `a sprung pipe is stretched {{percent .strain}} where it is bent the most, and over {{percent .most}} it kinks or cracks`,
		Hint: `bend it no tighter than a radius of {{quarter .radius}}: a flatter bow, a wider span or thinner pipe`,
	},
	"bent-hard": {
		Text: `a sprung pipe is stretched {{percent .strain}} where it is bent the most; up to {{percent .good}} keeps well`,
		Hint: `a radius of {{quarter .radius}} or more is easy on it: a flatter bow, a wider span or thinner pipe`,
	},
	"sprung-in-the-sun": {
		Text: `a sprung pipe takes a set: on warm days it goes limp, and it keeps part of its bow when it is let go`,
		Hint: `bend and straighten it above 40 °F only; its push falls to about a third in months, so in the sun it wants a spine or a tie`,
	},
	"bent-by-heat": {
		Text: `{{count .n "pipe is" "pipes are"}} bent by heat: lengths are those of the middle line before bending`,
		Hint: `heating PVC gives off harmful fumes: gentle heat, outdoors, never a flame; bend one, measure it, then cut the rest`,
	},

	// links
	"off-the-pipe": {
		Text: `{{.link}} is held {{.at}} along {{.pipe}}, which is shorter`,
		Hint: `move it onto the pipe`,
	},
	"pivot-in-plane": {
		Text: `the two pipes at {{.link}} lie in each other: their middle lines are {{.off}} apart`,
		Hint: `stack them out of plane, {{.bodies}} from centre to centre`,
	},
	"pivot-gap": {
		Text: `{{.gap}} is open between the two pipes at {{.link}}`,
		Hint: `fill it with washers or a spacer, so that the bolt does not bend`,
	},
	"bolt-thick": {
		Text: `{{a .bolt}} bolt takes more than a third of the pipe at {{.link}}`,
		Hint: `take a thinner bolt: the hole weakens the pipe`,
	},
	"cannot-turn": {
		Text: `what is held at {{.link}} hangs together elsewhere too, so that nothing turns`,
		Hint: `take the pipe away that joins them, or leave the bolt out`,
	},
	"fold-hits": {
		Text: `folding at {{.link}}, {{index .hit 0}} meets {{index .hit 1}} after {{whole .angle}}`,
		Hint: `fold it less, move the bolt, or stack the parts farther out of plane`,
	},
	"telescope-of-what": {
		Text: `{{.link}} telescopes a joint`,
		Hint: `name two pipes`,
	},
	"does-not-go-in": {
		Text: `{{.inner}} pipe does not go into {{if .sleeve}}a sleeve of {{end}}{{.outer}} pipe: {{.fit}}`,
		Hint: `{{if .sleeve}}take a larger sleeve, or a slit one as a clip{{else if .best}}{{.best}} goes into {{.outer}}{{else}}no pipe goes into this one; take a larger outer pipe{{end}}`,
	},
	"goes-in-loosely": {
		Text: `{{.inner}} pipe in {{.outer}} pipe: {{.fit}}`,
		Hint: `1 in 1-1/4 and 2 in 2-1/2 slide well`,
	},
	"try-a-pair": {
		Text: `{{.inner}} pipe in {{.outer}} pipe: {{.fit}}`,
		Hint: `take the pieces along when you buy`,
	},
	"not-in-line": {
		Text: `the two pipes of {{.link}} are not in line: {{.off}} off`,
		Hint: `draw the inner pipe from the end of the outer one, along it`,
	},
	"overlap": {
		Text: `the pipes of {{.link}} overlap by {{.overlap}}, and {{.least}} is the least`,
		Hint: `two diameters of the outer pipe keep it straight: push it in farther, or take a longer piece`,
	},
	"tie-too-long": {
		Text: `the pipes at {{.link}} cannot be tied: {{sixteenth .gap}} is between them, and a tie round both would be {{sixteenth .long}} long; none is longer than {{.most}}`,
		Hint: `tie them where they are close, or run a pipe or a rope between them`,
	},
	"tie-gap": {
		Text: `the pipes tied at {{.link}} are {{sixteenth .gap}} apart`,
		Hint: `a tie holds pipes that touch; across a gap it lets them swing`,
	},
	"rod-too-thick": {
		Text: `{{if .pipe}}{{a .rod}} rod does not go into the {{.pipe}} pipe of {{.link}}{{else}}{{a .rod}} axle does not pass {{.on}}{{end}}: {{.fit}}`,
		Hint: `take a thinner {{if .pipe}}rod{{else}}axle{{end}} or larger pipe`,
	},
	"rod-loose": {
		Text: `{{a .rod}} axle in {{.on}}: {{.fit}}`,
		Hint: `let it run in a bushing, or in a snug piece of tube`,
	},
	"no-hub": {
		Text: `how wide is the hub of the wheels on {{.link}}?`,
		Hint: `measure it through the bore; the axle's length rests on it`,
	},
	"wheels-hang": {
		Text: `the wheels on {{.link}} hang {{sixteenth .gap}} above the floor`,
		Hint: `lower the axle, or take larger wheels; a cart that tips onto its wheels wants about an inch`,
	},
	"wheels-lift": {
		Text: `the wheels on {{.link}} reach {{sixteenth .gap}} below the rest of the frame, which then stands on them`,
		Hint: `raise the axle by that, or make the legs as much longer`,
	},
	"no-rod": {
		Text: `how thick is the rod of {{.link}}?`,
		Hint: `measure it across`,
	},
	"no-clip": {
		Text: `no clip is known that grips {{.size}} pipe`,
		Hint: `take ties, or a screw through a sleeve`,
	},
	"no-sleeve": {
		Text: `of what size is the sleeve of {{.link}}?`,
		Hint: `name a larger pipe`,
	},

	// the floor, and what it must go through
	"ends-unsaid": {
		Text: `{{count .n "pipe end is" "pipe ends are"}} open, and nobody said that it is on purpose`,
		Hint: `cap them, or say that they are free or over stakes: an open riser fills with rain`,
	},
	"ports-open": {
		Text: `{{count .sockets "socket is" "sockets are"}} empty, and nobody said that it is on purpose`,
		Hint: `run a pipe from them, plug them, or declare them open`,
	},
	"tee-waits": {
		Text: `{{if gt .n 1}}{{.n}} tees have a port with no pipe{{else}}a tee has a port with no pipe{{end}}: what was typed closes only with {{if gt .n 1}}them{{else}}it{{end}}`,
		Hint: `run the pipe that goes there; if none does, one of the cuts is wrong`,
	},
	"rocks": {
		Text: `it rocks: {{.most}} is {{.gap}} above the floor that the rest stands on`,
		Hint: `less than a floor is out by; a shim or a set of equal fittings takes it away`,
	},
	"hovers": {
		Text: `{{.most}} hangs {{.gap}} above the floor{{if gt .n 1}}, the most of {{.n}}{{end}}`,
		Hint: `a frame stands on its lowest rims: lower this one, or take one size for all that stands on the floor`,
	},
	"hangs": {
		Text: `{{.subject}} hangs {{.gap}} above the floor, where others like it stand`,
		Hint: `make its upright longer, or leave it so if it is meant to hang`,
		Many: `{{count .n "foot hangs" "feet hang"}} above the floor, where others like them stand: {{list .subjects}}`,
	},
	"nearly-level": {
		Text: `{{.subject}} is nearly in line: its ends are {{.off}} apart {{.way}}`,
		Hint: `less than half a fitting: what leads to its two ends is measured to different things`,
		Many: `{{count .n "pipe is" "pipes are"}} nearly in line, and not quite: {{list .subjects}}`,
	},
	"levels-apart": {
		Text: `{{.off}} {{.way}} between {{.subject}} and {{.other}}: less than half a fitting`,
		Hint: `if they are meant to be one, make them one; if not, type how far they are to be apart`,
	},
	"stands-on-a-line": {
		Text: `it stands on a line and rocks or falls`,
		Hint: `give it feet across, stakes, or something to lean on`,
	},
	"envelope": {
		Text: `{{.check}}: {{.words}}`,
		Hint: `change a size, fold or part the frame, or let this check go`,
	},

	// what is bought
	"no-stock": {
		Text: `{{.size}} pipe is needed {{.longest}} long and no stick is that long`,
		Hint: `add a longer stock length, or join two pieces with a coupling`,
	},
	"too-long-to-carry": {
		Text: `{{.size}} pipe is needed {{.longest}} long, and the vehicle takes {{.limit}}, less what a cut in the shop may be off by`,
		Hint: `join two pieces with a coupling, have it delivered, or carry it on the roof by local road rules`,
	},
	"too-few-sticks": {
		Text: `the shop has too few {{.size}} sticks: {{count .many "piece is" "pieces are"}} still to be found`,
		Hint: `add another stick length, or another shop's`,
	},
	"knife-edge": {
		Text: `{{count .many "stick" "sticks"}} of {{.size}} {{if eq .many 1}}is{{else}}are{{end}} on a knife edge: of one of {{.stick}}, {{.rest}} is left after {{count .cuts "cut" "cuts"}}{{with .allowance}}, which may be off by {{.}} together{{end}}`,
		Hint: `measure that stick before cutting; the Cut lens has what takes it off the edge`,
	},
	"not-proven": {
		Text: `the {{.size}} purchase is the best found; a better one is not ruled out`,
		Hint: `the bound beside it says by how much at most`,
	},
	"to-trim": {
		Text: `{{.subject}}{{if .copy}}, number {{.copy}}{{end}} is cut to {{.length}}{{with .letter}} as {{.}}{{end}}, and is {{.wanted}} now: trim it`,
		Hint: `what is cut stays; only what is too much comes off`,
		Many: `{{count .n "piece that is cut is" "pieces that are cut are"}} longer than the plan has them now: trim them`,
	},
	"cut-anew": {
		Text: `{{.subject}}{{if .copy}}, number {{.copy}}{{end}} is cut to {{.length}}{{with .letter}} as {{.}}{{end}}, and would have to be {{.wanted}} now: it is cut anew`,
		Hint: `other pieces are cut from the short one where it serves; or take the change back`,
		Many: `{{count .n "piece that is cut is" "pieces that are cut are"}} too short now: they are cut anew`,
	},
	"cemented-otherwise": {
		Text: `{{.subject}}{{if .copy}}, number {{.copy}}{{end}} is cemented at {{.length}}{{with .letter}} as {{.}}{{end}}, and would have to be {{.wanted}} now`,
		Hint: `what is cemented stays: take the change back, or cut that piece out of its fittings and plan new ones`,
		Many: `{{count .n "piece that is cemented has" "pieces that are cemented have"}} another length in the plan now`,
	},
	"cemented-surplus": {
		Text: `a piece of {{.length}}{{with .letter}}, marked {{.}},{{end}} is cemented where the plan has nothing any more`,
		Hint: `take the change back, or cut it out`,
		Many: `{{count .n "piece is" "pieces are"}} cemented where the plan has nothing any more`,
	},
	"surplus-piece": {
		Text: `a piece of {{.length}}{{with .letter}}, marked {{.}},{{end}} is cut that the plan has no place for`,
		Hint: `keep it for the rack`,
		Many: `{{count .n "piece is" "pieces are"}} cut that the plan has no place for`,
	},
	"cut-twice": {
		Text: `{{if .subject}}{{.subject}}{{if .copy}}, number {{.copy}}{{end}}{{else}}a piece of {{.length}}{{end}} is cut twice: {{.device}} says so, and {{.other}}`,
		Hint: `where it was one cut, take one of them back in the Log; where there are two pieces, both stay`,
		Many: `{{count .n "piece is" "pieces are"}} cut twice, as two devices have it`,
	},
	"too-many": {
		Text: `{{.many}} × {{.what}} more than the plan needs`,
		Hint: `take them back to the shop, or keep them`,
		Many: `{{count .n "thing was" "things were"}} bought in a larger number than the plan needs`,
	},
	"for-others": {
		Text: `{{.many}} × {{.what}} bought for {{.jobs}} jobs, {{.own}} of them for this`,
		Hint: `they are bought together; nothing of it goes back to the shop for this one alone`,
		Many: `{{count .n "thing was" "things were"}} bought for several jobs`,
	},
	"unmatched": {
		Text: `ticked before this version: {{.what}}`,
		Hint: `nothing of the plan answers to it; see what is there, and tick that`,
		Many: `{{count .n "tick" "ticks"}} from before this version that nothing of the plan answers to`,
	},
	"stick-without-price": {
		Text: `{{feet .stick}} sticks of {{.size}} pipe have no price{{if .some}} and are left out{{else}}, so sticks are chosen by their length{{end}}`,
		Hint: `give them a price to have {{if .some}}them weighed against the others{{else}}the cheapest chosen{{end}}`,
	},

	// a described build
	"list-asks": {
		Text: `{{count .lines "line" "lines"}} of the described parts to be asked about`,
		Hint: `answer beside the list, or write it anew`,
	},
	"sockets-left": {
		Text: `of the described {{.size}} parts, {{count .left "socket is" "sockets are"}} more than pipe ends`,
		Hint: `a piece is missing from the list, or ports stay open on purpose`,
	},
	"ends-left": {
		Text: `of the described {{.size}} parts, {{count .left "pipe end is" "pipe ends are"}} more than sockets`,
		Hint: `a fitting or a cap is missing from the list, or ends stay open`,
	},
	"footage-short": {
		Text: `the described {{.size}} pieces take {{footage .net}} with their cuts, and the sticks are {{footage .bought}}`,
		Hint: `buy more, or check the lengths`,
	},
	"over-budget": {
		Text: `the frame takes more of {{count .fittings "fitting" "fittings"}} than the list has`,
		Hint: `see what is left beside the list`,
	},
}
