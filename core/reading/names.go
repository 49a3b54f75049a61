package reading

import (
	"regexp"

	"sturdyelbow/core/catalog"
)

// name is a word that people use for a thing.
type name struct {
	re    *regexp.Regexp
	what  What
	kinds []catalog.Kind // more than one: it has to be asked
	weak  bool           // says what it is only where nothing else does
	two   bool           // it has two sizes
}

const way = `[- ]?way`

// names are tried in this order, at the beginning of a word.
var names = func() (all []name) {
	add := func(re string, n name) {
		n.re = regexp.MustCompile(`^(?:` + re + `)`)
		all = append(all, n)
	}
	fit := func(re string, kinds ...catalog.Kind) { add(re, name{what: Fitting, kinds: kinds}) }
	const thing = `(?: (?:fitting|connector|piece|joint)s?)?`
	// what is no part of a frame, though its name begins like one
	add(
		`(?:male|female|threaded|hose|barb|thread)(?: (?:threaded|pipe|hose))? (?:adapt[eo]rs?|fittings?)|unions?|(?:ball )?valves?|flanges?|saddles?|tee nuts?|t-nuts?|wyes?|crossbars?|cross bars?`,
		name{what: Unknown},
	)
	fit(`(?:6|six)`+way+`(?: (?:cross(?:es)?|corners?))?`+thing+`s?`, catalog.SixWay)
	fit(`side[- ]outlet cross(?:es)?|(?:5|five)`+way+`(?: (?:cross(?:es)?|corners?))?`+thing+`s?`, catalog.SideOutletCross)
	fit(`side[- ]outlet tees?|(?:4|four)`+way+` tees?`, catalog.SideOutletTee)
	fit(`(?:4|four)`+way+` cross(?:es)?`, catalog.Cross)
	fit(`(?:4|four)`+way+`(?: corners?)?`+thing+`s?`, catalog.Cross, catalog.SideOutletTee)
	fit(
		`side[- ]outlet (?:elbow|ell|90)s?|(?:3|three)`+way+` (?:corner|elbow|ell)s?(?: (?:elbow|fitting|connector|piece)s?)?|corner elbows?`,
		catalog.SideOutletElbow,
	)
	fit(`(?:3|three)`+way+` (?:tees?|t's|ts)\b`, catalog.Tee)
	fit(`(?:3|three)`+way+thing+`s?`, catalog.Tee, catalog.SideOutletElbow)
	add(`reduc(?:ing|er) tees?`, name{what: Fitting, kinds: []catalog.Kind{catalog.Tee}, two: true})
	fit(`cross(?:es)?`+thing+`|pluses|plus fittings?`, catalog.Cross)
	fit(`(?:straight )?tees?`+thing+`|t[- ](?:fitting|joint|connector|piece)s?|t's|ts\b|t\b`, catalog.Tee)
	fit(
		`(?:45|forty[- ]?five)(?:'?s\b|[- ]?(?:°|deg\b\.?|degs?\b\.?|degrees?)[- ]*(?:elbow|ell|el|bend|corner|fitting)?s?|[- ]*(?:elbow|ell|bend|corner|fitting)s?)`,
		catalog.Elbow45,
	)
	fit(
		`(?:90|ninety)(?:'?s\b|[- ]?(?:°|deg\b\.?|degs?\b\.?|degrees?)[- ]*(?:elbow|ell|el|bend|corner|fitting)?s?|[- ]*(?:elbow|ell|bend|corner|fitting)s?)`,
		catalog.Elbow90,
	)
	fit(`elbows?`+thing+`|ells?\b|els\b|corners?`+thing+`|bends?`, catalog.Elbow90)
	add(`reduc(?:ing|er) coupl(?:ing|er)s?`, name{what: Fitting, kinds: []catalog.Kind{catalog.ReducingCoupling}, two: true})
	add(`(?:reduc(?:ing|er) )?bushings?`, name{what: Fitting, kinds: []catalog.Kind{catalog.Bushing}, two: true})
	add(
		`reducers?|(?:slip |reducing |size )?adapt[eo]rs?`,
		name{what: Fitting, kinds: []catalog.Kind{catalog.Bushing, catalog.ReducingCoupling}, two: true},
	)
	fit(`(?:slip |straight )?coupl(?:ing|er)s?|(?:straight )?connectors?`, catalog.Coupling)
	fit(`(?:end[- ])?plugs?`, catalog.Plug)
	fit(`(?:end[- ]|slip )?caps?|(?:end pieces?|ends?)\b`, catalog.Cap)
	add(`sticks?|lengths?|joints?|sections?`, name{what: Stick})
	add(`pieces?|pcs?\b\.?|cuts? (?:at|to|of)|cuts?\b|uprights?|legs?\b|rails?\b|posts?\b|long\b`, name{what: Piece})
	add(`pipes?|pvc|tubing|tubes?`, name{what: Stick, weak: true})
	return all
}()
