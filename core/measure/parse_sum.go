package measure

import "math/big"

// sum reads the tokens as a descending chain of terms (feet, then inches) and
// adds them up exactly.
func (p *parser) sum() (Length, error) {
	if len(p.toks) == 0 {
		return 0, p.fail(0, "no length", "write it like 23 5/8 or 600 mm")
	}
	if p.toks[0].kind == '-' {
		return 0, p.fail(p.toks[0].at, "a length is never negative", "leave the minus sign out")
	}
	total := new(big.Rat)
	var last unitWord
	for i := 0; i < len(p.toks); {
		if i > 0 && p.toks[i].kind == '-' { // 1'-11 5/8"
			i++
			if i == len(p.toks) {
				return 0, p.fail(p.toks[i-1].at, "nothing follows the dash", "finish the length, like 1'-6\"")
			}
		}
		at := p.toks[i].at
		n, next, err := p.quantity(i)
		if err != nil {
			return 0, err
		}
		i = next
		u, bare := p.bareUnit(last), true
		if i < len(p.toks) && p.toks[i].kind == 'u' {
			u, bare = p.toks[i].unit, false
			at = p.toks[i].at
			i++
		}
		switch {
		case last.size == 0:
		case bare && last.size != Foot:
			return 0, p.fail(at, "a second number without a unit", "say which unit it is in")
		case last.system != u.system:
			return 0, p.fail(at, "two units fighting: inches or feet with metric", "use one system in one length")
		case u.size >= last.size:
			return 0, p.fail(at, "two units fighting", "write the larger unit first and each unit once, like 5 ft 7 in")
		}
		last = u
		total.Add(total, n.Mul(n, new(big.Rat).SetInt64(int64(u.size))))
	}
	return p.nanometres(total)
}

// bareUnit is what a number without a unit means: inches after feet, the
// frame's unit otherwise.
func (p *parser) bareUnit(last unitWord) unitWord {
	if last.size == Foot || p.reading.Unit == Inches {
		return unitOf["in"]
	}
	return unitOf["mm"]
}

// quantity reads a whole number, a decimal, a fraction, or a whole number and
// a fraction, from token i; it returns the token after.
func (p *parser) quantity(i int) (*big.Rat, int, error) {
	t := p.toks[i]
	if t.kind != 'n' {
		return nil, 0, p.fail(t.at, "a number is missing here", "write the number before its unit, like 5 ft")
	}
	i++
	if t.frac {
		return new(big.Rat).Set(t.num), i, nil
	}
	if i < len(p.toks) && p.toks[i].kind == '/' {
		return p.fraction(i - 1)
	}
	n := new(big.Rat).Set(t.num)
	j := i
	if j < len(p.toks) && p.toks[j].kind == '-' { // 23-5/8
		j++
	}
	isFraction := j < len(p.toks) && p.toks[j].kind == 'n' &&
		(p.toks[j].frac || j+1 < len(p.toks) && p.toks[j+1].kind == '/')
	if !isFraction {
		return n, i, nil
	}
	if !t.whole {
		return nil, 0, p.fail(p.toks[j].at, "a decimal and a fraction together", "write 23.625 or 23 5/8")
	}
	f, next, err := p.properFraction(j)
	if err != nil {
		return nil, 0, err
	}
	return n.Add(n, f), next, nil
}

func (p *parser) properFraction(j int) (*big.Rat, int, error) {
	if p.toks[j].frac {
		return p.toks[j].num, j + 1, nil
	}
	f, next, err := p.fraction(j)
	if err == nil && f.Cmp(big.NewRat(1, 1)) >= 0 {
		return nil, 0, p.fail(
			p.toks[j].at,
			"the fraction is one or more",
			"after a whole number the fraction is less than one, like 23 5/8",
		)
	}
	return f, next, err
}

func (p *parser) fraction(j int) (*big.Rat, int, error) {
	top := p.toks[j]
	if j+2 >= len(p.toks) || p.toks[j+2].kind != 'n' || p.toks[j+2].frac {
		return nil, 0, p.fail(p.toks[j+1].at, "the fraction is not finished", "write it like 5/8")
	}
	below := p.toks[j+2]
	if !top.whole || !below.whole {
		return nil, 0, p.fail(top.at, "a fraction has whole numbers above and below", "write it like 5/8")
	}
	if below.num.Sign() == 0 {
		return nil, 0, p.fail(below.at, "a fraction over zero", "write it like 5/8")
	}
	if j+3 < len(p.toks) && p.toks[j+3].kind == '/' {
		return nil, 0, p.fail(p.toks[j+3].at, "two fraction bars", "write it like 5/8")
	}
	return new(big.Rat).Quo(top.num, below.num), j + 3, nil
}

// nanometres rounds halves up and checks the limit.
func (p *parser) nanometres(x *big.Rat) (Length, error) {
	limit := new(big.Rat).SetInt64(int64(p.reading.Limit))
	if x.Cmp(limit) > 0 {
		return 0, p.fail(0, "longer than "+p.reading.Limit.Format(FeetInches, 0), "check the unit and the decimal point")
	}
	x.Add(x, big.NewRat(1, 2))
	return Length(new(big.Int).Quo(x.Num(), x.Denom()).Int64()), nil
}
